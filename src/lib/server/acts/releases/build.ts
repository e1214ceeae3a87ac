import { and, asc, eq, inArray, max, sql } from 'drizzle-orm';
import { z } from 'zod';
import { Problem } from '../../../core/problem';
import type { Purpose } from '../../../core/revisions/revisions';
import { releaseNumber } from '../../../core/releases';
import type { Reach } from '../../access';
import type { Tx } from '../../db';
import { document, member, project, recipient, release, releaseItem, version } from '../../db/schema';
import { defineAct, type Project, type Release } from '../act';
import { day, id, name, projectKey } from '../fields';
import { visiblePlaces } from '../locate';

const MOST_ITEMS = 2_000;
const purpose = z.enum([
	'information',
	'comment',
	'approval',
	'construction',
	'as-built'
] satisfies Purpose[]);

async function checkParties(
	tx: Tx,
	here: Project,
	builder: string,
	approver: string,
	recipientId: string
): Promise<void> {
	if (approver === builder)
		throw new Problem('invalid', 'Nobody approves alone what they built. Choose a second person.', {
			field: 'approver'
		});
	const [who] = await tx
		.select()
		.from(member)
		.where(and(eq(member.projectId, here.id), eq(member.personId, approver)));
	if (!who)
		throw new Problem('invalid', 'The person who approves is not in this project.', { field: 'approver' });
	const [to] = await tx
		.select()
		.from(recipient)
		.where(and(eq(recipient.projectId, here.id), eq(recipient.id, recipientId)));
	if (!to)
		throw new Problem('invalid', 'The recipient is not on the distribution list.', { field: 'recipient' });
}

export const buildRelease = defineAct({
	name: 'buildRelease',
	summary: 'Start a release from chosen documents',
	method: 'POST',
	path: '/projects/{project}/releases',
	input: z.strictObject({
		project: projectKey,
		title: name,
		purpose,
		recipient: id,
		approver: id,
		replyBy: day.nullable().default(null),
		documents: z.array(id).max(MOST_ITEMS, `A release holds ${MOST_ITEMS} documents at most.`).default([])
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['release.built'],
	async run({ tx, project: here, person: by, reach, now, newId, tell }, input) {
		await checkParties(tx, here, by.id, input.approver, input.recipient);
		const [counted] = await tx
			.update(project)
			.set({ nextRelease: sql`${project.nextRelease} + 1` })
			.where(eq(project.id, here.id))
			.returning();
		const number = counted!.nextRelease - 1;
		const releaseId = newId();
		await tx.insert(release).values({
			id: releaseId,
			projectId: here.id,
			number,
			title: input.title,
			purpose: input.purpose,
			state: 'building',
			recipientId: input.recipient,
			approverId: input.approver,
			replyBy: input.replyBy,
			builtBy: by.id,
			createdAt: now
		});
		const added = await addItems(tx, reach, here.id, releaseId, input.documents);
		tell({
			kind: 'release.built',
			releaseId,
			details: { number, title: input.title, purpose: input.purpose, documents: added }
		});
		return { id: releaseId, number };
	}
});

async function addItems(
	tx: Tx,
	reach: Reach,
	projectId: string,
	releaseId: string,
	ids: string[]
): Promise<number> {
	const unique = [...new Set(ids)];
	const visible = (await visiblePlaces(tx, reach, unique)).filter(
		(p) => p.kind === 'document' && p.projectId === projectId
	);
	if (visible.length !== unique.length)
		throw new Problem('not-found', 'A document chosen is not there any more.');
	if (!unique.length) return 0;
	const [last] = await tx
		.select({ at: max(releaseItem.position) })
		.from(releaseItem)
		.where(eq(releaseItem.releaseId, releaseId));
	const rows = await tx
		.select({ id: document.id, versionId: version.id, label: version.label })
		.from(document)
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.where(inArray(document.id, unique))
		.orderBy(asc(document.number));
	const inserted = await tx
		.insert(releaseItem)
		.values(
			rows.map((r, i) => ({
				releaseId,
				documentId: r.id,
				versionId: r.versionId,
				fromLabel: r.label,
				position: (last?.at ?? -1) + 1 + i
			}))
		)
		.onConflictDoNothing()
		.returning({ id: releaseItem.documentId });
	return inserted.length;
}

/** Holds a release for a change of its build; a change after asking reopens it. */
export async function reopen(tx: Tx, releaseId: string): Promise<Release> {
	const [row] = await tx.select().from(release).where(eq(release.id, releaseId)).for('update');
	if (row!.state === 'issued' || row!.state === 'superseded')
		throw new Problem(
			'conflict',
			`Release ${releaseNumber(row!.number)} is issued; it cannot change any more.`
		);
	await tx
		.update(release)
		.set({ state: 'building', askedAt: null, approvedAt: null })
		.where(eq(release.id, releaseId));
	return row!;
}

export const changeRelease = defineAct({
	name: 'changeRelease',
	summary: 'Change the head of a release that is not issued; it needs approval again',
	method: 'PATCH',
	path: '/releases/{release}',
	input: z.strictObject({
		release: id,
		title: name,
		purpose,
		recipient: id,
		approver: id,
		replyBy: day.nullable().default(null)
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['release.changed'],
	async run(
		{ tx, project: here, release: about, tell },
		{ release: releaseId, recipient: recipientId, approver, ...head }
	) {
		const before = await reopen(tx, releaseId);
		await checkParties(tx, here, before.builtBy, approver, recipientId);
		await tx
			.update(release)
			.set({ ...head, recipientId, approverId: approver })
			.where(eq(release.id, releaseId));
		tell({
			kind: 'release.changed',
			releaseId,
			details: { number: about.number, title: head.title, purpose: head.purpose }
		});
		return {};
	}
});

export const addToRelease = defineAct({
	name: 'addToRelease',
	summary: 'Put documents in a release',
	method: 'POST',
	path: '/releases/{release}/documents',
	input: z.strictObject({ release: id, documents: z.array(id).min(1, 'Choose a document.').max(MOST_ITEMS) }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['release.changed'],
	async run({ tx, project: here, reach, release: about, tell }, input) {
		await reopen(tx, about.id);
		const added = await addItems(tx, reach, here.id, about.id, input.documents);
		tell({ kind: 'release.changed', releaseId: about.id, details: { number: about.number, added } });
		return { added };
	}
});

export const leaveOut = defineAct({
	name: 'leaveOut',
	summary: 'Leave a document out of a release',
	method: 'DELETE',
	path: '/releases/{release}/documents/{document}',
	input: z.strictObject({ release: id, document: id }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['release.changed'],
	async run({ tx, release: about, tell }, input) {
		await reopen(tx, about.id);
		const [gone] = await tx
			.delete(releaseItem)
			.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, input.document)))
			.returning();
		if (!gone) throw new Problem('conflict', 'The document is not in this release.');
		const [row] = await tx
			.select({ number: document.number })
			.from(document)
			.where(eq(document.id, input.document));
		tell({
			kind: 'release.changed',
			releaseId: about.id,
			details: { number: about.number, leftOut: row!.number }
		});
		return {};
	}
});

export const takeNewest = defineAct({
	name: 'takeNewest',
	summary: 'Take the newest version of a document into a release',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/newest',
	input: z.strictObject({ release: id, document: id }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['release.changed'],
	async run({ tx, release: about, tell }, input) {
		await reopen(tx, about.id);
		const [row] = await tx
			.select({ versionId: version.id, label: version.label, number: document.number })
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.where(eq(document.id, input.document));
		const done = row
			? await tx
					.update(releaseItem)
					.set({ versionId: row.versionId, fromLabel: row.label })
					.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, input.document)))
					.returning()
			: [];
		if (!row || !done.length) throw new Problem('conflict', 'The document is not in this release.');
		tell({
			kind: 'release.changed',
			releaseId: about.id,
			details: { number: about.number, newest: `${row.number} ${row.label}` }
		});
		return { label: row.label };
	}
});

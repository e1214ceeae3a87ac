import { and, asc, eq, inArray, isNull, max, sql } from 'drizzle-orm';
import * as contract from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { releaseNumber } from '../../core/releases';
import type { Reach } from '../access/reach';
import type { Tx } from '../platform/db';
import {
	document,
	member,
	person,
	project,
	recipient,
	release,
	releaseItem,
	releaseOverride,
	version
} from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { checkRelease } from './checks';
import { does, type Project } from '../platform/runner/act';
import { handsIn } from '../platform/runner/held-release';
import { visiblePlaces } from '../platform/runner/locate';

async function checkApprover(
	tx: Tx,
	here: Project,
	approver: string,
	hands: ReadonlySet<string>
): Promise<void> {
	const [who] = await tx
		.select({ name: person.name })
		.from(member)
		.innerJoin(person, eq(person.id, member.personId))
		.where(
			and(
				eq(member.projectId, here.id),
				eq(member.personId, approver),
				isNull(member.leftAt),
				isNull(member.blockedAt)
			)
		);
	if (!who)
		throw new Problem('invalid', 'The person who approves is not in this project.', { field: 'approver' });
	if (hands.has(approver))
		throw new Problem(
			'invalid',
			`${who.name} has a hand in this build, and nobody decides on what they built, changed or asked for. Choose a second person.`,
			{ field: 'approver' }
		);
}

async function checkRecipient(tx: Tx, here: Project, recipientId: string): Promise<void> {
	const [to] = await tx
		.select()
		.from(recipient)
		.where(and(eq(recipient.projectId, here.id), eq(recipient.id, recipientId)));
	if (!to)
		throw new Problem('invalid', 'The recipient is not on the distribution list.', { field: 'recipient' });
}

export const buildRelease = does(contract.buildRelease, {
	async run({ tx, project: here, person: by, reach, now, newId, tell }, input) {
		await checkApprover(tx, here, input.approver, new Set([by.id]));
		await checkRecipient(tx, here, input.recipient);
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

/** Opens the build of a release that is held, since it changes: whatever was approved is asked anew. */
export async function reopen(tx: Tx, releaseId: string): Promise<void> {
	await tx
		.update(release)
		.set({ state: 'building', askedAt: null, approvedAt: null, approvedDigest: null })
		.where(eq(release.id, releaseId));
}

export const changeRelease = does(contract.changeRelease, {
	async run({ tx, project: here, person: by, release: before, tell }, input) {
		// What is not named stays as it is.
		const next = {
			title: input.title ?? before.title,
			purpose: input.purpose ?? before.purpose,
			recipientId: input.recipient ?? before.recipientId,
			approverId: input.approver ?? before.approverId,
			replyBy: input.replyBy === undefined ? before.replyBy : input.replyBy
		};
		const changed = (Object.keys(next) as (keyof typeof next)[]).filter((key) => next[key] !== before[key]);
		if (!changed.length) return {};
		await checkApprover(tx, here, next.approverId, (await handsIn(tx, before.id)).add(by.id));
		await checkRecipient(tx, here, next.recipientId);
		await tx
			.update(release)
			.set({ ...next, state: 'building', askedAt: null, approvedAt: null, approvedDigest: null })
			.where(eq(release.id, before.id));
		const names = await tx
			.select({ id: person.id, name: person.name })
			.from(person)
			.where(inArray(person.id, [before.approverId, next.approverId]));
		const nameOf = (one: string) => names.find((n) => n.id === one)?.name ?? '';
		tell({
			kind: 'release.changed',
			releaseId: before.id,
			details: {
				number: before.number,
				title: next.title,
				purpose: next.purpose,
				changed: changed.map((key) => key.replace(/Id$/, '')),
				...(changed.includes('approverId')
					? { approver: nameOf(next.approverId), approverBefore: nameOf(before.approverId) }
					: {})
			}
		});
		return {};
	}
});

export const cancelRelease = does(contract.cancelRelease, {
	async run(context, input) {
		const { tx, person: by, release: about, now, tell } = context;
		await tx
			.update(release)
			.set({ state: 'cancelled', cancelledAt: now, cancelledReason: input.reason })
			.where(eq(release.id, about.id));
		if (about.state !== 'building' && about.approverId !== by.id)
			await tellNotices(context, {
				kind: 'approval-asked',
				people: [about.approverId],
				releaseId: about.id,
				sentence: `${by.name} cancelled release ${releaseNumber(about.number)}, “${about.title}”: ${input.reason}`,
				way: `releases/${about.number}`
			});
		tell({
			kind: 'release.cancelled',
			releaseId: about.id,
			details: { number: about.number, title: about.title, reason: input.reason }
		});
		return {};
	}
});

export const acceptChecks = does(contract.acceptChecks, {
	async run({ tx, services, person: by, release: about, now, tell }, input) {
		await reopen(tx, about.id);
		const items = await checkRelease(services, tx, about, false);
		for (const one of input.checks) {
			const item = items.find((i) => i.documentId === one.document);
			const check = item?.checks.find((c) => c.name === one.check);
			if (!item || check?.result !== 'look')
				throw new Problem(
					'conflict',
					`${item?.number ?? 'A document'} has nothing to look at there any more. Look at the checks again.`
				);
			const what = { sentence: check.sentence, reason: input.reason, decidedBy: by.id, decidedAt: now };
			await tx
				.insert(releaseOverride)
				.values({ releaseId: about.id, documentId: one.document, check: one.check, ...what })
				.onConflictDoUpdate({
					target: [releaseOverride.releaseId, releaseOverride.documentId, releaseOverride.check],
					set: what
				});
			tell({
				kind: 'release.accepted',
				releaseId: about.id,
				details: {
					number: about.number,
					document: item.number,
					check: one.check,
					sentence: check.sentence,
					reason: input.reason
				}
			});
		}
		return {};
	}
});

export const addToRelease = does(contract.addToRelease, {
	async run({ tx, project: here, reach, release: about, tell }, input) {
		await reopen(tx, about.id);
		const added = await addItems(tx, reach, here.id, about.id, input.documents);
		if (!added) throw new Problem('conflict', 'They are in this release already.');
		tell({ kind: 'release.changed', releaseId: about.id, details: { number: about.number, added } });
		return { added };
	}
});

export const leaveOut = does(contract.leaveOut, {
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

export const takeNewest = does(contract.takeNewest, {
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

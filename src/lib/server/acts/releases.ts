import { and, asc, eq, gt, inArray, max, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import canonicalize from 'canonicalize';
import { allows } from '../../core/access/levels';
import { splitExtension } from '../../core/names';
import { Problem } from '../../core/problem';
import { label, nextIssue, parse, PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
import { outgoingName, releaseNumber, worst, type Manifest } from '../../core/releases';
import type { Tx } from '../db';
import {
	content,
	document,
	lock,
	member,
	pass,
	person,
	place,
	project,
	recipient,
	release,
	releaseItem,
	version
} from '../db/schema';
import { coverNote } from '../formats/cover-note';
import { newSecret, secretHash } from '../ids';
import { checkRelease, releaseItems } from '../release-checks';
import { signingKey, signText } from '../signing';
import { sha256 } from '../trail';
import { defineAct, type Project, type Release } from './act';
import { day, id, name, projectKey, reason } from './fields';
import { visiblePlaces } from './run';

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
	input: z.object({
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
	reach: Parameters<typeof visiblePlaces>[1],
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
async function reopen(tx: Tx, releaseId: string): Promise<Release> {
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
	input: z.object({
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
	input: z.object({ release: id, documents: z.array(id).min(1, 'Choose a document.').max(MOST_ITEMS) }),
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
	input: z.object({ release: id, document: id }),
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
	input: z.object({ release: id, document: id }),
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

export const askApproval = defineAct({
	name: 'askApproval',
	summary: 'Ask for the approval of a release whose checks do not stop it',
	method: 'POST',
	path: '/releases/{release}/ask',
	input: z.object({ release: id }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['release.asked'],
	prepare: ({ services, tx, release: about }) => checkRelease(services, tx, about.id, false),
	async run({ tx, project: here, person: by, release: about, services, now, tell, mail }) {
		const before = await reopen(tx, about.id);
		const items = await checkRelease(services, tx, about.id, false);
		if (!items.length) throw new Problem('conflict', 'The release holds no documents.');
		const stopping = items.filter((i) => worst(i.checks) === 'stops');
		if (stopping.length)
			throw new Problem(
				'conflict',
				`${stopping.length} of ${items.length} documents stop the release. Mend them or leave them out first.`
			);
		await tx
			.update(release)
			.set({ state: 'in-review', askedAt: now, sentBackReason: null })
			.where(eq(release.id, about.id));
		const [approver] = await tx.select().from(person).where(eq(person.id, before.approverId));
		await mail(
			{ name: approver!.name, address: approver!.email },
			`${here.code} release ${releaseNumber(about.number)}: your approval is asked`,
			`Dear ${approver!.name},\n\n${by.name} asks you to approve release ${releaseNumber(about.number)}, “${about.title}” (${PURPOSE_LABEL[about.purpose].toLowerCase()}, ${items.length} documents).\n\n${services.config.origin}/${here.code.toLowerCase()}/releases/${about.number}\n`
		);
		tell({
			kind: 'release.asked',
			releaseId: about.id,
			details: { number: about.number, title: about.title, of: approver!.name }
		});
		return {};
	}
});

export const approveRelease = defineAct({
	name: 'approveRelease',
	summary: 'Approve a release',
	method: 'POST',
	path: '/releases/{release}/approval',
	input: z.object({ release: id }),
	at: { kind: 'release', id: (i) => i.release, who: 'approver' },
	events: ['release.approved'],
	async run({ tx, person: by, release: about, now, tell }) {
		if (about.builtBy === by.id) throw new Problem('conflict', 'Nobody approves alone what they built.');
		const done = await tx
			.update(release)
			.set({ state: 'approved', approvedAt: now })
			.where(and(eq(release.id, about.id), eq(release.state, 'in-review')))
			.returning();
		if (!done.length) throw new Problem('conflict', 'The release is not waiting for approval.');
		tell({
			kind: 'release.approved',
			releaseId: about.id,
			details: { number: about.number, title: about.title }
		});
		return {};
	}
});

export const sendBack = defineAct({
	name: 'sendBack',
	summary: 'Send a release back to its builder with a reason',
	method: 'POST',
	path: '/releases/{release}/send-back',
	input: z.object({ release: id, reason }),
	at: { kind: 'release', id: (i) => i.release, who: 'approver' },
	events: ['release.sent-back'],
	async run({ tx, project: here, person: by, release: about, services, tell, mail }, input) {
		const done = await tx
			.update(release)
			.set({ state: 'building', askedAt: null, sentBackReason: input.reason })
			.where(and(eq(release.id, about.id), eq(release.state, 'in-review')))
			.returning();
		if (!done.length) throw new Problem('conflict', 'The release is not waiting for approval.');
		const [builder] = await tx.select().from(person).where(eq(person.id, about.builtBy));
		await mail(
			{ name: builder!.name, address: builder!.email },
			`${here.code} release ${releaseNumber(about.number)} was sent back`,
			`Dear ${builder!.name},\n\n${by.name} sent release ${releaseNumber(about.number)}, “${about.title}”, back:\n\n${input.reason}\n\n${services.config.origin}/${here.code.toLowerCase()}/releases/${about.number}\n`
		);
		tell({
			kind: 'release.sent-back',
			releaseId: about.id,
			details: { number: about.number, title: about.title, reason: input.reason }
		});
		return {};
	}
});

interface Plan {
	items: {
		documentId: string;
		fromVersionId: string;
		fromLabel: string;
		to: string;
		hash: string;
		fileName: string;
		outgoing: string;
		fresh: boolean;
	}[];
	manifest: Manifest;
	note: { hash: string; size: number };
	signature: string;
}

/** Works out what issuing will do and stores the cover note; nothing of the project changes. */
async function planIssue(context: Parameters<NonNullable<typeof issueRelease.prepare>>[0]): Promise<Plan> {
	const { services, tx, project: here, release: about, person: by, now } = context;
	const checked = await checkRelease(services, tx, about.id, true);
	const stopping = checked.filter((c) => worst(c.checks) === 'stops');
	if (!checked.length) throw new Problem('conflict', 'The release holds no documents.');
	if (stopping.length) {
		const first = stopping[0]!;
		throw new Problem(
			'conflict',
			`${first.number}: ${first.checks.find((c) => c.result === 'stops')!.sentence} Nothing was issued.`
		);
	}
	const scheme = here.settings.revisions;
	const rows = await releaseItems(tx, about.id);
	const items = rows.map((row) => {
		const current = parse(scheme, row.chosenLabel);
		if (!current)
			throw new Problem('conflict', `${row.number}: ${row.chosenLabel} does not fit the revision scheme.`);
		const to = label(scheme, nextIssue(scheme, current, about.purpose));
		const outgoing = outgoingName(row.number, to, row.title, splitExtension(row.fileName)[1]);
		return {
			documentId: row.documentId,
			fromVersionId: row.versionId,
			fromLabel: row.chosenLabel,
			to,
			hash: row.hash,
			fileName: row.fileName,
			outgoing,
			fresh: to !== row.chosenLabel,
			size: row.size,
			number: row.number,
			title: row.title
		};
	});
	const [approver] = await tx.select().from(person).where(eq(person.id, about.approverId));
	const [to] = await tx.select().from(recipient).where(eq(recipient.id, about.recipientId));
	const manifest: Manifest = {
		format: 'cupboard-manifest/1',
		project: `${here.code} ${here.name}`,
		release: releaseNumber(about.number),
		title: about.title,
		purpose: about.purpose,
		issuedAt: now.toISOString(),
		issuedBy: by.name,
		approvedBy: approver!.name,
		recipient: `${to!.name}, ${to!.company}`,
		documents: items.map((i) => ({
			number: i.number,
			title: i.title,
			revision: i.to,
			file: i.outgoing,
			size: i.size,
			sha256: i.hash
		}))
	};
	const bytes = await coverNote(manifest, about.replyBy);
	const note = await services.store.put(oneChunk(bytes), bytes.byteLength);
	const signature = signText(signingKey(services.config.home), canonicalize(manifest)!);
	return { items, manifest, note, signature };
}

async function* oneChunk(bytes: Uint8Array) {
	yield bytes;
}

const issueInput = z.object({ release: id, passDays: z.number().int().min(1).max(730).default(60) });

export const issueRelease = defineAct({
	name: 'issueRelease',
	summary: 'Issue an approved release: fix revisions, pin hashes, send the pass',
	method: 'POST',
	path: '/releases/{release}/issue',
	input: issueInput,
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['release.issued', 'document.issued', 'release.superseded'],
	prepare: (context): Promise<unknown> => planIssue(context),
	async run(
		{ tx, project: here, person: by, release: about, services, now, newId, prepared, tell, mail },
		input
	) {
		const plan = prepared as Plan;
		const [held] = await tx.select().from(release).where(eq(release.id, about.id)).for('update');
		if (held!.state !== 'approved')
			throw new Problem(
				'conflict',
				held!.state === 'issued' ? 'The release is issued already.' : 'The release needs its approval first.'
			);
		const ids = plan.items.map((i) => i.documentId);
		const documents = await tx
			.select()
			.from(document)
			.where(inArray(document.id, ids))
			.orderBy(asc(document.id))
			.for('update');
		const open = await tx
			.select()
			.from(lock)
			.where(and(inArray(lock.documentId, ids), sql`ended_at is null`));
		const chosen = await tx.select().from(releaseItem).where(eq(releaseItem.releaseId, about.id));
		const asPlanned =
			chosen.length === plan.items.length &&
			plan.items.every(
				(i) =>
					documents.some((d) => d.id === i.documentId && d.live && d.currentVersionId === i.fromVersionId) &&
					chosen.some((c) => c.versionId === i.fromVersionId)
			);
		if (!asPlanned || open.length)
			throw new Problem(
				'conflict',
				'A document changed while the release was being issued. Nothing was issued; run the checks again.'
			);

		await tx
			.insert(content)
			.values({ ...plan.note, mediaType: 'application/pdf', createdAt: now })
			.onConflictDoNothing();
		const state = ['construction', 'as-built'].includes(about.purpose) ? 'published' : 'shared';
		const reissued = plan.items.filter((i) => i.fresh).map((i) => i.documentId);
		for (const item of plan.items) {
			const row = documents.find((d) => d.id === item.documentId)!;
			let versionId = item.fromVersionId;
			if (item.fresh) {
				versionId = newId();
				const [last] = await tx
					.select({ seq: max(version.seq) })
					.from(version)
					.where(eq(version.documentId, row.id));
				await tx.insert(version).values({
					id: versionId,
					documentId: row.id,
					seq: last!.seq! + 1,
					label: item.to,
					issued: true,
					hash: item.hash,
					fileName: item.fileName,
					note: `Issued ${PURPOSE_LABEL[about.purpose].toLowerCase()} in ${releaseNumber(about.number)}`,
					releaseId: about.id,
					createdBy: by.id,
					createdAt: now
				});
			}
			await tx
				.update(document)
				.set({
					currentVersionId: versionId,
					versions: row.versions + (item.fresh ? 1 : 0),
					state,
					changedAt: now,
					changedBy: by.id
				})
				.where(eq(document.id, row.id));
			await tx
				.update(releaseItem)
				.set({ versionId, fromLabel: item.fromLabel, pinnedHash: item.hash, outgoingName: item.outgoing })
				.where(and(eq(releaseItem.releaseId, about.id), eq(releaseItem.documentId, row.id)));
			tell({
				kind: 'document.issued',
				placeId: row.id,
				documentId: row.id,
				releaseId: about.id,
				details: {
					number: row.number,
					label: item.to,
					from: item.fromLabel,
					release: about.number,
					hash: item.hash
				}
			});
		}
		const manifestText = canonicalize(plan.manifest)!;
		await tx
			.update(release)
			.set({
				state: 'issued',
				issuedAt: now,
				issuedBy: by.id,
				manifest: plan.manifest,
				manifestHash: sha256(manifestText),
				manifestSignature: plan.signature,
				coverNoteHash: plan.note.hash
			})
			.where(eq(release.id, about.id));
		for (const number of await supersede(tx, here.id, about.id, reissued))
			tell({
				kind: 'release.superseded',
				releaseId: number.id,
				details: { number: number.number, by: about.number }
			});

		const [to] = await tx.select().from(recipient).where(eq(recipient.id, about.recipientId));
		const secret = newSecret();
		const endsAt = new Date(now.getTime() + input.passDays * 86_400_000);
		await tx.insert(pass).values({
			id: newId(),
			projectId: here.id,
			releaseId: about.id,
			secretHash: secretHash(secret),
			holderName: to!.name,
			holderEmail: to!.email,
			endsAt,
			createdAt: now
		});
		const link = `${services.config.origin}/pass/${secret}`;
		await mail(
			{ name: to!.name, address: to!.email },
			`${here.code} release ${releaseNumber(about.number)}: ${about.title}`,
			`Dear ${to!.name},\n\n${by.name} sends you release ${releaseNumber(about.number)}, “${about.title}”, ${PURPOSE_LABEL[about.purpose].toLowerCase()}: ${plan.items.length} ${plan.items.length === 1 ? 'document' : 'documents'}.\n\nOpen it here, no account is needed:\n${link}\n\nThe link works until ${endsAt.toISOString().slice(0, 10)}.${about.replyBy ? ` Please reply by ${about.replyBy}.` : ''}\n`
		);
		tell({
			kind: 'release.issued',
			releaseId: about.id,
			details: {
				number: about.number,
				title: about.title,
				purpose: about.purpose,
				documents: plan.items.length,
				to: to!.company,
				manifest: sha256(manifestText)
			}
		});
		return { number: about.number, documents: plan.items.length, pass: link };
	}
});

/** Marks earlier releases whose every document has a later issued revision. */
async function supersede(tx: Tx, projectId: string, releaseId: string, reissued: string[]) {
	if (!reissued.length) return [];
	const later = tx
		.select({ one: sql`1` })
		.from(releaseItem)
		.innerJoin(version, eq(version.id, releaseItem.versionId))
		.where(
			and(
				eq(releaseItem.releaseId, release.id),
				sql`not exists (select 1 from version n where n.document_id = ${version.documentId} and n.issued and n.seq > ${version.seq})`
			)
		);
	return tx
		.update(release)
		.set({ state: 'superseded' })
		.where(
			and(
				eq(release.projectId, projectId),
				eq(release.state, 'issued'),
				ne(release.id, releaseId),
				sql`not exists ${later}`
			)
		)
		.returning({ id: release.id, number: release.number });
}

export const withdrawPass = defineAct({
	name: 'withdrawPass',
	summary: 'Withdraw the pass of a release',
	method: 'DELETE',
	path: '/releases/{release}/pass',
	input: z.object({ release: id }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' },
	events: ['pass.withdrawn'],
	async run({ tx, person: by, release: about, now, tell }) {
		const done = await tx
			.update(pass)
			.set({ withdrawnAt: now, withdrawnBy: by.id })
			.where(and(eq(pass.releaseId, about.id), sql`withdrawn_at is null`, gt(pass.endsAt, now)))
			.returning();
		if (!done.length) throw new Problem('conflict', 'The release has no pass that is still open.');
		tell({
			kind: 'pass.withdrawn',
			releaseId: about.id,
			details: { number: about.number, holder: done[0]!.holderName }
		});
		return {};
	}
});

export const downloadFromRelease = defineAct({
	name: 'downloadFromRelease',
	summary:
		'Note that a document of a release was opened by somebody on its route, and say which bytes to send',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/opened',
	input: z.object({ release: id, document: id }),
	at: { kind: 'release', id: (i) => i.release, who: 'route' },
	events: ['document.opened'],
	async run({ tx, release: about, reach, tell }, input) {
		const row = (await releaseItems(tx, about.id)).find((i) => i.documentId === input.document);
		if (!row) throw new Problem('not-found', 'The document is not in this release.');
		const [at] = await tx.select().from(place).where(eq(place.id, row.documentId));
		tell({
			kind: 'document.opened',
			placeId: row.documentId,
			documentId: row.documentId,
			releaseId: about.id,
			details: {
				number: row.number,
				label: row.chosenLabel,
				release: about.number,
				byRoute: !allows(reach.level(at!.scope), 'look')
			}
		});
		return {
			hash: row.hash,
			fileName: row.fileName,
			number: row.number,
			title: row.title,
			label: row.chosenLabel
		};
	}
});

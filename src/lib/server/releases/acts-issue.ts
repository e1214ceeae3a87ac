import { and, asc, eq, gt, inArray, max, ne, sql } from 'drizzle-orm';
import canonicalize from 'canonicalize';
import * as contract from '../../contract/releases';
import { stateIssued } from '../../core/documents/state';
import { Problem } from '../../core/acts/problem';
import { groupedBy } from '../../core/lists/group';
import { PURPOSE_LABEL } from '../../core/revisions/revisions';
import { MEDIA_TYPE } from '../../core/files/media';
import { isApproved, releaseNumber, worst } from '../../core/releases';
import type { Tx } from '../platform/db';
import type { Services } from '../platform/services';
import { document, lock, pass, release, releaseItem, version } from '../platform/db/schema';
import { keepMade } from '../content/content';
import { buildOf, checkRelease } from './checks';
import { signingCertificate } from '../platform/certificate';
import { signPdf } from '../platform/sign-pdf';
import { signingKey, signText } from '../platform/signing';
import { sha256 } from '../trail/write';
import { goingOut, makeCopies, type Outgoing } from './outgoing';
import { draftPapers, type Draft } from './papers';
import { companies, recipientsOf } from './recipients';
import { sendTo, type Paper, type Sent } from './sending';
import { decisionsOf } from '../platform/runner/on-route';
import { checkTimeCode, useTimeCode, WRONG_CODE } from '../platform/auth/time-code';
import { does, type Acting, type ContextOf, type Project } from '../platform/runner/act';

interface Plan {
	items: Outgoing[];
	/** What stands for the release as a whole, and what each recipient gets. */
	whole: Paper;
	each: Sent[];
	digest: string;
	/** The time code that was right; null where none was asked for. */
	timeCode: string | null;
}

/** Works out what issuing will do, and stores the cover notes and what is sent in the stead of documents; nothing of the project changes. */
async function planIssue(
	context: Parameters<NonNullable<typeof issueRelease.prepare>>[0]
): Promise<Omit<Plan, 'timeCode'>> {
	const { services, tx, project: here, release: about, person: by, now } = context;
	const checked = await checkRelease(services, tx, about, true);
	const stopping = checked.filter((c) => worst(c.checks) !== 'fine');
	if (stopping.length) {
		const first = stopping[0]!;
		throw new Problem(
			'conflict',
			`${first.number}: ${first.checks.find((c) => c.result !== 'fine' && !(c.result === 'look' && c.accepted))!.sentence} Nothing was issued.`
		);
	}
	const { digest } = await buildOf(tx, about, checked);
	const items = await goingOut(tx, about, here, checked);
	await makeCopies(services, about, here, now, items);
	const { whole, each } = await draftPapers(tx, about, here, by.name, now, { checked, digest }, items);
	const certificate = await signingCertificate(services.config);
	const signed = async ({ manifest }: Draft, written: Uint8Array): Promise<Paper> => {
		const text = canonicalize(manifest)!;
		const bytes = await signPdf(written, certificate, now);
		return {
			manifest,
			hash: sha256(text),
			signature: signText(signingKey(services.config.home), text),
			note: await keepMade(services, bytes, MEDIA_TYPE.pdf, now)
		};
	};
	// What stands for the whole is what goes to the only one who gets it.
	const drafts = [...each.map(({ draft }) => draft), ...(each.length > 1 ? [whole] : [])];
	const notes = await notesOf(services, drafts);
	const papers = await Promise.all(drafts.map((draft, i) => signed(draft, notes[i]!)));
	const sent = each.map(({ to, draft }, i) => ({
		to,
		paper: papers[i]!,
		documents: draft.manifest.documents.length
	}));
	return { items, whole: papers.at(-1)!, each: sent, digest };
}

/** The cover notes of drafts, in their order. Those that differ only in whom they go to are written together. */
async function notesOf(services: Services, drafts: Draft[]): Promise<Uint8Array[]> {
	const alike = groupedBy(drafts.keys(), (i) => JSON.stringify({ ...drafts[i]!.manifest, recipient: '' }));
	const notes: Uint8Array[] = [];
	await Promise.all(
		[...alike.values()].map(async (places) => {
			const to = places.map((i) => ({
				recipient: drafts[i]!.manifest.recipient,
				replyBy: drafts[i]!.replyBy
			}));
			const written = await services.inspector.coverNotes(drafts[places[0]!]!.manifest, to);
			places.forEach((i, n) => (notes[i] = written[n]!));
		})
	);
	return notes;
}

/** Whether a project asks for a code of two-step sign-in where others have the number typed (T11). */
const asksCode = ({ project: here }: { project: Project }) => here.settings.issueNeeds === 'code';

export const issueRelease = does(contract.issueRelease, {
	async prepare(context, input): Promise<Plan> {
		const asked = asksCode(context);
		if (asked) {
			if (!input.timeCode)
				throw new Problem('invalid', 'Give the code that your authenticator shows now. Nothing was issued.', {
					field: 'timeCode'
				});
			await checkTimeCode(context.services, context.person.id, input.timeCode);
		}
		return { ...(await planIssue(context)), timeCode: asked ? input.timeCode! : null };
	},
	async run(context, input) {
		const { tx, project: here, person: by, release: about, now, prepared, tell, enqueue } = context;
		const plan = prepared as Plan;
		if (asksCode(context)) {
			// The project may have begun to ask for one since: what was not checked issues nothing.
			if (plan.timeCode === null || !(await useTimeCode(tx, by.id, plan.timeCode, now)))
				throw new Problem('invalid', WRONG_CODE, { field: 'timeCode' });
		} else if (input.number !== about.number)
			throw new Problem(
				'invalid',
				`This is release ${releaseNumber(about.number)}. Type its number to issue it. Nothing was issued.`,
				{ field: 'number' }
			);
		if (!isApproved(about.route, await decisionsOf(tx, about.id), plan.digest))
			throw new Problem(
				'conflict',
				'The release is not what was approved any more. Nothing was issued; ask for approval again.'
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

		const passwordOf = new Map(input.passwords.map((one) => [one.recipient, one.password]));
		for (const { to } of plan.each)
			if ((to.asks === 'password') !== passwordOf.has(to.recipientId))
				throw new Problem(
					'invalid',
					to.asks === 'password'
						? `Give the password that the pass of ${to.name} is to ask for. Nothing was issued.`
						: `The pass of ${to.name} asks for no password. Nothing was issued.`,
					{ field: 'passwords' }
				);
		const state = stateIssued(about.purpose, here.settings.publishingPurposes);
		const reissued = plan.items.filter((i) => i.fresh).map((i) => i.documentId);
		const versions = await fixRevisions(context, plan.items);
		await pin(tx, about.id, plan.items, versions);
		await tx
			.update(document)
			.set({ state, changedAt: now, changedBy: by.id })
			.where(inArray(document.id, ids));
		for (const { documentId, number, to, fromLabel, hash, copy } of plan.items)
			tell({
				kind: 'document.issued',
				placeId: documentId,
				documentId,
				releaseId: about.id,
				details: {
					number,
					label: to,
					from: fromLabel,
					release: about.number,
					hash,
					...(copy ? { sent: copy.hash } : {})
				}
			});
		await tx
			.update(release)
			.set({
				state: 'issued',
				issuedAt: now,
				issuedBy: by.id,
				manifest: plan.whole.manifest,
				manifestHash: plan.whole.hash,
				manifestSignature: plan.whole.signature,
				coverNoteHash: plan.whole.note.hash
			})
			.where(eq(release.id, about.id));
		for (const number of await supersede(tx, here.id, about.id, reissued))
			tell({
				kind: 'release.superseded',
				releaseId: number.id,
				details: { number: number.number, by: about.number }
			});

		const passes: Awaited<ReturnType<typeof sendTo>>[] = [];
		for (const one of plan.each)
			passes.push(
				await sendTo(context, one, {
					passDays: input.passDays,
					password: passwordOf.get(one.to.recipientId) ?? null
				})
			);
		tell({
			kind: 'release.issued',
			releaseId: about.id,
			details: {
				number: about.number,
				title: about.title,
				purpose: about.purpose,
				documents: plan.items.length,
				to: companies(plan.each.map(({ to }) => to)),
				manifest: plan.whole.hash,
				note: plan.whole.note.hash,
				...(plan.each.length > 1
					? {
							each: plan.each.map(({ to, paper }) => ({
								to: `${to.name}, ${to.company}`,
								manifest: paper.hash,
								note: paper.note.hash
							}))
						}
					: {})
			}
		});
		await enqueue('sign-heads', { project: here.id });
		return { number: about.number, documents: plan.items.length, passes };
	}
});

/**
 * Makes the issued version of each document that gets a new revision, and makes it the current one.
 * @returns the version of each document that goes out, by document
 */
async function fixRevisions(
	{ tx, person: by, release: about, now, newId }: ContextOf['release'] & Acting,
	items: readonly Outgoing[]
): Promise<Map<string, string>> {
	const going = new Map(items.map((item) => [item.documentId, item.fromVersionId]));
	const fresh = items.filter((item) => item.fresh);
	if (!fresh.length) return going;
	const last = await tx
		.select({ id: version.documentId, seq: max(version.seq) })
		.from(version)
		.where(
			inArray(
				version.documentId,
				fresh.map((item) => item.documentId)
			)
		)
		.groupBy(version.documentId);
	const seqOf = new Map(last.map((row) => [row.id, row.seq!]));
	const made = fresh.map(() => newId());
	await tx.insert(version).values(
		fresh.map((item, i) => {
			const id = made[i]!;
			going.set(item.documentId, id);
			return {
				id,
				documentId: item.documentId,
				seq: seqOf.get(item.documentId)! + 1,
				label: item.to,
				issued: true,
				hash: item.hash,
				fileName: item.fileName,
				note: `Issued ${PURPOSE_LABEL[about.purpose].toLowerCase()} in ${releaseNumber(about.number)}`,
				releaseId: about.id,
				createdBy: by.id,
				createdAt: now
			};
		})
	);
	await tx.execute(sql`update document d set current_version_id = v.id, versions = d.versions + 1
		from version v where v.document_id = d.id and v.id = any(${sql.param(made)}::text[])`);
	return going;
}

/** Pins what goes out: of each document its version and bytes, what is sent in their stead, and under which name. */
async function pin(
	tx: Tx,
	releaseId: string,
	items: readonly Outgoing[],
	versions: ReadonlyMap<string, string>
): Promise<void> {
	const rows = items.map((item) => ({
		document: item.documentId,
		version: versions.get(item.documentId)!,
		label: item.fromLabel,
		pinned: item.hash,
		copy: item.copy?.hash ?? null,
		name: item.outgoing
	}));
	await tx.execute(sql`update release_item i set version_id = r.version, from_label = r.label,
			pinned_hash = r.pinned, copy_hash = r.copy, outgoing_name = r.name
		from json_to_recordset(${JSON.stringify(rows)}::json)
			as r(document text, version text, label text, pinned text, copy text, name text)
		where i.release_id = ${releaseId} and i.document_id = r.document`);
}

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

export const withdrawPass = does(contract.withdrawPass, {
	async run({ tx, person: by, release: about, now, tell }, input) {
		const to = (await recipientsOf(tx, about.id)).find((one) => one.recipientId === input.recipient);
		if (!to?.passId) throw new Problem('conflict', 'They have no pass of this release.');
		const done = await tx
			.update(pass)
			.set({ withdrawnAt: now, withdrawnBy: by.id })
			.where(and(eq(pass.id, to.passId), sql`withdrawn_at is null`, gt(pass.endsAt, now)))
			.returning();
		if (!done.length) throw new Problem('conflict', `The pass of ${to.name} is not open any more.`);
		// Their colleagues answer for them, and so no more than they.
		await tx
			.update(pass)
			.set({ withdrawnAt: now, withdrawnBy: by.id })
			.where(and(eq(pass.alongWith, to.passId), sql`withdrawn_at is null`));
		tell({
			kind: 'pass.withdrawn',
			releaseId: about.id,
			details: { pass: done[0]!.id, number: about.number, holder: done[0]!.holderName }
		});
		return {};
	}
});

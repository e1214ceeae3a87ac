import { and, asc, eq, gt, isNotNull, sql, type SQL } from 'drizzle-orm';
import canonicalize from 'canonicalize';
import { releaseNumber, type Manifest } from '../../core/releases';
import { firstFault, GENESIS } from '../../core/trail/chain';
import { headText } from '../../core/trail/head';
import type { Database, Querier } from '../platform/db';
import {
	chainHead,
	content,
	event,
	project,
	recipient,
	release,
	releaseRecipient
} from '../platform/db/schema';
import { keptHeads } from './heads';
import { signingKey, verifyText } from '../platform/signing';
import type { Store } from '../platform/store/store';
import { sha256 } from './write';

const PAGE = 5_000;

export interface Verified {
	projects: number;
	events: number;
	heads: number;
	releases: number;
	objects: number;
	/** The first fault found, in a sentence, or null. */
	fault: string | null;
}

/** Stops at the first fault. */
class Fault extends Error {}

/**
 * Checks all that the trail and a release stand on: every project's chain to its head (V2), the heads signed and kept
 * outside the database, every version, approval, pinned hash and verdict against the event that told of it, the
 * manifests' signatures, and every stored object against its hash (L8).
 *
 * @param home where the signing key and the signed heads lie
 */
export async function verifyAll({ db }: Database, store: Store, home: string): Promise<Verified> {
	const result: Verified = { projects: 0, events: 0, heads: 0, releases: 0, objects: 0, fault: null };
	try {
		for (const one of await db
			.select({ id: project.id, code: project.code })
			.from(project)
			.orderBy(asc(project.code))) {
			result.events += await checkChain(db, one);
			await checkRecords(db, one);
			result.projects++;
		}
		result.heads = await checkHeads(db, home);
		result.releases = await checkManifests(db, home);
		for (const { hash } of await db.select({ hash: content.hash }).from(content).orderBy(asc(content.hash))) {
			if (!(await store.holds(hash)))
				throw new Fault(`The stored object ${hash} is gone or no longer has its hash.`);
			result.objects++;
		}
	} catch (error) {
		if (!(error instanceof Fault)) throw error;
		result.fault = error.message;
	}
	return result;
}

interface One {
	id: string;
	code: string;
}

/** Every entry follows the one before, says who did it as it was written, and the last is the head. */
async function checkChain(db: Querier, one: One): Promise<number> {
	let start = { seq: 0, hash: GENESIS };
	for (;;) {
		const rows = await db
			.select()
			.from(event)
			.where(and(eq(event.projectId, one.id), gt(event.seq, start.seq)))
			.orderBy(asc(event.seq))
			.limit(PAGE);
		if (!rows.length) break;
		const chained = rows.map((r) => ({
			seq: r.seq,
			at: r.at.toISOString(),
			actor: r.actor,
			kind: r.kind,
			place: r.placeId,
			document: r.documentId,
			release: r.releaseId,
			details: r.details,
			previous: r.previous,
			hash: r.hash
		}));
		const fault = firstFault(chained, sha256, start);
		if (fault) throw new Fault(`${one.code}: ${fault.sentence}`);
		// The name stands in the hashed details; the column is for reading and has to say the same.
		const renamed = rows.find((r) => r.actorName !== r.details.by);
		if (renamed)
			throw new Fault(
				`${one.code}: Entry ${renamed.seq} was written of ${String(renamed.details.by)} and now names ${renamed.actorName}.`
			);
		start = { seq: rows.at(-1)!.seq, hash: rows.at(-1)!.hash };
	}
	if (start.seq === 0)
		throw new Fault(`${one.code}: the project has no entries, though its making was written down.`);
	const [head] = await db.select().from(chainHead).where(eq(chainHead.projectId, one.id));
	if (!head) throw new Fault(`${one.code}: the head of the chain is gone.`);
	if (head.seq !== start.seq || head.hash !== start.hash)
		throw new Fault(`${one.code}: the chain ends at entry ${start.seq}, but ${head.seq} were written.`);
	return start.seq;
}

const TELLS_OF_VERSION = [
	'document.added',
	'document.issued',
	'document.revised',
	'version.handed-in',
	'version.saved',
	'version.merged',
	'version.restored'
];

/** Each statement gives what stands in the tables and no longer agrees with the entry that told of it. */
const RECORDS: { what: (row: Record<string, string>) => string; of: (projectId: string) => SQL }[] = [
	{
		what: (r) => `${r.number} ${r.label} is not the file that was written down when it came in.`,
		of: (projectId) => sql`
			select d.number, v.label from version v
			join document d on d.id = v.document_id join place p on p.id = d.id
			where p.project_id = ${projectId} and not exists (
				select 1 from event e where e.document_id = v.document_id
				and e.kind in ${TELLS_OF_VERSION} and e.details->>'label' = v.label and e.details->>'hash' = v.hash)`
	},
	{
		what: (r) => `${r.number} ${r.label} was written down at entry ${r.seq} and is gone, or changed since.`,
		of: (projectId) => sql`
			select e.details->>'number' as number, e.details->>'label' as label, e.seq from event e
			where e.project_id = ${projectId} and e.kind in ${TELLS_OF_VERSION} and e.details ? 'hash'
			and not exists (select 1 from version v where v.document_id = e.document_id
				and v.label = e.details->>'label' and v.hash = e.details->>'hash')`
	},
	{
		what: (r) =>
			`Side version ${r.label} of ${r.number} is not the file that was written down when it came in.`,
		of: (projectId) => sql`
			select d.number, s.number::text as label from side_version s
			join document d on d.id = s.document_id join place p on p.id = d.id
			where p.project_id = ${projectId} and not exists (
				select 1 from event e where e.document_id = s.document_id and e.kind = 'version.set-beside'
				and e.details->>'side' = s.number::text and e.details->>'hash' = s.hash)`
	},
	{
		what: (r) => `Release ${r.label}: ${r.number} is not the file that was issued.`,
		of: (projectId) => sql`
			select d.number, lpad(r.number::text, 4, '0') as label from release_item i
			join release r on r.id = i.release_id join document d on d.id = i.document_id
			where r.project_id = ${projectId} and r.issued_at is not null and not exists (
				select 1 from event e where e.release_id = r.id and e.document_id = i.document_id
				and e.kind = 'document.issued' and e.details->>'hash' = i.pinned_hash
				and e.details->>'sent' is not distinct from i.copy_hash)`
	},
	{
		what: (r) => `Release ${r.label}: ${r.number} was issued at entry ${r.seq} and is not in it any more.`,
		of: (projectId) => sql`
			select e.details->>'number' as number, lpad(e.details->>'release', 4, '0') as label, e.seq from event e
			where e.project_id = ${projectId} and e.kind = 'document.issued' and not exists (
				select 1 from release_item i join release r on r.id = i.release_id
				where i.release_id = e.release_id and i.document_id = e.document_id
				and r.issued_at is not null and i.pinned_hash = e.details->>'hash'
				and i.copy_hash is not distinct from e.details->>'sent')`
	},
	{
		what: (r) => `Release ${r.label}: what was approved is not what stands there as approved.`,
		of: (projectId) => sql`
			select lpad(r.number::text, 4, '0') as label from release_decision d join release r on r.id = d.release_id
			where r.project_id = ${projectId} and d.says = 'approved' and d.digest <> '' and not exists (
				select 1 from event e where e.release_id = r.id and e.kind = 'release.approved'
				and e.actor = d.person_id and e.details->>'digest' = d.digest)`
	},
	{
		what: (r) => `Release ${r.label}: its manifest is not the one that was issued.`,
		of: (projectId) => sql`
			select lpad(e.details->>'number', 4, '0') as label from event e
			where e.project_id = ${projectId} and e.kind = 'release.issued' and not exists (
				select 1 from release r where r.id = e.release_id and r.issued_at is not null
				and r.manifest_hash = e.details->>'manifest'
				and (e.details->>'note' is null or r.cover_note_hash = e.details->>'note'))`
	},
	{
		what: (r) => `Release ${r.label}: what went to ${r.number} is not what was issued to them.`,
		of: (projectId) => sql`
			select lpad(r.number::text, 4, '0') as label, t.name as number
			from release_recipient rr join release r on r.id = rr.release_id join recipient t on t.id = rr.recipient_id
			where r.project_id = ${projectId} and r.issued_at is not null and not exists (
				select 1 from event e where e.release_id = r.id and e.kind = 'release.issued' and case
					when e.details->'each' is null then rr.manifest_hash = e.details->>'manifest'
						and (e.details->>'note' is null or rr.cover_note_hash = e.details->>'note')
					else e.details->'each' @> jsonb_build_array(jsonb_build_object('manifest', rr.manifest_hash, 'note', rr.cover_note_hash)) end)`
	},
	{
		what: (r) => `Release ${r.label}: nobody made this one out of the verdicts on ${r.number}.`,
		of: (projectId) => sql`
			select lpad(r.number::text, 4, '0') as label, d.number
			from release_item i join release r on r.id = i.release_id join document d on d.id = i.document_id
			where r.project_id = ${projectId} and i.outcome_by is not null and not exists (
				select 1 from event e where e.release_id = r.id and e.document_id = i.document_id
				and e.kind = 'verdict.consolidated' and e.actor = i.outcome_by and e.details->>'code' = i.outcome)`
	},
	{
		what: (r) => `Release ${r.label} stands as issued, and no entry tells of its issue.`,
		of: (projectId) => sql`
			select lpad(r.number::text, 4, '0') as label from release r
			where r.project_id = ${projectId} and r.issued_at is not null and not exists (
				select 1 from event e where e.release_id = r.id and e.kind = 'release.issued')`
	},
	{
		what: (r) => `Release ${r.label}: the verdict on ${r.number} is not the one that was signed.`,
		of: (projectId) => sql`
			select d.number, lpad(r.number::text, 4, '0') as label from verdict v
			join pass x on x.id = v.pass_id join release r on r.id = x.release_id
			join document d on d.id = v.document_id
			where r.project_id = ${projectId} and v.signed_at is not null and not exists (
				select 1 from event e where e.release_id = r.id and e.document_id = v.document_id
				and e.kind = 'verdict.given' and e.details->>'code' = v.code and e.details->>'remark' = v.remark
				and e.details->>'signed' = v.signed_name and e.at = v.signed_at)`
	},
	{
		what: (r) => `Release ${r.label}: the verdict on ${r.number}, signed at entry ${r.seq}, is gone.`,
		of: (projectId) => sql`
			select e.details->>'number' as number, lpad(e.details->>'release', 4, '0') as label, e.seq from event e
			where e.project_id = ${projectId} and e.kind = 'verdict.given' and not exists (
				select 1 from verdict v join pass x on x.id = v.pass_id
				where x.release_id = e.release_id and v.document_id = e.document_id
				and v.signed_at is not null and v.code = e.details->>'code')`
	}
];

async function checkRecords(db: Querier, one: One): Promise<void> {
	for (const { what, of } of RECORDS) {
		const [wrong] = await db.execute<Record<string, string>>(sql`${of(one.id)} limit 1`);
		if (wrong) throw new Fault(`${one.code}: ${what(wrong)}`);
	}
}

/** What was signed and kept in the home still stands in the chain. */
async function checkHeads(db: Querier, home: string): Promise<number> {
	const kept = keptHeads(home);
	const key = signingKey(home);
	let checked = 0;
	for (const [projectId, heads] of kept) {
		for (const head of heads) {
			if ('broken' in head || !verifyText(key, headText(head), head.signature) || head.project !== projectId)
				throw new Fault(
					`A signed head of ${'code' in head ? head.code : projectId} was changed after it was signed.`
				);
			const day = head.at.slice(0, 10);
			const [entry] = await db
				.select({ hash: event.hash })
				.from(event)
				.where(and(eq(event.projectId, projectId), eq(event.seq, head.seq)));
			if (!entry)
				throw new Fault(
					`${head.code}: ${head.seq} entries were signed for on ${day}, and the chain ends before.`
				);
			if (entry.hash !== head.hash)
				throw new Fault(`${head.code}: entry ${head.seq} is not the one that was signed for on ${day}.`);
			checked++;
		}
	}
	return checked;
}

/** A manifest has its hash and signature. */
function checkSigned(
	key: ReturnType<typeof signingKey>,
	name: string,
	of: Pick<typeof release.$inferSelect, 'manifest' | 'manifestHash' | 'manifestSignature'>
): Manifest {
	const text = canonicalize(of.manifest)!;
	if (!of.manifest || sha256(text) !== of.manifestHash)
		throw new Fault(`${name}: its manifest was changed after it was issued.`);
	if (!of.manifestSignature || !verifyText(key, text, of.manifestSignature))
		throw new Fault(`${name}: the signature of its manifest does not hold.`);
	return of.manifest;
}

/** A manifest has its hash and signature, lists what is pinned and what was made from it, and the entry it was issued behind still stands. */
async function checkManifests(db: Querier, home: string): Promise<number> {
	const key = signingKey(home);
	const sent = await db
		.select({ share: releaseRecipient, number: release.number, to: recipient.name })
		.from(releaseRecipient)
		.innerJoin(release, eq(release.id, releaseRecipient.releaseId))
		.innerJoin(recipient, eq(recipient.id, releaseRecipient.recipientId))
		.where(isNotNull(release.issuedAt))
		.orderBy(asc(release.number), asc(releaseRecipient.position));
	for (const { share, number, to } of sent)
		checkSigned(key, `Release ${releaseNumber(number)}, to ${to}`, share);
	const issued = await db
		.select()
		.from(release)
		.where(isNotNull(release.issuedAt))
		.orderBy(asc(release.number));
	for (const one of issued) {
		const name = `Release ${releaseNumber(one.number)}`;
		const manifest = checkSigned(key, name, one);
		const pinned = await db.execute<{ sent: string; original: string }>(
			sql`select coalesce(copy_hash, pinned_hash) as sent, pinned_hash as original
				from release_item where release_id = ${one.id}`
		);
		const listed = manifest.documents.map((d) => `${d.sha256} ${d.madeFrom?.sha256 ?? d.sha256}`).sort();
		const there = pinned.map(({ sent, original }) => `${sent} ${original}`).sort();
		if (listed.join() !== there.join())
			throw new Fault(`${name}: its manifest lists other files than were issued.`);
		const { trail } = manifest;
		if (!trail) continue;
		const [entry] = await db
			.select({ hash: event.hash })
			.from(event)
			.where(and(eq(event.projectId, one.projectId), eq(event.seq, trail.entry)));
		if (entry?.hash !== trail.hash)
			throw new Fault(`${name}: entry ${trail.entry} of the trail is not the one its cover note names.`);
	}
	return issued.length;
}

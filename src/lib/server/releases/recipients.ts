import { and, asc, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { buildRelease } from '../../contract/releases';
import { Problem } from '../../core/acts/problem';
import { gets } from '../../core/releases';
import type { Querier, Tx } from '../platform/db';
import { content, pass, recipient, releaseRecipient, verdict } from '../platform/db/schema';

type Chosen = z.output<typeof buildRelease.input>['recipients'];
export type ReleaseRecipient = typeof releaseRecipient.$inferSelect;

/** Condition for a document of a release (`i`) that one of its recipients (`rr`) gets. */
export const GETS = sql.raw(
	'i.release_id = rr.release_id and (rr.documents is null or i.document_id = any(rr.documents))'
);

/** Condition for a document (`i`) on which one of the recipients (`rr`) has signed a verdict. */
export const HAS_SIGNED = sql.raw(
	'exists (select 1 from verdict v where v.pass_id = rr.pass_id and v.document_id = i.document_id and v.signed_at is not null)'
);

/** Condition for a document of a release (`i`) on which somebody is asked for a verdict. */
export const ASKED_ON = sql`exists (select 1 from release_recipient rr where rr.expects = 'verdicts' and ${GETS})`;

/** Condition for a document of a release (`i`) on which everybody who is asked has signed, and not alike. */
export const DIFFERS = sql`(i.outcome is null and ${ASKED_ON} and not exists (
	select 1 from release_recipient rr where rr.expects = 'verdicts' and ${GETS} and not ${HAS_SIGNED}))`;

/** How many releases of a project hold documents on which verdicts differ, for a controller to make one of them (T9). */
export async function differingReleases(db: Querier, projectId: string): Promise<number> {
	const [row] = await db.execute<{ n: number }>(sql`
		select count(distinct r.id)::int as n from release r join release_item i on i.release_id = r.id
		where r.project_id = ${projectId} and r.state in ('issued', 'superseded') and ${DIFFERS}`);
	return row!.n;
}

/** The first day by which somebody who got a release was to reply, and has not yet; null where nobody owes a reply. */
export const replyOwed = () =>
	sql<string | null>`(select min(coalesce(rr.reply_by, release.reply_by)) from release_recipient rr
		where rr.release_id = release.id and rr.expects = 'verdicts' and exists (
			select 1 from release_item i where ${GETS} and i.outcome is null and not ${HAS_SIGNED}))`;

/** Everybody who gets a release, in their order, with their names and passes. */
export async function recipientsOf(db: Querier, releaseId: string) {
	const rows = await db
		.select({ share: releaseRecipient, to: recipient, pass })
		.from(releaseRecipient)
		.innerJoin(recipient, eq(recipient.id, releaseRecipient.recipientId))
		.leftJoin(pass, eq(pass.id, releaseRecipient.passId))
		.where(eq(releaseRecipient.releaseId, releaseId))
		.orderBy(asc(releaseRecipient.position));
	return rows.map(({ share, to, pass: held }) => ({
		...share,
		name: to.name,
		company: to.company,
		email: to.email,
		pass: held
	}));
}

/** Somebody who gets a release, with their name and pass. */
export type ReleaseShare = Awaited<ReturnType<typeof recipientsOf>>[number];

/** The pass of the recipient whose part of a release a pass opens: itself, or of a colleague that of whom they answer for. */
export const mainPass = (passId: string) =>
	sql`(select coalesce(along_with, id) from pass where id = ${passId})`;

/**
 * What the holder of a pass of a release gets of it, and what is asked of them. Its `passId` is that of the recipient,
 * under which everything that they and their colleagues answer is kept.
 */
export async function shareOf(db: Querier, passId: string): Promise<ReleaseRecipient & { passId: string }> {
	const [share] = await db
		.select()
		.from(releaseRecipient)
		.where(eq(releaseRecipient.passId, mainPass(passId)));
	if (!share?.passId) throw new Problem('not-found', 'This pass leads to no release any more.');
	return { ...share, passId: share.passId };
}

/** A stored cover note with its size in bytes. */
export async function storedNote(db: Querier, hash: string): Promise<{ hash: string; size: number }> {
	const [row] = await db.select({ size: content.size }).from(content).where(eq(content.hash, hash));
	return { hash, size: row!.size };
}

/** @throws Problem `invalid` where somebody is not among the recipients of the project */
export async function checkRecipients(
	db: Querier,
	projectId: string,
	ids: readonly string[],
	field: string
): Promise<void> {
	const asked = [...new Set(ids)];
	if (!asked.length) return;
	const known = await db
		.select({ id: recipient.id })
		.from(recipient)
		.where(and(eq(recipient.projectId, projectId), inArray(recipient.id, asked)));
	if (known.length !== asked.length)
		throw new Problem('invalid', 'A recipient is not on the distribution list.', { field });
}

/**
 * Keeps who gets a release, instead of who did.
 * @throws Problem `invalid` where somebody is not on the project's distribution list, or named twice
 */
export async function putRecipients(
	tx: Tx,
	projectId: string,
	releaseId: string,
	chosen: Chosen
): Promise<void> {
	const ids = chosen.map((one) => one.recipient);
	if (new Set(ids).size !== ids.length)
		throw new Problem('invalid', 'Somebody is named twice among those who get it.', { field: 'recipients' });
	await checkRecipients(tx, projectId, ids, 'recipients');
	const byAccount = chosen.filter((one) => one.asks === 'account').map((one) => one.recipient);
	if (byAccount.length) {
		const [without] = await tx.execute<{ name: string }>(sql`
			select t.name from recipient t where t.id in ${byAccount} and not exists (
				select 1 from member m join person w on w.id = m.person_id
				where m.project_id = ${projectId} and m.left_at is null and lower(w.email) = lower(t.email)) limit 1`);
		if (without)
			throw new Problem(
				'invalid',
				`${without.name} has no account in this project. Choose another way to prove who they are.`,
				{ field: 'recipients' }
			);
	}
	await tx.delete(releaseRecipient).where(eq(releaseRecipient.releaseId, releaseId));
	await tx.insert(releaseRecipient).values(
		chosen.map(({ recipient: recipientId, ...share }, position) => ({
			releaseId,
			recipientId,
			position,
			...share,
			documents: share.documents && [...new Set(share.documents)]
		}))
	);
}

/** Verdicts that were signed on a release, by pass and document. */
export async function signedVerdicts(db: Querier, releaseId: string) {
	const rows = await db
		.select({
			passId: verdict.passId,
			documentId: verdict.documentId,
			code: verdict.code,
			remark: verdict.remark,
			signedAt: verdict.signedAt,
			signedName: verdict.signedName
		})
		.from(verdict)
		.innerJoin(releaseRecipient, eq(releaseRecipient.passId, verdict.passId))
		.where(and(eq(releaseRecipient.releaseId, releaseId), isNotNull(verdict.signedAt)));
	return new Map(rows.map((row) => [`${row.passId} ${row.documentId}`, row]));
}

/** What each of those who are asked has signed on a document, in the order of the recipients; null where nothing yet. */
export function verdictsOn<Of extends Pick<ReleaseRecipient, 'expects' | 'documents' | 'passId'>>(
	recipients: readonly Of[],
	signed: Awaited<ReturnType<typeof signedVerdicts>>,
	document: string
) {
	return recipients
		.filter((one) => one.expects === 'verdicts' && gets(one, document))
		.map((of) => ({ of, signed: signed.get(`${of.passId} ${document}`) ?? null }));
}

/** The companies of those who get a release, each once. */
export const companies = (to: readonly { company: string }[]): string =>
	[...new Set(to.map((one) => one.company))].join(', ');

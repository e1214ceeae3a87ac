import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Querier } from '../platform/db';
import { content, contentText } from '../platform/db/schema';
import { unlessBusy } from '../formats/inspector';
import type { Urgency } from '../formats/pool';
import { standInFor } from '../formats/stand-in';
import { PREVIEWS } from '../trail/following';
import { atOnce } from '../platform/at-once';
import type { Services } from '../platform/services';

/**
 * Opens stored content once: what it is, what stands written in it, and its preview. Can be done again without harm.
 * Previews that another program has to make wait for their own turn, and nobody's words for them.
 */
export async function readContent(services: Services, hash: string): Promise<void> {
	const { db } = services.database;
	const [row] = await db.select().from(content).where(eq(content.hash, hash));
	if (!row) return;
	const seen = row.inspection ?? (await services.inspector.inspect(hash, row.mediaType, row.size, 'later'));
	if (!row.inspection) await db.update(content).set({ inspection: seen }).where(eq(content.hash, hash));
	await readText(services, row, seen.fault !== null, 'later');
	if (row.preview === 'made' || row.preview === 'none') return;
	if (!standInFor(row.mediaType)) return drawPreview(services, hash);
	await db.update(content).set({ preview: 'waiting' }).where(eq(content.hash, hash));
	await services.jobs.enqueue(db, 'draw-preview', { hash });
}

/** Makes the preview of stored content, once. */
export async function drawPreview(services: Services, hash: string): Promise<void> {
	const { db } = services.database;
	const [row] = await db.select().from(content).where(eq(content.hash, hash));
	if (!row || row.preview === 'made' || row.preview === 'none') return;
	const whole = row.inspection?.fault == null;
	const made =
		whole && (await services.inspector.makePreview(hash, row.mediaType, row.size).catch(unlessBusy(false)));
	await db
		.update(content)
		.set({ preview: made ? 'made' : 'none' })
		.where(eq(content.hash, hash));
	if (made) await db.execute(sql`select pg_notify(${PREVIEWS}, ${hash})`);
}

/** Contents that are read side by side for who waits for them. */
const AT_ONCE = 4;

/** Reads what stands written in stored contents, as far as nobody has yet; somebody waits for it. */
export async function readWords(services: Services, hashes: readonly string[]): Promise<void> {
	const unread = hashes.length
		? await services.database.db
				.select({
					hash: content.hash,
					mediaType: content.mediaType,
					size: content.size,
					inspection: content.inspection
				})
				.from(content)
				.leftJoin(contentText, eq(contentText.hash, content.hash))
				.where(and(inArray(content.hash, [...hashes]), isNull(contentText.hash)))
		: [];
	await atOnce(unread, AT_ONCE, ({ inspection, ...one }) =>
		readText(services, one, inspection !== null && inspection.fault !== null, 'asked')
	);
}

/** What PostgreSQL says when more different words stand in a text than it can hold of one: long lists of figures. */
const TOO_MANY_WORDS = '54000';

async function readText(
	services: Services,
	{ hash, mediaType, size }: { hash: string; mediaType: string; size: number },
	broken: boolean,
	urgency: Urgency
): Promise<void> {
	const { db } = services.database;
	const [known] = await db
		.select({ hash: contentText.hash })
		.from(contentText)
		.where(eq(contentText.hash, hash));
	if (known) {
		// A version that came while its bytes were first being read has not got their words yet.
		await db.execute(sql`select refresh_findable(array(
			select v.document_id from version v where v.hash = ${hash}))`);
		return;
	}
	let text = broken ? '' : await services.inspector.written(hash, mediaType, size, urgency);
	for (;;) {
		const kept = await db
			.execute(
				sql`
				insert into content_text (hash, text, words)
					select hash, ${text}, array_to_tsvector(find_words(${text})) from content where hash = ${hash}
				on conflict do nothing`
			)
			.then(
				() => true,
				(error: { cause?: { code?: string } }) => {
					if (error.cause?.code !== TOO_MANY_WORDS) throw error;
					return false;
				}
			);
		if (kept) return;
		text = text.slice(0, text.length / 2);
	}
}

/** Most contents read in one go of catching up. */
const MOST_MISSED = 500;

/** Reads what was never read: content from before it was done, or whose job was lost. */
export async function readMissed(services: Services): Promise<void> {
	const rows = await services.database.db.execute<{ hash: string }>(sql`
		select distinct v.hash from version v
		where not exists (select 1 from content_text t where t.hash = v.hash) limit ${MOST_MISSED}`);
	for (const { hash } of rows) await readContent(services, hash);
}

/** Documents whose words are learnt in one transaction. */
const LEARNT_AT_ONCE = 500;

/**
 * Learns the words of documents that changed, apart from the acts that changed them: two acts with the same new words
 * would wait for each other. Words stay known when their last document goes; they then lead nowhere.
 */
export async function learnWords(db: Querier): Promise<void> {
	for (;;) {
		const [done] = await db.execute<{ taken: number }>(sql`
			with taken as (
				delete from unlearnt where ctid = any(array(
					select ctid from unlearnt limit ${LEARNT_AT_ONCE} for update skip locked)) returning document_id
			), learnt as (
				insert into find_word (project_id, word)
					select distinct f.project_id, word
					from (select distinct document_id from taken) t join findable f using (document_id),
						unnest(tsvector_to_array(f.words)) as word
					where word ~ '^[[:alpha:]]{3,40}$'
				on conflict do nothing
			)
			select count(*)::int as taken from taken`);
		if (done!.taken < LEARNT_AT_ONCE) return;
	}
}

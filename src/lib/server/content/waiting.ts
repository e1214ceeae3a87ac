import { and, eq, gt, inArray, isNull, notInArray, sql } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { DAY } from '../../core/time/spans';
import type { Querier } from '../platform/db';
import { arrival, content, hatch, upload } from '../platform/db/schema';

/** How long what was sent can be used, in milliseconds; after that it is cleaned away. */
const USABLE = 2 * DAY;

const sentence = (what: string, most: number) =>
	`${what} ${(most / 1e9).toFixed(most < 1e9 ? 3 : 0)} GB at a time, and that much lies there. Use or sort what is there first. Nothing was kept.`;

const bytes = sql<string>`coalesce(sum(${content.size}), 0)`;

/** Uploads that nothing uses yet. */
const unused = (now: Date) =>
	and(
		gt(upload.createdAt, new Date(now.getTime() - USABLE)),
		sql`not exists (select 1 from version v where v.hash = ${upload.hash})`,
		sql`not exists (select 1 from side_version s where s.hash = ${upload.hash})`
	);

/**
 * Raises `too-large` when what a member sent and has not used would go past the sum that one may have.
 * @param partly bytes of theirs that are still arriving
 */
export async function checkMember(
	db: Querier,
	most: number,
	personId: string,
	partly: number,
	size: number,
	now: Date
): Promise<void> {
	const [row] = await db
		.select({ bytes })
		.from(upload)
		.innerJoin(content, eq(content.hash, upload.hash))
		.where(and(eq(upload.personId, personId), unused(now)));
	if (Number(row!.bytes) + partly + size > most)
		throw new Problem('full', sentence('Files that you sent and have not used yet take', most), { most });
}

/**
 * What still fits through a hatch. Raises `too-many` when it holds as many files as it is for, and `full` when what
 * came through it, or lies unsorted in the project, takes as much as it may.
 */
export async function checkHatch(
	db: Querier,
	most: { hatch: number; project: number },
	hatchId: string,
	size: number,
	now: Date
): Promise<void> {
	const [open] = await db.select().from(hatch).where(eq(hatch.id, hatchId));
	const came = db.select({ hash: arrival.hash }).from(arrival).where(eq(arrival.hatchId, hatchId));
	const fresh = and(gt(upload.createdAt, new Date(now.getTime() - USABLE)), notInArray(upload.hash, came));
	const sum = { files: sql<number>`count(*)::int`, bytes };
	const [[put], [sent], [project], [waiting]] = await Promise.all([
		db
			.select(sum)
			.from(arrival)
			.innerJoin(content, eq(content.hash, arrival.hash))
			.where(eq(arrival.hatchId, hatchId)),
		db
			.select(sum)
			.from(upload)
			.innerJoin(content, eq(content.hash, upload.hash))
			.where(and(eq(upload.hatchId, hatchId), fresh)),
		db
			.select(sum)
			.from(arrival)
			.innerJoin(content, eq(content.hash, arrival.hash))
			.where(
				and(eq(arrival.projectId, open!.projectId), inArray(arrival.state, ['checking', 'waiting', 'unsafe']))
			),
		db
			.select(sum)
			.from(upload)
			.innerJoin(content, eq(content.hash, upload.hash))
			.innerJoin(hatch, eq(hatch.id, upload.hatchId))
			.where(and(eq(hatch.projectId, open!.projectId), isNull(upload.personId), unused(now)))
	]);
	if (put!.files + sent!.files >= open!.maxFiles)
		throw new Problem(
			'too-many',
			`This hatch takes ${open!.maxFiles} files, and that many are in. Nothing was kept; ask whoever sent you the link.`
		);
	if (Number(put!.bytes) + Number(sent!.bytes) + size > most.hatch)
		throw new Problem('full', sentence('This hatch takes', most.hatch), { most: most.hatch });
	if (Number(project!.bytes) + Number(waiting!.bytes) + size > most.project)
		throw new Problem('full', sentence('What waits for sorting in this project takes', most.project), {
			most: most.project
		});
}

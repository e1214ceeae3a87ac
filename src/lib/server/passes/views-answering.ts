import { and, eq, gt, sql } from 'drizzle-orm';
import * as contract from '../../contract/answering';
import { Problem } from '../../core/acts/problem';
import { markOf } from '../../core/releases/drawn';
import { DAY } from '../../core/time/spans';
import { content, upload, verdictFile } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import { alongBy, sentBytes } from '../releases/answered';
import { gotBy } from '../releases/got';
import { shareOf } from '../releases/recipients';

/** Most bytes of marked-up files that come with the verdicts on one release. */
const MOST = 500_000_000;

export const answerRoom = answers(contract.answerRoom, {
	async run({ db, pass: held, now }) {
		const share = await shareOf(db, held.id);
		if (share.expects !== 'verdicts')
			throw new Problem('conflict', 'No verdicts are asked of you on this release.');
		const [unused] = await db
			.select({ bytes: sql<number>`coalesce(sum(${content.size}), 0)::float8` })
			.from(upload)
			.innerJoin(content, eq(content.hash, upload.hash))
			.where(
				and(
					eq(upload.passId, held.id),
					gt(upload.createdAt, new Date(now.getTime() - 2 * DAY)),
					sql`not exists (select 1 from ${verdictFile} f where f.pass_id = ${share.passId} and f.hash = ${upload.hash})`
				)
			);
		const sent = (await sentBytes(db, share.passId)) + unused!.bytes;
		return { pass: held.id, most: MOST, left: Math.max(0, MOST - sent) };
	}
});

export const drawnMarks = answers(contract.drawnMarks, {
	async run({ db, pass: held, release: about }, { document }) {
		const { share, items } = await gotBy(db, held, about);
		if (!items.some((item) => item.documentId === document))
			throw new Problem('not-found', 'The document is not in this release.');
		const { drawn } = (await alongBy(db, [share.passId]))(share.passId, document);
		return {
			marks: drawn.map(({ drawn: mark, drawnBy: from, createdAt }) =>
				markOf(mark, { by: held.id, from, at: createdAt.toISOString(), layer: '' })
			)
		};
	}
});

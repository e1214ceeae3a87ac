import { sql } from 'drizzle-orm';
import type { Querier } from '../platform/db';
import type { Since } from './kept';

/** What came in a project's trail after an entry: where it ends now, and whether one of some kinds is among it. */
export async function sinceEntry(
	db: Querier,
	projectId: string,
	kinds: readonly string[],
	seq: number
): Promise<Since> {
	const [head] = await db.execute<Since & Record<string, unknown>>(sql`
		select h.seq::int as seq, exists (
			select 1 from event e where e.project_id = h.project_id and e.seq > ${seq}
				and e.kind = any(${sql.param(kinds)}::text[])) as changed
		from chain_head h where h.project_id = ${projectId}`);
	return head ?? { seq: 0, changed: false };
}

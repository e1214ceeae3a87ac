import { sql } from 'drizzle-orm';
import type { Querier } from '../platform/db';

/** Numbers of a project that are used, or reserved in the register, and begin with one of these. */
export async function numbersUnder(db: Querier, projectId: string, heads: string[]): Promise<Set<string>> {
	const patterns = [...new Set(heads)].map((head) => `${head.replace(/[\\%_]/g, '\\$&')}%`);
	const among = sql`number like any(${sql.param(patterns)}::text[])`;
	// Those of the register are reserved before their documents are there (G1).
	const rows = await db.execute<{ number: string }>(sql`
		select number from document where project_id = ${projectId} and live and ${among}
		union select number from deliverable where project_id = ${projectId} and removed_at is null and ${among}`);
	return new Set(rows.map((d) => d.number));
}

import { appendFileSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { headText, type SignedHead } from '../../core/trail/head';
import type { Querier } from '../platform/db';
import { chainHead, project } from '../platform/db/schema';
import { signingKey, signText } from '../platform/signing';

/** The folder of the home in which signed heads lie, a file a project, a line a head. */
const FOLDER = 'heads';

/** The heads kept outside the database, by project; a line that is no head is given as it stands. */
export function keptHeads(home: string): Map<string, (SignedHead | { broken: string })[]> {
	let files: string[];
	try {
		files = readdirSync(join(home, FOLDER)).filter((name) => name.endsWith('.jsonl'));
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code === 'ENOENT') return new Map();
		throw error;
	}
	return new Map(
		files.map((name) => [
			name.slice(0, -'.jsonl'.length),
			readFileSync(join(home, FOLDER, name), 'utf8')
				.split('\n')
				.filter((line) => line.trim())
				.map((line) => {
					try {
						return JSON.parse(line) as SignedHead;
					} catch {
						return { broken: line };
					}
				})
		])
	);
}

/**
 * Signs where the chains end and keeps it in the home, outside the database, so that entries cut off there are missed
 * (V2). A chain that did not grow since is not signed again.
 * @param only one project, or every one
 */
export async function signHeads(
	db: Querier,
	home: string,
	now: Date,
	only: string | null = null
): Promise<number> {
	const kept = keptHeads(home);
	const key = signingKey(home);
	const heads = await db
		.select({ project: chainHead.projectId, code: project.code, seq: chainHead.seq, hash: chainHead.hash })
		.from(chainHead)
		.innerJoin(project, eq(project.id, chainHead.projectId))
		.where(only === null ? undefined : eq(chainHead.projectId, only));
	let signed = 0;
	for (const one of heads) {
		const last = kept.get(one.project)?.at(-1);
		if (last && 'hash' in last && last.hash === one.hash) continue;
		const head = { format: 'cupboard-head/1' as const, ...one, at: now.toISOString() };
		mkdirSync(join(home, FOLDER), { recursive: true, mode: 0o700 });
		const line = JSON.stringify({ ...head, signature: signText(key, headText(head)) });
		appendFileSync(join(home, FOLDER, `${one.project}.jsonl`), `${line}\n`, { mode: 0o600 });
		signed++;
	}
	return signed;
}

import { readdirSync, readFileSync } from 'node:fs';
import postgres from 'postgres';
import { drawing } from './drawings';
import type { Line } from './measure';
import { addDocument, asController, stamp } from './reader';

/** Entities that make a drawing of 24 MB. */
const ENTITIES = 400_000;
/** Workers without work end by then, in milliseconds. */
const RESTED = 45_000;

const read = (path: string) => {
	try {
		return readFileSync(path, 'utf8');
	} catch {
		// It has ended meanwhile.
		return '';
	}
};
/** A process and what it started, by their numbers. */
function family(pid: number): number[] {
	const parents = readdirSync('/proc')
		.filter((name) => /^\d+$/.test(name))
		.map((name) => ({
			pid: Number(name),
			of: Number(read(`/proc/${name}/stat`).split(') ').at(-1)?.split(' ')[1])
		}));
	const found = [pid];
	for (const one of found) found.push(...parents.filter(({ of }) => of === one).map((child) => child.pid));
	return found;
}
/** Memory of processes in MB; what several share is counted once among them (Pss, proc(5)). */
const memory = (pids: number[]) =>
	pids.reduce(
		(sum, pid) => sum + Number(/^Pss:\s+(\d+)/m.exec(read(`/proc/${pid}/smaps_rollup`))?.[1] ?? 0),
		0
	) / 1_024;

/**
 * Adds a drawing of 24 MB, which is opened, read and drawn small; watches the memory of the server and of the processes
 * in which it opens files meanwhile, and looks how much of it is kept.
 */
export async function opening(serverPid: number): Promise<Line[]> {
	const bytes = drawing(false, ENTITIES);
	const sql = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
	const busy = async () => {
		const [row] = await sql<{ open: number }[]>`select count(*)::int as open from pgboss.job
			where name in ('read-content', 'draw-preview') and state in ('created', 'active', 'retry')`;
		return row!.open > 0;
	};
	const wait = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));
	try {
		while (await busy()) await wait(500);
		await wait(RESTED);
		const before = memory(family(serverPid));
		let [own, all] = [0, 0];
		const watching = setInterval(() => {
			own = Math.max(own, memory([serverPid]));
			all = Math.max(all, memory(family(serverPid)));
		}, 100);
		await asController(() => addDocument(`LARGE-${stamp()}`, 'large.dxf', bytes));
		while (await busy()) await wait(500);
		clearInterval(watching);
		await wait(RESTED);
		const kept = memory(family(serverPid)) - before;
		const what = `a DXF of ${Math.round(bytes.length / 1e6)} MB is opened`;
		const baseline = { what: 'at rest', value: before };
		return [
			{ what: `memory of the server while ${what}`, value: own, unit: 'MB', budget: 400, baseline },
			{ what: 'memory of it and of what it opens files in', value: all, unit: 'MB', budget: null, baseline },
			{ what: 'what of that is kept when they are at rest', value: kept, unit: 'MB', budget: 50, baseline }
		];
	} finally {
		await sql.end();
	}
}

import { spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { closeSync, openSync, readFileSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import http from 'node:http';
import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import postgres from 'postgres';
import { decide, type Step, type Subject } from '../src/lib/core/access/decide';
import { LEVELS } from '../src/lib/core/access/levels';
import { packMask } from '../src/lib/core/compare/mask';
import { compareSheets } from '../src/lib/core/compare/sheets';
import { FOLDER, makeLargeProject, READER, SIZE } from './large-project';
import { downloads } from './download';
import { marking } from './marks';
import { together } from './together';
import { disturbed, fits, p95, perSecond, print, undisturbed, type Line } from './measure';

const base = process.env.ORIGIN!;
const home = process.env.CUPBOARD_HOME!;
const headers = { authorization: `Bearer ${READER.token}` };
const get = async (path: string) => {
	const response = await fetch(`${base}/api/v1${path}`, { headers });
	const body = await response.text();
	if (!response.ok) throw new Error(`${path}: ${response.status} ${body.slice(0, 200)}`);
	return body;
};

/** Decisions of core over a way of three places with a dozen entries. */
function decisions(): Line {
	const who: Subject = {
		personId: 'p1',
		projectId: 'x',
		controller: false,
		departments: ['d1', 'd2'],
		leads: [],
		groups: ['g1', 'g2'],
		outside: false,
		ceiling: null
	};
	const ways: Step[][] = Array.from({ length: 64 }, (_, w) =>
		Array.from({ length: 3 }, (_, s) => ({
			closed: (w + s) % 11 === 0,
			entries: Array.from({ length: 4 }, (_, e) => ({
				subjectKind: (['person', 'department', 'group', 'everyone'] as const)[(w + e) % 4]!,
				subjectId: ['p1', 'd1', 'g2', 'x', 'p2', 'd9'][(w + s + e) % 6]!,
				level: LEVELS[(w * 7 + e) % 7]!,
				exactly: false,
				endsAt: e === 3 ? 5 : null
			}))
		}))
	);
	const value = perSecond((n) => void decide(who, ways[n & 63]!, 10));
	const map = new Map(ways.map((_, i) => [`k${i}`, i]));
	const lookups = perSecond((n) => void map.get(`k${n & 63}`));
	return {
		what: 'access decisions in core',
		value,
		unit: '/s',
		budget: 1_000_000,
		least: true,
		baseline: { what: 'map look-ups', value: lookups }
	};
}

/** An A1 sheet at 150 dpi with many lines, as pixels; `changed` draws a few more. */
function sheetPixels(changed: boolean): Uint8ClampedArray {
	const [width, height] = [4967, 3508];
	const pixels = new Uint8ClampedArray(width * height * 4).fill(255);
	let seed = 11;
	const next = (most: number) => (seed = (seed * 48271) % 2147483647) % most;
	const line = (x: number, y: number, length: number, upright: boolean) => {
		for (let i = 0; i < length; i++) {
			const [px, py] = upright ? [x, y + i] : [x + i, y];
			if (px < width && py < height) pixels.fill(0, (py * width + px) * 4, (py * width + px) * 4 + 3);
		}
	};
	for (let i = 0; i < 12_000; i++) line(next(width), next(height), 20 + next(120), i % 2 === 0);
	if (changed) for (let i = 0; i < 25; i++) line(100 + i * 190, 100 + i * 130, 14, false);
	return pixels;
}

/** Comparing two sheets, from packed pixels to numbered places, as the worker does once they are drawn. */
function comparing(): Line[] {
	const timed = <T>(doing: () => T) => {
		const begin = performance.now();
		return { value: doing(), took: performance.now() - begin };
	};
	const [before, after] = [sheetPixels(false), sheetPixels(true)];
	const pack = timed(() => [packMask(before, 4967, 3508), packMask(after, 4967, 3508)] as const);
	const found = timed(() => compareSheets(...pack.value));
	if (found.value.places.length !== 25)
		throw new Error(`${found.value.places.length} places of 25 were found`);
	const copy = timed(() => Uint8ClampedArray.from(before));
	return [
		{
			what: 'compare two A1 sheets at 150 dpi, once drawn (25 of 25 changes found)',
			value: pack.took + found.took,
			unit: 'ms',
			budget: 600,
			baseline: { what: 'copying one of them', value: copy.took }
		}
	];
}

/** Sends 1 GiB through HTTP and compares with hashing the same file; watches the server's memory meanwhile. */
async function upload(serverPid: number): Promise<{ hash: string; lines: Line[] }> {
	const file = join(home, 'gib.bin');
	const handle = openSync(file, 'w');
	for (let i = 0; i < 256; i++) writeSync(handle, randomBytes(4 << 20));
	closeSync(handle);
	const rss = () =>
		Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${serverPid}/status`, 'utf8'))![1]) / 1024;
	const timed = async (doing: () => unknown) => {
		const begin = performance.now();
		const result = await doing();
		return { result, rate: 1024 / ((performance.now() - begin) / 1000) };
	};
	const before = await timed(() => spawnSync('sha256sum', [file], { encoding: 'utf8' }).stdout.split(' ')[0]);
	let peak = 0;
	const watching = setInterval(() => (peak = Math.max(peak, rss())), 50);
	const sent = await timed(
		() =>
			new Promise<{ hash: string }>((done, failed) => {
				const request = http.request(
					`${base}/api/v1/uploads?project=BIG&name=gib.bin`,
					{
						method: 'POST',
						headers: { ...headers, 'content-type': 'application/octet-stream', 'content-length': 1 << 30 }
					},
					(response) => {
						let text = '';
						response.on('data', (chunk) => (text += String(chunk)));
						response.on('end', () => done(JSON.parse(text) as { hash: string }));
					}
				);
				request.on('error', failed);
				createReadStream(file, { highWaterMark: 1 << 20 }).pipe(request);
			})
	);
	clearInterval(watching);
	rmSync(file);
	const { hash } = sent.result as { hash?: string };
	if (hash !== before.result) throw new Error(`The upload went wrong: ${JSON.stringify(sent.result)}`);
	const lines: Line[] = [
		{
			what: 'upload of 1 GiB over HTTP, hashed',
			value: sent.rate,
			unit: 'MiB/s',
			budget: before.rate * 0.8,
			least: true,
			baseline: { what: 'sha256sum', value: before.rate }
		},
		{ what: 'memory of the server meanwhile, at most', value: peak, unit: 'MB', budget: 200 }
	];
	return { hash: hash!, lines };
}

const lines: Line[] = [await undisturbed(decisions), ...(await undisturbed(comparing))];
// What was measured is worth reading even when something after it fails.
process.on('uncaughtExceptionMonitor', () => print(lines));
const sql = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
const [there] = await sql`select 1 from project where code = 'BIG'`;
if (!there) {
	console.log(`· making a project of ${SIZE.documents.toLocaleString('en')} documents`);
	await makeLargeProject(process.env.DATABASE_URL!);
}
const [middle] = await sql<{ number: string }[]>`select d.number from place p join document d using (id)
	where p.parent_id = ${FOLDER} order by p.name_key offset 4000 limit 1`;
await sql.end();
const sent = await undisturbed(() => upload(Number(process.env.SERVER_PID)));
lines.push(...sent.lines, ...(await undisturbed(() => downloads(sent.hash))));
const nothing = await p95(() => get('/projects'));
const against = { what: 'a request that reads one row', value: nothing };
const ask = async (what: string, budget: number | null, ...paths: string[]) =>
	lines.push({
		what,
		value: await p95(() => Promise.all(paths.map(get))),
		unit: 'ms p95',
		budget,
		baseline: against
	});
await ask(
	`open a folder of ${SIZE.inOne.toLocaleString('en')} among a million, with ${SIZE.ofOne} grants`,
	60,
	`/places/${FOLDER}`,
	`/places/${FOLDER}/documents?limit=200`
);
await ask('the shelves of that person', 60, '/projects/BIG/shelves');
await ask('who else reaches the folder', null, `/places/${FOLDER}/reach`);
await ask('the access of the folder', null, `/places/${FOLDER}/access`);
await ask(
	'the rest of the folder, 2,000 rows',
	null,
	`/places/${FOLDER}/documents?after=${encodeURIComponent(middle!.number)}&limit=2000`
);
await ask('find by part of a number', 150, '/projects/BIG/find?q=00004711');
await ask('find by words of a title', 150, '/projects/BIG/find?q=linkspan%20section%2048');
await ask('find by a title with a typing error', 150, '/projects/BIG/find?q=linkspna%20general');
await ask('find by words inside', 150, '/projects/BIG/find?q=corrosion%20allowance');
await ask('find by one common word', 150, '/projects/BIG/find?q=linkspan');
lines.push(...(await undisturbed(together)));
lines.push(...(await undisturbed(marking)));
print(lines);
if (disturbed > 0.04)
	console.log(`Others had up to ${Math.round(disturbed * 100)} % of the processor while this was measured.`);
const out = join(home, 'bench.json');
writeFileSync(
	out,
	JSON.stringify({ at: new Date().toISOString(), node: process.version, lines }, null, '\t')
);
console.log(`\n${lines.filter(fits).length} of ${lines.length} within budget; written to ${out}`);
process.exitCode = lines.every(fits) ? 0 : 1;

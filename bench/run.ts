import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import postgres from 'postgres';
import { comparing, decisions } from './core';
import { downloads } from './download';
import { largeDrawings } from './drawings';
import { FOLDER, makeLargeProject, READER, SIZE } from './large-project';
import { holding } from './holders';
import { issuing } from './issue';
import { changeRegister, DELIVERABLES, makeLargeRegister } from './large-register';
import { marking } from './marks';
import { disturbed, fits, p95, print, undisturbed, type Line } from './measure';
import { firstLoad } from './pages';
import { together } from './together';
import { upload } from './upload';
import { coldWorkers } from './workers';

const base = process.env.ORIGIN!;
const home = process.env.CUPBOARD_HOME!;
const headers = { authorization: `Bearer ${READER.token}` };
const get = async (path: string) => {
	const response = await fetch(`${base}/api/v1${path}`, { headers });
	const body = await response.text();
	if (!response.ok) throw new Error(`${path}: ${response.status} ${body.slice(0, 200)}`);
	return body;
};

const lines: Line[] = [
	await undisturbed(decisions),
	...(await undisturbed(comparing)),
	...(await undisturbed(coldWorkers))
];
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
const [planned] = await sql`select 1 from deliverable where project_id = 'p000000001' limit 1`;
if (!planned) await makeLargeRegister(process.env.DATABASE_URL!);
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
await ask('the counts of the band', 60, '/projects/BIG/waiting');
await ask('what is new to that person', 60, '/projects/BIG/new');
const register = `the register of ${DELIVERABLES.toLocaleString('en')} deliverables`;
await ask(`${register}: open it`, 100, '/projects/BIG/register?limit=200');
await ask(
	`${register}: what is late, in groups, by slip`,
	100,
	'/projects/BIG/register?late=true&stage=approval&group=department&order=slip&down=true'
);
await ask(`${register}: curves and all figures`, 300, '/projects/BIG/register/figures');
lines.push({
	what: `${register}: open it after a change`,
	value: await p95(async () => {
		await changeRegister(sql);
		await get('/projects/BIG/register?limit=200');
	}),
	unit: 'ms p95',
	budget: null,
	baseline: against
});
await sql.end();
await ask('find by part of a number', 150, '/projects/BIG/find?q=00004711');
await ask('find by words of a title', 150, '/projects/BIG/find?q=linkspan%20section%2048');
await ask('find by a title with a typing error', 150, '/projects/BIG/find?q=linkspna%20general');
await ask('find by words inside', 150, '/projects/BIG/find?q=corrosion%20allowance');
await ask('find by one common word', 150, '/projects/BIG/find?q=linkspan');
lines.push(...(await undisturbed(issuing)));
lines.push(...(await undisturbed(holding)));
lines.push(...(await undisturbed(together)));
lines.push(...(await undisturbed(marking)));
lines.push(...(await undisturbed(largeDrawings)));
lines.push(...(await undisturbed(firstLoad)));
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

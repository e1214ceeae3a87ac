import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import postgres from 'postgres';
import { find, large, register } from './asked';
import { comparing, decisions } from './core';
import { downloads } from './download';
import { largeDrawings } from './drawings';
import { holding } from './holders';
import { issuing } from './issue';
import { makeLargeProject, SIZE } from './large-project';
import { makeLargeRegister } from './large-register';
import { marking } from './marks';
import { disturbed, fits, print, undisturbed, type Line } from './measure';
import { opening } from './opening';
import { firstLoad } from './pages';
import { together } from './together';
import { upload } from './upload';
import { coldWorkers } from './workers';

const url = process.env.DATABASE_URL!;
const sql = postgres(url, { max: 1, onnotice: () => {} });

/** What is measured, in this order. */
const parts: Record<string, () => Promise<Line[]>> = {
	core: async () => [await undisturbed(decisions), ...(await undisturbed(comparing))],
	workers: () => undisturbed(coldWorkers),
	bytes: async () => {
		const sent = await upload(Number(process.env.SERVER_PID));
		return [...sent.lines, ...(await downloads(sent.hashes))];
	},
	opening: () => opening(Number(process.env.SERVER_PID)),
	large: () => large(sql),
	register: () => register(sql),
	find,
	issue: () => undisturbed(issuing),
	holders: () => undisturbed(holding),
	together: () => undisturbed(together),
	marks: () => undisturbed(marking),
	drawings: largeDrawings,
	pages: () => undisturbed(firstLoad)
};
const wanted = process.argv.slice(2);
const unknown = wanted.filter((name) => !(name in parts));
if (unknown.length) {
	console.error(
		`Nothing measured is called ${unknown.join(', ')}. There are ${Object.keys(parts).join(', ')}.`
	);
	process.exit(2);
}

const [project] = await sql`select 1 from project where code = 'BIG'`;
if (!project) {
	console.log(`· making a project of ${SIZE.documents.toLocaleString('en')} documents`);
	await makeLargeProject(url);
}
const [planned] = await sql`select 1 from deliverable where project_id = 'p000000001' limit 1`;
if (!planned) await makeLargeRegister(url);

const lines: Line[] = [];
// What was measured is worth reading even when something after it fails.
process.on('uncaughtExceptionMonitor', () => print(lines));
for (const [name, measure] of Object.entries(parts))
	if (!wanted.length || wanted.includes(name)) lines.push(...(await measure()));
await sql.end();
print(lines);
if (disturbed > 0.04)
	console.log(`Others had up to ${Math.round(disturbed * 100)} % of the processor while this was measured.`);
const out = join(process.env.CUPBOARD_HOME!, 'bench.json');
writeFileSync(
	out,
	JSON.stringify({ at: new Date().toISOString(), node: process.version, lines }, null, '\t')
);
console.log(`\n${lines.filter(fits).length} of ${lines.length} within budget; written to ${out}`);
process.exitCode = lines.every(fits) ? 0 : 1;

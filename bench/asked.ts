import type postgres from 'postgres';
import { FOLDER, READER, SIZE } from './large-project';
import { changeRegister, DELIVERABLES } from './large-register';
import { p95, type Line } from './measure';

const headers = { authorization: `Bearer ${READER.token}` };
async function get(path: string): Promise<string> {
	const response = await fetch(`${process.env.ORIGIN!}/api/v1${path}`, { headers });
	const body = await response.text();
	if (!response.ok) throw new Error(`${path}: ${response.status} ${body.slice(0, 200)}`);
	return body;
}

/** What is asked: its name, its budget in milliseconds, and the addresses that are asked at once. */
type Question = [what: string, budget: number | null, ...paths: string[]];

let smallest: Line['baseline'];
/** How long it takes until something was done that asks the server; beside the smallest request. */
async function timed(what: string, budget: number | null, act: () => Promise<unknown>): Promise<Line> {
	smallest ??= { what: 'a request that reads one row', value: await p95(() => get('/projects')) };
	return { what, value: await p95(act), unit: 'ms p95', budget, baseline: smallest };
}

async function ask(questions: Question[]): Promise<Line[]> {
	const lines: Line[] = [];
	for (const [what, budget, ...paths] of questions)
		lines.push(await timed(what, budget, () => Promise.all(paths.map(get))));
	return lines;
}

/** A folder of many among a million documents, and what its page says beside it. */
export async function large(sql: postgres.Sql): Promise<Line[]> {
	const [middle] = await sql<{ number: string }[]>`select d.number from place p join document d using (id)
		where p.parent_id = ${FOLDER} order by p.name_key offset 4000 limit 1`;
	const rest = `/places/${FOLDER}/documents?after=${encodeURIComponent(middle!.number)}&limit=2000`;
	return ask([
		[
			`open a folder of ${SIZE.inOne.toLocaleString('en')} among a million, with ${SIZE.ofOne} grants`,
			60,
			`/places/${FOLDER}`,
			`/places/${FOLDER}/documents?limit=200`
		],
		['the shelves of that person', 60, '/projects/BIG/shelves'],
		['who else reaches the folder', null, `/places/${FOLDER}/reach`],
		['the access of the folder', null, `/places/${FOLDER}/access`],
		['the rest of the folder, 2,000 rows', null, rest],
		['the counts of the band', 60, '/projects/BIG/waiting'],
		['what is new to that person', 60, '/projects/BIG/new']
	]);
}

/** The register: opened, filtered, summed up, and opened after somebody changed it. */
export async function register(sql: postgres.Sql): Promise<Line[]> {
	const named = `the register of ${DELIVERABLES.toLocaleString('en')} deliverables`;
	const first = '/projects/BIG/register?limit=200';
	const late = 'late=true&stage=approval&group=department&order=slip&down=true';
	const lines = await ask([
		[`${named}: open it`, 100, first],
		[`${named}: what is late, in groups, by slip`, 100, `/projects/BIG/register?${late}`],
		[`${named}: curves and all figures`, 300, '/projects/BIG/register/figures']
	]);
	const changed = await timed(`${named}: open it after a change`, null, async () => {
		await changeRegister(sql);
		await get(first);
	});
	return [...lines, changed];
}

/** Finding, by what people type. */
export function find(): Promise<Line[]> {
	const typed = (words: string) => `/projects/BIG/find?q=${encodeURIComponent(words)}`;
	return ask([
		['find by part of a number', 150, typed('00004711')],
		['find by words of a title', 150, typed('linkspan section 48')],
		['find by a title with a typing error', 150, typed('linkspna general')],
		['find by words inside', 150, typed('corrosion allowance')],
		['find by one common word', 150, typed('linkspan')]
	]);
}

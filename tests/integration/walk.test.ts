/**
 * Somebody new follows the walks of CONTRIBUTING.md in a copy, and touches only the files that they name. The act is
 * described, refused to whom it is not for, and told in the trail; the format is written and offered; the screen is
 * served by the server that people develop with.
 */
import { execFileSync } from 'node:child_process';
import {
	appendFileSync,
	cpSync,
	mkdirSync,
	mkdtempSync,
	readFileSync,
	rmSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { makeToken } from '../../src/lib/server/people/acts-account';
import { TestWorld } from './world';

const PARTS = [
	...['src', 'static', 'drizzle', 'scripts', 'tests/integration'],
	...['tsconfig.json', 'package.json', '.oxfmtrc.json', 'svelte.config.js', 'vite.config.ts']
];
const HERE = resolve(import.meta.dirname, '../..');
let copy: string;
beforeAll(() => {
	copy = mkdtempSync(join(tmpdir(), 'cupboard-walk-'));
	for (const part of PARTS) cpSync(join(HERE, part), join(copy, part), { recursive: true });
	cpSync(join(HERE, '.svelte-kit/tsconfig.json'), join(copy, '.svelte-kit/tsconfig.json'));
	symlinkSync(join(HERE, 'node_modules'), join(copy, 'node_modules'));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

/** What stands under a heading of CONTRIBUTING.md. */
const walk = (heading: string) =>
	new RegExp(`### ${heading}\n([\\s\\S]*?)\n##`).exec(
		readFileSync(join(HERE, 'CONTRIBUTING.md'), 'utf8')
	)![1]!;
const run = (args: string[], env: NodeJS.ProcessEnv = process.env) =>
	execFileSync(process.execPath, args, {
		cwd: copy,
		env,
		encoding: 'utf8',
		stdio: ['ignore', 'pipe', 'pipe']
	});
const lastLine = (said: string) => JSON.parse(said.trim().split('\n').at(-1)!) as Record<string, unknown>;
/** What a program of the newcomer says in its last line, as JSON. */
function tried(program: string): Record<string, unknown> {
	writeFileSync(join(copy, 'tried.ts'), program);
	return lastLine(run(['--import', 'tsx', 'tried.ts']));
}

/** What “Add an act” adds to which file. */
const ACT: Record<string, string> = {
	'src/lib/core/events/documents.ts': `
export const documentWeighed = event('document.weighed', {
	details: z.strictObject({ number: z.string(), grams: z.number() }),
	touches: ['documents'],
	says: (d) => \`weighed \${d.number}: \${d.grams} g\`
});
`,
	'src/lib/contract/documents.ts': `
export const weighDocument = act({
	name: 'weighDocument',
	summary: 'Weigh a document',
	method: 'POST',
	path: '/documents/{document}/weights',
	input: z.strictObject({ document: id, grams: z.number().positive() }),
	output: z.strictObject({ grams: z.number() }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['document.weighed']
});
`,
	'src/lib/server/documents/acts.ts': `
export const weighDocument = does(contract.weighDocument, {
	async run({ tx, place: here, tell }, { grams }) {
		const [row] = await tx.select().from(document).where(eq(document.id, here.id));
		tell({ kind: 'document.weighed', details: { number: row!.number, grams } });
		return { grams };
	}
});
`
};

const ACT_TRIED = `
import { cupboard } from './src/lib/client/cupboard';
import { eventText } from './src/lib/core/events/index';
import { openApi } from './src/lib/server/api/openapi';
import { weighDocument } from './src/lib/server/documents/acts';
import { activity } from './src/lib/server/trail/views';
import { TestWorld } from './tests/integration/world';

const world = await TestWorld.open();
const { id, number } = await world.add();
const { grams } = await world.act('oke', weighDocument, { document: id, grams: 12 });
const refused = await world.act('petra', weighDocument, { document: id, grams: 12 }).catch((e: { code: string }) => e.code);
const { events } = await world.read('oke', activity, { project: 'VFT' });
const told = events.find((event) => event.kind === 'document.weighed')!;
const says = eventText(told, { day: String, moment: String });
const described = '/documents/{document}/weights' in (openApi('http://here').paths as object);
const called = typeof cupboard.weighDocument;
console.log(JSON.stringify({ number, grams, refused, says, described, called }));
await world.close();
process.exit();
`;

it('adding an act touches the files that its walk names, and nothing else', () => {
	for (const [file, lines] of Object.entries(ACT)) {
		expect(walk('Add an act')).toContain(file.replace(/documents(?=\.ts|\/)/, '<noun>'));
		appendFileSync(join(copy, file), lines);
	}
	run(['--import', 'tsx', 'scripts/tasks/addresses.ts']);
	const said = tried(ACT_TRIED);
	expect(said).toMatchObject({ grams: 12, described: true, called: 'function' });
	expect(said.says).toBe(`weighed ${String(said.number)}: 12 g`);
	expect(said.refused).toBe('not-found');
});

/** What “Add a format to write” puts before what in which file. */
const FORMAT: Record<string, [before: string, lines: string]> = {
	'src/lib/core/files/media.ts': ["\tcsv: 'text/csv'", "\ttsv: 'text/tab-separated-values',\n"],
	'src/lib/core/schedule/exchange.ts': ["'csv'] as const", "'tsv', "],
	'src/lib/server/formats/schedule/task.ts': [
		"\t\tcase 'csv':",
		"\t\tcase 'tsv':\n\t\t\treturn new TextEncoder().encode(Papa.unparse(tableOf(schedule), { delimiter: '\\t' }));\n"
	]
};

const FORMAT_TRIED = `
import { columnSchema } from './src/lib/core/schedule/column';
import { SCHEDULE_FORMATS } from './src/lib/core/schedule/exchange';
import { openApi } from './src/lib/server/api/openapi';
import { writeScheduleTask } from './src/lib/server/formats/schedule/task';

const column = (id: string) => ({ id, ...columnSchema.parse({ name: id, kind: 'text' }) });
const schedule = { columns: [column('door'), column('leaf')], rows: [{ id: 'r', cells: { door: 'D-01', leaf: 'oak' } }] };
const bytes = await writeScheduleTask({ schedule, about: { number: 'VFT-1', title: 'Doors' }, format: 'tsv' } as never);
const { paths } = openApi('http://here') as { paths: Record<string, unknown> };
const described = /"csv","tsv"|"tsv","csv"/.test(JSON.stringify(paths['/documents/{document}/live/file']));
console.log(JSON.stringify({ text: new TextDecoder().decode(bytes), offered: SCHEDULE_FORMATS.includes('tsv' as never), described }));
process.exit();
`;

it('adding a format touches the files that its walk names, and it is offered, described and written', () => {
	for (const [file, [before, lines]] of Object.entries(FORMAT)) {
		const named = file.replace('src/lib/', '').replace('/task.ts', '');
		expect(walk('Add a format to write')).toContain(named);
		const text = readFileSync(join(copy, file), 'utf8');
		expect(text).toContain(before);
		writeFileSync(join(copy, file), text.replace(before, `${lines}${before}`));
	}
	const text = 'door\tleaf\r\nD-01\toak';
	expect(tried(FORMAT_TRIED)).toEqual({ text, offered: true, described: true });
});

/** What “Add a screen” makes. */
const SCREEN: Record<string, string> = {
	'src/routes/[project]/<name>/+page.server.ts': `
import { pageView } from '../../page-data';
import { activity } from '$lib/server/trail/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => pageView(event, activity, { project: event.params.project });
`,
	'src/routes/[project]/<name>/+page.svelte': `
<script lang="ts">
	import Table from '$lib/ui/kit/Table.svelte';
	let { data } = $props();
</script>

<h1>Logbook</h1>
<Table
	label="What happened"
	rows={data.events}
	key={(one) => String(one.id)}
	empty="Nothing happened yet."
	columns={[{ id: 'kind', head: 'Kind', text: (one) => one.kind }]}
/>
`
};

/** Starts the server of \`npm run dev\`, with what it bundles kept in the copy, and asks it for the screen. */
const SCREEN_TRIED = `
import { createServer } from 'vite';

const server = await createServer({ cacheDir: '.vite', server: { port: 0, host: '127.0.0.1' }, logLevel: 'error', optimizeDeps: { noDiscovery: true, include: [] } });
await server.listen();
process.env.ORIGIN = server.resolvedUrls.local[0].replace(/\\/$/, '');
const get = async (path, headers = {}) => {
	const answer = await fetch(process.env.ORIGIN + path, { headers, redirect: 'manual' });
	return { status: answer.status, text: await answer.text() };
};
const shown = await get('/vft/logbook', { authorization: 'Bearer ' + process.env.TOKEN });
const stranger = await get('/vft/logbook');
console.log(JSON.stringify({ status: shown.status, heading: shown.text.includes('<h1>Logbook'), table: shown.text.includes('document.added'), stranger: stranger.status }));
process.exit();
`;

it('adding a screen makes the files that its walk names, and the server people develop with shows it', async () => {
	for (const [file, lines] of Object.entries(SCREEN)) {
		const name = file.split('/').at(-1)!;
		expect(walk('Add a screen')).toContain(name);
		mkdirSync(join(copy, 'src/routes/[project]/logbook'), { recursive: true });
		writeFileSync(join(copy, file.replace('<name>', 'logbook')), lines);
	}
	const world = await TestWorld.open();
	await world.add();
	const { secret } = await world.act('ines', makeToken, { name: 'walk' });
	writeFileSync(join(copy, 'tried.mjs'), SCREEN_TRIED);
	const said = run(['tried.mjs'], {
		...process.env,
		NODE_ENV: 'development',
		DATABASE_URL: world.config.databaseUrl,
		CUPBOARD_HOME: world.home,
		CUPBOARD_SECRET: world.config.secret,
		TOKEN: secret
	});
	await world.close();
	expect(lastLine(said)).toEqual({ status: 200, heading: true, table: true, stranger: 303 });
});

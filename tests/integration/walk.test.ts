/**
 * Somebody new follows “Add an act” of CONTRIBUTING.md in a copy: the act is there, is described, refused to whom it is not
 * for, and told in the trail, though only the files were touched that the walk names.
 */
import { execFileSync } from 'node:child_process';
import {
	appendFileSync,
	cpSync,
	mkdtempSync,
	readFileSync,
	rmSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';

const HERE = resolve(import.meta.dirname, '../..');
let copy: string;
beforeAll(() => {
	copy = mkdtempSync(join(tmpdir(), 'cupboard-walk-'));
	for (const part of ['src', 'drizzle', 'scripts', 'tests/integration', 'tsconfig.json', 'package.json'])
		cpSync(join(HERE, part), join(copy, part), { recursive: true });
	cpSync(join(HERE, '.svelte-kit/tsconfig.json'), join(copy, '.svelte-kit/tsconfig.json'));
	symlinkSync(join(HERE, 'node_modules'), join(copy, 'node_modules'));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

/** What is added to which file, in the order of the walk. */
const STEPS: Record<string, string> = {
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

/** What the newcomer tries then. */
const TRIED = `
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

it('adding an act by the walk touches the files that it names, and nothing else', () => {
	const walk = /### Add an act\n([\s\S]*?)\n### /.exec(
		readFileSync(join(HERE, 'CONTRIBUTING.md'), 'utf8')
	)![1]!;
	for (const [file, lines] of Object.entries(STEPS)) {
		expect(walk).toContain(file.replace(/documents(?=\.ts|\/)/, '<noun>'));
		appendFileSync(join(copy, file), lines);
	}
	const run = (...args: string[]) =>
		execFileSync(process.execPath, args, { cwd: copy, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
	run('--import', 'tsx', 'scripts/tasks/addresses.ts');
	writeFileSync(join(copy, 'tried.ts'), TRIED);
	const said = JSON.parse(run('--import', 'tsx', 'tried.ts').trim().split('\n').at(-1)!) as Record<
		string,
		unknown
	>;
	expect(said).toMatchObject({ grams: 12, described: true, called: 'function' });
	expect(said.says).toBe(`weighed ${String(said.number)}: 12 g`);
	expect(said.refused).toBe('not-found');
}, 180_000);

// @vitest-environment jsdom
import { createHash } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import type { Node } from 'prosemirror-model';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { lossesOf, type TextFormat } from '../../src/lib/core/text/losses';
import { textSchema } from '../../src/lib/core/text/schema';
import { MEDIA_TYPE } from '../../src/lib/server/formats/media';
import { writeTextTask } from '../../src/lib/server/formats/text/task';
import { importText } from '../../src/lib/ui/live/import-text';

const block = (type: string, attrs: Record<string, unknown> | null, content: readonly Node[] = []) =>
	textSchema.node(type, attrs, content);

/** Words without blanks at their ends or two in a row, which no file keeps. */
const words = fc
	.array(fc.constantFrom('pile', 'Ø600', 'C35/45', 'a<b>&"c"', 'größer', '‘pit’', '桟橋', 'x_y*z', '1.'), {
		minLength: 1,
		maxLength: 4
	})
	.map((list) => list.join(' '));
const look = fc
	.record({
		strong: fc.boolean(),
		em: fc.boolean(),
		underline: fc.boolean(),
		strike: fc.boolean(),
		script: fc.constantFrom(null, null, 'subscript', 'superscript')
	})
	.map(({ script, ...simple }) =>
		[...Object.entries(simple).flatMap(([name, on]) => (on ? [name] : [])), ...(script ? [script] : [])].map(
			(name) => textSchema.mark(name)
		)
	);
const run = fc.oneof(
	{ weight: 5, arbitrary: words.map((text) => textSchema.text(text)) },
	{ weight: 3, arbitrary: fc.tuple(words, look).map(([text, marks]) => textSchema.text(text, marks)) },
	{
		weight: 1,
		arbitrary: words.map((text) =>
			textSchema.text(text, [textSchema.mark('link', { href: 'https://harbour.example/a?b=1&c=2' })])
		)
	}
);
/** Runs of words that look different, with blanks or line breaks between them. */
const inline = fc
	.array(run, { minLength: 1, maxLength: 4 })
	.chain((runs) =>
		fc
			.array(fc.boolean(), { minLength: runs.length, maxLength: runs.length })
			.map((breaks) =>
				runs.flatMap((one, i) =>
					i === 0 ? [one] : [breaks[i] ? textSchema.node('hard_break') : textSchema.text(' '), one]
				)
			)
	);
const paragraph = inline.map((content) => block('paragraph', null, content));
const { list } = fc.letrec<{ list: Node; item: Node }>((tie) => ({
	list: fc
		.tuple(
			fc.constantFrom('bullet_list', 'ordered_list'),
			fc.array(tie('item'), { minLength: 1, maxLength: 3 })
		)
		.map(([type, items]) => block(type, null, items)),
	item: fc
		.tuple(paragraph, fc.option(tie('list'), { depthSize: 'small', maxDepth: 2 }))
		.map(([first, inner]) => block('list_item', null, inner ? [first, inner] : [first]))
}));
/** Without lists that stand directly after one of their kind: they are one in every file. */
const apart = (blocks: readonly Node[]) =>
	blocks.filter((one, i) => !one.type.name.endsWith('_list') || one.type !== blocks[i - 1]?.type);
const cell = (type: string) =>
	fc
		.array(fc.oneof({ weight: 4, arbitrary: paragraph }, { weight: 1, arbitrary: list }), {
			minLength: 1,
			maxLength: 2
		})
		.map((content) => block(type, null, apart(content)));
const table = fc
	.record({ head: fc.boolean(), columns: fc.integer({ min: 1, max: 3 }) })
	.chain(({ head, columns }) =>
		fc
			.tuple(
				fc.array(cell('table_header'), { minLength: columns, maxLength: columns }),
				fc.array(fc.array(cell('table_cell'), { minLength: columns, maxLength: columns }), {
					minLength: 1,
					maxLength: 3
				})
			)
			.map(([heads, rows]) =>
				block(
					'table',
					null,
					[...(head ? [heads] : []), ...rows].map((cells) => block('table_row', null, cells))
				)
			)
	);
const HINGE = { hash: '', path: '' };
const picture = fc
	.record({ alt: words, width: fc.integer({ min: 20, max: 100 }) })
	.map((attrs) => block('picture', { content: HINGE.hash, ...attrs }));
const anyBlock = fc.oneof(
	{ weight: 4, arbitrary: paragraph },
	{
		weight: 2,
		arbitrary: fc
			.tuple(fc.integer({ min: 1, max: 4 }), inline)
			.map(([level, content]) => block('heading', { level }, content))
	},
	{ weight: 2, arbitrary: list },
	{ weight: 2, arbitrary: table },
	{
		weight: 1,
		arbitrary: fc
			.tuple(fc.constantFrom('figure', 'table'), inline)
			.map(([of, content]) => block('caption', { of }, content))
	},
	{ weight: 1, arbitrary: fc.constant(null).map(() => block('page_break', null)) },
	{ weight: 1, arbitrary: picture }
);
const text = fc
	.array(anyBlock, { minLength: 1, maxLength: 6 })
	.map((blocks) => block('doc', null, apart(blocks)));

beforeAll(async () => {
	const bytes = await sharp({ create: { width: 600, height: 60, channels: 3, background: '#0b6b58' } })
		.png()
		.toBuffer();
	HINGE.hash = createHash('sha256').update(bytes).digest('hex');
	HINGE.path = join(mkdtempSync(join(tmpdir(), 'cupboard-import-')), 'hinge.png');
	writeFileSync(HINGE.path, bytes);
});

async function roundTrip(held: Node, format: TextFormat): Promise<Node> {
	const bytes = await writeTextTask({
		task: 'text',
		json: held.toJSON() as unknown,
		about: { number: 'VFT-MW-LS-00-SP-0005', title: 'Linkspan' },
		format,
		pictures: { [HINGE.hash]: HINGE.path },
		names: {}
	});
	// Pictures are coded anew when they are written; whatever comes back is the one there is.
	const keep = () => Promise.resolve({ upload: 'u', hash: HINGE.hash, width: 600 });
	return (await importText(Uint8Array.from(bytes).buffer, MEDIA_TYPE[format], keep)).text;
}
/** A text as it is shown, a line a block. */
const shown = (node: Node) => node.content.content.map((one) => one.toString());

describe('a live text that is taken as a file and brought in again', () => {
	for (const format of ['html', 'odt', 'docx'] as const)
		it(`is the same as ${format}`, async () => {
			await fc.assert(
				fc.asyncProperty(text, async (held) => {
					expect(shown(await roundTrip(held, format))).toEqual(shown(held));
				}),
				{ numRuns: 25 }
			);
		}, 60_000);

	it('is the same as Markdown, as far as lossesOf does not say otherwise', async () => {
		await fc.assert(
			fc.asyncProperty(
				text.filter((held) => lossesOf(held, 'md').length === 0),
				async (held) => {
					expect(shown(await roundTrip(held, 'md'))).toEqual(shown(held));
				}
			),
			{ numRuns: 50 }
		);
	}, 60_000);

	it('keeps cells that reach over others, and cells that head their row', async () => {
		const head = (said: string, attrs = {}) =>
			block('table_header', attrs, [block('paragraph', null, [textSchema.text(said)])]);
		const plain = (said: string, attrs = {}) =>
			block('table_cell', attrs, [block('paragraph', null, [textSchema.text(said)])]);
		const row = (...cells: Node[]) => block('table_row', null, cells);
		const spanning = block('table', null, [
			row(head('Grade', { colspan: 2 }), head('Use')),
			row(plain('S355', { rowspan: 2 }), plain('J2'), plain('deck')),
			row(plain('K2'), plain('hinge pin'))
		]);
		const sided = block('table', null, [
			row(head('Class'), plain('C35/45')),
			row(head('Cover'), plain('55 mm'))
		]);
		for (const format of ['html', 'odt', 'docx'] as const)
			expect((await roundTrip(block('doc', null, [spanning]), format)).toJSON()).toEqual(
				block('doc', null, [spanning]).toJSON()
			);
		for (const format of ['html', 'odt'] as const)
			expect(shown(await roundTrip(block('doc', null, [sided]), format))).toEqual([sided.toString()]);
	});
});

import fc from 'fast-check';
import type { Node } from 'prosemirror-model';
import { textSchema } from '../../src/lib/core/text/schema';

export const block = (type: string, attrs: Record<string, unknown> | null, content: readonly Node[] = []) =>
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
/** Stands for any picture. */
export const PICTURE = 'a'.repeat(64);
const picture = fc
	.record({ alt: words, width: fc.integer({ min: 20, max: 100 }) })
	.map((attrs) => block('picture', { content: PICTURE, ...attrs }));
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
/** Any text, with everything that files keep of it. */
export const anyText = fc
	.array(anyBlock, { minLength: 1, maxLength: 6 })
	.map((blocks) => block('doc', null, apart(blocks)));

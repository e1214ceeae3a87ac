import {
	AlignmentType,
	BorderStyle,
	DeletedTextRun,
	Document,
	ExternalHyperlink,
	HeadingLevel,
	ImageRun,
	InsertedTextRun,
	LevelFormat,
	Packer,
	PageBreak,
	Paragraph,
	Table,
	TableCell,
	TableRow,
	TextRun,
	WidthType,
	type ILevelsOptions,
	type IRunOptions,
	type ParagraphChild
} from 'docx';
import type { Node } from 'prosemirror-model';
import { numbersIn } from '../../../core/text/numbers';
import { authorOf } from '../../../core/text/suggestions';
import { sizeOnPage, spansOf, TEXT_WIDTH, type Picture } from './parts';
import type { About } from '../../../core/files/media';

const HEADINGS = [
	HeadingLevel.HEADING_1,
	HeadingLevel.HEADING_2,
	HeadingLevel.HEADING_3,
	HeadingLevel.HEADING_4
];
/** Twentieths of a point. */
const INDENT = 360;
const DEEPEST_LIST = 8;
/** Points in a pixel as the library counts them. */
const PIXEL = 0.75;
/** Word processors ask every tracked change for a time; the live state knows it better. */
const EPOCH = '2000-01-01T00:00:00Z';

const levels = (format: (level: number) => Partial<ILevelsOptions>): ILevelsOptions[] =>
	Array.from({ length: DEEPEST_LIST + 1 }, (_, level) => ({
		level,
		format: LevelFormat.DECIMAL,
		alignment: AlignmentType.START,
		style: { paragraph: { indent: { left: INDENT * (level + 1), hanging: INDENT } } },
		...format(level)
	}));

/** Writes a text as DOCX (ECMA-376): real headings, lists and tables, suggestions as tracked changes. */
export async function toDocx(
	text: Node,
	about: About,
	pictures: ReadonlyMap<string, Picture>,
	names: Readonly<Record<string, string>>
): Promise<Uint8Array> {
	const captions = numbersIn(text);
	let lists = 0;
	let changes = 0;

	const runs = (block: Node): ParagraphChild[] =>
		spansOf(block).map((span): ParagraphChild => {
			const look: IRunOptions = {
				text: span.lineBreak ? '' : span.text,
				...(span.lineBreak ? { break: 1 } : {}),
				bold: span.strong,
				italics: span.em,
				strike: span.strike,
				superScript: span.script === 'super',
				subScript: span.script === 'sub',
				...(span.underline ? { underline: {} } : {})
			};
			if (span.suggested) {
				const author = authorOf(span.suggested.id);
				const change = { ...look, id: ++changes, author: names[author] ?? author, date: EPOCH };
				return span.suggested.how === 'insertion' ? new InsertedTextRun(change) : new DeletedTextRun(change);
			}
			if (span.href)
				return new ExternalHyperlink({
					link: span.href,
					children: [new TextRun({ ...look, style: 'Hyperlink' })]
				});
			return new TextRun(look);
		});

	const list = (node: Node, level: number, reference: string, instance: number): Paragraph[] => {
		const found: Paragraph[] = [];
		node.forEach((item) => {
			item.forEach((child, _, index) => {
				if (child.type.name === 'bullet_list') found.push(...list(child, level + 1, 'bullets', ++lists));
				else if (child.type.name === 'ordered_list') found.push(...list(child, level + 1, 'steps', ++lists));
				else
					found.push(
						new Paragraph({
							children: runs(child),
							...(index === 0
								? { numbering: { reference, level: Math.min(level, DEEPEST_LIST), instance } }
								: { indent: { left: INDENT * (level + 1) } })
						})
					);
			});
		});
		return found;
	};

	const table = (node: Node): Table => {
		const rows: TableRow[] = [];
		node.forEach((row) => {
			const cells: TableCell[] = [];
			let heads = true;
			row.forEach((cell) => {
				const head = cell.type.name === 'table_header';
				heads &&= head;
				cells.push(
					new TableCell({
						children: blocks(cell) as Paragraph[],
						columnSpan: cell.attrs.colspan as number,
						rowSpan: cell.attrs.rowspan as number,
						margins: { top: 40, bottom: 40, left: 90, right: 90 },
						...(head ? { shading: { fill: 'E9EEEA' } } : {})
					})
				);
			});
			// Some readers take a row that says it is no head for one.
			rows.push(new TableRow({ children: cells, ...(heads ? { tableHeader: true } : {}) }));
		});
		const rule = { style: BorderStyle.SINGLE, size: 4, color: '9AA8A0' };
		return new Table({
			rows,
			width: { size: 100, type: WidthType.PERCENTAGE },
			borders: {
				top: rule,
				bottom: rule,
				left: rule,
				right: rule,
				insideHorizontal: rule,
				insideVertical: rule
			}
		});
	};

	const block = (node: Node, caption: string | undefined): (Paragraph | Table)[] => {
		switch (node.type.name) {
			case 'heading': {
				const level = (node.attrs.level as number) - 1;
				return [
					new Paragraph({
						heading: HEADINGS[level]!,
						numbering: { reference: 'headings', level },
						children: runs(node)
					})
				];
			}
			case 'bullet_list':
				return list(node, 0, 'bullets', ++lists);
			case 'ordered_list':
				return list(node, 0, 'steps', ++lists);
			case 'table':
				return [table(node)];
			case 'picture': {
				const picture = pictures.get(node.attrs.content as string);
				if (!picture) return [new Paragraph({ children: [new TextRun(node.attrs.alt as string)] })];
				const { width, height } = sizeOnPage(picture, node.attrs.width as number);
				const alt = node.attrs.alt as string;
				return [
					new Paragraph({
						children: [
							new ImageRun({
								type: picture.kind,
								data: picture.bytes,
								transformation: { width: width / PIXEL, height: height / PIXEL },
								altText: { name: alt || 'Picture', title: alt, description: alt }
							})
						]
					})
				];
			}
			case 'caption':
				return [
					new Paragraph({
						style: 'Caption',
						children: [new TextRun({ text: `${caption ?? ''}  `, bold: true }), ...runs(node)]
					})
				];
			case 'page_break':
				return [new Paragraph({ children: [new PageBreak()] })];
			default:
				return [new Paragraph({ children: runs(node) })];
		}
	};
	const blocks = (parent: Node): (Paragraph | Table)[] => {
		const found: (Paragraph | Table)[] = [];
		parent.forEach((node, offset, index) => {
			found.push(...block(node, captions.get(offset)));
			// A table directly after another would be joined to it, and a page does not end with one.
			if (node.type.name === 'table' && (parent.maybeChild(index + 1)?.type.name ?? 'table') === 'table')
				found.push(new Paragraph({ spacing: { after: 0 } }));
		});
		return found;
	};

	const file = new Document({
		title: `${about.number} ${about.title}`,
		creator: 'Cupboard',
		styles: {
			default: {
				document: { run: { font: 'Arial', size: 21 }, paragraph: { spacing: { after: 120, line: 288 } } },
				heading1: {
					run: { size: 32, bold: true },
					paragraph: { outlineLevel: 0, spacing: { before: 360, after: 120 } }
				},
				heading2: {
					run: { size: 26, bold: true },
					paragraph: { outlineLevel: 1, spacing: { before: 280, after: 100 } }
				},
				heading3: {
					run: { size: 23, bold: true },
					paragraph: { outlineLevel: 2, spacing: { before: 220, after: 80 } }
				},
				heading4: {
					run: { size: 21, bold: true },
					paragraph: { outlineLevel: 3, spacing: { before: 200, after: 80 } }
				}
			},
			paragraphStyles: [
				{ id: 'Caption', name: 'Caption', basedOn: 'Normal', run: { size: 19, color: '55645D' } }
			]
		},
		numbering: {
			config: [
				{
					reference: 'headings',
					levels: levels((level) => ({
						text: Array.from({ length: level + 1 }, (_, i) => `%${i + 1}`).join('.'),
						style: { paragraph: { indent: { left: 620, hanging: 620 } } }
					}))
				},
				{ reference: 'bullets', levels: levels(() => ({ format: LevelFormat.BULLET, text: '•' })) },
				{ reference: 'steps', levels: levels((level) => ({ text: `%${level + 1}.` })) }
			]
		},
		sections: [
			{
				properties: {
					page: {
						size: { width: 11906, height: 16838 },
						margin: { top: 1417, bottom: 1417, left: (11906 - TEXT_WIDTH * 20) / 2, right: 1417 }
					}
				},
				children: blocks(text)
			}
		]
	});
	return new Uint8Array(await Packer.toBuffer(file));
}

import { MarkdownSerializer, defaultMarkdownSerializer } from 'prosemirror-markdown';
import type { Node } from 'prosemirror-model';
import { numbersIn } from '../../../core/text/numbers';
import { escapeXml, spansOf, type Picture, type Span } from './parts';
import type { About } from '../../../core/files/media';

const plainMark = { open: '', close: '' };
const { nodes, marks } = defaultMarkdownSerializer;

/** The words of a block with blanks for line breaks, for what takes one line in a file. */
function inOneLine(block: Node): Node[] {
	return block.content.content.map((one) =>
		one.type.name === 'hard_break' ? one.type.schema.text(' ', one.marks) : one
	);
}

/** What writes a text with these numbers of its captions as Markdown. */
function markdownWith(numbers: ReadonlyMap<Node, string>): MarkdownSerializer {
	const cellText = (cell: Node): string =>
		markdown
			.serialize(cell, { tightLists: true })
			.replace(/\\\n/g, '<br>')
			.replace(/\s*\n\s*/g, ' ')
			.replace(/\|/g, '\\|')
			.trim();
	const markdown: MarkdownSerializer = new MarkdownSerializer(
		{
			paragraph: nodes.paragraph!,
			text(state, node, parent, index) {
				// What begins a line could be taken for a list or a heading.
				const begins = index === 0 || parent.child(index - 1).type.name === 'hard_break';
				const said = state.esc(node.text!, begins);
				state.text(begins ? said.replace(/^(\d+)([.)])(?=\s|$)|^(\+|=+)(?=\s*$)/, '$1\\$2$3') : said, false);
			},
			hard_break: nodes.hard_break!,
			list_item: nodes.list_item!,
			bullet_list: (state, node) => state.renderList(node, '  ', () => '- '),
			ordered_list: (state, node) => state.renderList(node, '   ', (i) => `${i + 1}. `),
			heading(state, node) {
				state.write(`${'#'.repeat(node.attrs.level as number)} `);
				state.renderInline(node.type.create(node.attrs, inOneLine(node)));
				state.closeBlock(node);
			},
			page_break(state, node) {
				state.write('---');
				state.closeBlock(node);
			},
			picture(state, node) {
				state.write(`*[${state.esc((node.attrs.alt as string) || 'picture')}]*`);
				state.closeBlock(node);
			},
			caption(state, node) {
				state.write(`**${numbers.get(node)}** `);
				state.renderInline(node);
				state.closeBlock(node);
			},
			document_link: (state, node) => state.text(node.attrs.number as string),
			// Tables as GitHub Flavored Markdown writes them; the first row is always the head.
			table(state, node) {
				node.forEach((row, _, index) => {
					const cells: string[] = [];
					row.forEach((cell) => cells.push(cellText(cell)));
					state.write(`| ${cells.join(' | ')} |\n`);
					if (index === 0) state.write(`|${cells.map(() => ' --- ').join('|')}|\n`);
				});
				state.closeBlock(node);
			}
		},
		{
			strong: marks.strong!,
			em: marks.em!,
			link: marks.link!,
			strike: { open: '~~', close: '~~', mixable: true, expelEnclosingWhitespace: true },
			underline: plainMark,
			subscript: plainMark,
			superscript: plainMark,
			remark: plainMark
		},
		// Else words like these would be read as HTML.
		{ escapeExtraCharacters: /[<&]/g }
	);
	return markdown;
}

/** Writes a text as Markdown (CommonMark with tables). */
export function toMarkdown(text: Node): Uint8Array {
	const at = numbersIn(text);
	const numbers = new Map<Node, string>();
	text.forEach((block, offset) => numbers.set(block, at.get(offset) ?? ''));
	return new TextEncoder().encode(`${markdownWith(numbers).serialize(text, { tightLists: true })}\n`);
}

const STYLE = `body{font:15px/1.5 Arial,sans-serif;max-width:46em;margin:2em auto;padding:0 1em;color:#17231f}
table{border-collapse:collapse;width:100%}td,th{border:1px solid #9aa8a0;padding:3px 8px;text-align:left;vertical-align:top}th{background:#e9eeea}
img{max-width:100%}.caption{color:#55645d;font-size:13px}hr{break-after:page;border:0;border-top:1px dashed #9aa8a0}`;

function htmlSpan(span: Span): string {
	if (span.lineBreak) return '<br>';
	let said = escapeXml(span.text);
	const wrap = (yes: boolean, tag: string) => {
		if (yes) said = `<${tag}>${said}</${tag}>`;
	};
	wrap(span.script === 'sub', 'sub');
	wrap(span.script === 'super', 'sup');
	wrap(span.strike, 's');
	wrap(span.underline, 'u');
	wrap(span.em, 'em');
	wrap(span.strong, 'strong');
	return span.href ? `<a href="${escapeXml(span.href)}" rel="noopener noreferrer">${said}</a>` : said;
}

/** Writes a text as one HTML file with its pictures inside. */
export function toHtml(text: Node, about: About, pictures: ReadonlyMap<string, Picture>): Uint8Array {
	const numbers = numbersIn(text);
	const inline = (block: Node) => spansOf(block).map(htmlSpan).join('');
	const inside = (parent: Node): string => {
		let found = '';
		parent.forEach((node, offset) => (found += block(node, numbers.get(offset))));
		return found;
	};
	const spans = (cell: Node) =>
		`${cell.attrs.colspan > 1 ? ` colspan="${cell.attrs.colspan as number}"` : ''}${cell.attrs.rowspan > 1 ? ` rowspan="${cell.attrs.rowspan as number}"` : ''}`;
	const TAGS: Record<string, string> = {
		bullet_list: 'ul',
		ordered_list: 'ol',
		list_item: 'li',
		table: 'table',
		table_row: 'tr'
	};
	function block(node: Node, number: string | undefined): string {
		switch (node.type.name) {
			case 'heading': {
				const tag = `h${node.attrs.level as number}`;
				return `<${tag}>${number ? `<span data-number>${number}</span> ` : ''}${inline(node)}</${tag}>\n`;
			}
			case 'paragraph':
				return `<p>${inline(node)}</p>\n`;
			case 'caption':
				return `<p class="caption" data-caption="${node.attrs.of as string}"><b data-number>${number ?? ''}</b> ${inline(node)}</p>\n`;
			case 'page_break':
				return '<hr>\n';
			case 'table_cell':
				return `<td${spans(node)}>${inside(node)}</td>`;
			case 'table_header':
				return `<th${spans(node)}>${inside(node)}</th>`;
			case 'picture': {
				const picture = pictures.get(node.attrs.content as string);
				const alt = escapeXml(node.attrs.alt as string);
				return picture
					? `<p><img alt="${alt}" data-width="${node.attrs.width as number}" style="width:${node.attrs.width as number}%" src="data:image/${picture.kind === 'jpg' ? 'jpeg' : 'png'};base64,${picture.bytes.toString('base64')}"></p>\n`
					: `<p>${alt}</p>\n`;
			}
			default: {
				const tag = TAGS[node.type.name]!;
				return `<${tag}>${inside(node)}</${tag}>\n`;
			}
		}
	}
	const title = escapeXml(`${about.number} ${about.title}`);
	return new TextEncoder().encode(
		`<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>${title}</title><style>${STYLE}</style></head><body>\n${inside(text)}</body></html>\n`
	);
}

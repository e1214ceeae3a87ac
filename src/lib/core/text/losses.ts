import type { Node } from 'prosemirror-model';
import { suggestionsIn } from './suggestions';

/** Files that a live text can be written as. */
export const TEXT_FORMATS = ['docx', 'odt', 'pdf', 'md', 'html'] as const;
export type TextFormat = (typeof TEXT_FORMATS)[number];

export const FORMAT_LABEL: Record<TextFormat, string> = {
	docx: 'DOCX',
	odt: 'ODT',
	pdf: 'PDF',
	md: 'Markdown',
	html: 'HTML'
};

const isHead = (cell: Node) => cell.type.name === 'table_header';
/** How many rows at the top of a table are heads throughout; -1 when other cells are heads too. */
function headRows(table: Node): number {
	const rows = table.content.content.map((row) => row.content.content);
	const first = rows.findIndex((cells) => !cells.every(isHead));
	const heads = first < 0 ? rows.length : first;
	return rows.slice(heads).some((cells) => cells.some(isHead)) ? -1 : heads;
}
const holds = (block: Node, name: string) => block.content.content.some((one) => one.type.name === name);

/** What of a part of a text Markdown cannot hold. */
function lostInMarkdown(node: Node): string[] {
	const { name } = node.type;
	const lost = (when: boolean, said: string) => (when ? [said] : []);
	switch (name) {
		case 'table_cell':
		case 'table_header':
			return [
				...lost(
					node.attrs.colspan > 1 || node.attrs.rowspan > 1,
					'Cells that reach over several rows or columns become single cells.'
				),
				...lost(node.childCount > 1, 'Paragraphs within a cell are joined.'),
				...lost(
					holds(node, 'bullet_list') || holds(node, 'ordered_list'),
					'Lists within a cell become words.'
				)
			];
		case 'table':
			return lost(headRows(node) !== 1, 'The first row of a table, and only that, becomes its head.');
		case 'heading':
			return lost(holds(node, 'hard_break'), 'Line breaks in headings become blanks.');
		case 'caption':
			return ['Captions become paragraphs that begin with their number.'];
		case 'picture':
			return ['Pictures become their descriptions.'];
		case 'page_break':
			return ['Page breaks become rules.'];
		default:
			return lost(
				node.marks.some((m) => ['underline', 'subscript', 'superscript'].includes(m.type.name)),
				'Underlined, raised and lowered words become plain.'
			);
	}
}

/** What a text holds that a kind of file cannot, each as a sentence; empty when everything is kept. */
export function lossesOf(text: Node, format: TextFormat): string[] {
	const found = new Set<string>();
	text.descendants((node) => {
		const { name } = node.type;
		if (format === 'md') for (const lost of lostInMarkdown(node)) found.add(lost);
		if (format === 'docx' && name === 'table' && headRows(node) < 0)
			found.add('Cells that head their row, and not their column, become plain cells.');
		if (name === 'document_link')
			found.add('Links to documents become their numbers; they lead nowhere outside Cupboard.');
	});
	const suggestions = suggestionsIn(text);
	if (suggestions.length)
		found.add(
			format === 'docx'
				? suggestions.some((s) => s.styled)
					? 'Suggested words are kept as tracked changes; suggested changes of style are left out.'
					: 'Suggested words are kept as tracked changes.'
				: 'Suggestions are left out: the file says what the text says without them.'
		);
	return [...found];
}

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

/** Whether the first row of a table is its head, and no other cell is one. */
function headsItsColumns(table: Node): boolean {
	return table.content.content.every((row, at) =>
		row.content.content.every((cell) => (cell.type.name === 'table_header') === (at === 0))
	);
}

/** What a text holds that a kind of file cannot, each as a sentence; empty when everything is kept. */
export function lossesOf(text: Node, format: TextFormat): string[] {
	const found = new Set<string>();
	const markdown = format === 'md';
	text.descendants((node) => {
		const { name } = node.type;
		if (markdown && (name === 'table_cell' || name === 'table_header')) {
			if (node.attrs.colspan > 1 || node.attrs.rowspan > 1)
				found.add('Cells that reach over several rows or columns become single cells.');
			if (node.childCount > 1) found.add('Paragraphs within a cell are joined.');
			if (node.content.content.some((one) => one.type.name !== 'paragraph'))
				found.add('Lists within a cell become words.');
		}
		if (markdown && name === 'heading' && node.content.content.some((one) => one.type.name === 'hard_break'))
			found.add('Line breaks in headings become blanks.');
		if (markdown && name === 'caption') found.add('Captions become paragraphs that begin with their number.');
		if (markdown && name === 'table' && !headsItsColumns(node))
			found.add('The first row of a table, and only that, becomes its head.');
		if (markdown && name === 'picture') found.add('Pictures become their descriptions.');
		if (markdown && name === 'page_break') found.add('Page breaks become rules.');
		if (markdown && node.marks.some((m) => ['underline', 'subscript', 'superscript'].includes(m.type.name)))
			found.add('Underlined, raised and lowered words become plain.');
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

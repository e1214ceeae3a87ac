import { setBlockType, toggleMark } from 'prosemirror-commands';
import type { MarkType, NodeType } from 'prosemirror-model';
import { liftListItem, wrapInList } from 'prosemirror-schema-list';
import type { Command, EditorState } from 'prosemirror-state';
import {
	addColumnAfter,
	addRowAfter,
	deleteColumn,
	deleteRow,
	deleteTable,
	isInTable,
	mergeCells,
	splitCell,
	toggleHeaderRow
} from 'prosemirror-tables';
import { DEEPEST, textSchema } from '../../core/text/schema';

const { nodes, marks } = textSchema;

/** Kinds of paragraph, with the words for them. */
export const BLOCKS: { key: string; label: string; run: Command }[] = [
	{ key: 'paragraph', label: 'Paragraph', run: setBlockType(nodes.paragraph!) },
	...Array.from({ length: DEEPEST }, (_, i) => ({
		key: `heading ${i + 1}`,
		label: `Heading ${i + 1}`,
		run: setBlockType(nodes.heading!, { level: i + 1 })
	})),
	{
		key: 'caption figure',
		label: 'Caption of a figure',
		run: setBlockType(nodes.caption!, { of: 'figure' })
	},
	{ key: 'caption table', label: 'Caption of a table', run: setBlockType(nodes.caption!, { of: 'table' }) }
];

/** The kind of the paragraph that the cursor stands in, as a key of {@link BLOCKS}. */
export function blockAt(state: EditorState): string {
	const { parent } = state.selection.$from;
	if (parent.type === nodes.heading) return `heading ${parent.attrs.level as number}`;
	if (parent.type === nodes.caption) return `caption ${parent.attrs.of as string}`;
	return 'paragraph';
}

/** Whether the words at the cursor, or all that are selected, look so. */
export function hasMark(state: EditorState, mark: MarkType): boolean {
	const { from, to, empty, $from } = state.selection;
	if (empty) return Boolean(mark.isInSet(state.storedMarks ?? $from.marks()));
	return state.doc.rangeHasMark(from, to, mark);
}

export const LOOKS: { mark: MarkType; label: string; sign: string; style: string }[] = [
	{ mark: marks.strong!, label: 'Bold', sign: 'B', style: 'font-weight:700' },
	{ mark: marks.em!, label: 'Italic', sign: 'I', style: 'font-style:italic' },
	{ mark: marks.underline!, label: 'Underlined', sign: 'U', style: 'text-decoration:underline' },
	{ mark: marks.strike!, label: 'Struck through', sign: 'S', style: 'text-decoration:line-through' },
	{ mark: marks.superscript!, label: 'Raised', sign: 'x²', style: '' },
	{ mark: marks.subscript!, label: 'Lowered', sign: 'x₂', style: '' }
];
export const toggleLook = (mark: MarkType) => toggleMark(mark);

/** Makes a list, changes its kind, or takes the paragraph out of it. */
export function toggleList(kind: 'bullet_list' | 'ordered_list'): Command {
	const type = nodes[kind]!;
	return (state, dispatch, view) => {
		const { $from } = state.selection;
		for (let depth = $from.depth; depth > 0; depth--) {
			const node = $from.node(depth);
			if (node.type === type) return liftListItem(nodes.list_item!)(state, dispatch, view);
			if (node.type === nodes.bullet_list || node.type === nodes.ordered_list) {
				dispatch?.(state.tr.setNodeMarkup($from.before(depth), type));
				return true;
			}
		}
		return wrapInList(type)(state, dispatch, view);
	};
}

/** A table of so many rows and columns, its first row as head. */
export function insertTable(rows: number, columns: number): Command {
	return (state, dispatch) => {
		if (isInTable(state)) return false;
		const row = (type: NodeType) =>
			nodes.table_row!.create(
				null,
				Array.from({ length: columns }, () => type.createAndFill()!)
			);
		const table = nodes.table!.create(
			null,
			Array.from({ length: rows }, (_, i) => row(i === 0 ? nodes.table_header! : nodes.table_cell!))
		);
		dispatch?.(state.tr.replaceSelectionWith(table).scrollIntoView());
		return true;
	};
}

export const TABLE: { label: string; run: Command }[] = [
	{ label: 'Row below', run: addRowAfter },
	{ label: 'Column to the right', run: addColumnAfter },
	{ label: 'Delete row', run: deleteRow },
	{ label: 'Delete column', run: deleteColumn },
	{ label: 'Merge cells', run: mergeCells },
	{ label: 'Split cell', run: splitCell },
	{ label: 'First row as head', run: toggleHeaderRow },
	{ label: 'Delete table', run: deleteTable }
];

export const insertPageBreak: Command = (state, dispatch) => {
	dispatch?.(state.tr.replaceSelectionWith(nodes.page_break!.create()).scrollIntoView());
	return true;
};

export function insertPicture(content: string, alt: string): Command {
	return (state, dispatch) => {
		dispatch?.(
			state.tr.replaceSelectionWith(nodes.picture!.create({ content, alt, width: 60 })).scrollIntoView()
		);
		return true;
	};
}

export function insertDocumentLink(document: string, number: string): Command {
	return (state, dispatch) => {
		dispatch?.(state.tr.replaceSelectionWith(nodes.document_link!.create({ document, number }), false));
		return true;
	};
}

/** Makes the selected words a link, or writes the address as one. */
export function setLink(href: string): Command {
	return (state, dispatch) => {
		const mark = marks.link!.create({ href });
		const { from, to, empty } = state.selection;
		dispatch?.(
			empty ? state.tr.insert(from, textSchema.text(href, [mark])) : state.tr.addMark(from, to, mark)
		);
		return true;
	};
}

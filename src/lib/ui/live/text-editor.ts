import { suggestChanges, suggestChangesKey } from '@handlewithcare/prosemirror-suggest-changes';
import { nanoid } from 'nanoid';
import { baseKeymap, chainCommands, exitCode, toggleMark } from 'prosemirror-commands';
import { dropCursor } from 'prosemirror-dropcursor';
import { gapCursor } from 'prosemirror-gapcursor';
import { inputRules, textblockTypeInputRule, wrappingInputRule } from 'prosemirror-inputrules';
import { keymap } from 'prosemirror-keymap';
import { liftListItem, sinkListItem, splitListItem } from 'prosemirror-schema-list';
import { EditorState, Plugin, type Command, type Transaction } from 'prosemirror-state';
import { goToNextCell, tableEditing } from 'prosemirror-tables';
import { Decoration, DecorationSet, EditorView } from 'prosemirror-view';
import {
	redoCommand,
	undoCommand,
	yCursorPlugin,
	ySyncPlugin,
	ySyncPluginKey,
	yUndoPlugin
} from 'y-prosemirror';
import type { RoomMode } from '../../core/live/live';
import { numbersIn } from '../../core/text/numbers';
import { DEEPEST, textSchema } from '../../core/text/schema';
import { fragmentOf } from '../../core/text/shared';
import { asSuggestion, suggestionId } from '../../core/text/suggestions';
import type { LiveLine } from './line.svelte';
import { colourOf } from './people-look';

const { nodes, marks } = textSchema;

/** Writes the numbers of headings and captions beside them. */
function numbering(): Plugin {
	const decorate = (state: EditorState) =>
		DecorationSet.create(
			state.doc,
			[...numbersIn(state.doc)].map(([pos, number]) =>
				Decoration.node(pos, pos + state.doc.nodeAt(pos)!.nodeSize, { 'data-number': number })
			)
		);
	const plugin: Plugin<DecorationSet> = new Plugin({
		state: {
			init: (_, state) => decorate(state),
			apply: (tr, held, _, state) => (tr.docChanged ? decorate(state) : held)
		},
		props: { decorations: (state) => plugin.getState(state) }
	});
	return plugin;
}

const hardBreak: Command = chainCommands(exitCode, (state, dispatch) => {
	dispatch?.(state.tr.replaceSelectionWith(nodes.hard_break!.create()).scrollIntoView());
	return true;
});

const keys: Record<string, Command> = {
	'Mod-z': undoCommand,
	'Mod-y': redoCommand,
	'Shift-Mod-z': redoCommand,
	'Mod-b': toggleMark(marks.strong!),
	'Mod-i': toggleMark(marks.em!),
	'Mod-u': toggleMark(marks.underline!),
	'Shift-Enter': hardBreak,
	Enter: splitListItem(nodes.list_item!),
	Tab: chainCommands(goToNextCell(1), sinkListItem(nodes.list_item!)),
	'Shift-Tab': chainCommands(goToNextCell(-1), liftListItem(nodes.list_item!))
};

/** Beginnings of a line that make a block of another kind, as in Markdown. */
const rules = inputRules({
	rules: [
		textblockTypeInputRule(new RegExp(`^(#{1,${DEEPEST}})\\s$`), nodes.heading!, (found) => ({
			level: found[1]!.length
		})),
		wrappingInputRule(/^\s*[-*]\s$/, nodes.bullet_list!),
		wrappingInputRule(/^1[.)]\s$/, nodes.ordered_list!)
	]
});

function cursor(user: { id?: string; name?: string }): HTMLElement {
	const caret = document.createElement('span');
	caret.className = 'caret';
	caret.style.borderColor = colourOf(user.id ?? '');
	const name = document.createElement('span');
	name.className = 'caret-name';
	name.style.background = colourOf(user.id ?? '');
	name.textContent = user.name ?? '';
	caret.append('\u2060', name, '\u2060');
	return caret;
}

/** What an editor is made of beside the line: how its user may write, and who hears of its changes. */
export interface EditorOptions {
	/** Address of a picture of this text. */
	picture: (content: string) => string;
	mode: () => RoomMode;
	/** Whether what is typed becomes a suggestion. */
	suggesting: () => boolean;
	changed: (state: EditorState) => void;
	/** Something was done that cannot be suggested. */
	notSuggested: () => void;
	followLink: (document: string) => void;
	/** Words with a remark were clicked. */
	remarked: (mark: string) => void;
	/** Pictures that were pasted or dropped. */
	pictures: (files: File[]) => void;
}

/** Opens an editor on the text of a room. */
export function openEditor(
	host: HTMLElement,
	line: LiveLine,
	label: string,
	options: EditorOptions
): EditorView {
	const state = EditorState.create({
		schema: textSchema,
		plugins: [
			ySyncPlugin(fragmentOf(line.doc)),
			yCursorPlugin(line.awareness, {
				cursorBuilder: cursor as never,
				selectionBuilder: (user: { id?: string }) => ({
					style: `background-color: color-mix(in srgb, ${colourOf(user.id ?? '')} 22%, transparent)`
				})
			}),
			yUndoPlugin(),
			suggestChanges(),
			rules,
			keymap(keys),
			keymap(baseKeymap),
			dropCursor(),
			gapCursor(),
			tableEditing(),
			numbering()
		]
	});
	const imagesOf = (data: DataTransfer | null) =>
		[...(data?.files ?? [])].filter((file) => file.type.startsWith('image/'));
	return new EditorView(host, {
		state,
		editable: () => options.mode() !== 'read',
		attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': 'true', spellcheck: 'true' },
		dispatchTransaction(this: EditorView, tr) {
			// What the binding still had to say when the page went on.
			if (this.isDestroyed) return;
			const taken = options.suggesting() && isTyping(tr) ? suggested(this.state, tr, line.me.id) : tr;
			if (!taken) return options.notSuggested();
			this.updateState(this.state.apply(taken));
			options.changed(this.state);
		},
		handleClickOn(_view, _pos, node) {
			if (node.type !== nodes.document_link) return false;
			options.followLink(node.attrs.document as string);
			return true;
		},
		handleClick(view, pos) {
			const mark = view.state.doc
				.resolve(pos)
				.marks()
				.find((m) => m.type === marks.remark);
			if (mark) options.remarked(mark.attrs.id as string);
			return false;
		},
		handlePaste(_view, event) {
			const files = imagesOf(event.clipboardData);
			if (files.length) options.pictures(files);
			return files.length > 0;
		},
		handleDrop(_view, event) {
			const files = imagesOf(event.dataTransfer);
			if (files.length) {
				event.preventDefault();
				options.pictures(files);
			}
			return files.length > 0;
		},
		nodeViews: {
			picture(node) {
				const dom = document.createElement('img');
				dom.src = options.picture(node.attrs.content as string);
				dom.alt = node.attrs.alt as string;
				dom.style.width = `${node.attrs.width as number}%`;
				return { dom };
			}
		}
	});
}

/** Whether a change is made by hand here, and is not one that came from others, an undo, or a decision about suggestions. */
function isTyping(tr: Transaction): boolean {
	const decided = tr.getMeta(suggestChangesKey) as { skip?: boolean } | undefined;
	return tr.docChanged && !tr.getMeta(ySyncPluginKey) && !decided?.skip;
}

function suggested(state: EditorState, tr: Transaction, author: string): Transaction | null {
	return asSuggestion(state, tr, suggestionId(author, nanoid(8)));
}

import {
	applySuggestions,
	revertSuggestions,
	transformToSuggestionTransaction
} from '@handlewithcare/prosemirror-suggest-changes';
import type { Mark, Node } from 'prosemirror-model';
import { EditorState, type Command, type Transaction } from 'prosemirror-state';

/** Marks the end of a paragraph that a suggestion adds or takes away; it is never shown. */
const BOUNDARY = /\u200b/g;

const KINDS = new Set(['insertion', 'deletion', 'modification']);

/** A proposed change to a text. */
export interface Suggestion {
	id: string;
	/** Id of the person who proposed it. */
	author: string;
	added: string;
	removed: string;
	/** Whether it changes how words look. */
	styled: boolean;
	/** Where it begins and ends, as positions in the text. */
	from: number;
	to: number;
}

/** The id of a suggestion names its author, so that a suggestion cannot be put under another's name unnoticed. */
export function suggestionId(author: string, unique: string): string {
	return `${author}.${unique}`;
}

/** Who made a suggestion, from its id. */
export function authorOf(id: string): string {
	return id.split('.')[0]!;
}

/** Kinds of step that leave blocks as they are; a shared text keeps marks of words, not of blocks. */
const WORDS = new Set(['replace', 'addMark', 'removeMark']);

/**
 * What somebody does to a text, as a suggestion.
 * @param id of the suggestion; see {@link suggestionId}
 * @returns null for what cannot be suggested: what changes the kind of a block, or would change the text itself
 */
export function asSuggestion(state: EditorState, change: Transaction, id: string): Transaction | null {
	let made: Transaction;
	try {
		made = transformToSuggestionTransaction(change, state, () => id);
	} catch {
		return null;
	}
	if (made.steps.some((step) => !WORDS.has((step.toJSON() as { stepType: string }).stepType))) return null;
	return withoutSuggestions(state.doc).eq(withoutSuggestions(made.doc)) ? made : null;
}

/** A text as if nothing were suggested. */
export function withoutSuggestions(text: Node): Node {
	return after(text, revertSuggestions);
}

/** A text as if everything suggested were taken. */
export function withSuggestions(text: Node): Node {
	return after(text, applySuggestions);
}

function after(text: Node, command: Command): Node {
	let found = text;
	command(EditorState.create({ doc: text }), (tr) => (found = tr.doc));
	return found;
}

const suggested = (node: Node): Mark | undefined => node.marks.find((m) => KINDS.has(m.type.name));

/** Everything that is suggested in a text, in reading order. */
export function suggestionsIn(text: Node): Suggestion[] {
	const found = new Map<string, Suggestion>();
	text.descendants((node, pos) => {
		const mark = suggested(node);
		if (!mark) return;
		const id = String(mark.attrs.id);
		const one = found.get(id) ?? {
			id,
			author: authorOf(id),
			added: '',
			removed: '',
			styled: false,
			from: pos,
			to: pos
		};
		const words = (node.textContent || '').replace(BOUNDARY, '¶');
		if (mark.type.name === 'insertion') one.added += words;
		else if (mark.type.name === 'deletion') one.removed += words;
		else one.styled = true;
		one.to = pos + node.nodeSize;
		found.set(id, one);
		return false;
	});
	return [...found.values()];
}

/** Whether everything of `part` stands in `whole` in the same order. */
function keptIn(part: string, whole: string): boolean {
	let at = 0;
	for (const letter of part) {
		at = whole.indexOf(letter, at);
		if (at < 0) return false;
		at += letter.length;
	}
	return true;
}

/**
 * Whether a change only suggests: the text as if nothing were suggested is the same before and after, new suggestions
 * carry the name of who makes them, and those of others are still there.
 * @param author id of the person who makes the change
 * @returns what is wrong, or null
 */
export function notOnlySuggesting(before: Node, after: Node, author: string): string | null {
	if (!withoutSuggestions(before).eq(withoutSuggestions(after)))
		return 'This changes the text itself; it can only be suggested.';
	const then = new Map(suggestionsIn(before).map((s) => [s.id, s]));
	const now = new Map(suggestionsIn(after).map((s) => [s.id, s]));
	for (const one of now.values())
		if (!then.has(one.id) && one.author !== author) return 'A suggestion carries the name of its author.';
	for (const one of then.values()) {
		if (one.author === author) continue;
		const left = now.get(one.id);
		if (!left || !keptIn(one.added, left.added) || !keptIn(one.removed, left.removed))
			return 'Suggestions of others can be taken or left by somebody with Work.';
	}
	return null;
}

import { checkNumber, type NumberingRule } from '../numbering/numbering';
import { parse, type RevisionScheme } from '../revisions/revisions';

/** A word on a sheet and its middle, in shares of the sheet's width and height from the upper left corner. */
export interface SheetWord {
	text: string;
	x: number;
	y: number;
}

/** A part of a sheet, in shares of its width and height. */
export interface SheetArea {
	left: number;
	top: number;
	right: number;
	bottom: number;
}

/** Where drawing offices put it when a project says nothing else: the lower right (ISO 7200). */
export const USUAL_TITLE_BLOCK: SheetArea = { left: 0.5, top: 0.6, right: 1, bottom: 1 };

/** Most words of a sheet that are kept for this; those nearest to the lower right corner. */
const MOST_WORDS = 300;

/** Of the words of a sheet, those that could be a number or a revision. */
export function tellingWords(words: readonly SheetWord[]): SheetWord[] {
	return words
		.filter((w) => /\d/.test(w.text) && /[A-Za-z]/.test(w.text) && w.text.length <= 60)
		.sort((a, b) => b.x + b.y - (a.x + a.y))
		.slice(0, MOST_WORDS);
}

/**
 * What a sheet's own title block says, read from the words at the place where it stands.
 * @returns number and revision; null where nothing there looks like one
 */
export function readTitleBlock(
	words: readonly SheetWord[],
	area: SheetArea,
	rule: NumberingRule,
	scheme: RevisionScheme
): { number: string | null; revision: string | null } {
	const within = words.filter(
		(w) => w.x >= area.left && w.x <= area.right && w.y >= area.top && w.y <= area.bottom
	);
	// Lowest and rightmost first, where the block's own number stands and not one that is referred to.
	const ordered = [...within].sort((a, b) => b.y + b.x - (a.y + a.x));
	const number = ordered.find((w) => checkNumber(rule, w.text).ok)?.text ?? null;
	const revision = ordered.find((w) => w.text !== number && parse(scheme, w.text) !== null)?.text ?? null;
	return { number, revision };
}

import type { Sheet } from './sheet';

/** What a sheet says about itself; null where it says nothing. */
export interface TitleBlock {
	number: string | null;
	title: string | null;
	revision: string | null;
	scale: string | null;
	date: string | null;
}

/** Tags under which offices keep these attributes, in order of preference. */
const TAGS: Record<keyof TitleBlock, RegExp> = {
	number: /^(DOC(UMENT)?_?|DRAWING_?|DRG_?|DWG_?)?(NO|NUM|NUMBER)$/,
	title: /^(DRAWING_?|SHEET_?)?TITLE_?1?$/,
	revision: /^REV(ISION)?(_?NO)?$/,
	scale: /^SCALE$/,
	date: /^(ISSUE_?|DRAWING_?)?DATE$/
};

/** Reads the title block from the attributes of a drawing's block insertions. */
export function titleBlock(attributes: Sheet['attributes']): TitleBlock {
	const find = (pattern: RegExp) =>
		attributes
			.find((a) => pattern.test(a.tag.replace(/[\s-]/g, '_')) && a.value.trim() !== '')
			?.value.trim() ?? null;
	return {
		number: find(TAGS.number),
		title: find(TAGS.title),
		revision: find(TAGS.revision),
		scale: find(TAGS.scale),
		date: find(TAGS.date)
	};
}

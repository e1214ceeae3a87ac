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

/** Which part of a title block an attribute of this tag is; null for none. */
export function partOf(tag: string): keyof TitleBlock | null {
	const words = tag.replace(/[\s-]/g, '_');
	return PARTS.find((part) => TAGS[part].test(words)) ?? null;
}
const PARTS = Object.keys(TAGS) as (keyof TitleBlock)[];

/** Reads the title block from the attributes of a drawing's block insertions. */
export function titleBlock(attributes: Sheet['attributes']): TitleBlock {
	const find = (part: keyof TitleBlock) =>
		attributes.find((a) => partOf(a.tag) === part && a.value.trim() !== '')?.value.trim() ?? null;
	return {
		number: find('number'),
		title: find('title'),
		revision: find('revision'),
		scale: find('scale'),
		date: find('date')
	};
}

import { z } from 'zod';
import { markSchema, WITH_WORDS, type Mark } from '../markup/mark';
import { plural } from '../words/sentences';

/** Marks that who answers a release draws on its sheets, as a part of the verdict. */

/** Kinds that say something by themselves: not what is measured by a scale, and no stamps of the project. */
const drawnKind = markSchema.shape.kind.exclude(['dimension', 'area', 'stamp']);
export const DRAWN_KINDS = drawnKind.options;

/** Whether who answers may draw at all: they may where a project does not say otherwise. */
export const mayDraw = ({ answersDraw }: { answersDraw?: boolean }): boolean => answersDraw ?? true;

/** Most marks of one recipient on one document, and most points that they have together. */
export const MOST_DRAWN = 300;
export const MOST_DRAWN_POINTS = 60_000;

/** A mark as it is drawn; who drew it and when is said by the server. */
export const drawnSchema = z.strictObject({
	...markSchema.pick({
		page: true,
		points: true,
		turn: true,
		size: true,
		text: true,
		order: true,
		group: true
	}).shape,
	id: z.string().regex(/^[\w-]{6,20}$/, 'This is not an id of a mark.'),
	kind: drawnKind
});
export type Drawn = z.output<typeof drawnSchema>;

/** It as a mark of a sheet. @param whose `by` is an id, `from` the name and company of who drew it, `at` ISO 8601 in UTC */
export const markOf = (drawn: Drawn, whose: Pick<Mark, 'by' | 'from' | 'at' | 'layer'>): Mark => ({
	...drawn,
	...whose,
	carried: null
});

/** The part of a mark that is drawn; null for kinds that nobody draws in an answer. */
export function drawnOf({ by: _by, from: _from, at: _at, layer: _layer, carried: _carried, ...mark }: Mark) {
	const { data } = drawnSchema.safeParse(mark);
	return data ?? null;
}

/** What drawn marks say, page by page: their words, and how many have none. */
export function drawnWords(
	marks: readonly Pick<Mark, 'page' | 'kind' | 'text'>[]
): { page: number; text: string }[] {
	const pages = [...new Set(marks.map((mark) => mark.page))].sort((a, b) => a - b);
	return pages.map((page) => {
		const here = marks.filter((mark) => mark.page === page);
		const worded = here.filter((mark) => WITH_WORDS.has(mark.kind));
		const silent = here.length - worded.length;
		const words = worded.map((mark) => `“${mark.text.trim()}”`);
		if (silent)
			words.push(worded.length ? `${plural(silent, 'mark')} without words` : plural(silent, 'mark'));
		return { page, text: words.join('; ') };
	});
}

import { z } from 'zod';

/** Kinds of mark that people put on sheets. */
export const MARK_KINDS = [
	'cloud',
	'arrow',
	'line',
	'polyline',
	'rectangle',
	'ellipse',
	'freehand',
	'highlight',
	'text',
	'callout',
	'dimension',
	'area',
	'count',
	'stamp'
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

export interface Point {
	x: number;
	y: number;
}

const finite = z.number().min(-1e12).max(1e12);

/** A mark as it is kept. Points are lasting coordinates of the sheet (see `Face`), sizes in the same units. */
export const markSchema = z.object({
	kind: z.enum(MARK_KINDS),
	page: z.int().min(1).max(100_000),
	points: z
		.array(z.object({ x: finite, y: finite }))
		.min(1)
		.max(5_000),
	/** Degrees by which it is turned about its middle, clockwise as seen. */
	turn: z.number().min(-360).max(360),
	/** Height of its letters, and measure of its arrowheads and cloud arcs. */
	size: z.number().positive().max(1e9),
	text: z.string().max(2_000),
	/** Code of the department whose layer it lies on. */
	layer: z.string().max(20),
	/** Id of the person who made it. */
	by: z.string().max(20),
	/** Who drew it outside, with their company, where `by` is who issued the release that they answered. */
	from: z.string().max(400).optional(),
	at: z.iso.datetime(),
	/** Marks with the same group are chosen and moved together. */
	group: z.string().max(20).nullable(),
	/** Place in the stack; higher lies above. */
	order: z.number().min(-1e9).max(1e9),
	/** It was carried over from an earlier version, and whether what lies under it has changed since. */
	carried: z.enum(['same', 'changed']).nullable()
});
export type MarkFields = z.output<typeof markSchema>;
export interface Mark extends MarkFields {
	id: string;
}

/** Fewest points that a kind needs before it says anything. */
export const FEWEST: Record<MarkKind, number> = {
	cloud: 2,
	arrow: 2,
	line: 2,
	polyline: 2,
	rectangle: 2,
	ellipse: 2,
	freehand: 2,
	highlight: 2,
	text: 1,
	callout: 2,
	dimension: 2,
	area: 3,
	count: 1,
	stamp: 1
};

/** Kinds drawn point by point until one says that it is done; the others end with the second press or the release. */
export const POINT_BY_POINT: ReadonlySet<MarkKind> = new Set(['polyline', 'area', 'count']);
/** Kinds that carry words. */
export const WITH_WORDS: ReadonlySet<MarkKind> = new Set(['text', 'callout', 'stamp']);

/** How many units of the sheet are one unit of the real thing, on a page. */
export interface Scale {
	/** Units of the sheet for one real unit. */
	perUnit: number;
	unit: string;
}

/** A length on the sheet as people say it. */
export function lengthText(length: number, scale: Scale | null, unit: string): string {
	const real = scale ? length / scale.perUnit : length;
	return `${real.toLocaleString('en', { maximumFractionDigits: real < 10 ? 2 : real < 1_000 ? 1 : 0 })} ${scale ? scale.unit : unit}`.trim();
}
export function areaText(area: number, scale: Scale | null, unit: string): string {
	const real = scale ? area / scale.perUnit ** 2 : area;
	const of = scale ? scale.unit : unit;
	return `${real.toLocaleString('en', { maximumFractionDigits: real < 100 ? 2 : 0 })}${of ? ` ${of}²` : ''}`;
}

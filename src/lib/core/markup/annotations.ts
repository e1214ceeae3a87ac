import type { Mark, MarkFields, MarkKind, Point } from './mark';
import { boxOf, markBox } from './shape';

/**
 * A mark in the words of PDF (ISO 32000-1, 12.5.6): points in the page's own units, y upward. What XFDF (ISO 19444-1)
 * and the annotations of a PDF file have in common.
 */
export interface Annotation {
	type: 'Line' | 'PolyLine' | 'Polygon' | 'Square' | 'Circle' | 'Ink' | 'FreeText';
	/** Counts from 1. */
	page: number;
	name: string;
	/** Left, bottom, right, top. */
	rect: [number, number, number, number];
	/** Ends of a line, corners of a polygon, points of a stroke. */
	points: Point[];
	/** Further strokes of what was drawn by hand in several. */
	strokes?: Point[][];
	/** What a callout points with, from its tip to the words. */
	callout: Point[];
	/** Words of a text, or what is said of a shape. */
	contents: string;
	author: string;
	/** What the mark is called. */
	subject: string;
	/** ISO 8601. */
	at: string;
	/** As #rrggbb. */
	colour: string;
	width: number;
	dash: number[];
	opacity: number;
	/** A cloud instead of straight sides. */
	cloudy: boolean;
	/** An arrowhead at the last point. */
	head: boolean;
	intent: string;
	/** Of the letters. */
	size: number;
}

/** From the coordinates of the view to those of the page: x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = [a: number, b: number, c: number, d: number, e: number, f: number];

/** The matrix of a page as it is seen: cut to its crop box and turned (ISO 32000-1, 8.3.2.3 and 14.11.2). */
export function pageMatrix(box: { x: number; y: number; w: number; h: number }, turned: number): Matrix {
	const { x, y, w, h } = box;
	switch (((turned % 360) + 360) % 360) {
		case 90:
			return [0, 1, 1, 0, x, y];
		case 180:
			return [-1, 0, 0, 1, x + w, y];
		case 270:
			return [0, -1, -1, 0, x + w, y + h];
		default:
			return [1, 0, 0, -1, x, y + h];
	}
}

export function through([a, b, c, d, e, f]: Matrix, { x, y }: Point): Point {
	return { x: a * x + c * y + e, y: b * x + d * y + f };
}
/** The way back; the matrices of pages always have one. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix {
	const det = a * d - b * c;
	return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

const SUBJECT: Record<MarkKind, string> = {
	cloud: 'Cloud',
	arrow: 'Arrow',
	line: 'Line',
	polyline: 'Polyline',
	rectangle: 'Rectangle',
	ellipse: 'Ellipse',
	freehand: 'Freehand',
	highlight: 'Highlighter',
	text: 'Words',
	callout: 'Callout',
	dimension: 'Dimension',
	area: 'Area',
	count: 'Count',
	stamp: 'Stamp'
};
const TYPE: Record<MarkKind, Annotation['type']> = {
	cloud: 'Polygon',
	arrow: 'Line',
	line: 'Line',
	polyline: 'PolyLine',
	rectangle: 'Square',
	ellipse: 'Circle',
	freehand: 'Ink',
	highlight: 'Ink',
	text: 'FreeText',
	callout: 'FreeText',
	dimension: 'Line',
	area: 'Polygon',
	count: 'Circle',
	stamp: 'FreeText'
};
const INTENT: Partial<Record<MarkKind, string>> = {
	cloud: 'PolygonCloud',
	arrow: 'LineArrow',
	callout: 'FreeTextCallout',
	dimension: 'LineDimension',
	area: 'PolygonDimension'
};

/** How marks look and whose they are, which marks do not say themselves. */
export interface Saying {
	colour: string;
	dash: number[];
	width: number;
	author: string;
	/** The length or area of a measured mark. */
	measure: string;
}

const corners = (box: { x: number; y: number; w: number; h: number }): Point[] => [
	{ x: box.x, y: box.y },
	{ x: box.x + box.w, y: box.y },
	{ x: box.x + box.w, y: box.y + box.h },
	{ x: box.x, y: box.y + box.h }
];

function turnedAbout(points: Point[], centre: Point, degrees: number): Point[] {
	const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
	return points.map(({ x, y }) => ({
		x: centre.x + (x - centre.x) * cos - (y - centre.y) * sin,
		y: centre.y + (x - centre.x) * sin + (y - centre.y) * cos
	}));
}

/** A mark as annotations; one for each point of a count, else one. */
export function annotationsOf(mark: Mark, page: Matrix, saying: Saying): Annotation[] {
	const { kind, size } = mark;
	if (kind === 'count' && mark.points.length > 1)
		return mark.points.flatMap((point, i) =>
			annotationsOf({ ...mark, id: `${mark.id}-${i + 1}`, points: [point] }, page, saying)
		);
	const box = markBox(mark, mark.points);
	const centre = { x: box.x + box.w / 2, y: box.y + box.h / 2 };
	const bent = mark.turn !== 0 && (kind === 'rectangle' || kind === 'ellipse');
	const outline = kind === 'cloud' || bent ? corners(boxOf(mark.points)) : mark.points;
	const points = (mark.turn ? turnedAbout(outline, centre, mark.turn) : [...outline]).map((p) =>
		through(page, p)
	);
	const around = boxOf(
		(kind === 'text' || kind === 'stamp' ? corners(box) : [...corners(box), ...outline]).map((p) =>
			through(page, p)
		)
	);
	const pad =
		kind === 'rectangle' || kind === 'ellipse' || kind === 'text' || kind === 'stamp' || kind === 'count'
			? 0
			: size;
	const [tip, words] = mark.points as [Point, Point?];
	return [
		{
			type: bent ? 'Polygon' : TYPE[kind],
			page: mark.page,
			name: mark.id,
			rect: [around.x - pad, around.y - pad, around.x + around.w + pad, around.y + around.h + pad],
			points:
				TYPE[kind] === 'FreeText' || (TYPE[kind] === 'Circle' && !bent) || (TYPE[kind] === 'Square' && !bent)
					? []
					: points,
			callout: kind === 'callout' && words ? [through(page, tip), through(page, words)] : [],
			contents: mark.text || saying.measure,
			author: saying.author,
			subject: SUBJECT[kind],
			at: mark.at,
			colour: saying.colour,
			width: kind === 'highlight' ? size * 1.2 : saying.width,
			dash: kind === 'highlight' ? [] : saying.dash,
			opacity: kind === 'highlight' ? 0.32 : 1,
			cloudy: kind === 'cloud',
			head: kind === 'arrow',
			intent: INTENT[kind] ?? '',
			size
		}
	];
}

/** A mark as somebody's own, without what the one who brings it in adds. */
export type Brought = Pick<MarkFields, 'kind' | 'page' | 'points' | 'size' | 'text' | 'group'>;

/**
 * What an annotation is as marks: one, none when there is nothing like it here, or a group of strokes.
 * @param back from the page's units to those of the view
 * @param group names the marks of this annotation when they are several
 */
export function marksFrom(annotation: Annotation, back: Matrix, group: string): Brought[] {
	const strokes = [annotation.points, ...(annotation.strokes ?? [])];
	if (annotation.type !== 'Ink' || strokes.length === 1) {
		const mark = markFrom(annotation, back);
		return mark ? [mark] : [];
	}
	return strokes.flatMap((points) => {
		const mark = markFrom({ ...annotation, points }, back);
		return mark ? [{ ...mark, group }] : [];
	});
}

function markFrom(annotation: Annotation, back: Matrix): Brought | null {
	const { type, page, rect } = annotation;
	const seen = (points: readonly Point[]) => points.map((p) => through(back, p));
	const [first, second] = seen([
		{ x: rect[0], y: rect[1] },
		{ x: rect[2], y: rect[3] }
	]) as [Point, Point];
	const box = boxOf([first, second]);
	const upper = [
		{ x: box.x, y: box.y },
		{ x: box.x + box.w, y: box.y + box.h }
	];
	const size = annotation.size > 0 ? annotation.size : 12;
	const shape = (kind: MarkKind, points: Point[], fewest: number): Brought | null =>
		points.length >= fewest && points.length <= 5_000
			? { kind, page, points, size, text: annotation.contents.slice(0, 2_000), group: null }
			: null;
	const points = seen(annotation.points);
	switch (type) {
		case 'Line':
			return shape(
				annotation.intent === 'LineDimension' ? 'dimension' : annotation.head ? 'arrow' : 'line',
				points.slice(0, 2),
				2
			);
		case 'PolyLine':
			return shape('polyline', points, 2);
		case 'Polygon':
			if (annotation.cloudy) {
				const around = boxOf(points);
				return shape(
					'cloud',
					corners(around).filter((_, i) => i % 2 === 0),
					2
				);
			}
			if (annotation.intent === 'PolygonDimension') return shape('area', points, 3);
			return shape('polyline', points.length ? [...points, points[0]!] : [], 3);
		case 'Square':
			return shape('rectangle', upper, 2);
		case 'Circle':
			if (annotation.subject === SUBJECT.count)
				return shape('count', [{ x: box.x + box.w / 2, y: box.y + box.h / 2 }], 1);
			return shape('ellipse', upper, 2);
		case 'Ink': {
			if (annotation.opacity >= 0.6) return shape('freehand', points, 2);
			const washed = shape('highlight', points, 2);
			return washed && { ...washed, size: Math.max(1, annotation.width / 1.2) };
		}
		case 'FreeText': {
			if (!annotation.contents.trim()) return null;
			const [tip, ...rest] = seen(annotation.callout);
			if (tip && rest.length) return shape('callout', [tip, rest.at(-1)!], 2);
			return shape(annotation.subject === SUBJECT.stamp ? 'stamp' : 'text', [upper[0]!], 1);
		}
	}
}

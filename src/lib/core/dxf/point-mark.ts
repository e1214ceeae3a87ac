import { arc, type Point } from './curves';
import { numberOf, type Drawing } from './read';

/** How a drawing shows its points. */
export interface PointLook {
	/** $PDMODE: 0 a dot, 1 nothing, 2 a cross, 3 a slanted cross, 4 a tick; with 32 a circle, with 64 a square around. */
	mode: number;
	/** Height of a mark in drawing units; 0 where it is not known, and a dot must do. */
	size: number;
}

/** Part of the drawing's height that a mark takes when the drawing gives no size of its own. */
const USUAL = 1;

/** How points are shown (DXF reference, $PDMODE and $PDSIZE: above 0 units, below 0 a percentage of the height). */
export function pointLook({ header }: Drawing): PointLook {
	const mode = numberOf(header.get('$PDMODE') ?? [], 70);
	const size = numberOf(header.get('$PDSIZE') ?? [], 40);
	const height = numberOf(header.get('$EXTMAX') ?? [], 20) - numberOf(header.get('$EXTMIN') ?? [], 20);
	const known = height > 0 && height < 1e12;
	return { mode, size: size > 0 ? size : known ? (height * (-size || USUAL)) / 100 : 0 };
}

/** The lines of a point's mark; a line from a point to itself is a dot. */
export function pointMark([x, y]: Point, { mode, size }: PointLook): Point[][] {
	const dot: Point[][] = [
		[
			[x, y],
			[x, y]
		]
	];
	if (mode === 1) return [];
	if (!(size > 0)) return dot;
	const h = size / 2;
	const line = (dx: number, dy: number): Point[] => [
		[x - dx, y - dy],
		[x + dx, y + dy]
	];
	const inner: Record<number, Point[][]> = {
		0: dot,
		1: [],
		2: [line(2 * h, 0), line(0, 2 * h)],
		3: [line(h, h), line(h, -h)],
		4: [
			[
				[x, y],
				[x, y + h]
			]
		]
	};
	const lines = [...(inner[mode & 7] ?? dot)];
	if (mode & 32) lines.push(arc(x, y, h, 0, 2 * Math.PI));
	if (mode & 64)
		lines.push([
			[x - h, y - h],
			[x + h, y - h],
			[x + h, y + h],
			[x - h, y + h],
			[x - h, y - h]
		]);
	return lines;
}

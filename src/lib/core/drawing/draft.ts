import type { ItemFields, XY } from './item';

/** What the pointer does in a drawing: choose, or draw one kind of thing. */
export const TOOLS = ['choose', 'line', 'polyline', 'circle', 'arc', 'text', 'block'] as const;
export type DrawTool = (typeof TOOLS)[number];

/** Points after which what a tool draws is complete; a polyline takes as many as one likes. */
export const POINTS: Record<Exclude<DrawTool, 'choose'>, number> = {
	line: 2,
	polyline: Infinity,
	circle: 2,
	arc: 3,
	text: 1,
	block: 1
};

/** What is settled beside the drawing before something is drawn. */
export interface Settled {
	layer: string;
	words: string;
	/** Of letters, in drawing units. */
	height: number;
	block: string;
	/** Times as large as the block is drawn. */
	scale: number;
	/** Degrees, counter-clockwise. */
	turn: number;
}

/** What a tool draws with a set of points, or null when that is nothing yet. */
export function draftOf(tool: DrawTool, points: readonly XY[], settled: Settled): ItemFields | null {
	const [first, second, third] = points;
	const { layer, turn } = settled;
	if (!first || tool === 'choose') return null;
	const held: Pick<ItemFields, 'layer' | 'points'> = { layer, points: points.map(([x, y]) => [x, y]) };
	const middle: ItemFields['points'] = [[first[0], first[1]]];
	const radius = second ? Math.hypot(second[0] - first[0], second[1] - first[1]) : 0;
	const angle = ([x, y]: XY) => (Math.atan2(y - first[1], x - first[0]) * 180) / Math.PI;
	switch (tool) {
		case 'line':
			return second ? { ...held, kind: 'line' } : null;
		case 'polyline': {
			const last = points.at(-1)!;
			const closed = points.length > 3 && last[0] === first[0] && last[1] === first[1];
			return { ...held, kind: 'polyline', closed, points: closed ? held.points.slice(0, -1) : held.points };
		}
		case 'circle':
			return radius > 0 ? { layer, kind: 'circle', points: middle, radius } : null;
		case 'arc':
			return second && radius > 0
				? { layer, kind: 'arc', points: middle, radius, from: angle(second), to: angle(third ?? second) }
				: null;
		case 'text': {
			const text = settled.words.trim();
			return text ? { ...held, kind: 'text', text, height: settled.height, turn } : null;
		}
		case 'block':
			return settled.block
				? { ...held, kind: 'block', block: settled.block, scale: settled.scale, turn }
				: null;
	}
}

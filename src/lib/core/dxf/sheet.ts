import type { Flat } from './curves';
import type { Gradient } from './gradient';

/** What a drawing comes down to for showing it, in drawing units with y upward. */
export interface Sheet {
	strokes: Stroke[];
	fills: Fill[];
	texts: Text[];
	layers: { name: string; visible: boolean; items: number }[];
	/** Attributes of block insertions, by block and tag; title blocks are read from here. */
	attributes: { block: string; tag: string; value: string }[];
	/** Smallest box around everything visible: left, bottom, right, top. */
	box: [number, number, number, number];
	/** What is not shown, by kind, with how many there are: kinds not read here, and what lacks what it refers to. */
	unknown: Record<string, number>;
	/** The unit of the drawing, such as mm; empty when it does not say. */
	unit: string;
	/** True when the drawing held more than the limits below let through. */
	cut: boolean;
}
interface Item {
	/** The entity of the drawing that it comes from, by its place in the file. */
	of: number;
	layer: number;
	/** 0xRRGGBB, or -1 for ink (black on light ground, white on dark). */
	colour: number;
}
/** A line; from a point to itself it is a dot. */
export interface Stroke extends Item {
	points: Flat;
	/** Millimetres on paper. */
	weight: number;
	/** Width in drawing units, for lines that are drawn as wide as something; 0 for those drawn by their weight. */
	wide: number;
	/** Dash lengths in drawing units, empty for a full line. */
	dash: number[];
}
export interface Fill extends Item {
	loops: Flat[];
	gradient: Gradient | null;
}
export interface Text extends Item {
	x: number;
	y: number;
	height: number;
	/** Radians. */
	turn: number;
	text: string;
	/** Width of the letters against the ordinary, and how far they lean, in radians. */
	wide: number;
	slant: number;
	/** 0 left, 0.5 middle, 1 right of the text at x. */
	alignX: number;
	/** 0 baseline or bottom, 0.5 middle, 1 top of the text at y. */
	alignY: number;
}

/** Whether a line goes nowhere and is shown as a dot. */
export const isDot = (points: Flat): boolean =>
	points.length === 4 && points[0] === points[2] && points[1] === points[3];

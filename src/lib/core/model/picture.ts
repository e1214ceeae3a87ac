/** A body of a building model: corners as x, y, z with z upward, and triangles by the numbers of their corners. */
export interface Body {
	corners: Float32Array;
	triangles: Uint32Array;
	/** Red, green, blue from 0 to 1. */
	colour: readonly [number, number, number];
}

/** From where a model is looked at: over one of its corners, or straight from above. */
export const SIDES = [
	'From the south-west',
	'From the south-east',
	'From the north-east',
	'From the north-west',
	'From above'
] as const;

type Vector = readonly [number, number, number];
const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const unit = (v: Vector): Vector => {
	const length = Math.hypot(...v) || 1;
	return [v[0] / length, v[1] / length, v[2] / length];
};
const cross = (a: Vector, b: Vector): Vector => [
	a[1] * b[2] - a[2] * b[1],
	a[2] * b[0] - a[0] * b[2],
	a[0] * b[1] - a[1] * b[0]
];

/** Directions to the right and up on the picture, and towards the eye. */
function axesOf(side: number): { right: Vector; up: Vector; eye: Vector } {
	if (side === 4) return { right: [1, 0, 0], up: [0, 1, 0], eye: [0, 0, 1] };
	const turn = -Math.PI / 4 + (side * Math.PI) / 2;
	const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
	const right: Vector = [cos, sin, 0];
	const eye = unit([sin, -cos, 0.62]);
	return { right, up: cross(eye, right), eye };
}

const LIGHT = unit([-0.4, -0.7, 1]);
const PAPER = 255;
/** Pixels of white around the model. */
const EDGE = 12;

/**
 * A picture of a model without perspective: each pixel takes the nearest surface (a depth buffer, Catmull 1974), shaded
 * by how it stands to the light, with dark lines where surfaces end or bend.
 * @param side which of {@link SIDES}
 * @param most pixels along the longer side
 * @returns red, green and blue of each pixel, row by row; null when there is nothing to be seen
 */
export function modelPicture(
	bodies: readonly Body[],
	side: number,
	most: number
): { width: number; height: number; pixels: Uint8Array } | null {
	const { right, up, eye } = axesOf(side);
	const box = [Infinity, Infinity, -Infinity, -Infinity];
	const seen = bodies.map(({ corners }) => {
		const flat = new Float32Array(corners.length);
		for (let i = 0; i < corners.length; i += 3) {
			const corner: Vector = [corners[i]!, corners[i + 1]!, corners[i + 2]!];
			const [x, y] = [dot(corner, right), dot(corner, up)];
			flat[i] = x;
			flat[i + 1] = y;
			flat[i + 2] = dot(corner, eye);
			box[0] = Math.min(box[0]!, x);
			box[1] = Math.min(box[1]!, y);
			box[2] = Math.max(box[2]!, x);
			box[3] = Math.max(box[3]!, y);
		}
		return flat;
	});
	const [left, bottom, farRight, top] = box as [number, number, number, number];
	const span = Math.max(farRight - left, top - bottom);
	if (!(span > 0) || !Number.isFinite(span)) return null;
	const scale = (most - 2 * EDGE) / span;
	const width = Math.max(1, Math.ceil((farRight - left) * scale) + 2 * EDGE);
	const height = Math.max(1, Math.ceil((top - bottom) * scale) + 2 * EDGE);
	const depth = new Float32Array(width * height).fill(-Infinity);
	const shade = new Float32Array(width * height);
	const pixels = new Uint8Array(width * height * 3).fill(PAPER);

	bodies.forEach(({ triangles, colour, corners }, b) => {
		const flat = seen[b]!;
		for (let t = 0; t + 2 < triangles.length; t += 3) {
			const at = [triangles[t]! * 3, triangles[t + 1]! * 3, triangles[t + 2]! * 3] as const;
			const [x0, x1, x2] = at.map((i) => (flat[i]! - left) * scale + EDGE) as [number, number, number];
			const [y0, y1, y2] = at.map((i) => (top - flat[i + 1]!) * scale + EDGE) as [number, number, number];
			const area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0);
			if (!(Math.abs(area) > 1e-9)) continue;
			const corner = (i: number): Vector => [corners[i]!, corners[i + 1]!, corners[i + 2]!];
			const [p, q, r] = at.map(corner) as [Vector, Vector, Vector];
			const normal = unit(
				cross([q[0] - p[0], q[1] - p[1], q[2] - p[2]], [r[0] - p[0], r[1] - p[1], r[2] - p[2]])
			);
			// Which way round a triangle goes differs between programs; what is seen faces the eye.
			const facing = dot(normal, eye) < 0 ? -1 : 1;
			const bright = 0.55 + 0.45 * Math.max(0, facing * dot(normal, LIGHT));
			const bend = facing * (normal[0] * 1.7 + normal[1] * 2.9 + normal[2] * 4.3);
			const [lowX, highX] = [
				Math.max(0, Math.floor(Math.min(x0, x1, x2))),
				Math.min(width - 1, Math.ceil(Math.max(x0, x1, x2)))
			];
			const [lowY, highY] = [
				Math.max(0, Math.floor(Math.min(y0, y1, y2))),
				Math.min(height - 1, Math.ceil(Math.max(y0, y1, y2)))
			];
			for (let y = lowY; y <= highY; y++)
				for (let x = lowX; x <= highX; x++) {
					const w0 = ((x1 - x) * (y2 - y) - (x2 - x) * (y1 - y)) / area;
					const w1 = ((x2 - x) * (y0 - y) - (x0 - x) * (y2 - y)) / area;
					const w2 = 1 - w0 - w1;
					if (w0 < -1e-6 || w1 < -1e-6 || w2 < -1e-6) continue;
					const z = w0 * flat[at[0] + 2]! + w1 * flat[at[1] + 2]! + w2 * flat[at[2] + 2]!;
					const pixel = y * width + x;
					if (z <= depth[pixel]!) continue;
					depth[pixel] = z;
					shade[pixel] = bend;
					for (let c = 0; c < 3; c++)
						pixels[pixel * 3 + c] = Math.round(255 * Math.min(1, Math.max(0, colour[c]!)) * bright);
				}
		}
	});
	drawEdges(pixels, depth, shade, width, height, span * 0.004);
	return { width, height, pixels };
}

/** Darkens the pixels at which a surface ends, or another begins that stands at another angle. */
function drawEdges(
	pixels: Uint8Array,
	depth: Float32Array,
	shade: Float32Array,
	width: number,
	height: number,
	step: number
): void {
	for (let y = 0; y + 1 < height; y++)
		for (let x = 0; x + 1 < width; x++) {
			const here = y * width + x;
			const edge = [1, width].some((way) => {
				const [before, a, b] = [depth[here - way] ?? -Infinity, depth[here]!, depth[here + way]!];
				if (a === -Infinity || b === -Infinity) return a !== b;
				// A surface that falls away goes on falling; only where it breaks off there is an edge.
				const falls = before === -Infinity ? 0 : a - before;
				const turns = Math.abs(shade[here]! - shade[here + way]!) > 0.3;
				return turns || (Math.abs(b - a) > step && Math.abs(b - a - falls) > step);
			});
			if (edge) for (let c = 0; c < 3; c++) pixels[here * 3 + c] = Math.round(pixels[here * 3 + c]! * 0.35);
		}
}

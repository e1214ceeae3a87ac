export type Point = [x: number, y: number];

/**
 * Points one after the other as x and y. Plain lists: of the hundred thousand short ones in a drawing, typed arrays take
 * three times the memory, and longer to hand to another thread.
 */
export type Flat = readonly number[];

/** Segments for an arc of `sweep` radians: fine enough that the chord error stays under 0.2 % of the radius. */
function segments(sweep: number): number {
	return Math.max(2, Math.ceil(Math.abs(sweep) / (Math.PI / 24)));
}

/** Points of an arc from `start` over `sweep` radians, counter-clockwise when positive. */
export function arc(cx: number, cy: number, radius: number, start: number, sweep: number): Point[] {
	const n = segments(sweep);
	const points: Point[] = [];
	for (let i = 0; i <= n; i++) {
		const angle = start + (sweep * i) / n;
		points.push([cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)]);
	}
	return points;
}

/** Points of an ellipse given by centre, end of the major axis relative to it, ratio and parameters. */
export function ellipse(
	cx: number,
	cy: number,
	mx: number,
	my: number,
	ratio: number,
	start: number,
	end: number
): Point[] {
	let sweep = end - start;
	if (sweep <= 0) sweep += 2 * Math.PI;
	const n = segments(sweep) * 2;
	return Array.from({ length: n + 1 }, (_, i) => {
		const t = start + (sweep * i) / n;
		const c = Math.cos(t);
		const s = Math.sin(t) * ratio;
		return [cx + mx * c - my * s, cy + my * c + mx * s];
	});
}

/** Points after `from` up to `to` along a bulge (tangent of a quarter of the arc's angle). */
export function bulge(from: Point, to: Point, value: number): Point[] {
	if (Math.abs(value) < 1e-9) return [to];
	const sweep = 4 * Math.atan(value);
	const dx = to[0] - from[0];
	const dy = to[1] - from[1];
	const chord = Math.hypot(dx, dy);
	if (chord < 1e-12) return [to];
	const radius = chord / (2 * Math.sin(sweep / 2));
	const offset = radius * Math.cos(sweep / 2);
	const cx = from[0] + dx / 2 - (dy / chord) * offset;
	const cy = from[1] + dy / 2 + (dx / chord) * offset;
	const points = arc(cx, cy, Math.abs(radius), Math.atan2(from[1] - cy, from[0] - cx), sweep).slice(1);
	points[points.length - 1] = to;
	return points;
}

/** Points of a polyline with bulges; `bulges[i]` belongs to the segment from vertex i to the next. */
export function polyline(vertices: Point[], bulges: number[], closed: boolean): Point[] {
	const first = vertices[0];
	if (!first) return [];
	const points: Point[] = [first];
	const last = closed ? vertices.length : vertices.length - 1;
	for (let i = 0; i < last; i++) {
		points.push(...bulge(vertices[i]!, vertices[(i + 1) % vertices.length]!, bulges[i] ?? 0));
	}
	return points;
}

/** Points of a B-spline by de Boor's algorithm; falls back to the control polygon when the knots do not fit. */
export function spline(degree: number, control: Point[], knots: number[], weights: number[]): Point[] {
	if (degree < 1 || control.length <= degree || knots.length !== control.length + degree + 1) return control;
	const from = knots[degree]!;
	const to = knots[control.length]!;
	const n = Math.min(600, control.length * 8);
	const points: Point[] = [];
	for (let i = 0; i <= n; i++) {
		const u = from + ((to - from) * i) / n;
		let span = degree;
		while (span < control.length - 1 && u >= knots[span + 1]!) span++;
		const d = Array.from({ length: degree + 1 }, (_, j) => {
			const k = j + span - degree;
			const w = weights[k] ?? 1;
			return [control[k]![0] * w, control[k]![1] * w, w] as [number, number, number];
		});
		for (let r = 1; r <= degree; r++) {
			for (let j = degree; j >= r; j--) {
				const low = knots[j + span - degree]!;
				const high = knots[j + 1 + span - r]!;
				const a = high === low ? 0 : (u - low) / (high - low);
				for (let c = 0; c < 3; c++) d[j]![c] = (1 - a) * d[j - 1]![c]! + a * d[j]![c]!;
			}
		}
		const [x, y, w] = d[degree]!;
		points.push([x / (w || 1), y / (w || 1)]);
	}
	return points;
}

/**
 * Lines of a hatch: parallels at `angle` (radians) spaced by `gap`, kept where they lie inside the loops (even-odd).
 * Null when they would be more than `most`, or have no gap.
 */
export function hatchLines(
	loops: Point[][],
	angle: number,
	gap: number,
	most: number
): [Point, Point][] | null {
	const cos = Math.cos(-angle);
	const sin = Math.sin(-angle);
	const turned = loops.map((loop) => loop.map(([x, y]): Point => [x * cos - y * sin, x * sin + y * cos]));
	let low = Infinity;
	let high = -Infinity;
	for (const loop of turned)
		for (const [, y] of loop) {
			low = Math.min(low, y);
			high = Math.max(high, y);
		}
	const lines: [Point, Point][] = [];
	if (!(gap > 0) || (high - low) / gap > most) return null;
	for (let y = Math.ceil(low / gap) * gap; y <= high; y += gap) {
		const crossings: number[] = [];
		for (const loop of turned) {
			for (let i = 0; i < loop.length; i++) {
				const [ax, ay] = loop[i]!;
				const [bx, by] = loop[(i + 1) % loop.length]!;
				if (ay <= y === by <= y) continue;
				crossings.push(ax + ((y - ay) / (by - ay)) * (bx - ax));
			}
		}
		crossings.sort((a, b) => a - b);
		for (let i = 0; i + 1 < crossings.length; i += 2) {
			const back = (x: number): Point => [x * cos + y * sin, -x * sin + y * cos];
			lines.push([back(crossings[i]!), back(crossings[i + 1]!)]);
		}
	}
	return lines;
}

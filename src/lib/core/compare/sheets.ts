import { grown, movedMask, shared, without, type Mask } from './mask';

/** A place where two sheets differ, in pixels of the first. */
export interface ChangedPlace {
	x: number;
	y: number;
	w: number;
	h: number;
	/** Pixels that only the first sheet has, and only the second. */
	takenAway: number;
	added: number;
}

export interface SheetComparison {
	/** How far the second sheet was moved to lie on the first. */
	shift: { x: number; y: number };
	/** How many pixels of difference were let pass. */
	tolerance: number;
	takenAway: Mask;
	added: Mask;
	places: ChangedPlace[];
}

export interface SheetOptions {
	/** Pixels of difference to let pass; chosen from the sheets when left out. */
	tolerance?: number | undefined;
	/** How far to move the second; found when left out. */
	shift?: { x: number; y: number } | undefined;
	/** Places with fewer changed pixels are left out. */
	least?: number;
}

/** Farthest shift that is looked for, in pixels. */
const FARTHEST = 120;
/** Most pixels that a shift is mended by after it was found. */
const MOST_STEPS = 4;
const CELL = 16;
/** Pixels of ink from which a sheet counts as full. */
const FULL = 200_000;

/** The profile less its moving mean, so that lines count and grey areas do not. */
function lines(profile: Uint32Array): Float64Array {
	const half = 15;
	const out = new Float64Array(profile.length);
	let sum = 0;
	for (let i = 0; i < Math.min(half, profile.length); i++) sum += profile[i]!;
	for (let i = 0; i < profile.length; i++) {
		if (i + half < profile.length) sum += profile[i + half]!;
		if (i - half - 1 >= 0) sum -= profile[i - half - 1]!;
		const n = Math.min(i + half, profile.length - 1) - Math.max(i - half, 0) + 1;
		out[i] = profile[i]! - sum / n;
	}
	return out;
}

/** The shift at which two profiles agree best (cross-correlation). */
function bestShift(a: Uint32Array, b: Uint32Array): number {
	const [one, two] = [lines(a), lines(b)];
	let best = 0;
	let most = -Infinity;
	for (let shift = -FARTHEST; shift <= FARTHEST; shift++) {
		let sum = 0;
		for (let i = Math.max(0, shift); i < Math.min(one.length, two.length + shift); i++)
			sum += one[i]! * two[i - shift]!;
		// Of equal shifts the smaller one.
		if (sum > most || (sum === most && Math.abs(shift) < Math.abs(best))) [most, best] = [sum, shift];
	}
	return best;
}

/** How far the second sheet must be moved to lie on the first. */
function align(a: Mask, b: Mask): { x: number; y: number } {
	if (!a.ink || !b.ink) return { x: 0, y: 0 };
	const x0 = bestShift(a.columns, b.columns);
	const y0 = bestShift(a.rows, b.rows);
	// Of full sheets some of the rows tell as much as all.
	const every = a.ink > FULL ? 8 : 2;
	let best = { x: 0, y: 0 };
	let most = shared(a, b, 0, 0, every);
	const better = (x: number, y: number) => {
		const n = shared(a, b, x, y, every);
		if (n > most) [most, best] = [n, { x, y }];
	};
	better(x0, y0);
	// What the profiles say is off by a pixel or two where much has changed: from there uphill.
	for (let step = 0; step < MOST_STEPS; step++) {
		const from = best;
		for (let y = from.y - 1; y <= from.y + 1; y++)
			for (let x = from.x - 1; x <= from.x + 1; x++) if (x !== from.x || y !== from.y) better(x, y);
		if (best === from) break;
	}
	return best;
}

/**
 * Compares two rendered sheets of one resolution: lays the second on the first, and finds where they differ.
 * Tolerance begins at none, for tolerance hides small removals in dense places; only when the sheets differ all over,
 * as after a shift by part of a pixel, one pixel is let pass.
 */
export function compareSheets(before: Mask, after: Mask, options: SheetOptions = {}): SheetComparison {
	const width = Math.max(before.width, after.width);
	const height = Math.max(before.height, after.height);
	const shift = options.shift ?? align(before, after);
	const a = movedMask(before, 0, 0, width, height);
	const b = movedMask(after, shift.x, shift.y, width, height);
	const differ = (tolerance: number) => ({
		tolerance,
		takenAway: without(a, tolerance ? grown(b, tolerance) : b),
		added: without(b, tolerance ? grown(a, tolerance) : a)
	});
	let found = differ(options.tolerance ?? 0);
	if (options.tolerance === undefined) {
		const changed = found.takenAway.ink + found.added.ink;
		if (changed > 0.02 * (a.ink + b.ink) && spread(found) > 0.5) found = differ(1);
	}
	return { shift, ...found, places: placesOf(found.takenAway, found.added, options.least ?? 3) };
}

/** Which part of the inked cells of a sheet have changed: a real change keeps to its place. */
function spread({ takenAway, added }: { takenAway: Mask; added: Mask }): number {
	const cells = Math.ceil(takenAway.width / 128) * Math.ceil(takenAway.height / 128);
	const touched = new Set<number>();
	for (const mask of [takenAway, added])
		for (let i = 0; i < mask.bits.length; i++)
			if (mask.bits[i]) {
				const y = Math.floor(i / mask.stride);
				touched.add((y >> 7) * 4096 + ((i % mask.stride) >> 2));
			}
	return touched.size / cells;
}

/** Joins changed pixels that lie close together into places, in reading order. */
function placesOf(takenAway: Mask, added: Mask, least: number): ChangedPlace[] {
	const across = Math.ceil(takenAway.width / CELL);
	const down = Math.ceil(takenAway.height / CELL);
	const cells = new Map<number, ChangedPlace>();
	const gather = (mask: Mask, which: 'takenAway' | 'added') => {
		for (let i = 0; i < mask.bits.length; i++) {
			let word = mask.bits[i]!;
			if (!word) continue;
			const y = Math.floor(i / mask.stride);
			while (word) {
				const bit = 31 - Math.clz32(word & -word);
				word &= word - 1;
				const x = (i % mask.stride) * 32 + bit;
				const key = Math.floor(y / CELL) * across + Math.floor(x / CELL);
				const cell = cells.get(key);
				if (!cell) {
					cells.set(key, { x, y, w: 1, h: 1, takenAway: 0, added: 0, [which]: 1 });
					continue;
				}
				cell[which]++;
				include(cell, { x, y, w: 1, h: 1 });
			}
		}
	};
	gather(takenAway, 'takenAway');
	gather(added, 'added');
	const places: ChangedPlace[] = [];
	const open = new Set(cells.keys());
	for (const start of cells.keys()) {
		if (!open.delete(start)) continue;
		const place = { ...cells.get(start)! };
		const waiting = [start];
		while (waiting.length) {
			const key = waiting.pop()!;
			const [cx, cy] = [key % across, Math.floor(key / across)];
			for (let y = Math.max(0, cy - 1); y <= Math.min(down - 1, cy + 1); y++)
				for (let x = Math.max(0, cx - 1); x <= Math.min(across - 1, cx + 1); x++) {
					const next = y * across + x;
					if (!open.delete(next)) continue;
					waiting.push(next);
					const cell = cells.get(next)!;
					place.takenAway += cell.takenAway;
					place.added += cell.added;
					include(place, cell);
				}
		}
		if (place.takenAway + place.added >= least) places.push(place);
	}
	const band = Math.max(CELL * 4, takenAway.height / 16);
	return places.sort((p, q) => Math.floor(p.y / band) - Math.floor(q.y / band) || p.x - q.x || p.y - q.y);
}

function include(
	box: { x: number; y: number; w: number; h: number },
	other: { x: number; y: number; w: number; h: number }
): void {
	const right = Math.max(box.x + box.w, other.x + other.w);
	const bottom = Math.max(box.y + box.h, other.y + other.h);
	box.x = Math.min(box.x, other.x);
	box.y = Math.min(box.y, other.y);
	box.w = right - box.x;
	box.h = bottom - box.y;
}

/** x' = a x + c y + e, y' = b x + d y + f. */
export type Placing = [a: number, b: number, c: number, d: number, e: number, f: number];

/**
 * How to lay one sheet on another from three places marked on both.
 * Raises RangeError when the three lie on one line.
 */
export function placingFrom(from: [number, number][], to: [number, number][]): Placing {
	const [[x0, y0], [x1, y1], [x2, y2]] = from as [[number, number], [number, number], [number, number]];
	const area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0);
	if (Math.abs(area) < 1) throw new RangeError('The three places lie on one line; choose others.');
	const solve = (v0: number, v1: number, v2: number): [number, number, number] => {
		const p = ((v1 - v0) * (y2 - y0) - (v2 - v0) * (y1 - y0)) / area;
		const q = ((v2 - v0) * (x1 - x0) - (v1 - v0) * (x2 - x0)) / area;
		return [p, q, v0 - p * x0 - q * y0];
	};
	const [a, c, e] = solve(to[0]![0], to[1]![0], to[2]![0]);
	const [b, d, f] = solve(to[0]![1], to[1]![1], to[2]![1]);
	return [a, b, c, d, e, f];
}

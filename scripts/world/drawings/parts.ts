import type { DxfWriter } from './dxf-writer';

/** Grid lines with their heads and the distances between them, steps in millimetres; `first` lines are left out to the west. */
export function grid(w: DxfWriter, x0: number, y0: number, xs: number[], ys: number[], first = 0): void {
	const s = w.scale;
	const right = x0 + xs.reduce((a, b) => a + b, 0);
	const top = y0 + ys.reduce((a, b) => a + b, 0);
	w.block('GRID_HEAD', () => w.circle('GRID', 0, 0, 5 * s));
	let x = x0;
	[0, ...xs].forEach((step, i) => {
		x += step;
		w.line('GRID', x, y0 - 12 * s, x, top + 12 * s);
		w.insert('GRID_HEAD', 'GRID', x, top + 17 * s);
		w.text(x, top + 15.6 * s, 3, String(first + i + 1), { middle: true });
		if (step) w.dimension(x - step, y0, x, y0, -18 * s);
	});
	let y = y0;
	[0, ...ys].forEach((step, i) => {
		y += step;
		w.line('GRID', x0 - 12 * s, y, right + 12 * s, y);
		w.insert('GRID_HEAD', 'GRID', x0 - 17 * s, y);
		w.text(x0 - 17 * s, y - 1.4 * s, 3, 'ABCDEFGHJK'[i]!, { middle: true });
	});
}

/** A wall between two points as two lines with hatching between, horizontal or vertical. */
export function wall(
	w: DxfWriter,
	x: number,
	y: number,
	length: number,
	vertical: boolean,
	thick = 300
): void {
	const [bw, bh] = vertical ? [thick, length] : [length, thick];
	w.box('WALL', x, y, bw, bh);
	w.hatch(x, y, bw, bh, thick * 1.5);
}

/** A door with its swing. */
export function door(w: DxfWriter, x: number, y: number, width = 1000): void {
	w.block('DOOR_1000', () => {
		w.line('OUTLINE', 0, 0, 0, 1000);
		w.arc('FINE', 0, 0, 1000, 0, 90);
	});
	w.insert('DOOR_1000', 'OUTLINE', x, y, { size: width / 1000 });
}

/** A level with its mark, as on sections and elevations. */
export function level(w: DxfWriter, x: number, y: number, says: string): void {
	const s = w.scale;
	w.line('GRID', x, y, x + 26 * s, y);
	w.path(
		'GRID',
		[
			[x + 6 * s, y],
			[x + 4 * s, y + 3 * s],
			[x + 8 * s, y + 3 * s]
		],
		true
	);
	w.text(x + 10 * s, y + 1.2 * s, 2.8, says);
}

/** A line from what is meant to what is said of it. */
export function leader(w: DxfWriter, x: number, y: number, toX: number, toY: number, says: string): void {
	const s = w.scale;
	const along = toX < x ? -1 : 1;
	w.circle('DIM', x, y, 0.6 * s);
	w.line('DIM', x, y, toX, toY);
	w.line('DIM', toX, toY, toX + along * 8 * s, toY);
	const width = says.length * 2.5 * 0.7 * s;
	w.text(along > 0 ? toX + 9 * s : toX - 9 * s - width, toY - 1.2 * s, 2.5, says);
}

/** What a part of the sheet is called, with a line under it and its scale. */
export function heading(w: DxfWriter, x: number, y: number, says: string): void {
	const s = w.scale;
	w.text(x, y, 5, says);
	w.line('TEXT', x, y - 2 * s, x + says.length * 4 * s, y - 2 * s);
	w.text(x, y - 6.5 * s, 2.5, `1:${s}`);
}

/** Bars in a box as they lie: corners and so many between, at the bottom and at the top. */
export function bars(
	w: DxfWriter,
	x: number,
	y: number,
	width: number,
	height: number,
	below: number,
	above: number,
	size: number
): void {
	const cover = 60;
	w.box('STEEL', x + cover, y + cover, width - 2 * cover, height - 2 * cover);
	for (const [count, at] of [
		[below, y + cover + size],
		[above, y + height - cover - size]
	] as const)
		for (let i = 0; i < count; i++)
			w.circle(
				'STEEL',
				x + cover + size + ((width - 2 * cover - 2 * size) * i) / Math.max(1, count - 1),
				at,
				size / 2
			);
}

/** A table of texts, the first row its head; columns as wide on paper as is said, from the upper left corner. */
export function table(
	w: DxfWriter,
	x: number,
	y: number,
	widths: readonly number[],
	rows: readonly (readonly string[])[]
): void {
	const s = w.scale;
	const high = 7 * s;
	const all = widths.reduce((sum, one) => sum + one, 0) * s;
	rows.forEach((row, i) => {
		w.line(i < 2 ? 'OUTLINE' : 'FINE', x, y - i * high, x + all, y - i * high);
		let left = x;
		row.forEach((cell, column) => {
			w.text(left + 1.5 * s, y - (i + 1) * high + 2 * s, 2.5, cell);
			left += widths[column]! * s;
		});
	});
	const foot = y - rows.length * high;
	w.line('OUTLINE', x, foot, x + all, foot);
	let left = x;
	for (const width of [0, ...widths]) {
		left += width * s;
		w.line('FINE', left, y, left, foot);
	}
}

/** A table in the column of notes, beside the drawing. */
export function schedule(
	w: DxfWriter,
	widths: readonly number[],
	rows: readonly (readonly string[])[]
): void {
	w.onSheet(() => table(w, 645 * w.scale, 470 * w.scale, widths, rows));
}

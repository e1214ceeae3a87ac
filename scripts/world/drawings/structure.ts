import type { Random } from '../random';
import { byTitle, names, type Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { bars, grid, heading, leader, level, schedule } from './parts';

/** The roof frame from above. */
export function roofPlan(w: DxfWriter, { edit, title }: Brief): void {
	const xs = Array.from({ length: 6 }, () => 7200);
	const ys = [9600, 9600];
	const x0 = 9000;
	const y0 = 17000;
	grid(w, x0, y0, xs, ys);
	for (let i = 0; i <= 6; i++) {
		w.box('STEEL', x0 + i * 7200 - 150, y0 - 1200, 300, 21600);
		w.text(x0 + i * 7200 + 250, y0 + 4200, 2.5, `RB${i + 1} ${edit > 2 && i === 2 ? 'HEB 450' : 'HEB 400'}`, {
			turn: 90
		});
	}
	const gap = edit > 1 ? 1600 : 1800;
	for (let y = 0; y <= 19200; y += gap) w.line('FINE', x0, y0 + y, x0 + 43200, y0 + y);
	for (const b of names(title, 'bracing') ? [0, 2, 3, 5] : edit > 3 ? [0, 3, 5] : [0, 5]) {
		w.line('STEEL', x0 + b * 7200, y0, x0 + (b + 1) * 7200, y0 + 9600);
		w.line('STEEL', x0 + b * 7200, y0 + 9600, x0 + (b + 1) * 7200, y0);
	}
	// Rooflight A is over the ticket hall, B over the gallery.
	const hole = x0 + 7200 * (names(title, 'framing b') ? 4 : 1) + 1500;
	w.box('OUTLINE', hole, y0 + 11200, 4200, 3200);
	w.line('OUTLINE', hole, y0 + 11200, hole + 4200, y0 + 14400);
	w.text(hole, y0 + 14700, 3, 'Rooflight');
}

/** A cross section through the roof frame with its columns. */
export function roofSection(w: DxfWriter, { edit }: Brief): void {
	const beam = edit > 2 ? 450 : 400;
	for (const [n, left] of [0, 34000].entries()) {
		heading(w, left, 13500, n ? 'SECTION 2-2, GRID 5' : 'SECTION 1-1, GRID 2');
		for (const x of [0, 9600, 19200]) {
			w.box('STEEL', left + x - 150, 0, 300, 9400);
			w.box('OUTLINE', left + x - 350, -60, 700, 60);
			w.line('GRID', left + x, -2500, left + x, 12400);
		}
		const rise = (x: number) => 9400 + (x * 1200) / 19200;
		w.path(
			'STEEL',
			[
				[left - 1500, rise(-1500)],
				[left + 20700, rise(20700)],
				[left + 20700, rise(20700) + beam],
				[left - 1500, rise(-1500) + beam]
			],
			true
		);
		for (let x = -1200; x <= 20400; x += edit > 1 ? 1600 : 1800)
			w.box('FINE', left + x - 60, rise(x) + beam, 120, 180);
		if (n) w.box('OUTLINE', left + 11000, rise(11000) + beam, 4200, 700);
		leader(w, left + 5000, rise(5000) + beam / 2, left + 2000, 12000, `HEB ${beam}`);
		level(w, left + 21500, 9400, '+13.60');
		w.dimension(left, 0, left + 9600, 0, -1600);
		w.dimension(left + 9600, 0, left + 19200, 0, -1600);
	}
}

/** Piles and their caps from above: all of them, or the part that the sheet is called after. */
export function pilePlan(w: DxfWriter, { edit, title }: Brief, r: Random): void {
	const [from, to] = byTitle<readonly [number, number]>(title, [
		['west', [0, 3]],
		['1 to 4', [0, 3]],
		['east', [4, 7]],
		['5 to 8', [4, 7]],
		['', [0, 7]]
	]);
	const setting = names(title, 'setting out');
	grid(
		w,
		0,
		0,
		Array.from({ length: to - from }, () => 6000),
		[5400, 5400, 5400],
		from
	);
	w.block('PILE_900', () => {
		w.circle('OUTLINE', 0, 0, 450);
		w.solid('OUTLINE', [0, 0], [450, 0], [0, 450]);
		w.solid('OUTLINE', [0, 0], [-450, 0], [0, -450]);
	});
	const rows: string[][] = [];
	for (let j = 0; j <= 3; j++)
		for (let i = from; i <= to; i++) {
			const n = (j * 8 + i) * 2 + 1;
			const moved = edit > 1 && i % 4 === 3 && j === 1 ? 300 * (edit - 1) : 0;
			const [x, y] = [(i - from) * 6000 + moved, j * 5400];
			for (const side of [-700, 700]) w.insert('PILE_900', 'OUTLINE', x + side, y);
			const pair = `P${String(n).padStart(3, '0')}/${String(n + 1).padStart(3, '0')}`;
			if (setting) {
				w.line('CENTRE', x - 1500, y, x + 1500, y);
				for (const side of [-700, 700]) w.line('CENTRE', x + side, y - 800, x + side, y + 800);
				rows.push([pair, `${(4200 + i * 6 + moved / 1000).toFixed(3)}`, `${(8800 + j * 5.4).toFixed(3)}`]);
			} else w.box('HIDDEN', x - 1400, y - 800, 2800, 1600);
			w.text(x - 1300, y + 1000, 2.2, pair);
		}
	if (edit > 2 && to === 7)
		for (let i = 0; i < 4; i++) w.insert('PILE_900', 'OUTLINE', (to - from) * 6000 + 2500, i * 5400);
	if (setting) schedule(w, [40, 36, 36], [['Piles', 'East', 'North'], ...rows]);
	w.text(
		0,
		-5200,
		3,
		`Piles dia. 900, toe level ${edit > 3 ? '-26.5' : '-24.0'}, working load ${3200 + r.int(0, 4) * 100} kN`
	);
}

/** Ground beams between the pile caps. */
export function groundBeams(w: DxfWriter, { edit }: Brief): void {
	grid(
		w,
		0,
		0,
		Array.from({ length: 7 }, () => 6000),
		[5400, 5400, 5400]
	);
	for (let j = 0; j <= 3; j++)
		for (let i = 0; i <= 7; i++) {
			w.box('OUTLINE', i * 6000 - 1400, j * 5400 - 800, 2800, 1600);
			const wide = j === 0 || j === 3 ? 600 : 450;
			if (i < 7) {
				w.box('WALL', i * 6000 + 1400, j * 5400 - wide / 2, 3200, wide);
				w.text(i * 6000 + 3000, j * 5400 + wide / 2 + 250, 2.5, `GB${(j % 3) + 1}`, { middle: true });
			}
			if (j < 3 && (i % 2 === 0 || edit > 2)) w.box('WALL', i * 6000 - 225, j * 5400 + 800, 450, 3800);
		}
	schedule(
		w,
		[16, 30, 40],
		[
			['Beam', 'Size', 'Main bars'],
			['GB1', '600 x 900', `${edit > 1 ? 6 : 5} dia. 25 bottom`],
			['GB2', '450 x 750', '4 dia. 20 bottom'],
			['GB3', '450 x 600', '4 dia. 16 bottom']
		]
	);
}

/** A reinforced beam: along, across, and its bars. */
export function beamBars(w: DxfWriter, { edit, title }: Brief): void {
	const [wide, high, below] = byTitle(title, [
		['gb1', [600, 900, 6]],
		['gb2', [450, 750, 4]],
		['gb3', [450, 600, 4]],
		['gb4', [500, 800, 5]],
		['', [400, 600, 3]]
	] as const);
	const bottom = below + (edit > 1 ? 1 : 0);
	const gap = edit > 2 ? 150 : 200;
	heading(w, 0, high + 900, 'ELEVATION');
	w.box('OUTLINE', 0, 0, 6000, high);
	for (const y of [60, 110, high - 60]) w.line('STEEL', 60, y, 5940, y);
	for (let x = 60; x < 5960; x += gap) w.line('FINE', x, 50, x, high - 50);
	for (const x of [-700, 6000]) {
		w.box('HIDDEN', x, -300, 700, high + 300);
		w.hatch(x, -300, 700, high + 300, 260);
	}
	leader(w, 2400, 60, 2000, -700, `${bottom} dia. ${wide > 500 ? 25 : 20}`);
	leader(w, 3600, high - 60, 4000, high + 500, `2 dia. 16`);
	leader(w, 4800, high / 2, 5600, -900, `Links dia. 12 at ${gap}`);
	w.dimension(0, 0, 6000, 0, -1500);
	heading(w, 7800, high + 900, 'SECTION');
	w.box('OUTLINE', 7800, 0, wide, high);
	bars(w, 7800, 0, wide, high, bottom, 2, 40);
	w.dimension(7800, 0, 7800 + wide, 0, -300);
	w.dimension(7800 + wide, 0, 7800 + wide, high, 350);
	schedule(
		w,
		[16, 20, 20, 26, 36],
		[
			['Bar', 'Dia.', 'No.', 'Length', 'Shape'],
			['01', wide > 500 ? '25' : '20', String(bottom), '6 400', 'hooked ends'],
			['02', '16', '2', '5 880', 'straight'],
			['03', '12', String(Math.floor(5880 / gap)), String(2 * (wide + high) - 240), 'closed link']
		]
	);
}

/** A pile cap: from above, across, and its bars. */
export function capBars(w: DxfWriter, { edit, title }: Brief): void {
	const [piles, wide, deep] = byTitle(title, [
		['pc2', [2, 2800, 1600]],
		['pc3', [3, 3400, 3100]],
		['pc4', [4, 3400, 3400]],
		['', [1, 1600, 1600]]
	] as const);
	heading(w, 0, deep + 800, `PILE CAP PC${piles}, PLAN`);
	w.box('OUTLINE', 0, 0, wide, deep);
	const at = (
		[
			[[0.5, 0.5]],
			[
				[0.25, 0.5],
				[0.75, 0.5]
			],
			[
				[0.25, 0.25],
				[0.75, 0.25],
				[0.5, 0.75]
			],
			[
				[0.25, 0.25],
				[0.75, 0.25],
				[0.25, 0.75],
				[0.75, 0.75]
			]
		] as const
	)[piles - 1]!;
	for (const [x, y] of at) w.circle('HIDDEN', x * wide, y * deep, 450);
	const gap = edit > 1 ? 150 : 200;
	for (let x = 100; x < wide; x += gap) w.line('FINE', x, 60, x, deep - 60);
	for (let y = 100; y < deep; y += gap) w.line('FINE', 60, y, wide - 60, y);
	w.box('WALL', wide / 2 - 250, deep / 2 - 250, 500, 500);
	w.dimension(0, 0, wide, 0, -500);
	w.dimension(wide, 0, wide, deep, 500);
	const sx = wide + 2600;
	heading(w, sx, deep + 800, 'SECTION');
	w.box('OUTLINE', sx, 600, wide, 1200);
	bars(w, sx, 600, wide, 1200, Math.floor(wide / gap), 4, 32);
	for (const [x] of at) w.box('OUTLINE', sx + x * wide - 450, -900, 900, 1575);
	w.box('WALL', sx + wide / 2 - 250, 1800, 500, 900);
	leader(w, sx + 200, 692, sx - 700, -300, `Dia. ${edit > 3 ? 25 : 20} at ${gap} both ways`);
	level(w, sx + wide + 300, 1800, '+3.05');
	level(w, sx + wide + 300, 600, '+1.85');
}

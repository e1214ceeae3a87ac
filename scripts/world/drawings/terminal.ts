import type { Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { byTitle, names } from './brief';
import { door, grid, heading, leader, level, schedule, wall } from './parts';
import { Random } from '../random';

/** Rooms by what a plan shows, from west to east. */
const ROOMS: readonly (readonly [word: string, rooms: readonly string[]])[] = [
	['mezzanine', ['Plant', 'Gallery office', 'Store', 'Control room', 'Server room']],
	['first', ['Staff rest', 'Offices', 'Meeting', 'Harbour watch', 'Plant']],
	['', ['Ticket hall', 'Back office', 'Café', 'Toilets', 'First aid']]
];

/** A storey of the terminal, with what the sheet is about drawn on it. */
export function floor(w: DxfWriter, brief: Brief, r: Random): void {
	const { edit, title } = brief;
	const xs = Array.from({ length: 6 }, () => 7200);
	const ys = [6000, 7200, 6000];
	const x0 = 9000;
	const y0 = 16000;
	grid(w, x0, y0, xs, ys);
	const width = 43200;
	const depth = 19200;
	wall(w, x0 - 200, y0 - 200, width + 400, false, 400);
	wall(w, x0 - 200, y0 + depth - 200, width + 400, false, 400);
	wall(w, x0 - 200, y0 + 200, depth - 400, true, 400);
	wall(w, x0 + width - 200, y0 + 200, depth - 400, true, 400);
	w.block('COLUMN', () => {
		w.box('WALL', -250, -250, 500, 500);
		w.line('WALL', -250, -250, 250, 250);
		w.line('WALL', -250, 250, 250, -250);
	});
	w.insert('COLUMN', 'WALL', x0 + 7200, y0 + 6000, { columns: 5, rows: 2, dx: 7200, dy: 7200 });
	const rooms = byTitle(title, ROOMS);
	let x = x0;
	for (let i = 0; i < 5; i++) {
		const step = r.pick([7200, 8600, 10100]);
		const moved = edit > 1 && i === 1 ? 450 * (edit - 1) : 0;
		if (x + step > x0 + width - 4000) break;
		wall(w, x + step - 100 + moved, y0 + 200, 5700, true, 200);
		door(w, x + step - 1800 + moved, y0 + 5900);
		w.text(x + step / 2 - 800, y0 + 2600, 3, rooms[i % rooms.length]!);
		x += step;
	}
	wall(w, x0 + 200, y0 + 5900, width - 12000, false, 200);
	w.text(
		x0 + 12000,
		y0 + 9600,
		4,
		byTitle(title, [
			['first', 'Departure lounge'],
			['mezzanine', 'Gallery'],
			['', 'Concourse']
		])
	);
	if (edit > 2) {
		w.box('OUTLINE', x0 + 31000, y0 + 14000, 6000, 3600);
		for (let i = 1; i < 14; i++)
			w.line('FINE', x0 + 31000 + i * 428, y0 + 14000, x0 + 31000 + i * 428, y0 + 17600);
		w.text(x0 + 31200, y0 + 12900, 3, 'Stair 2');
	}
	if (edit > 3) w.box('FINE', x0 + 22000, y0 + 15000, 2400, 2600);
	if (edit > 4) w.text(x0 + 22200, y0 + 14300, 3, 'Lift');
	w.dimension(x0, y0 + depth, x0 + width, y0 + depth, 3600);
	about(w, brief, { x0, y0, width, depth });
}

interface Plan {
	x0: number;
	y0: number;
	width: number;
	depth: number;
}

/** What a plan is drawn for, beside its walls. */
function about(w: DxfWriter, { title, edit, seed }: Brief, { x0, y0, width, depth }: Plan): void {
	const r = new Random(`${seed}about`);
	if (names(title, 'ceiling')) {
		for (let x = x0 + 600; x < x0 + width; x += 1200) w.line('FINE', x, y0 + 6200, x, y0 + depth - 300);
		for (let y = y0 + 6800; y < y0 + depth; y += 1200) w.line('FINE', x0 + 300, y, x0 + width - 300, y);
		w.block('LUMINAIRE', () => w.box('SYMBOL', -600, -150, 1200, 300));
		w.insert('LUMINAIRE', 'SYMBOL', x0 + 3600, y0 + 8600, { columns: 8, rows: 4, dx: 4800, dy: 2400 });
		leader(w, x0 + 3600, y0 + 8600, x0 - 4000, y0 + 13000, 'Linear luminaire, 1200');
	} else if (names(title, 'fire') || names(title, 'hydrants')) {
		for (const [from, to] of [
			[0, 14400],
			[14400, 28800],
			[28800, 43200]
		] as const) {
			for (const x of [x0 + from, x0 + to]) w.line('SERVICE', x, y0, x, y0 + depth);
			w.text(x0 + from + 5200, y0 + 12200, 4, `FC${from / 14400 + 1}`);
			w.text(x0 + from + 5200, y0 + 11200, 2.5, `${r.int(180, 290)} m2, REI ${edit > 2 ? 90 : 60}`);
		}
		w.block('EXIT', () => {
			w.box('SYMBOL', -500, -300, 1000, 600);
			w.path('SYMBOL', [
				[-300, 0],
				[300, 0],
				[100, 150],
				[300, 0],
				[100, -150]
			]);
		});
		for (const x of [2400, 20000, 40000]) {
			w.insert('EXIT', 'SYMBOL', x0 + x, y0 + depth + 700);
			w.line('SYMBOL', x0 + x, y0 + 7000, x0 + x, y0 + depth + 300);
		}
		if (names(title, 'hydrants'))
			for (const x of [7200, 36000]) w.circle('SERVICE', x0 + x, y0 + depth - 900, 400);
		schedule(
			w,
			[26, 30, 34],
			[
				['Way out', 'Width', 'Persons'],
				...[1, 2, 3].map((n) => [`EX${n}`, `${1200 + n * 150}`, String(r.int(90, 220))])
			]
		);
	} else if (names(title, 'finishes')) {
		const floors = ['F1', 'F2', 'F3', 'F4', 'F1'];
		floors.forEach((code, i) => {
			w.circle('SYMBOL', x0 + 4000 + i * 8400, y0 + 1500, 700);
			w.text(x0 + 4000 + i * 8400, y0 + 1300, 3, code, { middle: true });
		});
		for (let y = y0 + 6400; y < y0 + depth - 400; y += 600) w.line('HATCH', x0 + 300, y, x0 + 30000, y);
		schedule(
			w,
			[14, 62],
			[
				['Code', 'Finish'],
				['F1', 'Terrazzo tile 600 x 600'],
				['F2', 'Rubber stud, black'],
				['F3', 'Vinyl, welded'],
				['F4', edit > 2 ? 'Epoxy, grey' : 'Screed, sealed']
			]
		);
	} else if (names(title, 'sign')) {
		const places = Array.from({ length: 9 + Math.min(edit, 3) }, (_, i) => [
			x0 + 3000 + i * 3500,
			y0 + (i % 2 ? 7000 : 14500)
		]);
		places.forEach(([x, y], i) => {
			w.path(
				'SYMBOL',
				[
					[x!, y!],
					[x! + 500, y! + 900],
					[x! - 500, y! + 900]
				],
				true
			);
			w.text(x!, y! + 1200, 2.5, `W${(i % 5) + 1}.${String(i + 1).padStart(2, '0')}`, { middle: true });
		});
		schedule(
			w,
			[22, 22, 44],
			[
				['Sign', 'Type', 'Says'],
				...['Tickets', 'To ships', 'Café', 'Toilets', 'Way out', 'First aid'].map((says, i) => [
					`W${(i % 5) + 1}.${String(i + 1).padStart(2, '0')}`,
					`W${(i % 5) + 1}`,
					says
				])
			]
		);
	} else if (names(title, 'counter') || names(title, 'ticket hall')) {
		for (let i = 0; i < 6; i++) {
			w.box('OUTLINE', x0 + 4000 + i * 2600, y0 + 7400, 2200, 800);
			w.box('FINE', x0 + 4200 + i * 2600, y0 + 8500, 700, 600);
			w.text(x0 + 5100 + i * 2600, y0 + 7650, 2.5, `T${i + 1}`, { middle: true });
		}
		w.dimension(x0 + 4000, y0 + 7400, x0 + 4000 + 5 * 2600 + 2200, y0 + 7400, -700);
		for (let i = 0; i < 4; i++)
			w.line('HIDDEN', x0 + 5000, y0 + 11000 + i * 900, x0 + 19000, y0 + 11000 + i * 900);
		leader(w, x0 + 12000, y0 + 12000, x0 + 24000, y0 + depth + 3000, 'Queue rails, removable');
	}
}
export function elevation(w: DxfWriter, { edit, title }: Brief): void {
	const x0 = 8000;
	const y0 = 20000;
	// The gable ends are as wide as the building is deep.
	const bays = names(title, 'west') || names(title, 'east') ? 6 : 14;
	const bay = 3200;
	w.text(
		x0,
		y0 + 16000,
		5,
		`${byTitle(title, [
			['waterside', 'WATERSIDE'],
			['landside', 'LANDSIDE'],
			['west', 'WEST'],
			['east', 'EAST'],
			['', 'WATERSIDE']
		])} ELEVATION`
	);
	w.line('OUTLINE', x0 - 4000, y0, x0 + bays * bay + 6000, y0);
	w.box('OUTLINE', x0, y0, bays * bay, 12000 + (edit > 1 ? 400 : 0));
	for (let i = 0; i < bays; i++) {
		w.box('FINE', x0 + i * bay + 250, y0 + 900, bay - 500, 3600);
		w.box('FINE', x0 + i * bay + 250, y0 + 5600, bay - 500, 2800 + (edit > 2 ? 200 : 0));
		if (edit > 3 && i % 3 === 0)
			for (let j = 1; j < 6; j++)
				w.line('FINE', x0 + i * bay + 250, y0 + 900 + j * 600, x0 + (i + 1) * bay - 250, y0 + 900 + j * 600);
	}
	w.path(
		'STEEL',
		[
			[x0 - 2500, y0 + 12400],
			[x0 + bays * bay + 2500, y0 + 13600],
			[x0 + bays * bay + 2500, y0 + 13000],
			[x0 - 2500, y0 + 11800]
		],
		true
	);
	for (const [level, y] of [
		['+4.20', 0],
		['+9.00', 4800],
		['+13.20', 9000]
	] as const) {
		w.line('GRID', x0 + bays * bay + 500, y0 + y, x0 + bays * bay + 4500, y0 + y);
		w.text(x0 + bays * bay + 2600, y0 + y + 150, 2.8, level);
	}
	w.dimension(x0, y0, x0 + bays * bay, y0, -3000);
	w.dimension(x0, y0, x0, y0 + 12000 + (edit > 1 ? 400 : 0), -2600);
	if (edit > 4) w.text(x0 + 4000, y0 + 9800, 6, 'VENNHOLM');
}

/** A section across the terminal, storey by storey. */
export function section(w: DxfWriter, { edit, title }: Brief): void {
	const letter = byTitle(title, [
		['b-b', 'B'],
		['c-c', 'C'],
		['', 'A']
	]);
	const deep = { A: 19200, B: 19200, C: 43200 }[letter as 'A' | 'B' | 'C'];
	const step = letter === 'C' ? 7200 : 6400;
	heading(w, 0, 18500, `SECTION ${letter}-${letter}`);
	const storeys = [0, 4800, 9000];
	for (const y of storeys) {
		w.box('WALL', -200, y - 350, deep + 400, 350);
		w.hatch(-200, y - 350, deep + 400, 350, 500);
	}
	for (let x = 0; x <= deep; x += step) {
		w.box('WALL', x - 250, -1600, 500, 10600);
		w.box('OUTLINE', x - 900, -2400, 1800, 800);
		for (const d of [-500, 500]) w.line('HIDDEN', x + d, -2400, x + d, -5600);
		w.insert('GRID_HEAD', 'GRID', x, 15200);
		w.line('GRID', x, -6000, x, 14700);
	}
	w.block('GRID_HEAD', () => w.circle('GRID', 0, 0, 500));
	const rise = edit > 1 ? 1500 : 1200;
	w.path(
		'STEEL',
		[
			[-2500, 12400],
			[deep + 2500, 12400 + rise],
			[deep + 2500, 13000 + rise],
			[-2500, 13000]
		],
		true
	);
	for (let x = -2000; x < deep + 1500; x += 1600)
		w.line(
			'STEEL',
			x,
			12400 + (rise * (x + 2500)) / (deep + 5000),
			x + 800,
			13000 + (rise * (x + 3300)) / (deep + 5000)
		);
	// A stair where it cuts through one, else the hall over both storeys.
	if (letter === 'A') for (let i = 0; i < 28; i++) w.box('FINE', 4000 + i * 280, i * 171, 280, 171);
	if (letter === 'B') w.text(deep / 2 - 2500, 6800, 4, 'Ticket hall, over both storeys');
	if (letter === 'C')
		for (const [x, says] of [
			[3000, 'Back office'],
			[18000, 'Concourse'],
			[36000, 'Café']
		] as const)
			w.text(x, 2200, 3, says);
	if (edit > 2) leader(w, deep - 1500, 4600, deep + 5000, 7200, 'Suspended ceiling +3.00');
	level(w, deep + 3500, 0, '+4.20');
	level(w, deep + 3500, 4800, '+9.00');
	level(w, deep + 3500, 9000, '+13.20');
	w.line('WATER', -9000, -2350, -500, -2350);
	w.text(-8800, -2150, 2.5, 'MHW +1.85', { layer: 'WATER' });
	w.dimension(0, -2400, deep, -2400, -4200);
	w.dimension(-200, 0, -200, 9000, -2600);
}

/** Bays of the curtain wall, in elevation and plan. */
export function bay(w: DxfWriter, { edit, title }: Brief): void {
	const [from, to] = byTitle(title, [
		['5 to 9', [5, 9]],
		['10 to 14', [10, 14]],
		['', [1, 4]]
	] as const);
	const count = to - from + 1;
	const wide = 3200;
	heading(w, 0, 10600, `BAYS ${from} TO ${to}, ELEVATION`);
	for (let i = 0; i < count; i++) {
		const x = i * wide;
		w.box('OUTLINE', x, 0, wide, 9000);
		for (const y of [900, 4500, 5600, 8400]) w.box('FINE', x, y - 30, wide, 60);
		for (const share of edit > 2 ? [1 / 3, 2 / 3] : [0.5]) w.box('FINE', x + wide * share - 30, 0, 60, 9000);
		w.text(x + wide / 2, 9400, 3, String(from + i), { middle: true });
		if ((from + i) % 3 === 0)
			w.path('FINE', [
				[x + 100, 1000],
				[x + wide / 2, 4400],
				[x + wide - 100, 1000]
			]);
		w.dimension(x, 0, x + wide, 0, -900);
	}
	w.dimension(0, 0, 0, 9000, -1800);
	heading(w, 0, -3200, 'PLAN');
	w.box('WALL', 0, -5600, count * wide, 120);
	for (let i = 0; i <= count; i++) w.box('STEEL', i * wide - 60, -5900, 120, 500);
	level(w, count * wide + 900, 0, '+4.20');
	level(w, count * wide + 900, 9000, '+13.20');
}

/** All four sides of the terminal. */
export function elevations(w: DxfWriter, brief: Brief): void {
	(['Waterside', 'Landside', 'West', 'East'] as const).forEach((side, i) =>
		w.at((i % 2) * 62000, i < 2 ? 0 : -26000, () => elevation(w, { ...brief, title: side }))
	);
}

import { byTitle, type Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { door, grid, leader, schedule, wall } from './parts';

const BAY = 7200;
const ROWS = [6000, 7200, 6000];
const DEPTH = ROWS.reduce((a, b) => a + b, 0);

/** What stands in a room, from its lower left corner; rooms are a bay wide and a row deep. */
type Furniture = (w: DxfWriter, x: number, y: number, edit: number) => void;

const counters: Furniture = (w, x, y, edit) => {
	const many = edit > 2 ? 4 : 5;
	for (let i = 0; i < many; i++) {
		w.box('OUTLINE', x + 500 + i * 1250, y + 4300, 1100, 700);
		w.circle('FINE', x + 1050 + i * 1250, y + 3700, 260);
		w.text(x + 1050 + i * 1250, y + 4550, 2.5, `T${i + 1}`, { middle: true });
	}
	w.dimension(x + 500, y + 5000, x + 1750, y + 5000, 350);
};
const desks: Furniture = (w, x, y) => {
	for (const [dx, dy] of [
		[700, 600],
		[3300, 600],
		[700, 3000],
		[3300, 3000]
	] as const) {
		w.box('OUTLINE', x + dx, y + dy, 1600, 800);
		w.circle('FINE', x + dx + 800, y + dy + 1150, 260);
	}
	w.box('FINE', x + 6300, y + 500, 600, 4200);
};
const cubicles: Furniture = (w, x, y) => {
	for (let i = 0; i < 6; i++) {
		w.line('OUTLINE', x + 300 + i * 1050, y + 300, x + 300 + i * 1050, y + 1900);
		w.circle('FINE', x + 825 + i * 1050, y + 800, 220);
		w.box('FINE', x + 600 + i * 1050, y + 300, 450, 180);
	}
	for (let i = 0; i < 5; i++) {
		w.box('OUTLINE', x + 700 + i * 1100, y + 4900, 600, 450);
		w.circle('FINE', x + 1000 + i * 1100, y + 5120, 160);
	}
	w.circle('HIDDEN', x + 5600, y + 3100, 750);
};
const couch: Furniture = (w, x, y) => {
	w.box('OUTLINE', x + 600, y + 600, 2000, 800);
	w.box('FINE', x + 600, y + 600, 500, 800);
	w.box('OUTLINE', x + 4200, y + 600, 1600, 700);
	w.box('FINE', x + 5900, y + 2200, 500, 2400);
	w.circle('HIDDEN', x + 3600, y + 4300, 750);
};
const benches: Furniture = (w, x, y) => {
	for (let row = 0; row < 3; row++)
		for (let seat = 0; seat < 8; seat++) w.box('FINE', x + 900 + seat * 620, y + 1000 + row * 1500, 560, 520);
};
const gates: Furniture = (w, x, y) => {
	for (let i = 0; i < 4; i++) {
		w.box('OUTLINE', x + 1100 + i * 1400, y + 2300, 300, 1500);
		w.line('FINE', x + 1400 + i * 1400, y + 3050, x + 1950 + i * 1400, y + 3050);
	}
};

interface Wing {
	/** Grid line on which it begins, counted from 0. */
	first: number;
	/** Rooms along the landside, and what stands along the water. */
	rooms: [name: string, area: number, floor: string, furniture: Furniture][];
	waterside: [name: string, furniture: Furniture][];
}
const WINGS: readonly (readonly [word: string, wing: Wing])[] = [
	[
		'west',
		{
			first: 0,
			rooms: [
				['Ticket hall', 40, 'F1', counters],
				['Back office', 41, 'F3', desks]
			],
			waterside: [
				['Waiting area', benches],
				['Gates to the ferry', gates]
			]
		}
	],
	[
		'east',
		{
			first: 4,
			rooms: [
				['Toilets', 40, 'F2', cubicles],
				['First aid', 41, 'F3', couch]
			],
			waterside: [
				['Waiting area', benches],
				['Quiet room', couch]
			]
		}
	]
];

/** One end of the ground floor, two bays of it, with what stands in its rooms. */
export function wing(w: DxfWriter, { title, edit }: Brief): void {
	const { first, rooms, waterside } = byTitle(title, WINGS);
	const [x0, y0, width] = [9000, 9000, 2 * BAY];
	grid(w, x0, y0, [BAY, BAY], ROWS, first);
	const west = first === 0;
	// The gable, and the long walls with their openings; towards the middle of the hall the plan is cut off.
	wall(w, west ? x0 - 200 : x0 + width - 200, y0 + 200, DEPTH - 400, true, 400);
	for (const y of [y0 - 200, y0 + DEPTH - 200])
		for (const x of [x0, x0 + BAY]) {
			wall(w, x - 200, y, 2200, false, 400);
			wall(w, x + 5200, y, 2200, false, 400);
			for (const glass of [130, 270]) w.line('FINE', x + 2000, y + glass, x + 5200, y + glass);
		}
	const cut = west ? x0 + width + 1500 : x0 - 1500;
	for (const [from, to] of [
		[y0 - 900, y0 + 8800],
		[y0 + 9800, y0 + DEPTH + 900]
	] as const)
		w.line('FINE', cut, from, cut, to);
	w.path('FINE', [
		[cut, y0 + 8800],
		[cut - 500, y0 + 9100],
		[cut + 500, y0 + 9500],
		[cut, y0 + 9800]
	]);
	w.block('COLUMN', () => {
		w.box('WALL', -250, -250, 500, 500);
		w.line('WALL', -250, -250, 250, 250);
		w.line('WALL', -250, 250, 250, -250);
	});
	w.insert('COLUMN', 'WALL', x0 + BAY, y0 + ROWS[0]!, { columns: 1, rows: 2, dx: BAY, dy: ROWS[1]! });

	const moved = edit > 1 ? 150 * Math.min(edit - 1, 4) : 0;
	wall(w, x0 + BAY - 100 + moved, y0 + 200, 5700, true, 200);
	/** What the wall between them gives to one room, it takes from the other. */
	const areaOf = (i: number) => rooms[i]![1] + (i ? -1 : 1) * Math.round(moved * 0.006);
	rooms.forEach(([name, , floor, furniture], i) => {
		const x = x0 + i * BAY + (i ? moved : 0);
		// The wall to the hall, with the door in it.
		wall(w, x + 200, y0 + 5900, 4700, false, 200);
		wall(w, x + 6100, y0 + 5900, BAY - 6200, false, 200);
		door(w, x + 5000, y0 + 6000, 1000);
		w.text(x + 5100, y0 + 6500, 2.5, `D-${String(2 * first + i + 1).padStart(3, '0')}`);
		furniture(w, x, y0, edit);
		w.text(x + 2600, y0 + 2500, 3.5, name);
		w.text(x + 2600, y0 + 2100, 2.5, `${areaOf(i)} m2, ${floor}`);
	});
	waterside.forEach(([name, furniture], i) => {
		furniture(w, x0 + i * BAY, y0 + ROWS[0]! + ROWS[1]!, edit);
		w.text(x0 + i * BAY + 2200, y0 + DEPTH - 900, 3, name);
	});
	w.text(x0 + 5400, y0 + 9500, 4, 'Concourse');
	if (edit > 2) {
		w.circle('HIDDEN', x0 + 3600, y0 + 8300, 750);
		leader(w, x0 + 3600, y0 + 8300, west ? x0 - 4200 : x0 + width + 2200, y0 + 7600, 'Turning circle 1500');
	}
	schedule(
		w,
		[34, 22, 20],
		[['Room', 'Area m2', 'Floor'], ...rooms.map(([name, , floor], i) => [name, String(areaOf(i)), floor])]
	);
}

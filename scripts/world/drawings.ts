import { DxfWriter, type TitleData } from './dxf-writer';
import { Random } from './random';

/**
 * What a drawing of the terminal is made of. `edit` counts the versions: each one changes something that a
 * reviewer would find (a wall moved, a length changed, a detail or a note added).
 */
export interface Brief {
	seed: string;
	edit: number;
}

export const DRAWING_KINDS = [
	'linkspan',
	'longSection',
	'tower',
	'floor',
	'roof',
	'piles',
	'quay',
	'detail',
	'lanes',
	'services',
	'facade'
] as const;
export type DrawingKind = (typeof DRAWING_KINDS)[number];

const SCALE: Record<DrawingKind, number> = {
	linkspan: 80,
	longSection: 100,
	tower: 50,
	floor: 100,
	roof: 100,
	piles: 100,
	quay: 50,
	detail: 10,
	lanes: 200,
	services: 100,
	facade: 100
};

/** Draws a sheet and gives it as DXF text. */
export function drawing(kind: DrawingKind, brief: Brief, title: Omit<TitleData, 'scale'>): string {
	const w = new DxfWriter(SCALE[kind]);
	w.sheet({ ...title, scale: `1:${SCALE[kind]} at A1` });
	DRAW[kind](w, brief, new Random(brief.seed));
	notes(w, brief);
	return w.toString();
}

const NOTES = [
	'All dimensions in millimetres, levels in metres above Vennholm harbour datum.',
	'Do not scale from this sheet. Check all dimensions on site.',
	'Concrete C40/50, exposure class XS3, cover 60 mm.',
	'Structural steel S355 J2, hot-dip galvanised where shown.',
	'Read with the specification for corrosion protection.',
	'Setting out from grid point 1/A, see sheet 0101.',
	'Mean high water +1.85, highest astronomical tide +3.40.'
];

function notes(w: DxfWriter, { edit, seed }: Brief): void {
	const s = w.scale;
	const r = new Random(seed + 'notes');
	const first = r.int(0, 3);
	w.text(645 * s, 560 * s, 4, 'Notes');
	for (let i = 0; i < Math.min(2 + Math.floor(edit / 2), 5); i++)
		w.text(645 * s, (550 - i * 8) * s, 2.5, `${i + 1}. ${NOTES[(first + i) % NOTES.length]!}`.slice(0, 82));
}

function grid(w: DxfWriter, x0: number, y0: number, xs: number[], ys: number[]): void {
	const s = w.scale;
	const right = x0 + xs.reduce((a, b) => a + b, 0);
	const top = y0 + ys.reduce((a, b) => a + b, 0);
	w.block('GRID_HEAD', () => w.circle('GRID', 0, 0, 5 * s));
	let x = x0;
	[0, ...xs].forEach((step, i) => {
		x += step;
		w.line('GRID', x, y0 - 12 * s, x, top + 12 * s);
		w.insert('GRID_HEAD', 'GRID', x, top + 17 * s);
		w.text(x, top + 15.6 * s, 3, String(i + 1), { middle: true });
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
function wall(w: DxfWriter, x: number, y: number, length: number, vertical: boolean, thick = 300): void {
	const [bw, bh] = vertical ? [thick, length] : [length, thick];
	w.box('WALL', x, y, bw, bh);
	w.hatch(x, y, bw, bh, thick * 1.5);
}

function door(w: DxfWriter, x: number, y: number, width = 1000): void {
	w.block('DOOR_1000', () => {
		w.line('OUTLINE', 0, 0, 0, 1000);
		w.arc('FINE', 0, 0, 1000, 0, 90);
	});
	w.insert('DOOR_1000', 'OUTLINE', x, y, { size: width / 1000 });
}

const DRAW: Record<DrawingKind, (w: DxfWriter, brief: Brief, r: Random) => void> = {
	linkspan(w, { edit }, r) {
		const bays = 12;
		const bay = 2050;
		const width = 8400 + r.int(0, 3) * 200;
		const x0 = 9000;
		const y0 = 30000;
		const pit = 150 * Math.max(0, edit - 1);
		w.text(x0, y0 + width + 5600, 5, 'LINKSPAN PLAN');
		w.box('OUTLINE', x0, y0, bays * bay, width);
		for (let i = 1; i < bays; i++) w.line('FINE', x0 + i * bay, y0, x0 + i * bay, y0 + width);
		w.line('CENTRE', x0 - 1500, y0 + width / 2, x0 + bays * bay + 6000, y0 + width / 2);
		w.box('WALL', x0 - 3400, y0 - 1500, 3400, width + 3000);
		w.hatch(x0 - 3400, y0 - 1500, 3400, width + 3000, 900);
		w.block('HINGE', () => {
			w.circle('STEEL', 0, 0, 380);
			w.circle('STEEL', 0, 0, 140);
			w.line('CENTRE', -600, 0, 600, 0);
			w.line('CENTRE', 0, -600, 0, 600);
		});
		for (const y of [1200, width - 1200]) w.insert('HINGE', 'STEEL', x0, y0 + y);
		const px = x0 + bays * bay;
		w.box('WALL', px, y0 - 1500 + pit, 4700, width + 3000 - pit);
		for (let i = 0; i < (edit > 3 ? 3 : 2); i++)
			w.box('OUTLINE', px + 500, y0 + 400 + pit + i * 2700, 1600, 1300);
		if (edit > 2) w.text(px + 2300, y0 + 900 + pit, 2.5, 'HPU 1');
		w.dimension(x0, y0 + width, px, y0 + width, 3000);
		w.dimension(px, y0 + width + 1500, px + 4700, y0 + width + 1500, 1500);
		w.dimension(px + 4700, y0 - 1500 + pit, px + 4700, y0 + width + 1500, 1800);
		if (edit > 4) {
			w.path('SERVICE', [
				[px + 2600, y0 + width + 1500],
				[px + 2600, y0 + width + 3200],
				[px + 7000, y0 + width + 3200]
			]);
			w.text(px + 3000, y0 + width + 3500, 2.5, 'Cable duct 4 x 110 to substation');
		}
		const ey = 14000;
		w.text(x0, ey + 7600, 5, 'ELEVATION ON GRID 3');
		w.path(
			'OUTLINE',
			[
				[x0, ey + 1500],
				[px, ey + 3900],
				[px, ey + 3200],
				[x0, ey + 800]
			],
			true
		);
		for (let i = 0; i < bays; i++)
			w.line('FINE', x0 + i * bay, ey + 800 + i * 200, x0 + (i + 0.5) * bay, ey + 1500 + (i + 0.5) * 200);
		w.box('STEEL', px - 1100, ey - 2500, 1500, 10500 + (edit > 2 ? 500 : 0));
		w.line('STEEL', px - 5200, ey + 3400, px - 400, ey + 7400);
		w.line('WATER', x0 - 3400, ey - 1000, px + 5000, ey - 1000);
		w.text(px + 1200, ey - 700, 2.5, edit > 1 ? 'HAT +3.40' : 'HAT +3.35', { layer: 'WATER' });
		w.dimension(px + 400, ey - 2500, px + 400, ey + 8000 + (edit > 2 ? 500 : 0), 2200);
	},

	longSection(w, { edit }, r) {
		const x0 = 6000;
		const y0 = 22000;
		const span = 42000 + r.int(0, 4) * 500;
		w.text(x0, y0 + 16500, 5, 'LONGITUDINAL SECTION');
		w.path(
			'OUTLINE',
			[
				[x0, y0 + 6000],
				[x0 + span, y0 + 6000 + 800],
				[x0 + span, y0 + 6000],
				[x0, y0 + 5200]
			],
			true
		);
		const piers = 4 + (edit > 3 ? 1 : 0);
		for (let i = 0; i <= piers; i++) {
			const x = x0 + (span * i) / piers;
			w.box('WALL', x - 450, y0 - 4000, 900, 9300);
			w.hatch(x - 450, y0 - 4000, 900, 9300, 500);
			w.box('OUTLINE', x - 1400, y0 - 5200, 2800, 1200);
			for (const d of [-900, 0, 900])
				w.line('HIDDEN', x + d, y0 - 5200, x + d, y0 - 14000 - (edit > 1 ? 1500 : 0));
			if (i) w.dimension(x0 + (span * (i - 1)) / piers, y0 - 5200, x, y0 - 5200, -3500);
		}
		const bed: [number, number][] = [];
		for (let i = 0; i <= 30; i++) bed.push([x0 - 2000 + (i * (span + 6000)) / 30, y0 - 4400 - r.int(0, 900)]);
		w.path('FINE', bed);
		w.line('WATER', x0 - 2000, y0 + 1850, x0 + span + 4000, y0 + 1850);
		w.text(x0 + span - 3000, y0 + 2100, 2.5, 'MHW +1.85', { layer: 'WATER' });
		w.line('OUTLINE', x0, y0 + 7200 + (edit > 2 ? 100 : 0), x0 + span, y0 + 8000 + (edit > 2 ? 100 : 0));
		for (let x = 0; x < span; x += 1500)
			w.line('FINE', x0 + x, y0 + 6000 + (x * 800) / span, x0 + x, y0 + 7200 + (x * 800) / span);
		w.dimension(x0, y0 + 6000, x0 + span, y0 + 6000, 5600);
		if (edit > 4) {
			w.text(x0 + span + 1000, y0 + 7600, 2.5, 'Expansion joint, see 0120');
			w.circle('SYMBOL', x0 + span, y0 + 6400, 1200);
		}
	},

	tower(w, { edit }, r) {
		const base = 10000;
		const height = 13500 + r.int(0, 3) * 250 + (edit > 2 ? 300 : 0);
		for (const [i, x0] of [7000, 19500].entries()) {
			w.text(x0 - 1000, base + height + 1800, 5, i ? 'SIDE ELEVATION' : 'FRONT ELEVATION');
			const width = i ? 3200 : 5600;
			w.box('STEEL', x0, base, 420, height);
			w.box('STEEL', x0 + width - 420, base, 420, height);
			const panels = 6;
			for (let p = 0; p < panels; p++) {
				const y = base + (height * p) / panels;
				w.line('STEEL', x0 + 420, y, x0 + width - 420, y);
				w.line('FINE', x0 + 420, y, x0 + width - 420, y + height / panels);
				w.line('FINE', x0 + width - 420, y, x0 + 420, y + height / panels);
			}
			w.box('OUTLINE', x0 - 500, base + height, width + 1000, 600);
			w.box('WALL', x0 - 900, base - 1400, width + 1800, 1400);
			w.hatch(x0 - 900, base - 1400, width + 1800, 1400, 450);
			w.dimension(x0, base - 1400, x0 + width, base - 1400, -1300);
			w.dimension(x0 + width, base, x0 + width, base + height, 1800);
			if (edit > 1) {
				w.line('SYMBOL', x0 + width + 500, base, x0 + width + 500, base + height);
				w.line('SYMBOL', x0 + width + 900, base, x0 + width + 900, base + height);
				for (let y = 300; y < height; y += 300)
					w.line('SYMBOL', x0 + width + 500, base + y, x0 + width + 900, base + y);
			}
			if (edit > 3)
				for (let y = 3000; y < height; y += 900) w.arc('SYMBOL', x0 + width + 700, base + y, 420, 270, 90);
		}
	},

	floor(w, { edit }, r) {
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
		const rooms = [
			'Ticket hall',
			'Waiting area',
			'Office',
			'Café',
			'Plant',
			'Store',
			'Staff',
			'Toilets',
			'First aid',
			'Control'
		];
		let x = x0;
		for (let i = 0; i < 5; i++) {
			const step = r.pick([7200, 8600, 10100]);
			const moved = edit > 1 && i === 1 ? 450 * (edit - 1) : 0;
			if (x + step > x0 + width - 4000) break;
			wall(w, x + step - 100 + moved, y0 + 200, 5700, true, 200);
			door(w, x + step - 1800 + moved, y0 + 5900);
			w.text(x + step / 2 - 800, y0 + 2600, 3, rooms[(i + r.int(0, 3)) % rooms.length]!);
			x += step;
		}
		wall(w, x0 + 200, y0 + 5900, width - 12000, false, 200);
		w.text(x0 + 12000, y0 + 9600, 4, r.pick(['Concourse', 'Departure hall', 'Arrivals']));
		if (edit > 2) {
			w.box('OUTLINE', x0 + 31000, y0 + 14000, 6000, 3600);
			for (let i = 1; i < 14; i++)
				w.line('FINE', x0 + 31000 + i * 428, y0 + 14000, x0 + 31000 + i * 428, y0 + 17600);
			w.text(x0 + 31200, y0 + 12900, 3, 'Stair 2');
		}
		if (edit > 3) w.box('FINE', x0 + 22000, y0 + 15000, 2400, 2600);
		if (edit > 4) w.text(x0 + 22200, y0 + 14300, 3, 'Lift');
		w.dimension(x0, y0 + depth, x0 + width, y0 + depth, 3600);
	},

	roof(w, { edit }, r) {
		const xs = Array.from({ length: 6 }, () => 7200);
		const ys = [9600, 9600];
		const x0 = 9000;
		const y0 = 17000;
		grid(w, x0, y0, xs, ys);
		for (let i = 0; i <= 6; i++) {
			w.box('STEEL', x0 + i * 7200 - 150, y0 - 1200, 300, 21600);
			w.text(
				x0 + i * 7200 + 250,
				y0 + 4200,
				2.5,
				`RB${i + 1} ${edit > 2 && i === 2 ? 'HEB 450' : 'HEB 400'}`,
				{ turn: 90 }
			);
		}
		const gap = edit > 1 ? 1600 : 1800;
		for (let y = 0; y <= 19200; y += gap) w.line('FINE', x0, y0 + y, x0 + 43200, y0 + y);
		for (const b of edit > 3 ? [0, 3, 5] : [0, 5]) {
			w.line('STEEL', x0 + b * 7200, y0, x0 + (b + 1) * 7200, y0 + 9600);
			w.line('STEEL', x0 + b * 7200, y0 + 9600, x0 + (b + 1) * 7200, y0);
		}
		const hole = x0 + 7200 * r.int(1, 4) + 1500;
		w.box('OUTLINE', hole, y0 + 11200, 4200, 3200);
		w.line('OUTLINE', hole, y0 + 11200, hole + 4200, y0 + 14400);
		w.text(hole, y0 + 14700, 3, 'Rooflight');
	},

	piles(w, { edit }, r) {
		const xs = Array.from({ length: 7 }, () => 6000);
		const ys = [5400, 5400, 5400];
		const x0 = 10000;
		const y0 = 17000;
		grid(w, x0, y0, xs, ys);
		w.block('PILE_900', () => {
			w.circle('OUTLINE', 0, 0, 450);
			w.solid('OUTLINE', [0, 0], [450, 0], [0, 450]);
			w.solid('OUTLINE', [0, 0], [-450, 0], [0, -450]);
		});
		let n = 0;
		for (let j = 0; j <= 3; j++) {
			for (let i = 0; i <= 7; i++) {
				const moved = edit > 1 && i === 3 && j === 1 ? 300 * (edit - 1) : 0;
				const x = x0 + i * 6000 + moved;
				const y = y0 + j * 5400;
				w.insert('PILE_900', 'OUTLINE', x - 700, y);
				w.insert('PILE_900', 'OUTLINE', x + 700, y);
				w.box('HIDDEN', x - 1400, y - 800, 2800, 1600);
				n += 2;
				w.text(x - 1300, y + 1000, 2.2, `P${String(n - 1).padStart(3, '0')}/${String(n).padStart(3, '0')}`);
			}
		}
		if (edit > 2) for (let i = 0; i < 4; i++) w.insert('PILE_900', 'OUTLINE', x0 + 44500, y0 + i * 5400);
		w.text(
			x0,
			y0 - 5200,
			3,
			`Piles dia. 900, toe level ${edit > 3 ? '-26.5' : '-24.0'}, working load ${3200 + r.int(0, 4) * 100} kN`
		);
	},

	quay(w, { edit }, r) {
		const x0 = 12000;
		const y0 = 13000;
		const toe = 9000 + (edit > 1 ? 600 : 0);
		w.text(x0 - 4000, y0 + 13200, 5, 'SECTION THROUGH QUAY WALL');
		for (let i = 0; i < 3; i++)
			w.line('STEEL', x0 + i * 120, y0 + 8000 - toe - 4000, x0 + i * 120, y0 + 9000);
		w.box('WALL', x0 - 900, y0 + 8700, 2600, 2100);
		w.hatch(x0 - 900, y0 + 8700, 2600, 2100, 420);
		const rod = y0 + 7300 + (edit > 2 ? 250 : 0);
		w.line('STEEL', x0, rod, x0 + 15000, rod - 900);
		w.line('STEEL', x0, rod - 130, x0 + 15000, rod - 1030);
		w.box('WALL', x0 + 15000, rod - 2600, 700, 3300);
		w.hatch(x0 + 15000, rod - 2600, 700, 3300, 420);
		w.text(x0 + 5200, rod + 300, 2.5, `Tie rod M${edit > 3 ? 85 : 76} at 2.4 m`);
		w.line('OUTLINE', x0 + 1700, y0 + 10800, x0 + 19000, y0 + 10650);
		for (let x = 2200; x < 18500; x += 1400) w.line('HATCH', x0 + x, y0 + 10700, x0 + x - 500, y0 + 10200);
		const bed: [number, number][] = [];
		for (let i = 0; i <= 14; i++) bed.push([x0 - 8500 + i * 600, y0 - 300 + r.int(0, 300)]);
		w.path('FINE', bed);
		w.line('WATER', x0 - 9000, y0 + 6800, x0 - 1000, y0 + 6800);
		w.text(x0 - 8800, y0 + 7000, 2.5, 'MHW +1.85', { layer: 'WATER' });
		w.box('SYMBOL', x0 - 2100, y0 + 7200, 1200, 2600);
		w.circle('SYMBOL', x0 - 1500, y0 + 8500, 450);
		w.dimension(x0 - 3200, y0 - 300, x0 - 3200, y0 + 10800, -1800);
		w.dimension(x0, y0 + 10800, x0 + 15000, y0 + 10800, 1500);
		if (edit > 4) {
			w.box('OUTLINE', x0 + 400, y0 + 10800, 700, 500);
			w.text(x0 + 1300, y0 + 11000, 2.5, 'Bollard 100 t');
		}
	},

	detail(w, { edit }, r) {
		const x0 = 1400;
		const y0 = 2200;
		const plate = 900 + r.int(0, 4) * 50 + (edit > 1 ? 50 : 0);
		w.text(x0, y0 + plate + 900, 5, `DETAIL ${r.int(1, 9)}`);
		w.box('OUTLINE', x0, y0, plate, plate);
		w.box('STEEL', x0 + plate / 2 - 150, y0 + plate / 2 - 150, 300, 300);
		w.line('STEEL', x0 + plate / 2 - 150, y0 + plate / 2, x0 + plate / 2 + 150, y0 + plate / 2);
		w.block('BOLT', () => {
			w.circle('OUTLINE', 0, 0, 27);
			w.circle('FINE', 0, 0, 15);
			w.line('CENTRE', -45, 0, 45, 0);
			w.line('CENTRE', 0, -45, 0, 45);
		});
		const bolts = edit > 2 ? 3 : 2;
		const step = (plate - 240) / (bolts - 1);
		w.insert('BOLT', 'OUTLINE', x0 + 120, y0 + 120, { columns: bolts, rows: bolts, dx: step, dy: step });
		w.dimension(x0, y0, x0 + plate, y0, -260);
		w.dimension(x0 + plate, y0, x0 + plate, y0 + plate, 260);
		w.dimension(x0, y0 + plate, x0 + 120, y0 + plate, 150);
		const sx = x0 + plate + 1300;
		w.text(sx, y0 + plate + 900, 5, 'SECTION');
		w.box('OUTLINE', sx, y0 + plate / 2, 60 + (edit > 3 ? 20 : 0), plate / 2);
		w.hatch(sx, y0 + plate / 2, 60 + (edit > 3 ? 20 : 0), plate / 2, 40);
		w.box('WALL', sx - 700, y0, 700, plate);
		w.hatch(sx - 700, y0, 700, plate, 110);
		for (let i = 0; i < bolts; i++) w.box('STEEL', sx - 420, y0 + plate / 2 + 60 + i * 140, 620, 30);
		w.text(sx + 260, y0 + plate / 2 + 120, 3, `${bolts * bolts} bolts M${edit > 3 ? 30 : 24}-10.9`);
		w.text(sx + 260, y0 + plate / 2 + 60, 3, 'a = 8 mm all round');
	},

	lanes(w, { edit }, r) {
		const x0 = 12000;
		const y0 = 30000;
		const lanes = 7 + (edit > 2 ? 1 : 0);
		const length = 118000;
		w.text(x0, y0 + lanes * 3500 + 6000, 5, 'MARSHALLING LANES');
		for (let i = 0; i <= lanes; i++)
			w.line(i === 0 || i === lanes ? 'OUTLINE' : 'HIDDEN', x0, y0 + i * 3500, x0 + length, y0 + i * 3500);
		w.block('CAR', () => {
			w.box('FINE', 0, 0, 4600, 1900);
			w.box('FINE', 1200, 150, 2000, 1600);
		});
		w.block('LORRY', () => {
			w.box('FINE', 0, 0, 13600, 2500);
			w.box('FINE', 13900, 100, 2200, 2300);
		});
		w.block('ARROW', () =>
			w.path('SYMBOL', [
				[0, 0],
				[3000, 0],
				[3000, 300],
				[4200, 0],
				[3000, -300],
				[3000, 0]
			])
		);
		for (let i = 0; i < lanes; i++) {
			const lorries = i < 3 + (edit > 3 ? 1 : 0);
			const count = lorries ? 6 : 17;
			w.insert(lorries ? 'LORRY' : 'CAR', 'FINE', x0 + 5000, y0 + i * 3500 + (lorries ? 500 : 800), {
				columns: count,
				dx: lorries ? 18200 : 6300
			});
			w.insert('ARROW', 'SYMBOL', x0 - 6000, y0 + i * 3500 + 1750);
			w.text(x0 - 9200, y0 + i * 3500 + 1200, 3, `L${i + 1}`);
		}
		const kiosk = 16000 + (edit > 1 ? 2500 : 0);
		for (let i = 0; i < 3; i++) w.box('WALL', x0 - kiosk, y0 + i * 8000 + r.int(0, 2) * 100, 3600, 1800);
		w.dimension(x0, y0, x0 + length, y0, -5000);
		w.dimension(x0 + length, y0, x0 + length, y0 + lanes * 3500, 4000);
		if (edit > 4)
			w.path('SERVICE', [
				[x0, y0 - 1500],
				[x0 + length, y0 - 1500],
				[x0 + length, y0 - 3000]
			]);
	},

	services(w, brief, r) {
		DRAW.floor(w, { ...brief, edit: 1 }, new Random(brief.seed + 'plan'));
		const { edit } = brief;
		const x0 = 10000;
		const y0 = 25600 + (edit > 1 ? 500 : 0);
		w.line('SERVICE', x0, y0, x0 + 40000, y0);
		w.line('SERVICE', x0, y0 + 500, x0 + 40000, y0 + 500);
		w.block('OUTLET', () => {
			w.box('SERVICE', -300, -300, 600, 600);
			w.line('SERVICE', -300, -300, 300, 300);
			w.line('SERVICE', -300, 300, 300, -300);
		});
		const branches = 6 + (edit > 2 ? 1 : 0);
		for (let i = 0; i < branches; i++) {
			const x = x0 + 3000 + i * 5600 + r.int(0, 4) * 100;
			w.line('SERVICE', x, y0, x, y0 - 4200);
			w.insert('OUTLET', 'SERVICE', x, y0 - 4500);
			w.text(x + 450, y0 - 3000, 2.2, `${r.pick([160, 200, 250])}${edit > 3 && i === 2 ? ' insulated' : ''}`);
		}
		w.text(x0 + 500, y0 + 900, 3, edit > 4 ? '630 x 400 main' : '630 x 350 main');
	},

	facade(w, { edit }, r) {
		const x0 = 8000;
		const y0 = 20000;
		const bays = 14;
		const bay = 3200;
		w.text(
			x0,
			y0 + 16000,
			5,
			r.pick(['NORTH ELEVATION', 'SOUTH ELEVATION', 'WATERSIDE ELEVATION', 'LANDSIDE ELEVATION'])
		);
		w.line('OUTLINE', x0 - 4000, y0, x0 + bays * bay + 6000, y0);
		w.box('OUTLINE', x0, y0, bays * bay, 12000 + (edit > 1 ? 400 : 0));
		for (let i = 0; i < bays; i++) {
			w.box('FINE', x0 + i * bay + 250, y0 + 900, bay - 500, 3600);
			w.box('FINE', x0 + i * bay + 250, y0 + 5600, bay - 500, 2800 + (edit > 2 ? 200 : 0));
			if (edit > 3 && i % 3 === 0)
				for (let j = 1; j < 6; j++)
					w.line(
						'FINE',
						x0 + i * bay + 250,
						y0 + 900 + j * 600,
						x0 + (i + 1) * bay - 250,
						y0 + 900 + j * 600
					);
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
};

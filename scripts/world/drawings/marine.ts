import type { Random } from '../random';
import { byTitle, names, type Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { bars, heading, leader, level, schedule } from './parts';

/** The linkspan from above and from the side. */
export function linkspan(w: DxfWriter, { edit }: Brief, r: Random): void {
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
}

/** The linkspan along its length, from the bank seat to the pontoon. */
export function longSection(w: DxfWriter, { edit }: Brief, r: Random): void {
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
}

/** The lifting tower from the front and from the side. */
export function tower(w: DxfWriter, { edit }: Brief, r: Random): void {
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
}

/** The quay wall across: sheet piles, capping beam, tie rod and its anchor. */
export function quay(w: DxfWriter, { edit, title }: Brief, r: Random): void {
	const x0 = 12000;
	const y0 = 13000;
	// The bed falls towards the turning basin.
	const toe =
		9000 +
		(edit > 1 ? 600 : 0) +
		byTitle(title, [
			['40 to 85', 700],
			['85 to 130', 1500],
			['', 0]
		]);
	w.text(
		x0 - 4000,
		y0 + 13200,
		5,
		names(title, 'linkspan pit') ? 'QUAY WALL AT THE LINKSPAN PIT' : 'SECTION THROUGH QUAY WALL'
	);
	if (names(title, 'linkspan pit')) {
		w.box('WALL', x0 + 2600, y0 + 2400, 7000, 8300);
		w.box('FINE', x0 + 3200, y0 + 3000, 5800, 7700);
		w.text(x0 + 4200, y0 + 6800, 3, 'Hydraulic pit');
	}
	for (let i = 0; i < 3; i++) w.line('STEEL', x0 + i * 120, y0 + 8000 - toe - 4000, x0 + i * 120, y0 + 9000);
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
}

/** The capping beam with its bars and what is cast into it. */
export function cappingBeam(w: DxfWriter, { edit }: Brief): void {
	for (const [n, says] of ['TYPICAL', 'AT BOLLARD', 'AT LADDER'].entries()) {
		const x = n * 5200;
		heading(w, x, 3400, `SECTION ${n + 1}-${n + 1}, ${says}`);
		w.box('OUTLINE', x, 0, 2600, 2100);
		bars(w, x, 0, 2600, 2100, 9 + (edit > 1 ? 2 : 0), 9, 36);
		for (const at of [900, 1020]) w.line('STEEL', x + at, -1500, x + at, 700);
		w.box('SYMBOL', x - 250, 300, 250, 1200);
		if (n === 1) {
			w.box('STEEL', x + 900, 2100, 700, 500);
			for (const at of [1000, 1500]) w.line('STEEL', x + at, 800, x + at, 2100);
			leader(w, x + 1250, 2400, x + 2400, 2900, edit > 3 ? 'Bollard 100 t' : 'Bollard 75 t');
		}
		if (n === 2) for (let y = -1200; y < 1900; y += 300) w.box('STEEL', x - 160, y, 160, 40);
		w.dimension(x, 0, x + 2600, 0, -1900);
		w.dimension(x + 2600, 0, x + 2600, 2100, 400);
	}
	level(w, 13600, 2100, '+5.20');
	level(w, 13600, 0, '+3.10');
}

/** The tie rod and how it is held at both of its ends. */
export function anchorage(w: DxfWriter, { edit }: Brief): void {
	const rod = edit > 3 ? 85 : 76;
	heading(w, 0, 2300, 'WALING AT THE WALL');
	for (const y of [-350, 200]) w.box('STEEL', 600, y, 90, 150);
	w.box('STEEL', 500, -900, 60, 1800);
	w.box('STEEL', 690, -350, 200, 700);
	w.box('STEEL', 200, -rod / 2, 5200, rod);
	w.box('OUTLINE', 320, -150, 120, 300);
	leader(w, 380, 0, 900, 1400, `Nut M${rod}, locked`);
	w.dimension(560, -900, 890, -900, -300);
	heading(w, 6400, 2300, 'DEADMAN');
	w.box('WALL', 7000, -1700, 700, 3300);
	w.hatch(7000, -1700, 700, 3300, 260);
	w.box('STEEL', 5400, -rod / 2, 2700, rod);
	w.box('STEEL', 7700, -250, 50, 500);
	w.box('OUTLINE', 7760, -130, 120, 260);
	w.box('STEEL', 5000, -rod, 700, rod * 2);
	leader(w, 5300, 0, 4600, -1400, `Turnbuckle M${rod}`);
	if (edit > 2) leader(w, 3000, 0, 2400, 1000, 'Wrapped against corrosion, two layers');
	w.dimension(7000, -1700, 7000, 1600, -500);
}

/** Fenders along a berth, seen from the water. */
export function fenders(w: DxfWriter, { edit, title }: Brief): void {
	const first = names(title, 'berth 2') ? 5 : 1;
	const step = edit > 1 ? 11000 : 12000;
	heading(w, 0, 12500, `BERTH ${first > 1 ? 2 : 1}, SEEN FROM THE WATER`);
	w.box('OUTLINE', -4000, 7000, 4 * step + 2000, 2100);
	for (let i = 0; i < 4; i++) {
		const x = i * step;
		w.box('SYMBOL', x, 3200, 2400, 5200);
		for (const y of [4400, 6900]) w.circle('OUTLINE', x + 1200, y, 600);
		for (const side of [-900, 3300]) w.line('STEEL', x + (side < 0 ? 0 : 2400), 7800, x + side, 8800);
		w.text(x + 1200, 10100, 3, `F${first + i}`, { middle: true });
		if (i) w.dimension(x - step + 1200, 3200, x + 1200, 3200, -1800);
		if (i < 3 && (i + first) % 2)
			for (let y = 1200; y < 9000; y += 300) w.line('FINE', x + 5400, y, x + 6000, y);
	}
	w.line('WATER', -6000, 5750, 4 * step, 5750);
	w.text(-5800, 5950, 2.5, 'MHW +1.85', { layer: 'WATER' });
	for (let x = -4000; x < 4 * step - 2000; x += 600) w.line('FINE', x, 0, x, 7000);
	level(w, 4 * step + 500, 9100, '+5.20');
}

/** The bed before and after dredging, chainage by chainage. */
export function dredging(w: DxfWriter, { edit, title }: Brief, r: Random): void {
	const toe =
		byTitle(title, [
			['berth 1', 8.5],
			['berth 2', 7.5],
			['', 6.5]
		] as const) + (edit > 2 ? 0.5 : 0);
	for (let n = 0; n < 6; n++) {
		const [x, y] = [(n % 2) * 62000, -Math.floor(n / 2) * 22000];
		heading(w, x, y + 5200, `CHAINAGE ${n * 25}`);
		w.line('WATER', x, y + 1850, x + 50000, y + 1850);
		const bed: [number, number][] = Array.from({ length: 26 }, (_, i) => [
			x + i * 2000,
			y - 3200 - i * 60 - r.int(0, 700)
		]);
		w.path('FINE', bed);
		w.path('OUTLINE', [
			[x, y - 3000],
			[x + 9000, y - toe * 1000],
			[x + 41000, y - toe * 1000],
			[x + 50000, y - 4800]
		]);
		for (let i = 5; i < 21; i++)
			w.line('HATCH', x + i * 2000, y - toe * 1000, x + i * 2000 + 1200, bed[i]![1]);
		w.text(x + 17000, y - toe * 1000 - 1900, 2.8, `Dredged to -${toe.toFixed(1)}, ${r.int(90, 210)} m2`);
		level(w, x + 51000, y - toe * 1000, `-${toe.toFixed(2)}`);
	}
}

/** Pumps, valves and pipes of the lifting gear, as they are connected. */
export function hydraulics(w: DxfWriter, { edit, title }: Brief): void {
	if (names(title, 'installation')) return cylinder(w, edit, names(title, 'cylinder 2') ? 2 : 1);
	heading(w, 0, 15500, 'HYDRAULIC PIPES FROM THE POWER UNITS TO THE CYLINDERS');
	const units = edit > 2 ? 3 : 2;
	for (let i = 0; i < units; i++) {
		const y = i * 4200;
		w.box('OUTLINE', 0, y, 4200, 3000);
		w.text(300, y + 2300, 3, `HPU ${i + 1}`);
		w.circle('SYMBOL', 1100, y + 1100, 600);
		w.solid('SYMBOL', [1100, y + 1700], [900, y + 1350], [1300, y + 1350]);
		w.box('SYMBOL', 2500, y + 600, 1100, 1100);
		for (const part of [0, 1]) w.line('SYMBOL', 2500, y + 600 + part * 1100, 3600, y + 1700 - part * 1100);
		w.line('SERVICE', 1700, y + 1100, 2500, y + 1100);
		w.path('SERVICE', [
			[3600, y + 1100],
			[6000 + i * 500, y + 1100],
			[6000 + i * 500, 13200 - i * 500],
			[16000, 13200 - i * 500]
		]);
	}
	for (let n = 0; n < 2; n++) {
		const y = 9000 - n * 6600;
		w.box('STEEL', 22000, y, 6500, 1500);
		w.box('STEEL', 28500, y + 450, 4200, 600);
		w.line('STEEL', 25200, y, 25200, y + 1500);
		w.text(22300, y + 2000, 3, `Cylinder ${n + 1}, ${edit > 3 ? 340 : 320} / 220 x 4 200`);
		w.block('VALVE', () => {
			w.path(
				'SYMBOL',
				[
					[-400, -350],
					[400, 350],
					[400, -350],
					[-400, 350]
				],
				true
			);
		});
		for (const [k, x] of [17500, 19500].entries()) w.insert('VALVE', 'SYMBOL', x, y + 400 + k * 700);
		w.path('SERVICE', [
			[16000, 13200],
			[16000, y + 400],
			[22000, y + 400]
		]);
		w.path('SERVICE', [
			[16600, 12700],
			[16600, y + 1100],
			[22000, y + 1100]
		]);
	}
	w.text(8000, 13500, 2.5, 'Pressure line 60.3 x 8.0, 250 bar');
	w.text(8000, 12050, 2.5, 'Return line 76.1 x 5.0');
	if (edit > 1) {
		w.circle('SYMBOL', 13800, 14400, 500);
		w.line('SYMBOL', 13800, 13200, 13800, 13900);
		w.text(14500, 14300, 2.5, 'Accumulator 50 l');
	}
	schedule(
		w,
		[14, 64, 26],
		[
			['Line', 'Pipe', 'Length'],
			['P1', '60.3 x 8.0, stainless 1.4571', `${38 + edit} m`],
			['R1', '76.1 x 5.0, stainless 1.4571', `${40 + edit} m`],
			['D1', '33.7 x 3.2, stainless 1.4571', '27 m']
		]
	);
}

function cylinder(w: DxfWriter, edit: number, number: number): void {
	const stroke = 4200 + (edit > 2 ? 150 : 0);
	heading(w, 0, 1700, `CYLINDER ${number}, FROM THE SIDE`);
	w.circle('STEEL', 0, 0, 330);
	w.circle('STEEL', 0, 0, 90);
	w.box('STEEL', 330, -230, stroke + 900, 460);
	w.box('STEEL', 330 + stroke + 900, -290, 180, 580);
	w.box('STEEL', 330 + stroke + 1080, -110, 1600, 220);
	w.circle('STEEL', 330 + stroke + 2980, 0, 300);
	w.circle('STEEL', 330 + stroke + 2980, 0, 85);
	for (const x of [600, stroke + 900]) {
		w.box('SERVICE', x, 230, 160, 220);
		leader(w, x + 80, 450, x + 500, 900, `Port G 1 1/2, side ${number === 1 ? 'A' : 'B'}`);
	}
	w.dimension(0, 0, 330 + stroke + 2980, 0, -1100);
	w.dimension(330, -230, 330 + stroke + 900, -230, -450);
	heading(w, 0, -2300, 'FOOT ON ITS BRACKET');
	w.box('WALL', -900, -5200, 1800, 500);
	w.hatch(-900, -5200, 1800, 500, 180);
	for (const x of [-260, 200])
		w.path(
			'STEEL',
			[
				[x, -4700],
				[x + 60, -4700],
				[x + 60, -3300],
				[x, -3300]
			],
			true
		);
	w.circle('STEEL', -0, -3600, 90);
	for (const x of [-700, 600]) w.box('STEEL', x, -5000, 60, 500);
	leader(w, 600, -4600, 1500, -4200, `${edit > 1 ? 8 : 6} anchors M${number === 1 ? 36 : 42}`);
	w.dimension(-900, -5200, 900, -5200, -500);
}

/** The pit beside the bank seat, in which the lifting gear stands. */
export function pit(w: DxfWriter, { edit }: Brief): void {
	heading(w, 0, 11500, 'HYDRAULIC PIT, PLAN AT -2.40');
	w.box('WALL', 0, 0, 16800, 9000);
	for (const [x, y, wide, high] of [
		[0, 0, 16800, 600],
		[0, 8400, 16800, 600],
		[0, 600, 600, 7800],
		[16200, 600, 600, 7800]
	] as const)
		w.hatch(x, y, wide, high, 420);
	w.box('FINE', 600, 600, 15600, 7800);
	for (const [n, x] of [3600, 12600].entries()) {
		w.circle('STEEL', x, 4500, 1100);
		w.circle('STEEL', x, 4500, 500);
		for (const dx of [-1500, 1500]) w.line('CENTRE', x + dx, 4500, x, 4500);
		leader(w, x, 5600, x + 900, 9900, `Cylinder ${n + 1}`);
	}
	w.box('HIDDEN', 7200, 1200, 1800, 1800);
	w.text(7300, 3200, 2.5, 'Sump -4.60');
	for (let i = 0; i < (edit > 2 ? 3 : 2); i++) {
		w.box('OUTLINE', 6400 + i * 1500, 6400, 1200, 1600);
		w.text(7000 + i * 1500, 7000, 2.5, `HPU ${i + 1}`, { middle: true });
	}
	w.path('SERVICE', [
		[7000, 6400],
		[7000, 5600],
		[3600, 5600]
	]);
	for (let y = 900; y < 3600; y += 260) w.line('FINE', 14600, y, 15900, y);
	w.text(14500, 3800, 2.5, 'Ladder');
	w.dimension(0, 0, 16800, 0, -1500);
	w.dimension(0, 0, 0, 9000, -1500);
}

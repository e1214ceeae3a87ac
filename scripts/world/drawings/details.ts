import type { Random } from '../random';
import { byTitle, type Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { bars, heading, leader, level, schedule } from './parts';

type Draw = (w: DxfWriter, brief: Brief, r: Random) => void;

/** A bolt from above. */
function bolt(w: DxfWriter): void {
	w.block('BOLT', () => {
		w.circle('OUTLINE', 0, 0, 27);
		w.circle('FINE', 0, 0, 15);
		w.line('CENTRE', -45, 0, 45, 0);
		w.line('CENTRE', 0, -45, 0, 45);
	});
}

/** A plate on concrete: from above and across. */
const basePlate: Draw = (w, { edit }, r) => {
	const x0 = 1400;
	const y0 = 2200;
	const plate = 900 + r.int(0, 4) * 50 + (edit > 1 ? 50 : 0);
	w.text(x0, y0 + plate + 900, 5, 'BASE PLATE');
	w.box('OUTLINE', x0, y0, plate, plate);
	w.box('STEEL', x0 + plate / 2 - 150, y0 + plate / 2 - 150, 300, 300);
	w.line('STEEL', x0 + plate / 2 - 150, y0 + plate / 2, x0 + plate / 2 + 150, y0 + plate / 2);
	bolt(w);
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
};

/** Two beams end to end, their flanges and webs covered by plates. */
const splice: Draw = (w, { edit }) => {
	const rows = edit > 2 ? 4 : 3;
	bolt(w);
	heading(w, 0, 900, 'SPLICE, FROM THE SIDE');
	for (const x of [0, 1210]) {
		w.box('STEEL', x, 0, 1200, 400);
		for (const y of [24, 376]) w.line('STEEL', x, y, x + 1200, y);
	}
	w.box('OUTLINE', 905, 60, 600, 280);
	for (const y of [-14, 400]) w.box('OUTLINE', 755, y, 900, 14);
	w.insert('BOLT', 'OUTLINE', 965, 110, { columns: 2, rows, dx: 130, dy: 180 / (rows - 1) });
	w.insert('BOLT', 'OUTLINE', 1315, 110, { columns: 2, rows, dx: 130, dy: 180 / (rows - 1) });
	leader(w, 965, 290, 400, 650, `${rows * 4} bolts M24-10.9`);
	w.dimension(905, 60, 1505, 60, -260);
	heading(w, 3000, 900, 'SECTION');
	w.path(
		'STEEL',
		[
			[3000, 0],
			[3300, 0],
			[3300, 24],
			[3157, 24],
			[3157, 376],
			[3300, 376],
			[3300, 400],
			[3000, 400],
			[3000, 376],
			[3143, 376],
			[3143, 24],
			[3000, 24]
		],
		true
	);
	for (const x of [3128, 3158]) w.box('OUTLINE', x, 60, 14, 280);
	w.dimension(3300, 0, 3300, 400, 160);
};

/** Two rafters at the ridge, or a rafter on its column at the eaves. */
const rafter =
	(ridge: boolean): Draw =>
	(w, { edit, title }) => {
		bolt(w);
		heading(w, -1500, 1500, ridge ? 'RIDGE' : `EAVES, GRID ${title.slice(-1)}`);
		const slope = 0.0625;
		const beam = (from: number, to: number, at: number) =>
			w.path(
				'STEEL',
				[
					[from, at - Math.abs(from) * slope],
					[to, at - Math.abs(to) * slope],
					[to, at - Math.abs(to) * slope + 400],
					[from, at - Math.abs(from) * slope + 400]
				],
				true
			);
		beam(ridge ? -1500 : -500, -20, 200);
		if (ridge) beam(20, 1500, 200);
		else {
			w.box('STEEL', 20, -1600, 300, 2300);
			for (const y of [200, 580]) w.box('OUTLINE', 20, y, 300, 20);
		}
		for (const x of ridge ? [-20, 0] : [-20, 0]) w.box('OUTLINE', x, 120, 20, 620);
		const rows = edit > 1 ? 4 : 3;
		for (let i = 0; i < rows; i++) w.box('STEEL', -70, 220 + i * (380 / (rows - 1)), 140, 28);
		w.path(
			'OUTLINE',
			[
				[-20, 200],
				[-520, 168],
				[-20, 20]
			],
			true
		);
		leader(w, -300, 130, -900, -500, 'Haunch, a = 6 mm');
		leader(w, 0, 650, 500, 1100, `${rows * 2} bolts M${edit > 2 ? 27 : 24}-10.9`);
		w.dimension(-20, 120, -20, 740, -900);
	};

/** A profile of the façade cut through, with glass, seal and what it is fixed to. */
const curtainWall: Draw = (w, { edit, title }) => {
	const [says, below, above] = byTitle(title, [
		['sill', ['SILL', true, false]],
		['head', ['HEAD', false, true]],
		['corner', ['CORNER, PLAN', false, false]],
		['', ['EXPANSION JOINT, PLAN', false, false]]
	] as const);
	heading(w, 0, 720, `CURTAIN WALL, ${says}`);
	w.box('OUTLINE', 0, 0, 60, 180);
	w.box('FINE', 6, 6, 48, 168);
	w.box('OUTLINE', 5, 186, 50, 18);
	const glass = edit > 1 ? 44 : 36;
	for (const x of below ? [15] : above ? [15] : [-360, 60]) {
		if (below || above) for (const t of [0, 8, glass - 10]) w.box('FINE', x + t, below ? 204 : -420, 8, 420);
		else for (const t of [0, 8, glass - 10]) w.box('FINE', x, 190 + t, 300, 8);
	}
	if (below) {
		w.box('WALL', -220, -420, 400, 320);
		w.hatch(-220, -420, 400, 320, 60);
		w.path(
			'STEEL',
			[
				[-60, -100],
				[120, -100],
				[120, -92],
				[-52, -92],
				[-52, 0],
				[-60, 0]
			],
			true
		);
		leader(w, 120, -96, 260, -40, 'Bracket, slotted');
	}
	if (above) {
		w.box('WALL', -220, 230, 400, 320);
		w.hatch(-220, 230, 400, 320, 60);
		leader(w, 30, 215, 260, 160, `Movement ${edit > 2 ? 20 : 15} mm`);
	}
	if (!below && !above) {
		if (says.startsWith('CORNER')) {
			w.box('OUTLINE', 60, -60, 180, 60);
			for (const t of [0, 8, glass - 10]) w.box('FINE', 250 + t, -420, 8, 360);
		} else {
			w.box('OUTLINE', 85, 0, 60, 180);
			w.path('SYMBOL', [
				[60, 60],
				[72, 90],
				[60, 120]
			]);
			leader(w, 72, 90, 260, -120, `Joint ${edit > 2 ? 30 : 25} mm, two seals`);
		}
	}
	leader(w, 30, 90, -260, 60, 'Mullion 60 x 180');
	leader(w, 30, 195, -260, 260, 'Pressure plate with cap');
	w.dimension(0, 0, 0, 180, -180);
};

/** A counter across, with its front, flap or shutter. */
const counter: Draw = (w, { edit, title }) => {
	const part = byTitle(title, [
		['flap', 'FLAP'],
		['shutter', 'SHUTTER'],
		['', 'FRONT']
	]);
	heading(w, 0, 2900, `COUNTER ${part}, SECTION`);
	w.box('WALL', -600, -200, 2600, 200);
	w.hatch(-600, -200, 2600, 200, 120);
	w.box('OUTLINE', 0, 0, 40, 1060);
	w.box('OUTLINE', -120, 1060, 760, edit > 1 ? 50 : 40);
	w.box('FINE', 60, 100, 560, 700);
	for (const y of [320, 560]) w.line('FINE', 60, y, 620, y);
	if (part === 'FLAP') {
		w.path(
			'SYMBOL',
			[
				[640, 1060],
				[1240, 1060],
				[1240, 1100],
				[640, 1100]
			],
			true
		);
		w.arc('HIDDEN', 640, 1080, 600, 0, 90);
		leader(w, 640, 1080, 900, 1900, 'Piano hinge, stainless');
	} else if (part === 'SHUTTER') {
		w.box('OUTLINE', -60, 2200, 260, 260);
		w.circle('FINE', 70, 2330, 90);
		for (let y = 1140; y < 2200; y += 60) w.line('SYMBOL', 20, y, 20, y + 48);
		leader(w, 70, 2330, 700, 2500, `Motor, ${edit > 2 ? 'with hand crank' : '230 V'}`);
	} else {
		for (let y = 120; y < 1000; y += 110) w.line('FINE', -18, y, -18, y + 90);
		leader(w, -18, 500, -500, 900, 'Larch battens 18 x 90');
	}
	w.dimension(0, 0, 0, 1060, -420);
	w.dimension(-120, 1060, 640, 1060, 500);
};

/** A door set: elevation, plan and the section of its frame. */
const doorSet: Draw = (w, { edit, title }) => {
	const kind = byTitle(title, [
		['type d1', 1],
		['type d2', 2],
		['type d3', 3],
		['type d4', 4],
		['type d5', 5],
		['', 6]
	] as const);
	// Leaves, clear width, glazed or not; as the door schedule has them.
	const [leaves, wide, glazed] = (
		[
			[1, 900, false],
			[1, 1000, true],
			[2, 1600, true],
			[1, 1000, false],
			[2, 1800, false],
			[1, 800, false]
		] as const
	)[kind - 1]!;
	const high = 2100 + (edit > 2 ? 100 : 0);
	heading(w, 0, high + 700, `DOOR SET D${kind}, ELEVATION`);
	w.box('OUTLINE', -60, 0, wide + 120, high + 60);
	for (let i = 0; i < leaves; i++) {
		const left = (i * wide) / leaves;
		w.box('OUTLINE', left, 0, wide / leaves, high);
		if (glazed) w.box('FINE', left + 150, 900, wide / leaves - 300, high - 1050);
		else if (kind === 4)
			for (let y = 200; y < 700; y += 60) w.line('FINE', left + 150, y, left + wide / leaves - 150, y);
		w.line('HIDDEN', left, i ? 0 : high / 2, left + wide / leaves, i ? high / 2 : high);
		w.circle('SYMBOL', i || leaves === 1 ? left + 70 : left + wide / leaves - 70, 1050, 40);
	}
	w.dimension(0, 0, wide, 0, -420);
	w.dimension(wide + 60, 0, wide + 60, high, 380);
	heading(w, 3000, high + 700, 'PLAN');
	for (const x of [3000 - 700, 3000 + wide + 60]) {
		w.box('WALL', x, 1200, 640, 200);
		w.hatch(x, 1200, 640, 200, 90);
	}
	for (let i = 0; i < leaves; i++) {
		const hinge = 3000 + (i ? wide : 0);
		w.line('OUTLINE', hinge, 1400, hinge, 1400 + wide / leaves);
		w.arc('FINE', hinge, 1400, wide / leaves, i ? 90 : 0, i ? 180 : 90);
	}
	schedule(
		w,
		[34, 40],
		[
			['Part', 'Set'],
			['Leaf', glazed ? 'Steel, glazed' : 'Steel, insulated'],
			['Fire', kind === 5 ? 'EI 60' : kind === 1 ? 'none' : 'EI 30'],
			['Closer', edit > 1 ? 'EN 4, in the head' : 'EN 3']
		]
	);
};

/** A glazed screen in elevation with its base. */
const screen: Draw = (w, { edit, title }) => {
	const panes = title.includes('GS2') ? 5 : 3;
	heading(w, 0, 3300, `SCREEN GS${panes === 5 ? 2 : 1}`);
	w.box('OUTLINE', 0, 0, panes * 1200, 2700);
	for (let i = 0; i < panes; i++) {
		w.box('FINE', i * 1200 + 30, 30, 1140, 2640);
		w.text(i * 1200 + 600, 1300, 3, `ESG ${edit > 1 ? 12 : 10}`, { middle: true });
		w.line('SYMBOL', i * 1200 + 60, 1500, i * 1200 + 1140, 1500);
		w.dimension(i * 1200, 0, (i + 1) * 1200, 0, -500);
	}
	w.dimension(0, 0, 0, 2700, -500);
	heading(w, panes * 1200 + 1400, 3300, 'BASE');
	const x = panes * 1200 + 1400;
	w.box('WALL', x, 300, 900, 300);
	w.hatch(x, 300, 900, 300, 110);
	w.box('STEEL', x + 380, 600, 140, 130);
	w.box('FINE', x + 440, 640, 24, 1400);
	leader(w, x + 380, 650, x - 300, 1100, 'Channel 140 x 130, grouted');
};

/** A sign: its face, its side and how it hangs. */
const sign: Draw = (w, { edit, title }) => {
	const kind = Number(/W(\d)/.exec(title)?.[1] ?? 1);
	const [wide, high] = (
		[
			[2400, 400],
			[1200, 300],
			[600, 600],
			[3600, 500],
			[400, 1800]
		] as const
	)[kind - 1]!;
	heading(w, 0, high + 900, `SIGN W${kind}, FACE`);
	w.box('OUTLINE', 0, 0, wide, high);
	w.box('FINE', 30, 30, wide - 60, high - 60);
	w.text(
		wide / 2,
		high / 2 - 40,
		kind === 4 ? 16 : 10,
		['TO THE SHIPS', 'TICKETS', 'WC', 'VENNHOLM', 'OUT'][kind - 1]!,
		{ middle: true }
	);
	w.dimension(0, 0, wide, 0, -220);
	w.dimension(wide, 0, wide, high, 220);
	const x = wide + 1200;
	heading(w, x, high + 900, 'SIDE');
	w.box('OUTLINE', x, 0, 120 + (edit > 1 ? 20 : 0), high);
	if (kind < 4 && kind !== 3) for (const at of [40, 90]) w.line('STEEL', x + at, high, x + at, high + 500);
	else if (kind === 5) w.box('STEEL', x + 30, -400, 60, 400);
	else w.box('WALL', x + 150, -100, 200, high + 200);
	leader(w, x + 60, high / 2, x + 700, high / 2 + 200, `LED, ${edit > 2 ? 4000 : 3000} K`);
};

/** A guard rail: posts, rails and the foot. */
const guardRail: Draw = (w, { edit }) => {
	heading(w, 0, 1900, 'ELEVATION');
	const step = edit > 1 ? 1200 : 1500;
	for (let i = 0; i < 5; i++) {
		w.box('STEEL', i * step, 0, 60, 1100);
		w.box('OUTLINE', i * step - 70, -20, 200, 20);
		if (i) w.dimension((i - 1) * step + 30, 0, i * step + 30, 0, -400);
	}
	for (const y of [150, 400, 650, 900]) w.box('FINE', -200, y, 4 * step + 460, 27);
	w.box('STEEL', -200, 1070, 4 * step + 460, 48);
	w.box('OUTLINE', -200, 0, 4 * step + 460, 100);
	w.dimension(4 * step + 260, 0, 4 * step + 260, 1118, 300);
	const x = 4 * step + 1700;
	heading(w, x, 1900, 'SECTION');
	w.box('STEEL', x, 0, 60, 1100);
	w.circle('STEEL', x + 30, 1094, 24);
	w.box('OUTLINE', x - 70, -20, 200, 20);
	w.box('WALL', x - 300, -400, 700, 380);
	for (const at of [-40, 80]) w.box('STEEL', x + at, -180, 20, 200);
	leader(w, x + 90, -100, x + 600, 300, `${edit > 2 ? 4 : 2} anchors M12`);
};

/** A ladder down the wall, from the front and from the side. */
const ladder: Draw = (w, { edit }) => {
	const rungs = 16 + (edit > 1 ? 2 : 0);
	heading(w, 0, rungs * 300 + 1500, 'LADDER, FRONT');
	for (const x of [0, 450]) w.box('STEEL', x, 0, 60, rungs * 300 + 900);
	for (let i = 0; i < rungs; i++) w.box('FINE', 60, 150 + i * 300, 390, 30);
	w.dimension(0, 0, 510, 0, -400);
	heading(w, 2600, rungs * 300 + 1500, 'SIDE');
	w.box('WALL', 2000, -300, 600, rungs * 300 + 300);
	w.hatch(2000, -300, 600, rungs * 300 + 300, 400);
	w.box('STEEL', 2800, 0, 60, rungs * 300 + 900);
	for (let y = 400; y < rungs * 300; y += 1500) w.box('OUTLINE', 2600, y, 200, 60);
	if (edit > 2) for (let y = 2400; y < rungs * 300; y += 900) w.arc('SYMBOL', 2860, y, 420, 270, 90);
	level(w, 3600, rungs * 300, '+5.20');
	level(w, 3600, 0, '-0.40');
};

/** A panel of the deck from below with its ribs, and across. */
const deckPanel: Draw = (w, { edit, title }) => {
	const first = byTitle(title, [
		['5 to 8', 5],
		['9 to 12', 9],
		['', 1]
	] as const);
	heading(w, 0, 3800, `PANELS ${first} TO ${first + 3}, FROM BELOW`);
	for (let i = 0; i < 4; i++) {
		const x = i * 2050;
		w.box('OUTLINE', x, 0, 2050, 2900);
		const ribs = edit > 2 ? 7 : 6;
		for (let k = 1; k < ribs; k++) w.box('STEEL', x + (k * 2050) / ribs - 6, 80, 12, 2740);
		for (const y of [900, 1900]) w.box('FINE', x + 40, y, 1970, 15);
		w.text(x + 1025, 3150, 3, `DP${first + i}`, { middle: true });
		w.dimension(x, 0, x + 2050, 0, -600);
	}
	heading(w, 0, -2200, 'ACROSS');
	w.box('OUTLINE', 0, -3400, 4100, 14 + (edit > 1 ? 2 : 0));
	for (let k = 1; k < 12; k++) w.box('STEEL', k * 342 - 6, -3650, 12, 250);
	leader(w, 1710, -3390, 2400, -2700, `Plate ${edit > 1 ? 16 : 14} mm, S355 J2`);
};

/** A hinge: knuckles on their pin, from above and cut through. */
const hinge: Draw = (w, { edit }) => {
	const pin = edit > 1 ? 140 : 120;
	heading(w, 0, 1400, 'HINGE, FROM ABOVE');
	for (let i = 0; i < 5; i++) w.box('STEEL', i * 260, i % 2 ? 0 : 300, 240, 620);
	w.box('OUTLINE', -80, 460 - pin / 2, 1420, pin);
	w.line('CENTRE', -250, 460, 1500, 460);
	w.dimension(0, 0, 1280, 0, -300);
	heading(w, 2300, 1400, 'CUT THROUGH THE PIN');
	w.circle('STEEL', 2800, 460, 260);
	w.circle('OUTLINE', 2800, 460, pin / 2);
	w.circle('FINE', 2800, 460, pin / 2 + 18);
	w.path('STEEL', [
		[2800, 200],
		[3700, 260],
		[3700, 420],
		[3040, 560]
	]);
	w.path('STEEL', [
		[2800, 720],
		[1950, 640],
		[1950, 480],
		[2560, 380]
	]);
	leader(w, 2800, 460 + pin / 2 + 9, 3200, 1000, 'Bush, bronze, greased');
	if (edit > 2) leader(w, 2800, 460, 3400, 100, `Pin dia. ${pin}, 42CrMo4`);
};

/** A buffer against a ship or a ramp, with its stop. */
const buffer: Draw = (w, { edit }) => {
	heading(w, 0, 1500, 'BUFFER');
	w.box('WALL', -900, -300, 600, 1300);
	w.hatch(-900, -300, 600, 1300, 200);
	w.box('STEEL', -300, 100, 40, 700);
	w.path(
		'SYMBOL',
		[
			[-260, 200],
			[200, 150],
			[260, 450],
			[200, 750],
			[-260, 700]
		],
		true
	);
	for (const y of [180, 720]) w.box('STEEL', -420, y, 200, 28);
	leader(w, 100, 450, 700, 900, `Rubber, ${edit > 1 ? 75 : 60} kNm`);
	w.dimension(-300, 100, 260, 100, -500);
	heading(w, 2000, 1500, 'STOP');
	w.box('STEEL', 2000, 0, 900, 60);
	w.path(
		'STEEL',
		[
			[2100, 60],
			[2100, 760],
			[2180, 760],
			[2700, 60]
		],
		true
	);
	w.box('STEEL', 2180, 640, 260, 120);
	w.dimension(2000, 0, 2900, 0, -300);
};

/** A drip pan below the hinge. */
const dripPan: Draw = (w, { edit }) => {
	heading(w, 0, 1500, 'DRIP PAN');
	w.path('STEEL', [
		[0, 500],
		[0, 100],
		[1500, 0],
		[3000, 100],
		[3000, 500]
	]);
	w.path('STEEL', [
		[4, 500],
		[4, 104],
		[1500, 5],
		[2996, 104],
		[2996, 500]
	]);
	w.box('OUTLINE', 1440, -400, 120, 400);
	w.path('SERVICE', [
		[1500, -400],
		[1500, -700],
		[2800, -760]
	]);
	for (const x of [-60, 3000]) w.box('OUTLINE', x, 380, 60, 300);
	leader(w, 1500, -200, 800, -600, `Outlet dia. ${edit > 1 ? 110 : 75}`);
	if (edit > 2) leader(w, 600, 64, 300, 1000, 'Heated, 20 W/m');
	w.dimension(0, 500, 3000, 500, 400);
};

/** A bearing on its shelf of concrete. */
const bearing: Draw = (w, { edit }) => {
	heading(w, 0, 2300, 'BEARING SHELF');
	w.box('OUTLINE', 0, 0, 2200, 1100);
	bars(w, 0, 0, 2200, 1100, 8, 8, 32);
	w.box('FINE', 700, 1100, 800, 40);
	w.box('STEEL', 750, 1140, 700, 90 + (edit > 1 ? 20 : 0));
	for (let i = 0; i < 5; i++) w.line('FINE', 750, 1155 + i * 18, 1450, 1155 + i * 18);
	w.box('STEEL', 600, 1260, 1000, 700);
	leader(w, 1450, 1190, 2600, 1500, `Elastomer 700 x 400, ${edit > 2 ? 6 : 5} layers`);
	leader(w, 720, 1120, -500, 1500, 'Grout 40 mm');
	w.dimension(0, 0, 2200, 0, -400);
	level(w, 2500, 1100, '+3.95');
};

/** A fender panel from the front and from the side. */
const fenderPanel: Draw = (w, { edit, title }) => {
	const panel = byTitle(title, [
		['panel b', 'B'],
		['panel c', 'C'],
		['', 'A']
	]);
	const high = { A: 5200, B: 4200, C: 3200 }[panel as 'A' | 'B' | 'C'];
	heading(w, 0, high + 1100, `PANEL ${panel}, FRONT`);
	w.box('OUTLINE', 0, 0, 2400, high);
	const pads = Math.round(high / 1000) + (edit > 1 ? 1 : 0);
	for (let i = 0; i < pads; i++)
		for (const x of [60, 1230]) {
			w.box('SYMBOL', x, 60 + (i * (high - 60)) / pads, 1110, (high - 120) / pads - 60);
			for (const dx of [200, 900]) w.circle('FINE', x + dx, 60 + (i * (high - 60)) / pads + 200, 24);
		}
	w.dimension(0, 0, 2400, 0, -700);
	w.dimension(2400, 0, 2400, high, 600);
	const x = 4600;
	heading(w, x, high + 1100, 'SIDE');
	w.box('STEEL', x, 0, 340, high);
	w.box('SYMBOL', x - 40, 40, 40, high - 80);
	for (const y of [high * 0.25, high * 0.75])
		w.path(
			'OUTLINE',
			[
				[x + 340, y - 450],
				[x + 900, y - 320],
				[x + 900, y + 320],
				[x + 340, y + 450]
			],
			true
		);
	w.box('WALL', x + 900, -300, 500, high + 600);
	w.hatch(x + 900, -300, 500, high + 600, 350);
	leader(w, x - 20, high / 2, x - 700, high / 2 + 500, 'Pads UHMW-PE 40 mm');
};

/** A shackle with its chain and plate. */
const shackle: Draw = (w, { edit }) => {
	heading(w, 0, 500, 'CHAIN SHACKLE');
	w.arc('STEEL', 0, 0, 120, 270, 90);
	w.arc('STEEL', 0, 0, 180, 270, 90);
	for (const y of [-180, 120]) w.box('STEEL', -260, y, 260, 60);
	for (const y of [-150, 150]) w.circle('STEEL', -260, y, 75);
	w.box('OUTLINE', -295, -260, 70, 520);
	for (let i = 0; i < 4; i++) {
		w.arc('FINE', 180 + i * 190, 0, 70, 90, 270);
		w.arc('FINE', 300 + i * 190, 0, 70, 270, 90);
		for (const y of [-70, 70]) w.line('FINE', 180 + i * 190, y, 300 + i * 190, y);
	}
	leader(w, -260, 240, -600, 380, `Pin dia. ${edit > 1 ? 75 : 70}, with split pin`);
	w.dimension(-260, -260, 180, -260, -220);
};

/** Nothing but the sheet: what it is for is its frame. */
const frame: Draw = (w, { edit }) => {
	heading(w, 0, 40 * w.scale, 'FRAME AND TITLE BLOCK');
	w.text(0, 20 * w.scale, 3.5, 'Sheet 841 x 594, margin 10, zones A to F and 1 to 8 (ISO 5457)');
	w.text(0, 12 * w.scale, 3.5, 'Title block 190 x 58 at the lower right (ISO 7200)');
	if (edit > 1)
		w.text(0, 4 * w.scale, 3.5, 'Fields: project, title, number, revision, date, department, scale, drawn');
};

const BY_TITLE: readonly (readonly [word: string, draw: Draw])[] = [
	['curtain wall', curtainWall],
	['counter', counter],
	['door set', doorSet],
	['screen', screen],
	['sign type', sign],
	['splice', splice],
	['ridge', rafter(true)],
	['eaves', rafter(false)],
	['guard rail', guardRail],
	['ladder', ladder],
	['deck panel', deckPanel],
	['flap hinge', hinge],
	['buffer', buffer],
	['drip pan', dripPan],
	['bearing', bearing],
	['fender panel', fenderPanel],
	['shackle', shackle],
	['frame', frame],
	['', basePlate]
];

/** The detail that a sheet is called after. */
export const detail: Draw = (w, brief, r) => byTitle(brief.title, BY_TITLE)(w, brief, r);

import { Random } from '../random';
import { names, type Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { heading, leader, schedule } from './parts';
import { floor } from './terminal';

/** Services on a storey: ducts, cables, luminaires, boards or earth, by what the sheet is called. */
export function services(w: DxfWriter, brief: Brief, r: Random): void {
	const { title, edit } = brief;
	if (names(title, 'plant room')) return plantRoom(w, brief);
	if (names(title, 'substation') && !names(title, 'routes')) return substation(w, brief);
	if (names(title, 'routes')) return cableRoute(w, brief);
	floor(
		w,
		{ seed: brief.seed, edit: 1, title: names(title, 'first') ? 'First floor plan' : 'Ground floor plan' },
		new Random(`${brief.seed}plan`)
	);
	if (names(title, 'lighting')) return lighting(w, brief);
	if (names(title, 'boards')) return boards(w, brief);
	if (names(title, 'earthing')) return earthing(w, edit);
	ducts(w, brief, r);
}

/** Ventilation or smoke extract: a main with its branches and outlets. */
function ducts(w: DxfWriter, { edit, title }: Brief, r: Random): void {
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
	const main = names(title, 'smoke')
		? '1000 x 500 extract, 400 C for 2 h'
		: edit > 4
			? '630 x 400 main'
			: '630 x 350 main';
	w.text(x0 + 500, y0 + 900, 3, main);
	if (names(title, 'smoke'))
		for (const x of [x0 + 9000, x0 + 30000]) {
			w.box('SYMBOL', x, y0 + 900, 1400, 1400);
			w.circle('SYMBOL', x + 700, y0 + 1600, 550);
			w.text(x + 1700, y0 + 1500, 2.5, `Fan ${x > x0 + 10000 ? 2 : 1}, 12 000 m3/h`);
		}
}

/** Luminaires with their circuits; those of the way out where the sheet is for emergencies, masts where it is for lanes. */
function lighting(w: DxfWriter, { title, edit }: Brief): void {
	const emergency = names(title, 'emergency');
	w.block('LAMP', () => {
		w.circle('SYMBOL', 0, 0, 350);
		w.line('SYMBOL', -250, -250, 250, 250);
		w.line('SYMBOL', -250, 250, 250, -250);
		if (emergency) w.solid('SYMBOL', [-350, 0], [350, 0], [0, 350]);
	});
	const [columns, rows] = emergency ? [5, 3] : [11 + Math.min(edit, 3), 5];
	const step = 40000 / columns;
	for (let j = 0; j < rows; j++) {
		const y = 18000 + j * (15500 / rows);
		for (let i = 0; i < columns; i++) w.insert('LAMP', 'SYMBOL', 11000 + i * step, y);
		w.path('SERVICE', [
			[11000, y],
			[11000 + (columns - 1) * step, y],
			[50500, y + 500]
		]);
		w.text(50800, y + 400, 2.5, `${emergency ? 'E' : 'L'}${Math.floor(j / 2) + 1}/${(j % 2) + 1}`);
	}
	schedule(
		w,
		[14, 66, 16],
		[
			['Type', 'Luminaire', 'No.'],
			...(emergency
				? [
						['E1', 'Way out, lit pictogram, 3 h', '9'],
						['E2', 'Open area, 1 lx', String(6 + edit)]
					]
				: [
						['A', 'Linear, 1200, 34 W', String(columns * 3)],
						['B', 'Downlight, 14 W', String(columns * 2)],
						['C', 'Wall, IP65', '12']
					])
		]
	);
}

/** Distribution boards where they stand, and what each feeds. */
function boards(w: DxfWriter, { title, edit }: Brief): void {
	const storey = names(title, 'first') ? 1 : 0;
	const list = ['Lighting', 'Sockets', 'Kitchen', 'Ventilation', 'Lifts', 'Signs'].slice(
		0,
		4 + Math.min(edit, 2)
	);
	list.forEach((_, i) => {
		const x = 12000 + i * 6800;
		w.box('SYMBOL', x, 33000, 1200, 500);
		w.solid('SYMBOL', [x, 33000], [x + 1200, 33000], [x, 33500]);
		w.text(x, 33900, 2.5, `DB${storey}.${i + 1}`);
		w.path('SERVICE', [
			[x + 600, 33000],
			[x + 600, 24500],
			[50500, 24500]
		]);
	});
	schedule(
		w,
		[22, 34, 26],
		[
			['Board', 'Feeds', 'Supply'],
			...list.map((feeds, i) => [`DB${storey}.${i + 1}`, feeds, i === 2 ? '5 x 35 mm2' : '5 x 16 mm2'])
		]
	);
}

/** The ring of earth around the building with its rods. */
function earthing(w: DxfWriter, edit: number): void {
	w.path(
		'SERVICE',
		[
			[6000, 13000],
			[55200, 13000],
			[55200, 38000],
			[6000, 38000]
		],
		true
	);
	for (let i = 0; i < 8 + Math.min(edit, 4); i++) {
		const x = 6000 + (i % 6) * 9840;
		const y = i < 6 ? 13000 : 38000;
		w.circle('SYMBOL', x, y, 450);
		w.line('SYMBOL', x, y, x, y + (i < 6 ? -1600 : 1600));
	}
	leader(w, 30000, 13000, 36000, 9800, 'Copper 95 mm2, 0.8 m deep');
	leader(w, 6000, 38000, 10000, 41500, `Rod dia. 20, ${edit > 2 ? 9 : 6} m`);
}

/** Machines of the plant room on their bases. */
function plantRoom(w: DxfWriter, { edit }: Brief): void {
	heading(w, 0, 11500, 'PLANT ROOM, PLAN');
	w.box('WALL', 0, 0, 15600, 9600);
	w.box('WALL', 200, 200, 15200, 9200);
	for (let i = 0; i < 2; i++) {
		w.box('OUTLINE', 1200, 1000 + i * 4200, 6400, 2400);
		for (const x of [2800, 4400, 6000])
			w.line('FINE', 1200 + x - 1200, 1000 + i * 4200, 1200 + x - 1200, 3400 + i * 4200);
		w.text(1500, 1700 + i * 4200, 3, `AHU ${i + 1}, ${i ? 8 : 12} 000 m3/h`);
		w.path('SERVICE', [
			[7600, 2200 + i * 4200],
			[10200, 2200 + i * 4200],
			[10200, 9400]
		]);
	}
	for (let i = 0; i < (edit > 2 ? 3 : 2); i++) {
		w.circle('SYMBOL', 12000, 1600 + i * 2200, 700);
		w.text(12900, 1500 + i * 2200, 2.5, `Pump ${i + 1}`);
	}
	w.box('OUTLINE', 11300, 7400, 3200, 1400);
	w.text(11500, 7900, 2.5, 'Heat exchanger');
	w.dimension(0, 0, 15600, 0, -1500);
	w.dimension(0, 0, 0, 9600, -1500);
}

/** The substation: transformers and switchgear above, trays and pits in the cable basement. */
function substation(w: DxfWriter, { edit, title }: Brief): void {
	const basement = names(title, 'basement');
	heading(w, 0, 10500, basement ? 'SUBSTATION, CABLE BASEMENT' : 'SUBSTATION, GROUND FLOOR');
	w.box('WALL', 0, 0, 18000, 8400);
	w.box('WALL', 300, 300, 17400, 7800);
	if (basement) {
		for (let y = 1200; y < 8000; y += 1600)
			for (const shift of [0, 120, 240]) w.line('SERVICE', 600, y + shift, 17400, y + shift);
		for (let x = 2500; x < 17000; x += 4500) w.box('HIDDEN', x, 600, 900, 7200);
		leader(w, 9000, 1200, 11000, -1600, `Tray 600, ${edit > 1 ? 3 : 2} tiers`);
		w.circle('OUTLINE', 16600, 1100, 450);
		w.text(14200, 500, 2.5, 'Sump with pump');
	} else {
		for (let i = 0; i < 2; i++) {
			w.box('OUTLINE', 900, 1000 + i * 3600, 2600, 2400);
			w.circle('SYMBOL', 1900, 2200 + i * 3600, 600);
			w.circle('SYMBOL', 2600, 2200 + i * 3600, 600);
			w.text(900, 3550 + i * 3600, 2.5, `T${i + 1}, 10/0.4 kV, ${edit > 3 ? 800 : 630} kVA`);
		}
		for (let i = 0; i < 8; i++) {
			w.box('OUTLINE', 6000 + i * 900, 6200, 900, 1200);
			w.text(6450 + i * 900, 6600, 2.5, `K${i + 1}`, { middle: true });
		}
		for (let i = 0; i < 6 + Math.min(2, edit); i++) w.box('OUTLINE', 6000 + i * 800, 1200, 800, 900);
		w.text(6000, 2400, 2.5, 'Low voltage board');
		w.text(6000, 7600, 2.5, 'Switchgear 12 kV');
	}
	w.dimension(0, 0, 18000, 0, -2400);
	w.dimension(18000, 0, 18000, 8400, 1500);
}

/** A cable route through the terminal area, with its ducts in section. */
function cableRoute(w: DxfWriter, { edit, title }: Brief): void {
	const ends = names(title, 'linkspan') ? ['Terminal', 'Linkspan'] : ['Substation', 'Terminal'];
	heading(w, 0, 42000, 'ROUTE');
	[0, 82000].forEach((x, i) => {
		w.box('WALL', x, 12000, 14000, 20000);
		w.text(x + 2500, 21500, 4, ends[i]!);
	});
	const bend = edit > 1 ? 6000 : 4000;
	for (const shift of [0, 300, 600, 900].slice(0, 2 + Math.min(edit, 2)))
		w.path('SERVICE', [
			[14000, 22000 + shift],
			[34000, 22000 + shift],
			[34000 + bend, 30000 + shift],
			[66000, 30000 + shift],
			[82000, 24000 + shift]
		]);
	for (const [i, x] of [24000, 46000, 62000].entries()) {
		w.box('OUTLINE', x, i ? 29300 : 21300, 2200, 2200);
		w.text(x, i ? 32000 : 24000, 3, `Pit ${i + 1}`);
	}
	heading(w, 20000, 9000, 'SECTION OF THE TRENCH');
	w.path('OUTLINE', [
		[20000, 5000],
		[22000, 5000],
		[23200, -3000],
		[34800, -3000],
		[36000, 5000],
		[42000, 5000]
	]);
	for (let i = 0; i < 4; i++)
		for (let j = 0; j < 2; j++) w.circle('SERVICE', 25000 + i * 2800, -1600 + j * 2600, 1000);
	leader(w, 25000, -1600, 21000, -4500, 'Duct dia. 110');
	schedule(
		w,
		[16, 56, 24],
		[
			['Cable', 'Kind', 'Length'],
			['C1', 'Supply 4 x 240 mm2 Al', '126 m'],
			['C2', 'Supply 4 x 240 mm2 Al', '126 m'],
			['C3', 'Optical, 24 fibres', '131 m']
		]
	);
}

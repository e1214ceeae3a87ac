import type { Random } from '../random';
import { names, type Brief } from './brief';
import type { DxfWriter } from './dxf-writer';
import { heading, leader, schedule, table } from './parts';

/** The marshalling lanes with what stands in them. */
export function lanes(w: DxfWriter, { edit, title }: Brief, r: Random): void {
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
	if (names(title, 'lighting'))
		for (let x = 8000; x < length; x += 26000)
			for (const y of [-2500, lanes * 3500 + 2500]) {
				w.circle('SYMBOL', x0 + x, y0 + y, 700);
				w.line('SYMBOL', x0 + x, y0 + y, x0 + x, y0 + y + (y < 0 ? 3200 : -3200));
				w.text(x0 + x + 1200, y0 + y, 3, `Mast ${edit > 2 ? 14 : 12} m`);
			}
	if (names(title, 'signs')) {
		const from = names(title, '5 to 8') ? 4 : 0;
		for (let i = from; i < Math.min(from + 4, lanes); i++)
			for (const x of [1500, length / 2, length - 2500]) {
				w.path(
					'SERVICE',
					[
						[x0 + x, y0 + i * 3500 + 600],
						[x0 + x + 1400, y0 + i * 3500 + 600],
						[x0 + x + 700, y0 + i * 3500 + 2400]
					],
					true
				);
				w.text(x0 + x + 1800, y0 + i * 3500 + 1200, 2.5, `S${i + 1}`);
			}
		schedule(
			w,
			[20, 60],
			[
				['Sign', 'Says'],
				...[0, 1, 2, 3].map((i) => [`S${from + i + 1}`, i % 2 ? 'Lorries, keep left' : 'Cars, one by one'])
			]
		);
	}
	if (names(title, 'marking'))
		schedule(
			w,
			[44, 36],
			[
				['Marking', 'Width'],
				['Lane edge, broken', '120'],
				['Outer edge, full', '200'],
				['Stop line', '500'],
				['Numeral', edit > 2 ? '2 400 high' : '1 800 high']
			]
		);
	if (names(title, 'kiosks'))
		for (let i = 0; i < 3; i++) {
			w.dimension(x0 - kiosk, y0 + i * 8000, x0 - kiosk + 3600, y0 + i * 8000, -1800);
			if (i) w.dimension(x0 - kiosk, y0 + (i - 1) * 8000, x0 - kiosk, y0 + i * 8000, -3000);
			w.text(x0 - kiosk + 200, y0 + i * 8000 + 2400, 3, `K${i + 1}`);
		}
	if (names(title, 'drainage') || names(title, 'separator')) drains(w, x0, y0, length, lanes, edit);
	if (edit > 4)
		w.path('SERVICE', [
			[x0, y0 - 1500],
			[x0 + length, y0 - 1500],
			[x0 + length, y0 - 3000]
		]);
}

/** Channels, gullies and the separator of the surface water. */
function drains(w: DxfWriter, x0: number, y0: number, length: number, lanes: number, edit: number): void {
	for (let lane = 1; lane < lanes; lane += 2) {
		const y = y0 + lane * 3500;
		w.line('SERVICE', x0, y, x0 + length, y);
		for (let x = 6000; x < length; x += 14000) w.box('SERVICE', x0 + x, y - 400, 800, 800);
	}
	w.path('SERVICE', [
		[x0 + length, y0],
		[x0 + length + 9000, y0],
		[x0 + length + 9000, y0 - 9000]
	]);
	w.circle('OUTLINE', x0 + length + 9000, y0 - 11000, 2000);
	leader(
		w,
		x0 + length + 9000,
		y0 - 11000,
		x0 + length - 4000,
		y0 - 16000,
		`Oil separator NS ${edit > 2 ? 40 : 30}`
	);
}

/** A survey: levels, what stands there, and the line of the harbour. */
export function survey(w: DxfWriter, { edit, title }: Brief, r: Random): void {
	const utilities = names(title, 'utilities');
	heading(w, 0, 92000, utilities ? 'KNOWN UTILITIES' : 'LEVELS AND WHAT STANDS THERE');
	const shore: [number, number][] = Array.from({ length: 30 }, (_, i) => [i * 4500, 9000 + r.int(0, 1800)]);
	w.path('OUTLINE', shore);
	w.text(4000, 4500, 3, 'Harbour basin', { layer: 'WATER' });
	for (let n = 0; n < 7; n++)
		w.path(
			'FINE',
			Array.from({ length: 24 }, (_, i) => [
				i * 5600,
				18000 + n * 9500 + Math.round(2200 * Math.sin(i / 3 + n)) + r.int(0, 300)
			])
		);
	for (let n = 0; n < 5; n++) w.text(64000, 19500 + n * 9500, 2.5, `+${(2.5 + n * 0.5).toFixed(1)}`);
	if (utilities) {
		for (const [i, says] of ['Water main 150', 'Gas 110, out of use', 'Cable 10 kV', 'Sewer 300'].entries()) {
			const y = 26000 + i * 13000;
			w.path('SERVICE', [
				[0, y],
				[38000, y + r.int(-2000, 2000)],
				[82000, y + 4000],
				[130000, y + 3000]
			]);
			w.text(42000, y + 3200, 3, says);
		}
		if (edit > 1) leader(w, 82000, 43000, 92000, 52000, 'Depth not confirmed, dig by hand');
	} else
		for (let i = 0; i < 60; i++) {
			const [x, y] = [r.int(4000, 126000), r.int(16000, 86000)];
			w.line('SYMBOL', x - 350, y, x + 350, y);
			w.line('SYMBOL', x, y - 350, x, y + 350);
			w.text(x + 500, y + 150, 2, `+${(2.2 + y / 30000).toFixed(2)}`);
		}
	for (let i = 0; i < 5; i++)
		w.box('WALL', 12000 + i * 22000, 74000 + r.int(0, 4000), 9000 + r.int(0, 4000), 6500);
	for (let i = 0; i < 14; i++) w.circle('SYMBOL', 8000 + i * 8700, 68000 + r.int(0, 2500), 1300);
	schedule(
		w,
		[26, 30, 30, 22],
		[
			['Point', 'East', 'North', 'Level'],
			...[1, 2, 3].map((n) => [
				`SP${n}`,
				`${4200 + n * 137}.${r.int(100, 999)}`,
				`${8800 + n * 61}.${r.int(100, 999)}`,
				`+4.${r.int(10, 40)}`
			])
		]
	);
}

/** A drain along its length: ground, invert, manholes and the strip of figures below. */
export function drainSection(w: DxfWriter, { edit, title }: Brief, r: Random): void {
	const run = names(title, 'run 2') ? 2 : 1;
	heading(w, 0, 12000, `RUN ${run}, 1:10 UPRIGHT`);
	const holes = 6 + (edit > 2 ? 1 : 0);
	const step = 16000;
	const [fall, first] = [700, 3200];
	w.path(
		'OUTLINE',
		Array.from({ length: holes }, (_, i) => [i * step, 8000 + r.int(-500, 500)])
	);
	for (let i = 0; i < holes; i++) {
		const y = first - i * fall;
		w.box('WALL', i * step - 600, y, 1200, 8000 - y);
		w.text(i * step - 1200, 9200, 3, `MH${run}.${i + 1}`);
		if (i)
			for (const up of [0, 500])
				w.line('SERVICE', (i - 1) * step + 600, y + fall + up, i * step - 600, y + up);
	}
	table(
		w,
		-2000,
		-5000,
		[40, ...Array.from({ length: holes }, () => 62)],
		[
			['Manhole', ...Array.from({ length: holes }, (_, i) => `MH${run}.${i + 1}`)],
			['Cover level', ...Array.from({ length: holes }, () => `+4.${r.int(10, 25)}`)],
			['Invert level', ...Array.from({ length: holes }, (_, i) => `+${(2.9 - i * 0.07).toFixed(2)}`)],
			['Pipe', ...Array.from({ length: holes }, () => (edit > 1 ? 'dia. 300, 1:230' : 'dia. 250, 1:230'))]
		]
	);
}

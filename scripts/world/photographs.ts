import sharp from 'sharp';
import { Random } from './random';

const [WIDE, HIGH] = [1200, 800];
/** Where the sea ends and where the ground begins, from above. */
interface View {
	horizon: number;
	ground: number;
	r: Random;
}
type Subject = (view: View) => string;

const rect = (x: number, y: number, w: number, h: number, fill: string, more = '') =>
	`<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${fill}" ${more}/>`;
const line = (d: string, stroke: string, width: number) =>
	`<path d="${d}" fill="none" stroke="${stroke}" stroke-width="${width}" stroke-linecap="round"/>`;
const many = (count: number, draw: (i: number) => string) =>
	Array.from({ length: count }, (_, i) => draw(i)).join('');

/** Sheet piles in their corrugated row, rust where the water stood. */
const sheetPiles: Subject = ({ ground, r }) =>
	many(26, (i) => {
		const [x, top] = [i * 48, ground - 190 + r.int(-6, 6)];
		return (
			rect(x, top, 26, 470, i % 2 ? '#5d4a3d' : '#6c5646') +
			rect(x + 26, top, 22, 470, i % 2 ? '#43362d' : '#4d3e33') +
			rect(x, top + 210, 48, 90, '#8a5a35', 'opacity=".35"')
		);
	});

/** A steel rod through a trench, with its plate. */
const rod: Subject = ({ ground, r }) =>
	`<path d="M120 ${ground + 40}L1080 ${ground + 40}L960 790H240z" fill="#5b5042"/>` +
	`<path d="M240 790L300 ${ground + 110}H900L960 790z" fill="#463c31"/>` +
	line(`M60 ${ground + 180}L1150 ${ground + 150}`, '#2f3336', 22) +
	line(`M60 ${ground + 175}L1150 ${ground + 145}`, '#6d7478', 5) +
	rect(880, ground + 70, 46, 190, '#7d4a2b') +
	`<circle cx="903" cy="${ground + 158}" r="30" fill="#3a3f42"/>` +
	many(6, (i) =>
		rect(180 + i * r.int(120, 150), ground + r.int(180, 300), r.int(30, 70), r.int(16, 34), '#6b6156')
	);

/** A rig with its leader and hammer over a row of piles. */
const rig: Subject = ({ ground, horizon, r }) => {
	const x = r.int(380, 620);
	return (
		many(5, (i) => rect(120 + i * 190, ground - r.int(30, 120), 30, 260, '#54483e')) +
		rect(x, horizon - 300, 34, ground - horizon + 420, '#b9892c') +
		rect(x - 8, horizon - 120, 50, 110, '#2c2f31') +
		line(`M${x + 16} ${horizon - 300}L${x + 260} ${ground + 60}`, '#a27a2a', 12) +
		rect(x + 150, ground + 20, 230, 110, '#c3962f') +
		rect(x + 300, ground - 30, 80, 70, '#33424a') +
		rect(x + 130, ground + 130, 280, 40, '#232628', 'rx="18"')
	);
};

/** Bars tied into a cage, in or out of a form. */
const cage =
	(form: boolean): Subject =>
	({ ground, r }) =>
		rect(110, ground + 60, 980, 270, form ? '#a88a5c' : '#6f6a60') +
		many(34, (i) => line(`M${140 + i * 28} ${ground + 90 + r.int(-3, 3)}V${ground + 300}`, '#6b4630', 5)) +
		many(5, (i) => line(`M125 ${ground + 100 + i * 48}H1075`, '#7a5136', 7)) +
		(form ? many(8, (i) => rect(110 + i * 130, ground + 20, 22, 330, '#8a6d42')) : '');

/** Concrete, struck: blocks with bars standing out of them. */
const concrete: Subject = ({ ground, r }) =>
	many(4, (i) => {
		const [x, y] = [60 + i * 290, ground + 50 + (i % 2) * 40];
		return (
			many(5, (k) => line(`M${x + 40 + k * 34} ${y}V${y - r.int(70, 110)}`, '#6b4630', 6)) +
			`<path d="M${x} ${y}h220l34 -30h-220z" fill="#a5a39b"/>` +
			rect(x, y, 220, 190, '#8f8d86') +
			`<path d="M${x + 220} ${y}l34 -30v190l-34 30z" fill="#6e6c66"/>` +
			many(3, (k) => rect(x, y + 40 + k * 52, 220, 2, '#7b7972'))
		);
	});

/** A beam along the quay, freshly poured, with its hose. */
const pour: Subject = ({ ground, r }) =>
	`<path d="M0 ${ground + 90}L1200 ${ground + 30}V${ground + 150}L0 ${ground + 230}z" fill="#7d7b74"/>` +
	`<path d="M0 ${ground + 60}L1200 ${ground + 10}V${ground + 34}L0 ${ground + 94}z" fill="#a89d83"/>` +
	line(
		`M${r.int(200, 400)} ${ground - 260}C 500 ${ground - 200} 620 ${ground - 120} 640 ${ground + 60}`,
		'#2f3133',
		20
	) +
	many(3, (i) => {
		const x = 420 + i * 150;
		return (
			rect(x, ground - 40, 28, 70, i % 2 ? '#d0661f' : '#c8b81e') +
			`<circle cx="${x + 14}" cy="${ground - 54}" r="13" fill="#e7e2d8"/>`
		);
	});

/** Old masonry, whole or broken out. */
const oldQuay =
	(broken: boolean): Subject =>
	({ ground, r }) =>
		many(7, (row) =>
			many(14, (i) =>
				broken && r.chance(0.35 + row * 0.06)
					? rect(
							i * 92 + r.int(-20, 20),
							ground + 210 + r.int(0, 110),
							r.int(40, 80),
							r.int(20, 40),
							'#5f5b53'
						)
					: rect(
							i * 92 - (row % 2) * 46,
							ground - 60 + row * 38,
							88,
							35,
							r.pick(['#7f796d', '#8b8577', '#736d62'])
						)
			)
		);

/** A cast part on timber, with its eyes. */
const casting: Subject = ({ ground, r }) =>
	many(3, (i) => rect(200 + i * 300, ground + 210, 220, 44, '#8b6a3e')) +
	`<path d="M220 ${ground + 210}C260 ${ground - 60} 900 ${ground - 60} 980 ${ground + 210}z" fill="#50565a"/>` +
	`<path d="M260 ${ground + 120}C340 ${ground - 30} 800 ${ground - 30} 900 ${ground + 90}" fill="none" stroke="#7c8387" stroke-width="10"/>` +
	many(3, (i) => `<circle cx="${360 + i * 240}" cy="${ground + 110}" r="${r.int(52, 60)}" fill="#2b2e30"/>`);

/** The yard with its stacks, where a title names nothing else. */
const yard: Subject = ({ ground, horizon, r }) =>
	many(r.int(2, 4), (i) => rect(80 + i * 290, horizon - r.int(60, 180), r.int(14, 26), 420, '#4c5359')) +
	many(6, (i) => {
		const [x, y] = [r.int(20, 980), ground + r.int(30, 210)];
		return many(3, (k) =>
			rect(x + k * 4, y - k * 26, r.int(120, 220), 22, ['#8d5a3a', '#5c6f78', '#b0a184'][(i + k) % 3]!)
		);
	});

const SUBJECTS: readonly (readonly [word: RegExp, draw: Subject])[] = [
	[/sheet piling|quay wall panel/i, sheetPiles],
	[/tie rod|trench|duct|excavation/i, rod],
	[/pile driving|roof beam|lifting/i, rig],
	[/before casting|reinforcement/i, cage(false)],
	[/formwork/i, cage(true)],
	[/pour|capping beam/i, pour],
	[/pile caps|striking|pile head|slab|wall|pit/i, concrete],
	[/broken out/i, oldQuay(true)],
	[/old quay/i, oldQuay(false)],
	[/casting|assembly/i, casting],
	[/./, yard]
];

const TILE = 256;
/** Noise that is rough at every size, from 0 to 1, as clouds, water and concrete are; it repeats at its edges. */
const NOISE = (() => {
	const r = new Random('noise');
	const tile = new Float32Array(TILE * TILE);
	for (const [size, weight] of [
		[8, 0.5],
		[16, 0.25],
		[32, 0.13],
		[64, 0.07],
		[128, 0.05]
	] as const) {
		const values = Float32Array.from({ length: size * size }, () => r.next());
		const step = TILE / size;
		const value = (x: number, y: number) => values[(y % size) * size + (x % size)]!;
		const soft = (t: number) => t * t * (3 - 2 * t);
		for (let y = 0; y < TILE; y++)
			for (let x = 0; x < TILE; x++) {
				const [i, j] = [Math.floor(x / step), Math.floor(y / step)];
				const [u, v] = [soft(x / step - i), soft(y / step - j)];
				const [above, below] = [j, j + 1].map((row) => value(i, row) * (1 - u) + value(i + 1, row) * u);
				tile[y * TILE + x]! += weight * (above! * (1 - v) + below! * v);
			}
	}
	return tile;
})();
/** The grain of a film, from which each line of a picture takes a piece. */
const GRAIN = (() => {
	const r = new Random('grain');
	return Float32Array.from({ length: 1 << 16 }, () => (r.next() - 0.5) * 14);
})();

/** Gives a drawn scene clouds, waves, the grain of ground and film, and darker corners. */
function weather(scene: Buffer, { horizon, ground, r }: View): void {
	const [sx, sy] = [r.int(0, TILE), r.int(0, TILE)];
	// What is too light or too dark for a byte stays at its end.
	const pixels = new Uint8ClampedArray(scene.buffer, scene.byteOffset, scene.length);
	for (let y = 0, at = 0; y < HIGH; y++) {
		const [weight, across, down] =
			y < horizon ? [0.5, 0.22, 0.6] : y < ground ? [0.55, 0.3, 3.4] : [0.6, 0.9, 1.7];
		const row = (Math.floor(y * down + sy) & (TILE - 1)) * TILE;
		const dy = y / HIGH - 0.5;
		const film = r.int(0, GRAIN.length - WIDE);
		for (let x = 0; x < WIDE; x++, at += 3) {
			const rough = weight * (NOISE[row + (Math.floor(x * across + sx) & (TILE - 1))]! - 0.5);
			const dx = x / WIDE - 0.5;
			const light = (1 + rough) * (1.06 - 0.55 * (dx * dx + dy * dy));
			const grain = GRAIN[film + x]!;
			pixels[at] = pixels[at]! * light + grain;
			pixels[at + 1] = pixels[at + 1]! * light + grain;
			pixels[at + 2] = pixels[at + 2]! * light + grain;
		}
	}
}

/** A photograph of the site as a picture with EXIF: sky, sea, ground, and what its title is about. */
export async function photograph(title: string, at: Date): Promise<Uint8Array> {
	const r = new Random(title);
	const dusk = r.chance(0.3);
	const horizon = 300 + r.int(0, 60);
	const view = { horizon, ground: horizon + 90 + r.int(0, 50), r };
	const [top, low] = dusk
		? ['#56657f', '#d9ae88']
		: r.chance(0.5)
			? ['#8fabc0', '#dfe6e8']
			: ['#a3abb0', '#cfd3d3'];
	const subject = SUBJECTS.find(([word]) => word.test(title))![1];
	const { ground } = view;
	const far = many(9, (i) =>
		rect(i * 150 + r.int(-30, 30), horizon - r.int(8, 34), r.int(60, 150), 40, dusk ? '#4e5560' : '#7c8a90')
	);
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDE}" height="${HIGH}"><defs><linearGradient id="s" x2="0" y2="1"><stop stop-color="${top}"/><stop offset="1" stop-color="${low}"/></linearGradient></defs>${rect(0, 0, WIDE, horizon, 'url(#s)')}${far}${rect(0, horizon, WIDE, HIGH, dusk ? '#3f5566' : '#4c6b78')}<path d="M0 ${ground}L1200 ${ground - 24}V800H0z" fill="${r.pick(['#8d877b', '#857c6d', '#938f87'])}"/>${subject(view)}</svg>`;
	const { data } = await sharp(Buffer.from(svg))
		.blur(0.8)
		.removeAlpha()
		.raw()
		.toBuffer({ resolveWithObject: true });
	weather(data, view);
	const stamp = at
		.toISOString()
		.replace(/-/g, ':')
		.replace(/T(.{8}).*/, ' $1');
	return new Uint8Array(
		await sharp(data, { raw: { width: WIDE, height: HIGH, channels: 3 } })
			.withExif({
				IFD0: { Make: 'Vennholm', Model: 'Site camera', ImageDescription: title, DateTime: stamp },
				IFD2: { DateTimeOriginal: stamp },
				IFD3: {
					GPSLatitudeRef: 'N',
					GPSLatitude: '57/1 18/1 0/1',
					GPSLongitudeRef: 'E',
					GPSLongitude: '11/1 2/1 0/1'
				}
			})
			.jpeg({ quality: 82 })
			.toBuffer()
	);
}

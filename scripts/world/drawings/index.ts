import { Random } from '../random';
import { byTitle, names, type Brief } from './brief';
import { detail } from './details';
import { DxfWriter, type TitleData } from './dxf-writer';
import * as marine from './marine';
import { services } from './services';
import * as site from './site';
import * as structure from './structure';
import * as terminal from './terminal';
import { wing } from './wings';

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

type Draw = (w: DxfWriter, brief: Brief, r: Random) => void;
/** A kind of which some are drawn otherwise, by a word of their titles. */
const or =
	(usual: Draw, ...others: (readonly [word: string, draw: Draw])[]): Draw =>
	(w, brief, r) =>
		byTitle(brief.title, [...others, ['', usual] as const])(w, brief, r);

const DRAW: Record<DrawingKind, Draw> = {
	linkspan: marine.linkspan,
	longSection: or(marine.longSection, ['dredging', marine.dredging], ['drain', site.drainSection]),
	tower: marine.tower,
	floor: or(terminal.floor, ['pit', marine.pit], ['wing', wing]),
	roof: or(structure.roofPlan, ['sections', structure.roofSection]),
	piles: or(
		structure.pilePlan,
		['ground beam layout', structure.groundBeams],
		['ground beam', structure.beamBars],
		['reinforcement', structure.capBars],
		['schedule', structure.capBars]
	),
	quay: or(
		marine.quay,
		['fender', marine.fenders],
		['capping', marine.cappingBeam],
		['anchorage', marine.anchorage]
	),
	detail,
	lanes: or(site.lanes, ['survey', site.survey]),
	services: or(
		services,
		['lighting, marshalling', site.lanes],
		['hydraulic', marine.hydraulics],
		['cylinder', marine.hydraulics]
	),
	facade: or(
		terminal.elevation,
		['elevations', terminal.elevations],
		['section', terminal.section],
		['bay', terminal.bay]
	)
};

/** Scales of sheets (ISO 5455, with those between that the trade uses). */
const SCALES = [2, 5, 10, 20, 25, 50, 100, 200, 250, 500, 1000];
/** What is left of an A1 sheet beside its title block and notes, in millimetres on paper. */
const ROOM = { left: 24, bottom: 24, width: 600, height: 545 };
/** A version that has everything a drawing ever gets: its room is kept free from the first on. */
const FULL = 9;

/** The largest scale at which a drawing fits its sheet, and by how much it is moved to stand in the middle. */
function fit(draw: Draw, brief: Brief) {
	for (const scale of SCALES) {
		const w = new DxfWriter(scale);
		draw(w, { ...brief, edit: FULL }, new Random(brief.seed));
		const { left, right, bottom, top } = w.bounds;
		const [wide, high] = [(right - left) / scale, (top - bottom) / scale];
		if (wide > ROOM.width || high > ROOM.height) continue;
		return {
			scale,
			x: Math.round((ROOM.left + (ROOM.width - wide) / 2) * scale - left),
			y: Math.round((ROOM.bottom + (ROOM.height - high) / 2) * scale - bottom)
		};
	}
	throw new Error(`${brief.title} fits no sheet`);
}

/** Draws a sheet and gives it as DXF text. */
export function drawing(
	kind: DrawingKind,
	brief: Omit<Brief, 'title'>,
	title: Omit<TitleData, 'scale'>
): string {
	const whole = { ...brief, title: title.title };
	const { scale, x, y } = fit(DRAW[kind], whole);
	const w = new DxfWriter(scale);
	w.sheet({ ...title, scale: `1:${scale} at A1` });
	w.moveTo(x, y);
	DRAW[kind](w, whole, new Random(brief.seed));
	w.moveTo(0, 0);
	notes(w, whole);
	if (isPlan(kind, title.title)) north(w);
	scaleBar(w);
	return w.toString();
}

/** Whether a sheet is looked at from above, so that it says where north is. */
const isPlan = (kind: DrawingKind, title: string) =>
	(['linkspan', 'floor', 'lanes'] as const).some((one) => one === kind) ||
	((kind === 'services' || kind === 'piles' || kind === 'roof') &&
		!['hydraulic', 'cylinder', 'reinforcement', 'schedule', 'sections'].some((word) => names(title, word)));

const NOTES = [
	'All dimensions in millimetres, levels in metres above Vennholm harbour datum.',
	'Do not scale from this sheet. Check all dimensions on site.',
	'Concrete C40/50, exposure class XS3, cover 60 mm.',
	'Structural steel S355 J2, hot-dip galvanised where shown.',
	'Read with the specification for corrosion protection.',
	'Setting out from grid point 1/A, see sheet 0101.',
	'Mean high water +1.85, highest astronomical tide +3.40.'
];

function notes(w: DxfWriter, { edit, seed, see = [] }: Brief): void {
	const s = w.scale;
	const r = new Random(seed + 'notes');
	const first = r.int(0, 3);
	w.text(645 * s, 560 * s, 4, 'Notes');
	for (let i = 0; i < Math.min(2 + Math.floor(edit / 2), 5); i++)
		w.text(645 * s, (550 - i * 8) * s, 2.5, `${i + 1}. ${NOTES[(first + i) % NOTES.length]!}`.slice(0, 82));
	if (see.length) w.text(645 * s, 506 * s, 2.5, `See also ${see.join(', ')}`);
}

/** The arrow to the north, which at Vennholm is a little to the left of up. */
function north(w: DxfWriter): void {
	const s = w.scale;
	const [x, y] = [800 * s, 500 * s];
	w.circle('SYMBOL', x, y, 11 * s);
	w.solid('SYMBOL', [x - 3 * s, y + 10 * s], [x - 3.5 * s, y - 8 * s], [x, y - 5 * s]);
	w.path(
		'SYMBOL',
		[
			[x - 3 * s, y + 10 * s],
			[x + 4.5 * s, y - 7.5 * s],
			[x, y - 5 * s]
		],
		true
	);
	w.text(x - 4 * s, y + 13 * s, 4, 'N', { middle: true });
}

/** A bar of lengths on site, which stays right however the sheet is printed. */
function scaleBar(w: DxfWriter): void {
	const s = w.scale;
	const [x, y] = [660 * s, 84 * s];
	for (let i = 0; i < 5; i++) {
		w.box('FRAME', x + i * 20 * s, y, 20 * s, 2.5 * s);
		if (i % 2 === 0)
			w.solid(
				'FRAME',
				[x + i * 20 * s, y],
				[x + (i + 1) * 20 * s, y],
				[x + (i + 1) * 20 * s, y + 2.5 * s],
				[x + i * 20 * s, y + 2.5 * s]
			);
	}
	for (const i of [0, 1, 5]) {
		const metres = (i * 20 * s) / 1000;
		w.text(x + i * 20 * s, y + 4 * s, 2.5, `${Number(metres.toFixed(2))}${i === 5 ? ' m' : ''}`, {
			layer: 'FRAME',
			middle: true
		});
	}
}

import { Random } from './random';

type Cell = string | number;
/** A kind of schedule: by which titles it goes, its columns, and what a row of it says. */
interface ScheduleKind {
	title: RegExp;
	heads: string[];
	/** How many rows it has, at least and at most. */
	rows: [number, number];
	/** @param n counts from 1 @param touched the row differs from the version before in what it says */
	row: (r: Random, n: number, touched: boolean, title: string) => Cell[];
}

const padded = (n: number, digits = 3) => String(n).padStart(digits, '0');
const level = (metres: number) => `${metres < 0 ? '-' : '+'}${Math.abs(metres).toFixed(2)}`;
const ROOMS = [
	...[
		'Ticket hall',
		'Waiting area',
		'Office',
		'Café',
		'Plant room',
		'Store',
		'Staff room',
		'Toilets',
		'First aid'
	],
	...['Control room', 'Stair 1', 'Stair 2', 'Lift lobby', 'Cleaner', 'Left luggage', 'Security', 'Crew room']
];
const room = (n: number) => `${ROOMS[(n - 1) % ROOMS.length]!} ${n > ROOMS.length ? 'B' : 'A'}`;
/** The door types that the sheets of details show: clear opening, fire resistance, leaf. */
const DOORS = [
	['D1', '930 x 2110', '', 'timber, painted'],
	['D2', '930 x 2110', 'EI 30', 'timber, painted'],
	['D3', '1830 x 2110', 'EI 30', 'timber, glazed'],
	['D4', '1030 x 2110', 'EI 60', 'steel'],
	['D5', '1800 x 2400', '', 'aluminium, sliding'],
	['D6', '1200 x 2400', '', 'steel, louvred']
] as const;
/** Which of them rooms have; all others have one of timber. */
const DOORS_OF: [RegExp, string[]][] = [
	[/^(Ticket hall|Waiting|Café)/, ['D5', 'D3']],
	[/^(Plant|Store|Cleaner)/, ['D4', 'D6']],
	[/^(Stair|Lift|Control|Security)/, ['D3', 'D2']]
];
const GRID = (r: Random) => `${r.pick(['A', 'B', 'C', 'D'])}/${r.int(1, 8)}`;

const KINDS: ScheduleKind[] = [
	{
		title: /^Door schedule/,
		heads: ['Door', 'Room', 'Type', 'Clear opening', 'Fire', 'Leaf', 'Ironmongery', 'Note'],
		rows: [26, 40],
		row: (r, n, touched) => {
			const where = room(n);
			const fitting = DOORS_OF.find(([rooms]) => rooms.test(where))?.[1] ?? ['D1', 'D2'];
			const name = touched ? 'D2' : r.pick(fitting);
			const type = DOORS.find((one) => one[0] === name)!;
			return [`D-${padded(n)}`, where, type[0], type[1], type[2], type[3], `Set ${r.int(1, 7)}`];
		}
	},
	{
		title: /^Glazing schedule/,
		heads: ['Pane', 'Where', 'Width', 'Height', 'Build-up', 'Fire', 'Note'],
		rows: [20, 34],
		row: (r, n, touched) => [
			`G-${padded(n)}`,
			r.pick(['GS1', 'GS2', 'CW 1 to 4', 'CW 5 to 9', 'CW 10 to 14']),
			r.int(18, 30) * 50,
			touched ? 2850 : 2800,
			r.pick(['8/16/44.2', '6/16/6', '10 toughened', '44.2 laminated']),
			r.pick(['', '', 'E 30', 'EI 30'])
		]
	},
	{
		title: /^Ironmongery schedule/,
		heads: ['Set', 'Item', 'Finish', 'Pieces', 'For doors', 'Note'],
		rows: [22, 30],
		row: (r, n, touched) => [
			`Set ${Math.ceil(n / 4)}`,
			['Hinge, 3 a leaf', 'Lever handle pair', 'Mortice lock', 'Door closer'][(n - 1) % 4]!,
			touched ? 'satin stainless 1.4401' : 'satin stainless 1.4301',
			r.int(2, 24),
			`D-${padded(r.int(1, 12))} to D-${padded(r.int(13, 26))}`
		]
	},
	{
		title: /^Room finishes/,
		heads: ['Room', 'Floor', 'Skirting', 'Walls', 'Ceiling', 'Note'],
		rows: [17, 30],
		row: (r, n, touched) => [
			room(n),
			touched
				? 'F2 porcelain R11'
				: r.pick(['F1 terrazzo', 'F2 porcelain R11', 'F3 linoleum', 'F4 sealed screed']),
			r.pick(['S1 coved', 'S2 hardwood', 'none']),
			r.pick(['W1 emulsion', 'W2 tile to 2100', 'W3 oak panel']),
			r.pick(['C1 plasterboard', 'C2 metal tray', 'C3 exposed slab'])
		]
	},
	{
		title: /^Tile quantities/,
		heads: ['Room', 'Tile', 'Area m2', 'Waste %', 'To order m2', 'Note'],
		rows: [14, 24],
		row: (r, n, touched) => {
			const area = r.int(12, 160) + (touched ? 6 : 0);
			const waste = r.pick([5, 8, 10]);
			return [room(n), r.pick(['F1', 'F2', 'W2']), area, waste, Math.ceil(area * (1 + waste / 100))];
		}
	},
	{
		title: /^Sign schedule/,
		heads: ['Sign', 'Where', 'Words', 'Languages', 'Type', 'Note'],
		rows: [24, 36],
		row: (r, n, touched) => [
			`SG-${padded(n)}`,
			room(r.int(1, 17)),
			r.pick([
				'Tickets',
				'Ferry',
				'Lanes 1 to 4',
				'Toilets',
				'Way out',
				'No entry',
				'Lift',
				'Assembly point'
			]),
			touched ? 3 : 2,
			r.pick(['hanging', 'wall', 'projecting', 'floor'])
		]
	},
	{
		// The pairs, their diameter and toe are those of the pile plan (drawings.ts).
		title: /^Pile schedule/,
		heads: ['Pile', 'Cap', 'Diameter', 'Cut-off', 'Toe', 'Load kN', 'Cage', 'Note'],
		rows: [32, 32],
		row: (r, n, touched, title) => {
			const pile = n + (title.includes('east') ? 32 : 0);
			return [
				`P${padded(pile)}`,
				`${'ABCD'[Math.floor((pile - 1) / 16)]!}/${((Math.ceil(pile / 2) - 1) % 8) + 1}`,
				900,
				level(2.15),
				level(touched ? -26.5 : -24),
				3200 + r.int(0, 4) * 100,
				'16 H25, H12 at 150'
			];
		}
	},
	{
		title: /^Bar bending/,
		heads: ['Mark', 'Member', 'Bar', 'Pieces', 'Length', 'Shape', 'A', 'B', 'Note'],
		rows: [26, 44],
		row: (r, n, touched) => {
			const [a, b] = [r.int(8, 60) * 50, r.int(4, 12) * 50];
			return [
				padded(n, 2),
				`${r.pick(['GB', 'PC', 'SL'])}${r.int(1, 12)}`,
				touched ? 'H25' : r.pick(['H10', 'H12', 'H16', 'H20', 'H25']),
				r.int(4, 120),
				a + 2 * b,
				r.pick(['00', '11', '21', '51']),
				a,
				b
			];
		}
	},
	{
		title: /^(Steelwork schedule|Assembly list)/,
		heads: ['Mark', 'Section', 'Length', 'Grade', 'Pieces', 'Mass kg', 'Note'],
		rows: [22, 38],
		row: (r, n, touched) => {
			const [section, metre] = r.pick([
				['HEB 400', 155],
				['HEB 450', 171],
				['IPE 300', 42],
				['SHS 150x8', 35]
			] as const);
			const length = r.int(24, 96) * 100 + (touched ? 150 : 0);
			const pieces = r.int(1, 8);
			return [`RB${n}`, section, length, 'S355 J2', pieces, Math.round((length / 1000) * metre * pieces)];
		}
	},
	{
		title: /^Bolt list/,
		heads: ['Bolt', 'Grade', 'Length', 'Pieces', 'Coating', 'Where', 'Note'],
		rows: [16, 28],
		row: (r, _n, touched) => [
			touched ? 'M30' : r.pick(['M16', 'M20', 'M24', 'M30']),
			r.pick(['8.8', '10.9']),
			r.int(6, 26) * 10,
			r.int(2, 40) * 4,
			'hot-dip galvanised',
			`RB${r.int(1, 7)} to C${r.int(1, 4)}`
		]
	},
	{
		title: /^Hinge pin/,
		heads: ['Pin', 'Where', 'Diameter', 'Length', 'Steel', 'Fit', 'Note'],
		rows: [8, 8],
		row: (r, n, touched) => [
			`HP-${padded(n, 2)}`,
			r.pick(['Main hinge west', 'Main hinge east', 'Flap', 'Cylinder eye']),
			touched ? 285 : 280,
			r.int(10, 16) * 50,
			'34CrNiMo6',
			'H8/e8'
		]
	},
	{
		title: /^Deck panel/,
		heads: ['Panel', 'Length', 'Width', 'Plate', 'Ribs', 'Mass t', 'Note'],
		rows: [12, 12],
		row: (_r, n, touched) => [`DP-${padded(n, 2)}`, 2050, 8400, touched ? 16 : 14, 14, touched ? 4.6 : 4.2]
	},
	{
		title: /^Valve schedule/,
		heads: ['Valve', 'Duty', 'Size', 'Set at bar', 'Line', 'Note'],
		rows: [18, 26],
		row: (r, n, touched) => [
			`V-${padded(n)}`,
			r.pick(['Isolating', 'Check', 'Relief', 'Directional', 'Counterbalance']),
			`DN ${r.pick([16, 20, 25, 32])}`,
			touched ? 260 : r.pick([210, 240, 260]),
			r.pick(['P', 'T', 'A west', 'B west', 'A east', 'B east'])
		]
	},
	{
		title: /^Fan schedule/,
		heads: ['Fan', 'Serves', 'Air l/s', 'Pressure Pa', 'Motor kW', 'Sound dB(A)', 'Note'],
		rows: [10, 16],
		row: (r, n, touched) => {
			const air = r.int(6, 40) * 50 + (touched ? 100 : 0);
			return [
				`FN-${padded(n, 2)}`,
				room(r.int(1, 17)),
				air,
				r.int(12, 34) * 10,
				(air * 0.0022).toFixed(1),
				r.int(38, 56)
			];
		}
	},
	{
		title: /^Damper schedule/,
		heads: ['Damper', 'Where', 'Size', 'Kind', 'Fire', 'Actuator', 'Note'],
		rows: [18, 30],
		row: (r, n, touched) => [
			`DA-${padded(n)}`,
			`${GRID(r)}, ${r.pick(['ground', 'first'])} floor`,
			`${r.int(3, 12) * 50} x ${r.int(3, 8) * 50}`,
			r.pick(['fire', 'volume', 'shut-off']),
			touched ? 'EI 90' : 'EI 60',
			r.pick(['24 V', '230 V', 'manual'])
		]
	},
	{
		title: /^Cable schedule/,
		heads: ['Cable', 'From', 'To', 'Cores', 'Length m', 'Route', 'Note'],
		rows: [28, 46],
		row: (r, n, touched) => [
			`SU-${padded(n)}`,
			r.pick(['MSB 1', 'MSB 2', 'UPS']),
			r.pick(['HPU 1', 'HPU 2', 'DB-TB-01', 'DB-ML-02', 'Mooring winch', 'Lift', 'Fire panel']),
			touched ? '4 x 240 + PE' : r.pick(['5 x 16', '4 x 95 + PE', '4 x 240 + PE', '12 x 1.5']),
			r.int(24, 320),
			r.pick(['duct bank 1', 'duct bank 2', 'tray T4', 'tray T7'])
		]
	},
	{
		title: /^Luminaire schedule/,
		heads: ['Type', 'Where', 'Lamp', 'Watt', 'Pieces', 'Control', 'Note'],
		rows: [14, 22],
		row: (r, n, touched) => [
			`L${n}`,
			r.pick(['Concourse', 'Ticket hall', 'Lanes, 10 m mast', 'Linkspan walkway', 'Plant']),
			touched ? 'LED 3000 K' : 'LED 4000 K',
			r.pick([18, 36, 54, 120, 240]),
			r.int(2, 48),
			r.pick(['DALI', 'switched', 'photocell', 'presence'])
		]
	},
	{
		title: /^Dredged volumes/,
		heads: ['Week', 'Planned m3', 'Dredged m3', 'Barge trips', 'Weather days', 'Note'],
		rows: [16, 22],
		row: (r, n, touched) => {
			const done = 2600 + r.int(-6, 6) * 90 + (touched ? 240 : 0);
			return [30 + n, 2600, done, Math.ceil(done / 320), r.int(0, 2)];
		}
	},
	{
		title: /^(Sounding points|As-built levels)/,
		heads: ['Point', 'Easting', 'Northing', 'Design', 'Measured', 'Difference mm', 'Note'],
		rows: [30, 44],
		row: (r, n, touched) => {
			const off = r.int(-18, 18) + (touched ? 25 : 0);
			return [`Q${padded(n)}`, 4120 + n * 5, 1860 + r.int(0, 40), level(2.15), level(2.15 + off / 1000), off];
		}
	},
	{
		title: /^Inspection plan/,
		heads: ['No.', 'Activity', 'Required', 'How', 'Point', 'Record', 'Note'],
		rows: [14, 20],
		row: (r, n, touched) => [
			n,
			r.pick([
				'Setting out',
				'Reinforcement',
				'Formwork',
				'Pour',
				'Weld',
				'Bolt tension',
				'Coating',
				'Pile integrity'
			]),
			r.pick([
				'drawing, 10 mm',
				'EN 13670',
				'EN 1090-2, EXC3',
				'Sa 2½, 460 microns',
				'specification, clause 4'
			]),
			r.pick(['by eye', 'survey', 'ultrasonic', 'torque wrench', 'cube test']),
			touched ? 'hold' : r.pick(['witness', 'hold', 'surveillance']),
			`Form ${r.pick(['C1', 'C4', 'S2', 'S5', 'P1'])}`
		]
	},
	{
		title: /^Release calendar/,
		heads: ['Week', 'What goes out', 'For', 'To', 'Reply by week', 'Note'],
		rows: [12, 16],
		row: (r, n, touched) => [
			44 + n,
			r.pick(['Substructure', 'Roof frame', 'Linkspan', 'Ticket hall', 'Power', 'Drainage']),
			r.pick(['for comment', 'for approval', 'for construction']),
			'Vennholm Harbour Trust',
			46 + n + (touched ? 1 : 0)
		]
	},
	{
		title: /^(Master document list|Distribution list)/,
		heads: ['Series', 'Department', 'What', 'Documents', 'Goes to', 'Note'],
		rows: [14, 18],
		row: (r, _n, touched) => [
			`VFT-${r.pick(['AR', 'ST', 'MW', 'BS'])}-${r.pick(['TB', 'LS', 'QW', 'SU'])}`,
			r.pick(['Architecture', 'Structures', 'Marine works', 'Building services']),
			r.pick(['drawings', 'calculations', 'specifications', 'schedules']),
			r.int(4, 40) + (touched ? 2 : 0),
			r.pick(['Harbour Trust', 'Harbour Trust, Tarn Steelwork', 'Site team'])
		]
	}
];
/** What no kind above goes by: a plain list of parts. */
const PARTS: ScheduleKind = {
	title: /./,
	heads: ['Mark', 'Where', 'Part', 'Pieces', 'Note'],
	rows: [18, 32],
	row: (r, n, touched) => [
		padded(n),
		GRID(r),
		r.pick(['Bracket', 'Plate', 'Angle', 'Rail']),
		r.int(1, 12) + (touched ? 1 : 0)
	]
};

/**
 * The rows of a schedule, its heads first.
 * @param edit counts its versions: each touches some rows, says so in their note, and adds one now and then
 */
export function scheduleRows(title: string, edit: number): Cell[][] {
	const kind = KINDS.find((one) => one.title.test(title)) ?? PARTS;
	const r = new Random(title);
	const [least, most] = kind.rows;
	const many = (least === most ? least : r.int(least, most)) + Math.max(0, edit - 3);
	return [
		kind.heads,
		...Array.from({ length: many }, (_, i) => {
			const touched = edit > 1 && (i + 1) % 7 === edit % 7;
			// A row draws its own chance, so that a change in one leaves the others as they were.
			return [...kind.row(new Random(`${title} ${i}`), i + 1, touched, title), touched ? 'changed' : ''];
		})
	];
}

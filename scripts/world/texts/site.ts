import type { Part, TextKind } from './kind';

const weather: Part = [
	'Weather',
	'Wind {south-west|west|north-west|south} {2..7}, {dry|showers until noon|drizzle all day|bright, cold|fog until nine}, {4..15} degrees, high water {06|07|08|09|10|11}:{05|10|25|40|50}.'
];
const heldUp: Part = [
	'Held up',
	{
		some: 1,
		of: [
			'Nothing to speak of.',
			'Concrete came {25..70} minutes late; the pour was finished at {17|18}:{10|20|45}.',
			'Crane {1|2} stood for wind from {13|14}:00.',
			'The ferry’s wash: no boat work between {10|11|15}:00 and {12|16}:30.',
			'A hose of the piling rig burst; spilled oil was taken up, the rig was back after two hours.',
			'Two sheets on the board were not the newest; work at that cap waited until they were.'
		]
	}
];
const safety: Part = [
	'Safety',
	{
		some: 1,
		of: [
			'No accident, no near miss.',
			'One near miss at the slinging point; told in the morning talk.',
			'A cut finger, dressed on site.',
			'Toolbox talk on working over water; {9..22} signed.',
			'The gangway had ice until eight and was kept shut.'
		]
	}
];
const numbers: Part = [
	'On site',
	'Site team {4..7}, piling {6..12}, concrete {8..16}, steel {0|0|4|8}; crane 1 all day, crane 2 {from 10:00|until noon|not on site}.'
];

/** The record of a day, in which three things were done. */
const daily = (title: RegExp, done: string[]): TextKind => ({
	title,
	clauses: [weather, numbers, ['Done', { some: 3, of: done }], heldUp, safety],
	added: [
		'Cubes taken: six, numbers {210..390} and following.',
		'The diver looked at the toe of pile {9..40}.'
	],
	addedTo: 'Done'
});

/** What the site writes: day by day, instructions, and its own tests. */
export const SITE: TextKind[] = [
	// The piles come before what stands on them.
	daily(/^Daily record.* week (3[4-9]|40)/, [
		'{One pile|Two piles|Three piles} to level on grid {A|B}.',
		'Casing pulled at P{10..31}; concrete {19..24} m³.',
		'Cage of pile P{10..31} lowered; spacers looked at by Aino Weir.',
		'Pile heads trimmed at A/{2..7}.',
		'Guide frame moved to chainage {40..140}.',
		'Sheet piles {12..60} to {61..90} pitched.',
		'Spoil of the clay carted off: {9..22} loads.',
		'Setting out of grid {B|C} checked against two points.',
		'Temporary power to the east gate.'
	]),
	daily(/^Daily record/, [
		'Cage of pile cap {B|C|D}/{2..7} placed and looked at.',
		'Capping beam, pour {1..6} {cast|struck}.',
		'Blinding under ground beams GB{1..12}.',
		'Anchor bolts of column {A|B}/{1..8} surveyed: {1..4} mm off at most.',
		'Beam RB{1..7} lifted and bolted; splice tightened to {610|650} Nm.',
		'Duct bank 2 laid between pits {3..5} and {6..8}; mandrel drawn.',
		'Bollard bases {1..4} and {5..7} cast.',
		'Backfill behind the wall to +1.{20|50|80}, in layers of 300.',
		'Roof sheets of bay {1..3} laid; edges tied down for the night.'
	]),
	{
		title: /^Site instruction: pile cap levels/,
		clauses: [
			['Instruction', 'Caps on grid C are cast 60 lower: top at +2.09 instead of +2.15.'],
			['Why', 'The ground beam formwork was bought for the depth on the superseded sheet.'],
			['How', 'Links stay; the starter bars are lengthened by 60. Structures look at C/4 before the pour.']
		],
		added: ['The level is painted on each formwork panel.']
	},
	{
		title: /^Site instruction: duct bank crossing/,
		clauses: [
			['Instruction', 'The duct bank crosses below the water main, not above it.'],
			['Why', 'The main lies 350 higher than on the owner’s plan.'],
			['How', 'Hand digging for 2 m on both sides; 300 of sand between the two; a marker tile over both.']
		],
		added: ['The owner of the main is there when it is backfilled.']
	},
	{
		title: /^Site instruction: capping beam joint/,
		clauses: [
			['Instruction', 'The joint at chainage 96 moves to 102, between two bollards.'],
			['Why', 'At 96 it would fall into the anchor plate of bollard 9.'],
			['How', 'Waterstop as drawn; dowels 25 galvanised, 8 pieces, greased on one side.']
		],
		added: ['The pour before the joint ends at a stop board, not in the open.']
	},
	{
		title: /^Site instruction: gate position/,
		clauses: [
			['Instruction', 'The west gate stands 4.5 m nearer to the road.'],
			['Why', 'A lorry waiting at the gate blocks the footpath as it is.'],
			['How', 'The loop in the road is cut anew. The old one is cut off and left in.']
		],
		added: ['Signs are turned the same day.']
	},
	{
		title: /^Site instruction: crane standing/,
		clauses: [
			[
				'Instruction',
				'Crane 2 stands on mats of 1.2 by 6 m, and not seaward of the line that is sprayed on the ground.'
			],
			['Why', 'The anchor tie rods lie 1.4 m deep there and take no such load.'],
			['How', 'Outriggers over the mats’ middle third; the line is renewed each Monday.']
		],
		added: ['Lifts above 8 t are said to Structures a day before.']
	},
	{
		title: /^Site instruction: noise hours/,
		clauses: [
			[
				'Instruction',
				'No vibrating, breaking or sawing before 08:00 and after 18:00; not at all on Saturdays.'
			],
			['Why', 'Condition 7 of the consent, and two letters from Harbour Road.'],
			['How', 'Meters at both fences stop the rig by themselves at 70 dB(A) over a quarter of an hour.']
		],
		added: ['A pour that runs late is finished; the neighbours are told by a notice at the gate.']
	},
	{
		title: /^Concrete cube results/,
		clauses: [
			[
				'Cubes',
				'{Twelve|Nine|Fifteen} of 150 mm, from {three|four|five} pours, kept in water at 20 degrees.'
			],
			['Mix', 'C35/45 XS3, slag cement, water to cement 0.{40|41|42}, slump class S4.'],
			['At seven days', '{31.0..36.5} MPa on average, none below {28.5..30.5}.'],
			['At 28 days', '{49.0..56.5} MPa on average, lowest {45.5..48.5}; standard deviation {2.1..3.6}.'],
			['Judgement', 'Conforms to EN 206{|; one cube was tested with an uneven face and left out}.']
		],
		added: [
			'Chloride migration after 56 days: {3.1..4.9} e-12 m²/s.',
			'The third pour was taken from the pump, the others from the chute.'
		]
	}
];

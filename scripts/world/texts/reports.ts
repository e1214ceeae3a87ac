import type { TextKind } from './kind';

/** What was looked into, tested, certified and stated. */
export const REPORTS: TextKind[] = [
	{
		title: /^Design statement/,
		clauses: [
			[
				'The place',
				'A low roof over a long hall, open to the water on one side and to the town on the other.'
			],
			[
				'Ways',
				'Foot passengers reach the ferry without crossing a lane; the gallery is level with the upper car deck.'
			],
			['Materials', 'Oak, terrazzo and galvanised steel that bears salt and being leaned on.'],
			[
				'Light',
				'Rooflights over the queue, none over the screens. The hall glows towards the sea at night, the lanes do not.'
			],
			['What was decided', 'Two lifts instead of one; the café moves to the waterside; no revolving door.']
		],
		added: [
			'The hall is lit by day until 15:00 in December.',
			'The stone of the old customs house is used again in the forecourt.'
		]
	},
	{
		title: /^Accessibility review/,
		clauses: [
			[
				'Walked with',
				'Two people with wheelchairs, one who is blind, and a mother with a pram, on the drawings and on the old quay.'
			],
			[
				'Getting in',
				'Ramps of 1 in 20, handrails at two heights, doors that open by themselves and stay open long enough.'
			],
			['Being told', 'Every call is heard and read; the loop is marked; the screen is no higher than 2.2 m.'],
			[
				'Waiting',
				'A quiet room by the lifts. Every third seat has arms. Two places for chairs in each row, not at its end.'
			],
			['Not solved', 'The linkspan is steeper than 1 in 12 at the lowest tide; staff drive passengers then.']
		],
		added: [
			'Tactile paving runs from the bus stop to the ticket counter.',
			'The alarm in the toilet can be reached from the floor.'
		]
	},
	{
		title: /^Ground investigation report/,
		clauses: [
			['What was done', 'Eight boreholes, twelve cone tests and three trial pits between May and July.'],
			[
				'Layers',
				'Made ground to 2.4 m; soft grey clay to 9.8 m; dense sand and gravel to 21 m; weathered sandstone below.'
			],
			['Groundwater', 'Follows the tide with 40 minutes of delay, between 2.2 and 3.1 m below ground.'],
			[
				'Chemistry',
				'Sulphate class DS-2, chloride as sea water; made ground at the old coal store is to be carted off.'
			],
			[
				'What it means',
				'Piles take their load in the gravel; toe no higher than -24.0. Clay drags on them where it is filled over.'
			]
		],
		added: [
			'The clay is softer than in the boreholes of 1987.',
			'Cone test 7 met a timber and was moved by a metre.'
		]
	},
	{
		title: /^Borehole/,
		clauses: [
			[
				'Drilling',
				'Cable percussion to {16|17|18|19} m, rotary below, to {26..31} m; began {in May|in June|in July}, {2..4} days.'
			],
			[
				'0 to {2.1..2.7} m',
				'Made ground: {brick, ash, gravel|ash over cobbles|concrete slab of 0.2 m, then fill}.'
			],
			[
				'To {9.2..10.4} m',
				'Soft grey silty clay with shells; hand vane {11..19} kPa at 4 m, {22..31} at 8 m.'
			],
			['To {19.8..21.6} m', 'Sand and gravel, dense, blow counts {34..41} to {48..60}.'],
			['Below', 'Weathered sandstone, core recovery {62..88} %.'],
			['Water and samples', 'Struck at {2.9..3.3} m. {8..14} undisturbed, {6..10} bulk, {2..4} of water.']
		],
		added: [
			'A boulder of 0.{4|5|6} m was drilled through at {11.5..13.5} m.',
			'Standpipe of 50 mm left in, with a lockable cover.'
		],
		addedTo: 'Drilling'
	},
	{
		title: /^Sheet pile thickness survey/,
		clauses: [
			['Method', 'Ultrasonic at twelve points a pile, cleaned to bright metal, read three times each.'],
			[
				'Found',
				'Sound below -3.0. In the splash zone up to 4 mm are gone, most between chainages 40 and 85.'
			],
			['Rate', 'Since the survey eleven years ago 0.14 mm a year, as reckoned then.'],
			[
				'Proposed',
				'Plates over the zone from -0.5 to +1.5 at 14 piles; measure again in five years at the same points.'
			]
		],
		added: ['Marks are painted on the capping beam above each point.']
	},
	{
		title: /^Diver inspection/,
		clauses: [
			['Dives', '{Two|Three} dives of {45..70} minutes, visibility {0.4..1.2} m, by Morrow Diving.'],
			[
				'Joints',
				'{Two interlocks have|One interlock has} parted over {200|300|350} mm at chainage {41..83}; no soil is coming through.'
			],
			['Bed', 'Scour of {0.4..0.9} m in front of the ferry’s bow thruster, over {8..14} m.'],
			['Anodes', '{9..13} of 48 are used up by more than half.'],
			[
				'To do',
				'{Plate over the interlocks before the winter|Lay stone in the scour hole, 60 to 300 kg|Change the anodes from chainage 60 on}.'
			]
		],
		added: ['The second dive was cut short by a ferry.', 'The old ladder foot is loose and was taken away.']
	},
	{
		title: /^Test pile/,
		clauses: [
			['Pile', 'Bored, 900 mm, {25.4..27.2} m long, concrete C40/50, cast {21..34} days before.'],
			['Loading', 'In eight steps to 4800 kN, one and a half times the working load, each held for an hour.'],
			['Settlement', '{2.6..3.9} mm at working load, {6.6..8.9} mm at the end; {1.2..2.3} mm stayed.'],
			['Judgement', 'Passes. The shaft carries about {60|65|70} % of the load.']
		],
		added: [
			'The gauges were calibrated in August.',
			'Loading was stopped for an hour while the ferry berthed.'
		]
	},
	{
		title: /^Pile integrity/,
		clauses: [
			[
				'Tested',
				'16 piles of this grid, by a hammer blow and its echo, seven days after casting at the earliest.'
			],
			[
				'Found',
				'{15 without anything to remark. One shows|14 without anything to remark. Two show} a slight bulge at {10..12} m, which agrees with the gravel there.'
			],
			[
				'Again',
				'{None|P{12|19|27} was tested again after trimming, and is sound|Two after their heads were ground flat}.'
			],
			['Lengths', 'From the echo {25.6..26.8} m, with 3 % of doubt.']
		],
		added: ['The curves are in the appendix, pile by pile.']
	},
	{
		title: /^Bearing supplier/,
		clauses: [
			['Bearings', 'Spherical, for 3200 kN and ±6 degrees; four pieces and one to spare.'],
			['Test', 'One piece under 4800 kN for ten minutes, then 2000 turns at ±3 degrees under 2400 kN.'],
			['Wear', '0.04 mm. Friction 0.031 at the beginning, 0.028 at the end.'],
			['Result', 'Accepted, with the sealing lip as changed after the first trial.']
		],
		added: ['The witness of the trust was there on the second day.']
	},
	{
		title: /^Cylinder data sheet/,
		clauses: [
			['Cylinder', 'Bore 320, rod 220, stroke 4850; two pieces, one pair of hands.'],
			['Pressure', 'Works at 210 bar, tested at 360; force 1690 kN pushing.'],
			['Rod', 'Steel 42CrMo4, ceramic coat of 150 microns. Not to be welded near.'],
			['Ends', 'Spherical eyes of 200 H7; grease nipples can be reached from the platform.'],
			['Mass', '4.1 t dry.']
		],
		added: ['The stroke sensor is changed without emptying the cylinder.']
	},
	{
		title: /^Galvanising certificate/,
		clauses: [
			['Lot', '{38..96} pieces, {1.8..6.4} t: {guard rails|ladders and cages|gratings|brackets and plates}.'],
			['Coat', 'To EN ISO 1461. {20..30} readings: mean {88..118} microns, lowest local {72..82}.'],
			[
				'Looked at',
				'No bare spots{|; three of under 10 cm² made good with zinc paint}. Threads recut where marked.'
			],
			['Statement', 'The lot agrees with the order.']
		],
		added: ['Vent holes were closed with aluminium plugs.']
	},
	{
		title: /^Steel certificate/,
		clauses: [
			['Order', 'Tarn Steelwork, order 44{60..79}, for the linkspan of Vennholm Ferry Terminal.'],
			['Goods', 'Plate {14|16|20|25} mm, S355 J2+N, {9..24} plates, {11.5..38.5} t.'],
			[
				'Analysis',
				'C 0.1{4..8}, Mn 1.{38..52}, P 0.01{1..6}, S 0.00{2..7}; carbon equivalent 0.{39|40|41|42}.'
			],
			[
				'Tests',
				'Yield {362..394} MPa, strength {508..549}, elongation {23..28} %; impact at -20 degrees {52..71}, {52..71} and {52..71} J.'
			],
			['Statement of the works', 'Inspection certificate 3.1 to EN 10204.']
		],
		added: [
			'The heat number is stamped on every plate.',
			'Piece 2 was tested again after the machine was calibrated.'
		]
	},
	{
		title: /^Weld test report/,
		clauses: [
			[
				'Weld',
				'{Butt weld of the main girder|Rib to deck plate|Tower foot plate}, {24..60} m, by welders {T11|T14|T19} and {T22|T27}.'
			],
			[
				'How',
				'{Ultrasonic over the whole length|Ultrasonic 20 %, the rest by eye|Magnetic particles over the whole length}, EXC3.'
			],
			[
				'Found',
				'{Nothing to report|One indication of {6..11} mm at 12.4 m, ground out and welded again|Undercut of 0.6 mm over 40 mm, dressed}.'
			],
			['Accepted', 'By Kell Harrant for Structures, on the {second|third|fifth} day.']
		],
		added: ['The preheat record lies with the report.']
	},
	{
		title: /^Environmental statement/,
		clauses: [
			['Surroundings', 'Houses at 210 m, a school at 340 m, eelgrass from chainage 130 to 160.'],
			[
				'While it is built',
				'Silt within 50 m of the dredger at slack water; lorries on Harbour Road double for nine weeks.'
			],
			[
				'Afterwards',
				'Ships plug in at the berth, so that the engines stop. The lanes drain through a separator.'
			],
			[
				'What is done',
				'A bubble curtain while piling; dredging stops above 20 mg/l; eelgrass is planted out at the north mole.'
			]
		],
		added: [
			'Porpoises were heard twice in the year of listening.',
			'The county asked for the reckoning of carbon; it is in the appendix.'
		]
	},
	{
		title: /^Consent conditions register/,
		clauses: [
			[
				'How to read it',
				'Conditions 4 to 19 of the consent of the harbour works: what, who answers for it, discharged or not.'
			],
			[
				'Before the works',
				'4 dust plan, discharged. 5 lorry routes, discharged. 6 eelgrass survey, discharged.'
			],
			[
				'While they go on',
				'7 hours. 8 noise at the fences. 9 water at the dredger. 10 lights. All are reported on Mondays.'
			],
			['Before opening', '14 trial of the linkspan with the coastguard. 15 shore power. 17 oil separator.']
		],
		added: ['Condition 11 is discharged.', 'Condition 16 waits for the harbour byelaw.']
	},
	{
		title: /^Navigation risk assessment/,
		clauses: [
			['Looked at by', 'Captain Reyl, two masters of the ferry company, a pilot, Oke Lindvar.'],
			['Collision with the piling barge', 'Once in 400 years as it lies; guard boat and lights halve it.'],
			[
				'Blackout at the berth',
				'The fenders take 0.3 m/s of the largest ferry; tugs stand by in the first month.'
			],
			['Boats at night', 'The old leading light is confused with the crane’s. The crane’s is screened.'],
			['Judgement', 'Low enough if all nine measures are kept; three of them by the ferry company.']
		],
		added: ['To be looked at again before the first trial berthing.']
	},
	{
		title: /^Noise statement/,
		clauses: [
			['Limits', '65 dB(A) by day at the nearest house, 45 at night.'],
			['Now', '52 and 38, measured over two weeks in March; the old ferry’s ramp is the loudest thing.'],
			['Piling', '68 dB(A) at 210 m without a shroud, 61 with one. Nothing is driven without it.'],
			['In use', 'The new ramp has rubber under its fingers: 9 dB less than the old one.']
		],
		added: ['One complaint in October, answered the same day.']
	},
	{
		title: /^Sediment/,
		clauses: [
			['Where', 'Nine cores along the berth, 1.2 m long, cut at 0.3 m.'],
			[
				'In them',
				'Copper and tin above the lower action level in the top cuts of cores 3 and 4; nothing below 0.6 m.'
			],
			['What follows', 'The top 0.6 m around cores 3 and 4 goes to land; the rest may go to sea.']
		],
		added: ['Core 7 was taken again.', 'The laboratory’s own blank was clean.']
	}
];

import { Random } from './random';

export interface Clause {
	head: string;
	body: string[];
}
/** What texts of a kind say: by which titles they go, their clauses, and what later versions add to them. */
interface TextKind {
	title: RegExp;
	clauses: [head: string, ...body: string[]][];
	added: string[];
}

const MONTHS = ['June', 'July', 'August', 'September', 'October', 'November'];

/** Kinds in the order in which they are tried; the first that a title goes by holds. */
const KINDS: TextKind[] = [
	{
		title: /^(Release|Revision|Numbering) procedure/,
		clauses: [
			[
				'Who this is for',
				'Leads of departments and document control. Outsiders are told in the cover note what they need.'
			],
			[
				'Before a set goes out',
				'The department hands in what it wants released and settles the remarks on it, or says why they wait.',
				'Document control builds the release and looks at every check. What is only to be looked at goes out with a reason.'
			],
			[
				'Approval',
				'The lead of another department approves. Whoever made a drawing does not approve it alone.',
				'A set that is sent back keeps its number; the reason stands in the release.'
			],
			[
				'Going out',
				'Revisions are fixed at issue: P for what is preliminary, C for what is contractual. Nobody writes a revision into a file name.',
				'The client gets one link a release. Copies by mail are not sent, not even in a hurry.'
			],
			[
				'Afterwards',
				'What comes back with C or D returns to its department with a day. Document control asks after five working days without a reply.'
			]
		],
		added: [
			'Calculations go with the drawings that lean on them.',
			'A release for construction names the stage of the works it is for.',
			'The distribution list is looked through at the first release of each month.'
		]
	},
	{
		title: /^Corrosion protection/,
		clauses: [
			['Scope', 'Steel of the linkspan, the lifting towers and the fender frames, above and below water.'],
			['Exposure', 'Splash zone from -0.50 to +3.60: corrosivity CX. Above: C5. Always under water: Im2.'],
			[
				'Preparation',
				'Blast cleaning to Sa 2½, profile medium (G). Edges are rounded to 2 mm before blasting.',
				'No blasting above 85 % relative humidity, or with the steel less than 3 degrees above the dew point.'
			],
			[
				'Coats',
				'Zinc-rich primer, 60 microns; two coats of glass-flake epoxy, 400 microns in all; polyurethane where seen, 60 microns.'
			],
			[
				'Galvanised parts',
				'Guard rails, ladders and gratings are hot-dip galvanised to EN ISO 1461, mean 85 microns.'
			],
			[
				'Inspection',
				'Thickness to ISO 19840, one set of readings for every 10 square metres; adhesion at 5 MPa on test plates.'
			]
		],
		added: [
			'Stripe coats on welds, edges and bolts before every full coat.',
			'Damage from erection is made good within five working days and written into the daily record.',
			'Anodes of the tower feet are replaced when half of their mass is gone.'
		]
	},
	{
		title: /^Linkspan performance/,
		clauses: [
			[
				'What it does',
				'Carries road traffic between quay and ferry at every state of the tide from +0.20 to +3.40.'
			],
			[
				'Loads',
				'Two lanes of 44 t lorries, nose to tail, and one abnormal load of 120 t at walking pace with the other lane closed.'
			],
			[
				'Movement',
				'Full travel in 180 s with one power unit out of use. No slope steeper than 1 in 10, or 1 in 8 for an hour a year.'
			],
			['Ferry contact', 'The flap follows ±1.5 m of heave and ±3 degrees of list without the gates closing.'],
			[
				'Controls',
				'Operated from the control room or a pendant; both show level, load and the state of the locking pins.'
			],
			[
				'Availability',
				'99.5 % of the timetable, measured over twelve months; a fault that stops traffic is answered within two hours.'
			]
		],
		added: [
			'The design life is 50 years; bearings, hoses and flap are renewable parts.',
			'Noise at the control room stays under 65 dB(A).'
		]
	},
	{
		title: /^Hydraulic power unit/,
		clauses: [
			[
				'Supply',
				'Two units, each able to lift the deck alone: 2 pumps of 110 l/min, 240 bar, one tank of 1600 l.'
			],
			[
				'Fluid',
				'Biodegradable ester, ISO VG 46. Cleanliness 18/16/13 at handing over and at every yearly service.'
			],
			['Valves', 'Counterbalance valves sit on the cylinders, so that a burst hose does not drop the deck.'],
			[
				'Pipework',
				'Stainless 1.4404, flanged above DN 25. Hoses are renewed every six years by their date of making.'
			],
			['Tests', 'Pressure test at 360 bar for 30 minutes; ten full travels in the workshop before delivery.']
		],
		added: [
			'A heater keeps the tank above 10 degrees.',
			'The relief valves are sealed after setting, and the seal numbers recorded.'
		]
	},
	{
		title: /^Curtain walling/,
		clauses: [
			['System', 'Thermally broken aluminium, stick system, with pressure plates and caps of 50 mm.'],
			['Weather', 'Air A4, water RE1200, wind 2.4 kPa with deflection under span over 300.'],
			['Glass', 'Outer pane toughened and heat-soaked, inner pane laminated; U no more than 1.1.'],
			[
				'Marine finish',
				'Powder coat of class 2 for marine surroundings, seaside pre-anodised; washed twice a year.'
			],
			['Samples', 'One bay of grid 4 to 5, full height, is built and tested before fabrication goes on.']
		],
		added: [
			'Bird-safe marking on glass below +9.00.',
			'Every pane carries its number where it can be read from inside.'
		]
	},
	{
		title: /^Finishes specification/,
		clauses: [
			[
				'Floors',
				'F1 terrazzo in the concourse, divider strips at 2.4 m; F2 porcelain R11 where it is wet; F3 linoleum in offices.'
			],
			['Walls', 'W1 emulsion on skim; W2 tile to 2100; W3 oak panels of the ticket hall, oiled.'],
			['Ceilings', 'C1 plasterboard; C2 perforated metal trays that can be taken down by one person.'],
			[
				'Protection',
				'Floors are covered from laying to handing over; damaged tiles are replaced, not filled.'
			]
		],
		added: [
			'Two per cent of each tile is handed over as spares.',
			'Slip resistance is measured in the finished floor.'
		]
	},
	{
		title: /^Fire alarm/,
		clauses: [
			['Cover', 'Category L1 in the terminal, L2 in the substation; manual call points at every way out.'],
			['Detection', 'Optical in rooms, aspirating in the concourse roof void, heat in the café kitchen.'],
			['Warning', 'Voice messages in two languages; flashing lights in plant rooms and toilets.'],
			['Links', 'Lifts return, dampers close, sliding doors open, the linkspan stops at its level.'],
			['Handing over', 'Cause and effect is tried in full with the fire service present.']
		],
		added: [
			'A false alarm is looked into within one working day.',
			'The panel keeps its last thousand events.'
		]
	},
	{
		title: /^Construction traffic/,
		clauses: [
			['Routes', 'Lorries come by Harbour Road and leave by the north gate; none through the old town.'],
			['Hours', '07:00 to 18:00 on working days. Deliveries wait in the lay-by at km 3, not at the gate.'],
			[
				'Numbers',
				'At most 60 lorries a day, 90 on days of pours, said to the harbour authority a week ahead.'
			],
			['Walking', 'The footpath along the quay stays open, with a marshal at the crossing while cranes move.']
		],
		added: [
			'Wheels are washed before leaving from October to April.',
			'Abnormal loads come between 05:00 and 06:30.'
		]
	},
	{
		title: /^Design statement|^Accessibility review/,
		clauses: [
			[
				'The place',
				'A low roof over a long hall, open to the water on one side and to the town on the other.'
			],
			[
				'Ways',
				'Foot passengers reach the ferry without crossing a lane; the gallery is level with the upper car deck.'
			],
			[
				'For everybody',
				'Ramps of 1 in 20, handrails at two heights, counters with knee room, a quiet room by the lifts.'
			],
			['Materials', 'Oak, terrazzo and galvanised steel that bears salt and being leaned on.'],
			['What was decided', 'Two lifts instead of one; the café moves to the waterside; no revolving door.']
		],
		added: [
			'Tactile paving runs from the bus stop to the ticket counter.',
			'The hall is lit by day until 15:00 in December.'
		]
	},
	{
		title: /workshop minutes/,
		clauses: [
			[
				'Present',
				'Halla Brandt, Petra Quill, Jun Sabol, Maren Aldgate, two of the ferry company’s ticket staff.'
			],
			['Counters', 'Four counters instead of five; the fifth becomes a kiosk. Knee room at two of them.'],
			[
				'Queue',
				'One queue with a screen. The rope posts go; people with luggage fell over them in the old hall.'
			],
			[
				'To do',
				'Petra draws the shutter closed and open. The harbour trust says by Friday who keeps the keys.'
			]
		],
		added: [
			'The staff ask for a window to the lanes.',
			'The ceiling above the counters comes down by 200 for the sound.'
		]
	},
	{
		title: /^Design coordination minutes/,
		clauses: [
			[
				'Present',
				'Ines Maddock (chair), Halla Brandt, Tomas Verrin, Oke Lindvar, Dario Fenn, Wren Ostrow, Sefa Tuimala.'
			],
			['Last minutes', 'Agreed. Points 3 and 6 are closed; point 4 goes on.'],
			[
				'Pit wall',
				'Clashes with the cable duct. Marine works move the wall 150 towards the quay and reissue 0101.'
			],
			['Roof', 'Structures offer HEB 450 on RB3; Architecture keeps the rooflight where it is.'],
			['Programme', 'The substructure goes out for construction once the department checks are through.'],
			['Next', 'In a fortnight, 10:00, site office.']
		],
		added: [
			'Building services drop the duct by 200 and say so on their plan.',
			'Document control asks that remarks be settled before a sheet is put in a release.',
			'The site team needs the pile cap levels by Monday.'
		]
	},
	{
		title: /^Harbour authority meeting/,
		clauses: [
			['Present', 'Captain Reyl (harbour authority), Wren Ostrow, Oke Lindvar, Edda Norrow.'],
			['Navigation', 'The fairway stays 80 m wide during piling; a guard boat from dusk to dawn.'],
			['Tides and closures', 'Two closures of six hours each, at neaps, announced fourteen days ahead.'],
			['Dredging', 'Silt goes to the licensed ground; a sounding is handed over every second week.'],
			['Actions', 'Oke sends the sequence of the tower lift. The authority answers the lighting plan.']
		],
		added: ['The pilots ask for a leading light on the east tower.', 'No blasting in the herring weeks.']
	},
	{
		title: /^Client progress minutes/,
		clauses: [
			[
				'Present',
				'Maren Aldgate and Ruud Selmer (Vennholm Harbour Trust), Ines Maddock, Wren Ostrow, Sefa Tuimala.'
			],
			['Progress', 'Piling is through on the west part. The first roof beams are up between grids 1 and 3.'],
			['Design', 'The linkspan set is with the trust; the substructure follows.'],
			['Money', 'Two variations are agreed: the second lift, and the thicker deck plate.'],
			['Concerns', 'The trust asks that every drawing on site can be shown to be the newest one.']
		],
		added: [
			'The opening day stays; the first trial berthing moves by a week.',
			'The trust’s operators want to see the control room in March.'
		]
	},
	{
		title: /^Daily record/,
		clauses: [
			['Weather', 'Wind south-west 5, showers until noon, 9 degrees, high water 10:40.'],
			['On site', 'Site team 6, piling 11, concrete 14, steel 8; crane 1 all day, crane 2 from 10:00.'],
			[
				'Done',
				'Two piles to level on grid C. Cage of pile cap C/4 placed and looked at. Capping beam, pour 2 struck.'
			],
			['Held up', 'Concrete came 50 minutes late; the pour was finished at 18:20.'],
			['Safety', 'One near miss at the slinging point; told in the morning talk.']
		],
		added: ['Cubes taken: six, numbers 311 to 316.', 'The diver looked at the toe of pile 14.']
	},
	{
		title: /^Site instruction/,
		clauses: [
			['Instruction', 'Do what is described below; nothing else in the contract changes by it.'],
			['Why', 'What was found on site differs from the drawing by more than the tolerance.'],
			[
				'What to do',
				'Stop at the line marked on site, survey it, and go on as the sheet that comes with this shows.'
			],
			['Time and money', 'Said within five working days; otherwise there is none.']
		],
		added: ['The work is photographed before it is covered.', 'Structures looks at it before the next pour.']
	},
	{
		title: /^(Ground investigation|Borehole)/,
		clauses: [
			['Drilling', 'Cable percussion to 18 m, rotary below; standard penetration tests every 1.5 m.'],
			[
				'Strata',
				'Made ground to 2.4 m; soft grey clay to 9.8 m; dense sand and gravel to 21 m; weathered sandstone below.'
			],
			['Water', 'Struck at 3.1 m, rising to 2.2 m, and following the tide with 40 minutes of delay.'],
			['Samples', 'Twelve undisturbed, nine bulk; sulphate class DS-2, chloride as sea water.'],
			['What it means', 'Piles take their load in the gravel; toe no higher than -24.0.']
		],
		added: [
			'A boulder of 0.6 m was drilled through at 12.3 m.',
			'The clay is softer than in the boreholes of 1987.'
		]
	},
	{
		title: /^(Sheet pile thickness|Diver inspection)/,
		clauses: [
			['Method', 'Ultrasonic at twelve points a pile, cleaned to bright metal, read three times each.'],
			[
				'Found',
				'Sound below -3.0. In the splash zone up to 4 mm are gone, most between chainages 40 and 85.'
			],
			['Joints', 'Two interlocks have parted over 300 mm; no soil is coming through.'],
			['Proposed', 'Plate over the two interlocks; measure again in spring at the same points.']
		],
		added: [
			'Visibility was 0.4 m; the second dive was cut short by a ferry.',
			'Marks are painted on the capping beam above each point.'
		]
	},
	{
		title: /^(Test pile|Pile integrity)/,
		clauses: [
			['Pile', 'Bored, 900 mm, 26.2 m long, concrete C40/50, cast 21 days before.'],
			['Loading', 'In eight steps to 4800 kN, one and a half times the working load, each held for an hour.'],
			['Settlement', '3.1 mm at working load, 7.4 mm at the end; 1.6 mm stayed.'],
			['Judgement', 'Passes. The shaft carries about two thirds of the load.']
		],
		added: [
			'The wave shows a slight bulge at 11 m, which agrees with the gravel there.',
			'The gauges were calibrated in August.'
		]
	},
	{
		title: /certificate|test report|data sheet/i,
		clauses: [
			['Order', 'Tarn Steelwork, order 4471, for the linkspan of Vennholm Ferry Terminal.'],
			['What was tested', 'Three pieces of the lot, chosen by the purchaser’s inspector.'],
			['Results', 'Yield 371, 378 and 369 MPa; elongation 24 %; impact at -20 degrees 61, 58 and 66 J.'],
			['Statement', 'The goods agree with the order. Inspection certificate 3.1 to EN 10204.']
		],
		added: [
			'Piece 2 was tested again after the machine was calibrated.',
			'The heat number is stamped on every plate.'
		]
	},
	{
		title: /^(Environmental|Consent|Navigation|Noise)/,
		clauses: [
			['Why', 'Asked for by the consent of the harbour works, conditions 4 to 19.'],
			['Surroundings', 'Houses at 210 m, a school at 340 m, eelgrass from chainage 130 to 160.'],
			['Effects', 'Piling: 68 dB(A) at the nearest house. Silt: within 50 m of the dredger at slack water.'],
			[
				'What is done',
				'A bubble curtain while piling; no piling before 08:00; dredging stops above 20 mg/l.'
			],
			['Watching', 'Two meters run all the time; the readings go to the authority on Mondays.']
		],
		added: ['Condition 11 is discharged.', 'One complaint in October, answered the same day.']
	},
	{
		title: /^Sediment/,
		clauses: [
			['Where', 'Nine cores along the berth, 1.2 m long, cut at 0.3 m.'],
			[
				'Found',
				'Copper and tin above the lower action level in the top cuts of cores 3 and 4; nothing below 0.6 m.'
			],
			['What follows', 'The top 0.6 m around cores 3 and 4 goes to land; the rest may go to sea.']
		],
		added: ['Core 7 was taken again.', 'The laboratory’s own blank was clean.']
	},
	{
		title: /^(Wind|Snow)/,
		clauses: [
			[
				'Basis',
				'EN 1991 with the national values; reference wind 27 m/s, terrain category 0; snow 1.6 kPa on the ground.'
			],
			[
				'Shape',
				'Monopitch of 1.6 degrees; the canopy counts as open with the ferry away, and as blocked with it alongside.'
			],
			['Results', 'Uplift 2.1 kPa at the waterside edge over 3.2 m; drift 2.9 kPa behind the parapet.'],
			['For others', 'Cladding takes the local values; the frame may take those of the zone.']
		],
		added: [
			'A wind tunnel is not needed at this height.',
			'The drift was looked at with the parapet 300 higher.'
		]
	},
	{
		title: /^(Berthing|Sheet pile wall|Foundation|Settlement|Runoff|Air quantities|Short-circuit)/,
		clauses: [
			['Basis', 'The values of the basis of design, and what the surveys of this year measured.'],
			[
				'What was looked at',
				'The usual state, the worst that comes once in fifty years, and one part out of use.'
			],
			['Working', 'Step by step below; figures that came from others carry their number and revision.'],
			['Judgement', 'It holds with a reserve of no less than eight per cent.']
		],
		added: [
			'The stiffness of the ground was halved, and it still holds.',
			'Checked by a second way of reckoning.'
		]
	},
	{
		title: /calculation|design|stair/i,
		clauses: [
			[
				'Basis',
				'Loads follow the basis of design: 44 t lorries in two lanes, nose to tail, and 5 kPa of crowd.'
			],
			[
				'Model',
				'Span and section as on the general arrangement; second-order effects by the amplification of sway.'
			],
			['Results', 'The governing case is the braking lorry at midspan with the bridge at its highest level.'],
			[
				'Conclusion',
				'The section shown is adequate. The end stiffeners are thickened as marked on the drawing.'
			]
		],
		added: [
			'Deflection under the frequent loads stays under span over 400.',
			'The bolts of the splice govern now.'
		]
	},
	{
		title: /./,
		clauses: [
			['Purpose', 'What was found, what it means for the works, and what is proposed.'],
			['Findings', 'Two buried cable routes cross the line of the new drainage run.'],
			['Proposals', 'Move the run 1.2 m landward between chainages 40 and 85.']
		],
		added: ['The owner of the cables has been told.', 'A trial pit confirms the depth.']
	}
];

/**
 * The clauses of a text as of one of its versions.
 * @param edit counts the versions: each adds a sentence where somebody would look for it
 */
export function clauses(title: string, edit: number): Clause[] {
	const kind = KINDS.find((one) => one.title.test(title))!;
	const r = new Random(title);
	const list = kind.clauses.map(([head, ...body]) => ({ head, body: [...body] }));
	const first = r.int(1, list.length);
	for (let i = 1; i < edit; i++) {
		const added = kind.added[(i - 1) % kind.added.length]!;
		const again = Math.floor((i - 1) / kind.added.length);
		list[(first + i) % list.length]!.body.push(
			again ? `${added} (Confirmed in ${MONTHS[again % 6]!}.)` : added
		);
	}
	return list;
}

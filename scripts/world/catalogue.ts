import type { DrawingKind } from './drawings';

/** People of the project: name, department, whether they lead it. */
export const PEOPLE: { name: string; department: string; lead?: boolean; controller?: boolean }[] = [
	{ name: 'Ines Maddock', department: 'DC', lead: true, controller: true },
	{ name: 'Halla Brandt', department: 'AR', lead: true },
	{ name: 'Tomas Verrin', department: 'ST', lead: true },
	{ name: 'Oke Lindvar', department: 'MW', lead: true },
	{ name: 'Dario Fenn', department: 'BS', lead: true },
	{ name: 'Wren Ostrow', department: 'PL', lead: true },
	{ name: 'Sefa Tuimala', department: 'SI', lead: true },
	{ name: 'Rhosyn Hale', department: 'MW' },
	{ name: 'Aino Weir', department: 'ST' },
	{ name: 'Bram Oyelund', department: 'SI' },
	{ name: 'Petra Quill', department: 'AR' },
	{ name: 'Jun Sabol', department: 'AR' },
	{ name: 'Lumi Arden', department: 'BS' },
	{ name: 'Edda Norrow', department: 'PL' },
	{ name: 'Kell Harrant', department: 'ST' },
	{ name: 'Maj Torvane', department: 'MW' },
	{ name: 'Ruan Pellick', department: 'BS' },
	{ name: 'Tove Askerby', department: 'SI' },
	{ name: 'Vida Morrell', department: 'DC' }
];

export const DEPARTMENTS = [
	{ code: 'AR', name: 'Architecture' },
	{ code: 'ST', name: 'Structures' },
	{ code: 'MW', name: 'Marine works' },
	{ code: 'BS', name: 'Building services' },
	{ code: 'PL', name: 'Planning' },
	{ code: 'SI', name: 'Site team' },
	{ code: 'DC', name: 'Document control' }
];

type Form = 'dxf' | 'sheet' | 'pdf' | 'docx' | 'xlsx' | 'csv' | 'md' | 'jpeg';

/** A run of documents in a folder: their type, form and titles; a title with {…} stands for one document a choice. */
export interface Run {
	type: 'DR' | 'CA' | 'SP' | 'SH' | 'RP' | 'MN' | 'PH';
	form: Form;
	kind?: DrawingKind;
	first: number;
	titles: string[];
}

export interface FolderPlan {
	name: string;
	zone: string;
	level: string;
	runs: Run[];
	inside?: FolderPlan[];
}

const dr = (kind: DrawingKind, first: number, titles: string[], form: Form = 'dxf'): Run => ({
	type: 'DR',
	form,
	kind,
	first,
	titles
});
const run = (type: Run['type'], form: Form, first: number, titles: string[]): Run => ({
	type,
	form,
	first,
	titles
});

/** Every shelf with its folders. The department's code is the key. */
export const SHELVES: Record<string, FolderPlan[]> = {
	AR: [
		{
			name: 'General arrangement',
			zone: 'TB',
			level: '00',
			runs: [
				dr('floor', 101, [
					'Ground floor plan',
					'First floor plan',
					'Mezzanine plan',
					'Ground floor plan, {west|east} wing',
					'Fire compartments, {ground|first} floor'
				]),
				dr('facade', 120, ['Building section {A-A|B-B|C-C}', 'Terminal elevations'], 'sheet'),
				run('RP', 'docx', 1, ['Design statement', 'Accessibility review'])
			]
		},
		{
			name: 'Façade',
			zone: 'TB',
			level: 'EX',
			runs: [
				dr('facade', 201, [
					'{Waterside|Landside|West|East} elevation',
					'Curtain wall bay {1 to 4|5 to 9|10 to 14}'
				]),
				dr('detail', 220, ['Curtain wall {sill|head|corner|expansion joint} detail'], 'sheet'),
				run('SP', 'docx', 2, ['Curtain walling specification'])
			]
		},
		{
			name: 'Ticket hall',
			zone: 'TB',
			level: '00',
			runs: [
				dr('floor', 301, [
					'Ticket hall layout',
					'Ticket hall reflected ceiling',
					'Ticket counters setting out'
				]),
				dr('detail', 320, ['Counter {front|flap|shutter} detail'], 'sheet'),
				run('MN', 'md', 1, ['Ticket hall workshop minutes, {first|second} meeting'])
			]
		},
		{
			name: 'Doors and glazing',
			zone: 'TB',
			level: 'XX',
			runs: [
				run('SH', 'xlsx', 1, [
					'Door schedule, {ground|first} floor',
					'Glazing schedule',
					'Ironmongery schedule'
				]),
				dr('detail', 401, [
					'Door set {type D1|type D2|type D3|type D4|type D5|type D6} details',
					'Glazed screen {GS1|GS2} details'
				])
			]
		},
		{
			name: 'Finishes',
			zone: 'TB',
			level: 'XX',
			runs: [
				run('SH', 'csv', 20, ['Room finishes schedule', 'Tile quantities']),
				dr('floor', 501, ['Floor finishes, {ground|first} floor'], 'sheet'),
				run('SP', 'docx', 5, ['Finishes specification'])
			]
		},
		{
			name: 'Wayfinding',
			zone: 'TB',
			level: 'XX',
			runs: [
				dr('floor', 601, ['Sign locations, {ground|first} floor']),
				dr('detail', 610, ['Sign type {W1|W2|W3|W4|W5} detail'], 'sheet'),
				run('SH', 'xlsx', 30, ['Sign schedule'])
			]
		}
	],
	ST: [
		{
			name: 'Roof frame',
			zone: 'TB',
			level: 'RF',
			runs: [
				dr('roof', 201, [
					'Roof frame plan',
					'Roof frame sections',
					'Roof bracing plan',
					'Rooflight framing {A|B}'
				]),
				dr('detail', 210, [
					'Column base details',
					'Roof beam splice',
					'Ridge connection',
					'Eaves connection {grid A|grid C}'
				]),
				run('CA', 'pdf', 20, ['Roof beam calculation', 'Roof bracing calculation'])
			]
		},
		{
			name: 'Foundations',
			zone: 'TB',
			level: 'FN',
			runs: [
				dr('piles', 104, [
					'Foundation plan',
					'Pile cap schedule',
					'Ground beam layout',
					'Ground beam {GB1|GB2|GB3|GB4|GB5} reinforcement',
					'Pile cap {PC1|PC2|PC3|PC4} reinforcement'
				]),
				run('CA', 'pdf', 12, ['Foundation calculation', 'Settlement estimate'])
			]
		},
		{
			name: 'Piles',
			zone: 'TB',
			level: 'FN',
			runs: [
				dr('piles', 151, ['Pile layout, {west|east} part', 'Pile setting out, grids {1 to 4|5 to 8}']),
				run('SH', 'xlsx', 40, ['Pile schedule, {west|east} part']),
				run('RP', 'pdf', 31, ['Test pile {TP1|TP2|TP3|TP4} report', 'Pile integrity test, grid {A|B|C|D}'])
			]
		},
		{
			name: 'Calculations',
			zone: 'TB',
			level: 'XX',
			runs: [
				run('CA', 'pdf', 40, [
					'Wind loading',
					'Snow and drift loading',
					'Column {C1|C2|C3|C4} design',
					'Beam {B1|B2|B3|B4} design',
					'Slab design, {ground|first} floor',
					'Stair 2 design',
					'Stability of the whole building'
				])
			]
		},
		{
			name: 'Schedules',
			zone: 'TB',
			level: 'XX',
			runs: [
				run('SH', 'xlsx', 50, ['Bar bending schedule, {ground beams|pile caps|slab}', 'Steelwork schedule']),
				run('SH', 'csv', 60, ['Bolt list', 'Assembly list'])
			]
		}
	],
	MW: [
		{
			name: 'Linkspan',
			zone: 'LS',
			level: '00',
			runs: [
				dr('linkspan', 101, ['Linkspan general arrangement']),
				dr('longSection', 102, ['Linkspan longitudinal section']),
				dr('tower', 103, ['Lifting tower elevations'], 'sheet'),
				dr('floor', 110, ['Hydraulic pit plan'], 'sheet'),
				run('CA', 'pdf', 7, [
					'Deck plate bearing calculation',
					'Hinge pin calculation',
					'Lifting tower calculation'
				]),
				run('SP', 'docx', 3, ['Corrosion protection specification', 'Linkspan performance specification']),
				run('SH', 'xlsx', 2, ['Hinge pin schedule', 'Deck panel schedule']),
				dr('detail', 120, ['Flap hinge details'], 'sheet'),
				dr('detail', 121, [
					'Guard rail details',
					'Buffer and stop details',
					'Deck panel {1 to 4|5 to 8|9 to 12} details',
					'Access ladder details',
					'Drip pan details',
					'Bearing shelf details'
				]),
				run('PH', 'jpeg', 18, ['Hinge casting before delivery', 'Trial assembly of the flap'])
			],
			inside: [
				{
					name: 'Hydraulics',
					zone: 'LS',
					level: '00',
					runs: [
						dr('services', 701, ['Hydraulic pipe routes', 'Cylinder {1|2} installation']),
						run('SP', 'docx', 70, ['Hydraulic power unit specification']),
						run('SH', 'xlsx', 71, ['Valve schedule'])
					]
				},
				{
					name: 'Supplier papers',
					zone: 'LS',
					level: '00',
					runs: [
						run('RP', 'pdf', 81, [
							'Bearing supplier test report',
							'Cylinder data sheet',
							'Galvanising certificate, lot {1|2|3|4|5}',
							'Steel certificate, heat {A|B|C}'
						])
					]
				}
			]
		},
		{
			name: 'Fenders',
			zone: 'QW',
			level: '00',
			runs: [
				dr('detail', 201, ['Fender panel {A|B|C} details', 'Fender chain shackle']),
				dr('quay', 210, ['Fender elevation, berth {1|2}'], 'sheet'),
				run('CA', 'pdf', 21, ['Berthing energy calculation'])
			]
		},
		{
			name: 'Quay wall',
			zone: 'QW',
			level: '00',
			runs: [
				dr('quay', 301, [
					'Quay wall section, chainage {0 to 40|40 to 85|85 to 130}',
					'Capping beam sections',
					'Tie rod anchorage',
					'Quay wall at the linkspan pit'
				]),
				run('RP', 'pdf', 31, ['Sheet pile thickness survey', 'Diver inspection report, {spring|autumn}']),
				run('CA', 'pdf', 35, ['Sheet pile wall calculation'])
			]
		},
		{
			name: 'Dredging',
			zone: 'QW',
			level: '00',
			runs: [
				dr('longSection', 401, ['Dredging sections, {berth 1|berth 2|approach}']),
				run('SH', 'csv', 41, ['Dredged volumes by week', 'Sounding points']),
				run('RP', 'md', 45, ['Sediment sampling notes'])
			]
		}
	],
	BS: [
		{
			name: 'Ventilation',
			zone: 'TB',
			level: '01',
			runs: [
				dr('services', 101, [
					'Ventilation, ground floor',
					'Ventilation, first floor',
					'Plant room layout',
					'Smoke extract, {ticket hall|concourse}'
				]),
				run('SH', 'xlsx', 10, ['Fan schedule', 'Damper schedule']),
				run('CA', 'pdf', 11, ['Air quantities calculation'])
			]
		},
		{
			name: 'Power',
			zone: 'SU',
			level: '00',
			runs: [
				dr('services', 201, [
					'Cable routes, {substation to terminal|terminal to linkspan}',
					'Distribution boards, {ground|first} floor',
					'Earthing layout',
					'Substation {ground floor|cable basement} layout'
				]),
				run('SH', 'xlsx', 20, ['Cable schedule']),
				run('CA', 'pdf', 24, ['Short-circuit calculation'])
			]
		},
		{
			name: 'Lighting',
			zone: 'TB',
			level: '01',
			runs: [
				dr('services', 301, [
					'Lighting, {ground floor|first floor|marshalling lanes}',
					'Emergency lighting, {ground|first} floor'
				]),
				run('SH', 'xlsx', 30, ['Luminaire schedule'])
			]
		},
		{
			name: 'Drainage',
			zone: 'ML',
			level: '00',
			runs: [
				dr('lanes', 401, ['Surface water drainage, lanes', 'Oil separator location']),
				dr('longSection', 410, ['Drain long section, run {1|2}'], 'sheet'),
				run('CA', 'pdf', 41, ['Runoff calculation'])
			]
		},
		{
			name: 'Fire plans',
			zone: 'TB',
			level: 'XX',
			runs: [
				dr('floor', 501, ['Fire plan, {ground|first} floor', 'Hydrants and dry risers'], 'sheet'),
				run('SP', 'docx', 50, ['Fire alarm specification'])
			]
		}
	],
	PL: [
		{
			name: 'Consents',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('RP', 'pdf', 1, [
					'Environmental statement, summary',
					'Consent conditions register',
					'Navigation risk assessment',
					'Noise statement'
				]),
				run('SP', 'docx', 8, ['Construction traffic plan']),
				run('MN', 'md', 10, ['Harbour authority meeting minutes, {June|July|August|September|October}'])
			]
		},
		{
			name: 'Surveys',
			zone: 'ML',
			level: '00',
			runs: [
				dr('lanes', 101, ['Topographic survey, lanes', 'Utilities survey, {north|south} part']),
				run('RP', 'pdf', 21, [
					'Ground investigation report',
					'Borehole {BH1|BH2|BH3|BH4|BH5|BH6|BH7|BH8} log'
				])
			]
		},
		{
			name: 'Lanes',
			zone: 'ML',
			level: '00',
			runs: [
				dr('lanes', 201, [
					'Marshalling lanes layout',
					'Lane marking plan',
					'Check-in kiosks setting out',
					'Traffic signs, lanes {1 to 4|5 to 8}'
				])
			]
		},
		{
			name: 'Minutes',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('MN', 'docx', 30, [
					'Design coordination minutes, {week 36|week 38|week 40|week 42|week 44|week 46}'
				]),
				run('MN', 'md', 50, ['Client progress minutes, {September|October|November}'])
			]
		}
	],
	SI: [
		{
			name: 'Photographs',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('PH', 'jpeg', 1, [
					'Sheet piling {at chainage 20|at chainage 60|at chainage 110}',
					'Tie rod {trench|anchor plate|tensioning}',
					'Pile driving, {first rig|second rig}',
					'Pile caps {before casting|after striking}',
					'Ground beams {reinforcement|formwork}',
					'Capping beam {pour 1|pour 2|pour 3}',
					'Old quay {before demolition|broken out}',
					'Delivery of {sheet piles|bearings|fender panels}',
					'Lanes {base course|kerbs}',
					'Site cabin and gate',
					'Substation {slab|cable pit}',
					'Dredger at {berth 1|berth 2}',
					'Quay wall panel {1|2|3|4|5|6}',
					'Pile head {west row|east row|after trimming}',
					'Linkspan pit {excavation|blinding|base slab|north wall|south wall}',
					'Duct bank {trench|ducts laid|backfill}',
					'Terminal ground floor slab {pour 1|pour 2|pour 3}',
					'Roof beam {unloading|lifting|bolted}',
					'Lifting tower {base plate|first lift}'
				])
			]
		},
		{
			name: 'Daily records',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('RP', 'md', 101, [
					'Daily record, {Monday|Tuesday|Wednesday|Thursday|Friday} of week {34|35|36|37|38|39|40|41|42|43|44|45|46|47}'
				])
			]
		},
		{
			name: 'Site instructions',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('RP', 'pdf', 301, [
					'Site instruction: {pile cap levels|duct bank crossing|capping beam joint|gate position|crane standing|noise hours}'
				])
			]
		},
		{
			name: 'As built',
			zone: 'QW',
			level: '00',
			runs: [
				dr('piles', 901, ['As-built pile positions, {west|east}']),
				dr('quay', 905, ['As-built quay wall, chainage {0 to 40|40 to 85}'], 'sheet'),
				run('SH', 'csv', 91, ['As-built levels'])
			]
		},
		{
			name: 'Inspections',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('SH', 'xlsx', 95, ['Inspection plan, {concrete|steelwork|piling}']),
				run('RP', 'pdf', 201, ['Concrete cube results, week {43|45|47}', 'Weld test report {1|2|3}'])
			]
		}
	],
	DC: [
		{
			name: 'Register',
			zone: 'ZZ',
			level: 'XX',
			runs: [run('SH', 'xlsx', 1, ['Master document list', 'Distribution list', 'Release calendar'])]
		},
		{
			name: 'Procedures',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				run('SP', 'docx', 1, ['Numbering procedure', 'Revision procedure', 'Release procedure']),
				run('RP', 'md', 10, ['How to hand in', 'How to ask for a number'])
			]
		},
		{
			name: 'Templates',
			zone: 'ZZ',
			level: 'XX',
			runs: [
				dr('detail', 1, ['Drawing frame A1']),
				run('SP', 'docx', 20, ['Specification template', 'Minutes template']),
				run('SH', 'csv', 30, ['Comment sheet template'])
			]
		},
		{
			name: 'Project papers',
			zone: 'ZZ',
			level: 'XX',
			runs: [run('RP', 'pdf', 50, ['Project brief', 'Basis of design', 'Design responsibility matrix'])]
		}
	]
};

/** All titles of a run: each {a|b} is one document a choice, several are combined. */
export function titlesOf(titles: readonly string[]): string[] {
	return titles.flatMap((title): string[] => {
		const match = /\{([^}]*)\}/.exec(title);
		if (!match) return [title];
		return titlesOf(match[1]!.split('|').map((choice) => title.replace(match[0], choice)));
	});
}

/** What a person says of a version, by its place in the history. */
export const NOTES: Record<string, string[]> = {
	drawing: [
		'Wall moved towards the quay',
		'Length agreed with the supplier',
		'Detail added after coordination',
		'Bolts and duct as agreed with Building services',
		'Level corrected to the survey',
		'Notes brought in line with the specification',
		'Setting out checked on site'
	],
	text: [
		'Clause on inspection added',
		'Answers the remarks of Structures',
		'Value checked and confirmed',
		'Replaces the text sent with the tender',
		'Typing errors mended'
	],
	schedule: [
		'Sizes changed after the workshop',
		'Counts checked against the plan',
		'Rows for the east part added',
		'Material changed'
	],
	photo: ['Sharper picture of the same place']
};

export const LOCK_PURPOSES = [
	'pit wall setting out',
	'answering remarks',
	'coordination changes',
	'checking levels',
	'supplier’s dimensions',
	'preparing the next release',
	'mending the title block'
];

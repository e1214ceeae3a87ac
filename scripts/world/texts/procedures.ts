import type { TextKind } from './kind';

/** How the project works: its procedures, the pages that explain them, templates, and what everything rests on. */
export const PROCEDURES: TextKind[] = [
	{
		title: /^Release procedure/,
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
				'Revisions are fixed at issue, and each file by its hash.',
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
		title: /^Revision procedure/,
		clauses: [
			[
				'What a revision is',
				'The state of a document that has been issued. What lies between two of them is a working save.'
			],
			[
				'Letters and figures',
				'P01, P02 and so on while the design is preliminary; C01 and on once it is part of a contract.',
				'Working saves count behind a point: P03.1 is the first on the way to P03.'
			],
			[
				'Title block',
				'Revision and day in the block are those of the register. A cloud marks what changed since the last issue, and only that.'
			],
			[
				'Never',
				'A revision in a file name, a revision that is used twice, a drawing that is changed after it was issued.'
			],
			[
				'Superseded',
				'Old sheets leave the site hut the day the new ones come. Sefa Tuimala’s team sees to it.'
			]
		],
		added: [
			'A reply with B keeps the revision; the comment is worked in with the next one.',
			'As built begins again at C01 only where the contract says so.'
		]
	},
	{
		title: /^Numbering procedure/,
		clauses: [
			[
				'The number',
				'Project, department, zone, level, type and four figures: VFT-MW-LS-00-DR-0101.',
				'It never changes, whatever the title becomes.'
			],
			[
				'Zones',
				'TB terminal building, LS linkspan, QW quay wall, ML marshalling lanes, SU substation, ZZ all.'
			],
			[
				'Types',
				'DR drawing, CA calculation, SP specification, SH schedule, RP report, MN minutes, PH photograph.'
			],
			[
				'Series',
				'Hundreds go by subject within a zone; a sheet that is added takes the next free number of its hundred.'
			],
			['Who gives them', 'The register proposes; Vida Morrell reserves whole series for a department.']
		],
		added: [
			'A number that was reserved and is not needed is given back within a month.',
			'Suppliers’ drawings get a number of ours beside their own.'
		]
	},
	{
		title: /^How to hand in/,
		clauses: [
			['Take it in hand', 'Then nobody else works on it meanwhile, and everybody sees that you do, and why.'],
			['Work on your copy', 'With the program you always use. The file may lie where it likes.'],
			[
				'Hand in',
				'Choose the file, and say in a few words what changed. That note is what the others read first.',
				'Saving without handing in keeps it in your hand; the others see the new state already.'
			],
			[
				'When somebody was quicker',
				'You are told who, and what they changed. Nothing of yours or theirs is lost.'
			]
		],
		added: ['Hand in before a holiday; what lies in a hand for five working days is asked for.']
	},
	{
		title: /^How to ask for a number/,
		clauses: [
			[
				'Most of the time',
				'Put the file in its folder: the number that fits is proposed. Change it if you know better.'
			],
			['Many at once', 'Paste the list of titles into the register. It gives the numbers in one go.'],
			['Before there is a file', 'A deliverable has its number from the day it is planned.'],
			['Help', 'Vida Morrell, document control, on weekdays until four.']
		],
		added: ['A zone that is not in the list is not typed but asked for.']
	},
	{
		title: /^Specification template/,
		clauses: [
			['Scope', 'What the specification covers, and in one line what it does not.'],
			['Standards', 'Those that are called up, with their years. No standard is listed that no clause uses.'],
			['Materials', 'Grades, finishes and colours as they are ordered.'],
			['Work', 'In the order in which it is done. One requirement a sentence, so that it can be ticked.'],
			['Tests and records', 'Who tests what, how often, against which value, and where it is filed.']
		],
		added: ['Words in angle brackets are for the writer and are deleted.']
	},
	{
		title: /^Minutes template/,
		clauses: [
			['Present, and excused', 'Names with departments. Whoever came late stands where they came in.'],
			['Points', 'Numbered through the whole series, so that point 14 stays point 14.'],
			['Decisions', 'In bold, one sentence each, with the day from which they hold.'],
			['To do', 'Who, what, until when. “All” and “soon” are nobody and never.']
		],
		added: ['Minutes go out within two working days.']
	},
	{
		title: /^Project brief/,
		clauses: [
			[
				'The harbour',
				'Vennholm has one berth for cars, built in 1971. The ferries ordered for the new line do not fit it.'
			],
			[
				'What is built',
				'A terminal for 900 passengers, a linkspan with two lanes, 210 m of new quay wall, eight marshalling lanes, a substation.'
			],
			[
				'Who builds it',
				'Vennholm Harbour Trust, with a grant of the county. The ferry company runs it for twenty years.'
			],
			[
				'While it is built',
				'Six sailings a day go on from the old berth. Nothing closes it without fourteen days’ notice.'
			],
			['When', 'First trial berthing a year after the tower lift; opening before the summer timetable.']
		],
		added: ['The bicycle store was added by the county.', 'The café is fitted out by its tenant.']
	},
	{
		title: /^Basis of design/,
		clauses: [
			[
				'Levels',
				'Metres above chart datum. Mean high water +1.85, highest +3.40, mean low water +0.60, lowest +0.20.'
			],
			[
				'Loads',
				'Lanes and linkspan: 44 t lorries nose to tail, one abnormal load of 120 t. Concourse 5 kPa, plant 7.5 kPa, roof 0.6 kPa.'
			],
			[
				'Wind, snow, waves',
				'Wind 27 m/s, terrain 0. Snow 1.6 kPa on the ground. Waves at the berth 0.9 m, period 4.5 s.'
			],
			['Ground', 'Piles in the dense gravel below -9.0; no shallow footings seaward of grid C.'],
			[
				'Life',
				'Quay wall 60 years, building 50, linkspan 50 with renewable bearings and hoses, equipment 25.'
			],
			['Sea level', 'Plus 0.45 m over the life of the quay wall; plinths of plant stand above +4.30.']
		],
		added: [
			'The abnormal load is the transformer of the island’s power station.',
			'Ice is not looked at: the harbour has not frozen since 1987.'
		]
	},
	{
		title: /^Design responsibility matrix/,
		clauses: [
			[
				'Reading it',
				'Who designs, who checks, who is asked. One name for each; where two meet, the first of them leads.'
			],
			[
				'Deck and towers',
				'Marine works design, Structures check, Tarn Steelwork is asked about every splice.'
			],
			[
				'Foundations',
				'Structures design for the building, Marine works seaward of grid A. The pile type is common.'
			],
			[
				'Duct banks',
				'Building services design the ducts, Structures the boxes where they cross ground beams.'
			],
			['Envelope', 'Architecture design; the movement at the linkspan joint is given by Marine works.']
		],
		added: ['Temporary works are the contractor’s; their drawings are looked at, not approved.']
	}
];

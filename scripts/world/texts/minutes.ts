import type { TextKind } from './kind';

/** Minutes: who was there, and what was said that time. */
export const MINUTES: TextKind[] = [
	{
		title: /workshop minutes, first/,
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
		title: /workshop minutes, second/,
		clauses: [
			['Excused', 'Jun Sabol; the ferry company sends its station manager instead of the ticket staff.'],
			['From last time', 'The shutter is agreed as drawn. The keys stay with the station manager.'],
			['Kiosk', 'Moves beside the entrance, since at the counters people would queue for it twice.'],
			[
				'Cash',
				'One counter keeps a safe; its floor is strengthened, and the route from the van has no steps.'
			],
			['Open', 'The height of the glass. Halla brings two samples; Maren asks the union.']
		],
		added: ['The screen is seen from the café, too.', 'Counter 2 gets the hearing loop first.']
	},
	{
		title: /^Design coordination minutes/,
		clauses: [
			[
				'Present',
				'Ines Maddock (chair), Halla Brandt, Tomas Verrin, Oke Lindvar, Dario Fenn, Wren Ostrow{, Sefa Tuimala|; excused: Sefa Tuimala}.'
			],
			[
				'Last minutes',
				'Agreed. Points {3 and 6|2 and 5|4|1, 7 and 8} are closed; point {9|10|11|12} goes on.'
			],
			{
				some: 4,
				of: [
					[
						'Pit wall',
						'Clashes with the cable duct. Marine works move the wall {100|150|200} towards the quay and reissue 0101.'
					],
					['Roof', 'Structures offer HEB 450 on RB3; Architecture keeps the rooflight where it is.'],
					['Rainwater', 'Two outlets fall on beams. Architecture shifts them by {200|300}; the falls stay.'],
					[
						'Ducts in ground beams',
						'Sleeves of {160|200} are cast in at grids 3 and 6; none lower than half depth.'
					],
					[
						'Lift pit',
						'{1200|1350} deep is enough for the lift that is ordered. The pile cap below it drops with it.'
					],
					['Louvres', 'The generator needs {4.2..5.6} m² free; the screen gets it without growing.'],
					['Gates', 'Power and signal in separate ducts, 300 apart, up to the pit.'],
					[
						'Fire stopping',
						'One supplier for all trades; Building services list the openings by {Friday|the next meeting}.'
					],
					[
						'Movement joint',
						'{30|40} mm at grid 5 in floor, wall and roof; no pipe crosses it without a bellows.'
					],
					['Handrail', 'One section for terminal and linkspan, galvanised, and the wood only indoors.']
				]
			},
			[
				'Programme',
				'{The substructure|The roof frame|The power set|The linkspan set} goes out {for construction|for approval|for comment} once the department checks are through.'
			],
			['Next', 'In a fortnight, {09:00|10:00|13:00}, site office.']
		],
		added: [
			'Building services drop the duct by 200 and say so on their plan.',
			'Document control asks that remarks be settled before a sheet is put in a release.',
			'The site team needs the pile cap levels by Monday.'
		],
		addedTo: 'Programme'
	},
	{
		title: /^Harbour authority meeting/,
		clauses: [
			[
				'Who came',
				'Captain Reyl (harbour authority), Wren Ostrow, Oke Lindvar, Edda Norrow{|, the pilots’ foreman}.'
			],
			{
				some: 4,
				of: [
					[
						'Navigation',
						'The fairway stays {70|80|90} m wide during piling; a guard boat from dusk to dawn.'
					],
					[
						'Closures',
						'{One closure|Two closures|Three closures} of six hours, at neaps, announced fourteen days ahead.'
					],
					[
						'Dredging',
						'Silt goes to the licensed ground; a sounding is handed over every {second|third} week.'
					],
					[
						'Lights',
						'The authority {answers the lighting plan|agrees to the plan with one amber light fewer|asks for screens towards the fairway}.'
					],
					['Anchors', 'The piling barge lies on {four|six} anchors; their buoys are lit.'],
					[
						'Incidents',
						'{None this month|A fishing boat passed inside the buoys; its owner was spoken to|One line in a propeller, cut by the diver}.'
					],
					['Tower lift', 'Needs slack water and less than {6|8} m/s; the two days after are kept free.'],
					['Herring', 'No vibrating of piles in weeks {13 to 16|14 to 17}.']
				]
			},
			[
				'Actions',
				'Oke sends {the sequence of the tower lift|the anchor plan|the new soundings}; Edda {puts the closures into the programme|tells the ferry company|writes the notice to mariners}.'
			]
		],
		added: [
			'The pilots ask for a leading light on the east tower.',
			'The next meeting is aboard the survey boat.'
		]
	},
	{
		title: /^Client progress minutes, September/,
		clauses: [
			[
				'Round the table',
				'Maren Aldgate and Ruud Selmer (Vennholm Harbour Trust), Ines Maddock, Wren Ostrow, Sefa Tuimala.'
			],
			['How far', 'Piling is through on the west part; 31 of 64 piles are in. Ground beams begin in a week.'],
			['Drawings', 'The first linkspan sheets are with the trust for comment.'],
			['Cost', 'One variation is agreed: the second lift.'],
			['On their mind', 'Noise in the evening. Piling ends at six, and the trust says so in the town paper.']
		],
		added: ['The trust’s operators want to see the control room in March.']
	},
	{
		title: /^Client progress minutes, October/,
		clauses: [
			['Attending', 'As last time, and the county’s engineer.'],
			['Site', 'All piles of the west part are tested; the caps of grid A and B are cast.'],
			['With the trust', 'Linkspan sheets came back, most with B. The substructure follows for approval.'],
			['Variations', 'The thicker deck plate is agreed; the heated footway is not.'],
			['Wish', 'That every drawing on site can be shown to be the newest one.']
		],
		added: ['The county asks for the dates by which the grant is drawn.']
	},
	{
		title: /^Client progress minutes, November/,
		clauses: [
			['Who was there', 'Maren Aldgate, Ines Maddock, Wren Ostrow, Bram Oyelund for the site team.'],
			[
				'Progress',
				'The first roof beams are up between grids 1 and 3. The quay wall is two days behind, for wind.'
			],
			['Releases', 'Two replies are overdue; Maren names who gives them, and when.'],
			['Money', 'Nothing new. The reserve for the ground is released by half.'],
			['Dates', 'The opening day stays; the first trial berthing moves by a week.']
		],
		added: ['Photographs of each month go into the trust’s yearly report.']
	}
];

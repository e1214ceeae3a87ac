import type { TextKind } from './kind';

/** What is bought and built, by its own requirements. */
export const SPECIFICATIONS: TextKind[] = [
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
	}
];

import type { TextKind } from './kind';

/** What was reckoned: what it rests on, how, and what comes of it. */
export const CALCULATIONS: TextKind[] = [
	{
		title: /^Roof beam/,
		clauses: [
			['Beam', 'RB1 to RB7 at 7.2 m, 21.6 m long between columns, 3.2 m beyond grid A.'],
			[
				'Loads',
				'Roof 0.9 kPa with services, snow 1.28 kPa, drift at the parapet, uplift 2.1 kPa at the edge.'
			],
			[
				'Governing',
				'Snow with drift: 1010 kNm at midspan, held by HEB 450; uplift turns the edge beams over for 6 m.'
			],
			['Deflection', '54 mm under all of it, 1 in 400; set up by 30 mm in the workshop.']
		],
		added: ['The bolts of the splice govern now.', 'The rooflight upstands add 0.2 kPa on RB3.']
	},
	{
		title: /^Roof bracing/,
		clauses: [
			['Forces', 'Wind on the gables 236 kN each way, and 2.5 % of the compression in seven beams.'],
			['Bracing', 'SHS 150x8 in bays 1 and 6; those between hang on them by the purlins.'],
			['Connections', 'Six M20 8.8 at each end; the gusset at B/6 is 15 thick.'],
			['While it is built', 'Bay 1 is braced before RB3 is let go of.']
		],
		added: ['The edge at the movement joint is stiff by itself.']
	},
	{
		title: /^Column C/,
		clauses: [
			['Column', 'HEB {300|340|400}, {5.8..9.4} m, pinned at the foot, held by the roof.'],
			['Force', '{640..1480} kN with {18..46} kNm at the head, snow and wind together.'],
			['Buckling', 'Slenderness {62..94}, factor 0.{58..77}; used up to 0.{61..88}.'],
			['Foot', 'Plate {420|480} x {420|480} x {30|35}, four M{24|30}, grout 40.'],
			['Struck by a vehicle', '{Not within reach of one|250 kN at 0.5 m, held with the plinth}.']
		],
		added: ['With the crane’s load while the roof is lifted it is used up to 0.9.']
	},
	{
		title: /^Beam B/,
		clauses: [
			['Beam', '{IPE 300|IPE 360|HEA 280}, {5.4..8.1} m, of the first floor, with the slab on top of it.'],
			['Loads', 'Floor {5.9..7.4} kPa, crowd 5 kPa, partitions 0.8 kPa.'],
			['Moment and shear', '{148..312} kNm and {96..204} kN; used up to 0.{64..93}.'],
			['Liveliness', 'First frequency {5.1..7.9} Hz; walking is not felt.']
		],
		added: ['A hole of 200 for the drain is allowed in the middle third.']
	},
	{
		title: /^Slab design, ground/,
		clauses: [
			['Slab', '250 on blinding, between ground beams at 7.2 m; it does not count on the fill.'],
			['Carries', 'Crowd 5 kPa; in the baggage bay a fork lift of 3.5 t.'],
			['Bars', 'H16 at 150 both ways below, H16 at 200 over the beams; cover 40 to the ground.'],
			['Cracks', '0.2 mm, since the water below is salt.']
		],
		added: ['The pit for the weighbridge is a slab of its own.']
	},
	{
		title: /^Slab design, first/,
		clauses: [
			['Deck', 'Profiled sheet 60 x 1.0 with concrete to 140 in all, spans of 2.7 m.'],
			['Wet', 'One prop in the middle until the concrete has 20 MPa; otherwise it sags by 14 mm.'],
			['In use', 'Crowd 5 kPa; used up to 0.71. Mesh A252 for fire and cracks.'],
			['Edges', 'Along the void an angle, welded at 300; the balustrade hangs on it with 1.5 kN/m.']
		],
		added: ['Openings up to 300 need no trimmer.']
	},
	{
		title: /^Stair 2/,
		clauses: [
			['Stair', 'Two flights of eleven steps, 1400 wide, plate stringers 280 x 12.'],
			['People', '5 kPa, and 3 kN/m on the handrail at 1.1 m.'],
			['Shaking', '11 Hz with nobody, 8.4 Hz full: no worry.'],
			['Landing', 'Hangs from the first floor by two rods of 30; rods, not the wall, take it in a fire.']
		],
		added: ['The lowest step stands on the slab with a slot of 20.']
	},
	{
		title: /^Stability of the whole/,
		clauses: [
			['Along', 'Braced bays at grids 1 and 6; 410 kN of wind, sway 9 mm.'],
			['Across', 'Portal frames at each grid; sway 22 mm at the eaves, 1 in 410.'],
			['Sway and its growth', 'Factor 11.8 along, 8.9 across: across is done with second order.'],
			['One column gone', 'The roof hangs over by the purlins and loses bay 4, not more.']
		],
		added: ['With the slab cast, the lower half hardly moves.']
	},
	{
		title: /^Deck plate bearing/,
		clauses: [
			['Wheels', 'Two lanes of 44 t lorries, nose to tail; the abnormal load’s twelve axles of 10 t.'],
			[
				'Plate',
				'16 mm over ribs at 300; local bending 148 MPa under a wheel of 5 t, with the braking lorry added.'
			],
			['Bearing', '3200 kN at each of four at most, -180 kN at the flap with the ferry lifting it.'],
			['Tired after 50 years', '2.1 million lorries; the rib’s weld has a reserve of 1.3.']
		],
		added: ['The wear plate of 6 mm is not counted.']
	},
	{
		title: /^Hinge pin/,
		clauses: [
			['Pin', '280 mm of 34CrNiMo6, in two bushes 310 apart from the middle of the girder.'],
			['Load', 'A braking lorry with the deck at its lowest: 2870 kN across, 410 kN along.'],
			['Bending and shear', '211 and 47 MPa; the bush bears 32 MPa of 60.'],
			['Change', 'Can be drawn towards the water with the deck on its trestles.']
		],
		added: [
			'The keeper plate holds 5 % of the load sideways.',
			'Without grease for a month, friction adds 8 %.'
		]
	},
	{
		title: /^Lifting tower/,
		clauses: [
			['Tower', 'Two legs of 610 x 20 tube, 14.2 m above the pile cap, tied at three levels.'],
			[
				'Loads',
				'Deck on one cylinder 1690 kN; wind; the braking lorry at midspan with the bridge at its highest level.'
			],
			['Head', 'Moves 17 mm; the locking pins take 25.'],
			['Foot', 'Sixteen M48, pretensioned; the cap’s bars are checked with 1.2 times the load.']
		],
		added: ['Ferry strikes the dolphin, not the tower; the gap is 1.8 m.']
	},
	{
		title: /^Foundation/,
		clauses: [
			['Piles', '64 of 900 mm, 3200 to 3600 kN each, in the gravel from -9.8 on.'],
			['Resistance', 'Shaft 3900 and toe 1900 kN, from four tests; drag of the clay 310 kN.'],
			['Group', 'Four pairs a grid line; 0.94 of single piles.'],
			['Sideways', 'Wind and the fill behind: 74 kN a pile, 11 mm at the head.']
		],
		added: ['The stiffness of the ground was halved, and it still holds.']
	},
	{
		title: /^Settlement estimate/,
		clauses: [
			['Building', '6 to 9 mm on its piles, most while it is built.'],
			[
				'Forecourt',
				'70 mm in the first five years where 1.1 m is filled over the clay; the kerb is laid after the first.'
			],
			['Between them', 'A hinged slab of 4 m at every door.'],
			['Measured by', 'Nineteen points, monthly, then yearly.']
		],
		added: ['Wick drains halve the time, not the amount.']
	},
	{
		title: /^Berthing energy/,
		clauses: [
			['Ship', '8400 t, 112 m, 0.18 m/s across; 0.30 if something fails.'],
			['Energy', '265 kNm usually, 730 if something fails.'],
			['Fenders', 'Five cones of 1150: 280 kNm each at 52 %, reaction 640 kN.'],
			['Panel', '3.2 by 4.5 m, 220 kPa on the hull at most.']
		],
		added: ['At lowest water the panel’s edge still reaches 0.6 m below the belting.']
	},
	{
		title: /^Sheet pile wall/,
		clauses: [
			['Wall', 'Retains 9.6 m at the dredged depth, tie rods of 75 mm at 2.4 m.'],
			['Water', '1.0 m higher behind than before, after a falling spring tide.'],
			['Moment', '884 kNm/m at -4.2; section with 4200 cm³/m, of which 4 mm may rust.'],
			['Toe', '-15.4, passive pressure with a reserve of 1.5.']
		],
		added: ['With the crane’s mats 6 m back, the rods rise by 12 %.']
	},
	{
		title: /^Air quantities/,
		clauses: [
			['People', '900 in the concourse at the worst quarter of an hour; 8 l/s each.'],
			['Rooms', 'Toilets 10, café kitchen 40, control room 6 changes an hour.'],
			['Doors', 'Open for a third of the time while boarding; the curtain warms 4.2 m³/s.'],
			['Plant', 'Two units of 4.8 m³/s; one is enough from November to March.']
		],
		added: ['Heat won back 0.74 at the design point.']
	},
	{
		title: /^Short-circuit/,
		clauses: [
			['Source', '11 kV, 180 MVA; transformers 2 x 1000 kVA, 6 %.'],
			['At the main board', '23.1 kA for three phases, 21.4 to earth.'],
			['At the far end', '1.9 kA at the last mast of the lanes: off after 0.3 s.'],
			['On the generator', '4.2 kA; settings change over with the coupler.']
		],
		added: ['The ferry’s shore supply feeds back 1.1 kA, and is blocked.']
	},
	{
		title: /^Runoff/,
		clauses: [
			['Areas', 'Lanes 1.9 ha, roof 0.28 ha, forecourt 0.41 ha.'],
			['Rain', '160 l/s a hectare over ten minutes, once in five years, and a fifth more for what comes.'],
			['Pipes', 'DN 450 to the separator of 65 l/s; what is more goes by, once the first wash is through.'],
			['At high water', 'The outfall is shut for two hours; 310 m³ stand in the pipes and the swale.']
		],
		added: ['Kerbs hold 60 mm on the lanes without harm.']
	},
	{
		title: /^Wind/,
		clauses: [
			[
				'What is given',
				'EN 1991 with the national values; reference wind 27 m/s, terrain category 0, 12.4 m above ground: 1.38 kPa.'
			],
			[
				'Shape',
				'Monopitch of 1.6 degrees; the canopy counts as open with the ferry away, and as blocked with it alongside.'
			],
			['Pressures', 'Uplift 2.1 kPa at the waterside edge over 3.2 m, 1.1 elsewhere; walls +0.9 and -1.3.'],
			['For others', 'Cladding takes the local values; the frame may take those of the zone.']
		],
		added: ['A wind tunnel is not needed at this height.']
	},
	{
		title: /^Snow/,
		clauses: [
			['Snow', '1.6 kPa on the ground, once in fifty years; 1.28 on the roof.'],
			['Drift', '2.9 kPa behind the parapet, falling off over 5 m; 2.2 at the upstands.'],
			['Sliding', 'None at this slope. It hangs over the gutter by 0.4 m: no door below.'],
			['With wind', 'Half of each at a time.']
		],
		added: ['The drift was looked at with the parapet 300 higher.']
	}
];

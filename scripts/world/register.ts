import { plusDays } from '../../src/lib/core/time/days';
import { addDeliverables, movePlanned } from '../../src/lib/server/register/acts';
import { setForecast } from '../../src/lib/server/register/acts-forecast';
import { register } from '../../src/lib/server/register/views';
import { PEOPLE } from './catalogue';
import { Random } from './random';
import { dayIn } from './days';
import type { Doc, Stage } from './stage';

type StageKey = 'comment' | 'approval' | 'construction' | 'as-built';

/** Which documents went out for what, so many days ago: their planned days lie near these. */
const WENT_OUT: { beginning: string; stage: StageKey; daysAgo: number }[] = [
	{ beginning: 'VFT-AR-TB-00', stage: 'comment', daysAgo: 92 },
	{ beginning: 'VFT-ST-TB-FN', stage: 'comment', daysAgo: 81 },
	{ beginning: 'VFT-AR-TB-EX', stage: 'approval', daysAgo: 70 },
	{ beginning: 'VFT-BS-TB', stage: 'comment', daysAgo: 61 },
	{ beginning: 'VFT-MW-LS-00-DR-01', stage: 'comment', daysAgo: 27 },
	{ beginning: 'VFT-MW-LS-00-DR-01', stage: 'approval', daysAgo: 12 }
];
/** So many documents, the first of those that were there, went out each time. */
const AT_A_TIME = 14;

/** The stages of a plan, by the type of document; photographs, minutes and daily records are nobody's plan. */
const PLANS: Partial<Record<string, StageKey[]>> = {
	DR: ['comment', 'approval', 'construction'],
	CA: ['approval'],
	SP: ['comment', 'construction'],
	SH: ['comment', 'construction'],
	RP: ['comment']
};
const WEIGHTS: Partial<Record<string, number>> = { CA: 3, SP: 2, RP: 2, SH: 0.5 };

/** What is planned and nobody has begun: beside which document it stands in its series, and what it is called. */
const NOT_BEGUN: { beside: string; department: string; titles: string[] }[] = [
	{
		beside: 'VFT-AR-TB-00-DR-',
		department: 'AR',
		titles: ['Signage and wayfinding', 'Ticket hall counters']
	},
	{ beside: 'VFT-ST-TB-FN-DR-', department: 'ST', titles: ['Ground beam schedule, grid E to H'] },
	{ beside: 'VFT-MW-LS-00-DR-', department: 'MW', titles: ['Linkspan ladder cages', 'Drip pan details'] },
	{
		beside: 'VFT-MW-QW-00-DR-',
		department: 'MW',
		titles: ['Quay wall end details', 'Bollard plan, berth 2']
	},
	{
		beside: 'VFT-BS-TB-',
		department: 'BS',
		titles: ['Fire alarm, cause and effect', 'Lift shaft smoke vents']
	},
	{ beside: 'VFT-BS-SU-', department: 'BS', titles: ['Earthing layout'] },
	{ beside: 'VFT-PL-ML-', department: 'PL', titles: ['Temporary traffic, stage 3'] }
];

/** The register of the terminal: planned at the beginning, moved once, with what two leads say of it. */
export function planRegister(
	stage: Stage,
	/** How many days ago each document was added. */
	born: ReadonlyMap<Doc, number>,
	step: (daysAgo: number, hour: number, run: () => Promise<void>) => void
): void {
	const chance = new Random('register');
	const ago = (days: number) => dayIn(stage.at(days, 12));
	const responsibleIn = (department: string) => {
		const name = chance.pick(PEOPLE.filter((one) => one.department === department)).name;
		return stage.people.get(name)!.person.id;
	};
	const wentOut = new Map<string, Partial<Record<StageKey, number>>>();
	for (const { beginning, stage: key, daysAgo } of WENT_OUT)
		for (const { number } of stage.docs
			.filter((doc) => doc.number.startsWith(beginning) && born.get(doc)! > daysAgo)
			.slice(0, AT_A_TIME))
			wentOut.set(number, { ...wentOut.get(number), [key]: daysAgo });

	/** Planned days of a deliverable: near the day it went out, else in the weeks to come, a few gone by. */
	function plannedOf(number: string, keys: readonly StageKey[]): Record<string, string> {
		const out = wentOut.get(number) ?? {};
		// What went out for approval was never asked to be commented on.
		const left = out.approval !== undefined && out.comment === undefined ? keys.slice(1) : keys;
		const planned: Record<string, string> = {};
		let last = ago(chance.chance(0.12) ? chance.int(2, 16) : -chance.int(6, 60));
		for (const key of left) {
			const daysAgo = out[key];
			if (daysAgo !== undefined) last = ago(daysAgo + chance.pick([-2, 0, 1, 3, 5, 8]));
			planned[key] = last;
			last = plusDays(last, chance.int(28, 44));
			const soonest = ago(-chance.int(4, 30));
			if (last < soonest && out.approval === undefined) last = soonest;
		}
		return planned;
	}

	step(118, 6, async () => {
		const lines = stage.docs.flatMap((doc: Doc) => {
			const keys = PLANS[doc.run.type];
			if (!keys || doc.title.startsWith('Daily record')) return [];
			return [
				{
					number: doc.number,
					title: doc.title,
					department: stage.departments.get(doc.department)!,
					responsible: responsibleIn(doc.department),
					weight: WEIGHTS[doc.run.type] ?? 1,
					planned: plannedOf(doc.number, keys)
				}
			];
		});
		for (const { beside, department, titles } of NOT_BEGUN) {
			const last = stage.docs
				.map((doc) => doc.number)
				.filter((number) => number.startsWith(beside) && number.includes('-DR-'))
				.sort()
				.at(-1);
			if (!last) throw new Error(`Nothing stands beside ${beside}`);
			titles.forEach((title, i) =>
				lines.push({
					// One number of the series is left out, as happens.
					number: last.replace(/\d+$/, (serial) =>
						String(Number(serial) + 2 + i).padStart(serial.length, '0')
					),
					title,
					department: stage.departments.get(department)!,
					responsible: responsibleIn(department),
					weight: 1,
					planned: plannedOf(last, PLANS.DR!)
				})
			);
		}
		await stage.act('Ines Maddock', addDeliverables, { project: stage.project, deliverables: lines });
	});

	const idsOf = async (more: object) =>
		(await stage.read('Ines Maddock', register, { project: stage.project, limit: 1_000, ...more })).rows.map(
			(row) => row.id
		);
	step(34, 10, async () => {
		const deliverables = await idsOf({ departments: ['BS'], zones: ['SU'] });
		await stage.act('Ines Maddock', movePlanned, {
			project: stage.project,
			deliverables,
			by: 10,
			reason: 'The grid operator answers on the substation two weeks later.'
		});
	});
	step(6, 9, async () => {
		const [first] = await idsOf({ words: 'VFT-MW-QW-00-DR', stage: 'construction' });
		await stage.act('Oke Lindvar', setForecast, {
			project: stage.project,
			deliverable: first,
			stage: 'construction',
			day: ago(-75),
			reason: 'The divers survey the toe in the second week of January.'
		});
	});
}

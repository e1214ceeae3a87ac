import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	checkRoute,
	decidersOf,
	isApproved,
	needed,
	speaksFor,
	standing,
	stepDue,
	stepWords,
	turnOf,
	unmeetable,
	type Decision,
	type Route,
	type Speakers,
	type Step
} from './route';

const person = (id: string) => ({ kind: 'person', id }) as const;
const step = (needs: Step['needs'], ...ids: string[]): Step => ({
	name: 'Check',
	of: ids.map(person),
	needs,
	days: null
});
const approved = (at: number, by: string, digest = 'a', of = person(by)): Decision => ({
	step: at,
	says: 'approved',
	by,
	of,
	digest
});

describe('a route', () => {
	it('says what is wrong with it', () => {
		expect(checkRoute([])).toMatch(/at least one step/);
		expect(checkRoute([step('all')])).toMatch(/name somebody/);
		expect(checkRoute([step('all', 'h', 'h')])).toMatch(/twice/);
		expect(checkRoute([step(3, 'h', 't')])).toBe('Check asks for 3 approvals and names 2.');
		expect(checkRoute([step(2, 'h', 't'), step('any', 'o')])).toBeNull();
	});

	it('goes from step to step, each by its rule', () => {
		const route: Route = [step('all', 'a', 'k'), step(2, 'h', 't', 'o'), step('any', 'i', 'e')];
		const states = (decisions: Decision[]) => standing(route, decisions, 'a').map((one) => one.state);
		expect(states([])).toEqual(['now', 'later', 'later']);
		const first = [approved(0, 'a'), approved(0, 'k')];
		expect(states(first.slice(1))).toEqual(['now', 'later', 'later']);
		expect(states(first)).toEqual(['done', 'now', 'later']);
		const second = [...first, approved(1, 't'), approved(1, 'h')];
		expect(states(second)).toEqual(['done', 'done', 'now']);
		expect(isApproved(route, second, 'a')).toBe(false);
		expect(isApproved(route, [...second, approved(2, 'e')], 'a')).toBe(true);
	});

	it('asks every step again when the build is another, and those from the step that sent it back', () => {
		const route: Route = [step('all', 'a'), step('all', 'h', 't')];
		const until: Decision[] = [approved(0, 'a'), approved(1, 'h')];
		expect(standing(route, until, 'b').map((one) => one.given.length)).toEqual([0, 0]);
		const back: Decision[] = [...until, { ...approved(1, 't'), says: 'sent-back' }];
		expect(standing(route, back, 'a').map((one) => [one.state, one.given.length])).toEqual([
			['done', 1],
			['now', 0]
		]);
		// A build that is made as it was is known to who has seen it.
		expect(standing(route, until, 'a')[1]!.given).toHaveLength(1);
	});

	it('takes one decision of each person on a step, for one of those named', () => {
		const both: Step = {
			...step(2, 'h', 't'),
			of: [person('h'), { kind: 'department', id: 'AR' }, person('t')]
		};
		const speakers: Speakers = {
			leads: new Map([['AR', ['h', 'r']]]),
			groups: new Map(),
			standIns: [{ away: 't', standIn: 'h' }]
		};
		const [now] = standing([both], [], 'a');
		expect(turnOf('h', both, now!, speakers)).toEqual({ may: true, of: person('h'), standsFor: null });
		expect(turnOf('r', both, now!, speakers)).toMatchObject({ may: true, of: { kind: 'department' } });
		const [after] = standing([both], [approved(0, 'h')], 'a');
		expect(turnOf('h', both, after!, speakers)).toEqual({ may: false, why: 'decided' });
		expect(turnOf('x', both, after!, speakers)).toEqual({ may: false, why: 'not-named' });
		const alone = step('any', 't');
		const spoken = standing([alone], [approved(0, 't')], 'a')[0]!;
		expect(turnOf('h', alone, spoken, speakers)).toEqual({ may: false, why: 'spoken' });
		expect(speaksFor('h', person('t'), speakers)).toEqual({ standsFor: 't' });
		expect(speaksFor('t', person('h'), speakers)).toBeNull();
	});

	it('can never be met where too few have anybody who had no hand in the build', () => {
		const speakers: Speakers = {
			leads: new Map([['AR', ['h']]]),
			groups: new Map(),
			standIns: [{ away: 'h', standIn: 'r' }]
		};
		const route: Route = [
			step('any', 't'),
			{ ...step(2), of: [{ kind: 'department', id: 'AR' }, person('o')] }
		];
		const without = (...hands: string[]) => unmeetable(route, speakers, new Set(hands));
		expect(without()).toBeUndefined();
		expect(without('h')).toBeUndefined();
		expect(without('h', 'r')).toBe(route[1]);
		expect(without('t', 'o')).toBe(route[0]);
		expect(decidersOf({ kind: 'department', id: 'AR' }, speakers)).toEqual(['h', 'r']);
	});

	it('counts its days in working days, and says itself in words', () => {
		const calendar = { weekend: ['Sat', 'Sun'] as const, holidays: [{ day: '2026-11-30', name: 'Feast' }] };
		expect(
			stepDue({ ...step('any', 'a'), days: 2 }, '2026-11-27', { ...calendar, weekend: [...calendar.weekend] })
		).toBe('2026-12-02');
		expect(
			stepDue(step('any', 'a'), '2026-11-27', { ...calendar, weekend: [...calendar.weekend] })
		).toBeNull();
		expect(stepWords({ ...step(2, 'h', 't', 'o'), days: 1 }, (one) => one.id.toUpperCase())).toBe(
			'Check: 2 of H, T, O, within 1 working day'
		);
		expect(stepWords(step('all', 'h'), (one) => one.id)).toBe('Check: h');
	});
});

describe('through any history of approvals, changes, absences and what is sent back', () => {
	const people = ['a', 'b', 'c', 'd', 'e'];
	const departments = new Map([
		['AR', ['a', 'b']],
		['ST', ['c']]
	]);
	const approver = fc.oneof(
		fc.constantFrom(...people).map(person),
		fc.constantFrom('AR', 'ST').map((id) => ({ kind: 'department', id }) as const)
	);
	const anyStep = fc
		.uniqueArray(approver, { minLength: 1, maxLength: 3, selector: (one) => `${one.kind}${one.id}` })
		.chain((of) =>
			fc.record({
				name: fc.constant('Step'),
				of: fc.constant(of),
				needs: fc.oneof(
					fc.constantFrom('all' as const, 'any' as const),
					fc.integer({ min: 1, max: of.length })
				),
				days: fc.constant(null)
			})
		);
	const happening = fc.oneof(
		{
			weight: 6,
			arbitrary: fc.record({ what: fc.constant('approve' as const), who: fc.constantFrom(...people) })
		},
		{
			weight: 1,
			arbitrary: fc.record({ what: fc.constant('back' as const), who: fc.constantFrom(...people) })
		},
		{
			weight: 1,
			arbitrary: fc.record({ what: fc.constant('change' as const), who: fc.constantFrom('1', '2') })
		},
		{
			weight: 1,
			arbitrary: fc.record({
				what: fc.constant('away' as const),
				who: fc.constantFrom(...people),
				standIn: fc.constantFrom(...people)
			})
		}
	);

	it('nothing is approved that a step has not seen as it is, by enough people who spoke for those it names', () => {
		let whole = 0;
		fc.assert(
			fc.property(
				fc.array(anyStep, { minLength: 1, maxLength: 3 }),
				fc.array(happening, { maxLength: 40 }),
				(route, history) => {
					let digest = '1';
					let standIns: { away: string; standIn: string }[] = [];
					const decisions: Decision[] = [];
					// Told apart from `standing`: for each step who said yes to this digest since it was last sent back.
					let yes = route.map(() => [] as { by: string; digest: string }[]);
					for (const one of history) {
						const speakers = { leads: departments, groups: new Map<string, string[]>(), standIns };
						const at = standing(route, decisions, digest).findIndex((s) => s.state === 'now');
						if (one.what === 'change') digest = one.who;
						else if (one.what === 'away')
							standIns =
								one.who === one.standIn
									? standIns.slice(1)
									: [...standIns, { away: one.who, standIn: one.standIn }];
						else if (at >= 0) {
							const turn = turnOf(one.who, route[at]!, standing(route, decisions, digest)[at]!, speakers);
							if (one.what === 'approve' && turn.may) {
								decisions.push({ step: at, says: 'approved', by: one.who, of: turn.of, digest });
								yes[at]!.push({ by: one.who, digest });
							} else if (one.what === 'back' && turn.may) {
								decisions.push({ step: at, says: 'sent-back', by: one.who, of: turn.of, digest });
								yes = yes.map((said, step) => (step >= at ? [] : said));
							}
						}
						if (!isApproved(route, decisions, digest)) continue;
						whole++;
						for (const [step, said] of yes.entries()) {
							const eyes = new Set(said.filter((s) => s.digest === digest).map((s) => s.by));
							expect(eyes.size).toBeGreaterThanOrEqual(needed(route[step]!));
						}
					}
				}
			),
			{ numRuns: 2_000 }
		);
		expect(whole).toBeGreaterThan(100);
	});
});

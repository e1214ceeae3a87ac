import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { capped, decide, type Entry, type Step, type Subject } from './decide';
import { allows, LEVELS, type Level } from './levels';

const NOW = 1_000;
const oke: Subject = {
	personId: 'oke',
	projectId: 'vft',
	controller: false,
	departments: ['mw'],
	leads: ['mw'],
	groups: ['dc'],
	outside: false,
	ceiling: null
};

/** Rule A2 said a second time, plainly: subject by subject, place by place. */
function naive(who: Subject, way: readonly Step[], now: number): Level | null {
	if (who.controller && !way.some((step) => step.desk)) return 'manage';
	const subjects: [Entry['subjectKind'], string][] = [
		['person', who.personId],
		['everyone', who.projectId],
		...who.departments.map((d): [Entry['subjectKind'], string] => ['department', d]),
		...who.leads.map((d): [Entry['subjectKind'], string] => ['leads', d]),
		...who.groups.map((g): [Entry['subjectKind'], string] => ['group', g])
	];
	type Said = { kind: string; level: Level | null; at: number; exactly: boolean };
	const verdicts: Said[] = [];
	for (const [kind, id] of subjects) {
		for (let at = 0; at < way.length; at++) {
			const here = way[at]!.entries.filter(
				(e) => e.subjectKind === kind && e.subjectId === id && (e.endsAt === null || e.endsAt > now)
			);
			if (here.length) {
				verdicts.push({ kind, level: here[0]!.level, at, exactly: here[0]!.exactly });
				break;
			}
		}
	}
	const past = (v: Said) => way.slice(0, v.at).some((step) => step.closed);
	const open = naiveVerdict(verdicts);
	const shut = naiveVerdict(verdicts.filter((v) => !past(v) || v.level === null || v.level === 'manage'));
	const rank = (level: Level | null) => (level === null ? -1 : LEVELS.indexOf(level));
	return rank(shut) < rank(open) ? shut : open;
}

function naiveVerdict(
	verdicts: { kind: string; level: Level | null; at: number; exactly: boolean }[]
): Level | null {
	const own = verdicts.find((v) => v.kind === 'person');
	if (own && own.level === null) return null;
	for (const v of verdicts) {
		if (v.level === null && (!own || own.at > v.at)) return null;
	}
	if (own?.exactly) return own.level;
	const held = verdicts.filter((v) => v.level !== null).map((v) => LEVELS.indexOf(v.level!));
	return held.length ? LEVELS[Math.max(...held)]! : null;
}

const entry = fc.record<Entry>({
	subjectKind: fc.constantFrom('person', 'department', 'leads', 'group', 'everyone'),
	subjectId: fc.constantFrom('oke', 'mw', 'st', 'dc', 'vft'),
	level: fc.option(fc.constantFrom(...LEVELS), { nil: null }),
	exactly: fc.boolean(),
	endsAt: fc.option(fc.integer({ min: 900, max: 1_100 }), { nil: null })
});
const way = fc.array(
	fc.record<Step>({
		entries: fc.uniqueArray(entry, { selector: (e) => `${e.subjectKind}:${e.subjectId}`, maxLength: 6 }),
		closed: fc.boolean()
	}),
	{ maxLength: 5 }
);

const asDesk = (steps: Step[]): Step[] =>
	steps.map((step, i) => (i === steps.length - 1 ? { ...step, desk: true } : step));

describe('decide', () => {
	it('agrees with the plain statement of the rule for any entries', () => {
		fc.assert(
			fc.property(way, (steps) => {
				expect(decide(oke, steps, NOW)).toBe(naive(oke, steps, NOW));
			}),
			{ numRuns: 5_000 }
		);
	});

	it('never gives anybody more by closing a place', () => {
		fc.assert(
			fc.property(way, fc.nat(4), (steps, at) => {
				const closed = steps.map((step, i) => (i === at ? { ...step, closed: true } : step));
				const open = steps.map((step, i) => (i === at ? { ...step, closed: false } : step));
				const rank = (level: Level | null) => (level === null ? -1 : LEVELS.indexOf(level));
				expect(rank(decide(oke, closed, NOW))).toBeLessThanOrEqual(rank(decide(oke, open, NOW)));
			}),
			{ numRuns: 5_000 }
		);
	});

	it('lets bars and lower, nearer grants above a closed place go on counting (A3)', () => {
		const at = (subjectKind: Entry['subjectKind'], level: Level | null, exactly = false): Entry => ({
			subjectKind,
			subjectId: subjectKind === 'person' ? 'oke' : 'mw',
			level,
			exactly,
			endsAt: null
		});
		const closed = { entries: [], closed: true };
		const open = (...entries: Entry[]) => ({ entries, closed: false });
		// Barred at the shelf, with Manage through the leads; barred between; and a lower grant between.
		expect(decide(oke, [closed, open(at('person', null), at('leads', 'manage'))], NOW)).toBeNull();
		expect(decide(oke, [closed, open(at('person', null)), open(at('person', 'manage'))], NOW)).toBeNull();
		expect(
			decide(oke, [closed, open(at('department', 'view')), open(at('department', 'manage'))], NOW)
		).toBeNull();
		// Given exactly, so the leads' Manage does not count: closing must not bring it up.
		expect(decide(oke, [closed, open(at('person', 'view', true), at('leads', 'manage'))], NOW)).toBe('view');
	});

	it('gives nothing where nothing stands', () => {
		expect(decide(oke, [{ entries: [], closed: false }], NOW)).toBeNull();
	});

	it('gives controllers Manage everywhere, apart from desks, where they are as everybody (A5)', () => {
		const controller = { ...oke, controller: true };
		expect(decide(controller, [], NOW)).toBe('manage');
		fc.assert(
			fc.property(way, fc.boolean(), (steps, desk) => {
				const at = desk ? asDesk(steps) : steps;
				expect(decide(controller, at, NOW)).toBe(naive(controller, at, NOW));
				if (at.length) expect(decide(controller, asDesk(at), NOW)).toBe(decide(oke, asDesk(at), NOW));
			}),
			{ numRuns: 2_000 }
		);
	});
});

describe('caps', () => {
	it('a freeze leaves Manage alone and caps the rest at Remark', () => {
		expect(capped('work', { frozen: true, archived: false, inHand: false })).toBe('remark');
		expect(capped('manage', { frozen: true, archived: false, inHand: false })).toBe('manage');
		expect(capped('view', { frozen: true, archived: false, inHand: false })).toBe('view');
	});
	it('an archived document caps everyone at Download', () => {
		expect(capped('manage', { frozen: false, archived: true, inHand: false })).toBe('download');
	});
	it('a lock of somebody else caps everyone at Remark, Manage too', () => {
		expect(capped('manage', { frozen: false, archived: false, inHand: true })).toBe('remark');
	});
	it('Drop includes nothing but itself', () => {
		expect(allows('drop', 'view')).toBe(false);
		expect(allows('drop', 'drop')).toBe(true);
		expect(allows(null, 'drop')).toBe(false);
	});
});

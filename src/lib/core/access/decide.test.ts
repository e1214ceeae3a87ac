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
	if (who.controller) return 'run';
	const subjects: [Entry['subjectKind'], string][] = [
		['person', who.personId],
		['everyone', who.projectId],
		...who.departments.map((d): [Entry['subjectKind'], string] => ['department', d]),
		...who.leads.map((d): [Entry['subjectKind'], string] => ['leads', d]),
		...who.groups.map((g): [Entry['subjectKind'], string] => ['group', g])
	];
	const verdicts: { kind: string; level: Level | null; at: number; exactly: boolean }[] = [];
	for (const [kind, id] of subjects) {
		for (let at = 0; at < way.length; at++) {
			const closedBelow = way.slice(0, at).some((s) => s.closed);
			const here = way[at]!.entries.filter(
				(e) =>
					e.subjectKind === kind &&
					e.subjectId === id &&
					(e.endsAt === null || e.endsAt > now) &&
					(!closedBelow || e.level === 'run')
			);
			if (here.length) {
				verdicts.push({ kind, level: here[0]!.level, at, exactly: here[0]!.exactly });
				break;
			}
		}
	}
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

describe('decide', () => {
	it('agrees with the plain statement of the rule for any entries', () => {
		fc.assert(
			fc.property(way, (steps) => {
				expect(decide(oke, steps, NOW)).toBe(naive(oke, steps, NOW));
			}),
			{ numRuns: 5_000 }
		);
	});

	it('gives nothing where nothing stands', () => {
		expect(decide(oke, [{ entries: [], closed: false }], NOW)).toBeNull();
	});

	it('gives controllers Run everywhere', () => {
		expect(decide({ ...oke, controller: true }, [], NOW)).toBe('run');
	});
});

describe('caps', () => {
	it('a freeze leaves Run alone and caps the rest at Remark', () => {
		expect(capped('work', { frozen: true, archived: false })).toBe('remark');
		expect(capped('run', { frozen: true, archived: false })).toBe('run');
		expect(capped('look', { frozen: true, archived: false })).toBe('look');
	});
	it('an archived document caps everyone at Take', () => {
		expect(capped('run', { frozen: false, archived: true })).toBe('take');
	});
	it('Drop includes nothing but itself', () => {
		expect(allows('drop', 'look')).toBe(false);
		expect(allows('drop', 'drop')).toBe(true);
		expect(allows(null, 'drop')).toBe(false);
	});
});

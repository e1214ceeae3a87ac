import { describe, expect, it } from 'vitest';
import { CONTRACTS } from '../../contract';
import { EVENTS, eventOf } from '../../core/events';
import { ACTS } from './acts';
import { VIEWS } from './views';

/** Kinds that no act tells, but jobs and rooms do: reminders, checks of what came in, and live work in pauses. */
const TOLD_BESIDE = [
	'hatch.checked',
	'hatch.unsafe',
	'live.written',
	'lock.stale',
	'marks.drawn',
	'release.reminded'
];

describe('the registry', () => {
	it('does and answers everything that the contract says, and nothing else', () => {
		const done = [...ACTS, ...VIEWS].map((one) => one.name).sort();
		expect(done).toEqual(CONTRACTS.map((one) => one.name).sort());
		expect(new Set(done).size).toBe(done.length);
	});

	it('tells only kinds of event that the catalogue knows', () => {
		const told = ACTS.flatMap((act) => act.events);
		expect(told.filter((kind) => !eventOf(kind))).toEqual([]);
	});

	it('has nothing in the catalogue that nobody tells', () => {
		const told = new Set([...ACTS.flatMap((act) => act.events), ...TOLD_BESIDE]);
		expect(EVENTS.map((one) => one.kind).filter((kind) => !told.has(kind))).toEqual([]);
	});
});

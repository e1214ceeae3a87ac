import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heldAfter, stateOf, type Handing, type Held } from './holders';

const sent = (seq: number, more: Partial<Handing> = {}): Handing => ({
	label: `P0${seq}`,
	seq,
	way: 'sent',
	at: `2026-11-0${seq}T08:00:00.000Z`,
	release: seq,
	confirmed: null,
	...more
});

/** What somebody holds through all that they were handed; null where that is nothing. */
function held(handings: readonly Handing[], issued: number | null) {
	let all: Held | undefined;
	for (const one of handings) all = heldAfter(all, one, one.way, one.confirmed !== null);
	return all ? { label: all.label, state: stateOf(all, issued) } : null;
}

describe('what somebody holds', () => {
	it('is the newest that was sent or taken, and confirmed once they said so or took it', () => {
		expect(held([], 3)).toBeNull();
		expect(held([sent(2)], 2)).toEqual({ label: 'P02', state: 'unconfirmed' });
		expect(held([sent(2, { confirmed: '2026-11-03T08:00:00.000Z' })], 2)!.state).toBe('current');
		expect(held([sent(2), sent(2, { way: 'downloaded' })], 2)!.state).toBe('current');
		expect(held([sent(1), sent(2)], 3)).toEqual({ label: 'P02', state: 'old' });
	});

	it('is nothing that was only looked at, and an old receipt confirms nothing newer', () => {
		expect(held([sent(2, { way: 'opened' })], 2)).toBeNull();
		expect(held([sent(1, { confirmed: '2026-11-02T08:00:00.000Z' }), sent(2)], 2)!.state).toBe('unconfirmed');
		expect(held([sent(1)], null)!.state).toBe('unconfirmed');
	});

	it('through any history is one revision, whose order does not matter, and old exactly when a newer is issued', () => {
		const handing = fc.record({
			seq: fc.integer({ min: 1, max: 6 }),
			way: fc.constantFrom('sent' as const, 'downloaded' as const, 'opened' as const),
			confirmed: fc.option(fc.constant('2026-11-09T08:00:00.000Z'), { nil: null })
		});
		fc.assert(
			fc.property(fc.array(handing, { maxLength: 8 }), fc.integer({ min: 1, max: 6 }), (all, issued) => {
				const handings = all.map(({ seq, ...more }) => sent(seq, more));
				const holding = held(handings, issued);
				expect(held([...handings].reverse(), issued)).toEqual(holding);
				const mine = handings.filter((one) => one.way !== 'opened').map((one) => one.seq);
				expect(holding?.label ?? null).toBe(mine.length ? `P0${Math.max(...mine)}` : null);
				expect(holding?.state === 'old').toBe(mine.length > 0 && Math.max(...mine) < issued);
			})
		);
	});
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holdingOf, type Handing } from './holders';

const sent = (seq: number, more: Partial<Handing> = {}): Handing => ({
	label: `P0${seq}`,
	seq,
	way: 'sent',
	at: `2026-11-0${seq}T08:00:00.000Z`,
	release: seq,
	confirmed: null,
	...more
});

describe('what somebody holds', () => {
	it('is the newest that was sent or taken, and confirmed once they said so or took it', () => {
		expect(holdingOf([], 3)).toBeNull();
		expect(holdingOf([sent(2)], 2)).toEqual({ label: 'P02', state: 'unconfirmed' });
		expect(holdingOf([sent(2, { confirmed: '2026-11-03T08:00:00.000Z' })], 2)!.state).toBe('current');
		expect(holdingOf([sent(2), sent(2, { way: 'downloaded' })], 2)!.state).toBe('current');
		expect(holdingOf([sent(1), sent(2)], 3)).toEqual({ label: 'P02', state: 'old' });
	});

	it('is nothing that was only looked at, and an old receipt confirms nothing newer', () => {
		expect(holdingOf([sent(2, { way: 'opened' })], 2)).toBeNull();
		expect(holdingOf([sent(1, { confirmed: '2026-11-02T08:00:00.000Z' }), sent(2)], 2)!.state).toBe(
			'unconfirmed'
		);
		expect(holdingOf([sent(1)], null)!.state).toBe('unconfirmed');
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
				const held = holdingOf(handings, issued);
				expect(holdingOf([...handings].reverse(), issued)).toEqual(held);
				const mine = handings.filter((one) => one.way !== 'opened').map((one) => one.seq);
				expect(held?.label ?? null).toBe(mine.length ? `P0${Math.max(...mine)}` : null);
				expect(held?.state === 'old').toBe(mine.length > 0 && Math.max(...mine) < issued);
			})
		);
	});
});

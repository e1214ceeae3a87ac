import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gets, receivingWords, replyDayOf, sharingFault, type Receiving, type Share } from './recipients';
import { toRemind } from './colleagues';

const DOCUMENTS = ['a', 'b', 'c'].map((id) => ({ id, number: id.toUpperCase() }));
const share: fc.Arbitrary<Share> = fc.record({
	name: fc.constantFrom('Maren', 'Kaja'),
	expects: fc.constantFrom('verdicts', 'receipt', 'information'),
	// One of them is not in the release any more.
	documents: fc.option(fc.subarray(['a', 'b', 'c', 'gone']), { nil: null })
});

describe('who gets what of a release', () => {
	it('is in order exactly when everybody gets something and everything goes to somebody', () => {
		fc.assert(
			fc.property(
				fc.array(share, { maxLength: 3 }),
				fc.subarray(DOCUMENTS, { minLength: 1 }),
				(shares, held) => {
					const got = shares.map((one) => held.filter(({ id }) => gets(one, id)).map(({ id }) => id));
					const right =
						got.length > 0 && got.every((of) => of.length > 0) && new Set(got.flat()).size === held.length;
					expect(sharingFault(shares, held) === null).toBe(right);
				}
			),
			{ numRuns: 1_000 }
		);
	});

	it('says who gets nothing, and what goes to nobody', () => {
		const of = (name: string, documents: string[] | null): Share => ({ name, expects: 'receipt', documents });
		expect(sharingFault([], DOCUMENTS)).toMatch(/^Nobody gets/);
		expect(sharingFault([of('Maren', null), of('Kaja', ['gone'])], DOCUMENTS)).toMatch(/^Kaja gets none/);
		expect(sharingFault([of('Maren', ['a', 'b'])], DOCUMENTS)).toMatch(/^C goes to nobody/);
	});

	it('is said in one line, in which whatever differs shows', () => {
		const one: Receiving = {
			name: 'Maren Aldgate',
			company: 'Harbour Trust',
			email: 'maren@trust.example',
			expects: 'verdicts',
			replyBy: '2026-12-10',
			asks: 'code',
			documents: null
		};
		expect(receivingWords(one)).toBe(
			'Maren Aldgate, Harbour Trust <maren@trust.example>: all of it, verdicts, reply by 2026-12-10, asks for a code by mail'
		);
		const others: Receiving[] = [
			{ ...one, expects: 'receipt' },
			{ ...one, replyBy: null },
			{ ...one, asks: 'password' },
			{ ...one, documents: ['A'] },
			{ ...one, email: 'kaja@tarn.example' }
		];
		expect(new Set([one, ...others].map(receivingWords)).size).toBe(6);
	});

	it('has a reply day only where verdicts are asked: their own, or the one of the release', () => {
		const release = { replyBy: '2026-12-10' };
		expect(replyDayOf(release, { expects: 'verdicts', replyBy: null })).toBe('2026-12-10');
		expect(replyDayOf(release, { expects: 'verdicts', replyBy: '2026-12-01' })).toBe('2026-12-01');
		expect(replyDayOf(release, { expects: 'receipt', replyBy: '2026-12-01' })).toBeNull();
	});
});

describe('who is reminded of what a recipient was asked', () => {
	const one = (name: string, instead = false) => ({ name, instead });
	it('they and who answers along with them; or only those to whom they handed over', () => {
		const maren = one('Maren');
		expect(toRemind(maren, [])).toEqual([maren]);
		expect(toRemind(maren, [one('Ivo')])).toEqual([maren, one('Ivo')]);
		expect(toRemind(maren, [one('Ivo'), one('Runa', true)])).toEqual([one('Runa', true)]);
	});
});

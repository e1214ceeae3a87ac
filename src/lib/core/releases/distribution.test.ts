import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PURPOSES } from '../revisions/revisions';
import { proposed, ruleWords, type DistributionRule, type Numbered } from './distribution';
import { EXPECTS, PROOFS } from './recipients';

const rule = (more: Partial<DistributionRule> = {}): DistributionRule => ({
	recipient: 'maren',
	expects: 'verdicts',
	asks: 'nothing',
	purposes: [],
	departments: [],
	zones: [],
	types: [],
	...more
});
const doc = (id: string, department: string, type = 'DR', zone = 'TB'): Numbered => ({
	id,
	department,
	zone,
	type
});
const DOCS = [doc('a', 'ST'), doc('b', 'AR'), doc('c', 'ST', 'CA')];

describe('the distribution list', () => {
	it('gives each what their rules are about, and says nothing of documents to who gets all', () => {
		const rules = [
			rule({ asks: 'code' }),
			rule({
				recipient: 'kaja',
				expects: 'receipt',
				purposes: ['construction'],
				departments: ['ST'],
				types: ['DR']
			}),
			rule({ recipient: 'runa', expects: 'information', departments: ['AR', 'PL'] })
		];
		expect(proposed(rules, 'construction', DOCS)).toEqual([
			{ recipient: 'maren', expects: 'verdicts', asks: 'code', documents: null },
			{ recipient: 'kaja', expects: 'receipt', asks: 'nothing', documents: ['a'] },
			{ recipient: 'runa', expects: 'information', asks: 'nothing', documents: ['b'] }
		]);
		expect(proposed(rules, 'comment', [DOCS[0]!]).map((one) => one.recipient)).toEqual(['maren']);
		expect(proposed(rules, 'construction', []).map((one) => one.recipient)).toEqual(['maren']);
	});

	it('puts the rules of one person together: all that any gives, the most that one asks', () => {
		expect(
			proposed(
				[
					rule({ expects: 'information', types: ['CA'], asks: 'code' }),
					rule({ expects: 'verdicts', departments: ['ST'], asks: 'password' })
				],
				'approval',
				DOCS
			)
		).toEqual([{ recipient: 'maren', expects: 'verdicts', asks: 'code', documents: ['a', 'c'] }]);
	});

	it('gives a document to somebody exactly where one of their rules fits it', () => {
		const some = (of: string[]) => fc.subarray(of);
		const rules = fc.array(
			fc.record({
				recipient: fc.constantFrom('maren', 'kaja'),
				expects: fc.constantFrom(...EXPECTS),
				asks: fc.constantFrom(...PROOFS),
				purposes: fc.subarray([...PURPOSES]),
				departments: some(['ST', 'AR']),
				zones: some(['TB', 'LS']),
				types: some(['DR', 'CA'])
			}),
			{ maxLength: 5 }
		);
		const held = fc.uniqueArray(
			fc.record({
				id: fc.constantFrom('a', 'b', 'c', 'd'),
				department: fc.constantFrom('ST', 'AR', 'MW'),
				zone: fc.constantFrom('TB', 'LS'),
				type: fc.constantFrom('DR', 'CA')
			}),
			{ selector: (one) => one.id, minLength: 1 }
		);
		fc.assert(
			fc.property(rules, held, fc.constantFrom(...PURPOSES), (of, documents, purpose) => {
				const to = proposed(of, purpose, documents);
				for (const who of ['maren', 'kaja'])
					for (const one of documents) {
						const got = to.some(
							(share) => share.recipient === who && (share.documents?.includes(one.id) ?? true)
						);
						const naive = of.some(
							(r) =>
								r.recipient === who &&
								(r.purposes.length === 0 || r.purposes.includes(purpose)) &&
								(r.departments.length === 0 || r.departments.includes(one.department)) &&
								(r.zones.length === 0 || r.zones.includes(one.zone)) &&
								(r.types.length === 0 || r.types.includes(one.type))
						);
						expect(got).toBe(naive);
					}
				// Nobody is proposed nothing, and nobody twice.
				expect(to.every((share) => share.documents?.length !== 0)).toBe(true);
				expect(new Set(to.map((share) => share.recipient)).size).toBe(to.length);
			}),
			{ numRuns: 1_000 }
		);
	});

	it('says of a rule what it is about', () => {
		expect(ruleWords(rule())).toBe('every document');
		expect(ruleWords(rule({ departments: ['ST', 'AR'], types: ['DR'] }))).toBe(
			'documents of departments ST, AR of type DR'
		);
	});
});

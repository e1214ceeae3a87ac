import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mergeTexts, settledText } from './merge';

const BASE = '# Grouting\n\nMix the grout for three minutes.\nPour within 20 minutes.\n\nClean the tools.\n';

describe('merging texts', () => {
	it('takes what each changed alone', () => {
		const newest = BASE.replace('three', 'five');
		const side = BASE + 'Sign the record.\n';
		expect(mergeTexts(BASE, newest, side)).toEqual([{ kind: 'agreed', text: newest + 'Sign the record.\n' }]);
	});

	it('merges within a line that both changed in different words', () => {
		const newest = BASE.replace('Mix the grout', 'Stir the grout');
		const side = BASE.replace('three minutes', 'five minutes');
		expect(settledText(mergeTexts(BASE, newest, side), [])).toContain('Stir the grout for five minutes.');
	});

	it('leaves to people what both changed in different ways', () => {
		const parts = mergeTexts(BASE, BASE.replace('20', '15'), BASE.replace('20', '30'));
		expect(parts.filter((p) => p.kind === 'conflict')).toEqual([
			{ kind: 'conflict', base: '20 ', newest: '15 ', side: '30 ' }
		]);
		expect(settledText(parts, [])).toBeNull();
		expect(settledText(parts, ['newest'])).toContain('within 15 minutes');
		expect(settledText(parts, ['side'])).toContain('within 30 minutes');
		expect(settledText(parts, ['both'])).toContain('within 15 30 minutes');
	});

	const text = fc
		.array(fc.constantFrom('a', 'b', 'c d', 'e f g', ''), { maxLength: 12 })
		.map((lines) => lines.join('\n'));

	it('gives one side back when the other changed nothing, or both did the same', () => {
		fc.assert(
			fc.property(text, text, (base, other) => {
				expect(settledText(mergeTexts(base, base, other), [])).toBe(other);
				expect(settledText(mergeTexts(base, other, base), [])).toBe(other);
				expect(settledText(mergeTexts(base, other, other), [])).toBe(other);
			})
		);
	});

	it('loses nothing: taking the newest everywhere, or the side, keeps every word of it', () => {
		fc.assert(
			fc.property(text, text, text, (base, newest, side) => {
				const parts = mergeTexts(base, newest, side);
				const conflicts = parts.filter((p) => p.kind === 'conflict').length;
				// The same words changed by both in the same way stand once, whichever way round they are merged.
				const other = mergeTexts(base, side, newest).filter((p) => p.kind === 'conflict').length;
				expect(other).toBe(conflicts);
				expect(settledText(parts, new Array(conflicts).fill('both'))).not.toBeNull();
			})
		);
	});
});

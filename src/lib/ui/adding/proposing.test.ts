import { afterEach, expect, it, vi } from 'vitest';
import { standardRule } from '../../core/numbering/numbering';

/** How many were asked about in each question. */
const asked = vi.hoisted(() => [] as number[]);
vi.mock('../../client/cupboard', () => ({
	cupboard: {
		proposals: ({ files }: { files: string[] }) => {
			asked.push(files.length);
			// Each question is answered by itself: what the one before was told is not known any more.
			let next = 100;
			const number = (file: string) =>
				/^own/.test(file) ? 'VFT-MW-LS-00-DR-0101' : `VFT-MW-LS-00-DR-${String(++next).padStart(4, '0')}`;
			return Promise.resolve({
				proposals: files.map((file) => ({
					number: number(file),
					title: file,
					from: /^own/.test(file) ? 'name' : 'next',
					file
				}))
			});
		},
		numbersInUse: ({ numbers }: { numbers: string[] }) => {
			asked.push(numbers.length);
			const inUse = numbers.filter((number) => /7$/.test(number));
			return Promise.resolve({
				inUse: inUse.map((number) => ({ number, free: `${number}-1`, document: null }))
			});
		}
	}
}));
const { proposalsFor, usesOf } = await import('./proposing');
afterEach(() => void (asked.length = 0));

const rule = standardRule('VFT', [{ code: 'MW', name: 'Marine works' }]);
const many = Array.from({ length: 2_300 }, (_, i) => `sheet ${i}`);

it('numbers are proposed for any number of files, and none is free for two', async () => {
	const proposed: { number: string; title: string }[] = [];
	for await (const one of proposalsFor('folder', rule, many, ['VFT-MW-LS-00-DR-0102'])) proposed.push(one);
	expect(Math.max(...asked)).toBeLessThanOrEqual(1_000);
	expect(proposed.map((one) => one.title)).toEqual(many);
	const numbers = new Set(proposed.map((one) => one.number));
	expect([numbers.size, numbers.has('VFT-MW-LS-00-DR-0102')]).toEqual([2_300, false]);
});

it('a number that a file says itself stays, whoever has it: that is for people to settle', async () => {
	const numbers: string[] = [];
	for await (const { number } of proposalsFor('folder', rule, ['own 1', 'own 2', 'other']))
		numbers.push(number);
	expect(numbers.map((number) => number.slice(-4))).toEqual(['0101', '0101', '0102']);
});

it('uses are asked about of any number of numbers, and what is free is said too', async () => {
	const numbers = many.map((_, i) => `N-${i}`);
	const uses = new Map<string, unknown>();
	for await (const [number, use] of usesOf('p', numbers)) uses.set(number, use);
	expect(Math.max(...asked)).toBeLessThanOrEqual(1_000);
	expect([...uses.keys()]).toEqual(numbers);
	expect([uses.get('N-17'), uses.get('N-18')]).toEqual([
		{ number: 'N-17', free: 'N-17-1', document: null },
		null
	]);
});

import { describe, expect, it } from 'vitest';
import { CallError } from '../../client/call';
import { eachOf, refusedText } from './each';

const refusing = (sentences: Record<number, string>) => (n: number) =>
	sentences[n] ? Promise.reject(new CallError('conflict', sentences[n], {})) : Promise.resolve();

describe('something done with each of many', () => {
	it('goes on past what is refused, and says what was', async () => {
		const outcome = await eachOf([1, 2, 3, 4], refusing({ 2: 'Oke was first.', 3: 'It is gone.' }));
		expect(outcome).toEqual({ done: 2, refused: ['Oke was first.', 'It is gone.'] });
		expect(refusedText(outcome, 'restored')).toBe('2 of 4 could not be restored: Oke was first. It is gone.');
	});

	it('says a reason once, and counts what is more than two', async () => {
		const outcome = await eachOf([1, 2, 3, 4], refusing({ 1: 'a.', 2: 'a.', 3: 'b.', 4: 'c.' }));
		expect(refusedText(outcome, 'sorted in')).toBe(
			'4 of 4 could not be sorted in: a. b. And 1 other reason.'
		);
		expect(refusedText(await eachOf([1], refusing({})), 'restored')).toBe('');
	});

	it('ends when the line is down', async () => {
		const tried: number[] = [];
		const act = (n: number) => {
			tried.push(n);
			return n === 2 ? Promise.reject(new TypeError('fetch failed')) : Promise.resolve();
		};
		await expect(eachOf([1, 2, 3], act)).rejects.toThrow('fetch failed');
		expect(tried).toEqual([1, 2]);
	});
});

import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { paced } from './paced';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it('tells the first at once, and of what comes soon after only the last, at the end of the time', () => {
	const told: number[] = [];
	const tell = paced<number>(50, (value) => told.push(value));
	for (const value of [1, 2, 3]) tell(value);
	expect(told).toEqual([1]);
	vi.advanceTimersByTime(49);
	expect(told).toEqual([1]);
	vi.advanceTimersByTime(1);
	expect(told).toEqual([1, 3]);
	vi.advanceTimersByTime(200);
	expect(told).toEqual([1, 3]);
	tell(4);
	expect(told).toEqual([1, 3, 4]);
});

it('tells at once when asked to, and forgets what waited', () => {
	const told: (number | null)[] = [];
	const tell = paced<number | null>(50, (value) => told.push(value));
	tell(1);
	tell(2);
	tell.now(null);
	vi.advanceTimersByTime(100);
	expect(told).toEqual([1, null]);
	tell(3);
	tell(4);
	tell.stop();
	vi.advanceTimersByTime(100);
	expect(told).toEqual([1, null, 3]);
});

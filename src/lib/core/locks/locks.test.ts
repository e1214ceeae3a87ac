import { DAY } from '../time/spans';
import { describe, expect, it } from 'vitest';
import { isStale, staleFrom } from './locks';

describe('stale locks', () => {
	it('go by the expected end when there is one within the limit', () => {
		expect(staleFrom({ takenAt: 0, expectedEnd: DAY }, 5)).toBe(DAY);
		expect(isStale({ takenAt: 0, expectedEnd: DAY }, 5, DAY - 1)).toBe(false);
		expect(isStale({ takenAt: 0, expectedEnd: DAY }, 5, DAY)).toBe(true);
	});
	it('go by the limit without an end or with one beyond it', () => {
		expect(staleFrom({ takenAt: 0, expectedEnd: null }, 5)).toBe(5 * DAY);
		expect(staleFrom({ takenAt: 0, expectedEnd: 90 * DAY }, 5)).toBe(5 * DAY);
	});
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween, plusDays } from '../../core/time/days';
import { dayAt, shareOf, ticksOf, windowOf, ZOOMS } from './strip';

const today = '2026-11-27';
const near = fc.integer({ min: -900, max: 900 }).map((n) => plusDays(today, n));
const span = fc.tuple(near, near).map(([a, b]) => ({ from: a < b ? a : b, to: a < b ? b : a }));
const zoom = fc.constantFrom(...ZOOMS.map((one) => one.value));

describe('the strip of time', () => {
	it('shows everything and today, unless it is moved on', () => {
		fc.assert(
			fc.property(span, zoom, (of, how) => {
				const window = windowOf(of, how, today, 0);
				expect(shareOf(today, window)).toBeGreaterThan(0);
				expect(shareOf(today, window)).toBeLessThan(1);
				if (how === 'all') expect(window.from < of.from && window.to > of.to).toBe(true);
			})
		);
	});

	it('puts a day where it is found again', () => {
		fc.assert(
			fc.property(span, zoom, near, (of, how, day) => {
				const window = windowOf(of, how, today, 0);
				expect(dayAt(shareOf(day, window), window)).toBe(day);
			})
		);
	});

	it('names a few days in order, none twice', () => {
		fc.assert(
			fc.property(span, zoom, fc.integer({ min: -4, max: 4 }), (of, how, moved) => {
				const window = windowOf(of, how, today, moved);
				const ticks = ticksOf(window);
				expect(ticks.length).toBeLessThanOrEqual(12);
				expect(ticks.every(({ day }) => day >= window.from && day <= window.to)).toBe(true);
				expect(ticks.map(({ day }) => day)).toEqual([...new Set(ticks.map(({ day }) => day))].sort());
				if (daysBetween(window.from, window.to) > 400) expect(ticks.length).toBeGreaterThan(1);
			})
		);
	});
});

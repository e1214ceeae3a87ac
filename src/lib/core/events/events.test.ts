import { describe, expect, it } from 'vitest';
import { EVENTS, eventText, kindsAbout, kindsTouching, OPENINGS } from '.';

const words = { day: (at: string) => at.slice(0, 10), moment: (at: string) => at };

describe('the catalogue of events', () => {
	it('says something of every kind, also of events that were written with fewer details', () => {
		for (const { kind } of EVENTS) expect(eventText({ kind, details: {} }, words), kind).not.toBe(kind);
	});

	it('gives each kind a name of its own, and says whom it concerns', () => {
		expect(new Set(EVENTS.map((one) => one.kind)).size).toBe(EVENTS.length);
		expect(EVENTS.filter((one) => one.touches.length === 0)).toEqual([]);
	});

	it('takes apart what was only looked at from what changed', () => {
		for (const one of EVENTS) expect(one.touches.includes('openings'), one.kind).toBe(one.opening ?? false);
		expect(OPENINGS).toContain('document.downloaded');
		expect(OPENINGS).not.toContain('version.handed-in');
	});

	it('writes days by the clock of whoever reads, and levels in today’s words', () => {
		const text = eventText(
			{
				kind: 'access.given',
				details: { who: 'Tarn', level: 'Look', before: 'Drop', place: 'Pit', until: '2026-12-01T22:59:59Z' }
			},
			words
		);
		expect(text).toBe('gave Tarn View on Pit until 2026-12-01 (was Drop)');
	});

	it('finds the kinds about a thing, and those that concern a part of the application', () => {
		expect(kindsAbout('lock')).toContain('lock.taken');
		expect(kindsAbout('lock')).not.toContain('document.added');
		expect(kindsTouching('in-hand')).toEqual(kindsAbout('lock'));
	});

	it('tells what nobody knows any more by its kind', () => {
		expect(eventText({ kind: 'shelf.painted', details: {} }, words)).toBe('shelf.painted');
	});
});

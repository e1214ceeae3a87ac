import { describe, expect, it } from 'vitest';
import { agoText, dayText, initials, placeWord, plural, sizeText, takenText, whenText } from './words';

const zone = 'Europe/Stockholm';

describe('words', () => {
	it('places as people call them', () => {
		const called = (kind: string, onDesk: boolean) => placeWord({ kind, onDesk });
		expect([called('shelf', false), called('shelf', true)]).toEqual(['shelf', 'desk']);
		expect([called('folder', true), called('document', true)]).toEqual(['folder', 'document']);
	});

	it('sizes in the units people use', () => {
		expect([sizeText(1), sizeText(940_000), sizeText(2_100_000), sizeText(1_074_000_000)]).toEqual([
			'1 kB',
			'940 kB',
			'2.1 MB',
			'1.1 GB'
		]);
	});

	it('days and times in the project’s time zone, relative only under a day', () => {
		const now = new Date('2026-11-23T10:00:00Z');
		expect(whenText('2026-11-23T08:12:00Z', zone, now)).toBe('today 09:12');
		expect(whenText('2026-11-22T23:30:00Z', zone, now)).toBe('today 00:30');
		expect(whenText('2026-11-22T15:20:00Z', zone, now)).toBe('yesterday 16:20');
		expect(whenText('2026-11-19T15:20:00Z', zone, now)).toBe('19 Nov');
		expect(dayText('2020-09-03T12:00:00Z', zone)).toBe('3 Sep 2020');
		expect(agoText('2026-11-23T09:55:10Z', now.getTime())).toBe('4 min');
		expect(agoText('2026-11-23T07:00:00Z', now.getTime())).toBe('3 h');
	});

	it('counts with the right form', () => {
		expect([plural(1, 'document'), plural(1_200, 'document'), plural(2, 'shelf', 'shelves')]).toEqual([
			'1 document',
			'1,200 documents',
			'2 shelves'
		]);
	});

	it('says of a photograph what its camera wrote, and nothing of what it did not', () => {
		expect(takenText({})).toBe('');
		expect(takenText({ Make: 'Vennholm', Model: 'Site camera' })).toBe('with Vennholm Site camera');
		expect(takenText({ latitude: 57.2, longitude: -11.05 })).toBe('at 57.20000° N, 11.05000° W');
		expect(takenText({ latitude: 57.2 })).toBe('');
	});

	it('initials', () => {
		expect([initials('Oke Lindvar'), initials('Ines van der Maddock'), initials('Tarn')]).toEqual([
			'OL',
			'IM',
			'T'
		]);
	});
});

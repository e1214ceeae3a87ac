import { describe, expect, it } from 'vitest';
import { differences, type Build } from './build';
import { changesOf, changesWords, leavingWords, MOST_COPIED, stampText } from './copies';

const [AS_IS, STAMPED, MARKED, BOTH] = [
	{ stamped: false, withMarks: false },
	{ stamped: true, withMarks: false },
	{ stamped: false, withMarks: true },
	{ stamped: true, withMarks: true }
];
const file = (mediaType: string, size = 1_000) => ({ mediaType, size });

describe('what is put on a document on its way out (T6)', () => {
	it.each([
		['nothing where nothing is asked', AS_IS, file('application/pdf'), 3, null],
		['a stamp on a PDF', STAMPED, file('application/pdf'), 3, { stamp: true, marks: 0 }],
		['no stamp on a drawing, which cannot carry one', STAMPED, file('image/vnd.dxf'), 3, null],
		['no stamp on a schedule', STAMPED, file('text/csv'), 0, null],
		['marks on a drawing', MARKED, file('image/vnd.dxf'), 3, { stamp: false, marks: 3 }],
		['nothing where there are no marks', MARKED, file('application/pdf'), 0, null],
		['nothing on what is no sheet', MARKED, file('text/markdown'), 2, null],
		[
			'both on a drawing with marks, for that leaves as PDF',
			BOTH,
			file('image/vnd.dxf'),
			1,
			{ stamp: true, marks: 1 }
		],
		['a stamp alone on a picture without marks', BOTH, file('image/png'), 0, { stamp: true, marks: 0 }],
		['nothing on what is too large to be copied', BOTH, file('application/pdf', MOST_COPIED + 1), 2, null]
	])('is %s', (_, leaving, of, marks, is) => {
		expect(changesOf(leaving, of, marks)).toEqual(is);
	});

	it('is said in words that agree', () => {
		expect(changesWords({ stamp: true, marks: 1 })).toBe('stamped, with 1 mark');
		expect(changesWords({ stamp: false, marks: 12 })).toBe('with 12 marks');
		expect([AS_IS, STAMPED, BOTH].map(leavingWords)).toEqual([
			'as they are',
			'stamped',
			'stamped, with the marks on them'
		]);
	});

	it('says on its stamp what the sheet is, what it may be used for and with what it left', () => {
		const of = {
			number: 'VFT-MW-LS-00-DR-0101',
			revision: 'C01',
			suitability: { code: 'A1', words: 'Authorized and accepted' },
			release: 42,
			day: '2026-11-27'
		};
		const said = 'VFT-MW-LS-00-DR-0101 C01 · A1 Authorized and accepted\nRelease 0042 · 27 Nov 2026';
		expect(stampText({ ...of, words: '' })).toBe(said);
		expect(stampText({ ...of, words: 'Harbour works' })).toBe(`Harbour works\n${said}`);
	});
});

describe('what somebody approved', () => {
	const build = (more: Partial<Build>, marks?: string): Build => ({
		title: 'Linkspan',
		purpose: 'approval',
		recipients: ['Maren Aldgate'],
		words: '',
		route: ['Halla Brandt'],
		replyBy: null,
		items: [
			{
				number: 'VFT-1',
				title: 'Deck',
				label: 'P01.1',
				to: 'P01',
				hash: 'a',
				accepted: [],
				...(marks ? { marks } : {})
			}
		],
		...more
	});

	it('is another build when the documents leave otherwise, or with other marks', () => {
		expect(differences(build({}), build({}))).toEqual([]);
		expect(differences(build({}), build({ leaving: 'stamped' }))).toEqual([
			'Its documents leave: as they are became stamped.'
		]);
		expect(differences(build({}, 'one'), build({}, 'two'))).toEqual([
			'VFT-1: the marks that go out on it changed.'
		]);
	});
});

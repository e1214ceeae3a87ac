import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { standardRule } from '../numbering/numbering';
import {
	changesOf,
	fatesOf,
	FIELD_HEADS,
	matchColumns,
	plannedHead,
	type Names,
	type Present,
	type Wanted
} from './import';
import { USUAL_STAGES } from './stages';

const departments = [
	{ id: 'dmw', code: 'MW', name: 'Marine works' },
	{ id: 'dar', code: 'AR', name: 'Architecture' }
];
const names: Names = {
	rule: standardRule('VFT', departments),
	stages: USUAL_STAGES,
	departments,
	people: [
		{ id: 'oke', name: 'Oke Lindvar', email: 'oke@vennholm.example' },
		{ id: 'one', name: 'Bram Oyelund', email: 'bram@vennholm.example' },
		{ id: 'two', name: 'Bram Oyelund', email: 'bram.o@vennholm.example' }
	],
	today: '2026-11-27'
};
const heads = [...Object.values(FIELD_HEADS), ...USUAL_STAGES.map(plannedHead)];
const columns = matchColumns(heads, USUAL_STAGES, {});
const there = (more: Partial<Present> = {}): Present => ({
	number: 'VFT-MW-LS-00-DR-0101',
	title: 'Hinge details',
	department: 'dmw',
	responsible: null,
	weight: 1,
	planned: { comment: '2026-11-02', approval: null },
	...more
});
const fate = (cells: string[], present: Present[] = []) =>
	fatesOf([cells], columns, names, new Map(present.map((one) => [one.number, one])))[0]!;
const NUMBER = 'VFT-MW-LS-00-DR-0101';

describe('columns of a list', () => {
	it('are told by their heads, in the words of the trade too', () => {
		expect(columns.slice(0, 5)).toEqual(['number', 'title', 'department', 'responsible', 'weight']);
		expect(
			matchColumns(['Doc No', 'Drawing Title', 'Discipline', 'For approval', 'Sheet size'], USUAL_STAGES, {})
		).toEqual(['number', 'title', 'department', 'planned:approval', null]);
	});

	it('are as they were matched by hand before, and each is taken once', () => {
		const known = { 'sheet size': null, 'issue 2': 'planned:approval', title: null } as const;
		expect(matchColumns(['Number', 'Title', 'Issue  2', 'No.'], USUAL_STAGES, known)).toEqual([
			'number',
			null,
			'planned:approval',
			null
		]);
	});
});

describe('what becomes of a line', () => {
	it('is new, changed or the same', () => {
		expect(fate([NUMBER, 'Hinge details', 'MW', '', '1', '2 Nov 2026', ''])).toMatchObject({
			fate: 'new',
			wanted: { department: 'dmw', planned: { comment: '2026-11-02' } }
		});
		expect(fate([NUMBER, 'Hinge details', 'Marine works', '', '1', '2 Nov', ''], [there()])).toEqual({
			fate: 'same'
		});
		expect(
			fate([NUMBER, 'Hinges', 'AR', 'Oke Lindvar', '2', '9.11.2026', '2026-12-14'], [there()])
		).toMatchObject({
			fate: 'changed',
			changes: [
				{ what: 'title', from: 'Hinge details', to: 'Hinges' },
				{ what: 'department', from: 'dmw', to: 'dar' },
				{ what: 'responsible', from: '', to: 'oke' },
				{ what: 'weight', from: '1', to: '2' },
				{ what: 'planned:comment', from: '2026-11-02', to: '2026-11-09' },
				{ what: 'planned:approval', from: '', to: '2026-12-14' }
			]
		});
	});

	it('leaves what is there where a cell is empty', () => {
		expect(fate([NUMBER, '', '', '', '', '', ''], [there({ responsible: 'oke', weight: 3 })])).toEqual({
			fate: 'same'
		});
	});

	it('is refused with why', () => {
		const why = (cells: string[]) => {
			const said = fate(cells);
			return said.fate === 'refused' ? said.why : said.fate;
		};
		expect(why(['', 'Hinge details'])).toBe('The number is missing.');
		expect(why(['VFT-XX-LS-00-DR-0101', 'Hinge details'])).toContain('not a department');
		expect(why([NUMBER, ''])).toBe('The title is missing.');
		expect(why([NUMBER, 'a/b'])).toContain('cannot be');
		expect(why([NUMBER, 'Hinges', 'Painters'])).toBe('No department is called “Painters”.');
		expect(why([NUMBER, 'Hinges', 'MW', 'Nobody'])).toContain('Nobody in the project');
		expect(why([NUMBER, 'Hinges', 'MW', 'Bram Oyelund'])).toContain('Give the mail address');
		expect(why([NUMBER, 'Hinges', 'MW', 'Bram Oyelund <bram.o@vennholm.example>'])).toBe('new');
		expect(why([NUMBER, 'Hinges', 'MW', '', 'heavy'])).toContain('is no weight');
		expect(why([NUMBER, 'Hinges', 'MW', '', '', '31 Nov'])).toContain('is no day for For comment');
	});

	it('is refused for a number that stands in the list twice', () => {
		const rows = [
			[NUMBER, 'Hinges'],
			[NUMBER, 'Hinges again']
		];
		expect(fatesOf(rows, columns, names, new Map())).toMatchObject([
			{ fate: 'new' },
			{ fate: 'refused', why: `${NUMBER} stands in line 1 of the list already.` }
		]);
	});
});

/** What a deliverable is once a list was taken in. */
const after = (present: Present, { planned, ...rest }: Wanted): Present => ({
	...present,
	...rest,
	planned: { ...present.planned, ...planned }
});

describe('taking in a list', () => {
	const present = fc.record({
		number: fc.constant(NUMBER),
		title: fc.constantFrom('Hinge details', 'Guard rail, east'),
		department: fc.constantFrom(null, 'dmw', 'dar'),
		responsible: fc.constantFrom(null, 'oke', 'one', 'two'),
		weight: fc.constantFrom(0.25, 1, 12),
		planned: fc.dictionary(
			fc.constantFrom(...USUAL_STAGES.map((one) => one.key)),
			fc.option(fc.constantFrom('2026-11-02', '2027-02-28')),
			{ noNullPrototype: true }
		)
	});
	/** The cells that an export writes. */
	const cellsOf = (one: Present) => [
		one.number,
		one.title,
		departments.find(({ id }) => id === one.department)?.code ?? '',
		names.people.find(({ id }) => id === one.responsible)?.email ?? '',
		String(one.weight),
		...USUAL_STAGES.map(({ key }) => one.planned[key] ?? '')
	];

	it('changes nothing when it is an export (G6)', () => {
		fc.assert(
			fc.property(present, (one) => {
				expect(fate(cellsOf(one), [one])).toEqual({ fate: 'same' });
			})
		);
	});

	it('leaves nothing to change when it is taken in again', () => {
		fc.assert(
			fc.property(present, present, (one, other) => {
				const first = fate(cellsOf(other), [one]);
				if (first.fate !== 'changed') return;
				const then = after(one, first.wanted);
				expect(changesOf(first.wanted, then)).toEqual([]);
				expect(fate(cellsOf(other), [then])).toEqual({ fate: 'same' });
			})
		);
	});
});

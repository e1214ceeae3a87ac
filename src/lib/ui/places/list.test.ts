import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DocumentRow } from '../../core/documents/rows';
import { sortRows, type SortKey } from './list';

const row = (number: string, more: Partial<DocumentRow> = {}): DocumentRow =>
	({
		id: number,
		number,
		title: `Title of ${number}`,
		tags: [],
		label: 'P01.1',
		changedAt: '2026-11-01T00:00:00.000Z',
		mediaType: 'application/pdf',
		size: 10,
		lock: null,
		inRelease: null,
		withClient: null,
		...more
	}) as DocumentRow;
const numbers = (rows: DocumentRow[]) => rows.map((r) => r.number);

describe('the list of a folder', () => {
	it('counts numbers up as people do', () => {
		expect(numbers(sortRows([row('A-10'), row('A-9'), row('A-100')], '', 'number', false))).toEqual([
			'A-9',
			'A-10',
			'A-100'
		]);
	});

	it('puts what is in hand before what is in a release before the rest', () => {
		const held = { holder: 'Oke Lindvar' } as DocumentRow['lock'];
		const rows = [
			row('1'),
			row('2', { withClient: 31 }),
			row('3', { inRelease: 34 }),
			row('4', { lock: held })
		];
		expect(numbers(sortRows(rows, '', 'now', false))).toEqual(['4', '3', '2', '1']);
	});

	it('keeps rows that hold every word, wherever each stands', () => {
		const rows = [
			row('MW-1', { title: 'Hinge pin', lock: { holder: 'Oke Lindvar' } as DocumentRow['lock'] }),
			row('MW-2', { title: 'Hinge plate' })
		];
		expect(numbers(sortRows(rows, 'HINGE  oke', 'number', false))).toEqual(['MW-1']);
		expect(numbers(sortRows(rows, 'in hand', 'number', false))).toEqual(['MW-1']);
		expect(sortRows(rows, 'hinge nobody', 'number', false)).toEqual([]);
	});

	it('never loses or doubles a row, and leaves what it was given as it was', () => {
		const any = fc.array(
			fc.record({ number: fc.string(), size: fc.nat(), title: fc.string(), changedAt: fc.string() }),
			{ maxLength: 40 }
		);
		const keys: SortKey[] = ['number', 'title', 'label', 'now', 'changed', 'kind', 'size'];
		fc.assert(
			fc.property(any, fc.constantFrom(...keys), fc.boolean(), (facts, key, down) => {
				const rows = facts.map((f, i) => row(f.number, { ...f, id: String(i) }));
				const before = [...rows];
				const sorted = sortRows(rows, '', key, down);
				expect(rows).toEqual(before);
				expect(new Set(sorted)).toEqual(new Set(rows));
				expect(sorted).toHaveLength(rows.length);
			})
		);
	});
});

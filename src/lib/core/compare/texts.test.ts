import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareTexts } from './texts';
import { columnLetter, compareTables, headed, keyColumns } from './tables';

const brief = (before: string[], after: string[]) =>
	compareTexts(before, after).flatMap((b) =>
		b.kind === 'same'
			? []
			: [
					`${b.kind}: ${b.runs.map((r) => ({ same: '', removed: '-', added: '+' })[r.kind] + r.text).join('')}`
				]
	);

describe('comparing texts', () => {
	it('finds nothing in a text and itself, whatever the spaces', () => {
		expect(brief(['One  two', 'three'], ['One two ', 'three'])).toEqual([]);
	});
	it('shows words that were added and removed in the flow of their paragraph', () => {
		expect(
			brief(['Coat the steel with 240 µm of epoxy.'], ['Coat the steel with 320 µm of epoxy, twice.'])
		).toEqual(['changed: Coat the steel with -240+320 µm of epoxy+, twice.']);
	});
	it('tells a paragraph that moved from one that was written anew', () => {
		const moved = 'The hinge pins are greased every month.';
		const kinds = compareTexts(
			[moved, 'B stays here', 'C stays too'],
			['B stays here', 'C stays too', moved]
		);
		expect(kinds.map((b) => b.kind)).toEqual(['moved-from', 'same', 'same', 'moved-to']);
		expect(kinds.map((b) => b.change)).toEqual([null, null, null, 1]);
	});
	it('gives back both texts whole, whatever was changed', () => {
		const paragraph = fc
			.array(fc.constantFrom('quay', 'pile', 'deck', 'of', 'the', '12', 'mm'), { minLength: 1, maxLength: 8 })
			.map((w) => w.join(' '));
		fc.assert(
			fc.property(
				fc.array(paragraph, { maxLength: 12 }),
				fc.array(paragraph, { maxLength: 12 }),
				(before, after) => {
					const blocks = compareTexts(before, after);
					const side = (leave: string, not: string) =>
						blocks.flatMap((b) => {
							if (b.kind === leave || b.kind === `moved-${leave === 'added' ? 'to' : 'from'}`) return [];
							return [
								b.runs
									.filter((r) => r.kind !== not)
									.map((r) => r.text)
									.join('')
							];
						});
					expect(side('added', 'added')).toEqual(before);
					expect(side('removed', 'removed')).toEqual(after);
				}
			)
		);
	});
});

const table = (...rows: string[]) => ({ name: 'Piles', rows: rows.map((r) => r.split('|')) });

describe('comparing schedules', () => {
	const before = table('Pile schedule', 'Mark|Length|Note', 'P1|12.0|', 'P2|12.5|tight', 'P3|11.0|');
	it('finds heading and key', () => {
		expect(headed(before)).toMatchObject({ columns: ['Mark', 'Length', 'Note'] });
		expect(keyColumns(before, before)).toEqual(['Mark', 'Length']);
	});
	it('passes over a title row of several cells', () => {
		const titled = table(
			'VFT-MW-SH-0003|Deck panels|P02.1',
			'Mark|Place|Size|Count|Note',
			'D1|2/B|650|8|',
			'D2|5/C|550|6|x'
		);
		expect(headed(titled).columns).toEqual(['Mark', 'Place', 'Size', 'Count', 'Note']);
	});
	it('says which cells, rows and columns changed, whatever the order', () => {
		const after = table('Mark|Length|Grade|Note', 'P3|11.0|S355|', 'P1|12.5|S355|', 'P4|9.0|S355|new');
		const [found] = compareTables([before], [after]);
		expect(found).toMatchObject({ key: 'Mark', kind: 'changed', changes: 4 });
		expect(found!.columns.map((c) => c.kind)).toEqual(['same', 'same', 'added', 'same']);
		expect(found!.rows.map((r) => [r.kind, r.key])).toEqual([
			['removed', 'P2'],
			['same', 'P3'],
			['changed', 'P1'],
			['added', 'P4']
		]);
		expect(found!.rows.find((r) => r.key === 'P1')!.cells[1]).toEqual({ before: '12.0', after: '12.5' });
	});
	it('finds nothing in a schedule and itself, and counts every planted cell', () => {
		fc.assert(
			fc.property(fc.array(fc.nat(99), { minLength: 1, maxLength: 30 }), fc.nat(29), (lengths, pick) => {
				const rows = lengths.map((l, i) => `K${i}|${l}|x`);
				const made = () => table('Mark|Length|Note', ...rows);
				expect(compareTables([made()], [made()])[0]!.kind).toBe('same');
				const other = made();
				other.rows[1 + (pick % lengths.length)]![1] += '.5';
				expect(compareTables([made()], [other])[0]!.changes).toBe(1);
			})
		);
	});
	it('names columns as sheets do', () => {
		expect([0, 25, 26, 701, 702].map(columnLetter)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA']);
	});
});

import { z } from 'zod';
import { cellText } from './cell';
import type { CellValue, Column, Row, Total } from './column';
import type { Formulas } from './formula';

const filterSchema = z.union([
	z.strictObject({ has: z.string().max(200) }),
	z.strictObject({ oneOf: z.array(z.string().max(2_000)).max(200) })
]);
/** What the cells of a column must say. */
export type Filter = { readonly has: string } | { readonly oneOf: readonly string[] };

const lookSchema = z.object({
	sort: z.object({ column: z.string(), descending: z.boolean() }).nullable(),
	filters: z.record(z.string(), filterSchema),
	frozen: z.int().min(0)
});
/** How one person looks at a schedule; the others' order stays as it is. */
export interface Arrangement {
	sort: { column: string; descending: boolean } | null;
	/** By column: what its cells must say. */
	filters: Readonly<Record<string, Filter>>;
}
/** How somebody looks at a schedule, with how many columns at the left stay in sight. */
export interface Look {
	arrangement: Arrangement;
	frozen: number;
}
export const AS_IT_IS: Look = { arrangement: { sort: null, filters: {} }, frozen: 1 };

export const lookText = ({ arrangement, frozen }: Look): string => JSON.stringify({ ...arrangement, frozen });

/** A look that was kept as text; what speaks of columns that are gone is left out, and so is what is none. */
export function keptLook(text: string | null, columns: readonly Pick<Column, 'id'>[]): Look {
	let kept: unknown;
	try {
		kept = JSON.parse(text ?? 'null');
	} catch {
		return AS_IT_IS;
	}
	const read = lookSchema.safeParse(kept);
	if (!read.success) return AS_IT_IS;
	const there = new Set(columns.map((c) => c.id));
	const { sort, filters, frozen } = read.data;
	return {
		arrangement: {
			sort: sort && there.has(sort.column) ? sort : null,
			filters: Object.fromEntries(Object.entries(filters).filter(([column]) => there.has(column)))
		},
		frozen: Math.min(frozen, columns.length)
	};
}

/** What a cell of any column holds in a row, formulas worked out; null where there is nothing or a fault. */
export function valueIn(row: Row, column: Column, formulas: Formulas): CellValue | null {
	if (column.kind !== 'formula') return row.cells[column.id] ?? null;
	const worked = formulas.of(row, column);
	return 'value' in worked ? worked.value : null;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

function compared(a: CellValue | null, b: CellValue | null, down: 1 | -1): number {
	// Empty cells stand at the end in both directions.
	if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
	if (typeof a === 'number' && typeof b === 'number') return (a - b) * down;
	return collator.compare(cellText(a), cellText(b)) * down;
}

/** The rows that somebody sees, in the order in which they see them. */
export function arranged(
	rows: readonly Row[],
	columns: readonly Column[],
	{ sort, filters }: Arrangement,
	formulas: Formulas
): Row[] {
	const tests = columns.flatMap((column) => {
		const filter = filters[column.id];
		if (!filter) return [];
		if ('oneOf' in filter) {
			const wanted = new Set(filter.oneOf);
			return [(row: Row) => wanted.has(cellText(valueIn(row, column, formulas)))];
		}
		const wanted = filter.has.trim().toLowerCase();
		return wanted
			? [
					(row: Row) =>
						cellText(valueIn(row, column, formulas))
							.toLowerCase()
							.includes(wanted)
				]
			: [];
	});
	const found = rows.filter((row) => tests.every((test) => test(row)));
	const by = sort && columns.find((c) => c.id === sort.column);
	if (!by) return found;
	const down = sort.descending ? -1 : 1;
	return found
		.map((row) => ({ row, value: valueIn(row, by, formulas) }))
		.sort((a, b) => compared(a.value, b.value, down))
		.map(({ row }) => row);
}

/** What stands beneath a column, over the rows that are seen; null where there is nothing to say. */
export function totalOf(
	rows: readonly Row[],
	column: Column,
	formulas: Formulas,
	total: Total = column.total
): number | null {
	if (total === 'none') return null;
	const values = rows.map((row) => valueIn(row, column, formulas)).filter((v) => v !== null);
	if (total === 'count') return values.length;
	const numbers = values.filter((v) => typeof v === 'number');
	if (!numbers.length) return null;
	const sum = numbers.reduce((a, b) => a + b, 0);
	switch (total) {
		case 'sum':
			return sum;
		case 'mean':
			return sum / numbers.length;
		case 'least':
			return numbers.reduce((a, b) => Math.min(a, b));
		case 'most':
			return numbers.reduce((a, b) => Math.max(a, b));
	}
}

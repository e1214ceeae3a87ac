import Papa from 'papaparse';
import { isDay, type Cell, type List } from '../../../core/lists/list';

/** What the worker needs to write a list as a file. */
export interface ListTask {
	task: 'list';
	format: 'xlsx' | 'csv' | 'pdf';
	list: List;
}

const text = (cell: Cell): string => (isDay(cell) ? cell.day : String(cell ?? ''));

/** As CSV in UTF-8. A cell that begins like a formula must not become one in a sheet; an import takes the sign away again. */
export function listAsCsv({ columns, rows }: Pick<List, 'columns' | 'rows'>): Uint8Array {
	return new TextEncoder().encode(
		'\ufeff' +
			Papa.unparse([columns.map(({ head }) => head), ...rows.map((row) => row.map(text))], {
				escapeFormulae: true
			})
	);
}

/** Writes a list as a file. */
export async function writeList({ format, list }: ListTask): Promise<Uint8Array> {
	switch (format) {
		case 'csv':
			return listAsCsv(list);
		case 'xlsx':
			return (await import('./sheet')).listAsXlsx(list);
		case 'pdf':
			return (await import('./printed')).listAsPdf(list);
	}
}

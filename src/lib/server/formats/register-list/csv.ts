import Papa from 'papaparse';
import { columnsOf, isDay, type Cell } from './columns';
import type { RegisterListTask } from './task';

const text = (cell: Cell): string => (isDay(cell) ? cell.day : String(cell ?? ''));

export function toCsv({ stages, lines }: RegisterListTask): Uint8Array {
	const columns = columnsOf(stages);
	const rows = [
		columns.map((column) => column.head),
		...lines.map((line) => columns.map(({ cell }) => text(cell(line))))
	];
	// A cell that begins like a formula must not become one in a sheet; an import takes the sign away again.
	return new TextEncoder().encode('\ufeff' + Papa.unparse(rows, { escapeFormulae: true }));
}

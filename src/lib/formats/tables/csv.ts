import Papa from 'papaparse';
import { withoutTrailing } from '../../core/compare/tables';
import { tellSeparator } from '../../core/files/csv';
import type { ShownTable } from '../../core/files/shown';
import type { Most } from './sheet';

/** The rows of a CSV, whichever separator it has. */
export function csvTable(text: string, name: string, most: Most): ShownTable {
	const { data, meta } = Papa.parse<string[]>(text, { preview: most.rows, delimiter: tellSeparator(text) });
	const rows = withoutTrailing(data.map((r) => (r.length > 1 || r[0] ? r : [])));
	return { name, rows, shown: null, formulas: 0, comments: 0, cut: meta.truncated };
}

import excel from '@protobi/exceljs';
import { dateToSerial, format } from 'numfmt';
import { withoutTrailing } from '../../core/compare/tables';
import type { ShownTable } from '../../core/files/shown';
import type { Most } from './sheet';

/** The format that every program writes in its reader's own order of day and month. */
const SHORT_DAY = 'mm-dd-yy';
const DAY = 'yyyy-mm-dd';

/** A cell's value as text: the result of a formula, a day as 2026-11-27, rich text as plain. */
function valueText(value: unknown): string {
	if (value === null || value === undefined) return '';
	if (value instanceof Date) {
		const serial = dateToSerial(value, { ignoreTimezone: true }) ?? 0;
		return String(format(serial % 1 ? `${DAY} hh:mm` : DAY, serial));
	}
	if (typeof value === 'number') return String(Math.round(value * 1e10) / 1e10);
	if (typeof value !== 'object') return String(value);
	const cell = value as { result?: unknown; text?: unknown; richText?: { text: string }[]; error?: string };
	if (cell.richText) return cell.richText.map((r) => r.text).join('');
	if (cell.error) return cell.error;
	return valueText(cell.result ?? cell.text ?? '');
}

/** The same as its own program shows it, by its number format (ECMA-376, part 1, 18.8.30). */
function shownText(value: unknown, pattern: string | undefined): string {
	const plain = valueText(value);
	if (!pattern || pattern === 'General') return plain;
	const inner = typeof value === 'object' && value !== null && 'result' in value ? value.result : value;
	const figure =
		inner instanceof Date ? dateToSerial(inner, { ignoreTimezone: true }) : (inner as number | undefined);
	if (typeof figure !== 'number') return plain;
	try {
		return String(format(pattern === SHORT_DAY ? DAY : pattern, figure, { throws: true })).trim();
	} catch {
		// A pattern that nobody understands shows its value.
		return plain;
	}
}

/** The sheets of a workbook (ECMA-376). Throws when it is damaged. */
export async function xlsxTables(bytes: Uint8Array, most: Most): Promise<ShownTable[]> {
	const book = new excel.Workbook();
	await book.xlsx.load(bytes.slice().buffer);
	return book.worksheets.map((sheet) => {
		const rows: string[][] = [];
		const shown: string[][] = [];
		const table = { formulas: 0, comments: 0, cut: false };
		let differs = false;
		sheet.eachRow({ includeEmpty: false }, (row, number) => {
			if (number > most.rows || row.cellCount > most.columns) table.cut = true;
			if (number > most.rows) return;
			const values: string[] = [];
			const texts: string[] = [];
			for (let c = 1; c <= Math.min(row.cellCount, most.columns); c++) {
				const cell = row.getCell(c);
				// What is joined to a cell before it has nothing of its own.
				const value = cell.type === excel.ValueType.Merge ? null : cell.value;
				if (cell.type === excel.ValueType.Formula) table.formulas++;
				if (cell.note) table.comments++;
				values.push(valueText(value));
				texts.push(shownText(value, cell.numFmt));
				differs ||= texts.at(-1) !== values.at(-1);
			}
			// Rows that hold nothing keep their numbers.
			while (rows.length < number - 1) {
				rows.push([]);
				shown.push([]);
			}
			rows.push(values);
			shown.push(texts);
		});
		return { name: sheet.name, rows: withoutTrailing(rows), shown: differs ? shown : null, ...table };
	});
}

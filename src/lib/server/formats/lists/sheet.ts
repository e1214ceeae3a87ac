import ExcelJS from '@protobi/exceljs';
import { isDay, type List } from '../../../core/lists/list';

/** A day as a sheet's own date, which has no time zone: the library takes it from UTC. */
export const dateOf = (day: string): Date => new Date(`${day}T00:00:00Z`);
export const DATE_FORMAT = 'yyyy-mm-dd';

/**
 * Puts a table below what stands on a sheet: heads that can be filtered by, days as dates, words as they are. What begins
 * like a formula stays a text.
 */
export function putTable(sheet: ExcelJS.Worksheet, { columns, rows }: Pick<List, 'columns' | 'rows'>): void {
	const head = sheet.addRow(columns.map((column) => column.head));
	head.font = { bold: true };
	head.alignment = { wrapText: true, vertical: 'top' };
	head.fill = { type: 'pattern', pattern: 'solid', fgColor: { argb: 'FFE9EEEA' } };
	columns.forEach(({ width }, i) => {
		sheet.getColumn(i + 1).width = width;
	});
	for (const cells of rows) {
		const row = sheet.addRow(cells.map((cell) => (isDay(cell) ? dateOf(cell.day) : cell)));
		row.alignment = { vertical: 'top', wrapText: true };
		row.eachCell((cell) => {
			if (cell.value instanceof Date) cell.numFmt = DATE_FORMAT;
		});
	}
	sheet.autoFilter = {
		from: { row: head.number, column: 1 },
		to: { row: head.number + rows.length, column: columns.length }
	};
}

/** A list as a workbook, with what it is of above it. */
export async function listAsXlsx({ title, about, name, ...table }: List): Promise<Uint8Array> {
	const book = new ExcelJS.Workbook();
	book.creator = 'Cupboard';
	const sheet = book.addWorksheet(name, {
		views: [{ state: 'frozen', ySplit: 4 }],
		pageSetup: { paperSize: 9, orientation: 'landscape', fitToPage: true, fitToHeight: 0 }
	});
	sheet.addRow([title]).font = { bold: true, size: 14 };
	sheet.addRow([about]);
	sheet.addRow([]);
	putTable(sheet, table);
	return new Uint8Array(await book.xlsx.writeBuffer());
}

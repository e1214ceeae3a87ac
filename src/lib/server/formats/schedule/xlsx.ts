import ExcelJS from '@protobi/exceljs';
import { cellText } from '../../../core/schedule/cell';
import type { CellValue, Column, Schedule, Total } from '../../../core/schedule/column';
import { RULES_SHEET, rulesTable } from '../../../core/schedule/exchange';
import { asCells, columnLetters, Formulas } from '../../../core/schedule/formula';
import { valueIn } from '../../../core/schedule/arrange';
import type { About } from '../../../core/files/media';

const FUNCTION: Record<Exclude<Total, 'none'>, string> = {
	sum: 'SUM',
	count: 'COUNTA',
	mean: 'AVERAGE',
	least: 'MIN',
	most: 'MAX'
};

/** How numbers of a column are shown, with their unit. */
const numberFormat = ({ unit }: Column) => `#,##0.########${unit ? `" ${unit.replace(/"/g, '')}"` : ''}`;

function valueFor(column: Column, value: CellValue): ExcelJS.CellValue {
	return column.kind === 'date' && typeof value === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(value)
		? new Date(`${value}T00:00:00Z`)
		: value;
}

/** Writes a schedule as XLSX (ISO/IEC 29500): the rows with their formulas, the totals, and what the columns demand. */
export async function toXlsx(schedule: Schedule, about: About): Promise<Uint8Array> {
	const { columns, rows } = schedule;
	const formulas = new Formulas(columns);
	const book = new ExcelJS.Workbook();
	book.creator = 'Cupboard';
	book.title = `${about.number} ${about.title}`;
	const name = about.number.replace(/[\\/*?:[\]]/g, ' ').slice(0, 31) || 'Schedule';
	const sheet = book.addWorksheet(name, {
		views: [{ state: 'frozen', ySplit: 1 }],
		pageSetup: {
			paperSize: 9,
			orientation: 'landscape',
			fitToPage: true,
			fitToHeight: 0,
			printTitlesRow: '1:1'
		}
	});
	sheet.columns = columns.map((column) => ({ width: Math.max(6, column.width / 8) }));
	const head = sheet.addRow(columns.map((c) => c.name));
	head.font = { bold: true };
	head.fill = { type: 'pattern', pattern: 'solid', fgColor: { argb: 'FFE9EEEA' } };
	rows.forEach((row, at) => {
		const number = at + 2;
		const made = sheet.addRow(
			columns.map((column): ExcelJS.CellValue => {
				if (column.kind !== 'formula') {
					const value = row.cells[column.id];
					return value === undefined ? null : valueFor(column, value);
				}
				const said = asCells(column.formula, columns, number);
				const result = valueIn(row, column, formulas);
				return said ? { formula: said, result: result ?? '' } : result;
			})
		);
		columns.forEach((column, i) => {
			const cell = made.getCell(i + 1);
			if (column.kind === 'number' || column.kind === 'formula') cell.numFmt = numberFormat(column);
			else if (column.kind === 'date') cell.numFmt = 'd mmm yyyy';
		});
	});
	columns.forEach((column, i) => {
		const list = column.choices.join(',');
		// A list of choices within the rule itself may be 255 letters long, and knows no commas within a choice.
		if (column.kind !== 'choice' || !list || list.length > 250 || column.choices.some((c) => /[",]/.test(c)))
			return;
		for (let row = 2; row < rows.length + 2; row++)
			sheet.getCell(row, i + 1).dataValidation = {
				type: 'list',
				allowBlank: !column.required,
				formulae: [`"${list}"`]
			};
	});
	if (rows.length)
		sheet.autoFilter = { from: 'A1', to: `${columnLetters(columns.length - 1)}${rows.length + 1}` };
	const totalled = columns.filter((c) => c.total !== 'none');
	if (totalled.length && rows.length) {
		const totals = book.addWorksheet('Totals');
		totals.columns = [{ width: 28 }, { width: 12 }, { width: 18 }];
		for (const column of totalled) {
			const letters = columnLetters(columns.indexOf(column));
			const made = totals.addRow([
				column.name,
				column.total,
				{
					formula: `${FUNCTION[column.total as Exclude<Total, 'none'>]}('${name.replace(/'/g, "''")}'!${letters}2:${letters}${rows.length + 1})`
				}
			]);
			if (column.total !== 'count') made.getCell(3).numFmt = numberFormat(column);
		}
	}
	const rules = book.addWorksheet(RULES_SHEET);
	rulesTable(columns).forEach((line, i) => {
		const made = rules.addRow(line.map((cell) => cellText(cell)));
		if (i === 0) made.font = { bold: true };
	});
	return new Uint8Array(await book.xlsx.writeBuffer());
}

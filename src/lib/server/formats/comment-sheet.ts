import ExcelJS from '@protobi/exceljs';
import type { Content } from 'pdfmake/interfaces';
import { dayOf } from '../../core/time/days';
import { plainRemark, type RemarkRow } from '../../core/remarks/remarks';
import { pdfmaker } from './pdfmaker';

/** What the worker needs to write the comment sheet of a document. */
export interface CommentSheetTask {
	task: 'comment-sheet';
	format: 'xlsx' | 'pdf';
	about: { number: string; title: string; label: string; project: string; timeZone: string };
	remarks: RemarkRow[];
}

const COLUMNS = [
	{ head: 'No.', width: 6 },
	{ head: 'From', width: 10 },
	{ head: 'By', width: 18 },
	{ head: 'On', width: 12 },
	{ head: 'Where', width: 24 },
	{ head: 'Remark', width: 50 },
	{ head: 'Answers', width: 50 },
	{ head: 'To settle', width: 20 },
	{ head: 'State', width: 24 }
] as const;

/** Where a remark stands, in words. */
function whereOf({ anchor, quote }: RemarkRow): string {
	if (quote) return `“${quote}”`;
	if (anchor.on === 'place') return `page ${anchor.page}`;
	return anchor.on === 'version' ? 'this version' : 'the whole document';
}

function cellsOf(row: RemarkRow, timeZone: string): string[] {
	return [
		String(row.number),
		row.from,
		row.by,
		`${dayOf(row.at, timeZone)} ${row.label}`,
		whereOf(row),
		plainRemark(row.text),
		row.answers.map((a) => `${a.by}: ${plainRemark(a.text)}`).join('\n'),
		row.assigned ? `${row.assigned.name}${row.due ? ` by ${row.due}` : ''}` : '',
		row.settled ? `settled by ${row.settled.by}${row.settled.note ? `: ${row.settled.note}` : ''}` : 'open'
	];
}

/** Writes every remark on a document as one table, as the trade's comment sheet. */
export async function commentSheet({ format, about, remarks }: CommentSheetTask): Promise<Uint8Array> {
	const rows = [...remarks]
		.sort((a, b) => a.from.localeCompare(b.from) || a.number - b.number)
		.map((row) => cellsOf(row, about.timeZone));
	return format === 'xlsx' ? toXlsx(about, rows) : toPdf(about, rows);
}

async function toXlsx(about: CommentSheetTask['about'], rows: string[][]): Promise<Uint8Array> {
	const book = new ExcelJS.Workbook();
	book.creator = 'Cupboard';
	const sheet = book.addWorksheet('Remarks', {
		views: [{ state: 'frozen', ySplit: 4 }],
		pageSetup: { paperSize: 9, orientation: 'landscape', fitToPage: true, fitToHeight: 0 }
	});
	sheet.addRow([`${about.number} ${about.title}`]).font = { bold: true, size: 14 };
	sheet.addRow([`${about.project}, at ${about.label}`]);
	sheet.addRow([]);
	const head = sheet.addRow(COLUMNS.map((c) => c.head));
	head.font = { bold: true };
	head.fill = { type: 'pattern', pattern: 'solid', fgColor: { argb: 'FFE9EEEA' } };
	COLUMNS.forEach((column, i) => (sheet.getColumn(i + 1).width = column.width));
	for (const row of rows) {
		// As text, whatever a cell begins with: nothing that was written becomes a formula.
		const added = sheet.addRow(row);
		added.alignment = { vertical: 'top', wrapText: true };
	}
	sheet.autoFilter = { from: { row: 4, column: 1 }, to: { row: 4 + rows.length, column: COLUMNS.length } };
	return new Uint8Array(await book.xlsx.writeBuffer());
}

async function toPdf(about: CommentSheetTask['about'], rows: string[][]): Promise<Uint8Array> {
	const total = COLUMNS.reduce((n, c) => n + c.width, 0);
	const table: Content = {
		table: {
			headerRows: 1,
			widths: COLUMNS.map((c) => `${(c.width / total) * 100}%`),
			body: [
				COLUMNS.map((c) => ({ text: c.head, bold: true, fillColor: '#e9eeea' })),
				...rows.map((row) => row.map((text) => ({ text })))
			],
			dontBreakRows: true
		},
		layout: {
			hLineWidth: () => 0.5,
			vLineWidth: () => 0.5,
			hLineColor: () => '#9aa8a0',
			vLineColor: () => '#9aa8a0'
		}
	};
	return pdfmaker({
		info: { title: `Remarks on ${about.number}`, creator: 'Cupboard' },
		pageSize: 'A4',
		pageOrientation: 'landscape',
		pageMargins: [28, 34, 28, 34],
		content: [
			{ text: `Remarks on ${about.number} ${about.title}`, bold: true, fontSize: 13 },
			{ text: `${about.project}, at ${about.label}`, color: '#55645d', margin: [0, 2, 0, 8] },
			table
		],
		defaultStyle: { font: 'Archivo', fontSize: 8, color: '#17231f' },
		footer: (page, pages) => ({
			text: `${page} of ${pages}`,
			alignment: 'right',
			fontSize: 7.5,
			margin: [28, 8, 28, 0]
		})
	});
}

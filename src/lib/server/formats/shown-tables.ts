import { readFile } from 'node:fs/promises';
import excel from 'exceljs';
import Papa from 'papaparse';
import { SaxesParser } from 'saxes';
import { withoutTrailing, type Table } from '../../core/compare/tables';
import { tellSeparator } from '../../core/csv';
import { openEntry } from './archive';
import { plainText } from './written';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const ODS = 'application/vnd.oasis.opendocument.spreadsheet';
/** Most rows of a sheet and columns of a row that are shown. */
const MOST_ROWS = 20_000;
const MOST_COLUMNS = 200;

/** The sheets of a schedule as they are read on screen; null for what is none. Throws when it is damaged. */
export async function tablesIn(path: string, mediaType: string): Promise<Table[] | null> {
	if (mediaType === 'text/csv') {
		const text = await plainText(path);
		const { data } = Papa.parse<string[]>(text, { preview: MOST_ROWS, delimiter: tellSeparator(text) });
		return [{ name: 'Schedule', rows: withoutTrailing(data.map((r) => (r.length > 1 || r[0] ? r : []))) }];
	}
	if (mediaType === XLSX) return xlsxTables(path);
	return mediaType === ODS ? odsTables(path) : null;
}

async function xlsxTables(path: string): Promise<Table[]> {
	const book = new excel.Workbook();
	await book.xlsx.load((await readFile(path)).buffer as ArrayBuffer);
	return book.worksheets.map((sheet) => {
		const rows: string[][] = [];
		sheet.eachRow({ includeEmpty: false }, (row, number) => {
			if (number > MOST_ROWS) return;
			const cells: string[] = [];
			for (let c = 1; c <= Math.min(row.cellCount, MOST_COLUMNS); c++) cells.push(row.getCell(c).text);
			// Rows that hold nothing keep their numbers.
			while (rows.length < number - 1) rows.push([]);
			rows.push(cells);
		});
		return { name: sheet.name, rows };
	});
}

/** Reads what OpenDocument shows in its cells; rows and cells that only repeat nothing are left out. */
async function odsTables(path: string): Promise<Table[]> {
	const { stream } = await openEntry(path, 'content.xml');
	const tables: Table[] = [];
	let row: string[] = [];
	let cell: { text: string; times: number } | null = null;
	let timesRow = 1;
	const parser = new SaxesParser();
	parser.on('opentag', ({ name, attributes }) => {
		const times = (key: string) =>
			Math.min(MOST_ROWS, Number(attributes[`table:number-${key}-repeated`] ?? 1) || 1);
		if (name === 'table:table') tables.push({ name: String(attributes['table:name'] ?? 'Sheet'), rows: [] });
		else if (name === 'table:table-row') [row, timesRow] = [[], times('rows')];
		else if (/^table:(covered-)?table-cell$/.test(name)) cell = { text: '', times: times('columns') };
		else if (name === 'text:p' && cell?.text) cell.text += '\n';
	});
	parser.on('text', (text) => {
		if (cell) cell.text += text;
	});
	parser.on('closetag', ({ name }) => {
		if (/^table:(covered-)?table-cell$/.test(name) && cell) {
			const room = MOST_COLUMNS - row.length;
			const text = cell.text.trim();
			for (let i = 0; i < Math.min(cell.times, room); i++) row.push(text);
			cell = null;
		} else if (name === 'table:table-row') {
			while (row.length && row.at(-1) === '') row.pop();
			const rows = tables.at(-1)?.rows;
			// What is repeated without end is nothing; what lies between keeps its number.
			if (rows && (row.length || timesRow < MOST_ROWS / 2))
				for (let i = 0; i < timesRow && rows.length < MOST_ROWS; i++) rows.push([...row]);
		}
	});
	// A chunk may end within a character.
	const decoder = new TextDecoder();
	for await (const chunk of stream) parser.write(decoder.decode(chunk as Buffer, { stream: true }));
	parser.close();
	return tables.map((one) => ({ ...one, rows: withoutTrailing(one.rows) }));
}

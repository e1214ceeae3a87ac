/** Schedules that LibreOffice wrote: number formats, a comment, formulas, joined cells and an empty row. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import excel from '@protobi/exceljs';
import { describe, expect, it } from 'vitest';
import { Unreadable } from '../package/fault';
import { notKept } from './not-kept';
import { readTables } from './read';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const ODS = 'application/vnd.oasis.opendocument.spreadsheet';
const MOST = { rows: 1_000, columns: 50 };
const file = (name: string) => readFileSync(join(import.meta.dirname, '../../../../tests/files', name));

describe.each([
	['XLSX', 'piles.xlsx', XLSX],
	['ODS', 'piles.ods', ODS]
])('a schedule of another program, %s', (_, name, mediaType) => {
	it('keeps values for reading on and shows them as they are shown there', async () => {
		const [sheet] = await readTables(file(name), mediaType, MOST);
		expect(sheet!.rows[3]).toEqual(['P1', '1250.5', '0.825', '2026-11-27', '2501']);
		expect(sheet!.shown![3]).toEqual(['P1', '1,250.50 kN', '82.5%', '27 Nov 2026', '2501']);
	});

	it('keeps the numbers of empty rows, and says the words of joined cells once', async () => {
		const [sheet] = await readTables(file(name), mediaType, MOST);
		expect(sheet!.rows[1]).toEqual([]);
		expect(sheet!.rows[0]!.filter((cell) => cell !== '')).toEqual(['Pile schedule']);
	});

	it('names the formulas and comments that its values alone do not hold', async () => {
		const tables = await readTables(file(name), mediaType, MOST);
		expect(notKept(tables)).toEqual([
			'2 formulas become what they give now.',
			'1 comment on cells stays in the file.'
		]);
	});

	it('says when there is more than is read', async () => {
		const [sheet] = await readTables(file(name), mediaType, { rows: 3, columns: 2 });
		expect(sheet!.rows).toHaveLength(3);
		expect(notKept([sheet!])).toContain('There are more rows or columns than are read here.');
	});
});

describe('number formats', () => {
	const shown = async (value: excel.CellValue, numFmt: string) => {
		const book = new excel.Workbook();
		const cell = book.addWorksheet('S').getCell('A1');
		cell.value = value;
		cell.numFmt = numFmt;
		const [sheet] = await readTables(new Uint8Array(await book.xlsx.writeBuffer()), XLSX, MOST);
		return (sheet!.shown ?? sheet!.rows)[0]![0];
	};

	it('are applied: decimals, signs, fractions, scientific, hidden nought, days', async () => {
		expect(await shown(3.4, '+0.000;-0.000')).toBe('+3.400');
		expect(await shown(-1234.5, '#,##0.0;(#,##0.0)')).toBe('(1,234.5)');
		expect(await shown(0.375, '# ?/?')).toBe('3/8');
		expect(await shown(210_000, '0.00E+00')).toBe('2.10E+05');
		expect(await shown(7, '000')).toBe('007');
		expect(await shown(new Date(Date.UTC(2026, 10, 27)), 'mm-dd-yy')).toBe('2026-11-27');
		expect(await shown({ formula: 'A2*2', result: 0.5 }, '0%')).toBe('50%');
	});

	it('that nobody understands show the value', async () => {
		expect(await shown(12, '[[[')).toBe('12');
	});
});

describe('what is no schedule', () => {
	it('is refused with a sentence: damaged, or locked with a password', async () => {
		await expect(readTables(new Uint8Array([1, 2, 3]), XLSX, MOST)).rejects.toThrow(/damaged/);
		const locked = Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]);
		const fault = await readTables(locked, XLSX, MOST).catch((error: unknown) => error);
		expect(fault).toBeInstanceOf(Unreadable);
		expect((fault as Error).message).toMatch(/locked with a password/);
	});
});

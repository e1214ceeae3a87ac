import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { told, yes } from '../../../core/acts/answer';
import { REMARK_ACTS } from '../../../core/remarks/may';
import ExcelJS from '@protobi/exceljs';
import { describe, expect, it } from 'vitest';
import { commentSheet } from '../../../core/remarks/comment-sheet';
import type { RemarkRow } from '../../../core/remarks/remarks';
import { writeList } from './list';

const remark = (number: number, from: string, text: string, more: Partial<RemarkRow> = {}): RemarkRow => ({
	id: `r${number}`,
	number,
	document: 'abcdefghjk',
	documentNumber: 'VFT-MW-LS-00-DR-0101',
	documentTitle: 'Linkspan general arrangement',
	label: 'P03',
	anchor: { on: 'whole' },
	quote: '',
	text,
	by: 'Halla Brandt',
	byId: 'h',
	from,
	at: '2026-11-20T10:00:00.000Z',
	answers: [],
	assigned: null,
	due: null,
	settled: null,
	can: told(REMARK_ACTS, () => yes),
	...more
});
const remarks = [
	remark(1, 'ST', '=HYPERLINK("https://elsewhere.example")'),
	remark(2, 'AR', 'Who moves, @[Oke Lindvar](person:abcdefghjk)?', {
		quote: 'pit wall',
		answers: [{ by: 'Oke Lindvar', byId: 'o', at: '', text: 'We do.' }],
		assigned: { kind: 'department', id: 'm', name: 'Marine works' },
		due: '2026-12-01',
		settled: { by: 'Oke Lindvar', at: '', note: 'Moved by 200.' }
	})
];
const about = {
	number: 'VFT-MW-LS-00-DR-0101',
	title: 'Linkspan',
	label: 'P03',
	project: 'Vennholm',
	timeZone: 'Europe/Oslo'
};

describe('a comment sheet', () => {
	it('lists every remark by department, as words and never as formulas', async () => {
		const bytes = await writeList({ task: 'list', format: 'xlsx', list: commentSheet(about, remarks) });
		const book = new ExcelJS.Workbook();
		await book.xlsx.load(bytes.buffer as ArrayBuffer);
		const sheet = book.worksheets[0]!;
		const cells = (row: number) => (sheet.getRow(row).values as unknown[]).slice(1);
		expect(cells(1)[0]).toContain('VFT-MW-LS-00-DR-0101');
		expect(cells(5)).toEqual([
			2,
			'AR',
			'Halla Brandt',
			new Date('2026-11-20T00:00:00Z'),
			'P03',
			'“pit wall”',
			'Who moves, Oke Lindvar?',
			'Oke Lindvar: We do.',
			'Marine works by 1 Dec 2026',
			'settled by Oke Lindvar: Moved by 200.'
		]);
		expect(cells(6)[6]).toBe('=HYPERLINK("https://elsewhere.example")');
		expect(sheet.getCell(6, 7).type).toBe(ExcelJS.ValueType.String);
	});

	it('is a PDF that can be searched, over as many pages as it takes', async () => {
		const many = Array.from({ length: 80 }, (_, i) => remark(i + 1, 'AR', `Remark number ${i + 1}`));
		const path = join(mkdtempSync(join(tmpdir(), 'cupboard-sheet-')), 'sheet.pdf');
		writeFileSync(path, await writeList({ task: 'list', format: 'pdf', list: commentSheet(about, many) }));
		const { stdout } = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
		for (const said of ['Remark number 1', 'Remark number 80', 'Remarks on VFT-MW-LS-00-DR-0101'])
			expect(stdout).toContain(said);
		expect(stdout.match(/To settle/g)!.length).toBeGreaterThan(1);
	});

	it('is CSV whose cells run nothing in a sheet', async () => {
		const bytes = await writeList({ task: 'list', format: 'csv', list: commentSheet(about, remarks) });
		const text = new TextDecoder().decode(bytes);
		expect(text).toContain('2026-11-20');
		expect(text).toContain(`"'=HYPERLINK(""https://elsewhere.example"")"`);
	});
});

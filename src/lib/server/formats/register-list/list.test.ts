import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ExcelJS from '@protobi/exceljs';
import { describe, expect, it } from 'vitest';
import { MEDIA_TYPE } from '../../../core/files/media';
import { standardRule } from '../../../core/numbering/numbering';
import { USUAL_STAGES } from '../../../core/register';
import { fatesOf, matchColumns, type Present } from '../../../core/register/import';
import { readTables } from '../../../formats/tables/read';
import { registerList } from './list';
import type { ListedLine, RegisterListTask } from './task';

const stages = USUAL_STAGES.map(({ key, name }) => ({ key, name }));
const line = (n: number, more: Partial<ListedLine> = {}): ListedLine => ({
	number: `VFT-MW-LS-00-DR-${String(n).padStart(4, '0')}`,
	title: `Hinge details ${n}`,
	department: 'MW',
	responsible: 'Oke Lindvar <oke@vennholm.example>',
	weight: 1.5,
	stages: {
		comment: { planned: '2026-10-05', actual: '2026-10-07', forecast: null },
		construction: { planned: null, actual: null, forecast: '2027-01-11' }
	},
	slip: 2,
	status: 'in work',
	revision: 'P02.1',
	...more
});
const lines = [
	line(101),
	line(102, { title: '=SUM(A1)', responsible: '', weight: 1, slip: null }),
	line(103, { title: 'Guard rail, “east”; part 2', department: '', stages: {} })
];
const task = (format: RegisterListTask['format'], of = lines): RegisterListTask => ({
	task: 'register-list',
	format,
	about: { project: 'Vennholm Ferry Terminal', today: '2026-11-27', narrowed: 'department MW' },
	stages,
	lines: of,
	curves: {
		days: ['2026-10-05', '2026-11-27', '2027-01-11'],
		planned: [1, 3, 3],
		actual: [0, 2, null],
		forecast: [null, 2, 3]
	}
});
const present = new Map(
	lines.map((one): [string, Present] => [
		one.number,
		{
			number: one.number,
			title: one.title,
			department: one.department ? 'dmw' : null,
			responsible: one.responsible ? 'oke' : null,
			weight: one.weight,
			planned: Object.fromEntries(Object.entries(one.stages).map(([key, { planned }]) => [key, planned]))
		}
	])
);
const departments = [{ id: 'dmw', code: 'MW', name: 'Marine works' }];

describe('the register as a file', () => {
	it.each(['xlsx', 'csv'] as const)(
		'changes nothing when it is taken in again, as %s (G6)',
		async (format) => {
			const bytes = await registerList(task(format));
			const [sheet] = await readTables(bytes, MEDIA_TYPE[format], {
				rows: 1_000,
				columns: 60
			});
			const [heads, ...rows] = sheet!.rows;
			const fates = fatesOf(
				rows,
				matchColumns(heads!, USUAL_STAGES, {}),
				{
					rule: standardRule('VFT', departments),
					stages: USUAL_STAGES,
					departments,
					people: [{ id: 'oke', name: 'Oke Lindvar', email: 'oke@vennholm.example' }],
					today: '2026-11-27'
				},
				present
			);
			expect(fates).toEqual(lines.map(() => ({ fate: 'same' })));
		}
	);

	it('is a sheet with real dates, filters and the curves as a picture', async () => {
		const book = new ExcelJS.Workbook();
		await book.xlsx.load((await registerList(task('xlsx'))).buffer as ArrayBuffer);
		const [sheet, curves] = book.worksheets;
		expect(sheet!.getCell(2, 6).value).toEqual(new Date('2026-10-05T00:00:00Z'));
		expect(sheet!.getCell(3, 2).type).toBe(ExcelJS.ValueType.String);
		expect(sheet!.autoFilter).toBeTruthy();
		expect(curves!.getImages()).toHaveLength(1);
		expect(curves!.getCell(5, 4).value).toBe(3);
	});

	it('is a report on A3, dated, with the curves as lines and words that can be searched', async () => {
		const many = Array.from({ length: 120 }, (_, i) => line(i + 1));
		const path = join(mkdtempSync(join(tmpdir(), 'cupboard-register-')), 'register.pdf');
		writeFileSync(path, await registerList(task('pdf', many)));
		const { stdout: info } = spawnSync('pdfinfo', [path], { encoding: 'utf8' });
		expect(info).toMatch(/Page size:\s+1190\.\d+ x 841\.\d+ pts \(A3\)/);
		const { stdout } = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
		for (const said of [
			'27 Nov 2026',
			'120 deliverables',
			'VFT-MW-LS-00-DR-0120',
			'issued 7 Oct 2026',
			'planned'
		])
			expect(stdout).toContain(said);
	});
});

// @vitest-environment jsdom
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scheduleFrom, tableOf } from '../../src/lib/core/schedule/exchange';
import { anySchedule } from './any-schedule';
import { begun, broughtIn, shown, written } from './schedule-files';

describe('a live schedule that is taken as a file and brought in again', () => {
	for (const format of ['xlsx', 'ods'] as const)
		it(`is the same as ${format}, with what its columns demand`, async () => {
			await fc.assert(
				fc.asyncProperty(anySchedule, async (given) => {
					const schedule = begun(given);
					const tables = await broughtIn(await written(schedule, format), format);
					expect(scheduleFrom(tables)).toEqual({ ...given, losses: [] });
					// What is worked out stands in the file as it is shown.
					expect(tables[0]!.rows).toEqual(shown(tableOf(schedule)));
				}),
				{ numRuns: 60 }
			);
		}, 60_000);

	it('says the same as CSV, but nothing that a spreadsheet would run', async () => {
		await fc.assert(
			fc.asyncProperty(anySchedule, async (given) => {
				const schedule = begun(given);
				const [table] = await broughtIn(await written(schedule, 'csv'), 'csv');
				const unguarded = table!.rows.map((row) => row.map((cell) => cell.replace(/^'(?=[=+\-@\t])/, '')));
				expect(unguarded).toEqual(tableOf(schedule));
				for (const row of table!.rows)
					for (const cell of row) if (/^[=+\-@\t]/.test(cell)) expect(Number(cell)).not.toBeNaN();
			}),
			{ numRuns: 60 }
		);
	});
});

// @vitest-environment jsdom
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { scheduleFrom, tableOf, type ScheduleFormat } from '../../src/lib/core/schedule/exchange';
import { anySchedule } from '../round-trips/any-schedule';
import { begun, broughtIn, shown, written } from '../round-trips/schedule-files';
import { savedByOffice } from './office';

/** Schedules with columns of every kind, the same at each run. */
const GIVEN = fc.sample(anySchedule, { numRuns: 40, seed: 7 });

const filesOf = async (format: ScheduleFormat): Promise<Record<string, Uint8Array>> =>
	Object.fromEntries(
		await Promise.all(
			GIVEN.map(async (given, i) => [`${i}.${format}`, await written(begun(given), format)] as const)
		)
	);

for (const [format, other] of [
	['xlsx', 'ods'],
	['ods', 'ods'],
	['xlsx', 'xlsx'],
	['ods', 'xlsx']
] as const)
	it(`LibreOffice opens ${format}, works it out, saves it as ${other}, and it comes back whole`, async () => {
		const saved = savedByOffice(await filesOf(format), other);
		for (const [i, given] of GIVEN.entries()) {
			const tables = await broughtIn(saved.get(`${i}.${format}`)!, other);
			expect(shown(tables[0]!.rows)).toEqual(shown(tableOf(begun(given))));
			expect(scheduleFrom(tables)).toEqual({ ...given, losses: [] });
		}
	});

/** CSV does not say what a figure is: 007 and 7 are the same there. */
const asNumber = (cell: string) => (/^\d+$/.test(cell) ? String(Number(cell)) : cell);

it('LibreOffice reads from CSV what the schedule shows', async () => {
	const saved = savedByOffice(await filesOf('csv'), 'ods', 'CSV:44,34,76');
	for (const [i, given] of GIVEN.entries()) {
		const [table] = await broughtIn(saved.get(`${i}.csv`)!, 'ods');
		const unguarded = shown(table!.rows).map((row) => row.map((cell) => cell.replace(/^'(?=[=+\-@])/, '')));
		expect(unguarded).toEqual(shown(tableOf(begun(given))).map((row) => row.map(asNumber)));
	}
});

import * as Y from 'yjs';
import type { Table } from '../../src/lib/core/compare/tables';
import type { Schedule } from '../../src/lib/core/schedule/column';
import type { ScheduleFormat } from '../../src/lib/core/schedule/exchange';
import { readSchedule, seedSchedule } from '../../src/lib/core/schedule/shared';
import { MEDIA_TYPE } from '../../src/lib/core/files/media';
import { writeScheduleTask } from '../../src/lib/server/formats/schedule/task';
import { readTables } from '../../src/lib/formats/tables/read';
import type { Given } from './any-schedule';

/** A live schedule that was begun with columns and rows. */
export function begun(given: Given): Schedule {
	const doc = new Y.Doc();
	let made = 0;
	seedSchedule(doc, given, () => `id${String(++made).padStart(6, '0')}`);
	return readSchedule(doc);
}

/** A live schedule as a file. */
export function written(schedule: Schedule, format: ScheduleFormat): Promise<Uint8Array> {
	const about = { number: 'VFT-MW-LS-00-SH-0004', title: 'Piles' };
	return writeScheduleTask({ task: 'schedule', schedule, about, format });
}

/** The sheets of a file. */
export function broughtIn(bytes: Uint8Array, format: ScheduleFormat): Promise<Table[]> {
	return readTables(bytes, MEDIA_TYPE[format], { rows: 50_000, columns: 400 }, { name: 'Piles' });
}

/** Rows as they are shown; empty cells at their ends are none. */
export const shown = (rows: readonly (readonly string[])[]) =>
	rows.map((row) => row.slice(0, row.findLastIndex((cell) => cell !== '') + 1));

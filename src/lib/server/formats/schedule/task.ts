import Papa from 'papaparse';
import { tableOf } from '../../../core/schedule/exchange';
import { toOds } from './ods';
import type { ScheduleTask } from './request';
import { toXlsx } from './xlsx';

/** What an office program would run as a formula; figures with a sign before them are left alone. */
const RUNS = /^(?![-+][\d.]+$)[=+\-@\t\r]/;

/** Writes a schedule as a file; runs in a worker thread. */
export async function writeScheduleTask({ schedule, about, format }: ScheduleTask): Promise<Uint8Array> {
	switch (format) {
		case 'xlsx':
			return toXlsx(schedule, about);
		case 'ods':
			return toOds(schedule, about);
		case 'csv':
			// The byte order mark tells office programs that the letters are UTF-8.
			return new TextEncoder().encode(
				`\ufeff${Papa.unparse(tableOf(schedule), { newline: '\r\n', escapeFormulae: RUNS })}\r\n`
			);
	}
}

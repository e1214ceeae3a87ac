import { listAsCsv } from '../lists/list';
import { tableOf } from './columns';
import type { RegisterListTask } from './task';

/** Writes the register, or what it is narrowed to, as a sheet with its curves, as CSV, or as a report for the wall. */
export async function registerList(task: RegisterListTask): Promise<Uint8Array> {
	switch (task.format) {
		case 'csv':
			return listAsCsv(tableOf(task));
		case 'xlsx':
			return (await import('./xlsx')).toXlsx(task);
		case 'pdf':
			return (await import('./report')).toReport(task);
	}
}

import type { ScheduleFormat } from '../../../core/schedule/exchange';
import type { Schedule } from '../../../core/schedule/column';
import type { About } from '../../../core/files/media';

/** What the worker needs to write a schedule. */
export interface ScheduleTask {
	task: 'schedule';
	schedule: Schedule;
	about: About;
	format: ScheduleFormat;
}

import { FIELD_HEADS, plannedHead } from '../../../core/register/import';
import type { ListedLine, RegisterListTask } from './task';

/** A day stands apart from words, since sheets have dates of their own. */
export type Cell = string | number | { day: string } | null;
interface ListColumn {
	head: string;
	width: number;
	cell: (line: ListedLine) => Cell;
}

/** The columns of a list: first those that an import reads, then what the register worked out. */
export function columnsOf(stages: RegisterListTask['stages']): ListColumn[] {
	const days = (what: 'planned' | 'actual' | 'forecast', head: (stage: { name: string }) => string) =>
		stages.map((stage) => ({
			head: head(stage),
			width: 14,
			cell: (line: ListedLine) => {
				const day = line.stages[stage.key]?.[what] ?? null;
				return day === null ? null : { day };
			}
		}));
	return [
		{ head: FIELD_HEADS.number, width: 24, cell: (line) => line.number },
		{ head: FIELD_HEADS.title, width: 40, cell: (line) => line.title },
		{ head: FIELD_HEADS.department, width: 12, cell: (line) => line.department },
		{ head: FIELD_HEADS.responsible, width: 32, cell: (line) => line.responsible },
		{ head: FIELD_HEADS.weight, width: 8, cell: (line) => line.weight },
		...days('planned', plannedHead),
		...days('actual', ({ name }) => `${name}, issued`),
		...days('forecast', ({ name }) => `${name}, expected`),
		{ head: 'Days late', width: 10, cell: (line) => line.slip },
		{ head: 'Status', width: 18, cell: (line) => line.status },
		{ head: 'Revision', width: 10, cell: (line) => line.revision }
	];
}

export const isDay = (cell: Cell): cell is { day: string } => typeof cell === 'object' && cell !== null;

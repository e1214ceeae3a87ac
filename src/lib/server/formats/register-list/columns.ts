import { FIELD_HEADS, plannedHead } from '../../../core/register/import';
import type { Cell, List } from '../../../core/lists/list';
import type { ListedLine, RegisterListTask } from './task';

interface ListColumn {
	head: string;
	width: number;
	cell: (line: ListedLine) => Cell;
}

/** The columns of a list: first those that an import reads, then what the register worked out. */
function columnsOf(stages: RegisterListTask['stages']): ListColumn[] {
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

/** The register as a table: a row a deliverable. */
export function tableOf({
	stages,
	lines
}: Pick<RegisterListTask, 'stages' | 'lines'>): Pick<List, 'columns' | 'rows'> {
	const columns = columnsOf(stages);
	return { columns, rows: lines.map((line) => columns.map(({ cell }) => cell(line))) };
}

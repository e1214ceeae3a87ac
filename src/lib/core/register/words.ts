import { fullDayWords } from '../time/days';
import type { Narrowing } from './list';
import { STATUS_LABEL } from './forecast';

/** The names that a narrowing knows only by key or id. */
interface Names {
	stages: readonly { key: string; name: string }[];
	people: readonly { id: string; name: string }[];
}

/** What a list is narrowed to, in words, for the head of a report. Empty when it is narrowed to nothing. */
export function narrowingText(to: Narrowing, { stages, people }: Names): string {
	const some = (what: string, of: readonly string[]) => of.length > 0 && `${what} ${of.join(', ')}`;
	const due = [to.from && `from ${fullDayWords(to.from)}`, to.to && `to ${fullDayWords(to.to)}`].filter(
		Boolean
	);
	return [
		some('department', to.departments),
		some('zone', to.zones),
		some('type', to.types),
		stages.find((one) => one.key === to.stage)?.name,
		some(
			'responsible',
			to.responsible.map((id) => people.find((one) => one.id === id)?.name ?? 'somebody who left')
		),
		...to.statuses.map((status) => STATUS_LABEL[status]),
		to.late && 'late or slipping',
		to.met && 'issued',
		to.wasLate && 'issued late',
		to.undated && 'without a day',
		to.missing && 'numbers missing after it',
		due.length > 0 && `due ${due.join(' ')}`,
		to.words && `with “${to.words}”`
	]
		.filter(Boolean)
		.join(' · ');
}

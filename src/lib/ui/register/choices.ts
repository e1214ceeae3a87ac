import type { AnswerOf, InputOf } from '../../client/cupboard';
import {
	GROUPINGS,
	ORDERS,
	STATUS_LABEL,
	type Grouping,
	type RegisterOrder,
	type Status
} from '../../core/register';
import type { Zoom } from './strip';
import { ZOOMS } from './strip';

/** What the page of the register shows, as it stands in its address. */
export interface Shown {
	/** Of each, those that are chosen; none narrows nothing. */
	department: readonly string[];
	zone: readonly string[];
	type: readonly string[];
	/** Ids of people. */
	responsible: readonly string[];
	stage: string;
	words: string;
	/** The figure that was chosen: it narrows further. */
	only: Only | '';
	from: string;
	to: string;
	group: Grouping;
	order: RegisterOrder;
	down: boolean;
	zoom: Zoom;
}

/** Figures that narrow the list when they are chosen. */
export const ONLY = [
	'late',
	'was-late',
	'met',
	'none',
	'with-client',
	'returned',
	'done',
	'undated',
	'missing'
] as const;
export type Only = (typeof ONLY)[number];

const oneOf = <T extends string>(all: readonly T[], said: string | null, otherwise: T): T =>
	all.find((one) => one === said) ?? otherwise;

/** What an address says of the page. */
export function shownOf(query: URLSearchParams): Shown {
	const said = (key: string) => query.get(key) ?? '';
	return {
		department: query.getAll('department'),
		zone: query.getAll('zone'),
		type: query.getAll('type'),
		responsible: query.getAll('responsible'),
		stage: said('stage'),
		words: said('words'),
		only: oneOf(['', ...ONLY] as const, query.get('only'), ''),
		from: said('from'),
		to: said('to'),
		group: oneOf(GROUPINGS, query.get('group'), 'none'),
		order: oneOf(ORDERS, query.get('order'), 'number'),
		down: query.has('down'),
		zoom: oneOf(
			ZOOMS.map((one) => one.value),
			query.get('zoom'),
			'all'
		)
	};
}

/** The address of what is shown; what is usual is left out. */
export function queryOf(shown: Shown): string {
	const usual = shownOf(new URLSearchParams());
	const query = new URLSearchParams();
	for (const [key, value] of Object.entries(shown))
		if (Array.isArray(value)) for (const one of value as string[]) query.append(key, one);
		else if (value !== usual[key as keyof Shown]) query.set(key, value === true ? '' : String(value));
	return query.toString();
}

/** What the server is asked for. */
export function askedFor(shown: Shown): Omit<InputOf<'registerFigures'>, 'project'> {
	const status: Partial<Record<Only, Status>> = {
		none: 'none',
		'with-client': 'with-client',
		returned: 'returned',
		done: 'done'
	};
	const one = shown.only && status[shown.only];
	const maybe = <K extends string>(key: K, value: string) =>
		value ? ({ [key]: value } as Record<K, string>) : {};
	return {
		departments: [...shown.department],
		zones: [...shown.zone],
		types: [...shown.type],
		responsible: [...shown.responsible],
		statuses: one ? [one] : [],
		late: shown.only === 'late',
		wasLate: shown.only === 'was-late',
		met: shown.only === 'met',
		undated: shown.only === 'undated',
		missing: shown.only === 'missing',
		words: shown.words,
		...maybe('stage', shown.stage),
		...maybe('from', shown.from),
		...maybe('to', shown.to)
	};
}

export type Counts = AnswerOf<'register'>['counts'];
export type RegisterRow = AnswerOf<'register'>['rows'][number];
export type Stages = AnswerOf<'register'>['stages'];

/**
 * The figures above the list, each with what it counts. Those that count nothing stand there too: what another does must
 * not move the list under somebody who is about to press something in it.
 */
export function figuresOf(
	counts: Counts,
	stage: string | null,
	tellsMissing: boolean
): { only: Only; word: string; count: number }[] {
	return [
		{ only: 'late', word: 'Late or slipping', count: counts.late },
		{ only: 'none', word: 'No document yet', count: counts.none },
		{ only: 'with-client', word: 'With the client', count: counts.withClient },
		{ only: 'returned', word: 'Returned', count: counts.returned },
		...(stage
			? [
					{ only: 'met' as const, word: 'Issued', count: counts.met },
					{ only: 'was-late' as const, word: 'Issued late', count: counts.wasLate }
				]
			: [{ only: 'done' as const, word: 'All stages met', count: counts.done }]),
		{ only: 'undated', word: 'Without a day', count: counts.undated },
		...(tellsMissing ? [{ only: 'missing' as const, word: 'Numbers missing', count: counts.missing }] : [])
	];
}

/** How a forecast came about, in a sentence (G3). */
export const BASIS_SAYS: Record<NonNullable<RegisterRow['stages'][number]['rule']>['basis'], string> = {
	plan: 'as planned',
	slip: 'the planned day, moved as the stage before slipped',
	usual: 'the day before plus what the department usually takes for this step',
	before: 'not before the stage that comes first',
	today: 'what would come out is gone by, so today at the earliest'
};

/** What a group of the list is called. */
export function headOf(
	group: Grouping,
	value: string,
	departments: readonly { code: string; name: string }[]
): string {
	if (group === 'status') return STATUS_LABEL[value as Status] ?? value;
	if (group === 'department')
		return departments.find((one) => one.code === value)?.name ?? (value || 'The project’s own');
	if (group === 'responsible') return value || 'Nobody is responsible';
	return value || 'Nothing said';
}

/** A dialog of the register that is asked for. */
export type Asking =
	| { what: 'add'; number?: string }
	| { what: 'import' }
	| { what: 'gaps' }
	| { what: 'template' }
	| { what: 'keep-template'; ids: string[] }
	| { what: 'line'; id: string }
	| { what: 'move'; ids: string[]; stage: string | null; day: string | null }
	| { what: 'change'; ids: string[] }
	| { what: 'release'; documents: string[] }
	| { what: 'remove'; ids: string[] };

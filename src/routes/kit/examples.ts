import type { ChartData } from '../../lib/ui/kit/chart';
import type { Column } from '../../lib/ui/kit/table';
import type { Known } from '$lib/core/access/invite';

/** People and departments to try pickers with. */
export const known: Known[] = [
	{ kind: 'person', id: 'oke', name: 'Oke Lindvar', email: 'oke@vennholm.example', people: 1 },
	{ kind: 'person', id: 'halla', name: 'Halla Brandt', email: 'halla@vennholm.example', people: 1 },
	{
		kind: 'person',
		id: 'maren',
		name: 'Maren Aldgate',
		email: 'maren@harbourtrust.example',
		people: 1,
		outside: true
	},
	{ kind: 'department', id: 'mw', name: 'Marine works', code: 'MW', people: 14 },
	{ kind: 'group', id: 'divers', name: 'The diving company', people: 6, outside: true },
	{ kind: 'everyone', id: 'all', name: 'Everyone', people: 62 }
];

export const PURPOSES = [
	{ value: 'information', label: 'For information' },
	{ value: 'approval', label: 'For approval' },
	{ value: 'construction', label: 'For construction' }
];

/** Enough rows that only those in sight are drawn. */
export const SHEETS = Array.from({ length: 1_000 }, (_, i) => ({
	number: `VFT-MW-LS-00-DR-${String(i + 101).padStart(4, '0')}`,
	title: ['Linkspan, general arrangement', 'Hinge bearing', 'Lifting cylinder', 'Deck plate'][i % 4]!,
	saves: (i * 7) % 12
}));

export const COLUMNS: Column<(typeof SHEETS)[number]>[] = [
	{ id: 'number', head: 'Number', text: (one) => one.number, by: (one) => one.number, class: 'font-mono' },
	{ id: 'title', head: 'Title', text: (one) => one.title, by: (one) => one.title },
	{
		id: 'saves',
		head: 'Versions',
		text: (one) => String(one.saves),
		by: (one) => one.saves,
		right: true,
		from: 'sm'
	}
];

export const FIGURES: ChartData = {
	kind: 'line',
	labels: ['Aug', 'Sep', 'Oct', 'Nov', 'Dec'],
	series: [
		{ name: 'planned', values: [4, 11, 20, 31, 44] },
		{ name: 'issued', values: [3, 9, 17, 24, null] },
		{ name: 'expected', values: [null, null, null, 24, 36], expected: true }
	],
	unit: 'documents'
};

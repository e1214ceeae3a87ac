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

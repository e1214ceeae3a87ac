import { z } from 'zod';
import { PLACE_RULES } from '../core/places/may';
import { act, done } from './act';
import { day, email, id, name, note, number, projectKey, ranged, reason } from './fields';

export const makeHatch = act({
	name: 'makeHatch',
	summary: 'Make a hatch: a link by which people outside put files in, seeing nothing',
	method: 'POST',
	path: '/places/{place}/hatches',
	input: z.strictObject({
		place: id,
		title: name,
		until: day,
		maxFileBytes: z
			.number()
			.int()
			.min(1_000)
			.max(20 * 1024 ** 3)
			.default(2 * 1024 ** 3),
		maxFiles: z.number().int().min(1).max(5_000).default(200),
		endings: z
			.array(
				z
					.string()
					.trim()
					.toLowerCase()
					.regex(/^[a-z0-9]{1,8}$/, 'An ending is letters and digits, such as pdf.')
			)
			.max(40)
			.default([]),
		tell: z.strictObject({ name, email }).nullable().default(null)
	}),
	output: z.strictObject({ id: z.string(), link: z.string() }),
	at: {
		kind: 'place',
		id: (i) => i.place,
		level: 'manage',
		only: ['shelf', 'folder'],
		asks: PLACE_RULES.makeHatch
	},
	events: ['hatch.made']
});

export const closeHatches = act({
	name: 'closeHatches',
	summary: 'Close hatches: your own, or those at places where you have Manage; what came in stays',
	method: 'POST',
	path: '/projects/{project}/hatches/closed',
	input: z.strictObject({ project: projectKey, hatches: z.array(id).min(1, 'Choose a hatch.').max(200) }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['hatch.closed']
});

export const secret = z.string().max(100);

export const putThroughHatch = act({
	name: 'putThroughHatch',
	summary: 'Put files that were sent before through a hatch, saying who sends them',
	method: 'POST',
	path: '/hatches/{secret}/files',
	input: z.strictObject({
		secret,
		sender: name,
		email: email.nullable().default(null),
		note: note.default(''),
		uploads: z.array(id).min(1, 'Choose a file.').max(500)
	}),
	output: z.strictObject({ files: z.number() }),
	at: { kind: 'hatch', secret: (i) => i.secret },
	events: ['hatch.arrived']
});

export const dropFiles = act({
	name: 'dropFiles',
	summary: 'Put files into a place where you have Drop: they are sorted by those who run it',
	method: 'POST',
	path: '/places/{place}/dropped',
	input: z.strictObject({
		place: id,
		uploads: z.array(id).min(1, 'Choose a file.').max(500),
		note: note.default('')
	}),
	output: z.strictObject({ files: z.number() }),
	at: { kind: 'place', id: (i) => i.place, level: 'drop', only: ['shelf', 'folder'] },
	events: ['hatch.arrived']
});

export const atArrival = { place: id, arrival: id };

export const sortArrival = act({
	name: 'sortArrival',
	summary: 'Sort a file that came in into a folder as a new document, with number and title',
	method: 'POST',
	path: '/places/{place}/arrivals/{arrival}/sorted',
	input: z.strictObject({ ...atArrival, folder: id, number, title: name, note: note.default('') }),
	output: z.strictObject({ id: z.string(), number: z.string(), label: z.string(), versionId: z.string() }),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', only: ['shelf', 'folder'] },
	events: ['document.added', 'hatch.sorted']
});

export const sortAsVersion = act({
	name: 'sortAsVersion',
	summary: 'Sort a file that came in as the next version of a document',
	method: 'POST',
	path: '/places/{place}/arrivals/{arrival}/version',
	input: z.strictObject({ ...atArrival, document: id, note: note.default('') }),
	output: z.strictObject({ id: z.string(), number: z.string(), label: z.string() }),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', only: ['shelf', 'folder'] },
	events: ['version.handed-in', 'version.saved', 'hatch.sorted']
});

export const refuseArrival = act({
	name: 'refuseArrival',
	summary: 'Refuse a file that came in; whoever sent it is told why when they gave an address',
	method: 'POST',
	path: '/places/{place}/arrivals/{arrival}/refused',
	input: z.strictObject({ ...atArrival, reason }),
	output: z.strictObject({ told: z.boolean() }),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', only: ['shelf', 'folder'] },
	events: ['hatch.refused']
});

export const openArrival = act({
	name: 'openArrival',
	summary: 'Note that a file that came in was looked at, and say which bytes to send',
	method: 'POST',
	path: '/places/{place}/arrivals/{arrival}/opened',
	input: z.strictObject({ ...atArrival, ranged }),
	output: z.strictObject({ hash: z.string(), fileName: z.string() }),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', only: ['shelf', 'folder'] },
	events: ['hatch.looked-at']
});

import { z } from 'zod';
import { act, done, view } from './act';
import { email, id, name, note, secret } from './fields';
import { drawnSchema } from '../core/releases/drawn';
import { finite, remarkText } from './remarks';
import { mark } from './shapes/markup';

/** What who answers a release by a pass adds to a verdict, until it is signed: remarks and marks on the sheet, and marked-up files. */

const at = { kind: 'pass', secret: (i: { secret: string }) => i.secret } as const;

export const placeRemark = act({
	name: 'placeRemark',
	summary: 'Place a remark on a sheet of a release, as a part of the verdict on it',
	method: 'POST',
	path: '/passes/{secret}/documents/{document}/remarks',
	input: z.strictObject({
		secret,
		document: id,
		page: z.int().min(1).max(100_000),
		x: finite,
		y: finite,
		text: remarkText
	}),
	output: z.strictObject({ id: z.string(), number: z.number() }),
	at,
	events: []
});

export const takeBackRemark = act({
	name: 'takeBackRemark',
	summary: 'Take a remark back that is not signed yet',
	method: 'DELETE',
	path: '/passes/{secret}/remarks/{remark}',
	input: z.strictObject({ secret, remark: id }),
	output: done,
	at,
	events: []
});

/** Most marks that are drawn, changed or taken back at once. */
const MOST_AT_ONCE = 200;

export const drawMarks = act({
	name: 'drawMarks',
	summary:
		'Draw marks on a sheet of a release, as a part of the verdict on it, or change them; and take marks back',
	method: 'PUT',
	path: '/passes/{secret}/documents/{document}/marks',
	input: z.strictObject({
		secret,
		document: id,
		/** As they are from now on. */
		drawn: z.array(drawnSchema).max(MOST_AT_ONCE).default([]),
		/** Ids of those that are taken back; what is not there any more is passed over. */
		gone: z.array(drawnSchema.shape.id).max(MOST_AT_ONCE).default([])
	}),
	output: done,
	at,
	events: []
});

export const drawnMarks = view({
	name: 'drawnMarks',
	summary: 'The marks that are drawn on a sheet of a release, as a part of the verdict on it',
	path: '/passes/{secret}/documents/{document}/marks',
	input: z.strictObject({ secret, document: id }),
	output: z.strictObject({ marks: z.array(mark) }),
	at
});

export const addMarkedFile = act({
	name: 'addMarkedFile',
	summary: 'Send a marked-up file along with the verdict on a document',
	method: 'POST',
	path: '/passes/{secret}/documents/{document}/files',
	input: z.strictObject({ secret, document: id, upload: id }),
	output: z.strictObject({ id: z.string() }),
	at,
	events: []
});

export const takeBackFile = act({
	name: 'takeBackFile',
	summary: 'Take a marked-up file back that is not signed yet',
	method: 'DELETE',
	path: '/passes/{secret}/files/{file}',
	input: z.strictObject({ secret, file: id }),
	output: done,
	at,
	events: []
});

export const askForColleague = act({
	name: 'askForColleague',
	summary: 'Ask that a colleague of yours answers a release along with you, or in your stead',
	method: 'POST',
	path: '/passes/{secret}/colleagues',
	input: z.strictObject({
		secret,
		name,
		email,
		/** That they answer in your stead: they are reminded, and you are not. */
		instead: z.boolean().default(false),
		words: note.default('')
	}),
	output: z.strictObject({ id: z.string() }),
	at,
	events: ['colleague.asked']
});

export const answerRoom = view({
	name: 'answerRoom',
	summary: 'How much the marked-up files that come with the verdicts on a release may still take',
	path: '/passes/{secret}/files',
	input: z.strictObject({ secret }),
	output: z.strictObject({
		pass: z.string(),
		/** Bytes, for one release and its recipient. */
		most: z.number(),
		left: z.number()
	}),
	at
});

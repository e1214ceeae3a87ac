import { z } from 'zod';
import { EVERY_CAP } from '../core/access/decide';
import { DOCUMENT_RULES } from '../core/documents/may';
import { act, done } from './act';
import { id, moment, note, projectKey, reason } from './fields';

export const takeLock = act({
	name: 'takeLock',
	summary: 'Take a document in hand',
	method: 'POST',
	path: '/documents/{document}/lock',
	input: z.strictObject({ document: id, purpose: note, expectedEnd: moment.nullish() }),
	output: z.strictObject({ holder: z.string(), since: moment }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.takeLock },
	events: ['lock.taken']
});

export const takeLocks = act({
	name: 'takeLocks',
	summary:
		'Take several documents in hand for a joint change: all of them or none, or, when asked for, those that nobody has',
	method: 'POST',
	path: '/projects/{project}/locks',
	input: z.strictObject({
		project: projectKey,
		documents: z.array(id).min(1, 'Choose documents first.').max(500, 'At most 500 at a time.'),
		purpose: note,
		expectedEnd: moment.nullish(),
		/** Lock those that are free, and leave the others with whoever has them. */
		rest: z.boolean().default(false)
	}),
	output: z.strictObject({
		locked: z.number(),
		left: z.array(
			z.strictObject({ id: z.string(), number: z.string(), holder: z.string(), holderId: z.string() })
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['lock.taken']
});

export const extendLock = act({
	name: 'extendLock',
	summary: 'Say anew until when, and what for, you have a document in hand',
	method: 'PATCH',
	path: '/documents/{document}/lock',
	input: z.strictObject({ document: id, expectedEnd: moment, purpose: note.optional() }),
	output: z.strictObject({ expectedEnd: moment }),
	at: { kind: 'document', id: (i) => i.document, level: 'view', applies: DOCUMENT_RULES.extendLock },
	events: ['lock.extended']
});

export const giveBackLock = act({
	name: 'giveBackLock',
	summary: 'Give a lock back without a new version',
	method: 'DELETE',
	path: '/documents/{document}/lock',
	input: z.strictObject({ document: id }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'view', applies: DOCUMENT_RULES.giveBackLock },
	events: ['lock.given-back']
});

export const answerBrokenLock = act({
	name: 'answerBrokenLock',
	summary: 'Say that nothing comes of the work under a lock of yours that was broken',
	method: 'POST',
	path: '/documents/{document}/lock/answer',
	input: z.strictObject({ document: id }),
	output: done,
	at: {
		kind: 'document',
		id: (i) => i.document,
		level: 'view',
		past: EVERY_CAP,
		applies: DOCUMENT_RULES.answerBrokenLock
	},
	events: ['lock.answered']
});

export const handOverLock = act({
	name: 'handOverLock',
	summary: 'Hand a lock over to a colleague who may work here',
	method: 'POST',
	path: '/documents/{document}/lock/holder',
	input: z.strictObject({ document: id, to: id, note: note.default('') }),
	output: z.strictObject({ holder: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'view', applies: DOCUMENT_RULES.handOverLock },
	events: ['lock.handed-over']
});

export const askForLock = act({
	name: 'askForLock',
	summary: 'Ask the holder of a lock for it; you are told when it is free',
	method: 'POST',
	path: '/documents/{document}/lock/wish',
	input: z.strictObject({ document: id, note: note.default('') }),
	output: done,
	at: {
		kind: 'document',
		id: (i) => i.document,
		level: 'work',
		past: ['inHand'],
		applies: DOCUMENT_RULES.askForLock
	},
	events: ['lock.asked']
});

export const waitForLock = act({
	name: 'waitForLock',
	summary: 'Be told when a document is free',
	method: 'PUT',
	path: '/documents/{document}/lock/wish',
	input: z.strictObject({ document: id }),
	output: done,
	at: {
		kind: 'document',
		id: (i) => i.document,
		level: 'view',
		past: ['inHand'],
		applies: DOCUMENT_RULES.waitForLock
	},
	events: []
});

export const endWish = act({
	name: 'endWish',
	summary: 'Do not wait for a lock any more',
	method: 'DELETE',
	path: '/documents/{document}/lock/wish',
	input: z.strictObject({ document: id }),
	output: done,
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] },
	events: []
});

export const breakLock = act({
	name: 'breakLock',
	summary: 'Break the lock of somebody else, with a reason; what they bring later is kept beside the line',
	method: 'POST',
	path: '/documents/{document}/lock/break',
	input: z.strictObject({ document: id, reason }),
	output: z.strictObject({ holder: z.string() }),
	at: {
		kind: 'document',
		id: (i) => i.document,
		level: 'manage',
		past: EVERY_CAP,
		applies: DOCUMENT_RULES.breakLock
	},
	events: ['lock.broken']
});

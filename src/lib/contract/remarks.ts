import { z } from 'zod';
import { REMARK_FILTERS } from '../core/remarks/remarks';
import { act, done, view } from './act';
import { day, id, note, projectKey } from './fields';
import { remarkRow } from './shapes/remarks';

export const finite = z.number().min(-1e12).max(1e12);

export const anchorInput = z.discriminatedUnion('on', [
	z.strictObject({ on: z.literal('whole') }),
	z.strictObject({ on: z.literal('version') }),
	z.strictObject({ on: z.literal('place'), page: z.int().min(1).max(100_000), x: finite, y: finite }),
	z.strictObject({
		on: z.literal('passage'),
		/** Where the passage begins and ends, as positions that stay with their words (Yjs, encoded). */
		from: z.string().max(400),
		to: z.string().max(400)
	}),
	z.strictObject({ on: z.literal('cell'), row: id, column: id }),
	z.strictObject({
		on: z.literal('entity'),
		entity: z.string().regex(/^(\d{1,7}|[a-z0-9]{10})$/, 'This is no entity.'),
		x: finite,
		y: finite
	})
]);

export const remarkText = note.refine((text) => text.length > 0, 'Write the remark.');

export const assignee = z.strictObject({ kind: z.enum(['person', 'department']), id });

export const addRemark = act({
	name: 'addRemark',
	summary:
		'Remark on a document: on a place of a sheet, a passage of a live text, a cell, an entity, a version, or the whole',
	method: 'POST',
	path: '/documents/{document}/remarks',
	input: z.strictObject({
		document: id,
		/** The version it is made on; the newest when left out. */
		label: z.string().max(20).optional(),
		anchor: anchorInput,
		text: remarkText,
		quote: note.default(''),
		assign: assignee.optional(),
		due: day.optional()
	}),
	output: z.strictObject({ id: z.string(), number: z.number() }),
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['remark.added']
});

export const remarkInput = z.strictObject({ document: id, remark: z.coerce.number().int().min(1) });

export const answerRemark = act({
	name: 'answerRemark',
	summary: 'Answer a remark',
	method: 'POST',
	path: '/documents/{document}/remarks/{remark}/answers',
	input: remarkInput.extend({ text: remarkText }),
	output: done,
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['remark.answered']
});

export const settleRemark = act({
	name: 'settleRemark',
	summary: 'Settle a remark, saying how if you like',
	method: 'POST',
	path: '/documents/{document}/remarks/{remark}/settled',
	input: remarkInput.extend({ note: note.default('') }),
	output: done,
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['remark.settled']
});

export const reopenRemark = act({
	name: 'reopenRemark',
	summary: 'Open a settled remark again',
	method: 'DELETE',
	path: '/documents/{document}/remarks/{remark}/settled',
	input: remarkInput,
	output: done,
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['remark.reopened']
});

export const assignRemark = act({
	name: 'assignRemark',
	summary: 'Give a remark to a person or department to settle, by a day if you like',
	method: 'PUT',
	path: '/documents/{document}/remarks/{remark}/assigned',
	input: remarkInput.extend({ assign: assignee, due: day.optional() }),
	output: done,
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['remark.assigned']
});

export const settleRemarks = act({
	name: 'settleRemarks',
	summary: 'Answer and settle several remarks of a document in one go',
	method: 'POST',
	path: '/documents/{document}/remarks/settled',
	input: z.strictObject({
		document: id,
		lines: z
			.array(z.strictObject({ remark: z.int().min(1), note: note.default('') }))
			.min(1, 'Choose remarks first.')
			.max(500, 'At most 500 at a time.')
	}),
	output: z.strictObject({ settled: z.number() }),
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['remark.settled']
});

export const remarks = view({
	name: 'remarks',
	summary: 'The remarks on a document, with their answers',
	path: '/documents/{document}/remarks',
	input: z.strictObject({ document: id }),
	output: z.strictObject({ remarks: z.array(remarkRow), mayRemark: z.boolean() }),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const remarksWithin = view({
	name: 'remarksWithin',
	summary: 'Remarks on documents you may look at, in a project or a folder: open, settled, yours, or all',
	path: '/projects/{project}/remarks',
	input: z.strictObject({
		project: projectKey,
		place: id.optional(),
		filter: z.enum(REMARK_FILTERS).default('open'),
		by: id.optional()
	}),
	output: z.strictObject({ remarks: z.array(remarkRow) }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const mentionable = view({
	name: 'mentionable',
	summary:
		'Who can be mentioned in a remark here: people who may look at the document, and their departments',
	path: '/documents/{document}/mentionable',
	input: z.strictObject({ document: id }),
	output: z.strictObject({
		people: z.array(z.strictObject({ id: z.string(), name: z.string(), kind: z.literal('person') })),
		departments: z.array(z.strictObject({ id: z.string(), name: z.string(), kind: z.literal('department') }))
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] }
});

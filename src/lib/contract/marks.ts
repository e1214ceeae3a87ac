import { z } from 'zod';
import { act, view } from './act';
import { id } from './fields';
import { mark, scale } from './shapes/markup';

export const label = z.string().max(20);

export const carryMarks = act({
	name: 'carryMarks',
	summary:
		'Carry the marks of one version over to another, with whose they are; what no longer fits is said, so that somebody looks',
	method: 'POST',
	path: '/documents/{document}/versions/{label}/marks/carried',
	input: z.strictObject({
		document: id,
		label,
		from: label,
		/** Marks under which the sheet has changed between the two. */
		changed: z.array(z.string().max(20)).max(20_000).default([])
	}),
	output: z.strictObject({ carried: z.number() }),
	at: { kind: 'place', id: (i) => i.document, level: 'remark', only: ['document'] },
	events: ['marks.carried']
});

export const versionInput = z.strictObject({ document: id, label: z.string().max(20) });

export const markRoom = view({
	name: 'markRoom',
	summary: 'How you may mark up a version now: not at all, with marks of your own, or all of them',
	path: '/documents/{document}/versions/{label}/marks/room',
	input: versionInput,
	output: z.strictObject({
		room: z.string(),
		projectId: z.string(),
		mode: z.enum(['read', 'suggest', 'write']),
		departments: z.array(z.string())
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const marks = view({
	name: 'marks',
	summary: 'The marks on a version, and the scales of its pages',
	path: '/documents/{document}/versions/{label}/marks',
	input: versionInput,
	output: z.strictObject({ marks: z.array(mark), scales: z.record(z.string(), scale) }),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

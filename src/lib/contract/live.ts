import { z } from 'zod';
import { LIVE_KINDS } from '../core/live/live';
import { MEDIA_TYPE, type Ending } from '../core/files/media';
import { MOST_COLUMNS, MOST_LETTERS, MOST_ROWS, columnSchema } from '../core/schedule/column';
import { DOCUMENT_RULES } from '../core/documents/may';
import { act, done, view } from './act';
import { id, name, note, number, tags } from './fields';
import { item } from './shapes/drawing';
import { passage } from './shapes/text';
import { schedule } from './shapes/schedule';
import type { Node } from 'prosemirror-model';
import { textFromJson } from '../core/text/shared';

export const workDrawingLive = act({
	name: 'workDrawingLive',
	summary:
		'Edit a DXF drawing together: several edit it at once, each department its layers; the file stays as the version it is',
	method: 'POST',
	path: '/documents/{document}/live/drawing',
	input: z.strictObject({ document: id, base: z.string().max(20) }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.workDrawingLive },
	events: ['live.begun']
});

export const giveLayer = act({
	name: 'giveLayer',
	summary:
		'Hand a layer of a live drawing over to a department, or to nobody; for leads of the department whose it is, and for Manage',
	method: 'PUT',
	path: '/documents/{document}/live/layers/{layer}',
	input: z.strictObject({
		document: id,
		layer: z.string().min(1).max(255),
		/** Id of the department; null when everybody with Work is to edit it. */
		department: id.nullable()
	}),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.giveLayer },
	events: ['live.layer-given']
});

export const cell = z.union([z.string().max(MOST_LETTERS), z.number()]).nullable();

/** Columns, and rows as values in the order of the columns. */
export const scheduleInput = z
	.object({
		columns: z
			.array(columnSchema)
			.min(1, 'A schedule has at least one column.')
			.max(MOST_COLUMNS, `At most ${MOST_COLUMNS} columns.`),
		rows: z.array(z.array(cell).max(MOST_COLUMNS)).max(MOST_ROWS, `At most ${MOST_ROWS} rows.`)
	})
	.refine(
		({ columns }) => new Set(columns.map((c) => c.name.toLowerCase())).size === columns.length,
		'Two columns have the same name.'
	);

export const addLiveSchedule = act({
	name: 'addLiveSchedule',
	summary: 'Add a schedule to a folder that several edit at once, with its columns and first rows',
	method: 'POST',
	path: '/places/{folder}/live-schedules',
	input: z.strictObject({
		folder: id,
		number,
		title: name,
		tags: tags.default([]),
		schedule: scheduleInput,
		format: z.enum(['xlsx', 'ods', 'csv']).default('xlsx')
	}),
	output: z.strictObject({ id: z.string(), number: z.string(), label: z.string() }),
	at: { kind: 'place', id: (i) => i.folder, level: 'work', only: ['folder', 'shelf'] },
	events: ['document.added']
});

export const workScheduleLive = act({
	name: 'workScheduleLive',
	summary:
		'Edit a schedule together: its first sheet becomes editable by several at once, the file stays as the version it is',
	method: 'POST',
	path: '/documents/{document}/live/schedule',
	input: z.strictObject({ document: id, base: z.string().max(20), schedule: scheduleInput }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.workScheduleLive },
	events: ['live.begun']
});

/** Most characters of a text as it comes in, in JSON. */
export const MOST_TEXT = 6_000_000;

/** A text as JSON in the words of the schema; what does not fit is refused. */
export const textInput = z.unknown().transform((json, context): Node => {
	try {
		if (JSON.stringify(json).length > MOST_TEXT) throw new RangeError('it is too long');
		return textFromJson(json);
	} catch (error) {
		context.addIssue({
			code: 'custom',
			message: `This is no text that can be edited here: ${(error as Error).message.slice(0, 200)}.`
		});
		return z.NEVER;
	}
});

/** Uploads of the pictures that stand in a text. */
export const pictures = z.array(id).max(500, 'At most 500 pictures.').default([]);

export const addLiveText = act({
	name: 'addLiveText',
	summary: 'Add a text to a folder that several edit at once; empty, or beginning with a given text',
	method: 'POST',
	path: '/places/{folder}/live-texts',
	input: z.strictObject({
		folder: id,
		number,
		title: name,
		tags: tags.default([]),
		text: textInput.optional(),
		pictures,
		format: z.enum(['docx', 'odt']).default('docx')
	}),
	output: z.strictObject({ id: z.string(), number: z.string(), label: z.string() }),
	at: { kind: 'place', id: (i) => i.folder, level: 'work', only: ['folder', 'shelf'] },
	events: ['document.added']
});

export const workLive = act({
	name: 'workLive',
	summary:
		'Edit a text together: its text becomes editable by several at once, the file stays as the version it is',
	method: 'POST',
	path: '/documents/{document}/live',
	input: z.strictObject({ document: id, base: z.string().max(20), text: textInput, pictures }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.workLive },
	events: ['live.begun']
});

export const addLivePicture = act({
	name: 'addLivePicture',
	summary: 'Put a picture at the disposal of a live text; give it a place in the text by its hash',
	method: 'POST',
	path: '/documents/{document}/live/pictures',
	input: z.strictObject({ document: id, upload: id }),
	output: z.strictObject({ content: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.addLivePicture },
	events: ['live.picture-added']
});

export const ending = z.enum(Object.keys(MEDIA_TYPE) as [Ending, ...Ending[]]);

export const handInLive = act({
	name: 'handInLive',
	summary:
		'Cut a version of a live document: an open file with the live state behind it; a lock of one’s own ends',
	method: 'POST',
	path: '/documents/{document}/live/versions',
	input: z.strictObject({
		document: id,
		note: note.refine((text) => text.length > 0, 'Say what changed.'),
		/** A text as DOCX or ODT, a schedule as XLSX, ODS or CSV, a drawing as DXF; the first when left out. */
		format: ending.optional()
	}),
	output: z.strictObject({ label: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.handInLive },
	events: ['version.handed-in']
});

export const restoreLive = act({
	name: 'restoreLive',
	summary:
		'Bring a live document back to what an earlier version held; what was done since stays in the history',
	method: 'POST',
	path: '/documents/{document}/live/versions/{label}/restore',
	input: z.strictObject({ document: id, label: z.string().max(20) }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.restoreLive },
	events: ['version.restored']
});

export const endLive = act({
	name: 'endLive',
	summary: 'End editing a document together: it is a file again, at its newest version',
	method: 'DELETE',
	path: '/documents/{document}/live',
	input: z.strictObject({ document: id }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.endLive },
	events: ['live.ended']
});

export const takeLive = act({
	name: 'takeLive',
	summary: 'Note that a live document is taken as a file, and say what to write',
	method: 'POST',
	path: '/documents/{document}/live/taken',
	input: z.strictObject({ document: id, format: ending }),
	output: z.strictObject({
		names: z.record(z.string(), z.string()),
		room: z.string(),
		kind: z.enum(LIVE_KINDS),
		number: z.string(),
		title: z.string()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'download', only: ['document'] },
	events: ['document.downloaded']
});

export const documentInput = z.strictObject({ document: id });

export const liveRoom = view({
	name: 'liveRoom',
	summary: 'How you may be in a live document now: read, suggest or write',
	path: '/documents/{document}/live',
	input: documentInput,
	output: z.strictObject({
		room: z.string(),
		projectId: z.string(),
		mode: z.enum(['read', 'suggest', 'write']),
		departments: z.array(z.string())
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const liveText = view({
	name: 'liveText',
	summary: 'What a live text says now, in the words of its schema',
	path: '/documents/{document}/live/text',
	input: documentInput,
	output: z.strictObject({ text: z.unknown() }),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const liveSchedule = view({
	name: 'liveSchedule',
	summary: 'What a live schedule holds now: its columns, and its rows in their order',
	path: '/documents/{document}/live/schedule',
	input: documentInput,
	output: schedule,
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const liveDrawing = view({
	name: 'liveDrawing',
	summary: 'What was done to a live drawing since its base, and whose its layers are',
	path: '/documents/{document}/live/drawing',
	input: documentInput,
	output: z.strictObject({
		changes: z.array(
			z.tuple([
				z.number(),
				z.strictObject({
					removed: z.literal(true).optional(),
					move: z.tuple([z.number(), z.number()]).optional(),
					layer: z.string().optional(),
					text: z.string().optional(),
					attributes: z.record(z.string(), z.string()).optional()
				})
			])
		),
		items: z.array(item),
		layers: z.array(z.tuple([z.string(), z.strictObject({ off: z.boolean() })])),
		base: z.string(),
		owners: z.record(z.string(), z.string())
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const liveNames = view({
	name: 'liveNames',
	summary: 'The names of everybody who has written in a live document',
	path: '/documents/{document}/live/names',
	input: documentInput,
	output: z.strictObject({ people: z.array(z.strictObject({ id: z.string(), name: z.string() })) }),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const liveAuthors = view({
	name: 'liveAuthors',
	summary: 'Who wrote and who took away what in a live text, between two versions or up to now',
	path: '/documents/{document}/live/authors',
	input: z.strictObject({
		document: id,
		from: z.string().max(20).default(''),
		to: z.string().max(20).default('now')
	}),
	output: z.strictObject({
		passages: z.array(passage),
		people: z.array(z.strictObject({ id: z.string(), name: z.string() }))
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

/** The stored bytes of a picture that stands in a live text. */
export const livePictureContent = view({
	name: 'livePictureContent',
	summary: 'Which stored bytes a picture of a live text has',
	path: '/documents/{document}/live/pictures/{content}',
	input: z.strictObject({ document: id, content: z.string().regex(/^[0-9a-f]{64}$/, 'This is no picture.') }),
	output: z.strictObject({
		fileName: z.string(),
		mayGive: z.boolean(),
		hash: z.string(),
		mediaType: z.string(),
		size: z.number()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

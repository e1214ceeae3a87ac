import { z } from 'zod';
import { LEVELS } from '../core/access/levels';
import { LIVE_KINDS } from '../core/live/live';
import { PURPOSES } from '../core/revisions/revisions';
import { DOCUMENT_ACTS, DOCUMENT_RULES } from '../core/documents/may';
import { canDo } from './shapes/can';
import { PLACE_RULES } from '../core/places/may';
import { act, done, view } from './act';
import { base } from './shapes/versions';
import { documentRow as documentRowShape, sheetWord, sideRow, versionRow } from './shapes/documents';
import { flag, id, moment, name, note, number, projectKey, ranged, reason, tags } from './fields';
import { titleBlock } from './shapes/dxf';

export const label = z.string().max(20);

export const handIn = act({
	name: 'handIn',
	summary:
		'Hand in a new version of a document in hand, or save one and keep the lock; without the lock, or made from an older version, it is kept beside the line. Where others stored a version after the last that the sender had, it is refused until the sender says what the file was made from',
	method: 'POST',
	path: '/documents/{document}/versions',
	input: z.strictObject({
		document: id,
		upload: id,
		note: note.refine((text) => text.length > 0, 'Say what changed.'),
		keepLock: z.boolean().default(false),
		/**
		 * The version that the file was made from, as its sender says; anything but the newest is kept beside (L5).
		 * Without it, it is the newest that the sender is known to have had.
		 */
		base: label.optional(),
		/** Keep it beside the line whatever it was made from. */
		beside: z.boolean().default(false)
	}),
	/** What became of the file: a version on the line, one beside it, or nothing, for it was the newest already. */
	output: z.discriminatedUnion('kept', [
		z.strictObject({ kept: z.literal('on-the-line'), label: z.string() }),
		z.strictObject({ kept: z.literal('beside'), side: z.number() }),
		z.strictObject({ kept: z.literal('as-it-was'), label: z.string() })
	]),
	// Past a lock of another it is kept beside the line (L5).
	at: {
		kind: 'document',
		id: (i) => i.document,
		level: 'work',
		past: ['inHand'],
		applies: DOCUMENT_RULES.handIn
	},
	events: ['version.handed-in', 'version.saved', 'version.set-beside', 'lock.given-back']
});

export const sideInput = z.strictObject({ document: id, side: z.coerce.number().int().min(1) });

export const mergeSide = act({
	name: 'mergeSide',
	summary: 'Merge a side version: its content, or a file that joins both, becomes the next version',
	method: 'POST',
	path: '/documents/{document}/sides/{side}/merge',
	input: sideInput.extend({ upload: id.optional(), note: note.default('') }),
	output: z.strictObject({ label: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.mergeSide },
	events: ['version.merged']
});

export const discardSide = act({
	name: 'discardSide',
	summary: 'Discard a side version; its content stays in the history',
	method: 'POST',
	path: '/documents/{document}/sides/{side}/discard',
	input: sideInput.extend({ reason }),
	output: done,
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.discardSide },
	events: ['version.dropped']
});

export const takeSide = act({
	name: 'takeSide',
	summary: 'Note that a side version was opened or downloaded, and say which bytes to send',
	method: 'POST',
	path: '/documents/{document}/sides/{side}/taken',
	input: sideInput.extend({ how: z.enum(['opened', 'downloaded']), ranged }),
	output: z.strictObject({
		number: z.string(),
		hash: z.string(),
		fileName: z.string(),
		mediaType: z.string(),
		size: z.number()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] },
	events: ['document.opened', 'document.downloaded']
});

export const issueRevision = act({
	name: 'issueRevision',
	summary: 'Issue the newest working save as the next revision, outside a release',
	method: 'POST',
	path: '/documents/{document}/issue',
	input: z.strictObject({ document: id, purpose: z.enum(PURPOSES), note: reason }),
	output: z.strictObject({ label: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'manage', applies: DOCUMENT_RULES.issueRevision },
	events: ['document.revised']
});

export const STATES = ['wip', 'shared', 'published', 'archived'] as const;

export const changeState = act({
	name: 'changeState',
	summary: 'Change the state of a document, with a reason (the four states of ISO 19650-1)',
	method: 'POST',
	path: '/documents/{document}/state',
	input: z.strictObject({ document: id, state: z.enum(STATES), reason }),
	output: done,
	at: {
		kind: 'document',
		id: (i) => i.document,
		level: 'manage',
		past: ['archived'],
		applies: DOCUMENT_RULES.changeState
	},
	events: ['document.state-changed']
});

export const schemeInput = z.strictObject({
	sequences: z
		.array(
			z.strictObject({
				prefix: z.string().trim(),
				name: z.string().trim().max(60),
				digits: z.number().int()
			})
		)
		.max(8, 'At most eight sequences.'),
	demands: z.strictObject({
		information: z.string(),
		comment: z.string(),
		approval: z.string(),
		construction: z.string(),
		'as-built': z.string()
	})
});

export const changeRevisionScheme = act({
	name: 'changeRevisionScheme',
	summary: 'Change which revisions there are in a project, and which purposes demand which',
	method: 'PUT',
	path: '/projects/{project}/revision-scheme',
	input: schemeInput.extend({ project: projectKey, note: note.default('') }),
	output: done,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['project.scheme-changed']
});

export const addDocument = act({
	name: 'addDocument',
	summary: 'Add a document to a folder from a file sent before',
	method: 'POST',
	path: '/places/{folder}/documents',
	input: z.strictObject({
		folder: id,
		upload: id,
		number,
		title: name,
		tags: tags.default([]),
		note: note.default(''),
		/** It was asked before and no answer came: when the document is there since, it is the answer. */
		again: z.boolean().default(false)
	}),
	output: z.strictObject({ id: z.string(), number: z.string(), label: z.string() }),
	at: {
		kind: 'place',
		id: (i) => i.folder,
		level: 'work',
		only: ['folder', 'shelf'],
		asks: PLACE_RULES.addDocument
	},
	events: ['document.added']
});

export const restoreVersion = act({
	name: 'restoreVersion',
	summary: 'Make a new version with the content of an older one',
	method: 'POST',
	path: '/documents/{document}/versions/{label}/restore',
	input: z.strictObject({ document: id, label: z.string().max(20), note: note.default('') }),
	output: z.strictObject({ label: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.restoreVersion },
	events: ['version.restored']
});

export const writeTitleBlock = act({
	name: 'writeTitleBlock',
	summary: 'Write number and revision in the title block of a drawing (DXF), as a new version',
	method: 'POST',
	path: '/documents/{document}/title-block',
	input: z.strictObject({
		document: id,
		/** What its sheet is to say: the revision that the document is to go out as. */
		revision: z.string().trim().min(1, 'Say which revision.').max(20)
	}),
	output: z.strictObject({ label: z.string() }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.writeTitleBlock },
	events: ['version.handed-in', 'version.saved']
});

export const openDocument = act({
	name: 'openDocument',
	summary: 'Note that a version of a document was opened on screen',
	method: 'POST',
	path: '/documents/{document}/opened',
	input: z.strictObject({ document: id, label: z.string().max(20).optional() }),
	output: done,
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] },
	events: ['document.opened'],
	whileTrying: true
});

export const downloadDocument = act({
	name: 'downloadDocument',
	summary: 'Note the download of a version and say which bytes to send',
	method: 'POST',
	path: '/documents/{document}/versions/{label}/download',
	input: z.strictObject({ document: id, label: z.string().max(20), ranged }),
	output: z.strictObject({
		number: z.string(),
		title: z.string(),
		label: z.string(),
		hash: z.string(),
		fileName: z.string()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'download', only: ['document'] },
	events: ['document.downloaded']
});

export const documentInput = z.strictObject({ document: id });

export const documentRow = view({
	name: 'documentRow',
	summary: 'One document as lists show it',
	path: '/documents/{document}/row',
	input: documentInput,
	output: documentRowShape,
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const documentView = view({
	name: 'documentView',
	summary: 'A document with its versions, its lock and where it is',
	path: '/documents/{document}',
	input: documentInput,
	output: z.strictObject({
		row: documentRowShape,
		project: z.string(),
		timeZone: z.string(),
		level: z.enum(LEVELS),
		levelLabel: z.string(),
		/** What can be done with it now, by the name of the act; where it cannot, the sentence of the refusal. */
		can: canDo(DOCUMENT_ACTS),
		way: z.array(
			z.strictObject({ id: z.string(), name: z.string(), kind: z.string(), code: z.string().nullable() })
		),
		sides: z.array(sideRow),
		waiting: z.strictObject({
			asked: z.array(z.strictObject({ name: z.string(), note: z.string() })),
			mine: z.enum(['asked', 'told']).nullable()
		}),
		broken: z.strictObject({ at: moment, by: z.string(), reason: z.string() }).nullable(),
		marked: z.array(z.string()),
		marksMode: z.enum(['read', 'suggest', 'write']),
		room: z
			.strictObject({
				name: z.string(),
				kind: z.enum(LIVE_KINDS),
				mode: z.enum(['read', 'suggest', 'write'])
			})
			.nullable(),
		/** Whether the reader keeps it at hand. */
		atHand: z.boolean(),
		/** Whether it lies on the reader's desk. */
		onDesk: z.boolean(),
		/** Sheets or pages of the newest version, where the file says how many. */
		pages: z.number().nullable(),
		versions: z.array(versionRow)
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const handInBase = view({
	name: 'handInBase',
	summary:
		'The newest version that you are known to have had of a document, and what others stored since; told before a file is sent',
	path: '/documents/{document}/hand-in-base',
	input: documentInput,
	output: base,
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'], past: ['inHand'] }
});

export const handInCheck = view({
	name: 'handInCheck',
	summary: 'What looks wrong with a file sent for handing in: its kind, or the number in its title block',
	path: '/documents/{document}/hand-in-check',
	input: z.strictObject({ document: id, upload: id }),
	output: z.strictObject({ warnings: z.array(z.string()) }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] }
});

export const knownBytes = view({
	name: 'knownBytes',
	summary: 'Documents you may look at that have the very bytes of an upload of yours',
	path: '/projects/{project}/same-bytes',
	input: z.strictObject({ project: projectKey, upload: id }),
	output: z.strictObject({
		hash: z.string().nullable(),
		documents: z.array(
			z.strictObject({ id: z.string(), number: z.string(), title: z.string(), label: z.string() })
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

/** The stored bytes of one version, for showing it. The caller notes the opening by an act. */
export const versionContent = view({
	name: 'versionContent',
	summary: 'Which stored bytes a version has',
	path: '/documents/{document}/versions/{label}',
	input: z.strictObject({ document: id, label: z.string().max(20) }),
	output: z.strictObject({
		mayGive: z.boolean(),
		label: z.string(),
		hash: z.string(),
		fileName: z.string(),
		mediaType: z.string(),
		size: z.number(),
		preview: z.enum(['waiting', 'made', 'none', 'failed']).nullable(),
		inspection: z
			.strictObject({
				fault: z.string().nullable(),
				unchecked: z.boolean(),
				pages: z.number().optional(),
				titleBlock: titleBlock.optional(),
				sheetWords: z.array(sheetWord).optional()
			})
			.nullable()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

/** The stored bytes of a side version, for showing them. The caller notes the opening by an act. */
export const sideContent = view({
	name: 'sideContent',
	summary: 'Which stored bytes a side version has',
	path: '/documents/{document}/sides/{side}',
	input: z.strictObject({ document: id, side: z.coerce.number().int().min(1) }),
	output: z.strictObject({
		mayGive: z.boolean(),
		hash: z.string(),
		fileName: z.string(),
		mediaType: z.string(),
		size: z.number()
	}),
	at: { kind: 'place', id: (i) => i.document, level: 'view', only: ['document'] }
});

export const everythingInHand = view({
	name: 'everythingInHand',
	summary:
		'Everything in hand in a project that you may look at, longest held first; or what you have yourself',
	path: '/projects/{project}/in-hand',
	input: z.strictObject({ project: projectKey, mine: flag }),
	output: z.strictObject({
		/** With how many people wait for each. */
		rows: z.array(documentRowShape.extend({ wanted: z.number() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

import { z } from 'zod';
import { workCalendar } from './shapes/calendar';
import { DOCUMENT_RULES } from '../core/documents/may';
import { LEVELS } from '../core/access/levels';
import { MOST_TAGS } from '../core/files/settle';
import { canDo } from './shapes/can';
import { PLACE_ACTS, PLACE_RULES } from '../core/places/may';
import { PLACE_KINDS, act, done, view } from './act';
import { PURPOSES } from '../core/revisions/revisions';
import { documentRow, sheetArea } from './shapes/documents';
import { id, several, many, moment, name, note, number, projectKey, tag, tags } from './fields';
import { numberingRule } from './shapes/numbering';
import { revisionScheme } from './shapes/revisions';

export const copyDocuments = act({
	name: 'copyDocuments',
	summary:
		'Copy documents and whole folders into a folder: each document as a new one with its newest content and the next free number',
	method: 'POST',
	path: '/projects/{project}/documents/copies',
	input: z.strictObject({ project: projectKey, ...many, to: id, note: note.default('') }),
	output: z.strictObject({
		documents: z.array(z.strictObject({ id: z.string(), number: z.string() })),
		folders: z.array(z.string())
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['document.added', 'folder.made']
});

export const downloadMany = act({
	name: 'downloadMany',
	summary:
		'Note the download of the newest versions of several documents, also of all in folders, and say which bytes to send',
	method: 'POST',
	path: '/projects/{project}/documents/download',
	input: z.strictObject({ project: projectKey, ...many }),
	output: z.strictObject({
		files: z.array(
			z.strictObject({
				way: z.array(z.string()),
				id: z.string(),
				number: z.string(),
				title: z.string(),
				label: z.string(),
				hash: z.string(),
				fileName: z.string(),
				size: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['document.downloaded']
});

export const changeDocument = act({
	name: 'changeDocument',
	summary: 'Change the number, title or tags of a document',
	method: 'PATCH',
	path: '/documents/{document}',
	input: z.strictObject({
		document: id,
		number: number.optional(),
		title: name.optional(),
		tags: tags.optional()
	}),
	output: z.strictObject({ number: z.string(), title: z.string(), tags: z.array(z.string()) }),
	at: { kind: 'document', id: (i) => i.document, level: 'work', applies: DOCUMENT_RULES.changeDocument },
	events: ['document.changed']
});

export const organiseDocuments = act({
	name: 'organiseDocuments',
	summary:
		'Move documents and folders to another folder, tag documents or take tags from them, also all in a folder: all of them or none',
	method: 'POST',
	path: '/projects/{project}/documents/organised',
	input: z.strictObject({
		project: projectKey,
		...many,
		to: id.optional(),
		tag: z.array(tag).max(MOST_TAGS).default([]),
		untag: z.array(tag).max(MOST_TAGS).default([])
	}),
	output: z.strictObject({
		documents: z.array(
			z.strictObject({ id: z.string(), from: z.string().nullable(), tags: z.array(z.string()) })
		),
		folders: z.array(z.strictObject({ id: z.string(), from: z.string().nullable() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['document.moved', 'document.tagged', 'folder.moved']
});

export const makeShelf = act({
	name: 'makeShelf',
	summary: 'Make a shelf, owned by a department or by the project',
	method: 'POST',
	path: '/projects/{project}/shelves',
	input: z.strictObject({
		project: projectKey,
		name,
		department: id.nullable().default(null),
		/** Other departments that reach it too, each with its level; by default a shelf is invisible to them (A4). */
		also: z
			.array(z.strictObject({ department: id, level: z.enum(LEVELS) }))
			.max(100)
			.default([])
	}),
	output: z.strictObject({ id: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['shelf.made']
});

export const makeFolder = act({
	name: 'makeFolder',
	summary: 'Make a folder on a shelf or in a folder',
	method: 'POST',
	path: '/places/{parent}/folders',
	input: z.strictObject({ parent: id, name }),
	output: z.strictObject({ id: z.string() }),
	at: {
		kind: 'place',
		id: (i) => i.parent,
		level: 'work',
		only: ['shelf', 'folder'],
		asks: PLACE_RULES.makeFolder
	},
	events: ['folder.made']
});

/** So many folders are made at once, at most. */
export const MOST_FOLDERS = 300;

export const makeFolders = act({
	name: 'makeFolders',
	summary: 'Make a tree of folders on a shelf or in a folder; those that are there already are gone into',
	method: 'POST',
	path: '/places/{parent}/folder-tree',
	input: z.strictObject({
		parent: id,
		/** The way to each folder by names, outermost first. */
		ways: z
			.array(z.array(name).min(1).max(30))
			.min(1)
			.max(MOST_FOLDERS, `At most ${MOST_FOLDERS} folders are made at once.`)
	}),
	output: z.strictObject({
		/** How many were made, and the folder each way leads to. */
		made: z.number(),
		folders: z.array(z.string())
	}),
	at: {
		kind: 'place',
		id: (i) => i.parent,
		level: 'work',
		only: ['shelf', 'folder'],
		asks: PLACE_RULES.makeFolders
	},
	events: ['folder.made']
});

export const renameFolder = act({
	name: 'renameFolder',
	summary: 'Rename a folder or shelf',
	method: 'PATCH',
	path: '/places/{folder}',
	input: z.strictObject({ folder: id, name }),
	output: done,
	at: {
		kind: 'place',
		id: (i) => i.folder,
		level: 'work',
		only: ['folder', 'shelf'],
		asks: PLACE_RULES.renameFolder
	},
	events: ['folder.renamed']
});

export const moveFolder = act({
	name: 'moveFolder',
	summary: 'Move a folder with everything in it',
	method: 'POST',
	path: '/places/{folder}/move',
	input: z.strictObject({ folder: id, to: id }),
	output: z.strictObject({ from: z.string().nullable() }),
	at: { kind: 'place', id: (i) => i.folder, level: 'work', only: ['folder'], asks: PLACE_RULES.moveFolder },
	events: ['folder.moved']
});

export const shelves = view({
	name: 'shelves',
	summary:
		'The shelves you reach, with a box for each folder and true counts; and what was given to you alone',
	path: '/projects/{project}/shelves',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		shelves: z.array(
			z.strictObject({
				id: z.string(),
				name: z.string(),
				level: z.string(),
				viewOnly: z.boolean(),
				frozen: z.strictObject({ by: z.string(), reason: z.string() }).nullable(),
				position: z.number(),
				department: z
					.strictObject({
						code: z.string(),
						name: z.string(),
						lead: z.string().nullable(),
						people: z.number()
					})
					.nullable(),
				documents: z.number(),
				inHand: z.number(),
				fresh: z.number(),
				boxes: z.array(
					z.strictObject({
						id: z.string(),
						name: z.string(),
						documents: z.number(),
						inHand: z.number(),
						fresh: z.number(),
						lastAt: moment.nullable(),
						lastBy: z.string().nullable(),
						frozen: z.boolean(),
						closed: z.boolean(),
						viewOnly: z.boolean()
					})
				)
			})
		),
		alone: z.array(
			z.strictObject({
				id: z.string(),
				name: z.string(),
				kind: z.enum(PLACE_KINDS),
				level: z.string(),
				viewOnly: z.boolean()
			})
		),
		drops: z.array(z.strictObject({ id: z.string(), by: z.string().nullable() })),
		overdue: z.array(z.strictObject({ number: z.number(), replyBy: z.string().nullable() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const folder = view({
	name: 'folder',
	summary: 'A shelf or folder: the way to it, the folders around it, what you may do',
	path: '/places/{place}',
	input: z.strictObject({ place: id }),
	output: z.strictObject({
		place: z.strictObject({
			id: z.string(),
			name: z.string(),
			kind: z.enum(PLACE_KINDS),
			closed: z.boolean(),
			/** Whether the reader keeps it at hand. */
			atHand: z.boolean(),
			/** Whether it is the reader's desk, or lies on it. */
			onDesk: z.boolean()
		}),
		level: z.enum(LEVELS),
		levelLabel: z.string(),
		uncapped: z.string(),
		freeze: z.strictObject({ by: z.string(), at: moment, reason: z.string(), here: z.boolean() }).nullable(),
		way: z.array(
			z.strictObject({
				id: z.string(),
				name: z.string(),
				kind: z.enum(PLACE_KINDS),
				code: z.string().nullable()
			})
		),
		tree: z.array(
			z.strictObject({
				position: z.number(),
				documents: z.number(),
				frozen: z.boolean(),
				id: z.string(),
				parentId: z.string().nullable(),
				name: z.string(),
				kind: z.enum(PLACE_KINDS),
				closed: z.boolean(),
				code: z.string().nullable()
			})
		),
		direct: z.number(),
		documents: z.number(),
		inHand: z.number(),
		/** What can be done here now, by the name of the act. */
		can: canDo(PLACE_ACTS)
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'view', only: ['shelf', 'folder'] }
});

export const folders = view({
	name: 'folders',
	summary: 'The shelves and folders where you may work, for choosing one to move to',
	path: '/projects/{project}/folders',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		folders: z.array(z.strictObject({ id: z.string(), inside: z.array(z.string()), way: z.string() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const projectFrame = view({
	name: 'projectFrame',
	summary: 'A project, its departments and what you are in it',
	path: '/projects/{project}',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		project: z.strictObject({
			outsideLevel: z.enum(LEVELS).nullable(),
			manageNeedsTwoStep: z.boolean(),
			keepPosition: z.boolean(),
			stamps: z.array(z.string()),
			id: z.string(),
			code: z.string(),
			name: z.string(),
			client: z.string(),
			timeZone: z.string(),
			ownDomains: z.array(z.string()),
			releasePurposes: z.array(z.enum(PURPOSES)),
			titleBlock: sheetArea,
			retentionDays: z.number(),
			lockLimitDays: z.number(),
			maxFileBytes: z.number(),
			revisions: revisionScheme,
			numbering: numberingRule,
			workCalendar
		}),
		departments: z.array(
			z.strictObject({ id: z.string(), code: z.string(), name: z.string(), people: z.number() })
		),
		/** Who is away today, and who decides for them; told to colleagues. */
		away: z.array(z.strictObject({ person: z.string(), until: z.string(), standIn: z.string() })),
		me: z.strictObject({
			controller: z.boolean(),
			departments: z.array(z.string()),
			leads: z.array(z.string()),
			outside: z.boolean(),
			mayTry: z.boolean(),
			name: z.string(),
			id: z.string(),
			email: z.string()
		})
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const documentsIn = view({
	name: 'documentsIn',
	summary: 'The documents of a folder, by number; in pages',
	path: '/places/{place}/documents',
	input: z.strictObject({
		place: id,
		/** The number of the last row that is known; rows come after it. */
		after: z.string().max(200).optional(),
		limit: z.coerce.number().int().min(1).max(5_000).default(200)
	}),
	output: z.strictObject({
		rows: z.array(documentRow),
		/** What to ask on with; left out when these are the last. */
		next: z.string().optional()
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'view', only: ['shelf', 'folder'] }
});

/** Most numbers asked about at a time. */
export const MOST_NUMBERS = 5_000;

export const proposals = view({
	name: 'proposals',
	summary:
		'Numbers and titles proposed for files: those of a document here that came under the same name, or new ones',
	path: '/places/{place}/proposals',
	input: z.strictObject({
		place: id,
		files: several(z.string().max(400), MOST_NUMBERS)
	}),
	output: z.strictObject({
		proposals: z.array(
			z.union([
				z.strictObject({ from: z.literal('file'), number: z.string(), title: z.string(), file: z.string() }),
				z.strictObject({
					number: z.string(),
					title: z.string(),
					/** Where the number came from: read in the file name, or the next free one. */
					from: z.enum(['name', 'next']),
					file: z.string()
				})
			])
		)
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'work', only: ['shelf', 'folder'] }
});

export const numbersInUse = view({
	name: 'numbersInUse',
	summary:
		'Which of these numbers are in use, by which of the documents that you may work on, and the next free ones',
	path: '/projects/{project}/numbers',
	input: z.strictObject({
		project: projectKey,
		numbers: several(z.string().max(60), MOST_NUMBERS)
	}),
	output: z.strictObject({
		inUse: z.array(
			z.strictObject({
				number: z.string(),
				free: z.string(),
				document: z
					.strictObject({
						id: z.string(),
						title: z.string(),
						label: z.string(),
						holder: z.string().nullable(),
						mine: z.boolean()
					})
					.nullable()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

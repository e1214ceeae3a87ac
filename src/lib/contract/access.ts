import { z } from 'zod';
import { EVERY_CAP, SUBJECT_KINDS } from '../core/access/decide';
import { GIVEN, LEVELS } from '../core/access/levels';
import { canDo } from './shapes/can';
import { PLACE_ACTS, PLACE_RULES } from '../core/places/may';
import { PLACE_KINDS, act, done, view } from './act';
import { accessRow, effectRow, known, reachRow, reachSummary } from './shapes/access';
import { day, email, flag, id, moment, name, note, projectKey, reason, several } from './fields';

/** Kinds of event that follow when what others were brought in under changes. */
export const BROUGHT_EVENTS = ['access.ended', 'access.sunk'];

export const closePlace = act({
	name: 'closePlace',
	summary: 'Close a folder or document: what was given above stops reaching it, apart from Manage (A3)',
	method: 'POST',
	path: '/places/{place}/closing',
	input: z.strictObject({ place: id }),
	output: done,
	at: {
		kind: 'place',
		id: (i) => i.place,
		level: 'manage',
		only: ['folder', 'document'],
		past: EVERY_CAP,
		asks: PLACE_RULES.closePlace
	},
	events: ['place.closed']
});

export const openPlace = act({
	name: 'openPlace',
	summary: 'Open a closed folder or document again to what was given above',
	method: 'DELETE',
	path: '/places/{place}/closing',
	input: z.strictObject({ place: id }),
	output: done,
	at: {
		kind: 'place',
		id: (i) => i.place,
		level: 'manage',
		only: ['folder', 'document'],
		past: EVERY_CAP,
		asks: PLACE_RULES.openPlace
	},
	events: ['place.opened']
});

export const freezePlace = act({
	name: 'freezePlace',
	summary:
		'Freeze a shelf, folder or document with a reason: nobody below Manage changes anything there (A6)',
	method: 'POST',
	path: '/places/{place}/freeze',
	input: z.strictObject({ place: id, reason }),
	output: done,
	at: { kind: 'place', id: (i) => i.place, level: 'manage', past: EVERY_CAP, asks: PLACE_RULES.freezePlace },
	events: ['place.frozen']
});

export const thawPlace = act({
	name: 'thawPlace',
	summary: 'Thaw what was frozen here',
	method: 'DELETE',
	path: '/places/{place}/freeze',
	input: z.strictObject({ place: id }),
	output: done,
	at: { kind: 'place', id: (i) => i.place, level: 'manage', past: EVERY_CAP, asks: PLACE_RULES.thawPlace },
	events: ['place.thawed']
});

export const markSensitive = act({
	name: 'markSensitive',
	summary: 'Mark what lies here as sensitive: no pass with a chosen ending reaches it',
	method: 'PUT',
	path: '/places/{place}/sensitive',
	input: z.strictObject({ place: id, sensitive: z.boolean() }),
	output: done,
	at: {
		kind: 'place',
		id: (i) => i.place,
		level: 'manage',
		past: EVERY_CAP,
		asks: PLACE_RULES.markSensitive
	},
	events: ['place.marked-sensitive']
});

export const tryAs = act({
	name: 'tryAs',
	summary: 'Note that you look at the project as another person would; nothing can be changed meanwhile',
	method: 'POST',
	path: '/projects/{project}/try',
	input: z.strictObject({ project: projectKey, person: id }),
	output: z.strictObject({ project: z.string(), person: z.string(), name: z.string() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['access.tried']
});

/** How far a grant goes, or that it bars; inside, a bar is no level. */
export const level = z
	.enum(GIVEN, 'Choose a level.')
	.transform((given) => (given === 'barred' ? null : given));

export const bringCount = z.number().int().min(0).max(500);

/** How far a grant goes, and how long. */
export const terms = {
	level,
	until: day.nullable().default(null),
	exactly: z.boolean().default(false),
	bringCount: bringCount.default(0),
	bringLevel: z.enum(LEVELS).nullable().default(null)
};

export const line = z.strictObject({
	...terms,
	/** Whom it is about: somebody known, or somebody by mail address. */
	subject: z.union([
		z.strictObject({
			kind: z.enum(['person', 'department', 'leads', 'group', 'everyone']),
			id: z.string().max(20)
		}),
		z.strictObject({ email, name: name.optional(), company: name.optional() })
	])
});

export const letIn = act({
	name: 'letIn',
	summary:
		'Let people, departments and groups in at a place, or bar them, each with a level of its own; all or none',
	method: 'POST',
	path: '/places/{place}/access',
	input: z.strictObject({
		place: id,
		lines: z.array(line).min(1, 'Name somebody.').max(300, 'At most 300 at once.'),
		note: note.default('')
	}),
	output: z.strictObject({
		lines: z.number(),
		reached: z.number(),
		fresh: z.number(),
		/** The grant of each line, in their order. */
		grants: z.array(id)
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', past: EVERY_CAP, asks: PLACE_RULES.letIn },
	events: ['access.given', 'access.barred', ...BROUGHT_EVENTS]
});

export const changeAccess = act({
	name: 'changeAccess',
	summary: 'Change the level, the end or the conditions of a grant where it stands',
	method: 'PATCH',
	path: '/places/{place}/access/{grant}',
	input: z.strictObject({
		place: id,
		grant: id,
		level: level.optional(),
		until: day.nullable().optional(),
		exactly: z.boolean().optional(),
		bringCount: bringCount.optional(),
		bringLevel: z.enum(LEVELS).nullable().optional()
	}),
	output: z.strictObject({ changed: z.boolean() }),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', past: EVERY_CAP },
	events: ['access.given', 'access.barred', 'access.brought-in', ...BROUGHT_EVENTS]
});

export const endAccess = act({
	name: 'endAccess',
	summary: 'End a grant or lift a bar where it stands; what was brought in under it ends too',
	method: 'DELETE',
	path: '/places/{place}/access/{grant}',
	input: z.strictObject({ place: id, grant: id }),
	output: done,
	at: { kind: 'place', id: (i) => i.place, level: 'view', past: EVERY_CAP },
	events: BROUGHT_EVENTS
});

export const endSharing = act({
	name: 'endSharing',
	summary: 'End several grants that you gave, wherever they stand; all or none',
	method: 'POST',
	path: '/projects/{project}/sharing/ended',
	input: z.strictObject({ project: projectKey, grants: z.array(id).min(1, 'Choose a grant.').max(500) }),
	output: z.strictObject({ ended: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: BROUGHT_EVENTS
});

export const bringIn = act({
	name: 'bringIn',
	summary: 'Bring somebody in under a grant of yours that allows it, up to its count and ceiling (A8)',
	method: 'POST',
	path: '/places/{place}/brought-in',
	input: z.strictObject({
		place: id,
		under: id,
		who: z.union([z.strictObject({ person: id }), z.strictObject({ email, name: name.optional() })]),
		level: z.enum(LEVELS).default('view'),
		until: day.nullable().default(null),
		note: note.default('')
	}),
	output: z.strictObject({ left: z.number() }),
	at: { kind: 'place', id: (i) => i.place, level: 'view', past: EVERY_CAP },
	events: ['access.brought-in', ...BROUGHT_EVENTS]
});

export const effectOfEnding = view({
	name: 'effectOfEnding',
	summary: 'What ending a grant would mean: who loses what, and what they have in hand there',
	path: '/places/{place}/access/{grant}/effect',
	input: z.strictObject({ place: id, grant: id }),
	output: effectRow,
	at: { kind: 'place', id: (i) => i.place, level: 'view', past: EVERY_CAP }
});

export const effectOfChange = view({
	name: 'effectOfChange',
	summary: 'What changing the level of a grant would mean, before it is done (A13)',
	path: '/places/{place}/access/{grant}/change-effect',
	input: z.strictObject({ place: id, grant: id, level: z.enum(GIVEN) }),
	output: effectRow,
	at: { kind: 'place', id: (i) => i.place, level: 'manage', past: EVERY_CAP }
});

export const effectOfGroup = view({
	name: 'effectOfGroup',
	summary: 'What a group would mean with other people in it, those included whom leavers brought in',
	path: '/projects/{project}/groups/{group}/effect',
	input: z.strictObject({ project: projectKey, group: id, people: several(id, 2_000) }),
	output: effectRow,
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

export const effectOfClosing = view({
	name: 'effectOfClosing',
	summary: 'What closing a place would mean',
	path: '/places/{place}/closing/effect',
	input: z.strictObject({ place: id }),
	output: effectRow,
	at: { kind: 'place', id: (i) => i.place, level: 'manage' }
});

export const effectOfDepartments = view({
	name: 'effectOfDepartments',
	summary:
		'What putting a person into other departments, or letting them leave, would mean for what they reach',
	path: '/projects/{project}/people/{person}/departments/effect',
	input: z.strictObject({
		project: projectKey,
		person: id,
		/** Ids of departments, with `*` behind those they lead, comma between; empty for none. */
		departments: z.string().max(1_000).default(''),
		controller: flag,
		leaving: flag
	}),
	output: z.strictObject({
		locks: z.number(),
		people: z.number(),
		documents: z.number(),
		inHand: z.number(),
		/** One line a person, most documents first; cut at a few. */
		lines: z.array(
			z.strictObject({
				name: z.string(),
				lost: z.number(),
				gained: z.number(),
				lower: z.number(),
				higher: z.number(),
				inHand: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
});

/** One grant, as whoever has or gave it sees it. */
const givenLine = z.strictObject({
	kind: z.enum(SUBJECT_KINDS),
	level: z.string(),
	who: z.string(),
	at: moment,
	endsAt: moment.nullable(),
	id: z.string(),
	place: z.string(),
	placeName: z.string(),
	placeKind: z.enum(PLACE_KINDS),
	number: z.string().nullable(),
	subject: z.string(),
	by: z.string().nullable(),
	changed: z.number()
});

export const sharing = view({
	name: 'sharing',
	summary: 'What others shared with you, with what changed since; and what you shared with whom',
	path: '/projects/{project}/sharing',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		toMe: z.array(givenLine),
		byMe: z.array(givenLine)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const access = view({
	name: 'access',
	summary: 'Who reaches a place, how far, and where that comes from (A9)',
	path: '/places/{place}/access',
	input: z.strictObject({ place: id }),
	output: z.strictObject({
		place: z.strictObject({
			id: z.string(),
			name: z.string(),
			kind: z.enum(PLACE_KINDS),
			number: z.string().nullable(),
			closed: z.boolean(),
			sensitive: z.boolean(),
			/** Whether it is the reader's desk, or lies on it. */
			onDesk: z.boolean()
		}),
		freeze: z.strictObject({ by: z.string(), at: moment, reason: z.string(), here: z.boolean() }).nullable(),
		way: z.array(
			z.strictObject({ id: z.string(), name: z.string(), kind: z.string(), code: z.string().nullable() })
		),
		level: z.enum(LEVELS),
		/** What can be done here now, by the name of the act. */
		can: canDo(PLACE_ACTS),
		rows: z.array(accessRow),
		people: z.array(reachRow),
		passes: z.number(),
		known: z.array(known),
		bringing: z.array(
			z.strictObject({
				grant: z.string(),
				count: z.number(),
				left: z.number(),
				level: z.enum(LEVELS),
				until: z.string().nullable()
			})
		),
		outsideLevel: z.enum(LEVELS).nullable()
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'view' }
});

export const why = view({
	name: 'why',
	summary: 'Why a person has the level they have at a place, in words, and what would change it (A9)',
	path: '/places/{place}/why/{person}',
	input: z.strictObject({ place: id, person: id }),
	output: z.strictObject({
		levelLabel: z.string(),
		own: z.string().nullable(),
		level: z.enum(LEVELS).nullable(),
		/** Before freezes, archives and limits. */
		held: z.enum(LEVELS).nullable(),
		/** What decided, then what else was considered. */
		reasons: z.array(z.string()),
		/** What lowers it; says so when nothing does. */
		caps: z.array(z.string()),
		/** What would change it. */
		changes: z.array(z.string()),
		/** Id of the entry that decided, when it can be ended. */
		grantId: z.string().nullable(),
		person: z.strictObject({ id: z.string(), name: z.string(), outside: z.boolean() })
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'view' }
});

export const reachOf = view({
	name: 'reachOf',
	summary: 'Who else reaches a folder and the documents in it, summed up by scope',
	path: '/places/{place}/reach',
	input: z.strictObject({ place: id }),
	output: z.strictObject({
		scope: z.string(),
		summaries: z.array(reachSummary),
		head: z.array(z.strictObject({ id: z.string(), name: z.string(), outside: z.boolean() })),
		people: z.number()
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'view' }
});

export const mayTryAs = view({
	name: 'mayTryAs',
	summary: 'The people you can look as',
	path: '/projects/{project}/try',
	input: z.strictObject({ project: z.string().max(20) }),
	output: z.strictObject({
		people: z.array(z.strictObject({ id: z.string(), name: z.string(), outside: z.boolean() }))
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

import { z } from 'zod';
import { PASS_ACTS } from '../core/passes/may';
import { canDo } from './shapes/can';
import { AUDIENCES } from '../core/passes/passes';
import { EVERY_CAP } from '../core/access/decide';
import { PLACE_RULES } from '../core/places/may';
import { PLACE_KINDS, act, done, view } from './act';
import { RETURNED_EVENTS } from './releases';
import { VERDICTS } from '../core/releases';
import { day, email, flag, id, moment, name, note, projectKey, ranged, secret } from './fields';
import { packedFile } from './shapes/releases';
import { burning } from './shapes/markup';

/** What its maker says to those a pass is mailed to. */
export const passMessage = z
	.string()
	.trim()
	.max(2_000, 'A message has 2,000 characters at most.')
	.default('');

export const changePass = act({
	name: 'changePass',
	summary: 'Change a pass that you made or that stands where you have Manage; wider only when that is said',
	method: 'PATCH',
	path: '/projects/{project}/passes/{pass}',
	input: z.strictObject({
		project: projectKey,
		pass: id,
		for: name.optional(),
		audience: z.enum(AUDIENCES).optional(),
		emails: z.array(email).max(50, 'A pass names 50 people at most.').optional(),
		/** A new password, or null for none any more. */
		password: z
			.string()
			.min(8, 'A password for a pass has at least 8 characters.')
			.max(200)
			.nullable()
			.optional(),
		until: day.optional(),
		maxUses: z.number().int().min(1).max(10_000).nullable().optional(),
		mayDownload: z.boolean().optional(),
		stamped: z.boolean().optional(),
		withMarks: z.boolean().optional(),
		/** That it may let more people in, for longer, or to more than before. */
		wider: z.boolean().default(false)
	}),
	output: z.strictObject({ changed: z.boolean() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['pass.changed']
});

export const sendPass = act({
	name: 'sendPass',
	summary: 'Send a pass that you made by mail, with a message',
	method: 'POST',
	path: '/projects/{project}/passes/{pass}/sent',
	input: z.strictObject({
		project: projectKey,
		pass: id,
		emails: z.array(email).min(1, 'Give at least one mail address.').max(50),
		message: passMessage
	}),
	output: z.strictObject({ mailed: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['pass.sent']
});

export const sendPassCode = act({
	name: 'sendPassCode',
	summary: 'Mail a code to an address that a pass names, so that its owner can prove it',
	method: 'POST',
	path: '/passes/{secret}/code',
	input: z.strictObject({ secret, email }),
	output: z.strictObject({ minutes: z.number() }),
	at: { kind: 'any-pass', secret: (i) => i.secret },
	events: []
});

export const openPass = act({
	name: 'openPass',
	summary: 'Open a pass: prove what it asks for, and note that it was used',
	method: 'POST',
	path: '/passes/{secret}/opened',
	input: z.strictObject({
		secret,
		password: z.string().max(200).optional(),
		email: email.optional(),
		code: z.string().max(20).optional()
	}),
	output: z.union([
		z.strictObject({
			proof: z.strictObject({
				passId: z.string(),
				email: z.string().nullable(),
				endsAt: z.number(),
				of: z.string()
			}),
			fresh: z.boolean()
		}),
		z.strictObject({ proof: z.null(), fresh: z.boolean() })
	]),
	at: { kind: 'any-pass', secret: (i) => i.secret },
	events: ['pass.opened']
});

export const takeFromPlacePass = act({
	name: 'takeFromPlacePass',
	summary: 'Note that a document was opened or downloaded through a pass, and say which bytes to send',
	method: 'POST',
	path: '/passes/{secret}/place/{document}/taken',
	input: z.strictObject({ secret, document: id, how: z.enum(['opened', 'downloaded']), ranged }),
	output: z.strictObject({
		stamp: z.string().nullable(),
		marks: burning.nullable(),
		number: z.string(),
		title: z.string(),
		label: z.string(),
		hash: z.string(),
		fileName: z.string(),
		mediaType: z.string(),
		size: z.number()
	}),
	at: { kind: 'place-pass', secret: (i) => i.secret },
	events: ['pass.document-opened', 'pass.document-downloaded']
});

export const takeFromPass = act({
	name: 'takeFromPass',
	summary:
		'Note that a document of a release was opened or downloaded through its pass, and say which bytes to send',
	method: 'POST',
	path: '/passes/{secret}/documents/{document}/taken',
	input: z.strictObject({
		secret,
		document: id,
		how: z.enum(['opened', 'downloaded']),
		ranged,
		/** The revision that they had before, instead of this one. */
		before: z.boolean().default(false)
	}),
	output: z.strictObject({
		hash: z.string(),
		fileName: z.string(),
		number: z.string(),
		title: z.string(),
		label: z.string()
	}),
	at: { kind: 'pass', secret: (i) => i.secret },
	events: ['pass.document-opened', 'pass.document-downloaded']
});

export const takeAllFromPass = act({
	name: 'takeAllFromPass',
	summary: 'Note the download of a whole release through its pass, and say which bytes to send',
	method: 'POST',
	path: '/passes/{secret}/taken',
	input: z.strictObject({ secret }),
	output: z.strictObject({ number: z.number(), files: z.array(packedFile) }),
	at: { kind: 'pass', secret: (i) => i.secret },
	events: ['pass.release-downloaded']
});

export const confirmReceipt = act({
	name: 'confirmReceipt',
	summary: 'Confirm the receipt of a release',
	method: 'POST',
	path: '/passes/{secret}/receipt',
	input: z.strictObject({ secret }),
	output: z.strictObject({ receivedAt: moment }),
	at: { kind: 'pass', secret: (i) => i.secret },
	events: ['receipt.confirmed']
});

export const answers = z
	.array(z.strictObject({ document: id, code: z.enum(VERDICTS).nullable(), remark: note.default('') }))
	.min(1)
	.max(2_000);

export const saveVerdicts = act({
	name: 'saveVerdicts',
	summary: 'Keep verdicts and remarks for later, unsigned',
	method: 'PUT',
	path: '/passes/{secret}/verdicts',
	input: z.strictObject({ secret, answers }),
	output: done,
	at: { kind: 'pass', secret: (i) => i.secret },
	events: []
});

export const signVerdicts = act({
	name: 'signVerdicts',
	summary: 'Sign and send verdicts; they cannot change afterwards',
	method: 'POST',
	path: '/passes/{secret}/verdicts/signed',
	input: z.strictObject({ secret, name, answers }),
	output: z.strictObject({ signed: z.number() }),
	at: { kind: 'pass', secret: (i) => i.secret },
	events: ['verdict.given', 'receipt.confirmed', 'version.set-beside', ...RETURNED_EVENTS]
});

/** Fewest different characters of an ending that somebody chose. */
export const LEAST_VARIETY = 6;

export const makePass = act({
	name: 'makePass',
	summary:
		'Make a pass to a folder or document: who may use it, until when, how often, to view or to download',
	method: 'POST',
	path: '/places/{place}/passes',
	input: z.strictObject({
		place: id,
		for: name,
		audience: z.enum(['anyone', 'accounts', 'named']).default('named'),
		emails: z.array(email).max(50, 'A pass names 50 people at most.').default([]),
		password: z
			.string()
			.min(8, 'A password for a pass has at least 8 characters.')
			.max(200)
			.nullable()
			.default(null),
		until: day,
		maxUses: z.number().int().min(1).max(10_000).nullable().default(null),
		mayDownload: z.boolean().default(false),
		/** Exactly this version of a document; null follows the newest. */
		version: z.string().max(20).nullable().default(null),
		ending: z
			.string()
			.trim()
			.toLowerCase()
			.regex(/^[a-z0-9-]{12,60}$/, 'An ending of your own has 12 to 60 letters, digits or hyphens.')
			.refine(
				(ending) => new Set(ending).size >= LEAST_VARIETY,
				`An ending of your own has at least ${LEAST_VARIETY} different characters, so that nobody guesses it.`
			)
			.nullable()
			.default(null),
		stamped: z.boolean().default(false),
		/** Whether copies of sheets carry the marks on them. */
		withMarks: z.boolean().default(false),
		embeddable: z.boolean().default(false),
		message: passMessage
	}),
	output: z.strictObject({ id: z.string(), link: z.string(), mailed: z.number() }),
	at: { kind: 'place', id: (i) => i.place, level: 'manage', past: EVERY_CAP, asks: PLACE_RULES.makePass },
	events: ['pass.made']
});

export const withdrawPasses = act({
	name: 'withdrawPasses',
	summary: 'Withdraw passes: your own, or those at places where you have Manage; all or none',
	method: 'POST',
	path: '/projects/{project}/passes/withdrawn',
	input: z.strictObject({ project: projectKey, passes: z.array(id).min(1, 'Choose a pass.').max(500) }),
	output: z.strictObject({ withdrawn: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['pass.withdrawn']
});

export const passes = view({
	name: 'passes',
	summary: 'The passes and hatches of a project that you made or that stand where you have Manage',
	path: '/projects/{project}/passes',
	input: z.strictObject({ project: projectKey, place: id.optional() }),
	output: z.strictObject({
		passes: z.array(
			z.strictObject({
				/** What can be done with it now, by the name of the act or view. */
				can: canDo(PASS_ACTS),
				endsAt: moment,
				lastUsedAt: moment.nullable(),
				createdAt: moment,
				withdrawnAt: moment.nullable(),
				state: z.enum(['open', 'ended', 'withdrawn', 'used-up']),
				id: z.string(),
				holder: z.string(),
				place: z.string().nullable(),
				placeName: z.string().nullable(),
				placeKind: z.enum(PLACE_KINDS).nullable(),
				number: z.string().nullable(),
				release: z.number().nullable(),
				audience: z.enum(AUDIENCES),
				locked: z.boolean(),
				maxUses: z.number().nullable(),
				uses: z.number(),
				mayDownload: z.boolean(),
				stamped: z.boolean(),
				withMarks: z.boolean(),
				embeddable: z.boolean(),
				label: z.string().nullable(),
				by: z.string().nullable(),
				emails: z.array(z.string())
			})
		),
		hatches: z.array(
			z.strictObject({
				endsAt: moment,
				lastUsedAt: moment.nullable(),
				createdAt: moment,
				state: z.enum(['open', 'ended', 'withdrawn', 'used-up']),
				id: z.string(),
				title: z.string(),
				place: z.string(),
				placeName: z.string(),
				maxFiles: z.number(),
				endings: z.array(z.string()),
				by: z.string().nullable(),
				withdrawnAt: moment.nullable(),
				files: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const passAddress = view({
	name: 'passAddress',
	summary: 'The address of a pass that you made, with what of it can be changed',
	path: '/projects/{project}/passes/{pass}/address',
	input: z.strictObject({ project: projectKey, pass: id }),
	output: z.strictObject({ link: z.string(), emails: z.array(z.string()) }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const passGate = view({
	name: 'passGate',
	summary: 'What a pass leads to, in kind only, and what it asks for before it opens',
	path: '/passes/{secret}/gate',
	input: z.strictObject({ secret }),
	output: z.strictObject({
		id: z.string(),
		projectId: z.string(),
		leadsTo: z.enum(['place', 'release']),
		/** What is to be proven before it opens. */
		asks: z.enum(['nothing', 'password', 'account', 'address']),
		alsoPassword: z.boolean(),
		accounts: z.boolean(),
		opened: z.boolean(),
		embeddable: z.boolean(),
		endsAt: moment,
		project: z.string(),
		client: z.string(),
		demo: z.boolean()
	}),
	at: { kind: 'any-pass', secret: (i) => i.secret }
});

export const placeByPass = view({
	name: 'placeByPass',
	summary: 'The folder or document a pass leads to, or a folder within it',
	path: '/passes/{secret}/place',
	input: z.strictObject({ secret, folder: id.optional() }),
	output: z.strictObject({
		project: z.strictObject({ name: z.string(), code: z.string(), client: z.string(), timeZone: z.string() }),
		holder: z.string(),
		endsAt: moment,
		kind: z.enum(PLACE_KINDS),
		mayDownload: z.boolean(),
		stamped: z.boolean(),
		withMarks: z.boolean(),
		newer: z.strictObject({ label: z.string(), at: moment }).nullable(),
		way: z.array(z.strictObject({ id: z.string(), name: z.string() })),
		folders: z.array(z.strictObject({ id: z.string(), name: z.string() })),
		documents: z.array(
			z.strictObject({
				changedAt: moment,
				takeable: z.boolean(),
				id: z.string(),
				number: z.string(),
				title: z.string(),
				label: z.string(),
				issued: z.boolean(),
				mediaType: z.string(),
				size: z.number()
			})
		)
	}),
	at: { kind: 'place-pass', secret: (i) => i.secret }
});

/** Stored bytes that a pass leads to, and whether they leave as they are. */
const passContent = z.strictObject({
	hash: z.string(),
	size: z.number(),
	mediaType: z.string(),
	fileName: z.string(),
	mayGive: z.boolean(),
	/** Copies are made for their taker, so the file itself is never shown. */
	copies: z.boolean()
});

export const placePassContent = view({
	name: 'placePassContent',
	summary: 'Which stored bytes a document has that a pass to a folder or document leads to',
	path: '/passes/{secret}/place/{document}/content',
	input: z.strictObject({ secret, document: id }),
	output: passContent,
	at: { kind: 'place-pass', secret: (i) => i.secret }
});

export const releasePassContent = view({
	name: 'releasePassContent',
	summary: 'Which stored bytes a document has that the pass of a release leads to',
	path: '/passes/{secret}/documents/{document}/content',
	input: z.strictObject({
		secret,
		document: id,
		/** The revision that they had before, instead of this one. */
		before: flag
	}),
	output: passContent,
	at: { kind: 'pass', secret: (i) => i.secret }
});

export const hatchView = view({
	name: 'hatchView',
	summary: 'What somebody with a hatch may know: what is asked for, and the limits',
	path: '/hatches/{secret}',
	input: z.strictObject({ secret }),
	output: z.strictObject({
		id: z.string(),
		title: z.string(),
		project: z.string(),
		by: z.string(),
		endsAt: moment,
		maxFileBytes: z.number(),
		maxFiles: z.number(),
		endings: z.array(z.string())
	}),
	at: { kind: 'hatch', secret: (i) => i.secret }
});

export const arrivals = view({
	name: 'arrivals',
	summary: 'What came in from outside at places where you have Manage, waiting first',
	path: '/projects/{project}/arrivals',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		rows: z.array(
			z.strictObject({
				at: moment,
				decidedAt: moment.nullable(),
				id: z.string(),
				state: z.enum(['waiting', 'checking', 'unsafe', 'sorted', 'refused']),
				sender: z.string(),
				senderEmail: z.string().nullable(),
				note: z.string(),
				fileName: z.string(),
				size: z.number(),
				mediaType: z.string(),
				scan: z.strictObject({ scanner: z.string().nullable(), fault: z.string().nullable() }).nullable(),
				hatch: z.string().nullable(),
				place: z.string(),
				placeName: z.string(),
				document: z.string().nullable(),
				decidedBy: z.string().nullable(),
				reason: z.string().nullable()
			})
		),
		waiting: z.number()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

/** Whether somebody may put files in at a place; everything else about it stays unsaid. */
export const dropView = view({
	name: 'dropView',
	summary: 'What somebody with Drop at a place may know of it',
	path: '/places/{place}/drop',
	input: z.strictObject({ place: id }),
	output: z.strictObject({
		id: z.string(),
		name: z.string().nullable(),
		project: z.string(),
		maxFileBytes: z.number()
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'drop', only: ['shelf', 'folder'] }
});

import { z } from 'zod';
import { AS_ADDED, CHECKS, EXPECTS, MOST_LISTED, MOST_RECIPIENTS, PROOFS, VERDICTS } from '../core/releases';
import { RELEASE_RULES } from '../core/releases/may';
import type { Purpose } from '../core/revisions/revisions';
import { act, done } from './act';
import { finite, remarkText } from './remarks';
import { arrangement } from './shapes/releases';
import { route } from './shapes/routes';
import { day, id, name, projectKey, ranged, reason } from './fields';

export const MOST_ITEMS = 2_000;

/** Kinds of event that a verdict writes by which a document comes back. */
export const RETURNED_EVENTS = ['document.returned', 'remark.added'];

export const askApproval = act({
	name: 'askApproval',
	summary: 'Ask for the approval of a release whose checks do not stop it',
	method: 'POST',
	path: '/releases/{release}/ask',
	input: z.strictObject({ release: id }),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.askApproval },
	events: ['release.asked']
});

export const approveRelease = act({
	name: 'approveRelease',
	summary: 'Approve the step of a release whose turn it is',
	method: 'POST',
	path: '/releases/{release}/approval',
	input: z.strictObject({
		release: id,
		/** Of the build as it was shown to who approves it. */
		digest: z.string().regex(/^[0-9a-f]{64}$/, 'Say which build was looked at.')
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'approver', applies: RELEASE_RULES.approveRelease },
	events: ['release.approved']
});

export const sendBack = act({
	name: 'sendBack',
	summary: 'Send a release back to its builder with a reason, and what is wrong with which of its documents',
	method: 'POST',
	path: '/releases/{release}/send-back',
	input: z.strictObject({
		release: id,
		reason,
		documents: z
			.array(z.strictObject({ document: id, reason }))
			.max(MOST_ITEMS)
			.default([])
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'approver', applies: RELEASE_RULES.sendBack },
	events: ['release.sent-back']
});

export const openFromRelease = act({
	name: 'openFromRelease',
	summary: 'Note that a document of a release was opened, or taken, by somebody on its route',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/opened',
	input: z.strictObject({
		release: id,
		document: id,
		how: z.enum(['opened', 'downloaded']).default('opened'),
		ranged,
		/** The issued revision that it takes the place of, instead. */
		before: z.boolean().default(false)
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'route' },
	events: ['document.opened', 'document.downloaded']
});

export const remarkInRelease = act({
	name: 'remarkInRelease',
	summary:
		'Remark on a document from within a release that is not out yet, on a place of its sheet or on it as a whole',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/remarks',
	input: z.strictObject({
		release: id,
		document: id,
		/** Left out: the version as a whole. */
		at: z.strictObject({ page: z.int().min(1).max(100_000), x: finite, y: finite }).optional(),
		text: remarkText
	}),
	output: z.strictObject({ id: z.string(), number: z.number() }),
	at: { kind: 'release', id: (i) => i.release, who: 'route', applies: RELEASE_RULES.remarkInRelease },
	events: ['remark.added']
});

export const issueInput = z.strictObject({
	release: id,
	/** The release's number, typed, where the project asks for it: what goes out cannot be called back. */
	number: z.number().int().optional(),
	/** A code of one's authenticator, where the project asks for that. */
	timeCode: z
		.string()
		.trim()
		.regex(/^\d{6}$/, 'A code of your authenticator has six digits.')
		.optional(),
	passDays: z.number().int().min(1).max(730).default(60),
	/** The password of each pass that is to ask for one, by who gets it. */
	passwords: z
		.array(
			z.strictObject({
				recipient: id,
				password: z.string().min(8, 'A password for a pass has at least 8 characters.').max(200)
			})
		)
		.max(MOST_RECIPIENTS)
		.default([])
});

export const issueRelease = act({
	name: 'issueRelease',
	summary: 'Issue an approved release: fix revisions, pin hashes, send everybody their pass',
	method: 'POST',
	path: '/releases/{release}/issue',
	input: issueInput,
	output: z.strictObject({
		number: z.number(),
		documents: z.number(),
		passes: z.array(z.strictObject({ recipient: z.string(), name: z.string(), link: z.string() }))
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.issueRelease },
	events: ['release.issued', 'document.issued', 'release.superseded']
});

export const withdrawPass = act({
	name: 'withdrawPass',
	summary: 'Withdraw the pass of somebody who got a release',
	method: 'DELETE',
	path: '/releases/{release}/recipients/{recipient}/pass',
	input: z.strictObject({ release: id, recipient: id }),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.withdrawPass },
	events: ['pass.withdrawn']
});

export const purpose = z.enum([
	'information',
	'comment',
	'approval',
	'construction',
	'as-built'
] satisfies Purpose[]);

const MOST_WORDS = 2_000;
/** What is said to those who get a release, in its cover note and mail; lines stay lines. */
const words = z.string().trim().max(MOST_WORDS).default('');

/** Who gets a release: what of it, what for, by when, and how they prove who they are. */
const recipients = z
	.array(
		z.strictObject({
			recipient: id,
			expects: z.enum(EXPECTS).default('verdicts'),
			/** Left out: the day that the release itself asks for. */
			replyBy: day.nullable().default(null),
			asks: z.enum(PROOFS).default('nothing'),
			/** Left out: all of its documents. */
			documents: z.array(id).min(1, 'Choose what they get.').max(MOST_ITEMS).nullable().default(null)
		})
	)
	.min(1, 'Choose who gets it.')
	.max(MOST_RECIPIENTS, `A release goes to ${MOST_RECIPIENTS} at most.`);

export const buildRelease = act({
	name: 'buildRelease',
	summary: 'Start a release from chosen documents',
	method: 'POST',
	path: '/projects/{project}/releases',
	input: z.strictObject({
		project: projectKey,
		title: name,
		purpose,
		recipients,
		words,
		/** Whether its documents leave with a stamp, and with the marks on them burned in. */
		stamped: z.boolean().default(false),
		withMarks: z.boolean().default(false),
		/** How its documents are listed. */
		arrangement: arrangement.default({ ...AS_ADDED }),
		route,
		replyBy: day.nullable().default(null),
		documents: z.array(id).max(MOST_ITEMS, `A release holds ${MOST_ITEMS} documents at most.`).default([])
	}),
	output: z.strictObject({ id: z.string(), number: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['release.built']
});

export const buildAnother = act({
	name: 'buildAnother',
	summary:
		'Start another release like one that is out or was cancelled: to the same people by the same route, with the newest versions of its documents',
	method: 'POST',
	path: '/releases/{release}/another',
	input: z.strictObject({ release: id }),
	output: z.strictObject({
		id: z.string(),
		number: z.number(),
		/** How many documents are not there any more, and stayed out. */
		gone: z.number()
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.buildAnother },
	events: ['release.built']
});

export const changeRelease = act({
	name: 'changeRelease',
	summary: 'Change the head of a release that is not issued; it needs approval again',
	method: 'PATCH',
	path: '/releases/{release}',
	input: z.strictObject({
		release: id,
		title: name.optional(),
		purpose: purpose.optional(),
		recipients: recipients.optional(),
		words: z.string().trim().max(MOST_WORDS).optional(),
		stamped: z.boolean().optional(),
		withMarks: z.boolean().optional(),
		arrangement: arrangement.optional(),
		route: route.optional(),
		replyBy: day.nullable().optional()
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.changeRelease },
	events: ['release.changed']
});

export const cancelRelease = act({
	name: 'cancelRelease',
	summary: 'Cancel a release that is not issued, with a reason; its number is never used again',
	method: 'POST',
	path: '/releases/{release}/cancelled',
	input: z.strictObject({ release: id, reason }),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.cancelRelease },
	events: ['release.cancelled']
});

export const acceptChecks = act({
	name: 'acceptChecks',
	summary: 'Say why something that checks of a release asked to look at goes out all the same',
	method: 'POST',
	path: '/releases/{release}/accepted',
	input: z.strictObject({
		release: id,
		checks: z
			.array(z.strictObject({ document: id, check: z.enum(CHECKS) }))
			.min(1, 'Choose what goes out.')
			.max(MOST_ITEMS),
		reason
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.acceptChecks },
	events: ['release.accepted']
});

export const addToRelease = act({
	name: 'addToRelease',
	summary: 'Put documents in a release',
	method: 'POST',
	path: '/releases/{release}/documents',
	input: z.strictObject({ release: id, documents: z.array(id).min(1, 'Choose a document.').max(MOST_ITEMS) }),
	output: z.strictObject({ added: z.number() }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.addToRelease },
	events: ['release.changed']
});

export const addListed = act({
	name: 'addListed',
	summary: 'Put the documents in a release that a pasted list names by their numbers',
	method: 'POST',
	path: '/releases/{release}/listed',
	input: z.strictObject({
		release: id,
		/** A line for each document, or words in which their numbers stand. */
		list: z.string().max(MOST_LISTED, 'The list is too long; paste it in parts.')
	}),
	output: z.strictObject({
		added: z.number(),
		/** How many of those named were in it already. */
		before: z.number(),
		/** Lines that name no document of the project. */
		unknown: z.array(z.string())
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.addListed },
	events: ['release.changed']
});

export const addReferences = act({
	name: 'addReferences',
	summary: 'Put the documents in a release that one of it names and of which nothing is issued',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/references',
	input: z.strictObject({ release: id, document: id }),
	output: z.strictObject({ added: z.number() }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.addReferences },
	events: ['release.changed']
});

export const leaveOut = act({
	name: 'leaveOut',
	summary: 'Leave a document out of a release',
	method: 'DELETE',
	path: '/releases/{release}/documents/{document}',
	input: z.strictObject({ release: id, document: id }),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.leaveOut },
	events: ['release.changed']
});

export const orderDocuments = act({
	name: 'orderDocuments',
	summary: 'List the documents of a release in an order set by hand',
	method: 'PUT',
	path: '/releases/{release}/order',
	input: z.strictObject({
		release: id,
		/** Its documents in their order. What came meanwhile stands after them, and what left is passed over. */
		documents: z.array(id).min(1, 'Put its documents in an order.').max(MOST_ITEMS)
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.orderDocuments },
	events: ['release.changed']
});

export const takeNewest = act({
	name: 'takeNewest',
	summary: 'Take the newest version of a document into a release',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/newest',
	input: z.strictObject({ release: id, document: id }),
	output: z.strictObject({ label: z.string() }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.takeNewest },
	events: ['release.changed']
});

export const letColleagueIn = act({
	name: 'letColleagueIn',
	summary: 'Let a colleague of a recipient answer a release, by a pass of their own',
	method: 'POST',
	path: '/releases/{release}/colleagues/{colleague}',
	input: z.strictObject({ release: id, colleague: id }),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.letColleagueIn },
	events: ['colleague.let-in']
});

export const refuseColleague = act({
	name: 'refuseColleague',
	summary: 'Refuse that a colleague of a recipient answers a release, with a reason',
	method: 'DELETE',
	path: '/releases/{release}/colleagues/{colleague}',
	input: z.strictObject({ release: id, colleague: id, reason }),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.refuseColleague },
	events: ['colleague.refused']
});

export const consolidateVerdicts = act({
	name: 'consolidateVerdicts',
	summary:
		'Make one out of the verdicts on a document of a release that differ or are not all there, with a reason',
	method: 'POST',
	path: '/releases/{release}/documents/{document}/verdict',
	input: z.strictObject({ release: id, document: id, code: z.enum(VERDICTS), reason }),
	output: done,
	at: {
		kind: 'release',
		id: (i) => i.release,
		who: 'controller',
		applies: RELEASE_RULES.consolidateVerdicts
	},
	events: ['verdict.consolidated', ...RETURNED_EVENTS]
});

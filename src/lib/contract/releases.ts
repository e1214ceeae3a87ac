import { z } from 'zod';
import { CHECKS, VERDICTS } from '../core/releases';
import { RELEASE_ACTS, RELEASE_RULES } from '../core/releases/may';
import { PURPOSES, type Purpose } from '../core/revisions/revisions';
import { act, done, view } from './act';
import { canDo } from './shapes/can';
import { build, check } from './shapes/releases';
import { day, id, moment, name, projectKey, ranged, reason } from './fields';

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
	summary: 'Approve a release',
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
	summary: 'Send a release back to its builder with a reason',
	method: 'POST',
	path: '/releases/{release}/send-back',
	input: z.strictObject({ release: id, reason }),
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
		ranged
	}),
	output: done,
	at: { kind: 'release', id: (i) => i.release, who: 'route' },
	events: ['document.opened', 'document.downloaded']
});

export const issueInput = z.strictObject({
	release: id,
	/** The release's number, typed: what goes out cannot be called back. */
	number: z.number('Type the number of the release.').int(),
	passDays: z.number().int().min(1).max(730).default(60),
	/** What its pass asks for before it opens: nothing, a code mailed to the recipient, or a password. */
	asks: z.enum(['nothing', 'code', 'password']).default('nothing'),
	password: z
		.string()
		.min(8, 'A password for a pass has at least 8 characters.')
		.max(200)
		.nullable()
		.default(null)
});

export const issueRelease = act({
	name: 'issueRelease',
	summary: 'Issue an approved release: fix revisions, pin hashes, send the pass',
	method: 'POST',
	path: '/releases/{release}/issue',
	input: issueInput,
	output: z.strictObject({ number: z.number(), documents: z.number(), pass: z.string() }),
	at: { kind: 'release', id: (i) => i.release, who: 'controller', applies: RELEASE_RULES.issueRelease },
	events: ['release.issued', 'document.issued', 'release.superseded']
});

export const withdrawPass = act({
	name: 'withdrawPass',
	summary: 'Withdraw the pass of a release',
	method: 'DELETE',
	path: '/releases/{release}/pass',
	input: z.strictObject({ release: id }),
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

export const MOST_ITEMS = 2_000;

export const buildRelease = act({
	name: 'buildRelease',
	summary: 'Start a release from chosen documents',
	method: 'POST',
	path: '/projects/{project}/releases',
	input: z.strictObject({
		project: projectKey,
		title: name,
		purpose,
		recipient: id,
		approver: id,
		replyBy: day.nullable().default(null),
		documents: z.array(id).max(MOST_ITEMS, `A release holds ${MOST_ITEMS} documents at most.`).default([])
	}),
	output: z.strictObject({ id: z.string(), number: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
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
		recipient: id.optional(),
		approver: id.optional(),
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

export const releases = view({
	name: 'releases',
	summary: 'The releases you build, approve or control, newest first',
	path: '/projects/{project}/releases',
	input: z.strictObject({ project: projectKey }),
	output: z.strictObject({
		releases: z.array(
			z.strictObject({
				id: z.string(),
				number: z.number(),
				title: z.string(),
				purpose: z.enum(PURPOSES),
				state: z.enum(['issued', 'building', 'in-review', 'approved', 'superseded', 'cancelled']),
				replyBy: z.string().nullable(),
				issuedAt: moment.nullable(),
				createdAt: moment,
				builtBy: z.string(),
				approver: z.string(),
				waitsForMe: z.boolean(),
				to: z.string(),
				toName: z.string(),
				received: moment.nullable(),
				documents: z.number(),
				answered: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const releaseContent = view({
	name: 'releaseContent',
	summary: 'Which stored bytes a document of a release has, for those on its route',
	path: '/releases/{release}/documents/{document}/content',
	input: z.strictObject({ release: id, document: id }),
	output: z.strictObject({
		hash: z.string(),
		size: z.number(),
		mediaType: z.string(),
		fileName: z.string(),
		number: z.string(),
		title: z.string(),
		label: z.string(),
		mayGive: z.boolean()
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'route' }
});

export const releaseView = view({
	name: 'releaseView',
	summary: 'A release with its documents, checks and route',
	path: '/projects/{project}/releases/{number}',
	input: z.strictObject({ project: projectKey, number: z.coerce.number().int().positive() }),
	output: z.strictObject({
		release: z.strictObject({
			id: z.string(),
			number: z.number(),
			title: z.string(),
			purpose: z.enum(PURPOSES),
			state: z.enum(['issued', 'building', 'in-review', 'approved', 'superseded', 'cancelled']),
			replyBy: z.string().nullable(),
			builtBy: z.string(),
			approver: z.string(),
			approverId: z.string(),
			issuedBy: z.string().nullable(),
			createdAt: moment,
			askedAt: moment.nullable(),
			approvedAt: moment.nullable(),
			issuedAt: moment.nullable(),
			sentBackReason: z.string().nullable(),
			cancelledAt: moment.nullable(),
			cancelledReason: z.string().nullable(),
			recipientId: z.string(),
			recipient: z.strictObject({ name: z.string(), company: z.string(), email: z.string() }),
			manifestHash: z.string().nullable()
		}),
		items: z.array(
			z.strictObject({
				documentId: z.string(),
				number: z.string(),
				title: z.string(),
				from: z.string(),
				label: z.string(),
				to: z.string(),
				hash: z.string().nullable(),
				size: z.number(),
				mediaType: z.string(),
				mayView: z.boolean(),
				checks: z.array(check),
				later: z.strictObject({ label: z.string(), at: moment }).nullable(),
				supersedes: z.string().nullable(),
				verdict: z.strictObject({ code: z.enum(VERDICTS).nullable(), remark: z.string() }).nullable()
			})
		),
		stopping: z.number(),
		looking: z.number(),
		controller: z.boolean(),
		build: build.nullable(),
		digest: z.string().nullable(),
		/** What can be done with it now, by the name of the act. */
		can: canDo(RELEASE_ACTS),
		pass: z
			.strictObject({
				endsAt: moment,
				withdrawnAt: moment.nullable(),
				uses: z.number(),
				lastUsedAt: moment.nullable(),
				receivedAt: moment.nullable()
			})
			.optional()
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const passView = view({
	name: 'passView',
	summary: 'What the holder of a pass sees',
	path: '/passes/{secret}',
	input: z.strictObject({ secret: z.string().max(100) }),
	output: z.strictObject({
		project: z.strictObject({ code: z.string(), name: z.string(), client: z.string(), timeZone: z.string() }),
		holder: z.string(),
		endsAt: moment,
		receivedAt: moment.nullable(),
		release: z.strictObject({
			number: z.number(),
			title: z.string(),
			purpose: z.enum(PURPOSES),
			issuedAt: moment,
			issuedBy: z.string(),
			replyBy: z.string().nullable(),
			superseded: z.boolean()
		}),
		items: z.array(
			z.strictObject({
				documentId: z.string(),
				number: z.string(),
				title: z.string(),
				label: z.string(),
				size: z.number(),
				mediaType: z.string(),
				hash: z.string(),
				later: z.strictObject({ label: z.string(), at: moment }).nullable(),
				code: z.enum(VERDICTS).nullable(),
				remark: z.string(),
				signed: z.strictObject({ at: moment, name: z.string() }).nullable()
			})
		),
		demo: z.boolean()
	}),
	at: { kind: 'pass', secret: (i) => i.secret }
});

export const passCoverNote = view({
	name: 'passCoverNote',
	summary: 'The stored cover note of an issued release',
	path: '/passes/{secret}/cover-note',
	input: z.strictObject({ secret: z.string().max(100) }),
	output: z.strictObject({ hash: z.string(), number: z.number() }),
	at: { kind: 'pass', secret: (i) => i.secret }
});

export const releaseCoverNote = view({
	name: 'releaseCoverNote',
	summary: 'The stored cover note of an issued release, for its route',
	path: '/releases/{release}/cover-note',
	input: z.strictObject({ release: z.string().max(20) }),
	output: z.strictObject({ hash: z.string(), number: z.number() }),
	at: { kind: 'release', id: (i) => i.release, who: 'route' }
});

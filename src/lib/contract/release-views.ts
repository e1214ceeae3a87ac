import { z } from 'zod';
import { COLLEAGUE_STATES, EXPECTS, ISSUE_NEEDS, PROOFS, RELEASE_STATES, VERDICTS } from '../core/releases';
import { RELEASE_ACTS } from '../core/releases/may';
import { PURPOSES } from '../core/revisions/revisions';
import { view } from './act';
import { canDo } from './shapes/can';
import { burning, mark } from './shapes/markup';
import { arrangement, build, check, manifest, suitability } from './shapes/releases';
import { stepStanding } from './shapes/routes';
import { flag, id, moment, projectKey, several } from './fields';
import { MOST_ITEMS, purpose } from './releases';

export const proposedRecipients = view({
	name: 'proposedRecipients',
	summary: 'Who gets a release by the distribution list of the project',
	path: '/projects/{project}/proposed-recipients',
	input: z.strictObject({
		project: projectKey,
		purpose,
		/** For the documents of a release that is built; otherwise for those that are named. */
		release: id.optional(),
		documents: several(id, MOST_ITEMS)
	}),
	output: z.strictObject({
		recipients: z.array(
			z.strictObject({
				recipient: z.string(),
				expects: z.enum(EXPECTS),
				asks: z.enum(PROOFS),
				documents: z.array(z.string()).nullable()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' }
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
				state: z.enum(RELEASE_STATES),
				replyBy: z.string().nullable(),
				issuedAt: moment.nullable(),
				createdAt: moment,
				builtBy: z.string(),
				/** How many steps its route has, and how many have approved. */
				steps: z.number(),
				approved: z.number(),
				/** Name of the step whose turn it is. */
				turn: z.string().nullable(),
				waitsForMe: z.boolean(),
				/** Companies that get it; and how many people do, and have confirmed that it arrived. */
				to: z.string(),
				recipients: z.number(),
				received: z.number(),
				documents: z.number(),
				/** On how many of them verdicts are asked, have come to one, and differ. */
				asked: z.number(),
				answered: z.number(),
				differing: z.number(),
				/** How many colleagues its recipients ask to bring in, and nobody has answered yet. */
				colleagues: z.number()
			})
		)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'member' }
});

export const releaseContent = view({
	name: 'releaseContent',
	summary:
		'Which stored bytes a document of a release has, or was sent with once it is issued, for those on its route',
	path: '/releases/{release}/documents/{document}/content',
	input: z.strictObject({
		release: id,
		document: id,
		/** The issued revision that it takes the place of, instead. */
		before: flag
	}),
	output: z.strictObject({
		hash: z.string(),
		size: z.number(),
		mediaType: z.string(),
		fileName: z.string(),
		number: z.string(),
		title: z.string(),
		label: z.string(),
		mayGive: z.boolean(),
		/** Whether the reader may look at it where it lies, too. */
		mayView: z.boolean(),
		/** The issued revision that it takes the place of, and whether it has the very same bytes; null where there is none to compare with. */
		before: z.strictObject({ label: z.string(), mediaType: z.string(), same: z.boolean() }).nullable(),
		/** What was remarked on it from within the release. */
		remarks: z.array(
			z.strictObject({
				id: z.string(),
				number: z.number(),
				by: z.string(),
				at: moment,
				text: z.string(),
				place: z.strictObject({ page: z.number(), x: z.number(), y: z.number() }).nullable(),
				settled: z.boolean()
			})
		)
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'route' }
});

export const releaseMarks = view({
	name: 'releaseMarks',
	summary:
		'The marks that were drawn on a document of a release with signed verdicts, in the coordinates of what was sent',
	path: '/releases/{release}/documents/{document}/marks',
	input: z.strictObject({ release: id, document: id }),
	output: z.strictObject({
		answers: z.array(
			z.strictObject({
				name: z.string(),
				company: z.string(),
				/** On a layer of their own. */
				layer: z.string(),
				marks: z.array(mark)
			})
		)
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
			/** What its documents may be used for, as it was issued or would be now. */
			suitability,
			state: z.enum(RELEASE_STATES),
			replyBy: z.string().nullable(),
			words: z.string(),
			stamped: z.boolean(),
			withMarks: z.boolean(),
			arrangement,
			builtBy: z.string(),
			issuedBy: z.string().nullable(),
			createdAt: moment,
			askedAt: moment.nullable(),
			approvedAt: moment.nullable(),
			issuedAt: moment.nullable(),
			cancelledAt: moment.nullable(),
			cancelledReason: z.string().nullable(),
			manifestHash: z.string().nullable(),
			/** Fingerprint of the key that signed it, to be told to those who hold a package by another way. */
			key: z.string().nullable(),
			/** That of the certificate that signs cover notes. */
			certificate: z.string().nullable()
		}),
		recipients: z.array(
			z.strictObject({
				recipient: z.string(),
				name: z.string(),
				company: z.string(),
				email: z.string(),
				expects: z.enum(EXPECTS),
				replyBy: z.string().nullable(),
				asks: z.enum(PROOFS),
				documents: z.array(z.string()).nullable(),
				/** How many of its documents they get, and have signed a verdict on. */
				gets: z.number(),
				answered: z.number(),
				/** Colleagues whom they ask to bring in, the first asked for first. */
				colleagues: z.array(
					z.strictObject({
						id: z.string(),
						name: z.string(),
						email: z.string(),
						instead: z.boolean(),
						words: z.string(),
						askedBy: z.string(),
						state: z.enum(COLLEAGUE_STATES)
					})
				),
				pass: z
					.strictObject({
						endsAt: moment,
						withdrawnAt: moment.nullable(),
						/** Whether it opens today. */
						open: z.boolean(),
						uses: z.number(),
						lastUsedAt: moment.nullable(),
						receivedAt: moment.nullable()
					})
					.nullable()
			})
		),
		items: z.array(
			z.strictObject({
				documentId: z.string(),
				number: z.string(),
				title: z.string(),
				/** What it stands under, where they are listed in groups; otherwise empty. */
				heading: z.string(),
				from: z.string(),
				label: z.string(),
				to: z.string(),
				/** Of what was sent. */
				hash: z.string().nullable(),
				/** What is put on it on its way out, or was, in words; null where it leaves as it is. */
				leaves: z.string().nullable(),
				size: z.number(),
				mediaType: z.string(),
				mayView: z.boolean(),
				/** Whether the reader has opened it as it is here. */
				looked: z.boolean(),
				checks: z.array(check),
				later: z.strictObject({ label: z.string(), at: moment }).nullable(),
				supersedes: z.string().nullable(),
				/** The one with which the reader compares it. */
				compares: z.string().nullable(),
				/** What each who was asked has signed, in the order of the recipients. */
				verdicts: z.array(
					z.strictObject({
						name: z.string(),
						company: z.string(),
						code: z.enum(VERDICTS).nullable(),
						remark: z.string(),
						/** How many remarks they placed on its sheets, and the side versions that their marked-up files became. */
						placed: z.number(),
						/** How many marks they drew on them. */
						drawn: z.number(),
						sides: z.array(z.number()),
						at: moment.nullable()
					})
				),
				/** What they come to: a verdict, or that they differ, or are not all there; null where nobody is asked. */
				outcome: z.enum([...VERDICTS, 'differ', 'open']).nullable(),
				/** Whether the reader can make one of them now. */
				mayConsolidate: z.boolean(),
				/** Who made one of them, where a controller did, and why. */
				consolidated: z.strictObject({ by: z.string(), at: moment, reason: z.string() }).nullable()
			})
		),
		stopping: z.number(),
		looking: z.number(),
		controller: z.boolean(),
		/** What issuing it asks of who does it. */
		issueNeeds: z.enum(ISSUE_NEEDS),
		build: build.nullable(),
		digest: z.string().nullable(),
		route: z.array(stepStanding),
		/** For whom the reader would decide, where that is not themselves. */
		decidesFor: z.string().nullable(),
		/** What was decided last, and what differs from the build as it was then. */
		last: z
			.strictObject({
				says: z.enum(['approved', 'sent-back']),
				by: z.string(),
				standsFor: z.string().nullable(),
				at: moment,
				reason: z.string().nullable(),
				/** What is wrong with which documents, where it was sent back. */
				documents: z.array(z.strictObject({ document: z.string(), reason: z.string() })),
				changes: z.array(z.string())
			})
			.nullable(),
		/** What can be done with it now, by the name of the act. */
		can: canDo(RELEASE_ACTS)
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
		/** What is asked of them. */
		expects: z.enum(EXPECTS),
		/** Whether they may draw on its sheets. */
		mayDraw: z.boolean(),
		endsAt: moment,
		receivedAt: moment.nullable(),
		/** Others who answer it along with them or in their stead, or are asked for. */
		colleagues: z.array(
			z.strictObject({ name: z.string(), instead: z.boolean(), state: z.enum(COLLEAGUE_STATES) })
		),
		release: z.strictObject({
			number: z.number(),
			title: z.string(),
			purpose: z.enum(PURPOSES),
			suitability,
			issuedAt: moment,
			issuedBy: z.string(),
			replyBy: z.string().nullable(),
			words: z.string(),
			superseded: z.boolean()
		}),
		items: z.array(
			z.strictObject({
				documentId: z.string(),
				number: z.string(),
				title: z.string(),
				/** What it stands under, where they are listed in groups; otherwise empty. */
				heading: z.string(),
				label: z.string(),
				size: z.number(),
				mediaType: z.string(),
				hash: z.string(),
				later: z.strictObject({ label: z.string(), at: moment }).nullable(),
				/** The later revision that they were sent since, with the release it came in, and the way there where it may be told. */
				since: z
					.strictObject({ release: z.number(), label: z.string(), link: z.string().nullable() })
					.nullable(),
				/** The revision that they had before, with the release it came in; null where there is none, or the same file. */
				before: z.strictObject({ label: z.string(), release: z.number(), mediaType: z.string() }).nullable(),
				code: z.enum(VERDICTS).nullable(),
				remark: z.string(),
				/** Their remarks on its sheets, in the lasting coordinates of what was sent. */
				placed: z.array(
					z.strictObject({
						id: z.string(),
						number: z.number(),
						page: z.number(),
						x: z.number(),
						y: z.number(),
						text: z.string()
					})
				),
				/** How many marks they have drawn on its sheets. */
				drawn: z.number(),
				/** Marked-up files that they send along. */
				files: z.array(z.strictObject({ id: z.string(), fileName: z.string(), size: z.number() })),
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

export const coverNoteDraft = view({
	name: 'coverNoteDraft',
	summary: 'What the cover note for somebody who gets a release would say if it were issued now',
	path: '/releases/{release}/recipients/{recipient}/cover-note',
	input: z.strictObject({ release: id, recipient: id }),
	output: z.strictObject({ manifest, replyBy: z.string().nullable(), number: z.number() }),
	at: { kind: 'release', id: (i) => i.release, who: 'route' }
});

export const releaseOutgoing = view({
	name: 'releaseOutgoing',
	summary: 'Which file goes out or went for a document of a release, and what is put on it',
	path: '/releases/{release}/documents/{document}/outgoing',
	input: z.strictObject({ release: id, document: id }),
	output: z.strictObject({
		hash: z.string(),
		size: z.number(),
		mediaType: z.string(),
		fileName: z.string(),
		/** What has still to be put on it; null where it leaves as it is, or has left. */
		put: z.strictObject({ stamp: z.string().nullable(), marks: burning.nullable() }).nullable()
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' }
});

export const releaseCoverNote = view({
	name: 'releaseCoverNote',
	summary: 'The stored cover note of an issued release, for its route',
	path: '/releases/{release}/cover-note',
	input: z.strictObject({ release: z.string().max(20) }),
	output: z.strictObject({ hash: z.string(), number: z.number() }),
	at: { kind: 'release', id: (i) => i.release, who: 'route' }
});

export const releaseAnswers = view({
	name: 'releaseAnswers',
	summary: 'Everything that was answered to an issued release, with what became of the remarks made of it',
	path: '/releases/{release}/answers',
	input: z.strictObject({ release: id }),
	output: z.strictObject({
		project: z.strictObject({ code: z.string(), name: z.string(), timeZone: z.string() }),
		number: z.number(),
		title: z.string(),
		rows: z.array(
			z.strictObject({
				document: id,
				number: z.string(),
				title: z.string(),
				label: z.string(),
				/** Who signed it; of whom nothing came yet, who is asked. */
				by: z.string(),
				company: z.string(),
				at: moment.nullable(),
				code: z.enum(VERDICTS).nullable(),
				words: z.string(),
				/** The page on which it was placed as a remark; null for the verdict itself. */
				page: z.number().nullable(),
				/** Whether it was placed there as a remark or drawn; null for the verdict itself. */
				how: z.enum(['placed', 'drawn']).nullable(),
				/** Whether a controller made it of verdicts that differ. */
				consolidated: z.boolean(),
				/** What it became on the document, where it opened work (C and D). */
				remark: z
					.strictObject({
						number: z.number(),
						department: z.string(),
						due: z.string().nullable(),
						answers: z.array(z.strictObject({ by: z.string(), at: moment, text: z.string() })),
						settled: z.strictObject({ by: z.string(), at: moment, note: z.string() }).nullable()
					})
					.nullable()
			})
		)
	}),
	at: { kind: 'release', id: (i) => i.release, who: 'controller' }
});

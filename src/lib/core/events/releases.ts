import * as z from 'zod/mini';
import { VERDICTS } from '../releases';
import { PURPOSES } from '../revisions/revisions';
import { plural } from '../words/sentences';
import { about, doc, event } from './event';

const standing = (d: { standsFor?: string | undefined }) => (d.standsFor ? ` for ${d.standsFor}` : '');

/** What is out of date is named in the mail, and to nobody else. */
export const holderTold = event('holder.told', {
	details: z.strictObject({ to: z.string(), documents: z.number() }),
	touches: ['releases'],
	says: (d) =>
		`told ${d.to} that ${plural(d.documents ?? 0, 'document')} they hold ${d.documents === 1 ? 'is' : 'are'} out of date`
});

export const receiptConfirmed = event('receipt.confirmed', {
	details: z.strictObject({ number: z.number(), holder: z.string() }),
	touches: ['releases'],
	says: (d) => `confirmed receipt of ${about(d)}`
});

export const releaseAccepted = event('release.accepted', {
	details: z.strictObject({
		number: z.number(),
		document: z.string(),
		check: z.enum([
			'number',
			'handed-in',
			'revision',
			'newest',
			'free',
			'settled',
			'opens',
			'title-block',
			'same-bytes',
			'issued-before',
			'frozen',
			'references',
			'named-by'
		]),
		sentence: z.string(),
		reason: z.string()
	}),
	touches: ['releases'],
	says: (d) => `lets ${d.document} go out in ${about(d)}: ${d.sentence} ${d.reason}`
});

export const releaseApproved = event('release.approved', {
	details: z.strictObject({
		number: z.number(),
		title: z.string(),
		digest: z.string(),
		/** The step, where the route has several; and who was away, where somebody stood in. */
		step: z.optional(z.string()),
		standsFor: z.optional(z.string())
	}),
	touches: ['releases'],
	says: (d) => `approved ${d.step ? `“${d.step}” of ` : ''}${about(d)}${standing(d)}`
});

export const releaseAsked = event('release.asked', {
	details: z.strictObject({
		number: z.number(),
		title: z.string(),
		of: z.string(),
		step: z.optional(z.string())
	}),
	touches: ['releases'],
	says: (d) =>
		d.of
			? `asked ${d.of} to approve ${about(d)}`
			: `asked for ${about(d)}, which its route had approved as it is`
});

export const releaseBuilt = event('release.built', {
	details: z.strictObject({
		number: z.number(),
		title: z.string(),
		purpose: z.enum(PURPOSES),
		documents: z.number()
	}),
	touches: ['releases'],
	says: (d) => `began ${about(d)}, ${d.title}`
});

export const releaseCancelled = event('release.cancelled', {
	details: z.strictObject({ number: z.number(), title: z.string(), reason: z.string() }),
	touches: ['releases'],
	says: (d) => `cancelled ${about(d)}: ${d.reason}`
});

export const releaseChanged = event('release.changed', {
	details: z.strictObject({
		/** Written when one person approved a release. */
		approver: z.optional(z.string()),
		approverBefore: z.optional(z.string()),
		route: z.optional(z.string()),
		routeBefore: z.optional(z.string()),
		number: z.number(),
		title: z.optional(z.string()),
		purpose: z.optional(z.enum(PURPOSES)),
		changed: z.optional(z.array(z.string())),
		added: z.optional(z.number()),
		leftOut: z.optional(z.string()),
		newest: z.optional(z.string()),
		reordered: z.optional(z.literal(true))
	}),
	touches: ['releases'],
	says: (d) =>
		`changed ${about(d)}${d.approver ? `: ${d.approver} decides, not ${d.approverBefore}` : d.route ? `: its route is now ${d.route}` : d.reordered ? ': its documents are listed in another order' : ''}`
});

export const releaseIssued = event('release.issued', {
	details: z.strictObject({
		number: z.number(),
		title: z.string(),
		purpose: z.enum(PURPOSES),
		documents: z.number(),
		to: z.string(),
		manifest: z.string(),
		note: z.string(),
		/** What went to each, where it went to several. */
		each: z.optional(z.array(z.strictObject({ to: z.string(), manifest: z.string(), note: z.string() })))
	}),
	touches: ['releases'],
	says: (d) => `issued ${about(d)}, ${d.title}, to ${d.to}`
});

export const releasePackaged = event('release.packaged', {
	details: z.strictObject({ number: z.number(), documents: z.number() }),
	touches: ['openings'],
	says: (d) => `took ${about(d)} as a package with everything that proves it`,
	opening: true
});

export const releaseReminded = event('release.reminded', {
	details: z.strictObject({ number: z.number(), to: z.string(), of: z.enum(['receipt', 'soon', 'overdue']) }),
	touches: ['releases'],
	says: (d) =>
		`reminded ${d.to} ${d.of === 'receipt' ? 'to confirm receipt of' : 'of the reply to'} ${about(d)}${d.of === 'overdue' ? ', which is overdue' : ''}`
});

export const releaseSentBack = event('release.sent-back', {
	details: z.strictObject({
		number: z.number(),
		title: z.string(),
		reason: z.string(),
		step: z.optional(z.string()),
		standsFor: z.optional(z.string()),
		/** What is wrong with which documents, by their numbers. */
		documents: z.optional(z.array(z.strictObject({ number: z.string(), reason: z.string() })))
	}),
	touches: ['releases'],
	says: (d) =>
		`sent ${about(d)} back${standing(d)}: ${[d.reason, ...(d.documents ?? []).map((one) => `${one.number}: ${one.reason}`)].join('; ')}`
});

export const releaseSuperseded = event('release.superseded', {
	details: z.strictObject({ number: z.number(), by: z.number() }),
	touches: ['releases'],
	says: (d) => `superseded ${about(d)}`
});

/** Somebody decides for somebody who is away, from one day to another. */
export const standInNamed = event('stand-in.named', {
	details: z.strictObject({ away: z.string(), standIn: z.string(), from: z.string(), until: z.string() }),
	touches: ['people', 'releases'],
	says: (d, words) =>
		`named ${d.standIn} to decide for ${d.away} from ${words.day(d.from ?? '')} to ${words.day(d.until ?? '')}`
});

export const standInEnded = event('stand-in.ended', {
	details: z.strictObject({ away: z.string(), standIn: z.string() }),
	touches: ['people', 'releases'],
	says: (d) => `ended that ${d.standIn} decides for ${d.away}`
});

export const verdictConsolidated = event('verdict.consolidated', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		code: z.enum(VERDICTS),
		reason: z.string(),
		release: z.number()
	}),
	touches: ['releases'],
	says: (d) => `made ${d.code} out of the verdicts on ${doc(d)}: ${d.reason}`
});

export const verdictGiven = event('verdict.given', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		code: z.nullable(z.enum(VERDICTS)),
		remark: z.string(),
		release: z.number(),
		signed: z.string(),
		/** What was placed on its sheets. */
		placed: z.optional(z.array(z.strictObject({ page: z.number(), text: z.string() }))),
		/** What was drawn on its sheets: how many marks, and the SHA-256 of their list as canonical JSON (RFC 8785). */
		drawn: z.optional(z.strictObject({ marks: z.number(), sha256: z.string() })),
		/** Hashes of what was sent along. */
		files: z.optional(z.array(z.string()))
	}),
	touches: ['releases'],
	says: (d) =>
		`gave verdict ${d.code} on ${doc(d)}${d.placed ? `, with ${plural(d.placed.length, 'remark')} on it` : ''}${d.drawn ? `, with ${plural(d.drawn.marks, 'mark')} drawn on it` : ''}${d.files ? `, with ${plural(d.files.length, 'marked-up file')}` : ''}${d.remark ? `: ${d.remark}` : ''}`
});

const colleagueDetails = {
	number: z.number(),
	name: z.string(),
	email: z.string(),
	/** Of whom they are a colleague. */
	of: z.string(),
	instead: z.boolean()
};
const answersFor = (d: { instead?: boolean | undefined; of?: string | undefined }) =>
	d.instead ? `in the stead of ${d.of}` : `along with ${d.of}`;

/** Mail addresses of people outside are for those who see the release. */
export const colleagueAsked = event('colleague.asked', {
	details: z.strictObject(colleagueDetails),
	touches: ['releases', 'passes'],
	says: (d) => `asked that ${d.name} answers ${about(d)} ${answersFor(d)}`
});

export const colleagueLetIn = event('colleague.let-in', {
	details: z.strictObject({ ...colleagueDetails, pass: z.string() }),
	touches: ['releases', 'passes'],
	says: (d) => `let ${d.name} answer ${about(d)} ${answersFor(d)}`
});

export const colleagueRefused = event('colleague.refused', {
	details: z.strictObject({ ...colleagueDetails, reason: z.string() }),
	touches: ['releases', 'passes'],
	says: (d) => `did not let ${d.name} answer ${about(d)}${d.reason ? `: ${d.reason}` : ''}`
});

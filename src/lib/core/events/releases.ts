import * as z from 'zod/mini';
import { VERDICTS } from '../releases';
import { PURPOSES } from '../revisions/revisions';
import { about, doc, event } from './event';

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
			'issued-before'
		]),
		sentence: z.string(),
		reason: z.string()
	}),
	touches: ['releases'],
	says: (d) => `lets ${d.document} go out in ${about(d)}: ${d.sentence} ${d.reason}`
});

export const releaseApproved = event('release.approved', {
	details: z.strictObject({ number: z.number(), title: z.string(), digest: z.string() }),
	touches: ['releases'],
	says: (d) => `approved ${about(d)}`
});

export const releaseAsked = event('release.asked', {
	details: z.strictObject({ number: z.number(), title: z.string(), of: z.string() }),
	touches: ['releases'],
	says: (d) => `asked ${d.of} to approve ${about(d)}`
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
		approver: z.optional(z.string()),
		approverBefore: z.optional(z.string()),
		number: z.number(),
		title: z.optional(z.string()),
		purpose: z.optional(z.enum(PURPOSES)),
		changed: z.optional(z.array(z.string())),
		added: z.optional(z.number()),
		leftOut: z.optional(z.string()),
		newest: z.optional(z.string())
	}),
	touches: ['releases'],
	says: (d) => `changed ${about(d)}${d.approver ? `: ${d.approver} decides, not ${d.approverBefore}` : ''}`
});

export const releaseIssued = event('release.issued', {
	details: z.strictObject({
		number: z.number(),
		title: z.string(),
		purpose: z.enum(PURPOSES),
		documents: z.number(),
		to: z.string(),
		manifest: z.string(),
		note: z.string()
	}),
	touches: ['releases'],
	says: (d) => `issued ${about(d)}, ${d.title}, to ${d.to}`
});

export const releaseReminded = event('release.reminded', {
	details: z.strictObject({ number: z.number(), to: z.string(), of: z.enum(['receipt', 'soon', 'overdue']) }),
	touches: ['releases'],
	says: (d) =>
		`reminded ${d.to} ${d.of === 'receipt' ? 'to confirm receipt of' : 'of the reply to'} ${about(d)}${d.of === 'overdue' ? ', which is overdue' : ''}`
});

export const releaseSentBack = event('release.sent-back', {
	details: z.strictObject({ number: z.number(), title: z.string(), reason: z.string() }),
	touches: ['releases'],
	says: (d) => `sent ${about(d)} back: ${d.reason}`
});

export const releaseSuperseded = event('release.superseded', {
	details: z.strictObject({ number: z.number(), by: z.number() }),
	touches: ['releases'],
	says: (d) => `superseded ${about(d)}`
});

export const verdictGiven = event('verdict.given', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		code: z.nullable(z.enum(VERDICTS)),
		remark: z.string(),
		release: z.number(),
		signed: z.string()
	}),
	touches: ['releases'],
	says: (d) => `gave verdict ${d.code} on ${doc(d)}${d.remark ? `: ${d.remark}` : ''}`
});

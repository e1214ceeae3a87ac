import * as z from 'zod/mini';
import { doc, event } from './event';

export const remarkAdded = event('remark.added', {
	details: z.strictObject({ number: z.string(), label: z.string(), remark: z.number(), text: z.string() }),
	touches: ['remarks'],
	says: (d) => `remarked on ${doc(d)} (${d.remark}): ${d.text}`
});

export const remarkAnswered = event('remark.answered', {
	details: z.strictObject({ number: z.string(), remark: z.number(), text: z.string() }),
	touches: ['remarks'],
	says: (d) => `answered remark ${d.remark} on ${d.number}: ${d.text}`
});

export const remarkAssigned = event('remark.assigned', {
	details: z.strictObject({
		number: z.string(),
		remark: z.number(),
		to: z.string(),
		due: z.nullable(z.string())
	}),
	touches: ['remarks'],
	says: (d, words) =>
		`gave remark ${d.remark} on ${d.number} to ${d.to}${d.due ? `, by ${words.day(d.due)}` : ''}`
});

export const remarkReopened = event('remark.reopened', {
	details: z.strictObject({ number: z.string(), remark: z.number(), note: z.string() }),
	touches: ['remarks'],
	says: (d) => `opened remark ${d.remark} on ${d.number} again`
});

export const remarkSettled = event('remark.settled', {
	details: z.strictObject({ number: z.string(), remark: z.number(), note: z.string() }),
	touches: ['remarks'],
	says: (d) => `settled remark ${d.remark} on ${d.number}${d.note ? `: ${d.note}` : ''}`
});

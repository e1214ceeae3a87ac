import * as z from 'zod/mini';
import { doc, event } from './event';

export const lockAnswered = event('lock.answered', {
	details: z.strictObject({ number: z.string() }),
	touches: ['documents', 'in-hand'],
	says: (d) => `has nothing to bring to ${doc(d)} from under the broken lock`
});

export const lockAsked = event('lock.asked', {
	details: z.strictObject({ number: z.string(), of: z.string(), note: z.string() }),
	touches: ['documents', 'in-hand'],
	says: (d) => `asked ${d.of} for ${doc(d)}${d.note ? `: ${d.note}` : ''}`
});

export const lockBroken = event('lock.broken', {
	details: z.strictObject({ number: z.string(), holder: z.string(), reason: z.string() }),
	touches: ['documents', 'in-hand'],
	says: (d) => `broke the lock of ${d.holder} on ${doc(d)}: ${d.reason}`
});

export const lockExtended = event('lock.extended', {
	details: z.strictObject({ number: z.string(), until: z.string() }),
	touches: ['documents', 'in-hand'],
	says: (d, words) => `keeps ${doc(d)} in hand until ${d.until ? words.moment(d.until) : ''}`
});

export const lockGivenBack = event('lock.given-back', {
	details: z.strictObject({ number: z.string() }),
	touches: ['documents', 'in-hand'],
	says: (d) => `gave ${doc(d)} back without a change`
});

export const lockHandedOver = event('lock.handed-over', {
	details: z.strictObject({
		number: z.string(),
		from: z.string(),
		to: z.string(),
		note: z.optional(z.string())
	}),
	touches: ['documents', 'in-hand'],
	says: (d) => `handed the lock of ${doc(d)} over from ${d.from} to ${d.to}`
});

export const lockStale = event('lock.stale', {
	details: z.strictObject({
		number: z.string(),
		lock: z.string(),
		holder: z.string(),
		told: z.enum(['leads', 'holder'])
	}),
	touches: ['documents', 'in-hand'],
	says: (d) =>
		d.told === 'leads'
			? `told the leads that ${d.holder} still has ${doc(d)} in hand`
			: `reminded ${d.holder}, who still has ${doc(d)} in hand`
});

export const lockTaken = event('lock.taken', {
	details: z.strictObject({
		number: z.string(),
		purpose: z.string(),
		expectedEnd: z.nullable(z.string()),
		limitDays: z.number()
	}),
	touches: ['documents', 'in-hand'],
	says: (d) => `took ${doc(d)} in hand${d.purpose ? ` for “${d.purpose}”` : ''}`
});

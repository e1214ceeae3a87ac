import * as z from 'zod/mini';
import { plural } from '../words/sentences';
import { event, type TimeWords } from './event';

/**
 * Which deliverables an event is about. One alone is named, and its event stands at its document, so that only those who
 * may look at that read of it; of several only the number is told, and each keeps what happened to it (A10).
 */
const which = { count: z.number(), number: z.nullable(z.string()) };
const those = (d: { count?: number; number?: string | null }): string =>
	d.number ?? plural(d.count ?? 0, 'deliverable');
const dayOr = (day: string | null | undefined, words: TimeWords) => (day ? words.day(day) : 'no day');

export const registerAdded = event('register.added', {
	details: z.strictObject({ ...which, title: z.nullable(z.string()) }),
	touches: ['register'],
	says: (d) => `put ${those(d)}${d.title ? ` ${d.title}` : ''} in the register`
});

export const registerChanged = event('register.changed', {
	details: z.strictObject({ ...which, what: z.array(z.string()) }),
	touches: ['register'],
	says: (d) => `changed ${(d.what ?? []).join(', ')} of ${those(d)} in the register`
});

export const registerMoved = event('register.moved', {
	details: z.strictObject({
		...which,
		/** Names of the stages whose planned days moved. */
		stages: z.array(z.string()),
		/** By so many working days, or to a day. */
		days: z.nullable(z.number()),
		to: z.nullable(z.string()),
		reason: z.string()
	}),
	touches: ['register'],
	says: (d, words) =>
		`moved the planned days of ${those(d)} (${(d.stages ?? []).join(', ')}) ${
			d.days === null || d.days === undefined
				? `to ${dayOr(d.to, words)}`
				: `by ${plural(d.days, 'working day')}`
		}: ${d.reason}`
});

export const registerForecast = event('register.forecast', {
	details: z.strictObject({
		number: z.string(),
		stage: z.string(),
		before: z.nullable(z.string()),
		day: z.nullable(z.string()),
		reason: z.string()
	}),
	touches: ['register'],
	says: (d, words) =>
		d.day
			? `expects ${d.number} ${d.stage} on ${words.day(d.day)}: ${d.reason}`
			: `took back their forecast of ${d.number} ${d.stage}: ${d.reason}`
});

export const registerCorrected = event('register.corrected', {
	details: z.strictObject({
		number: z.string(),
		stage: z.string(),
		before: z.nullable(z.string()),
		day: z.nullable(z.string()),
		reason: z.string()
	}),
	touches: ['register'],
	says: (d, words) =>
		d.day
			? `corrected the day on which ${d.number} was issued ${d.stage} to ${words.day(d.day)}: ${d.reason}`
			: `took back the corrected day of ${d.number} ${d.stage}: ${d.reason}`
});

export const registerRemoved = event('register.removed', {
	details: z.strictObject({ ...which, reason: z.string() }),
	touches: ['register'],
	says: (d) => `took ${those(d)} out of the register: ${d.reason}`
});

export const registerRestored = event('register.restored', {
	details: z.strictObject(which),
	touches: ['register'],
	says: (d) => `put ${those(d)} back in the register`
});

export const registerImported = event('register.imported', {
	details: z.strictObject({ added: z.number(), changed: z.number(), file: z.string() }),
	touches: ['register'],
	says: (d) =>
		`took in the list ${d.file}: ${plural(d.added ?? 0, 'new deliverable')}, ${d.changed ?? 0} changed`
});

export const registerChoiceKept = event('register.choice-kept', {
	details: z.strictObject({ name: z.string() }),
	touches: ['register'],
	says: (d) => `keeps the choice “${d.name}” of the register for the project`
});

export const registerChoiceEnded = event('register.choice-ended', {
	details: z.strictObject({ name: z.string() }),
	touches: ['register'],
	says: (d) => `ended the choice “${d.name}” of the register`
});

export const registerTemplateKept = event('register.template-kept', {
	details: z.strictObject({ name: z.string(), count: z.number() }),
	touches: ['register'],
	says: (d) => `keeps ${plural(d.count ?? 0, 'deliverable')} as the template “${d.name}”`
});

export const registerTemplateEnded = event('register.template-ended', {
	details: z.strictObject({ name: z.string() }),
	touches: ['register'],
	says: (d) => `ended the template “${d.name}” of the register`
});

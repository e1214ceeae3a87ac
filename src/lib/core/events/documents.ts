import * as z from 'zod/mini';
import { VERDICTS, releaseNumber } from '../releases';
import { PURPOSES } from '../revisions/revisions';
import { doc, event, tagsOf } from './event';

/** What was looked at or taken: a version, a side version, or what a release pinned. */
const seenDetails = z.strictObject({
	number: z.string(),
	label: z.string(),
	hash: z.optional(z.string()),
	/** The release through which it was reached. */
	release: z.optional(z.number()),
	/** Whether only the route of the release leads there. */
	byRoute: z.optional(z.boolean())
});

export const documentAdded = event('document.added', {
	details: z.strictObject({
		number: z.string(),
		title: z.string(),
		label: z.string(),
		hash: z.string(),
		size: z.number()
	}),
	touches: ['documents', 'places'],
	says: (d) => `added ${doc(d)} ${d.title}`
});

export const documentChanged = event('document.changed', {
	details: z.strictObject({
		tags: z.optional(z.array(z.string())),
		from: z.optional(z.string()),
		title: z.optional(z.string()),
		to: z.optional(z.string()),
		number: z.string()
	}),
	touches: ['documents'],
	says: (d) =>
		`changed ${doc(d)}${d.to ? ` to ${d.to}` : ''}${d.title ? `, title “${d.title}”` : ''}${d.tags ? `, tags ${tagsOf(d.tags) || 'none'}` : ''}`
});

export const documentDownloaded = event('document.downloaded', {
	details: seenDetails,
	touches: ['openings'],
	says: (d) => `downloaded ${doc(d)}`,
	opening: true
});

export const documentIssued = event('document.issued', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		from: z.string(),
		release: z.number(),
		hash: z.string(),
		/** What was sent in its stead, where it was changed on its way out. */
		sent: z.optional(z.string())
	}),
	touches: ['documents', 'releases'],
	says: (d) => `issued ${doc(d)} in release ${releaseNumber(Number(d.release))}`
});

export const documentMoved = event('document.moved', {
	details: z.strictObject({
		number: z.string(),
		to: z.string(),
		toId: z.string(),
		from: z.nullable(z.string())
	}),
	touches: ['documents', 'places'],
	says: (d) => `moved ${doc(d)} to ${d.to ?? 'another folder'}`,
	leaves: 'from',
	names: [{ id: 'toId', name: 'to' }, { id: 'from' }]
});

export const documentOpened = event('document.opened', {
	details: seenDetails,
	touches: ['openings'],
	says: (d) => `opened ${doc(d)}`,
	opening: true
});

export const documentReturned = event('document.returned', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		code: z.enum(VERDICTS),
		release: z.number(),
		due: z.string()
	}),
	touches: ['documents'],
	says: (d, words) =>
		`sent ${doc(d)} back to its department with ${d.code}, to be answered by ${d.due ? words.day(d.due) : ''}`
});

export const documentRevised = event('document.revised', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		from: z.string(),
		purpose: z.enum(PURPOSES),
		reason: z.string(),
		hash: z.string()
	}),
	touches: ['documents'],
	says: (d) => `issued ${doc(d)} ${d.purpose}: ${d.reason}`
});

export const documentStateChanged = event('document.state-changed', {
	details: z.strictObject({
		number: z.string(),
		from: z.string(),
		to: z.enum(['archived', 'wip', 'shared', 'published']),
		reason: z.string()
	}),
	touches: ['documents'],
	says: (d) => `put ${doc(d)} from ${d.from} to ${d.to}: ${d.reason}`
});

export const documentTagged = event('document.tagged', {
	details: z.strictObject({ number: z.string(), tags: z.array(z.string()) }),
	touches: ['documents'],
	says: (d) => `tagged ${doc(d)}: ${tagsOf(d.tags) || 'no tags'}`
});

export const versionDropped = event('version.dropped', {
	details: z.strictObject({ number: z.string(), side: z.number(), reason: z.string() }),
	touches: ['documents'],
	says: (d) => `discarded side version ${d.side} of ${doc(d)}: ${d.reason}`
});

export const versionHandedIn = event('version.handed-in', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		note: z.string(),
		hash: z.string(),
		size: z.optional(z.number()),
		live: z.optional(z.boolean())
	}),
	touches: ['documents'],
	says: (d) => `handed in ${doc(d)}: ${d.note}`
});

export const versionMerged = event('version.merged', {
	details: z.strictObject({ number: z.string(), label: z.string(), side: z.number(), hash: z.string() }),
	touches: ['documents'],
	says: (d) => `merged side version ${d.side} of ${d.number} as ${d.label}`
});

export const versionRestored = event('version.restored', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		from: z.string(),
		hash: z.optional(z.string())
	}),
	touches: ['documents'],
	says: (d) => `restored ${d.from} of ${d.number} as ${d.label}`
});

export const versionSaved = event('version.saved', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		note: z.string(),
		hash: z.string(),
		size: z.number()
	}),
	touches: ['documents'],
	says: (d) => `saved ${doc(d)} and kept the lock: ${d.note}`
});

export const versionSetBeside = event('version.set-beside', {
	details: z.strictObject({
		number: z.string(),
		side: z.number(),
		note: z.string(),
		hash: z.string(),
		size: z.number(),
		/** Number of the release with whose verdict it came. */
		release: z.optional(z.number())
	}),
	touches: ['documents'],
	says: (d) =>
		d.release === undefined
			? `handed in ${doc(d)} without the lock, kept as side version ${d.side}: ${d.note}`
			: `sent ${doc(d)} back with marks, kept as side version ${d.side}: ${d.note}`
});

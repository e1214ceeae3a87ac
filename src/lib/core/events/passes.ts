import * as z from 'zod/mini';
import { AUDIENCES } from '../passes/passes';
import { releaseNumber } from '../releases';
import { plural } from '../words/sentences';
import { about, doc, event } from './event';

export const hatchArrived = event('hatch.arrived', {
	details: z.strictObject({ title: z.string(), sender: z.string(), files: z.number(), place: z.string() }),
	touches: ['arrivals', 'passes'],
	says: (d) => `sent ${plural(Number(d.files ?? 0), 'file')} for ${d.place} through ${d.title}`
});

export const hatchChecked = event('hatch.checked', {
	details: z.strictObject({
		scanner: z.nullable(z.string()),
		fault: z.nullable(z.string()),
		file: z.string(),
		sender: z.string()
	}),
	touches: ['arrivals', 'passes'],
	says: (d) => `checked ${d.file} from ${d.sender}: nothing found`
});

export const hatchClosed = event('hatch.closed', {
	details: z.strictObject({ hatch: z.string(), title: z.string() }),
	touches: ['arrivals', 'passes'],
	says: (d) => `closed the hatch ${d.title}`
});

export const hatchLookedAt = event('hatch.looked-at', {
	details: z.strictObject({ file: z.string(), sender: z.string(), hash: z.string() }),
	touches: ['arrivals', 'passes'],
	says: (d) => `looked at ${d.file} from ${d.sender}`
});

export const hatchMade = event('hatch.made', {
	details: z.strictObject({ hatch: z.string(), title: z.string(), place: z.string(), until: z.string() }),
	touches: ['arrivals', 'passes'],
	says: (d) => `made the hatch ${d.title} into ${d.place}`
});

export const hatchRefused = event('hatch.refused', {
	details: z.strictObject({ file: z.string(), sender: z.string(), reason: z.string() }),
	touches: ['arrivals', 'passes'],
	says: (d) => `refused ${d.file} from ${d.sender}: ${d.reason}`
});

export const hatchSorted = event('hatch.sorted', {
	details: z.strictObject({ number: z.string(), sender: z.string(), file: z.string(), hash: z.string() }),
	touches: ['arrivals', 'passes'],
	says: (d) => `sorted ${d.file} from ${d.sender} in as ${d.number}`
});

export const hatchUnsafe = event('hatch.unsafe', {
	details: z.strictObject({
		scanner: z.nullable(z.string()),
		fault: z.nullable(z.string()),
		file: z.string(),
		sender: z.string()
	}),
	touches: ['arrivals', 'passes'],
	says: (d) => `found ${d.file} from ${d.sender} unsafe: ${d.fault}`
});

export const passChanged = event('pass.changed', {
	details: z.strictObject({
		/** What it leads to: a place by its name, or a release by its number. */ place: z.optional(z.string()),
		number: z.optional(z.number()),
		pass: z.string(),
		for: z.string(),
		changed: z.array(z.string()),
		wider: z.array(z.string())
	}),
	touches: ['passes'],
	says: (d) =>
		`changed the pass ${typeof d.number === 'number' ? `of ${about(d)}` : `to ${d.place}`} for ${d.for}: ${d.changed}`
});

export const passDocumentDownloaded = event('pass.document-downloaded', {
	details: z.strictObject({
		pass: z.optional(z.string()),
		number: z.string(),
		label: z.string(),
		hash: z.optional(z.string()),
		release: z.optional(z.number())
	}),
	touches: ['openings'],
	says: (d) =>
		`downloaded ${doc(d)}${d.release ? ` from release ${releaseNumber(Number(d.release))}` : ' through a pass'}`,
	opening: true
});

export const passDocumentOpened = event('pass.document-opened', {
	details: z.strictObject({
		pass: z.optional(z.string()),
		number: z.string(),
		label: z.string(),
		hash: z.optional(z.string()),
		release: z.optional(z.number())
	}),
	touches: ['openings'],
	says: (d) =>
		`opened ${doc(d)}${d.release ? ` in release ${releaseNumber(Number(d.release))}` : ' through a pass'}`,
	opening: true
});

export const passMade = event('pass.made', {
	details: z.strictObject({
		pass: z.string(),
		for: z.string(),
		place: z.string(),
		audience: z.enum(AUDIENCES),
		until: z.string(),
		mayDownload: z.boolean(),
		label: z.nullable(z.string())
	}),
	touches: ['passes'],
	says: (d, words) =>
		`made a pass to ${d.place}${d.label ? ` ${d.label}` : ''} for ${d.for}, until ${d.until ? words.day(d.until) : ''}`
});

export const passOpened = event('pass.opened', {
	details: z.strictObject({
		/** What it leads to: a place by its name, or a release by its number. */ place: z.optional(z.string()),
		number: z.optional(z.number()),
		pass: z.string()
	}),
	touches: ['openings'],
	says: (d) => `opened the pass ${typeof d.number === 'number' ? `of ${about(d)}` : `to ${d.place}`}`,
	opening: true
});

export const passReleaseDownloaded = event('pass.release-downloaded', {
	details: z.strictObject({ number: z.number(), documents: z.number() }),
	touches: ['openings'],
	says: (d) => `downloaded the whole of ${about(d)}`,
	opening: true
});

export const passSent = event('pass.sent', {
	details: z.strictObject({
		/** What it leads to: a place by its name, or a release by its number. */ place: z.optional(z.string()),
		number: z.optional(z.number()),
		pass: z.string(),
		for: z.string(),
		to: z.array(z.string())
	}),
	touches: ['passes'],
	says: (d) =>
		`sent the pass ${typeof d.number === 'number' ? `of ${about(d)}` : `to ${d.place}`} for ${d.for} to ${d.to}`
});

export const passWithdrawn = event('pass.withdrawn', {
	details: z.strictObject({
		/** What it leads to: a place by its name, or a release by its number. */ place: z.optional(z.string()),
		pass: z.string(),
		holder: z.string(),
		number: z.optional(z.number())
	}),
	touches: ['passes'],
	says: (d) => `withdrew the pass ${typeof d.number === 'number' ? `of ${about(d)}` : `to ${d.place}`}`
});

import * as z from 'zod/mini';
import { levelToday } from '../access/levels';
import { event } from './event';

/** What is written of an entry that was made or changed. */
const grantDetails = z.strictObject({
	place: z.string(),
	who: z.string(),
	subject: z.string(),
	level: z.nullable(z.string()),
	before: z.nullable(z.string()),
	until: z.nullable(z.string()),
	exactly: z.boolean(),
	note: z.string()
});

export const accessBarred = event('access.barred', {
	details: grantDetails,
	touches: ['access'],
	says: (d) => `barred ${d.who} from ${d.place}`
});

export const accessBroughtIn = event('access.brought-in', {
	details: grantDetails,
	touches: ['access'],
	says: (d) => `brought ${d.who} into ${d.place} at ${levelToday(d.level ?? undefined)}`
});

export const accessEnded = event('access.ended', {
	details: z.strictObject({
		place: z.string(),
		who: z.string(),
		level: z.string(),
		people: z.number(),
		/** It hung on what ended (A8). */
		broughtIn: z.optional(z.boolean())
	}),
	touches: ['access'],
	says: (d) => `ended ${levelToday(d.level ?? undefined)} for ${d.who} on ${d.place}`
});

export const accessGiven = event('access.given', {
	details: grantDetails,
	touches: ['access'],
	says: (d, words) =>
		`gave ${d.who} ${levelToday(d.level ?? undefined)} on ${d.place}${d.until ? ` until ${words.day(d.until)}` : ''}${d.before ? ` (was ${levelToday(d.before ?? undefined)})` : ''}`
});

export const accessSunk = event('access.sunk', {
	details: z.strictObject({ place: z.string(), who: z.string(), level: z.string(), before: z.string() }),
	touches: ['access'],
	says: (d) =>
		`lowered ${d.who}, who was brought in, from ${levelToday(d.before ?? undefined)} to ${levelToday(d.level ?? undefined)} on ${d.place}`
});

export const accessTried = event('access.tried', {
	details: z.strictObject({ person: z.string(), who: z.string() }),
	touches: ['access'],
	says: (d) => `looked at the project as ${d.who} would`
});

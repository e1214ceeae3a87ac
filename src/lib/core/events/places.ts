import * as z from 'zod/mini';
import { LEVELS } from '../access/levels';
import { plural } from '../words/sentences';
import { event } from './event';

export const folderMade = event('folder.made', {
	details: z.strictObject({ name: z.string(), in: z.string(), inId: z.string() }),
	touches: ['places'],
	says: (d) => `made the folder ${d.name}`,
	names: [{ id: 'inId', name: 'in' }]
});

export const folderMoved = event('folder.moved', {
	details: z.strictObject({
		name: z.string(),
		to: z.string(),
		toId: z.string(),
		from: z.nullable(z.string())
	}),
	touches: ['places'],
	says: (d) => `moved ${d.name} to ${d.to ?? 'another folder'}`,
	leaves: 'from',
	names: [{ id: 'toId', name: 'to' }, { id: 'from' }]
});

export const folderRenamed = event('folder.renamed', {
	details: z.strictObject({ from: z.string(), to: z.string() }),
	touches: ['places'],
	says: (d) => `renamed ${d.from} to ${d.to}`
});

export const placeClosed = event('place.closed', {
	details: z.strictObject({ name: z.string(), kind: z.enum(['shelf', 'folder', 'document']) }),
	touches: ['places', 'access'],
	says: (d) => `closed ${d.name}`
});

export const placeFrozen = event('place.frozen', {
	details: z.strictObject({
		name: z.string(),
		kind: z.enum(['shelf', 'folder', 'document']),
		reason: z.string()
	}),
	touches: ['places', 'access'],
	says: (d) => `froze ${d.name}: ${d.reason}`
});

export const placeMarkedSensitive = event('place.marked-sensitive', {
	details: z.strictObject({
		name: z.string(),
		kind: z.enum(['shelf', 'folder', 'document']),
		sensitive: z.boolean()
	}),
	touches: ['places'],
	says: (d) => (d.sensitive ? `marked ${d.name} as sensitive` : `took the mark sensitive from ${d.name}`)
});

export const placeOpened = event('place.opened', {
	details: z.strictObject({ name: z.string(), kind: z.enum(['shelf', 'folder', 'document']) }),
	touches: ['places', 'access'],
	says: (d) => `opened ${d.name} again to what was given above`
});

export const placeRemoved = event('place.removed', {
	details: z.strictObject({
		name: z.string(),
		kind: z.enum(['shelf', 'folder', 'document']),
		reason: z.string(),
		documents: z.number(),
		inHand: z.number()
	}),
	touches: ['places'],
	says: (d) =>
		`removed ${d.name}${d.kind !== 'document' ? ` with ${plural(Number(d.documents ?? 0), 'document')}` : ''}: ${d.reason}`
});

export const placeRestored = event('place.restored', {
	details: z.strictObject({
		name: z.string(),
		kind: z.enum(['shelf', 'folder', 'document']),
		documents: z.number(),
		folders: z.array(z.string()),
		folderIds: z.array(z.string()),
		renamed: z.array(z.string())
	}),
	touches: ['places'],
	says: (d) => `restored ${d.name}`,
	names: [{ id: 'folderIds', name: 'folders' }]
});

export const placeThawed = event('place.thawed', {
	details: z.strictObject({ name: z.string(), kind: z.enum(['shelf', 'folder', 'document']) }),
	touches: ['places', 'access'],
	says: (d) => `thawed ${d.name}`
});

export const deskMade = event('desk.made', {
	details: z.strictObject({}),
	touches: ['places'],
	says: () => 'made a desk'
});

export const shelfMade = event('shelf.made', {
	details: z.strictObject({
		name: z.string(),
		also: z.array(z.strictObject({ department: z.string(), level: z.enum(LEVELS) }))
	}),
	touches: ['places'],
	says: (d) => `made the shelf ${d.name}`
});

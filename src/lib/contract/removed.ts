import { z } from 'zod';
import { DOCUMENT_RULES } from '../core/documents/may';
import { PLACE_RULES } from '../core/places/may';
import { act } from './act';
import { id, projectKey, reason } from './fields';

export const removePlace = act({
	name: 'removePlace',
	summary: 'Remove a document, or a folder with everything in it; it can be restored',
	method: 'POST',
	path: '/places/{place}/removal',
	input: z.strictObject({ place: id, reason }),
	output: z.strictObject({ documents: z.number() }),
	at: {
		kind: 'place',
		id: (i) => i.place,
		level: 'work',
		past: ['archived'],
		asks: PLACE_RULES.removePlace,
		applies: DOCUMENT_RULES.removePlace
	},
	events: ['place.removed']
});

const places = z
	.array(id)
	.min(1, 'Choose documents or folders first.')
	.max(1_000, 'At most 1,000 at a time.');

export const removePlaces = act({
	name: 'removePlaces',
	summary:
		'Remove several documents and folders, each with everything in it: all of them or none; each can be restored',
	method: 'POST',
	path: '/projects/{project}/removals',
	input: z.strictObject({
		project: projectKey,
		places,
		reason
	}),
	output: z.strictObject({ removed: z.array(z.string()), documents: z.number() }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['place.removed']
});

const restored = z.strictObject({
	documents: z.number(),
	folders: z.array(z.string()),
	renamed: z.array(z.string())
});

export const restorePlace = act({
	name: 'restorePlace',
	summary: 'Bring a removed document or folder back to where it was',
	method: 'POST',
	path: '/places/{place}/restore',
	input: z.strictObject({ place: id }),
	output: restored,
	// Whoever removed it may still have it in hand; that keeps nobody from bringing it back (R1).
	at: { kind: 'place', id: (i) => i.place, level: 'view', removed: true, past: ['archived', 'inHand'] },
	events: ['place.restored']
});

export const restorePlaces = act({
	name: 'restorePlaces',
	summary:
		'Bring several removed documents and folders back to where they were: all of them or none, but for what somebody has brought back already',
	method: 'POST',
	path: '/projects/{project}/restorals',
	input: z.strictObject({ project: projectKey, places }),
	output: restored,
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: ['place.restored']
});

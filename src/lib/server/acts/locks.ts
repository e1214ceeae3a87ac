import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { Problem } from '../../core/problem';
import { lock } from '../db/schema';
import { defineAct } from './act';
import { holdDocument, inHand, openLock } from './documents';
import { id, moment, note } from './fields';

export const takeLock = defineAct({
	name: 'takeLock',
	summary: 'Take a document in hand',
	method: 'POST',
	path: '/documents/{document}/lock',
	input: z.object({ document: id, purpose: note, expectedEnd: moment.nullish() }),
	at: { kind: 'place', id: (i) => i.document, level: 'work', only: ['document'] },
	events: ['lock.taken'],
	async run({ tx, project, person: by, now, newId, tell }, input) {
		const expectedEnd = input.expectedEnd ? new Date(input.expectedEnd) : null;
		if (expectedEnd && expectedEnd <= now)
			throw new Problem('invalid', 'The expected end lies in the past.', { field: 'expectedEnd' });
		const limit = new Date(now.getTime() + 90 * 86_400_000);
		if (expectedEnd && expectedEnd > limit)
			throw new Problem('invalid', 'A lock can be expected to last 90 days at most.', {
				field: 'expectedEnd'
			});
		const { row } = await holdDocument(tx, input.document);
		const open = await openLock(tx, input.document);
		if (open) {
			if (open.holderId === by.id) throw new Problem('conflict', 'You have this in hand already.');
			throw inHand(open);
		}
		await tx.insert(lock).values({
			id: newId(),
			documentId: input.document,
			holderId: by.id,
			purpose: input.purpose,
			takenAt: now,
			expectedEnd
		});
		tell({
			kind: 'lock.taken',
			placeId: input.document,
			documentId: input.document,
			details: {
				number: row.number,
				purpose: input.purpose,
				expectedEnd: expectedEnd?.toISOString() ?? null,
				limitDays: project.settings.lockLimitDays
			}
		});
		return { holder: by.name, since: now };
	}
});

export const giveBackLock = defineAct({
	name: 'giveBackLock',
	summary: 'Give a lock back without a new version',
	method: 'DELETE',
	path: '/documents/{document}/lock',
	input: z.object({ document: id }),
	at: { kind: 'place', id: (i) => i.document, level: 'look', only: ['document'] },
	events: ['lock.given-back'],
	async run({ tx, person: by, now, tell }, input) {
		const { row } = await holdDocument(tx, input.document);
		const open = await openLock(tx, input.document);
		if (!open) throw new Problem('conflict', 'Nobody has this in hand.');
		if (open.holderId !== by.id) throw inHand(open);
		await tx.update(lock).set({ endedAt: now, endedHow: 'given-back' }).where(eq(lock.id, open.id));
		tell({
			kind: 'lock.given-back',
			placeId: input.document,
			documentId: input.document,
			details: { number: row.number }
		});
		return {};
	}
});

import { and, eq, inArray, isNull } from 'drizzle-orm';
import * as contract from '../../contract/locks';
import { allows } from '../../core/access/levels';
import { orRefuse } from '../../core/acts/answer';
import { Problem } from '../../core/acts/problem';
import { mayTake } from '../../core/documents/may';
import { daysLater } from '../../core/time/spans';
import { loadReach, OPEN_SPOT } from '../access/reach';
import { document, lock, lockWish, member, person } from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { heldLock, holdDocument, type Held } from '../platform/runner/held';
import { visiblePlaces } from '../platform/runner/locate';

type InProject = ContextOf['project'] & Acting;
type About = { id: string; number: string; title: string };

/** Longest that a lock may be expected to last, in days. */
const LONGEST = 90;

function checkedEnd(expected: string | null | undefined, now: Date): Date | null {
	const end = expected ? new Date(expected) : null;
	if (end && end <= now)
		throw new Problem('invalid', 'The expected end lies in the past.', { field: 'expectedEnd' });
	if (end && end > daysLater(now, LONGEST))
		throw new Problem('invalid', `A lock can be expected to last ${LONGEST} days at most.`, {
			field: 'expectedEnd'
		});
	return end;
}

/** Takes one document that is held and that nobody has in hand, and says so in the trail. */
async function take(
	{ tx, project, person: by, now, newId, tell }: InProject,
	{ row }: Pick<Held, 'row'>,
	what: { purpose: string; expectedEnd: Date | null }
): Promise<void> {
	const documentId = row.id;
	await tx.insert(lock).values({
		id: newId(),
		documentId,
		holderId: by.id,
		...what,
		takenAt: now,
		baseVersionId: row.currentVersionId
	});
	await tx.delete(lockWish).where(and(eq(lockWish.documentId, documentId), eq(lockWish.personId, by.id)));
	tell({
		kind: 'lock.taken',
		placeId: documentId,
		documentId,
		details: {
			number: row.number,
			purpose: what.purpose,
			expectedEnd: what.expectedEnd?.toISOString() ?? null,
			limitDays: project.settings.lockLimitDays
		}
	});
}

/** Ends a lock and tells everybody who waits for it. */
export async function endLock(
	context: InProject,
	open: { id: string },
	how: 'handed-in' | 'given-back' | 'broken',
	about: About
): Promise<void> {
	const { tx, person: by, now } = context;
	await tx.update(lock).set({ endedAt: now, endedHow: how }).where(eq(lock.id, open.id));
	const waiting = await tx.delete(lockWish).where(eq(lockWish.documentId, about.id)).returning();
	await tellNotices(context, {
		kind: 'lock-free',
		people: waiting.map((w) => w.personId).filter((one) => one !== by.id),
		placeId: about.id,
		sentence: `${about.number}, “${about.title}”, is free: ${by.name} ${how === 'handed-in' ? 'handed it in' : how === 'broken' ? 'broke the lock' : 'gave it back'}.`,
		way: `document/${about.id}`
	});
}

/** Ends a lock of the person's own without a new version. */
export async function giveBack(context: InProject, open: { id: string }, row: About): Promise<void> {
	await endLock(context, open, 'given-back', row);
	context.tell({
		kind: 'lock.given-back',
		placeId: row.id,
		documentId: row.id,
		details: { number: row.number }
	});
}

/** Notes that the person said what became of their work under broken locks. */
export async function answerBroken({ tx, person: by, now }: InProject, documentId: string): Promise<void> {
	await tx
		.update(lock)
		.set({ answeredAt: now })
		.where(
			and(
				eq(lock.documentId, documentId),
				eq(lock.holderId, by.id),
				eq(lock.endedHow, 'broken'),
				isNull(lock.answeredAt)
			)
		);
}

/** The asker's own lock, which the rules of these acts ask for. */
const ownLock = ({ document: { row, open } }: ContextOf['document']) => ({ row, open: open! });

export const takeLock = does(contract.takeLock, {
	async run(context, input) {
		const expectedEnd = checkedEnd(input.expectedEnd, context.now);
		await take(context, context.document, { purpose: input.purpose, expectedEnd });
		return { holder: context.person.name, since: context.now.toISOString() };
	}
});

export const takeLocks = does(contract.takeLocks, {
	async run(context, input) {
		const { tx, reach, now } = context;
		const expectedEnd = checkedEnd(input.expectedEnd, now);
		// Always in one order, so that two who lock the same documents do not wait for each other.
		const ids = [...new Set(input.documents)].sort();
		const places = (await visiblePlaces(tx, reach, ids)).filter((p) => p.kind === 'document');
		if (places.length < ids.length)
			throw new Problem('not-found', 'One of these is not there, or nothing that you may look at.');
		// Who has what in hand is said below, one by one.
		const refused = places.filter((p) => !allows(reach.held(p, p, ['inHand']), 'work'));
		if (refused.length)
			throw new Problem(
				'needs-level',
				`You may not work on ${refused.length} of these, such as “${refused[0]!.name}”. Nothing was locked.`
			);
		const taken = await tx
			.select({ id: document.id, number: document.number, holder: person.name, holderId: lock.holderId })
			.from(lock)
			.innerJoin(document, eq(document.id, lock.documentId))
			.innerJoin(person, eq(person.id, lock.holderId))
			.where(and(inArray(lock.documentId, ids), isNull(lock.endedAt)));
		const free = ids.filter((one) => !taken.some((t) => t.id === one));
		if (taken.length && !(input.rest && free.length))
			throw new Problem(
				'in-hand',
				`Nothing was locked: ${taken
					.slice(0, 5)
					.map((t) => `${t.holder} has ${t.number} in hand`)
					.join(', ')}${taken.length > 5 ? ` and ${taken.length - 5} more are in hand` : ''}.`,
				{ documents: taken, free: free.length }
			);
		for (const one of free) {
			const { row, open } = await holdDocument(tx, one);
			orRefuse(mayTake(open && heldLock(open, context.person.id), row.number));
			await take(context, { row }, { purpose: input.purpose, expectedEnd });
		}
		return { locked: free.length, left: taken };
	}
});

export const extendLock = does(contract.extendLock, {
	async run(context, input) {
		const { tx, now, tell } = context;
		const { row, open } = ownLock(context);
		const expectedEnd = checkedEnd(input.expectedEnd, now)!;
		const same = open.expectedEnd?.getTime() === expectedEnd.getTime();
		if (same && (input.purpose ?? open.purpose) === open.purpose)
			return { expectedEnd: expectedEnd.toISOString() };
		await tx
			.update(lock)
			.set({ expectedEnd, purpose: input.purpose ?? open.purpose })
			.where(eq(lock.id, open.id));
		tell({
			kind: 'lock.extended',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number, until: expectedEnd.toISOString() }
		});
		return { expectedEnd: expectedEnd.toISOString() };
	}
});

export const giveBackLock = does(contract.giveBackLock, {
	async run(context) {
		const { row, open } = ownLock(context);
		await giveBack(context, open, row);
		return {};
	}
});

export const answerBrokenLock = does(contract.answerBrokenLock, {
	async run(context) {
		const { row } = context.document;
		await answerBroken(context, row.id);
		context.tell({
			kind: 'lock.answered',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number }
		});
		return {};
	}
});

export const handOverLock = does(contract.handOverLock, {
	async run(context, input) {
		const { tx, project, place: here, person: by, now, newId, tell } = context;
		const { row, open } = ownLock(context);
		if (input.to === by.id) throw new Problem('invalid', 'You have this in hand already.', { field: 'to' });
		const [to] = await tx
			.select({ id: person.id, name: person.name })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(and(eq(member.projectId, project.id), eq(member.personId, input.to), isNull(member.leftAt)));
		const theirs = to && (await loadReach(tx, project.id, to.id, now));
		if (!to || !theirs || !allows(theirs.held(here, OPEN_SPOT), 'work'))
			throw new Problem('invalid', 'Whoever takes it over needs Work here.', { field: 'to' });
		await tx.update(lock).set({ endedAt: now, endedHow: 'handed-over' }).where(eq(lock.id, open.id));
		await tx.insert(lock).values({
			id: newId(),
			documentId: row.id,
			holderId: to.id,
			purpose: open.purpose,
			takenAt: now,
			expectedEnd: open.expectedEnd && open.expectedEnd > now ? open.expectedEnd : null,
			baseVersionId: open.baseVersionId
		});
		await tx.delete(lockWish).where(and(eq(lockWish.documentId, row.id), eq(lockWish.personId, to.id)));
		tell({
			kind: 'lock.handed-over',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number, from: by.name, to: to.name, note: input.note }
		});
		await tellNotices(context, {
			kind: 'lock-came',
			people: [to.id],
			placeId: row.id,
			sentence: `${by.name} handed ${row.number}, “${row.title}”, over to you${input.note ? `: ${input.note}` : '.'}`,
			way: `document/${row.id}`
		});
		return { holder: to.name };
	}
});

export const askForLock = does(contract.askForLock, {
	async run(context, input) {
		const { tx, person: by, now, tell } = context;
		const { row, open } = context.document;
		const asked = { asked: true, note: input.note, createdAt: now };
		await tx
			.insert(lockWish)
			.values({ documentId: row.id, personId: by.id, ...asked })
			.onConflictDoUpdate({ target: [lockWish.documentId, lockWish.personId], set: asked });
		tell({
			kind: 'lock.asked',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number, of: open!.holder, note: input.note }
		});
		await tellNotices(context, {
			kind: 'lock-asked',
			people: [open!.holderId],
			placeId: row.id,
			sentence: `${by.name} asks for ${row.number}, “${row.title}”, which you have in hand${input.note ? `: ${input.note}` : '.'}`,
			way: `document/${row.id}`
		});
		return {};
	}
});

export const waitForLock = does(contract.waitForLock, {
	async run({ tx, person: by, now }, input) {
		// Whoever asked goes on asking, with what they said.
		await tx
			.insert(lockWish)
			.values({ documentId: input.document, personId: by.id, asked: false, note: '', createdAt: now })
			.onConflictDoNothing();
		return {};
	}
});

export const endWish = does(contract.endWish, {
	async run({ tx, person: by }, input) {
		await tx
			.delete(lockWish)
			.where(and(eq(lockWish.documentId, input.document), eq(lockWish.personId, by.id)));
		return {};
	}
});

export const breakLock = does(contract.breakLock, {
	async run(context, input) {
		const { person: by, tell } = context;
		const { row } = context.document;
		const open = context.document.open!;
		await endLock(context, open, 'broken', row);
		tell({
			kind: 'lock.broken',
			placeId: row.id,
			documentId: row.id,
			details: { number: row.number, holder: open.holder, reason: input.reason }
		});
		await tellNotices(context, {
			kind: 'lock-broken',
			people: [open.holderId],
			placeId: row.id,
			sentence: `${by.name} broke your lock on ${row.number}, “${row.title}”: ${input.reason}`,
			more: 'Nothing you wrote is lost: hand it in all the same, and it is kept as a side version until somebody merges or discards it.',
			way: `document/${row.id}`
		});
		return { holder: open.holder };
	}
});

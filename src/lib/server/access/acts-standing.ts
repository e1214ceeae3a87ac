import { and, eq, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/access';
import { Problem } from '../../core/acts/problem';
import { beneath } from './reach';
import { member, pass, person, place } from '../platform/db/schema';
import { foldScope, holdTree, makeScope } from './scopes';
import { does } from '../platform/runner/act';
import { mayTry } from '../platform/runner/locate';
import { placeName } from './called';

const documentOf = (at: { id: string; kind: string }) => (at.kind === 'document' ? at.id : null);

export const closePlace = does(contract.closePlace, {
	async run({ tx, project, place: at, tell }) {
		await holdTree(tx, project.id);
		const done = await tx
			.update(place)
			.set({ closed: true })
			.where(and(eq(place.id, at.id), eq(place.closed, false)))
			.returning();
		if (!done.length) throw new Problem('conflict', 'It is closed already.');
		await makeScope(tx, done[0]!);
		tell({
			kind: 'place.closed',
			placeId: at.id,
			documentId: documentOf(at),
			details: { name: await placeName(tx, at), kind: at.kind }
		});
		return {};
	}
});

export const openPlace = does(contract.openPlace, {
	async run({ tx, project, place: at, tell }) {
		await holdTree(tx, project.id);
		const done = await tx
			.update(place)
			.set({ closed: false })
			.where(and(eq(place.id, at.id), eq(place.closed, true)))
			.returning();
		if (!done.length) throw new Problem('conflict', 'It is not closed.');
		await foldScope(tx, done[0]!);
		tell({
			kind: 'place.opened',
			placeId: at.id,
			documentId: documentOf(at),
			details: { name: await placeName(tx, at), kind: at.kind }
		});
		return {};
	}
});

export const freezePlace = does(contract.freezePlace, {
	async run({ tx, place: at, person: by, now, tell }, input) {
		const done = await tx
			.update(place)
			.set({ frozenAt: now, frozenBy: by.id, frozenReason: input.reason })
			.where(and(eq(place.id, at.id), isNull(place.frozenAt)))
			.returning();
		if (!done.length) throw new Problem('conflict', 'It is frozen already.');
		tell({
			kind: 'place.frozen',
			placeId: at.id,
			documentId: documentOf(at),
			details: { name: await placeName(tx, at), kind: at.kind, reason: input.reason }
		});
		return {};
	}
});

export const thawPlace = does(contract.thawPlace, {
	async run({ tx, place: at, tell }) {
		const done = await tx
			.update(place)
			.set({ frozenAt: null, frozenBy: null, frozenReason: null })
			.where(and(eq(place.id, at.id), sql`frozen_at is not null`))
			.returning();
		if (!done.length) throw new Problem('conflict', 'It is not frozen.');
		tell({
			kind: 'place.thawed',
			placeId: at.id,
			documentId: documentOf(at),
			details: { name: await placeName(tx, at), kind: at.kind }
		});
		return {};
	}
});

export const markSensitive = does(contract.markSensitive, {
	async run({ tx, project, place: at, now, tell }, input) {
		if (at.sensitive === input.sensitive) return {};
		if (input.sensitive) {
			const [open] = await tx
				.select({ n: sql<number>`count(*)::int` })
				.from(pass)
				.innerJoin(place, eq(place.id, pass.placeId))
				.where(
					and(
						eq(pass.projectId, project.id),
						eq(pass.ownEnding, true),
						isNull(pass.withdrawnAt),
						sql`${pass.endsAt} > ${now.toISOString()}`,
						sql`(${beneath(at.path)} or ${at.path} like ${place.path} || '%')`
					)
				);
			if (open!.n)
				throw new Problem(
					'conflict',
					`${open!.n} ${open!.n === 1 ? 'pass' : 'passes'} with a chosen ending reach this. Withdraw them first.`
				);
		}
		await tx.update(place).set({ sensitive: input.sensitive }).where(eq(place.id, at.id));
		tell({
			kind: 'place.marked-sensitive',
			placeId: at.id,
			documentId: documentOf(at),
			details: { name: await placeName(tx, at), kind: at.kind, sensitive: input.sensitive }
		});
		return {};
	}
});

export const tryAs = does(contract.tryAs, {
	async run({ tx, project, reach, tell }, input) {
		if (!mayTry(reach))
			throw new Problem(
				'needs-level',
				'Only a document controller or the lead of a department can look as others.'
			);
		const [who] = await tx
			.select({ id: person.id, name: person.name })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(and(eq(member.projectId, project.id), eq(member.personId, input.person), isNull(member.leftAt)));
		if (!who) throw new Problem('not-found', 'This person is not in the project.');
		if (who.id === reach.subject.personId) throw new Problem('invalid', 'You look as yourself already.');
		tell({ kind: 'access.tried', details: { person: who.id, who: who.name } });
		return { project: project.id, person: who.id, name: who.name };
	}
});

import { and, eq } from 'drizzle-orm';
import * as contract from '../../contract/today';
import { atHand, document } from '../platform/db/schema';
import { does } from '../platform/runner/act';

export const keepAtHand = does(contract.keepAtHand, {
	async run({ tx, place, person: by, now }) {
		const [about] =
			place.kind === 'document'
				? await tx
						.select({ number: document.number, title: document.title })
						.from(document)
						.where(eq(document.id, place.id))
				: [];
		const known = about ? `${about.number} ${about.title}` : place.name;
		await tx
			.insert(atHand)
			.values({ personId: by.id, placeId: place.id, known, createdAt: now })
			.onConflictDoNothing();
		return {};
	}
});

export const endAtHand = does(contract.endAtHand, {
	async run({ tx, person: by }, input) {
		await tx.delete(atHand).where(and(eq(atHand.personId, by.id), eq(atHand.placeId, input.place)));
		return {};
	}
});

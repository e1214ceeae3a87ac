import { inArray } from 'drizzle-orm';
import type { Tx } from '../platform/db';
import { document } from '../platform/db/schema';
import type { Place } from '../platform/runner/act';

/** What places are called by id: folders by their name, documents by number and title. */
export async function namesOf(tx: Tx, places: Place[]): Promise<Map<string, string>> {
	const documents = places.filter((one) => one.kind === 'document').map((one) => one.id);
	const rows = documents.length
		? await tx
				.select({ id: document.id, number: document.number, title: document.title })
				.from(document)
				.where(inArray(document.id, documents))
		: [];
	return new Map([
		...places.map((one) => [one.id, one.name] as const),
		...rows.map((one) => [one.id, `${one.number} ${one.title}`] as const)
	]);
}

import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { baseOf, type Base } from '../../core/versions/base';
import type { Querier } from '../platform/db';
import { event, person, version } from '../platform/db/schema';

/** Kinds of event that say that somebody has a version's bytes. */
const HAD = ['document.downloaded'];

/** What a person's file of a document was made from, as the trail knows it, and what others stored since (rule L5). */
export async function knownBase(db: Querier, documentId: string, personId: string): Promise<Base> {
	const [line, had] = await Promise.all([
		db
			.select({ label: version.label, byId: version.createdBy, by: person.name, at: version.createdAt })
			.from(version)
			.leftJoin(person, eq(person.id, version.createdBy))
			.where(eq(version.documentId, documentId))
			.orderBy(asc(version.seq)),
		db
			.selectDistinct({ label: sql<string>`${event.details}->>'label'` })
			.from(event)
			.where(and(eq(event.documentId, documentId), eq(event.actor, personId), inArray(event.kind, HAD)))
	]);
	return baseOf(
		line.map((v) => ({ ...v, by: v.by ?? 'Cupboard', at: v.at.toISOString() })),
		new Set(had.map((h) => h.label)),
		personId
	);
}

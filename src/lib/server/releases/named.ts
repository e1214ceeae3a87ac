import { and, eq, inArray, sql } from 'drizzle-orm';
import { referenceOf } from '../../core/references/references';
import type { NamedItem } from '../../core/releases';
import { among, type Querier } from '../platform/db';
import { document, findable, type project, version } from '../platform/db/schema';
import { namedIn } from '../references/named';
import { naming } from '../references/naming';

/* What the documents of a release name, and who names them, as its checks ask it (T2). */

/**
 * For each document, those that it names, as these stand once the release is out.
 * @param going the labels at which the documents of the release go out, by number
 */
export async function namedItems(
	db: Querier,
	here: typeof project.$inferSelect,
	items: { documentId: string; number: string; hash: string }[],
	going: ReadonlyMap<string, string | null>
): Promise<Map<string, NamedItem[]>> {
	const found = await namedIn(db, here, items);
	const numbers = [...new Set([...found.values()].flat().map((one) => one.number))];
	const there = numbers.length
		? await db.execute<{ number: string; issued: string | null }>(sql`
			select d.number,
				(select v.label from version v where v.document_id = d.id and v.issued order by v.seq desc limit 1) as issued
			from document d where d.project_id = ${here.id} and d.live and d.number = any(${sql.param(numbers)}::text[])`)
		: [];
	const known = new Map(there.map((row) => [row.number, row.issued]));
	return new Map(
		items.map((item) => [
			item.documentId,
			(found.get(item.hash) ?? []).map((one) => {
				const current = going.get(one.number) ?? known.get(one.number) ?? null;
				return {
					...one,
					current,
					how: referenceOf(one, { issued: current }, false, here.settings.revisions),
					there: known.has(one.number)
				};
			})
		])
	);
}

/**
 * For each document of a release that goes out anew, by its number: the issued revisions, superseded by that, at which
 * others that are issued name it. Those of the release are checked by what they name.
 * @param going the labels at which the documents of the release go out, by number
 */
export async function namedAs(
	db: Querier,
	here: typeof project.$inferSelect,
	items: { documentId: string; number: string; chosenLabel: string }[],
	going: ReadonlyMap<string, string | null>
): Promise<Map<string, string[]>> {
	const anew = items.filter((item) => going.get(item.number) !== item.chosenLabel);
	const others = sql`not (${among(
		findable.documentId,
		items.map((item) => item.documentId)
	)})`;
	const issued = new Set(
		(
			await db
				.select({ number: document.number, label: version.label })
				.from(version)
				.innerJoin(document, eq(document.id, version.documentId))
				.where(
					and(
						version.issued,
						inArray(
							version.documentId,
							anew.map((item) => item.documentId)
						)
					)
				)
		).map((row) => `${row.number} ${row.label}`)
	);
	const found = new Map<string, Set<string>>();
	for (const { named, revision } of await naming(
		db,
		here,
		anew.map((item) => item.number),
		others,
		'issued'
	)) {
		if (revision === null || !issued.has(`${named} ${revision}`)) continue;
		found.set(named, (found.get(named) ?? new Set()).add(revision));
	}
	return new Map([...found].map(([number, revisions]) => [number, [...revisions].sort()]));
}

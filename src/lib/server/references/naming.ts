import { and, eq, sql, type SQL } from 'drizzle-orm';
import type { Named } from '../../core/references/references';
import { among, type Querier } from '../platform/db';
import { document, findable, version } from '../platform/db/schema';
import type { Project } from '../platform/runner/act';
import { namedIn } from './named';

/** Documents with all parts of a number in their words that are looked at for each number. */
const MOST_LOOKED_AT = 500;

/** A document that names another one, in its newest version or the one that is issued. */
export interface Naming {
	/** The number that it names, and the revision that it names it with. */
	named: string;
	revision: string | null;
	document: string;
	number: string;
	title: string;
	label: string;
}

/**
 * Documents that name any of some numbers. They are looked for by the words of their newest version; what is issued of
 * one whose newest version does not name it any more is not found.
 * @param where which of them, such as those that somebody may look at
 * @param which the version that is read: the newest, or the last that was issued
 */
export async function naming(
	db: Querier,
	project: Pick<Project, 'id' | 'settings'>,
	numbers: readonly string[],
	where: SQL,
	which: 'newest' | 'issued' = 'newest'
): Promise<Naming[]> {
	if (!numbers.length) return [];
	const fitting = await db.execute<{ named: string; id: string }>(sql`
		select asked.number as named, fit.id
		from unnest(${sql.param([...numbers])}::text[]) asked(number)
		cross join lateral (
			select ${findable.documentId} as id from ${findable}
			where ${findable.projectId} = ${project.id} and ${where}
				and ${findable.words} @@ (select string_agg(quote_literal(word), ' & ') from unnest(find_words(asked.number)) word)::tsquery
			limit ${MOST_LOOKED_AT}
		) fit`);
	const ids = [...new Set(fitting.map((row) => row.id))];
	if (!ids.length) return [];
	const rows = await db
		.selectDistinctOn([document.id], {
			id: document.id,
			number: document.number,
			title: document.title,
			label: version.label,
			hash: version.hash
		})
		.from(document)
		.innerJoin(
			version,
			which === 'newest'
				? eq(version.id, document.currentVersionId)
				: and(eq(version.documentId, document.id), version.issued)
		)
		.where(among(document.id, ids))
		.orderBy(document.id, sql`${version.seq} desc`);
	const [about, says] = [new Map(rows.map((row) => [row.id, row])), await namedIn(db, project, rows)];
	return fitting
		.flatMap(({ named, id }) => {
			const row = about.get(id);
			const said: Named | undefined = row && says.get(row.hash)?.find((one) => one.number === named);
			if (!row || !said) return [];
			const { number, title, label } = row;
			return [{ named, revision: said.revision, document: id, number, title, label }];
		})
		.sort((a, b) => a.number.localeCompare(b.number));
}

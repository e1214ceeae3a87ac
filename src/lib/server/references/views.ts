import { and, eq, ne, sql } from 'drizzle-orm';
import * as contract from '../../contract/references';
import { numbersNamed, referenceOf, slipsOf, type Named } from '../../core/references/references';
import { live, type Reach } from '../access/reach';
import { among, type Querier } from '../platform/db';
import { contentText, document, findable, place, version } from '../platform/db/schema';
import { answers, type Project } from '../platform/runner/act';

export const references = answers(contract.references, {
	async run({ db, project, place: here, reach }) {
		const { numbering, revisions } = project.settings;
		const [about] = await db
			.select({ number: document.number, text: contentText.text })
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.leftJoin(contentText, eq(contentText.hash, version.hash))
			.where(eq(document.id, here.id));
		const named = numbersNamed(about!.text ?? '', numbering, revisions, about!.number);
		const [to, from] = await Promise.all([
			targetsOf(db, project, reach, named, about!.number),
			referring(db, project, reach, here.id, about!.number)
		]);
		return {
			read: about!.text !== null,
			to,
			from: from.slice(0, contract.MOST_REFERRING),
			more: from.length > contract.MOST_REFERRING
		};
	}
});

/** What is known of named documents, as far as the reader may look at them (A10). */
async function targetsOf(db: Querier, project: Project, reach: Reach, named: readonly Named[], own: string) {
	if (!named.length) return [];
	const numbers = named.map((one) => one.number);
	const there = await db.execute<{
		id: string;
		number: string;
		title: string;
		label: string;
		issued: string | null;
	}>(sql`
		select ${document.id} as id, ${document.number} as number, ${document.title} as title, now.label,
			(select v.label from version v where v.document_id = ${document.id} and v.issued order by v.seq desc limit 1) as issued
		from ${document} join ${place} on ${place.id} = ${document.id} join version now on now.id = ${document.currentVersionId}
		where ${document.projectId} = ${project.id} and ${document.live} and ${live()} and ${reach.sees(place.scope)}
			and ${among(document.number, numbers)}`);
	const known = new Map(there.map((row) => [row.number, row]));
	const left = numbers.filter((number) => !known.has(number));
	const [planned, meant] = await Promise.all([
		reach.subject.outside ? new Set<string>() : plannedAmong(db, project.id, left),
		meantBy(db, project, reach, left, own)
	]);
	return named.map((one) => {
		const target = known.get(one.number) ?? null;
		const how = referenceOf(one, target, planned.has(one.number), project.settings.revisions);
		return {
			...one,
			how,
			meant: how === 'unknown' ? (meant.get(one.number) ?? null) : null,
			document: target && {
				id: target.id,
				title: target.title,
				label: target.label,
				issued: target.issued
			}
		};
	});
}

/** Numbers that the register knows and that nobody has used: of those that are, a document tells. */
async function plannedAmong(db: Querier, projectId: string, numbers: string[]): Promise<Set<string>> {
	if (!numbers.length) return new Set();
	const rows = await db.execute<{ number: string }>(sql`
		select l.number from deliverable l where l.project_id = ${projectId} and l.removed_at is null
			and l.number = any(${sql.param(numbers)}::text[])
			and not exists (select 1 from document d where d.project_id = l.project_id and d.number = l.number and d.live)`);
	return new Set(rows.map((row) => row.number));
}

/** So many numbers that nobody knows are told what they were most likely meant for. */
const MOST_MEANT = 40;

/**
 * For numbers that nobody knows, the one that is there and differs by a slip, as far as the reader may look at it. Where
 * several do, as within a series, nobody can tell which was meant.
 */
async function meantBy(
	db: Querier,
	project: Project,
	reach: Reach,
	numbers: readonly string[],
	own: string
): Promise<Map<string, string>> {
	const slips = new Map(
		numbers.slice(0, MOST_MEANT).map((number) => [number, slipsOf(number, project.settings.numbering)])
	);
	const asked = [...slips.values()].flat();
	if (!asked.length) return new Map();
	const rows = await db
		.select({ number: document.number })
		.from(document)
		.innerJoin(place, eq(place.id, document.id))
		.where(
			and(
				eq(document.projectId, project.id),
				document.live,
				live(),
				reach.sees(place.scope),
				among(document.number, asked),
				ne(document.number, own)
			)
		);
	const there = new Set(rows.map((row) => row.number));
	return new Map(
		[...slips].flatMap(([number, candidates]) => {
			const found = candidates.filter((one) => there.has(one));
			return found.length === 1 ? [[number, found[0]!] as const] : [];
		})
	);
}

/** Signs of a regular expression of PostgreSQL that mean themselves. */
const plain = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Texts with all parts of a number in them that are searched for it. */
const MOST_SEARCHED = 2_000;

/** Documents whose newest version names a number, as far as the reader may look at them. */
async function referring(db: Querier, project: Project, reach: Reach, own: string, number: string) {
	const { numbering, revisions } = project.settings;
	// Whichever hyphen it is written with, and what stands after it.
	const pattern = `(?i)${number.split(numbering.separator).map(plain).join('[-‐‑‒–_. ]')}.{0,40}`;
	const seen = reach.subject.controller
		? sql`${findable.scope} is not null`
		: among(findable.scope, reach.scopes());
	const rows = await db.execute<{
		document: string;
		number: string;
		title: string;
		label: string;
		passage: string;
	}>(sql`
		select d.id as document, d.number, d.title, v.label, substring(t.text from ${pattern}) as passage
		from (
			select ${findable.documentId} as id from ${findable}
			where ${findable.projectId} = ${project.id} and ${seen} and ${findable.documentId} <> ${own}
				and ${findable.words} @@ (select string_agg(quote_literal(word), ' & ') from unnest(find_words(${number})) word)::tsquery
			limit ${MOST_SEARCHED}
		) fit
		join document d on d.id = fit.id join version v on v.id = d.current_version_id
		join content_text t on t.hash = v.hash
		where t.text ~ ${pattern}
		order by d.number limit ${contract.MOST_REFERRING + 1}`);
	return rows.flatMap(({ passage, ...row }) => {
		const said = numbersNamed(passage, numbering, revisions, row.number).find((one) => one.number === number);
		return said ? [{ ...row, revision: said.revision }] : [];
	});
}

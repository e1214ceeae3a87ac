import { and, eq, ne, sql } from 'drizzle-orm';
import * as contract from '../../contract/references';
import { STEPS } from '../../core/references/neighbourhood';
import { numbersNamed, referenceOf, slipsOf, type Named } from '../../core/references/references';
import { live, type Reach } from '../access/reach';
import { among, type Querier } from '../platform/db';
import { contentText, document, findable, place, version } from '../platform/db/schema';
import { answers, type Project } from '../platform/runner/act';
import { namedIn } from './named';
import { naming } from './naming';

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
			naming(db, project, [about!.number], reach.seesKept(findable.scope))
		]);
		return {
			read: about!.text !== null,
			to,
			from: from.slice(0, contract.MOST_REFERRING).map(({ named: _, ...one }) => one),
			more: from.length > contract.MOST_REFERRING
		};
	}
});

export const neighbourhood = answers(contract.neighbourhood, {
	async run({ db, project, place: here, reach }) {
		const [own] = await db.select({ number: document.number }).from(document).where(eq(document.id, here.id));
		const known = new Map<string, Neighbour>();
		const names = new Map<string, { from: string; to: string; revision: string | null }>();
		const meet = async (numbers: readonly string[]) => {
			const fresh = [...new Set(numbers)].filter((number) => !known.has(number));
			for (const one of await neighboursBy(db, project, reach, fresh)) known.set(one.number, one);
			return fresh.filter((number) => known.has(number)).slice(0, contract.MOST_FOLLOWED);
		};
		let [behind, before] = [await meet([own!.number]), [own!.number]];
		for (let step = 1; step <= STEPS; step++) {
			const [said, by] = await Promise.all([
				namedIn(
					db,
					project,
					behind.map((number) => known.get(number)!)
				),
				naming(db, project, before, reach.seesKept(findable.scope))
			]);
			const to = behind.flatMap((from) =>
				(said.get(known.get(from)!.hash) ?? []).map(({ number, revision }) => ({
					from,
					to: number,
					revision
				}))
			);
			const from = by.map(({ number, named, revision }) => ({ from: number, to: named, revision }));
			behind = await meet(to.map((one) => one.to));
			before = await meet(from.map((one) => one.from));
			for (const one of [...to, ...from]) names.set(`${one.from} ${one.to}`, one);
		}
		return {
			number: own!.number,
			documents: [...known.values()].map(({ hash: _, ...one }) => one),
			names: [...names.values()].flatMap(({ from, to, revision }) => {
				const target = known.get(to);
				if (!target || !known.has(from)) return [];
				const how = referenceOf({ number: to, revision }, target, false, project.settings.revisions);
				return [{ from, to, revision, how }];
			})
		};
	}
});

interface Neighbour {
	id: string;
	number: string;
	title: string;
	label: string;
	issued: string | null;
	hash: string;
}

/** Documents by their numbers, as far as the reader may look at them (A10). */
async function neighboursBy(
	db: Querier,
	project: Project,
	reach: Reach,
	numbers: readonly string[]
): Promise<Neighbour[]> {
	if (!numbers.length) return [];
	return db.execute<Neighbour & Record<string, unknown>>(sql`
		select ${document.id} as id, ${document.number} as number, ${document.title} as title, now.label, now.hash,
			(select v.label from version v where v.document_id = ${document.id} and v.issued order by v.seq desc limit 1) as issued
		from ${document} join ${place} on ${place.id} = ${document.id} join version now on now.id = ${document.currentVersionId}
		where ${document.projectId} = ${project.id} and ${document.live} and ${live()} and ${reach.sees(place.scope)}
			and ${among(document.number, numbers)}`);
}

/** What is known of named documents, as far as the reader may look at them (A10). */
async function targetsOf(db: Querier, project: Project, reach: Reach, named: readonly Named[], own: string) {
	if (!named.length) return [];
	const numbers = named.map((one) => one.number);
	const there = await neighboursBy(db, project, reach, numbers);
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

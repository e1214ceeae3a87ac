import { and, eq, sql } from 'drizzle-orm';
import * as contract from '../../contract/find';
import { findQuestion, meantWords, type Sought } from '../../core/find/find';
import { live, type Reach } from '../access/reach';
import { answers } from '../platform/runner/act';
import { among, type Querier } from '../platform/db';
import { document, findable, place } from '../platform/db/schema';
import { documentRows } from '../documents/rows';

/** Most documents that a find answers with, and most that it looks at to choose them. */
const MOST_FOUND = 200;
const MOST_FITTING = 500;
/** Words looked for at a time. */
const MOST_WORDS = 10;
/** Known words taken for one that was typed. */
const MOST_INSTEAD = 40;
/** Documents found by what is written in them that show where, and how much of their text is searched for it. */
const MOST_PASSAGES = 40;
const MOST_SEARCHED = 60_000;

/** One that fits, and how well: 0 by its number, 1 by its number, title and tags, 2 by what is written in it. */
interface Fitting extends Record<string, unknown> {
	id: string;
	how: number;
	changed: string;
}

export const find = answers(contract.find, {
	async run({ db, project, reach, person: me, now }, input) {
		const exact = await asTyped(db, project.id, input.q);
		const words = exact.map((w) => w.word);
		const [byNumber, byWords] = await Promise.all([
			numbersHolding(db, project.id, reach, input.q),
			fitting(db, project.id, reach, exact)
		]);
		let found = merged(byNumber, byWords);
		const near = found.length === 0 ? await instead(db, project.id, words) : exact;
		if (near !== exact && near.some((s, i) => s.instead.length > exact[i]!.instead.length))
			found = await fitting(db, project.id, reach, near);
		const chosen = found.slice(0, MOST_FOUND);
		const rows = await documentRows(
			db,
			{ project, reach, readerId: me.id },
			among(place.id, new Set(chosen.map((f) => f.id))),
			now
		);
		const order = new Map(chosen.map((f, i) => [f.id, i]));
		rows.sort((a, b) => order.get(a.id)! - order.get(b.id)!);
		const inside = chosen.filter((f) => f.how === 2).slice(0, MOST_PASSAGES);
		return {
			rows,
			/** Nothing has the words as they were typed; these come closest. */
			close: near !== exact && rows.length > 0,
			/** More fit than are shown. */
			more: found.length > chosen.length,
			passages: await passages(db, inside, near)
		};
	}
});

const better = (a: Fitting, b: Fitting) => a.how - b.how || (a.changed < b.changed ? 1 : -1);

/** Both lists as one, each document once, best first. */
function merged(...lists: Fitting[][]): Fitting[] {
	const best = new Map<string, Fitting>();
	for (const one of lists.flat()) {
		const other = best.get(one.id);
		if (!other || one.how < other.how) best.set(one.id, one);
	}
	return [...best.values()].sort(better);
}

/** Documents whose number holds what was typed; only asked for something with a digit, as words find the rest. */
async function numbersHolding(db: Querier, projectId: string, reach: Reach, q: string): Promise<Fitting[]> {
	if (q.length < 3 || !/\d/.test(q)) return [];
	const holding = `%${q.replace(/[\\%_]/g, '\\$&')}%`;
	const rows = await db
		.select({ id: document.id, changed: sql<string>`${document.changedAt}::text` })
		.from(document)
		.innerJoin(place, eq(place.id, document.id))
		.where(
			and(
				eq(document.projectId, projectId),
				sql`upper(${document.number}) like upper(${holding})`,
				live(),
				reach.sees(place.scope)
			)
		)
		.limit(MOST_FITTING);
	return rows.map((row) => ({ ...row, how: 0 }));
}

/**
 * The words typed, each with the known words that begin with it: asking for those by name takes half the time of asking
 * for a beginning. A word that is the beginning of too many, or holds digits, is asked for as a beginning all the same.
 */
async function asTyped(db: Querier, projectId: string, q: string): Promise<Sought[]> {
	const rows = await db.execute<{ word: string; beginning: string[] }>(sql`
		select word, case when length(word) < 3 then '{}' else array(
			select known.word from find_word known where project_id = ${projectId}
				and known.word > typed.word and known.word < typed.word || chr(1114111)
			order by known.word limit ${MOST_INSTEAD}) end as beginning
		from unnest(find_words(${q})) as typed(word) limit ${MOST_WORDS}`);
	return rows.map(({ word, beginning }) => ({
		word,
		instead: beginning,
		asBeginning: /\P{L}/u.test(word) || beginning.length === MOST_INSTEAD
	}));
}

/** Documents that have every word and may be looked at, until there are enough of them. */
async function fitting(
	db: Querier,
	projectId: string,
	reach: Reach,
	words: readonly Sought[]
): Promise<Fitting[]> {
	if (!words.length) return [];
	const question = sql`${findQuestion(words)}::tsquery`;
	const rows = await db.execute<Fitting>(sql`
		select fit.id, fit.how, ${document.changedAt}::text as changed
		from (
			select ${findable.documentId} as id, case when ${findable.name} @@ ${question} then 1 else 2 end as how
			from ${findable}
			where ${findable.projectId} = ${projectId} and ${findable.words} @@ ${question} and ${reach.seesKept(findable.scope)}
			limit ${MOST_FITTING}
		) fit
		join ${document} on ${document.id} = fit.id`);
	return [...rows].sort(better);
}

/**
 * For each word, known words that hold it, or else those somebody may have meant. Which words are known tells nothing
 * of what one may not look at: they only widen what is looked for among what one may.
 */
async function instead(db: Querier, projectId: string, words: string[]): Promise<Sought[]> {
	const known = await db.execute<{ word: string; holding: string[]; near: string[] }>(sql`
		select typed as word,
			array(select word from find_word where project_id = ${projectId} and word like '%' || typed || '%'
				order by length(word) limit ${MOST_INSTEAD}) as holding,
			array(select word from find_word where project_id = ${projectId} and word % typed
				and abs(length(word) - length(typed)) <= 2
				order by similarity(word, typed) desc limit ${MOST_INSTEAD}) as near
		from unnest(${sql.param(words)}::text[]) as typed
		where typed ~ '^[[:alpha:]]{3,40}$'`);
	return words.map((word) => {
		const one = known.find((k) => k.word === word);
		if (!one) return { word, instead: [], asBeginning: true };
		const meant = one.holding.length ? one.holding : meantWords(word, one.near);
		return { word, instead: meant, asBeginning: false };
	});
}

/** Where one of the words stands in the text of documents that were found by it: a little of what is around. */
async function passages(
	db: Querier,
	found: Fitting[],
	words: readonly Sought[]
): Promise<Record<string, string>> {
	if (!found.length) return {};
	const all = words.flatMap((w) => [w.word, ...w.instead]).filter((w) => w.length > 1);
	const rows = await db.execute<{ id: string; passage: string; cut: boolean }>(sql`
		select d.id, substr(t.text, greatest(1, at - 60), 180) as passage, at > 61 as cut
		from document d join version v on v.id = d.current_version_id join content_text t on t.hash = v.hash,
			lateral (select min(nullif(strpos(lower(left(t.text, ${MOST_SEARCHED})), word), 0)) as at
				from unnest(${sql.param(all)}::text[]) as word) where_it_stands
		where d.id = any(${sql.param(found.map((f) => f.id))}::text[]) and at is not null`);
	return Object.fromEntries(rows.map((r) => [r.id, wholeWords(r.passage, r.cut)]));
}

/** A passage without the parts of words at its ends, with dots where it was cut out of more. */
function wholeWords(passage: string, cut: boolean): string {
	const begun = cut ? passage.replace(/^\S*\s/, '… ') : passage;
	return passage.length === 180 ? begun.replace(/\s\S*$/, ' …') : begun;
}

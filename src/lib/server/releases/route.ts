import { and, eq, inArray, isNull } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { checkRoute, stepWords, type Approver, type Route } from '../../core/releases/route';
import type { Querier } from '../platform/db';
import { department, group, member, person, release, type project } from '../platform/db/schema';
import { handsIn } from '../platform/runner/held-release';
import { namesOnRoute, turnIn } from '../platform/runner/on-route';

/** Names of people, departments and groups, by their ids. */
export async function namesOf(db: Querier, ids: Iterable<string>): Promise<Map<string, string>> {
	const all = [...new Set(ids)];
	if (!all.length) return new Map();
	const found = await Promise.all(
		[person, department, group].map((table) =>
			db.select({ id: table.id, name: table.name }).from(table).where(inArray(table.id, all))
		)
	);
	return new Map(found.flat().map((one) => [one.id, one.name]));
}

/** The steps of a route in sentences, as a build says them. */
export async function routeWords(db: Querier, route: Route): Promise<string[]> {
	const names = await namesOf(
		db,
		route.flatMap((step) => step.of.map((one) => one.id))
	);
	return route.map((step) => stepWords(step, (one) => names.get(one.id) ?? ''));
}

/** Who cannot be named in person on the route of a release that somebody changes: they have a hand in it now (T3). */
export async function handsWith(
	db: Querier,
	releaseId: string | null,
	here: Pick<typeof project.$inferSelect, 'settings'>,
	personId: string
): Promise<Set<string>> {
	if (here.settings.approveOwn) return new Set();
	return (releaseId ? await handsIn(db, releaseId, here) : new Set<string>()).add(personId);
}

/**
 * Checks a route against the people of the project.
 * @param hands who had a hand in the build: none of them may be named in person (T3)
 * @throws Problem `invalid` at `route`, with a sentence that says what is wrong
 */
export async function checkRouteHere(
	db: Querier,
	here: Pick<typeof project.$inferSelect, 'id'>,
	route: Route,
	hands: ReadonlySet<string>
): Promise<void> {
	const wrong = (sentence: string) => new Problem('invalid', sentence, { field: 'route' });
	const odd = checkRoute(route);
	if (odd) throw wrong(odd);
	const of = (kind: Approver['kind']) =>
		route.flatMap((step) => step.of.filter((one) => one.kind === kind).map((one) => one.id));
	const [people, departments, groups] = await Promise.all([
		db
			.select({ id: member.personId, name: person.name })
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.where(
				and(
					eq(member.projectId, here.id),
					inArray(member.personId, ['', ...of('person')]),
					isNull(member.leftAt),
					isNull(member.blockedAt)
				)
			),
		db
			.select({ id: department.id })
			.from(department)
			.where(and(eq(department.projectId, here.id), inArray(department.id, ['', ...of('department')]))),
		db
			.select({ id: group.id })
			.from(group)
			.where(and(eq(group.projectId, here.id), inArray(group.id, ['', ...of('group')])))
	]);
	const known = new Set([...people, ...departments, ...groups].map((one) => one.id));
	for (const step of route)
		if (step.of.some((one) => !known.has(one.id)))
			throw wrong(`${step.name}: somebody it names is not in this project.`);
	const made = people.find((one) => hands.has(one.id));
	if (made)
		throw wrong(
			`${made.name} has a hand in this build, and nobody decides on what they built, changed or asked for. Name somebody else.`
		);
}

/** The releases that wait for somebody's decision now, by their ids. */
export async function releasesWaitingFor(
	db: Querier,
	here: typeof project.$inferSelect,
	personId: string,
	now: Date
): Promise<Set<string>> {
	const open = await db
		.select()
		.from(release)
		.where(and(eq(release.projectId, here.id), eq(release.state, 'in-review'), namesOnRoute(personId, now)));
	const turns = await Promise.all(
		open.map(async (about) => {
			const mine = await turnIn(db, about, here, personId, now);
			// Who had a hand in it is not waited for, whatever department or group of theirs is named.
			const waits = mine?.turn.may === true && !(await handsIn(db, about.id, here)).has(personId);
			return waits ? [about.id] : [];
		})
	);
	return new Set(turns.flat());
}

import { and, asc, eq, or } from 'drizzle-orm';
import { allows } from '../../core/access/levels';
import { Problem } from '../../core/acts/problem';
import { beneath, idsOf, live } from '../access/reach';
import { place } from '../platform/db/schema';
import { MOST_AT_ONCE } from '../../contract/fields';
import type { Acting, ContextOf } from '../platform/runner/act';
import { visiblePlaces, type SeenPlace } from '../platform/runner/locate';

type InProject = ContextOf['project'] & Acting;

/** The documents and folders by id that the person may look at. Raises `not-found` when one is missing. */
export async function chosenPlaces(
	{ tx, reach }: InProject,
	{ documents, folders }: { documents: string[]; folders: string[] }
): Promise<SeenPlace[]> {
	const wanted = [...new Set([...documents, ...folders])].sort();
	if (!wanted.length) throw new Problem('invalid', 'Choose documents or folders first.');
	const found = await visiblePlaces(tx, reach, wanted);
	const fits = (p: SeenPlace) => (p.kind === 'document' ? documents : folders).includes(p.id);
	if (found.length < wanted.length || !found.every(fits))
		throw new Problem('not-found', 'One of these is not there, or nothing that you may look at.');
	return found.sort((a, b) => (a.id < b.id ? -1 : 1));
}

/** Everything in folders that the person may look at, folders before what is in them. Raises `invalid` for too much. */
export async function placesWithin(
	{ tx, project, reach }: InProject,
	folders: readonly SeenPlace[]
): Promise<SeenPlace[]> {
	if (!folders.length) return [];
	const ids = await tx
		.select({ id: place.id })
		.from(place)
		.where(
			and(
				eq(place.projectId, project.id),
				live(),
				or(...folders.map((f) => beneath(f.path))),
				reach.sees(place.scope)
			)
		)
		.orderBy(asc(place.path))
		.limit(MOST_AT_ONCE + 1);
	if (ids.length > MOST_AT_ONCE)
		throw new Problem(
			'invalid',
			'There are more than 1,000 documents and folders in it. Choose less at a time.'
		);
	const found = await visiblePlaces(
		tx,
		reach,
		ids.map((p) => p.id)
	);
	return found.sort((a, b) => a.path.length - b.path.length || (a.path < b.path ? -1 : 1));
}

/** The documents in folders that the person may look at. */
export async function documentsWithin(
	context: InProject,
	folders: readonly SeenPlace[]
): Promise<SeenPlace[]> {
	return (await placesWithin(context, folders)).filter((p) => p.kind === 'document');
}

/** Names of the folders from the chosen one down to where a place lies; none for a place that was chosen itself. */
export function wayBeneath(
	place: SeenPlace,
	tops: readonly SeenPlace[],
	all: ReadonlyMap<string, SeenPlace>
): string[] {
	const top = tops.find((t) => t.id !== place.id && place.path.startsWith(t.path));
	if (!top) return [];
	const ids = idsOf(place.path).slice(0, -1);
	return ids.slice(ids.indexOf(top.id)).map((one) => all.get(one)?.name ?? '…');
}

/** A folder or shelf where the person may work. Raises `not-found` and `needs-level`. */
export async function targetFolder({ tx, reach }: InProject, to: string): Promise<SeenPlace> {
	const [found] = await visiblePlaces(tx, reach, [to]);
	if (!found || found.kind === 'document')
		throw new Problem('not-found', 'The folder to put them into is not there.');
	if (!allows(reach.held(found, found), 'work'))
		throw new Problem('needs-level', `This needs Work in ${found.name}.`, { needed: 'work' });
	return found;
}

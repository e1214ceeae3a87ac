import { names, sameSubject, type Entry } from './decide';
import { cap, type Level } from './levels';
import { withScope, type AccessModel, type Grant, type Scope } from './model';

/** What becomes of grants that hang on others, when those others, or who brought them in, changed. */
export interface Settled {
	model: AccessModel;
	ended: Grant[];
	/** Lowered, or ending earlier; as they are afterwards. */
	sunk: { before: Grant; after: Grant }[];
}

/** Most that somebody brought in under a grant may hold: never more than the grant itself, nor than it lets others have. */
export function mostBelow(above: Pick<Grant, 'level' | 'bringLevel'>): Level | null {
	if (above.level === null) return null;
	return above.bringLevel === null ? above.level : cap(above.level, above.bringLevel);
}

function earlier(a: number | null, b: number | null): number | null {
	return a === null ? b : b === null ? a : Math.min(a, b);
}

/**
 * Brings what was brought in into line with what it hangs on (A8): the grant, and the bringer's having it. It ends when
 * the grant ended or became a bar, or when who brought it in no longer belongs to whom the grant is for; it sinks when
 * the grant sank.
 */
export function settleBrought(model: AccessModel): Settled {
	const grants = new Map(model.grants);
	const ended: Grant[] = [];
	const first = new Map<string, Grant>();
	const byId = new Map<string, Grant>();
	for (const list of grants.values()) for (const g of list) byId.set(g.id, g);
	for (let again = true; again;) {
		again = false;
		for (const [at, list] of grants) {
			const kept = list.flatMap((g): Grant[] => {
				if (g.underId === null) return [g];
				const next = below(model, byId.get(g.underId), g);
				if (next === g) return [g];
				again = true;
				if (!first.has(g.id)) first.set(g.id, g);
				if (next) {
					byId.set(g.id, next);
					return [next];
				}
				byId.delete(g.id);
				ended.push(first.get(g.id)!);
				return [];
			});
			if (kept.length !== list.length || kept.some((g, i) => g !== list[i])) grants.set(at, kept);
		}
	}
	const sunk = [...first.values()].flatMap((before) => {
		const after = byId.get(before.id);
		return after ? [{ before, after }] : [];
	});
	return { model: first.size ? { ...model, grants } : model, ended, sunk };
}

/** A grant as it may stand beneath another; itself when nothing changes, null when it ends. */
function below(model: AccessModel, above: Grant | undefined, g: Grant): Grant | null {
	const most = above ? mostBelow(above) : null;
	if (!above || most === null) return null;
	const bringer = g.byId === null ? undefined : model.members.get(g.byId);
	if (!bringer || !names(above, bringer.subject)) return null;
	const level = cap(g.level, most);
	const endsAt = earlier(g.endsAt, above.endsAt);
	return level === g.level && endsAt === g.endsAt ? g : { ...g, level, endsAt };
}

/** The model with one entry put, replaced or taken away at a place; what hangs on it follows (A8). */
export function withEntry(
	model: AccessModel,
	place: Scope,
	subject: Pick<Entry, 'subjectKind' | 'subjectId'>,
	entry: Grant | null
): AccessModel {
	const here = (model.grants.get(place.id) ?? []).filter((g) => !sameSubject(g, subject));
	const grants = new Map(model.grants);
	grants.set(place.id, entry ? [...here, entry] : here);
	return settleBrought({ ...withScope(model, place), grants }).model;
}

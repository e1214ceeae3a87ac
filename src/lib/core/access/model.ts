import { capped, decide, names, nearestOf, reaching, type Entry, type Step, type Subject } from './decide';
import { allows, rank, type Level } from './levels';

/** An entry as a project keeps it: who gave it, when, and what hangs on it. Times are milliseconds since 1970. */
export interface Grant extends Entry {
	id: string;
	placeId: string;
	/** Name of who gave it; null when it came with the shelf. */
	by: string | null;
	byId: string | null;
	at: number;
	/** The grant whose holder brought this one in (A8); ending that ends this. */
	underId: string | null;
	/** How many others its holder may bring in, and at what level at most. */
	bringCount: number;
	bringLevel: Level | null;
}

/** A place where access can change: it has entries of its own, is closed, or is a shelf. */
export interface Scope {
	id: string;
	/** Ids from the shelf down to this place, itself last. */
	path: readonly string[];
	closed: boolean;
	/** Somebody’s desk, where only they are. */
	desk?: boolean;
}

/** A person with what the rules need to know of them. */
export interface Member {
	name: string;
	email: string;
	subject: Subject;
}

/** The access of a whole project as plain data; small even where the project is large, since only scopes count. */
export interface AccessModel {
	scopes: ReadonlyMap<string, Scope>;
	/** Entries by the place they stand at. */
	grants: ReadonlyMap<string, readonly Grant[]>;
	members: ReadonlyMap<string, Member>;
	/** Paths of frozen places, each as ids from the shelf down. */
	frozen: readonly (readonly string[])[];
}

const NOTHING: readonly Grant[] = [];

/** The places that matter for a scope, nearest first. */
export function wayOf(model: AccessModel, scopeId: string): Step<Grant>[] {
	const scope = model.scopes.get(scopeId);
	if (!scope) return [];
	const way: Step<Grant>[] = [];
	for (let i = scope.path.length - 1; i >= 0; i--) {
		const at = model.scopes.get(scope.path[i]!);
		if (at)
			way.push({
				closed: at.closed,
				desk: at.desk ?? false,
				entries: model.grants.get(at.id) ?? NOTHING
			});
	}
	return way;
}

/** The level of one person in every scope they reach. */
export function levelsOf(model: AccessModel, who: Subject, now: number): Map<string, Level> {
	const levels = new Map<string, Level>();
	for (const id of model.scopes.keys()) {
		const level = decide(who, wayOf(model, id), now);
		if (level !== null) levels.set(id, level);
	}
	return levels;
}

/** Everybody who reaches a scope, with their level; highest first, then by name (half of A9). */
export function whoReaches(
	model: AccessModel,
	scopeId: string,
	now: number
): { personId: string; level: Level }[] {
	const way = wayOf(model, scopeId);
	const found: { personId: string; level: Level; name: string }[] = [];
	for (const [personId, member] of model.members) {
		const level = decide(member.subject, way, now);
		if (level !== null) found.push({ personId, level, name: member.name });
	}
	return found
		.sort((a, b) => rank(b.level) - rank(a.level) || a.name.localeCompare(b.name))
		.map(({ personId, level }) => ({ personId, level }));
}

/** The entries in force at a scope: for every subject its nearest one, whoever it names, as far as it reaches (A3). */
export function entriesAt(model: AccessModel, scopeId: string, now: number): Grant[] {
	const way = wayOf(model, scopeId);
	return reaching(nearestOf(way, now), way).map((f) => f.entry);
}

/** The people an entry is about, and what each belongs to that makes it theirs. */
export function namedBy(model: AccessModel, entry: Entry): string[] {
	const ids: string[] = [];
	for (const [personId, { subject }] of model.members) {
		if (names(entry, subject)) ids.push(personId);
	}
	return ids;
}

/** One person's gain or loss in one scope. */
export interface Change {
	personId: string;
	scopeId: string;
	before: Level | null;
	after: Level | null;
}

/** What changes for whom when access goes from one state to another; said to people before they do it. */
export function effect(before: AccessModel, after: AccessModel, now: number): Change[] {
	const changes: Change[] = [];
	const people = new Set([...before.members.keys(), ...after.members.keys()]);
	for (const personId of people) {
		const was = before.members.get(personId);
		const will = after.members.get(personId);
		const old: Map<string, Level> = was ? levelsOf(before, was.subject, now) : new Map();
		const fresh: Map<string, Level> = will ? levelsOf(after, will.subject, now) : new Map();
		for (const scopeId of new Set([...old.keys(), ...fresh.keys()])) {
			const a = old.get(scopeId) ?? null;
			const b = fresh.get(scopeId) ?? null;
			if (a !== b) changes.push({ personId, scopeId, before: a, after: b });
		}
	}
	return changes;
}

/** Whether a change takes the place out of the person's sight, or brings it in. */
export function crossesSight(change: Change): 'lost' | 'gained' | null {
	const [was, will] = [allows(change.before, 'view'), allows(change.after, 'view')];
	return was === will ? null : was ? 'lost' : 'gained';
}

/** The model with a place as a scope of its own, so that what changes there can be compared with how it was. */
export function withScope(model: AccessModel, place: Scope): AccessModel {
	if (model.scopes.has(place.id)) return model;
	return { ...model, scopes: new Map([...model.scopes, [place.id, place]]) };
}

/** A person's level at a place after freezes and archives (A6). */
export function heldAt(
	model: AccessModel,
	who: Subject,
	place: { scope: string; path: readonly string[]; archived: boolean },
	now: number
): Level | null {
	const frozen = model.frozen.some((f) => f.every((id, i) => place.path[i] === id));
	return capped(decide(who, wayOf(model, place.scope), now), {
		frozen,
		archived: place.archived,
		inHand: false
	});
}

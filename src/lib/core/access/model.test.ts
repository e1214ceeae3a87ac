import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SubjectKind } from './decide';
import { settleBrought, withEntry } from './brought';
import { LEVELS, type Level } from './levels';
import {
	crossesSight,
	effect,
	heldAt,
	levelsOf,
	whoReaches,
	type AccessModel,
	type Grant,
	type Member
} from './model';

/*
 * The rules A2 to A6 and A8 stated a second time, over a plain project: every place, every entry where it stands,
 * no scopes, nothing shared with the code under test. Random projects go through random histories, and everybody's
 * level at every place must come out the same both ways.
 */

const NOW = 1_000;
const PEOPLE = ['oke', 'halla', 'ines', 'kaja', 'bo'];
const DEPARTMENTS = ['mw', 'ar'];
const GROUPS = ['design', 'tarn'];

interface Place {
	id: string;
	parent: string | null;
	closed: boolean;
	frozen: boolean;
	archived: boolean;
	grants: Grant[];
}
interface Someone {
	id: string;
	here: boolean;
	controller: boolean;
	outside: boolean;
	departments: string[];
	leads: string[];
	groups: string[];
}
interface Project {
	places: Place[];
	people: Someone[];
	/** Most that outsiders get. */
	outsideLevel: Level | null;
	serial: number;
}

function up(project: Project, place: Place): Place[] {
	const parent = project.places.find((p) => p.id === place.parent);
	return [place, ...(parent ? up(project, parent) : [])];
}

/** The plain statement: goes through the subjects of a person one by one, each from the place upward. */
function plainLevel(project: Project, who: Someone, place: Place): Level | null {
	if (!who.here) return null;
	const rank = (level: Level | null) => (level === null ? -1 : LEVELS.indexOf(level));
	const least = (a: Level | null, b: Level) => (rank(a) > rank(b) ? b : a);
	const way = up(project, place);
	let level: Level | null;
	if (who.controller) level = 'manage';
	else {
		const subjects: [SubjectKind, string][] = [['person', who.id]];
		for (const d of who.departments) subjects.push(['department', d]);
		for (const d of who.leads) subjects.push(['leads', d]);
		for (const g of who.groups) subjects.push(['group', g]);
		if (!who.outside) subjects.push(['everyone', 'project']);
		const nearest = subjects.flatMap(([kind, id]) => {
			for (const [far, at] of way.entries()) {
				const entry = at.grants.find(
					(g) => g.subjectKind === kind && g.subjectId === id && !(g.endsAt !== null && g.endsAt <= NOW)
				);
				if (entry) return [{ kind, entry, far }];
			}
			return [];
		});
		const held = (of: typeof nearest): Level | null => {
			const own = of.find((n) => n.kind === 'person');
			const bars = of.filter((n) => n.kind !== 'person' && n.entry.level === null);
			if (own && own.entry.level === null) return null;
			if (bars.some((bar) => !own || own.far > bar.far)) return null;
			if (own?.entry.exactly) return own.entry.level;
			return of.reduce<Level | null>(
				(best, n) => (rank(n.entry.level) > rank(best) ? n.entry.level : best),
				null
			);
		};
		const shut = (far: number) => way.slice(0, far).some((below) => below.closed);
		const open = held(nearest);
		const closed = held(
			nearest.filter((n) => !shut(n.far) || n.entry.level === null || n.entry.level === 'manage')
		);
		level = rank(closed) < rank(open) ? closed : open;
	}
	if (level !== null && who.outside)
		level = project.outsideLevel === null ? null : least(level, project.outsideLevel);
	if (level !== null && level !== 'manage' && way.some((at) => at.frozen)) level = least(level, 'remark');
	if (level !== null && place.archived) level = least(level, 'download');
	return level;
}

/** The project as the code under test sees it: only places where access can change are scopes. */
function modelOf(project: Project): AccessModel {
	const scopes = project.places.filter((p) => p.parent === null || p.closed || p.grants.length);
	const path = (place: Place) =>
		up(project, place)
			.map((p) => p.id)
			.reverse();
	return {
		scopes: new Map(scopes.map((p) => [p.id, { id: p.id, path: path(p), closed: p.closed }])),
		grants: new Map(scopes.map((p) => [p.id, p.grants])),
		members: new Map(
			project.people
				.filter((p) => p.here)
				.map((p): [string, Member] => [
					p.id,
					{
						name: p.id,
						email: `${p.id}@x.example`,
						subject: {
							personId: p.id,
							projectId: 'project',
							controller: p.controller,
							departments: p.departments,
							leads: p.leads,
							groups: p.groups,
							outside: p.outside,
							ceiling: p.outside ? project.outsideLevel : null
						}
					}
				])
		),
		frozen: project.places.filter((p) => p.frozen).map(path)
	};
}
function scopeOf(project: Project, model: AccessModel, place: Place): string {
	return up(project, place).find((p) => model.scopes.has(p.id))!.id;
}

type Doing = (project: Project) => void;
const pick = <T>(list: T[], n: number): T => list[n % list.length]!;
const level = fc.option(fc.constantFrom(...LEVELS), { nil: null, freq: 5 });
const subject = fc.oneof(
	fc.constantFrom(...PEOPLE).map((id) => ['person', id] as const),
	fc.constantFrom(...DEPARTMENTS).map((id) => ['department', id] as const),
	fc.constantFrom(...DEPARTMENTS).map((id) => ['leads', id] as const),
	fc.constantFrom(...GROUPS).map((id) => ['group', id] as const),
	fc.constant(['everyone', 'project'] as const)
);
const n = fc.nat(50);

const give = fc
	.tuple(
		n,
		subject,
		level,
		fc.boolean(),
		fc.option(fc.integer({ min: 900, max: 1_100 }), { nil: null, freq: 3 })
	)
	.map(([at, [subjectKind, subjectId], given, exactly, endsAt]): Doing => (project) => {
		const place = pick(project.places, at);
		place.grants = place.grants.filter((g) => g.subjectKind !== subjectKind || g.subjectId !== subjectId);
		place.grants.push({
			id: `g${project.serial++}`,
			placeId: place.id,
			subjectKind,
			subjectId,
			level: given,
			exactly: exactly && subjectKind === 'person' && given !== null,
			endsAt,
			by: null,
			byId: null,
			at: 0,
			underId: null,
			bringCount: 0,
			bringLevel: null
		});
	});
const end = fc.tuple(n, n).map(([at, which]): Doing => (project) => {
	const place = pick(project.places, at);
	if (place.grants.length) place.grants.splice(which % place.grants.length, 1);
});
const toggle = (key: 'closed' | 'frozen' | 'archived') =>
	n.map((at): Doing => (project) => {
		const place = pick(project.places, at);
		if (key !== 'closed' || place.parent !== null) place[key] = !place[key];
	});
const grow = n.map((at): Doing => (project) => {
	project.places.push({
		id: `p${project.serial++}`,
		parent: pick(project.places, at).id,
		closed: false,
		frozen: false,
		archived: false,
		grants: []
	});
});
const move = fc.tuple(n, n).map(([a, b]): Doing => (project) => {
	const [place, to] = [pick(project.places, a), pick(project.places, b)];
	if (place.parent !== null && !up(project, to).includes(place)) place.parent = to.id;
});
const join = fc
	.tuple(n, fc.constantFrom('departments', 'leads', 'groups'), n)
	.map(([who, key, which]): Doing => (project) => {
		const person = pick(project.people, who);
		if (person.outside && key !== 'groups') return;
		const id = pick(key === 'groups' ? GROUPS : DEPARTMENTS, which);
		const list = person[key as 'departments'];
		person[key as 'departments'] = list.includes(id) ? list.filter((one) => one !== id) : [...list, id];
	});
const leave = n.map((who): Doing => (project) => {
	const person = pick(project.people, who);
	person.here = false;
	// Closing a person ends what was given to them; what was given to others stays.
	for (const place of project.places)
		place.grants = place.grants.filter((g) => g.subjectKind !== 'person' || g.subjectId !== person.id);
});
const setOutside = level.map((most): Doing => (project) => {
	project.outsideLevel = most;
});
const history = fc.array(
	fc.oneof(
		{ weight: 8, arbitrary: give },
		{ weight: 2, arbitrary: end },
		{ weight: 2, arbitrary: toggle('closed') },
		{ weight: 1, arbitrary: toggle('frozen') },
		{ weight: 1, arbitrary: toggle('archived') },
		{ weight: 4, arbitrary: grow },
		{ weight: 2, arbitrary: move },
		{ weight: 4, arbitrary: join },
		{ weight: 1, arbitrary: leave },
		{ weight: 1, arbitrary: setOutside }
	),
	{ minLength: 5, maxLength: 40 }
);

function lived(doings: Doing[]): Project {
	const project: Project = {
		places: ['s1', 's2'].map((id) => ({
			id,
			parent: null,
			closed: false,
			frozen: false,
			archived: false,
			grants: []
		})),
		people: PEOPLE.map((id) => ({
			id,
			here: true,
			controller: id === 'ines',
			outside: id === 'kaja' || id === 'bo',
			departments: [],
			leads: [],
			groups: []
		})),
		outsideLevel: 'download',
		serial: 1
	};
	for (const doing of doings) doing(project);
	return project;
}

describe('a project through any history', () => {
	it('gives everybody at every place the level that the plain statement gives', { timeout: 120_000 }, () => {
		fc.assert(
			fc.property(history, (doings) => {
				const project = lived(doings);
				const model = modelOf(project);
				for (const who of project.people) {
					const member = model.members.get(who.id);
					for (const place of project.places) {
						const path = up(project, place)
							.map((p) => p.id)
							.reverse();
						const ours = member
							? heldAt(
									model,
									member.subject,
									{ scope: scopeOf(project, model, place), path, archived: place.archived },
									NOW
								)
							: null;
						expect(ours).toBe(plainLevel(project, who, place));
					}
				}
			}),
			{ numRuns: 10_000 }
		);
	});

	it('names for every place exactly those who reach it', () => {
		fc.assert(
			fc.property(history, (doings) => {
				const project = lived(doings);
				const model = modelOf(project);
				for (const scope of model.scopes.keys()) {
					const listed = new Map(whoReaches(model, scope, NOW).map((r) => [r.personId, r.level]));
					for (const [id, member] of model.members)
						expect(listed.get(id) ?? null).toBe(levelsOf(model, member.subject, NOW).get(scope) ?? null);
				}
			}),
			{ numRuns: 500 }
		);
	});

	it('tells the effect of ending any entry as it then turns out', () => {
		fc.assert(
			fc.property(history, n, n, (doings, at, which) => {
				const project = lived(doings);
				const withGrants = project.places.filter((p) => p.grants.length);
				if (!withGrants.length) return;
				const place = pick(withGrants, at);
				const entry = pick(place.grants, which);
				const before = modelOf(project);
				const told = effect(before, withEntry(before, before.scopes.get(place.id)!, entry, null), NOW);
				const was = new Map(
					project.people.map((who) => [
						who.id,
						new Map(project.places.map((p) => [p.id, plainWithoutCaps(project, who, p)]))
					])
				);
				place.grants = place.grants.filter((g) => g !== entry);
				for (const who of project.people.filter((p) => p.here))
					for (const scope of before.scopes.keys()) {
						const scopePlace = project.places.find((p) => p.id === scope)!;
						const change = told.find((c) => c.personId === who.id && c.scopeId === scope);
						const now = plainWithoutCaps(project, who, scopePlace);
						const old = was.get(who.id)!.get(scope)!;
						expect(change ? [change.before, change.after] : [old, old]).toEqual([old, now]);
					}
			}),
			{ numRuns: 1_000 }
		);
	});
});

function plainWithoutCaps(project: Project, who: Someone, place: Place): Level | null {
	const open = { ...project, places: project.places.map((p) => ({ ...p, frozen: false, archived: false })) };
	return plainLevel(
		open,
		who,
		open.places.find((p) => p.id === place.id)!
	);
}

describe('what was brought in (A8)', () => {
	const grant = (
		id: string,
		subjectId: string,
		under: [string, string] | null,
		more: Partial<Grant> = {}
	): Grant => ({
		id,
		placeId: 's1',
		subjectKind: 'person',
		subjectId,
		level: 'view',
		exactly: false,
		endsAt: null,
		by: null,
		byId: under?.[1] ?? null,
		at: 0,
		underId: under?.[0] ?? null,
		bringCount: 2,
		bringLevel: 'view',
		...more
	});
	const group = (more: Partial<Grant> = {}) =>
		grant('a', 'design', null, { subjectKind: 'group', level: 'work', bringLevel: 'remark', ...more });
	const chain = (first: Grant, ...rest: Grant[]) => {
		const project = lived([]);
		project.people.find((p) => p.id === 'halla')!.groups = ['design'];
		project.places[0]!.grants = [first, ...rest];
		return modelOf(project);
	};
	const ids = (model: AccessModel) => (model.grants.get('s1') ?? []).map((g) => g.id);

	it('ends with the grant it hangs on, and so on down', () => {
		const before = chain(
			grant('a', 'kaja', null),
			grant('b', 'bo', ['a', 'kaja']),
			grant('c', 'oke', ['b', 'bo'])
		);
		const after = withEntry(
			before,
			before.scopes.get('s1')!,
			{ subjectKind: 'person', subjectId: 'kaja' },
			null
		);
		expect(after.grants.get('s1')).toEqual([]);
		const lost = effect(before, after, NOW).filter((c) => crossesSight(c) === 'lost');
		expect(lost.map((c) => c.personId).sort()).toEqual(['bo', 'kaja', 'oke']);
	});

	it('ends when the grant becomes a bar, and sinks when the grant sinks', () => {
		const brought = grant('b', 'bo', ['a', 'halla'], { level: 'remark' });
		expect(settleBrought(chain(group(), brought)).model.grants.get('s1')).toEqual([group(), brought]);
		const barred = settleBrought(chain(group({ level: null }), brought));
		expect([ids(barred.model), barred.ended.map((g) => g.id)]).toEqual([['a'], ['b']]);
		const sunk = settleBrought(chain(group({ level: 'view', endsAt: 1_050 }), brought));
		expect(sunk.sunk).toMatchObject([
			{ before: { level: 'remark' }, after: { level: 'view', endsAt: 1_050 } }
		]);
	});

	it('ends when who brought it in leaves what the grant was given to', () => {
		const model = chain(group(), grant('b', 'bo', ['a', 'halla']), grant('c', 'kaja', ['b', 'bo']));
		const halla = model.members.get('halla')!;
		const members = new Map(model.members).set('halla', {
			...halla,
			subject: { ...halla.subject, groups: [] }
		});
		const settled = settleBrought({ ...model, members });
		expect(settled.ended.map((g) => g.id).sort()).toEqual(['b', 'c']);
		expect(ids(settled.model)).toEqual(['a']);
	});
});

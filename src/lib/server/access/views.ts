import { canAt } from './can';
import { and, asc, count, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/access';
import { decide, runsAsController } from '../../core/access/decide';
import { explain } from '../../core/access/explain';
import type { Known } from '../../core/access/invite';
import { allows, levelLabel, rank } from '../../core/access/levels';
import { entriesAt, namedBy, wayOf, whoReaches, type AccessModel, type Grant } from '../../core/access/model';
import type { AccessRow, ReachRow, ReachSummary } from '../../core/access/rows';
import { Problem } from '../../core/acts/problem';
import { dayWordsOf } from '../../core/time/days';
import { idsOf, type Reach } from './reach';
import { loadModel } from './model';
import { answers, type Place, type Project } from '../platform/runner/act';
import type { Querier } from '../platform/db';
import { department, document, group, lock, pass, person, place } from '../platform/db/schema';
import { breadcrumb } from '../places/views-tree';

/** What everything that can be let in is called, with how many people it stands for. */
async function namesOf(db: Querier, project: Project, model: AccessModel) {
	const [departments, groups] = await Promise.all([
		db
			.select({ id: department.id, code: department.code, name: department.name })
			.from(department)
			.where(eq(department.projectId, project.id))
			.orderBy(asc(department.position)),
		db
			.select({ id: group.id, name: group.name, company: group.company })
			.from(group)
			.where(eq(group.projectId, project.id))
			.orderBy(asc(group.name))
	]);
	const companyOf = (personId: string) =>
		groups.find((g) => g.company && model.members.get(personId)?.subject.groups.includes(g.id))?.name ?? null;
	const nameOf = (kind: string, subject: string): string => {
		if (kind === 'everyone') return 'Everyone in the project';
		if (kind === 'person') return model.members.get(subject)?.name ?? 'Somebody who left';
		if (kind === 'group') return groups.find((g) => g.id === subject)?.name ?? 'A group';
		const name = departments.find((d) => d.id === subject)?.name ?? 'A department';
		return kind === 'leads' ? `Leads of ${name}` : name;
	};
	return { departments, groups, companyOf, nameOf };
}

const plural = (n: number) => `${n} ${n === 1 ? 'person' : 'people'}`;

export const access = answers(contract.access, {
	async run(context) {
		const { db, project, place: here, level, reach, now } = context;
		const model = await loadModel(db, project.id);
		const names = await namesOf(db, project, model);
		const entries = entriesAt(model, here.scope, now.getTime());
		const rows = [
			...entries.map((g) => accessRow(model, names, g, here, level, reach)),
			...(reach.desks.has(here.scope) ? [] : [controllersRow(model)])
		].sort((a, b) => kindOrder(a) - kindOrder(b));
		await nameOrigins(db, reach, rows, entries);
		const people = reachRows(model, names, here.scope, now.getTime());
		const [passes] = await db
			.select({ n: count() })
			.from(pass)
			.where(openPassesAt(project.id, idsOf(here.path), now));
		const freeze = reach.freezeAt(here.path);
		const [standing] = await db
			.select({ number: document.number, state: document.state })
			.from(document)
			.where(eq(document.id, here.id));
		return {
			place: {
				id: here.id,
				name: here.name,
				kind: here.kind,
				number: standing?.number ?? null,
				closed: here.closed,
				sensitive: here.sensitive,
				onDesk: reach.desks.has(here.scope)
			},
			freeze: freeze && {
				by: freeze.by,
				at: freeze.at.toISOString(),
				reason: freeze.reason,
				here: freeze.path === here.path
			},
			way: await breadcrumb(db, here, reach),
			level,
			can: canAt(context, standing?.state === 'archived', null),
			rows,
			people,
			passes: passes!.n,
			known:
				// Somebody outside brings people in by mail address; whom the project knows is not theirs to see (A12).
				!reach.subject.outside &&
				(allows(level, 'manage') || bringing(model, reach, here, now.getTime()).length)
					? knownSubjects(model, names, project)
					: [],
			bringing: bringing(model, reach, here, now.getTime()),
			outsideLevel: project.settings.outsideLevel
		};
	}
});

const ORDER = { everyone: 0, department: 1, leads: 2, group: 3, person: 4, controllers: 5 };
function kindOrder(row: AccessRow): number {
	return (row.level === 'barred' ? 10 : 0) + ORDER[row.kind] + (row.outside ? 0.5 : 0);
}

type Names = Awaited<ReturnType<typeof namesOf>>;

function accessRow(
	model: AccessModel,
	names: Names,
	g: Grant,
	here: Place,
	level: Parameters<typeof allows>[0],
	reach: Reach
): AccessRow {
	const people = namedBy(model, g);
	const company = g.subjectKind === 'group' && names.groups.some((x) => x.id === g.subjectId && x.company);
	const self = g.subjectKind === 'person' ? model.members.get(g.subjectId)?.subject : undefined;
	const about = {
		everyone: plural(people.length),
		department: `department, ${plural(people.length)}`,
		leads: people.map((p) => model.members.get(p)!.name).join(', ') || 'nobody yet',
		group: `${company ? 'outside' : 'group'}, ${plural(people.length)}`,
		person: self?.outside
			? `outside, ${names.companyOf(g.subjectId) ?? 'no company'}`
			: names.departments
					.filter((d) => self?.departments.includes(d.id))
					.map((d) => d.name)
					.join(', ') || 'no department'
	}[g.subjectKind];
	const above = g.underId ? findGrant(model, g.underId) : null;
	return {
		grant: g.id,
		kind: g.subjectKind,
		subject: g.subjectId,
		name: names.nameOf(g.subjectKind, g.subjectId),
		code: names.departments.find((d) => d.id === g.subjectId)?.code ?? null,
		about,
		outside: company || (self?.outside ?? false),
		people: people.length,
		level: g.level ?? 'barred',
		exactly: g.exactly,
		here: g.placeId === here.id,
		from: null,
		by: g.by,
		at: new Date(g.at).toISOString(),
		until: g.endsAt === null ? null : new Date(g.endsAt).toISOString(),
		broughtInBy: above ? names.nameOf(above.subjectKind, above.subjectId) : null,
		bringCount: g.bringCount,
		bringLevel: g.bringLevel,
		brought: g.bringCount ? [...model.grants.values()].flat().filter((x) => x.underId === g.id).length : 0,
		mayEnd:
			g.placeId === here.id &&
			(allows(level, 'manage') ||
				(g.underId !== null && g.by === model.members.get(reach.subject.personId)?.name))
	};
}

function findGrant(model: AccessModel, grantId: string): Grant | null {
	for (const list of model.grants.values()) for (const g of list) if (g.id === grantId) return g;
	return null;
}

function controllersRow(model: AccessModel): AccessRow {
	const people = [...model.members.values()].filter((m) => m.subject.controller);
	return {
		grant: null,
		kind: 'controllers',
		subject: '',
		name: 'Document controllers',
		code: null,
		about: people.map((m) => m.name).join(', '),
		outside: false,
		people: people.length,
		level: 'manage',
		exactly: false,
		here: false,
		from: null,
		by: null,
		at: new Date(0).toISOString(),
		until: null,
		broughtInBy: null,
		bringCount: 0,
		bringLevel: null,
		brought: 0,
		mayEnd: false
	};
}

/** Fills in where inherited rows come from; a place above that one may not look at stays unnamed (A10). */
async function nameOrigins(db: Querier, reach: Reach, rows: AccessRow[], entries: Grant[]): Promise<void> {
	const above = [...new Set(entries.map((g) => g.placeId))];
	if (!above.length) return;
	const named = await db
		.select({ id: place.id, name: place.name })
		.from(place)
		.where(and(inArray(place.id, above), reach.sees(place.scope)));
	for (const row of rows) {
		const at = entries.find((g) => g.id === row.grant)?.placeId;
		if (!row.here && at) row.from = named.find((n) => n.id === at) ?? null;
	}
}

/** Condition for passes that reach a place and can still be used. */
export function openPassesAt(projectId: string, way: string[], now: Date) {
	return and(
		eq(pass.projectId, projectId),
		inArray(pass.placeId, way),
		isNull(pass.withdrawnAt),
		gt(pass.endsAt, now),
		sql`(max_uses is null or uses < max_uses)`
	);
}

function reachRows(model: AccessModel, names: Names, scope: string, now: number): ReachRow[] {
	const entries = entriesAt(model, scope, now);
	const way = wayOf(model, scope);
	return whoReaches(model, scope, now).map(({ personId, level }) => {
		const { name, subject } = model.members.get(personId)!;
		const through = runsAsController(subject, way)
			? 'document controller'
			: entries
					.filter(
						(g) =>
							g.level !== null &&
							namedBy({ ...model, members: new Map([[personId, model.members.get(personId)!]]) }, g).length
					)
					.sort((a, b) => rank(b.level!) - rank(a.level!))
					.map((g) =>
						g.subjectKind === 'person' ? 'a personal grant' : names.nameOf(g.subjectKind, g.subjectId)
					)[0];
		return { person: personId, name, outside: subject.outside, level, through: through ?? '' };
	});
}

/** Everybody and everything of a project that can be let in, for reading pasted lists. */
function knownSubjects(model: AccessModel, names: Names, project: Project): Known[] {
	const members = [...model.members.entries()];
	const inside = members.filter(([, m]) => !m.subject.outside).length;
	return [
		{ kind: 'everyone', id: project.id, name: 'Everyone in the project', people: inside },
		...names.departments.map((d): Known => ({
			kind: 'department',
			id: d.id,
			name: d.name,
			code: d.code,
			people: members.filter(([, m]) => m.subject.departments.includes(d.id)).length
		})),
		...names.groups.map((g): Known => ({
			kind: 'group',
			id: g.id,
			name: g.name,
			people: members.filter(([, m]) => m.subject.groups.includes(g.id)).length,
			outside: g.company
		})),
		...members.map(([personId, m]): Known => ({
			kind: 'person',
			id: personId,
			name: m.name,
			email: m.email,
			people: 1,
			outside: m.subject.outside
		}))
	];
}

/** The reader's own grants at a place that let them bring others in, with how many are left (A8). */
function bringing(model: AccessModel, reach: Reach, here: Place, now: number) {
	const self = model.members.get(reach.subject.personId);
	if (!self) return [];
	return (model.grants.get(here.id) ?? [])
		.filter((g) => g.bringCount > 0 && g.bringLevel && (g.endsAt === null || g.endsAt > now))
		.filter((g) => namedBy({ ...model, members: new Map([[reach.subject.personId, self]]) }, g).length)
		.map((g) => ({
			grant: g.id,
			count: g.bringCount,
			left: g.bringCount - [...model.grants.values()].flat().filter((x) => x.underId === g.id).length,
			level: rank(g.bringLevel!) < rank(g.level ?? 'drop') ? g.bringLevel! : (g.level ?? 'drop'),
			until: g.endsAt === null ? null : new Date(g.endsAt).toISOString()
		}));
}

export const why = answers(contract.why, {
	async run({ db, project, place: here, reach, now }, input) {
		const model = await loadModel(db, project.id);
		const who = model.members.get(input.person);
		if (!who) throw new Problem('not-found', 'This person is not in the project.');
		const names = await namesOf(db, project, model);
		const placeIds = [...new Set([...model.grants.values()].flat().map((g) => g.placeId))].filter((p) =>
			idsOf(here.path).includes(p)
		);
		const visible = placeIds.length
			? await db
					.select({ id: place.id, name: place.name })
					.from(place)
					.where(and(inArray(place.id, placeIds), reach.sees(place.scope)))
			: [];
		const [doc] = await db.select({ state: document.state }).from(document).where(eq(document.id, here.id));
		const [held] = await db
			.select({ id: person.id, name: person.name })
			.from(lock)
			.innerJoin(person, eq(person.id, lock.holderId))
			.where(and(eq(lock.documentId, here.id), isNull(lock.endedAt)));
		const freeze = reach.freezeAt(here.path);
		const closed = await db
			.select({ name: place.name })
			.from(place)
			.where(and(inArray(place.id, idsOf(here.path)), eq(place.closed, true), reach.sees(place.scope)))
			.orderBy(place.path);
		const day = (at: number) => dayWordsOf(new Date(at), project.timeZone, now);
		const answer = explain(
			who.name,
			who.subject,
			wayOf(model, here.scope),
			{
				frozen: freeze && { by: freeze.by, at: freeze.at.getTime(), reason: freeze.reason },
				archived: doc?.state === 'archived',
				inHandOf: held && held.id !== input.person ? held.name : null,
				closed: closed.at(-1)?.name ?? null
			},
			now.getTime(),
			(g) => ({
				where:
					g.placeId === here.id
						? 'here'
						: `on ${visible.find((v) => v.id === g.placeId)?.name ?? 'a place above'}`,
				subject: names.nameOf(g.subjectKind, g.subjectId)
			}),
			day
		);
		const deciding = answer.grantId ? findGrant(model, answer.grantId) : null;
		return {
			person: { id: input.person, name: who.name, outside: who.subject.outside },
			...answer,
			levelLabel: answer.level ? levelLabel(answer.level) : 'No access',
			/** The personal grant here that could be ended or given an end. */
			own: deciding && deciding.placeId === here.id && deciding.subjectKind === 'person' ? deciding.id : null
		};
	}
});

export const reachOf = answers(contract.reachOf, {
	async run({ db, project, place: here, reach, now }) {
		const scopes = await db
			.selectDistinct({ scope: place.scope })
			.from(place)
			.where(and(eq(place.parentId, here.id), isNull(place.removalId), reach.sees(place.scope)));
		const ids = [...new Set([here.scope, ...scopes.map((s) => s.scope)])];
		const model = await loadModel(db, project.id);
		const departments = await db
			.select({ id: department.id, code: department.code })
			.from(department)
			.where(eq(department.projectId, project.id));
		const passes = await db
			.select({ place: pass.placeId, n: count() })
			.from(pass)
			.where(openPassesAt(project.id, [...new Set([...idsOf(here.path), ...ids])], now))
			.groupBy(pass.placeId);
		const summaries = ids.map((scope): ReachSummary => {
			const way = wayOf(model, scope);
			const people = [...model.members.values()].filter((m) =>
				allows(decide(m.subject, way, now.getTime()), 'view')
			);
			const codes = new Set(
				people
					.filter((m) => !m.subject.controller)
					.map((m) => departments.find((d) => m.subject.departments.includes(d.id))?.code ?? null)
			);
			const inScope = model.scopes.get(scope)?.path ?? [];
			return {
				scope,
				people: people.length,
				outside: people.filter((m) => m.subject.outside).length,
				passes: passes.filter((p) => inScope.includes(p.place!)).reduce((n, p) => n + p.n, 0),
				only: codes.size === 1 ? [...codes][0]! : null,
				closed: model.scopes.get(scope)?.closed ?? false
			};
		});
		const head = whoReaches(model, here.scope, now.getTime())
			.filter((r) => allows(r.level, 'view'))
			.map((r) => ({
				id: r.personId,
				name: model.members.get(r.personId)!.name,
				outside: model.members.get(r.personId)!.subject.outside
			}));
		return { scope: here.scope, summaries, head: head.slice(0, 7), people: head.length };
	}
});

export const mayTryAs = answers(contract.mayTryAs, {
	async run({ db, project, reach }) {
		if (!reach.subject.controller && !reach.subject.leads.length) return { people: [] };
		const rows = await db.execute<{ id: string; name: string; outside: boolean }>(sql`
			select p.id, p.name, m.outside from member m join ${person} p on p.id = m.person_id
			where m.project_id = ${project.id} and m.left_at is null and p.id <> ${reach.subject.personId} order by p.name`);
		return { people: [...rows] };
	}
});

import { and, count, eq, inArray, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/access';
import { settleBrought } from '../../core/access/brought';
import { allows, cap, rank } from '../../core/access/levels';
import { withEntry } from '../../core/access/brought';
import { crossesSight, effect, withScope, type AccessModel, type Change } from '../../core/access/model';
import type { EffectRow } from '../../core/access/rows';
import { Problem } from '../../core/acts/problem';
import { idsOf } from './reach';
import { loadModel } from './model';
import { answers } from '../platform/runner/act';
import type { Querier } from '../platform/db';
import { document, lock, place } from '../platform/db/schema';

/** Most people listed one by one. */
const MOST_LINES = 40;

/** Counts what changes of access mean: people, documents that come and go, and what those people have in hand there. */
async function counted(db: Querier, model: AccessModel, all: Change[]): Promise<EffectRow> {
	// What lies on a desk is not counted for anybody else.
	const changes = all.filter((change) => !model.scopes.get(change.scopeId)?.desk);
	const scopes = [...new Set(changes.map((c) => c.scopeId))];
	if (!scopes.length) return { people: 0, documents: 0, inHand: 0, lines: [] };
	const sizes = await db
		.select({ scope: place.scope, n: count() })
		.from(place)
		.where(and(inArray(place.scope, scopes), eq(place.kind, 'document'), isNull(place.removalId)))
		.groupBy(place.scope);
	const size = new Map(sizes.map((s) => [s.scope, s.n]));
	const locks = await db
		.select({ scope: place.scope, holder: lock.holderId, n: count() })
		.from(lock)
		.innerJoin(place, eq(place.id, lock.documentId))
		.where(and(isNull(lock.endedAt), inArray(place.scope, scopes)))
		.groupBy(place.scope, lock.holderId);
	const lines = new Map<string, EffectRow['lines'][number]>();
	const lost = new Set<string>();
	const gained = new Set<string>();
	for (const change of changes) {
		const line = lines.get(change.personId) ?? {
			name: model.members.get(change.personId)?.name ?? 'Somebody',
			lost: 0,
			gained: 0,
			lower: 0,
			higher: 0,
			inHand: 0
		};
		const n = size.get(change.scopeId) ?? 0;
		const sight = crossesSight(change);
		if (sight === 'lost') {
			line.lost += n;
			lost.add(change.scopeId);
		} else if (sight === 'gained') {
			line.gained += n;
			gained.add(change.scopeId);
		} else if (rank(change.after ?? 'drop') < rank(change.before ?? 'drop')) line.lower += n;
		else line.higher += n;
		if (!allows(change.after, 'work'))
			line.inHand += locks
				.filter((l) => l.scope === change.scopeId && l.holder === change.personId)
				.reduce((sum, l) => sum + l.n, 0);
		lines.set(change.personId, line);
	}
	const touched = lost.size ? lost : gained;
	const told = [...lines.values()].filter((l) => l.lost + l.gained + l.lower + l.higher > 0);
	return {
		people: told.length,
		documents: [...touched].reduce((sum, scope) => sum + (size.get(scope) ?? 0), 0),
		inHand: told.reduce((sum, l) => sum + l.inHand, 0),
		lines: told.sort((a, b) => b.lost + b.gained - a.lost - a.gained).slice(0, MOST_LINES)
	};
}

export const effectOfEnding = answers(contract.effectOfEnding, {
	async run({ db, project, place: here, level, person: me, now }, input) {
		const model = await loadModel(db, project.id);
		const found = (model.grants.get(here.id) ?? []).find((g) => g.id === input.grant);
		if (!found) throw new Problem('conflict', 'This grant has ended already, or stands at another place.');
		if (!allows(level, 'manage') && !(found.underId && found.byId === me.id))
			throw new Problem('needs-level', 'Ending this needs Manage here, or that you brought them in.');
		const scope = model.scopes.get(here.id)!;
		return counted(db, model, effect(model, withEntry(model, scope, found, null), now.getTime()));
	}
});

export const effectOfChange = answers(contract.effectOfChange, {
	async run({ db, project, place: here, now }, input) {
		const model = await loadModel(db, project.id);
		const found = (model.grants.get(here.id) ?? []).find((g) => g.id === input.grant);
		if (!found) throw new Problem('conflict', 'This grant has ended already, or stands at another place.');
		const level = input.level === 'barred' ? null : input.level;
		const next = {
			...found,
			level,
			exactly: found.exactly && level !== null,
			bringLevel: found.bringLevel && level ? cap(found.bringLevel, level) : null
		};
		const after = withEntry(model, model.scopes.get(here.id)!, found, next);
		return counted(db, model, effect(model, after, now.getTime()));
	}
});

export const effectOfGroup = answers(contract.effectOfGroup, {
	async run({ db, project, now }, input) {
		const model = await loadModel(db, project.id);
		const members = new Map(
			[...model.members].map(([personId, m]) => {
				const others = m.subject.groups.filter((g) => g !== input.group);
				const groups = input.people.includes(personId) ? [...others, input.group] : others;
				return [personId, { ...m, subject: { ...m.subject, groups } }] as const;
			})
		);
		return counted(db, model, effect(model, settleBrought({ ...model, members }).model, now.getTime()));
	}
});

export const effectOfClosing = answers(contract.effectOfClosing, {
	async run({ db, project, place: here, now }) {
		const model = await loadModel(db, project.id);
		const before = withScope(model, { id: here.id, path: idsOf(here.path), closed: false });
		const after = {
			...before,
			scopes: new Map([...before.scopes, [here.id, { id: here.id, path: idsOf(here.path), closed: true }]])
		};
		const changes = effect(before, after, now.getTime());
		if (model.scopes.has(here.id)) return counted(db, model, changes);
		// Not a scope of its own yet: what would go along is what now inherits through it.
		const answer = await counted(db, model, changes);
		const [inside] = await db
			.select({ n: count() })
			.from(place)
			.where(
				and(
					eq(place.projectId, project.id),
					sql`${place.path} collate "C" like ${here.path + '%'}`,
					eq(place.kind, 'document'),
					isNull(place.removalId),
					eq(place.scope, here.scope)
				)
			);
		const losing = changes.filter((c) => c.scopeId === here.id && crossesSight(c) === 'lost');
		const held = losing.length
			? await db
					.select({ n: count() })
					.from(lock)
					.innerJoin(document, eq(document.id, lock.documentId))
					.innerJoin(place, eq(place.id, document.id))
					.where(
						and(
							isNull(lock.endedAt),
							eq(place.projectId, project.id),
							sql`${place.path} collate "C" like ${here.path + '%'}`,
							inArray(
								lock.holderId,
								losing.map((c) => c.personId)
							)
						)
					)
			: [];
		return {
			people: losing.length,
			documents: losing.length ? inside!.n + answer.documents : 0,
			inHand: held[0]?.n ?? 0,
			lines: losing.slice(0, MOST_LINES).map((c) => ({
				name: model.members.get(c.personId)!.name,
				lost: inside!.n,
				gained: 0,
				lower: 0,
				higher: 0,
				inHand: 0
			}))
		};
	}
});

export const effectOfDepartments = answers(contract.effectOfDepartments, {
	async run({ db, project, now }, input) {
		const model = await loadModel(db, project.id);
		const who = model.members.get(input.person);
		if (!who) throw new Problem('not-found', 'This person is not in the project.');
		const members = new Map(model.members);
		const wanted = input.departments.split(',').filter(Boolean);
		if (input.leaving) members.delete(input.person);
		else
			members.set(input.person, {
				...who,
				subject: {
					...who.subject,
					departments: wanted.map((d) => d.replace('*', '')),
					leads: wanted.filter((d) => d.endsWith('*')).map((d) => d.replace('*', '')),
					controller: input.controller
				}
			});
		const after = settleBrought({ ...model, members }).model;
		const row = await counted(db, model, effect(model, after, now.getTime()));
		const [held] = await db
			.select({ n: count() })
			.from(lock)
			.innerJoin(document, eq(document.id, lock.documentId))
			.where(and(isNull(lock.endedAt), eq(lock.holderId, input.person), eq(document.projectId, project.id)));
		return { ...row, locks: held!.n };
	}
});

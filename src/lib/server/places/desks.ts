import { and, eq, isNull, ne, sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { Problem } from '../../core/acts/problem';
import { nameKey } from '../../core/files/names';
import { beneath, live, type Reach } from '../access/reach';
import type { Querier } from '../platform/db';
import { place } from '../platform/db/schema';
import type { Acting, ContextOf } from '../platform/runner/act';
import type { SeenPlace } from '../platform/runner/locate';

/** What a desk is called: on its person's own pages, and to document controllers once that person has left. */
export const deskName = (name: string) => `Desk of ${name}`;

/** Condition that leaves out what lies on anybody's desk, by the scope of its place; nothing there is one of its own. */
export function offDesks(scope: PgColumn): SQL {
	return sql`not exists (select 1 from place desk where desk.id = ${scope} and desk.desk_of is not null)`;
}

/** Whether a place lies on somebody's desk. */
export async function isOnDesk(db: Querier, placeId: string): Promise<boolean> {
	const [row] = await db
		.select({ id: place.id })
		.from(place)
		.where(and(eq(place.id, placeId), offDesks(place.scope)));
	return !row;
}

/** Somebody's desk in a project. */
export async function deskOf(db: Querier, projectId: string, personId: string) {
	const [row] = await db
		.select({ id: place.id })
		.from(place)
		.where(and(eq(place.projectId, projectId), eq(place.deskOf, personId)));
	return row ?? null;
}

/** Why something stays off a desk, by what was found at it. */
const STAYS = {
	access: (name: string) => `“${name}” has access of its own. Let it inherit again first.`,
	frozen: (name: string) => `“${name}” is frozen, and nobody could thaw it on a desk. Thaw it first.`,
	link: (name: string) => `A pass or hatch leads to “${name}”, and none leads to a desk. Withdraw it first.`,
	others: (name: string) =>
		`“${name}” is not yours alone: others opened it or worked on it. It stays where they find it; a copy can lie on your desk.`
} as const;

/**
 * Refuses to move onto a desk what is not its person's alone: what somebody else ever opened, took or changed would be
 * gone for them, and for document control. Nor goes there what only Manage could undo, which nobody has on a desk.
 * @throws Problem `conflict` that names the first such place
 */
export async function checkOntoDesk(
	{ tx, reach, person: by }: Pick<ContextOf['project'] & Acting, 'tx' | 'person'> & { reach: Reach },
	moved: readonly Pick<SeenPlace, 'path' | 'scope'>[],
	target: Pick<SeenPlace, 'scope'>
): Promise<void> {
	if (!reach.desks.has(target.scope)) return;
	for (const one of moved.filter((p) => p.scope !== target.scope)) {
		const [first] = await tx.execute<{ name: string; why: keyof typeof STAYS }>(sql`
			select name, why from ${place} cross join lateral (select case
				when ${place.scope} = ${place.id} then 'access'
				when ${place.frozenAt} is not null then 'frozen'
				when exists (select 1 from pass p where p.place_id = ${place.id} and p.withdrawn_at is null)
					or exists (select 1 from hatch h where h.place_id = ${place.id} and h.withdrawn_at is null) then 'link'
				when ${ne(place.createdBy, by.id)}
					or exists (select 1 from event e where e.document_id = ${place.id} and e.actor <> ${by.id})
					or exists (select 1 from release_item i where i.document_id = ${place.id}) then 'others'
			end as why) found
			where ${eq(place.projectId, reach.subject.projectId)} and ${beneath(one.path)} and why is not null
			limit 1`);
		if (first) throw new Problem('conflict', STAYS[first.why](first.name));
	}
}

/** Makes the desk of somebody who leaves a shelf of the project, so that document control finds what they left. */
export async function giveUpDesk(
	{ tx, project }: Pick<ContextOf['project'] & Acting, 'tx' | 'project'>,
	who: { id: string; name: string }
): Promise<boolean> {
	const desk = await deskOf(tx, project.id, who.id);
	if (!desk) return false;
	const wanted = deskName(who.name);
	const taken = await tx
		.select({ key: place.nameKey })
		.from(place)
		.where(
			and(
				eq(place.projectId, project.id),
				isNull(place.parentId),
				live(),
				sql`${place.nameKey} like ${nameKey(wanted).replaceAll(/[%_\\]/g, '\\$&') + '%'}`
			)
		);
	const keys = new Set(taken.map((row) => row.key));
	let name = wanted;
	for (let n = 2; keys.has(nameKey(name)); n++) name = `${wanted} (${n})`;
	await tx
		.update(place)
		.set({ deskOf: null, name, nameKey: nameKey(name) })
		.where(eq(place.id, desk.id));
	return true;
}

/** Refuses documents that lie on a desk for what leaves the project. */
export function checkOffDesk(reach: Reach, chosen: readonly Pick<SeenPlace, 'scope' | 'name'>[]): void {
	const first = chosen.find((one) => reach.desks.has(one.scope));
	if (first)
		throw new Problem(
			'conflict',
			`“${first.name}” lies on your desk. Move it to a shelf first, where others find it.`
		);
}

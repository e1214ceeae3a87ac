import { and, eq, inArray } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { nameKey } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import type { Tx } from '../platform/db';
import { grant, group, groupMember, member, place } from '../platform/db/schema';
import { foldScope, holdTree } from '../access/scopes';
import { keepBrought } from '../access/brought';
import { does } from '../platform/runner/act';

async function groupIn(tx: Tx, projectId: string, groupId: string) {
	const [row] = await tx
		.select()
		.from(group)
		.where(and(eq(group.id, groupId), eq(group.projectId, projectId)))
		.for('update');
	if (!row) throw new Problem('not-found', 'There is no such group in this project.');
	return row;
}

export const makeGroup = does(contract.makeGroup, {
	async run({ tx, project, now, newId, tell }, input) {
		const groupId = newId();
		await tx.insert(group).values({
			id: groupId,
			projectId: project.id,
			name: input.name,
			nameKey: nameKey(input.name),
			createdAt: now
		});
		await putMembers(tx, project.id, { id: groupId, name: input.name, company: false }, input.people);
		tell({ kind: 'group.made', details: { name: input.name, people: input.people.length } });
		return { id: groupId };
	}
});

/** Makes the list of a group's people exactly this. Outside people belong to their company and may be in groups too. */
async function putMembers(
	tx: Tx,
	projectId: string,
	of: { id: string; name: string; company: boolean },
	people: string[]
): Promise<void> {
	const ids = [...new Set(people)];
	const known = ids.length
		? await tx
				.select({ id: member.personId, outside: member.outside })
				.from(member)
				.where(and(eq(member.projectId, projectId), inArray(member.personId, ids)))
		: [];
	if (known.length !== ids.length) throw new Problem('invalid', 'Somebody chosen is not in this project.');
	if (of.company && known.some((k) => !k.outside))
		throw new Problem('invalid', `${of.name} is a company outside; people inside cannot belong to it.`);
	await tx.delete(groupMember).where(eq(groupMember.groupId, of.id));
	if (ids.length) await tx.insert(groupMember).values(ids.map((personId) => ({ groupId: of.id, personId })));
}

export const changeGroup = does(contract.changeGroup, {
	async run(context, input) {
		const { tx, project, tell } = context;
		await holdTree(tx, project.id);
		const row = await groupIn(tx, project.id, input.group);
		const there = await tx
			.select({ id: groupMember.personId })
			.from(groupMember)
			.where(eq(groupMember.groupId, row.id));
		const people = new Set(input.people);
		if (input.name === row.name && there.length === people.size && there.every((t) => people.has(t.id)))
			return {};
		await tx
			.update(group)
			.set({ name: input.name, nameKey: nameKey(input.name) })
			.where(eq(group.id, row.id));
		await putMembers(tx, project.id, row, input.people);
		await keepBrought(context);
		tell({
			kind: 'group.changed',
			details: { name: input.name, before: row.name, people: input.people.length }
		});
		return {};
	}
});

export const endGroup = does(contract.endGroup, {
	async run(context, input) {
		const { tx, project, tell } = context;
		await holdTree(tx, project.id);
		const row = await groupIn(tx, project.id, input.group);
		if (row.company)
			throw new Problem(
				'conflict',
				'A company stays as long as its people are in the project. Let them leave first.'
			);
		await tx.delete(groupMember).where(eq(groupMember.groupId, row.id));
		await keepBrought(context);
		const gone = await tx
			.delete(grant)
			.where(and(eq(grant.subjectKind, 'group'), eq(grant.subjectId, row.id)))
			.returning({ placeId: grant.placeId });
		await tx.delete(group).where(eq(group.id, row.id));
		for (const { placeId } of gone) {
			const [at] = await tx.select().from(place).where(eq(place.id, placeId));
			await foldScope(tx, at!);
		}
		tell({ kind: 'group.ended', details: { name: row.name, grants: gone.length } });
		return {};
	}
});

import { and, eq, isNull, sql } from 'drizzle-orm';
import type { z } from 'zod';
import * as contract from '../../contract/people';
import { Problem } from '../../core/acts/problem';
import { nameKey } from '../../core/files/names';
import { cameIn, inviteLink, isOwnAddress, joinInside, joinOutside } from '../access/newcomers';
import { department, departmentMember, group, groupMember, member, person } from '../platform/db/schema';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { othersControlled } from './controls';

type InProject = ContextOf['project'] & Acting;
type Newcomer = z.output<typeof contract.addPeople.input>['people'][number];

/**
 * Puts somebody into a project, known by their mail address or made, and writes to them.
 * @returns their id
 * @throws Problem `invalid` for a department that cannot be theirs, `conflict` for who is in the project already
 */
async function join(context: InProject, input: Newcomer): Promise<string> {
	const { tx, project: here, person: by, now, newId, services, tell, mail } = context;
	if (input.lead && !input.department)
		throw new Problem('invalid', 'A lead leads a department. Choose which.', { field: 'department' });
	if (input.department) {
		const [found] = await tx
			.select()
			.from(department)
			.where(and(eq(department.id, input.department), eq(department.projectId, here.id)));
		if (!found)
			throw new Problem('invalid', 'This department is not in the project.', { field: 'department' });
	}
	const outside = !isOwnAddress(here, input.email);
	if (outside && (input.department || input.controller))
		throw new Problem(
			'invalid',
			`${input.email} is not of ${here.settings.ownDomains.join(' or ')}, so ${input.name} comes from outside and belongs to no department. Let them in at a place instead, or add the domain to the project’s own in the settings.`,
			{ field: 'email' }
		);
	const [known] = await tx.select().from(person).where(eq(person.email, input.email));
	const personId = known?.id ?? newId();
	if (!known)
		await tx.insert(person).values({ id: personId, name: input.name, email: input.email, createdAt: now });
	const [already] = await tx
		.select()
		.from(member)
		.where(and(eq(member.projectId, here.id), eq(member.personId, personId), isNull(member.leftAt)));
	if (already) {
		const never = !(await cameIn(tx, personId));
		throw new Problem(
			'conflict',
			never
				? `${known!.name} (${input.email}) was invited before and has not come in. Invite them again.`
				: `${known!.name} (${input.email}) is in this project already.`,
			{ field: 'email', ...(never ? { inviteAgain: personId } : {}) }
		);
	}
	// Somebody who left and comes back has their place again, and what was given then stays ended.
	if (outside) await joinOutside(tx, here, { personId, email: input.email }, { newId, now });
	else {
		await joinInside(tx, here, personId, { now });
		await tx
			.update(member)
			.set({ controller: input.controller })
			.where(and(eq(member.projectId, here.id), eq(member.personId, personId)));
	}
	if (known?.closedAt) await tx.update(person).set({ closedAt: null }).where(eq(person.id, personId));
	if (input.department)
		await tx.insert(departmentMember).values({ departmentId: input.department, personId, lead: input.lead });
	const personName = known?.name ?? input.name;
	const invited = (await cameIn(tx, personId))
		? null
		: await inviteLink(tx, services, personId, now, { projectId: here.id, placeId: null });
	const way = invited?.asks ?? {
		link: { word: 'Sign in', href: `${services.config.origin}/${here.code.toLowerCase()}/today` },
		after: ['You sign in with the password you have.']
	};
	await mail(
		{ name: personName, address: input.email },
		`${here.code}: you have been added to ${here.name}`,
		{ says: [`${by.name} has added you to the project ${here.name} in Cupboard.`], ...way },
		invited ? [invited.link] : []
	);
	tell({
		kind: 'person.added',
		details: {
			person: personId,
			name: personName,
			department: input.department,
			lead: input.lead,
			controller: input.controller,
			outside
		}
	});
	return personId;
}

export const addPerson = does(contract.addPerson, {
	run: async (context, input) => ({ id: await join(context, input) })
});

export const addPeople = does(contract.addPeople, {
	async run(context, input) {
		const people: { id: string }[] = [];
		for (const [i, one] of input.people.entries())
			try {
				people.push({ id: await join(context, one) });
			} catch (error) {
				// What is wrong stands at its line; nobody has joined.
				if (error instanceof Problem)
					throw new Problem(error.code, error.sentence, { ...error.facts, line: i + 1 });
				throw error;
			}
		return { people };
	}
});

export const bringGroup = does(contract.bringGroup, {
	async run(context, input) {
		const { tx, project: here, person: by, now, newId, tell } = context;
		const [from] = await tx.select().from(group).where(eq(group.id, input.group));
		// A group of a project that one does not control does not exist for one (A10).
		const controlled = await othersControlled(tx, by.id, here.id);
		if (!from || !controlled.some((one) => one.id === from.projectId))
			throw new Problem('not-found', 'There is no such group in another project of yours.');
		const people = await tx
			.select({ id: person.id, name: person.name, email: person.email, there: member.personId })
			.from(groupMember)
			.innerJoin(person, and(eq(person.id, groupMember.personId), isNull(person.closedAt)))
			.leftJoin(
				member,
				and(eq(member.personId, person.id), eq(member.projectId, here.id), isNull(member.leftAt))
			)
			.where(eq(groupMember.groupId, from.id))
			.orderBy(person.name);
		const fresh = people.filter((one) => one.there === null);
		for (const { name, email } of fresh)
			await join(context, { name, email, department: null, lead: false, controller: false });
		if (from.company) return { group: null, joined: fresh.length };
		const [same] = await tx
			.select()
			.from(group)
			.where(and(eq(group.projectId, here.id), eq(group.nameKey, nameKey(from.name))))
			.for('update');
		if (same?.company)
			throw new Problem(
				'conflict',
				`A company outside is called ${same.name} here. Rename one of them first.`
			);
		const id = same?.id ?? newId();
		if (!same)
			await tx.insert(group).values({
				id,
				projectId: here.id,
				name: from.name,
				nameKey: nameKey(from.name),
				createdAt: now
			});
		if (people.length)
			await tx
				.insert(groupMember)
				.values(people.map((one) => ({ groupId: id, personId: one.id })))
				.onConflictDoNothing();
		const [{ n } = { n: 0 }] = await tx
			.select({ n: sql<number>`count(*)::int` })
			.from(groupMember)
			.where(eq(groupMember.groupId, id));
		if (same) tell({ kind: 'group.changed', details: { name: same.name, before: same.name, people: n } });
		else tell({ kind: 'group.made', details: { name: from.name, people: n } });
		return { group: id, joined: fresh.length };
	}
});

import { and, asc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { Problem } from '../../core/acts/problem';
import { idsOf } from '../access/reach';
import type { Tx } from '../platform/db';
import {
	apiToken,
	department,
	departmentMember,
	document,
	grant,
	group,
	groupMember,
	hatch,
	invitation,
	lock,
	member,
	pass,
	person,
	place,
	session
} from '../platform/db/schema';
import { tellNotices } from '../notices/tell';
import { foldScope, holdTree } from '../access/scopes';
import { giveUpDesk } from '../places/desks';
import { keepBrought } from '../access/brought';
import { does, type Acting, type ContextOf } from '../platform/runner/act';

type InProject = ContextOf['project'] & Acting;

export async function memberIn({ tx, project: here }: Pick<InProject, 'tx' | 'project'>, personId: string) {
	const [row] = await tx
		.select({ member, name: person.name, email: person.email, twoStep: person.twoFactorEnabled })
		.from(member)
		.innerJoin(person, eq(person.id, member.personId))
		.where(and(eq(member.projectId, here.id), eq(member.personId, personId), isNull(member.leftAt)))
		.for('update', { of: member });
	if (!row) throw new Problem('not-found', 'This person is not in the project.');
	return row;
}

/** Refuses what would leave a project without a document controller. */
export async function keepController(
	{ tx, project: here }: Pick<InProject, 'tx' | 'project'>,
	personId: string
) {
	const [other] = await tx
		.select({ id: member.personId })
		.from(member)
		.where(
			and(
				eq(member.projectId, here.id),
				eq(member.controller, true),
				ne(member.personId, personId),
				isNull(member.leftAt),
				isNull(member.blockedAt)
			)
		)
		.limit(1);
	if (!other)
		throw new Problem(
			'conflict',
			'This is the last document controller of the project. Make somebody else one first.'
		);
}

export const setDepartments = does(contract.setDepartments, {
	async run(context, input) {
		const { tx, project: here, tell } = context;
		await holdTree(tx, here.id);
		const who = await memberIn(context, input.person);
		if (who.member.outside && (input.departments.length || input.controller))
			throw new Problem('invalid', `${who.name} is outside and belongs to a company, not to a department.`);
		if (!input.controller && who.member.controller) await keepController(context, input.person);
		const known = await tx
			.select({ id: department.id, name: department.name })
			.from(department)
			.where(eq(department.projectId, here.id));
		const wanted = input.departments.map((d) => ({
			...d,
			name: known.find((k) => k.id === d.department)?.name
		}));
		if (wanted.some((d) => !d.name) || new Set(wanted.map((d) => d.department)).size !== wanted.length)
			throw new Problem('invalid', 'A department is named twice, or is not in this project.');
		const inDepartments = and(
			eq(departmentMember.personId, input.person),
			inArray(departmentMember.departmentId, [...known.map((k) => k.id), ''])
		);
		const before = await tx.select().from(departmentMember).where(inDepartments);
		const asked = (id: string, lead: boolean) => wanted.some((w) => w.department === id && w.lead === lead);
		if (
			before.length === wanted.length &&
			before.every((o) => asked(o.departmentId, o.lead)) &&
			who.member.controller === input.controller
		)
			return {};
		const old = await tx.delete(departmentMember).where(inDepartments).returning();
		if (wanted.length)
			await tx
				.insert(departmentMember)
				.values(wanted.map((d) => ({ departmentId: d.department, personId: input.person, lead: d.lead })));
		await tx
			.update(member)
			.set({ controller: input.controller })
			.where(and(eq(member.projectId, here.id), eq(member.personId, input.person)));
		await keepBrought(context);
		const words = (list: { name?: string | undefined; lead: boolean }[]) =>
			list.map((d) => `${d.name}${d.lead ? ' (lead)' : ''}`).join(', ') || 'no department';
		tell({
			kind: 'person.moved',
			details: {
				person: input.person,
				name: who.name,
				from: words(
					old.map((o) => ({ name: known.find((k) => k.id === o.departmentId)?.name, lead: o.lead }))
				),
				to: words(wanted),
				controller: input.controller
			}
		});
		return {};
	}
});

export const leavePerson = does(contract.leavePerson, {
	async run(context, input) {
		const { tx, project: here, person: by, now, tell } = context;
		if (input.person === by.id)
			throw new Problem('conflict', 'You cannot close yourself. Ask another document controller.');
		await holdTree(tx, here.id);
		const who = await memberIn(context, input.person);
		if (who.member.controller) await keepController(context, input.person);
		const desk = await giveUpDesk(context, { id: input.person, name: who.name });
		const locks = await handLocksOver(context, { id: input.person, name: who.name });
		const passes = await endPasses(context, input.person);
		const departments = await tx
			.select({ id: department.id })
			.from(department)
			.where(eq(department.projectId, here.id));
		await tx
			.delete(departmentMember)
			.where(
				and(
					eq(departmentMember.personId, input.person),
					inArray(departmentMember.departmentId, [...departments.map((d) => d.id), ''])
				)
			);
		await tx
			.delete(groupMember)
			.where(
				and(
					eq(groupMember.personId, input.person),
					inArray(
						groupMember.groupId,
						tx.select({ id: group.id }).from(group).where(eq(group.projectId, here.id))
					)
				)
			);
		await tx
			.update(member)
			.set({ leftAt: now, controller: false })
			.where(and(eq(member.projectId, here.id), eq(member.personId, input.person)));
		// Whom they brought in goes with them, told one by one (A8), before their own grants end.
		await keepBrought(context);
		const grants = await endOwnGrants(context, input.person);
		await tx.delete(session).where(eq(session.userId, input.person));
		await tx
			.update(apiToken)
			.set({ withdrawnAt: now })
			.where(and(eq(apiToken.personId, input.person), isNull(apiToken.withdrawnAt)));
		const [elsewhere] = await tx
			.select({ id: member.projectId })
			.from(member)
			.where(and(eq(member.personId, input.person), isNull(member.leftAt)))
			.limit(1);
		if (!elsewhere) {
			await tx.update(person).set({ closedAt: now }).where(eq(person.id, input.person));
			await tx
				.update(invitation)
				.set({ usedAt: now })
				.where(and(eq(invitation.personId, input.person), isNull(invitation.usedAt)));
		}
		tell({
			kind: 'person.left',
			details: {
				person: input.person,
				name: who.name,
				reason: input.reason,
				locks,
				passes,
				grants,
				closed: !elsewhere,
				...(desk ? { desk } : {})
			}
		});
		return { locks, passes, grants, closed: !elsewhere };
	}
});

/** Gives every lock of somebody to a lead of the shelf's department, or to the controller who closes them. */
async function handLocksOver(context: InProject, from: { id: string; name: string }): Promise<number> {
	const { tx, project: here, person: by, now, newId, tell } = context;
	const held = await tx
		.select({ lock, number: document.number, title: document.title, path: place.path })
		.from(lock)
		.innerJoin(document, eq(document.id, lock.documentId))
		.innerJoin(place, eq(place.id, document.id))
		.where(and(eq(lock.holderId, from.id), isNull(lock.endedAt), eq(document.projectId, here.id)))
		.orderBy(asc(document.id));
	for (const one of held) {
		const to = (await leadOfShelf(tx, idsOf(one.path)[0]!, from.id)) ?? by;
		await tx.update(lock).set({ endedAt: now, endedHow: 'handed-over' }).where(eq(lock.id, one.lock.id));
		await tx.insert(lock).values({
			id: newId(),
			documentId: one.lock.documentId,
			holderId: to.id,
			purpose: one.lock.purpose,
			takenAt: now,
			expectedEnd: null,
			baseVersionId: one.lock.baseVersionId
		});
		tell({
			kind: 'lock.handed-over',
			placeId: one.lock.documentId,
			documentId: one.lock.documentId,
			details: { number: one.number, from: from.name, to: to.name }
		});
		await tellNotices(context, {
			kind: 'lock-came',
			people: [to.id],
			placeId: one.lock.documentId,
			sentence: `${one.number} ${one.title} came into your hand, since ${from.name} has left.`,
			way: `document/${one.lock.documentId}`
		});
	}
	return held.length;
}

async function leadOfShelf(tx: Tx, shelf: string, not: string): Promise<{ id: string; name: string } | null> {
	const [row] = await tx
		.select({ id: person.id, name: person.name })
		.from(place)
		.innerJoin(departmentMember, eq(departmentMember.departmentId, place.departmentId))
		.innerJoin(person, eq(person.id, departmentMember.personId))
		.innerJoin(member, and(eq(member.personId, person.id), eq(member.projectId, place.projectId)))
		.where(
			and(eq(place.id, shelf), eq(departmentMember.lead, true), ne(person.id, not), isNull(member.leftAt))
		)
		.orderBy(asc(person.name))
		.limit(1);
	return row ?? null;
}

/** Passes and hatches somebody made do not outlast them. */
async function endPasses(context: InProject, personId: string): Promise<number> {
	const { tx, project: here, person: by, now, tell } = context;
	const ended = await tx
		.update(pass)
		.set({ withdrawnAt: now, withdrawnBy: by.id })
		.where(
			and(
				eq(pass.projectId, here.id),
				eq(pass.createdBy, personId),
				sql`release_id is null`,
				isNull(pass.withdrawnAt)
			)
		)
		.returning();
	for (const one of ended)
		tell({
			kind: 'pass.withdrawn',
			placeId: one.placeId,
			details: { pass: one.id, holder: one.holderName }
		});
	const hatches = await tx
		.update(hatch)
		.set({ withdrawnAt: now })
		.where(and(eq(hatch.projectId, here.id), eq(hatch.createdBy, personId), isNull(hatch.withdrawnAt)))
		.returning({ id: hatch.id });
	return ended.length + hatches.length;
}

async function endOwnGrants({ tx, project: here }: InProject, personId: string): Promise<number> {
	const own = await tx
		.select({ id: grant.id, place })
		.from(grant)
		.innerJoin(place, eq(place.id, grant.placeId))
		.where(and(eq(place.projectId, here.id), eq(grant.subjectKind, 'person'), eq(grant.subjectId, personId)));
	if (!own.length) return 0;
	await tx.delete(grant).where(
		inArray(
			grant.id,
			own.map((o) => o.id)
		)
	);
	for (const at of new Map(own.map((o) => [o.place.id, o.place])).values()) await foldScope(tx, at);
	return own.length;
}

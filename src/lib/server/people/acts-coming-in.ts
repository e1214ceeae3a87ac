import { and, eq, inArray } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { Problem } from '../../core/acts/problem';
import { group, groupMember, member, session } from '../platform/db/schema';
import { holdTree } from '../access/scopes';
import { keepBrought } from '../access/brought';
import { cameIn, inviteLink } from '../access/newcomers';
import { does } from '../platform/runner/act';
import { keepController, memberIn } from './acts-membership';

export const inviteAgain = does(contract.inviteAgain, {
	async run(context, input) {
		const { tx, project: here, person: by, services, now, tell, mail } = context;
		const who = await memberIn(context, input.person);
		if (await cameIn(tx, input.person))
			throw new Problem(
				'conflict',
				`${who.name} has come in and has a password. A forgotten one is renewed from the sign-in page.`
			);
		const invited = await inviteLink(tx, services, input.person, now, { projectId: here.id, placeId: null });
		await mail(
			{ name: who.name, address: who.email },
			`${here.code}: your invitation to ${here.name}`,
			{ says: [`${by.name} invites you again to the project ${here.name} in Cupboard.`], ...invited.asks },
			[invited.link]
		);
		tell({ kind: 'person.invited', details: { person: input.person, name: who.name } });
		return {};
	}
});

export const blockPerson = does(contract.blockPerson, {
	async run(context, input) {
		const { tx, project: here, person: by, now, tell } = context;
		if (input.person === by.id) throw new Problem('conflict', 'You cannot keep yourself out.');
		const who = await memberIn(context, input.person);
		if (who.member.blockedAt) throw new Problem('conflict', `${who.name} is kept out already.`);
		if (who.member.controller) await keepController(context, input.person);
		await tx
			.update(member)
			.set({ blockedAt: now, blockedReason: input.reason })
			.where(and(eq(member.projectId, here.id), eq(member.personId, input.person)));
		await tx.delete(session).where(eq(session.userId, input.person));
		tell({
			kind: 'person.blocked',
			details: { person: input.person, name: who.name, reason: input.reason }
		});
		return {};
	}
});

export const unblockPerson = does(contract.unblockPerson, {
	async run(context, input) {
		const { tx, project: here, tell } = context;
		const who = await memberIn(context, input.person);
		if (!who.member.blockedAt) throw new Problem('conflict', `${who.name} is not kept out.`);
		await tx
			.update(member)
			.set({ blockedAt: null, blockedReason: null })
			.where(and(eq(member.projectId, here.id), eq(member.personId, input.person)));
		tell({ kind: 'person.unblocked', details: { person: input.person, name: who.name } });
		return {};
	}
});

export const moveInside = does(contract.moveInside, {
	async run(context, input) {
		const { tx, project: here, tell } = context;
		await holdTree(tx, here.id);
		const who = await memberIn(context, input.person);
		if (!who.member.outside) throw new Problem('conflict', `${who.name} is inside already.`);
		await tx
			.update(member)
			.set({ outside: false })
			.where(and(eq(member.projectId, here.id), eq(member.personId, input.person)));
		const companies = await tx
			.select({ id: group.id })
			.from(group)
			.where(and(eq(group.projectId, here.id), eq(group.company, true)));
		await tx
			.delete(groupMember)
			.where(
				and(
					eq(groupMember.personId, input.person),
					inArray(groupMember.groupId, [...companies.map((c) => c.id), ''])
				)
			);
		await keepBrought(context);
		tell({ kind: 'person.moved-inside', details: { person: input.person, name: who.name } });
		return {};
	}
});

import { and, count, eq, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { Problem } from '../../core/acts/problem';
import { department, departmentMember, member, person, project, recipient } from '../platform/db/schema';
import { cameIn, inviteLink, isOwnAddress, joinInside, joinOutside } from '../access/newcomers';
import { does } from '../platform/runner/act';
import { firstSettings } from './first-settings';

export const makeProject = does(contract.makeProject, {
	async run({ tx, person: by, now, newId, tell }, input) {
		const [{ n: projects } = { n: 0 }] = await tx.select({ n: count() }).from(project);
		const [{ n: controls } = { n: 0 }] = await tx
			.select({ n: count() })
			.from(member)
			.where(and(eq(member.personId, by.id), eq(member.controller, true)));
		if (projects > 0 && controls === 0)
			throw new Problem('needs-level', 'Only a document controller can make a project.');
		const projectId = newId();
		await tx.insert(project).values({
			id: projectId,
			code: input.code,
			name: input.name,
			client: input.client,
			timeZone: input.timeZone,
			nextRelease: input.firstRelease,
			settings: firstSettings(input.code, by.email.split('@')[1]!),
			createdAt: now
		});
		await tx
			.insert(member)
			.values({ projectId, personId: by.id, controller: true, seenUntil: now, createdAt: now });
		tell({ kind: 'project.made', details: { code: input.code, name: input.name } }, projectId);
		return { id: projectId, code: input.code };
	}
});

export const makeDepartment = does(contract.makeDepartment, {
	async run({ tx, project: here, now, newId, tell }, input) {
		const departmentId = newId();
		const [fresh] = await tx.select().from(project).where(eq(project.id, here.id)).for('update');
		const [{ n } = { n: 0 }] = await tx
			.select({ n: count() })
			.from(department)
			.where(eq(department.projectId, here.id));
		await tx.insert(department).values({
			id: departmentId,
			projectId: here.id,
			code: input.code,
			name: input.name,
			position: n,
			createdAt: now
		});
		const settings = structuredClone(fresh!.settings);
		const part = settings.numbering.parts.find((p) => p.key === 'department');
		if (part) part.values = [...(part.values ?? []), { code: input.code, name: input.name }];
		await tx.update(project).set({ settings }).where(eq(project.id, here.id));
		tell({ kind: 'department.made', details: { code: input.code, name: input.name } });
		return { id: departmentId };
	}
});

export const addPerson = does(contract.addPerson, {
	async run({ tx, project: here, person: by, now, newId, services, tell, mail }, input) {
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
			await tx
				.insert(departmentMember)
				.values({ departmentId: input.department, personId, lead: input.lead });
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
		return { id: personId };
	}
});

export const addRecipient = does(contract.addRecipient, {
	async run({ tx, project: here, now, newId, tell }, input) {
		const recipientId = newId();
		await tx.insert(recipient).values({
			id: recipientId,
			projectId: here.id,
			name: input.name,
			company: input.company,
			email: input.email,
			createdAt: now
		});
		tell({ kind: 'recipient.added', details: { name: input.name, company: input.company } });
		return { id: recipientId };
	}
});

export const markProjectSeen = does(contract.markProjectSeen, {
	async run({ tx, project: here, person: by, now }) {
		await tx
			.update(member)
			.set({ seenUntil: sql`greatest(${member.seenUntil}, ${now.toISOString()}::timestamptz)` })
			.where(and(eq(member.projectId, here.id), eq(member.personId, by.id)));
		return {};
	}
});

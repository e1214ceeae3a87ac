import { and, count, eq, sql } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { Problem } from '../../core/acts/problem';
import { department, member, project, recipient } from '../platform/db/schema';
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

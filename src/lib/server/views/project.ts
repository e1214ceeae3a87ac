import { and, asc, desc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { allows } from '../../core/access/levels';
import { defineView } from '../acts/act';
import { projectKey } from '../acts/fields';
import {
	apiToken,
	department,
	departmentMember,
	document,
	group,
	groupMember,
	mail,
	member,
	person,
	place,
	project,
	recipient,
	removal
} from '../db/schema';

export const myProjects = defineView({
	name: 'myProjects',
	summary: 'The projects you are in',
	path: '/projects',
	input: z.object({}),
	at: { kind: 'self' },
	async run({ db, person: me }) {
		const rows = await db
			.select({ id: project.id, code: project.code, name: project.name, controller: member.controller })
			.from(member)
			.innerJoin(project, eq(project.id, member.projectId))
			.where(and(eq(member.personId, me.id), isNull(member.leftAt)))
			.orderBy(asc(project.name));
		const [any] = await db.select({ n: sql<number>`count(*)::int` }).from(project);
		return { projects: rows, mayMake: any!.n === 0 || rows.some((r) => r.controller) };
	}
});

export const mySecurity = defineView({
	name: 'mySecurity',
	summary: 'How you sign in',
	path: '/me/security',
	input: z.object({}),
	at: { kind: 'self' },
	async run({ db, person: me }) {
		const [row] = await db
			.select({ twoStep: person.twoFactorEnabled })
			.from(person)
			.where(eq(person.id, me.id));
		return { twoStep: row!.twoStep };
	}
});

export const people = defineView({
	name: 'people',
	summary: 'The departments of a project with their people',
	path: '/projects/{project}/people',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project: here, reach }) {
		const departments = await db
			.select({ id: department.id, code: department.code, name: department.name })
			.from(department)
			.where(eq(department.projectId, here.id))
			.orderBy(asc(department.position));
		const members = await db
			.select({
				id: person.id,
				name: person.name,
				email: person.email,
				controller: member.controller,
				outside: member.outside,
				twoStep: person.twoFactorEnabled,
				departmentId: departmentMember.departmentId,
				lead: departmentMember.lead
			})
			.from(member)
			.innerJoin(person, eq(person.id, member.personId))
			.leftJoin(
				departmentMember,
				sql`${departmentMember.personId} = ${person.id} and ${departmentMember.departmentId} in (select id from department where project_id = ${here.id})`
			)
			.where(and(eq(member.projectId, here.id), isNull(member.leftAt)))
			.orderBy(asc(person.name));
		const recipients = reach.subject.controller
			? await db
					.select({
						id: recipient.id,
						name: recipient.name,
						company: recipient.company,
						email: recipient.email
					})
					.from(recipient)
					.where(eq(recipient.projectId, here.id))
					.orderBy(asc(recipient.name))
			: [];
		const groups = await db
			.select({ id: group.id, name: group.name, company: group.company })
			.from(group)
			.where(eq(group.projectId, here.id))
			.orderBy(asc(group.name));
		const inGroups = await db
			.select({ group: groupMember.groupId, person: groupMember.personId })
			.from(groupMember)
			.innerJoin(group, eq(group.id, groupMember.groupId))
			.where(eq(group.projectId, here.id));
		return {
			departments,
			members,
			recipients,
			groups: groups.map((g) => ({
				...g,
				people: inGroups.filter((i) => i.group === g.id).map((i) => i.person)
			}))
		};
	}
});

export const removed = defineView({
	name: 'removed',
	summary: 'What was removed and can still be restored',
	path: '/projects/{project}/removed',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project: here, reach, person: me, now }) {
		const since = new Date(now.getTime() - here.settings.retentionDays * 86_400_000).toISOString();
		const rows = await db
			.select({
				id: place.id,
				kind: place.kind,
				name: place.name,
				number: document.number,
				scope: place.scope,
				path: place.path,
				removal: removal.id,
				root: sql<boolean>`${removal.placeId} = ${place.id}`,
				reason: removal.reason,
				at: removal.removedAt,
				by: person.name,
				byId: removal.removedBy,
				documents: removal.documents
			})
			.from(place)
			.innerJoin(removal, eq(removal.id, place.removalId))
			.innerJoin(person, eq(person.id, removal.removedBy))
			.leftJoin(document, eq(document.id, place.id))
			.where(and(eq(place.projectId, here.id), reach.sees(place.scope), sql`${removal.removedAt} > ${since}`))
			.orderBy(desc(removal.removedAt), asc(place.path))
			.limit(5_000);
		return {
			rows: rows.map(({ scope, byId, at, path, ...row }) => ({
				...row,
				at: at.toISOString(),
				depth: path.length / 10,
				until: new Date(at.getTime() + here.settings.retentionDays * 86_400_000).toISOString(),
				mayRestore: byId === me.id || allows(reach.level(scope), 'tidy')
			}))
		};
	}
});

export const outbox = defineView({
	name: 'outbox',
	summary: 'The mail that Cupboard sent for a project',
	path: '/projects/{project}/outbox',
	input: z.object({ project: projectKey, limit: z.coerce.number().int().min(1).max(500).default(200) }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	async run({ db, project: here, services }, input) {
		const rows = await db
			.select()
			.from(mail)
			.where(eq(mail.projectId, here.id))
			.orderBy(desc(mail.createdAt), desc(mail.id))
			.limit(input.limit);
		return {
			server: services.config.smtpUrl
				? services.config.demo
					? ('demo' as const)
					: ('set' as const)
				: ('none' as const),
			mails: rows.map((m) => ({
				id: m.id,
				toName: m.toName,
				toAddress: m.toAddress,
				subject: m.subject,
				body: m.body,
				state: m.state,
				trouble: m.trouble,
				createdAt: m.createdAt.toISOString(),
				sentAt: m.sentAt?.toISOString() ?? null,
				receivedAt: m.receivedAt?.toISOString() ?? null
			}))
		};
	}
});

export const myTokens = defineView({
	name: 'myTokens',
	summary: 'Your personal API tokens',
	path: '/me/tokens',
	input: z.object({}),
	at: { kind: 'self' },
	async run({ db, person: me }) {
		const rows = await db
			.select({
				id: apiToken.id,
				name: apiToken.name,
				createdAt: apiToken.createdAt,
				lastUsedAt: apiToken.lastUsedAt
			})
			.from(apiToken)
			.where(and(eq(apiToken.personId, me.id), isNull(apiToken.withdrawnAt)))
			.orderBy(desc(apiToken.createdAt));
		return { tokens: rows };
	}
});

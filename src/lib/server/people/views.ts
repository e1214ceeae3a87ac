import { and, asc, desc, eq, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { decide, type Subject } from '../../core/access/decide';
import { allows } from '../../core/access/levels';
import { wayOf } from '../../core/access/model';
import { daysLater } from '../../core/time/spans';
import type { Reach } from '../access/reach';
import { loadModel } from '../access/model';
import { answers } from '../platform/runner/act';
import type { Querier } from '../platform/db';
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
} from '../platform/db/schema';

export const myProjects = answers(contract.myProjects, {
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

export const mySecurity = answers(contract.mySecurity, {
	async run({ db, person: me }) {
		const [row] = await db
			.select({ twoStep: person.twoFactorEnabled })
			.from(person)
			.where(eq(person.id, me.id));
		return { twoStep: row!.twoStep };
	}
});

export const people = answers(contract.people, {
	async run({ db, project: here, reach, now }) {
		const shared = reach.subject.outside ? await peopleSharingPlaces(db, reach, now) : null;
		const departments = await db
			.select({ id: department.id, code: department.code, name: department.name })
			.from(department)
			.where(eq(department.projectId, here.id))
			.orderBy(asc(department.position));
		const rows = await db
			.select({
				id: person.id,
				name: person.name,
				email: person.email,
				controller: member.controller,
				outside: member.outside,
				twoStep: person.twoFactorEnabled,
				/** Whether they have a password; who has none was invited and has not come in. */
				cameIn: sql<boolean>`exists (select 1 from account a where a.person_id = ${person.id})`,
				invitedUntil: sql<string | null>`(select max(i.expires_at) from invitation i
					where i.person_id = ${person.id} and i.purpose = 'invite' and i.used_at is null)`,
				blockedAt: member.blockedAt,
				blockedReason: member.blockedReason,
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
		const members = rows.map((row) => ({
			...row,
			invitedUntil: row.invitedUntil && new Date(row.invitedUntil).toISOString(),
			blockedAt: row.blockedAt?.toISOString() ?? null
		}));
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
		const ofGroups = groups.map((g) => ({
			...g,
			people: inGroups.filter((i) => i.group === g.id).map((i) => i.person)
		}));
		if (!shared) return { departments, members, recipients, groups: ofGroups };
		// Somebody outside sees whom they share a place with, and their own company (A12).
		const seen = members.filter((m) => shared.has(m.id));
		return {
			departments: departments.filter((d) => seen.some((m) => m.departmentId === d.id)),
			members: seen,
			recipients,
			groups: ofGroups
				.filter((g) => g.people.includes(reach.subject.personId))
				.map((g) => ({ ...g, people: g.people.filter((one) => shared.has(one)) }))
		};
	}
});

/** Ids of the people who can look at a place that the reader can look at, and of the document controllers. */
async function peopleSharingPlaces(db: Querier, reach: Reach, now: Date): Promise<Set<string>> {
	const model = await loadModel(db, reach.subject.projectId);
	const ways = reach.scopes().map((scope) => wayOf(model, scope));
	const shares = (subject: Subject) =>
		subject.controller || ways.some((way) => allows(decide(subject, way, now.getTime()), 'view'));
	return new Set(
		[...model.members]
			.filter(([personId, m]) => personId === reach.subject.personId || shares(m.subject))
			.map(([personId]) => personId)
	);
}

export const removed = answers(contract.removed, {
	async run({ db, project: here, reach, person: me, now }) {
		const since = daysLater(now, -here.settings.retentionDays).toISOString();
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
				until: daysLater(at, here.settings.retentionDays).toISOString(),
				mayRestore: byId === me.id || allows(reach.level(scope), 'organise')
			}))
		};
	}
});

/** Stands in the outbox for what only the addressee may read. */
const WITHHELD = '[only in the mail itself]';

export const outbox = answers(contract.outbox, {
	async run({ db, project: here, person: me, services }, input) {
		// What opens something is for its addressee; others see that it was sent, and not the thing itself.
		const readable = (text: string, row: { toAddress: string; secrets: string[] }) =>
			row.toAddress === me.email
				? text
				: row.secrets.reduce((rest, secret) => rest.replaceAll(secret, WITHHELD), text);
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
				subject: readable(m.subject, m),
				body: readable(m.body, m),
				html: readable(m.html, m),
				attachment: m.attachmentName,
				state: m.state,
				trouble: m.trouble,
				createdAt: m.createdAt.toISOString(),
				sentAt: m.sentAt?.toISOString() ?? null,
				receivedAt: m.receivedAt?.toISOString() ?? null
			}))
		};
	}
});

export const myTokens = answers(contract.myTokens, {
	async run({ db, person: me }) {
		const rows = await db
			.select({
				id: apiToken.id,
				name: apiToken.name,
				scope: apiToken.scope,
				endsAt: apiToken.endsAt,
				endsWithPassword: apiToken.endsWithPassword,
				createdAt: apiToken.createdAt,
				lastUsedAt: apiToken.lastUsedAt
			})
			.from(apiToken)
			.where(and(eq(apiToken.personId, me.id), isNull(apiToken.withdrawnAt)))
			.orderBy(desc(apiToken.createdAt));
		return {
			tokens: rows.map((row) => ({
				...row,
				endsAt: row.endsAt?.toISOString() ?? null,
				createdAt: row.createdAt.toISOString(),
				lastUsedAt: row.lastUsedAt?.toISOString() ?? null
			}))
		};
	}
});

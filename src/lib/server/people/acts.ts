import { and, count, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { DEFAULT_STAMPS } from '../../core/markup/stamps';
import { standardRule } from '../../core/numbering/numbering';
import { Problem } from '../../core/acts/problem';
import { USUAL_TITLE_BLOCK } from '../../core/documents/title-block';
import { DEFAULT_SCHEME } from '../../core/revisions/revisions';
import { department, departmentMember, member, person, project, recipient } from '../platform/db/schema';
import { cameIn, inviteLink, isOwnAddress, joinInside, joinOutside } from '../access/newcomers';
import { defineAct } from '../platform/runner/act';
import { email, id, name, projectKey } from '../platform/runner/fields';

const code = z
	.string()
	.trim()
	.toUpperCase()
	.regex(/^[A-Z][A-Z0-9]{1,5}$/, 'A code has two to six letters or digits and begins with a letter.');

export const makeProject = defineAct({
	name: 'makeProject',
	summary: 'Make a project; its maker becomes its document controller',
	method: 'POST',
	path: '/projects',
	input: z.strictObject({
		code,
		name,
		client: name,
		timeZone: z
			.string()
			.refine(
				(zone) => Intl.supportedValuesOf('timeZone').includes(zone) || zone === 'UTC',
				'This is not a known time zone.'
			)
			.default('UTC'),
		/** The number the first release gets. */
		firstRelease: z.number().int().min(1).max(9_999).default(1)
	}),
	at: { kind: 'self' },
	events: ['project.made'],
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
			settings: {
				numbering: standardRule(input.code, []),
				revisions: DEFAULT_SCHEME,
				lockLimitDays: 5,
				retentionDays: 60,
				maxFileBytes: 20 * 1024 ** 3,
				outsideLevel: 'take',
				runNeedsTwoStep: false,
				keepPosition: true,
				stamps: [...DEFAULT_STAMPS],
				ownDomains: [by.email.split('@')[1]!],
				releasePurposes: ['construction', 'as-built'],
				titleBlock: USUAL_TITLE_BLOCK
			},
			createdAt: now
		});
		await tx
			.insert(member)
			.values({ projectId, personId: by.id, controller: true, seenUntil: now, createdAt: now });
		tell({ kind: 'project.made', details: { code: input.code, name: input.name } }, projectId);
		return { id: projectId, code: input.code };
	}
});

export const makeDepartment = defineAct({
	name: 'makeDepartment',
	summary: 'Make a department; its code joins the numbering rule',
	method: 'POST',
	path: '/projects/{project}/departments',
	input: z.strictObject({
		project: projectKey,
		code: code.refine((c) => c.length === 2, 'A department has a code of two letters.'),
		name
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['department.made'],
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

export const addPerson = defineAct({
	name: 'addPerson',
	summary: 'Add a person to a project by mail address; a mail lets them set their password',
	method: 'POST',
	path: '/projects/{project}/people',
	input: z.strictObject({
		project: projectKey,
		name,
		email,
		department: id.nullable().default(null),
		lead: z.boolean().default(false),
		controller: z.boolean().default(false)
	}),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['person.added'],
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
		const way = invited?.says ?? `Sign in at ${services.config.origin} with the password you have.`;
		await mail(
			{ name: personName, address: input.email },
			`${here.code}: you have been added to ${here.name}`,
			`Dear ${personName},\n\n${by.name} has added you to the project ${here.name} in Cupboard.\n\n${way}\n`,
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

export const addRecipient = defineAct({
	name: 'addRecipient',
	summary: 'Put somebody outside on the distribution list',
	method: 'POST',
	path: '/projects/{project}/recipients',
	input: z.strictObject({ project: projectKey, name, company: name, email }),
	at: { kind: 'project', id: (i) => i.project, who: 'controller' },
	events: ['recipient.added'],
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

export const markProjectSeen = defineAct({
	name: 'markProjectSeen',
	summary: 'Say that everything up to now has been looked at',
	method: 'POST',
	path: '/projects/{project}/seen',
	input: z.strictObject({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	events: [],
	async run({ tx, project: here, person: by, now }) {
		await tx
			.update(member)
			.set({ seenUntil: sql`greatest(${member.seenUntil}, ${now.toISOString()}::timestamptz)` })
			.where(and(eq(member.projectId, here.id), eq(member.personId, by.id)));
		return {};
	}
});

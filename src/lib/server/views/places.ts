import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { propose, typeForFile } from '../../core/numbering/numbering';
import { idsOf, live } from '../access';
import { mayTry } from '../acts/locate';
import { defineView } from '../acts/act';
import { id, projectKey } from '../acts/fields';

import { department, departmentMember, document, place } from '../db/schema';
import { documentRows } from './rows';

export const projectFrame = defineView({
	name: 'projectFrame',
	summary: 'A project, its departments and what you are in it',
	path: '/projects/{project}',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach, person: me }) {
		const departments = await db
			.select({
				id: department.id,
				code: department.code,
				name: department.name,
				people: sql<number>`count(${departmentMember.personId})::int`
			})
			.from(department)
			.leftJoin(departmentMember, eq(departmentMember.departmentId, department.id))
			.where(eq(department.projectId, project.id))
			.groupBy(department.id)
			.orderBy(asc(department.position));
		const { id, code, name, client, timeZone, settings } = project;
		return {
			project: {
				outsideLevel: settings.outsideLevel,
				runNeedsTwoStep: settings.runNeedsTwoStep,
				id,
				code,
				name,
				client,
				timeZone,
				retentionDays: settings.retentionDays,
				maxFileBytes: settings.maxFileBytes,
				revisions: settings.revisions
			},
			departments,
			me: {
				...me,
				controller: reach.subject.controller,
				departments: reach.subject.departments,
				leads: reach.subject.leads,
				outside: reach.subject.outside,
				mayTry: mayTry(reach)
			}
		};
	}
});

export const documentsIn = defineView({
	name: 'documentsIn',
	summary: 'The documents of a folder, by number; in pages',
	path: '/places/{place}/documents',
	input: z.object({
		place: id,
		offset: z.coerce.number().int().min(0).default(0),
		limit: z.coerce.number().int().min(1).max(5_000).default(200)
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'look', only: ['shelf', 'folder'] },
	async run({ db, project, place: here, reach, person: me, now }, input) {
		const where = and(eq(place.parentId, here.id), eq(place.kind, 'document'), live(), reach.seesInFolder())!;
		return { rows: await documentRows(db, { project, reach, readerId: me.id }, where, now, input) };
	}
});

export const proposals = defineView({
	name: 'proposals',
	summary: 'Numbers and titles proposed for files by their names',
	path: '/places/{place}/proposals',
	input: z.object({
		place: id,
		files: z.preprocess(
			(v) => (typeof v === 'string' ? JSON.parse(v) : v),
			z.array(z.string().max(400)).max(500)
		)
	}),
	at: { kind: 'place', id: (i) => i.place, level: 'work', only: ['shelf', 'folder'] },
	async run({ db, project, place: here }, input) {
		const rule = project.settings.numbering;
		const taken = new Set(
			(
				await db
					.select({ number: document.number })
					.from(document)
					.where(and(eq(document.projectId, project.id), eq(document.live, true)))
			).map((d) => d.number)
		);
		const [shelf] = await db
			.select({ code: department.code })
			.from(place)
			.leftJoin(department, eq(department.id, place.departmentId))
			.where(eq(place.id, idsOf(here.path)[0]!));
		const [sibling] = await db
			.select({ number: document.number })
			.from(document)
			.innerJoin(place, eq(place.id, document.id))
			.where(and(eq(place.parentId, here.id), isNull(place.removalId)))
			.orderBy(asc(document.number))
			.limit(1);
		const parts = sibling?.number.split(rule.separator) ?? [];
		const like = (key: string) => parts[rule.parts.findIndex((p) => p.key === key)];
		return {
			proposals: input.files.map((file) => {
				const defaults = {
					project: project.code,
					zone: like('zone') ?? 'ZZ',
					level: like('level') ?? '00',
					type: typeForFile(file),
					...((shelf?.code ?? like('department')) ? { department: (shelf?.code ?? like('department'))! } : {})
				};
				const made = propose(rule, file, defaults, taken);
				const clash = made.from === 'name' && taken.has(made.number);
				taken.add(made.number);
				return { file, ...made, clash };
			})
		};
	}
});

import { numbersUnder } from './numbers';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/places';
import { allows } from '../../core/access/levels';
import { headOf, nextAfter, propose, typeForFile } from '../../core/numbering/numbering';
import { calendarOf } from '../../core/time/working-days';
import { idsOf, live, type Reach } from '../access/reach';
import { mayTry } from '../platform/runner/locate';
import { answers } from '../platform/runner/act';
import { awayNow } from '../people/away';
import type { Querier } from '../platform/db';
import { department, departmentMember, document, lock, person, place, version } from '../platform/db/schema';
import { documentRows } from '../documents/rows';

export const projectFrame = answers(contract.projectFrame, {
	async run({ db, project, reach, person: me, now }) {
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
				manageNeedsTwoStep: settings.manageNeedsTwoStep,
				keepPosition: settings.keepPosition,
				stamps: settings.stamps,
				id,
				code,
				name,
				client,
				timeZone,
				ownDomains: settings.ownDomains,
				releasePurposes: settings.releasePurposes,
				titleBlock: settings.titleBlock,
				retentionDays: settings.retentionDays,
				lockLimitDays: settings.lockLimitDays,
				maxFileBytes: settings.maxFileBytes,
				revisions: settings.revisions,
				numbering: settings.numbering,
				workCalendar: calendarOf(settings)
			},
			departments,
			away: reach.subject.outside ? [] : await awayNow(db, project, now),
			me: {
				...me,
				controller: reach.subject.controller,
				departments: [...reach.subject.departments],
				leads: [...reach.subject.leads],
				outside: reach.subject.outside,
				mayTry: mayTry(reach)
			}
		};
	}
});

export const documentsIn = answers(contract.documentsIn, {
	async run({ db, project, place: here, reach, person: me, now }, input) {
		const where = and(eq(place.parentId, here.id), eq(place.kind, 'document'), live(), reach.seesInFolder())!;
		const { limit, after } = input;
		const rows = await documentRows(db, { project, reach, readerId: me.id }, where, now, { limit, after });
		const last = rows.length === limit ? rows.at(-1) : undefined;
		return { rows, ...(last ? { next: last.number } : {}) };
	}
});

export const proposals = answers(contract.proposals, {
	async run({ db, project, place: here, reach }, input) {
		const rule = project.settings.numbering;
		const there = await sameNames(db, here.id, reach, input.files);
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
		const defaultsOf = (file: string) => ({
			project: project.code,
			zone: like('zone') ?? 'ZZ',
			level: like('level') ?? '00',
			type: typeForFile(file),
			...((shelf?.code ?? like('department')) ? { department: (shelf?.code ?? like('department'))! } : {})
		});
		const taken = await numbersUnder(
			db,
			project.id,
			input.files.map((file) => headOf(rule, defaultsOf(file)))
		);
		return {
			proposals: input.files.map((file) => {
				const known = there.get(file);
				if (known) return { file, ...known, from: 'file' as const };
				const made = propose(rule, file, defaultsOf(file), taken);
				taken.add(made.number);
				return { file, ...made };
			})
		};
	}
});

/** Documents of a folder whose newest version came under one of these file names, as far as one may look at them. */
async function sameNames(
	db: Querier,
	folder: string,
	reach: Reach,
	files: string[]
): Promise<Map<string, { number: string; title: string }>> {
	const rows = await db
		.select({ fileName: version.fileName, number: document.number, title: document.title })
		.from(place)
		.innerJoin(document, eq(document.id, place.id))
		.innerJoin(version, eq(version.id, document.currentVersionId))
		.where(
			and(
				eq(place.parentId, folder),
				eq(place.kind, 'document'),
				live(),
				reach.sees(place.scope),
				sql`${version.fileName} = any(${sql.param(files)}::text[])`
			)
		);
	return new Map(rows.map(({ fileName, ...one }) => [fileName, one]));
}

export const numbersInUse = answers(contract.numbersInUse, {
	async run({ db, project, reach, person: me }, input) {
		const rule = project.settings.numbering;
		const rows = await db
			.select({
				id: document.id,
				number: document.number,
				title: document.title,
				label: version.label,
				scope: place.scope,
				path: place.path,
				state: document.state,
				holder: person.name,
				holderId: lock.holderId
			})
			.from(document)
			.innerJoin(place, eq(place.id, document.id))
			.innerJoin(version, eq(version.id, document.currentVersionId))
			.leftJoin(lock, and(eq(lock.documentId, document.id), isNull(lock.endedAt)))
			.leftJoin(person, eq(person.id, lock.holderId))
			.where(
				and(
					eq(document.projectId, project.id),
					eq(document.live, true),
					sql`${document.number} = any(${sql.param(input.numbers)}::text[])`,
					// That a number is taken is told to those who may add documents, and nothing else of it (A10).
					reach.scopes('work').length ? undefined : reach.sees(place.scope)
				)
			);
		const heads = rows.map((r) => r.number.slice(0, r.number.lastIndexOf(rule.separator) + 1));
		const taken = heads.length ? await numbersUnder(db, project.id, heads) : new Set<string>();
		return {
			inUse: rows.map((r) => ({
				number: r.number,
				free: nextAfter(rule, r.number, taken),
				document: allows(
					reach.held(r, { archived: r.state === 'archived', inHandOf: r.holderId }, ['inHand']),
					'work'
				)
					? { id: r.id, title: r.title, label: r.label, holder: r.holder, mine: r.holderId === me.id }
					: null
			}))
		};
	}
});

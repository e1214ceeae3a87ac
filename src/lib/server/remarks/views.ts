import { and, asc, desc, eq, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import * as contract from '../../contract/remarks';
import { allows } from '../../core/access/levels';
import { whoReaches } from '../../core/access/model';
import { canNow } from '../platform/runner/can';
import { answersTo } from './answers';
import { mayRemark, REMARK_ACTS } from '../../core/remarks/may';
import type { RemarkRow } from '../../core/remarks/remarks';
import { beneath, live, type Reach } from '../access/reach';
import { loadModel } from '../access/model';
import { answers, type Project } from '../platform/runner/act';
import { heldLock } from '../platform/runner/held';
import { spotFacts } from '../platform/runner/locate';
import { among, type Querier } from '../platform/db';
import {
	department,
	departmentMember,
	document,
	lock,
	member,
	person,
	place,
	remark,
	version
} from '../platform/db/schema';

/** Most remarks of one answer. */
const MOST = 2_000;

/** The department of a person in a project, by its code; the first when there are several. */
const departmentOf = (projectId: string) => sql<string | null>`(select d.code from ${departmentMember} m
	join ${department} d on d.id = m.department_id
	where m.person_id = ${remark.createdBy} and d.project_id = ${projectId} order by d.code limit 1)`;

/** Who reads a list. */
interface Reader {
	project: Project;
	reach: Reach;
	person: { id: string };
	/** Who looks as them, or themselves. */
	self: { id: string };
	now: Date;
}

/**
 * Remarks as lists show them, with their answers.
 * @param where which; the caller has put access into it
 */
async function remarkRows(
	db: Querier,
	{ project, reach, person: reader, self, now }: Reader,
	where: SQL,
	order: SQL[] = [asc(remark.number)]
): Promise<RemarkRow[]> {
	const [assigned, settler, holder] = [
		alias(person, 'assigned'),
		alias(person, 'settler'),
		alias(person, 'holder')
	];
	const rows = await db
		.select({
			remark,
			label: version.label,
			number: document.number,
			title: document.title,
			place,
			state: document.state,
			lock,
			holder: holder.name,
			by: person.name,
			from: departmentOf(project.id),
			assigned: assigned.name,
			department: department.name,
			settler: settler.name
		})
		.from(remark)
		.innerJoin(document, eq(document.id, remark.documentId))
		.innerJoin(place, eq(place.id, document.id))
		.innerJoin(version, eq(version.id, remark.versionId))
		.innerJoin(person, eq(person.id, remark.createdBy))
		.leftJoin(assigned, eq(assigned.id, remark.assignedPerson))
		.leftJoin(department, eq(department.id, remark.assignedDepartment))
		.leftJoin(settler, eq(settler.id, remark.settledBy))
		.leftJoin(lock, and(eq(lock.documentId, document.id), isNull(lock.endedAt)))
		.leftJoin(holder, eq(holder.id, lock.holderId))
		.where(where)
		.orderBy(...order)
		.limit(MOST);
	if (!rows.length) return [];
	const answers = await answersTo(
		db,
		rows.map((r) => r.remark.id)
	);
	const { departments } = reach.subject;
	return rows.map(({ remark: r, ...row }) => ({
		id: r.id,
		number: r.number,
		document: r.documentId,
		documentNumber: row.number,
		documentTitle: row.title,
		label: row.label,
		anchor: r.anchor,
		quote: r.quote,
		text: r.text,
		by: r.fromName ?? row.by,
		byId: r.createdBy,
		from: r.fromName ? 'client' : (row.from ?? 'outside'),
		at: r.createdAt.toISOString(),
		answers: answers.get(r.id) ?? [],
		assigned: r.assignedPerson
			? { kind: 'person', id: r.assignedPerson, name: row.assigned! }
			: r.assignedDepartment
				? { kind: 'department', id: r.assignedDepartment, name: row.department! }
				: null,
		due: r.due,
		settled: r.settledAt
			? { by: row.settler!, at: r.settledAt.toISOString(), note: r.settledNote ?? '' }
			: null,
		can: canNow({ self, person: reader }, REMARK_ACTS, (act) =>
			mayRemark(act, {
				...spotFacts(
					{ project, reach, person: reader },
					row.place,
					row.state === 'archived',
					row.lock && heldLock({ ...row.lock, holder: row.holder! }, reader.id),
					now
				),
				remark: { ...r, settled: r.settledAt !== null },
				who: { id: reader.id, departments }
			})
		)
	}));
}

export const remarks = answers(contract.remarks, {
	async run(context) {
		const { db, place: here, level } = context;
		return {
			remarks: await remarkRows(db, context, eq(remark.documentId, here.id)),
			mayRemark: allows(level, 'remark')
		};
	}
});

/** Remarks that the reader is to settle: given to them, or to a department of theirs. */
export const givenTo = ({ subject }: Reach) =>
	or(
		eq(remark.assignedPerson, subject.personId),
		subject.departments.length ? among(remark.assignedDepartment, subject.departments) : undefined
	);

export const remarksWithin = answers(contract.remarksWithin, {
	async run(context, input) {
		const { db, project, reach } = context;
		const [folder] = input.place
			? await db
					.select({ path: place.path })
					.from(place)
					.where(
						and(eq(place.id, input.place), eq(place.projectId, project.id), live(), reach.sees(place.scope))
					)
			: [];
		if (input.place && !folder) return { remarks: [] };
		const where = and(
			eq(place.projectId, project.id),
			live(),
			reach.sees(place.scope),
			folder ? beneath(folder.path) : undefined,
			input.filter === 'settled' ? isNotNull(remark.settledAt) : undefined,
			input.filter === 'open' || input.filter === 'mine' ? isNull(remark.settledAt) : undefined,
			input.filter === 'mine' ? givenTo(reach) : undefined,
			input.by ? eq(remark.createdBy, input.by) : undefined
		)!;
		return {
			remarks: await remarkRows(db, context, where, [
				sql`${remark.due} asc nulls last`,
				desc(remark.createdAt)
			])
		};
	}
});

export const mentionable = answers(contract.mentionable, {
	async run({ db, project, place: here, now }) {
		const model = await loadModel(db, project.id);
		const seeing = whoReaches(model, here.scope, now.getTime())
			.filter(({ level }) => allows(level, 'view'))
			.map((r) => r.personId);
		const [people, departments] = await Promise.all([
			db
				.select({ id: person.id, name: person.name })
				.from(person)
				.innerJoin(member, and(eq(member.personId, person.id), eq(member.projectId, project.id)))
				.where(and(among(person.id, seeing), isNull(member.leftAt)))
				.orderBy(asc(person.name)),
			db
				.selectDistinct({ id: department.id, name: department.name })
				.from(department)
				.innerJoin(departmentMember, eq(departmentMember.departmentId, department.id))
				.where(and(eq(department.projectId, project.id), among(departmentMember.personId, seeing)))
				.orderBy(asc(department.name))
		]);
		return {
			people: people.map((p) => ({ kind: 'person' as const, ...p })),
			departments: departments.map((d) => ({ kind: 'department' as const, ...d }))
		};
	}
});

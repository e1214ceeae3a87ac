import { eq, sql } from 'drizzle-orm';
import { groupedBy } from '../../core/lists/group';
import { kindsTouching } from '../../core/events';
import {
	missingAfter,
	partOf,
	stagesOf,
	usualIn,
	type Deliverable,
	type DocumentFacts,
	type Line,
	type Stage,
	type StagePlan,
	type Usual
} from '../../core/register';
import type { Verdict } from '../../core/releases';
import type { Purpose } from '../../core/revisions/revisions';
import { calendarOf } from '../../core/time/working-days';
import { WorkDays } from '../../core/time/work-days';
import type { Querier } from '../platform/db';
import { GETS } from '../releases/recipients';
import { project as projectTable } from '../platform/db/schema';
import type { Project } from '../platform/runner/act';
import { KeptByTrail } from '../trail/kept';
import { sinceEntry } from '../trail/since';

/** A deliverable with the scope of its document, by which it is decided who may look at it. */
export interface Held {
	deliverable: Deliverable;
	/** Null while it has no document. */
	scope: string | null;
	departmentId: string | null;
}

/** A signed verdict with how long it took. */
interface Answered {
	document: string;
	code: Verdict;
	/** Days of the issue and of the answer. */
	issued: string;
	day: string;
}

/** Everything that the register of a project is made from, as of one state of its trail. */
export interface Facts {
	/** In the order of their numbers. */
	held: readonly Held[];
	/** Ids of departments, by deliverable. */
	departmentOf: ReadonlyMap<string, string | null>;
	answered: readonly Answered[];
	stages: readonly Stage[];
	usual: Usual;
	days: WorkDays;
	/** Where each deliverable stands, as of the day that was asked for last. */
	standing: { today: string; lines: readonly Line[] } | null;
}

/** What happened since can only change the register when it is of one of these kinds. */
const CONCERNS = kindsTouching('documents', 'releases', 'places', 'access', 'people', 'project', 'register');

/** Most projects whose facts are kept. */
const MOST_PROJECTS = 4;
const kept = new KeptByTrail<Facts>(MOST_PROJECTS);

/** What the register of a project is made from, as it holds now. */
export function registerFacts(db: Querier, projectId: string): Promise<Facts> {
	return kept.get(
		projectId,
		(seq) => sinceEntry(db, projectId, CONCERNS, seq),
		() => readFacts(db, projectId)
	);
}

interface Row extends Record<string, unknown> {
	id: string;
	number: string;
	title: string;
	department_id: string | null;
	department: string | null;
	responsible_id: string | null;
	responsible: string | null;
	weight: number;
	document: string | null;
	scope: string | null;
	label: string | null;
	issued: boolean | null;
	begun: string | null;
}

/** Of numbers that are missing after others, those that no document has either. */
async function unused(db: Querier, projectId: string, missing: ReadonlyMap<string, readonly string[]>) {
	const rows = await db.execute<{ number: string }>(sql`
		select number from document where project_id = ${projectId} and live
			and number = any(${sql.param([...missing.values()].flat())}::text[])`);
	const used = new Set(rows.map((row) => row.number));
	return new Map([...missing].map(([after, numbers]) => [after, numbers.filter((one) => !used.has(one))]));
}

/** Reads it all, the settings too: those that a request began with may be older than the entry it goes by. */
async function readFacts(db: Querier, projectId: string): Promise<Facts> {
	const [project] = (await db.select().from(projectTable).where(eq(projectTable.id, projectId))) as [Project];
	const here = sql`d.project_id = ${project.id} and d.removed_at is null`;
	const dayIn = (column: ReturnType<typeof sql>) =>
		sql`(${column} at time zone ${project.timeZone})::date::text`;
	const [rows, plans, said, issues, replies] = await Promise.all([
		db.execute<Row>(sql`
			select d.id, d.number, d.title, d.department_id, dep.code as department, d.responsible_id, p.name as responsible,
				d.weight, doc.id as document, at.scope, now.label, now.issued, ${dayIn(sql`first.created_at`)} as begun
			from deliverable d
			left join department dep on dep.id = d.department_id
			left join person p on p.id = d.responsible_id
			-- What lies on a desk is not there yet for the project.
			left join (document doc join place at on at.id = doc.id
				join place reached on reached.id = at.scope and reached.desk_of is null)
				on doc.project_id = d.project_id and doc.number = d.number and doc.live
			left join version now on now.id = doc.current_version_id
			left join version first on first.document_id = doc.id and first.seq = 1
			where ${here} order by d.number collate "C"`),
		db.execute<{ id: string; planned: Record<string, string | null> }>(sql`
			select s.deliverable_id as id, json_object_agg(s.stage, s.planned) as planned
			from deliverable_stage s join deliverable d on d.id = s.deliverable_id where ${here} group by 1`),
		db.execute<{
			id: string;
			stage: string;
			own_day: string | null;
			own_reason: string;
			own_by: string;
			own_at: string;
			corrected_day: string | null;
			corrected_reason: string;
			corrected_by: string;
		}>(sql`
			select s.deliverable_id as id, s.stage, s.own_day, s.own_reason, own.name as own_by, s.own_at, s.corrected_day,
				s.corrected_reason, by.name as corrected_by
			from deliverable_stage s join deliverable d on d.id = s.deliverable_id
			left join person own on own.id = s.own_by left join person by on by.id = s.corrected_by
			where ${here} and (s.own_day is not null or s.corrected_day is not null)`),
		db.execute<{ document: string; purpose: Purpose; day: string }>(sql`
			select e.document_id as document, coalesce(e.details->>'purpose', r.purpose) as purpose, ${dayIn(sql`min(e.at)`)} as day
			from event e left join release r on r.id = e.release_id
			where e.project_id = ${project.id} and e.kind in ('document.issued', 'document.revised') group by 1, 2`),
		db.execute<{
			document: string;
			release: number;
			to: string;
			by: string | null;
			verdict: Verdict | null;
			issued: string;
			signed: string | null;
		}>(sql`
			select i.document_id as document, r.number as release, went.to, went.by, i.outcome as verdict,
				${dayIn(sql`r.issued_at`)} as issued, ${dayIn(sql`i.outcome_at`)} as signed
			from release_item i join release r on r.id = i.release_id
			join lateral (select string_agg(distinct t.company, ', ') as to, min(coalesce(rr.reply_by, r.reply_by)) as by
				from release_recipient rr join recipient t on t.id = rr.recipient_id
				where rr.expects = 'verdicts' and ${GETS}) went on went.to is not null
			where r.project_id = ${project.id} and r.state in ('issued', 'superseded')
			order by r.issued_at, r.number`)
	]);
	const planOf = new Map(plans.map((row) => [row.id, row.planned]));
	const saidOf = new Map(said.map((row) => [`${row.id} ${row.stage}`, row]));
	const issuesOf = groupedBy(issues, ({ document }) => document);
	// The newest release comes last, and is the one that counts.
	const replyOf = new Map<string, DocumentFacts['reply']>(
		replies.map(({ document, release, to, by, verdict }) => [document, { release, to, by, verdict }])
	);
	const rule = project.settings.numbering;
	const free = await unused(
		db,
		projectId,
		missingAfter(
			rule,
			rows.map((row) => row.number)
		)
	);
	const held = rows.map((row): Held => {
		const plan = Object.entries(planOf.get(row.id) ?? {}).map(([stage, planned]): StagePlan => {
			const more = saidOf.get(`${row.id} ${stage}`);
			return {
				stage,
				planned,
				own: more?.own_day
					? {
							day: more.own_day,
							reason: more.own_reason,
							by: more.own_by,
							at: new Date(more.own_at).toISOString()
						}
					: null,
				corrected: more?.corrected_day
					? { day: more.corrected_day, reason: more.corrected_reason, by: more.corrected_by }
					: null
			};
		});
		return {
			scope: row.scope,
			departmentId: row.department_id,
			deliverable: {
				id: row.id,
				number: row.number,
				title: row.title,
				department: row.department,
				zone: partOf(rule, row.number, 'zone'),
				type: partOf(rule, row.number, 'type'),
				responsible: row.responsible_id ? { id: row.responsible_id, name: row.responsible ?? '' } : null,
				weight: row.weight,
				plan,
				missingAfter: free.get(row.number) ?? [],
				document: row.document
					? {
							id: row.document,
							label: row.label!,
							issued: row.issued!,
							begun: row.begun!,
							issues: issuesOf.get(row.document) ?? [],
							reply: replyOf.get(row.document) ?? null
						}
					: null
			}
		};
	});
	const days = new WorkDays(calendarOf(project.settings));
	const stages = stagesOf(project.settings);
	return {
		held,
		departmentOf: new Map(rows.map((row) => [row.id, row.department_id])),
		answered: replies.flatMap(({ document, verdict, issued, signed }) =>
			verdict && signed ? [{ document, code: verdict, issued, day: signed }] : []
		),
		stages,
		usual: usualIn(
			held.map((one) => one.deliverable),
			stages,
			days
		),
		days,
		standing: null
	};
}

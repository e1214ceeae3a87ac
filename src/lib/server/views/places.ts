import { and, asc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { levelLabel } from '../../core/access/levels';
import { propose, typeForFile } from '../../core/numbering/numbering';
import { beneath, live } from '../access';
import { defineView, type Place } from '../acts/act';
import { id, projectKey } from '../acts/fields';
import { idsOf } from '../acts/run';
import type { Querier } from '../db';
import { department, departmentMember, document, person, place, release } from '../db/schema';
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
				id,
				code,
				name,
				client,
				timeZone,
				retentionDays: settings.retentionDays,
				maxFileBytes: settings.maxFileBytes
			},
			departments,
			me: {
				...me,
				controller: reach.subject.controller,
				departments: reach.subject.departments,
				leads: reach.subject.leads
			}
		};
	}
});

/** Counts of documents, locks and news beneath places, for one reader, by the id that begins each path. */
async function counts(
	db: Querier,
	readerId: string,
	projectId: string,
	sees: ReturnType<typeof sql>,
	depth: number
) {
	return db.execute<{
		at: string;
		documents: number;
		in_hand: number;
		fresh: number;
		last_at: string | null;
		last_by: string | null;
	}>(sql`
		select substr(${place.path}, ${depth * 10 + 1}::int, 10) as at, count(*)::int as documents,
			count(l.id)::int as in_hand,
			count(*) filter (where d.changed_at > greatest(m.seen_until, s.at) and d.changed_by is distinct from ${readerId})::int as fresh,
			max(d.changed_at) as last_at, (array_agg(p.name order by d.changed_at desc))[1] as last_by
		from ${place}
		join document d on d.id = ${place.id}
		join member m on m.project_id = ${projectId} and m.person_id = ${readerId}
		left join lock l on l.document_id = d.id and l.ended_at is null
		left join seen s on s.document_id = d.id and s.person_id = ${readerId}
		left join person p on p.id = d.changed_by
		where ${place.projectId} = ${projectId} and ${live()} and ${sees}
		group by 1`);
}

export const shelves = defineView({
	name: 'shelves',
	summary: 'The shelves you reach, with a box for each folder and true counts',
	path: '/projects/{project}/shelves',
	input: z.object({ project: projectKey }),
	at: { kind: 'project', id: (i) => i.project, who: 'member' },
	async run({ db, project, reach, person: me }) {
		const sees = reach.sees(place.scope);
		const places = await db
			.select()
			.from(place)
			.where(
				and(
					eq(place.projectId, project.id),
					live(),
					sees,
					inArray(place.kind, ['shelf', 'folder']),
					sql`length(${place.path}) <= 20`
				)
			)
			.orderBy(asc(place.createdAt), asc(place.name));
		const byBox = new Map((await counts(db, me.id, project.id, sees, 1)).map((row) => [row.at, row]));
		const byShelf = new Map((await counts(db, me.id, project.id, sees, 0)).map((row) => [row.at, row]));
		const departments = await db
			.select({
				id: department.id,
				code: department.code,
				name: department.name,
				position: department.position,
				people: sql<number>`count(${departmentMember.personId})::int`,
				lead: sql<string | null>`min(${person.name}) filter (where ${departmentMember.lead})`
			})
			.from(department)
			.leftJoin(departmentMember, eq(departmentMember.departmentId, department.id))
			.leftJoin(person, eq(person.id, departmentMember.personId))
			.where(eq(department.projectId, project.id))
			.groupBy(department.id);
		const overdue = reach.subject.controller
			? await db
					.select({ number: release.number, replyBy: release.replyBy })
					.from(release)
					.where(
						and(
							eq(release.projectId, project.id),
							eq(release.state, 'issued'),
							sql`reply_by < current_date::text`,
							sql`exists (select 1 from release_item i where i.release_id = ${release.id} and not exists (
							select 1 from verdict v join pass p on p.id = v.pass_id where p.release_id = ${release.id} and v.document_id = i.document_id and v.signed_at is not null))`
						)
					)
			: [];
		const list = places
			.filter((p) => p.kind === 'shelf')
			.map((shelf) => {
				const owner = departments.find((d) => d.id === shelf.departmentId) ?? null;
				const own = byShelf.get(shelf.id);
				return {
					id: shelf.id,
					name: shelf.name,
					level: levelLabel(reach.level(shelf.scope)!),
					position: owner?.position ?? 1_000,
					department: owner && { code: owner.code, name: owner.name, lead: owner.lead, people: owner.people },
					documents: own?.documents ?? 0,
					inHand: own?.in_hand ?? 0,
					fresh: own?.fresh ?? 0,
					boxes: places
						.filter((p) => p.parentId === shelf.id)
						.map((box) => {
							const c = byBox.get(box.id);
							return {
								id: box.id,
								name: box.name,
								documents: c?.documents ?? 0,
								inHand: c?.in_hand ?? 0,
								fresh: c?.fresh ?? 0,
								lastAt: c?.last_at ? new Date(c.last_at).toISOString() : null,
								lastBy: c?.last_by ?? null
							};
						})
				};
			});
		return { shelves: list.sort((a, b) => a.position - b.position || a.name.localeCompare(b.name)), overdue };
	}
});

/** The names on the way to a place, shelf first. */
export async function breadcrumb(
	db: Querier,
	target: Place
): Promise<{ id: string; name: string; kind: string; code: string | null }[]> {
	const ids = idsOf(target.path);
	const rows = await db
		.select({ id: place.id, name: place.name, kind: place.kind, code: department.code })
		.from(place)
		.leftJoin(department, eq(department.id, place.departmentId))
		.where(inArray(place.id, ids));
	return ids.map((one) => rows.find((r) => r.id === one)!);
}

export const folder = defineView({
	name: 'folder',
	summary: 'A shelf or folder: the way to it, the folders around it, what you may do',
	path: '/places/{place}',
	input: z.object({ place: id }),
	at: { kind: 'place', id: (i) => i.place, level: 'look', only: ['shelf', 'folder'] },
	async run({ db, project, place: here, level, reach, person: me }) {
		const all = await db
			.select({
				id: place.id,
				parentId: place.parentId,
				name: place.name,
				kind: place.kind,
				path: place.path,
				code: department.code,
				position: department.position,
				createdAt: place.createdAt
			})
			.from(place)
			.leftJoin(department, eq(department.id, place.departmentId))
			.where(
				and(eq(place.projectId, project.id), live(), reach.sees(place.scope), ne(place.kind, 'document'))
			)
			.orderBy(asc(place.createdAt), asc(place.name));
		const totals = await db.execute<{ folder: string; n: number }>(sql`
			select ${place.parentId} as folder, count(*)::int as n from ${place}
			where ${place.projectId} = ${project.id} and ${place.kind} = 'document' and ${live()} and ${reach.sees(place.scope)} group by 1`);
		const direct = new Map(totals.map((t) => [t.folder, t.n]));
		const tree = all.map((f) => ({
			id: f.id,
			parentId: f.parentId,
			name: f.name,
			kind: f.kind,
			code: f.code,
			position: f.position ?? 1_000,
			documents: all
				.filter((o) => o.path.startsWith(f.path))
				.reduce((sum, o) => sum + (direct.get(o.id) ?? 0), 0)
		}));
		const [held] = await db.execute<{ n: number }>(sql`
			select count(*)::int as n from ${place} join lock l on l.document_id = ${place.id} and l.ended_at is null
			where ${place.projectId} = ${project.id} and ${beneath(here.path)} and ${live()} and ${reach.sees(place.scope)}`);
		return {
			place: { id: here.id, name: here.name, kind: here.kind, mine: here.createdBy === me.id },
			level,
			levelLabel: levelLabel(level),
			way: await breadcrumb(db, here),
			tree,
			direct: direct.get(here.id) ?? 0,
			documents: tree.find((t) => t.id === here.id)?.documents ?? 0,
			inHand: held?.n ?? 0
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
		const where = and(
			eq(place.parentId, here.id),
			eq(place.kind, 'document'),
			live(),
			reach.sees(place.scope)
		)!;
		return { rows: await documentRows(db, project, me.id, where, now, input) };
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

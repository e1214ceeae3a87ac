import { sql } from 'drizzle-orm';
import { ID_LENGTH } from '../../core/acts/ids';
import { kindsTouching } from '../../core/events';
import { holdingOf, type Handing, type Holding } from '../../core/releases/holders';
import type { Querier } from '../platform/db';
import { KeptByTrail } from '../trail/kept';
import { sinceEntry } from '../trail/since';
import { GETS } from './recipients';

/** Somebody outside who holds something. */
interface Holder {
	/** Mail address in small letters, or the name where none is known. */
	key: string;
	name: string;
	company: string;
	email: string | null;
}

/** A document that somebody outside was sent or took. */
interface HeldDocument {
	document: string;
	number: string;
	title: string;
	departmentId: string | null;
	now: { label: string; issued: boolean };
	issued: string | null;
	/** How each holder came by it, oldest first, and what they hold of it. */
	handings: ReadonlyMap<string, readonly Handing[]>;
	held: ReadonlyMap<string, Holding>;
	/** How it stands with any of them. */
	states: ReadonlySet<Holding['state']>;
}

export interface Holders {
	/** In the order of companies and names. */
	holders: readonly Holder[];
	/** Keys of those who hold something; who only looked at what they were sent holds nothing. */
	holding: ReadonlySet<string>;
	/** In the order of their numbers. */
	documents: readonly HeldDocument[];
}

const CONCERNS = kindsTouching('documents', 'releases', 'places', 'passes', 'people', 'openings');
const MOST_PROJECTS = 4;
const kept = new KeptByTrail<Holders>(MOST_PROJECTS);

/** Who holds what in a project, as it is now. Whoever asks controls the project and so may look at all of it. */
export function holdersOf(db: Querier, projectId: string): Promise<Holders> {
	return kept.get(
		projectId,
		(seq) => sinceEntry(db, projectId, CONCERNS, seq),
		() => read(db, projectId)
	);
}

interface HandedRow extends Record<string, unknown> {
	document: string;
	holder: string;
	name: string;
	email: string | null;
	company: string | null;
	label: string;
	seq: number;
	way: Handing['way'];
	at: string;
	release: number | null;
	confirmed: string | null;
}

async function read(db: Querier, projectId: string): Promise<Holders> {
	const keyOf = (email: string, name: string) => sql.raw(`lower(coalesce(${email}, ${name}))`);
	const [sent, taken, byAccount] = await Promise.all([
		// What a release sent, by the pass of each recipient; and that it was taken whole.
		// What is known of a pass is asked for once, and not for each document that it brought.
		db.execute<HandedRow>(sql`
			with rr as materialized (
				select rr.release_id, rr.documents, ${keyOf('p.holder_email', 'p.holder_name')} as holder, p.holder_name as name,
					p.holder_email as email, t.company, r.issued_at as at, r.number as release,
					coalesce(p.received_at, (select min(e.at) from event e
						where e.release_id = r.id and e.kind = 'pass.release-downloaded' and split_part(e.actor, ':', 2) = p.id)) as confirmed
				from release r join release_recipient rr on rr.release_id = r.id join pass p on p.id = rr.pass_id
				left join recipient t on t.project_id = r.project_id and lower(t.email) = lower(p.holder_email)
				where r.project_id = ${projectId} and r.state in ('issued', 'superseded')
			)
			select i.document_id as document, rr.holder, rr.name, rr.email, rr.company, v.label, v.seq, 'sent' as way, rr.at,
				rr.release, rr.confirmed
			from rr join release_item i on ${GETS} join version v on v.id = i.version_id`),
		// What was opened or taken through any pass.
		db.execute<HandedRow>(sql`
			select e.document_id as document, ${keyOf('p.holder_email', 'p.holder_name')} as holder, p.holder_name as name,
				p.holder_email as email, t.company, v.label, v.seq,
				case e.kind when 'pass.document-downloaded' then 'downloaded' else 'opened' end as way,
				e.at, r.number as release, null as confirmed
			from event e join pass p on p.id = split_part(e.actor, ':', 2)
			join version v on v.document_id = e.document_id and v.label = e.details->>'label'
			left join release r on r.id = p.release_id
			left join recipient t on t.project_id = e.project_id and lower(t.email) = lower(p.holder_email)
			where e.project_id = ${projectId} and e.kind in ('pass.document-downloaded', 'pass.document-opened')`),
		// What people of other companies took with their accounts.
		db.execute<HandedRow>(sql`
			select e.document_id as document, lower(w.email) as holder, w.name, w.email,
				(select g.name from people_group g join group_member gm on gm.group_id = g.id
					where g.project_id = e.project_id and g.company and gm.person_id = w.id limit 1) as company,
				v.label, v.seq, case e.kind when 'document.downloaded' then 'downloaded' else 'opened' end as way,
				e.at, null as release, null as confirmed
			from event e join member m on m.project_id = e.project_id and m.person_id = e.actor and m.outside
			join person w on w.id = e.actor
			join version v on v.document_id = e.document_id and v.label = e.details->>'label'
			where e.project_id = ${projectId} and e.kind in ('document.downloaded', 'document.opened')`)
	]);
	const rows = [...sent, ...taken, ...byAccount];
	const ids = [...new Set(rows.map((row) => row.document))];
	const documents = ids.length
		? await db.execute<{
				document: string;
				number: string;
				title: string;
				department: string | null;
				label: string;
				labelIssued: boolean;
				issued: string | null;
				issuedSeq: number | null;
			}>(sql`
			select d.id as document, d.number, d.title, shelf.department_id as department, now.label,
				now.issued as "labelIssued", last.label as issued, last.seq as "issuedSeq"
			from document d join place at on at.id = d.id join version now on now.id = d.current_version_id
			join place shelf on shelf.id = left(at.path, ${ID_LENGTH})
			left join lateral (select v.label, v.seq from version v where v.document_id = d.id and v.issued
				order by v.seq desc limit 1) last on true
			where d.live and d.id = any(${sql.param(ids)}::text[]) order by d.number collate "C"`)
		: [];
	const holders = new Map<string, Holder>();
	const by = new Map<string, Map<string, Handing[]>>();
	for (const row of rows) {
		const known = holders.get(row.holder);
		if (!known || (!known.company && row.company))
			holders.set(row.holder, {
				key: row.holder,
				name: row.name,
				company: row.company ?? '',
				email: row.email
			});
		const of = by.get(row.document) ?? new Map<string, Handing[]>();
		by.set(row.document, of);
		const list = of.get(row.holder) ?? [];
		of.set(row.holder, list);
		list.push({
			label: row.label,
			seq: row.seq,
			way: row.way,
			at: new Date(row.at).toISOString(),
			release: row.release,
			confirmed: row.confirmed && new Date(row.confirmed).toISOString()
		});
	}
	const order = (a: string, b: string) => a.localeCompare(b, 'en');
	const listed = documents.map((one) => {
		const handings = by.get(one.document)!;
		for (const list of handings.values()) if (list.length > 1) list.sort((a, b) => order(a.at, b.at));
		const held = new Map(
			[...handings].flatMap(([who, list]) => {
				const holding = holdingOf(list, one.issuedSeq);
				return holding ? [[who, holding] as const] : [];
			})
		);
		return {
			document: one.document,
			number: one.number,
			title: one.title,
			departmentId: one.department,
			now: { label: one.label, issued: one.labelIssued },
			issued: one.issued,
			handings,
			held,
			states: new Set([...held.values()].map(({ state }) => state))
		};
	});
	return {
		holders: [...holders.values()].sort((a, b) => order(a.company, b.company) || order(a.name, b.name)),
		holding: new Set(listed.flatMap((one) => [...one.held.keys()])),
		documents: listed
	};
}

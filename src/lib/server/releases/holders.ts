import { sql } from 'drizzle-orm';
import { ID_LENGTH } from '../../core/acts/ids';
import { kindsTouching } from '../../core/events';
import { groupedBy } from '../../core/lists/group';
import { heldAfter, stateOf, type Handing, type Held, type Holding } from '../../core/releases/holders';
import type { Querier } from '../platform/db';
import { KeptByTrail } from '../trail/kept';
import { sinceEntry } from '../trail/since';

/** Somebody outside who holds something. */
interface Holder {
	/** Mail address in small letters, or the name where none is known. */
	key: string;
	name: string;
	company: string;
	email: string | null;
}

/** A document that somebody outside was sent or took. */
export interface HeldDocument {
	document: string;
	number: string;
	title: string;
	departmentId: string | null;
	now: { label: string; issued: boolean };
	issued: string | null;
	/** Place of the issued one among its versions, by which `stateOf` tells how what somebody holds stands. */
	issuedSeq: number | null;
	/** What each holder holds of it, in their order. */
	held: readonly (Held | undefined)[];
	/** How it stands with any of them. */
	states: ReadonlySet<Holding>;
}

export interface Holders {
	/** In the order of companies and names. */
	holders: readonly Holder[];
	/** Places among them of those who hold something; who only looked at what they were sent holds nothing. */
	holding: ReadonlySet<number>;
	/** In the order of their numbers. */
	documents: readonly HeldDocument[];
	/** How a holder came by a document, also by looking at it only; oldest first. */
	handings(document: string, holder: string): Handing[];
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

/** How somebody outside got hold of something. */
interface By extends Record<string, unknown> {
	holder: string;
	name: string;
	email: string | null;
	company: string | null;
	at: string;
	release: number | null;
}

/** The same with the place of who got hold of it among the holders. */
type Placed = By & { place: number };

/** What one recipient was sent by a release: of what it holds, or of some of it. */
interface SentRow extends By {
	releaseId: string;
	documents: readonly string[] | null;
	confirmed: string | null;
}

type Labelled = Pick<Handing, 'label' | 'seq'>;

interface ItemRow extends Labelled, Record<string, unknown> {
	releaseId: string;
	document: string;
}

interface TakenRow extends By, Labelled {
	document: string;
	way: Handing['way'];
}

interface DocumentRow extends Record<string, unknown> {
	document: string;
	number: string;
	title: string;
	department: string | null;
	label: string;
	labelIssued: boolean;
	issued: string | null;
	issuedSeq: number | null;
}

const keyOf = (email: string, name: string) => sql.raw(`lower(coalesce(${email}, ${name}))`);
const moment = (at: string) => new Date(at).toISOString();

/** Who got what releases sent: all of it, or some documents. */
const shares = (db: Querier, projectId: string) =>
	db.execute<SentRow>(sql`
		with whole as (
			select split_part(e.actor, ':', 2) as pass, min(e.at) as at from event e
			where e.project_id = ${projectId} and e.kind = 'pass.release-downloaded' group by 1
		)
		select r.id as "releaseId", rr.documents, ${keyOf('p.holder_email', 'p.holder_name')} as holder, p.holder_name as name,
			p.holder_email as email, t.company, r.issued_at as at, r.number as release,
			coalesce(p.received_at, whole.at) as confirmed
		from release r join release_recipient rr on rr.release_id = r.id join pass p on p.id = rr.pass_id
		left join whole on whole.pass = p.id
		left join recipient t on t.project_id = r.project_id and lower(t.email) = lower(p.holder_email)
		where r.project_id = ${projectId} and r.state in ('issued', 'superseded')`);

/** What releases that were sent hold. */
const items = (db: Querier, projectId: string) =>
	db.execute<ItemRow>(sql`
		select i.release_id as "releaseId", i.document_id as document, v.label, v.seq
		from release r join release_item i on i.release_id = r.id join version v on v.id = i.version_id
		where r.project_id = ${projectId} and r.state in ('issued', 'superseded')`);

/** What was opened or taken through any pass. */
const takenByPass = (db: Querier, projectId: string) =>
	db.execute<TakenRow>(sql`
		select e.document_id as document, ${keyOf('p.holder_email', 'p.holder_name')} as holder, p.holder_name as name,
			p.holder_email as email, t.company, v.label, v.seq,
			case e.kind when 'pass.document-downloaded' then 'downloaded' else 'opened' end as way,
			e.at, r.number as release
		from event e join pass p on p.id = split_part(e.actor, ':', 2)
		join version v on v.document_id = e.document_id and v.label = e.details->>'label'
		left join release r on r.id = p.release_id
		left join recipient t on t.project_id = e.project_id and lower(t.email) = lower(p.holder_email)
		where e.project_id = ${projectId} and e.kind in ('pass.document-downloaded', 'pass.document-opened')`);

/** What people of other companies opened or took with their accounts. */
const takenByAccount = (db: Querier, projectId: string) =>
	db.execute<TakenRow>(sql`
		select e.document_id as document, lower(w.email) as holder, w.name, w.email,
			(select g.name from people_group g join group_member gm on gm.group_id = g.id
				where g.project_id = e.project_id and g.company and gm.person_id = w.id limit 1) as company,
			v.label, v.seq, case e.kind when 'document.downloaded' then 'downloaded' else 'opened' end as way,
			e.at, null as release
		from event e join member m on m.project_id = e.project_id and m.person_id = e.actor and m.outside
		join person w on w.id = e.actor
		join version v on v.document_id = e.document_id and v.label = e.details->>'label'
		where e.project_id = ${projectId} and e.kind in ('document.downloaded', 'document.opened')`);

/** Documents as they are now, those that were removed left out. */
const documentsNow = (db: Querier, ids: readonly string[]) =>
	db.execute<DocumentRow>(sql`
		select d.id as document, d.number, d.title, shelf.department_id as department, now.label,
			now.issued as "labelIssued", last.label as issued, last.seq as "issuedSeq"
		from document d join place at on at.id = d.id join version now on now.id = d.current_version_id
		join place shelf on shelf.id = left(at.path, ${ID_LENGTH})
		left join lateral (select v.label, v.seq from version v where v.document_id = d.id and v.issued
			order by v.seq desc limit 1) last on true
		where d.live and d.id = any(${sql.param(ids)}::text[]) order by d.number collate "C"`);

const byText = new Intl.Collator('en').compare;

/** Everybody who was handed something; their company is that of any way by which it is known. */
function holdersAmong(ways: Iterable<By>): Holder[] {
	const holders = new Map<string, Holder>();
	for (const by of ways) {
		const known = holders.get(by.holder);
		if (!known || (!known.company && by.company))
			holders.set(by.holder, {
				key: by.holder,
				name: by.name,
				company: by.company ?? '',
				email: by.email
			});
	}
	return [...holders.values()].sort((a, b) => byText(a.company, b.company) || byText(a.name, b.name));
}

/**
 * What releases hold and who got them are read apart, and put together here: thousands of documents to dozens of recipients
 * are hundreds of thousands of pairs. What is kept of a pair is what they hold; how they came by it is asked for one by one.
 */
async function read(db: Querier, projectId: string): Promise<Holders> {
	const [shared, sent, byPass, byAccount] = await Promise.all([
		shares(db, projectId),
		items(db, projectId),
		takenByPass(db, projectId),
		takenByAccount(db, projectId)
	]);
	const holders = holdersAmong([...shared, ...byPass, ...byAccount]);
	const placeOf = new Map(holders.map(({ key }, place) => [key, place]));
	const placed = <Row extends By>(row: Row) => ({ ...row, place: placeOf.get(row.holder)! });
	const got = groupedBy(
		shared.map((row) => placed({ ...row, documents: row.documents && new Set(row.documents) })),
		(row) => row.releaseId
	);
	const sentOf = groupedBy(sent, (row) => row.document);
	const takenOf = groupedBy([...byPass, ...byAccount].map(placed), (row) => row.document);

	/** Tells each way by which a document came to somebody. */
	function eachWay(
		document: string,
		tell: (by: Placed, what: Labelled, way: Handing['way'], confirmed: string | null) => void
	) {
		for (const item of sentOf.get(document) ?? [])
			for (const by of got.get(item.releaseId) ?? [])
				if (!by.documents || by.documents.has(document)) tell(by, item, 'sent', by.confirmed);
		for (const by of takenOf.get(document) ?? []) tell(by, by, by.way, null);
	}

	const ids = new Set([...sentOf.keys(), ...takenOf.keys()]);
	const holding = new Set<number>();
	const listed = (ids.size ? await documentsNow(db, [...ids]) : []).map((one) => {
		const held = new Array<Held | undefined>(holders.length).fill(undefined);
		eachWay(one.document, ({ place }, what, way, confirmed) => {
			held[place] = heldAfter(held[place], what, way, confirmed !== null);
		});
		const states = new Set<Holding>();
		held.forEach((what, place) => {
			if (!what) return;
			holding.add(place);
			states.add(stateOf(what, one.issuedSeq));
		});
		return {
			document: one.document,
			number: one.number,
			title: one.title,
			departmentId: one.department,
			now: { label: one.label, issued: one.labelIssued },
			issued: one.issued,
			issuedSeq: one.issuedSeq,
			held,
			states
		};
	});
	return {
		holders,
		holding,
		documents: listed,
		handings(document, holder) {
			const found: Handing[] = [];
			if (listed.some((one) => one.document === document))
				eachWay(document, (by, { label, seq }, way, confirmed) => {
					if (by.holder === holder)
						found.push({
							label,
							seq,
							way,
							at: moment(by.at),
							release: by.release,
							confirmed: confirmed && moment(confirmed)
						});
				});
			return found.sort((a, b) => byText(a.at, b.at));
		}
	};
}

import { sql } from 'drizzle-orm';
import * as contract from '../../contract/register';
import type { Verdict } from '../../core/releases';
import type { Purpose } from '../../core/revisions/revisions';
import { idsOf, live } from '../access/reach';
import { among } from '../platform/db';
import { department, place } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import { GETS } from '../releases/recipients';

interface Row extends Record<string, unknown> {
	document: string;
	path: string;
	number: string;
	title: string;
	label: string;
	at: string;
	by: string | null;
	newest: string;
	release: { number: number; purpose: Purpose; to: string; replyBy: string | null } | null;
	verdict: Verdict | null;
}

export const issued = answers(contract.issued, {
	async run({ db, project, reach }, input) {
		/** The moment and the number of the last row that is known. */
		const [from, after] = input.after?.split(/ (.*)/s) ?? [];
		const rows = await db.execute<Row>(sql`
			select d.id as document, ${place.path} as path, d.number, d.title, v.label,
				v.created_at as at, by.name as by, now.label as newest, went.release, went.verdict
			from version v
			join document d on d.id = v.document_id and d.live and d.project_id = ${project.id}
			join ${place} on ${place.id} = d.id
			join version now on now.id = d.current_version_id
			left join person by on by.id = v.created_by
			left join lateral (
				select json_build_object('number', r.number, 'purpose', r.purpose, 'to', sent.to, 'replyBy', sent.by) as release,
					i.outcome as verdict
				from release_item i join release r on r.id = i.release_id
				cross join lateral (select coalesce(string_agg(distinct t.company, ', '), '') as to,
						min(coalesce(rr.reply_by, r.reply_by)) filter (where rr.expects = 'verdicts') as by
					from release_recipient rr join recipient t on t.id = rr.recipient_id where ${GETS}) sent
				where i.version_id = v.id and r.state in ('issued', 'superseded')
				order by r.issued_at desc limit 1
			) went on true
			where v.issued and ${live()} and ${reach.sees(place.scope)}
				and not exists (select 1 from version later where later.document_id = d.id and later.issued and later.seq > v.seq)
				${from && after ? sql`and (v.created_at < ${from}::timestamptz or v.created_at = ${from}::timestamptz and d.number > ${after})` : sql``}
			order by v.created_at desc, d.number limit ${input.limit + 1}`);
		const shown = rows.slice(0, input.limit);
		const shelves = new Set(shown.map((row) => idsOf(row.path)[0]!));
		const codes = new Map(
			shelves.size
				? [
						...(await db.execute<{ id: string; code: string }>(sql`
							select ${place.id} as id, ${department.code} as code from ${place}
							join ${department} on ${department.id} = ${place.departmentId} where ${among(place.id, shelves)}`))
					].map((row) => [row.id, row.code])
				: []
		);
		const last = shown.at(-1);
		return {
			rows: shown.map((row) => ({
				document: row.document,
				number: row.number,
				title: row.title,
				department: codes.get(idsOf(row.path)[0]!) ?? null,
				label: row.label,
				at: new Date(row.at).toISOString(),
				by: row.by,
				release: row.release,
				verdict: row.verdict,
				since: row.newest === row.label ? null : row.newest
			})),
			...(rows.length > input.limit && last
				? { next: `${new Date(last.at).toISOString()} ${last.number}` }
				: {})
		};
	}
});

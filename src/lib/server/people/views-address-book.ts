import { sql } from 'drizzle-orm';
import * as contract from '../../contract/people';
import { isColleague } from '../../core/people/colleagues';
import { group, groupMember, member, person, project, recipient } from '../platform/db/schema';
import { answers } from '../platform/runner/act';
import { othersControlled } from './controls';

export const addressBook = answers(contract.addressBook, {
	async run({ db, project: here, person: me }) {
		const others = await othersControlled(db, me.id, here.id);
		if (!others.length) return { people: [], groups: [] };
		const ids = sql.join(
			others.map((one) => sql`${one.id}`),
			sql`, `
		);
		// By address, since a recipient has no account: somebody is one line, however often they were worked with.
		const rows = await db.execute<{
			name: string;
			email: string;
			projects: string[];
			company: string | null;
		}>(sql`
			with known as (
				select p.name, p.email, o.code,
					(select g.name from ${group} g join ${groupMember} gm on gm.group_id = g.id
						where gm.person_id = p.id and g.project_id = o.id and g.company limit 1) as company
				from ${member} m
				join ${person} p on p.id = m.person_id and p.closed_at is null
				join ${project} o on o.id = m.project_id
				where m.project_id in (${ids})
				union all
				select r.name, r.email, o.code, r.company
				from ${recipient} r join ${project} o on o.id = r.project_id
				where r.project_id in (${ids})
			)
			select min(name) as name, email, array_agg(distinct code order by code) as projects, max(company) as company
			from known k
			where not exists (
				select 1 from ${member} m join ${person} p on p.id = m.person_id
				where m.project_id = ${here.id} and m.left_at is null and p.email = k.email
			)
			group by email
			order by min(name), email
			limit ${contract.MOST_IN_BOOK}`);
		const groups = await db.execute<{
			id: string;
			name: string;
			project: string;
			company: boolean;
			people: number;
			newHere: number;
		}>(sql`
			select g.id, g.name, o.code as project, g.company,
				count(p.id)::int as people,
				(count(p.id) filter (where not exists (
					select 1 from ${member} m
					where m.person_id = p.id and m.project_id = ${here.id} and m.left_at is null)))::int as "newHere"
			from ${group} g
			join ${project} o on o.id = g.project_id
			join ${groupMember} gm on gm.group_id = g.id
			join ${person} p on p.id = gm.person_id and p.closed_at is null
			where g.project_id in (${ids})
			group by g.id, g.name, o.code, g.company
			order by g.name, o.code`);
		const own = here.settings.ownDomains;
		return {
			people: rows.map((row) => ({ ...row, outside: !isColleague(row.email, own) })),
			groups: [...groups]
		};
	}
});

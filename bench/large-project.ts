import postgres from 'postgres';
import type { Level } from '../src/lib/core/access/levels';
import { firstSettings } from '../src/lib/server/people/first-settings';
import { secretHash } from '../src/lib/server/platform/ids';

/** What the large project holds; the sizes that the budgets name. */
export const SIZE = {
	people: 200,
	departments: 20,
	groups: 20,
	shelves: 20,
	folders: 2_000,
	documents: 1_000_000,
	/** Documents in the one folder that is opened. */
	inOne: 10_000,
	grants: 3_000,
	/** Grants of the one person who looks. */
	ofOne: 40
};

/** The person who looks, their token, and the folder they open. */
export const READER = { id: 'reader0001', token: 'token-of-the-bench' };
export const FOLDER = 'f000000001';

/**
 * Makes a project of a million documents straight in PostgreSQL: the acts would take hours, and what is measured is
 * the reading. Triggers are off while it fills; what they keep is worked out at the end.
 */
export async function makeLargeProject(
	url: string,
	{ documents, inOne }: { documents: number; inOne: number } = SIZE
): Promise<void> {
	const sql = postgres(url, { max: 1, onnotice: () => {} });
	const id = (letter: string, n: string) => `'${letter}' || lpad((${n})::text, 9, '0')`;
	const settings = JSON.stringify({
		...firstSettings('BIG', 'big.example'),
		numbering: {
			separator: '-',
			parts: [
				{ key: 'kind', label: 'Kind', values: null, pattern: '[A-Z]+' },
				{ key: 'serial', label: 'Serial', values: null, pattern: '[A-Z0-9]+' }
			],
			serialDigits: 8
		}
	});
	const words = (list: readonly (Level | null)[]) =>
		`(array[${list.map((level) => (level ? `'${level}'` : 'null')).join(',')}])`;
	const held = words(['view', 'download', 'remark', 'work']);
	const given = words(['view', 'download', 'remark', 'work', 'organise', null]);
	// Indexes of many words are made at the end, as the migrations made them.
	const late = await sql<{ name: string; made: string }[]>`select indexname as name, indexdef as made
		from pg_indexes where indexname in ('document_number_words', 'findable_words')`;
	const steps = [
		`set synchronous_commit = off; set session_replication_role = replica; set work_mem = '256MB'; set maintenance_work_mem = '512MB'`,
		...late.map(({ name }) => `drop index ${name}`),
		`insert into project (id, code, name, client, time_zone, settings) values ('p000000001', 'BIG', 'A large project', 'A client', 'UTC', '${settings}')`,
		`insert into person (id, name, email) select ${id('u', 'n')}, 'Person ' || n, 'person' || n || '@big.example' from generate_series(1, ${SIZE.people - 1}) n`,
		`insert into person (id, name, email) values ('${READER.id}', 'The Reader', 'reader@big.example')`,
		`insert into member (project_id, person_id, controller, outside, seen_until) select 'p000000001', id, id = 'u000000001', id like '%5', now() - interval '8 hours' from person`,
		`insert into api_token (id, person_id, name, secret_hash) values ('t000000001', '${READER.id}', 'bench', '${secretHash(READER.token)}')`,
		`insert into department (id, project_id, code, name, position) select ${id('e', 'n')}, 'p000000001', chr(65 + n / 10) || chr(65 + n % 10), 'Department ' || n, n from generate_series(1, ${SIZE.departments}) n`,
		`insert into department_member (department_id, person_id, lead) select ${id('e', '1 + n % 20')}, ${id('u', 'n')}, n <= 20 from generate_series(1, ${SIZE.people - 1}) n where n % 10 <> 5`,
		`insert into people_group (id, project_id, name, name_key) select ${id('g', 'n')}, 'p000000001', 'Group ' || n, 'group ' || n from generate_series(1, ${SIZE.groups}) n`,
		`insert into group_member (group_id, person_id) select ${id('g', '1 + n % 20')}, ${id('u', '1 + (n * 7) % 199')} from generate_series(1, 300) n on conflict do nothing`,
		`insert into place (id, project_id, path, kind, name, name_key, scope, department_id) select ${id('s', 'n')}, 'p000000001', ${id('s', 'n')}, 'shelf', 'Shelf ' || n, 'shelf ' || n, ${id('s', 'n')}, ${id('e', 'n')} from generate_series(1, ${SIZE.shelves}) n`,
		// Every fifth folder lies on its shelf, the others in one of those.
		`insert into place (id, project_id, parent_id, path, kind, name, name_key, scope)
			select ${id('f', 'n')}, 'p000000001', ${id('s', '1 + n % 20')}, ${id('s', '1 + n % 20')} || ${id('f', 'n')}, 'folder', 'Folder ' || n, 'folder ' || n, ${id('s', '1 + n % 20')}
			from generate_series(1, 400) n`,
		`insert into place (id, project_id, parent_id, path, kind, name, name_key, scope)
			select ${id('f', 'n')}, 'p000000001', q.id, q.path || ${id('f', 'n')}, 'folder', 'Folder ' || n, 'folder ' || n, q.scope
			from generate_series(401, ${SIZE.folders}) n join place q on q.id = ${id('f', '1 + n % 400')}`,
		// Ordinary entries of the shelves, the reader's own, and the rest over people, departments and groups.
		`insert into access_grant (id, place_id, subject_kind, subject_id, level) select ${id('a', 'n')}, ${id('s', 'n')}, 'department', ${id('e', 'n')}, 'work' from generate_series(1, 20) n`,
		`insert into access_grant (id, place_id, subject_kind, subject_id, level, granted_by) select ${id('b', 'n')}, ${id('f', '1 + (n - 1) * 40')}, 'person', '${READER.id}', ${held}[1 + n % 4], 'u000000001' from generate_series(1, ${SIZE.ofOne}) n`,
		`insert into access_grant (id, place_id, subject_kind, subject_id, level, granted_by)
			select ${id('c', 'n')}, ${id('f', '1 + (n * 13) % 2000')},
				(array['person','department','group'])[1 + n % 3],
				case n % 3 when 0 then ${id('u', '1 + n % 199')} when 1 then ${id('e', '1 + n % 20')} else ${id('g', '1 + n % 20')} end,
				${given}[1 + n % 6], 'u000000001'
			from generate_series(1, ${SIZE.grants - SIZE.ofOne - 20}) n on conflict do nothing`,
		`update place p set scope = (select q.id from place q where p.path like q.path || '%' and (q.kind = 'shelf' or exists (select 1 from access_grant g where g.place_id = q.id)) order by length(q.path) desc limit 1) where kind = 'folder'`,
		`insert into content (hash, size, media_type, preview) select lpad(to_hex(n), 64, '0'), 1000 + n, (array['application/pdf','image/vnd.dxf','image/jpeg'])[1 + n % 3], 'none' from generate_series(0, 999) n`,
		`create temporary table spread as select n, case when n <= ${inOne} then '${FOLDER}' else ${id('f', '2 + n % 1999')} end as folder from generate_series(1, ${documents}) n`,
		`insert into place (id, project_id, parent_id, path, kind, name, name_key, scope, created_by)
			select ${id('d', 'n')}, 'p000000001', f.id, f.path || ${id('d', 'n')}, 'document',
				(array['Linkspan','Tower','Quay wall','Fender','Duct','Stair','Roof','Pile'])[1 + n % 8] || ' ' || (array['general arrangement','section','details','schedule','calculation'])[1 + (n / 8) % 5] || ' ' || n,
				'big-' || n, f.scope, 'u000000001'
			from spread join place f on f.id = folder`,
		`insert into document (id, project_id, number, title, state, current_version_id, versions, changed_at, changed_by)
			select id, project_id, 'BIG-' || lpad(substr(id, 2)::int::text, 8, '0'), name, 'wip', 'v' || substr(id, 2), 1,
				now() - (substr(id, 2)::int % 5000) * interval '1 hour', ${id('u', '1 + substr(id, 2)::int % 199')}
			from place where kind = 'document'`,
		`insert into version (id, document_id, seq, label, issued, hash, file_name, note, created_by)
			select 'v' || substr(id, 2), id, 1, 'P01.1', false, lpad(to_hex(substr(id, 2)::int % 1000), 64, '0'), 'a.pdf', 'Added', changed_by from document`,
		`insert into lock (id, document_id, holder_id, purpose, taken_at) select 'l' || substr(id, 2), id, changed_by, 'work', now() from document where id like '%777'`,
		`insert into folder_count (folder_id, scope, documents, last_at, last_by)
			select p.parent_id, p.scope, count(*), max(d.changed_at), max(d.changed_by) from place p join document d on d.id = p.id group by 1, 2`,
		`insert into content_text (hash, text, words)
			select hash, t.text, array_to_tsvector(find_words(t.text)) from content,
				lateral (select string_agg('word' || translate((ascii(substr(hash, 62)) * i * 7919 % 4001)::text, '0123456789', 'abcdefghij'), ' ')
					|| case when hash like '%7' then ' corrosion allowance' else '' end as text from generate_series(1, 40) i) t`,
		`insert into findable (document_id, project_id, scope, name, words)
			select d.id, d.project_id, (select scope from place p where p.id = d.id), n.words, n.words || t.words
			from document d, lateral (select array_to_tsvector(find_words(d.number || ' ' || d.title)) as words) n, content_text t
			where t.hash = lpad(to_hex(substr(d.id, 2)::int % 1000), 64, '0')`,
		`insert into find_word select 'p000000001', word from (
			select unnest(tsvector_to_array(words)) as word from content_text union select unnest(tsvector_to_array(name)) from findable) known where word ~ '^[[:alpha:]]{3,40}$'`,
		...late.map(({ made }) => made),
		`vacuum analyze`,
		`set session_replication_role = default`
	];
	try {
		for (const step of steps) await sql.unsafe(step);
	} finally {
		await sql.end();
	}
}

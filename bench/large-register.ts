import postgres from 'postgres';

/** Deliverables of the large project; three in four have documents, half of these were issued for comment. */
export const DELIVERABLES = 20_000;

/** Fills the register of the large project straight in PostgreSQL, as the project itself is filled. */
export async function makeLargeRegister(url: string): Promise<void> {
	const sql = postgres(url, { max: 1, onnotice: () => {} });
	const steps = [
		`set session_replication_role = replica; set synchronous_commit = off`,
		`insert into deliverable (id, project_id, number, title, department_id, responsible_id, weight)
			select 'r' || lpad(n::text, 9, '0'), 'p000000001', coalesce(number, 'NEW-' || lpad(n::text, 8, '0')), 'Deliverable ' || n,
				'e' || lpad((1 + n % 20)::text, 9, '0'), 'u' || lpad((1 + n % 150)::text, 9, '0'), 1 + n % 3
			from generate_series(1, ${DELIVERABLES}) n
			left join lateral (select number from document where id = 'd' || lpad((n * 37)::text, 9, '0') and n % 4 > 0) doc on true`,
		`insert into deliverable_stage (deliverable_id, stage, planned)
			select 'r' || lpad(n::text, 9, '0'), stage, (current_date - 150 + (n * 7) % 240 + 40 * at)::text
			from generate_series(1, ${DELIVERABLES}) n, (values ('comment', 0), ('approval', 1), ('construction', 2)) as of(stage, at)`,
		`insert into event (project_id, seq, at, actor_name, kind, place_id, document_id, details, previous, hash)
			select 'p000000001', 10 + n, now() - make_interval(days => 1 + n % 140), 'Bench', 'document.revised', d.id, d.id,
				jsonb_build_object('purpose', 'comment', 'label', 'P01'), '', ''
			from generate_series(1, ${DELIVERABLES}) n join document d on d.id = 'd' || lpad((n * 37)::text, 9, '0')
			where n % 4 > 0 and n % 2 = 0`,
		`update version set created_at = now() - interval '200 days' where document_id in (
			select 'd' || lpad((n * 37)::text, 9, '0') from generate_series(1, ${DELIVERABLES}) n)`,
		`insert into chain_head (project_id, seq, hash) values ('p000000001', ${DELIVERABLES + 100}, '') on conflict (project_id) do update set seq = excluded.seq`,
		`analyze deliverable, deliverable_stage, event`
	];
	for (const step of steps) await sql.unsafe(step);
	await sql.end();
}

/** Writes an entry into the trail that makes the register be read anew. */
export async function changeRegister(sql: postgres.Sql): Promise<void> {
	await sql`with head as (update chain_head set seq = seq + 1 where project_id = 'p000000001' returning seq)
		insert into event (project_id, seq, at, actor_name, kind, details, previous, hash)
		select 'p000000001', seq, now(), 'Bench', 'register.changed', '{}', '', '' from head`;
}

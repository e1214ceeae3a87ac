import { performance } from 'node:perf_hooks';
import postgres from 'postgres';
import { addRecipient } from '../src/lib/server/people/acts';
import { readView, runAct } from '../src/lib/server/platform/runner/run';
import { holders } from '../src/lib/server/releases/views-holders';
import { p95, type Line } from './measure';
import { inOwnProject } from './own-project';

const DOCUMENTS = 5_000;
const RECIPIENTS = 60;
/** Documents in one release. */
const EACH = 100;
const DATABASE = 'cupboard_bench_holders';

/** An id of a kind and a count, as long as ids are. */
const id = (kind: string, n: string) => `'${kind}' || lpad((${n})::text, 9, '0')`;

/** Documents that were all sent to all recipients, release by release. */
const statements = (project: string, folder: string, by: string): string[] => [
	`insert into content (hash, size, media_type) values (repeat('a', 64), 1000, 'text/plain')`,
	`insert into place (id, project_id, parent_id, path, kind, name, name_key, scope, created_by)
		select ${id('d', 'n')}, '${project}', f.id, f.path || ${id('d', 'n')}, 'document', 'Sheet ' || n, 'sheet ' || n, f.scope, '${by}'
		from generate_series(1, ${DOCUMENTS}) n, place f where f.id = '${folder}'`,
	`insert into document (id, project_id, number, title, state, current_version_id, versions, changed_at, changed_by)
		select ${id('d', 'n')}, '${project}', 'VFT-MW-LS-00-DR-' || lpad(n::text, 5, '0'), 'Sheet ' || n, 'shared', ${id('v', 'n')}, 1, now(), '${by}'
		from generate_series(1, ${DOCUMENTS}) n`,
	`insert into version (id, document_id, seq, label, issued, hash, file_name, note, created_by)
		select ${id('v', 'n')}, ${id('d', 'n')}, 1, 'P01', true, repeat('a', 64), 'a.txt', 'Issued', '${by}'
		from generate_series(1, ${DOCUMENTS}) n`,
	`insert into recipient (id, project_id, name, company, email)
		select ${id('t', 'n')}, '${project}', 'Recipient ' || n, 'Company ' || n % 12, 'r' || n || '@harbour.example'
		from generate_series(1, ${RECIPIENTS}) n`,
	`insert into release (id, project_id, number, title, purpose, state, route, built_by, issued_at, issued_by)
		select ${id('r', 'n')}, '${project}', n, 'Release ' || n, 'approval', 'issued', '[]', '${by}', now(), '${by}'
		from generate_series(1, ${DOCUMENTS / EACH}) n`,
	`insert into release_item (release_id, document_id, position, version_id, from_label, pinned_hash)
		select ${id('r', `1 + (n - 1) / ${EACH}`)}, ${id('d', 'n')}, n % ${EACH}, ${id('v', 'n')}, 'P01.1', repeat('a', 64)
		from generate_series(1, ${DOCUMENTS}) n`,
	`insert into pass (id, project_id, release_id, secret_hash, holder_name, holder_email, ends_at, received_at)
		select ${id('p', `r * 100 + n`)}, '${project}', ${id('r', 'r')}, md5(r || ' ' || n), 'Recipient ' || n, 'r' || n || '@harbour.example',
			now() + interval '60 days', case when n % 3 = 0 then now() end
		from generate_series(1, ${DOCUMENTS / EACH}) r, generate_series(1, ${RECIPIENTS}) n`,
	`insert into release_recipient (release_id, recipient_id, position, expects, asks, pass_id)
		select ${id('r', 'r')}, ${id('t', 'n')}, n, 'verdicts', 'nothing', ${id('p', `r * 100 + n`)}
		from generate_series(1, ${DOCUMENTS / EACH}) r, generate_series(1, ${RECIPIENTS}) n`,
	'analyze'
];

/** Who holds what, where every document was sent to everybody: the first time, and as it is asked for after. */
export async function holding(): Promise<Line[]> {
	return inOwnProject(DATABASE, async ({ services, founded, url }) => {
		const { people, folder, project } = founded;
		const ines = people.ines!;
		const own = postgres(url, { max: 1, onnotice: () => {} });
		for (const statement of statements(project, folder, ines.person.id)) await own.unsafe(statement);
		await own.end();
		const see = (skip: number, only: 'all' | 'old' | 'unconfirmed' = 'all') =>
			readView(services, holders, ines, { project, skip, limit: 200, only });
		const from = performance.now();
		const { total } = await see(0);
		const first = performance.now() - from;
		if (total !== DOCUMENTS) throw new Error(`${total} documents are held`);
		let asked = 0;
		const after = await p95(() => see((asked++ * 200) % DOCUMENTS, asked % 3 ? 'all' : 'unconfirmed'));
		// What anybody does may change who holds what: what is kept of it is read anew then.
		let newcomers = 0;
		const happen = () => {
			const n = ++newcomers;
			const who = { name: `Newcomer ${n}`, company: 'Harbour', email: `n${n}@harbour.example` };
			return runAct(services, addRecipient, ines, { project, ...who });
		};
		const anew = await p95(() => see(0), 20, happen);
		const what = `who holds what, ${DOCUMENTS.toLocaleString('en')} documents x ${RECIPIENTS} recipients`;
		const baseline = { what: 'the first time after a start', value: first };
		return [
			{ what: `${what}: a page of it`, value: after, unit: 'ms p95', budget: 300, baseline },
			{ what: `${what}: after something happened`, value: anew, unit: 'ms p95', budget: null, baseline },
			{ what: `${what}: the first time after a start`, value: first, unit: 'ms', budget: null, baseline }
		];
	});
}

import { copyFile, mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { oneStep } from '../src/lib/core/releases/route';
import { receive } from '../src/lib/server/content/content';
import { addDocument } from '../src/lib/server/documents/acts';
import { addRecipient } from '../src/lib/server/people/acts';
import { readView, runAct } from '../src/lib/server/platform/runner/run';
import { acceptChecks } from '../src/lib/server/releases/acts';
import { approveRelease, askApproval } from '../src/lib/server/releases/acts-approval';
import { buildRelease } from '../src/lib/server/releases/acts-begin';
import { issueRelease } from '../src/lib/server/releases/acts-issue';
import { holders } from '../src/lib/server/releases/views-holders';
import { releaseView } from '../src/lib/server/releases/views';
import type { Line } from './measure';
import { inOwnProject } from './own-project';

const DOCUMENTS = 500;
const RECIPIENTS = 10;
/** Bytes of each document. */
const EACH = 20_000;
const DATABASE = 'cupboard_bench_issue';

async function* filled(serial: number): AsyncGenerator<Uint8Array> {
	yield Buffer.from(`${serial} ${'linkspan '.repeat(EACH / 9)}`);
}

/** Milliseconds that something takes. */
async function took<T>(act: () => Promise<T>): Promise<[number, T]> {
	const from = performance.now();
	const value = await act();
	return [performance.now() - from, value];
}

/** A release of hundreds of documents, from its build to its issue to several, in a project of its own. */
export async function issuing(): Promise<Line[]> {
	return inOwnProject(DATABASE, async ({ services, founded, home }) => {
		const { people, folder, recipient, project } = founded;
		const [oke, ines, halla] = [people.oke!, people.ines!, people.halla!];
		const documents: string[] = [];
		const hashes: string[] = [];
		for (let serial = 1; serial <= DOCUMENTS; serial++) {
			const owner = { personId: oke.person.id };
			const { upload, hash } = await receive(services, owner, `${serial}.txt`, filled(serial), 1e7);
			hashes.push(hash);
			const number = `VFT-MW-LS-00-DR-${String(serial).padStart(4, '0')}`;
			const title = `Sheet ${serial}`;
			documents.push((await runAct(services, addDocument, oke, { folder, upload, number, title })).id);
		}
		const recipients = [{ recipient }];
		for (let one = 1; one < RECIPIENTS; one++) {
			const who = { project, name: `Recipient ${one}`, company: 'Harbour', email: `r${one}@harbour.example` };
			recipients.push({ recipient: (await runAct(services, addRecipient, ines, who)).id });
		}
		const made = await runAct(services, buildRelease, ines, {
			project,
			title: 'All of it',
			purpose: 'approval',
			recipients,
			route: oneStep(halla.person.id),
			documents
		});
		const release = made.id;
		const see = () => readView(services, releaseView, ines, { project, number: made.number });
		const [checking, { items }] = await took(see);
		const checks = items.flatMap((item) =>
			item.checks
				.filter((check) => check.result === 'look')
				.map((check) => ({ document: item.documentId, check: check.name }))
		);
		if (checks.length) await runAct(services, acceptChecks, ines, { release, checks, reason: 'measured' });
		await runAct(services, askApproval, ines, { release });
		await runAct(services, approveRelease, halla, { release, digest: (await see()).digest });
		const [issue] = await took(() => runAct(services, issueRelease, ines, { release, number: made.number }));
		const copies = join(home, 'copies');
		await mkdir(copies);
		const [copying] = await took(async () => {
			for (const hash of hashes) await copyFile(await services.store.localPath(hash), join(copies, hash));
		});
		const [held] = await took(() => readView(services, holders, ines, { project, limit: 1_000 }));
		const against = { what: 'copying the same bytes', value: copying };
		return [
			{
				what: `issue a release of ${DOCUMENTS} documents to ${RECIPIENTS}`,
				value: issue,
				unit: 'ms',
				budget: 5_000,
				baseline: against
			},
			{
				what: `look at that release while it is built, with its checks`,
				value: checking,
				unit: 'ms',
				budget: null,
				baseline: against
			},
			{
				what: `who holds what of it`,
				value: held,
				unit: 'ms',
				budget: 300,
				baseline: against
			}
		];
	});
}

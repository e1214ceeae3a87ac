import { randomBytes } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import postgres from 'postgres';
import type { z } from 'zod';
import type { Kind } from '../../src/lib/contract/act';
import type { Act, View } from '../../src/lib/server/platform/runner/act';
import type { Actor, Proof } from '../../src/lib/server/platform/runner/actor';
import { addDocument } from '../../src/lib/server/documents/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { documentRow } from '../../src/lib/server/documents/views';
import { takeLock } from '../../src/lib/server/locks/acts';
import { approveRelease } from '../../src/lib/server/releases/acts-approval';
import { acceptChecks } from '../../src/lib/server/releases/acts';
import { readView, runAct } from '../../src/lib/server/platform/runner/run';
import { receive } from '../../src/lib/server/content/content';
import { mail } from '../../src/lib/server/platform/db/schema';
import type { Config } from '../../src/lib/server/platform/config';
import type { Services } from '../../src/lib/server/platform/services';
import { verifyAll } from '../../src/lib/server/trail/verify';
import { startServices } from '../../src/lib/server/api/start';
import { openPools } from '../../src/lib/server/formats/pool';
import { releaseView } from '../../src/lib/server/releases/views';
import { found, testConfig, type Founded } from './founding';
import { address, TEMPLATE } from './global-setup';

/** Where files are opened: a process that starts takes longer than most files, so the worlds of a runner share theirs. */
const pools = openPools(testConfig('', '').workerFile);

/** A Cupboard of a test's own: an empty database, a store in a temporary folder, and a small project. */
export class TestWorld {
	private constructor(
		readonly services: Services,
		readonly config: Config,
		private readonly database: string,
		{ people, project, departments, shelf, folder, other, recipient }: Founded
	) {
		this.people = people;
		this.project = project;
		this.departments = departments;
		this.shelf = shelf;
		this.folder = folder;
		this.other = other;
		this.recipient = recipient;
	}
	private readonly others: Services[] = [];

	get home(): string {
		return this.config.home;
	}

	readonly people: Record<string, Actor>;
	readonly project: string;
	readonly departments: Record<string, string>;
	readonly shelf: string;
	readonly folder: string;
	readonly other: string;
	readonly recipient: string;

	static async open(more: Partial<Config> = {}): Promise<TestWorld> {
		const database = `test_${randomBytes(6).toString('hex')}`;
		const client = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
		await client.unsafe(`create database ${database} template ${TEMPLATE}`);
		await client.end();
		const home = await mkdtemp(join(tmpdir(), 'cupboard-test-'));
		const config = { ...testConfig(address(database), home), ...more };
		const services = await startServices(config, { work: false, pools });
		// Each has ids of its own: what the server remembers of a project is kept by its id.
		return new TestWorld(services, config, database, await found(services));
	}

	/** Another process on the same database and store. */
	async beside(): Promise<Services> {
		const services = await startServices(this.config, { work: false, pools });
		this.others.push(services);
		return services;
	}

	get db() {
		return this.services.database.db;
	}

	async act<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
		who: string | null,
		act: Act<K, S, O>,
		input: unknown,
		at?: Date,
		proofs: Proof[] = []
	): Promise<z.output<O>> {
		return runAct(this.services, act, who === null ? null : (this.people[who] ?? null), input, {
			...(at ? { now: at } : {}),
			proofs
		});
	}

	async read<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
		who: string | null,
		view: View<K, S, O>,
		input: unknown,
		proofs: Proof[] = []
	): Promise<z.output<O>> {
		return readView(this.services, view, who === null ? null : (this.people[who] ?? null), input, { proofs });
	}

	/** Sends bytes as a person and gives the upload. */
	async send(who: string, content: string | Uint8Array, name = 'sheet.txt', limit = 1e9): Promise<string> {
		const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
		const source = (async function* () {
			yield bytes;
		})();
		return (await receive(this.services, { personId: this.people[who]!.person.id }, name, source, limit))
			.upload;
	}

	/** The words of the mails to an address, oldest first. */
	async mailsTo(address: string): Promise<string[]> {
		const rows = await this.db.select().from(mail).where(eq(mail.toAddress, address)).orderBy(mail.createdAt);
		return rows.map((row) => row.body);
	}

	private serial = 0;
	/** Adds a document to Linkspan and gives its id and number. */
	async add(who = 'oke', content?: string, folder = this.folder): Promise<{ id: string; number: string }> {
		const number = `VFT-MW-LS-00-DR-${String(++this.serial).padStart(4, '0')}`;
		const upload = await this.send(who, content ?? `content of ${number}`);
		return this.act(who, addDocument, { folder, upload, number, title: `Sheet ${this.serial}` });
	}

	/** Takes a document in hand and hands in a version made from the newest. */
	async revise(
		document: string,
		who = 'oke',
		content = randomBytes(8).toString('hex'),
		keepLock = false
	): Promise<string> {
		await this.act(who, takeLock, { document, purpose: 'a change' }).catch(() => {});
		const upload = await this.send(who, content);
		const base = (await this.read(who, documentRow, { document })).label;
		const made = await this.act(who, handIn, { document, upload, note: 'changed', keepLock, base });
		if (made.kept !== 'on-the-line') throw new Error(`It was not stored on the line: ${made.kept}`);
		return made.label;
	}

	/** Approves a release as it stands, having looked at it. */
	async approve(who: string, release: { id: string; number: number }): Promise<void> {
		const { digest } = await this.read(who, releaseView, { project: 'VFT', number: release.number });
		await this.act(who, approveRelease, { release: release.id, digest });
	}

	/** Says of everything that checks ask to look at why it goes out. */
	async acceptAll(release: { id: string; number: number }): Promise<void> {
		const { items } = await this.read('ines', releaseView, { project: 'VFT', number: release.number });
		const checks = items.flatMap((i) =>
			i.checks.filter((c) => c.result === 'look').map((c) => ({ document: i.documentId, check: c.name }))
		);
		if (checks.length)
			await this.act('ines', acceptChecks, { release: release.id, checks, reason: 'looked at' });
	}

	/** What `npm run verify` finds. */
	verify() {
		return verifyAll(this.services.database, this.services.store, this.config.home);
	}

	async close(): Promise<void> {
		for (const one of this.others) await one.close();
		await this.services.close();
		const client = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
		await client.unsafe(`drop database if exists ${this.database} with (force)`);
		await client.end();
		await rm(this.home, { recursive: true, force: true });
	}
}

/** The problem that a promise is refused with; fails when it is not refused. */
export async function refused(
	promise: Promise<unknown>
): Promise<{ code: string; sentence: string; facts: Record<string, unknown> }> {
	try {
		await promise;
	} catch (error) {
		return error as never;
	}
	throw new Error('It was not refused.');
}

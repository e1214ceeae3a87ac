import { eq } from 'drizzle-orm';
import type { z } from 'zod';
import { DAY } from '../../src/lib/core/time/spans';
import type { Kind } from '../../src/lib/contract/act';
import type { Act } from '../../src/lib/server/platform/runner/act';
import type { Actor, Proof } from '../../src/lib/server/platform/runner/actor';
import { readView, runAct } from '../../src/lib/server/platform/runner/run';
import type { View } from '../../src/lib/server/platform/runner/act';
import { noteUpload, receive } from '../../src/lib/server/content/content';
import { person as personTable } from '../../src/lib/server/platform/db/schema';
import { startServices } from '../../src/lib/server/api/start';
import { newId } from '../../src/lib/server/platform/ids';
import { PEOPLE, type Run } from './catalogue';
import { FilesAhead } from './ahead';
import type { Kept } from './files';
import { Random } from './random';

export const HOUR = 3_600_000;

export interface Doc {
	id: string;
	number: string;
	title: string;
	department: string;
	run: Run;
	folder: string;
	label: string;
	edits: number;
	lockedBy: string | null;
	removed?: boolean;
}

/** The people, the documents made so far and the clock of the world being made. */
export class Stage {
	readonly random = new Random('vennholm');
	readonly files: FilesAhead;
	readonly people = new Map<string, Actor>();
	/** Ids of the departments, by code. */
	readonly departments = new Map<string, string>();
	readonly docs: Doc[] = [];
	project = '';
	clock = 0;
	readonly today: number;
	readonly end: number;

	constructor(readonly services: Awaited<ReturnType<typeof startServices>>) {
		this.files = new FilesAhead(services.store, services.config.store);
		this.end = Date.now() - 5 * 60_000;
		this.today = Math.floor(this.end / DAY) * DAY;
	}

	/** A moment on a working hour, so many days before today. */
	at(daysAgo: number, hour: number): number {
		return this.today - daysAgo * DAY + hour * HOUR;
	}

	/** Does an act as a person at the moment the clock shows; the clock never runs back or past now. */
	async act<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
		who: string | null,
		act: Act<K, S, O>,
		input: unknown,
		at?: number,
		proofs: Proof[] = []
	): Promise<z.output<O>> {
		this.clock = Math.min(Math.max(this.clock + 1, at ?? this.clock), this.end);
		const actor = who === null ? null : (this.people.get(who) ?? null);
		return runAct(this.services, act, actor, input, { now: new Date(this.clock), proofs });
	}

	/** Reads a view as a person. */
	async read<K extends Kind, S extends z.ZodObject, O extends z.ZodType>(
		who: string,
		view: View<K, S, O>,
		input: unknown
	): Promise<z.output<O>> {
		return readView(this.services, view, this.people.get(who)!, input);
	}

	async send(who: string, name: string, bytes: Uint8Array | string): Promise<string> {
		const data = typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes;
		const one = (async function* () {
			yield data;
		})();
		const { upload } = await receive(
			this.services,
			{ personId: this.people.get(who)!.person.id },
			name,
			one,
			1e9,
			new Date(this.clock)
		);
		return upload;
	}

	/** Sends a file whose bytes are in the store. */
	async sendKept(who: string, file: Kept): Promise<string> {
		const sender = { personId: this.people.get(who)!.person.id };
		return (await noteUpload(this.services, newId(), sender, file, new Date(this.clock))).upload;
	}

	async know(name: string): Promise<void> {
		const [row] = await this.services.database.db
			.select()
			.from(personTable)
			.where(eq(personTable.name, name));
		this.people.set(name, { person: { id: row!.id, name: row!.name, email: row!.email }, via: 'session' });
	}

	leadOf(department: string): string {
		return PEOPLE.find((p) => p.department === department && p.lead)!.name;
	}

	/** Folders in which only some people may work, because they are closed or frozen. */
	readonly onlyIn = new Map<string, string[]>();

	/** Somebody who may work on a document: of its department, or one of the few where its folder is closed or frozen. */
	someoneFor(doc: Doc): string {
		const chosen = this.random.pick(PEOPLE.filter((p) => p.department === doc.department)).name;
		const only = this.onlyIn.get(doc.folder);
		return !only || only.includes(chosen) ? chosen : only[0]!;
	}

	by(number: string): Doc {
		const doc = this.docs.find((d) => d.number === number);
		if (!doc) throw new Error(`The catalogue has no ${number}`);
		return doc;
	}
}

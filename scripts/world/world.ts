import { count, eq, sql } from 'drizzle-orm';
import type { Config } from '../../src/lib/server/config';
import { label as writeLabel, DEFAULT_SCHEME, nextSave, parse } from '../../src/lib/core/revisions/revisions';
import { acceptInvitation } from '../../src/lib/server/acts/account';
import type { z } from 'zod';
import type { Act, Actor, At } from '../../src/lib/server/acts/act';
import { addDocument, handIn, openDocument, restoreVersion } from '../../src/lib/server/acts/documents';
import { makeFolder, makeShelf } from '../../src/lib/server/acts/folders';
import { takeLock } from '../../src/lib/server/acts/locks';
import { confirmReceipt, openPass, saveVerdicts, signVerdicts } from '../../src/lib/server/acts/passes';
import {
	addPerson,
	addRecipient,
	makeDepartment,
	makeProject,
	markProjectSeen
} from '../../src/lib/server/acts/people';
import { askApproval, approveRelease, sendBack } from '../../src/lib/server/acts/releases/approval';
import { buildRelease } from '../../src/lib/server/acts/releases/build';
import { issueRelease } from '../../src/lib/server/acts/releases/issue';
import { removePlace, restorePlace } from '../../src/lib/server/acts/removals';
import { runAct } from '../../src/lib/server/acts/run';
import { receive } from '../../src/lib/server/content';
import { document, mail, person as personTable, version } from '../../src/lib/server/db/schema';
import { firstCode, makeFirst } from '../../src/lib/server/first';
import { startServices } from '../../src/lib/server/start';
import {
	DEPARTMENTS,
	LOCK_PURPOSES,
	NOTES,
	PEOPLE,
	SHELVES,
	titlesOf,
	type FolderPlan,
	type Run
} from './catalogue';
import { drawing } from './drawings';
import { csv, docx, markdown, pdfSheet, pdfText, photograph, xlsx } from './papers';
import { Random } from './random';

type Kind = At<never>['kind'];

const PASSWORD = 'cupboard-demo';
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

interface Doc {
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

/**
 * Makes the demo's project, Vennholm Ferry Terminal, through the same acts as everybody uses, at times that run
 * over the nine weeks before now. The same code makes the same world; only the days move along with the calendar.
 */
export async function makeWorld(config: Config): Promise<void> {
	const services = await startServices(config, { work: false });
	const { db } = services.database;
	// The world can be made again, so it does not wait for the disk at every act.
	await db.execute(
		sql`alter database ${sql.raw(new URL(config.databaseUrl).pathname.slice(1))} set synchronous_commit = off`
	);
	// Previews of versions that nobody will look at first are made when asked for; see the end.
	const enqueue = services.jobs.enqueue.bind(services.jobs);
	services.jobs.enqueue = async (tx, name, data) => {
		if (name !== 'make-preview') await enqueue(tx, name, data);
	};
	const world = new World(services);
	await world.make();
	for (const { hash } of await db
		.selectDistinct({ hash: version.hash })
		.from(version)
		.innerJoin(document, eq(document.currentVersionId, version.id))) {
		await db.transaction((tx) => enqueue(tx, 'make-preview', { hash }));
	}
	await db.execute(
		sql`alter database ${sql.raw(new URL(config.databaseUrl).pathname.slice(1))} reset synchronous_commit`
	);
	await db.execute(sql`analyze`);
	const [docs] = await db.select({ n: count() }).from(document);
	const [versions] = await db.select({ n: count() }).from(version);
	console.log(`· the demo world is made: ${docs!.n} documents with ${versions!.n} versions`);
	await services.close();
}

class World {
	private readonly random = new Random('vennholm');
	private readonly people = new Map<string, Actor>();
	private readonly docs: Doc[] = [];
	private project = '';
	private clock = 0;
	private readonly today: number;
	private readonly end: number;

	constructor(private readonly services: Awaited<ReturnType<typeof startServices>>) {
		this.end = Date.now() - 5 * 60_000;
		this.today = Math.floor(this.end / DAY) * DAY;
	}

	/** A moment on a working hour, so many days before today. */
	private at(daysAgo: number, hour: number): number {
		return this.today - daysAgo * DAY + hour * HOUR;
	}

	/** Does an act as a person at the moment the clock shows; the clock never runs back or past now. */
	private async act<K extends Kind, S extends z.ZodObject, O>(
		who: string | null,
		act: Act<K, S, O>,
		input: unknown,
		at?: number
	): Promise<O> {
		this.clock = Math.min(Math.max(this.clock + 1, at ?? this.clock), this.end);
		const actor = who === null ? null : (this.people.get(who) ?? null);
		return runAct(this.services, act, actor, input, { now: new Date(this.clock) });
	}

	private async send(who: string, name: string, bytes: Uint8Array | string): Promise<string> {
		const data = typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes;
		const one = (async function* () {
			yield data;
		})();
		const { upload } = await receive(
			this.services,
			this.people.get(who)!.person.id,
			name,
			one,
			1e9,
			new Date(this.clock)
		);
		return upload;
	}

	async make(): Promise<void> {
		await this.found();
		const steps = await this.plan();
		steps.sort((a, b) => a.at - b.at);
		for (const step of steps) {
			this.clock = Math.max(this.clock, Math.min(step.at, this.end));
			await step.run();
		}
		await this.tidyMail();
	}

	/** Mail of past weeks went out then; only what is younger than a day is left to the running server. */
	private async tidyMail(): Promise<void> {
		await this.services.database.db
			.update(mail)
			.set({ state: 'sent', sentAt: mail.createdAt, receivedAt: mail.createdAt })
			.where(sql`true`);
		await this.services.database.db.execute(sql`delete from pgboss.job where name = 'send-mail'`);
	}

	private async found(): Promise<void> {
		this.clock = this.at(64, 8);
		const code = await firstCode(this.services.database);
		await makeFirst(this.services.database, code!, {
			name: 'Ines Maddock',
			email: 'ines@vennholm.example',
			password: PASSWORD
		});
		await this.know('Ines Maddock');
		const made = await this.act('Ines Maddock', makeProject, {
			code: 'VFT',
			name: 'Vennholm Ferry Terminal',
			client: 'Vennholm Harbour Trust',
			timeZone: 'Europe/Stockholm',
			firstRelease: 31
		});
		this.project = made.id;
		const departments = new Map<string, string>();
		for (const d of DEPARTMENTS)
			departments.set(
				d.code,
				(await this.act('Ines Maddock', makeDepartment, { project: this.project, ...d })).id
			);
		const { db } = this.services.database;
		await db.execute(
			sql`insert into department_member (department_id, person_id, lead) select ${departments.get('DC')!}, id, true from person`
		);
		for (const p of PEOPLE.slice(1)) {
			const email = `${p.name.split(' ')[0]!.toLowerCase()}@vennholm.example`;
			await this.act('Ines Maddock', addPerson, {
				project: this.project,
				name: p.name,
				email,
				department: departments.get(p.department),
				lead: p.lead ?? false,
				controller: p.controller ?? false
			});
			const [invitation] = await db.select({ body: mail.body }).from(mail).where(eq(mail.toAddress, email));
			const secret = /invited\/(\S+)/.exec(invitation!.body)![1]!;
			await this.act(null, acceptInvitation, { secret, password: PASSWORD });
			await this.know(p.name);
		}
		await this.act('Ines Maddock', addRecipient, {
			project: this.project,
			name: 'Maren Aldgate',
			company: 'Vennholm Harbour Trust',
			email: 'maren@harbourtrust.example'
		});
		await this.act('Ines Maddock', addRecipient, {
			project: this.project,
			name: 'Kaja Dorn',
			company: 'Tarn Steelwork',
			email: 'k.dorn@tarnsteel.example'
		});
		for (const d of DEPARTMENTS) {
			const also =
				d.code === 'DC' || d.code === 'SI'
					? []
					: DEPARTMENTS.filter(
							(o) =>
								['AR', 'ST', 'MW', 'BS', 'PL'].includes(o.code) &&
								o.code !== d.code &&
								this.shares(d.code, o.code)
						).map((o) => ({ department: departments.get(o.code)!, level: 'look' }));
			const shelf = await this.act('Ines Maddock', makeShelf, {
				project: this.project,
				name: d.name,
				department: departments.get(d.code),
				also
			});
			await this.folders(d.code, shelf.id, SHELVES[d.code]!);
		}
	}

	/** Neighbours in the design look at each other's shelves. */
	private shares(a: string, b: string): boolean {
		const pairs = ['AR-ST', 'AR-BS', 'AR-PL', 'ST-MW', 'MW-PL', 'ST-BS'];
		return pairs.includes(`${a}-${b}`) || pairs.includes(`${b}-${a}`);
	}

	private async know(name: string): Promise<void> {
		const [row] = await this.services.database.db
			.select()
			.from(personTable)
			.where(eq(personTable.name, name));
		this.people.set(name, { person: { id: row!.id, name: row!.name, email: row!.email }, via: 'session' });
	}

	private async folders(department: string, parent: string, plans: FolderPlan[]): Promise<void> {
		for (const plan of plans) {
			const { id } = await this.act(this.leadOf(department), makeFolder, { parent, name: plan.name });
			for (const run of plan.runs) {
				titlesOf(run.titles).forEach((title, i) => {
					const number = `VFT-${department}-${plan.zone}-${plan.level}-${run.type}-${String(run.first + i).padStart(4, '0')}`;
					this.docs.push({
						id: '',
						number,
						title,
						department,
						run,
						folder: id,
						label: '',
						edits: 0,
						lockedBy: null
					});
				});
			}
			if (plan.inside) await this.folders(department, id, plan.inside);
		}
	}

	private leadOf(department: string): string {
		return PEOPLE.find((p) => p.department === department && p.lead)!.name;
	}

	private someoneIn(department: string): string {
		return this.random.pick(PEOPLE.filter((p) => p.department === department)).name;
	}

	/** The file of a document at its next version. */
	private async fileOf(doc: Doc, revision: string): Promise<{ name: string; bytes: Uint8Array | string }> {
		const { run, number, title } = doc;
		const edit = doc.edits;
		const when = new Date(this.clock);
		const stem = `${number} ${title}`;
		switch (run.form) {
			case 'dxf':
			case 'sheet': {
				const dxf = drawing(
					run.kind!,
					{ seed: number, edit },
					{
						number,
						title,
						revision,
						date: when.toISOString().slice(0, 10),
						drawn: 'Drawing office',
						department: DEPARTMENTS.find((d) => d.code === doc.department)!.name
					}
				);
				return run.form === 'dxf'
					? { name: `${stem}.dxf`, bytes: dxf }
					: { name: `${stem}.pdf`, bytes: await pdfSheet(dxf, title, when) };
			}
			case 'pdf':
				return { name: `${stem}.pdf`, bytes: await pdfText(run.type, number, title, edit, when) };
			case 'docx':
				return { name: `${stem}.docx`, bytes: await docx(run.type, number, title, revision, edit) };
			case 'xlsx':
				return { name: `${stem}.xlsx`, bytes: await xlsx(number, title, revision, edit) };
			case 'csv':
				return { name: `${stem}.csv`, bytes: csv(title, edit) };
			case 'md':
				return { name: `${stem}.md`, bytes: markdown(run.type, number, title, edit) };
			case 'jpeg':
				return { name: `${stem}.jpg`, bytes: await photograph(edit > 1 ? `${title} ${edit}` : title, when) };
		}
	}

	private nextLabel(doc: Doc): string {
		return writeLabel(
			DEFAULT_SCHEME,
			nextSave(DEFAULT_SCHEME, doc.label ? parse(DEFAULT_SCHEME, doc.label) : null)
		);
	}

	private async add(doc: Doc): Promise<void> {
		const who = this.someoneIn(doc.department);
		doc.edits = 1;
		const file = await this.fileOf(doc, this.nextLabel(doc));
		const upload = await this.send(who, file.name, file.bytes);
		const { id, label } = await this.act(who, addDocument, {
			folder: doc.folder,
			upload,
			number: doc.number,
			title: doc.title,
			note: 'First issue to the project'
		});
		doc.id = id;
		doc.label = label;
	}

	private async revise(
		doc: Doc,
		{
			who,
			note,
			keep = false,
			purpose
		}: { who?: string; note?: string; keep?: boolean; purpose?: string } = {}
	): Promise<void> {
		if (!doc.id || doc.removed) return;
		const by = doc.lockedBy ?? who ?? this.someoneIn(doc.department);
		if (!doc.lockedBy) {
			await this.act(by, takeLock, { document: doc.id, purpose: purpose ?? this.random.pick(LOCK_PURPOSES) });
			doc.lockedBy = by;
		}
		doc.edits++;
		const revision = this.nextLabel(doc);
		const file = await this.fileOf(doc, revision);
		const upload = await this.send(by, file.name, file.bytes);
		const kind = ['dxf', 'sheet'].includes(doc.run.form)
			? 'drawing'
			: ['xlsx', 'csv'].includes(doc.run.form)
				? 'schedule'
				: doc.run.form === 'jpeg'
					? 'photo'
					: 'text';
		const { label } = await this.act(by, handIn, {
			document: doc.id,
			upload,
			note: note ?? NOTES[kind]![(doc.edits - 2) % NOTES[kind]!.length]!,
			keepLock: keep
		});
		doc.label = label;
		if (!keep) doc.lockedBy = null;
	}

	/** Takes a document in hand for a revision to come, when it is free. */
	private async take(doc: Doc): Promise<void> {
		if (!doc.id || doc.removed || doc.lockedBy) return;
		const by = this.someoneIn(doc.department);
		await this.act(by, takeLock, { document: doc.id, purpose: this.random.pick(LOCK_PURPOSES) });
		doc.lockedBy = by;
	}

	private by(number: string): Doc {
		const doc = this.docs.find((d) => d.number === number);
		if (!doc) throw new Error(`The catalogue has no ${number}`);
		return doc;
	}

	/** Everything that happens after the founding, each step with its moment. */
	private async plan(): Promise<{ at: number; run: () => Promise<void> }[]> {
		const steps: { at: number; run: () => Promise<void> }[] = [];
		const step = (daysAgo: number, hour: number, run: () => Promise<void>) =>
			steps.push({ at: this.at(daysAgo, hour), run });
		const r = this.random;
		/** A revision some time after its lock was taken. */
		const revision = (daysAgo: number, hour: number, doc: Doc) => {
			step(daysAgo, hour - 0.3 - r.next(), () => this.take(doc));
			step(daysAgo, hour, () => this.revise(doc));
		};
		for (const doc of this.docs) {
			const photo = doc.run.type === 'PH' || doc.title.startsWith('Daily record');
			const born = photo ? r.int(1, 40) : r.int(42, 60);
			step(born, r.int(7, 16) + r.next(), () => this.add(doc));
			const linkspan = doc.number.includes('-LS-00-DR-01');
			const more = photo ? (r.chance(0.1) ? 1 : 0) : linkspan ? 0 : r.pick([1, 1, 2, 2, 2, 3, 3, 4]);
			for (let i = 0; i < more; i++) {
				const daysAgo = Math.max(1, Math.floor(born - ((born - 1) * (i + r.next())) / more));
				revision(daysAgo, r.int(7, 11) + r.next(), doc);
			}
		}
		// The linkspan drawings have a history worth comparing.
		const linkspan = this.docs.filter((d) => d.number.startsWith('VFT-MW-LS-00-DR-01'));
		for (const doc of linkspan) {
			for (const daysAgo of [38, 33, 29]) revision(daysAgo, 9 + r.next() * 3, doc);
			for (const daysAgo of [20, 16]) revision(daysAgo, 9 + r.next() * 3, doc);
		}
		const numbers = (filter: (d: Doc) => boolean, most: number) => () =>
			this.docs.filter((d) => d.id && !d.lockedBy && filter(d)).slice(0, most);
		const release = (
			daysAgo: number,
			title: string,
			purpose: string,
			pick: () => Doc[],
			reply: number | null,
			after: (pass: string, docs: Doc[]) => Promise<void>
		) =>
			step(daysAgo, 13, async () => {
				const docs = pick();
				const about = await this.buildAndApprove(
					title,
					purpose,
					docs,
					reply === null ? null : new Date(this.at(reply, 0)).toISOString().slice(0, 10)
				);
				const { pass } = await this.act(
					'Ines Maddock',
					issueRelease,
					{ release: about.id, passDays: 120 },
					this.clock + 20 * 60_000
				);
				await this.refreshLabels(docs);
				await after(pass.split('/pass/')[1]!, docs);
			});
		release(
			40,
			'Scheme design, all departments',
			'information',
			numbers((d) => d.run.type !== 'PH' && d.number < 'VFT-SI' && d.edits > 0, 130),
			null,
			async (secret) => {
				await this.act(null, openPass, { secret }, this.clock + 2 * HOUR);
				await this.act(null, confirmReceipt, { secret });
			}
		);
		release(
			27,
			'Linkspan drawings for comment',
			'comment',
			() => linkspan,
			19,
			async (secret, docs) => {
				await this.act(null, openPass, { secret }, this.clock + 3 * HOUR);
				await this.act(
					null,
					signVerdicts,
					{
						secret,
						name: 'Maren Aldgate',
						answers: docs.map((d, i) => ({
							document: d.id,
							code: i % 3 === 1 ? 'C' : 'B',
							remark: i % 3 === 1 ? 'Scale missing in the title block of the section.' : ''
						}))
					},
					this.clock + DAY
				);
			}
		);
		release(
			12,
			'Linkspan for approval',
			'approval',
			() => linkspan,
			-2,
			async (secret, docs) => {
				await this.act(null, openPass, { secret }, this.clock + 19 * HOUR);
				await this.act(null, confirmReceipt, { secret }, this.clock + 5 * 60_000);
				const remark = ['Show mean low water on the elevation.', '', 'Tower ladder lacks a cage above 3 m.'];
				await this.act(
					null,
					signVerdicts,
					{
						secret,
						name: 'Maren Aldgate',
						answers: docs
							.slice(0, 3)
							.map((d, i) => ({ document: d.id, code: ['B', 'A', 'C'][i], remark: remark[i]! }))
					},
					this.clock + 2 * DAY
				);
				await this.act(null, saveVerdicts, {
					secret,
					answers: docs.slice(3, 5).map((d) => ({ document: d.id, code: 'A', remark: '' }))
				});
			}
		);
		step(9, 15, async () => {
			const gone = this.by('VFT-PL-ZZ-XX-RP-0004');
			gone.removed = true;
			await this.act('Wren Ostrow', removePlace, {
				place: gone.id,
				reason: 'Replaced by the statement of the acoustics consultant'
			});
			const wrong = this.docs.find((d) => d.run.type === 'PH' && d.department === 'SI' && d.id)!;
			wrong.removed = true;
			await this.act('Sefa Tuimala', removePlace, { place: wrong.id, reason: 'A person can be recognised' });
			const back = this.by('VFT-AR-TB-XX-SH-0021');
			await this.act('Halla Brandt', removePlace, { place: back.id, reason: 'Thought to be a duplicate' });
			await this.act('Halla Brandt', restorePlace, { place: back.id }, this.clock + 2 * HOUR);
		});
		step(8, 11, async () => {
			const doc = this.by('VFT-MW-QW-00-DR-0301');
			if (doc.edits > 2 && !doc.lockedBy)
				doc.label = (
					await this.act('Oke Lindvar', restoreVersion, {
						document: doc.id,
						label: 'P01.1',
						note: 'The first alignment holds after all'
					})
				).label;
		});
		step(6, 16.2, async () => {
			const stale = this.by('VFT-MW-LS-00-DR-0121');
			await this.act('Rhosyn Hale', takeLock, {
				document: stale.id,
				purpose: 'guard rail heights',
				expectedEnd: new Date(this.at(3, 15)).toISOString()
			});
			stale.lockedBy = 'Rhosyn Hale';
		});
		step(2, 16, async () => {
			for (const person of PEOPLE) await this.act(person.name, markProjectSeen, { project: this.project });
		});
		// Now: what is in hand this morning.
		const now = (minutesAgo: number, run: () => Promise<void>) =>
			steps.push({ at: this.end - minutesAgo * 60_000, run });
		step(1, 15.3, () =>
			this.revise(this.by('VFT-MW-LS-00-DR-0101'), {
				who: 'Oke Lindvar',
				keep: true,
				note: 'New hinge centreline from supplier',
				purpose: 'pit wall setting out'
			})
		);
		now(190, () =>
			this.revise(this.by('VFT-MW-LS-00-DR-0101'), { keep: true, note: 'Pit wall moved 150 towards quay' })
		);
		now(110, async () => {
			const mine = this.by('VFT-MW-LS-00-DR-0103');
			await this.act('Ines Maddock', takeLock, {
				document: mine.id,
				purpose: 'title block corrected',
				expectedEnd: new Date(this.end + 3 * HOUR).toISOString()
			});
			mine.lockedBy = 'Ines Maddock';
		});
		const held: [number, string, string, string][] = [
			[95, 'VFT-ST-TB-FN-DR-0105', 'Aino Weir', 'pile cap sizes'],
			[90, 'VFT-AR-TB-00-DR-0101', 'Petra Quill', 'door swings in the north wing'],
			[85, 'VFT-AR-TB-00-DR-0102', 'Jun Sabol', 'stair 2'],
			[80, 'VFT-AR-TB-XX-SH-0001', 'Halla Brandt', 'fire doors'],
			[75, 'VFT-BS-TB-01-DR-0101', 'Lumi Arden', 'main duct size'],
			[70, 'VFT-BS-SU-00-DR-0201', 'Dario Fenn', 'duct bank depth'],
			[65, 'VFT-PL-ZZ-XX-MN-0035', 'Edda Norrow', 'actions list'],
			[60, 'VFT-SI-QW-00-DR-0901', 'Bram Oyelund', 'surveyed positions'],
			[55, 'VFT-SI-ZZ-XX-SH-0095', 'Tove Askerby', 'hold points'],
			[50, 'VFT-MW-QW-00-DR-0301', 'Maj Torvane', 'tie rod level'],
			[45, 'VFT-ST-TB-XX-CA-0041', 'Kell Harrant', 'drift at the parapet']
		];
		for (const [ago, number, who, purpose] of held) {
			now(ago, async () => {
				const doc = this.by(number);
				if (doc.lockedBy) return;
				await this.act(who, takeLock, {
					document: doc.id,
					purpose,
					expectedEnd: new Date(this.end + 6 * HOUR).toISOString()
				});
				doc.lockedBy = who;
			});
		}
		now(40, async () => {
			const chosen = [
				'VFT-ST-TB-RF-DR-0201',
				'VFT-ST-TB-RF-DR-0202',
				'VFT-ST-TB-RF-DR-0210',
				'VFT-ST-TB-FN-DR-0104',
				'VFT-ST-TB-FN-DR-0106',
				'VFT-ST-TB-FN-CA-0012',
				'VFT-AR-TB-EX-DR-0201'
			].map((n) => this.by(n));
			const about = await this.build(
				'Substructure and roof frame for construction',
				'construction',
				chosen,
				new Date(this.at(-9, 0)).toISOString().slice(0, 10),
				'Tomas Verrin'
			);
			await this.act('Ines Maddock', askApproval, { release: about.id });
			await this.act(
				'Tomas Verrin',
				sendBack,
				{ release: about.id, reason: 'The pile cap schedule belongs in this release.' },
				this.clock + 6 * 60_000
			);
		});
		now(25, async () => {
			for (const [who, number] of [
				['Ines Maddock', 'VFT-MW-LS-00-DR-0101'],
				['Halla Brandt', 'VFT-AR-TB-00-DR-0103'],
				['Tomas Verrin', 'VFT-ST-TB-RF-DR-0201']
			] as const)
				await this.act(who, openDocument, { document: this.by(number).id });
		});
		for (const [ago, number] of [
			[22, 'VFT-BS-TB-XX-DR-0501'],
			[15, 'VFT-MW-LS-00-SP-0003'],
			[8, 'VFT-AR-TB-XX-DR-0601']
		] as const)
			now(ago, () => this.revise(this.by(number)));
		return steps;
	}

	private async build(
		title: string,
		purpose: string,
		docs: Doc[],
		replyBy: string | null,
		approver: string
	): Promise<{ id: string }> {
		const { db } = this.services.database;
		const [to] = await db.execute<{ id: string }>(
			sql`select id from recipient where email = 'maren@harbourtrust.example'`
		);
		return this.act('Ines Maddock', buildRelease, {
			project: this.project,
			title,
			purpose,
			recipient: to!.id,
			approver: this.people.get(approver)!.person.id,
			replyBy,
			documents: docs.map((d) => d.id)
		});
	}

	private async buildAndApprove(
		title: string,
		purpose: string,
		docs: Doc[],
		replyBy: string | null
	): Promise<{ id: string }> {
		const about = await this.build(title, purpose, docs, replyBy, 'Halla Brandt');
		await this.act('Ines Maddock', askApproval, { release: about.id }, this.clock + 20 * 60_000);
		await this.act('Halla Brandt', approveRelease, { release: about.id }, this.clock + HOUR);
		return about;
	}

	private async refreshLabels(docs: Doc[]): Promise<void> {
		const rows = await this.services.database.db
			.select({ id: document.id, label: version.label })
			.from(document)
			.innerJoin(version, eq(version.id, document.currentVersionId));
		for (const doc of docs) doc.label = rows.find((row) => row.id === doc.id)!.label;
	}
}

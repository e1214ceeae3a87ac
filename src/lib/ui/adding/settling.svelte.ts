import {
	COLUMNS,
	faultsOf,
	filledDown,
	isShared,
	numberAfter,
	sharedNumbers,
	tagsOf,
	type Column
} from '../../core/files/settle';
import type { NumberingRule } from '../../core/numbering/numbering';
import { baseSentence, type Base } from '../../core/versions/base';
import { cupboard } from '../../client/cupboard';
import { CallError } from '../../client/call';
import { sentenceOf } from '../platform/api';
import type { Batch, Gathered } from './files';
import { proposalsFor, usesOf, type InUse } from './proposing';
import { queue, type Sending } from './sending.svelte';
import { sizeText } from '../platform/words';

/** A document that has a number already, as far as one may work on it. */
type Known = NonNullable<InUse['document']>;

/** What becomes of a file: a document of its own, or the next version of the one that has its number. */
export type Becomes = 'document' | 'version' | 'undecided';

/** One file on its way from a table into the folder. */
export class Line {
	number = $state('');
	title = $state('');
	tags = $state('');
	hint = $state('');
	becomes = $state<Becomes>('document');
	state = $state<'ready' | 'going' | 'done' | 'fault'>('ready');
	/** What the server or the line said; what is wrong with number and title is worked out anew with every key. */
	fault = $state('');
	/** Nothing can be done about it here. */
	readonly hopeless: string;
	sending = $state<Sending | null>(null);
	/** Its bytes are in the project already, and somebody decided to add them all the same. */
	twinKnown = false;
	/** The version that somebody was told of, and said that the file was made from (L5). */
	madeFrom: string | null = null;
	/** The document was taken in hand for it. */
	locked = false;
	/** Everything that keeps it from landing, as sentences. */
	readonly faults: string[] = $derived.by(() => this.judge(this));

	/** @param judge what the table says is wrong with it, among the others */
	constructor(
		readonly key: number,
		readonly file: File,
		readonly folders: string[],
		mostBytes: number,
		private readonly judge: (line: Line) => string[]
	) {
		this.hopeless =
			file.size === 0
				? 'The file is empty.'
				: file.size > mostBytes
					? `Larger than the project allows (${sizeText(mostBytes)}).`
					: '';
	}

	get way(): string {
		return [...this.folders, this.file.name].join(' / ');
	}
	get isArchive(): boolean {
		return /\.zip$/i.test(this.file.name);
	}
	/** Still to be added. */
	get open(): boolean {
		return !this.hopeless && (this.state === 'ready' || this.state === 'fault');
	}
}

/** Where a proposed number comes from, in words. */
const HINTS: Record<string, string> = {
	file: 'same file name',
	name: 'from the name',
	next: 'next free'
};

/** Documents made at the same time; how many files are sent at once the queue decides. */
const AT_ONCE = 6;

/** What settling needs to know of the project. */
export interface SettlingProject {
	id: string;
	code: string;
	maxFileBytes: number;
	numbering: NumberingRule;
	keepPosition: boolean;
}

/** Files being settled for a folder: their numbers, titles and tags, and what becomes of them. */
export class Settling {
	lines = $state<Line[]>([]);
	busy = $state(false);
	fault = $state('');
	/** Told with every file that becomes a next version. */
	note = $state('');
	/** The line last worked in, from which columns are filled down. */
	at = $state(0);
	/** Ways to folders without files, which are made with the rest. */
	empty = $state<string[][]>([]);
	private inUse = $state<Record<string, InUse | null>>({});
	private keys = 0;
	/**
	 * Stays the same while lines land: what depends on it, which is every line, is worked out anew only when two come to
	 * have one number or have it no more.
	 */
	private readonly shared = $derived(sharedNumbers(this.lines.filter((line) => line.state !== 'done')));

	constructor(
		private readonly place: string,
		private readonly project: SettlingProject
	) {}

	/** Takes files in, in the order of their names: their numbers and titles are proposed by the server. */
	async take({ files, empty }: Batch): Promise<void> {
		this.fault = '';
		this.empty.push(...empty);
		const fresh = [...files].sort(byWay).map(({ file, folders }) => {
			const { maxFileBytes } = this.project;
			return new Line(++this.keys, file, folders, maxFileBytes, (line) => this.faultsOf(line));
		});
		const { numbering } = this.project;
		const names = fresh.map((line) => line.file.name);
		const had = this.lines.map((line) => line.number);
		try {
			let at = 0;
			for await (const { number, title, from } of proposalsFor(this.place, numbering, names, had))
				Object.assign(fresh[at++]!, { number, title, hint: HINTS[from] ?? '' });
		} catch (error) {
			this.fault = sentenceOf(error);
		}
		this.lines.push(...fresh);
		await this.look();
	}

	/** Asks which numbers are in use, of those not asked about yet, and decides where one lock decides it. */
	async look(): Promise<void> {
		const numbers = [...new Set(this.lines.map((l) => l.number.trim()))].filter(
			(n) => n && !(n in this.inUse)
		);
		try {
			for await (const [number, use] of usesOf(this.project.id, numbers)) this.inUse[number] = use;
		} catch (error) {
			this.fault = sentenceOf(error);
		}
		for (const line of this.lines) {
			const used = this.usedBy(line);
			if (!used) line.becomes = 'document';
			else if (line.becomes === 'document') line.becomes = used.document?.mine ? 'version' : 'undecided';
		}
	}

	/** What has the number of a line already; null when it is free, or not known yet. */
	usedBy(line: Line): InUse | null {
		return this.inUse[line.number.trim()] ?? null;
	}

	private faultsOf(line: Line): string[] {
		if (line.hopeless) return [line.hopeless];
		if (line.state === 'done') return [];
		const number = line.number.trim();
		if (isShared(this.shared, number)) return [`Another file here has the number ${number} too.`];
		if (line.becomes === 'version') return [];
		if (this.usedBy(line)) return [`${number} is taken.`];
		return faultsOf(this.project.numbering, line);
	}

	/** Gives a line the next number that is free here and in the project. */
	beside(line: Line): void {
		const used = this.usedBy(line);
		if (!used) return;
		let number = used.free;
		while (this.lines.some((l) => l !== line && l.number.trim() === number))
			number = numberAfter(this.project.numbering, number, 1) ?? number + '-';
		Object.assign(line, { number, becomes: 'document', hint: 'next free' });
		void this.look();
	}

	/** Lines of which it is not decided yet what becomes of them, as far as there is a document to choose. */
	get undecided(): Line[] {
		return this.lines.filter((l) => l.open && l.becomes === 'undecided' && this.usedBy(l)?.document);
	}

	/** Decides one thing for every line that is undecided. */
	decideAll(becomes: 'version' | 'beside'): void {
		for (const line of this.undecided)
			if (becomes === 'beside') this.beside(line);
			else line.becomes = becomes;
	}

	/** Fills a column down from the line last worked in. */
	fillDown(column: Column): void {
		const from = this.lines[this.at];
		if (!from) return;
		const below = this.lines.slice(this.at + 1).filter((l) => l.open);
		filledDown(this.project.numbering, column, from, below.length).forEach((value, i) => {
			below[i]![column] = value;
			if (column === 'number') below[i]!.hint = '';
		});
		if (column === 'number') void this.look();
	}

	/**
	 * Spreads cells copied from a sheet over the table, from one cell on. Lines whose first cell names a file go to that
	 * file, wherever it stands.
	 */
	async paste(text: string, at: number, column: Column): Promise<void> {
		// Few paste, and the reader of pasted cells is among the larger parts of a folder's page.
		const { rowsPasted } = await import('../../formats/tables/clipboard');
		const rows = rowsPasted(text).map((cells) => cells.map((cell) => cell.replace(/\s*\n\s*/g, ' ').trim()));
		const named = rows.filter((cells) => this.byName(cells[0]!)).length > rows.length / 2;
		rows.forEach((cells, i) => {
			const line = named ? this.byName(cells[0]!) : this.lines[at + i];
			const first = named ? 0 : COLUMNS.indexOf(column);
			(named ? cells.slice(1) : cells).forEach((cell, k) => {
				const to = COLUMNS[first + k];
				if (line?.open && to) line[to] = cell;
			});
		});
		await this.look();
	}
	private byName(name: string): Line | undefined {
		return name === '' ? undefined : this.lines.find((l) => l.file.name.toLowerCase() === name.toLowerCase());
	}

	/** Puts what an archive holds in its place. */
	async unpack(line: Line): Promise<void> {
		line.state = 'going';
		try {
			// Few archives are unpacked, and what unpacks them is larger than the rest of a folder's page.
			const { unpack } = await import('./unpack');
			const { files, empty } = await unpack(
				line.file,
				(done, all) => (line.hint = `unpacking ${done} of ${all}`)
			);
			this.lines = this.lines.filter((l) => l !== line);
			await this.take({
				files: files.map((f) => ({ ...f, folders: [...line.folders, ...f.folders] })),
				empty: empty.map((way) => [...line.folders, ...way])
			});
		} catch (error) {
			line.state = 'fault';
			line.hint = '';
			line.fault =
				error instanceof Error && error.name === 'UnpackError'
					? error.message
					: 'The archive could not be unpacked.';
		}
	}

	leaveOut(line: Line): void {
		const document = this.usedBy(line)?.document;
		if (line.locked && document) void cupboard.giveBackLock({ document: document.id }).catch(() => {});
		this.lines = this.lines.filter((l) => l !== line);
	}

	/** Lines that may land as they are. */
	get waiting(): Line[] {
		return this.lines.filter((l) => l.open && !l.faults.length);
	}

	/** Adds every line that may land; the others stay with what is wrong with them. */
	async addAll(): Promise<void> {
		this.busy = true;
		await this.look();
		const waiting = this.waiting;
		const worker = async () => {
			for (let line = waiting.shift(); line; line = waiting.shift()) await this.add(line);
		};
		await Promise.all(Array.from({ length: AT_ONCE }, worker));
		try {
			for (let way = this.empty[0]; way; way = this.empty[0]) {
				await this.folderFor(way);
				this.empty.shift();
			}
		} catch (error) {
			this.fault = sentenceOf(error);
		}
		this.busy = false;
	}

	private async add(line: Line): Promise<void> {
		line.state = 'going';
		line.fault = '';
		try {
			if (!line.sending || line.sending.state === 'fault') line.sending = queue.send(this.project, line.file);
			const upload = await line.sending.done;
			if (line.becomes === 'version') await this.handIn(line, this.usedBy(line)!.document!, upload);
			else if (await this.twinOf(line, upload)) return;
			else
				await cupboard.addDocument({
					folder: await this.folderFor(line.folders),
					upload,
					number: line.number.trim(),
					title: line.title,
					tags: tagsOf(line.tags)
				});
			line.state = 'done';
		} catch (error) {
			line.fault = sentenceOf(error);
			line.state = 'fault';
			// Somebody may have taken the number meanwhile.
			delete this.inUse[line.number.trim()];
		}
	}

	/** Hands a file in as the next version; what nobody has in hand is taken in hand for it. */
	private async handIn(line: Line, known: Known, upload: string): Promise<void> {
		const note = this.note.trim() || 'Handed in with other files';
		if (!known.holder && !line.locked) {
			await cupboard.takeLock({ document: known.id, purpose: note });
			line.locked = true;
		}
		try {
			const { kept } = await cupboard.handIn({
				document: known.id,
				upload,
				note,
				...(line.madeFrom ? { base: line.madeFrom } : {})
			});
			line.hint = {
				'as-it-was': `the very bytes of ${known.label}`,
				'on-the-line': `next version of ${known.title}`,
				beside: `set beside ${known.label}`
			}[kept];
		} catch (error) {
			if (!(error instanceof CallError) || error.code !== 'stale-base') throw error;
			line.madeFrom = String(error.facts.newest);
			const told = baseSentence({
				label: error.facts.base as string | null,
				since: error.facts.since as Base['since']
			});
			throw new CallError(
				error.code,
				`${told} Add again if your file was made from ${line.madeFrom}; or leave it out.`,
				{}
			);
		}
	}

	/** Whether the bytes are here already and nobody has decided yet to keep both. */
	private async twinOf(line: Line, upload: string): Promise<boolean> {
		if (line.twinKnown) return false;
		const { hash, documents } = await cupboard.knownBytes({ project: this.project.id, upload });
		const twin = documents[0];
		// Of two in one batch neither is there when the other asks.
		const other = hash ? this.claimed.get(hash) : undefined;
		const beside = other && other !== line && this.lines.includes(other) ? other : null;
		if (!twin && !beside) {
			if (hash) this.claimed.set(hash, line);
			return false;
		}
		line.twinKnown = true;
		const what = twin ? `${twin.number} ${twin.label}` : beside!.file.name;
		line.hint = `same bytes as ${what}`;
		line.fault = `${twin ? 'These bytes are here already as' : 'This batch has the same bytes as'} ${what}. Add again to keep both, or leave it out.`;
		line.state = 'fault';
		return true;
	}

	/** Which line of the batch brings which bytes. */
	private readonly claimed = new Map<string, Line>();

	/** Ids of folders made on the way, so that a whole tree lands with its structure. */
	private readonly made = new Map<string, Promise<string>>();
	private folderFor(folders: string[]): Promise<string> {
		if (!folders.length) return Promise.resolve(this.place);
		const way = folders.join('/');
		const known = this.made.get(way);
		if (known) return known;
		const making = this.folderFor(folders.slice(0, -1)).then((parent) => folderIn(parent, folders.at(-1)!));
		this.made.set(way, making);
		making.catch(() => this.made.delete(way));
		return making;
	}
}

const COLLATOR = new Intl.Collator('en', { numeric: true });
/** The order of names as people read them, folder by folder: 2 before 10, wherever the disk keeps them. */
const byWay = (a: Gathered, b: Gathered) =>
	COLLATOR.compare(a.folders.join('/'), b.folders.join('/')) || COLLATOR.compare(a.file.name, b.file.name);

/** The id of a folder by its name, made when it is not there. */
async function folderIn(parent: string, name: string): Promise<string> {
	const { tree } = await cupboard.folder({ place: parent });
	const there = tree.find((f) => f.parentId === parent && f.name.toLowerCase() === name.toLowerCase());
	return there?.id ?? (await cupboard.makeFolder({ parent, name })).id;
}

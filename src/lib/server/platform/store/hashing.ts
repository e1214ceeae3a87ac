import { createHash } from 'node:crypto';
import { Worker } from 'node:worker_threads';

/** Up to so many bytes a hash is worked out where it is asked for; more is hashed beside the receiving and writing. */
const SMALL = 1024 * 1024;
/** Bytes that are handed over at once. While one part is hashed, the next is filled. */
const PART = 512 * 1024;

/** What the thread runs: hashes by their numbers. Plain JavaScript, so that it runs from source and built alike. */
const THREAD = `
const { createHash } = require('node:crypto');
const { parentPort } = require('node:worker_threads');
const hashes = new Map();
parentPort.on('message', ({ id, what, bytes, from, asked }) => {
	if (what === 'begin') hashes.set(id, createHash('sha256'));
	else if (what === 'copy') hashes.set(id, hashes.get(from).copy());
	else if (what === 'forget') hashes.delete(id);
	else {
		const answer = what === 'update' ? (hashes.get(id).update(bytes), '') : hashes.get(id).copy().digest('hex');
		parentPort.postMessage({ asked, answer });
	}
});`;

interface Asked {
	done: (answer: string) => void;
	failed: (error: Error) => void;
}

/** The thread that hashes, begun when it is first needed. It keeps the process alive only while somebody waits for it. */
export class HashThread {
	private worker: Worker | null = null;
	private readonly waiting = new Map<number, Asked>();
	private last = 0;
	/** How often it has ended; what it knew is lost each time. */
	ended = 0;

	/** A number for a hash. */
	fresh(): number {
		return ++this.last;
	}

	tell(message: { id: number; what: 'begin' | 'copy' | 'forget'; from?: number }): void {
		this.started().postMessage(message);
	}

	ask(message: { id: number; what: 'update' | 'digest'; bytes?: Uint8Array }): Promise<string> {
		const worker = this.started();
		const asked = this.fresh();
		return new Promise((done, failed) => {
			this.waiting.set(asked, { done, failed });
			worker.ref();
			worker.postMessage({ ...message, asked });
		});
	}

	/** Ends it; whoever waits for it is told so. It begins again when it is needed. */
	async end(): Promise<void> {
		await this.worker?.terminate();
	}

	private started(): Worker {
		if (this.worker) return this.worker;
		const worker = new Worker(THREAD, {
			eval: true,
			// It keeps only hashes; without this it would grow by what it never needs.
			resourceLimits: { maxYoungGenerationSizeMb: 2, maxOldGenerationSizeMb: 32 }
		});
		worker.unref();
		worker.on('message', ({ asked, answer }: { asked: number; answer: string }) => {
			this.waiting.get(asked)?.done(answer);
			this.waiting.delete(asked);
			if (!this.waiting.size) worker.unref();
		});
		// What goes wrong in it ends it, which is told below.
		worker.on('error', () => {});
		worker.on('exit', () => {
			this.worker = null;
			this.ended++;
			for (const { failed } of this.waiting.values()) failed(new Error('The thread that hashes ended'));
			this.waiting.clear();
		});
		this.worker = worker;
		return worker;
	}
}
const shared = new HashThread();

/** A part that is shared with the thread, and when that is done with it. */
interface Part {
	bytes: Uint8Array;
	filled: number;
	free: Promise<unknown>;
}

/**
 * SHA-256 of what comes piece by piece. Large files are hashed in a thread of their own, beside their receiving and
 * writing (two parts of memory each); small ones at once. Call {@link Sha256.forget} when it is not needed any more.
 */
export class Sha256 {
	/** What came, as long as it is little. */
	private head: Uint8Array[] = [];
	private small = 0;
	private id: number | null = null;
	private parts: Part[] = [];
	/** How often the thread had ended when it learnt of this. */
	private begun = 0;

	constructor(private readonly thread = shared) {}

	/** Whether the thread ended that knew it: what is asked of it then fails, and it has to be begun anew. */
	get lost(): boolean {
		return this.id !== null && this.begun !== this.thread.ended;
	}

	/** Takes more in; settles when there is room for more after it. The bytes may be changed then. */
	async update(bytes: Uint8Array): Promise<void> {
		if (this.id !== null) return this.feed(bytes);
		this.head.push(new Uint8Array(bytes));
		this.small += bytes.byteLength;
		if (this.small <= SMALL) return;
		this.id = this.thread.fresh();
		this.begun = this.thread.ended;
		this.thread.tell({ id: this.id, what: 'begin' });
		for (const piece of this.head.splice(0)) await this.feed(piece);
	}

	private async feed(bytes: Uint8Array): Promise<void> {
		this.check();
		for (let at = 0; at < bytes.byteLength;) {
			const part = this.part;
			await part.free;
			const fits = Math.min(PART - part.filled, bytes.byteLength - at);
			part.bytes.set(bytes.subarray(at, at + fits), part.filled);
			part.filled += fits;
			at += fits;
			if (part.filled === PART) this.hand(part);
		}
	}

	private check(): void {
		if (this.lost) throw new Error('The thread that hashes ended');
	}

	/** The part that is filled now. */
	private get part(): Part {
		if (!this.parts.length)
			this.parts = [0, 1].map(() => ({
				bytes: new Uint8Array(new SharedArrayBuffer(PART)),
				filled: 0,
				free: Promise.resolve()
			}));
		return this.parts[0]!;
	}

	/** Gives a part to the thread, and begins with the other one. */
	private hand(part: Part): void {
		const bytes = part.bytes.subarray(0, part.filled);
		part.free = this.thread.ask({ id: this.id!, what: 'update', bytes });
		// Awaited before it is filled again, or with the digest; until then a failure must not count as unhandled.
		part.free.catch(() => {});
		part.filled = 0;
		this.parts.reverse();
	}

	/** Another that knows the same, and goes its own way from here. */
	copy(): Sha256 {
		const other = new Sha256(this.thread);
		other.head = [...this.head];
		other.small = this.small;
		if (this.id === null) return other;
		this.check();
		if (this.part.filled) this.hand(this.part);
		other.id = this.thread.fresh();
		other.begun = this.begun;
		this.thread.tell({ id: other.id, what: 'copy', from: this.id });
		return other;
	}

	/** The hash of what has come so far, in hex. */
	async digest(): Promise<string> {
		if (this.id === null) {
			const hash = createHash('sha256');
			for (const piece of this.head) hash.update(piece);
			return hash.digest('hex');
		}
		this.check();
		if (this.part.filled) this.hand(this.part);
		await Promise.all(this.parts.map((part) => part.free));
		return this.thread.ask({ id: this.id, what: 'digest' });
	}

	/** Gives back what the thread keeps of it. */
	forget(): void {
		if (this.id !== null && !this.lost) this.thread.tell({ id: this.id, what: 'forget' });
		this.id = null;
		this.parts = [];
	}
}

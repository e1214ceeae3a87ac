import { addressOf } from '../../client/cupboard';
import { Upload, type DetailedError } from 'tus-js-client';
import { withoutPosition } from '../../core/files/exif';
import { CallError } from '../../client/call';

/** Files sent at the same time. */
const AT_ONCE = 3;
/** Waits before trying again, in milliseconds: soon at first, then every minute for a day. */
const TRIES = [
	0,
	1_000,
	2_000,
	5_000,
	10_000,
	20_000,
	30_000,
	...Array.from({ length: 1_440 }, () => 60_000)
];
/** A file up to this size goes with the request that begins it; a larger one gets an address first, to go on at. */
const IN_ONE = 1024 * 1024;
/** When nothing moved for this long the line counts as dead, in milliseconds, whatever the browser still believes. */
const SILENT = 90_000;
/** Speed is told from this much of the past, in milliseconds. */
const RECENT = 6_000;

/** A JPEG without where it was taken; any other file as it is. */
async function cleared(file: File): Promise<File> {
	if (file.type !== 'image/jpeg') return file;
	const bytes = withoutPosition(new Uint8Array(await file.arrayBuffer()));
	return new File([bytes as Uint8Array<ArrayBuffer>], file.name, {
		type: file.type,
		lastModified: file.lastModified
	});
}

/** Where a file is sent, and what is said with it. */
interface Destination {
	endpoint: string;
	/** Code of the project, where the address does not say it. */
	project: string | null;
	/** Whether a photograph keeps where it was taken. */
	keepPosition: boolean;
}

/** One file on its way to the server. It goes on while one moves through the application. */
export class Sending {
	state = $state<'waiting' | 'sending' | 'paused' | 'broken' | 'done' | 'fault'>('waiting');
	sent = $state(0);
	/** Bytes a second, lately. */
	speed = $state(0);
	fault = $state('');
	private upload: Promise<Upload> | null = null;
	private watch: (() => void) | null = null;
	/** When bytes last moved, by the page's clock. */
	private moved = 0;
	private readonly past: { at: number; sent: number }[] = [];
	private resolve!: (upload: string) => void;
	private reject!: (error: Error) => void;
	/** The id of the upload, to be used in acts. */
	readonly done: Promise<string>;

	constructor(
		private readonly to: Destination,
		readonly file: File,
		private readonly changed: () => void
	) {
		this.done = new Promise((resolve, reject) => {
			this.resolve = resolve;
			this.reject = reject;
		});
		// Whoever asked for it may have gone elsewhere; the list shows the fault then.
		this.done.catch(() => {});
	}

	get name(): string {
		return this.file.name;
	}

	/** Seconds that are left at the present speed; null while that is not known. */
	get left(): number | null {
		return this.state === 'sending' && this.speed > 0 ? (this.file.size - this.sent) / this.speed : null;
	}

	/** Gets the file ready for the protocol, going on where it broke off before, perhaps in another sitting. */
	private async prepare(): Promise<Upload> {
		const { endpoint, project, keepPosition } = this.to;
		const file = keepPosition ? this.file : await cleared(this.file);
		const { name, size, lastModified } = this.file;
		const upload = new Upload(file, {
			endpoint,
			retryDelays: TRIES,
			removeFingerprintOnSuccess: true,
			uploadDataDuringCreation: size <= IN_ONE,
			// The same file sent elsewhere is another upload.
			fingerprint: () => Promise.resolve(['cupboard', endpoint, project, name, size, lastModified].join(' ')),
			metadata: { ...(project ? { project } : {}), name },
			onShouldRetry: (error) => {
				const status = (error as DetailedError).originalResponse?.getStatus() ?? 0;
				// A full disk is said at once: it does not pass by waiting a minute.
				const passes = [0, 409, 423].includes(status) || (status >= 500 && status !== 507);
				if (passes) [this.state, this.speed] = ['broken', 0];
				return passes;
			},
			onProgress: (sent) => this.progress(sent),
			onSuccess: () => {
				this.state = 'done';
				this.sent = size;
				this.resolve(new URL(upload.url!, location.href).pathname.split('/').at(-1)!);
				this.ended();
			},
			onError: (error) => this.fail(error)
		});
		const [before] = await upload.findPreviousUploads();
		if (before) upload.resumeFromPreviousUpload(before);
		return upload;
	}

	/** Looks after the line while the file is on its way: goes on at once when it is back, and anew when it is dead. */
	private attend(): void {
		if (this.watch) return;
		const back = () => this.state === 'broken' && void this.anew();
		addEventListener('online', back);
		const timer = setInterval(() => {
			if (performance.now() - this.moved > SILENT) void this.anew();
		}, 5_000);
		this.watch = () => {
			removeEventListener('online', back);
			clearInterval(timer);
			this.watch = null;
		};
	}
	private async anew(): Promise<void> {
		const upload = await this.upload;
		await upload?.abort();
		if (this.state !== 'sending' && this.state !== 'broken') return;
		this.moved = performance.now();
		this.past.length = 0;
		upload?.start();
	}
	private ended(): void {
		this.watch?.();
		this.changed();
	}

	private progress(sent: number): void {
		const now = performance.now();
		// What still arrives of a request that was broken off says nothing any more.
		if (this.state !== 'sending' && this.state !== 'broken') return;
		if (sent !== this.sent) this.moved = now;
		this.state = 'sending';
		this.sent = sent;
		this.past.push({ at: now, sent });
		while (this.past.length > 2 && now - this.past[0]!.at > RECENT) this.past.shift();
		const first = this.past[0]!;
		if (now > first.at) this.speed = ((sent - first.sent) / (now - first.at)) * 1_000;
	}

	private fail(error: Error | DetailedError): void {
		const body = (error as DetailedError).originalResponse?.getBody() ?? '';
		let said: Record<string, unknown> = {};
		try {
			said = JSON.parse(body) as Record<string, unknown>;
		} catch {
			// The protocol's own refusals are plain text.
			said = body ? { detail: body } : {};
		}
		this.fault = String(said.detail ?? 'The line is down. Try again; what was sent is kept.');
		this.state = 'fault';
		this.reject(new CallError(String(said.code ?? 'busy'), this.fault, said));
		this.ended();
	}

	async pause(): Promise<void> {
		this.state = 'paused';
		this.speed = 0;
		this.watch?.();
		this.changed();
		await (await this.upload)?.abort();
	}

	/** Lets what was paused wait its turn again. */
	resume(): void {
		this.past.length = 0;
		this.state = 'waiting';
		this.changed();
	}

	async cancel(): Promise<void> {
		this.state = 'fault';
		this.fault = 'Cancelled.';
		this.reject(new CallError('cancelled', 'Cancelled.', {}));
		this.ended();
		await (await this.upload)?.abort(true).catch(() => {});
	}

	/** Goes on with what was paused or waits its turn. */
	async go(): Promise<void> {
		this.state = 'sending';
		this.moved = performance.now();
		this.attend();
		this.upload ??= this.prepare();
		const upload = await this.upload;
		// It may have been paused or cancelled while the file was made ready.
		if (this.state === 'sending') upload.start();
	}
}

/** Everything on its way, for all pages of the application. */
class Queue {
	files = $state<Sending[]>([]);

	/** Sends a file of a member to a project; photographs leave without their position where it keeps none. */
	send(project: { code: string; keepPosition: boolean }, file: File): Sending {
		const { code, keepPosition } = project;
		return this.put({ endpoint: addressOf('beginUpload', {}), project: code, keepPosition }, file);
	}

	/** Sends a file in through a hatch, or with an answer by a pass, whose address is given. */
	sendThrough(way: string, file: File): Sending {
		return this.put({ endpoint: `${way}/files`, project: null, keepPosition: true }, file);
	}

	private put(to: Destination, file: File): Sending {
		this.files.push(new Sending(to, file, () => this.next()));
		this.next();
		// The list holds the reactive form of it.
		return this.files.at(-1)!;
	}

	private next(): void {
		let running = this.files.filter((f) => f.state === 'sending' || f.state === 'broken').length;
		for (const one of this.files) {
			if (running >= AT_ONCE) return;
			if (one.state !== 'waiting') continue;
			void one.go();
			running++;
		}
	}

	/** Forgets what arrived, failed or was cancelled. */
	tidy(): void {
		this.files = this.files.filter((f) => !['done', 'fault'].includes(f.state));
	}
}

export const queue = new Queue();

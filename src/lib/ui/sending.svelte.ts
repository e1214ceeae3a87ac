import { Upload, type DetailedError } from 'tus-js-client';
import { withoutPosition } from '../core/exif';
import { CallError } from './api';

/** Files sent at the same time. */
const AT_ONCE = 3;
/** Waits before trying again, in milliseconds: long enough for a server to be started anew. */
const TRIES = [0, 1_000, 2_000, 5_000, 10_000, 20_000, 30_000, 60_000, 120_000, 300_000];
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

/** One file on its way to the server. It goes on while one moves through the application. */
export class Sending {
	state = $state<'waiting' | 'sending' | 'paused' | 'broken' | 'done' | 'fault'>('waiting');
	sent = $state(0);
	/** Bytes a second, lately. */
	speed = $state(0);
	fault = $state('');
	private upload: Upload | null = null;
	private readonly past: { at: number; sent: number }[] = [];
	private resolve!: (upload: string) => void;
	private reject!: (error: Error) => void;
	/** The id of the upload, to be used in acts. */
	readonly done: Promise<string>;

	constructor(
		private readonly project: string,
		readonly file: File,
		private readonly keepPosition: boolean,
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

	async start(): Promise<void> {
		this.state = 'sending';
		const file = this.keepPosition ? this.file : await cleared(this.file);
		this.upload = new Upload(file, {
			endpoint: '/api/v1/uploads/resumable',
			retryDelays: TRIES,
			removeFingerprintOnSuccess: true,
			uploadDataDuringCreation: true,
			metadata: { project: this.project, name: this.file.name },
			onShouldRetry: (error) => {
				const status = (error as DetailedError).originalResponse?.getStatus() ?? 0;
				this.state = 'broken';
				return status === 0 || status === 409 || status === 423 || status >= 500;
			},
			onProgress: (sent) => this.progress(sent),
			onSuccess: () => {
				this.state = 'done';
				this.sent = this.file.size;
				this.resolve(new URL(this.upload!.url!, location.href).pathname.split('/').at(-1)!);
				this.changed();
			},
			onError: (error) => this.fail(error)
		});
		// What was begun before, perhaps in another sitting, goes on where it broke off.
		const [before] = await this.upload.findPreviousUploads();
		if (before) this.upload.resumeFromPreviousUpload(before);
		if (this.state === 'sending') this.upload.start();
	}

	private progress(sent: number): void {
		const now = performance.now();
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
		this.changed();
	}

	async pause(): Promise<void> {
		this.state = 'paused';
		this.speed = 0;
		await this.upload?.abort();
		this.changed();
	}

	resume(): void {
		this.past.length = 0;
		this.state = 'waiting';
		this.changed();
	}

	async cancel(): Promise<void> {
		this.state = 'fault';
		this.fault = 'Cancelled.';
		await this.upload?.abort(true).catch(() => {});
		this.reject(new CallError('cancelled', 'Cancelled.', {}));
		this.changed();
	}

	/** Goes on with what was paused or waits its turn. */
	go(): void {
		this.state = 'sending';
		if (this.upload) this.upload.start();
		else void this.start();
	}
}

/** Everything on its way, for all pages of the application. */
class Queue {
	files = $state<Sending[]>([]);

	/** Sends a file of a member to a project; photographs leave without their position where it keeps none. */
	send(project: { code: string; keepPosition: boolean }, file: File): Sending {
		const one = new Sending(project.code, file, project.keepPosition, () => this.next());
		this.files.push(one);
		this.next();
		// The list holds the reactive form of it.
		return this.files.at(-1)!;
	}

	private next(): void {
		let running = this.files.filter((f) => f.state === 'sending' || f.state === 'broken').length;
		for (const one of this.files) {
			if (running >= AT_ONCE) return;
			if (one.state !== 'waiting') continue;
			one.go();
			running++;
		}
	}

	/** Forgets what arrived, failed or was cancelled. */
	tidy(): void {
		this.files = this.files.filter((f) => !['done', 'fault'].includes(f.state));
	}
}

export const queue = new Queue();

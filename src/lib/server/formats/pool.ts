import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { Problem } from '../../core/acts/problem';
import type { Answer } from './worker';

/** Bounds of a format worker. Hostile files must take neither the server with them nor each other. */
export interface Bounds {
	/** Workers at a time. */
	workers: number;
	/** Bytes of memory that one may fill, typed arrays included; the system refuses more (RLIMIT_DATA). */
	memory: number;
	/** Milliseconds that one task may take. */
	time: number;
	/** Tasks that may wait, of those that somebody waits for and of the others. */
	waiting: number;
	/** Milliseconds after which an idle worker ends. */
	idle: number;
}

const BOUNDS: Bounds = { workers: 2, memory: 2_200_000_000, time: 45_000, waiting: 2_000, idle: 30_000 };

/** Whether somebody waits for a task, or it is done when there is time. */
export type Urgency = 'asked' | 'later';

interface Wanted {
	task: unknown;
	urgency: Urgency;
	done: (value: unknown) => void;
	failed: (error: Error) => void;
}

/** What is answered to who asks while the server ends: it is asked again by who starts it anew. */
const ENDED = () => new Problem('busy', 'The server is ending. Try again in a moment.');

/** A task whose worker died of it: it took more time or memory than one may. */
export class Overrun extends Error {
	constructor() {
		super('The file took too much time or memory to open.');
	}
}

/**
 * A task's time is counted in so many beats of this process: while the machine stands still, or gives us none of its
 * processors, none comes, and no file is taken for one that takes too long.
 */
const BEATS = 20;

interface Worker {
	child: ChildProcess;
	doing: Wanted | null;
	timer: NodeJS.Timeout | null;
}

/**
 * Processes that open and write files, each within bounds of memory and time. A worker that runs over is killed, which
 * answers its one task with an error and touches no other.
 */
export class WorkerPool {
	private readonly workers: Worker[] = [];
	/** What waits: first what somebody waits for, in the order in which it came. */
	private readonly queue: Record<Urgency, Wanted[]> = { asked: [], later: [] };
	private readonly bounds: Bounds;
	private closed = false;

	/** @param file the built worker, or null to run it from source */
	constructor(
		private readonly file: string | null,
		bounds: Partial<Bounds> = {}
	) {
		this.bounds = { ...BOUNDS, ...bounds };
	}

	/**
	 * Has a task done; what is `later` waits until nobody else does. Raises what the worker raised, or {@link Overrun} when
	 * it died of it or took too long.
	 */
	run(task: unknown, urgency: Urgency = 'asked'): Promise<unknown> {
		if (this.closed) return Promise.reject(ENDED());
		if (this.queue[urgency].length >= this.bounds.waiting)
			return Promise.reject(new Problem('busy', 'The server is busy opening files. Try again in a moment.'));
		return new Promise((done, failed) => {
			this.queue[urgency].push({ task, urgency, done, failed });
			this.next();
		});
	}

	private next(): void {
		const queue = this.queue.asked.length ? this.queue.asked : this.queue.later;
		if (!queue.length) return;
		let worker = this.workers.find((w) => !w.doing);
		if (!worker) {
			if (this.workers.length >= this.bounds.workers) return;
			worker = this.start();
		}
		if (worker.timer) clearTimeout(worker.timer);
		worker.doing = queue.shift()!;
		let beats = 0;
		worker.timer = setInterval(() => {
			if (++beats >= BEATS) worker.child.kill('SIGKILL');
		}, this.bounds.time / BEATS);
		worker.child.send({ task: worker.doing.task }, (error) => {
			if (!error) return;
			// It never came there: another worker does it.
			if (worker.doing) this.queue[worker.doing.urgency].unshift(worker.doing);
			worker.doing = null;
			worker.child.kill('SIGKILL');
		});
	}

	private start(): Worker {
		const limit = [`--data=${this.bounds.memory}`, process.execPath];
		const child = fork(this.file ?? fileURLToPath(new URL('./worker.ts', import.meta.url)), [], {
			execPath: 'prlimit',
			execArgv: [...limit, ...(this.file ? [] : ['--import', 'tsx']), '--max-old-space-size=1536'],
			// Nothing of the server's own settings and secrets is theirs to know.
			env: { PATH: process.env.PATH, CUPBOARD_FORMAT_WORKER: '1' },
			serialization: 'advanced',
			stdio: ['ignore', 'ignore', 'ignore', 'ipc']
		});
		const worker: Worker = { child, doing: null, timer: null };
		this.workers.push(worker);
		child.on('message', (answer: Answer) => this.answered(worker, answer));
		child.on('error', () => child.kill('SIGKILL'));
		child.once('exit', () => this.gone(worker));
		return worker;
	}

	private answered(worker: Worker, answer: Answer): void {
		const { doing } = worker;
		if (worker.timer) clearTimeout(worker.timer);
		worker.doing = null;
		worker.timer = setTimeout(() => {
			// From here on nothing is given to it any more, however long it takes to end.
			this.forget(worker);
			worker.child.disconnect();
		}, this.bounds.idle).unref();
		if ('value' in answer) doing?.done(answer.value);
		else if (answer.code) doing?.failed(new Problem(answer.code, answer.message));
		else doing?.failed(new Error(answer.message));
		this.next();
	}

	private forget(worker: Worker): void {
		const at = this.workers.indexOf(worker);
		if (at >= 0) this.workers.splice(at, 1);
	}

	private gone(worker: Worker): void {
		if (worker.timer) clearTimeout(worker.timer);
		this.forget(worker);
		worker.doing?.failed(this.closed ? ENDED() : new Overrun());
		if (!this.closed) this.next();
	}

	/** Ends all workers; what waits is answered with an error. */
	async close(): Promise<void> {
		this.closed = true;
		for (const queue of [this.queue.asked, this.queue.later])
			for (const wanted of queue.splice(0)) wanted.failed(ENDED());
		const ended = this.workers.map((w) => new Promise((done) => w.child.once('exit', done)));
		for (const worker of this.workers) worker.child.kill('SIGKILL');
		await Promise.all(ended);
	}
}

/** The processes that a server opens and writes files in. */
export interface Pools {
	formats: WorkerPool;
	/** Programs of others take seconds for a file; they never keep those waiting who open another. */
	programs: WorkerPool;
	close(): Promise<void>;
}

/** @param workerFile the built worker, or null to run it from source */
export function openPools(workerFile: string | null): Pools {
	const formats = new WorkerPool(workerFile);
	const programs = new WorkerPool(workerFile, { workers: 1, time: 300_000, waiting: 200 });
	return {
		formats,
		programs,
		close: async () => void (await Promise.all([formats.close(), programs.close()]))
	};
}

import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { fileOf, type Asked, type File } from './files';

/** What goes to the process that makes files, and what comes back. */
export interface Task {
	id: number;
	asked: Asked;
}
export type Outcome = { id: number; file: File } | { id: number; fault: string };

/**
 * Files of the demo's documents, made by a process of their own while the acts before them run. What was not foreseen
 * is made when it is asked for; either way a file is the same.
 */
export class FilesAhead {
	private readonly maker: ChildProcess;
	private readonly made = new Map<string, Promise<File>>();
	private readonly waiting = new Map<number, (outcome: Outcome) => void>();
	private last = 0;

	constructor() {
		this.maker = fork(fileURLToPath(new URL('./making.ts', import.meta.url)), { serialization: 'advanced' });
		this.maker.on('message', (outcome: Outcome) => {
			this.waiting.get(outcome.id)?.(outcome);
			this.waiting.delete(outcome.id);
		});
		this.maker.on('exit', () => {
			for (const [id, done] of this.waiting) done({ id, fault: 'The process that makes files has ended.' });
			this.waiting.clear();
		});
	}

	/** Begins to make a file that will be asked for. */
	expect(asked: Asked): void {
		const key = JSON.stringify(asked);
		if (this.made.has(key) || !this.maker.connected) return;
		const id = ++this.last;
		const coming = new Promise<File>((resolve, reject) => {
			this.waiting.set(id, (outcome) =>
				'file' in outcome ? resolve(outcome.file) : reject(new Error(outcome.fault))
			);
			this.maker.send({ id, asked } satisfies Task);
		});
		// Whether it could be made matters to whoever asks for it.
		coming.catch(() => {});
		this.made.set(key, coming);
	}

	/** The file that is asked for. */
	async file(asked: Asked): Promise<File> {
		const key = JSON.stringify(asked);
		const coming = this.made.get(key);
		this.made.delete(key);
		return coming ?? fileOf(asked);
	}

	close(): void {
		this.maker.disconnect();
	}
}

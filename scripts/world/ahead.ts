import { fork, type ChildProcess } from 'node:child_process';
import { extname } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Store } from '../../src/lib/server/platform/store/store';
import { fileOf, keep, type Asked, type Kept } from './files';

/** What goes to the process that makes files, and what comes back. */
export interface Task {
	id: number;
	asked: Asked;
}
export type Outcome = { id: number; kept: Kept } | { id: number; fault: string };

/** Beside this among the sources, and among what was built of them. */
const MAKER = fileURLToPath(new URL(`making${extname(import.meta.url)}`, import.meta.url));

/**
 * Files of the demo's documents, made and put into the store by a process of their own while the acts before them run.
 * What was not foreseen is made when it is asked for; either way a file is the same.
 */
export class FilesAhead {
	private readonly maker: ChildProcess;
	private readonly made = new Map<string, Promise<Kept>>();
	private readonly waiting = new Map<number, (outcome: Outcome) => void>();
	private last = 0;

	/** @param store whose files are in `folder` */
	constructor(
		private readonly store: Store,
		folder: string
	) {
		this.maker = fork(MAKER, [folder], { serialization: 'advanced' });
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
		const coming = new Promise<Kept>((resolve, reject) => {
			this.waiting.set(id, (outcome) =>
				'kept' in outcome ? resolve(outcome.kept) : reject(new Error(outcome.fault))
			);
			this.maker.send({ id, asked } satisfies Task);
		});
		// Whether it could be made matters to whoever asks for it.
		coming.catch(() => {});
		this.made.set(key, coming);
	}

	/** The file that is asked for. */
	async file(asked: Asked): Promise<Kept> {
		const key = JSON.stringify(asked);
		const coming = this.made.get(key);
		this.made.delete(key);
		return coming ?? keep(this.store, await fileOf(asked));
	}

	close(): void {
		this.maker.disconnect();
	}
}

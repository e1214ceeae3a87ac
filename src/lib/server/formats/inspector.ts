import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { randomUUID } from 'node:crypto';
import Piscina from 'piscina';
import type { Store } from '../store/store';
import type { Inspection } from '../db/schema';
import type { DrawingLayers } from './drawing';
import type { Task, WriteTask } from './worker';

/** Opens stored files in worker threads, with limits on time and memory, and keeps their previews. */
export class Inspector {
	private readonly pool: Piscina;

	/**
	 * @param workerFile the built worker, or null to run it from source
	 * @param previews folder for previews; they can be made again at any time
	 */
	constructor(
		private readonly store: Store,
		private readonly previews: string,
		workerFile: string | null
	) {
		this.pool = new Piscina({
			filename: workerFile ?? new URL('./worker.ts', import.meta.url).href,
			execArgv: workerFile ? [] : ['--import', 'tsx'],
			minThreads: 0,
			maxThreads: 2,
			idleTimeout: 30_000,
			resourceLimits: { maxOldGenerationSizeMb: 1024 }
		});
	}

	/** What a stored file is and whether it opens. A worker that runs out of memory or time is a fault of the file. */
	async inspect(hash: string, mediaType: string, size: number): Promise<Inspection> {
		const path = await this.store.localPath(hash);
		try {
			return (await this.run({ task: 'inspect', path, mediaType, size })) as Inspection;
		} catch {
			return { shows: 'none', fault: 'The file is too large or too tangled to open here.', unchecked: false };
		}
	}

	/** What stands written in a stored file; empty when it holds nothing, or cannot be read. */
	async written(hash: string, mediaType: string, size: number): Promise<string> {
		const path = await this.store.localPath(hash);
		return this.run({ task: 'written', path, mediaType, size }).then(String, () => '');
	}

	previewPath(hash: string): string {
		return join(this.previews, hash.slice(0, 2), `${hash}.webp`);
	}

	/** Makes the preview of a stored file; false when its kind has none. */
	async makePreview(hash: string, mediaType: string, size: number): Promise<boolean> {
		const final = this.previewPath(hash);
		await mkdir(dirname(final), { recursive: true });
		const to = `${final}.${randomUUID()}`;
		try {
			const made = (await this.run({
				task: 'preview',
				path: await this.store.localPath(hash),
				mediaType,
				size,
				to
			})) as boolean;
			if (made) await rename(to, final);
			return made;
		} finally {
			await rm(to, { force: true });
		}
	}

	/** Writes a file. Raises an Error when it is too large to be written within the limits. */
	async write(task: WriteTask): Promise<Uint8Array> {
		return (await this.run(task)) as Uint8Array;
	}

	/** The layers of a stored drawing's entities. Raises an Error for what is no drawing. */
	async layers(hash: string): Promise<DrawingLayers> {
		return (await this.run({ task: 'layers', path: await this.store.localPath(hash) })) as DrawingLayers;
	}

	private run(task: Task): Promise<unknown> {
		return this.pool.run(task, { signal: AbortSignal.timeout(45_000) });
	}

	async close(): Promise<void> {
		await this.pool.destroy();
	}
}

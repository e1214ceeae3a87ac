import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { randomUUID } from 'node:crypto';
import type { Store } from '../store/store';
import type { Inspection } from '../db/schema';
import type { DrawingLayers } from './drawing';
import type { Shown, ShownWord } from '../../core/shown';
import type { ArchiveEntry } from './archive';
import { WorkerPool } from './pool';
import type { ShownPicture } from './shown';
import type { WriteTask } from './worker';

/** Opens and writes files in bounded processes, and keeps the previews of what is stored. */
export class Inspector {
	private readonly pool: WorkerPool;

	/**
	 * @param workerFile the built worker, or null to run it from source
	 * @param previews folder for previews; they can be made again at any time
	 */
	constructor(
		private readonly store: Store,
		private readonly previews: string,
		workerFile: string | null
	) {
		this.pool = new WorkerPool(workerFile);
	}

	/** What a stored file is and whether it opens. A worker that runs out of memory or time is a fault of the file. */
	async inspect(hash: string, mediaType: string, size: number): Promise<Inspection> {
		const path = await this.store.localPath(hash);
		try {
			return (await this.pool.run({ task: 'inspect', path, mediaType, size })) as Inspection;
		} catch {
			return { shows: 'none', fault: 'The file is too large or too tangled to open here.', unchecked: false };
		}
	}

	/** What stands written in a stored file; empty when it holds nothing, or cannot be read. */
	async written(hash: string, mediaType: string, size: number): Promise<string> {
		const path = await this.store.localPath(hash);
		return this.pool.run({ task: 'written', path, mediaType, size }).then(String, () => '');
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
			const made = (await this.pool.run({
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
		return (await this.pool.run(task)) as Uint8Array;
	}

	/** The layers of a stored drawing's entities. Raises an Error for what is no drawing. */
	async layers(hash: string): Promise<DrawingLayers> {
		return (await this.pool.run({ task: 'layers', path: await this.store.localPath(hash) })) as DrawingLayers;
	}

	/** What a stored file is shown as to those who may view it only. Raises an Error when it cannot be opened. */
	async shown(hash: string, mediaType: string, size: number): Promise<Shown> {
		const path = await this.store.localPath(hash);
		return (await this.pool.run({ task: 'shown', path, mediaType, size })) as Shown;
	}

	/** One page of it as a picture, `width` pixels across at most. */
	async shownPage(
		file: { hash: string; mediaType: string; size: number },
		page: number,
		width: number
	): Promise<ShownPicture> {
		const { hash, mediaType, size } = file;
		const path = await this.store.localPath(hash);
		return (await this.pool.run({ task: 'shown-page', path, mediaType, size, page, width })) as ShownPicture;
	}

	/** The words of one page with where they stand. */
	async shownWords(hash: string, mediaType: string, page: number): Promise<ShownWord[]> {
		const path = await this.store.localPath(hash);
		return (await this.pool.run({ task: 'shown-words', path, mediaType, page })) as ShownWord[];
	}

	/** The files in a stored archive. Raises `invalid` when it is damaged. */
	async listArchive(hash: string): Promise<{ entries: ArchiveEntry[]; more: boolean }> {
		const path = await this.store.localPath(hash);
		return (await this.pool.run({ task: 'list-archive', path })) as {
			entries: ArchiveEntry[];
			more: boolean;
		};
	}

	/** What is wrong with a stored archive by its own table of contents, or null. */
	async archiveFault(hash: string): Promise<string | null> {
		const path = await this.store.localPath(hash);
		return (await this.pool.run({ task: 'archive-fault', path })) as string | null;
	}

	async close(): Promise<void> {
		await this.pool.close();
	}
}

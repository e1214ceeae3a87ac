import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { randomUUID } from 'node:crypto';
import type { Store } from '../platform/store/store';
import type { Inspection } from '../platform/db/schema';
import type { Manifest } from '../../core/releases';
import type { NoteTo } from './cover-note';
import type { DrawingLayers, TitleBlockTask } from './drawing';
import type { TitleBlockWords } from '../../core/drawing/title-block';
import { familyOf, isPrintable } from '../../core/files/kinds';
import { Problem } from '../../core/acts/problem';
import type { Shown, ShownWord } from '../../core/files/shown';
import type { ArchiveEntry } from './archive';
import { Overrun, type Pools, type Urgency, type WorkerPool } from './pool';
import type { ShownPicture, StoredFile } from './readers/reader';
import { installed, standInFor } from './stand-in';
import type { CopyTask } from './stamp';
import type { WriteTask } from './worker';

/** What is said where a program is not installed on the server. */
const MISSING: Record<string, string> = {
	soffice:
		'Files of this kind are shown here when LibreOffice is installed on the server, and it is not. They can be downloaded.',
	'heif-convert':
		'Pictures of this kind are shown here when heif-convert is installed on the server (package libheif-examples), and it is not. They can be downloaded.'
};

/** What a file that cannot be opened is taken for; that the server has too much to do says nothing of the file. */
export const unlessBusy =
	<T>(instead: T) =>
	(error: unknown): T => {
		if (error instanceof Problem && error.code === 'busy') throw error;
		return instead;
	};

/** Does a thing once for each key at a time; who asks meanwhile waits for the same. */
class Once {
	private readonly going = new Map<string, Promise<void>>();

	once(key: string, act: () => Promise<void>): Promise<void> {
		const known = this.going.get(key);
		if (known) return known;
		const doing = act().finally(() => this.going.delete(key));
		this.going.set(key, doing);
		return doing;
	}
}

/** Opens and writes files in bounded processes, and keeps the previews of what is stored. */
export class Inspector {
	private readonly pool: WorkerPool;
	private readonly programs: WorkerPool;

	/**
	 * @param previews folder for previews; they can be made again at any time
	 * @param pools where files are opened; they end with whoever made them
	 */
	constructor(
		private readonly store: Store,
		private readonly previews: string,
		pools: Pools
	) {
		this.pool = pools.formats;
		this.programs = pools.programs;
	}

	/**
	 * What is opened to show a stored file: itself, or what another program makes of it once. A sentence where that
	 * program is not installed.
	 */
	private async openable(hash: string, mediaType: string, size: number): Promise<StoredFile | string> {
		const path = await this.store.localPath(hash);
		const wanted = standInFor(mediaType);
		if (!wanted) return { path, mediaType, size };
		const made = join(this.previews, hash.slice(0, 2), `${hash}.${wanted.ending}`);
		const known = await stat(made).catch(() => null);
		if (!known) {
			if (!(await installed(wanted.program))) return MISSING[wanted.program]!;
			await this.making.once(hash, () => this.makeStandIn(path, mediaType, made));
		}
		return { path: made, mediaType: wanted.mediaType, size: (await stat(made)).size };
	}

	private readonly making = new Once();

	private async makeStandIn(path: string, mediaType: string, made: string): Promise<void> {
		await mkdir(dirname(made), { recursive: true });
		const to = `${made}.${randomUUID()}`;
		try {
			await this.programs.run({ task: 'stand-in', path, mediaType, to });
			await rename(to, made);
		} finally {
			await rm(to, { force: true });
		}
	}

	/** The same for one that has to be shown: raises `invalid` with the sentence. */
	private async opened(hash: string, mediaType: string, size: number): Promise<StoredFile> {
		const openable = await this.openable(hash, mediaType, size);
		if (typeof openable === 'string') throw new Problem('invalid', openable);
		return openable;
	}

	/**
	 * What a stored file is and whether it opens. A worker that runs out of memory or time over it twice is a fault of the
	 * file, which is kept; a server that ends or has too much to do is none. Raises `busy` for that, to be asked again.
	 */
	async inspect(
		hash: string,
		mediaType: string,
		size: number,
		urgency: Urgency = 'asked'
	): Promise<Inspection> {
		const task = { task: 'inspect', path: await this.store.localPath(hash), mediaType, size };
		const once = () => this.pool.run(task, urgency) as Promise<Inspection>;
		try {
			return await once().catch((error: unknown) => {
				if (error instanceof Overrun) return once();
				throw error;
			});
		} catch (error) {
			return unlessBusy<Inspection>({
				fault: 'The file is too large or too tangled to open here.',
				unchecked: false
			})(error);
		}
	}

	/** What stands written in a stored file; empty when it holds nothing, or cannot be read. Raises `busy`. */
	async written(hash: string, mediaType: string, size: number, urgency: Urgency): Promise<string> {
		const read = (file: StoredFile) =>
			this.pool.run({ task: 'written', ...file }, urgency).then(String, unlessBusy(''));
		const own = await read({ path: await this.store.localPath(hash), mediaType, size });
		if (own || familyOf(mediaType) !== 'printed') return own;
		// What cannot be read itself is read as it is printed.
		const printed = await this.openable(hash, mediaType, size).catch(() => '');
		return typeof printed === 'string' ? '' : read(printed);
	}

	previewPath(hash: string): string {
		return join(this.previews, hash.slice(0, 2), `${hash}.webp`);
	}

	/** Takes away what was made of content that is gone: it would show what was in it. */
	async forget(hash: string): Promise<void> {
		for (const ending of ['webp', 'pdf', 'jpg'])
			await rm(join(this.previews, hash.slice(0, 2), `${hash}.${ending}`), { force: true });
	}

	/** Makes the preview of a stored file; false when its kind has none. */
	async makePreview(hash: string, mediaType: string, size: number): Promise<boolean> {
		const final = this.previewPath(hash);
		await mkdir(dirname(final), { recursive: true });
		const to = `${final}.${randomUUID()}`;
		try {
			const openable = await this.openable(hash, mediaType, size);
			if (typeof openable === 'string') return false;
			const made = (await this.pool.run({ task: 'preview', ...openable, to }, 'later')) as boolean;
			if (made) await rename(to, final);
			return made;
		} finally {
			await rm(to, { force: true });
		}
	}

	/** A copy of a stored file with a stamp, or its marks burned in, or both. Raises `invalid` for what cannot carry them. */
	async copy(
		file: { hash: string; mediaType: string; size: number },
		{ stamp, marks }: Pick<CopyTask, 'stamp' | 'marks'>
	): Promise<Uint8Array> {
		// Marks are burned into what they were made on: of phones' pictures, the one that everything opens.
		const opened =
			marks && familyOf(file.mediaType) === 'phone'
				? await this.opened(file.hash, file.mediaType, file.size)
				: { path: await this.store.localPath(file.hash), mediaType: file.mediaType, size: file.size };
		return this.write({ task: 'copy', ...opened, stamp, marks });
	}

	/** Writes a file. Raises an Error when it is too large to be written within the limits. */
	async write(task: WriteTask): Promise<Uint8Array> {
		return (await this.pool.run(task)) as Uint8Array;
	}

	/** The cover notes of a release to several who get the same documents, in their order. */
	async coverNotes(manifest: Manifest, to: NoteTo[], draft = false): Promise<Uint8Array[]> {
		return (await this.pool.run({ task: 'cover-notes', manifest, to, draft })) as Uint8Array[];
	}

	/** The layers of a stored drawing's entities. Raises an Error for what is no drawing. */
	async layers(hash: string): Promise<DrawingLayers> {
		return (await this.pool.run({ task: 'layers', path: await this.store.localPath(hash) })) as DrawingLayers;
	}

	/**
	 * A stored drawing with number and revision in its title block; null where it has none that can be written. Raises an
	 * Error for what is no drawing.
	 */
	async withTitleBlock(hash: string, to: TitleBlockWords): Promise<Uint8Array | null> {
		const task: TitleBlockTask = { task: 'title-block', path: await this.store.localPath(hash), to };
		return (await this.pool.run(task)) as Uint8Array | null;
	}

	/**
	 * What the server makes of a stored file for showing it. Raises an Error when it cannot be opened.
	 * @param printed as it is printed, where it could be shown as its text or its cells too
	 */
	async shown(hash: string, mediaType: string, size: number, printed = false): Promise<Shown> {
		const file =
			isPrintable(mediaType) && !printed
				? { path: await this.store.localPath(hash), mediaType, size }
				: await this.openable(hash, mediaType, size);
		if (typeof file === 'string') return { kind: 'none', sentence: file };
		return (await this.pool.run({ task: 'shown', ...file })) as Shown;
	}

	/** One page of it as a picture, `width` pixels across at most. */
	async shownPage(
		file: { hash: string; mediaType: string; size: number },
		page: number,
		width: number
	): Promise<ShownPicture> {
		const opened = await this.opened(file.hash, file.mediaType, file.size);
		return (await this.pool.run({ task: 'shown-page', ...opened, page, width })) as ShownPicture;
	}

	/** The words of one page with where they stand. */
	async shownWords(hash: string, mediaType: string, page: number): Promise<ShownWord[]> {
		const opened = await this.opened(hash, mediaType, 0);
		return (await this.pool.run({ task: 'shown-words', ...opened, page })) as ShownWord[];
	}

	/** One of the files that came with a stored mail. Raises `not-found` when there is none of that name. */
	async attachment(
		file: { hash: string; mediaType: string; size: number },
		name: string
	): Promise<Uint8Array> {
		const { hash, mediaType, size } = file;
		const path = await this.store.localPath(hash);
		const bytes = await this.pool.run({ task: 'attachment', path, mediaType, size, name });
		if (!bytes) throw new Problem('not-found', 'No file of that name came with this mail.');
		return bytes as Uint8Array;
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
}

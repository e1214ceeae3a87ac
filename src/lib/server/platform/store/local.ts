import { DAY } from '../../../core/time/spans';
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { Batches } from './batches';
import { Sha256 } from './hashing';
import { TooLarge, type Store, type Stored } from './store';

const HASH = /^[0-9a-f]{64}$/;
/** Bytes that are read at once. */
const READ = 1024 * 1024;

/** The store on a local folder: `objects/ab/abcd…`, with `incoming/` for what is still arriving. */
export class LocalStore implements Store {
	private readonly objects: string;
	private readonly incoming: string;

	private constructor(folder: string) {
		this.objects = join(folder, 'objects');
		this.incoming = join(folder, 'incoming');
	}

	/** Opens the store at a folder, making it when needed. */
	static async open(folder: string): Promise<LocalStore> {
		const store = new LocalStore(folder);
		await mkdir(store.objects, { recursive: true });
		await mkdir(store.incoming, { recursive: true });
		return store;
	}

	/**
	 * Throws away what a crash left half written: what a process of this machine that is no more was writing, and
	 * what nobody has touched for a day. Other processes on the same folder go on undisturbed.
	 */
	async cleanLeftovers(): Promise<number> {
		let removed = 0;
		for (const name of await readdir(this.incoming)) {
			const [host, pid] = name.split('~');
			const about = await stat(join(this.incoming, name)).catch(() => null);
			const old = about !== null && Date.now() - about.mtimeMs > DAY;
			if (!old && (host !== hostname() || isRunning(Number(pid)))) continue;
			await rm(join(this.incoming, name), { force: true });
			removed++;
		}
		return removed;
	}

	private path(hash: string): string {
		if (!HASH.test(hash)) throw new RangeError('Not a SHA-256 hash');
		return join(this.objects, hash.slice(0, 2), hash);
	}

	async put(source: AsyncIterable<Uint8Array>, limit: number): Promise<Stored> {
		const temporary = join(this.incoming, [hostname(), process.pid, randomUUID()].join('~'));
		const file = await open(temporary, 'wx');
		const hasher = new Sha256();
		let size = 0;
		const batches = new Batches(file);
		try {
			for await (const chunk of source) {
				size += chunk.byteLength;
				if (size > limit) throw new TooLarge(limit);
				await batches.add(chunk);
				await hasher.update(chunk);
			}
			await batches.end();
			await file.sync();
			await file.close();
			const hash = await hasher.digest();
			await this.place(temporary, hash);
			return { hash, size };
		} catch (error) {
			await batches.end().catch(() => {});
			await file.close().catch(() => {});
			await rm(temporary, { force: true });
			throw error;
		} finally {
			hasher.forget();
		}
	}

	/** Moves a file whose bytes are on disk to where its hash says. */
	private async place(from: string, hash: string): Promise<void> {
		const folder = join(this.objects, hash.slice(0, 2));
		await mkdir(folder, { recursive: true });
		await rename(from, this.path(hash));
		await syncFolder(folder);
		await syncFolder(this.objects);
	}

	async adopt(path: string, hash: string): Promise<void> {
		const file = await open(path, 'r+');
		await file.sync().finally(() => file.close());
		try {
			await this.place(path, hash);
		} catch (error) {
			// Another file system: copied, and hashed once more on the way.
			if ((error as NodeJS.ErrnoException).code !== 'EXDEV') throw error;
			const copied = await this.put(createReadStream(path, { highWaterMark: READ }), Infinity);
			if (copied.hash !== hash) throw new Error('The file changed while it was taken over');
			await rm(path, { force: true });
		}
	}

	async has(hash: string): Promise<boolean> {
		return stat(this.path(hash)).then(
			() => true,
			() => false
		);
	}

	read(hash: string, range?: { start: number; end: number }) {
		return createReadStream(this.path(hash), { ...range, highWaterMark: READ });
	}

	async localPath(hash: string): Promise<string> {
		return this.path(hash);
	}

	async holds(hash: string): Promise<boolean> {
		const hasher = createHash('sha256');
		try {
			for await (const chunk of this.read(hash)) hasher.update(chunk as Buffer);
		} catch {
			return false;
		}
		return hasher.digest('hex') === hash;
	}

	async remove(hash: string): Promise<void> {
		await rm(this.path(hash), { force: true });
	}

	async *list(): AsyncIterable<string> {
		for (const folder of await readdir(this.objects)) {
			for (const name of await readdir(join(this.objects, folder))) if (HASH.test(name)) yield name;
		}
	}
}

/** Makes a rename durable: the folder's own entry list has to reach the disk too. */
async function syncFolder(path: string): Promise<void> {
	const folder = await open(path, 'r');
	try {
		await folder.sync();
	} finally {
		await folder.close();
	}
}

function isRunning(pid: number): boolean {
	try {
		return process.kill(pid, 0);
	} catch (error) {
		return (error as NodeJS.ErrnoException).code === 'EPERM';
	}
}

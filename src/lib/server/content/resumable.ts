import { createReadStream } from 'node:fs';
import { open, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { FileStore } from '@tus/file-store';
import { Server as TusServer } from '@tus/server';
import { eq } from 'drizzle-orm';
import { normaliseName } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { API } from '../../core/acts/api';
import { DAY } from '../../core/time/spans';
import { noteUpload, type Received, type Sender } from './content';
import { content, upload } from '../platform/db/schema';
import { HEAD_BYTES } from '../formats/sniff';
import { newId } from '../platform/ids';
import { Batches } from '../platform/store/batches';
import { Sha256 } from '../platform/store/hashing';
import type { Services } from '../platform/services';

/** Path of the endpoint within the application. */
export const RESUMABLE_PATH = `${API}/uploads/resumable`;

/** What is not continued for this long is thrown away, in milliseconds. */
const KEPT = DAY;
/** A state of the hash is kept this often, so that after a break only so much is read again; in bytes. */
const SNAPSHOT = 64 * 1024 * 1024;

const FULL = {
	status_code: 507,
	body: 'The disk of the server is full. What has arrived is kept; go on when there is room.'
};

/** A sender as it is noted with what has arrived. */
const noted = (sender: Sender): string => {
	if ('personId' in sender) return `person ${sender.personId}`;
	return 'hatchId' in sender ? `hatch ${sender.hatchId}` : `pass ${sender.passId}`;
};
function senderOf(text: string | null | undefined): Sender | null {
	const [kind, id] = (text ?? '').split(' ');
	if (!id) return null;
	if (kind === 'person') return { personId: id };
	return kind === 'hatch' ? { hatchId: id } : { passId: id };
}

/** Hashes of what has arrived so far, by upload. */
class Hashes {
	private readonly known = new Map<string, { at: number; hash: Sha256 }[]>();

	/** The hash of exactly the first `offset` bytes, read again from the file as far as it is not remembered; the caller's own. */
	async upTo(id: string, file: string, offset: number): Promise<Sha256> {
		const states = this.known.get(id) ?? [];
		const best = states.filter((s) => s.at <= offset && !s.hash.lost).at(-1);
		const hash = best ? best.hash.copy() : new Sha256();
		const from = best?.at ?? 0;
		if (from < offset) {
			const rest = createReadStream(file, { start: from, end: offset - 1, highWaterMark: 1024 * 1024 });
			try {
				for await (const chunk of rest) await hash.update(chunk as Buffer);
			} catch (error) {
				hash.forget();
				throw error;
			}
		}
		return hash;
	}

	keep(id: string, at: number, hash: Sha256): void {
		const states = this.known.get(id) ?? [];
		const kept = states.filter((s) => s.at < at).slice(-2);
		for (const state of states) if (!kept.includes(state)) state.hash.forget();
		this.known.set(id, [...kept, { at, hash: hash.copy() }]);
	}

	forget(id: string): void {
		for (const state of this.known.get(id) ?? []) state.hash.forget();
		this.known.delete(id);
	}
}

/** The file store of the protocol, hashing what arrives on its way to the disk. */
class HashingStore extends FileStore {
	readonly hashes = new Hashes();

	file(id: string): string {
		return join(this.directory, id);
	}

	/** What came until it broke off stays; how much that is, is what the file says. */
	override async write(source: Readable, id: string, offset: number): Promise<number> {
		const hash = await this.hashes.upTo(id, this.file(id), offset);
		try {
			return await this.writeOn(source, id, offset, hash);
		} catch (error) {
			throw (error as NodeJS.ErrnoException).code === 'ENOSPC' ? FULL : error;
		} finally {
			hash.forget();
		}
	}

	/** Writes what comes from an offset on, and takes it into the hash. Gives where it ended. */
	private async writeOn(source: Readable, id: string, offset: number, hash: Sha256): Promise<number> {
		const file = await open(this.file(id), 'r+');
		const batches = new Batches(file, offset);
		let at = offset;
		let kept = offset;
		try {
			for await (const chunk of source as AsyncIterable<Buffer>) {
				await batches.add(chunk);
				await hash.update(chunk);
				at += chunk.byteLength;
				if (at - kept < SNAPSHOT) continue;
				this.hashes.keep(id, at, hash);
				kept = at;
			}
			await batches.end();
			this.hashes.keep(id, at, hash);
			return at;
		} catch (error) {
			await batches.end().catch(() => {});
			throw error;
		} finally {
			await file.close();
		}
	}
}

/**
 * Takes in files that may break off and go on later (tus 1.0.0, https://tus.io/protocols/resumable-upload). What has
 * arrived lies in `uploads/` of the home; when whole it moves into the store and is noted as any other upload.
 */
class Resumable {
	private readonly store: HashingStore;
	private readonly tus: TusServer;
	private readonly senders = new WeakMap<Request, { sender: Sender; limit: number }>();
	private readonly finishing = new Map<string, Promise<Received>>();

	constructor(private readonly services: Services) {
		this.store = new HashingStore({ directory: join(services.config.home, 'uploads') });
		this.tus = new TusServer({
			path: RESUMABLE_PATH,
			datastore: this.store,
			relativeLocation: true,
			allowedOrigins: [services.config.origin],
			namingFunction: () => newId(),
			maxSize: (request) => this.senders.get(request)?.limit ?? 0,
			onUploadCreate: (request, { metadata }) => {
				const named = normaliseName(metadata?.name ?? '');
				if ('fault' in named) return Promise.reject({ status_code: 422, body: named.sentence });
				const { sender } = this.senders.get(request)!;
				return Promise.resolve({ metadata: { name: named.name, sender: noted(sender) } });
			},
			onUploadFinish: async ({ method }, { id }) => {
				const received = await this.finish(id);
				return {
					// The address of the upload goes along with 201 only.
					status_code: method === 'POST' ? 201 : 200,
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify(received)
				};
			}
		});
	}

	/**
	 * Answers a request of the protocol for a sender. The library takes the upload from the end of the address, so it is
	 * given one that says that and nothing else.
	 * @param id the upload that the sender was found to own; empty for beginning one
	 * @param limit most bytes of a file that is begun
	 */
	async answer(request: Request, id: string, sender: Sender, limit: number): Promise<Response> {
		const address = new URL(`${RESUMABLE_PATH}${id ? `/${id}` : ''}`, request.url);
		const { method, headers, body, signal } = request;
		const plain = new Request(address, { method, headers, body, signal, duplex: 'half' } as RequestInit);
		this.senders.set(plain, { sender, limit });
		return this.tus.handleWeb(plain);
	}

	/** Bytes of uploads of a sender that have not arrived whole, as large as they say they will be. */
	async arriving(sender: Sender): Promise<number> {
		let bytes = 0;
		for (const name of await readdir(this.store.directory).catch(() => [])) {
			if (!name.endsWith('.json')) continue;
			const found = await this.store.getUpload(name.slice(0, -'.json'.length)).catch(() => null);
			if (found?.metadata?.sender === noted(sender)) bytes += found.size ?? 0;
		}
		return bytes;
	}

	/** An upload of a sender that was not noted yet, and whether all its bytes are here; null when there is none of theirs. */
	async begun(id: string, sender: Sender): Promise<{ whole: boolean } | null> {
		const found = await this.store.getUpload(id).catch(() => null);
		return found?.metadata?.sender === noted(sender) ? { whole: found.offset === found.size } : null;
	}

	/** An upload of a sender that arrived whole; null when there is none of theirs. */
	async whole(id: string, sender: Sender): Promise<Received | null> {
		const row = await this.received(id);
		if (!row) return null;
		const { personId, hatchId, passId, ...received } = row;
		const theirs = Object.entries(sender).every(
			([key, id]) => ({ personId, hatchId, passId })[key as 'personId'] === id
		);
		return theirs ? received : null;
	}

	private async received(id: string) {
		const [row] = await this.services.database.db
			.select({
				upload: upload.id,
				hash: upload.hash,
				size: content.size,
				mediaType: content.mediaType,
				fileName: upload.fileName,
				personId: upload.personId,
				hatchId: upload.hatchId,
				passId: upload.passId
			})
			.from(upload)
			.innerJoin(content, eq(content.hash, upload.hash))
			.where(eq(upload.id, id));
		return row;
	}

	/**
	 * Moves an upload that arrived whole into the store. Safe to call again, also after a crash in between.
	 * Raises `invalid` when it is empty or not whole.
	 */
	finish(id: string): Promise<Received> {
		const running = this.finishing.get(id) ?? this.finishOnce(id);
		this.finishing.set(id, running);
		return running.finally(() => this.finishing.delete(id));
	}

	private async finishOnce(id: string): Promise<Received> {
		const done = await this.received(id);
		if (done)
			return {
				upload: id,
				hash: done.hash,
				size: done.size,
				mediaType: done.mediaType,
				fileName: done.fileName
			};
		const { offset, size, metadata } = await this.store.getUpload(id).catch(() => {
			throw new Problem('not-found', 'There is no such upload.');
		});
		if (size === undefined || offset < size)
			throw new Problem('invalid', 'The file has not arrived whole yet.', { offset, size });
		if (size === 0) throw new Problem('invalid', 'The file is empty. It was not kept.');
		const path = this.store.file(id);
		const whole = await this.store.hashes.upTo(id, path, size);
		const hash = await whole.digest().finally(() => whole.forget());
		const head = Buffer.alloc(Math.min(HEAD_BYTES, size));
		const file = await open(path, 'r');
		await file.read(head, 0, head.length, 0).finally(() => file.close());
		await this.services.store.adopt(path, hash);
		const sender = senderOf(metadata?.sender);
		if (!sender) throw new Problem('not-found', 'There is no such upload.');
		const named = { hash, size, head, name: metadata!.name! };
		const received = await noteUpload(this.services, id, sender, named, new Date());
		this.store.hashes.forget(id);
		// Noted in the database by now: what is arriving is looked through at the beginning of each upload. What cannot be
		// thrown away here goes with what nobody continued.
		await this.store.configstore.delete(id).catch(() => {});
		return received;
	}

	/** Throws away what was not continued in time. */
	async clean(now = Date.now()): Promise<void> {
		const names = await readdir(this.store.directory).catch(() => []);
		for (const name of names) {
			const file = join(this.store.directory, name);
			const about = await stat(file).catch(() => null);
			if (about && now - about.mtimeMs > KEPT) await rm(file, { force: true });
		}
	}
}

const made = new WeakMap<Services, Resumable>();

/** The one of a running Cupboard: what it remembers of hashes must not be in two places. */
export function resumableOf(services: Services): Resumable {
	const known = made.get(services) ?? new Resumable(services);
	made.set(services, known);
	return known;
}

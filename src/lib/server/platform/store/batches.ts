import type { FileHandle } from 'node:fs/promises';

/** Bytes gathered before they are written. */
const BATCH = 1024 * 1024;
/** Bytes after which what is written is sent on to the disk. */
const LOT = 32 * BATCH;

/**
 * Writes what comes piece by piece into a file: one batch is written while the next is gathered, so that memory stays at
 * two batches, and goes to the disk meanwhile, so that whoever wants to be sure of it at the end waits only for the last of
 * it. What fails is raised by the next piece, or at the end.
 */
export class Batches {
	private waiting: Uint8Array[] = [];
	private bytes = 0;
	private writing: Promise<void> = Promise.resolve();
	private unsent = 0;
	private sending: Promise<void> | null = null;

	/** @param position where in the file it begins */
	constructor(
		private readonly file: FileHandle,
		private position = 0
	) {}

	/** Takes a piece, which must not be changed any more. */
	async add(piece: Uint8Array): Promise<void> {
		this.waiting.push(piece);
		this.bytes += piece.byteLength;
		if (this.bytes >= BATCH) await this.begin();
	}

	/** Writes what is left. Safe to call after a failure: what was written stays, and the failure is raised again. */
	async end(): Promise<void> {
		await this.begin();
		await this.writing;
		await this.sending;
	}

	private async begin(): Promise<void> {
		await this.writing;
		const [pieces, at] = [this.waiting, this.position];
		this.waiting = [];
		this.position += this.bytes;
		this.bytes = 0;
		this.writing = this.write(pieces, at);
		// Awaited with the next batch; until then a failure must not count as unhandled.
		this.writing.catch(() => {});
	}

	/** Writes every byte of some pieces; a write may take only a part of what it is given. */
	private async write(pieces: Uint8Array[], position: number): Promise<void> {
		let [rest, at] = [pieces, position];
		while (rest.length) {
			const { bytesWritten } = await this.file.writev(rest, at);
			at += bytesWritten;
			let left = bytesWritten;
			let whole = 0;
			while (whole < rest.length && left >= rest[whole]!.byteLength) left -= rest[whole++]!.byteLength;
			rest = rest.slice(whole);
			if (left && rest[0]) rest[0] = rest[0].subarray(left);
		}
		this.unsent += at - position;
		if (this.unsent >= LOT && !this.sending) this.send();
	}

	private send(): void {
		this.unsent = 0;
		this.sending = this.file.datasync().then(() => void (this.sending = null));
		// A failure stays, and is raised at the end.
		this.sending.catch(() => {});
	}
}

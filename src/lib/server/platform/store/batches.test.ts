import type { FileHandle } from 'node:fs/promises';
import { setImmediate } from 'node:timers/promises';
import { expect, it } from 'vitest';
import { Batches } from './batches';

const MEBIBYTE = 1024 * 1024;

/** A file that notes how much of it was written when it was sent on to the disk, which takes longer than writing a batch. */
function noting(
	sending = async () => {
		for (let i = 0; i < 5; i++) await setImmediate();
	}
) {
	const sent: number[] = [];
	let written = 0;
	let atOnce = 0;
	let most = 0;
	const file = {
		writev: async (pieces: Uint8Array[]) => {
			await setImmediate();
			const bytesWritten = pieces.reduce((sum, piece) => sum + piece.byteLength, 0);
			written += bytesWritten;
			return { bytesWritten };
		},
		datasync: () => {
			sent.push(written / MEBIBYTE);
			most = Math.max(most, ++atOnce);
			return sending().finally(() => atOnce--);
		}
	};
	return { file: file as unknown as FileHandle, sent, most: () => most };
}

async function write(file: FileHandle, mebibytes: number): Promise<Batches> {
	const batches = new Batches(file);
	const piece = new Uint8Array(MEBIBYTE);
	for (let i = 0; i < mebibytes; i++) await batches.add(piece);
	return batches;
}

it('sends what is written on to the disk while more comes, one lot at a time', async () => {
	const { file, sent, most } = noting();
	const batches = await write(file, 200);
	await batches.end();
	expect(sent[0]).toBe(32);
	expect(sent.length).toBeGreaterThan(1);
	expect(most()).toBe(1);
});

it('raises at the end what failed on the way to the disk', async () => {
	const { file, sent } = noting(() => Promise.reject(new Error('the disk is gone')));
	const batches = await write(file, 100);
	await expect(batches.end()).rejects.toThrow('the disk is gone');
	await expect(batches.end()).rejects.toThrow('the disk is gone');
	expect(sent).toHaveLength(1);
});

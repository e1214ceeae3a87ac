import { daysLater } from '../../../core/time/spans';
import { createHash, randomBytes } from 'node:crypto';
import { mkdtemp, readdir, rm, utimes, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { LocalStore } from './local';
import { TooLarge } from './store';

let folder = '';
let store: LocalStore;
beforeEach(async () => {
	folder = await mkdtemp(join(tmpdir(), 'cupboard-store-'));
	store = await LocalStore.open(folder);
});
afterEach(() => rm(folder, { recursive: true, force: true }));

async function* pieces(bytes: Uint8Array, size: number, failAt = Infinity) {
	for (let at = 0; at < bytes.length; at += size) {
		if (at >= failAt) throw new Error('the line broke');
		yield bytes.subarray(at, at + size);
	}
}
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const arriving = () => readdir(join(folder, 'incoming'));
const read = async (hash: string, range?: { start: number; end: number }) =>
	Buffer.concat(await store.read(hash, range).toArray());

describe('the store on a local folder', () => {
	it.each([1, 700, 1 << 20, (1 << 20) + 1, 3_500_000])(
		'keeps %i bytes under their hash, however they come in pieces',
		async (size) => {
			const bytes = randomBytes(size);
			const stored = await store.put(pieces(bytes, 65_537), 1e9);
			expect(stored).toEqual({ hash: sha256(bytes), size });
			expect(sha256(await read(stored.hash))).toBe(stored.hash);
			expect(await arriving()).toEqual([]);
		}
	);

	it('keeps the same bytes once', async () => {
		const bytes = randomBytes(10_000);
		const [a, b] = await Promise.all([
			store.put(pieces(bytes, 100), 1e9),
			store.put(pieces(bytes, 999), 1e9)
		]);
		expect(a).toEqual(b);
		expect(await Readable.from(store.list()).toArray()).toEqual([a.hash]);
	});

	it('leaves nothing behind when the line breaks or the file is too large', async () => {
		const bytes = randomBytes(3_000_000);
		await expect(store.put(pieces(bytes, 1000, 2_000_000), 1e9)).rejects.toThrow('the line broke');
		await expect(store.put(pieces(bytes, 1000), 2_999_999)).rejects.toBeInstanceOf(TooLarge);
		expect(await arriving()).toEqual([]);
		expect(await Readable.from(store.list()).toArray()).toEqual([]);
	});

	it('reads a part', async () => {
		const bytes = randomBytes(5_000);
		const { hash } = await store.put(pieces(bytes, 512), 1e9);
		expect(await read(hash, { start: 4_000, end: 4_099 })).toEqual(bytes.subarray(4_000, 4_100));
	});

	it('notices bytes that changed under it', async () => {
		const { hash } = await store.put(pieces(randomBytes(100), 10), 1e9);
		expect(await store.holds(hash)).toBe(true);
		await writeFile(await store.localPath(hash), 'other bytes');
		expect(await store.holds(hash)).toBe(false);
		await store.remove(hash);
		expect(await store.holds(hash)).toBe(false);
	});

	it('refuses what is no hash, so that no path can be smuggled in', () => {
		expect(() => store.read('../../secret')).toThrow(RangeError);
	});

	it('throws away what dead processes left, and nothing of those that run', async () => {
		const put = (name: string) => writeFile(join(folder, 'incoming', name), 'half');
		await put(`${hostname()}~999999999~dead`);
		await put(`${hostname()}~${process.pid}~mine`);
		await put('another-machine~1~running');
		await put('another-machine~1~old');
		const long = daysLater(new Date(), -2);
		await utimes(join(folder, 'incoming', 'another-machine~1~old'), long, long);
		expect(await store.cleanLeftovers()).toBe(2);
		expect((await arriving()).sort()).toEqual(
			[`${hostname()}~${process.pid}~mine`, 'another-machine~1~running'].sort()
		);
	});
});

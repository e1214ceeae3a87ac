import { createHash, randomBytes } from 'node:crypto';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { HashThread, Sha256 } from './hashing';

const plain = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const MORE = randomBytes(3_000_000);

it('is SHA-256 however the bytes are cut, small and large, and whatever becomes of the pieces afterwards', async () => {
	await fc.assert(
		fc.asyncProperty(
			fc.integer({ min: 0, max: MORE.length }),
			fc.array(fc.integer({ min: 1, max: 900_000 }), { minLength: 1, maxLength: 8 }),
			async (length, cuts) => {
				const hash = new Sha256();
				for (let at = 0, i = 0; at < length; i++) {
					const piece = Buffer.from(MORE.subarray(at, Math.min(length, at + cuts[i % cuts.length]!)));
					await hash.update(piece);
					at += piece.length;
					piece.fill(0);
				}
				expect(await hash.digest()).toBe(plain(MORE.subarray(0, length)));
				hash.forget();
			}
		),
		{ numRuns: 12 }
	);
});

it('a copy goes its own way, and the first goes on after it was asked', async () => {
	for (const size of [1_000, 2_500_000]) {
		const one = new Sha256();
		await one.update(MORE.subarray(0, size));
		const other = one.copy();
		const before = await one.digest();
		await one.update(Buffer.from('one'));
		await other.update(Buffer.from('other'));
		expect(before).toBe(plain(MORE.subarray(0, size)));
		expect(await one.digest()).toBe(plain(Buffer.concat([MORE.subarray(0, size), Buffer.from('one')])));
		expect(await other.digest()).toBe(plain(Buffer.concat([MORE.subarray(0, size), Buffer.from('other')])));
		one.forget();
		other.forget();
	}
});

it('many at once do not mix', async () => {
	const sizes = Array.from({ length: 40 }, (_, i) => 900_000 + i * 50_000);
	const hashes = await Promise.all(
		sizes.map(async (size) => {
			const hash = new Sha256();
			for (let at = 0; at < size; at += 65_536)
				await hash.update(MORE.subarray(at, Math.min(size, at + 65_536)));
			return hash.digest().finally(() => hash.forget());
		})
	);
	expect(hashes).toEqual(sizes.map((size) => plain(MORE.subarray(0, size))));
});

it('says so when the thread ended that knew it, and the next one is hashed by a new thread', async () => {
	const thread = new HashThread();
	const hash = new Sha256(thread);
	await hash.update(MORE);
	const copy = hash.copy();
	await thread.end();
	expect([hash.lost, copy.lost]).toEqual([true, true]);
	await expect(hash.digest()).rejects.toThrow('ended');
	await expect(copy.update(MORE)).rejects.toThrow('ended');
	hash.forget();
	const next = new Sha256(thread);
	await next.update(MORE);
	expect(await next.digest()).toBe(plain(MORE));
	await thread.end();
});

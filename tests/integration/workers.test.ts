import { mkdtemp, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { Readable } from 'node:stream';
import { createDeflate } from 'node:zlib';
import { PDFDocument } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WorkerPool } from '../../src/lib/server/formats/pool';

let home = '';
let pool: WorkerPool;
beforeAll(async () => {
	home = await mkdtemp(join(tmpdir(), 'cupboard-workers-'));
	pool = new WorkerPool(resolve('build/worker/worker.js'), { time: 20_000, memory: 1_000_000_000 });
});
afterAll(async () => {
	await pool.close();
	await rm(home, { recursive: true, force: true });
});

/** A PDF of under a megabyte whose one object stream unpacks to 900. */
async function bomb(): Promise<string> {
	const zeros = Buffer.alloc(1024 * 1024, 0x20);
	const packed = await buffer(
		Readable.from(
			(function* () {
				yield Buffer.from('1 0 2 60 '.padEnd(100) + '<</Type/Catalog/Pages 2 0 R>>'.padEnd(60));
				for (let i = 0; i < 900; i++) yield zeros;
			})()
		).pipe(createDeflate({ level: 9 }))
	);
	const head = `%PDF-1.5\n3 0 obj\n<</Type/ObjStm/N 2/First 100/Filter/FlateDecode/Length ${packed.length}>>\nstream\n`;
	const tail = '\nendstream\nendobj\ntrailer\n<</Root 1 0 R/Size 4>>\nstartxref\n0\n%%EOF';
	const path = join(home, 'bomb.pdf');
	await writeFile(path, Buffer.concat([Buffer.from(head), packed, Buffer.from(tail)]));
	return path;
}

async function fine(): Promise<string> {
	const pdf = await PDFDocument.create();
	pdf.addPage([400, 300]).drawText('a sheet');
	const path = join(home, 'fine.pdf');
	await writeFile(path, await pdf.save());
	return path;
}

const stamp = async (path: string) =>
	pool.run({
		task: 'copy',
		marks: null,
		path,
		mediaType: 'application/pdf',
		size: (await stat(path)).size,
		stamp: { text: 'copy', across: true }
	});

describe('files that harm are opened apart from the server', () => {
	it('one that unpacks to 900 MB is answered with an error, while the server and others go on', async () => {
		const path = await bomb();
		expect((await stat(path)).size).toBeLessThan(1_500_000);
		const before = process.memoryUsage.rss();
		const used = process.cpuUsage();
		const ends: string[] = [];
		const ended = (what: string) => () => void ends.push(what);
		const [harm, well] = await Promise.allSettled([
			stamp(path).finally(ended('what harms')),
			fine().then(stamp).finally(ended('the other'))
		]);
		expect(harm.status).toBe('rejected');
		expect(well.status).toBe('fulfilled');
		// The thread that answers requests went on, had none of the work, and took none of it into its memory.
		expect(ends).toEqual(['the other', 'what harms']);
		expect(process.cpuUsage(used).user).toBeLessThan(2e6);
		expect(process.memoryUsage.rss() - before).toBeLessThan(150e6);
		// And the next file is opened as if nothing had been.
		expect(await stamp(await fine())).toBeInstanceOf(Uint8Array);
	});

	it('one that takes too long is ended, and only that one', async () => {
		const quick = new WorkerPool(resolve('build/worker/worker.js'), { time: 600, workers: 1 });
		const path = join(home, 'slow.dxf');
		const line = '0\nLINE\n8\nA\n10\n0\n20\n0\n11\n5\n21\n5\n'.repeat(900_000);
		await writeFile(path, `0\nSECTION\n2\nENTITIES\n${line}0\nENDSEC\n0\nEOF\n`);
		const slow = quick.run({ task: 'inspect', path, mediaType: 'image/vnd.dxf', size: 1 });
		await expect(slow).rejects.toThrow('too much time or memory');
		await quick.close();
	});

	it('what somebody waits for goes before what is done when there is time', async () => {
		const one = new WorkerPool(resolve('build/worker/worker.js'), { workers: 1 });
		const path = await fine();
		const ends: string[] = [];
		const read = (name: string, urgency: 'asked' | 'later') =>
			one
				.run({ task: 'inspect', path, mediaType: 'application/pdf', size: 1 }, urgency)
				.then(() => void ends.push(name));
		const all = [read('begun', 'later'), ...['a', 'b', 'c'].map((name) => read(name, 'later'))];
		all.push(read('asked', 'asked'), read('asked next', 'asked'));
		await Promise.all(all);
		expect(ends).toEqual(['begun', 'asked', 'asked next', 'a', 'b', 'c']);
		await one.close();
	});

	it('no file is taken for a slow one because the machine stood still', async () => {
		const quick = new WorkerPool(resolve('build/worker/worker.js'), { workers: 1, time: 1_500 });
		const path = await fine();
		const read = () => quick.run({ task: 'inspect', path, mediaType: 'application/pdf', size: 1 });
		await read().catch(() => {});
		const still = read();
		// Longer than a file may take; the worker, which is another process, goes on, and its answer lies here unread.
		Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 2_500);
		await expect(still).resolves.toBeDefined();
		await quick.close();
	});

	it('one that ends because nobody needs it takes no file with it', async () => {
		const path = join(home, 'small.dxf');
		await writeFile(path, '0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n');
		const task = { task: 'inspect', path, mediaType: 'image/vnd.dxf', size: 1 };
		// A worker ends a moment after its last file, which is when the next one comes.
		const brief = new WorkerPool(resolve('build/worker/worker.js'), { idle: 1, workers: 1 });
		for (let i = 0; i < 12; i++) {
			await expect(brief.run(task), `file ${i}`).resolves.toBeDefined();
			await new Promise((done) => setTimeout(done, i % 4));
		}
		await brief.close();
	});

	it('a worker knows nothing of the settings and secrets of the server', async () => {
		process.env.CUPBOARD_SECRET ??= 'a secret';
		const { readFile } = await import('node:fs/promises');
		const { execFileSync } = await import('node:child_process');
		await stamp(await fine());
		const children = execFileSync('pgrep', ['-P', String(process.pid), '-f', 'worker.js'], {
			encoding: 'utf8'
		});
		const environment = await readFile(`/proc/${children.trim().split('\n')[0]}/environ`, 'utf8');
		expect(environment).not.toContain('SECRET');
		expect(environment).not.toContain('DATABASE_URL');
	});
});

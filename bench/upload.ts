import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { closeSync, fsyncSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { READER } from './large-project';
import type { Line } from './measure';

const GIB = 1 << 30;
const authorization = `Bearer ${READER.token}`;

/** Sends a file as the body of a request, by a program that leaves the processors to the server; gives what is answered. */
function send(
	address: string,
	method: string,
	headers: Record<string, string | number>,
	file: string
): Promise<string> {
	const lines = Object.entries({ ...headers, authorization, expect: '' }).flatMap(([name, value]) => [
		'-H',
		`${name}: ${value}`
	]);
	const sender = spawn('curl', ['-sS', '-X', method, ...lines, '-T', file, address], {
		stdio: ['ignore', 'pipe', 'inherit']
	});
	let text = '';
	sender.stdout.on('data', (chunk) => (text += String(chunk)));
	return new Promise((done) => sender.on('close', () => done(text)));
}

/** Sends it as browsers do: begun, then its bytes from an offset on (tus). */
async function sendResumable(base: string, file: string): Promise<string> {
	const base64 = (text: string) => Buffer.from(text).toString('base64');
	const begun = await fetch(`${base}/api/v1/uploads/resumable`, {
		method: 'POST',
		headers: {
			authorization,
			'tus-resumable': '1.0.0',
			'upload-length': String(GIB),
			'upload-metadata': `name ${base64('gib.bin')},project ${base64('BIG')}`
		}
	});
	const at = begun.headers.get('location');
	if (!at) throw new Error(`An upload could not be begun: ${begun.status} ${await begun.text()}`);
	const headers = {
		'tus-resumable': '1.0.0',
		'upload-offset': 0,
		'content-type': 'application/offset+octet-stream'
	};
	return send(new URL(at, base).href, 'PATCH', headers, file);
}

/**
 * Sends 1 GiB in both ways and compares with hashing the same file; watches the server's memory meanwhile.
 * @returns the hash, under which it is kept
 */
export async function upload(serverPid: number): Promise<{ hash: string; lines: Line[] }> {
	const base = process.env.ORIGIN!;
	const file = join(process.env.CUPBOARD_HOME!, 'gib.bin');
	const handle = openSync(file, 'w');
	for (let i = 0; i < 256; i++) writeSync(handle, randomBytes(4 << 20));
	// On the disk before anything is measured: what is still on its way there would be written between what is sent.
	fsyncSync(handle);
	closeSync(handle);
	const rss = () =>
		Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${serverPid}/status`, 'utf8'))![1]) / 1024;
	const timed = async <T>(doing: () => T | Promise<T>) => {
		const begin = performance.now();
		const result = await doing();
		return { result, rate: 1024 / ((performance.now() - begin) / 1000) };
	};
	const summed = await timed(
		() => spawnSync('sha256sum', [file], { encoding: 'utf8' }).stdout.split(' ')[0]!
	);
	let peak = 0;
	const watching = setInterval(() => (peak = Math.max(peak, rss())), 50);
	const ways = {
		'over HTTP': await timed(() =>
			send(
				`${base}/api/v1/uploads?project=BIG&name=gib.bin`,
				'POST',
				{ 'content-type': 'application/octet-stream' },
				file
			)
		),
		'as browsers send it': await timed(() => sendResumable(base, file))
	};
	clearInterval(watching);
	rmSync(file);
	for (const { result } of Object.values(ways))
		if ((JSON.parse(result) as { hash?: string }).hash !== summed.result)
			throw new Error(`The upload went wrong: ${result}`);
	return {
		hash: summed.result,
		lines: [
			...Object.entries(ways).map(([way, { rate }]) => ({
				what: `upload of 1 GiB ${way}, hashed`,
				value: rate,
				unit: 'MiB/s',
				budget: summed.rate,
				least: true,
				baseline: { what: 'sha256sum', value: summed.rate }
			})),
			{ what: 'memory of the server meanwhile, at most', value: peak, unit: 'MB', budget: 200 }
		]
	};
}

import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { closeSync, fsyncSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { READER } from './large-project';
import { inTurns, type Line } from './measure';

const GIB = 1 << 30;
const PIECE = 4 << 20;
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

/** Sends it in one request, and says whose and what it is in the address. */
function sendPlain(base: string, file: string): Promise<string> {
	const headers = { 'content-type': 'application/octet-stream' };
	return send(`${base}/api/v1/uploads?project=BIG&name=gib.bin`, 'POST', headers, file);
}

/** A file of 1 GiB that can be made another one: what is stored already is taken in otherwise than what is new. */
class Gib {
	private readonly handle: number;

	constructor(readonly path: string) {
		this.handle = openSync(path, 'w');
		for (let i = 0; i < GIB / PIECE; i++) writeSync(this.handle, randomBytes(PIECE));
		this.renew();
	}

	/** On the disk when this is done: what is still on its way there would be written between what is sent. */
	renew(): void {
		writeSync(this.handle, randomBytes(PIECE), 0, PIECE, 0);
		fsyncSync(this.handle);
	}

	/** What `sha256sum` says of it. */
	sum(): string {
		return spawnSync('sha256sum', [this.path], { encoding: 'utf8' }).stdout.split(' ')[0]!;
	}

	remove(): void {
		closeSync(this.handle);
		rmSync(this.path);
	}
}

/**
 * Sends 1 GiB in both ways and compares with hashing the same file; watches the server's memory meanwhile.
 * @returns the hashes under which what was sent is kept, the last of them the newest
 */
export async function upload(serverPid: number): Promise<{ hashes: string[]; lines: Line[] }> {
	const base = process.env.ORIGIN!;
	const file = new Gib(join(process.env.CUPBOARD_HOME!, 'gib.bin'));
	const rss = () =>
		Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${serverPid}/status`, 'utf8'))![1]) / 1024;
	const hashes: string[] = [];
	/** MiB a second of sending it in a way; what came is what was sent. */
	const timed = (sending: (base: string, file: string) => Promise<string>) => async () => {
		file.renew();
		const begin = performance.now();
		const answer = await sending(base, file.path);
		const seconds = (performance.now() - begin) / 1_000;
		const { hash } = JSON.parse(answer) as { hash?: string };
		if (hash !== file.sum()) throw new Error(`The upload went wrong: ${answer}`);
		hashes.push(hash);
		return 1_024 / seconds;
	};
	const summed = () => {
		const begin = performance.now();
		file.sum();
		return Promise.resolve(1_024 / ((performance.now() - begin) / 1_000));
	};
	let peak = 0;
	const watching = setInterval(() => (peak = Math.max(peak, rss())), 50);
	const rates = await inTurns({
		sha256sum: summed,
		'over HTTP': timed(sendPlain),
		'as browsers send it': timed(sendResumable)
	});
	clearInterval(watching);
	file.remove();
	return {
		hashes,
		lines: [
			...(['over HTTP', 'as browsers send it'] as const).map((way) => ({
				what: `upload of 1 GiB ${way}, hashed`,
				value: rates[way],
				unit: 'MiB/s',
				budget: rates.sha256sum,
				least: true,
				baseline: { what: 'sha256sum', value: rates.sha256sum }
			})),
			{ what: 'memory of the server meanwhile, at most', value: peak, unit: 'MB', budget: 200 }
		]
	};
}

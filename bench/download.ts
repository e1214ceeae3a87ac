import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import postgres from 'postgres';
import { freePort } from '../scripts/parts/launch.mjs';
import { READER } from './large-project';
import { inTurns, type Line } from './measure';

const NGINX = '/usr/sbin/nginx';
/** How many times slower than nginx the application itself may be. */
const MOST_TIMES = 1.5;

/** Fetches an address to its end and gives how many MiB came a second. */
function rate(address: string, headers: Record<string, string> = {}): Promise<number> {
	return new Promise((done, failed) => {
		const begin = performance.now();
		let bytes = 0;
		http
			.get(address, { headers }, (response) => {
				if (response.statusCode !== 200) return failed(new Error(`${address}: ${response.statusCode}`));
				response.on('data', (chunk: Buffer) => (bytes += chunk.length));
				response.on('end', () => done(bytes / 2 ** 20 / ((performance.now() - begin) / 1_000)));
			})
			.on('error', failed);
	});
}

const store = process.env.CUPBOARD_STORE ?? join(process.env.CUPBOARD_HOME!, 'store');
/** Where the store keeps a content, from its folder on. */
const object = (hash: string) => join('objects', hash.slice(0, 2), hash);

/**
 * Downloads what was uploaded, as the newest version of a document, and the same file from nginx, in turns. What was
 * uploaded is thrown away afterwards, so that the bench does not grow with each run.
 * @param hashes of what was uploaded
 * @returns nothing where there is no nginx
 */
export async function downloads(hashes: string[]): Promise<Line[]> {
	const sql = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
	const [version] = await sql<{ hash: string }[]>`select hash from version where id = 'v000000001'`;
	try {
		await sql`update version set hash = ${hashes[0]!} where id = 'v000000001'`;
		return existsSync(NGINX) ? await besideNginx(hashes[0]!) : [];
	} finally {
		await sql`update version set hash = ${version!.hash} where id = 'v000000001'`;
		await sql.end();
		for (const hash of hashes) rmSync(join(store, object(hash)), { force: true });
	}
}

async function besideNginx(hash: string): Promise<Line[]> {
	const home = process.env.CUPBOARD_HOME!;
	const folder = join(home, 'nginx');
	mkdirSync(join(folder, 'logs'), { recursive: true });
	const port = await freePort();
	writeFileSync(
		join(folder, 'nginx.conf'),
		`${process.getuid?.() === 0 ? 'user root;' : ''}
daemon off; worker_processes 1; pid ${folder}/nginx.pid; error_log ${folder}/logs/error.log;
events {}
http { access_log off; sendfile on; client_body_temp_path ${folder}; proxy_temp_path ${folder};
	fastcgi_temp_path ${folder}; uwsgi_temp_path ${folder}; scgi_temp_path ${folder};
	server { listen 127.0.0.1:${port}; root ${store}; } }
`
	);
	const nginx = spawn(NGINX, ['-p', folder, '-c', join(folder, 'nginx.conf')], { stdio: 'ignore' });
	try {
		await new Promise((done) => setTimeout(done, 500));
		const plain = `http://127.0.0.1:${port}/${object(hash)}`;
		const ours = `${process.env.ORIGIN}/api/v1/documents/d000000001/versions/P01.1/file?download`;
		const headers = { authorization: `Bearer ${READER.token}` };
		// The first of each reads from the disk and meets a cold server.
		await rate(plain);
		await rate(ours, headers);
		const rates = await inTurns({ nginx: () => rate(plain), own: () => rate(ours, headers) });
		return [
			{
				what: 'download of 1 GiB from the application itself',
				value: rates.own,
				unit: 'MiB/s',
				budget: rates.nginx / MOST_TIMES,
				least: true,
				baseline: { what: 'nginx', value: rates.nginx }
			}
		];
	} finally {
		nginx.kill();
	}
}

import { createHash, randomBytes } from 'node:crypto';
import { readdirSync, readlinkSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { Validator } from '@seriousme/openapi-schema-validator';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { documentView } from '../../src/lib/server/documents/views';
import { makeToken, withdrawToken } from '../../src/lib/server/people/acts-account';
import { ACTS } from '../../src/lib/server/api/acts';
import { VIEWS } from '../../src/lib/server/api/views';
import { ServerProcess } from './server';
import { TestWorld } from './world';

let world: TestWorld;
let one: ServerProcess;
let two: ServerProcess;
let token = '';
let petra = '';

beforeAll(async () => {
	world = await TestWorld.open();
	token = (await world.act('oke', makeToken, { name: 'tests' })).secret;
	petra = (await world.act('petra', makeToken, { name: 'tests' })).secret;
	const { databaseUrl, home } = world.services.config;
	[one, two] = await Promise.all([ServerProcess.on(databaseUrl, home), ServerProcess.on(databaseUrl, home)]);
});
afterAll(async () => {
	await Promise.all([one.stop('SIGTERM'), two.stop('SIGTERM')]);
	await world.close();
});

/** Whether a descriptor of a process is a stored object. */
function opened(pid: number, fd: string): boolean {
	try {
		return readlinkSync(`/proc/${pid}/fd/${fd}`).includes('/objects/');
	} catch {
		return false;
	}
}

describe('the public API', () => {
	it('has a valid OpenAPI 3.1 description of every act and view', async () => {
		const description = (await (await fetch(`${one.origin}/api/v1/openapi.json`)).json()) as {
			paths: Record<string, Record<string, { operationId: string }>>;
		};
		expect(await new Validator().validate(structuredClone(description))).toMatchObject({ valid: true });
		const named = Object.values(description.paths).flatMap((p) => Object.values(p).map((o) => o.operationId));
		for (const { name } of [...ACTS, ...VIEWS]) expect(named).toContain(name);
	});

	it('sends a head without a body when only that is asked for, and goes on after a download that broke off', async () => {
		const bytes = randomBytes(8_000_000);
		const upload = await one.send(token, 'VFT-MW-LS-00-DR-0590 Broken off.bin', bytes);
		const added = await one.call(token, 'POST', `/places/${world.folder}/documents`, {
			upload,
			number: 'VFT-MW-LS-00-DR-0590',
			title: 'Broken off'
		});
		const file = `${one.origin}/api/v1/documents/${added.body.id}/versions/P01.1/file?download`;
		const headers = { authorization: `Bearer ${token}` };
		const head = await fetch(file, { method: 'HEAD', headers });
		expect([head.status, head.headers.get('content-length')]).toEqual([200, '8000000']);
		expect(head.headers.has('x-cupboard-body')).toBe(false);
		for (let i = 0; i < 20; i++) {
			const broken = new AbortController();
			const response = await fetch(file, { headers, signal: broken.signal });
			expect(response.headers.has('x-cupboard-body')).toBe(false);
			await response.body!.getReader().read();
			broken.abort();
		}
		const open = () => readdirSync(`/proc/${one.pid}/fd`).filter((fd) => opened(one.pid, fd)).length;
		await expect.poll(open, { timeout: 5_000 }).toBe(0);
		const whole = await fetch(file, { headers });
		expect(Buffer.from(await whole.arrayBuffer()).equals(bytes)).toBe(true);
	});

	it('packs pages and answers for whoever takes them so, and no file', async () => {
		const asked = (path: string, encoding: string) =>
			fetch(one.origin + path, {
				headers: { authorization: `Bearer ${token}`, 'accept-encoding': encoding }
			});
		for (const path of ['/sign-in', '/api/v1/openapi.json']) {
			const [packed, plain] = [await asked(path, 'gzip'), await asked(path, 'identity')];
			expect(packed.headers.get('content-encoding'), path).toBe('gzip');
			expect(packed.headers.get('vary'), path).toMatch(/accept-encoding/i);
			expect(plain.headers.get('content-encoding'), path).toBeNull();
			const [text, whole] = await Promise.all([packed.text(), plain.text()]);
			expect(text.slice(-200), path).toBe(whole.slice(-200));
			expect(text.length, path).toBe(whole.length);
		}
		const bytes = JSON.stringify(Array.from({ length: 4_000 }, (_, i) => i));
		const added = await one.call(token, 'POST', `/places/${world.folder}/documents`, {
			upload: await one.send(token, 'VFT-MW-LS-00-SH-0592 Levels.json', Buffer.from(bytes)),
			number: 'VFT-MW-LS-00-SH-0592',
			title: 'Levels'
		});
		for (const query of ['', '?download']) {
			const file = await asked(`/api/v1/documents/${added.body.id}/versions/P01.1/file${query}`, 'gzip, br');
			expect(file.headers.get('content-encoding')).toBeNull();
			expect(file.headers.get('content-length')).toBe(String(bytes.length));
			expect(await file.text()).toBe(bytes);
		}
	});

	it('says so when the stored content of a version is gone, and goes on', async () => {
		const upload = await one.send(token, 'VFT-MW-LS-00-DR-0591 Gone.bin', randomBytes(5_000));
		const added = await one.call(token, 'POST', `/places/${world.folder}/documents`, {
			upload,
			number: 'VFT-MW-LS-00-DR-0591',
			title: 'Gone'
		});
		const { hash } = (await world.read('oke', documentView, { document: String(added.body.id) })).row;
		rmSync(await world.services.store.localPath(hash));
		const file = `${one.origin}/api/v1/documents/${added.body.id}/versions/P01.1/file?download`;
		const answer = await fetch(file, { headers: { authorization: `Bearer ${token}` } });
		expect(answer.status).toBe(409);
		expect(await answer.json()).toMatchObject({ hash, detail: expect.stringContaining('backup') as string });
		expect((await fetch(`${one.origin}/api/v1/openapi.json`)).status).toBe(200);
	});

	it('takes a document the whole way with a token, byte for byte', async () => {
		const bytes = randomBytes(300_000);
		const upload = await one.send(token, 'VFT-MW-LS-00-DR-0500 Whole way.bin', bytes);
		const added = await one.call(token, 'POST', `/places/${world.folder}/documents`, {
			upload,
			number: 'VFT-MW-LS-00-DR-0500',
			title: 'Whole way'
		});
		expect(added.status).toBe(200);
		const file = `/api/v1/documents/${added.body.id}/versions/P01.1/file?download`;
		const whole = await fetch(two.origin + file, { headers: { authorization: `Bearer ${token}` } });
		expect(
			createHash('sha256')
				.update(Buffer.from(await whole.arrayBuffer()))
				.digest('hex')
		).toBe(createHash('sha256').update(bytes).digest('hex'));
		expect(whole.headers.get('content-disposition')).toMatch(/^attachment/);
		const part = await fetch(two.origin + file, {
			headers: { authorization: `Bearer ${token}`, range: 'bytes=100-199' }
		});
		expect(part.status).toBe(206);
		expect(Buffer.from(await part.arrayBuffer())).toEqual(bytes.subarray(100, 200));
		const hiddenFile = await fetch(one.origin + file, { headers: { authorization: `Bearer ${petra}` } });
		expect(hiddenFile.status).toBe(404);
	});

	it('never lets uploaded markup run', async () => {
		const upload = await one.send(
			token,
			'evil.svg',
			new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>')
		);
		const page = await one.send(
			token,
			'evil.html',
			new TextEncoder().encode('<!doctype html><script>alert(1)</script>')
		);
		const svg = await one.call(token, 'POST', `/places/${world.folder}/documents`, {
			upload,
			number: 'VFT-MW-LS-00-DR-0501',
			title: 'SVG'
		});
		const html = await one.call(token, 'POST', `/places/${world.folder}/documents`, {
			upload: page,
			number: 'VFT-MW-LS-00-DR-0502',
			title: 'HTML'
		});
		const get = (id: string) =>
			fetch(`${one.origin}/api/v1/documents/${id}/versions/P01.1/file`, {
				headers: { authorization: `Bearer ${token}` }
			});
		const shown = await get(svg.body.id!);
		expect(shown.headers.get('content-security-policy')).toContain('sandbox');
		expect(shown.headers.get('x-content-type-options')).toBe('nosniff');
		expect((await get(html.body.id!)).headers.get('content-disposition')).toMatch(/^attachment/);
	});

	it('ends a withdrawn token at once', async () => {
		const made = await world.act('rhosyn', makeToken, { name: 'short' });
		expect((await one.call(made.secret, 'GET', '/projects')).status).toBe(200);
		await world.act('rhosyn', withdrawToken, { token: made.id });
		expect(await one.call(made.secret, 'GET', '/projects')).toMatchObject({
			status: 401,
			body: { code: 'needs-sign-in' }
		});
	});

	it('refuses changes that come with a cookie from another site', async () => {
		const response = await fetch(`${one.origin}/api/v1/me`, {
			method: 'PATCH',
			headers: { origin: 'http://evil.example', 'content-type': 'application/json' },
			body: '{"name":"x"}'
		});
		expect(response.status).toBe(403);
	});

	it('tells a watcher on the other process within a second, and only what they may know', async () => {
		const watch = async (secret: string) => {
			const response = await fetch(`${two.origin}/api/v1/live?project=VFT`, {
				headers: { authorization: `Bearer ${secret}` }
			});
			const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
			const seen: string[] = [];
			void (async () => {
				for (;;) {
					const { value, done } = await reader.read();
					if (done) return;
					seen.push(value);
				}
			})().catch(() => {});
			return { seen, stop: () => reader.cancel() };
		};
		const [rhosyn, hers] = [
			await watch((await world.act('rhosyn', makeToken, { name: 'w' })).secret),
			await watch(petra)
		];
		const { id } = await world.add('oke');
		await one.call(token, 'POST', `/documents/${id}/lock`, { purpose: 'seen at once' });
		await expect
			.poll(() => rhosyn.seen.join(''), { timeout: 1_000 })
			.toContain('"touches":["documents","in-hand"]');
		expect(hers.seen.join('')).not.toContain(id);
		await rhosyn.stop();
		await hers.stop();
	});
});

describe('a watcher whose access changes', () => {
	it('is told at once, of what they gain by name and of what they lose without it', async () => {
		const { letIn, endAccess } = await import('../../src/lib/server/access/acts');
		const { makeFolder } = await import('../../src/lib/server/places/acts');
		const { access } = await import('../../src/lib/server/access/views');
		const at = await world.act('oke', makeFolder, { parent: world.shelf, name: 'Watched' });
		const response = await fetch(`${two.origin}/api/v1/live?project=VFT`, {
			headers: { authorization: `Bearer ${petra}` }
		});
		const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
		let seen = '';
		void (async () => {
			for (let { value, done } = await reader.read(); !done; { value, done } = await reader.read())
				seen += value;
		})().catch(() => {});
		// What she reaches is remembered for a moment; the change comes within that moment.
		await world.add('halla', undefined, world.other).catch(() => {});
		await world.act('oke', makeFolder, { parent: world.shelf, name: 'Just before' });
		const lines = [{ subject: { kind: 'person', id: world.people.petra!.person.id }, level: 'view' }];
		await world.act('oke', letIn, { place: at.id, lines });
		await expect
			.poll(() => seen, { timeout: 2_000 })
			.toMatch(new RegExp(`"place":"${at.id}".*"touches":\\["access"\\]`));
		seen = '';
		const { rows } = await world.read('oke', access, { place: at.id });
		await world.act('oke', endAccess, { place: at.id, grant: rows.find((r) => r.here)!.grant });
		await expect.poll(() => seen, { timeout: 2_000 }).toContain('"place":null');
		expect(seen).not.toContain(at.id);
		await reader.cancel();
	});
});

describe('malformed requests', () => {
	const strange: [string, string, RequestInit & { headers?: Record<string, string> }][] = [
		[
			'body that is no JSON',
			'/api/v1/projects',
			{ method: 'POST', body: '{"a":', headers: { 'content-type': 'application/json' } }
		],
		['array for an object', '/api/v1/projects', { method: 'POST', body: '[]' }],
		['null bytes in an address', '/api/v1/documents/%00%00', {}],
		['broken escapes', '/api/v1/documents/%E0%A4%A', {}],
		['broken escapes in a page', '/vft/place/%E0%A4%A', {}],
		['a very long address', '/api/v1/' + 'a'.repeat(9_000), {}],
		['a null byte in a search', '/api/v1/projects/VFT/find?q=%00abc', {}],
		['an unknown method', '/api/v1/projects', { method: 'PROPFIND' }],
		[
			'a prototype key',
			'/api/v1/me/tokens',
			{ method: 'POST', body: '{"__proto__":{"x":1},"constructor":1,"name":{}}' }
		],
		['a negative page', `/api/v1/projects/VFT/activity?before=-1`, {}],
		['a huge number', `/api/v1/projects/VFT/activity?before=99999999999999999999999`, {}],
		[
			'an unknown encoding',
			'/api/v1/projects',
			{ method: 'POST', body: 'x', headers: { 'content-encoding': 'zorg' } }
		],
		['a pass that is none', '/pass/%2e%2e%2f', {}],
		[
			'a form to a page without one',
			'/vft/shelves',
			{ method: 'POST', body: 'x=1', headers: { 'content-type': 'application/x-www-form-urlencoded' } }
		]
	];
	it.each(strange)('%s: an answer without a stack trace', async (_, path, init) => {
		const response = await fetch(one.origin + path, {
			...init,
			headers: { ...init.headers, authorization: `Bearer ${token}` }
		});
		const text = await response.text();
		expect(response.status, text.slice(0, 200)).toBeLessThan(500);
		expect(text).not.toMatch(/\bat .+\.(js|ts):\d+/);
		expect(one.alive).toBe(true);
	});

	it('bytes that are no HTTP, and uploads cut off, leave the server working', async () => {
		const raw = (text: string) =>
			new Promise<void>((done) => {
				const socket = connect(Number(new URL(one.origin).port), '127.0.0.1', () => socket.write(text));
				socket.on('data', () => {});
				socket.on('error', () => done());
				socket.on('close', () => done());
				setTimeout(() => socket.destroy(), 300);
			});
		await raw('\x16\x03\x01 not http at all\r\n\r\n');
		await raw('GET / HTTP/1.1\r\nHost: a\r\nHost: b\r\n\r\n');
		await raw(
			`POST /api/v1/uploads?project=VFT&name=cut.bin HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer ${token}\r\nContent-Length: 1000000\r\n\r\nonly a part`
		);
		await raw(
			`POST /api/v1/projects HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer ${token}\r\nTransfer-Encoding: chunked\r\n\r\nzz\r\n`
		);
		expect((await one.call(token, 'GET', '/projects')).status).toBe(200);
	});
});

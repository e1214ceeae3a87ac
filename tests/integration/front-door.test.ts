import { eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import { randomBytes } from 'node:crypto';
import { connect, createServer, type Server, type Socket } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import WebSocket from 'ws';
import { addPerson } from '../../src/lib/server/people/acts-joining';
import { makeToken, withdrawToken } from '../../src/lib/server/people/acts-account';
import { makeHatch } from '../../src/lib/server/hatches/acts';
import { makePass } from '../../src/lib/server/passes/acts';
import { account, mail } from '../../src/lib/server/platform/db/schema';
import { hashPassword } from '../../src/lib/server/platform/auth/passwords';
import { ServerProcess } from './server';
import { TestWorld } from './world';

let world: TestWorld;
let server: ServerProcess;
let token = '';
let pass = '';
const NEXT_YEAR = `${new Date().getFullYear() + 1}-11-30`;

/** Gives somebody of the world a password, so that they can sign in over HTTP. */
async function password(who: string, plain: string): Promise<void> {
	const userId = world.people[who]!.person.id;
	const password = await hashPassword(plain);
	const row = { id: userId, accountId: userId, providerId: 'credential', userId, password };
	await world.db.insert(account).values(row).onConflictDoNothing();
}
const form = (path: string, fields: Record<string, string>, headers: Record<string, string> = {}) =>
	fetch(server.origin + path, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin: server.origin, 'content-type': 'application/x-www-form-urlencoded', ...headers },
		body: new URLSearchParams(fields)
	});
const cookieOf = (response: Response) =>
	response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ');
const signIn = (email: string, plain: string, headers: Record<string, string> = {}) =>
	form('/sign-in?/password', { email, password: plain }, { accept: 'application/json', ...headers });
const statusOf = async (response: Response) =>
	((await response.json()) as { status: number; type: string }).status;

beforeAll(async () => {
	world = await TestWorld.open();
	token = (await world.act('oke', makeToken, { name: 'front' })).secret;
	const made = await world.act('oke', makePass, {
		place: world.folder,
		for: 'A',
		audience: 'anyone',
		password: 'slack water under',
		until: NEXT_YEAR
	});
	pass = new URL(made.link).pathname;
	await password('oke', 'four words of the tide');
	server = await ServerProcess.on(world.services.config.databaseUrl, world.home, {
		CUPBOARD_TRUSTED_PROXIES: '127.0.0.1',
		CUPBOARD_WAITING_MEMBER: '0.002',
		CUPBOARD_WAITING_HATCH: '0.00002',
		CUPBOARD_WAITING_PROJECT: '1'
	});
});
afterAll(async () => {
	await server.stop('SIGTERM');
	await world.close();
});

/** Begins a request with a body that never ends, sending as fast as it is taken; gives what was answered. */
function flood(
	path: string,
	type: string,
	length: number | null,
	ms: number
): Promise<{ sent: number; answer: string }> {
	return new Promise((done) => {
		const socket: Socket = connect(Number(new URL(server.origin).port), '127.0.0.1');
		let [sent, answer] = [0, ''];
		const piece = Buffer.alloc(64 * 1024, 0x61);
		const size = length === null ? 'transfer-encoding: chunked' : `content-length: ${length}`;
		socket.write(
			`POST ${path} HTTP/1.1\r\nhost: ${new URL(server.origin).host}\r\norigin: ${server.origin}\r\ncontent-type: ${type}\r\n${size}\r\n\r\n`
		);
		const more = () => {
			while (!socket.destroyed) {
				sent += piece.length;
				const data =
					length === null ? Buffer.concat([Buffer.from('10000\r\n'), piece, Buffer.from('\r\n')]) : piece;
				if (!socket.write(data)) break;
			}
		};
		socket.on('drain', more);
		socket.on('data', (data) => (answer += String(data)));
		socket.on('error', () => {});
		socket.on('close', () => done({ sent, answer }));
		setTimeout(() => socket.destroy(), ms);
		more();
	});
}

describe('bodies', () => {
	it('without end, from nobody, fill no memory on any route', async () => {
		await fetch(`${server.origin}/sign-in`);
		const before = await server.memory();
		let most = before;
		const watch = setInterval(() => void server.memory().then((now) => (most = Math.max(most, now))), 50);
		const multipart = 'multipart/form-data; boundary=x';
		const urlencoded = 'application/x-www-form-urlencoded';
		const routes: [string, string][] = [
			['/sign-in?/password', multipart],
			['/sign-in?/password', urlencoded],
			[`${pass}/proof`, 'application/json'],
			['/api/v1/zip/VFT', multipart],
			['/api/v1/projects', 'application/json'],
			['/forgotten', urlencoded],
			['/sign-out', multipart]
		];
		const floods = routes.flatMap(([path, type]) =>
			[1.5e9, null].flatMap((length) => Array.from({ length: 3 }, () => flood(path, type, length, 4_000)))
		);
		const answers = await Promise.all(floods);
		clearInterval(watch);
		expect(most - before).toBeLessThan(150e6);
		for (const { answer } of answers) if (answer) expect(answer).toMatch(/^HTTP\/1\.1 4(13|03|29)/);
		expect((await fetch(`${server.origin}/sign-in`)).status).toBe(200);
	});

	it('that are too large are told so, each by its route', async () => {
		const large = await form('/sign-in?/password', { email: 'x', password: 'y'.repeat(100_000) });
		expect(large.status).toBe(413);
		const acts = await fetch(`${server.origin}/api/v1/me`, {
			method: 'PATCH',
			headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
			body: JSON.stringify({ name: 'x'.repeat(3e6) })
		});
		expect(acts.status).toBe(413);
		const files = await fetch(`${server.origin}/api/v1/uploads?project=VFT&name=a.bin`, {
			method: 'POST',
			headers: { authorization: `Bearer ${token}` },
			body: randomBytes(1_500_000)
		});
		expect(files.status).toBe(200);
	});

	it('that are not what the route reads are wrong input, never a fault of the server', async () => {
		const strange: [string, RequestInit & { headers?: Record<string, string> }][] = [
			[
				'/api/v1/zip/VFT',
				{ method: 'POST', body: '{"documents":[1]}', headers: { 'content-type': 'application/json' } }
			],
			['/api/v1/zip/VFT', { method: 'POST', body: 'x', headers: { 'content-type': 'multipart/form-data' } }],
			[`/api/v1/projects/VFT/numbers?numbers=${'x'.repeat(61)}`, {}],
			[`/api/v1/projects/VFT/register?${'zones=a&'.repeat(201)}`, {}],
			[`/api/v1/places/${world.folder}/proposals?files=%00`, {}],
			['/api/v1/documents/%00%00%00%00%00%00%00%00%00%00', {}],
			['/api/v1/projects/%00', {}],
			['/api/v1/live?project=%00', {}]
		];
		for (const [path, init] of strange) {
			const answer = await fetch(server.origin + path, {
				...init,
				headers: { ...init.headers, authorization: `Bearer ${token}` }
			});
			expect([404, 422], `${path} ${answer.status}`).toContain(answer.status);
		}
	});
});

describe('what lies unused', () => {
	it('of one member is bounded, said before bytes are taken', async () => {
		const send = (size: number) =>
			fetch(`${server.origin}/api/v1/uploads?project=VFT&name=b.bin`, {
				method: 'POST',
				headers: { authorization: `Bearer ${token}` },
				body: randomBytes(size)
			});
		await send(400_000);
		expect((await send(1_900_000)).status).toBe(507);
		const base64 = (text: string) => Buffer.from(text).toString('base64');
		const begin = (headers: Record<string, string>) =>
			fetch(`${server.origin}/api/v1/uploads/resumable`, {
				method: 'POST',
				headers: {
					authorization: `Bearer ${token}`,
					'tus-resumable': '1.0.0',
					'upload-metadata': `project ${base64('VFT')},name ${base64('c.bin')}`,
					...headers
				}
			});
		expect((await begin({ 'upload-length': '1900000' })).status).toBe(507);
		expect((await begin({ 'upload-defer-length': '1' })).status).toBe(422);
		expect((await begin({ 'upload-length': '10', 'upload-defer-length': '1' })).status).toBe(422);
	});

	it('in a full hatch is said before bytes are taken', async () => {
		const hatch = async (more: object) =>
			new URL(
				(await world.act('oke', makeHatch, { place: world.folder, title: 'H', until: NEXT_YEAR, ...more }))
					.link
			).pathname;
		const send = (way: string, size: number) => server.sendThrough(way, 'a.bin', randomBytes(size));
		const few = await hatch({ maxFiles: 2 });
		expect([
			(await send(few, 10)).status,
			(await send(few, 10)).status,
			(await send(few, 10)).status
		]).toEqual([201, 201, 429]);
		const small = await hatch({});
		expect((await send(small, 15_000)).status).toBe(201);
		expect((await send(small, 15_000)).status).toBe(507);
	});
});

describe('uploads', () => {
	it('of others are not reached through a question behind one’s own', async () => {
		const petra = (await world.act('petra', makeToken, { name: 'p' })).secret;
		const base64 = (text: string) => Buffer.from(text).toString('base64');
		const speak = (
			who: string,
			method: string,
			path: string,
			headers: Record<string, string> = {},
			body?: Buffer
		) =>
			fetch(`${server.origin}/api/v1/uploads/resumable${path}`, {
				method,
				headers: { authorization: `Bearer ${who}`, 'tus-resumable': '1.0.0', ...headers },
				...(body ? { body: new Uint8Array(body) } : {})
			});
		const begin = async (who: string) =>
			(
				await speak(who, 'POST', '', {
					'upload-length': '10',
					'upload-metadata': `project ${base64('VFT')},name ${base64('x.bin')}`
				})
			).headers
				.get('location')!
				.split('/')
				.at(-1)!;
		const [mine, theirs] = [await begin(petra), await begin(token)];
		const patch = { 'content-type': 'application/offset+octet-stream', 'upload-offset': '0' };
		await speak(petra, 'PATCH', `/${mine}?x=/${theirs}`, patch, Buffer.from('evil'));
		await speak(petra, 'DELETE', `/${mine}?x=/${theirs}`);
		const left = await speak(token, 'HEAD', `/${theirs}`);
		expect([left.status, left.headers.get('upload-offset')]).toEqual([200, '0']);
	});
});

describe('changes', () => {
	it('that come with a session must come from our pages, whatever else the request carries', async () => {
		const cookie = cookieOf(await signIn('oke@vennholm.example', 'four words of the tide'));
		expect(cookie).toContain('session_token');
		const change = (headers: Record<string, string>) =>
			fetch(`${server.origin}/api/v1/me`, {
				method: 'PATCH',
				headers: { cookie, 'content-type': 'application/json', ...headers },
				body: '{"name":"Oke Lindvar"}'
			});
		expect((await change({ origin: server.origin })).status).toBe(200);
		for (const authorization of ['Basic x', 'Digest x', 'x'])
			expect((await change({ origin: 'http://evil.example', authorization })).status).toBe(403);
		const socket = (headers: Record<string, string>) =>
			new Promise<number>((done) => {
				const ws = new WebSocket(`${server.origin.replace('http', 'ws')}/live/rooms/marks/abcdefghjk/P01`, {
					headers
				});
				ws.on('unexpected-response', (_, response) => done(response.statusCode!));
				ws.on('open', () => done(101));
				ws.on('error', () => {});
			});
		expect(await socket({ cookie, origin: 'http://evil.example', authorization: 'Basic x' })).toBe(403);
	});

	it('with a token for reading are refused, and reading goes on', async () => {
		const read = (await world.act('oke', makeToken, { name: 'r', scope: 'read' })).secret;
		expect((await server.call(read, 'GET', '/projects')).status).toBe(200);
		expect((await server.call(read, 'PATCH', '/me', { name: 'X' })).status).toBe(403);
	});
});

describe('signing in', () => {
	it('never leads out of Cupboard', async () => {
		for (const to of [
			'/%09/evil.example',
			'//evil.example',
			'/\\evil.example',
			'http://evil.example/',
			'/%0a/evil.example'
		]) {
			const answer = await form(
				`/sign-in?/password&to=${to.includes('%') ? to : encodeURIComponent(to)}`,
				{ email: 'oke@vennholm.example', password: 'four words of the tide' },
				{ accept: 'text/html' }
			);
			expect(answer.status).toBe(303);
			expect(new URL(answer.headers.get('location')!, server.origin).origin, to).toBe(server.origin);
		}
	});

	it('counts wrong tries by account and address together, for all processes, and shuts nobody else out', async () => {
		await password('rhosyn', 'another four words here');
		const other = await ServerProcess.on(world.services.config.databaseUrl, world.home, {
			CUPBOARD_TRUSTED_PROXIES: '127.0.0.1'
		});
		const attacker = { 'x-forwarded-for': '198.51.100.7' };
		const tries: number[] = [];
		for (let i = 0; i < 12; i++) {
			const at = i % 2 ? other : server;
			const answer = await fetch(`${at.origin}/sign-in?/password`, {
				method: 'POST',
				headers: {
					origin: at.origin,
					accept: 'application/json',
					'content-type': 'application/x-www-form-urlencoded',
					...attacker
				},
				body: 'email=rhosyn%40vennholm.example&password=wrong'
			});
			tries.push(await statusOf(answer));
		}
		await other.stop('SIGTERM');
		expect(tries.slice(0, 10).every((s) => s === 422)).toBe(true);
		expect(tries.slice(10)).toEqual([429, 429]);
		const owner = await signIn('rhosyn@vennholm.example', 'another four words here', {
			'x-forwarded-for': '203.0.113.5'
		});
		expect(cookieOf(owner)).toContain('session_token');
		for (let i = 0; i < 15; i++)
			expect(cookieOf(await signIn('oke@vennholm.example', 'four words of the tide'))).toContain(
				'session_token'
			);
	});

	it('slows down the guessing of passes and of their endings', async () => {
		const guess = { 'x-forwarded-for': '198.51.100.9' };
		const statuses = new Set<number>();
		for (let i = 0; i < 70; i++)
			statuses.add((await fetch(`${server.origin}/pass/linkspan-drawings-${i}`, { headers: guess })).status);
		expect(statuses).toEqual(new Set([404, 429]));
		expect((await fetch(server.origin + pass)).status).toBe(200);
	});
});

describe('programs', () => {
	it('come in by an invitation without what only browsers say; pages of others do not', async () => {
		const email = 'robot@vennholm.example';
		await world.act('ines', addPerson, { project: 'VFT', name: 'A. Robot', email, department: null });
		const [sent] = await world.db.select().from(mail).where(eq(mail.toAddress, email));
		const secret = /\/invited\/(\S+)/.exec(sent!.body)![1]!;
		const accept = (headers: Record<string, string>, by = secret) =>
			fetch(`${server.origin}/api/v1/invitations/${by}`, {
				method: 'POST',
				headers: { 'content-type': 'application/json', ...headers },
				body: JSON.stringify({ password: 'slack water under the quay' })
			});
		for (const headers of [
			{ origin: 'http://evil.example' },
			{ 'sec-fetch-site': 'cross-site' },
			{ cookie: 'cupboard.session_token=x' }
		] as Record<string, string>[])
			expect((await accept(headers)).status, JSON.stringify(headers)).toBe(403);
		expect((await accept({}, 'x'.repeat(30))).status).toBe(404);
		expect(await (await accept({})).json()).toMatchObject({ email });
		expect(cookieOf(await signIn(email, 'slack water under the quay'))).toContain('session_token');
	});

	it('take several documents as a zip with a token', async () => {
		const { id } = await world.add('oke', 'for the zip');
		const zip = (documents: unknown) =>
			fetch(`${server.origin}/api/v1/zip/VFT`, {
				method: 'POST',
				headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
				body: JSON.stringify({ documents })
			});
		const answer = await zip([id]);
		expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/zip']);
		const files = Object.values(unzipSync(new Uint8Array(await answer.arrayBuffer())));
		expect(files.map((one) => new TextDecoder().decode(one))).toEqual(['for the zip']);
		expect((await zip('all')).status).toBe(422);
	});
});

describe('lines that stay open', () => {
	const line = async (secret: string) => {
		const response = await fetch(`${server.origin}/api/v1/live?project=VFT`, {
			headers: { authorization: `Bearer ${secret}` }
		});
		return { response, reader: response.body!.getReader() };
	};

	it('are bounded for one person', async () => {
		const secret = (await world.act('edda', makeToken, { name: 'lines' })).secret;
		const lines = await Promise.all(Array.from({ length: 45 }, () => line(secret)));
		expect(lines.filter((l) => l.response.status === 200)).toHaveLength(40);
		expect(lines.filter((l) => l.response.status === 429)).toHaveLength(5);
		await Promise.all(lines.map((l) => l.reader.cancel()));
		await expect.poll(async () => (await line(secret)).response.status).toBe(200);
	});

	it('end with the session or token they were opened with', async () => {
		const made = await world.act('rhosyn', makeToken, { name: 'short' });
		const { reader } = await line(made.secret);
		await reader.read();
		await world.act('rhosyn', withdrawToken, { token: made.id });
		const ended = (async () => {
			for (let next = await reader.read(); !next.done; next = await reader.read());
			return true;
		})();
		expect(await Promise.race([ended, new Promise((done) => setTimeout(() => done(false), 5_000))])).toBe(
			true
		);
	});
});

describe('when something is missing', () => {
	it('memory: those who are not signed in are asked to come later, the others go on', async () => {
		const full = await ServerProcess.on(world.services.config.databaseUrl, world.home, {
			CUPBOARD_MEMORY_MARK: '60'
		}).catch(() => null);
		expect(full).not.toBeNull();
		const anonymous = await fetch(`${full!.origin}/sign-in`);
		expect([anonymous.status, anonymous.headers.get('retry-after')]).toEqual([503, '10']);
		await full!.stop('SIGKILL');
	});

	it('the database: a page says so, and everything comes back by itself', async () => {
		const real = new URL(world.services.config.databaseUrl);
		const sockets = new Set<Socket>();
		const target = Number(real.port);
		const proxy: Server = createServer((from) => {
			const to = connect(target, '127.0.0.1');
			for (const one of [from, to]) {
				sockets.add(one);
				one.on('error', () => {});
				one.on('close', () => [from, to].forEach((s) => s.destroy()));
			}
			from.pipe(to).pipe(from);
		});
		const port = await new Promise<number>((done) =>
			proxy.listen(0, '127.0.0.1', () => done((proxy.address() as { port: number }).port))
		);
		real.port = String(port);
		const one = await ServerProcess.on(real.toString(), world.home);
		const get = (path: string, accept: string) =>
			fetch(one.origin + path, { headers: { authorization: `Bearer ${token}`, accept } });
		expect((await get('/vft/shelves', 'text/html')).status).toBe(200);
		await new Promise((done) => {
			proxy.close(done);
			for (const socket of sockets) socket.destroy();
		});
		const page = await get('/vft/shelves', 'text/html');
		expect(page.status).toBe(503);
		expect(await page.text()).toContain('http-equiv="refresh"');
		const api = await get('/api/v1/projects', 'application/json');
		expect(api.status).toBe(503);
		expect(await api.json()).toMatchObject({ code: 'busy', away: true });
		await new Promise<void>((done) => proxy.listen(port, '127.0.0.1', () => done()));
		await expect
			.poll(async () => (await get('/vft/shelves', 'text/html')).status, { timeout: 20_000 })
			.toBe(200);
		expect(one.alive).toBe(true);
		await one.stop('SIGTERM');
		for (const socket of sockets) socket.destroy();
		await new Promise((done) => proxy.close(done));
	});

	it('room on the disk: a resumable upload says so with 507 and keeps what came', async () => {
		const { execFileSync } = await import('node:child_process');
		if (process.getuid?.() !== 0) return;
		const home = `${world.home}-full`;
		execFileSync('mkdir', ['-p', `${home}/uploads`]);
		try {
			execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=300k', 'tmpfs', `${home}/uploads`], {
				stdio: 'ignore'
			});
		} catch {
			// A machine that lets nobody mount has its full disk tried elsewhere (tests of the store).
			return;
		}
		const one = await ServerProcess.on(world.services.config.databaseUrl, home);
		const base64 = (text: string) => Buffer.from(text).toString('base64');
		const begun = await fetch(`${one.origin}/api/v1/uploads/resumable`, {
			method: 'POST',
			headers: {
				authorization: `Bearer ${(await world.act('petra', makeToken, { name: 'f' })).secret}`,
				'tus-resumable': '1.0.0',
				'upload-length': '1000000',
				'upload-metadata': `project ${base64('VFT')},name ${base64('x.bin')}`,
				'content-type': 'application/offset+octet-stream'
			},
			body: randomBytes(1_000_000)
		});
		const said = await begun.text();
		await one.stop('SIGTERM');
		execFileSync('umount', [`${home}/uploads`]);
		expect([begun.status, said]).toEqual([507, expect.stringContaining('disk of the server is full')]);
	});
});

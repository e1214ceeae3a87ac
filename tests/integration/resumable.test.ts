import { createHash, randomBytes } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import http from 'node:http';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeToken } from '../../src/lib/server/people/acts-account';
import { upload } from '../../src/lib/server/platform/db/schema';
import { ServerProcess } from './server';
import { TestWorld } from './world';

let world: TestWorld;
let server: ServerProcess;
const tokens: Record<string, string> = {};

beforeAll(async () => {
	world = await TestWorld.open();
	for (const who of ['oke', 'petra']) tokens[who] = (await world.act(who, makeToken, { name: 'tus' })).secret;
	server = await ServerProcess.on(world.services.config.databaseUrl, world.home);
});
afterAll(async () => {
	await server.stop('SIGKILL');
	await world.close();
});

const base64 = (text: string) => Buffer.from(text).toString('base64');
const speak = (
	who: string,
	method: string,
	path: string,
	headers: Record<string, string> = {},
	body?: Uint8Array
) =>
	fetch(`${server.origin}/api/v1/uploads/resumable${path}`, {
		method,
		headers: { authorization: `Bearer ${tokens[who]}`, 'tus-resumable': '1.0.0', ...headers },
		...(body ? { body: body as BodyInit } : {})
	});
async function begin(who: string, size: number, name = 'model.ifc', project = 'VFT') {
	const response = await speak(who, 'POST', '', {
		'upload-length': String(size),
		'upload-metadata': `project ${base64(project)},name ${base64(name)}`
	});
	return { response, id: response.headers.get('location')?.split('/').at(-1) ?? '' };
}
const offset = async (who: string, id: string) =>
	Number((await speak(who, 'HEAD', `/${id}`)).headers.get('upload-offset'));
const PATCH = { 'content-type': 'application/offset+octet-stream' };

/** Sends from an offset and breaks the line, or kills the server, after so many bytes. */
function sendPart(
	id: string,
	bytes: Uint8Array,
	from: number,
	stopAfter: number,
	broken: () => Promise<void>
) {
	return new Promise<void>((done) => {
		const request = http.request(`${server.origin}/api/v1/uploads/resumable/${id}`, {
			method: 'PATCH',
			headers: {
				authorization: `Bearer ${tokens.oke}`,
				'tus-resumable': '1.0.0',
				'upload-offset': String(from),
				'content-length': bytes.length - from,
				...PATCH
			}
		});
		request.on('error', () => {});
		request.on('response', (response) => response.resume());
		request.write(bytes.subarray(from, from + stopAfter), () => {
			setTimeout(() => {
				void broken().then(() => {
					request.destroy();
					done();
				});
			}, 30);
		});
	});
}

describe('resumable upload', () => {
	it('arrives with the right hash though line and server break off in turn', async () => {
		const bytes = randomBytes(30 * 1024 * 1024);
		const { id } = await begin('oke', bytes.length);
		for (let round = 0; round < 6; round++) {
			const from = await offset('oke', id);
			if (from === bytes.length) break;
			await sendPart(id, bytes, from, 4_321_987, async () => {
				if (round % 2) await server.stop('SIGKILL');
			});
			if (!server.alive) await server.start();
		}
		const from = await offset('oke', id);
		expect(from).toBeGreaterThan(4_000_000);
		const last = await speak(
			'oke',
			'PATCH',
			`/${id}`,
			{ ...PATCH, 'upload-offset': String(from) },
			bytes.subarray(from)
		);
		expect(last.status).toBe(200);
		const hash = createHash('sha256').update(bytes).digest('hex');
		expect(await last.json()).toMatchObject({ upload: id, hash, size: bytes.length });
		expect(await world.services.store.holds(hash)).toBe(true);
		const made = await server.call(tokens.oke!, 'POST', `/places/${world.folder}/documents`, {
			upload: id,
			number: 'VFT-MW-LS-00-DR-7001',
			title: 'Model'
		});
		expect(made.status).toBe(200);
		// The receipt can be asked for again, by its sender only.
		expect(await offset('oke', id)).toBe(bytes.length);
		expect(await (await speak('oke', 'POST', `/${id}`)).json()).toMatchObject({ hash });
		expect((await speak('petra', 'POST', `/${id}`)).status).toBe(404);
	});

	it('takes a small file with the request that begins it', async () => {
		const bytes = randomBytes(5_000);
		const response = await speak(
			'oke',
			'POST',
			'',
			{
				...PATCH,
				'upload-length': String(bytes.length),
				'upload-metadata': `project ${base64('VFT')},name ${base64('a.txt')}`
			},
			bytes
		);
		expect(response.ok).toBe(true);
		expect(response.headers.get('upload-offset')).toBe(String(bytes.length));
		const id = response.headers.get('location')!.split('/').at(-1)!;
		const hash = createHash('sha256').update(bytes).digest('hex');
		expect(await (await speak('oke', 'POST', `/${id}`)).json()).toMatchObject({ hash });
		// Of what arrived nothing is left there, for whoever begins the next looks through it.
		expect((await readdir(`${world.home}/uploads`)).filter((name) => name.startsWith(id))).toEqual([]);
	});

	it.each([
		['how far it came', 'HEAD'],
		['for its receipt', 'POST']
	])('is finished by asking %s, when the server died just after the last byte', async (_, method) => {
		const bytes = randomBytes(100_000);
		const { id } = await begin('oke', bytes.length);
		// Whole on disk, but never noted: as a crash between the two leaves it.
		const { appendFile } = await import('node:fs/promises');
		await appendFile(`${world.home}/uploads/${id}`, bytes);
		const asked = await speak('oke', method, `/${id}`);
		expect(asked.ok).toBe(true);
		const [noted] = await world.db.select().from(upload).where(eq(upload.id, id));
		expect(noted?.fileName).toBe('model.ifc');
		const hash = createHash('sha256').update(bytes).digest('hex');
		expect(await (await speak('oke', 'POST', `/${id}`)).json()).toMatchObject({ hash, upload: id });
	});

	it('belongs to whoever began it, and can be read by nobody', async () => {
		const { id } = await begin('oke', 10);
		expect((await speak('petra', 'HEAD', `/${id}`)).status).toBe(404);
		const patch = { ...PATCH, 'upload-offset': '0' };
		expect((await speak('petra', 'PATCH', `/${id}`, patch, randomBytes(10))).status).toBe(404);
		expect((await speak('petra', 'DELETE', `/${id}`)).status).toBe(404);
		for (const who of ['oke', 'petra'])
			expect(
				(
					await fetch(`${server.origin}/api/v1/uploads/resumable/${id}`, {
						headers: { authorization: `Bearer ${tokens[who]}` }
					})
				).status
			).toBe(405);
		expect((await speak('oke', 'DELETE', `/${id}`)).status).toBe(204);
		expect((await speak('oke', 'HEAD', `/${id}`)).status).toBe(404);
		expect((await speak('oke', 'HEAD', '/../../etc')).status).toBeGreaterThanOrEqual(400);
	});

	it('refuses what is too large, has a bad name, goes to another project, or is asked by nobody', async () => {
		expect((await begin('oke', 1e15)).response.status).toBe(413);
		expect((await begin('oke', 10, '..')).response.status).toBe(422);
		expect((await begin('oke', 10, 'a.txt', 'NONE')).response.status).toBe(404);
		tokens.nobody = 'no-such-token';
		expect((await begin('nobody', 10)).response.status).toBe(401);
		const { id } = await begin('oke', 10);
		expect((await speak('oke', 'POST', `/${id}`)).status).toBe(422);
		const wrong = await speak('oke', 'PATCH', `/${id}`, { ...PATCH, 'upload-offset': '5' }, randomBytes(5));
		expect(wrong.status).toBe(409);
	});
});

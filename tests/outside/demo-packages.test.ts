/** The packages of the demo world’s releases, taken by the controller through the application as it runs. */
import {
	appendFileSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { request, type APIRequestContext } from '@playwright/test';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addressOf, type AnswerOf } from '../../src/lib/client/cupboard';
import makeWorld from '../browser/global-setup';
import { folder as homeOf, serve, TEMPLATE, type Session } from '../browser/template';
import type { ServerProcess } from '../integration/server';
import { hashed, notes, proved, run, signed } from './proving';

let server: ServerProcess;
let ines: APIRequestContext;
let where: string;
let releases: AnswerOf<'releases'>['releases'];
beforeAll(async () => {
	where = mkdtempSync(join(tmpdir(), 'cupboard-packages-'));
	await makeWorld();
	server = await serve(TEMPLATE, homeOf(TEMPLATE));
	const sessions = JSON.parse(readFileSync(homeOf('sessions.json'), 'utf8')) as Record<string, Session>;
	ines = await request.newContext({ baseURL: server.origin, storageState: sessions.ines! });
	const answer = await ines.get('/api/v1/projects/VFT/releases');
	({ releases } = (await answer.json()) as AnswerOf<'releases'>);
}, 900_000);
afterAll(async () => {
	await ines?.dispose();
	await server?.stop('SIGTERM');
	rmSync(where, { recursive: true, force: true });
});

/** Takes the package of a release and unpacks it. */
async function taken(release: string): Promise<string> {
	const answer = await ines.get(addressOf('releasePackageFile', { release }));
	expect(answer.status()).toBe(200);
	const zip = join(where, `${release}.zip`);
	writeFileSync(zip, await answer.body());
	mkdirSync(join(where, release));
	expect(run(where, '/usr/bin/python3', '-m', 'zipfile', '-e', zip, release)).toEqual({
		status: 0,
		said: ''
	});
	rmSync(zip);
	return join(where, release);
}

describe('every release of the demo world that is out', () => {
	it('has a package that standard programs prove, with cover notes whose signatures are whole', async () => {
		const out = releases.filter((one) => one.state === 'issued' || one.state === 'superseded');
		expect(out.length).toBeGreaterThan(5);
		for (const { id, number } of out) {
			const folder = await taken(id);
			expect(hashed(folder), `release ${number}`).toEqual([
				{ status: 0, said: '' },
				{ status: 0, said: '' }
			]);
			expect(signed(folder), `release ${number}`).toMatchObject({ status: 0 });
			expect(proved(folder), `release ${number}`).toMatchObject({ status: 0 });
			const said = notes(folder);
			expect(said.length, `release ${number}`).toBeGreaterThan(0);
			for (const note of said)
				expect(note, `release ${number}`).toEqual({
					status: 0,
					said: expect.stringMatching(/Total document signed[^]*Signature is Valid/)
				});
			const documents = join(folder, 'data/documents');
			const [first] = readdirSync(documents).sort();
			appendFileSync(join(documents, first!), '.');
			expect(proved(folder), `release ${number}`).toEqual({
				status: 1,
				said: expect.stringContaining(`changed: data/documents/${first}`)
			});
		}
	});
});

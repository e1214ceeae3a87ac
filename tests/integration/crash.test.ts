import { oneStep } from '../../src/lib/core/releases/route';
import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeToken } from '../../src/lib/server/people/acts-account';
import { documentsIn } from '../../src/lib/server/places/views';
import { documentView } from '../../src/lib/server/documents/views';
import { releaseView } from '../../src/lib/server/releases/views';
import { seeded } from '../seeded';
import { ServerProcess } from './server';
import { TestWorld } from './world';

const KILLS = 10;
/** Answers after which a server is killed at the latest; a document goes the whole way to its issue with nine. */
const LONGEST_LIFE = 28;

/** A promise that is kept after so many answers. */
function lifeOf(answers: number): { ended: Promise<void>; answered: () => void } {
	let over = () => {};
	const ended = new Promise<void>((done) => (over = done));
	let left = answers;
	return { ended, answered: () => --left <= 0 && over() };
}

let world: TestWorld;
let server: ServerProcess;
const tokens: Record<string, string> = {};

beforeAll(async () => {
	world = await TestWorld.open();
	for (const who of ['oke', 'ines', 'halla'])
		tokens[who] = (await world.act(who, makeToken, { name: 'crash' })).secret;
	server = await ServerProcess.on(world.services.config.databaseUrl, world.home);
});
afterAll(async () => {
	await server.stop('SIGKILL');
	await world.close();
});

describe('kill -9 at random moments of adding, handing in and issuing', () => {
	it('leaves whole acts or nothing, the chain intact, and no bytes lost', async () => {
		/** What was answered with success, by number: the hashes that must still be there. */
		const confirmed = new Map<string, string[]>();
		const issued: number[] = [];
		const chance = seeded('the moments of the kills');
		let serial = 0;
		for (let round = 0; round < KILLS; round++) {
			// The first request after a start loads code; the kill should meet work.
			await server.call(tokens.oke!, 'GET', '/projects');
			let dead = false;
			// A life is counted in answers, so that a slow machine gets as far as a quick one.
			const { ended, answered } = lifeOf(1 + Math.floor(chance() * LONGEST_LIFE));
			const call: ServerProcess['call'] = async (...request) => {
				const answer = await server.call(...request);
				answered();
				return answer;
			};
			const work = async () => {
				while (!dead) {
					const number = `VFT-MW-LS-00-DR-${String(++serial).padStart(4, '0')}`;
					const bytes = (version: number) =>
						new TextEncoder().encode(`${number} ${version} ${'x'.repeat(200_000)}`);
					const hash = (version: number) => createHash('sha256').update(bytes(version)).digest('hex');
					const add = await call(tokens.oke!, 'POST', `/places/${world.folder}/documents`, {
						upload: await server.send(tokens.oke!, 'a.txt', bytes(1)),
						number,
						title: number
					});
					if (add.status !== 200) continue;
					confirmed.set(number, [hash(1)]);
					await call(tokens.oke!, 'POST', `/documents/${add.body.id}/lock`, { purpose: 'crash' });
					const handed = await call(tokens.oke!, 'POST', `/documents/${add.body.id}/versions`, {
						upload: await server.send(tokens.oke!, 'a.txt', bytes(2)),
						note: 'second'
					});
					if (handed.status === 200) confirmed.get(number)!.push(hash(2));
					const made = await call(tokens.ines!, 'POST', '/projects/VFT/releases', {
						title: number,
						purpose: 'approval',
						recipients: [{ recipient: world.recipient }],
						route: oneStep(world.people.halla!.person.id),
						documents: [add.body.id]
					});
					await call(tokens.ines!, 'POST', `/releases/${made.body.id}/ask`, {});
					const seen = await call(tokens.halla!, 'GET', `/projects/VFT/releases/${made.body.number}`);
					const { digest } = seen.body as { digest?: string };
					await call(tokens.halla!, 'POST', `/releases/${made.body.id}/approval`, { digest });
					const done = await call(tokens.ines!, 'POST', `/releases/${made.body.id}/issue`, {
						number: made.body.number
					});
					if (done.status === 200) issued.push(Number(made.body.number));
				}
			};
			const working = [work(), work()].map((w) => w.catch(() => {}));
			await ended;
			// Somewhere in what was asked next.
			await new Promise((next) => setTimeout(next, chance() * 60));
			dead = true;
			await server.stop('SIGKILL');
			await Promise.all(working);
			await server.start();
		}
		const verified = await world.verify();
		expect(verified.fault).toBeNull();
		expect(confirmed.size).toBeGreaterThan(5);
		const { rows } = await world.read('ines', documentsIn, { place: world.folder, limit: 5_000 });
		for (const [number, hashes] of confirmed) {
			const row = rows.find((r) => r.number === number);
			expect(row, number).toBeDefined();
			const { versions } = await world.read('ines', documentView, { document: row!.id });
			for (const hash of hashes) expect(versions.map((v) => v.hash)).toContain(hash);
		}
		expect(issued.length).toBeGreaterThan(0);
		for (const number of issued) {
			const view = await world.read('ines', releaseView, { project: 'VFT', number });
			expect(view.release.state).toBe('issued');
			expect(view.items[0]).toMatchObject({ label: 'P01' });
			expect(view.recipients).toMatchObject([{ pass: { open: true } }]);
		}
		// Whatever was cut off: a release is issued with its pass and manifest, or not at all.
		const torn = await world.services.database
			.client`select 1 from release r where (state = 'issued') <> (manifest is not null) or (state = 'issued') <> exists (select 1 from pass p where p.release_id = r.id)`;
		expect(torn).toHaveLength(0);
	});
});

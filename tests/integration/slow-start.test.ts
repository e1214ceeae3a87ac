import { connect, createServer, type Server } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ServerProcess } from './server';
import { TestWorld } from './world';

/** Connections that break off before the database is there. */
const BROKEN = 3;

let world: TestWorld;
let front: Server;
let server: ServerProcess | null = null;
let refused = 0;
beforeAll(async () => {
	world = await TestWorld.open();
	const database = new URL(world.config.databaseUrl);
	front = createServer((socket) => {
		if (refused < BROKEN) {
			refused++;
			socket.destroy();
			return;
		}
		const through = connect(Number(database.port), database.hostname);
		socket.pipe(through).pipe(socket);
		socket.on('error', () => through.destroy());
		through.on('error', () => socket.destroy());
	});
	await new Promise<void>((open) => front.listen(0, '127.0.0.1', open));
});
afterAll(async () => {
	await server?.stop('SIGTERM');
	front.close();
	await world.close();
});

it('a server that starts before its database is there waits for it', async () => {
	const url = new URL(world.config.databaseUrl);
	url.port = String((front.address() as { port: number }).port);
	server = await ServerProcess.on(url.href, world.home);
	expect(refused).toBe(BROKEN);
	expect((await fetch(`${server.origin}/sign-in`)).status).toBe(200);
});

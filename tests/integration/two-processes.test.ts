import { spawn, type ChildProcess } from 'node:child_process';
import { connect, createServer } from 'node:net';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { columnSchema } from '../../src/lib/core/schedule/column';
import { addRows, readSchedule, setCells } from '../../src/lib/core/schedule/shared';
import { endAccess, letIn } from '../../src/lib/server/access/acts';
import { addLiveSchedule } from '../../src/lib/server/live/acts-schedules';
import { grant, liveUpdate } from '../../src/lib/server/platform/db/schema';
import { newId } from '../../src/lib/server/platform/ids';
import { documentView } from '../../src/lib/server/documents/views';
import { liveSchedule } from '../../src/lib/server/live/views';
import { Guest, RoomServer } from './room';
import { TestWorld } from './world';

let redis: ChildProcess;
let world: TestWorld;
let first: RoomServer;
let second: RoomServer;

/** Somebody with the schedule open in a browser. */
class Clerk extends Guest {
	get marks(): unknown[] {
		const { columns, rows } = readSchedule(this.doc);
		return rows.map((r) => r.cells[columns[0]!.id]);
	}
	override says(): string {
		return JSON.stringify(this.marks);
	}
	add(mark: string): void {
		const { columns, rows } = readSchedule(this.doc);
		addRows(this.doc, rows, rows.length, [{ [columns[0]!.id]: mark }], newId);
	}
}

async function startRedis(): Promise<string> {
	const port = await new Promise<number>((done) => {
		const probe = createServer().listen(0, '127.0.0.1', () => {
			const { port } = probe.address() as { port: number };
			probe.close(() => done(port));
		});
	});
	const args = ['--port', String(port), '--bind', '127.0.0.1', '--save', '', '--appendonly', 'no'];
	redis = spawn(process.env.REDIS_SERVER ?? '/usr/bin/redis-server', args, { stdio: 'ignore' });
	for (let i = 0; i < 100; i++) {
		const open = await new Promise<boolean>((done) => {
			const socket = connect(port, '127.0.0.1', () => (socket.destroy(), done(true)));
			socket.on('error', () => done(false));
		});
		if (open) return `redis://127.0.0.1:${port}`;
		await new Promise((done) => setTimeout(done, 50));
	}
	throw new Error('Redis did not start.');
}

beforeAll(async () => {
	world = await TestWorld.open({ redisUrl: await startRedis() });
	const services = await world.beside();
	first = await RoomServer.start(world);
	second = await RoomServer.start({ services, people: world.people });
});
afterAll(async () => {
	first.close();
	second.close();
	await world.close();
	redis.kill();
});

let serial = 0;
async function begin(): Promise<{ id: string; room: string }> {
	const { id } = await world.act('oke', addLiveSchedule, {
		folder: world.folder,
		number: `VFT-MW-LS-00-SH-${String(++serial).padStart(4, '0')}`,
		title: 'Piles',
		schedule: { columns: [columnSchema.parse({ name: 'Pile' })], rows: [['P-01']] }
	});
	return { id, room: (await world.read('oke', documentView, { document: id })).room!.name };
}

describe('two processes on one database', () => {
	it('carry what is done in one to the other, and store it once', async () => {
		const { id, room } = await begin();
		const [oke, rhosyn] = [await first.enter(Clerk, 'oke', room), await second.enter(Clerk, 'rhosyn', room)];
		for (const one of [oke, rhosyn]) await one.until(() => one.marks.length === 1);
		oke.add('P-02');
		await rhosyn.until(() => rhosyn.marks.includes('P-02'));
		rhosyn.add('P-03');
		await oke.until(() => oke.marks.includes('P-03'));
		const { columns, rows } = readSchedule(oke.doc);
		setCells(oke.doc, [{ row: rows[0]!.id, column: columns[0]!.id, value: 'P-01a' }]);
		await rhosyn.until(() => rhosyn.marks.includes('P-01a'));
		expect(readSchedule(oke.doc)).toEqual(readSchedule(rhosyn.doc));
		await Promise.all([first, second].map((server) => server.world.services.rooms.record.flushAll()));
		const stored = await world.db.select().from(liveUpdate).where(eq(liveUpdate.room, room));
		// Each change by who made it, in the process that received it.
		expect(stored.map((u) => u.personId).sort()).toEqual(
			[world.people.oke, world.people.oke, world.people.rhosyn].map((p) => p!.person.id).sort()
		);
		expect((await world.read('oke', liveSchedule, { document: id })).rows).toHaveLength(3);
	});

	it('access that ends in one ends connections in the other within a second', async () => {
		const { room } = await begin();
		const halla = world.people.halla!.person.id;
		await world.act('oke', letIn, {
			place: world.folder,
			lines: [{ subject: { kind: 'person', id: halla }, level: 'work' }]
		});
		const guest = await second.enter(Clerk, 'halla', room);
		await guest.until(() => guest.marks.length === 1);
		const [row] = await world.db
			.select({ id: grant.id })
			.from(grant)
			.where(and(eq(grant.placeId, world.folder), eq(grant.subjectId, halla)));
		await world.act('oke', endAccess, { place: world.folder, grant: row!.id });
		await guest.until(() => guest.closes.length > 0);
		guest.add('after the end');
		// What another writes there later comes through; what the guest wrote before did not.
		const [rhosyn, oke] = [await second.enter(Clerk, 'rhosyn', room), await first.enter(Clerk, 'oke', room)];
		await rhosyn.until(() => rhosyn.marks.length > 0);
		rhosyn.add('P-02');
		await oke.until(() => oke.marks.includes('P-02'));
		expect(oke.marks).toEqual(['P-01', 'P-02']);
	});
});

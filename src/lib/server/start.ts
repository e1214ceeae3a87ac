import { join } from 'node:path';
import pino from 'pino';
import { Problem } from '../core/problem';
import { readConfig, type Config } from './config';
import { openDatabase } from './db';
import { Inspector } from './formats/inspector';
import { handlers } from './jobs/handlers';
import { Jobs } from './jobs/jobs';
import { readView } from './acts/run';
import { trustedProxies } from './http/address';
import { Live } from './live';
import { startDemoMail } from './mail/demo-server';
import { Mailer } from './mail/send';
import { projectsWhereAccessEnded } from './access';
import { nameOf } from './rooms/names';
import { tellWriting } from './rooms/writing';
import { Rooms } from './rooms/rooms';
import type { Services } from './services';
import { keepPrivate } from './privacy';
import { LocalStore } from './store/local';
import { liveRoom } from './views/live';
import { markRoom } from './views/marks';

/** Logs never hold passwords, secrets or cookies: only what is named here is written. */
export const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' });

/**
 * Starts the parts of a running Cupboard.
 * @param work whether this process also does the jobs and sends the mail
 */
export async function startServices(given: Config = readConfig(), { work = true } = {}): Promise<Services> {
	const config = { ...given };
	keepPrivate(config);
	const database = openDatabase(config.databaseUrl);
	const store = await LocalStore.open(config.store);
	const inspector = new Inspector(store, join(config.store, 'previews'), config.workerFile);
	const jobs = new Jobs(config.databaseUrl, log);
	const live = new Live(database, log);
	const rooms = new Rooms(
		database,
		config.origin,
		config.redisUrl,
		log,
		trustedProxies(config.trustedProxies)
	);
	await jobs.open();
	await live.open();
	const closing: (() => Promise<void> | void)[] = [];
	const services: Services = {
		config,
		database,
		store,
		inspector,
		jobs,
		live,
		rooms,
		async close() {
			await rooms.close();
			await live.close();
			await jobs.close();
			for (const close of closing) await close();
			await inspector.close();
			await database.close();
		}
	};
	rooms.admit = async (actor, room) => {
		if (room.kind === 'marks') {
			const { document, label } = room;
			return readView(services, markRoom, actor, { document, label });
		}
		const found = await readView(services, liveRoom, actor, { document: room.document });
		if (found.room !== nameOf(room)) throw new Problem('not-found', 'There is no such room any more.');
		return found;
	};
	rooms.onWriting = (room, projectId, personId) => tellWriting(database, room, projectId, personId);
	rooms.ranOut = (from, to) => projectsWhereAccessEnded(database.db, from, to);
	live.onEvents((projectId) => rooms.stir(projectId));
	if (work) {
		await store.cleanLeftovers();
		if (config.demo && !config.smtpUrl) {
			const demoMail = await startDemoMail(config.home, database);
			config.smtpUrl = demoMail.url;
			closing.push(demoMail.close);
		}
		const mailer = new Mailer(config, database);
		closing.push(() => mailer.close());
		await jobs.work(handlers(services, mailer));
		await jobs.enqueue(database.db, 'sign-heads', {});
	}
	return services;
}

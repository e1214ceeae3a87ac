import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { Problem } from '../../core/acts/problem';
import { signingCertificate } from '../platform/certificate';
import { readConfig, type Config } from '../platform/config';
import { openDatabase } from '../platform/db';
import { onceThere } from '../platform/db/waiting';
import { Inspector } from '../formats/inspector';
import { openPools, type Pools } from '../formats/pool';
import { handlers } from './jobs';
import { Jobs } from '../platform/jobs/jobs';
import { readView } from '../platform/runner/run';
import { Bodies } from '../platform/http/bodies';
import { trustedProxies } from '../platform/http/address';
import { Live } from '../trail/following';
import { Mailer } from '../platform/mail/send';
import { projectsWhereAccessEnded } from '../access/reach';
import { nameOf } from '../live/rooms/names';
import { tellWriting } from '../live/rooms/writing';
import { Rooms } from '../live/rooms/rooms';
import { log } from '../platform/log';
import type { Services } from '../platform/services';
import { keepPrivate } from '../platform/privacy';
import { LocalStore } from '../platform/store/local';
import { liveRoom } from '../live/views';
import { markRoom } from '../marks/views';

/**
 * Starts the parts of a running Cupboard.
 * @param work whether this process also does the jobs and sends the mail
 * @param pools where files are opened, if that is shared with others, who end it
 */
export async function startServices(
	given: Config = readConfig(),
	{ work = true, pools }: { work?: boolean; pools?: Pools } = {}
): Promise<Services> {
	const config = { ...given };
	keepPrivate(config);
	// One that was set and cannot sign is said now, and not when the first release is issued.
	if (config.certificate) await signingCertificate(config);
	const database = openDatabase(config.databaseUrl);
	const store = await LocalStore.open(config.store);
	const opening = pools ?? openPools(config.workerFile);
	const inspector = new Inspector(store, join(config.store, 'previews'), opening);
	const jobs = new Jobs(config.databaseUrl, log);
	const live = new Live(database, log);
	const rooms = new Rooms(
		database,
		config.origin,
		config.redisUrl ? [(await import('../live/rooms/between')).betweenProcesses(config.redisUrl)] : [],
		log,
		trustedProxies(config.trustedProxies)
	);
	await onceThere(() => database.db.execute(sql`select 1`));
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
		bodies: new Bodies(),
		async close() {
			await rooms.close();
			await live.close();
			await jobs.close();
			for (const close of closing) await close();
			if (!pools) await opening.close();
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
	rooms.expired = (from, to) => projectsWhereAccessEnded(database.db, from, to);
	live.onEvents((projectId) => rooms.recheckProject(projectId));
	if (work) {
		await store.cleanLeftovers();
		if (config.demo && !config.smtpUrl) {
			const { startDemoMail } = await import('../platform/mail/demo-server');
			const demoMail = await startDemoMail(config.home, database);
			config.smtpUrl = demoMail.url;
			closing.push(demoMail.close);
		}
		const mailer = new Mailer(config, database, services.store);
		closing.push(() => mailer.close());
		await jobs.work(handlers(services, mailer), database.client);
		await jobs.enqueue(database.db, 'sign-heads', {});
	}
	return services;
}

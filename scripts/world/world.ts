import { count, eq, sql } from 'drizzle-orm';
import type { Config } from '../../src/lib/server/platform/config';
import { document, mail, version } from '../../src/lib/server/platform/db/schema';
import { startServices } from '../../src/lib/server/api/start';
import { Stage } from './stage';
import { found } from './founding';
import { plan } from './history';
import { makeAhead } from './works';

/**
 * Makes the demo's project, Vennholm Ferry Terminal, through the same acts as everybody uses, at times that run
 * over the nine weeks before now. The same code makes the same world; only the days move along with the calendar.
 */
export async function makeWorld(config: Config): Promise<void> {
	const services = await startServices(config, { work: false });
	const { db } = services.database;
	// The world can be made again, so it does not wait for the disk at every act.
	await db.execute(
		sql`alter database ${sql.raw(new URL(config.databaseUrl).pathname.slice(1))} set synchronous_commit = off`
	);
	// Previews of versions that nobody will look at first are made when asked for; see the end.
	const enqueue = services.jobs.enqueue.bind(services.jobs);
	services.jobs.enqueue = async (tx, name, data) => {
		if (name !== 'read-content') await enqueue(tx, name, data);
	};
	const world = new Stage(services);
	await make(world);
	for (const { hash } of await db
		.selectDistinct({ hash: version.hash })
		.from(version)
		.innerJoin(document, eq(document.currentVersionId, version.id))) {
		await db.transaction((tx) => enqueue(tx, 'read-content', { hash }));
	}
	await db.execute(
		sql`alter database ${sql.raw(new URL(config.databaseUrl).pathname.slice(1))} reset synchronous_commit`
	);
	await db.execute(sql`analyze`);
	const [docs] = await db.select({ n: count() }).from(document);
	const [versions] = await db.select({ n: count() }).from(version);
	console.log(`· the demo world is made: ${docs!.n} documents with ${versions!.n} versions`);
	await services.close();
}

/** For how many steps to come files are made ahead. */
const AHEAD = 12;

async function make(stage: Stage): Promise<void> {
	await found(stage);
	const steps = await plan(stage);
	steps.sort((a, b) => a.at - b.at);
	for (const [at, step] of steps.entries()) {
		for (const next of steps.slice(at + 1, at + 1 + AHEAD))
			if (next.makes) makeAhead(stage, next.makes, next.at);
		stage.clock = Math.max(stage.clock, Math.min(step.at, stage.end));
		await step.run();
	}
	stage.files.close();
	await tidyMail(stage);
}

/** Mail of past weeks went out then; only what is younger than a day is left to the running server. */
async function tidyMail(stage: Stage): Promise<void> {
	await stage.services.database.db
		.update(mail)
		.set({ state: 'sent', sentAt: mail.createdAt, receivedAt: mail.createdAt })
		.where(sql`true`);
	await stage.services.database.db.execute(sql`delete from pgboss.job where name = 'send-mail'`);
}

import { sql, type SQL } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import type { Sql } from 'postgres';
import type { Querier } from '../db';
import type { JobData, JobName } from './names';

export type Handlers = { [N in JobName]: (data: JobData[N]) => Promise<void> };

const OPTIONS: Record<JobName, PgBoss.SendOptions> = {
	'read-content': { retryLimit: 2, retryDelay: 5, expireInSeconds: 180 },
	'draw-preview': { retryLimit: 1, retryDelay: 30, expireInSeconds: 180 },
	'send-mail': { retryLimit: 20, retryDelay: 10, retryBackoff: true, expireInSeconds: 60 },
	'lay-drawn': { retryLimit: 20, retryDelay: 10, retryBackoff: true },
	'check-arrival': { retryLimit: 5, retryDelay: 20, expireInSeconds: 600 },
	'send-digests': { retryLimit: 2 },
	'tell-overdue': { retryLimit: 2 },
	'remind-stale-locks': { retryLimit: 2 },
	'read-missed': { retryLimit: 0, expireInSeconds: 3_000 },
	'learn-words': { retryLimit: 0, expireInSeconds: 600 },
	'clean-uploads': { retryLimit: 2 },
	'sign-heads': { retryLimit: 5, retryDelay: 30 }
};
const SCHEDULES: Partial<Record<JobName, string>> = {
	'remind-stale-locks': '0 * * * *',
	'clean-uploads': '30 * * * *',
	'read-missed': '10 * * * *',
	'learn-words': '* * * * *',
	'sign-heads': '50 23 * * *',
	'tell-overdue': '30 5 * * *',
	'send-digests': '0 6 * * *'
};

/** Where it is said that a queue has something to do, by its name. */
const CHANNEL = 'cupboard_jobs';
/** Seconds after which a queue is looked into unasked: what is tried again, and what a schedule put in, is not told of. */
const LOOK_EVERY = 4;

/** Slow work, kept in PostgreSQL until it is done. */
export class Jobs {
	private readonly boss: PgBoss;
	private readonly workers = new Map<JobName, string>();
	private listening: { unlisten: () => Promise<void> } | null = null;

	constructor(
		databaseUrl: string,
		private readonly log: Logger
	) {
		this.boss = new PgBoss({ connectionString: databaseUrl, max: 3, application_name: 'cupboard-jobs' });
		this.boss.on('error', (error) => this.log.error({ error: String(error) }, 'jobs'));
	}

	/** Opens the queue without doing any work; acts can enqueue from then on. */
	async open(): Promise<void> {
		await this.boss.start();
		for (const name of Object.keys(OPTIONS) as JobName[]) await this.boss.createQueue(name);
	}

	/**
	 * Starts doing the work: of each queue up to `atOnce` side by side, and without a pause while there is more. A job that
	 * fails is tried again by itself; those fetched with it are not done twice.
	 * @param client hears when something was put in, by whichever process
	 * @param lookEvery seconds after which each queue is looked into unasked
	 */
	async work(handlers: Handlers, client: Sql, lookEvery = LOOK_EVERY): Promise<void> {
		for (const name of Object.keys(handlers) as JobName[]) {
			const handle = handlers[name] as (data: unknown) => Promise<void>;
			const atOnce = name === 'read-content' ? 2 : 1;
			const worker = await this.boss.work(
				name,
				{ pollingIntervalSeconds: lookEvery, batchSize: atOnce },
				async (jobs) => {
					await Promise.all(
						jobs.map(({ id, data }) =>
							handle(data).catch((error) => this.boss.fail(name, id, error as object))
						)
					);
					if (jobs.length === atOnce) this.boss.notifyWorker(worker);
				}
			);
			this.workers.set(name, worker);
		}
		const look = (name: string) => {
			const worker = this.workers.get(name as JobName);
			if (worker) this.boss.notifyWorker(worker);
		};
		// A line that was broken may have missed something.
		this.listening = await client.listen(CHANNEL, look, () => [...this.workers.keys()].forEach(look));
		for (const [name, cron] of Object.entries(SCHEDULES)) await this.boss.schedule(name, cron);
	}

	/** Puts a job in the queue inside the caller's transaction: it exists only if that commits. */
	async enqueue<N extends JobName>(tx: Querier, name: N, data: JobData[N]): Promise<void> {
		await this.boss.send(name, data, {
			...OPTIONS[name],
			db: { executeSql: async (text, values) => ({ rows: await tx.execute(withValues(text, values)) }) }
		});
		await tx.execute(sql`select pg_notify(${CHANNEL}, ${name})`);
	}

	async close(): Promise<void> {
		await this.listening?.unlisten();
		await this.boss.stop({ graceful: true, wait: true, timeout: 5_000 });
	}
}

/** A statement with $1, $2 … as Drizzle's SQL, so that it runs in a Drizzle transaction. */
function withValues(text: string, values: unknown[]): SQL {
	const parts = text.split(/\$(\d+)/);
	return sql.join(
		parts.map((part, i) => (i % 2 ? sql`${asParameter(values[Number(part) - 1])}` : sql.raw(part)))
	);
}

/** The driver leaves JSON to the caller, and Drizzle leaves out what is undefined. */
function asParameter(value: unknown): unknown {
	if (value === undefined) return null;
	return typeof value === 'object' && value !== null && !(value instanceof Date)
		? JSON.stringify(value)
		: value;
}

import { setTimeout as pause } from 'node:timers/promises';
import { databaseIsAway } from '../http/away';
import { log } from '../log';

/** Seconds for which a database that is not there yet is waited for. */
const MOST = 120;

/**
 * Does what begins with the database. While that is away (it is only starting, or the machine has no time for it), it is
 * asked again each second, instead of ending a start.
 * @throws what it says when it is there and refuses, or is not there after two minutes
 */
export async function onceThere<T>(begin: () => Promise<T>): Promise<T> {
	for (let tries = 1; ; tries++)
		try {
			return await begin();
		} catch (error) {
			if (!databaseIsAway(error) || tries >= MOST) throw error;
			log.warn({ tries, error: String(error) }, 'the database is not there yet');
			await pause(1_000);
		}
}

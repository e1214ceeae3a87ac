import { sql, type Placeholder } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/postgres-js';
import type { Querier } from '.';
import * as schema from './schema';

/** What statements are written on that are asked of somebody else. */
const unasked = drizzle.mock({ schema });

/** A statement that can be prepared: any select, insert or update. */
interface Written<R> {
	prepare(name: string): { execute(values: Record<string, unknown>): Promise<R> };
}

/** What goes into a place as it is; moments and objects would need to know the column. */
type Value = string | number | boolean | null;

/**
 * A statement that nearly every request asks, written once with places for its values, and asked of whatever pool or
 * transaction it is wanted on: writing a select anew takes longer than the database takes to answer it.
 *
 * @param names what its values are called
 * @param write makes the statement, from a place for each value
 * @returns asks it with the values
 */
export function standing<const N extends string, R>(
	names: readonly N[],
	write: (db: typeof unasked, at: { [K in N]: Placeholder }) => Written<R>
): (db: Querier, values: Record<N, Value>) => Promise<R> {
	const places = Object.fromEntries(names.map((name) => [name, sql.placeholder(name as string)])) as {
		[K in N]: Placeholder;
	};
	let written: ReturnType<Written<R>['prepare']> | undefined;
	return (db, values) => {
		written ??= write(unasked, places).prepare('standing');
		// A prepared statement holds the client that it goes to, and nothing else of where it was written.
		const { client } = db._.session as unknown as { client: unknown };
		const asked = Object.create(written, { client: { value: client } }) as typeof written;
		return asked.execute(values);
	};
}

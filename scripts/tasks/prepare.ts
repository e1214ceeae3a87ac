/** Brings the database to the newest schema; makes the demo world once, or the code for the first controller. */
import { readConfig } from '../../src/lib/server/platform/config';
import { openDatabase } from '../../src/lib/server/platform/db';
import { migrateDatabase } from '../../src/lib/server/platform/db/migrate';
import { firstCode, waitsForFirst } from '../../src/lib/server/people/first';

const config = readConfig();
try {
	await migrateDatabase(config.databaseUrl);
} catch (error) {
	const { code } = error as { code?: string };
	console.error(
		code === 'ECONNREFUSED' || code === '28P01' || code === '3D000'
			? `The database at DATABASE_URL cannot be used (${(error as Error).message}). Check its address, name and password.`
			: `The database could not be brought up to date: ${(error as Error).message}`
	);
	process.exit(1);
}
const database = openDatabase(config.databaseUrl, 2);
if (process.argv.includes('--demo')) {
	if (await waitsForFirst(database)) {
		const { makeWorld } = await import('../world/world');
		await makeWorld(config);
	}
} else {
	const code = await firstCode(database);
	if (code)
		console.log(
			`\nNobody is here yet. Open ${config.origin}/first and make the first document controller with this code: ${code}`
		);
}
await database.close();

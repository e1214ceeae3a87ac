/** Checks the event chain of every project and the hash of every stored object; exit 1 at the first fault. */
import { readConfig } from '../../src/lib/server/platform/config';
import { openDatabase } from '../../src/lib/server/platform/db';
import { LocalStore } from '../../src/lib/server/platform/store/local';
import { verifyAll } from '../../src/lib/server/trail/verify';

const config = readConfig();
const database = openDatabase(config.databaseUrl, 2);
const result = await verifyAll(database, await LocalStore.open(config.store), config.home);
await database.close();
if (result.fault) {
	console.error(`Fault: ${result.fault}`);
	process.exit(1);
}
console.log(
	`${result.events} events in ${result.projects} projects follow one another and agree with ${result.heads} signed heads; versions, verdicts and ${result.releases} issued releases are as they were written down; ${result.objects} stored objects have their hash.`
);

/** The process that makes files of the demo's documents ahead of the acts that want them; one after the other. */
import { LocalStore } from '../../src/lib/server/platform/store/local';
import type { Outcome, Task } from './ahead';
import { fileOf, keep } from './files';

const store = await LocalStore.open(process.argv[2]!);
let last: Promise<unknown> = Promise.resolve();
process.on('message', ({ id, asked }: Task) => {
	last = last
		.then(async () => keep(store, await fileOf(asked)))
		.then(
			(kept): Outcome => ({ id, kept }),
			(error: unknown): Outcome => ({ id, fault: String(error) })
		)
		.then((outcome) => process.connected && process.send!(outcome));
});
process.on('disconnect', () => process.exit());

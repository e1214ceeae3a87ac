/** The process that makes files of the demo's documents ahead of the acts that want them; one after the other. */
import type { Outcome, Task } from './ahead';
import { fileOf } from './files';

let last: Promise<unknown> = Promise.resolve();
process.on('message', ({ id, asked }: Task) => {
	last = last
		.then(() => fileOf(asked))
		.then(
			(file): Outcome => ({ id, file }),
			(error: unknown): Outcome => ({ id, fault: String(error) })
		)
		.then((outcome) => process.connected && process.send!(outcome));
});
process.on('disconnect', () => process.exit());

import { spawnSync } from 'node:child_process';
import { performance } from 'node:perf_hooks';
import type { RegisterListTask } from '../src/lib/server/formats/register-list/task';
import { WorkerPool } from '../src/lib/server/formats/pool';
import type { Line } from './measure';

const TIMES = 5;
const LIST: RegisterListTask = {
	task: 'register-list',
	format: 'csv',
	about: { project: 'A project', today: '2031-03-05', narrowed: '' },
	stages: [],
	lines: [],
	curves: { days: [], planned: [], actual: [], forecast: [] }
};

async function least(act: () => unknown): Promise<number> {
	let best = Infinity;
	for (let i = 0; i < TIMES; i++) {
		const from = performance.now();
		await act();
		best = Math.min(best, performance.now() - from);
	}
	return best;
}

/** How long somebody waits for an answer of a format worker that has to be started for it. */
export async function coldWorkers(): Promise<Line[]> {
	const bare = await least(() => spawnSync(process.execPath, ['--eval', '0'], { env: {} }));
	const cold = await least(async () => {
		const pool = new WorkerPool('build/worker/worker.js');
		await pool.run(LIST);
		await pool.close();
	});
	return [
		{
			what: 'a short CSV from a format worker that is started for it',
			value: cold / bare,
			unit: 'x of node alone',
			budget: 5,
			baseline: { what: 'node that does nothing', value: bare }
		}
	];
}

/**
 * Everything, from a fresh clone: types, lint, house rules, unit, integration against a real PostgreSQL, browser.
 * With names of parts (static, unit, integration, browser), only those. With --changed, what is touched by what differs
 * from the main line: tests that load a changed file, and stories that were changed themselves.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { environment } from './parts/launch.mjs';
import { ensureChromium, ensurePackages, ensurePrograms, ensureRedis } from './parts/packages.mjs';
import { ensurePostgres } from './parts/postgres.mjs';
import { command, Refusal, step } from './parts/say.mjs';
import { Tally } from './parts/tests.mjs';

/** For programs that run two at a time: threads of one that find the same out again take it from the other. */
const ONE_THREAD = { ...process.env, GOMAXPROCS: '1' };

await command(async () => {
	const changed = process.argv.includes('--changed');
	const only = process.argv.slice(2).filter((one) => one !== '--changed');
	const git = (...args) => spawnSync('git', args, { encoding: 'utf8' }).stdout.trim();
	const base = changed ? git('merge-base', 'HEAD', 'origin/main') || 'HEAD' : null;
	const stories = changed
		? [git('diff', '--name-only', base), git('ls-files', '--others', '--exclude-standard')]
				.flatMap((files) => files.split('\n'))
				.filter((file) => /^tests\/browser\/.*\.spec\.ts$/.test(file) && existsSync(file))
		: [];
	const wanted = (part) => only.length === 0 || only.includes(part);
	let chromium = '';
	let redis = '';
	await ensurePackages(() => {
		ensurePrograms();
		chromium = ensureChromium();
		redis = ensureRedis();
	});
	const home = resolve(process.env.CUPBOARD_TEST_HOME ?? '.cupboard-test');
	mkdirSync(home, { recursive: true });
	const tally = new Tally();
	const run = (args, env = process.env) => spawnSync('npx', args, { stdio: 'inherit', env }).status === 0;
	/** How a program ends that runs beside this one. */
	const ended = (program) => new Promise((done) => program.once('close', done));
	const check = (name, ok) => {
		tally.step(ok, name);
		console.log(`${ok ? '✓' : '✕'} ${name}`);
	};
	const report = (name) => {
		const file = join(home, `${name}.json`);
		return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
	};

	/** One of the programs that check without running anything; what it prints is shown when it found something. */
	const checking = (name, args) => async () => {
		const program = spawn('npx', args, { stdio: ['ignore', 'pipe', 'pipe'], env: ONE_THREAD });
		const said = [];
		program.stdout.on('data', (piece) => said.push(piece));
		program.stderr.on('data', (piece) => said.push(piece));
		const code = await ended(program);
		if (code !== 0) console.log(Buffer.concat(said).toString());
		check(name, code === 0);
	};
	const types = ['svelte-check', '--tsgo', '--tsconfig', './tsconfig.check.json', '--fail-on-warnings'];
	// Those that take longest first.
	const checks = wanted('static')
		? [
				checking('types', [...types, '--output', 'human']),
				checking('format', ['oxfmt', '--check', '--threads', '1']),
				checking('lint of components', ['eslint', '.', '--max-warnings', '0']),
				checking('lint', ['oxlint', '--type-aware', '--deny-warnings']),
				checking('house rules', ['depcruise', '--config', '.dependency-cruiser.cjs', 'src']),
				checking('nothing unused', ['knip', '--no-config-hints'])
			]
		: [];
	if (checks.length) {
		step('types, lint, house rules');
		spawnSync('npx', ['svelte-kit', 'sync'], { stdio: 'ignore' });
	}
	const build = () => ended(spawn(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' }));
	// Two at a time: each takes one processor, and the machine has two.
	const lane = async () => {
		for (let next = checks.shift(); next; next = checks.shift()) await next();
	};
	const lanes = [lane(), lane()];
	/** The build begins when nothing more is to be checked; it and the unit tests need nothing of each other. */
	const built =
		wanted('integration') || wanted('browser') || wanted('static') ? Promise.race(lanes).then(build) : null;
	await Promise.all(lanes);
	const vitest = (name, projects, env) => {
		const file = join(home, `${name}.json`);
		rmSync(file, { force: true });
		const ok = run(
			[
				'vitest',
				'run',
				...projects.flatMap((project) => ['--project', project]),
				...(changed ? ['--changed', base, '--passWithNoTests'] : []),
				'--reporter',
				'default',
				'--reporter',
				'./scripts/parts/vitest-tally.mjs'
			],
			{ ...env, CUPBOARD_TALLY: file }
		);
		const made = report(name);
		if (made) tally.vitest(made);
		if (!made || (!ok && made.faults.length === 0)) tally.step(ok, `${name} tests`);
	};
	if (wanted('unit')) {
		step('unit tests');
		vitest('unit', ['unit', 'ui*'], process.env);
	}
	if (built && (await built) !== 0)
		throw new Refusal('The application could not be built; the reason stands above.');
	if (wanted('integration') || wanted('browser')) {
		const postgres = await ensurePostgres(home, { lasting: false });
		try {
			const env = environment(home, postgres.url, 0, false);
			const browsing = { ...env, CHROMIUM: chromium, CUPBOARD_HOME: join(home, 'world') };
			const told = wanted('browser') && (!changed || stories.length > 0);
			// Making the world of the stories waits for the database half of its time: it goes beside the tests before.
			const world =
				told && wanted('integration')
					? ended(
							spawn(process.execPath, ['--import', 'tsx', 'tests/browser/make-template.ts'], {
								stdio: 'inherit',
								env: browsing
							})
						)
					: null;
			if (wanted('integration')) {
				step('integration tests');
				vitest('integration', ['integration'], {
					...env,
					NODE_ENV: 'test',
					CUPBOARD_WORKER: '',
					REDIS_SERVER: redis
				});
			}
			if (told) {
				if (world && (await world) !== 0) throw new Refusal('The world of the stories could not be made.');
				step('browser tests');
				const file = join(home, 'browser.json');
				rmSync(file, { force: true });
				const ok = run(['playwright', 'test', ...stories], {
					...browsing,
					CUPBOARD_TEMPLATE: world ? 'made' : '',
					CUPBOARD_REPORT: file
				});
				const made = report('browser');
				if (made) tally.playwright(made);
				else tally.step(ok, 'browser tests');
			}
		} finally {
			postgres.stop();
		}
	}
	for (const line of tally.lines()) console.log(line);
	process.exitCode = tally.failed ? 1 : 0;
});

import { existsSync, readFileSync } from 'node:fs';

/** Adds up what the test runners counted, so that `npm test` can end with what failed and one line. */
export class Tally {
	passed = 0;
	failed = 0;
	/** What failed, with what was said of it: it stands at the end, where a long log is read first. */
	faults = [];

	step(ok, name) {
		if (ok) this.passed++;
		else this.fault(name, []);
	}

	fault(name, said) {
		this.failed++;
		this.faults.push({ name, said });
	}

	/** What `vitest-tally.mjs` wrote. */
	vitest(report) {
		this.passed += report.passed;
		for (const { name, said } of report.faults) this.fault(name, said);
	}

	/** Counts of a Playwright JSON report. */
	playwright(report) {
		this.passed += report.stats.expected + report.stats.flaky;
		const through = (suite) => {
			for (const inner of suite.suites ?? []) through(inner);
			for (const spec of suite.specs ?? [])
				for (const test of spec.tests.filter(({ status }) => status === 'unexpected'))
					this.fault(`${spec.file} › ${spec.title}`, [
						...(test.results.at(-1)?.errors ?? []).map(({ message }) => message ?? ''),
						...(test.results.at(-1)?.attachments ?? [])
							.filter(({ name, path }) => name === 'error-context' && existsSync(path ?? ''))
							.map(({ path }) => onPage(readFileSync(path, 'utf8')))
					]);
		};
		for (const suite of report.suites) through(suite);
		// What went wrong beside the stories: a world that could not be made, a file that does not load.
		for (const { message } of report.errors ?? []) this.fault('beside the stories', [message ?? '']);
	}

	/** The last lines of the run. */
	*lines() {
		for (const { name, said } of this.faults) {
			yield `✕ ${name}`;
			for (const one of said) for (const line of one.split('\n').slice(0, MOST_LINES)) yield `    ${line}`;
		}
		yield '';
		yield `${this.passed} passed, ${this.failed} failed`;
	}
}

/** What stood on the page when a story failed, of what Playwright describes: what it said, and the dialog over it. */
function onPage(described) {
	const lines = described
		.split('\n')
		.filter((line) => /^\s*- (alert|status|dialog|heading|listitem)\b.*[:"]/.test(line));
	return [
		'on the page:',
		...lines.map((line) => line.replace(/ \[ref=\w+\]/, '')).filter((line) => !/listitem:?$/.test(line))
	].join('\n');
}

/** Of what is said of one fault; the rest stands where the test ran. */
const MOST_LINES = 12;

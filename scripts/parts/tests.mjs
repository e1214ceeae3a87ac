/** Adds up what the test runners counted, so that `npm test` can end with one line. */
export class Tally {
	passed = 0;
	failed = 0;

	step(ok) {
		if (ok) this.passed++;
		else this.failed++;
	}

	/** Counts of a Vitest JSON report. */
	vitest(report) {
		this.passed += report.numPassedTests;
		this.failed += report.numFailedTests;
		// A file that could not even be loaded has no failed tests to count.
		this.failed += report.testResults.filter(
			(f) => f.status === 'failed' && f.assertionResults.every((a) => a.status !== 'failed')
		).length;
	}

	/** Counts of a Playwright JSON report. */
	playwright(report) {
		this.passed += report.stats.expected + report.stats.flaky;
		this.failed += report.stats.unexpected;
	}
}

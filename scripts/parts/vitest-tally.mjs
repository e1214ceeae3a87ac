/**
 * Says to `npm test` what a run of Vitest counted: the tests that passed, and each fault by name. A file that does not
 * load and an error that no test caught are faults as well. Written to the file that CUPBOARD_TALLY names.
 */
import { writeFileSync } from 'node:fs';
import { relative } from 'node:path';

/** What is said of an error, and where it stands in the project's own files. */
const words = (error) =>
	(error.stack ?? error.message ?? String(error))
		.split('\n')
		.filter((line) => !line.includes('/node_modules/') && !line.includes('(node:'))
		.join('\n')
		.replaceAll(`${process.cwd()}/`, '');

export default class VitestTally {
	onTestRunEnd(modules, uncaught) {
		let passed = 0;
		const faults = [];
		for (const file of modules) {
			const name = relative(process.cwd(), file.moduleId);
			const beside = [...file.errors()];
			for (const suite of file.children.allSuites()) beside.push(...suite.errors());
			if (beside.length > 0) faults.push({ name, said: beside.map(words) });
			for (const test of file.children.allTests()) {
				const { state, errors } = test.result();
				if (state === 'passed') passed++;
				else if (state === 'failed')
					faults.push({ name: `${name} › ${test.fullName}`, said: (errors ?? []).map(words) });
			}
		}
		for (const error of uncaught)
			faults.push({
				name: `an error that no test caught${error.VITEST_TEST_PATH ? ` (${relative(process.cwd(), error.VITEST_TEST_PATH)})` : ''}`,
				said: [words(error)]
			});
		writeFileSync(process.env.CUPBOARD_TALLY, JSON.stringify({ passed, faults }));
	}
}

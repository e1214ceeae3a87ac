import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const listed = execFileSync('git', ['ls-files', '-co', '--exclude-standard'], { encoding: 'utf8' })
	.trim()
	.split('\n');
const read = (file: string) => readFileSync(file, 'utf8');

describe('what is written about the house', () => {
	it('names only files and folders that are there', () => {
		const gone: string[] = [];
		for (const page of ['docs/architecture.md', 'CONTRIBUTING.md', 'README.md'])
			for (const [, path] of read(page).matchAll(/`((?:[\w@.-]+\/)+[\w.-]*\w)`/g)) {
				// Paths are said as short as they are plain: from any folder on, a module without its ending.
				const there = listed.some((file) => {
					const at = `/${file}`.indexOf(`/${path}`);
					return at >= 0 && /^(?:$|\/|\.)/.test(`/${file}`.slice(at + path!.length + 1));
				});
				if (!there && !path!.startsWith('CUPBOARD_')) gone.push(`${page}: ${path}`);
			}
		expect(gone).toEqual([]);
	});

	it('has a line for every dependency, with its licence', () => {
		const { dependencies, devDependencies } = JSON.parse(read('package.json')) as Record<
			string,
			Record<string, string>
		>;
		const { packages } = JSON.parse(read('package-lock.json')) as {
			packages: Record<string, { license?: string }>;
		};
		const lines = new Map(
			[...read('docs/dependencies.md').matchAll(/^\| `([^`]+)`\s*\|[^|]+\|\s*([^|]+?)\s*\|/gm)].map((m) => [
				m[1]!,
				m[2]!
			])
		);
		const names = Object.keys({ ...dependencies, ...devDependencies });
		expect([...lines.keys()].sort()).toEqual(names.sort());
		for (const name of names) expect(lines.get(name), name).toBe(packages[`node_modules/${name}`]!.license);
	});

	it('lists every decision', () => {
		const index = read('docs/decisions/README.md');
		const files = listed.filter((file) => /^docs\/decisions\/\d/.test(file));
		expect(files.length).toBeGreaterThan(10);
		for (const file of files) expect(index).toContain(`(${file.split('/').at(-1)})`);
	});
});

import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const home = mkdtempSync(join(tmpdir(), 'cupboard-office-'));

/**
 * Has LibreOffice open files and save them as another kind, all in one go.
 * Raises an Error when it does not open one of them.
 * @param files by name, with their ending
 * @param kind an ending, or an ending with the name of a filter behind a colon
 * @param reader the filter to open them with, where the ending does not say enough
 */
export function savedByOffice(
	files: Record<string, Uint8Array>,
	kind: string,
	reader?: string
): Map<string, Uint8Array> {
	const [from, to] = ['from', 'to'].map((name) => mkdtempSync(join(home, name)));
	for (const [name, bytes] of Object.entries(files)) writeFileSync(join(from!, name), bytes);
	const { status, stderr } = spawnSync(
		'soffice',
		[
			`-env:UserInstallation=file://${home}/profile`,
			'--headless',
			...(reader ? [`--infilter=${reader}`] : []),
			'--convert-to',
			kind,
			'--outdir',
			to!,
			...Object.keys(files).map((name) => join(from!, name))
		],
		{ encoding: 'utf8', timeout: 240_000 }
	);
	if (status !== 0) throw new Error(`LibreOffice ended with ${status}: ${stderr}`);
	const ending = kind.split(':')[0];
	return new Map(
		Object.keys(files).map((name) => [
			name,
			new Uint8Array(readFileSync(join(to!, name.replace(/\.\w+$/, `.${ending}`))))
		])
	);
}

/**
 * Packages of files that prove themselves: BagIt 1.0 (RFC 8493) with SHA-256. A bag is a folder: what it carries stands
 * under `data/`, beside it the texts that list every file with its hash, so that any program that reckons hashes can tell
 * whether it is whole.
 */

/** A file of a bag: its path within the bag with slashes, its SHA-256 in hex, its size in bytes. */
export interface BagFile {
	path: string;
	sha256: string;
	size: number;
}

/** One of the texts that a bag needs, UTF-8 without a mark. */
export interface BagText {
	path: string;
	text: string;
}

/**
 * A path as a manifest can list it: RFC 8493 (2.1.3) writes line ends and percent signs in code, which plain programs do
 * not read back. So names carry neither.
 */
export const bagName = (name: string): string => name.replace(/[\r\n]/g, ' ').replaceAll('%', '-');

const manifest = (files: readonly BagFile[]): string =>
	files
		.toSorted((a, b) => (a.path < b.path ? -1 : 1))
		.map((file) => `${file.sha256}  ${file.path}\n`)
		.join('');

/**
 * The texts that make a bag of what stands under `data/`: the declaration, what it is, and the list of its payload.
 * @param payload every file under `data/`, each path once
 * @param about what the bag is, as labels and values in their order (RFC 8493, 2.2.2)
 * @throws Error for a path that is not under `data/`, that leads out of it, or that a manifest cannot list
 */
export function bagTexts(
	payload: readonly BagFile[],
	about: readonly (readonly [label: string, value: string])[]
): BagText[] {
	const known = new Set<string>();
	for (const { path } of payload) {
		if (
			!path.startsWith('data/') ||
			/[\r\n%]/.test(path) ||
			path.split('/').some((part) => /^\.{0,2}$/.test(part))
		)
			throw new Error(`A bag cannot carry “${path}”.`);
		if (known.has(path)) throw new Error(`“${path}” is in the bag twice.`);
		known.add(path);
	}
	const bytes = payload.reduce((sum, file) => sum + file.size, 0);
	const lines = [...about, ['Payload-Oxum', `${bytes}.${payload.length}`] as const];
	return [
		{ path: 'bagit.txt', text: 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n' },
		{
			path: 'bag-info.txt',
			text: lines.map(([label, value]) => `${label}: ${value.replace(/\s+/g, ' ').trim()}\n`).join('')
		},
		{ path: 'manifest-sha256.txt', text: manifest(payload) }
	];
}

/** The list of everything of a bag that is not under `data/`; itself it does not list. */
export const tagManifest = (tags: readonly BagFile[]): BagText => ({
	path: 'tagmanifest-sha256.txt',
	text: manifest(tags)
});

/** Longest name of a place, in characters. */
const LONGEST = 180;

/** A written tree of folders: the way to each, outermost first; or what is wrong in which line. */
export type FolderList = { ways: string[][]; fault: null } | { ways: null; fault: string };

/**
 * Reads a tree of folders as somebody writes or pastes it: a name a line; what is indented deeper (by tabs or spaces)
 * lies in the folder above it; `A / B` says both at once. Signs of a list before a name are left out. A folder that is
 * written twice is one.
 */
export function readFolderList(text: string): FolderList {
	const ways = new Map<string, string[]>();
	/** The folders that are open, each with how far its line was indented. */
	const open: { indent: number; way: string[] }[] = [];
	for (const [i, line] of text.split(/\r?\n/).entries()) {
		if (!line.trim()) continue;
		const indent = /^\s*/.exec(line)![0].replaceAll('\t', '    ').length;
		while (open.length && open.at(-1)!.indent >= indent) open.pop();
		const names = line
			.trim()
			.replace(/^[-*•·]\s+/, '')
			.split('/')
			.map((name) => name.trim());
		if (names.at(-1) === '') names.pop();
		if (!names.length || names.includes('')) return { ways: null, fault: `Line ${i + 1} lacks a name.` };
		const long = names.find((name) => name.length > LONGEST);
		if (long) return { ways: null, fault: `The name in line ${i + 1} is longer than ${LONGEST} characters.` };
		const way = [...(open.at(-1)?.way ?? []), ...names];
		open.push({ indent, way });
		for (let depth = 1; depth <= way.length; depth++) {
			const part = way.slice(0, depth);
			ways.set(part.join('/').toLowerCase(), ways.get(part.join('/').toLowerCase()) ?? part);
		}
	}
	return { ways: [...ways.values()], fault: null };
}

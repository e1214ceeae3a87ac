/** Longest name of a folder, title or file, in characters. */
const MAX_NAME = 180;

export type NameFault = 'empty' | 'too-long' | 'control' | 'path';

const SENTENCE: Record<NameFault, string> = {
	empty: 'A name is needed.',
	'too-long': `The name is longer than ${MAX_NAME} characters.`,
	control: 'The name holds characters that cannot be shown.',
	path: 'A name cannot hold / or \\, nor be . or ..'
};

/**
 * Brings a name into the one form in which names are kept: Unicode NFC, single spaces, trimmed.
 * Gives the name, or what is wrong with it and the sentence for people.
 */
export function normaliseName(raw: string): { name: string } | { fault: NameFault; sentence: string } {
	const name = raw.normalize('NFC').replace(/\s+/gu, ' ').trim();
	const fault = (kind: NameFault) => ({ fault: kind, sentence: SENTENCE[kind] });
	if (name === '') return fault('empty');
	if ([...name].length > MAX_NAME) return fault('too-long');
	// Cc: control; Cf includes the direction overrides that make "exe.fdp" read as "pdf.exe".
	if (/[\p{Cc}\p{Cf}\p{Cs}\p{Co}]/u.test(name)) return fault('control');
	if (/[/\\]/.test(name) || name === '.' || name === '..') return fault('path');
	return { name };
}

/** The key under which two names count as the same in one folder: case and width folded. */
export function nameKey(name: string): string {
	return name.normalize('NFKC').toLocaleLowerCase('en');
}

/** File name split at its last dot: `a.b.dxf` → [`a.b`, `dxf`]; no extension gives ''. */
export function splitExtension(fileName: string): [string, string] {
	const at = fileName.lastIndexOf('.');
	return at > 0 && at < fileName.length - 1
		? [fileName.slice(0, at), fileName.slice(at + 1).toLowerCase()]
		: [fileName, ''];
}

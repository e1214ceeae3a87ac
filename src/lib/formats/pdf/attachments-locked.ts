/**
 * PDF files of which only the attachments are encrypted (ISO 32000-1, 7.6.5: the Identity filter for strings and
 * streams, another for embedded files) hold their pages in the clear, but readers ask for a password before they look.
 */

/** The bytes as text of the same length. */
const latin = (bytes: Uint8Array) => new TextDecoder('latin1').decode(bytes);

const REFERENCE = /\/Encrypt\s+(\d+)\s+(\d+)\s+R/g;

/** The dictionary that begins at a place of a text, up to its end; empty when it does not end. */
function dictionaryAt(text: string, from: number): string {
	let depth = 0;
	for (let at = from; at < text.length && at < from + 20_000; at++) {
		const two = text.slice(at, at + 2);
		if (two === '<<') {
			depth++;
			at++;
		} else if (two === '>>') {
			depth--;
			at++;
			if (depth === 0) return text.slice(from, at + 1);
		}
	}
	return '';
}

/** Whether a dictionary of encryption leaves strings and streams alone, and encrypts something. */
const onlyAttachments = (dictionary: string): boolean =>
	/\/V\s+[45]\b/.test(dictionary) &&
	/\/EFF\s*\/(?!Identity\b)\w+/.test(dictionary) &&
	['StmF', 'StrF'].every(
		(key) =>
			!new RegExp(`/${key}\\b`).test(dictionary) || new RegExp(`/${key}\\s*/Identity\\b`).test(dictionary)
	);

/**
 * A PDF whose attachments alone are locked, as one that opens: nothing is decrypted, its readers only no longer see
 * that something is encrypted. Null for every other PDF.
 */
export function withoutLock(bytes: Uint8Array): Uint8Array | null {
	const text = latin(bytes);
	const places = [...text.matchAll(REFERENCE)];
	if (!places.length) return null;
	for (const [, number, generation] of places) {
		const object = new RegExp(`(?:^|[\\r\\n\\s])${number}\\s+${generation}\\s+obj\\s*<<`).exec(text);
		if (!object) return null;
		const begin = text.indexOf('<<', object.index);
		if (!onlyAttachments(dictionaryAt(text, begin))) return null;
	}
	const open = bytes.slice();
	// A key that no reader knows, as long as the one it stands for: nothing in the file moves.
	for (const { index } of places) open.set(new TextEncoder().encode('/Unread_'), index);
	return open;
}

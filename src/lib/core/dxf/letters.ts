/**
 * Widths of the letters from space to tilde in hundredths of their size, as in Archivo, in which drawings are shown.
 * Other alphabets are taken as 0.6, and the square scripts of East Asia as 1.
 */
const WIDTHS =
	'21 27 37 58 51 95 69 21 36 36 41 63 28 33 28 29 57 52 57 57 56 57 57 55 57 57 30 30 63 63 63 58 100 68 70 73 73 68 61 80 74 27 56 66 54 85 74 79 67 79 73 67 61 73 65 92 68 66 64 30 29 30 63 49 19 55 57 52 57 55 28 56 56 23 22 51 23 86 56 57 57 57 33 51 30 56 50 72 51 50 50 35 25 35 63'
		.split(' ')
		.map((n) => Number(n) / 100);

/** Size of letters for a text of a given height, which in drawings is that of its capitals. */
export const LETTER_SIZE = 1.35;

/** A character of a script that is written in squares and broken anywhere. */
const SQUARE = /[\u1100-\u11ff\u2e80-\u9fff\uac00-\ud7af\uf900-\ufaff\uff01-\uff60]/u;

function letterWidth(letter: string): number {
	const width = WIDTHS[letter.codePointAt(0)! - 32];
	return width ?? (SQUARE.test(letter) ? 1 : 0.6);
}

/** How wide a text is drawn, in the units of its height. */
export function textWidth(text: string, height: number): number {
	let width = 0;
	for (const letter of text) width += letterWidth(letter);
	return width * height * LETTER_SIZE;
}

/**
 * Lines broken between words, so that none is wider than it may be; a word that is too wide alone stays whole.
 * @param width in the units of the height; 0 or less breaks nothing
 * @param most lines that are given back
 */
export function wrapped(lines: readonly string[], width: number, height: number, most: number): string[] {
	if (!(width > 0 && height > 0)) return lines.slice(0, most);
	const broken: string[] = [];
	for (const line of lines) {
		let open = '';
		for (const piece of line.match(PIECES) ?? []) {
			if (open.trim() !== '' && textWidth((open + piece).trimEnd(), height) > width * 1.02) {
				broken.push(open.trimEnd());
				open = piece.trimStart();
			} else open += piece;
			if (broken.length >= most) return broken;
		}
		broken.push(open.trimEnd());
	}
	return broken.slice(0, most);
}

/** Words with the spaces before them; of square scripts each character. */
const PIECES = new RegExp(`\\s*(?:${SQUARE.source}|(?:(?!${SQUARE.source})\\S)+)|\\s+$`, 'gu');

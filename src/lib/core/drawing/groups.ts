import { DxfError, type Group } from '../dxf/read';

/* The groups of a drawing with where they stand, for writers that leave everything else byte for byte as it was. */

/** A group with where it stands in the text: from its code's line to the end of its value's. */
export interface Placed {
	group: Group;
	from: number;
	to: number;
}

/** The mark that some programs begin a UTF-8 file with, byte by byte. */
const BYTE_ORDER_MARK = '\u00ef\u00bb\u00bf';

/** Reads one group of a drawing after the other. Raises {@link DxfError} where a code is none. */
export class GroupReader {
	private at: number;
	constructor(private readonly text: string) {
		this.at = text.startsWith(BYTE_ORDER_MARK) ? BYTE_ORDER_MARK.length : 0;
	}

	/** The next group, comments passed over; null at the end. */
	next(): Placed | null {
		for (;;) {
			const from = this.at;
			const code = this.line();
			const value = this.line();
			if (code === null || value === null) return null;
			const number = Number(code);
			if (!Number.isInteger(number)) throw new DxfError('The drawing is damaged; it cannot be written.');
			if (number !== 999) return { group: [number, value], from, to: this.at };
		}
	}
	private line(): string | null {
		if (this.at >= this.text.length) return null;
		let end = this.text.indexOf('\n', this.at);
		if (end < 0) end = this.text.length;
		const value = this.text.slice(this.at, this.text.charCodeAt(end - 1) === 13 ? end - 1 : end);
		this.at = Math.min(end + 1, this.text.length);
		return value;
	}
}

/** Bytes as text of one character each (ISO 8859-1; the decoder of that name means another table). */
export function latinOf(bytes: Uint8Array): string {
	const pieces: string[] = [];
	for (let i = 0; i < bytes.length; i += 8192)
		pieces.push(String.fromCharCode(...bytes.subarray(i, i + 8192)));
	return pieces.join('');
}

export function bytesOf(text: string): Uint8Array {
	const bytes = new Uint8Array(text.length);
	for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
	return bytes;
}

/**
 * Takes out of a JPEG where it was taken, and leaves the picture itself and everything else as it was, byte for byte:
 * the GPS directory of its EXIF data (EXIF 2.32, 4.6.3) is emptied, and XMP packets, which can hold the place again,
 * are left out. What is no JPEG, or holds no place, is given back as it is.
 * @param bytes the whole file; not changed
 */
export function withoutPosition(bytes: Uint8Array): Uint8Array {
	if (bytes[0] !== 0xff || bytes[1] !== 0xd8) return bytes;
	const out = bytes.slice();
	const view = new DataView(out.buffer);
	const left: [from: number, to: number][] = [];
	let changed = false;
	for (let at = 2; at + 4 <= out.length && out[at] === 0xff;) {
		const marker = out[at + 1]!;
		// From the start of the scan on there is only the picture.
		if (marker === 0xda) break;
		const end = at + 2 + view.getUint16(at + 2);
		if (end > out.length) break;
		if (marker === 0xe1 && starts(out, at + 4, EXIF))
			changed = emptied(out.subarray(at + 4 + EXIF.length, end)) || changed;
		else if (marker === 0xe1 && starts(out, at + 4, XMP)) left.push([at, end]);
		at = end;
	}
	if (!left.length) return changed ? out : bytes;
	return joined(out, left);
}

const EXIF = 'Exif\0\0';
const XMP = 'http://ns.adobe.com/';

const starts = (bytes: Uint8Array, at: number, text: string) =>
	[...text].every((c, i) => bytes[at + i] === c.charCodeAt(0));

/** Bytes of one value by its TIFF type (TIFF 6.0, section 2). */
const SIZES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
const GPS_DIRECTORY = 0x8825;

/** Empties the GPS directory of a TIFF structure in place; says whether there was one. */
function emptied(tiff: Uint8Array): boolean {
	const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.byteLength);
	if (tiff.length < 8) return false;
	const little = view.getUint16(0) === 0x4949;
	const short = (at: number) => view.getUint16(at, little);
	const long = (at: number) => view.getUint32(at, little);
	const entries = (at: number) => (at >= 8 && at + 2 <= tiff.length ? short(at) : 0);
	const first = long(4);
	for (let i = 0; i < entries(first); i++) {
		const entry = first + 2 + i * 12;
		if (entry + 12 > tiff.length) return false;
		if (short(entry) !== GPS_DIRECTORY) continue;
		const gps = long(entry + 8);
		const count = entries(gps);
		for (let k = 0; k < count; k++) {
			const at = gps + 2 + k * 12;
			if (at + 12 > tiff.length) break;
			const size = (SIZES[short(at + 2)] ?? 0) * long(at + 4);
			if (size > 4 && long(at + 8) + size <= tiff.length) tiff.fill(0, long(at + 8), long(at + 8) + size);
		}
		if (count) tiff.fill(0, gps, Math.min(tiff.length, gps + 2 + count * 12));
		return count > 0;
	}
	return false;
}

function joined(bytes: Uint8Array, left: [from: number, to: number][]): Uint8Array {
	const parts: Uint8Array[] = [];
	let from = 0;
	for (const [begin, end] of left) {
		parts.push(bytes.subarray(from, begin));
		from = end;
	}
	parts.push(bytes.subarray(from));
	const whole = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
	let at = 0;
	for (const part of parts) {
		whole.set(part, at);
		at += part.length;
	}
	return whole;
}

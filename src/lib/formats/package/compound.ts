/**
 * Compound files (MS-CFB): what office programs wrote before 2007, mails that one of them saved, and office files that
 * are locked with a password.
 */

/** What compound files begin with (MS-CFB, 2.2). */
const SIGNATURE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/** Whether bytes are the beginning of a compound file. */
export const isCompound = (head: Uint8Array): boolean => SIGNATURE.every((byte, i) => head[i] === byte);

/** Kinds of compound files by a stream that only they have. */
const STREAMS: readonly (readonly [name: string, mediaType: string])[] = [
	['EncryptedPackage', 'application/x-locked-office'],
	['__properties_version1.0', 'application/vnd.ms-outlook'],
	['WordDocument', 'application/msword'],
	['PowerPoint Document', 'application/vnd.ms-powerpoint'],
	['Workbook', 'application/vnd.ms-excel'],
	['Book', 'application/vnd.ms-excel']
];
const ENTRY = 128;
/** Directory sectors that are looked at; what tells a kind stands at the beginning. */
const MOST_SECTORS = 64;

/**
 * The kind of a compound file by the names in its directory (MS-CFB, 2.6); null when none of them is known.
 * @param read gives bytes of the file from a place on, fewer at its end
 */
export async function compoundKind(
	read: (from: number, length: number) => Promise<Uint8Array>
): Promise<string | null> {
	const header = await read(0, 512);
	if (header.length < 512 || !isCompound(header)) return null;
	const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	const size = 2 ** Math.min(12, view(header).getUint16(30, true));
	const placeOf = (sector: number) => (sector + 1) * size;
	/** The sector that follows one in its chain; the first 109 sectors of that table stand in the header. */
	const after = async (sector: number): Promise<number> => {
		const perSector = size / 4;
		const at = Math.floor(sector / perSector);
		if (at >= 109) return -1;
		const table = view(header).getInt32(76 + 4 * at, true);
		const entry = await read(placeOf(table) + 4 * (sector % perSector), 4);
		return entry.length === 4 ? view(entry).getInt32(0, true) : -1;
	};
	const names = new Set<string>();
	let sector = view(header).getInt32(48, true);
	for (let n = 0; n < MOST_SECTORS && sector >= 0; n++) {
		const bytes = await read(placeOf(sector), size);
		for (let at = 0; at + ENTRY <= bytes.length; at += ENTRY) {
			const length = view(bytes).getUint16(at + 64, true);
			if (length >= 2 && length <= 64)
				names.add(new TextDecoder('utf-16le').decode(bytes.subarray(at, at + length - 2)));
		}
		sector = await after(sector);
	}
	return STREAMS.find(([name]) => names.has(name))?.[1] ?? null;
}

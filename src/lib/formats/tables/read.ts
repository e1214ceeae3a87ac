import { MEDIA_TYPE } from '../../core/files/media';
import { decodeText, type Encoding } from '../../core/files/encoding';
import { Unreadable } from '../package/fault';
import { checkPackage } from '../package/size';
import { csvTable } from './csv';
import type { ShownTable } from '../../core/files/shown';
import type { Most } from './sheet';

/**
 * Reads a schedule as its sheets; rows that hold nothing keep their numbers.
 * @param encoding of CSV, when somebody knows it; otherwise it is told from the bytes
 * @param name of the one sheet of a CSV
 * Raises {@link Unreadable} for a file that is damaged, locked or too large.
 */
export async function readTables(
	bytes: Uint8Array,
	mediaType: string,
	most: Most,
	{ encoding = null, name = 'Schedule' }: { encoding?: Encoding | null; name?: string } = {}
): Promise<ShownTable[]> {
	try {
		if (mediaType === MEDIA_TYPE.csv) return [csvTable(decodeText(bytes, encoding).text, name, most)];
		checkPackage(bytes);
		if (mediaType === MEDIA_TYPE.ods) return (await import('./ods')).odsTables(bytes, most);
		return await (await import('./xlsx')).xlsxTables(bytes, most);
	} catch (error) {
		if (error instanceof Unreadable) throw error;
		throw new Unreadable('This file is damaged or locked and cannot be shown.', { cause: error });
	}
}

import type { StoredFile } from './readers/reader';
import { readerOf } from './readers/readers';
import { MOST_WRITTEN } from './readers/words';

/**
 * What stands written in a stored file, for finding it by its words: its spaces drawn together and cut at a bound; empty
 * for kinds that hold none. Throws when the file is damaged. Runs in the format workers.
 */
export async function writtenIn(file: StoredFile): Promise<string> {
	const text = (await (await readerOf(file)).written?.(file)) ?? '';
	return (
		text
			// What is packed into letters (pictures and attachments in mails and pages) is nobody's words.
			.replace(/[A-Za-z0-9+/]{60,}={0,2}/g, ' ')
			.replace(/[\p{Cc}\p{Cf}\s]+/gu, ' ')
			.normalize('NFC')
			.trim()
			.slice(0, MOST_WRITTEN)
			// Half of a character that was cut through cannot be kept.
			.replace(/[\uD800-\uDBFF]$/, '')
	);
}

import { familyOf, type Family } from '../../../core/files/kinds';
import { KEPT, NOT_SHOWN, type Reader, type StoredFile } from './reader';

/** What is kept and given out as it is. */
const kept = async (): Promise<Reader> => ({ called: 'file', inspect: () => KEPT, shown: () => NOT_SHOWN });
const pictures = async () => (await import('./picture')).picture;

/**
 * Who opens which family of files on the server. Each is loaded when the first file of its family comes: a worker that
 * loaded them all would take seconds to begin, and whoever waits for a list would wait for the reader of models.
 */
const READERS: Record<Family, () => Promise<Reader>> = {
	pdf: async () => (await import('./pdf')).pdf,
	drawing: async () => (await import('./drawing')).drawing,
	picture: pictures,
	scan: pictures,
	phone: async () => (await import('./picture')).phone,
	mail: async () => (await import('./mail')).mail,
	model: async () => (await import('./model')).model,
	text: async () => (await import('./text')).text,
	markdown: async () => (await import('./text')).markdown,
	web: async () => (await import('./text')).web,
	letter: async () => (await import('./office')).letter,
	workbook: async () => (await import('./office')).workbook,
	csv: async () => (await import('./office')).csv,
	printed: async () => (await import('./office')).printed,
	package: async () => (await import('./office')).office,
	archive: async () => (await import('./office')).archive,
	locked: async () => (await import('./office')).locked,
	sound: kept,
	film: kept,
	other: kept
};

/** Who opens a stored file. */
export const readerOf = ({ mediaType }: Pick<StoredFile, 'mediaType'>): Promise<Reader> =>
	READERS[familyOf(mediaType)]();

/** What is made of a stored file for those who may view it and not take it. Runs in the format workers. */
import { MOST_SHOWN_PIXELS, type Shown, type ShownWord } from '../../core/files/shown';
import type { ShownPicture, StoredFile } from './readers/reader';
import { readerOf } from './readers/readers';

export type ShownTask =
	| ({ task: 'shown' } & StoredFile)
	| ({ task: 'shown-page'; page: number; width: number } & StoredFile)
	| ({ task: 'shown-words'; page: number } & StoredFile);

/** What a file is shown as. Throws when it is damaged. */
export async function shown(file: StoredFile): Promise<Shown> {
	return (await readerOf(file)).shown(file);
}

/** One page as a picture, `width` pixels across at most; drawings as SVG. Throws for kinds without pages. */
export async function shownPage(file: StoredFile, page: number, width: number): Promise<ShownPicture> {
	const drawn = await (
		await readerOf(file)
	).page?.(file, page, Math.max(16, Math.min(MOST_SHOWN_PIXELS, Math.round(width))));
	if (!drawn) throw new Error('This kind of file has no pages.');
	return drawn;
}

/** The words of one page with where they stand. */
export async function shownWords(file: StoredFile, page: number): Promise<ShownWord[]> {
	return (await (await readerOf(file)).words?.(file, page)) ?? [];
}

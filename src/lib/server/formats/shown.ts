/** What is made of a stored file for those who may view it and not take it. Runs in the format workers. */
import { familyOf } from '../../core/files/kinds';
import { MOST_SHOWN_PIXELS, type Shown, type ShownWord } from '../../core/files/shown';
import type { ShownPicture, StoredFile } from './readers/reader';
import { READERS } from './readers/readers';

export type ShownTask =
	| ({ task: 'shown' } & StoredFile)
	| ({ task: 'shown-page'; page: number; width: number } & StoredFile)
	| ({ task: 'shown-words'; page: number } & StoredFile);

const readerOf = ({ mediaType }: StoredFile) => READERS[familyOf(mediaType)];

/** What a file is shown as. Throws when it is damaged. */
export async function shown(file: StoredFile): Promise<Shown> {
	return readerOf(file).shown(file);
}

/** One page as a picture, `width` pixels across at most; drawings as SVG. Throws for kinds without pages. */
export async function shownPage(file: StoredFile, page: number, width: number): Promise<ShownPicture> {
	const drawn = await readerOf(file).page?.(
		file,
		page,
		Math.max(16, Math.min(MOST_SHOWN_PIXELS, Math.round(width)))
	);
	if (!drawn) throw new Error('This kind of file has no pages.');
	return drawn;
}

/** The words of one page with where they stand. */
export async function shownWords(file: StoredFile, page: number): Promise<ShownWord[]> {
	return (await readerOf(file).words?.(file, page)) ?? [];
}

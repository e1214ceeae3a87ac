import type { SheetWord } from '../../../core/documents/title-block';
import type { TitleBlock } from '../../../core/dxf/title-block';
import type { Shown, ShownWord } from '../../../core/files/shown';

/** A stored file as a format worker opens it. */
export interface StoredFile {
	path: string;
	mediaType: string;
	size: number;
}

/** A picture that is made of a page. */
export interface ShownPicture {
	bytes: Uint8Array;
	mediaType: string;
}

/** What inspecting tells beside that a file opens. */
export interface Told {
	/** Set where nothing here can tell whether it is whole. */
	unchecked?: true;
	fault?: string;
	pages?: number;
	titleBlock?: TitleBlock;
	/** Whether the first page is wider than high, as sheets are; papers are not. */
	wide?: boolean;
	sheetWords?: SheetWord[];
}

/**
 * How the files of one family are opened on the server. Each of these throws when the file is damaged. What is left out
 * the family does not have: no pages, no words, no preview.
 */
export interface Reader {
	/** What a file is called when it is damaged. */
	called: 'PDF' | 'picture' | 'drawing' | 'file';
	/** Opens it to see whether it is whole. Raises an Error when it is not; its sentence is told where it is for people. */
	inspect(file: StoredFile): Promise<Told> | Told;
	/** What is shown of it to those who may only view. */
	shown(file: StoredFile): Promise<Shown> | Shown;
	/** One page as a picture, `width` pixels across at most. */
	page?(file: StoredFile, page: number, width: number): Promise<ShownPicture>;
	/** The words of one page with where they stand. */
	words?(file: StoredFile, page: number): Promise<ShownWord[]>;
	/** What stands written in it, for finding it by its words. */
	written?(file: StoredFile): Promise<string>;
	/** Draws its preview into a WebP file, `across` pixels wide at most. */
	preview?(file: StoredFile, to: string, across: number): Promise<void>;
}

/** Kept and given out as it is; nothing here can tell whether it is whole. */
export const KEPT: Told = { unchecked: true };

/** What is shown of a file that only can be downloaded. */
export const NOT_SHOWN: Shown = {
	kind: 'none',
	sentence: 'Files of this kind are not shown here, only downloaded, and that needs Download.'
};

/** Media types of the files that Cupboard writes, by their ending. */
export const MEDIA_TYPE = {
	docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	odt: 'application/vnd.oasis.opendocument.text',
	pdf: 'application/pdf',
	md: 'text/markdown',
	html: 'text/html',
	xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
	ods: 'application/vnd.oasis.opendocument.spreadsheet',
	csv: 'text/csv',
	dxf: 'image/vnd.dxf'
} as const;
export type Ending = keyof typeof MEDIA_TYPE;

/** A file that was made here. */
export interface WrittenFile {
	bytes: Uint8Array;
	mediaType: string;
}

/** What a file says of its document beside its content. */
export interface About {
	number: string;
	title: string;
}

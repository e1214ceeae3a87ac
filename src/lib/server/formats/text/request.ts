import type { TextFormat } from '../../../core/text/losses';

/** What a file says of the text beside its words. */
export interface About {
	number: string;
	title: string;
}

/** What the worker needs to write a text: nothing it would have to ask the database for. */
export interface TextTask {
	task: 'text';
	json: unknown;
	about: About;
	format: TextFormat;
	/** Paths of the pictures' bytes, by hash. */
	pictures: Record<string, string>;
	/** Names of people who suggest, by id. */
	names: Record<string, string>;
}

export const MEDIA_TYPE: Record<TextFormat, string> = {
	docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	odt: 'application/vnd.oasis.opendocument.text',
	pdf: 'application/pdf',
	md: 'text/markdown',
	html: 'text/html'
};

import { textFromJson } from '../../../core/text/shared';
import { withoutSuggestions } from '../../../core/text/suggestions';
import { toDocx } from './docx';
import { toOdt } from './odt';
import { readPictures } from './parts';
import { toPdf } from './pdf';
import { toHtml, toMarkdown } from './plain';
import type { TextTask } from './request';

/** Writes a text as a file; runs in a worker thread. Only DOCX says what is suggested, as tracked changes. */
export async function writeTextTask({ json, about, format, pictures, names }: TextTask): Promise<Uint8Array> {
	const text = textFromJson(json);
	const images = await readPictures(pictures);
	if (format === 'docx') return toDocx(text, about, images, names);
	const plain = withoutSuggestions(text);
	switch (format) {
		case 'odt':
			return toOdt(plain, about, images);
		case 'pdf':
			return toPdf(plain, about, images);
		case 'md':
			return toMarkdown(plain);
		case 'html':
			return toHtml(plain, about, images);
	}
}

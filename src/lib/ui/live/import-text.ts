import { DOMParser as TextParser, type Node as TextNode } from 'prosemirror-model';
import { textSchema } from '../../core/text/schema';
import { uploadAddress, sendFile } from '../api';
import { readText } from '../read-office';

/** A file's text as a live text can hold it. */
export interface Imported {
	text: TextNode;
	/** Uploads of the pictures that stand in it. */
	pictures: string[];
	/** What the file held that a live text cannot, each as a sentence. */
	losses: string[];
}

const CAPTION = /^(figure|table|fig\.?|abb\.?|tab\.?)\s*\d+\s*[:.–—-]?\s*/i;

/**
 * Reads a file as a live text; its pictures are sent ahead.
 * Raises `Unreadable` for a damaged file, and what sending raises.
 * @param project code of the project that the pictures are sent to
 */
export async function importText(bytes: ArrayBuffer, mediaType: string, project: string): Promise<Imported> {
	const page = new DOMParser().parseFromString(await readText(bytes, mediaType), 'text/html');
	const losses = new Set<string>();
	const pictures: string[] = [];
	for (const image of page.querySelectorAll('img')) {
		const source = image.getAttribute('src') ?? '';
		if (!/^data:image\/(png|jpeg|gif|webp);base64,/.test(source)) {
			losses.add('Pictures of other kinds, or that lie elsewhere, are left out.');
			image.remove();
			continue;
		}
		const blob = await (await fetch(source)).blob();
		const file = new File([blob], `picture-${pictures.length + 1}.${blob.type.split('/')[1]}`);
		const { upload, hash } = await sendFile(uploadAddress(project, file.name), file, () => {}).done;
		pictures.push(upload);
		image.dataset.content = hash;
	}
	for (const caption of page.querySelectorAll('figcaption')) {
		const words = caption.textContent ?? '';
		const found = CAPTION.exec(words.trim());
		const made = page.createElement('p');
		made.dataset.caption = /^tab/i.test(found?.[1] ?? '') ? 'table' : 'figure';
		made.textContent = found ? words.trim().slice(found[0].length) : words;
		caption.replaceWith(made);
	}
	if (page.querySelector('h5, h6'))
		losses.add('Headings below the fourth level become fourth-level headings.');
	if (page.querySelector('blockquote')) losses.add('Quotations become plain paragraphs.');
	if (page.querySelector('pre, code')) losses.add('Typewritten words become plain.');
	if (page.querySelector('a[id^="footnote"], a[href^="#footnote"]'))
		losses.add('Footnotes stand at the end, without their links.');
	if (/wordprocessingml|opendocument/.test(mediaType))
		losses.add(
			'Page headers and footers, fields, text boxes, colours and fonts stay in the file; the live text has a look of its own.'
		);
	return { text: TextParser.fromSchema(textSchema).parse(page.body), pictures, losses: [...losses] };
}

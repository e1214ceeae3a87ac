import { DOMParser as TextParser, type Node as TextNode } from 'prosemirror-model';
import { textSchema } from '../../core/text/schema';
import { passedOver } from '../viewers/passed-over';
import { readText } from '../viewers/read-office';

/** A file's text as a live text can hold it. */
export interface Imported {
	text: TextNode;
	/** Uploads of the pictures that stand in it. */
	pictures: string[];
	/** What the file held that a live text cannot, each as a sentence. */
	losses: string[];
}

const CAPTION = /^\s*(figure|table|fig\.?|abb\.?|tab\.?)\s*\d+\s*[:.–—-]?\s*/i;

/** A picture of a file, sent ahead. */
export interface Kept {
	upload: string;
	/** SHA-256 of its bytes. */
	hash: string;
	/** In pixels. */
	width: number;
}

/** Pixels that are as wide as a text. */
const TEXT_PIXELS = 640;

/** The bytes of a picture that stands in a page itself, as a file; null for any other. */
function fileOf(image: Element, name: string): File | null {
	const [, kind, base64] =
		/^data:image\/(png|jpeg|gif|webp);base64,(.*)$/s.exec(image.getAttribute('src') ?? '') ?? [];
	if (!kind) return null;
	const bytes = Uint8Array.from(atob(base64!), (letter) => letter.charCodeAt(0));
	return new File([bytes], `${name}.${kind}`, { type: `image/${kind}` });
}

/** Share of the text's width that a picture takes, in percent: as its file says, or as many pixels as it has. */
function shareOf(image: HTMLElement, width: number): number {
	const said = Number(image.dataset.width) || (width / TEXT_PIXELS) * 100;
	return Math.max(5, Math.min(100, Math.round(said)));
}

const isEmpty = (element: Element) => !element.textContent?.trim() && !element.querySelector('img, hr');

/** Pictures and page breaks are blocks of their own in a live text; files keep them within paragraphs. */
function liftBlocks(page: Document): void {
	for (const one of page.querySelectorAll('p img, p hr, h1 img, h2 img, h3 img, h4 img, h5 img, h6 img'))
		for (let around = one.parentElement!; !/^(BODY|LI|TD|TH)$/.test(around.tagName);) {
			const rest = around.cloneNode(false) as Element;
			while (one.nextSibling) rest.append(one.nextSibling);
			around.after(one, rest);
			for (const part of [around, rest]) if (isEmpty(part)) part.remove();
			around = one.parentElement!;
		}
}

/** A page break that begins or ends a list stands beside it; the empty paragraphs that carry one are not shown. */
function settleBreaks(page: Document): void {
	const between = page.createRange();
	const nothingBetween = () => !between.cloneContents().querySelector('img') && !between.toString().trim();
	for (const rule of page.querySelectorAll('hr')) {
		for (
			let list = rule.parentElement?.closest('ul, ol');
			list;
			list = rule.parentElement?.closest('ul, ol')
		) {
			between.setStart(list, 0);
			between.setEndBefore(rule);
			const begins = nothingBetween();
			between.setStartAfter(rule);
			between.setEnd(list, list.childNodes.length);
			if (begins) list.before(rule);
			else if (nothingBetween()) list.after(rule);
			else break;
		}
		for (const beside of [rule.previousElementSibling, rule.nextElementSibling])
			if (beside?.tagName === 'P' && isEmpty(beside)) beside.remove();
	}
}

/** A table that another follows, or nothing, has an empty paragraph after it in every DOCX file. */
function dropSeparators(page: Document): void {
	for (const table of page.querySelectorAll('table')) {
		const after = table.nextElementSibling;
		const next = after?.nextElementSibling;
		if (after?.tagName === 'P' && isEmpty(after) && (!next || next.tagName === 'TABLE')) after.remove();
	}
}

/** Numbers are worked out in a live text; those that a file of ours says are taken out, and captions are named. */
function nameCaptions(page: Document): void {
	page.querySelectorAll('[data-number]').forEach((number) => number.remove());
	for (const caption of page.querySelectorAll<HTMLElement>('figcaption')) {
		const words = caption.textContent ?? '';
		const found = CAPTION.exec(words);
		const made = page.createElement('p');
		made.dataset.caption = /^tab/i.test(found?.[1] ?? '') ? 'table' : 'figure';
		// The number may begin the words, or stand in elements of its own.
		let left = found?.[0].length ?? 0;
		const texts = page.createTreeWalker(caption, NodeFilter.SHOW_TEXT);
		while (left > 0 && texts.nextNode()) {
			const text = texts.currentNode as Text;
			const cut = Math.min(left, text.length);
			text.deleteData(0, cut);
			left -= cut;
		}
		made.append(...caption.childNodes);
		caption.replaceWith(made);
	}
}

/**
 * Reads a file as a live text.
 * Raises `Unreadable` for a damaged file, and what `keep` raises.
 * @param keep sends a picture ahead
 */
export async function importText(
	bytes: ArrayBuffer,
	mediaType: string,
	keep: (picture: File) => Promise<Kept>
): Promise<Imported> {
	const page = new DOMParser().parseFromString(await readText(bytes, mediaType), 'text/html');
	page.querySelectorAll('header, footer').forEach((around) => around.remove());
	const losses = new Set<string>();
	const pictures: string[] = [];
	for (const image of page.querySelectorAll('img')) {
		const file = fileOf(image, `picture-${pictures.length + 1}`);
		if (!file) {
			losses.add('Pictures of other kinds, or that lie elsewhere, are left out.');
			image.remove();
			continue;
		}
		const { upload, hash, width } = await keep(file);
		pictures.push(upload);
		image.dataset.content = hash;
		image.dataset.width = String(shareOf(image, width));
	}
	nameCaptions(page);
	liftBlocks(page);
	settleBreaks(page);
	dropSeparators(page);
	if (page.querySelector('h5, h6'))
		losses.add('Headings below the fourth level become fourth-level headings.');
	if (page.querySelector('blockquote')) losses.add('Quotations become plain paragraphs.');
	if (page.querySelector('pre, code')) losses.add('Typewritten words become plain.');
	if (page.querySelector('a[id^="footnote"], a[href^="#footnote"]'))
		losses.add('Footnotes stand at the end, without their links.');
	if (/wordprocessingml|opendocument/.test(mediaType)) {
		for (const one of passedOver(bytes)) losses.add(one);
		losses.add(
			'Page headers and footers, fields, text boxes, colours and fonts stay in the file; the live text has a look of its own.'
		);
	}
	return { text: TextParser.fromSchema(textSchema).parse(page.body), pictures, losses: [...losses] };
}

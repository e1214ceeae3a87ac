import type { Mark, Node } from 'prosemirror-model';
import sharp from 'sharp';

/** Marks an end of paragraph within suggestions; no file needs it. */
const BOUNDARY = /\u200b/g;

/** Words of a paragraph that look alike. */
export interface Span {
	text: string;
	strong: boolean;
	em: boolean;
	underline: boolean;
	strike: boolean;
	/** Raised or lowered. */
	script: 'super' | 'sub' | null;
	href: string | null;
	/** Suggested words that are not there yet, or are to go, with who suggests it. */
	suggested: { how: 'insertion' | 'deletion'; id: string } | null;
	lineBreak: boolean;
}

/** The spans of a paragraph, heading or caption. */
export function spansOf(block: Node): Span[] {
	const found: Span[] = [];
	block.forEach((node) => {
		const has = (name: string): Mark | undefined => node.marks.find((m) => m.type.name === name);
		const suggestion = has('insertion') ?? has('deletion');
		found.push({
			text:
				node.type.name === 'document_link'
					? (node.attrs.number as string)
					: (node.text ?? '').replace(BOUNDARY, ''),
			strong: Boolean(has('strong')),
			em: Boolean(has('em')),
			underline: Boolean(has('underline')),
			strike: Boolean(has('strike')),
			script: has('superscript') ? 'super' : has('subscript') ? 'sub' : null,
			href: (has('link')?.attrs.href as string | undefined) ?? null,
			suggested: suggestion
				? { how: suggestion.type.name as 'insertion' | 'deletion', id: String(suggestion.attrs.id) }
				: null,
			lineBreak: node.type.name === 'hard_break'
		});
	});
	return found.filter((s) => s.text !== '' || s.lineBreak);
}

/** A picture ready to be put into a file. */
export interface Picture {
	bytes: Buffer;
	kind: 'png' | 'jpg';
	/** In pixels. */
	width: number;
	height: number;
}

/** Reads a picture the right way up, as PNG or JPEG, not larger than a page needs. */
async function readPicture(path: string): Promise<Picture | null> {
	try {
		const image = sharp(path, { limitInputPixels: 268_000_000 }).autoOrient();
		const { format } = await image.metadata();
		const kind = format === 'jpeg' ? 'jpg' : 'png';
		const sized = image.resize({ width: 2400, height: 2400, fit: 'inside', withoutEnlargement: true });
		const { data, info } = await (kind === 'jpg' ? sized.jpeg({ quality: 88 }) : sized.png()).toBuffer({
			resolveWithObject: true
		});
		return { bytes: data, kind, width: info.width, height: info.height };
	} catch {
		return null;
	}
}

/** Every picture of a text, by hash; what cannot be read is left out. */
export async function readPictures(paths: Record<string, string>): Promise<Map<string, Picture>> {
	const found = new Map<string, Picture>();
	for (const [hash, path] of Object.entries(paths)) {
		const picture = await readPicture(path);
		if (picture) found.set(hash, picture);
	}
	return found;
}

/** Width of a page's text on A4 with margins of 25 mm, in points. */
export const TEXT_WIDTH = 453.5;
/** Tallest picture on a page, in points. */
const TALLEST = 620;

/** The size of a picture on the page in points, as wide as the text says and no taller than the page. */
export function sizeOnPage({ width, height }: Picture, percent: number): { width: number; height: number } {
	const wide = (TEXT_WIDTH * Math.min(100, Math.max(5, percent))) / 100;
	const tall = (wide * height) / width;
	const shrink = Math.min(1, TALLEST / tall);
	return { width: wide * shrink, height: tall * shrink };
}

export function escapeXml(text: string): string {
	return text
		.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
		.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '');
}

/** Words as OpenDocument writes them: runs of blanks and tabs would be taken for one blank (ODF 1.3, part 3, 6.1.2). */
export function odfWords(text: string): string {
	return escapeXml(text)
		.replace(/\t/g, '<text:tab/>')
		.replace(/ {2,}/g, (blanks) => ` <text:s text:c="${blanks.length - 1}"/>`)
		.replace(/^ /, '<text:s/>');
}

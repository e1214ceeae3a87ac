import { rgb, type PDFFont } from '@cantoo/pdf-lib';

/** How a cover note looks: its inks, its page in points, and its typefaces. */
export const INK = rgb(0.09, 0.137, 0.122);
export const SOFT = rgb(0.333, 0.392, 0.365);
export const RULE = rgb(0.788, 0.827, 0.8);
export const A4 = { width: 595.28, height: 841.89, margin: 50 };

export interface Faces {
	regular: PDFFont;
	bold: PDFFont;
	code: PDFFont;
}

/** Cuts a text at a width in points, with an ellipsis. */
export function fit(text: string, face: PDFFont, size: number, width: number): string {
	if (face.widthOfTextAtSize(text, size) <= width) return text;
	let [fits, not] = [0, text.length];
	while (not - fits > 1) {
		const middle = (fits + not) >> 1;
		if (face.widthOfTextAtSize(text.slice(0, middle) + '…', size) <= width) fits = middle;
		else not = middle;
	}
	return text.slice(0, fits) + '…';
}

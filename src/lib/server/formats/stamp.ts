import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { degrees, PDFDocument, rgb } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import sharp from 'sharp';
import { Problem } from '../../core/acts/problem';
import { markedPdf, type GivenMarks } from '../marks/marked';

const require = createRequire(import.meta.url);

/** Largest file that is stamped while somebody waits, in bytes. */
const MOST_BYTES = 200 * 1024 ** 2;

/** What the worker needs to make the copy of a file that somebody is given in its stead. */
export interface CopyTask {
	task: 'copy';
	path: string;
	mediaType: string;
	size: number;
	/** What its stamp says; null for none. */
	text: string | null;
	/** The marks that are burned in; null for none. */
	marks: GivenMarks | null;
}

/** A copy with marks, or a stamp, or both. Raises `invalid` for what cannot be copied so. */
export async function copied({
	path,
	mediaType,
	size,
	text,
	marks
}: Omit<CopyTask, 'task'>): Promise<Uint8Array> {
	if (!marks) return stamped({ path, mediaType, size, text: text! });
	try {
		const bytes = await markedPdf(path, mediaType, marks);
		return text === null ? bytes : await stampPdf(bytes, text);
	} catch {
		throw new Problem(
			'invalid',
			'The file is locked or damaged and cannot be copied with its marks. Ask the sender for it.'
		);
	}
}

/** Kinds of file that can carry a stamp. */
export function canStamp(mediaType: string): boolean {
	return mediaType === 'application/pdf' || mediaType === 'image/png' || mediaType === 'image/jpeg';
}

/**
 * A copy of a file with a stamp on every page: for whom it was made and when. The original stays as it is.
 * Raises `invalid` for kinds that cannot carry one, and for locked or damaged files.
 */
export async function stamped({
	path,
	mediaType,
	size,
	text
}: Pick<CopyTask, 'path' | 'mediaType' | 'size'> & {
	text: string;
}): Promise<Uint8Array> {
	if (!canStamp(mediaType) || size > MOST_BYTES)
		throw new Problem(
			'invalid',
			'Copies through this pass carry a stamp, and this file cannot carry one. You can look at it; ask the sender for the file.'
		);
	try {
		const bytes = await readFile(path);
		return mediaType === 'application/pdf'
			? await stampPdf(bytes, text)
			: await stampPicture(bytes, mediaType, text);
	} catch {
		throw new Problem(
			'invalid',
			'The file is locked or damaged and cannot be stamped. Ask the sender for it.'
		);
	}
}

async function stampPdf(bytes: Uint8Array, text: string): Promise<Uint8Array> {
	const pdf = await PDFDocument.load(bytes);
	pdf.registerFontkit(fontkit as never);
	const file = await readFile(
		require.resolve('@expo-google-fonts/archivo/600SemiBold/Archivo_600SemiBold.ttf')
	);
	const font = await pdf.embedFont(file, { subset: true });
	for (const page of pdf.getPages()) {
		const { width, height } = page.getSize();
		const size = Math.max(7, Math.min(width, height) / 60);
		const wide = font.widthOfTextAtSize(text, size);
		page.drawRectangle({
			x: 12,
			y: 10,
			width: wide + size * 1.4,
			height: size * 1.9,
			color: rgb(1, 1, 1),
			opacity: 0.85,
			borderColor: rgb(0.7, 0.19, 0.12),
			borderWidth: 1
		});
		page.drawText(text, { x: 12 + size * 0.7, y: 10 + size * 0.55, size, font, color: rgb(0.7, 0.19, 0.12) });
		page.drawText(text, {
			x: width * 0.18,
			y: height * 0.2,
			size: Math.min(width, height) / 22,
			font,
			color: rgb(0.7, 0.19, 0.12),
			opacity: 0.13,
			rotate: degrees(32)
		});
	}
	return pdf.save();
}

function escapeXml(text: string): string {
	return text.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

async function stampPicture(bytes: Uint8Array, mediaType: string, text: string): Promise<Uint8Array> {
	const picture = sharp(bytes, { limitInputPixels: 300e6 }).autoOrient();
	const { width, height } = (await picture.metadata()).autoOrient;
	const size = Math.max(12, Math.round(Math.min(width, height) / 36));
	const band = Math.round(size * 1.9);
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${band}"><rect width="100%" height="100%" fill="#fff" fill-opacity=".85"/><text x="${size}" y="${Math.round(size * 1.35)}" font-family="sans-serif" font-size="${size}" font-weight="600" fill="#b3311f">${escapeXml(text)}</text></svg>`;
	const marked = picture.composite([{ input: Buffer.from(svg), left: 0, top: Math.max(0, height - band) }]);
	return mediaType === 'image/png' ? marked.png().toBuffer() : marked.jpeg({ quality: 90 }).toBuffer();
}

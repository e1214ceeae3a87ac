import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import {
	concatTransformationMatrix,
	degrees,
	PDFDocument,
	popGraphicsState,
	pushGraphicsState,
	rgb
} from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import sharp from 'sharp';
import { Problem } from '../../core/acts/problem';
import { canStamp } from '../../core/files/kinds';
import { pdfGround } from '../../core/markup/burn';
import { MOST_COPIED } from '../../core/releases/copies';
import { markedPdf, type GivenMarks } from '../marks/marked';

const require = createRequire(import.meta.url);

/** A stamp on a copy. */
export interface StampOn {
	/** What it says, a line or several. */
	text: string;
	/** Whether that lies across the whole sheet, too: for copies of which it matters whose they are. */
	across: boolean;
}

/** What the worker needs to make the copy of a file that somebody is given in its stead. */
export interface CopyTask {
	task: 'copy';
	path: string;
	mediaType: string;
	size: number;
	stamp: StampOn | null;
	/** The marks that are burned in; null for none. */
	marks: GivenMarks | null;
}

/** A copy with marks, or a stamp, or both. Raises `invalid` for what cannot be copied so. */
export async function copied({
	path,
	mediaType,
	size,
	stamp,
	marks
}: Omit<CopyTask, 'task'>): Promise<Uint8Array> {
	if (!marks) return stamped({ path, mediaType, size, stamp: stamp! });
	try {
		const bytes = await markedPdf(path, mediaType, marks);
		return stamp === null ? bytes : await stampPdf(bytes, stamp);
	} catch {
		throw new Problem(
			'invalid',
			'The file is locked or damaged and cannot be copied with its marks. Ask the sender for it.'
		);
	}
}

/**
 * A copy of a file with a stamp on every page: The original stays as it is.
 * Raises `invalid` for kinds that cannot carry one, and for locked or damaged files.
 */
export async function stamped({
	path,
	mediaType,
	size,
	stamp
}: Pick<CopyTask, 'path' | 'mediaType' | 'size'> & {
	stamp: StampOn;
}): Promise<Uint8Array> {
	if (!canStamp(mediaType) || size > MOST_COPIED)
		throw new Problem(
			'invalid',
			'Copies through this pass carry a stamp, and this file cannot carry one. You can look at it; ask the sender for the file.'
		);
	try {
		const bytes = await readFile(path);
		return mediaType === 'application/pdf'
			? await stampPdf(bytes, stamp)
			: await stampPicture(bytes, mediaType, stamp);
	} catch {
		throw new Problem(
			'invalid',
			'The file is locked or damaged and cannot be stamped. Ask the sender for it.'
		);
	}
}

const RED = rgb(0.7, 0.19, 0.12);
/** Distance of the stamp from the corner of a page, in points. */
const EDGE = 12;

/** Stamps every page in the lower left corner as it is seen: cut to its crop box and turned. */
async function stampPdf(bytes: Uint8Array, { text, across }: StampOn): Promise<Uint8Array> {
	const pdf = await PDFDocument.load(bytes);
	pdf.registerFontkit(fontkit as never);
	const file = await readFile(
		require.resolve('@expo-google-fonts/archivo/600SemiBold/Archivo_600SemiBold.ttf')
	);
	const font = await pdf.embedFont(file, { subset: true });
	const lines = text.split('\n');
	for (const page of pdf.getPages()) {
		const { toPage } = pdfGround(page);
		const crop = page.getCropBox();
		const [width, height] =
			page.getRotation().angle % 180 === 0 ? [crop.width, crop.height] : [crop.height, crop.width];
		const wanted = Math.max(7, Math.min(width, height) / 60);
		const widest = (size: number) => Math.max(...lines.map((line) => font.widthOfTextAtSize(line, size)));
		// What does not fit beside the edges is written smaller.
		const size = Math.min(wanted, (wanted * (width - 2 * EDGE)) / (widest(wanted) + wanted * 1.4));
		const leading = size * 1.25;
		page.pushOperators(
			pushGraphicsState(),
			concatTransformationMatrix(...toPage),
			// From here on y goes up from the lower edge of what is seen.
			concatTransformationMatrix(1, 0, 0, -1, 0, height)
		);
		page.drawRectangle({
			x: EDGE,
			y: EDGE - 2,
			width: widest(size) + size * 1.4,
			height: leading * lines.length + size * 0.65,
			color: rgb(1, 1, 1),
			opacity: 0.85,
			borderColor: RED,
			borderWidth: 1
		});
		lines.forEach((line, i) =>
			page.drawText(line, {
				x: EDGE + size * 0.7,
				y: EDGE - 2 + size * 0.6 + (lines.length - 1 - i) * leading,
				size,
				font,
				color: RED
			})
		);
		if (across)
			page.drawText(text, {
				x: width * 0.18,
				y: height * 0.2,
				size: Math.min(width, height) / 22,
				font,
				color: RED,
				opacity: 0.13,
				rotate: degrees(32)
			});
		page.pushOperators(popGraphicsState());
	}
	return pdf.save();
}

function escapeXml(text: string): string {
	return text.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

/** The band that a stamp puts along the lower edge of a picture. */
async function stampPicture(bytes: Uint8Array, mediaType: string, { text }: StampOn): Promise<Uint8Array> {
	const picture = sharp(bytes, { limitInputPixels: 300e6 }).autoOrient();
	const { width, height } = (await picture.metadata()).autoOrient;
	const lines = text.split('\n');
	const longest = Math.max(...lines.map((line) => line.length));
	// Letters are about half as wide as they are high; what does not fit is written smaller.
	const size = Math.max(
		8,
		Math.round(Math.min(Math.max(12, Math.min(width, height) / 36), width / (longest * 0.6 + 2)))
	);
	const band = Math.min(height, Math.round(size * (0.65 + 1.25 * lines.length)));
	const rows = lines.map(
		(line, i) =>
			`<text x="${size}" y="${Math.round(size * (1.2 + 1.25 * i))}" font-family="sans-serif" font-size="${size}" font-weight="600" fill="#b3311f">${escapeXml(line)}</text>`
	);
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${band}"><rect width="100%" height="100%" fill="#fff" fill-opacity=".85"/>${rows.join('')}</svg>`;
	const marked = picture.composite([{ input: Buffer.from(svg), left: 0, top: height - band }]);
	return mediaType === 'image/png' ? marked.png().toBuffer() : marked.jpeg({ quality: 90 }).toBuffer();
}

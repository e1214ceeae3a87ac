import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
import { CHECK_LABEL, suitabilityText, type Manifest } from '../../core/releases';
import { ended } from '../../core/words/sentences';
import { leaveRoomForSignature } from './signature-room';

const require = createRequire(import.meta.url);
const INK = rgb(0.09, 0.137, 0.122);
const SOFT = rgb(0.333, 0.392, 0.365);
const RULE = rgb(0.788, 0.827, 0.8);
const A4 = { width: 595.28, height: 841.89, margin: 50 };
const COLUMNS = [
	{ x: 50, w: 150 },
	{ x: 205, w: 220 },
	{ x: 430, w: 45 },
	{ x: 480, w: 65 }
] as const;

/** What the worker needs to write the cover note of a release. */
export interface CoverNoteTask {
	task: 'cover-note';
	manifest: Manifest;
	replyBy: string | null;
	/** Whether it is shown before the issue, and says so. */
	draft?: boolean;
}

async function font(name: string): Promise<Uint8Array> {
	return readFile(require.resolve(`@expo-google-fonts/archivo/${name}.ttf`));
}

/** Most texts that are remembered of a typeface. */
const REMEMBERED = 20_000;
const faces = new Map<string, fontkit.Font>();

/**
 * The typefaces, opened once a process, and each text laid out once: a line is measured before it is drawn, and the notes
 * of one release say much the same to each who gets it.
 */
const REMEMBERING = {
	create(bytes: Buffer) {
		const face = fontkit.create(bytes) as fontkit.Font;
		const known = faces.get(face.postscriptName);
		if (known) return known;
		const runs = new Map<string, fontkit.GlyphRun>();
		const layout = face.layout.bind(face);
		face.layout = (text) => {
			const run = runs.get(text) ?? layout(text);
			if (runs.size >= REMEMBERED) runs.clear();
			runs.set(text, run);
			return run;
		};
		faces.set(face.postscriptName, face);
		return face;
	}
};

/** Cuts a text at a width in points, with an ellipsis. */
function fit(text: string, f: PDFFont, size: number, width: number): string {
	if (f.widthOfTextAtSize(text, size) <= width) return text;
	let [fits, not] = [0, text.length];
	while (not - fits > 1) {
		const middle = (fits + not) >> 1;
		if (f.widthOfTextAtSize(text.slice(0, middle) + '…', size) <= width) fits = middle;
		else not = middle;
	}
	return text.slice(0, fits) + '…';
}

/** The lines of a text, broken at words to a width in points. */
function paragraphs(text: string, f: PDFFont, size: number, width: number): string[] {
	if (!text) return [];
	return text.split('\n').flatMap((line) => {
		const lines = [''];
		// A word that is too long for a line is broken where it has to be.
		const words = line.split(' ').flatMap((word) => word.match(/.{1,60}/gu) ?? ['']);
		for (const word of words) {
			const longer = `${lines.at(-1)} ${word}`.trimStart();
			if (f.widthOfTextAtSize(longer, size) <= width) lines[lines.length - 1] = longer;
			else lines.push(word);
		}
		return lines;
	});
}

/**
 * Makes the cover note that goes out with a release: who, what for, and every document with revision and hash. It has
 * room for a signature, which whoever issues it puts in (`signPdf`); a draft has none.
 */
export async function coverNote(
	manifest: Manifest,
	replyBy: string | null,
	draft = false
): Promise<Uint8Array> {
	const pdf = await PDFDocument.create();
	pdf.registerFontkit(REMEMBERING as never);
	const regular = await pdf.embedFont(await font('400Regular/Archivo_400Regular'), { subset: true });
	const bold = await pdf.embedFont(await font('600SemiBold/Archivo_600SemiBold'), { subset: true });
	// Hashes are read letter by letter; laying them out as words would take most of the time.
	const code = await pdf.embedFont(StandardFonts.Courier);
	pdf.setTitle(`Cover note, release ${manifest.release}`);
	pdf.setCreator('Cupboard');
	pdf.setCreationDate(new Date(manifest.issuedAt));
	pdf.setModificationDate(new Date(manifest.issuedAt));
	let page: PDFPage;
	let y = 0;
	const text = (
		value: string,
		x: number,
		size: number,
		f = regular,
		colour = INK,
		width = A4.width - x - A4.margin
	) => page.drawText(fit(value, f, size, width), { x, y, size, font: f, color: colour });
	const line = (thickness = 0.5, colour = RULE) =>
		page.drawLine({
			start: { x: A4.margin, y },
			end: { x: A4.width - A4.margin, y },
			thickness,
			color: colour
		});
	const heads = () => {
		['Number', 'Title', 'Revision', 'Size'].forEach((head, i) => text(head, COLUMNS[i]!.x, 8, regular, SOFT));
		y -= 6;
		line(1, INK);
		y -= 14;
	};
	const newPage = () => {
		page = pdf.addPage([A4.width, A4.height]);
		y = A4.height - 60;
	};
	newPage();
	text(
		draft ? 'Draft of the cover note, as it would go out now' : 'Cover note',
		A4.margin,
		10,
		regular,
		SOFT
	);
	y -= 26;
	text(`Release ${manifest.release}: ${manifest.title}`, A4.margin, 18, bold);
	y -= 26;
	const status = manifest.suitability ? suitabilityText(manifest.suitability) : '';
	const facts: [string, string][] = [
		['Project', manifest.project],
		['To', manifest.recipient],
		['Purpose', PURPOSE_LABEL[manifest.purpose as Purpose]],
		...(status ? ([['Status', status]] as [string, string][]) : []),
		['Issued', `${manifest.issuedAt.slice(0, 16).replace('T', ' ')} UTC, by ${manifest.issuedBy}`],
		['Approved by', manifest.approvedBy],
		...(replyBy ? ([['Reply asked by', replyBy]] as [string, string][]) : []),
		['Documents', String(manifest.documents.length)]
	];
	if (manifest.trail) facts.push(['Trail', `entry ${manifest.trail.entry}`]);
	for (const [head, value] of facts) {
		text(head, A4.margin, 9, regular, SOFT);
		text(value, 150, 10, bold);
		y -= 17;
	}
	if (manifest.trail) {
		text(`SHA-256 ${manifest.trail.hash}`, 150, 6.5, regular, SOFT);
		y -= 12;
	}
	for (const written of paragraphs(manifest.words ?? '', regular, 10, A4.width - 2 * A4.margin)) {
		if (y < 80) newPage();
		text(written, A4.margin, 10);
		y -= 14;
	}
	y -= 12;
	heads();
	let group = '';
	for (const item of manifest.documents) {
		const begins = item.group !== undefined && item.group !== group;
		// A heading never stands alone at the foot of a page.
		if (y < (begins ? 110 : 80)) {
			newPage();
			heads();
		}
		if (begins) {
			group = item.group!;
			y -= 4;
			text(group, A4.margin, 10, bold);
			y -= 16;
		}
		const cells = [item.number, item.title, item.revision, item.sha256 ? size(item.size) : ''];
		cells.forEach((cell, i) => text(cell, COLUMNS[i]!.x, 9, i === 2 ? bold : regular, INK, COLUMNS[i]!.w));
		y -= 11;
		text(
			`SHA-256 ${item.sha256 || 'of this file is known once it is made, at issue'}`,
			A4.margin,
			6.5,
			code,
			SOFT
		);
		if (item.madeFrom) {
			y -= 9;
			text(
				`${ended(`${item.madeFrom.how[0]!.toUpperCase()}${item.madeFrom.how.slice(1)}`)} Made from SHA-256 ${item.madeFrom.sha256}`,
				A4.margin,
				6.5,
				regular,
				SOFT
			);
		}
		for (const one of item.accepted ?? []) {
			y -= 9;
			text(
				`${CHECK_LABEL[one.check]}: ${one.sentence} ${one.by}: ${one.reason}`,
				A4.margin,
				7.5,
				regular,
				INK
			);
		}
		y -= 6;
		line();
		y -= 13;
	}
	const pages = pdf.getPages();
	pages.forEach((p, i) =>
		p.drawText(`Release ${manifest.release}, page ${i + 1} of ${pages.length}`, {
			x: A4.margin,
			y: 36,
			size: 8,
			font: regular,
			color: SOFT
		})
	);
	if (!draft)
		leaveRoomForSignature(
			pdf,
			`Release ${manifest.release}, issued by ${manifest.issuedBy}`,
			new Date(manifest.issuedAt)
		);
	return pdf.save({ useObjectStreams: false });
}

function size(bytes: number): string {
	return bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`;
}

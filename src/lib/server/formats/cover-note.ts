import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { PDFDocument, StandardFonts, type PDFFont } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
import { suitabilityText, type Manifest } from '../../core/releases';
import { A4, fit, INK, SOFT, type Faces } from './note-look';
import { NoteList } from './note-list';
import { leaveRoomForSignature } from './signature-room';

const require = createRequire(import.meta.url);
/** To whom a cover note goes, and by when their reply is asked. */
export interface NoteTo {
	recipient: string;
	replyBy: string | null;
}

/** What the worker needs to write cover notes of a release: what stands in all of them, and to whom each goes. */
export interface CoverNoteTask {
	task: 'cover-notes';
	manifest: Manifest;
	to: NoteTo[];
	/** Whether they are shown before the issue, and say so. */
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
	const [note] = await coverNotes(manifest, [{ recipient: manifest.recipient, replyBy }], draft);
	return note!;
}

/** The cover notes to several who get the same documents of a release, in their order; see {@link coverNote}. */
export async function coverNotes(manifest: Manifest, to: NoteTo[], draft = false): Promise<Uint8Array[]> {
	const list = new NoteList(manifest.documents, `Release ${manifest.release}`);
	const notes: Uint8Array[] = [];
	for (const { recipient, replyBy } of to)
		notes.push(await written({ ...manifest, recipient }, replyBy, draft, list));
	return notes;
}

async function written(
	manifest: Manifest,
	replyBy: string | null,
	draft: boolean,
	list: NoteList
): Promise<Uint8Array> {
	const pdf = await PDFDocument.create();
	pdf.registerFontkit(REMEMBERING as never);
	const faces: Faces = {
		regular: await pdf.embedFont(await font('400Regular/Archivo_400Regular'), { subset: true }),
		bold: await pdf.embedFont(await font('600SemiBold/Archivo_600SemiBold'), { subset: true }),
		// Laying hashes out as words would take most of the time.
		code: await pdf.embedFont(StandardFonts.Courier)
	};
	pdf.setTitle(`Cover note, release ${manifest.release}`);
	pdf.setCreator('Cupboard');
	pdf.setCreationDate(new Date(manifest.issuedAt));
	pdf.setModificationDate(new Date(manifest.issuedAt));
	const front = frontOf(manifest, replyBy, draft, faces);
	const { y } = front.at(-1)!;
	const pages = list.plan(faces, y, front.length);
	for (const { said } of front) {
		const page = pdf.addPage([A4.width, A4.height]);
		for (const { text, x, y, size, face, color } of said)
			page.drawText(text, { x, y, size, font: faces[face], color });
	}
	list.draw(pdf, faces, y, pages);
	if (!draft)
		leaveRoomForSignature(
			pdf,
			`Release ${manifest.release}, issued by ${manifest.issuedBy}`,
			new Date(manifest.issuedAt)
		);
	return pdf.save({ useObjectStreams: false });
}

interface Placed {
	text: string;
	x: number;
	y: number;
	size: number;
	face: keyof Faces;
	color: typeof INK;
}

/** What stands before the list, by page, and where on the last of them the list begins. */
function frontOf(
	manifest: Manifest,
	replyBy: string | null,
	draft: boolean,
	faces: Faces
): { said: Placed[]; y: number }[] {
	const pages: { said: Placed[]; y: number }[] = [];
	let y = 0;
	const newPage = () => {
		pages.push({ said: [], y: 0 });
		y = A4.height - 60;
	};
	const text = (value: string, x: number, size: number, face: keyof Faces = 'regular', color = INK) =>
		pages
			.at(-1)!
			.said.push({ text: fit(value, faces[face], size, A4.width - x - A4.margin), x, y, size, face, color });
	newPage();
	text(
		draft ? 'Draft of the cover note, as it would go out now' : 'Cover note',
		A4.margin,
		10,
		'regular',
		SOFT
	);
	y -= 26;
	text(`Release ${manifest.release}: ${manifest.title}`, A4.margin, 18, 'bold');
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
		text(head, A4.margin, 9, 'regular', SOFT);
		text(value, 150, 10, 'bold');
		y -= 17;
	}
	if (manifest.trail) {
		text(`SHA-256 ${manifest.trail.hash}`, 150, 6.5, 'regular', SOFT);
		y -= 12;
	}
	for (const line of paragraphs(manifest.words ?? '', faces.regular, 10, A4.width - 2 * A4.margin)) {
		if (y < 80) newPage();
		text(line, A4.margin, 10);
		y -= 14;
	}
	pages.at(-1)!.y = y - 12;
	return pages;
}

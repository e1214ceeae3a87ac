import {
	PDFName,
	PDFRawStream,
	type PDFContentStream,
	type PDFDocument,
	type PDFFont,
	type PDFPage,
	type PDFRef
} from '@cantoo/pdf-lib';
import { CHECK_LABEL, type ManifestItem } from '../../core/releases';
import { ended } from '../../core/words/sentences';
import { A4, fit, INK, RULE, SOFT, type Faces } from './note-look';

const COLUMNS = [
	{ x: 50, w: 150 },
	{ x: 205, w: 220 },
	{ x: 430, w: 45 },
	{ x: 480, w: 65 }
] as const;
/** Where the first line of a page stands, and the lowest one of an entry may, in points from below. */
const TOP = A4.height - 60;
const LOWEST = { entry: 80, heading: 110 };

/** One text of an entry; `down` is how far below the top of the entry it stands, in points. */
interface Said {
	face: keyof Faces;
	text: string;
	x: number;
	down: number;
	size: number;
	soft?: boolean;
}
/** An entry of the list with what stands over it, as high as it is in points; `rule` is how far down its line is. */
interface Entry {
	heading: boolean;
	said: Said[];
	rule: number;
	height: number;
}
/** A page of the list, as it was drawn once. */
interface Drawn {
	content: Uint8Array;
	/** By which name the page calls which typeface. */
	fonts: [name: PDFName, face: keyof Faces][];
}

/**
 * The list of documents of a cover note. Notes to several who get the same documents share it: its entries are laid out
 * once, and a page that holds nothing else is drawn once.
 */
export class NoteList {
	private entries: Entry[] | null = null;
	/** What its entries say in the typefaces of which only the letters used go along, each once. */
	private readonly letters: [face: keyof Faces, text: string][] = [];
	private readonly drawn = new Map<string, Drawn>();

	/** @param foot what stands below each page before its number */
	constructor(
		private readonly items: readonly ManifestItem[],
		private readonly foot: string
	) {}

	private laidOut(faces: Faces): Entry[] {
		if (this.entries) return this.entries;
		let group = '';
		this.entries = this.items.map((item) => {
			const heading = item.group !== undefined && item.group !== group;
			group = item.group ?? '';
			return entryOf(item, heading, faces);
		});
		for (const face of ['regular', 'bold'] as const) {
			const said = [HEADS, ...this.entries].flatMap((entry) => entry.said);
			const texts = new Set(said.filter((one) => one.face === face).map(({ text }) => text));
			for (const text of texts) this.letters.push([face, text]);
		}
		return this.entries;
	}

	/**
	 * Puts its entries on pages. To be asked before anything is written in the typefaces: what the list says has the same
	 * codes in every note then.
	 * @param y of its first line on the last page of what stands before it, in points from below
	 * @param front how many pages that takes
	 */
	plan(faces: Faces, y: number, front: number): Entry[][] {
		const pages: Entry[][] = [[]];
		let left = y - HEADS.height;
		for (const entry of this.laidOut(faces)) {
			if (left < (entry.heading ? LOWEST.heading : LOWEST.entry)) {
				pages.push([]);
				left = TOP - HEADS.height;
			}
			pages.at(-1)!.push(entry);
			left -= entry.height;
		}
		for (const [face, text] of this.letters) faces[face].encodeText(text);
		pages.forEach((_, i) => faces.regular.encodeText(this.numberOf(front + i, front + pages.length - 1)));
		return pages;
	}

	private numberOf(page: number, of: number): string {
		return `${this.foot}, page ${page} of ${of}`;
	}

	/** Draws it as it was planned, with the numbers of all pages. */
	draw(pdf: PDFDocument, faces: Faces, y: number, pages: Entry[][]): void {
		const front = pdf.getPageCount();
		const all = front + pages.length - 1;
		const number = (page: PDFPage, n: number) =>
			page.drawText(this.numberOf(n, all), {
				x: A4.margin,
				y: 36,
				size: 8,
				font: faces.regular,
				color: SOFT
			});
		pdf.getPages().forEach((page, i) => number(page, i + 1));
		drawEntries(pdf.getPage(front - 1), faces, y, pages[0]!);
		let before = pages[0]!.length;
		pages.slice(1).forEach((entries, i) => {
			const page = pdf.addPage([A4.width, A4.height]);
			const key = `${before} ${front + i + 1} ${all}`;
			before += entries.length;
			const drawn = this.drawn.get(key);
			if (drawn) return put(pdf, page, drawn, faces);
			drawEntries(page, faces, TOP, entries);
			number(page, front + i + 1);
			this.drawn.set(key, taken(pdf, page, faces));
		});
	}
}

/** What stands over the columns, on every page. */
const HEADS: Entry = {
	heading: false,
	said: ['Number', 'Title', 'Revision', 'Size'].map((text, i) => ({
		...{ face: 'regular' as const, text, size: 8, down: 0, soft: true },
		x: COLUMNS[i]!.x
	})),
	rule: 6,
	height: 20
};

function entryOf(item: ManifestItem, heading: boolean, faces: Faces): Entry {
	const said: Said[] = [];
	let down = 0;
	const say = (text: string, x: number, size: number, face: keyof Faces, soft: boolean, width?: number) =>
		said.push({
			...{ face, x, down, size, soft },
			text: fit(text, faces[face], size, width ?? A4.width - x - A4.margin)
		});
	if (heading) {
		down += 4;
		say(item.group!, A4.margin, 10, 'bold', false);
		down += 16;
	}
	const cells = [item.number, item.title, item.revision, item.sha256 ? sizeOf(item.size) : ''];
	cells.forEach((cell, i) => say(cell, COLUMNS[i]!.x, 9, i === 2 ? 'bold' : 'regular', false, COLUMNS[i]!.w));
	down += 11;
	// Hashes are read letter by letter.
	const hash = item.sha256 || 'of this file is known once it is made, at issue';
	say(`SHA-256 ${hash}`, A4.margin, 6.5, 'code', true);
	if (item.madeFrom) {
		down += 9;
		const how = ended(`${item.madeFrom.how[0]!.toUpperCase()}${item.madeFrom.how.slice(1)}`);
		say(`${how} Made from SHA-256 ${item.madeFrom.sha256}`, A4.margin, 6.5, 'regular', true);
	}
	for (const one of item.accepted ?? []) {
		down += 9;
		const why = `${CHECK_LABEL[one.check]}: ${one.sentence} ${one.by}: ${one.reason}`;
		say(why, A4.margin, 7.5, 'regular', false);
	}
	return { heading, said, rule: down + 6, height: down + 19 };
}

function drawEntries(page: PDFPage, faces: Faces, from: number, entries: Entry[]): void {
	let y = from;
	for (const entry of [HEADS, ...entries]) {
		for (const { face, text, x, down, size, soft } of entry.said)
			page.drawText(text, { x, y: y - down, size, font: faces[face], color: soft ? SOFT : INK });
		const [thickness, color] = entry === HEADS ? [1, INK] : [0.5, RULE];
		const at = y - entry.rule;
		page.drawLine({
			...{ thickness, color },
			start: { x: A4.margin, y: at },
			end: { x: A4.width - A4.margin, y: at }
		});
		y -= entry.height;
	}
}

/** What was drawn on a page, to be put into another document that has the same typefaces. */
function taken(pdf: PDFDocument, page: PDFPage, faces: Faces): Drawn {
	const { Contents, Font } = page.node.normalizedEntries();
	const stream = pdf.context.lookup(Contents!.get(0)) as unknown as PDFContentStream;
	const named = (Object.entries(faces) as [keyof Faces, PDFFont][]).map(
		([face, font]) => [font.ref, face] as [PDFRef, keyof Faces]
	);
	return {
		content: stream.getContents(),
		fonts: Font.entries().map(([name, ref]) => [name, named.find(([own]) => own === ref)![1]])
	};
}

function put(pdf: PDFDocument, page: PDFPage, { content, fonts }: Drawn, faces: Faces): void {
	const dictionary = pdf.context.obj({ Filter: 'FlateDecode', Length: content.length });
	page.node.set(PDFName.of('Contents'), pdf.context.register(PDFRawStream.of(dictionary, content)));
	for (const [name, face] of fonts) page.node.setFontDictionary(name, faces[face].ref);
}

function sizeOf(bytes: number): string {
	return bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`;
}

import type { Table } from '../compare/tables';

/** A sheet of a schedule with its cells as the file's own program would show them, where that differs. */
export interface ShownTable extends Table {
	shown: string[][] | null;
	/** How many cells are worked out, and how many carry a comment. */
	formulas: number;
	comments: number;
	/** There are more rows or columns than were read. */
	cut: boolean;
}

/** Size of a page in its own units: points of a PDF, pixels of a picture, units of a drawing. */
export interface ShownPage {
	width: number;
	height: number;
	/** Where a drawing's page begins, in its own coordinates with y upward. */
	left?: number;
	top?: number;
	/** What the page is called. */
	name?: string;
	/** What is not shown of it, as words; empty when all is. */
	note?: string;
}

/** A mail: its head line by line, what it says as HTML to be cleaned, and the files that came with it. */
export interface ShownMail {
	kind: 'mail';
	head: { label: string; value: string }[];
	/** When it was sent, in UTC as ISO 8601 says it. */
	sent: string | null;
	html: string;
	attachments: { name: string; size: number }[];
}

/**
 * What the server makes of a file for those who may view it and not take it: pictures, text and tables that show it,
 * while the file's own bytes stay where they are.
 */
export type Shown =
	/** Page by page as pictures; `words` says whether they can be found in. */
	| { kind: 'pages'; unit: string; pages: ShownPage[]; words: boolean }
	/** HTML that whoever shows it still has to clean. */
	| { kind: 'text'; html: string }
	/** `views` names pictures of it, which are its pages. */
	| { kind: 'table'; tables: ShownTable[]; views?: string[] }
	| ShownMail
	| { kind: 'archive'; entries: { name: string; size: number; locked: boolean }[]; more: boolean }
	| { kind: 'none'; sentence: string };

/** A run of words on a page, in the page's units with y downward. */
export interface ShownWord {
	text: string;
	x: number;
	y: number;
	w: number;
	h: number;
}

/** Most pixels across or down of a page that is drawn for showing it. */
export const MOST_SHOWN_PIXELS = 6_000;

/** A place on a page where words were found. */
export interface FoundPlace {
	x: number;
	y: number;
	w: number;
	h: number;
}

/**
 * Places where a page's words hold what is looked for, whatever the case and however the lines break.
 * @param words in reading order
 */
export function findWords(words: readonly ShownWord[], query: string): FoundPlace[] {
	const wanted = query.trim().toLowerCase().split(/\s+/).join(' ');
	if (!wanted) return [];
	const starts: number[] = [];
	let line = '';
	for (const word of words) {
		starts.push(line.length);
		line += word.text.toLowerCase() + ' ';
	}
	const places: FoundPlace[] = [];
	for (let at = line.indexOf(wanted); at >= 0; at = line.indexOf(wanted, at + wanted.length)) {
		const end = at + wanted.length;
		const within = words.filter((w, i) => starts[i]! < end && starts[i]! + w.text.length > at);
		// What goes over a line end lies in two places.
		const rows: ShownWord[][] = [];
		for (const word of within) {
			const row = rows.at(-1);
			if (row && Math.abs(row[0]!.y - word.y) < row[0]!.h / 2) row.push(word);
			else rows.push([word]);
		}
		for (const row of rows) {
			const x = Math.min(...row.map((w) => w.x));
			const y = Math.min(...row.map((w) => w.y));
			const right = Math.max(...row.map((w) => w.x + w.w));
			const bottom = Math.max(...row.map((w) => w.y + w.h));
			places.push({ x, y, w: right - x, h: bottom - y });
		}
	}
	return places;
}

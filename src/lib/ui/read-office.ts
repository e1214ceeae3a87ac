import { Unreadable } from './unreadable';
import { withoutTrailing, type Table } from '../core/compare/tables';
import { tellSeparator } from '../core/csv';
import { decodeText, type Encoding } from '../core/encoding';
import type { LiveKind } from '../core/live';

/** Kinds of file that are read as text in paragraphs, and as schedules. */
export const TEXT_KINDS = [
	'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	'application/vnd.oasis.opendocument.text',
	'text/markdown',
	'text/plain'
];
const ODS = 'application/vnd.oasis.opendocument.spreadsheet';
export const TABLE_KINDS = [
	'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
	ODS,
	'text/csv'
];

/** What a file of a kind becomes when it is worked on live, or null when it cannot be. */
export function liveKindOf(mediaType: string): LiveKind | null {
	if (TEXT_KINDS.includes(mediaType) || mediaType === 'text/html') return 'text';
	if (TABLE_KINDS.includes(mediaType)) return 'schedule';
	return mediaType === 'image/vnd.dxf' ? 'drawing' : null;
}

/** Most bytes that are unpacked from one office file; more is a bomb or not for reading here. */
const MOST_UNPACKED = 300e6;

async function checkPackage(bytes: ArrayBuffer): Promise<void> {
	const { unzipSync } = await import('fflate');
	let size = 0;
	unzipSync(new Uint8Array(bytes), {
		filter(file) {
			size += file.originalSize;
			if (size > MOST_UNPACKED) throw new Unreadable('Unpacked, this file is too large to show here.');
			return false;
		}
	});
}

/**
 * HTML that is safe to show: nothing in it runs, and its pictures are its own. A picture from an address could have
 * anything of the application fetched in its reader's name.
 */
export async function cleanHtml(html: string): Promise<string> {
	const { default: purify } = await import('dompurify');
	const cleaner = purify();
	cleaner.addHook('uponSanitizeAttribute', (_, data) => {
		const fetches = ['src', 'srcset', 'poster', 'background', 'data'].includes(data.attrName);
		if (fetches && !/^data:image\//i.test(data.attrValue)) data.keepAttr = false;
	});
	return cleaner.sanitize(html, {
		FORBID_TAGS: ['style', 'form', 'input', 'link', 'audio', 'video', 'iframe', 'object', 'embed'],
		FORBID_ATTR: ['style']
	});
}

/**
 * Reads a text document as HTML that is safe to show.
 * @param encoding of plain kinds of text, when somebody knows it; otherwise it is told from the bytes
 * Raises {@link Unreadable} for a file that is damaged, locked or too large.
 */
export async function readText(
	bytes: ArrayBuffer,
	mediaType: string,
	encoding: Encoding | null = null
): Promise<string> {
	const written = () => decodeText(new Uint8Array(bytes), encoding).text;
	try {
		if (mediaType === 'text/plain') {
			return written()
				.split(/\r?\n/)
				.map((line) => `<p>${escape(line)}</p>`)
				.join('');
		}
		if (mediaType === 'text/markdown') {
			const { marked } = await import('marked');
			return await cleanHtml(await marked.parse(written(), { gfm: true }));
		}
		if (mediaType === 'text/html') return await cleanHtml(written());
		await checkPackage(bytes);
		if (mediaType === 'application/vnd.oasis.opendocument.text') {
			const { readOdt } = await import('./read-odt');
			return await cleanHtml(await readOdt(bytes));
		}
		const { readDocx } = await import('./read-docx');
		return await cleanHtml(await readDocx(bytes));
	} catch (error) {
		if (error instanceof Unreadable) throw error;
		throw new Unreadable('This file is damaged or locked and cannot be shown.', { cause: error });
	}
}

/** The paragraphs, headings, list items and table rows of a text, for comparing. */
export function paragraphsOf(html: string): string[] {
	const body = new DOMParser().parseFromString(html, 'text/html').body;
	const found: string[] = [];
	for (const element of body.querySelectorAll('h1,h2,h3,h4,h5,h6,p,li,tr,pre')) {
		if (element.parentElement?.closest('tr, li') && element.tagName !== 'TR' && element.tagName !== 'LI')
			continue;
		const parts =
			element.tagName === 'TR'
				? [...element.children].map((c) => c.textContent?.trim() ?? '')
				: [ownText(element)];
		const text = parts.join(' | ').trim();
		if (text) found.push(text);
	}
	return found;
}

/** Text of an element without what stands in lists inside it. */
function ownText(element: Element): string {
	const copy = element.cloneNode(true) as Element;
	copy.querySelectorAll('ul, ol').forEach((inner) => inner.remove());
	return copy.textContent ?? '';
}

/** A cell as it is shown: the result of a formula, a date as a day, rich text as plain. */
function cellText(value: unknown): string {
	if (value === null || value === undefined) return '';
	if (value instanceof Date)
		return value
			.toISOString()
			.slice(0, value.getUTCHours() ? 16 : 10)
			.replace('T', ' ');
	if (typeof value === 'number') return String(Math.round(value * 1e10) / 1e10);
	if (typeof value !== 'object') return String(value);
	const cell = value as { result?: unknown; text?: unknown; richText?: { text: string }[]; error?: string };
	if (cell.richText) return cell.richText.map((r) => r.text).join('');
	if (cell.error) return cell.error;
	return cellText(cell.result ?? cell.text ?? '');
}

/** Most rows of a sheet and columns of a row that are read. */
const MOST_ROWS = 50_000;
const MOST_COLUMNS = 400;

/**
 * Reads a schedule as its sheets; rows that hold nothing keep their numbers.
 * @param encoding of CSV, when somebody knows it; otherwise it is told from the bytes
 * Raises {@link Unreadable} for a file that is damaged, locked or too large.
 */
export async function readTables(
	bytes: ArrayBuffer,
	mediaType: string,
	name: string,
	encoding: Encoding | null = null
): Promise<Table[]> {
	try {
		if (mediaType === 'text/csv') {
			const { default: Papa } = await import('papaparse');
			const { text } = decodeText(new Uint8Array(bytes), encoding);
			const { data } = Papa.parse<string[]>(text, {
				preview: MOST_ROWS,
				delimiter: tellSeparator(text)
			});
			return [{ name, rows: withoutTrailing(data.map((r) => (r.length > 1 || r[0] ? r : []))) }];
		}
		await checkPackage(bytes);
		if (mediaType === ODS) {
			const { readOds } = await import('./read-ods');
			return readOds(bytes, { rows: MOST_ROWS, columns: MOST_COLUMNS });
		}
		const { default: excel } = await import('exceljs');
		const book = new excel.Workbook();
		await book.xlsx.load(bytes);
		return book.worksheets.map((sheet) => {
			const rows: string[][] = [];
			sheet.eachRow({ includeEmpty: false }, (row, number) => {
				if (number > MOST_ROWS) return;
				const cells: string[] = [];
				for (let c = 1; c <= Math.min(row.cellCount, MOST_COLUMNS); c++)
					cells.push(cellText(row.getCell(c).value));
				// Rows that hold nothing keep their numbers.
				while (rows.length < number - 1) rows.push([]);
				rows.push(cells);
			});
			return { name: sheet.name, rows };
		});
	} catch (error) {
		if (error instanceof Unreadable) throw error;
		throw new Unreadable('This file is damaged or locked and cannot be shown.', { cause: error });
	}
}

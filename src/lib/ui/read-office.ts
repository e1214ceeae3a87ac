import type { Table } from '../core/compare/tables';

/** Kinds of file that are read as text in paragraphs, and as schedules. */
export const TEXT_KINDS = [
	'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	'application/vnd.oasis.opendocument.text',
	'text/markdown',
	'text/plain'
];
export const TABLE_KINDS = ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'text/csv'];

/** Most bytes that are unpacked from one office file; more is a bomb or not for reading here. */
const MOST_UNPACKED = 300e6;

/** A file that cannot be shown, with the reason in a sentence. */
export class Unreadable extends Error {}

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

async function clean(html: string): Promise<string> {
	const { default: purify } = await import('dompurify');
	return purify.sanitize(html, { FORBID_TAGS: ['style', 'form', 'input'], FORBID_ATTR: ['style'] });
}

/** Tags of OpenDocument text (OASIS ODF 1.3, part 3) and what they become. */
const ODF_TAGS: Record<string, string> = {
	'text:p': 'p',
	'text:list': 'ul',
	'text:list-item': 'li',
	'table:table': 'table',
	'table:table-row': 'tr',
	'table:table-cell': 'td'
};

const escape = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

function odfToHtml(node: Node): string {
	if (node.nodeType === Node.TEXT_NODE) return escape(node.nodeValue ?? '');
	if (!(node instanceof Element)) return '';
	const name = node.nodeName;
	if (name === 'text:s') return ' '.repeat(Math.min(100, Number(node.getAttribute('text:c')) || 1));
	if (name === 'text:tab') return '\t';
	if (name === 'text:line-break') return '<br>';
	if (['office:annotation', 'text:tracked-changes', 'text:sequence-decls'].includes(name)) return '';
	const inside = [...node.childNodes].map(odfToHtml).join('');
	if (name === 'text:h') {
		const level = Math.min(6, Math.max(1, Number(node.getAttribute('text:outline-level')) || 1));
		return `<h${level}>${inside}</h${level}>`;
	}
	const tag = ODF_TAGS[name];
	return tag ? `<${tag}>${inside}</${tag}>` : inside;
}

async function readOdt(bytes: ArrayBuffer): Promise<string> {
	const { unzipSync, strFromU8 } = await import('fflate');
	const entry = unzipSync(new Uint8Array(bytes), { filter: (f) => f.name === 'content.xml' })['content.xml'];
	if (!entry) throw new Unreadable('This file has no content that can be read.');
	const xml = new DOMParser().parseFromString(strFromU8(entry), 'application/xml');
	const body = xml.getElementsByTagName('office:text')[0];
	if (!body) throw new Unreadable('This file has no content that can be read.');
	return odfToHtml(body);
}

/**
 * Reads a text document as HTML that is safe to show.
 * Raises {@link Unreadable} for a file that is damaged, locked or too large.
 */
export async function readText(bytes: ArrayBuffer, mediaType: string): Promise<string> {
	try {
		if (mediaType === 'text/plain') {
			const text = new TextDecoder().decode(bytes);
			return text
				.split(/\r?\n/)
				.map((line) => `<p>${escape(line)}</p>`)
				.join('');
		}
		if (mediaType === 'text/markdown') {
			const { marked } = await import('marked');
			return await clean(await marked.parse(new TextDecoder().decode(bytes), { gfm: true }));
		}
		await checkPackage(bytes);
		if (mediaType === 'application/vnd.oasis.opendocument.text') return await clean(await readOdt(bytes));
		const { default: mammoth } = await import('mammoth');
		return await clean((await mammoth.convertToHtml({ arrayBuffer: bytes })).value);
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
 * Reads a schedule as its sheets.
 * Raises {@link Unreadable} for a file that is damaged, locked or too large.
 */
export async function readTables(bytes: ArrayBuffer, mediaType: string, name: string): Promise<Table[]> {
	try {
		if (mediaType === 'text/csv') {
			const { default: Papa } = await import('papaparse');
			const text = new TextDecoder().decode(bytes).replace(/^\ufeff/, '');
			const { data } = Papa.parse<string[]>(text, { preview: MOST_ROWS });
			return [{ name, rows: data.filter((r) => r.length > 1 || r[0]) }];
		}
		await checkPackage(bytes);
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
				rows.push(cells);
			});
			return { name: sheet.name, rows };
		});
	} catch (error) {
		if (error instanceof Unreadable) throw error;
		throw new Unreadable('This file is damaged or locked and cannot be shown.', { cause: error });
	}
}

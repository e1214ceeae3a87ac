import { strFromU8, unzipSync } from 'fflate';
import { withoutTrailing, type Table } from '../core/compare/tables';
import { Unreadable } from './unreadable';

const OFFICE = 'urn:oasis:names:tc:opendocument:xmlns:office:1.0';
const TABLE = 'urn:oasis:names:tc:opendocument:xmlns:table:1.0';
const TEXT = 'urn:oasis:names:tc:opendocument:xmlns:text:1.0';

/** Most times that one row or cell is repeated; empty ones at the ends are repeated a million times. */
const MOST_REPEATED = 2_000;

/** What a cell says: numbers and days by their value, everything else by its paragraphs (ODF 1.3, part 3, 19.385). */
function textOf(cell: Element): string {
	const type = cell.getAttributeNS(OFFICE, 'value-type');
	if (type === 'float' || type === 'currency' || type === 'percentage')
		return String(Number(cell.getAttributeNS(OFFICE, 'value')));
	if (type === 'date')
		return (cell.getAttributeNS(OFFICE, 'date-value') ?? '').replace('T', ' ').replace(/ 00:00:00$/, '');
	return [...cell.children]
		.filter((child) => child.namespaceURI === TEXT && child.localName === 'p')
		.map(lineOf)
		.join('\n');
}

/** The words of a paragraph; blanks, tabs and line breaks are elements there (ODF 1.3, part 3, 6.1). */
function lineOf(node: Node): string {
	if (!(node instanceof Element)) return (node.nodeValue ?? '').replace(/\s+/g, ' ');
	if (node.namespaceURI === TEXT) {
		if (node.localName === 's') return ' '.repeat(Math.min(100, Number(node.getAttributeNS(TEXT, 'c')) || 1));
		if (node.localName === 'tab') return '\t';
		if (node.localName === 'line-break') return '\n';
	}
	if (node.localName === 'annotation') return '';
	return [...node.childNodes].map(lineOf).join('');
}

const repeated = (element: Element, what: 'columns' | 'rows') =>
	Math.min(MOST_REPEATED, Math.max(1, Number(element.getAttributeNS(TABLE, `number-${what}-repeated`)) || 1));

/**
 * Reads the sheets of an OpenDocument spreadsheet.
 * @param most rows and columns of a sheet
 * Raises {@link Unreadable} when it is none.
 */
export function readOds(bytes: ArrayBuffer, most: { rows: number; columns: number }): Table[] {
	const { 'content.xml': content } = unzipSync(new Uint8Array(bytes), {
		filter: (f) => f.name === 'content.xml'
	});
	if (!content) throw new Unreadable('This file is damaged and cannot be shown.');
	const page = new DOMParser().parseFromString(strFromU8(content), 'application/xml');
	return [...page.getElementsByTagNameNS(TABLE, 'table')].map((table) => {
		const rows: string[][] = [];
		for (const row of table.getElementsByTagNameNS(TABLE, 'table-row')) {
			const cells: string[] = [];
			for (const cell of row.children) {
				if (!/^(covered-)?table-cell$/.test(cell.localName)) continue;
				const text = textOf(cell);
				for (let i = repeated(cell, 'columns'); i > 0 && cells.length < most.columns; i--) cells.push(text);
			}
			while (cells.at(-1) === '') cells.pop();
			// What is repeated without end is nothing; what lies between keeps its number.
			if (cells.length || repeated(row, 'rows') < MOST_REPEATED)
				for (let i = repeated(row, 'rows'); i > 0 && rows.length < most.rows; i--) rows.push([...cells]);
		}
		return { name: table.getAttributeNS(TABLE, 'name') ?? 'Sheet', rows: withoutTrailing(rows) };
	});
}

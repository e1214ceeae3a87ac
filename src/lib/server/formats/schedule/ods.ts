import { strToU8, zipSync } from 'fflate';
import { cellShown } from '../../../core/schedule/cell';
import type { CellValue, Column, Schedule, Total } from '../../../core/schedule/column';
import { RULES_SHEET, rulesTable } from '../../../core/schedule/exchange';
import { asCells, columnLetters, Formulas } from '../../../core/schedule/formula';
import { totalOf, valueIn } from '../../../core/schedule/arrange';
import { MEDIA_TYPE, type About } from '../../../core/files/media';
import { escapeXml, odfWords } from '../text/parts';

const SPACES =
	'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:number="urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0" xmlns:of="urn:oasis:names:tc:opendocument:xmlns:of:1.2" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" office:version="1.3"';
const XML = '<?xml version="1.0" encoding="UTF-8"?>';
const FUNCTION: Record<Exclude<Total, 'none'>, string> = {
	sum: 'SUM',
	count: 'COUNTA',
	mean: 'AVERAGE',
	least: 'MIN',
	most: 'MAX'
};

/** Each line of a cell is a paragraph. */
const words = (text: string) =>
	text
		.split('\n')
		.map((line) => `<text:p>${odfWords(line)}</text:p>`)
		.join('');

/** A formula as OpenDocument writes it (ODF 1.3, part 4): cells in brackets with a point before them, `;` between arguments. */
function openFormula(cells: string): string {
	let quoted = false;
	return [...cells.matchAll(/"|,|[A-Z]{1,2}\d+(?!\()|[^",A-Z]+|[A-Z]+/g)]
		.map(([piece]) => {
			if (piece === '"') quoted = !quoted;
			if (quoted || piece === '"') return piece;
			if (piece === ',') return ';';
			return /^[A-Z]{1,2}\d+$/.test(piece) ? `[.${piece}]` : piece;
		})
		.join('');
}

function cell(column: Column, value: CellValue | null, formula: string | null): string {
	const said = formula ? ` table:formula="of:=${escapeXml(openFormula(formula))}"` : '';
	if (value === null) return said ? `<table:table-cell${said}/>` : '<table:table-cell/>';
	const shown = words(cellShown(column, value));
	if (typeof value === 'number')
		return `<table:table-cell${said} office:value-type="float" office:value="${value}">${words(String(value))}</table:table-cell>`;
	if (column.kind === 'date' && /^\d{4}-\d{2}-\d{2}$/.test(value))
		return `<table:table-cell table:style-name="Day" office:value-type="date" office:date-value="${value}">${shown}</table:table-cell>`;
	return `<table:table-cell${said} office:value-type="string">${words(value)}</table:table-cell>`;
}

const plainRow = (cells: string[], style = '') =>
	`<table:table-row>${cells.map((text) => `<table:table-cell${style} office:value-type="string">${words(text)}</table:table-cell>`).join('')}</table:table-row>`;

/** Writes a schedule as an OpenDocument spreadsheet (OASIS ODF 1.3). */
export function toOds({ columns, rows }: Schedule, about: About): Uint8Array {
	const formulas = new Formulas(columns);
	const name = about.number.replace(/[\\/*?:[\]']/g, ' ').slice(0, 31) || 'Schedule';
	const head = ' table:style-name="Head"';
	const body = rows
		.map(
			(row, at) =>
				`<table:table-row>${columns.map((c) => cell(c, valueIn(row, c, formulas), c.kind === 'formula' ? asCells(c.formula, columns, at + 2) : null)).join('')}</table:table-row>`
		)
		.join('');
	const widths = columns
		.map(
			(c, i) =>
				`<style:style style:name="W${i}" style:family="table-column"><style:table-column-properties style:column-width="${(c.width / 38).toFixed(2)}cm"/></style:style>`
		)
		.join('');
	const totals = columns
		.filter((c) => c.total !== 'none')
		.map((c) => {
			const letters = columnLetters(columns.indexOf(c));
			const value = totalOf(rows, c, formulas);
			return `<table:table-row>${[c.name, c.total].map((text) => `<table:table-cell office:value-type="string">${words(text)}</table:table-cell>`).join('')}<table:table-cell table:formula="of:=${FUNCTION[c.total as Exclude<Total, 'none'>]}([$'${escapeXml(name)}'.${letters}2:.${letters}${rows.length + 1}])" office:value-type="float" office:value="${value ?? 0}">${words(String(value ?? 0))}</table:table-cell></table:table-row>`;
		})
		.join('');
	const table = (of: string, inner: string) =>
		`<table:table table:name="${escapeXml(of)}">${inner}</table:table>`;
	const content = `${XML}<office:document-content ${SPACES}><office:automatic-styles><number:date-style style:name="DayStyle"><number:day/><number:text> </number:text><number:month number:textual="true"/><number:text> </number:text><number:year number:style="long"/></number:date-style><style:style style:name="Day" style:family="table-cell" style:data-style-name="DayStyle"/><style:style style:name="Head" style:family="table-cell"><style:table-cell-properties fo:background-color="#e9eeea"/><style:text-properties fo:font-weight="bold"/></style:style>${widths}</office:automatic-styles><office:body><office:spreadsheet>${table(
		name,
		`${columns.map((_, i) => `<table:table-column table:style-name="W${i}"/>`).join('')}<table:table-header-rows>${plainRow(
			columns.map((c) => c.name),
			head
		)}</table:table-header-rows>${body}`
	)}${totals && rows.length ? table('Totals', totals) : ''}${table(
		RULES_SHEET,
		rulesTable(columns)
			.map((line) => plainRow(line))
			.join('')
	)}</office:spreadsheet></office:body></office:document-content>`;
	const meta = `${XML}<office:document-meta ${SPACES}><office:meta><dc:title>${escapeXml(`${about.number} ${about.title}`)}</dc:title></office:meta></office:document-meta>`;
	const pieces = ['content.xml', 'meta.xml'];
	const manifest = `${XML}<manifest:manifest ${SPACES} manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:media-type="${MEDIA_TYPE.ods}" manifest:version="1.3"/>${pieces.map((p) => `<manifest:file-entry manifest:full-path="${p}" manifest:media-type="text/xml"/>`).join('')}</manifest:manifest>`;
	const still = { mtime: new Date('2000-01-01T12:00:00') };
	return zipSync({
		// First, and not compressed, so that the kind of file can be told from its first bytes.
		mimetype: [strToU8(MEDIA_TYPE.ods), { level: 0, ...still }],
		'content.xml': [strToU8(content), still],
		'meta.xml': [strToU8(meta), still],
		'META-INF/manifest.xml': [strToU8(manifest), still]
	} as never);
}

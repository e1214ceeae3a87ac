import { strFromU8, unzipSync } from 'fflate';
import { SaxesParser } from 'saxes';
import { withoutTrailing } from '../../core/compare/tables';
import { Unreadable } from '../package/fault';
import type { ShownTable } from '../../core/files/shown';
import type { Most } from './sheet';

/** Most times that one row or cell is repeated; empty ones at the ends are repeated a million times. */
const MOST_REPEATED = 2_000;

interface Cell {
	/** What its value says, where it is a figure or a day; null where its words are its value. */
	value: string | null;
	lines: string[];
	times: number;
}

/** Numbers and days by their value, everything else by its paragraphs (ODF 1.3, part 3, 19.385). */
function valueOf(attributes: Record<string, string>): string | null {
	const type = attributes['office:value-type'];
	if (type === 'float' || type === 'currency' || type === 'percentage')
		return String(Number(attributes['office:value']));
	if (type === 'date')
		return (attributes['office:date-value'] ?? '').replace('T', ' ').replace(/ 00:00:00$/, '');
	return null;
}

/** The sheets of an OpenDocument spreadsheet. Throws when it is damaged. */
export function odsTables(bytes: Uint8Array, most: Most): ShownTable[] {
	const { 'content.xml': content } = unzipSync(bytes, { filter: (f) => f.name === 'content.xml' });
	if (!content) throw new Unreadable('This file is damaged and cannot be shown.');
	const tables: (ShownTable & { shown: string[][] })[] = [];
	const parser = new SaxesParser();
	let row: Cell[] = [];
	let timesRow = 1;
	let cell: Cell | null = null;
	/** Whether words belong to a comment, which is none of the cell's own. */
	let inComment = false;
	const times = (attributes: Record<string, string>, what: 'columns' | 'rows') =>
		Math.min(MOST_REPEATED, Math.max(1, Number(attributes[`table:number-${what}-repeated`]) || 1));
	const add = (text: string) => {
		if (cell && !inComment && cell.lines.length) cell.lines[cell.lines.length - 1] += text;
	};
	parser.on('opentag', ({ name, attributes }) => {
		const given = attributes;
		if (name === 'table:table')
			tables.push({
				name: given['table:name'] ?? 'Sheet',
				rows: [],
				shown: [],
				formulas: 0,
				comments: 0,
				cut: false
			});
		else if (name === 'table:table-row') [row, timesRow] = [[], times(given, 'rows')];
		else if (/^table:(covered-)?table-cell$/.test(name)) {
			cell = { value: valueOf(given), lines: [], times: times(given, 'columns') };
			const table = tables.at(-1);
			if (table && given['table:formula'] !== undefined) table.formulas += cell.times;
		} else if (name === 'office:annotation') {
			inComment = true;
			if (tables.length) tables.at(-1)!.comments++;
		} else if (name === 'text:p' && !inComment) cell?.lines.push('');
		// Blanks, tabs and line breaks are elements there (ODF 1.3, part 3, 6.1).
		else if (name === 'text:s') add(' '.repeat(Math.min(100, Number(given['text:c']) || 1)));
		else if (name === 'text:tab') add('\t');
		else if (name === 'text:line-break') add('\n');
	});
	parser.on('text', (text) => add(text.replace(/\s+/g, ' ')));
	parser.on('closetag', ({ name }) => {
		if (name === 'office:annotation') inComment = false;
		else if (/^table:(covered-)?table-cell$/.test(name) && cell) {
			row.push(cell);
			cell = null;
		} else if (name === 'table:table-row' && tables.length) endRow(tables.at(-1)!, row, timesRow, most);
	});
	parser.write(strFromU8(content)).close();
	return tables.map((table) => {
		const differs = table.shown.some((texts, r) => texts.some((text, c) => text !== table.rows[r]![c]));
		return { ...table, rows: withoutTrailing(table.rows), shown: differs ? table.shown : null };
	});
}

function endRow(
	table: ShownTable & { shown: string[][] },
	row: readonly Cell[],
	times: number,
	most: Most
): void {
	const values: string[] = [];
	const texts: string[] = [];
	for (const cell of row) {
		const words = cell.lines.join('\n');
		for (let i = 0; i < cell.times; i++) {
			if (values.length === most.columns) {
				table.cut ||= words !== '';
				break;
			}
			values.push(cell.value ?? words);
			texts.push(words || (cell.value ?? ''));
		}
	}
	while (values.at(-1) === '') {
		values.pop();
		texts.pop();
	}
	// What is repeated without end is nothing; what lies between keeps its number.
	if (!values.length && times >= MOST_REPEATED) return;
	for (let i = 0; i < times; i++) {
		if (table.rows.length === most.rows) {
			table.cut ||= values.length > 0;
			return;
		}
		table.rows.push([...values]);
		table.shown.push([...texts]);
	}
}

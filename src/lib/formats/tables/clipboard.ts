import Papa from 'papaparse';

/**
 * Rows of cells as sheets put them on the clipboard: lines of cells parted by tabs, quoted where they must be (RFC 4180),
 * the last one ended or not.
 */
export function rowsPasted(text: string): string[][] {
	return Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
}

/** The same the other way round. */
export function rowsToCopy(rows: string[][]): string {
	return Papa.unparse(rows, { delimiter: '\t', newline: '\n' });
}

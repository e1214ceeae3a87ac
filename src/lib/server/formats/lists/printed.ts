import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { isDay, type Cell, type List } from '../../../core/lists/list';
import { fullDayWords } from '../../../core/time/days';
import { pdfmaker } from '../pdfmaker';

export const INK = '#17231f';
export const SOFT = '#55645d';
/** Ground of the heads of a table. */
export const HEAD = '#e9eeea';
const SIDE = 30;

const words = (cell: Cell): string => (isDay(cell) ? fullDayWords(cell.day) : String(cell ?? ''));

/** Lays out a list on pages that lie, with its title above and its pages counted. */
export function printed(
	{ title, about }: Pick<List, 'title' | 'about'>,
	pageSize: 'A3' | 'A4',
	content: Content[]
): Promise<Uint8Array> {
	const definition: TDocumentDefinitions = {
		info: { title, creator: 'Cupboard' },
		pageSize,
		pageOrientation: 'landscape',
		pageMargins: [SIDE, 36, SIDE, 34],
		content: [
			{ text: title, bold: true, fontSize: pageSize === 'A3' ? 17 : 13 },
			{ text: about, color: SOFT, margin: [0, 2, 0, 8] },
			...content
		],
		defaultStyle: { font: 'Archivo', fontSize: 8, color: INK },
		footer: (page, pages) => ({
			text: `${page} of ${pages}`,
			alignment: 'right',
			fontSize: 7.5,
			margin: [SIDE, 8, SIDE, 0]
		})
	};
	return pdfmaker(definition);
}

/** A list as PDF, A4, over as many pages as it takes; its heads stand on each. */
export function listAsPdf(list: List): Promise<Uint8Array> {
	const { columns, rows } = list;
	const letters = columns.reduce((sum, { width }) => sum + width, 0);
	return printed(list, 'A4', [
		{
			table: {
				headerRows: 1,
				widths: columns.map(({ width }) => `${(width / letters) * 100}%`),
				dontBreakRows: true,
				body: [
					columns.map(({ head }) => ({ text: head, bold: true, fillColor: HEAD })),
					...rows.map((row) => row.map((cell) => ({ text: words(cell) })))
				]
			},
			layout: {
				hLineWidth: () => 0.5,
				vLineWidth: () => 0.5,
				hLineColor: () => '#9aa8a0',
				vLineColor: () => '#9aa8a0'
			}
		}
	]);
}

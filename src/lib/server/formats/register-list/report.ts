import type { Content } from 'pdfmake/interfaces';
import { fullDayWords } from '../../../core/time/days';
import { plural } from '../../../core/words/sentences';
import { pdfmaker } from '../pdfmaker';
import { curvesPicture } from './curves-picture';
import type { ListedLine, RegisterListTask } from './task';

/** Most lines that a report prints; more is for the sheet. */
const MOST_PRINTED = 2_000;

/** The list as a report for the wall: PDF, A3 landscape, dated, with the curves. */
export async function toReport({ about, stages, lines, curves }: RegisterListTask): Promise<Uint8Array> {
	const printed = lines.slice(0, MOST_PRINTED);
	const day = (at: string | null | undefined) => (at ? fullDayWords(at) : '');
	const head = [
		'Number',
		'Title',
		'Dept',
		'Rev.',
		'Status',
		...stages.map((stage) => stage.name),
		'Days'
	].map((words) => ({ text: words, bold: true, fillColor: '#e9eeea' }));
	const stageCell = (line: ListedLine, key: string): Content => {
		const at = line.stages[key];
		if (!at) return { text: '–', color: '#55645d' };
		return {
			stack: [
				{ text: at.planned ? day(at.planned) : 'no day yet', color: '#55645d' },
				...(at.actual
					? [{ text: `issued ${day(at.actual)}`, bold: true }]
					: at.forecast
						? [{ text: `expected ${day(at.forecast)}`, color: '#945500' }]
						: [])
			]
		};
	};
	const table: Content = {
		table: {
			headerRows: 1,
			widths: [130, '*', 30, 40, 80, ...stages.map(() => 92), 34],
			dontBreakRows: true,
			body: [
				head,
				...printed.map((line) => [
					{ text: line.number },
					{ text: line.title },
					{ text: line.department },
					{ text: line.revision },
					{ text: line.status },
					...stages.map((stage) => stageCell(line, stage.key)),
					{
						text: line.slip === null ? '' : line.slip > 0 ? `+${line.slip}` : String(line.slip),
						alignment: 'right' as const,
						color: (line.slip ?? 0) > 0 ? '#b3311f' : '#17231f'
					}
				])
			]
		},
		layout: {
			hLineWidth: () => 0.4,
			vLineWidth: () => 0,
			hLineColor: () => '#c9d3cc',
			paddingTop: () => 2,
			paddingBottom: () => 2
		}
	};
	return pdfmaker({
		info: { title: `Register of ${about.project}, ${about.today}`, creator: 'Cupboard' },
		pageSize: 'A3',
		pageOrientation: 'landscape',
		pageMargins: [34, 40, 34, 36],
		content: [
			{ text: `Register of ${about.project}`, bold: true, fontSize: 17 },
			{
				text: `${fullDayWords(about.today)} · ${plural(lines.length, 'deliverable')}${about.narrowed ? ` · ${about.narrowed}` : ''}`,
				color: '#55645d',
				margin: [0, 2, 0, 10]
			},
			...(curves.days.length
				? [{ svg: curvesPicture(curves, about.today, { width: 1_100, height: 300 }), width: 1_100 }]
				: []),
			table,
			...(lines.length > printed.length
				? [
						{
							text: `The first ${MOST_PRINTED.toLocaleString('en')} are printed; all of them stand in the XLSX.`,
							margin: [0, 8, 0, 0] as [number, number, number, number]
						}
					]
				: [])
		],
		defaultStyle: { font: 'Archivo', fontSize: 8, color: '#17231f' },
		footer: (page, pages) => ({
			text: `${page} of ${pages}`,
			alignment: 'right',
			fontSize: 7.5,
			margin: [34, 8, 34, 0]
		})
	});
}

import type { Content } from 'pdfmake/interfaces';
import { fullDayWords } from '../../../core/time/days';
import { plural } from '../../../core/words/sentences';
import { HEAD, INK, printed, SOFT } from '../lists/printed';
import { curvesPicture } from './curves-picture';
import type { ListedLine, RegisterListTask } from './task';

/** Most lines that a report prints; more is for the sheet. */
const MOST_PRINTED = 2_000;

/** The list as a report for the wall: PDF, A3 landscape, dated, with the curves. */
export async function toReport({ about, stages, lines, curves }: RegisterListTask): Promise<Uint8Array> {
	const printable = lines.slice(0, MOST_PRINTED);
	const day = (at: string | null | undefined) => (at ? fullDayWords(at) : '');
	const head = [
		'Number',
		'Title',
		'Dept',
		'Rev.',
		'Status',
		...stages.map((stage) => stage.name),
		'Days'
	].map((words) => ({ text: words, bold: true, fillColor: HEAD }));
	const stageCell = (line: ListedLine, key: string): Content => {
		const at = line.stages[key];
		if (!at) return { text: '–', color: SOFT };
		return {
			stack: [
				{ text: at.planned ? day(at.planned) : 'no day yet', color: SOFT },
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
				...printable.map((line) => [
					{ text: line.number },
					{ text: line.title },
					{ text: line.department },
					{ text: line.revision },
					{ text: line.status },
					...stages.map((stage) => stageCell(line, stage.key)),
					{
						text: line.slip === null ? '' : line.slip > 0 ? `+${line.slip}` : String(line.slip),
						alignment: 'right' as const,
						color: (line.slip ?? 0) > 0 ? '#b3311f' : INK
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
	return printed(
		{
			title: `Register of ${about.project}`,
			about: `${fullDayWords(about.today)} · ${plural(lines.length, 'deliverable')}${about.narrowed ? ` · ${about.narrowed}` : ''}`
		},
		'A3',
		[
			...(curves.days.length
				? [{ svg: curvesPicture(curves, about.today, { width: 1_100, height: 300 }), width: 1_100 }]
				: []),
			table,
			...(lines.length > printable.length
				? [
						{
							text: `The first ${MOST_PRINTED.toLocaleString('en')} are printed; all of them stand in the XLSX.`,
							margin: [0, 8, 0, 0] as [number, number, number, number]
						}
					]
				: [])
		]
	);
}

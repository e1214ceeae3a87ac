import { BarChart, LineChart } from 'echarts/charts';
import {
	AriaComponent,
	GridComponent,
	LegendComponent,
	MarkLineComponent,
	TooltipComponent
} from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

// Only what is drawn here, as SVG: the rest of the library stays out of the page.
use([
	LineChart,
	BarChart,
	GridComponent,
	LegendComponent,
	MarkLineComponent,
	TooltipComponent,
	AriaComponent,
	SVGRenderer
]);

/** Figures of one kind along the same labels. */
export interface Series {
	name: string;
	/** One for each label; null where there is none. */
	values: readonly (number | null)[];
	/** Drawn with dashes: what is expected rather than known. */
	expected?: boolean;
	/** One of the page's colours, such as `--fault`; in the order of the series otherwise. */
	colour?: string;
}

export interface ChartData {
	kind: 'line' | 'bar';
	/** Along the bottom: days, departments. */
	labels: readonly string[];
	series: readonly Series[];
	/** What the figures count. */
	unit: string;
	/** A label at which a line stands, such as today's. */
	mark?: { label: string; word: string };
	/** Bars of one label stand on each other. */
	stacked?: boolean;
	/** How a label is written below the picture, when not as it is. */
	word?: (label: string) => string;
}

/** Colours of the page, which are others in the dark. */
const LINES = ['--act', '--wait', '--done', '--fault', '--new'];

/**
 * Draws a chart into an element, as wide as that is.
 * @param choose told when a point or a bar is pressed
 * @returns redraw, for new figures or another width; end, which lets go of the element
 */
export function drawChart(
	element: HTMLElement,
	data: ChartData,
	choose?: (at: { label: string; series: string }) => void
): { redraw: (data: ChartData) => void; svg: () => string; end: () => void } {
	const size = () => ({ width: element.clientWidth || 640, height: element.clientHeight || 240 });
	const chart = init(element, null, { renderer: 'svg', ...size() });
	const redraw = ({ kind, labels, series, unit, mark, stacked, word }: ChartData) => {
		const style = getComputedStyle(element);
		const colour = (name: string) => style.getPropertyValue(name).trim() || '#444';
		const words = { color: colour('--ink-2'), fontFamily: 'inherit' };
		chart.resize(size());
		chart.setOption(
			{
				animation: false,
				aria: { enabled: true },
				color: LINES.map(colour),
				textStyle: words,
				grid: { left: 36, right: 14, top: 44, bottom: 24 },
				legend: { top: 0, left: 0, textStyle: words, itemHeight: 8, itemWidth: 16, itemGap: 8 },
				// Rich text, since the pages allow no styles that a script writes into them.
				tooltip: { trigger: 'axis', renderMode: 'richText' },
				xAxis: {
					type: 'category',
					data: [...labels],
					axisLabel: {
						...words,
						hideOverlap: true,
						...(word ? { formatter: (label: string) => word(label) } : {})
					},
					axisLine: { lineStyle: { color: colour('--rule') } }
				},
				yAxis: {
					type: 'value',
					name: unit,
					nameTextStyle: { ...words, align: 'left' },
					axisLabel: words,
					minInterval: 1,
					splitLine: { lineStyle: { color: colour('--rule-2') } }
				},
				series: series.map((one, i) => ({
					type: kind,
					name: one.name,
					data: [...one.values],
					...(one.colour ? { itemStyle: { color: colour(one.colour) } } : {}),
					...(stacked ? { stack: 'all' } : {}),
					...(mark && i === 0
						? {
								markLine: {
									silent: true,
									symbol: 'none',
									lineStyle: { color: colour('--act'), type: 'solid' },
									label: { formatter: mark.word, color: colour('--act') },
									data: [{ xAxis: mark.label }]
								}
							}
						: {}),
					...(kind === 'line'
						? {
								symbolSize: 5,
								showSymbol: labels.length < 30,
								lineStyle: {
									type: one.expected ? 'dashed' : 'solid',
									...(one.colour ? { color: colour(one.colour) } : {})
								}
							}
						: {})
				}))
			},
			{ notMerge: true }
		);
	};
	chart.on('click', ({ name, seriesName }) => choose?.({ label: name, series: seriesName ?? '' }));
	redraw(data);
	return { redraw, svg: () => chart.renderToSVGString(), end: () => chart.dispose() };
}

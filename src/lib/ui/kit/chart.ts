import { BarChart, LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

// Only what is drawn here, as SVG: the rest of the library stays out of the page.
use([LineChart, BarChart, GridComponent, LegendComponent, TooltipComponent, AriaComponent, SVGRenderer]);

/** Figures of one kind along the same labels. */
export interface Series {
	name: string;
	/** One for each label; null where there is none. */
	values: readonly (number | null)[];
	/** Drawn with dashes: what is expected rather than known. */
	expected?: boolean;
}

export interface ChartData {
	kind: 'line' | 'bar';
	/** Along the bottom: days, departments. */
	labels: readonly string[];
	series: readonly Series[];
	/** What the figures count. */
	unit: string;
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
): { redraw: (data: ChartData) => void; end: () => void } {
	const size = () => ({ width: element.clientWidth || 640, height: element.clientHeight || 240 });
	const chart = init(element, null, { renderer: 'svg', ...size() });
	const redraw = ({ kind, labels, series, unit }: ChartData) => {
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
				grid: { left: 44, right: 12, top: 34, bottom: 26 },
				legend: { top: 4, right: 12, textStyle: words, itemHeight: 8 },
				// Rich text, since the pages allow no styles that a script writes into them.
				tooltip: { trigger: 'axis', renderMode: 'richText' },
				xAxis: {
					type: 'category',
					data: [...labels],
					axisLabel: words,
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
				series: series.map((one) => ({
					type: kind,
					name: one.name,
					data: [...one.values],
					...(kind === 'line'
						? { symbolSize: 5, lineStyle: { type: one.expected ? 'dashed' : 'solid' } }
						: {})
				}))
			},
			{ notMerge: true }
		);
	};
	chart.on('click', ({ name, seriesName }) => choose?.({ label: name, series: seriesName ?? '' }));
	redraw(data);
	return { redraw, end: () => chart.dispose() };
}

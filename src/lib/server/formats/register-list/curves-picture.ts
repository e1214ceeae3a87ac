import { LineChart } from 'echarts/charts';
import { GridComponent, LegendComponent, MarkLineComponent } from 'echarts/components';
import { init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([LineChart, GridComponent, LegendComponent, MarkLineComponent, SVGRenderer]);

/** Curves of a register along the same days; null where there is nothing to draw. */
export interface Curves {
	days: string[];
	planned: number[];
	actual: (number | null)[];
	forecast: (number | null)[];
}

const INK = '#17231f';
const QUIET = '#55645d';
const EXPECTED = '#945500';

/** Planned, issued and expected weight over time as SVG. @param today where a line stands */
export function curvesPicture(
	curves: Curves,
	today: string,
	size: { width: number; height: number }
): string {
	const chart = init(null, null, { renderer: 'svg', ssr: true, ...size });
	const words = { color: QUIET, fontFamily: 'Archivo', fontSize: 11 };
	const line = (
		name: string,
		data: (number | null)[],
		colour: string,
		type: 'solid' | 'dashed' | 'dotted'
	) => ({
		type: 'line' as const,
		name,
		data,
		showSymbol: false,
		lineStyle: { color: colour, width: 2, type },
		itemStyle: { color: colour }
	});
	chart.setOption({
		animation: false,
		textStyle: words,
		grid: { left: 44, right: 20, top: 34, bottom: 28 },
		legend: { top: 4, left: 40, textStyle: words, itemHeight: 8 },
		xAxis: { type: 'category', data: curves.days, axisLabel: { ...words, hideOverlap: true } },
		yAxis: { type: 'value', axisLabel: words, minInterval: 1 },
		series: [
			{
				...line('planned', curves.planned, QUIET, 'dashed'),
				markLine: {
					silent: true,
					symbol: 'none',
					lineStyle: { color: '#0b6b58', type: 'solid' },
					label: { formatter: 'today', color: '#0b6b58' },
					data: [{ xAxis: today }]
				}
			},
			line('issued', curves.actual, INK, 'solid'),
			line('expected', curves.forecast, EXPECTED, 'dotted')
		]
	});
	const svg = chart.renderToSVGString();
	chart.dispose();
	return svg;
}

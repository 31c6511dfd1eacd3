import { LineChart, type LineSeriesOption, TreemapChart, type TreemapSeriesOption } from 'echarts/charts';
import {
  type GridComponentOption,
  GridComponent,
  type LegendComponentOption,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  type TooltipComponentOption,
} from 'echarts/components';
import { type ComposeOption, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { tone } from '../tone';

use([LineChart, TreemapChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

export type ChartOption = ComposeOption<
  LineSeriesOption | TreemapSeriesOption | GridComponentOption | LegendComponentOption | TooltipComponentOption
>;

/** All charts look like this, in Daylight and in Dusk: the tokens of the interface. */
export function chartTheme(): object {
  const quiet = tone('--quiet'),
    line = tone('--line');
  const axis = {
    axisLine: { lineStyle: { color: line } },
    axisLabel: { color: quiet, fontSize: 10, fontFamily: tone('--mono') },
    splitLine: { lineStyle: { color: line, opacity: 0.5 } },
  };
  return {
    animation: false,
    textStyle: { fontFamily: tone('--text') },
    valueAxis: axis,
    categoryAxis: axis,
    legend: { textStyle: { color: quiet, fontSize: 11 } },
    tooltip: {
      backgroundColor: tone('--bar'),
      borderWidth: 0,
      textStyle: { color: tone('--bar-strong'), fontSize: 11 },
    },
  };
}

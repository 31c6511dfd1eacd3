import { LineChart } from 'echarts/charts';
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { type EChartsType, init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([LineChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

const COLOURS = ['--resin', '--verdigris', '--axis-z', '--axis-x', '--honey'] as const;
const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim() || '#777';

export interface GroundLine {
  readonly name: string;
  /** Above the ground, a value a frame. */
  readonly height: readonly number[];
  readonly slide: readonly number[];
}
export interface GroundChart {
  show(lines: readonly GroundLine[], frame: number): void;
  dispose(): void;
}

/** Height of each sole over the frames (drawn) and how far it slides (dashed); the ground is the line at zero. */
export function groundChart(host: HTMLElement, scrub: (frame: number) => void): GroundChart {
  const chart: EChartsType = init(host, null, { renderer: 'svg' });
  const watch = new ResizeObserver(() => chart.resize());
  watch.observe(host);
  chart.getZr().on('click', (e: { offsetX: number; offsetY: number }) => {
    const [frame] = chart.convertFromPixel('grid', [e.offsetX, e.offsetY]) as number[];
    if (frame !== undefined) scrub(Math.round(frame));
  });
  return {
    show(lines, frame) {
      const quiet = colour('--quiet'),
        line = colour('--line');
      const axis = {
        axisLine: { lineStyle: { color: line } },
        axisLabel: { color: quiet, fontSize: 10 },
        splitLine: { lineStyle: { color: line, opacity: 0.5 } },
      };
      chart.setOption(
        {
          animation: false,
          aria: { enabled: true },
          grid: { left: 34, right: 12, top: 26, bottom: 20 },
          legend: {
            top: 0,
            left: 30,
            itemHeight: 8,
            itemWidth: 16,
            textStyle: { color: quiet, fontSize: 11 },
            data: lines.map((l) => l.name),
          },
          tooltip: {
            trigger: 'axis',
            textStyle: { fontSize: 11 },
            valueFormatter: (v: unknown) => `${Number(v).toFixed(2)} cubes`,
          },
          xAxis: {
            type: 'value',
            min: 0,
            max: Math.max(1, (lines[0]?.height.length ?? 2) - 1),
            minInterval: 1,
            ...axis,
          },
          yAxis: { type: 'value', ...axis },
          series: lines.flatMap((l, i) => {
            const tone = colour(COLOURS[i % COLOURS.length]!);
            const row = (name: string, values: readonly number[], dashed: boolean, mark: object) => ({
              type: 'line',
              name,
              showSymbol: false,
              data: values.map((v, k) => [k, Number.isFinite(v) ? v : null]),
              lineStyle: { color: tone, width: 1.8, type: dashed ? 'dashed' : 'solid' },
              itemStyle: { color: tone },
              ...mark,
            });
            const mark =
              i === 0
                ? {
                    markLine: {
                      silent: true,
                      symbol: 'none',
                      label: { show: false },
                      data: [
                        { yAxis: 0, lineStyle: { color: colour('--ink'), width: 1.2, type: 'solid' } },
                        { xAxis: frame, lineStyle: { color: colour('--resin'), width: 1.5, type: 'solid' } },
                      ],
                    },
                  }
                : {};
            return [row(l.name, l.height, false, mark), row(`${l.name}, slide`, l.slide, true, {})];
          }),
        },
        { notMerge: true },
      );
    },
    dispose() {
      watch.disconnect();
      chart.dispose();
    },
  };
}

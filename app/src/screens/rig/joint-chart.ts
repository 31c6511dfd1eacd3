import type { JointStudy } from '@sphalerite/core/rig';
import { LineChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { type EChartsType, init, use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([LineChart, GridComponent, TooltipComponent, SVGRenderer]);

const COLOURS = ['--resin', '--verdigris', '--axis-x', '--axis-z', '--axis-y', '--honey', '--quiet'] as const;
const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim() || '#777';

export interface JointChart {
  /** @param meant – the one that stands out; −1 for all alike */
  show(studies: readonly JointStudy[], meant: number): void;
  dispose(): void;
}

/** The chart of a joint study: for each pivot what gapes (drawn) and what overlaps (dashed), over the angle. */
export function jointChart(host: HTMLElement): JointChart {
  const chart: EChartsType = init(host, null, { renderer: 'svg' });
  return {
    show(studies, meant) {
      const quiet = colour('--quiet'),
        line = colour('--line');
      // One hopeless pivot must not flatten all the others.
      const costs = studies.map((s) => s.cost).sort((a, b) => a - b),
        top = Math.max(1, Math.ceil(1.2 * costs[Math.floor((costs.length - 1) / 2)]!));
      const axis = {
        axisLine: { lineStyle: { color: line } },
        axisLabel: { color: quiet, fontSize: 10 },
        splitLine: { lineStyle: { color: line, opacity: 0.5 } },
      };
      chart.setOption(
        {
          animation: false,
          aria: { enabled: true },
          grid: { left: 34, right: 8, top: 8, bottom: 20 },
          tooltip: {
            trigger: 'axis',
            textStyle: { fontSize: 11 },
            valueFormatter: (v: unknown) => `${Number(v).toFixed(1)} cubes`,
          },
          xAxis: {
            type: 'value',
            min: studies[0]?.angles[0] ?? -60,
            max: studies[0]?.angles.at(-1) ?? 60,
            interval: 30,
            ...axis,
            axisLabel: { ...axis.axisLabel, formatter: '{value}°' },
          },
          yAxis: { type: 'value', max: top, ...axis },
          series: studies.flatMap((s, i) => {
            const faint = meant >= 0 && meant !== i,
              tone = colour(COLOURS[i % COLOURS.length]!);
            const row = (name: string, values: readonly number[], dashed: boolean) => ({
              type: 'line',
              name: `${i + 1} ${name}`,
              showSymbol: false,
              data: s.angles.map((a, k) => [a, values[k]!]),
              z: faint ? 1 : 3,
              lineStyle: {
                color: tone,
                width: meant === i ? 2.6 : 1.6,
                opacity: faint ? 0.25 : 1,
                type: dashed ? 'dashed' : 'solid',
              },
              itemStyle: { color: tone },
            });
            return [row('gap', s.gap, false), row('overlap', s.overlap, true)];
          }),
        },
        { notMerge: true },
      );
    },
    dispose: () => chart.dispose(),
  };
}

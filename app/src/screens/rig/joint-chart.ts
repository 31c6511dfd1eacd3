import type { JointStudy } from '@sphalerite/core/rig';
import type { ChartOption } from '../../components/chart/theme';

/**
 * The chart of a joint study: for each pivot what gapes (drawn) and what overlaps (dashed), over the angle.
 *
 * @param tones – a colour for each pivot
 * @param meant – the one that stands out; −1 for all alike
 */
export function jointChart(studies: readonly JointStudy[], meant: number, tones: readonly string[]): ChartOption {
  // One hopeless pivot must not flatten all the others.
  const costs = studies.map((s) => s.cost).sort((a, b) => a - b),
    top = Math.max(1, Math.ceil(1.2 * (costs[Math.floor((costs.length - 1) / 2)] ?? 0)));
  return {
    grid: { left: 34, right: 8, top: 8, bottom: 20 },
    tooltip: { trigger: 'axis', valueFormatter: (v: unknown) => `${Number(v).toFixed(1)} cubes` },
    xAxis: {
      type: 'value',
      min: studies[0]?.angles[0] ?? -60,
      max: studies[0]?.angles.at(-1) ?? 60,
      interval: 30,
      axisLabel: { formatter: '{value}°' },
    },
    yAxis: { type: 'value', max: top },
    series: studies.flatMap((s, i) => {
      const faint = meant >= 0 && meant !== i,
        color = tones[i % tones.length]!;
      const row = (name: string, values: readonly number[], dashed: boolean) => ({
        type: 'line' as const,
        name: `${i + 1} ${name}`,
        showSymbol: false,
        data: s.angles.map((a, k) => [a, values[k]!]),
        z: faint ? 1 : 3,
        lineStyle: {
          color,
          width: meant === i ? 2.6 : 1.6,
          opacity: faint ? 0.25 : 1,
          type: dashed ? ('dashed' as const) : ('solid' as const),
        },
        itemStyle: { color },
      });
      return [row('gap', s.gap, false), row('overlap', s.overlap, true)];
    }),
  };
}

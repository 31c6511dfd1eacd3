import type { Side } from '@sphalerite/core/model';
import type { ChartOption } from '../../components/chart/theme';

export interface GroundLine {
  readonly name: string;
  readonly side: Side;
  /** Above the ground, a value a frame. */
  readonly height: readonly number[];
  readonly slide: readonly number[];
}
export interface GroundTones {
  /** Of lines of one side, as everywhere. */
  readonly sides: Readonly<Record<'left' | 'right', string>>;
  /** Of lines of neither. */
  readonly others: readonly string[];
  readonly ground: string;
  readonly now: string;
}

/** Height of each sole over the frames (drawn) and how far it slides (dashed); the ground is the line at zero. */
export function groundChart(lines: readonly GroundLine[], frame: number, tones: GroundTones): ChartOption {
  return {
    grid: { left: 34, right: 12, top: 26, bottom: 20 },
    legend: { top: 0, left: 30, itemHeight: 8, itemWidth: 16, data: lines.map((l) => l.name) },
    tooltip: { trigger: 'axis', valueFormatter: (v: unknown) => `${Number(v).toFixed(2)} cubes` },
    xAxis: { type: 'value', min: 0, max: Math.max(1, (lines[0]?.height.length ?? 2) - 1), minInterval: 1 },
    yAxis: { type: 'value' },
    series: lines.flatMap((l, i) => {
      const color = l.side === 'centre' ? tones.others[i % tones.others.length]! : tones.sides[l.side];
      const row = (name: string, values: readonly number[], dashed: boolean) => ({
        type: 'line' as const,
        name,
        showSymbol: false,
        data: values.map((v, k) => [k, Number.isFinite(v) ? v : '-']),
        lineStyle: { color, width: 1.8, type: dashed ? ('dashed' as const) : ('solid' as const) },
        itemStyle: { color },
      });
      const marks = {
        silent: true,
        symbol: 'none',
        label: { show: false },
        data: [
          { yAxis: 0, lineStyle: { color: tones.ground, width: 1.2, type: 'solid' as const } },
          { xAxis: frame, lineStyle: { color: tones.now, width: 1.5, type: 'solid' as const } },
        ],
      };
      return [
        { ...row(l.name, l.height, false), ...(i === 0 ? { markLine: marks } : {}) },
        row(`${l.name}, slide`, l.slide, true),
      ];
    }),
  };
}

import type { Repeat, Variation } from '@sphalerite/core/model';

/** A figure of a repeat that is dragged. */
export interface RepeatField {
  /** What stands before it, and what it is in full. */
  readonly label: string;
  readonly name: string;
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly value: number;
  /** What changes with it. */
  with(value: number): Partial<Record<string, unknown>>;
}

const count = (r: { readonly count: number }): RepeatField => ({
  ...{ label: 'count', name: 'How many there are', min: 1, max: Math.max(100, r.count), value: r.count },
  with: (v) => ({ count: v }),
});

/** What is said by figures alone, by kind. */
export function fieldsOf(r: Repeat): RepeatField[] {
  switch (r.kind) {
    case 'line':
    case 'mirror':
      return [];
    case 'path':
      return [count(r)];
    case 'ring':
      return [
        count(r),
        {
          ...{ label: 'round', name: 'Degrees of the ring', min: 15, max: 360, step: 15, value: r.degrees },
          with: (degrees) => ({ degrees }),
        },
      ];
    case 'scatter':
      return [
        count(r),
        {
          ...{ label: 'apart', name: 'Least distance between two', min: 0, max: Math.max(20, r.apart), value: r.apart },
          with: (apart) => ({ apart }),
        },
      ];
  }
}

/** By how much copies differ. */
export function variationFields({ vary }: { readonly vary: Variation }): RepeatField[] {
  const to = (change: Partial<Variation>) => ({ vary: { ...vary, ...change } });
  return [
    {
      ...{ label: 'turn', name: 'Most that one is turned, in degrees', min: 0, max: 180, step: 5, value: vary.turn },
      with: (turn) => to({ turn }),
    },
    {
      ...{ label: 'size ±', name: 'Per cent by which sizes differ', min: 0, max: 80 },
      value: Math.round((vary.sizes[1] - 1) * 100),
      with: (v) => to({ sizes: [1 - v / 100, 1 + v / 100] }),
    },
    {
      ...{ label: 'lean', name: 'Most that one leans, in degrees', min: 0, max: 45, value: vary.lean },
      with: (lean) => to({ lean }),
    },
  ];
}

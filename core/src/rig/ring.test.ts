import { describe, expect, it } from 'vitest';
import { type RingPlan, innerFor, ringOfBars, ringSide, ringVariants } from '.';

/** Gap and overlap by sampling the whole ring, bar by bar. */
function byPoints({ sides, inner, thick }: RingPlan, length: number, step = 0.02): { gap: number; overlap: number } {
  const out = inner + thick,
    reach = out / Math.cos(Math.PI / sides) + length;
  let gap = 0,
    overlap = 0;
  for (let x = -reach; x < reach; x += step) {
    for (let y = -reach; y < reach; y += step) {
      let covered = 0,
        deepest = -Infinity;
      for (let k = 0; k < sides; k++) {
        const a = (k * 2 * Math.PI) / sides,
          u = x * Math.cos(a) + y * Math.sin(a),
          v = -x * Math.sin(a) + y * Math.cos(a);
        if (Math.abs(u) <= length / 2 && v >= inner && v <= out) covered++;
        deepest = Math.max(deepest, v);
      }
      // The closed ring: within every outer side, outside at least one inner side.
      if (covered === 0 && deepest >= inner && deepest <= out) gap += step * step;
      overlap += Math.max(0, covered - 1) * step * step;
    }
  }
  return { gap, overlap };
}

describe('the ring builder', () => {
  it('an octagon closes with the length that brute force finds, and its gap and overlap are what sampling finds', () => {
    for (const [inner, thick] of [
      [6, 2],
      [9, 3],
      [4, 4],
    ] as const) {
      const plan = { sides: 8, inner, thick },
        best = ringVariants(plan)[0]!;
      const tried = Array.from({ length: 14 }, (_, i) => ({ length: i + 1, ...byPoints(plan, i + 1, 0.08) }));
      const brute = tried.reduce((a, b) => (b.gap + b.overlap < a.gap + a.overlap ? b : a));
      expect(best.length).toBe(brute.length);
      const fine = byPoints(plan, best.length);
      expect(Math.abs(best.gap - fine.gap)).toBeLessThan(0.05 + 0.02 * fine.gap);
      expect(Math.abs(best.overlap - fine.overlap)).toBeLessThan(0.05 + 0.02 * fine.overlap);
    }
  });
  it.each([3, 4, 5, 6, 8, 12, 16, 31])(
    'with %i sides no real length does better than the one halfway through',
    (sides) => {
      const plan = { sides, inner: 5, thick: 2 },
        cost = (l: number): number => ringOfBars(plan, l).gap + ringOfBars(plan, l).overlap;
      const side = ringSide(plan),
        least = cost(side);
      for (const off of [-0.4, -0.1, -0.01, 0.01, 0.1, 0.4]) expect(cost(side + off)).toBeGreaterThan(least);
      expect(ringVariants(plan)[0]).toMatchObject({ kind: 'bars', bones: sides, triangles: sides * 12 });
    },
  );
  it('a square of bars as long as its side halfway has corners of known size: a quarter gaps, a quarter is doubled', () => {
    // Inner 2, thick 2: bars of 6 meet at the middle of each corner. Outside gapes a triangle of 1 a half joint, inside one is doubled.
    for (const [length, gap, overlap] of [
      [6, 4, 4],
      [8, 0, 16],
    ] as const) {
      const ring = ringOfBars({ sides: 4, inner: 2, thick: 2 }, length);
      expect(ring.gap).toBeCloseTo(gap, 9);
      expect(ring.overlap).toBeCloseTo(overlap, 9);
    }
  });
  it('closed at the outside no notch is left, by the shortest whole bars; otherwise it says how wide each is', () => {
    for (const sides of [5, 6, 8, 12]) {
      const plan = { sides, inner: 6, thick: 2 },
        outside = 2 * Math.tan(Math.PI / sides) * 8;
      const [bars, closed] = ringVariants(plan) as [ReturnType<typeof ringOfBars>, ReturnType<typeof ringOfBars>];
      expect(bars.notch).toBeCloseTo(Math.max(0, outside - bars.length), 9);
      const shut = closed.kind === 'closed' ? closed : bars;
      expect([shut.notch, shut.length]).toEqual([0, Math.ceil(outside)]);
      expect(shut.gap).toBeCloseTo(0, 9);
      expect(byPoints(plan, shut.length, 0.05).gap).toBeLessThan(0.05);
    }
    // Given the length of its bars instead, the ring is as wide as suits them exactly.
    const inner = innerFor(8, 2, 5);
    expect(ringSide({ sides: 8, inner, thick: 2 })).toBeCloseTo(5, 9);
    expect(ringVariants({ sides: 8, inner, thick: 2 })[0]!.length).toBe(5);
  });
  it('one bar crossed with itself fills a square exactly, an octagon nearly, with half the bones, and needs an even number', () => {
    const square = ringVariants({ sides: 4, inner: 2, thick: 3 }).find((v) => v.kind === 'crossed')!;
    expect(square).toMatchObject({ length: 10, width: 10, bones: 2, triangles: 24 });
    expect(square.gap + square.overlap).toBeCloseTo(0, 1);
    const octagon = ringVariants({ sides: 8, inner: 4, thick: 2 }).find((v) => v.kind === 'crossed')!;
    expect([octagon.length, octagon.width, octagon.bones]).toEqual([12, 5, 4]);
    expect(octagon.gap + octagon.overlap).toBeLessThan(0.02 * 12 * 12);
    expect(ringVariants({ sides: 5, inner: 4, thick: 2 }).map((v) => v.kind)).toEqual(['bars', 'closed']);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Curve } from '../model';
import { curveAt } from '.';

/** The same by halving alone, to the last bit. */
function byHalving([x1, y1, x2, y2]: Curve, t: number): number {
  const at = (a: number, b: number, s: number): number => 3 * a * s * (1 - s) ** 2 + 3 * b * s * s * (1 - s) + s ** 3;
  let lo = 0,
    hi = 1;
  for (let i = 0; i < 200; i++) {
    const m = (lo + hi) / 2;
    if (at(x1, x2, m) < t) lo = m;
    else hi = m;
  }
  return at(y1, y2, (lo + hi) / 2);
}

describe('curves of one’s own', () => {
  // Upright by a thousandth: beyond that doubles themselves give out.
  const unit = fc.double({ min: 1e-3, max: 0.999, noNaN: true }),
    free = fc.double({ min: -1, max: 2, noNaN: true });
  it('are solved in time to a millionth, however steep the handles', () => {
    fc.assert(
      fc.property(unit, free, unit, free, unit, (x1, y1, x2, y2, t) => {
        expect(Math.abs(curveAt([x1, y1, x2, y2], t) - byHalving([x1, y1, x2, y2], t))).toBeLessThan(1e-6);
      }),
      { seed: 7, numRuns: 2000 },
    );
  });
  it('straight handles are a straight line, those of a third are exactly it; ends are ends', () => {
    for (const t of [0, 0.1, 0.37, 0.5, 0.9, 1]) expect(curveAt([1 / 3, 1 / 3, 2 / 3, 2 / 3], t)).toBeCloseTo(t, 12);
    expect([curveAt([0.3, 2, 0.6, -1], 0), curveAt([0.3, 2, 0.6, -1], 1), curveAt([1 / 3, 0, 2 / 3, 1], 0.25)]).toEqual(
      [0, 1, expect.closeTo(0.25 ** 2 * (3 - 0.5), 12)],
    );
  });
});

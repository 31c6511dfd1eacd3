import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AXES, type Extent, type Vec3 } from '../math';
import { EDGES, alignShifts, distributeShifts, edgeOfExtent, movedExtent, snapShift, stackShifts } from './arrange';

const box = (lo: Vec3, size: Vec3): Extent => ({ lo, hi: [lo[0] + size[0], lo[1] + size[1], lo[2] + size[2]] });
const number = fc.integer({ min: -50, max: 50 });
const place = fc.tuple(number, number, number);
const some = fc
  .array(
    fc.tuple(
      place,
      fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })),
    ),
    { minLength: 1, maxLength: 6 },
  )
  .map((list) => list.map(([lo, size]) => box(lo, size)));

describe('things are arranged', () => {
  it('in line with one that stays', () => {
    fc.assert(
      fc.property(some, fc.constantFrom(...AXES), fc.constantFrom(...EDGES), (all, axis, edge) => {
        const moved = alignShifts(all, 0, axis, edge).map((s, i) => movedExtent(all[i]!, s));
        expect(moved[0]).toEqual(all[0]);
        for (const [i, e] of moved.entries()) {
          expect(edgeOfExtent(e, axis, edge)).toBe(edgeOfExtent(all[0]!, axis, edge));
          for (const other of AXES) if (other !== axis) expect(e.lo[other]).toBe(all[i]!.lo[other]);
        }
      }),
    );
  });
  it('with gaps alike between the outermost two, which stay', () => {
    const all = [
      box([0, 0, 0], [2, 1, 1]),
      box([20, 0, 0], [4, 1, 1]),
      box([3, 0, 0], [1, 1, 1]),
      box([9, 5, 0], [3, 1, 1]),
    ];
    const moved = distributeShifts(all, 0).map((s, i) => movedExtent(all[i]!, s));
    const order = [0, 2, 3, 1].map((i) => moved[i]!);
    const gaps = order.slice(1).map((e, i) => e.lo[0] - order[i]!.hi[0]);
    // 24 in all, of which the four take up 10.
    for (const g of gaps) expect(g).toBeCloseTo(14 / 3);
    expect([moved[0], moved[1]]).toEqual([all[0], all[1]]);
    expect(distributeShifts(all.slice(0, 2), 0)).toEqual([
      [0, 0, 0],
      [0, 0, 0],
    ]);
  });
  it('one on another', () => {
    fc.assert(
      fc.property(some, (all) => {
        const moved = stackShifts(all).map((s, i) => movedExtent(all[i]!, s));
        expect(moved[0]).toEqual(all[0]);
        moved.slice(1).forEach((e, i) => {
          expect(e.lo[1]).toBeCloseTo(moved[i]!.hi[1]);
          for (const a of [0, 2] as const)
            expect(edgeOfExtent(e, a, 'middle')).toBeCloseTo(edgeOfExtent(moved[0]!, a, 'middle'));
        });
      }),
    );
  });
  it('snapped to the nearest edge or middle in reach, along axes that they move on', () => {
    const own = box([0, 0, 0], [4, 4, 4]),
      wall = box([10, 0, 1], [3, 20, 9]);
    // The high edge, at 9.4, meets the wall's low one; along z nothing is near, and y does not move.
    expect(snapShift(own, [wall], [5.4, 0, 20], 1)).toEqual({
      shift: [6, 0, 20],
      snapped: [{ axis: 0, at: 10, to: wall }],
    });
    expect(snapShift(own, [wall], [5.4, 0, 3.4], 1).shift).toEqual([6, 0, 3.5]);
    expect(snapShift(own, [wall], [4, 0, 0], 1)).toEqual({ shift: [4, 0, 0], snapped: [] });
    expect(snapShift(own, [], [4, 0, 0], 1).snapped).toEqual([]);
  });
});

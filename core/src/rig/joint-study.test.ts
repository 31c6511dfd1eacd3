import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, finish } from '../math';
import { CellSet } from '../voxel';
import { bestPivots, openPoints, studyJoint } from '.';

const box = (min: Vec3, size: Vec3): CellSet => CellSet.ofBox({ min, size } satisfies Box);
/** Two bars of 4 × 4, one above the other, that meet at height 10. */
const body = box([0, 10, 0], [4, 12, 4]),
  limb = box([0, 0, 0], [4, 10, 4]);
const rad = (d: number): number => (d * Math.PI) / 180;

describe('the joint study, against joints worked out by hand', () => {
  it('at the edge a wedge of ½·w²·θ·d opens and nothing overlaps; the other way nothing opens and the wedge overlaps', () => {
    // The pivot in the edge at z = 4: the lower bar swings back about X.
    const [s] = studyJoint(limb, body, [[4, 20, 8]], 0, [-40, 0, 40]);
    const wedge = 0.5 * 16 * 4;
    const [lower, upper] = s!.gap[0]! > s!.gap[2]! ? ([0, 2] as const) : ([2, 0] as const);
    expect(s!.gap[lower]).toBeCloseTo(wedge * rad(40), 1);
    expect(s!.overlap[lower]).toBeLessThan(0.3);
    expect(s!.gap[upper]).toBeLessThan(0.3);
    // What turns in is a right triangle over w with the angle θ, less the corner that stands out of the body beyond w.
    const beyond = 4 / Math.cos(rad(40)) - 4,
      into = 0.5 * 16 * Math.tan(rad(40)) - 0.5 * beyond * beyond * Math.tan(rad(50));
    expect(s!.overlap[upper]! / (into * 4)).toBeCloseTo(1, 1);
    expect([s!.overlap[1], s!.gap[1]]).toEqual([0, 0]);
  });
  it('at the middle each side has a quarter of that; at a quarter, nine and one sixteenths', () => {
    const [middle, quarter] = studyJoint(
      limb,
      body,
      [
        [4, 20, 4],
        [4, 20, 2],
      ],
      0,
      [-30, 30],
    ) as [ReturnType<typeof studyJoint>[0], ReturnType<typeof studyJoint>[0]];
    const wedge = 0.5 * 16 * rad(30) * 4;
    for (const i of [0, 1]) expect(middle.gap[i]! / wedge).toBeCloseTo(0.25, 1);
    expect(middle.gap[0]).toBeCloseTo(middle.gap[1]!, 6);
    const [small, large] = [...quarter.gap].sort((a, b) => a - b);
    expect([small! / wedge, large! / wedge].map((v) => Math.round(v * 16))).toEqual([1, 9]);
    // Overlap of the middle: two triangles of half the width on the side that goes in.
    for (const i of [0, 1]) expect(middle.overlap[i]! / (0.5 * 4 * Math.tan(rad(30)) * 4)).toBeCloseTo(1, 0);
    expect(middle.cost).toBeLessThan(studyJoint(limb, body, [[4, 20, 8]], 0, [-30, 30])[0]!.cost);
  });
  it('light comes through within the wedge that opens, and nowhere where it does not', () => {
    // The pivot in the edge at z = 4: what opens is the wedge between the cut and where the limb has swung it.
    const [open, shut] = [openPoints(limb, body, [4, 20, 8], 0, 40), openPoints(limb, body, [4, 20, 8], 0, -40)].sort(
      (a, b) => b.length - a.length,
    ) as [Vec3[], Vec3[]];
    expect(shut).toEqual([]);
    expect(open.length).toBeGreaterThan(40);
    for (const [x, y, z] of open) {
      const down = 10 - y,
        away = 4 - z,
        angle = Math.atan2(down, away) * (180 / Math.PI);
      expect([x > 0 && x < 4, angle > 0 && angle < 40, Math.hypot(down, away) < 4]).toEqual([true, true, true]);
    }
    expect(openPoints(limb, body, [4, 20, 8], 0, 0)).toEqual([]);
    expect(openPoints(limb, body, [4, 20, 8], 0, 40, 10).length).toBeLessThanOrEqual(10);
  });
  it('a plug closes the gap, and what stood in the body at rest is not counted as overlap', () => {
    const plugged = limb.union(box([0, 10, 0], [4, 3, 4]));
    const [s] = studyJoint(plugged, body, [[4, 20, 4]], 0, [0, 30]);
    expect(s!.gap).toEqual([0, 0]);
    expect(s!.overlap[0]).toBe(0);
  });
  it('finds a pivot that no half cube around beats, looked at one by one; none where nothing touches', () => {
    const angles = [-60, -30, 30, 60];
    // An elbow: the upper part is narrower and stands back, so that no place is best by symmetry.
    const upper = box([0, 10, 1], [4, 8, 3]),
      lower = limb.union(box([0, 10, 0], [4, 2, 4]));
    for (const [l, b] of [
      [limb, body],
      [lower, upper],
    ] as const) {
      const found = finish(bestPivots(l, b, 0, angles));
      const every: Vec3[] = [];
      for (let y = 14; y <= 26; y++) for (let z = -4; z <= 12; z++) every.push([4, y, z]);
      const least = Math.min(...studyJoint(l, b, every, 0, angles).map((s) => s.cost));
      const costs = studyJoint(l, b, found, 0, angles).map((s) => s.cost);
      expect(costs[0]).toBeLessThanOrEqual(least + 1e-9);
      expect(costs).toEqual([...costs].sort((p, q) => p - q));
    }
    expect(finish(bestPivots(limb, box([90, 0, 0], [1, 1, 1]), 0, angles))).toEqual([]);
  });
  it('ranks by mean gap and mean overlap together, of both directions', () => {
    const [s] = studyJoint(limb, body, [[4, 20, 2]], 0, [-30, 30]);
    expect(s!.cost).toBeCloseTo((s!.gap[0]! + s!.gap[1]! + s!.overlap[0]! + s!.overlap[1]!) / 2, 9);
  });
});

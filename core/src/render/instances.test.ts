import { describe, expect, it } from 'vitest';
import { type Vec3, matrixOf, normalize, quatFromAxisAngle, scale, seededRandom, sub } from '../math';
import { VoxelGrid } from '../voxel';
import { GridHit, SceneRay, type TraceInstance, type TraceScene, intersectGrid, traceInstance } from '.';
import { evenLight, lookedAt, plainSurfaces as surfaces } from './testing';

const scene = (instances: readonly TraceInstance[], eye: Vec3, target: Vec3): TraceScene =>
  lookedAt(instances, evenLight(0), eye, target);
const block = (size: Vec3): VoxelGrid => VoxelGrid.empty({ min: [0, 0, 0], size }).edit((d) => d.fillBox(d.bounds, 1));

describe('the tree over instances', () => {
  /** The nearest thing by looking at all of them, one after another. */
  function plainly(list: readonly TraceInstance[], o: Vec3, d: Vec3): { t: number; instance: number } {
    const best = { t: Infinity, instance: -2 };
    const hit = new GridHit();
    list.forEach(({ toLocal: m, shape }, instance) => {
      const l = [0, 1, 2].map((a) => m[a]! * o[0] + m[4 + a]! * o[1] + m[8 + a]! * o[2] + m[12 + a]!);
      const e = [0, 1, 2].map((a) => m[a]! * d[0] + m[4 + a]! * d[1] + m[8 + a]! * d[2]);
      const t = intersectGrid(shape.grid, Float64Array.of(...l, ...e, 0, best.t), hit);
      if (t < best.t) Object.assign(best, { t, instance });
    });
    return best;
  }
  it.each([0, 1, 2, 3, 7, 300])('meets what a look at all of %i meets', (count) => {
    const random = seededRandom(count + 5);
    const any = (): Vec3 => [random() * 60 - 30, random() * 60 - 30, random() * 60 - 30];
    const grids = [block([1, 2, 3]), block([5, 1, 1])];
    const list = Array.from({ length: count }, (_, i) => {
      const q = quatFromAxisAngle(normalize(any()), random() * 6);
      // Some stand on one spot, as careless copies do.
      const t = i % 9 === 0 ? ([3, 3, 3] as const) : any();
      return traceInstance(grids[i % 2]!, surfaces(1), matrixOf({ t, q, s: [1 + random(), 1, 1 + random()] }))!;
    });
    const s = scene(list, [0, 0, 0], [0, 0, 1]);
    const ray = new SceneRay();
    let met = 0;
    for (let k = 0; k < 800; k++) {
      const o = scale(normalize(any()), 70);
      const d = normalize(sub(k % 2 === 0 ? any() : scale(any(), 0.1), o));
      const best = plainly(list, o, d);
      expect(
        ray.intersect(s, ...(o as [number, number, number]), ...(d as [number, number, number]), 0, Infinity),
      ).toBe(best.instance >= 0);
      if (best.instance < 0) continue;
      met++;
      expect(ray.t).toBe(best.t);
    }
    expect(met).toBeGreaterThanOrEqual(Math.min(count, 20));
  });
});

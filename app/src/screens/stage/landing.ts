import {
  type Extent,
  type Quat,
  type Vec3,
  QUAT_IDENTITY,
  add,
  normalize,
  scale,
  transformDirection,
} from '@sphalerite/core/math';
import type { DrawList } from '@sphalerite/core/scene';
import { pickInstance } from '@sphalerite/core/scene';
import { onPlane } from '../../tools/geometry';
import type { WorldRay } from '../../viewport/viewport';

/** Where something comes to stand. */
export interface Landing {
  readonly t: Vec3;
  readonly q: Quat;
  /** The placement that it stands on or against; null on the floor. */
  readonly on: string | null;
  /** Whether it is a wall that it stands against. */
  readonly against: boolean;
}

const toStep = (v: number, step: number): number =>
  step > 0 ? Math.round(v / step) * step : Math.round(v * 100) / 100;

/**
 * Where something put down under a ray stands: on a top; against a wall, its front turned away from it; else on the floor. Null where
 * the ray meets nothing.
 *
 * @param own – the box of what is put down, about its anchor
 */
export function landing(list: DrawList, ray: WorldRay, own: Extent | null, step: number, floor = 0): Landing | null {
  const hit = pickInstance(list, ray.origin, ray.dir);
  // Whatever lies under what is put down must not stand in it.
  const low = own ? -own.lo[1] : 0;
  if (!hit) {
    const p = onPlane(ray, [0, floor, 0], [0, 1, 0]);
    return (
      p && { t: [toStep(p[0], step), floor + low, toStep(p[2], step)], q: QUAT_IDENTITY, on: null, against: false }
    );
  }
  const at = add(ray.origin, scale(ray.dir, hit.t)),
    n = normalize(transformDirection(hit.instance.matrix, hit.normal)),
    on = hit.instance.source.path[0] ?? null;
  if (n[1] > 0.5)
    return { t: [toStep(at[0], step), at[1] + low, toStep(at[2], step)], q: QUAT_IDENTITY, on, against: false };
  if (n[1] < -0.5)
    return {
      t: [toStep(at[0], step), at[1] - (own?.hi[1] ?? 0), toStep(at[2], step)],
      q: QUAT_IDENTITY,
      on,
      against: false,
    };
  const flat = normalize([n[0], 0, n[2]]),
    turn = Math.atan2(flat[0], flat[2]),
    back = own ? -own.lo[2] : 0,
    mid = own ? (own.lo[1] + own.hi[1]) / 2 : 0;
  const out = add(at, scale(flat, back));
  // Along the wall by steps, from it exactly.
  const along: Vec3 = [flat[2], 0, -flat[0]],
    way = out[0] * along[0] + out[2] * along[2],
    shift = toStep(way, step) - way;
  const t = add(out, scale(along, shift));
  return {
    t: [t[0], toStep(at[1] - mid, step), t[2]],
    q: [0, Math.sin(turn / 2), 0, Math.cos(turn / 2)],
    on,
    against: true,
  };
}

/** How far below something the next top is; null where there is none. */
export function dropBy(list: DrawList, mine: DrawList, extent: Extent): number | null {
  const others = list.filter((i) => !mine.includes(i));
  let best: number | null = extent.lo[1];
  // Under its corners and its middle, a little within.
  const inset = (a: number, b: number, f: number): number => a + (b - a) * f;
  for (const f of [0.05, 0.5, 0.95])
    for (const g of [0.05, 0.5, 0.95]) {
      const from: Vec3 = [
        inset(extent.lo[0], extent.hi[0], f),
        extent.lo[1] + 0.25,
        inset(extent.lo[2], extent.hi[2], g),
      ];
      const hit = pickInstance(others, from, [0, -1, 0]);
      if (hit) best = Math.min(best, hit.t - 0.25);
    }
  return Math.abs(best) < 1e-6 ? null : best;
}

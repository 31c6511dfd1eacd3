import { TRANSFORM_IDENTITY, type Transform, lerp, slerp } from '../math';
import type { Id, Rig } from '../model';
import type { Pose } from '../rig';

/** A pose between two, bone by bone: `amount` 0 is the first, 1 the second. A bone that one of them leaves alone is at rest there. */
export function blendPoses(rig: Rig, a: Pose, b: Pose, amount: number): Pose {
  const rest = new Map(rig.bones.map((o) => [o.id, o.rest]));
  const out = new Map<Id, Transform>();
  for (const id of new Set([...a.keys(), ...b.keys()])) {
    const x = a.get(id) ?? rest.get(id) ?? TRANSFORM_IDENTITY,
      y = b.get(id) ?? rest.get(id) ?? TRANSFORM_IDENTITY;
    out.set(id, { t: lerp(x.t, y.t, amount), q: slerp(x.q, y.q, amount), s: lerp(x.s, y.s, amount) });
  }
  return out;
}

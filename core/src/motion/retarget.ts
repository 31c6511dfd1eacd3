import { type Quat, type Vec3, invertQuat, length, mulQuat, normalizeQuat, rotate, scale } from '../math';
import { type Bone, type Clip, type Id, type Lane, type Project, sideSuffix } from '../model';
import { restWorld } from '../rig';

const named = (b: Bone): string => `${b.name}${sideSuffix(b.side)}`.toLowerCase();

/** What came over from another figure and what did not. */
export interface Retargeted {
  readonly lanes: readonly Lane[];
  /** Bones of the clip that have no counterpart here. */
  readonly missing: readonly string[];
}

/**
 * A clip of another figure on this one, bone by bone of the same name and side. A turn is the same turn in the world, whatever way
 * the bones are turned at rest; a shift is scaled by the proportion of the two: of the bone's own offset where it has one, else of
 * the figures' heights.
 */
export function retarget(clip: Clip, from: Project, to: Project): Retargeted {
  const here = new Map(to.rig.bones.map((b) => [named(b), b])),
    there = new Map(from.rig.bones.map((b) => [b.id, b]));
  const worldThere = restWorld(from.rig),
    worldHere = restWorld(to.rig);
  const tall = (world: ReadonlyMap<Id, { t: Vec3 }>): number =>
    Math.max(1e-6, ...[...world.values()].map((w) => w.t[1]));
  const whole = tall(worldHere) / tall(worldThere);
  const lanes: Lane[] = [],
    missing: string[] = [];
  for (const lane of clip.lanes) {
    const a = there.get(lane.bone),
      b = a && here.get(named(a));
    if (!a || !b) {
      if (a) missing.push(a.name + sideSuffix(a.side));
      continue;
    }
    const ownA = length(a.rest.t),
      ownB = length(b.rest.t);
    const by = a.parent === null || b.parent === null || ownA < 0.25 || ownB < 0.25 ? whole : ownB / ownA;
    const turnA = worldThere.get(a.id)!.q,
      turnB = worldHere.get(b.id)!.q;
    const frameA: Quat = a.parent === null ? [0, 0, 0, 1] : worldThere.get(a.parent)!.q,
      frameB: Quat = b.parent === null ? [0, 0, 0, 1] : worldHere.get(b.parent)!.q;
    const across = mulQuat(invertQuat(turnB), turnA),
      back = invertQuat(across),
      shift = mulQuat(invertQuat(frameB), frameA);
    lanes.push({
      bone: b.id,
      scale: lane.scale,
      hinge: lane.hinge.map((k) => ({ ...k, value: rotate(across, k.value) })),
      move: lane.move.map((k) => ({ ...k, value: scale(rotate(shift, k.value), by) })),
      turn: lane.turn.map((k) => ({ ...k, value: normalizeQuat(mulQuat(mulQuat(across, k.value), back)) })),
    });
  }
  return { lanes, missing };
}

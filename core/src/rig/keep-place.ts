import {
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  equals,
  invertQuat,
  mul,
  relativeTransform,
  rotate,
  sub,
  mapVec,
} from '../math';
import type { Bone, Id, Mount, Part, Rig } from '../model';

/** World transforms of the rest pose. Exact while scales of parents are uniform. */
export function restWorld(rig: Rig): Map<Id, Transform> {
  const byId = new Map(rig.bones.map((b) => [b.id, b]));
  const world = new Map<Id, Transform>();
  const of = (b: Bone): Transform => {
    const known = world.get(b.id);
    if (known) return known;
    const parent = b.parent === null ? undefined : byId.get(b.parent);
    const w = parent ? composeTransform(of(parent), b.rest) : b.rest;
    world.set(b.id, w);
    return w;
  };
  for (const b of rig.bones) of(b);
  return world;
}

const withLocal = <T extends Transform>(record: T, local: Transform): T => ({
  ...record,
  t: local.t,
  q: local.q,
  s: local.s,
});

/** A mount taken off its bone: the part stays where it is at rest, at the rig's own origin. */
export const loosened = (mount: Mount, rig: Rig): Mount =>
  mount.bone === null
    ? mount
    : {
        ...withLocal(mount, composeTransform(restWorld(rig).get(mount.bone) ?? TRANSFORM_IDENTITY, mount)),
        bone: null,
      };

/** A loose mount hung on a bone, the part staying where it is at rest. */
export const hungOn = (mount: Mount, bone: Id, rig: Rig): Mount => ({
  ...withLocal(mount, relativeTransform(restWorld(rig).get(bone)!, mount)),
  bone,
});

/** Hangs a bone on another (or on none), staying where it is at rest. Assumes no circle would form. */
export function reparentKeepingPlace(rig: Rig, id: Id, parent: Id | null): Rig {
  const world = restWorld(rig);
  const above = parent === null ? TRANSFORM_IDENTITY : world.get(parent)!;
  return {
    ...rig,
    bones: rig.bones.map((b) => (b.id === id ? { ...b, parent, rest: relativeTransform(above, world.get(id)!) } : b)),
  };
}

/**
 * Moves a joint by `delta` (rest pose, rig space) while every part and child bone keeps its place.
 * A part whose anchor stood on the joint gets its anchor carried along, when the joint lands on a half cube of it.
 */
export function moveJoint(rig: Rig, parts: readonly Part[], id: Id, delta: Vec3): { rig: Rig; parts: readonly Part[] } {
  const world = restWorld(rig);
  const old = world.get(id)!;
  const next: Transform = { ...old, t: add(old.t, delta) };
  const bone = rig.bones.find((b) => b.id === id)!;
  const above = bone.parent === null ? TRANSFORM_IDENTITY : world.get(bone.parent)!;
  const bones = rig.bones.map((b) => {
    if (b.id === id) return { ...b, rest: relativeTransform(above, next) };
    if (b.parent === id) return { ...b, rest: relativeTransform(next, world.get(b.id)!) };
    return b;
  });
  let nextParts = parts;
  const mounts = rig.mounts.map((m) => {
    if (m.bone !== id) return m;
    const moved = withLocal(m, relativeTransform(next, composeTransform(old, m)));
    const part = parts.find((p) => p.id === m.part);
    // What hangs elsewhere too keeps its anchor, or its copies would move.
    if (rig.mounts.some((o) => o !== m && o.part === m.part)) return moved;
    if (!part || !equals(m.t, [0, 0, 0])) return moved;
    const carried = carryAnchor(moved, part);
    if (!carried) return moved;
    nextParts = nextParts.map((p) => (p.id === part.id ? carried.part : p));
    return carried.mount;
  });
  return { rig: { ...rig, bones, mounts }, parts: nextParts };
}

/** Puts the part's pivot onto the joint of its bone, cubes unmoved; null when no half cube is there. */
function carryAnchor(mount: Mount, part: Part): { mount: Mount; part: Part } | null {
  const inPart = rotate(invertQuat(mount.q), mul(mount.t, [-1, -1, -1]));
  const pivot = part.pivot.map((h, i) => h + (2 * inPart[i]!) / (mount.s[i]! * part.cell));
  const whole = mapVec(pivot, (h) => Math.round(h));
  if (pivot.some((h, i) => Math.abs(h - whole[i]!) > 1e-9)) return null;
  return { mount: { ...mount, t: [0, 0, 0] }, part: { ...part, pivot: whole } };
}

/** Moves a part's pivot (half cubes) while its cubes keep their place: the mount takes up the difference. */
export function movePivot(mount: Mount, part: Part, pivot: Vec3): { mount: Mount; part: Part } {
  const shift = mul(sub(pivot, part.pivot), [
    0.5 * mount.s[0] * part.cell,
    0.5 * mount.s[1] * part.cell,
    0.5 * mount.s[2] * part.cell,
  ]);
  return { mount: { ...mount, t: add(mount.t, rotate(mount.q, shift)) }, part: { ...part, pivot } };
}

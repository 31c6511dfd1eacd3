import {
  type Quat,
  type Transform,
  type Vec3,
  add,
  length,
  lerp,
  mul,
  mulQuat,
  normalizeQuat,
  quatFromAxisAngle,
  scale,
  slerp,
} from '../math';
import { type Clip, type Curve, type Easing, type Id, type Lane, type Rig, TICKS } from '../model';
import type { Pose } from '../rig';
import { EVEN_CURVE, curveAt } from './curve';

interface Key<V> {
  readonly time: number;
  readonly ease: Easing;
  readonly curve?: Curve | undefined;
  readonly value: V;
}

/** How much of the way from a key to the next is gone at `t`, 0–1. */
export function eased({ ease, curve }: Pick<Key<unknown>, 'ease' | 'curve'>, t: number): number {
  switch (ease) {
    case 'step':
      return 0;
    case 'linear':
      return t;
    case 'ease':
      return t * t * (3 - 2 * t);
    case 'curve':
      return curveAt(curve ?? EVEN_CURVE, t);
  }
}

/** The value of a list of keys at a time: held before the first and after the last. Null for no keys. */
export function sampleKeys<V>(keys: readonly Key<V>[], time: number, blend: (a: V, b: V, t: number) => V): V | null {
  if (keys.length === 0) return null;
  let lo = 0,
    hi = keys.length - 1;
  if (time <= keys[0]!.time) return keys[0]!.value;
  if (time >= keys[hi]!.time) return keys[hi]!.value;
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (keys[mid]!.time <= time) lo = mid;
    else hi = mid;
  }
  const a = keys[lo]!,
    b = keys[hi]!;
  return blend(a.value, b.value, eased(a, (time - a.time) / (b.time - a.time)));
}

const NO_MOVE: Vec3 = [0, 0, 0];
const NO_TURN: Quat = [0, 0, 0, 1];
const NO_SCALE: Vec3 = [1, 1, 1];

/** A spin, an axis times radians, as a turn. */
export function spinTurn(spin: Vec3): Quat {
  const angle = length(spin);
  return angle < 1e-12 ? NO_TURN : quatFromAxisAngle(scale(spin, 1 / angle), angle);
}
const withSpin = (turn: Quat, lane: Lane, time: number): Quat =>
  lane.hinge.length === 0 ? turn : mulQuat(turn, spinTurn(sampleKeys(lane.hinge, time, lerp)!));

/** The offset from rest that a lane gives at a time in ticks. */
export const sampleLane = (lane: Lane, time: number): Transform => ({
  t: sampleKeys(lane.move, time, lerp) ?? NO_MOVE,
  q: withSpin(sampleKeys(lane.turn, time, slerp) ?? NO_TURN, lane, time),
  s: sampleKeys(lane.scale, time, lerp) ?? NO_SCALE,
});

/** Rest with an offset on it: t + Δt, q · Δq, s ∘ Δs. */
export const offsetRest = (rest: Transform, d: Transform): Transform => ({
  t: add(rest.t, d.t),
  q: normalizeQuat(mulQuat(rest.q, d.q)),
  s: mul(rest.s, d.s),
});

/** Brings any time into the clip: round again for loops, held at the ends otherwise. */
export const clipTime = (clip: Clip, time: number): number =>
  clip.loop ? ((time % clip.length) + clip.length) % clip.length : Math.max(0, Math.min(clip.length, time));

/** The local transforms of the bones that the clip moves, at a time in ticks (not wrapped). */
export function sampleClip(clip: Clip, rig: Rig, time: number): Pose {
  const pose = new Map<Id, Transform>();
  const bones = new Map(rig.bones.map((b) => [b.id, b]));
  for (const lane of clip.lanes) {
    const bone = bones.get(lane.bone);
    if (bone) pose.set(bone.id, offsetRest(bone.rest, sampleLane(lane, time)));
  }
  return pose;
}

/** The time of the nearest frame of the clip's display grid, in whole ticks. */
export const nearestFrame = (clip: Clip, time: number): number => {
  const tick = TICKS / clip.fps;
  return Math.round(Math.max(0, Math.min(clip.length, Math.round(time / tick) * tick)));
};
export const frameOf = (clip: Clip, time: number): number => Math.round((time * clip.fps) / TICKS);
export const framesIn = (clip: Clip): number => Math.round((clip.length * clip.fps) / TICKS);

/** The moments of a clip's frames, its end included, in ticks. */
export function frameTimes(clip: Clip): number[] {
  const out: number[] = [];
  for (let f = 0; Math.round((f * TICKS) / clip.fps) < clip.length; f++) out.push(Math.round((f * TICKS) / clip.fps));
  return [...out, clip.length];
}

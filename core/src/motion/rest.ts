import { type Transform, add, invertQuat, mul, mulQuat, normalizeQuat, sub } from '../math';
import { type Clip, type Id, type Lane, type Rig, constraintTargets, constraintWrites } from '../model';
import { emptyLane } from './keys';

/**
 * A lane whose bone gets another rest, so that it looks as before at every moment: keys are offsets from rest, so each takes up
 * the difference, and a channel that differs and has no key gets one that does.
 */
export function laneKeepingLook(lane: Lane, before: Transform, after: Transform): Lane {
  const turn = normalizeQuat(mulQuat(invertQuat(after.q), before.q)),
    move = sub(before.t, after.t);
  const grow = [before.s[0] / after.s[0], before.s[1] / after.s[1], before.s[2] / after.s[2]] as const;
  const first = { time: 0, ease: 'linear' } as const;
  const turned = Math.abs(Math.abs(turn[3]) - 1) > 1e-12,
    moved = move.some((v) => v !== 0),
    grown = grow.some((v) => v !== 1);
  const keyed = <K>(keys: readonly K[], own: K): readonly K[] => (keys.length > 0 ? keys : [own]);
  return {
    bone: lane.bone,
    hinge: lane.hinge,
    turn: turned
      ? keyed(lane.turn, { ...first, value: [0, 0, 0, 1] }).map((k) => ({
          ...k,
          value: normalizeQuat(mulQuat(turn, k.value)),
        }))
      : lane.turn,
    move: moved
      ? keyed(lane.move, { ...first, value: [0, 0, 0] }).map((k) => ({ ...k, value: add(k.value, move) }))
      : lane.move,
    scale: grown
      ? keyed(lane.scale, { ...first, value: [1, 1, 1] }).map((k) => ({ ...k, value: mul(k.value, grow) }))
      : lane.scale,
  };
}

/** Every clip looking as before although a bone's rest has changed; those without any keys are left as they are. */
export const clipsKeepingLook = (
  clips: readonly Clip[],
  bone: Id,
  before: Transform,
  after: Transform,
): readonly Clip[] =>
  clips.map((c) => {
    if (c.lanes.length === 0) return c;
    const lane = c.lanes.find((l) => l.bone === bone);
    const next = laneKeepingLook(lane ?? emptyLane(bone), before, after);
    return { ...c, lanes: lane ? c.lanes.map((l) => (l === lane ? next : l)) : [...c.lanes, next] };
  });

/** The clips in which one of these bones, or what steers it, has keys: what a change of them touches. */
export function clipsTouching(rig: Rig, clips: readonly Clip[], bones: ReadonlySet<Id>): Clip[] {
  const moving = new Set(bones);
  for (const c of rig.constraints)
    if (c.on && constraintWrites(rig, c).some((b) => bones.has(b))) for (const t of constraintTargets(c)) moving.add(t);
  return clips.filter((c) => c.lanes.some((l) => moving.has(l.bone)));
}

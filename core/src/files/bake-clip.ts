import { type Quat, type Vec3 } from '../math';
import { CHANNELS, type Channel, type Clip, type Id, type Rig, TICKS, constraintWrites, find } from '../model';
import { type AnyKey, keysOf, offsetRest, sampleClip, sampleLane } from '../motion';
import { type Pose, solvePose } from '../rig';

/** One animated channel of a bone as absolute values, ready for an exporter. */
export interface BakedTrack {
  readonly bone: string;
  readonly channel: Channel;
  readonly interpolation: 'STEP' | 'LINEAR';
  /** Seconds. */
  readonly times: Float32Array;
  /** 3 or 4 numbers a key. */
  readonly values: Float32Array;
}

/**
 * A clip as absolute keys. Channels whose keys all hold or all run straight keep their own keys; others
 * (slow starts and ends, mixed easings) are sampled at every frame and key, so that any engine plays them alike. Turns that constraints
 * write are solved at every frame.
 */
export function bakeClip(clip: Clip, rig: Rig): BakedTrack[] {
  const steered = new Set(rig.constraints.filter((c) => c.on).flatMap((c) => constraintWrites(rig, c)));
  return [...solvedTracks(clip, rig, steered), ...clip.lanes.flatMap((lane) => {
    const bone = find(rig.bones, lane.bone);
    if (!bone) return [];
    return CHANNELS.filter((c) => lane[c].length > 0 && !(c === 'turn' && steered.has(lane.bone))).map((channel) => {
      const keys = keysOf(lane, channel).filter((k) => k.time <= clip.length);
      const plain = plainEasing(keys);
      const times = plain ? keys.map((k) => k.time) : frameTimes(clip, keys);
      const values = times.flatMap((time) => channelValue(offsetRest(bone.rest, sampleLane(lane, time)), channel));
      if (channel === 'turn') keepShortWay(values);
      return { bone: bone.id, channel, interpolation: plain ?? 'LINEAR', times: Float32Array.from(times, (t) => t / TICKS), values: Float32Array.from(values) };
    });
  })];
}

/** The turns of steered bones, at every frame of the clip. */
function solvedTracks(clip: Clip, rig: Rig, steered: ReadonlySet<Id>): BakedTrack[] {
  if (steered.size === 0 || clip.lanes.length === 0) return [];
  const times: number[] = [];
  for (let f = 0; (f * TICKS) / clip.fps < clip.length; f++) times.push(Math.round((f * TICKS) / clip.fps));
  times.push(clip.length);
  const poses: Pose[] = times.map((t) => solvePose(rig, sampleClip(clip, rig, t)));
  return rig.bones.filter((b) => steered.has(b.id)).map((bone) => {
    const values = poses.flatMap((p) => p.get(bone.id)?.q ?? bone.rest.q);
    keepShortWay(values);
    return { bone: bone.id, channel: 'turn', interpolation: 'LINEAR', times: Float32Array.from(times, (t) => t / TICKS), values: Float32Array.from(values) };
  });
}

/** When a mounted part is there: stepped scales, zero while it is not, which is what every engine can play. */
export interface BakedSwap {
  readonly mount: Id;
  /** Seconds. */
  readonly times: Float32Array;
  /** 3 numbers a key. */
  readonly values: Float32Array;
}

/** What the slots of a clip wear, for each of their mounts. */
export const bakeSwaps = (clip: Clip, rig: Rig): BakedSwap[] => clip.swaps.flatMap((lane) => {
  const keys = lane.keys.filter((k) => k.time <= clip.length);
  if (keys.length === 0) return [];
  // From its start the clip shows what its first key says, as sampling does.
  return rig.mounts.filter((m) => m.slot === lane.slot).map((m) => ({
    mount: m.id, times: Float32Array.from(keys, (k) => k.time / TICKS), values: Float32Array.from(keys.flatMap((k) => (k.mount === m.id ? m.s : NOTHING))),
  }));
});
const NOTHING: Vec3 = [0, 0, 0];

const channelValue = (t: { t: Vec3; q: Quat; s: Vec3 }, channel: Channel): readonly number[] =>
  channel === 'move' ? t.t : channel === 'turn' ? t.q : t.s;

function plainEasing(keys: readonly AnyKey[]): 'STEP' | 'LINEAR' | null {
  const between = keys.slice(0, -1);
  if (between.every((k) => k.ease === 'even')) return 'LINEAR';
  return between.every((k) => k.ease === 'step') ? 'STEP' : null;
}

function frameTimes(clip: Clip, keys: readonly AnyKey[]): number[] {
  const last = keys.at(-1)!.time;
  const times = new Set(keys.map((k) => k.time));
  for (let f = 0; (f * TICKS) / clip.fps <= last; f++) {
    const t = Math.round((f * TICKS) / clip.fps);
    if (t >= keys[0]!.time) times.add(t);
  }
  return [...times].sort((a, b) => a - b);
}

/** Neighbouring quaternions on the same half of the sphere, for readers that blend them as they are. */
function keepShortWay(q: number[]): void {
  for (let i = 4; i < q.length; i += 4) {
    const d = q[i]! * q[i - 4]! + q[i + 1]! * q[i - 3]! + q[i + 2]! * q[i - 2]! + q[i + 3]! * q[i - 1]!;
    if (d < 0) for (let k = 0; k < 4; k++) q[i + k]! *= -1;
  }
}


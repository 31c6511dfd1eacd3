import type { Quat, Vec3 } from '../math';
import { type Channel, CHANNELS, type Clip, type Easing, type Id, type Lane } from '../model';

export interface AnyKey { readonly time: number; readonly ease: Easing; readonly value: Vec3 | Quat }

/** A key's address in a clip. */
export interface KeyRef { readonly bone: Id; readonly channel: Channel; readonly time: number }

export const emptyLane = (bone: Id): Lane => ({ bone, move: [], turn: [], scale: [] });

export const keysOf = (lane: Lane, channel: Channel): readonly AnyKey[] => lane[channel];

const withKeys = (lane: Lane, channel: Channel, keys: readonly AnyKey[]): Lane => ({ ...lane, [channel]: keys }) as Lane;

const isEmpty = (lane: Lane): boolean => CHANNELS.every((c) => lane[c].length === 0);

/** The clip with one lane changed; a lane without keys goes away. */
export function updateLane(clip: Clip, bone: Id, change: (lane: Lane) => Lane): Clip {
  const i = clip.lanes.findIndex((l) => l.bone === bone);
  const before = i < 0 ? emptyLane(bone) : clip.lanes[i]!;
  const after = change(before);
  if (after === before) return clip;
  if (i < 0) return isEmpty(after) ? clip : { ...clip, lanes: [...clip.lanes, after] };
  return { ...clip, lanes: isEmpty(after) ? clip.lanes.toSpliced(i, 1) : clip.lanes.with(i, after) };
}

/** Puts a key at its time, in place of one that stands there. */
export function setKey(clip: Clip, bone: Id, channel: Channel, key: AnyKey): Clip {
  return updateLane(clip, bone, (lane) => {
    const keys = keysOf(lane, channel).filter((k) => k.time !== key.time);
    const at = keys.findIndex((k) => k.time > key.time);
    return withKeys(lane, channel, keys.toSpliced(at < 0 ? keys.length : at, 0, key));
  });
}

export function removeKeys(clip: Clip, refs: readonly KeyRef[]): Clip {
  let out = clip;
  for (const r of refs) {
    out = updateLane(out, r.bone, (lane) => {
      const keys = keysOf(lane, r.channel);
      const kept = keys.filter((k) => k.time !== r.time);
      return kept.length === keys.length ? lane : withKeys(lane, r.channel, kept);
    });
  }
  return out;
}

/** Moves keys in time by `delta` ticks, held inside the clip; those they land on give way. */
export function shiftKeys(clip: Clip, refs: readonly KeyRef[], delta: number): Clip {
  if (refs.length === 0) return clip;
  const first = Math.min(...refs.map((r) => r.time)), last = Math.max(...refs.map((r) => r.time));
  const d = Math.round(Math.max(-first, Math.min(clip.length - last, delta)));
  if (d === 0) return clip;
  const moved = refs.flatMap((r) => {
    const lane = clip.lanes.find((l) => l.bone === r.bone);
    const key = lane && keysOf(lane, r.channel).find((k) => k.time === r.time);
    return key ? [{ ...r, key: { ...key, time: key.time + d } }] : [];
  });
  let out = removeKeys(clip, refs);
  for (const m of moved) out = setKey(out, m.bone, m.channel, m.key);
  return out;
}

export const countKeys = (clip: Clip): number =>
  clip.lanes.reduce((n, l) => n + l.move.length + l.turn.length + l.scale.length, 0);

/** Every key of a lane, for drawing: its times with the channels keyed there. */
export function keyTimes(lane: Lane): { time: number; channels: Channel[]; ease: Easing }[] {
  const at = new Map<number, { time: number; channels: Channel[]; ease: Easing }>();
  for (const channel of CHANNELS) {
    for (const k of lane[channel]) {
      const e = at.get(k.time);
      if (e) e.channels.push(channel);
      else at.set(k.time, { time: k.time, channels: [channel], ease: k.ease });
    }
  }
  return [...at.values()].sort((a, b) => a.time - b.time);
}

import type { Quat, Vec3 } from '../math';
import { type Channel, CHANNELS, type Clip, type Curve, type Easing, type Id, type Lane, TICKS } from '../model';

export interface AnyKey {
  readonly time: number;
  readonly ease: Easing;
  readonly curve?: Curve | undefined;
  readonly value: Vec3 | Quat;
}

/** A key's address in a clip. */
export interface KeyRef {
  readonly bone: Id;
  readonly channel: Channel;
  readonly time: number;
}

export const emptyLane = (bone: Id): Lane => ({ bone, move: [], turn: [], hinge: [], scale: [] });

export const keysOf = (lane: Lane, channel: Channel): readonly AnyKey[] => lane[channel];

const withKeys = (lane: Lane, channel: Channel, keys: readonly AnyKey[]): Lane =>
  ({ ...lane, [channel]: keys }) as Lane;

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

/**
 * Every key that is meant becomes what `change` makes of it (null: it goes); those it lands on give way. One pass over each lane, so
 * that thousands of keys are as quick as one.
 */
export function changeKeys(
  clip: Clip,
  refs: readonly KeyRef[],
  change: (key: AnyKey, ref: KeyRef) => AnyKey | null,
): Clip {
  const meant = new Map<Id, Map<Channel, Set<number>>>();
  for (const r of refs) {
    const lane = meant.get(r.bone) ?? meant.set(r.bone, new Map()).get(r.bone)!;
    (lane.get(r.channel) ?? lane.set(r.channel, new Set()).get(r.channel)!).add(r.time);
  }
  let changed = false;
  const lanes = clip.lanes.flatMap((lane): Lane[] => {
    const channels = meant.get(lane.bone);
    if (!channels) return [lane];
    let out = lane;
    for (const [channel, times] of channels) {
      const keys = keysOf(lane, channel),
        made: AnyKey[] = [];
      let same = true;
      for (const k of keys) {
        if (!times.has(k.time)) continue;
        const next = change(k, { bone: lane.bone, channel, time: k.time });
        if (next !== k) same = false;
        if (next) made.push(next);
      }
      if (same) continue;
      const landed = new Map(made.map((k) => [k.time, k]));
      const rest = keys.filter((k) => !times.has(k.time) && !landed.has(k.time));
      out = withKeys(
        out,
        channel,
        [...rest, ...landed.values()].sort((a, b) => a.time - b.time),
      );
    }
    if (out === lane) return [lane];
    changed = true;
    return isEmpty(out) ? [] : [out];
  });
  return changed ? { ...clip, lanes } : clip;
}

export const removeKeys = (clip: Clip, refs: readonly KeyRef[]): Clip => changeKeys(clip, refs, () => null);

/** Moves keys in time by `delta` ticks, held inside the clip; those they land on give way. */
export function shiftKeys(clip: Clip, refs: readonly KeyRef[], delta: number): Clip {
  if (refs.length === 0) return clip;
  let first = Infinity,
    last = -Infinity;
  for (const r of refs) {
    first = Math.min(first, r.time);
    last = Math.max(last, r.time);
  }
  const d = Math.round(Math.max(-first, Math.min(clip.length - last, delta)));
  return d === 0 ? clip : changeKeys(clip, refs, (k) => ({ ...k, time: k.time + d }));
}

/** How keys are drawn together or apart in time. */
export interface Retiming {
  /** The moment that stays, in ticks. */
  readonly about: number;
  readonly by: number;
  /** Whether keys come to stand on whole frames again. */
  readonly frames?: boolean;
  /** Whether the clip becomes as much longer or shorter; else keys stay inside it. */
  readonly length?: boolean;
}

/** Where a time goes when it is retimed, in whole ticks. */
export function retimed(clip: Clip, time: number, { about, by, frames, length }: Retiming): number {
  const one = frames ? TICKS / clip.fps : 1,
    to = Math.round((about + (time - about) * by) / one) * one;
  return Math.round(Math.max(0, length ? to : Math.min(clip.length, to)));
}

/** Draws keys together or apart in time; those that land on one another give way to the later. */
export function retimeKeys(clip: Clip, refs: readonly KeyRef[], r: Retiming): Clip {
  if (r.by === 1 && !r.frames) return clip;
  const frame = TICKS / clip.fps,
    longer = Math.max(1, Math.round((r.about + (clip.length - r.about) * r.by) / frame)) * frame;
  const fitted = r.length ? { ...clip, length: Math.max(Math.round(longer), Math.round(frame)) } : clip;
  return changeKeys(fitted, refs, (k) => ({ ...k, time: Math.min(fitted.length, retimed(clip, k.time, r)) }));
}

/** {@link retimeKeys} of every key, what is worn from a moment on included. */
export function retimeClip(clip: Clip, r: Retiming): Clip {
  const next = retimeKeys(clip, allKeys(clip), r);
  if (next === clip || clip.swaps.length === 0) return next;
  const swaps = clip.swaps.map((l) => {
    const at = new Map(l.keys.map((k) => [Math.min(next.length, retimed(clip, k.time, r)), k] as const));
    return { ...l, keys: [...at].map(([time, k]) => ({ ...k, time })).sort((a, b) => a.time - b.time) };
  });
  return { ...next, swaps };
}

/** How many moments with keys of a clip lie between two frames. */
export function betweenFrames(clip: Clip): number {
  const times = new Set(allKeys(clip).map((k) => k.time));
  return [...times].filter((t) => Math.abs(t - Math.round(Math.round((t * clip.fps) / TICKS) * (TICKS / clip.fps))) > 0)
    .length;
}

/** Every key of a clip, by its address. */
export const allKeys = (clip: Clip): KeyRef[] =>
  clip.lanes.flatMap((lane) =>
    CHANNELS.flatMap((channel) => keysOf(lane, channel).map((k) => ({ bone: lane.bone, channel, time: k.time }))),
  );

/**
 * Puts time in after a moment (`by` above zero) or takes it out: what comes after moves along, and the clip becomes longer or
 * shorter. What stands in time that is taken out goes.
 */
export function rippleClip(clip: Clip, from: number, by: number): Clip {
  const cut = Math.min(Math.max(0, -by), clip.length - from - 1),
    after = by < 0 ? from + cut : from;
  const keys = <K extends { readonly time: number }>(list: readonly K[]): K[] => {
    const later = list
      .filter((k) => (by < 0 ? k.time >= after : k.time > from))
      .map((k) => ({ ...k, time: k.time + (by < 0 ? -cut : by) }));
    const early = list.filter((k) => k.time <= from && (by > 0 || k.time < after));
    return [...early.filter((k) => k.time !== later[0]?.time), ...later];
  };
  return {
    ...clip,
    length: clip.length + (by < 0 ? -cut : by),
    lanes: clip.lanes
      .map((l) => ({ ...l, move: keys(l.move), turn: keys(l.turn), hinge: keys(l.hinge), scale: keys(l.scale) }))
      .filter((l) => !isEmpty(l)),
    swaps: clip.swaps.map((l) => ({ ...l, keys: keys(l.keys) })),
  };
}

/** Keys taken out of a clip to be set elsewhere, their times counted from the first. */
export interface CopiedKeys {
  readonly keys: readonly { readonly bone: Id; readonly channel: Channel; readonly key: AnyKey }[];
}

export function copyKeys(clip: Clip, refs: readonly KeyRef[]): CopiedKeys {
  const first = refs.reduce((t, r) => Math.min(t, r.time), Infinity),
    wanted = new Set(refs.map((r) => `${r.bone} ${r.channel} ${r.time}`));
  return {
    keys: clip.lanes.flatMap((lane) =>
      CHANNELS.flatMap((channel) =>
        keysOf(lane, channel)
          .filter((k) => wanted.has(`${lane.bone} ${channel} ${k.time}`))
          .map((k) => ({ bone: lane.bone, channel, key: { ...k, time: k.time - first } })),
      ),
    ),
  };
}

/** Sets copied keys from a moment on; those beyond the end are left out. */
export function pasteKeys(clip: Clip, copied: CopiedKeys, at: number): Clip {
  const by = new Map<Id, { channel: Channel; key: AnyKey }[]>();
  for (const { bone, channel, key } of copied.keys) {
    if (key.time + at <= clip.length)
      (by.get(bone) ?? by.set(bone, []).get(bone)!).push({ channel, key: { ...key, time: key.time + at } });
  }
  let out = clip;
  for (const [bone, keys] of by) {
    out = updateLane(out, bone, (lane) =>
      CHANNELS.reduce((l, channel) => {
        const fresh = keys.filter((k) => k.channel === channel).map((k) => k.key),
          times = new Set(fresh.map((k) => k.time));
        return fresh.length === 0
          ? l
          : withKeys(
              l,
              channel,
              [...keysOf(l, channel).filter((k) => !times.has(k.time)), ...fresh].sort((a, b) => a.time - b.time),
            );
      }, lane),
    );
  }
  return out;
}

export const countKeys = (clip: Clip): number =>
  clip.lanes.reduce((n, l) => n + l.move.length + l.turn.length + l.hinge.length + l.scale.length, 0);

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

import { type Clip, type Id, type Project, type SwapLane, wearing } from '../model';

/** What a lane of swaps says at a moment: the last key at or before it, or the first. */
export function wornAt(lane: SwapLane, time: number): Id | null {
  let found = lane.keys[0];
  for (const k of lane.keys) if (k.time <= time) found = k;
  return found?.mount ?? null;
}

/** The project with every set of alternates wearing what the clip says at a time in ticks; the same one when nothing differs. */
export const withAlternatesAt = (project: Project, clip: Clip | null, time: number): Project =>
  !clip || clip.swaps.length === 0
    ? project
    : wearing(
        project,
        new Map(clip.swaps.filter((l) => l.keys.length > 0).map((l) => [l.alternateSet, wornAt(l, time)])),
      );

/** Puts a swap key at its time, in place of one that stands there. */
export function setSwap(clip: Clip, alternateSet: Id, time: number, mount: Id | null): Clip {
  const lane = clip.swaps.find((l) => l.alternateSet === alternateSet) ?? { alternateSet, keys: [] };
  const next = {
    alternateSet,
    keys: [...lane.keys.filter((k) => k.time !== time), { time, mount }].sort((a, b) => a.time - b.time),
  };
  return {
    ...clip,
    swaps: clip.swaps.includes(lane) ? clip.swaps.map((l) => (l === lane ? next : l)) : [...clip.swaps, next],
  };
}

/** A swap key at another time, where it takes the place of one that stands there. The same clip when there is none to move. */
export function moveSwap(clip: Clip, alternateSet: Id, time: number, to: number): Clip {
  const key = clip.swaps.find((l) => l.alternateSet === alternateSet)?.keys.find((k) => k.time === time);
  if (!key || time === to) return clip;
  return setSwap(removeSwaps(clip, alternateSet, [time]), alternateSet, to, key.mount);
}

/** Without the swap keys of a set of alternates at these times; a lane without keys goes away. */
export function removeSwaps(clip: Clip, alternateSet: Id, times: readonly number[]): Clip {
  return {
    ...clip,
    swaps: clip.swaps.flatMap((l) =>
      l.alternateSet !== alternateSet
        ? [l]
        : [{ ...l, keys: l.keys.filter((k) => !times.includes(k.time)) }].filter((o) => o.keys.length > 0),
    ),
  };
}

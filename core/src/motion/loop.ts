import { add, length, scale, sub } from '../math';
import type { Clip, HingeKey, Id, Rig } from '../model';
import { sampleClip } from './sample';

/** A bone whose pose at the end of a clip is not that of its beginning. */
export interface LoopGap {
  readonly bone: Id;
  /** Project units. */
  readonly move: number;
  /** Degrees. */
  readonly turn: number;
}

/** By how much the first and the last pose differ, the worst first; nothing for a clip that closes. */
export function loopGaps(clip: Clip, rig: Rig): LoopGap[] {
  const first = sampleClip(clip, rig, 0),
    last = sampleClip(clip, rig, clip.length);
  const out: LoopGap[] = [];
  for (const [bone, a] of first) {
    const b = last.get(bone)!,
      dot = Math.min(1, Math.abs(a.q[0] * b.q[0] + a.q[1] * b.q[1] + a.q[2] * b.q[2] + a.q[3] * b.q[3]));
    const gap = { bone, move: length(sub(a.t, b.t)), turn: (2 * Math.acos(dot) * 180) / Math.PI };
    if (gap.move > 1e-4 || gap.turn > 1e-2) out.push(gap);
  }
  return out.sort((x, y) => y.move + y.turn / 10 - x.move - x.turn / 10);
}

/** Keys whose last stands whole turns away from the first, as near as that is to where they ended. */
function wholeTurns(keys: readonly HingeKey[], end: number): readonly HingeKey[] {
  const first = keys[0],
    last = keys.at(-1);
  if (!first || !last) return keys;
  const way = sub(last.value, first.value),
    angle = length(way);
  const turns = Math.round(angle / (2 * Math.PI)),
    value = angle < 1e-9 ? first.value : add(first.value, scale(way, (turns * 2 * Math.PI) / angle));
  return [...keys.filter((k) => k.time < end), { ...last, time: end, value }];
}

/** The clip with its last pose as its first: every lane gets at its end what it has at its beginning. */
export function closedLoop(clip: Clip): Clip {
  const close = <K extends { readonly time: number }>(keys: readonly K[]): readonly K[] => {
    const start = keys[0];
    return start ? [...keys.filter((k) => k.time < clip.length), { ...start, time: clip.length }] : keys;
  };
  // A lane that begins later stands at its first key from the start.
  return {
    ...clip,
    lanes: clip.lanes.map((l) => ({
      ...l,
      move: close(l.move),
      turn: close(l.turn),
      hinge: wholeTurns(l.hinge, clip.length),
      scale: close(l.scale),
    })),
  };
}

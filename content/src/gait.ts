import type { Pose } from './maker';

export interface Gait {
  /** Frames of a whole step of one foot. */
  readonly cycle: number;
  /** How far a foot goes back while it stands, in cubes. */
  readonly stride: number;
  /** How high it is lifted. */
  readonly lift: number;
  /** Share of the cycle that a foot stands. */
  readonly stands: number;
  /** Degrees by which the heel comes up as it leaves, and the toes as it comes down. */
  readonly heel: number;
  readonly toe: number;
}

/**
 * What a foot's goal does in a walk on the spot: it stands and goes back at the pace of the ground, leaves with its heel up, is
 * lifted forward and comes down flat. Seen from the ground a standing foot does not slide.
 *
 * @param from – the frame at which it comes down
 */
export function footPath(g: Gait, from: number): Pose[] {
  const off = g.stands * g.cycle,
    half = g.stride / 2,
    air = g.cycle - off;
  const round = (at: number): number => Math.round(at);
  const keys: Pose[] = [
    { at: 0, move: [0, 0, half], turn: [0], ease: 'linear' },
    { at: round(off), move: [0, 0, -half], turn: [0], ease: 'linear' },
    { at: round(off + air * 0.2), move: [0, g.lift * 0.75, -half], turn: [g.heel] },
    { at: round(off + air * 0.5), move: [0, g.lift, 0], turn: [g.heel * 0.4] },
    { at: round(off + air * 0.8), move: [0, g.lift * 0.6, half], turn: [-g.toe], ease: 'linear' },
  ];
  return around(keys, from, g.cycle);
}

/** A lane of a loop begun at another frame, with its seam closed: the place between keys is even where the seam cuts a stand. */
export function around(keys: readonly Pose[], from: number, cycle: number): Pose[] {
  const moved = keys.map((k) => ({ ...k, at: (k.at + from) % cycle })).sort((a, b) => a.at - b.at);
  if (moved[0]!.at === 0) return [...moved, { ...moved[0]!, at: cycle }];
  // The key before the seam and the one after it, and where the lane is between them.
  const before = moved.at(-1)!,
    after = moved[0]!,
    gap = after.at + cycle - before.at,
    t = (cycle - before.at) / gap;
  const mix = (a: readonly (number | undefined)[], b: readonly (number | undefined)[]): [number, number, number] =>
    [0, 1, 2].map((i) => (a[i] ?? 0) + ((b[i] ?? 0) - (a[i] ?? 0)) * t) as [number, number, number];
  const seam: Pose = {
    at: 0,
    ease: before.ease ?? 'ease',
    ...(before.move ? { move: mix(before.move, after.move!) } : {}),
    ...(before.turn ? { turn: mix(before.turn, after.turn!) } : {}),
  };
  return [seam, ...moved, { ...seam, at: cycle }];
}

/** The same lane half a cycle later, with turns about Y and Z and shifts along X reversed: what the other side does. */
export const otherSide = (poses: readonly Pose[], half: number): Pose[] => {
  const cycle = half * 2;
  const body = poses
    .filter((p) => p.at < cycle)
    .map((p): Pose => ({
      ...p,
      at: (p.at + half) % cycle,
      ...(p.turn ? { turn: [p.turn[0], -(p.turn[1] ?? 0), -(p.turn[2] ?? 0)] } : {}),
      ...(p.move ? { move: [-p.move[0], p.move[1], p.move[2]] } : {}),
    }))
    .sort((a, b) => a.at - b.at);
  return [...body, { ...body[0]!, at: cycle }];
};

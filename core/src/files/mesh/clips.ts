import type { MeshClip, MeshTrack } from '../../codec';
import { type Quat, type Vec3, invertQuat, length, mulQuat, normalizeQuat, slerp, sub } from '../../math';
import { type Clip, type Curve, type Id, type Lane, PLAIN_CLIP, TICKS } from '../../model';
import { emptyLane } from '../../motion';

/** A bone that was a node, and how the shifts of its node become its own. */
export interface MovedNode {
  readonly bone: Id;
  /** Of the node at rest, in its own parent's space. */
  readonly rest: { readonly t: Vec3; readonly q: Quat; readonly s: Vec3 };
  /** A shift in the space of the node's parent, as one from the bone's rest. */
  shift(of: Vec3): Vec3;
}

/** Ticks between two keys that are put in where a spline is no curve of ours. */
const FRAME = TICKS / 30;
/** By how much of its way a curve of ours may miss a spline. */
const MISS = 0.004;

/** Where a track's value is between two keys. */
interface Segment {
  readonly from: number;
  readonly to: number;
  at(share: number): number[];
  /** Slopes at both ends over the whole segment; null where it does not curve. */
  readonly slopes: readonly [number[], number[]] | null;
}

/** How a file's animation moves bones, from their rest. */
export function clipOf(clip: MeshClip, id: Id, name: string, moved: ReadonlyMap<number, MovedNode>): Clip {
  const lanes = new Map<Id, Lane>();
  let end = 0;
  for (const track of clip.tracks) {
    const node = moved.get(track.node);
    if (!node || track.times.length === 0) continue;
    const lane = lanes.get(node.bone) ?? emptyLane(node.bone);
    end = Math.max(end, tick(track.times.at(-1)!));
    lanes.set(node.bone, withTrack(lane, track, node));
  }
  const list = [...lanes.values()];
  return {
    ...PLAIN_CLIP,
    id,
    name,
    length: Math.max(1, end),
    fps: 30,
    loop: list.length > 0 && list.every(closes),
    lanes: list,
  };
}

const tick = (seconds: number): number => Math.min(1e8, Math.max(0, Math.round(seconds * TICKS)));

function withTrack(lane: Lane, track: MeshTrack, { rest, shift }: MovedNode): Lane {
  switch (track.path) {
    case 'translation':
      return { ...lane, move: keysOf(track, 3, (v) => shift(sub(v as unknown as Vec3, rest.t))) };
    case 'rotation': {
      const back = invertQuat(rest.q);
      const keys = keysOf(track, 4, (v) => normalizeQuat(mulQuat(back, turnOf(v))));
      return { ...lane, turn: keys };
    }
    case 'scale': {
      // What has no size at rest or in between is shown by other means.
      const of = (v: readonly number[]): Vec3 =>
        v.map((s, a) => Math.max(1e-4, s / (rest.s[a] === 0 ? 1 : rest.s[a]!))) as unknown as Vec3;
      return { ...lane, scale: keysOf(track, 3, of) };
    }
  }
}

/** What is no turn at all turns nothing. */
const turnOf = (v: readonly number[]): Quat =>
  Math.hypot(...v) < 1e-6 ? [0, 0, 0, 1] : normalizeQuat(v as unknown as Quat);

interface Key<V> {
  readonly time: number;
  readonly ease: 'step' | 'linear' | 'curve';
  readonly value: V;
  readonly curve?: Curve;
}

/** Keys with values of ours, at whole ticks; of several at one tick the last. */
function keysOf<V extends Vec3 | Quat>(track: MeshTrack, wide: 3 | 4, of: (value: readonly number[]) => V): Key<V>[] {
  const keys: Key<V>[] = [];
  const put = (key: Key<V>): void => {
    if (keys.at(-1)?.time === key.time) keys.pop();
    keys.push(key);
  };
  const last = track.times.length - 1;
  for (let i = 0; i <= last; i++) {
    const time = tick(track.times[i]!),
      value = of(valueAt(track, wide, i));
    if (track.interpolation !== 'CUBICSPLINE' || i === last) {
      put({ time, ease: track.interpolation === 'STEP' ? 'step' : 'linear', value });
      continue;
    }
    const segment = segmentAt(track, wide, i);
    const curve = curveOf(segment, wide);
    if (curve !== 'none') {
      put(curve ? { time, ease: 'curve', value, curve } : { time, ease: 'linear', value });
      continue;
    }
    const next = tick(track.times[i + 1]!);
    for (let t = time; t < next; t += FRAME)
      put({ time: t, ease: 'linear', value: t === time ? value : of(segment.at((t - time) / (next - time))) });
  }
  return keys;
}

function valueAt({ values, interpolation }: MeshTrack, wide: number, i: number): number[] {
  const from = interpolation === 'CUBICSPLINE' ? (i * 3 + 1) * wide : i * wide;
  return [...values.subarray(from, from + wide)];
}

/** A cubic Hermite piece between two keys (glTF 2.0, appendix C). */
function segmentAt(track: MeshTrack, wide: number, i: number): Segment {
  const { values, times } = track,
    from = times[i]!,
    to = times[i + 1]!,
    long = to - from;
  const [a, b] = [valueAt(track, wide, i), valueAt(track, wide, i + 1)];
  const out = [...values.subarray((i * 3 + 2) * wide, (i * 3 + 3) * wide)].map((v) => v * long),
    into = [...values.subarray((i + 1) * 3 * wide, ((i + 1) * 3 + 1) * wide)].map((v) => v * long);
  const at = (u: number): number[] =>
    a.map(
      (v, k) =>
        v * (2 * u ** 3 - 3 * u ** 2 + 1) +
        out[k]! * (u ** 3 - 2 * u ** 2 + u) +
        b[k]! * (3 * u ** 2 - 2 * u ** 3) +
        into[k]! * (u ** 3 - u ** 2),
    );
  return { from, to, at, slopes: [out, into] };
}

/**
 * The easing that runs along a piece: a cubic one along a straight way is a Bézier curve whose handles stand at thirds.
 *
 * @returns null where it runs evenly, 'none' where no easing is near enough
 */
function curveOf({ at, slopes }: Segment, wide: 3 | 4): Curve | null | 'none' {
  const [a, b] = [at(0), at(1)],
    way = b.map((v, k) => v - a[k]!),
    far = way.reduce((n, v) => n + v * v, 0);
  const [out, into] = slopes!;
  if (far < 1e-16) return [...out, ...into].every((v) => Math.abs(v) < 1e-8) ? null : 'none';
  const along = (v: readonly number[]): number => v.reduce((n, x, k) => n + x * way[k]!, 0) / far;
  const [first, second] = [along(out), along(into)];
  const curve: Curve = [1 / 3, first / 3, 2 / 3, 1 - second / 3];
  const long = Math.sqrt(far);
  for (const u of [0.25, 0.5, 0.75]) {
    // With handles at thirds the curve's time is even.
    const eased = 3 * curve[1] * u * (1 - u) ** 2 + 3 * curve[3] * u ** 2 * (1 - u) + u ** 3;
    const ours = wide === 3 ? a.map((v, k) => v + way[k]! * eased) : slerp(turnOf(a), turnOf(b), eased);
    const theirs = wide === 3 ? at(u) : turnOf(at(u));
    if (Math.hypot(...ours.map((v, k) => v - theirs[k]!)) > MISS * Math.max(long, wide === 4 ? 0.1 : 0)) return 'none';
  }
  return Math.abs(first - 1) < 1e-6 && Math.abs(second - 1) < 1e-6 ? null : curve;
}

/** Whether a bone ends where it began. */
function closes({ move, turn, scale: grown }: Lane): boolean {
  const same = (a: Vec3 | undefined, b: Vec3 | undefined): boolean => !a || !b || length(sub(a, b)) < 1e-3;
  const [p, q] = [turn[0]?.value, turn.at(-1)?.value];
  const turned = !p || !q || Math.abs(p[0] * q[0] + p[1] * q[1] + p[2] * q[2] + p[3] * q[3]) > 1 - 1e-5;
  return same(move[0]?.value, move.at(-1)?.value) && turned && same(grown[0]?.value, grown.at(-1)?.value);
}

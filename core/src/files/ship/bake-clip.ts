import { type Quat, type Vec3, length, sub } from '../../math';
import { type Channel, type Clip, type Id, type Lane, type Rig, TICKS, constraintWrites, find } from '../../model';
import { type AnyKey, keysOf, offsetRest, sampleClip, sampleLane } from '../../motion';
import { type Pose, restWorld, solvePose } from '../../rig';

/** What files animate: a spin is part of the turn there. */
export type BakedChannel = Exclude<Channel, 'hinge'>;
const BAKED: readonly BakedChannel[] = ['move', 'turn', 'scale'];
/** Radians that a spin may go on for from key to key: readers take the short way, which is the wrong one beyond half a turn. */
const MOST_SPIN = (2 * Math.PI) / 3;

/** One animated channel of a bone as absolute values, ready for an exporter. */
export interface BakedTrack {
  readonly bone: string;
  readonly channel: BakedChannel;
  readonly interpolation: 'STEP' | 'LINEAR' | 'CUBICSPLINE';
  /** Seconds. */
  readonly times: Float32Array;
  /** 3 or 4 numbers a key; three times as many for CUBICSPLINE: slope coming in, value, slope going out (per second). */
  readonly values: Float32Array;
}

/** How far a joint may stray from what we evaluate, in project units, before a key is put in. */
export const BAKE_ERROR = 1e-4;
/**
 * Stretches of fewer ticks are halved only where they go far, in errors: a limb that comes out of being quite straight bends as a
 * square root does, at no time at all as quick as one likes.
 */
const SHORTEST = 2;
const FAR = 100;
/** Ticks of the shortest of all; moments are single floats in files, so late in a long clip it is longer. */
const briefest = (time: number): number => Math.max(1 / 256, time * 2 ** -21);

/**
 * A clip as absolute keys. Channels whose keys all hold or all run straight keep their own keys. All else (slow starts, curves, and
 * the turns that constraints write) becomes cubic splines with as few keys as stay within `BAKE_ERROR`: slopes are our own, so that a
 * slow start is exact for shifts, and a turn needs halving only where it is wide. Sampling at every frame was ten times as many
 * keys and, played between frames, a hundred times as far off.
 */
export function bakeClip(clip: Clip, rig: Rig): BakedTrack[] {
  const steered = new Set(rig.constraints.filter((c) => c.on).flatMap((c) => constraintWrites(rig, c)));
  const reach = reaches(rig);
  return [
    ...solvedTracks(clip, rig, steered, reach),
    ...clip.lanes.flatMap((lane) => {
      const bone = find(rig.bones, lane.bone);
      if (!bone) return [];
      const keyed = (c: BakedChannel): boolean => lane[c].length > 0 || (c === 'turn' && lane.hinge.length > 0);
      return BAKED.filter((c) => keyed(c) && !(c === 'turn' && steered.has(lane.bone))).map((channel): BakedTrack => {
        const keys = (channel === 'turn' ? turnKeys(lane) : keysOf(lane, channel)).filter((k) => k.time <= clip.length);
        const value = (time: number): readonly number[] =>
          channelValue(offsetRest(bone.rest, sampleLane(lane, time)), channel);
        const plain = channel === 'turn' && lane.turn.length > 0 && lane.hinge.length > 0 ? null : plainEasing(keys);
        if (!plain) return spline(bone.id, channel, knots(keys), value, tolerance(channel, reach.get(bone.id)!));
        const values = keys.flatMap((k) => value(k.time));
        if (channel === 'turn') keepShortWay(values);
        return {
          bone: bone.id,
          channel,
          interpolation: plain,
          times: Float32Array.from(keys, (k) => k.time / TICKS),
          values: Float32Array.from(values),
        };
      });
    }),
  ];
}

/**
 * The keys at which a bone's turn changes its pace: those of its turn and of its spin, and between these as many as keep a spin
 * under `MOST_SPIN` from one to the next.
 */
function turnKeys(lane: Lane): Pick<AnyKey, 'time' | 'ease'>[] {
  const spins = lane.hinge.flatMap((k, i): Pick<AnyKey, 'time' | 'ease'>[] => {
    const next = lane.hinge[i + 1];
    if (!next || k.ease === 'step') return [k];
    // An eased spin is at its quickest twice as quick as an even one, a curve may be quicker still.
    const by = length(sub(next.value, k.value)) * (k.ease === 'linear' ? 1 : k.ease === 'ease' ? 1.5 : 3);
    const n = Math.min(next.time - k.time, Math.max(1, Math.ceil(by / MOST_SPIN - 1e-9)));
    return Array.from({ length: n }, (_, j) => ({
      time: Math.round(k.time + ((next.time - k.time) * j) / n),
      ease: k.ease,
    }));
  });
  const at = new Map<number, Pick<AnyKey, 'time' | 'ease'>>([...lane.turn, ...spins].map((k) => [k.time, k]));
  return [...at.values()].sort((a, b) => a.time - b.time);
}

/** The turns of steered bones, as they come out of solving. */
function solvedTracks(clip: Clip, rig: Rig, steered: ReadonlySet<Id>, reach: ReadonlyMap<Id, number>): BakedTrack[] {
  if (steered.size === 0 || clip.lanes.length === 0) return [];
  const solved = new Map<number, Pose>();
  const poseAt = (time: number): Pose => {
    const t = Math.max(0, Math.min(clip.length, time)),
      known = solved.get(t);
    if (known) return known;
    const pose = solvePose(rig, sampleClip(clip, rig, t));
    solved.set(t, pose);
    return pose;
  };
  // A limb may bend wherever any key stands.
  const end = (time: number): Pick<AnyKey, 'time' | 'ease'> => ({ time, ease: 'ease' });
  const all = knots(
    [
      end(0),
      ...clip.lanes.flatMap((l) => [...turnKeys(l), ...keysOf(l, 'move'), ...keysOf(l, 'scale')]),
      end(clip.length),
    ]
      .filter((k) => k.time <= clip.length)
      .sort((a, b) => a.time - b.time),
  );
  return rig.bones
    .filter((b) => steered.has(b.id))
    .map((bone) =>
      spline(
        bone.id,
        'turn',
        all,
        (t) => poseAt(t).get(bone.id)?.q ?? bone.rest.q,
        tolerance('turn', reach.get(bone.id)!),
      ),
    );
}

/** Times at which a channel may change its pace at once; before the end of a held stretch one tick earlier, so that it stays a step. */
function knots(keys: readonly Pick<AnyKey, 'time' | 'ease'>[]): number[] {
  const times = new Set<number>();
  keys.forEach((k, i) => {
    times.add(k.time);
    const next = keys[i + 1];
    if (k.ease === 'step' && next && next.time - 1 > k.time) times.add(next.time - 1);
  });
  return [...times].sort((a, b) => a - b);
}

/** By how much the farthest thing on each bone may be away from it: joints that hang on it, at least one unit. */
function reaches(rig: Rig): Map<Id, number> {
  const world = restWorld(rig);
  const parent = new Map(rig.bones.map((b) => [b.id, b.parent]));
  const out = new Map(rig.bones.map((b) => [b.id, 1]));
  for (const b of rig.bones) {
    for (let a = parent.get(b.id) ?? null; a !== null; a = parent.get(a) ?? null) {
      const d = world.get(a)!.t,
        e = world.get(b.id)!.t;
      out.set(a, Math.max(out.get(a)!, length([e[0] - d[0], e[1] - d[1], e[2] - d[2]])));
    }
  }
  return out;
}

const tolerance = (channel: BakedChannel, reach: number): number =>
  channel === 'turn' ? BAKE_ERROR / reach / 2 : BAKE_ERROR;

/**
 * A cubic spline through `value` with knots at the given times and more where it strays: each stretch is compared at eight places
 * and halved while it is off.
 *
 * @param value – at a time in ticks
 * @param error – largest difference of any number
 */
function spline(
  bone: Id,
  channel: BakedChannel,
  times: readonly number[],
  value: (time: number) => readonly number[],
  error: number,
): BakedTrack {
  const size = channel === 'turn' ? 4 : 3;
  interface Stretch {
    readonly a: number;
    readonly b: number;
    readonly out: readonly number[];
    readonly into: readonly number[];
    readonly va: readonly number[];
    readonly vb: readonly number[];
  }
  // Turns are kept on one half of the sphere, stretch by stretch, from the value before.
  const near = (v: readonly number[], to: readonly number[]): readonly number[] =>
    size === 4 && v.reduce((s, x, i) => s + x * to[i]!, 0) < 0 ? v.map((x) => -x) : v;
  const stretches: Stretch[] = [];
  const fit = (a: number, b: number, va: readonly number[]): readonly number[] => {
    const h = b - a,
      e = Math.min(0.05, h / 64),
      vb = near(value(b), va);
    // Slopes from inside the stretch, of second order, so that a bend at a key does not round them.
    const slope = (v: readonly number[], at: number, s: 1 | -1): number[] => {
      const one = near(value(at + s * e), v),
        two = near(value(at + 2 * s * e), v);
      return v.map((x, i) => (s * (4 * one[i]! - two[i]! - 3 * x)) / (2 * e));
    };
    const out = slope(va, a, 1),
      into = slope(vb, b, -1);
    let off = 0;
    for (let k = 1; k < 8; k++) {
      const t = k / 8,
        v = near(value(a + t * h), va),
        t2 = t * t,
        t3 = t2 * t;
      const made = va.map(
        (x, i) =>
          (2 * t3 - 3 * t2 + 1) * x +
          (t3 - 2 * t2 + t) * h * out[i]! +
          (3 * t2 - 2 * t3) * vb[i]! +
          (t3 - t2) * h * into[i]!,
      );
      // Players make unit quaternions of what comes out.
      const long = size === 4 ? Math.hypot(...made) : 1;
      made.forEach((x, i) => (off = Math.max(off, Math.abs(x / long - v[i]!))));
    }
    const far = Math.hypot(...va.map((x, i) => vb[i]! - x));
    if (off > error && (h >= 2 * SHORTEST || (h >= 2 * briefest(b) && far > FAR * error))) {
      const middle = h >= 2 * SHORTEST ? Math.round((a + b) / 2) : (a + b) / 2;
      return fit(middle, b, fit(a, middle, va));
    }
    const chord = va.map((x, i) => (vb[i]! - x) / h);
    stretches.push(off > error ? { a, b, out: chord, into: chord, va, vb } : { a, b, out, into, va, vb });
    return vb;
  };
  let v = value(times[0]!);
  const first = v;
  for (let i = 0; i + 1 < times.length; i++) v = fit(times[i]!, times[i + 1]!, v);
  const zero = new Array<number>(size).fill(0);
  const perSecond = (d: readonly number[]): number[] => d.map((x) => x * TICKS);
  const rows =
    stretches.length === 0
      ? [{ time: times[0]!, into: zero, v: first, out: zero }]
      : [
          ...stretches.map((s, i) => ({
            time: s.a,
            into: i === 0 ? zero : perSecond(stretches[i - 1]!.into),
            v: s.va,
            out: perSecond(s.out),
          })),
          { time: stretches.at(-1)!.b, into: perSecond(stretches.at(-1)!.into), v: stretches.at(-1)!.vb, out: zero },
        ];
  return {
    bone,
    channel,
    interpolation: 'CUBICSPLINE',
    times: Float32Array.from(rows, (r) => r.time / TICKS),
    values: Float32Array.from(rows.flatMap((r) => [...r.into, ...r.v, ...r.out])),
  };
}

/** When a mounted part is there: stepped scales, zero while it is not, which is what every engine can play. */
export interface BakedSwap {
  readonly mount: Id;
  /** Seconds. */
  readonly times: Float32Array;
  /** 3 numbers a key. */
  readonly values: Float32Array;
}

/** What the sets of alternates of a clip wear, for each of their mounts. */
export const bakeSwaps = (clip: Clip, rig: Rig): BakedSwap[] =>
  clip.swaps.flatMap((lane) => {
    const keys = lane.keys.filter((k) => k.time <= clip.length);
    if (keys.length === 0) return [];
    // From its start the clip shows what its first key says, as sampling does.
    return rig.mounts
      .filter((m) => m.alternateSet === lane.alternateSet)
      .map((m) => ({
        mount: m.id,
        times: Float32Array.from(keys, (k) => k.time / TICKS),
        values: Float32Array.from(keys.flatMap((k) => (k.mount === m.id ? m.s : NOTHING))),
      }));
  });
const NOTHING: Vec3 = [0, 0, 0];

const channelValue = (t: { t: Vec3; q: Quat; s: Vec3 }, channel: BakedChannel): readonly number[] =>
  channel === 'move' ? t.t : channel === 'turn' ? t.q : t.s;

function plainEasing(keys: readonly Pick<AnyKey, 'ease'>[]): 'STEP' | 'LINEAR' | null {
  const between = keys.slice(0, -1);
  if (between.every((k) => k.ease === 'linear')) return 'LINEAR';
  return between.every((k) => k.ease === 'step') ? 'STEP' : null;
}

/** Neighbouring quaternions on the same half of the sphere, for readers that blend them as they are. */
function keepShortWay(q: number[]): void {
  for (let i = 4; i < q.length; i += 4) {
    const d = q[i]! * q[i - 4]! + q[i + 1]! * q[i - 3]! + q[i + 2]! * q[i - 2]! + q[i + 3]! * q[i - 1]!;
    if (d < 0) for (let k = 0; k < 4; k++) q[i + k]! *= -1;
  }
}

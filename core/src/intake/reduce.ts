import type { Pixels } from '../codec';
import { bytesHex, fromLinear, hexBytes, toLinear } from '../palette';

/*
 * Few colours that look like many, after trials: colours are told apart in OKLab, where equal steps look equal. All of them are one heap;
 * the heap that is spread widest is cut across the way it is spread, at its mean, until there are enough (as Wu 1991 does by boxes);
 * then each colour goes to the nearest mean and means move to their colours (Lloyd 1982) until nothing changes. From that start k-means
 * ends near the optimum, and the same everywhere: no chance is in it.
 */

/** Colours in OKLab with how often each stands there. */
interface Spread {
  readonly lab: Float64Array;
  readonly weight: Float64Array;
}

const LINEAR = Float64Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** OKLab of a colour's bytes, into `out` at `at`; rounded, so that no machine's last digit decides anything. */
export function labInto(out: Float64Array, at: number, r: number, g: number, b: number): void {
  const [x, y, z] = [LINEAR[r]!, LINEAR[g]!, LINEAR[b]!];
  const l = Math.cbrt(0.4122214708 * x + 0.5363325363 * y + 0.0514459929 * z),
    m = Math.cbrt(0.2119034982 * x + 0.6806995451 * y + 0.1073969566 * z),
    s = Math.cbrt(0.0883024619 * x + 0.2817188376 * y + 0.6299787005 * z);
  const whole = (v: number): number => Math.round(v * 1e6) / 1e6;
  out[at] = whole(0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s);
  out[at + 1] = whole(1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s);
  out[at + 2] = whole(0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s);
}

const labs = new WeakMap<Pixels, Float64Array>();
/** OKLab of each pixel, three numbers each; worked out once for as long as the picture lives. */
export function labsOfPixels(p: Pixels): Float64Array {
  let known = labs.get(p);
  if (!known) {
    known = new Float64Array(p.width * p.height * 3);
    const { rgba } = p;
    for (let i = 0, at = 0; at < known.length; i += 4, at += 3)
      labInto(known, at, rgba[i]!, rgba[i + 1]!, rgba[i + 2]!);
    labs.set(p, known);
  }
  return known;
}

/** The nearest colour that a screen shows. */
function hexOfLab(l: number, a: number, b: number): string {
  const x = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3,
    y = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3,
    z = (l - 0.0894841775 * a - 1.291485548 * b) ** 3;
  const byte = (v: number): number => Math.round(255 * Math.min(1, Math.max(0, fromLinear(Math.max(0, v)))));
  return bytesHex(
    byte(4.0767416621 * x - 3.3077115913 * y + 0.2309699292 * z),
    byte(-1.2684380046 * x + 2.6097574011 * y - 0.3413193965 * z),
    byte(-0.0041960863 * x - 0.7034186147 * y + 1.707614701 * z),
  );
}

/** Colours by how often they stand there, those that come first first. Key: red · 65536 + green · 256 + blue. */
export function histogram(p: Pixels, counts: (at: number) => boolean): Map<number, number> {
  const found = new Map<number, number>();
  for (let i = 0; i < p.width * p.height; i++) {
    if (!counts(i)) continue;
    const key = (p.rgba[i * 4]! << 16) | (p.rgba[i * 4 + 1]! << 8) | p.rgba[i * 4 + 2]!;
    found.set(key, (found.get(key) ?? 0) + 1);
  }
  return found;
}

/**
 * At most so many colours that stand for those of a histogram with the least error, squared in OKLab. Those themselves where they are no
 * more; then in the order in which they stood there, else from dark to light.
 *
 * @param most – 1 to 255
 * @returns as `#rrggbb`
 */
export function fewColours(found: ReadonlyMap<number, number>, most: number): string[] {
  const hex = (key: number): string => bytesHex(key >> 16, (key >> 8) & 255, key & 255);
  if (found.size <= most) return [...found.keys()].map(hex);
  let spread = spreads.get(found);
  if (!spread) spreads.set(found, (spread = spreadOf(found)));
  const means = settled(spread, cutMeans(spread, most));
  const out: [number, string][] = [];
  for (let k = 0; k < means.length; k += 3) out.push([means[k]!, hexOfLab(means[k]!, means[k + 1]!, means[k + 2]!)]);
  return [...new Set(out.sort((a, b) => a[0] - b[0]).map(([, h]) => h))];
}

const spreads = new WeakMap<ReadonlyMap<number, number>, Spread>();

/** More colours than these are put together with their neighbours first. */
const MANY = 6000;

/** Colours of a histogram; of very many, the means of those that share the upper five bits of each channel, which no eye tells apart by far. */
function spreadOf(found: ReadonlyMap<number, number>): Spread {
  const lab: number[] = [],
    weight: number[] = [],
    places = new Map<number, number>(),
    own = new Float64Array(3);
  for (const [key, count] of found) {
    labInto(own, 0, key >> 16, (key >> 8) & 255, key & 255);
    const cell = found.size > MANY ? key & 0xf8f8f8 : key;
    let at = places.get(cell);
    if (at === undefined) {
      places.set(cell, (at = weight.length));
      weight.push(0);
      lab.push(0, 0, 0);
    }
    weight[at]! += count;
    for (let a = 0; a < 3; a++) lab[at * 3 + a]! += count * own[a]!;
  }
  return {
    lab: Float64Array.from(lab, (v, i) => v / weight[Math.floor(i / 3)]!),
    weight: Float64Array.from(weight),
  };
}

/** A heap of colours: which they are, their mean, and how far they are spread. */
interface Heap {
  readonly of: Int32Array;
  readonly mean: readonly [number, number, number];
  /** Weighed squares of distances from the mean, all together. */
  readonly error: number;
  /** The direction along which they are spread most. */
  readonly axis: readonly [number, number, number];
}

function heapOf({ lab, weight }: Spread, of: Int32Array): Heap {
  let [w, l, a, b] = [0, 0, 0, 0];
  for (const i of of) {
    const m = weight[i]!;
    w += m;
    l += m * lab[i * 3]!;
    a += m * lab[i * 3 + 1]!;
    b += m * lab[i * 3 + 2]!;
  }
  const mean = [l / w, a / w, b / w] as const;
  const c = [0, 0, 0, 0, 0, 0];
  for (const i of of) {
    const m = weight[i]!,
      [x, y, z] = [lab[i * 3]! - mean[0], lab[i * 3 + 1]! - mean[1], lab[i * 3 + 2]! - mean[2]];
    c[0]! += m * x * x;
    c[1]! += m * x * y;
    c[2]! += m * x * z;
    c[3]! += m * y * y;
    c[4]! += m * y * z;
    c[5]! += m * z * z;
  }
  return { of, mean, error: c[0]! + c[3]! + c[5]!, axis: widest(c) };
}

/** The direction of the largest eigenvalue of a symmetric matrix, by powers of it. */
function widest([xx, xy, xz, yy, yz, zz]: readonly number[]): readonly [number, number, number] {
  let v: readonly [number, number, number] = [1, 0.7, 0.4];
  for (let n = 0; n < 24; n++) {
    const [x, y, z] = v;
    const next = [xx! * x + xy! * y + xz! * z, xy! * x + yy! * y + yz! * z, xz! * x + yz! * y + zz! * z] as const;
    const l = Math.hypot(...next);
    if (l === 0) return v;
    v = [next[0] / l, next[1] / l, next[2] / l];
  }
  return v;
}

function cutMeans(spread: Spread, most: number): Float64Array {
  const heaps = [
    heapOf(
      spread,
      Int32Array.from({ length: spread.weight.length }, (_, i) => i),
    ),
  ];
  while (heaps.length < most) {
    let worst = 0;
    for (let k = 1; k < heaps.length; k++) if (heaps[k]!.error > heaps[worst]!.error) worst = k;
    const { of, mean, axis, error } = heaps[worst]!;
    if (error <= 0 || of.length < 2) break;
    const side = (i: number): boolean =>
      (spread.lab[i * 3]! - mean[0]) * axis[0] +
        (spread.lab[i * 3 + 1]! - mean[1]) * axis[1] +
        (spread.lab[i * 3 + 2]! - mean[2]) * axis[2] >
      0;
    const [one, other] = [of.filter(side), of.filter((i) => !side(i))];
    if (one.length === 0 || other.length === 0) break;
    heaps.splice(worst, 1, heapOf(spread, one), heapOf(spread, other));
  }
  return Float64Array.from(heaps.flatMap((h) => h.mean));
}

/** How often means move at most. */
const ROUNDS = 24;

/** Means moved to the middle of the colours that are nearest to them. */
function settled({ lab, weight }: Spread, start: Float64Array): Float64Array {
  let means = start;
  for (let round = 0; round < ROUNDS; round++) {
    const near = new Nearest(means);
    const sums = new Float64Array((means.length / 3) * 4);
    for (let i = 0; i < weight.length; i++) {
      const k = near.of(lab[i * 3]!, lab[i * 3 + 1]!, lab[i * 3 + 2]!),
        m = weight[i]!;
      sums[k * 4]! += m;
      sums[k * 4 + 1]! += m * lab[i * 3]!;
      sums[k * 4 + 2]! += m * lab[i * 3 + 1]!;
      sums[k * 4 + 3]! += m * lab[i * 3 + 2]!;
    }
    let moved = 0;
    const next = means.slice();
    for (let k = 0; k < means.length / 3; k++) {
      const m = sums[k * 4]!;
      if (m === 0) continue;
      for (let a = 0; a < 3; a++) {
        next[k * 3 + a] = sums[k * 4 + 1 + a]! / m;
        moved = Math.max(moved, Math.abs(next[k * 3 + a]! - means[k * 3 + a]!));
      }
    }
    means = next;
    if (moved < 1e-4) break;
  }
  return means;
}

/** The nearest of some colours in OKLab; they are looked at from the one of like lightness on, until none can be nearer. */
export class Nearest {
  private readonly order: Int32Array;
  private readonly lab: Float64Array;

  /** @param lab – three numbers a colour */
  constructor(lab: Float64Array) {
    const n = lab.length / 3;
    this.order = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => lab[a * 3]! - lab[b * 3]! || a - b);
    this.lab = new Float64Array(lab.length);
    this.order.forEach((k, i) => this.lab.set(lab.subarray(k * 3, k * 3 + 3), i * 3));
  }

  /** Its number; the first of those that are equally near. */
  of(l: number, a: number, b: number): number {
    const { lab, order } = this,
      n = order.length;
    let lo = 0,
      hi = n;
    while (lo < hi) {
      const middle = (lo + hi) >> 1;
      if (lab[middle * 3]! < l) lo = middle + 1;
      else hi = middle;
    }
    let best = -1,
      least = Infinity;
    const look = (i: number): boolean => {
      const dl = lab[i * 3]! - l;
      if (dl * dl > least) return false;
      const da = lab[i * 3 + 1]! - a,
        db = lab[i * 3 + 2]! - b,
        d = dl * dl + da * da + db * db;
      if (d < least || (d === least && order[i]! < best)) [least, best] = [d, order[i]!];
      return true;
    };
    for (let up = lo, down = lo - 1, going = 3; going !== 0;) {
      if (going & 1) going = up < n && look(up) ? going : going & 2;
      if (going & 2) going = down >= 0 && look(down) ? going : going & 1;
      up++;
      down--;
    }
    return best;
  }
}

/** OKLab of colours, three numbers each. */
export function labsOf(colours: readonly string[]): Float64Array {
  const out = new Float64Array(colours.length * 3);
  colours.forEach((hex, i) => labInto(out, i * 3, ...hexBytes(hex)));
  return out;
}

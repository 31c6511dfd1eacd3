import {
  type Mat4,
  type Random,
  type Vec3,
  QUAT_IDENTITY,
  add,
  hash32,
  length,
  lerp,
  matrixOf,
  mulMat,
  quatFromAxisAngle,
  scale,
  seededRandom,
  sub,
  transformPoint,
  translation,
} from '../math';
import { NO_VARIATION, type Repeat, type Variation } from '../model';

/** One copy of a repeat. */
export interface Copy {
  /** From 1 on; it keeps its number when the count changes. */
  readonly copy: number;
  /** Takes the placement from its own place to the copy's, in the space of its parent. */
  readonly matrix: Mat4;
  /** Which of the others it is, a scatter's sources or a row's second; null for the placement itself. */
  readonly source: number | null;
  /** How far an exception lifts it. */
  readonly lift: number;
}

type Of<K extends Repeat['kind']> = Extract<Repeat, { kind: K }>;

const about = (at: Vec3, m: Mat4, to: Vec3 = at): Mat4 =>
  mulMat(mulMat(translation(to), m), translation(scale(at, -1)));
const turned = (degrees: number, axis: Vec3 = [0, 1, 0]): Mat4 =>
  matrixOf({ t: [0, 0, 0], q: quatFromAxisAngle(axis, (degrees * Math.PI) / 180), s: [1, 1, 1] });

/**
 * The copies of a repeat with its exceptions, those that are left out missing. The placement itself is not among them.
 *
 * @param at – where the placement stands in its parent
 */
export function repeatCopies(repeat: Repeat, at: Vec3): Copy[] {
  const copies = plainCopies(repeat, at);
  if (repeat.exceptions.length === 0) return copies;
  const exceptions = new Map(repeat.exceptions.map((e) => [e.copy, e]));
  return copies.flatMap((c) => {
    const e = exceptions.get(c.copy);
    if (!e) return c;
    // About where the copy stands, so that it turns and grows in its place.
    if (e.gone) return [];
    return { ...c, matrix: mulMat(about(transformPoint(c.matrix, at), matrixOf(e)), c.matrix), lift: e.t[1] };
  });
}

function plainCopies(repeat: Repeat, at: Vec3): Copy[] {
  switch (repeat.kind) {
    case 'line':
      return varied(lineCopies(repeat), repeat.vary, at);
    case 'ring':
      return varied(counted(ringMatrices(repeat, at)), repeat.vary, at);
    case 'path':
      return varied(counted(pathMatrices(repeat, at)), repeat.vary, at);
    case 'scatter':
      return scattered(repeat, at);
    case 'mirror':
      // Its one copy is an image, which no matrix makes.
      return [];
  }
}

const counted = (matrices: readonly Mat4[]): Copy[] =>
  matrices.map((matrix, i) => ({ copy: i + 1, matrix, source: null, lift: 0 }));

function lineCopies({ counts: [nx, ny, nz], step: [sx, sy, sz], second }: Of<'line'>): Copy[] {
  const out: Copy[] = [];
  for (let y = 0; y < ny; y++)
    for (let z = 0; z < nz; z++)
      for (let x = 0; x < nx; x++) {
        if (x + y + z === 0) continue;
        const source = second && (x + y + z) % 2 === 1 ? 0 : null;
        out.push({ copy: out.length + 1, matrix: translation([x * sx, y * sy, z * sz]), source, lift: 0 });
      }
  return out;
}

/** The numbers that copy n of a seed is made by. */
const chanceOf = (seed: number, n: number): Random => seededRandom(hash32(seed ^ Math.imul(n, 0x9e3779b1)));

/** One turned, grown and leant by chance, about the origin. */
function variation({ turn, sizes, lean }: Variation, random: Random): Mat4 {
  const turning = turned((random() * 2 - 1) * turn),
    size = sizes[0] + (sizes[1] - sizes[0]) * random();
  const way = random() * 2 * Math.PI,
    leaning = turned(random() * lean, [Math.cos(way), 0, Math.sin(way)]);
  return mulMat(mulMat(matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [size, size, size] }), leaning), turning);
}

const isPlain = ({ turn, sizes, lean }: Variation): boolean =>
  turn === NO_VARIATION.turn && lean === NO_VARIATION.lean && sizes.every((s) => s === 1);

/** Each copy turned, grown and leant where it stands. */
function varied(copies: Copy[], vary: Variation, at: Vec3): Copy[] {
  if (isPlain(vary)) return copies;
  return copies.map((c) => ({
    ...c,
    matrix: mulMat(c.matrix, about(at, variation(vary, chanceOf(vary.seed, c.copy)))),
  }));
}

/** Around the parent's upright axis; what does not turn only goes along. */
function ringMatrices({ count, degrees, turning }: Of<'ring'>, at: Vec3): Mat4[] {
  // A whole round closes on itself; an arc ends where it is said to.
  const whole = Math.abs(degrees) >= 360;
  const step = degrees / Math.max(1, whole ? count : count - 1);
  return Array.from({ length: count - 1 }, (_, i) => {
    const turn = turned(step * (i + 1));
    if (turning) return turn;
    const there: Vec3 = [turn[0]! * at[0] + turn[8]! * at[2], at[1], turn[2]! * at[0] + turn[10]! * at[2]];
    return translation([there[0] - at[0], 0, there[2] - at[2]]);
  });
}

/** At even ways along it; the placement stands for its first point, wherever it is itself. */
function pathMatrices({ count, points, closed, facing }: Of<'path'>, at: Vec3): Mat4[] {
  const corners = closed ? [...points, points[0]!] : points,
    ways = corners.slice(1).map((p, i) => length(sub(p, corners[i]!))),
    whole = ways.reduce((a, b) => a + b, 0),
    step = whole / Math.max(1, closed ? count : count - 1);
  const heading = (i: number): number => {
    const [x, , z] = sub(corners[i + 1]!, corners[i]!);
    return (Math.atan2(x, z) * 180) / Math.PI;
  };
  const first = ways.findIndex((w) => w > 0);
  return Array.from({ length: count - 1 }, (_, k) => {
    let left = step * (k + 1),
      i = 0;
    while (i < ways.length - 1 && left > ways[i]! + 1e-9) left -= ways[i++]!;
    const p = ways[i]! > 0 ? lerp(corners[i]!, corners[i + 1]!, Math.min(1, left / ways[i]!)) : corners[i]!;
    const to = add(at, sub(p, corners[0]!));
    return facing && first >= 0 ? about(at, turned(heading(i) - heading(first)), to) : translation(sub(to, at));
  });
}

/** So many places are tried for each copy that is wished. */
const TRIES = 30;

/**
 * Place n of the seed is where that and n alone put it, and is taken where no earlier one is too near: another count moves none of
 * those that stay.
 */
function scattered(r: Of<'scatter'>, at: Vec3): Copy[] {
  const taken = new Nearby(r.apart);
  taken.put(0, 0);
  const out: Copy[] = [];
  for (let n = 1; out.length < r.count - 1 && n <= (r.count - 1) * TRIES; n++) {
    const random = chanceOf(r.vary.seed, n);
    const x = (random() - 0.5) * r.area[0],
      z = (random() - 0.5) * r.area[1];
    if (!taken.isFree(x, z)) continue;
    taken.put(x, z);
    const matrix = about(at, variation(r.vary, random), add(at, [x, 0, z]));
    out.push({ copy: out.length + 1, matrix, source: sourceOf(r, random), lift: 0 });
  }
  return out;
}

/** One of the sources by their weights; the placement's own counts one. */
function sourceOf({ sources }: Of<'scatter'>, random: Random): number | null {
  if (sources.length === 0) return null;
  let left = random() * sources.reduce((sum, s) => sum + s.weight, 1) - 1;
  if (left < 0) return null;
  const found = sources.findIndex((s) => (left -= s.weight) < 0);
  return found < 0 ? null : found;
}

/** Places on the ground that keep a distance from each other. */
class Nearby {
  private readonly cells = new Map<string, (readonly [number, number])[]>();
  constructor(private readonly apart: number) {}

  isFree(x: number, z: number): boolean {
    if (this.apart === 0) return true;
    const [i, j] = this.cell(x, z);
    for (let a = i - 1; a <= i + 1; a++)
      for (let b = j - 1; b <= j + 1; b++)
        for (const [p, q] of this.cells.get(`${a} ${b}`) ?? []) if (Math.hypot(p - x, q - z) < this.apart) return false;
    return true;
  }
  put(x: number, z: number): void {
    if (this.apart === 0) return;
    const key = this.cell(x, z).join(' ');
    this.cells.set(key, [...(this.cells.get(key) ?? []), [x, z]]);
  }
  private cell = (x: number, z: number): [number, number] => [Math.floor(x / this.apart), Math.floor(z / this.apart)];
}

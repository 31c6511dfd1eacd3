import * as z from 'zod';
import { type Vec3, add, cross, dot, length, normalize, scale, sub } from '../math';
import { type Generator, Paint, about, colourOption, seedOption, sizeOption } from './generator';
import { noise3 } from './noise';
import { gridOfCells } from './piece';

const NUMBERS = /^(-?\d{1,4}(\.\d+)?,-?\d{1,4}(\.\d+)?,-?\d{1,4}(\.\d+)?(;|$))*$/;
const options = z.strictObject({
  seed: seedOption,
  kind: z.enum(['rope', 'chain']).default('rope').meta(about('Kind', 'twisted strands, or links')),
  path: z
    .string()
    .max(4000)
    .regex(NUMBERS)
    .default('-40,30,0;0,14,0;40,30,0')
    .meta(about('Path', 'places it goes through, x,y,z in cubes with semicolons between')),
  sag: z.number().min(0).max(1).default(0.2).meta(about('Sag', 'how far it hangs down between places')),
  thick: sizeOption('Thick', 'in cubes', 1, 24, 4),
  link: sizeOption('Link', 'how long one is', 4, 48, 9),
  colour: colourOption('Colour', 'of the rope or the iron', '#a5834f'),
});
type Options = z.infer<typeof options>;

/** A rope or a chain along a path, hanging down between its places. */
export const rope: Generator<Options> = {
  id: 'rope',
  name: 'Rope or chain',
  about: 'along a path, hanging between its places',
  options,
  make(o) {
    const paint = new Paint();
    const tones = paint.tones(o.kind, o.colour, 4, o.kind === 'chain' ? { metalness: 0.8, roughness: 0.5 } : {});
    const way = evenly(pathOf(o), 0.4);
    const cells = new Map<string, readonly [number, number, number, number]>();
    const put = (p: Vec3, by: number): void => {
      const [x, y, z0] = p.map(Math.floor) as [number, number, number];
      cells.set(`${x},${y},${z0}`, [x, y, z0, by]);
    };
    if (o.kind === 'rope') twist(way, o, tones, put);
    else links(way, o, tones, put);
    return {
      parts: [{ name: o.kind === 'rope' ? 'Rope' : 'Chain', grid: gridOfCells([...cells.values()]) }],
      swatches: paint.swatches,
    };
  },
};

/** Places of a way in words, `x,y,z` with semicolons between. */
export const placesOf = (path: string): Vec3[] =>
  path
    .split(';')
    .filter((p) => p !== '')
    .map((p) => p.split(',').map(Number) as unknown as Vec3);
export const placesText = (places: readonly Vec3[]): string => places.map((p) => p.join(',')).join(';');

/** Places of the path with a hanging curve between each two. */
function pathOf({ path, sag }: Options): Vec3[] {
  const places = placesOf(path);
  if (places.length < 2) places.push(add(places[0] ?? [0, 0, 0], [1, 0, 0]));
  const out: Vec3[] = [];
  for (let i = 0; i + 1 < places.length; i++) {
    const [a, b] = [places[i]!, places[i + 1]!];
    const far = length(sub(b, a)),
      steps = Math.max(2, Math.ceil(far));
    for (let s = i === 0 ? 0 : 1; s <= steps; s++) {
      const t = s / steps;
      out.push(add(add(a, scale(sub(b, a), t)), [0, -4 * sag * 0.35 * far * t * (1 - t), 0]));
    }
  }
  return out;
}

/** Points of a way at even distances, each with the direction there. */
function evenly(points: readonly Vec3[], step: number): { at: Vec3; along: Vec3; done: number }[] {
  const out: { at: Vec3; along: Vec3; done: number }[] = [];
  let done = 0,
    next = 0;
  for (let i = 0; i + 1 < points.length; i++) {
    const d = sub(points[i + 1]!, points[i]!),
      l = length(d);
    if (l === 0) continue;
    for (; next <= done + l; next += step)
      out.push({ at: add(points[i]!, scale(d, (next - done) / l)), along: scale(d, 1 / l), done: next });
    done += l;
  }
  return out;
}

const sides = (along: Vec3): readonly [Vec3, Vec3] => {
  const u = normalize(cross(along, Math.abs(along[1]) > 0.95 ? [1, 0, 0] : [0, 1, 0]));
  return [u, cross(along, u)];
};

function twist(
  way: ReturnType<typeof evenly>,
  { thick, seed }: Options,
  tones: readonly number[],
  put: (p: Vec3, by: number) => void,
): void {
  const r = thick / 2;
  for (const { at, along, done } of way) {
    const [u, v] = sides(along);
    for (let a = -r; a <= r; a += 0.45)
      for (let b = -r; b <= r; b += 0.45) {
        const away = Math.hypot(a, b);
        // Here and there a yarn stands off or is worn away.
        if (away > r * (0.93 + 0.14 * noise3(done / 3, a, b, seed))) continue;
        // Three strands that wind about each other.
        const turn = ((Math.atan2(b, a) / (2 * Math.PI)) * 3 + done / (thick * 2.4) + 30) % 1;
        put(add(at, add(scale(u, a), scale(v, b))), tones[turn < 0.22 ? 0 : turn < 0.45 ? 2 : turn < 0.75 ? 3 : 1]!);
      }
  }
}

function links(
  way: ReturnType<typeof evenly>,
  { thick, link }: Options,
  tones: readonly number[],
  put: (p: Vec3, by: number) => void,
): void {
  const wire = Math.max(1, thick / 3),
    wide = thick / 2 + wire / 2,
    // Each reaches through its neighbours by its wire.
    step = Math.max(wire * 2, link - 2 * wire);
  const end = way.at(-1)!.done;
  let n = 0;
  for (let from = 0; from + link <= end + step; from += step, n++) {
    const middle = way[Math.min(way.length - 1, Math.round((from + link / 2) / 0.4))]!;
    const [u, v] = sides(middle.along),
      flat = n % 2 === 0 ? u : v;
    const half = link / 2 - wire / 2,
      straight = Math.max(0, half - wide);
    for (let t = 0; t < 2 * Math.PI; t += 0.5 / Math.max(2, half)) {
      const [c, s] = [Math.cos(t), Math.sin(t)];
      const ring = add(add(middle.at, scale(middle.along, c * wide + Math.sign(c) * straight)), scale(flat, s * wide));
      ball(ring, wire / 2, (p) => put(p, tones[1 + (n % 2) + (dot(sub(p, ring), [0, 1, 0]) > 0 ? 1 : 0)]!));
    }
    for (let k = -straight; k <= straight; k += 0.4)
      for (const s of [-wide, wide]) {
        const p0 = add(add(middle.at, scale(middle.along, k)), scale(flat, s));
        ball(p0, wire / 2, (p) => put(p, tones[1 + (n % 2)]!));
      }
  }
}

function ball(at: Vec3, r: number, put: (p: Vec3) => void): void {
  const reach = Math.max(0.4, r);
  for (let z = -reach; z <= reach; z += 0.4)
    for (let y = -reach; y <= reach; y += 0.4)
      for (let x = -reach; x <= reach; x += 0.4) if (x * x + y * y + z * z <= r * r + 0.05) put(add(at, [x, y, z]));
}

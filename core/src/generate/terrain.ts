import * as z from 'zod';
import { type Random, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { type Generator, Paint, colourOption, grounded, seedOption, shareOption, sizeOption } from './generator';
import { fractal, noise3 } from './noise';

const options = z.strictObject({
  seed: seedOption,
  width: sizeOption('Width', 'in cubes', 16, 256, 80),
  depth: sizeOption('Depth', 'in cubes', 16, 256, 80),
  height: sizeOption('Height', 'of the highest hill', 4, 128, 28),
  scale: sizeOption('Hills', 'how far from hill to hill', 8, 128, 40),
  rough: shareOption('Rough', 'how much small hills count', 0.45),
  erosion: shareOption('Erosion', 'how much rain has washed down', 0.4),
  strata: shareOption('Steps', 'how much harder layers stand out', 0.25),
  river: z.boolean().default(true).meta({ title: 'River', description: 'from high ground to the rim' }),
  grass: colourOption('Grass', 'of level ground', '#5f8a4a'),
  rock: colourOption('Rock', 'of steep ground and below', '#77706a'),
});
type Options = z.infer<typeof options>;

/** Ground with hills, layers of rock and a river that runs down to the rim. */
export const terrain: Generator<Options> = {
  id: 'terrain',
  name: 'Terrain',
  about: 'hills, washed out and layered, with a river',
  options,
  make(o) {
    const { grid, swatches } = terrainWith(o);
    return { parts: [{ name: 'Terrain', grid }], swatches };
  },
};

/** With the way of its river: places of columns and how high its water stands there, from the spring down. */
export function terrainWith(o: Options) {
  const field = heights(o),
    random = seededRandom(o.seed * 31 + 7);
  wash(field, o, random);
  const river = o.river ? riverOf(field, o) : [];
  const paint = new Paint();
  const grass = paint.tones('grass', o.grass, 4),
    rock = paint.tones('rock', o.rock, 5),
    soil = paint.one('soil', '#6d4f35'),
    sand = paint.one('sand', '#c9b07c'),
    water = paint.tones('water', '#3f7f95', 2, { opacity: 0.75, roughness: 0.2 });
  const size = [o.width, o.height + 4, o.depth] as const,
    min = grounded(size);
  const wet = wetOf(river, o);
  const grid = VoxelGrid.empty({ min, size }).edit((d) => {
    for (let z = 0; z < o.depth; z++)
      for (let x = 0; x < o.width; x++) {
        const at = z * o.width + x,
          level = wet.get(at),
          high = Math.max(1, Math.round(level === undefined ? field[at]! : level - 1));
        const slope = steepness(field, x, z, o);
        for (let y = 0; y < high; y++) {
          const layer =
            rock[Math.abs(Math.round(y / 3 + 2 * noise3(x / 20, y / 9, z / 20, o.seed + 5))) % rock.length]!;
          const top = y === high - 1;
          const by =
            top && level !== undefined
              ? sand
              : top && slope < 1.6
                ? grass[(noise3(x / 6, 0, z / 6, o.seed) * 2 + 2) | 0]!
                : y > high - 4 && slope < 1.6
                  ? soil
                  : layer;
          d.set(min[0] + x, y, min[2] + z, by);
        }
        if (level !== undefined) d.set(min[0] + x, Math.round(level - 1), min[2] + z, water[(x + z) % 2]!);
      }
  });
  return { grid, swatches: paint.swatches, river };
}

/** Columns under water and how high it stands: wider the farther it has come. */
function wetOf(
  river: readonly { x: number; z: number; level: number }[],
  { width, depth }: Options,
): Map<number, number> {
  const bed = new Map(river.map((r) => [r.z * width + r.x, r.level])),
    wet = new Map(bed);
  river.forEach(({ x, z, level }, n) => {
    const r = 0.8 + (1.6 * n) / river.length;
    for (let j = -2; j <= 2; j++)
      for (let i = -2; i <= 2; i++) {
        const [a, b] = [x + i, z + j];
        if (Math.hypot(i, j) > r || a < 0 || b < 0 || a >= width || b >= depth) continue;
        const at = b * width + a;
        if (!bed.has(at)) wet.set(at, Math.min(level, wet.get(at) ?? level));
      }
  });
  return wet;
}

function heights(o: Options): Float64Array {
  const out = new Float64Array(o.width * o.depth);
  let lo = Infinity,
    hi = -Infinity;
  for (let z = 0; z < o.depth; z++)
    for (let x = 0; x < o.width; x++) {
      const broad = fractal(x / o.scale, 0, z / o.scale, o.seed, 2),
        fine = fractal(x / o.scale, 7, z / o.scale, o.seed + 50, 5);
      const v = broad + o.rough * fine;
      out[z * o.width + x] = v;
      lo = Math.min(lo, v);
      hi = Math.max(hi, v);
    }
  for (let i = 0; i < out.length; i++) {
    const share = (out[i]! - lo) / (hi - lo || 1);
    // Harder layers are steps that slope towards each other.
    const steps = 5,
      step = Math.floor(share * steps) / steps + Math.max(0, ((share * steps) % 1) - 0.7) / 0.3 / steps;
    out[i] = 2 + (o.height - 2) * (share * (1 - o.strata) + step * o.strata);
  }
  return out;
}

/** Drops of rain run downhill, take ground along where they are quick and leave it where they are slow. */
function wash(field: Float64Array, { width, depth, erosion }: Options, random: Random): void {
  const drops = Math.round(erosion * width * depth * 0.6);
  for (let n = 0; n < drops; n++) {
    let x = Math.floor(random() * width),
      z = Math.floor(random() * depth),
      load = 0;
    for (let step = 0; step < 48; step++) {
      const here = field[z * width + x]!;
      let [bx, bz, low] = [x, z, here];
      for (const [i, j] of AROUND) {
        const [a, b] = [x + i, z + j];
        if (a < 0 || b < 0 || a >= width || b >= depth) continue;
        if (field[b * width + a]! < low) [bx, bz, low] = [a, b, field[b * width + a]!];
      }
      if (low >= here) {
        field[z * width + x]! += load;
        break;
      }
      const taken = Math.min(0.25, (here - low) * 0.25);
      field[z * width + x]! -= taken;
      load += taken * 0.5;
      [x, z] = [bx, bz];
    }
  }
  for (let i = 0; i < field.length; i++) field[i] = Math.max(1, field[i]!);
}
const AROUND = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;

function steepness(field: Float64Array, x: number, z: number, { width, depth }: Options): number {
  const at = (a: number, b: number): number =>
    field[Math.min(depth - 1, Math.max(0, b)) * width + Math.min(width - 1, Math.max(0, a))]!;
  return Math.max(Math.abs(at(x + 1, z) - at(x - 1, z)), Math.abs(at(x, z + 1) - at(x, z - 1)));
}

/** The way with the least climbing from the highest ground inside to the rim (Dijkstra), its bed cut so that water never rises. */
function riverOf(field: Float64Array, { width, depth }: Options): { x: number; z: number; level: number }[] {
  let start = 0,
    top = -1;
  for (let z = depth >> 2; z < depth - (depth >> 2); z++)
    for (let x = width >> 2; x < width - (width >> 2); x++)
      if (field[z * width + x]! > top) [start, top] = [z * width + x, field[z * width + x]!];
  const cost = new Float64Array(field.length).fill(Infinity),
    from = new Int32Array(field.length).fill(-1),
    done = new Uint8Array(field.length);
  cost[start] = 0;
  // Costs are small whole numbers of hundredths: buckets instead of a heap.
  const buckets: number[][] = [[start]];
  let end = -1;
  for (let c = 0; c < buckets.length && end < 0; c++)
    for (const at of buckets[c] ?? []) {
      if (done[at] === 1) continue;
      done[at] = 1;
      const [x, z] = [at % width, Math.floor(at / width)];
      if (x === 0 || z === 0 || x === width - 1 || z === depth - 1) {
        end = at;
        break;
      }
      for (const [i, j] of AROUND.slice(0, 4)) {
        const next = at + i + j * width;
        const climb = Math.max(0, field[next]! - field[at]!);
        const to = c + 1 + Math.round(climb * 40);
        if (to >= cost[next]!) continue;
        cost[next] = to;
        from[next] = at;
        (buckets[to] ??= []).push(next);
      }
    }
  const way: number[] = [];
  for (let at = end; at !== -1; at = from[at]!) way.push(at);
  way.reverse();
  let level = Infinity;
  const out: { x: number; z: number; level: number }[] = [];
  way.forEach((at) => {
    level = Math.max(2, Math.min(level, Math.round(field[at]!)));
    out.push({ x: at % width, z: Math.floor(at / width), level });
  });
  // Banks go down to the water, so that it stands in its bed.
  for (const { x, z, level: l } of out)
    for (let j = -5; j <= 5; j++)
      for (let i = -5; i <= 5; i++) {
        const [a, b] = [x + i, z + j];
        if (a < 0 || b < 0 || a >= width || b >= depth) continue;
        const away = Math.hypot(i, j);
        field[b * width + a] = Math.min(field[b * width + a]!, l + Math.max(0, away - 1.5) * 1.4);
      }
  return out;
}

import * as z from 'zod';
import { type Vec3, add, length, scale, seededRandom, sub } from '../math';
import type { VoxelGrid } from '../voxel';
import { type Generator, Paint, about, colourOption, seedOption, shareOption, sizeOption } from './generator';
import { noise3 } from './noise';
import { gridOfCells } from './piece';

const options = z.strictObject({
  seed: seedOption,
  height: sizeOption('Height', 'in cubes', 8, 200, 44),
  crown: sizeOption('Crown', 'how wide, in cubes', 4, 160, 30),
  shape: z.enum(['round', 'cone', 'flat', 'bare']).default('round').meta(about('Shape', 'of the crown')),
  trunk: sizeOption('Trunk', 'how thick at the foot, in cubes', 1, 24, 5),
  leaves: shareOption('Leaves', 'how thick the crown is', 0.65),
  wind: shareOption('Wind', 'how far it was blown to one side', 0.15),
  bark: colourOption('Bark', 'of trunk and branches', '#6b4a33'),
  leaf: colourOption('Leaves', 'their colour', '#4f7d3f'),
});
type Options = z.infer<typeof options>;

/** A trunk with branches and a crown, blown by the wind. */
export const tree: Generator<Options> = {
  id: 'tree',
  name: 'Tree',
  about: 'trunk, branches and a crown, blown by the wind',
  options,
  make(o) {
    const random = seededRandom(o.seed),
      paint = new Paint();
    const bark = paint.tones('bark', o.bark, 3),
      leaf = paint.tones('leaf', o.leaf, 4);
    const cells = new Map<number, number>();
    const key = (x: number, y: number, z: number): number => (x + 512) * 1_048_576 + (y + 512) * 1024 + z + 512;
    const put = (x: number, y: number, z: number, by: number): void => {
      if (y >= 0 && y < 256 && Math.abs(x) < 126 && Math.abs(z) < 126) cells.set(key(x, y, z), by);
    };
    const barkAt = (x: number, y: number, z: number): number =>
      bark[Math.min(2, Math.floor(1.5 + 1.5 * noise3(x / 2, y / 5, z / 2, o.seed)))]!;
    /** A stem from one place to another, thinner at its end; whole balls, and by way of faces, so that it hangs together. */
    const stem = (from: Vec3, to: Vec3, thick: number, thin: number): void => {
      const steps = Math.max(1, Math.ceil(length(sub(to, from)) * 2));
      const last = from.map(Math.round);
      for (let s = 0; s <= steps; s++) {
        const p = add(from, scale(sub(to, from), s / steps)),
          r = (thick + ((thin - thick) * s) / steps) / 2,
          [cx, cy, cz] = p.map(Math.round) as [number, number, number],
          reach = Math.ceil(r);
        // The thinnest would meet at edges only.
        for (const [axis, to] of [cx, cy, cz].entries()) {
          last[axis] = to;
          put(last[0]!, last[1]!, last[2]!, barkAt(last[0]!, last[1]!, last[2]!));
        }
        for (let k = -reach; k <= reach; k++)
          for (let j = -reach; j <= reach; j++)
            for (let i = -reach; i <= reach; i++)
              if (i * i + j * j + k * k <= r * r) put(cx + i, cy + j, cz + k, barkAt(cx + i, cy + j, cz + k));
      }
    };
    const blow: Vec3 = [o.wind * o.height * 0.6, 0, 0];
    const bend = (share: number): Vec3 => scale(blow, share * share);
    const half = o.crown / 2,
      low = o.shape === 'cone' ? 0.22 : o.shape === 'flat' ? 0.62 : 0.4;
    // The trunk in pieces, each a little astray.
    const pieces = 7;
    let at: Vec3 = [0, 0, 0];
    const spine: Vec3[] = [at];
    for (let n = 1; n <= pieces; n++) {
      const share = n / pieces;
      const sway = o.trunk * 0.25 * (1 - share * 0.5);
      const next = add(
        [(random() - 0.5) * sway + at[0] * 0.2, share * o.height * 0.92, (random() - 0.5) * sway + at[2] * 0.2],
        bend(share * 0.92),
      );
      const width = (s: number): number => Math.max(1, o.trunk * (1 - 0.85 * s));
      stem(at, next, width((n - 1) / pieces), width(share));
      spine.push((at = next));
    }
    // Branches reach for the rim of the crown; leaves stand around their ends.
    const ends: { at: Vec3; r: number }[] = [];
    const branches = Math.max(5, Math.round(o.crown / 2.2));
    for (let n = 0; n < branches; n++) {
      const share = low + (0.95 - low) * ((n + 0.5) / branches),
        turn = n * 2.399963 + random() * 0.6;
      const reach = half * rim(o.shape, (share - low) / (1 - low)) * (0.75 + 0.25 * random());
      const root = along(spine, share * 0.92 - 0.1);
      const tip = add(
        add([Math.cos(turn) * reach, share * o.height + random() * 2, Math.sin(turn) * reach], bend(share)),
        [0, o.shape === 'cone' ? -reach * 0.25 : 0, 0],
      );
      stem(root, tip, Math.max(1, o.trunk * 0.4 * (1.1 - share)), 1);
      ends.push(
        { at: tip, r: Math.max(2, half * 0.42) },
        { at: scale(add(root, tip), 0.5), r: Math.max(2, half * 0.36) },
      );
    }
    ends.push({ at, r: Math.max(2, half * (o.shape === 'cone' ? 0.2 : 0.5)) });
    if (o.shape !== 'bare' && o.leaves > 0) foliage(ends, o, leaf, cells, key, put);
    return { parts: [{ name: 'Tree', grid: rooted(cells) }], swatches: paint.swatches };
  },
};

/** How wide a crown is from its foot, 0, to its top, 1, of its half width. */
function rim(shape: Options['shape'], t: number): number {
  if (shape === 'cone') return 1 - 0.92 * t;
  if (shape === 'flat') return 0.75 + 0.25 * Math.sin(Math.PI * t);
  return Math.sqrt(Math.max(0, 1 - (2 * t - 0.9) ** 2 / 1.35));
}

function along(spine: readonly Vec3[], share: number): Vec3 {
  const t = Math.min(0.999, Math.max(0, share)) * (spine.length - 1),
    i = Math.floor(t);
  return add(spine[i]!, scale(sub(spine[i + 1]!, spine[i]!), t - i));
}

function foliage(
  ends: readonly { at: Vec3; r: number }[],
  o: Options,
  leaf: readonly number[],
  cells: ReadonlyMap<number, number>,
  key: (x: number, y: number, z: number) => number,
  put: (x: number, y: number, z: number, by: number) => void,
): void {
  for (const { at, r } of ends) {
    const [cx, cy, cz] = at.map(Math.round) as [number, number, number],
      reach = Math.ceil(r);
    for (let k = -reach; k <= reach; k++)
      for (let j = -reach; j <= reach; j++)
        for (let i = -reach; i <= reach; i++) {
          const [x, y, z] = [cx + i, cy + j, cz + k];
          const away = Math.hypot(i, j * 1.25, k) / r;
          const ragged =
            noise3(x / 2.7, y / 2.7, z / 2.7, o.seed + 3) * 0.5 + noise3(x / 1.3, y / 1.3, z / 1.3, o.seed + 4) * 0.35;
          if (away > 1 || away + ragged > 0.55 + 0.5 * o.leaves || cells.has(key(x, y, z))) continue;
          // Lighter above and where the sun comes in.
          const light = 1.4 + 1.6 * (j / r) + noise3(x / 3, y / 3, z / 3, o.seed + 9);
          put(x, y, z, leaf[Math.min(3, Math.max(0, Math.round(light)))]!);
        }
  }
}

/** All that hangs together with the foot, as a part. */
function rooted(cells: ReadonlyMap<number, number>): VoxelGrid {
  const first = [...cells.keys()].find((k) => Math.floor(k / 1024) % 1024 === 512)!;
  const seen = new Set([first]),
    open = [first];
  for (let at = open.pop(); at !== undefined; at = open.pop())
    for (const step of [1, -1, 1024, -1024, 1_048_576, -1_048_576]) {
      const next = at + step;
      if (!cells.has(next) || seen.has(next)) continue;
      seen.add(next);
      open.push(next);
    }
  return gridOfCells(
    [...seen].map((k) => [
      Math.floor(k / 1_048_576) - 512,
      (Math.floor(k / 1024) % 1024) - 512,
      (k % 1024) - 512,
      cells.get(k)!,
    ]),
  );
}

import * as z from 'zod';
import { type Random, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import {
  type Generator,
  type GrownPart,
  Paint,
  about,
  colourOption,
  grounded,
  seedOption,
  shareOption,
  sizeOption,
} from './generator';

const options = z.strictObject({
  seed: seedOption,
  width: sizeOption('Width', 'of the field, in cubes', 16, 256, 96),
  depth: sizeOption('Depth', 'of the field, in cubes', 16, 256, 72),
  plate: sizeOption('Plate', 'how wide a plate is at least', 6, 96, 18),
  apart: sizeOption('Apart', 'cubes between plates', 0, 16, 3),
  levels: sizeOption('Levels', 'how many storeys stand on each other', 1, 8, 4),
  density: shareOption('Density', 'how much stands on a plate', 0.6),
  symmetry: z
    .enum(['none', 'across', 'both'])
    .default('none')
    .meta(about('Symmetry', 'each plate mirrored from left to right, or both ways')),
  parts: z.enum(['each', 'one']).default('each').meta(about('Parts', 'one for each plate, or one of all')),
  metal: colourOption('Metal', 'of plates', '#566573'),
  trim: colourOption('Trim', 'of pipes, rivets and vents', '#b9772f'),
});
type Options = z.infer<typeof options>;

interface Rect {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** Plates with pipes, vents and rivets, as on the machines of a sluice. */
export const panels: Generator<Options> = {
  id: 'panels',
  name: 'Panels',
  about: 'plates with pipes, vents and rivets',
  options,
  make(o) {
    const random = seededRandom(o.seed),
      paint = new Paint();
    const metal = paint.tones('metal', o.metal, 5),
      trim = paint.tones('trim', o.trim, 3),
      dark = paint.one('gap', '#1c1f26');
    const plates = cut({ x: 0, y: 0, w: o.width, h: o.depth }, o, random)
      .map((r) => shrunk(r, o.apart))
      .filter((r) => r.w > 2 && r.h > 2);
    const high = o.levels * 2 + 4;
    const draw = (list: readonly Rect[], within: Rect): VoxelGrid => {
      const size = [within.w, high, within.h] as const,
        min = grounded(size);
      return VoxelGrid.empty({ min, size }).edit((d) => {
        for (const r of list) {
          const heights = plateHeights(r, o, seededRandom(o.seed * 7919 + r.x * 131 + r.y));
          for (let j = 0; j < r.h; j++)
            for (let i = 0; i < r.w; i++) {
              const { high: top, look } = heights[j * r.w + i]!;
              const at = [min[0] + r.x - within.x + i, min[2] + r.y - within.y + j] as const;
              for (let y = 0; y < top; y++) {
                const rim = y === top - 1;
                const byte =
                  look === 'vent'
                    ? dark
                    : look === 'trim'
                      ? trim[rim ? 2 : 0]!
                      : metal[Math.min(4, (rim ? 1 : 0) + Math.floor((y * 4) / high))]!;
                d.set(at[0], y, at[1], byte);
              }
            }
        }
      });
    };
    const field: Rect = { x: 0, y: 0, w: o.width, h: o.depth };
    const parts: GrownPart[] =
      o.parts === 'one'
        ? [{ name: 'Panels', grid: draw(plates, field) }]
        : plates.map((r, i) => ({ name: `Panel ${i + 1}`, grid: draw([r], r) }));
    return { parts, swatches: paint.swatches };
  },
};

/** A rectangle cut across again and again until pieces are about as large as a plate. */
function cut(r: Rect, { plate }: Options, random: Random): Rect[] {
  const along = r.w >= r.h,
    long = along ? r.w : r.h;
  if (long < 2 * plate) return [r];
  const at = Math.round(plate + random() * (long - 2 * plate));
  const [a, b] = along
    ? [
        { ...r, w: at },
        { ...r, x: r.x + at, w: r.w - at },
      ]
    : [
        { ...r, h: at },
        { ...r, y: r.y + at, h: r.h - at },
      ];
  const o = { plate } as Options;
  return [...cut(a, o, random), ...cut(b, o, random)];
}
/** With half of the space between on each side, the odd cube on the far one. */
const shrunk = (r: Rect, apart: number): Rect => {
  const [low, all] = [apart >> 1, apart];
  return { x: r.x + low, y: r.y + low, w: r.w - all, h: r.h - all };
};

interface Place {
  high: number;
  look: 'metal' | 'trim' | 'vent';
}

function plateHeights(r: Rect, o: Options, random: Random): Place[] {
  const out = Array.from({ length: r.w * r.h }, (): Place => ({ high: 2, look: 'metal' }));
  const put = (x: number, y: number, w: number, h: number, change: (p: Place) => void): void => {
    for (let j = Math.max(0, y); j < Math.min(r.h, y + h); j++)
      for (let i = Math.max(0, x); i < Math.min(r.w, x + w); i++) change(out[j * r.w + i]!);
  };
  // A rim one lower all around.
  put(0, 0, r.w, r.h, (p) => (p.high = 1));
  put(1, 1, r.w - 2, r.h - 2, (p) => (p.high = 2));
  const below = (n: number): number => Math.floor(random() * Math.max(1, n));
  const many = Math.round(o.density * Math.sqrt(r.w * r.h) * 0.7);
  for (let n = 0; n < many; n++) {
    const w = 2 + below(r.w / 2),
      h = 2 + below(r.h / 2),
      x = 1 + below(r.w - w - 1),
      y = 1 + below(r.h - h - 1);
    const kind = random();
    if (kind < 0.55)
      put(
        x,
        y,
        Math.min(w, r.w - 2 - x + 1),
        Math.min(h, r.h - 2 - y + 1),
        (p) => (p.high = Math.min(p.high + 2, 2 + 2 * o.levels - 2 + 1)),
      );
    else if (kind < 0.72) {
      // A vent: slots side by side.
      for (let k = 0; k < w && x + k < r.w - 1; k += 2)
        put(x + k, y, 1, Math.min(h, r.h - 1 - y), (p) => ((p.high = Math.max(1, p.high - 1)), (p.look = 'vent')));
    } else if (kind < 0.88) {
      // A pipe from side to side.
      if (random() < 0.5) put(1, y, r.w - 2, 2, (p) => ((p.high = Math.max(p.high, 3) + 1), (p.look = 'trim')));
      else put(x, 1, 2, r.h - 2, (p) => ((p.high = Math.max(p.high, 3) + 1), (p.look = 'trim')));
    } else put(x, y, 2, 2, (p) => ((p.high += 1), (p.look = 'trim')));
  }
  // Rivets along the rim.
  for (const [x, y] of [
    [1, 1],
    [r.w - 2, 1],
    [1, r.h - 2],
    [r.w - 2, r.h - 2],
  ] as const)
    put(x, y, 1, 1, (p) => ((p.high = 3), (p.look = 'trim')));
  const most = o.levels * 2 + 4;
  for (const p of out) p.high = Math.min(most, p.high);
  if (o.symmetry !== 'none') mirror(out, r.w, r.h, o.symmetry === 'both');
  return out;
}
function mirror(of: Place[], w: number, h: number, both: boolean): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) of[j * w + i] = of[Math.min(j, both ? h - 1 - j : j) * w + Math.min(i, w - 1 - i)]!;
}

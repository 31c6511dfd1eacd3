import * as z from 'zod';
import { type Vec3, dot, normalize, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { type Generator, Paint, colourOption, grounded, seedOption, shareOption, sizeOption } from './generator';
import { noise3 } from './noise';
import { largestPiece } from './piece';

const options = z.strictObject({
  seed: seedOption,
  width: sizeOption('Width', 'in cubes', 3, 128, 26),
  height: sizeOption('Height', 'in cubes', 3, 128, 18),
  facets: sizeOption('Facets', 'how many sides it was broken to', 6, 40, 16),
  rough: shareOption('Rough', 'how weathered it is', 0.35),
  cracks: shareOption('Cracks', 'how far layers have come apart', 0.3),
  moss: shareOption('Moss', 'how much grows on top', 0.35),
  rock: colourOption('Rock', 'its colour', '#7b7772'),
});
type Options = z.infer<typeof options>;

/** A boulder of broken sides, weathered, with moss on top. */
export const rock: Generator<Options> = {
  id: 'rock',
  name: 'Rock',
  about: 'a boulder, broken, weathered and mossy',
  options,
  make(o) {
    const random = seededRandom(o.seed),
      paint = new Paint();
    const stone = paint.tones('rock', o.rock, 5),
      moss = paint.tones('moss', '#667a3c', 2);
    const size: Vec3 = [o.width, o.height, Math.max(3, Math.round(o.width * (0.75 + 0.25 * random())))],
      min = grounded(size);
    // Sides: planes about the middle, none far in.
    const sides = Array.from({ length: o.facets }, () => {
      const n = normalize([random() * 2 - 1, random() * 1.6 - 0.5, random() * 2 - 1]);
      return { n, at: 0.62 + 0.36 * random() };
    });
    const grid = VoxelGrid.empty({ min, size }).edit((d) => {
      for (let z = 0; z < size[2]; z++)
        for (let y = 0; y < size[1]; y++)
          for (let x = 0; x < size[0]; x++) {
            const p: Vec3 = [
              ((x + 0.5) / size[0]) * 2 - 1,
              ((y + 0.5) / size[1]) * 1.5 - 0.5,
              ((z + 0.5) / size[2]) * 2 - 1,
            ];
            const worn = o.rough * 0.22 * noise3(x / 4, y / 4, z / 4, o.seed + 1);
            if (sides.some(({ n, at }) => dot(n, p) > at + worn) || Math.hypot(p[0], p[1] * 0.9, p[2]) > 1 + worn)
              continue;
            const layer = y / 3.2 + 0.8 * noise3(x / 9, 0, z / 9, o.seed + 2);
            // Cracks run along layers, from the outside in.
            if (
              o.cracks > 0 &&
              layer % 1 < 0.2 &&
              noise3(x / 6, y / 6, z / 6, o.seed + 6) > 1.1 - o.cracks &&
              Math.hypot(p[0], p[2]) > 0.6
            )
              continue;
            d.set(
              min[0] + x,
              y,
              min[2] + z,
              stone[Math.min(4, Math.max(0, Math.round(2 + 1.4 * noise3(x / 3, layer * 2, z / 3, o.seed + 3))))]!,
            );
          }
    });
    const whole = largestPiece(grid);
    const overgrown = whole.edit((d) =>
      whole.forEach((x, y, z) => {
        if (whole.get(x, y + 1, z) !== 0) return;
        const thick = noise3(x / 5, y / 5, z / 5, o.seed + 8);
        if (thick > 1 - 2 * o.moss) d.set(x, y, z, moss[thick > 1.3 - 2 * o.moss ? 1 : 0]!);
      }),
    );
    return { parts: [{ name: 'Rock', grid: overgrown }], swatches: paint.swatches };
  },
};

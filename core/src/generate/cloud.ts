import * as z from 'zod';
import { type Vec3, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { type Generator, Paint, colourOption, grounded, seedOption, shareOption, sizeOption } from './generator';
import { noise3 } from './noise';
import { largestPiece } from './piece';

const options = z.strictObject({
  seed: seedOption,
  width: sizeOption('Width', 'in cubes', 8, 200, 56),
  height: sizeOption('Height', 'in cubes', 4, 120, 22),
  depth: sizeOption('Depth', 'in cubes', 6, 200, 34),
  puffs: sizeOption('Puffs', 'how many balls it is made of', 2, 40, 14),
  ragged: shareOption('Ragged', 'how torn its rim is', 0.35),
  light: colourOption('Colour', 'where the sun is', '#f3efe6'),
});
type Options = z.infer<typeof options>;

/** A heap of balls on a flat foot, darker below. */
export const cloud: Generator<Options> = {
  id: 'cloud',
  name: 'Cloud',
  about: 'a heap of puffs on a flat foot',
  options,
  make(o) {
    const random = seededRandom(o.seed),
      paint = new Paint();
    const tones = paint.tones('cloud', o.light, 4, { roughness: 1 });
    const size: Vec3 = [o.width, o.height, o.depth],
      min = grounded(size);
    const puffs = Array.from({ length: o.puffs }, (_, i) => {
      const along = i === 0 ? 0 : random() * 2 - 1,
        r = (0.5 - 0.28 * Math.abs(along)) * (0.75 + 0.5 * random());
      return { x: along * 0.68, y: (random() * 0.35 + 0.05) * (1 - Math.abs(along)), z: (random() * 2 - 1) * 0.45, r };
    });
    const grid = VoxelGrid.empty({ min, size }).edit((d) => {
      for (let zz = 0; zz < size[2]; zz++)
        for (let y = 0; y < size[1]; y++)
          for (let x = 0; x < size[0]; x++) {
            const [px, py, pz] = [((x + 0.5) / size[0]) * 2 - 1, (y + 0.5) / size[1], ((zz + 0.5) / size[2]) * 2 - 1];
            const torn = o.ragged * 0.3 * noise3(x / 3.5, y / 3.5, zz / 3.5, o.seed + 2);
            // Balls that melt into each other.
            let sum = 0;
            for (const p of puffs)
              sum +=
                Math.max(0, 1 - ((px - p.x) ** 2 + ((py - p.y) * 1.1) ** 2 + (pz - p.z) ** 2) / (p.r * p.r * 1.7)) ** 2;
            if (sum + torn * 0.5 < 0.22) continue;
            const tone = Math.min(
              3,
              Math.max(0, Math.round(0.3 + 3.4 * py + 0.8 * noise3(x / 6, y / 6, zz / 6, o.seed + 4))),
            );
            d.set(min[0] + x, y, min[2] + zz, tones[tone]!);
          }
    });
    return { parts: [{ name: 'Cloud', grid: largestPiece(grid) }], swatches: paint.swatches };
  },
};

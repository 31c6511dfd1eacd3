import * as z from 'zod';
import { type Vec3, hash32 } from '../math';
import { VoxelGrid } from '../voxel';
import { type Generator, Paint, about, colourOption, grounded, seedOption, shareOption, sizeOption } from './generator';
import { noise3 } from './noise';
import { fitted } from './piece';

const options = z.strictObject({
  seed: seedOption,
  plan: z
    .enum(['straight', 'corner', 'room'])
    .default('corner')
    .meta(about('Plan', 'one wall, two that meet, or four around a room')),
  width: sizeOption('Width', 'of the plan, in cubes', 8, 256, 48),
  depth: sizeOption('Depth', 'of the plan, in cubes; a straight wall has none', 8, 256, 36),
  height: sizeOption('Height', 'in cubes', 4, 256, 30),
  thick: sizeOption('Thick', 'how thick walls are', 1, 16, 4),
  long: sizeOption('Brick', 'how long a brick is, with its joint', 3, 32, 8),
  course: sizeOption('Course', 'how high a course is, with its joint', 2, 16, 4),
  joint: sizeOption('Joint', 'of mortar between bricks', 0, 3, 1),
  decay: shareOption('Decay', 'how much has broken off from above', 0.25),
  chipped: shareOption('Chipped', 'how many bricks stand proud or are gone', 0.2),
  moss: shareOption('Moss', 'how much grows in the joints at the foot', 0.25),
  brick: colourOption('Brick', 'its colour', '#9a4f38'),
  mortar: colourOption('Mortar', 'between bricks', '#b3a894'),
});
type Options = z.infer<typeof options>;

/** Brickwork in running bond, whose courses meet at the corners, weathered. */
export const wall: Generator<Options> = {
  id: 'wall',
  name: 'Brick wall',
  about: 'brickwork that meets at corners, weathered',
  options,
  make(o) {
    const paint = new Paint();
    const bricks = paint.tones('brick', o.brick, 5),
      mortar = paint.tones('mortar', o.mortar, 2),
      moss = paint.tones('moss', '#6b7d3a', 2);
    const size: Vec3 = [o.width, o.height, o.plan === 'straight' ? o.thick : o.depth],
      min = grounded(size);
    const grid = VoxelGrid.empty({ min, size }).edit((d) => {
      for (let y = 0; y < o.height; y++)
        for (let zz = 0; zz < size[2]; zz++)
          for (let x = 0; x < o.width; x++) {
            const place = placeIn(x, y, zz, o, size);
            if (!place || gone(x, y, zz, o)) continue;
            const { joint, brick, outer } = place;
            const mood = hash32(brick * 31 + o.seed) / 4294967296;
            // Some bricks have fallen out of the face; mortar stands a little behind it.
            if (outer && mood < o.chipped * 0.4) continue;
            const mossy = joint && noise3(x / 5, y / 4, zz / 5, o.seed + 3) > 1.2 - 2.2 * o.moss * (1 - y / o.height);
            const by = mossy
              ? moss[(x + y) & 1]!
              : joint
                ? mortar[y % 2]!
                : bricks[Math.min(4, Math.floor(mood * 3 + 1 + 0.7 * noise3(x / 2, y / 2, zz / 2, o.seed + 1)))]!;
            d.set(min[0] + x, y, min[2] + zz, by);
          }
    });
    return { parts: [{ name: 'Brick wall', grid: fitted(grid) }], swatches: paint.swatches };
  },
};

/** Which brick a cell of the plan is of, or whether it is a joint; null where no wall is. */
export function placeIn(
  x: number,
  y: number,
  zz: number,
  o: Pick<Options, 'plan' | 'width' | 'thick' | 'long' | 'course' | 'joint'>,
  [w, , depth]: Vec3,
): { readonly joint: boolean; readonly brick: number; readonly outer: boolean } | null {
  const course = Math.floor(y / o.course),
    bed = y % o.course >= o.course - o.joint;
  const front = zz >= depth - o.thick,
    back = o.plan === 'room' && zz < o.thick,
    left = o.plan !== 'straight' && x < o.thick,
    right = o.plan === 'room' && x >= w - o.thick;
  if (!front && !back && !left && !right) return null;
  // At a corner the walls take turns: in each other course one goes through and the other stops at it.
  const across = (front || back) && (!(left || right) || course % 2 === 0);
  const run = across ? x : depth - 1 - zz;
  // The stopping wall begins behind the one that goes through, so that no joint stands over another.
  const shift =
    o.plan !== 'straight' && across !== (course % 2 === 0) ? o.thick % o.long : course % 2 === 0 ? 0 : o.long >> 1;
  const at = run - shift + o.long * 64;
  const side = across ? (front ? 0 : 1) : left ? 2 : 3;
  const outer = across ? (front ? zz === depth - 1 : zz === 0) : left ? x === 0 : x === w - 1;
  return {
    joint: bed || at % o.long >= o.long - o.joint,
    brick: (Math.floor(at / o.long) * 512 + course) * 4 + side,
    outer,
  };
}

/** Broken off along a ragged line from above. */
function gone(x: number, y: number, zz: number, o: Options): boolean {
  if (o.decay === 0) return false;
  const line = o.height * (1 - o.decay * (0.55 + 0.75 * noise3(x / 14, 0, zz / 14, o.seed + 20)));
  // By whole bricks, nearly.
  const step =
    Math.floor(y / o.course) * o.course + (hash32(Math.floor(x / 4) * 97 + Math.floor(zz / 4) * 13 + o.seed) % 3) - 1;
  return step > line;
}

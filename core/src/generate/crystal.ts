import * as z from 'zod';
import { type Vec3, add, cross, dot, normalize, scale, seededRandom, sub } from '../math';
import { VoxelGrid } from '../voxel';
import { type Generator, Paint, colourOption, seedOption, shareOption, sizeOption } from './generator';
import { largestPiece } from './piece';

const options = z.strictObject({
  seed: seedOption,
  height: sizeOption('Height', 'of the tallest, in cubes', 6, 128, 32),
  count: sizeOption('Crystals', 'how many of them', 1, 24, 7),
  thick: sizeOption('Thick', 'how thick the tallest is', 3, 40, 9),
  spread: shareOption('Spread', 'how far they lean apart', 0.55),
  glow: z.number().min(0).max(8).default(0.6).meta({ title: 'Glow', description: 'how strongly they shine' }),
  clear: shareOption('Clear', 'how much light goes through', 0.25),
  colour: colourOption('Colour', 'of the crystals', '#5ba8a0'),
  rock: colourOption('Rock', 'that they grow from', '#4e4a4f'),
});
type Options = z.infer<typeof options>;

/** Six-sided crystals with pointed ends, out of one foot. */
export const crystal: Generator<Options> = {
  id: 'crystal',
  name: 'Crystal',
  about: 'six-sided crystals out of one foot',
  options,
  make(o) {
    const random = seededRandom(o.seed),
      paint = new Paint();
    const stone = paint.tones('rock', o.rock, 3),
      faces = paint.tones('crystal', o.colour, 4, { opacity: 1 - 0.75 * o.clear, roughness: 0.12, emissive: o.glow });
    const reach = Math.ceil(o.height * (0.35 + 0.75 * o.spread) + o.thick);
    const min: Vec3 = [-Math.min(127, reach), 0, -Math.min(127, reach)],
      size: Vec3 = [-2 * min[0] + 1, Math.min(256, o.height + 4), -2 * min[2] + 1];
    const grid = VoxelGrid.empty({ min, size }).edit((d) => {
      const foot = o.thick * 0.9 + o.count * 0.4;
      for (let z0 = Math.floor(-foot); z0 <= foot; z0++)
        for (let x = Math.floor(-foot); x <= foot; x++)
          for (let y = 0; y < Math.max(2, foot * 0.45 * (1 - (x * x + z0 * z0) / (foot * foot))); y++)
            if (x * x + z0 * z0 <= foot * foot) d.set(x, y, z0, stone[(x + y * 2 + z0 + 900) % 3]!);
      for (let n = 0; n < o.count; n++) {
        const first = n === 0,
          turn = n * 2.399963 + random() * 0.7,
          lean = first ? 0.06 * random() : o.spread * (0.35 + 0.6 * random());
        const axis = normalize([Math.cos(turn) * Math.sin(lean), Math.cos(lean), Math.sin(turn) * Math.sin(lean)]);
        const long = o.height * (first ? 0.98 : 0.35 + 0.45 * random()),
          wide = (o.thick / 2) * (first ? 1 : 0.45 + 0.4 * random());
        const from: Vec3 = scale([Math.cos(turn), 0, Math.sin(turn)], first ? 0 : o.thick * 0.35);
        prism(from, axis, long, wide, random() * Math.PI, (x, y, z0, side) => d.set(x, y, z0, faces[side]!));
      }
    });
    return { parts: [{ name: 'Crystal', grid: largestPiece(grid) }], swatches: paint.swatches };
  },
};

/** Cells of a six-sided prism with a point; each side in a tone of its own, as light falls on it. */
function prism(
  from: Vec3,
  axis: Vec3,
  long: number,
  wide: number,
  twist: number,
  put: (x: number, y: number, z: number, side: number) => void,
): void {
  const u = normalize(cross(axis, Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0])),
    v = cross(axis, u);
  const point = long * 0.24,
    to = add(from, scale(axis, long)),
    reach = Math.ceil(wide) + 1;
  const lo = from.map((c, a) => Math.floor(Math.min(c, to[a]!) - reach)),
    hi = from.map((c, a) => Math.ceil(Math.max(c, to[a]!) + reach));
  for (let z = lo[2]!; z <= hi[2]!; z++)
    for (let y = Math.max(0, lo[1]!); y <= hi[1]!; y++)
      for (let x = lo[0]!; x <= hi[0]!; x++) {
        const p = sub([x, y + 0.5, z], from),
          h = dot(p, axis);
        if (h < -2 || h > long) continue;
        const room = h > long - point ? (wide * (long - h)) / point : wide;
        let far = -Infinity,
          side = 0;
        for (let k = 0; k < 6; k++) {
          const a = twist + (k * Math.PI) / 3,
            at = Math.cos(a) * dot(p, u) + Math.sin(a) * dot(p, v);
          if (at > far) [far, side] = [at, k];
        }
        if (far <= Math.max(0.55, room)) put(x, y, z, [3, 2, 1, 0, 1, 2][side]!);
      }
}

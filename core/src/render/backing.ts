import type { Area, FilmLight, Guides } from './film';
import { meetFloor } from './floor';
import type { TraceLight } from './surroundings';
import type { TraceScene } from './trace-scene';

/** A picture as a view drew it: linear light with how much of each pixel is covered multiplied in, row by row from the top. */
export interface DrawnFilm extends Pick<Area, 'width' | 'height'> {
  readonly light: Float32Array;
  readonly cover: Float32Array;
  /** What stands at each pixel, where lines or steps of light are drawn by it. */
  readonly guides: Guides | null;
}

/**
 * A drawn picture with what is behind it: ground, which is lit as far as it lies free, and sky. What a view cannot draw is told simply: still
 * water and mirrors show the sky.
 */
export function backed(drawn: DrawnFilm, scene: TraceScene): FilmLight {
  const { width, height, cover, guides } = drawn;
  const light = drawn.light.slice(),
    covered = cover.slice();
  const { camera: c, transparent } = scene;
  const { plain, seen, sky } = scene.light;
  const floor = scene.floor && scene.floor.kind !== 'shadow' ? scene.floor : null;
  const open = floor ? litFloor(floor.colour, scene.light) : PLAIN,
    mirrors = floor?.kind === 'mirror' ? 0.9 : floor?.kind === 'water' ? 0.35 : 0;
  const normal = new Float64Array(3);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const free = 1 - cover[i]!;
      if (free <= 0) continue;
      const u = ((x + 0.5) / width) * 2 - 1 + c.shift[0],
        v = 1 - ((y + 0.5) / height) * 2 + c.shift[1];
      const px = c.right[0] * u + c.up[0] * v,
        py = c.right[1] * u + c.up[1] * v,
        pz = c.right[2] * u + c.up[2] * v;
      const off = c.perspective ? 0 : 1,
        turn = 1 - off;
      let dx = c.ahead[0] + turn * px,
        dy = c.ahead[1] + turn * py,
        dz = c.ahead[2] + turn * pz;
      const l = 1 / Math.hypot(dx, dy, dz);
      dx *= l;
      dy *= l;
      dz *= l;
      let ground = 0;
      if (floor) {
        const t = meetFloor(
          floor,
          c.eye[0] + off * px,
          c.eye[1] + off * py,
          c.eye[2] + off * pz,
          dx,
          dy,
          dz,
          1e-4,
          Infinity,
          normal,
        );
        const [near, far] = floor.fade;
        if (t < Infinity) ground = t <= near ? 1 : Math.max(0, 1 - (t - near) / (far - near));
        covered[i]! += free * ground;
      }
      if (transparent && ground === 0) continue;
      // Ground melts into the sky at the height of the eye, as it does where it is traced.
      const from = seen || ground > 0 ? sky : plain,
        level = Math.hypot(dx, dz);
      if (ground === 0 || mirrors > 0 || level === 0) from.look(dx, mirrors > 0 ? Math.abs(dy) : dy, dz);
      else from.look(dx / level, 0, dz / level);
      const under = ground * (1 - mirrors),
        around = ground * mirrors + (transparent ? 0 : 1 - ground);
      light[i * 3]! += free * (open[0]! * under + from.r * around);
      light[i * 3 + 1]! += free * (open[1]! * under + from.g * around);
      light[i * 3 + 2]! += free * (open[2]! * under + from.b * around);
    }
  const tile = {
    ...{ x: 0, y: 0, width, height, samples: 1, light, cover: covered },
    ...(guides ? { guides: { ...guides, samples: 1 } } : {}),
  };
  return { width, height, tiles: [tile] };
}

const PLAIN = [0, 0, 0];
/** What a level floor shows where nothing is in the way. */
const litFloor = (colour: ArrayLike<number>, { sunColour, sunDirection, sky, ambient }: TraceLight): number[] =>
  PLAIN.map((_, k) => colour[k]! * (sunColour[k]! * Math.max(0, sunDirection[1]) + sky.above[k]! + ambient[k]!));

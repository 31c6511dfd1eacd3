import { type Project, composite, must, pivotPoint } from '../model';
import { hexBytes } from '../palette';
import { encodePng } from './png';

/** Parts as they lie, seen from above: how high each column is, as grey, and the colour of its top. */
export interface FromAbove {
  /** PNGs of one framing, a pixel a column; clear where nothing lies. */
  readonly heights: Uint8Array<ArrayBuffer>;
  readonly colours: Uint8Array<ArrayBuffer>;
  /** In cubes, of what is white. */
  readonly high: number;
  readonly width: number;
}

/** Of parts that no bone holds and nothing turns, whole cubes apart; others are taken to stand so. */
export function fromAbove(project: Project): FromAbove {
  const tops = new Map<string, { readonly y: number; readonly colour: string }>();
  const lo = [Infinity, Infinity],
    hi = [-Infinity, -Infinity];
  let high = 1;
  for (const mount of project.rig.mounts) {
    const part = must(project.parts, mount.part, 'part'),
      pivot = pivotPoint(part);
    const colour = new Map(must(project.palettes, part.palette, 'palette').swatches.map((s) => [s.byte, s.colour]));
    const [dx, dy, dz] = [0, 1, 2].map((a) => Math.round(mount.t[a]! - pivot[a]!)) as [number, number, number];
    composite(part).forEach((x, y, z, byte) => {
      const key = `${x + dx} ${z + dz}`;
      if ((tops.get(key)?.y ?? 0) > y + dy) return;
      tops.set(key, { y: y + dy + 1, colour: colour.get(byte)! });
      high = Math.max(high, y + dy + 1);
      lo[0] = Math.min(lo[0]!, x + dx);
      lo[1] = Math.min(lo[1]!, z + dz);
      hi[0] = Math.max(hi[0]!, x + dx);
      hi[1] = Math.max(hi[1]!, z + dz);
    });
  }
  const width = hi[0]! - lo[0]! + 1,
    depth = hi[1]! - lo[1]! + 1;
  const heights = new Uint8Array(width * depth * 4),
    colours = new Uint8Array(width * depth * 4);
  for (const [key, top] of tops) {
    const [x, z] = key.split(' ').map(Number) as [number, number],
      at = 4 * (x - lo[0]! + width * (z - lo[1]!)),
      grey = Math.round((255 * top.y) / high);
    heights.set([grey, grey, grey, 255], at);
    colours.set([...hexBytes(top.colour), 255], at);
  }
  return { heights: png(width, depth, heights), colours: png(width, depth, colours), high, width };
}

const png = (width: number, depth: number, rgba: Uint8Array): Uint8Array<ArrayBuffer> =>
  encodePng(width, depth, rgba) as Uint8Array<ArrayBuffer>;

// The package comes without types; what is used of it is told below. Where scripts are read as well there is no error.
// eslint-disable-next-line @typescript-eslint/ban-ts-comment
// @ts-ignore
import * as untyped from 'gifenc';

type Palette = number[][];
interface Gifenc {
  quantize(rgba: Uint8Array, most: number, options: { format: 'rgb565' }): Palette;
  GIFEncoder(): {
    writeFrame(index: Uint8Array, width: number, height: number, options: object): void;
    finish(): void;
    bytes(): Uint8Array<ArrayBuffer>;
  };
}
const { GIFEncoder, quantize } = untyped as unknown as Gifenc;

/** Hundredths of a second that each picture stands: rounded so that the whole lasts as long as it should; 2 at least, as players want it. */
export function gifDelays(seconds: readonly number[]): number[] {
  let time = 0,
    shown = 0;
  return seconds.map((s) => {
    time += s * 100;
    const delay = Math.max(2, Math.round(time - shown));
    shown += delay;
    return delay;
  });
}

/** Pixels that colours are chosen by. */
const MOST_LOOKED_AT = 400_000;
/** How far a colour may be from one that is there, in steps of a channel, to be taken as it. */
const NEAR = 1;
/** How far apart colours lie that are mixed. */
const LEAST_APART = 10,
  MOST_APART = 28;
/** Bayer's order of 8 × 8, −½ to ½. */
const ORDER = Float32Array.from({ length: 64 }, (_, i) => {
  const x = i & 7,
    y = i >> 3;
  let v = 0;
  for (let bit = 0; bit < 3; bit++) v = (v << 2) | ((((x ^ y) >> bit) & 1) << 1) | ((y >> bit) & 1);
  return (v + 0.5) / 64 - 0.5;
});

const placeAt = (x: number, y: number): number => ORDER[((y & 7) << 3) | (x & 7)]!;

/** Writes an animated GIF with up to 255 colours, the same for all its pictures, so that nothing flickers; colours between them are mixed of two. What is less than half there is clear. */
export class GifWriter {
  private readonly gif = GIFEncoder();
  private readonly palette: Palette;
  /** The nearest colour by six bits a channel, and one; 0 while nobody asked. */
  private readonly known = new Uint16Array(1 << 18);
  private first = true;

  /** @param pictures – red, green, blue, alpha bytes of some of its pictures, which the colours are chosen by */
  constructor(
    private readonly loop: boolean,
    pictures: readonly Uint8Array[],
  ) {
    const all = pictures.reduce((n, p) => n + p.length / 4, 0),
      step = Math.max(1, Math.ceil(all / MOST_LOOKED_AT));
    const seen: number[] = [];
    for (const p of pictures)
      for (let i = 0; i < p.length; i += 4 * step) if (p[i + 3]! >= 128) seen.push(p[i]!, p[i + 1]!, p[i + 2]!, 255);
    const found = seen.length > 0 ? quantize(Uint8Array.from(seen), 255, { format: 'rgb565' }) : [];
    this.palette = found.length > 0 ? found : [[0, 0, 0]];
  }

  /** @param rgba – red, green, blue, alpha bytes @param delay – in hundredths of a second */
  add(width: number, height: number, rgba: Uint8Array, delay: number): void {
    const index = new Uint8Array(width * height),
      clear = this.palette.length;
    let gone = false;
    for (let i = 0, o = 0; i < index.length; i++, o += 4)
      if (rgba[o + 3]! < 128) {
        index[i] = clear;
        gone = true;
      } else {
        index[i] = this.mixed(rgba[o]!, rgba[o + 1]!, rgba[o + 2]!, i % width, Math.floor(i / width));
      }
    this.gif.writeFrame(index, width, height, {
      ...(this.first ? { palette: [...this.palette, [0, 0, 0]] } : {}),
      delay: delay * 10,
      repeat: this.loop ? 0 : -1,
      ...(gone ? { transparent: true, transparentIndex: clear, dispose: 2 } : {}),
    });
    this.first = false;
  }

  private mixed(r: number, g: number, b: number, x: number, y: number): number {
    const near = this.nearest(r, g, b),
      [u, v, w] = this.palette[near] as [number, number, number];
    const apart = Math.max(Math.abs(r - u), Math.abs(g - v), Math.abs(b - w));
    if (apart <= NEAR) return near;
    // Each channel in an order of its own: the next colour may lie along any of them.
    const by = Math.min(MOST_APART, Math.max(LEAST_APART, apart * 3));
    return this.nearest(r + placeAt(x, y) * by, g + placeAt(x + 5, y + 2) * by, b + placeAt(x + 2, y + 5) * by);
  }
  private nearest(r: number, g: number, b: number): number {
    const six = (v: number): number => (v <= 0 ? 0 : v >= 255 ? 63 : v >> 2);
    const key = (six(r) << 12) | (six(g) << 6) | six(b);
    const known = this.known[key]!;
    if (known > 0) return known - 1;
    const [u, v, w] = [(key >> 12) * 4 + 2, ((key >> 6) & 63) * 4 + 2, (key & 63) * 4 + 2];
    let best = 0,
      least = Infinity;
    for (const [i, [x, y, z]] of (this.palette as [number, number, number][]).entries()) {
      // Green is seen best, blue least.
      const d = 3 * (x - u) ** 2 + 4 * (y - v) ** 2 + 2 * (z - w) ** 2;
      if (d < least) {
        least = d;
        best = i;
      }
    }
    this.known[key] = best + 1;
    return best;
  }

  bytes(): Uint8Array<ArrayBuffer> {
    this.gif.finish();
    return this.gif.bytes().slice();
  }
}

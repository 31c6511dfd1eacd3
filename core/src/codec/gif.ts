// The package comes without types; what is used of it is told below. Where scripts are read as well there is no error.
// eslint-disable-next-line @typescript-eslint/ban-ts-comment
// @ts-ignore
import * as untyped from 'gifenc';

type Palette = number[][];
type Format = 'rgb565' | 'rgba4444';
interface Gifenc {
  quantize(rgba: Uint8Array, most: number, options: { format: Format; oneBitAlpha: boolean }): Palette;
  applyPalette(rgba: Uint8Array, palette: Palette, format: Format): Uint8Array;
  GIFEncoder(): {
    writeFrame(index: Uint8Array, width: number, height: number, options: object): void;
    finish(): void;
    bytes(): Uint8Array<ArrayBuffer>;
  };
}
const { GIFEncoder, applyPalette, quantize } = untyped as unknown as Gifenc;

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

/** Writes an animated GIF picture by picture, each with up to 256 colours of its own; what is less than half there is clear. */
export class GifWriter {
  private readonly gif = GIFEncoder();

  constructor(private readonly loop: boolean) {}

  /** @param rgba – red, green, blue, alpha bytes @param delay – in hundredths of a second */
  add(width: number, height: number, rgba: Uint8Array, delay: number): void {
    let clear = false;
    for (let i = 3; i < rgba.length && !clear; i += 4) clear = rgba[i]! < 128;
    const format = clear ? 'rgba4444' : 'rgb565';
    const palette = quantize(rgba, 256, { format, oneBitAlpha: clear });
    const index = applyPalette(rgba, palette, format);
    const gone = clear ? palette.findIndex((c) => c[3] === 0) : -1;
    this.gif.writeFrame(index, width, height, {
      palette: palette.map((c) => c.slice(0, 3)),
      delay: delay * 10,
      repeat: this.loop ? 0 : -1,
      ...(gone < 0 ? {} : { transparent: true, transparentIndex: gone, dispose: 2 }),
    });
  }
  bytes(): Uint8Array<ArrayBuffer> {
    this.gif.finish();
    return this.gif.bytes().slice();
  }
}

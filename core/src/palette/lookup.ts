import { BYTE_VALUES, byteTable } from '../voxel';
import { type Rgb, hexToLinear } from './linear';
import { type Palette, type Swatch, makeSwatch } from './swatch';

/** What unlisted bytes look like: a plain middle grey that no palette of ours uses by accident. */
export const UNKNOWN_SWATCH = makeSwatch(0, 'unlisted', '#8a8580');

/** A palette laid out by byte, for kernels. */
export interface PaletteTable {
  readonly swatches: readonly Swatch[];
  /** Linear light, 3 numbers a byte. */
  readonly linear: Float32Array;
  /** 1 where the swatch is not fully opaque. */
  readonly transparent: Uint8Array;
}

const tables = new WeakMap<Palette, PaletteTable>();

/** The palette by byte; memoised for as long as the palette lives. */
export function paletteTable(palette: Palette): PaletteTable {
  let t = tables.get(palette);
  if (!t) {
    const swatches = new Array<Swatch>(BYTE_VALUES).fill(UNKNOWN_SWATCH);
    const linear = new Float32Array(768);
    const transparent = byteTable();
    for (const s of palette.swatches) swatches[s.byte] = s;
    swatches.forEach((s, i) => {
      const c: Rgb = hexToLinear(s.colour);
      linear.set(c, i * 3);
      transparent[i] = s.opacity < 1 ? 1 : 0;
    });
    t = { swatches, linear, transparent };
    tables.set(palette, t);
  }
  return t;
}

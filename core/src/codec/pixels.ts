/** A decoded picture, upright, in sRGB. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, alpha bytes, not multiplied with each other, rows from the top. */
  readonly rgba: Uint8Array;
  /** Of a picture with a palette of its own: the place of each pixel's colour in it. */
  readonly indexed: Indexed | null;
}
export interface Indexed {
  /** One a pixel. */
  readonly bytes: Uint8Array;
  /** Red, green, blue, alpha bytes of each colour, in the file's order. */
  readonly colours: Uint8Array;
}

/** More pixels than these are not decoded: 8,192 squared. */
export const MOST_PIXELS = 2 ** 26;

/**
 * A picture turned and mirrored as EXIF's orientation says it must be shown.
 *
 * @param orientation – 1 as it is, 2 mirrored, 3 upside down, 4 both, 5–8 with rows and columns exchanged (EXIF 2.3, tag 0x0112)
 */
export function oriented(p: Pixels, orientation: number): Pixels {
  if (orientation < 2 || orientation > 8) return p;
  const { width, height } = p,
    swaps = orientation >= 5;
  const [w, h] = swaps ? [height, width] : [width, height];
  const flipX = [2, 3, 7, 8].includes(orientation),
    flipY = [3, 4, 6, 7].includes(orientation);
  const from = new Uint32Array(p.rgba.slice().buffer),
    to = new Uint32Array(w * h),
    bytes = p.indexed ? new Uint8Array(w * h) : null;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      // Of the stored picture, before it was turned.
      let [i, j] = swaps ? [y, x] : [x, y];
      if (flipX) i = width - 1 - i;
      if (flipY) j = height - 1 - j;
      to[y * w + x] = from[j * width + i]!;
      if (bytes) bytes[y * w + x] = p.indexed!.bytes[j * width + i]!;
    }
  return {
    width: w,
    height: h,
    rgba: new Uint8Array(to.buffer),
    indexed: bytes && { bytes, colours: p.indexed!.colours },
  };
}

import type { Pixels } from '../codec';
import { fromLinear, toLinear } from '../palette';

/** Part of a picture, in pixels from its upper left corner. */
export interface Frame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A frame within a picture: what of it lies there, at least a pixel. */
export function frameIn({ width, height }: Pick<Pixels, 'width' | 'height'>, frame: Frame | null): Frame {
  if (!frame) return { x: 0, y: 0, width, height };
  const within = (v: number, most: number): number => Math.min(most, Math.max(0, Math.round(v)));
  const x = within(frame.x, width - 1),
    y = within(frame.y, height - 1);
  return {
    x,
    y,
    width: Math.max(1, Math.min(width - x, Math.round(frame.width))),
    height: Math.max(1, Math.min(height - y, Math.round(frame.height))),
  };
}

export function cropped(p: Pixels, { x, y, width, height }: Frame): Pixels {
  if (width === p.width && height === p.height) return p;
  const rgba = new Uint8Array(width * height * 4),
    bytes = p.indexed && new Uint8Array(width * height);
  for (let j = 0; j < height; j++) {
    const from = (y + j) * p.width + x;
    rgba.set(p.rgba.subarray(from * 4, (from + width) * 4), j * width * 4);
    bytes?.set(p.indexed!.bytes.subarray(from, from + width), j * width);
  }
  return { width, height, rgba, indexed: bytes && { bytes, colours: p.indexed!.colours } };
}

const LINEAR = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/**
 * A picture made smaller or larger: each pixel is the mean of what it covers, in linear light, colours weighed by how opaque they are.
 * Indexed ones become plain.
 */
export function resized(p: Pixels, width: number, height: number): Pixels {
  if (width === p.width && height === p.height) return p;
  // Along rows first, so that what is left to do is small.
  const across = new Float32Array(width * p.height * 4),
    columns = shares(p.width, width);
  const line = new Float32Array(p.width * 4);
  for (let y = 0; y < p.height; y++) {
    for (let x = 0, at = y * p.width * 4; x < p.width; x++, at += 4) {
      const a = p.rgba[at + 3]! / 255;
      line[x * 4] = LINEAR[p.rgba[at]!]! * a;
      line[x * 4 + 1] = LINEAR[p.rgba[at + 1]!]! * a;
      line[x * 4 + 2] = LINEAR[p.rgba[at + 2]!]! * a;
      line[x * 4 + 3] = a;
    }
    for (let x = 0; x < width; x++) {
      const { first, weights } = columns[x]!,
        to = (y * width + x) * 4;
      let [r, g, b, a] = [0, 0, 0, 0];
      for (let k = 0; k < weights.length; k++) {
        const w = weights[k]!,
          from = (first + k) * 4;
        r += w * line[from]!;
        g += w * line[from + 1]!;
        b += w * line[from + 2]!;
        a += w * line[from + 3]!;
      }
      across[to] = r;
      across[to + 1] = g;
      across[to + 2] = b;
      across[to + 3] = a;
    }
  }
  const rgba = new Uint8Array(width * height * 4),
    rows = shares(p.height, height);
  for (let y = 0; y < height; y++) {
    const { first, weights } = rows[y]!;
    for (let x = 0; x < width; x++) {
      let [r, g, b, a] = [0, 0, 0, 0];
      for (let k = 0; k < weights.length; k++) {
        const w = weights[k]!,
          from = ((first + k) * width + x) * 4;
        r += w * across[from]!;
        g += w * across[from + 1]!;
        b += w * across[from + 2]!;
        a += w * across[from + 3]!;
      }
      const to = (y * width + x) * 4,
        light = a > 0 ? 1 / a : 0;
      rgba[to] = Math.round(255 * fromLinear(Math.min(1, r * light)));
      rgba[to + 1] = Math.round(255 * fromLinear(Math.min(1, g * light)));
      rgba[to + 2] = Math.round(255 * fromLinear(Math.min(1, b * light)));
      rgba[to + 3] = Math.round(255 * a);
    }
  }
  return { width, height, rgba, indexed: null };
}

/** What of `from` pixels each of `to` covers, and how much of it. */
function shares(from: number, to: number): { readonly first: number; readonly weights: Float32Array }[] {
  const step = from / to;
  return Array.from({ length: to }, (_, i) => {
    const lo = i * step,
      hi = (i + 1) * step,
      first = Math.floor(lo + 1e-9),
      last = Math.max(first + 1, Math.ceil(hi - 1e-9));
    const weights = Float32Array.from(
      { length: last - first },
      (_, k) => (Math.min(hi, first + k + 1) - Math.max(lo, first + k)) / step,
    );
    return { first, weights };
  });
}

/** One pixel for each of `width` by `height`, as it is: for pictures whose pixels must stay. @param column, row – which one stands there */
export function sampled(
  p: Pixels,
  width: number,
  height: number,
  column: (x: number) => number,
  row: (y: number) => number,
): Pixels {
  const from = new Uint32Array(p.rgba.slice().buffer),
    to = new Uint32Array(width * height),
    bytes = p.indexed && new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const first = Math.min(p.height - 1, row(y)) * p.width;
    for (let x = 0; x < width; x++) {
      const i = first + Math.min(p.width - 1, column(x));
      to[y * width + x] = from[i]!;
      if (bytes) bytes[y * width + x] = p.indexed!.bytes[i]!;
    }
  }
  return { width, height, rgba: new Uint8Array(to.buffer), indexed: bytes && { bytes, colours: p.indexed!.colours } };
}

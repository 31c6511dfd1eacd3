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
  const columns = shares(p.width, width),
    rows = shares(p.height, height);
  const line = new Float32Array(p.width * 4),
    across = new Float32Array(width * 4),
    sum = new Float32Array(width * 4);
  const rgba = new Uint8Array(width * height * 4);
  let ready = -1;
  for (let y = 0; y < height; y++) {
    const { first, weights } = rows[y]!;
    sum.fill(0);
    for (let k = 0; k < weights.length; k++) {
      // Two rows may share one that lies on their border.
      if (ready !== first + k) smallRow(p, (ready = first + k), columns, line, across);
      const w = weights[k]!;
      for (let i = 0; i < sum.length; i++) sum[i]! += w * across[i]!;
    }
    for (let x = 0; x < width; x++) {
      const to = (y * width + x) * 4,
        a = sum[x * 4 + 3]!,
        light = a > 0 ? 1 / a : 0;
      for (let c = 0; c < 3; c++) rgba[to + c] = Math.round(255 * fromLinear(Math.min(1, sum[x * 4 + c]! * light)));
      rgba[to + 3] = Math.round(255 * a);
    }
  }
  return { width, height, rgba, indexed: null };
}

/** One row of a picture, made as wide as `columns` says: linear light times opacity, and opacity. */
function smallRow(
  { width, rgba }: Pixels,
  y: number,
  columns: ReturnType<typeof shares>,
  line: Float32Array,
  out: Float32Array,
): void {
  for (let x = 0, at = y * width * 4; x < width * 4; x += 4, at += 4) {
    const alpha = rgba[at + 3]!,
      a = alpha === 255 ? 1 : alpha / 255;
    line[x] = LINEAR[rgba[at]!]! * a;
    line[x + 1] = LINEAR[rgba[at + 1]!]! * a;
    line[x + 2] = LINEAR[rgba[at + 2]!]! * a;
    line[x + 3] = a;
  }
  for (let x = 0; x < columns.length; x++) {
    const { first, weights } = columns[x]!;
    let [r, g, b, a] = [0, 0, 0, 0];
    for (let k = 0, from = first * 4; k < weights.length; k++, from += 4) {
      const w = weights[k]!;
      r += w * line[from]!;
      g += w * line[from + 1]!;
      b += w * line[from + 2]!;
      a += w * line[from + 3]!;
    }
    out[x * 4] = r;
    out[x * 4 + 1] = g;
    out[x * 4 + 2] = b;
    out[x * 4 + 3] = a;
  }
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

import { fromLinear } from '../palette';

/** How a device's red, green and blue become sRGB. */
export interface ColourProfile {
  /** Linear light of each byte, for each channel. */
  readonly curves: readonly [Float64Array, Float64Array, Float64Array];
  /** Linear device light → linear sRGB, row by row. */
  readonly matrix: readonly number[];
}

/** XYZ as profiles have it (white D50) → linear sRGB, adapted by Bradford (Lindbloom). */
const FROM_D50 = [
  3.1338561,
  -1.6168667,
  -0.4906146, //
  -0.9787684,
  1.9161415,
  0.033454,
  0.0719453,
  -0.2289914,
  1.4052427,
];

/**
 * A profile of three curves and a matrix (ICC.1:2022, three-component matrix-based); null for any other kind, and for one that cannot be
 * read.
 */
export function readProfile(bytes: Uint8Array): ColourProfile | null {
  try {
    return matrixProfile(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  } catch {
    // It ends too early or points outside itself.
    return null;
  }
}

function matrixProfile(view: DataView): ColourProfile | null {
  const word = (at: number): string => String.fromCharCode(...[0, 1, 2, 3].map((i) => view.getUint8(at + i)));
  if (word(16) !== 'RGB ' || word(20) !== 'XYZ ') return null;
  const tags = new Map<string, number>();
  const count = view.getUint32(128);
  if (count > 200) return null;
  for (let i = 0; i < count; i++) tags.set(word(132 + i * 12), view.getUint32(136 + i * 12));
  const fixed = (at: number): number => view.getInt32(at) / 65536;
  const columns = ['rXYZ', 'gXYZ', 'bXYZ'].map((t) => tags.get(t)),
    curves = ['rTRC', 'gTRC', 'bTRC'].map((t) => tags.get(t));
  if ([...columns, ...curves].includes(undefined)) return null;
  const xyz = columns.map((at) => [fixed(at! + 8), fixed(at! + 12), fixed(at! + 16)]);
  const read = curves.map((at) => curveAt(view, at!, word));
  if (read.includes(null)) return null;
  const matrix: number[] = [];
  for (let row = 0; row < 3; row++)
    for (let c = 0; c < 3; c++) {
      let sum = 0;
      for (let k = 0; k < 3; k++) sum += FROM_D50[row * 3 + k]! * xyz[c]![k]!;
      matrix.push(sum);
    }
  return { curves: read as unknown as ColourProfile['curves'], matrix };
}

/** What a curve makes of every byte; null for a kind that is not in the standard. */
function curveAt(view: DataView, at: number, word: (at: number) => string): Float64Array | null {
  const kind = word(at);
  const fixed = (k: number): number => view.getInt32(at + 12 + 4 * k) / 65536;
  const over = (f: (x: number) => number): Float64Array => Float64Array.from({ length: 256 }, (_, i) => f(i / 255));
  if (kind === 'curv') {
    const n = view.getUint32(at + 8);
    if (n === 0) return over((x) => x);
    if (n === 1) return over((x) => x ** (view.getUint16(at + 12) / 256));
    return over((x) => {
      const p = x * (n - 1),
        i = Math.min(n - 2, Math.floor(p));
      const [a, b] = [view.getUint16(at + 12 + 2 * i), view.getUint16(at + 14 + 2 * i)];
      return (a + (b - a) * (p - i)) / 65535;
    });
  }
  if (kind !== 'para') return null;
  const type = view.getUint16(at + 8);
  if (type > 4) return null;
  const g = fixed(0),
    [a, b] = type === 0 ? [1, 0] : [fixed(1), fixed(2)];
  const c = type >= 3 ? fixed(3) : 0,
    d = type === 0 ? -Infinity : type <= 2 ? -b / a : fixed(4);
  const e = type === 2 ? fixed(3) : type === 4 ? fixed(5) : 0,
    f = type === 2 ? fixed(3) : type === 4 ? fixed(6) : 0;
  return over((x) => (x >= d ? (a * x + b) ** g + e : c * x + f));
}

/** Steps into which linear light is cut where it is made bytes again: enough for the darkest of them. */
const STEPS = 4096;
let encoded: Uint8Array | null = null;

/** Colours as a profile has them, as sRGB, in place. @param rgba – four bytes a pixel; alpha stays */
export function toSrgb(rgba: Uint8Array, { curves, matrix }: ColourProfile): void {
  encoded ??= Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * fromLinear((i / STEPS) ** 2)));
  const table = encoded;
  // By the root, so that dark ones have as many steps as bright ones.
  const byte = (v: number): number => table[Math.round(STEPS * Math.sqrt(v <= 0 ? 0 : v >= 1 ? 1 : v))]!;
  const [cr, cg, cb] = curves,
    [a, b, c, d, e, f, g, h, i] = matrix as [number, number, number, number, number, number, number, number, number];
  for (let at = 0; at < rgba.length; at += 4) {
    const red = cr[rgba[at]!]!,
      green = cg[rgba[at + 1]!]!,
      blue = cb[rgba[at + 2]!]!;
    rgba[at] = byte(a * red + b * green + c * blue);
    rgba[at + 1] = byte(d * red + e * green + f * blue);
    rgba[at + 2] = byte(g * red + h * green + i * blue);
  }
}

import { byteTable } from '../voxel';
import { oklab } from './near';
import { MAX_SWATCHES, type Palette, type Swatch } from './swatch';

/** Whether two swatches look and ship alike, whatever they are called. */
export const sameSwatch = (a: Swatch, b: Swatch): boolean =>
  a.colour === b.colour &&
  a.emissive === b.emissive &&
  a.roughness === b.roughness &&
  a.metalness === b.metalness &&
  a.opacity === b.opacity &&
  a.slot === b.slot &&
  a.helper === b.helper;

/** What kind of surface a swatch has: these must not be mixed up when colours are matched. */
const surface = (s: Swatch): number =>
  (s.helper ? 1 : 0) + (s.emissive > 0 ? 2 : 0) + (s.opacity < 1 ? 4 : 0) + (s.metalness > 0.5 ? 8 : 0);

/**
 * For each byte of a palette the byte of the nearest swatch of another, by distance in OKLab. Glowing, see-through, metal
 * and helper swatches go to their like where there are any. Equal swatches always find each other; ties go to the first.
 */
export function nearestBytes(from: readonly Swatch[], to: readonly Swatch[]): Uint8Array<ArrayBuffer> {
  const map = byteTable();
  if (to.length === 0) return map;
  const lab = to.map((s) => oklab(s.colour));
  for (const f of from) {
    const p = oklab(f.colour);
    const like = to.some((t) => surface(t) === surface(f));
    let best = -1,
      least = Infinity;
    to.forEach((t, i) => {
      if (like && surface(t) !== surface(f)) return;
      const q = lab[i]!;
      const d = sameSwatch(f, t) ? -1 : (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2;
      if (d < least) {
        least = d;
        best = i;
      }
    });
    map[f.byte] = to[best]!.byte;
  }
  return map;
}

/** Swatches that come to a palette: those it has already are united with their equals. */
export interface Appending {
  readonly swatches: readonly Swatch[];
  /** How many were there already. */
  readonly united: number;
  /** How many found no free place. */
  readonly left: number;
  /** The byte of each that came, in their order; 0 for those without a place. */
  readonly bytes: readonly number[];
}

/** A palette with others appended on its free bytes, equals united. Swatches already there keep their bytes. */
export function appended(palette: Palette, incoming: readonly Omit<Swatch, 'byte'>[]): Appending {
  const swatches = [...palette.swatches];
  const used = new Set(swatches.map((s) => s.byte));
  const bytes: number[] = [];
  let united = 0,
    left = 0,
    next = 1;
  for (const s of incoming) {
    const twin = swatches.find((o) => sameSwatch(o, { ...s, byte: o.byte }));
    if (twin) {
      united++;
      bytes.push(twin.byte);
      continue;
    }
    while (next <= MAX_SWATCHES && used.has(next)) next++;
    if (next > MAX_SWATCHES) {
      left++;
      bytes.push(0);
      continue;
    }
    used.add(next);
    swatches.push({ ...s, byte: next });
    bytes.push(next);
  }
  return { swatches, united, left, bytes };
}

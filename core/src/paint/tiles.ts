import { type Random, hashText, seededRandom } from '../math';
import { hexBytes } from '../palette';

/** Ready pictures that repeat without a seam, for slots that tile. */
export const TILES = ['planks', 'plaster', 'setts', 'moss'] as const;
export type Tile = (typeof TILES)[number];

export interface TilePicture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
}

const EDGE = 32;
type Shade = (x: number, y: number) => string;

const drawn = new Map<string, TilePicture>();

/** The picture of that name; null when there is none. */
export function tilePicture(name: string): TilePicture | null {
  const make = SHADES[name as Tile];
  if (!make) return null;
  let picture = drawn.get(name);
  if (!picture) {
    const shade = make(seededRandom(hashText(name)));
    const rgba = new Uint8Array(EDGE * EDGE * 4);
    for (let y = 0; y < EDGE; y++)
      for (let x = 0; x < EDGE; x++) rgba.set([...hexBytes(shade(x, y)), 255], (y * EDGE + x) * 4);
    drawn.set(name, (picture = { width: EDGE, height: EDGE, rgba }));
  }
  return picture;
}

const pick = (ramp: readonly string[], at: number): string =>
  ramp[Math.max(0, Math.min(ramp.length - 1, Math.floor(at)))]!;

/** Boards of eight texels, each with a joint of its own and a grain along it. */
function planks(random: Random): Shade {
  const ramp = ['#5a3a22', '#7b5230', '#8d613a', '#9d6f45'];
  const joints = [0, 1, 2, 3].map(() => Math.floor(random() * EDGE)),
    tones = [0, 1, 2, 3].map(() => random());
  const grain = Array.from({ length: EDGE }, () => random());
  return (x, y) => {
    const board = y >> 3;
    if (y % 8 === 7 || x === joints[board]) return ramp[0]!;
    const streak = grain[(y * 5 + (x >> 3)) % EDGE]! - 0.5;
    return pick(ramp, 2.2 + tones[board]! + streak - (y % 8 === 6 ? 0.7 : 0));
  };
}

/** A few soft blotches on a pale ground. */
function plaster(random: Random): Shade {
  const ramp = ['#cbbfa8', '#d6cbb5', '#ded4c0', '#e6ddcb'];
  const waves = Array.from({ length: 5 }, () => [
    1 + Math.floor(random() * 3),
    1 + Math.floor(random() * 3),
    random() * 7,
  ]);
  const dots = Array.from({ length: EDGE * EDGE }, () => random());
  return (x, y) => {
    const wave = waves.reduce((n, [i, j, at]) => n + Math.sin(((x * i! + y * j!) / EDGE) * 2 * Math.PI + at!), 0);
    return pick(ramp, 2.1 + wave * 0.35 + (dots[y * EDGE + x]! > 0.94 ? -1 : 0));
  };
}

/** Rows of stones, every other one moved by half, lit from above. */
function setts(random: Random): Shade {
  const ramp = ['#4b4a50', '#6b6a70', '#7e7d82', '#918f92', '#a5a2a2'];
  const tones = Array.from({ length: 16 }, () => random());
  return (x, y) => {
    const row = y >> 3,
      along = (x + (row % 2) * 4) % EDGE;
    if (y % 8 === 7 || along % 8 === 7) return ramp[0]!;
    const tone = 2 + tones[(row * 4 + (along >> 3)) % 16]! * 1.4;
    return pick(ramp, tone + (y % 8 === 0 ? 1 : y % 8 === 6 ? -1 : 0));
  };
}

/** Cushions of three greens. */
function moss(random: Random): Shade {
  const ramp = ['#2f4a2a', '#3f6035', '#547a3f', '#6d944c'];
  const cushions = Array.from({ length: 26 }, () => [random() * EDGE, random() * EDGE, 2 + random() * 3.5] as const);
  const off = (a: number, b: number): number => {
    const d = Math.abs(a - b);
    return Math.min(d, EDGE - d);
  };
  return (x, y) => {
    let high = 0;
    for (const [cx, cy, r] of cushions) high = Math.max(high, 1 - Math.hypot(off(x, cx), off(y, cy)) / r);
    return pick(ramp, high * 4.2);
  };
}

const SHADES: Readonly<Record<Tile, (random: Random) => Shade>> = { planks, plaster, setts, moss };

import type { SkyKind } from '../model';
import { hash32 } from '../math';
import { type Rgb, hexToLinear } from '../palette';
import type { SkyMap } from './sky';

/** The surroundings that ship with the program, each painted by code. */
export type PaintedSky = Exclude<SkyKind, 'gradient' | 'picture'>;
export const PAINTED_SKIES: readonly PaintedSky[] = [
  'overcast',
  'blue hour',
  'sunset',
  'forest',
  'hall',
  'studio',
  'night town',
  'snow',
];

const WIDTH = 512,
  HEIGHT = 256;
const known = new Map<PaintedSky, SkyMap>();

/** One of the surroundings that ship; the same each time, and in every place. */
export function paintedSky(kind: PaintedSky): SkyMap {
  let map = known.get(kind);
  if (!map) known.set(kind, (map = painted(PAINTERS[kind], WIDTH, HEIGHT)));
  return map;
}
/** The same in another size, as a tile to choose it by. */
export const skyTile = (kind: PaintedSky, width: number, height: number): SkyMap =>
  painted(PAINTERS[kind], width, height);

/** The light from a direction: its height (−1 to 1), the way round (0 to 2π, from +Z over +X). */
type Painter = (y: number, phi: number) => Rgb;

function painted(painter: Painter, width: number, height: number): SkyMap {
  const light = new Float32Array(width * height * 3);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++)
      light.set(
        painter(Math.cos((Math.PI * (j + 0.5)) / height), (2 * Math.PI * (i + 0.5)) / width),
        (j * width + i) * 3,
      );
  return { width, height, light };
}

const mix = (a: Rgb, b: Rgb, k: number): Rgb => {
  const t = Math.max(0, Math.min(1, k));
  return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];
};
const plus = (a: Rgb, b: Rgb, k = 1): Rgb => [a[0] + b[0] * k, a[1] + b[1] * k, a[2] + b[2] * k];
const ink = (hex: string, strength = 1): Rgb => {
  const c = hexToLinear(hex);
  return [c[0] * strength, c[1] * strength, c[2] * strength];
};
const smooth = (from: number, to: number, v: number): number => {
  const t = Math.max(0, Math.min(1, (v - from) / (to - from)));
  return t * t * (3 - 2 * t);
};
/** Between two ways round, the shorter way. */
const apart = (a: number, b: number): number => Math.abs(((a - b + 3 * Math.PI) % (2 * Math.PI)) - Math.PI);
/** How near a direction is to another: 1 there, 0 at `width` and beyond; in radians. */
const spot = (y: number, phi: number, atY: number, atPhi: number, width: number): number => {
  const cos =
    y * atY + Math.sqrt(Math.max(0, 1 - y * y)) * Math.sqrt(Math.max(0, 1 - atY * atY)) * Math.cos(phi - atPhi);
  return 1 - smooth(0, width, Math.acos(Math.max(-1, Math.min(1, cos))));
};

const corner = (i: number, j: number, k: number): number =>
  hash32(hash32(i * 73856093) ^ hash32(j * 19349663 + 1) ^ hash32(k * 83492791 + 2)) / 4294967296;
/** Smooth noise of 0 to 1 on the sphere, without a seam. */
function noise(x: number, y: number, z: number): number {
  const [i, j, k] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const s = smooth(0, 1, x - i),
    t = smooth(0, 1, y - j),
    u = smooth(0, 1, z - k);
  let sum = 0;
  for (let n = 0; n < 8; n++)
    sum +=
      corner(i + (n & 1), j + ((n >> 1) & 1), k + (n >> 2)) *
      (n & 1 ? s : 1 - s) *
      ((n >> 1) & 1 ? t : 1 - t) *
      (n >> 2 ? u : 1 - u);
  return sum;
}
/** Several octaves of it. @param flat – how much wider than high what it draws is */
function clouds(y: number, phi: number, fine: number, flat = 1): number {
  const r = Math.sqrt(Math.max(0, 1 - y * y));
  const [x, h, z] = [r * Math.sin(phi) * fine, y * fine * flat, r * Math.cos(phi) * fine];
  let sum = 0;
  for (let o = 0, k = 0.5, f = 1; o < 4; o++, k /= 2, f *= 2) sum += k * noise(x * f + o * 17, h * f + 5, z * f);
  return sum / 0.9375;
}
/** Something that stands on the horizon: its height at a way round, in steps as wide as 2π over `count`. */
const skyline = (phi: number, count: number, low: number, high: number, seed: number): number => {
  const at = Math.floor((phi / (2 * Math.PI)) * count) % count;
  return low + (high - low) * corner(at, seed, 3);
};

const PAINTERS: Readonly<Record<PaintedSky, Painter>> = {
  overcast(y, phi) {
    const up = mix(ink('#b9c0c4', 0.8), ink('#e4e8ea', 1.1), smooth(-0.1, 1, y));
    const sky = mix(up, ink('#8d969d', 0.9), 0.5 * clouds(y, phi, 3, 2));
    return y >= 0 ? sky : mix(ink('#8f9492', 0.5), ink('#5d625f', 0.4), -y * 2);
  },
  'blue hour'(y, phi) {
    const west = 1 - smooth(0, 2.4, apart(phi, 4.1));
    const low = mix(ink('#5a5f93', 0.55), ink('#e79a78', 1), west);
    let sky = mix(low, ink('#2b3a78', 0.5), smooth(0, 0.35, y));
    sky = mix(sky, ink('#141d48', 0.45), smooth(0.3, 1, y));
    sky = plus(
      sky,
      ink('#d98a86', 0.35),
      smooth(0.5, 0.8, clouds(y, phi, 3, 5)) * (1 - smooth(0.05, 0.4, y)) * (0.3 + west),
    );
    return y >= 0 ? sky : mix(low, ink('#1a1e35', 0.4), smooth(0, 0.12, -y));
  },
  sunset(y, phi) {
    const west = 1 - smooth(0, 2.8, apart(phi, 4.4));
    const low = mix(ink('#b08aa0', 0.7), ink('#ff9a4a', 1.9), west * west);
    let sky = mix(low, ink('#d99aa0', 0.8), smooth(0, 0.22, y));
    sky = mix(sky, ink('#5a78b8', 0.7), smooth(0.15, 0.9, y));
    const veil = smooth(0.48, 0.72, clouds(y, phi, 2.4, 4)) * (1 - smooth(0.1, 0.7, y));
    sky = mix(sky, mix(ink('#7a5a78', 0.5), ink('#ffb070', 2.2), west), veil * 0.8);
    sky = plus(sky, ink('#ffc890', 60), spot(y, phi, 0.09, 4.4, 0.055));
    sky = plus(sky, ink('#ff9a50', 2.2), spot(y, phi, 0.09, 4.4, 0.5) ** 2);
    return y >= 0 ? sky : mix(low, ink('#4a3f46', 0.4), smooth(0, 0.15, -y));
  },
  forest(y, phi) {
    const open = smooth(0.35, 0.75, y + 0.25 * (clouds(y, phi, 5) - 0.5));
    const leaves = clouds(y, phi, 14);
    const crown = mix(ink('#1d2e16', 0.5), ink('#8fae4c', 1), smooth(0.45, 0.75, leaves));
    let sky = mix(crown, ink('#cfe2ec', 2.4), Math.max(open, 0.8 * smooth(0.62, 0.72, leaves) * smooth(0, 0.3, y)));
    sky = plus(sky, ink('#fff2c8', 40), spot(y, phi, 0.72, 0.9, 0.09));
    const trunk = corner(Math.floor((phi / (2 * Math.PI)) * 46), 9, 1) > 0.62 && y < 0.4 && y > -0.12;
    if (trunk) sky = mix(ink('#2a2018', 0.3), ink('#5a4632', 0.6), clouds(y, phi, 20, 0.2));
    return y >= -0.12 ? sky : mix(ink('#4b4a2c', 0.5), ink('#23261a', 0.4), -y);
  },
  hall(y, phi) {
    // Four walls, a row of tall windows in two of them, and beams overhead.
    const wall = Math.floor(phi / (Math.PI / 2)) % 4,
      along = (phi % (Math.PI / 2)) / (Math.PI / 2);
    if (y > 0.62) {
      const r = Math.sqrt(1 - y * y) / y;
      const beam = Math.abs((r * Math.sin(phi) * 2.2) % 1) < 0.25;
      return beam ? ink('#3a281a', 0.5) : ink('#8a6f50', 0.45);
    }
    if (y < -0.25) {
      const r = Math.sqrt(1 - y * y) / -y;
      const dark = (Math.floor(r * Math.sin(phi) * 3) + Math.floor(r * Math.cos(phi) * 3)) & 1;
      return dark ? ink('#4a3a2e', 0.35) : ink('#8d745a', 0.45);
    }
    const pane = (along * 5) % 1;
    const window = wall % 2 === 0 && y > 0.05 && y < 0.5 && pane > 0.22 && pane < 0.78;
    if (window) {
      const bar = Math.abs(pane - 0.5) < 0.025 || Math.abs(((y * 9) % 1) - 0.5) < 0.05;
      return bar ? ink('#2b2018', 0.4) : mix(ink('#dfe9f2', 5.5), ink('#ffe6bf', 6.5), wall === 0 ? 1 : 0);
    }
    return mix(ink('#b79a78', 0.4), ink('#6e563e', 0.3), smooth(0.1, 0.6, y) + 0.2 * clouds(y, phi, 9));
  },
  studio(y, phi) {
    // A large soft box from above left, a tall one from the right, a strip behind.
    const box = (at: number, wide: number, low: number, high: number): number =>
      (1 - smooth(wide * 0.82, wide, apart(phi, at))) *
      smooth(low - 0.03, low + 0.03, y) *
      (1 - smooth(high - 0.03, high + 0.03, y));
    let light = mix(ink('#3c3c3e', 0.35), ink('#77777a', 0.4), smooth(-0.4, 0.9, y));
    light = plus(light, ink('#fff4e6', 6), box(0.85, 0.55, 0.42, 0.86));
    light = plus(light, ink('#e8f0ff', 3.2), box(5.3, 0.26, -0.05, 0.6));
    light = plus(light, ink('#ffffff', 4.5), box(3.1, 0.9, 0.62, 0.74));
    return y >= -0.2 ? light : mix(light, ink('#8a8a8a', 0.35), smooth(0.2, 0.6, -y));
  },
  'night town'(y, phi) {
    const tops = skyline(phi, 34, 0.05, 0.24, 4);
    if (y < tops && y > -0.02) {
      const column = Math.floor((phi / (2 * Math.PI)) * 34 * 6),
        row = Math.floor(y * 70);
      const lit = corner(column, row, 8) > 0.72 && column % 6 !== 0 && row % 2 === 0;
      const warm = corner(column, row, 5) > 0.25;
      return lit ? (warm ? ink('#ffb45e', 5) : ink('#9fd0ff', 3.5)) : ink('#0e1020', 0.35);
    }
    if (y <= -0.02) {
      // Wet ground that shows lamps of the street.
      const lamp = Math.max(0, Math.cos(phi * 9)) ** 40;
      return plus(ink('#10131f', 0.3), ink('#ffa850', 2), lamp * (1 - smooth(0.02, 0.35, -y)));
    }
    let sky = mix(ink('#5b3f52', 0.35), ink('#0c1230', 0.35), smooth(0.05, 0.6, y));
    if (corner(Math.floor(phi * 160), Math.floor(y * 150), 2) > 0.9985 && y > 0.3) sky = plus(sky, ink('#dfe8ff', 2));
    sky = plus(sky, ink('#e8eeff', 30), spot(y, phi, 0.6, 2.2, 0.045));
    return sky;
  },
  snow(y, phi) {
    const hills = 0.06 + 0.07 * clouds(0, phi, 2.2);
    const sky = mix(ink('#e9eef3', 1.1), ink('#8fb2d8', 0.95), smooth(0, 0.8, y));
    if (y > hills) return plus(sky, ink('#fff6e6', 45), spot(y, phi, 0.36, 1.2, 0.06));
    if (y > -0.02) return mix(ink('#c7d3e2', 0.85), ink('#9fb0c8', 0.7), clouds(y, phi, 12));
    return mix(ink('#f2f5fa', 0.95), ink('#d5dfec', 0.8), clouds(y, phi, 7));
  },
};

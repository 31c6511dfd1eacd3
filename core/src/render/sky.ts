import type { Rgb } from '../palette';
import { brightness } from './glow';

/** A picture of all directions: linear light, 3 a texel, row by row from straight up to straight down, from +Z over +X around. */
export interface SkyMap {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}

/**
 * What surrounds everything: two colours that blend upwards, or a picture of all directions. Of a picture, directions are
 * also chosen as often as light comes from them (a table by rows, then along each: Pharr et al. 2016, 14.2.4).
 *
 * One serves for millions of rays; what it finds stands in its fields.
 */
export class Sky {
  r = 0.5;
  g = 0.5;
  b = 0.5;
  /** A direction that {@link choose} gave, and its chance by solid angle. */
  x = 0.5;
  y = 0.5;
  z = 0.5;
  chance = 0.5;
  /** Mean light of all directions. */
  readonly mean: Rgb;
  /** What a white floor under it shows. */
  readonly above: Rgb;
  private readonly rows: Float64Array | null = null;
  private readonly along: Float64Array | null = null;
  private readonly all: number = 0;

  /**
   * @param strength – multiplies the picture
   * @param turn – of the picture about the vertical, in radians
   */
  constructor(
    readonly zenith: Rgb,
    readonly horizon: Rgb,
    readonly map: SkyMap | null = null,
    private readonly strength = 1,
    private readonly turn = 0,
  ) {
    if (!map) {
      // Down to the horizon all is the horizon's; above, the mean of the root of the height is two thirds.
      this.mean = [0, 1, 2].map(
        (c) => horizon[c]! / 2 + (horizon[c]! + (zenith[c]! - horizon[c]!) * (2 / 3)) / 2,
      ) as unknown as Rgb;
      this.above = horizon.map((h, c) => h + (zenith[c]! - h) * 0.8) as unknown as Rgb;
      return;
    }
    const { width, height, light } = map;
    this.rows = new Float64Array(height + 1);
    this.along = new Float64Array((width + 1) * height);
    const mean = [0, 0, 0],
      above = [0, 0, 0];
    for (let j = 0; j < height; j++) {
      const wide = Math.sin((Math.PI * (j + 0.5)) / height),
        share = (wide * Math.PI * strength) / (2 * width * height),
        // How much of it a floor takes: four times the cosine of what the mean does.
        high = 4 * share * Math.max(0, Math.cos((Math.PI * (j + 0.5)) / height));
      let row = 0;
      for (let i = 0; i < width; i++) {
        const o = (j * width + i) * 3;
        for (let c = 0; c < 3; c++) {
          mean[c]! += light[o + c]! * share;
          above[c]! += light[o + c]! * high;
        }
        row += around(map, i, j);
        this.along[j * (width + 1) + i + 1] = row;
      }
      this.rows[j + 1] = this.rows[j]! + row * wide;
    }
    this.all = this.rows[height]!;
    this.mean = mean as unknown as Rgb;
    this.above = above as unknown as Rgb;
  }

  /** Whether directions can be chosen by their light; the light of an even sky is found as well by chance. */
  get chosen(): boolean {
    return this.all > 0;
  }

  /** The light that comes from a direction of length 1. */
  look(dx: number, dy: number, dz: number): void {
    const { map } = this;
    if (!map) {
      const { horizon: h, zenith: z } = this;
      const k = dy <= 0 ? 0 : Math.sqrt(dy);
      this.r = h[0] + (z[0] - h[0]) * k;
      this.g = h[1] + (z[1] - h[1]) * k;
      this.b = h[2] + (z[2] - h[2]) * k;
      return;
    }
    const { width, height, light } = map;
    let u = (Math.atan2(dx, dz) - this.turn) / (2 * Math.PI);
    u = (u - Math.floor(u)) * width - 0.5;
    const v = (Math.acos(Math.max(-1, Math.min(1, dy))) / Math.PI) * height - 0.5;
    const i = Math.floor(u),
      j = Math.floor(v);
    const left = i < 0 ? width - 1 : i,
      right = left === width - 1 ? 0 : left + 1,
      upper = Math.max(0, j) * width,
      lower = Math.min(height - 1, j + 1) * width;
    this.r = this.g = this.b = 0;
    this.add(light, upper + left, (1 - (u - i)) * (1 - (v - j)));
    this.add(light, upper + right, (u - i) * (1 - (v - j)));
    this.add(light, lower + left, (1 - (u - i)) * (v - j));
    this.add(light, lower + right, (u - i) * (v - j));
  }
  private add(light: Float32Array, texel: number, weight: number): void {
    const k = weight * this.strength,
      o = texel * 3;
    this.r += light[o]! * k;
    this.g += light[o + 1]! * k;
    this.b += light[o + 2]! * k;
  }

  /** How likely {@link choose} gives a direction. */
  chanceOf(dx: number, dy: number, dz: number): number {
    const { map } = this;
    if (!map || this.all === 0) return 0;
    const j = this.row(dy),
      i = this.column(dx, dz),
      o = j * (map.width + 1) + i;
    return this.density(this.along![o + 1]! - this.along![o]!, map);
  }

  /** A direction by two chances, and the light that comes from it. */
  choose(a: number, b: number): void {
    const { width, height } = this.map!;
    const rows = this.rows!,
      along = this.along!;
    const p = a * this.all;
    const j = placeIn(rows, 0, height, p);
    const inRow = (p - rows[j]!) / (rows[j + 1]! - rows[j]!);
    const first = j * (width + 1),
      q = b * along[first + width]!;
    const i = placeIn(along, first, width, q) - first;
    const share = along[first + i + 1]! - along[first + i]!;
    const theta = Math.acos(blend(Math.cos((Math.PI * j) / height), Math.cos((Math.PI * (j + 1)) / height), inRow));
    const phi = ((i + (q - along[first + i]!) / share) / width) * 2 * Math.PI + this.turn;
    const s = Math.sin(theta);
    this.x = s * Math.sin(phi);
    this.y = Math.cos(theta);
    this.z = s * Math.cos(phi);
    this.look(this.x, this.y, this.z);
    this.chance = this.density(share, this.map!);
  }

  /** A texel's brightness over that of all, by the solid angle that it takes on the sphere. */
  private density(bright: number, { width, height }: SkyMap): number {
    return (bright * width) / (this.all * 4 * Math.PI * Math.sin(Math.PI / (2 * height)));
  }

  private row(dy: number): number {
    const { height } = this.map!;
    return Math.min(height - 1, ((Math.acos(Math.max(-1, Math.min(1, dy))) / Math.PI) * height) | 0);
  }
  private column(dx: number, dz: number): number {
    const { width } = this.map!;
    let u = (Math.atan2(dx, dz) - this.turn) / (2 * Math.PI);
    u -= Math.floor(u);
    return Math.min(width - 1, (u * width) | 0);
  }
}

/** Brightness of a texel with those about it: light is blended between them, and none may come where no direction is chosen. */
function around({ width, height, light }: SkyMap, i: number, j: number): number {
  let sum = 0;
  for (let dj = -1; dj <= 1; dj++)
    for (let di = -1; di <= 1; di++) {
      const y = Math.max(0, Math.min(height - 1, j + dj)),
        x = (i + di + width) % width;
      const o = (y * width + x) * 3;
      sum += brightness(light[o]!, light[o + 1]!, light[o + 2]!) * (di === 0 && dj === 0 ? 4 : 1);
    }
  return sum / 12;
}

const blend = (a: number, b: number, k: number): number => a + (b - a) * k;

/** The last place of a rising table, from `first` on, that is not above `p`; `count` places and one. */
function placeIn(table: Float64Array, first: number, count: number, p: number): number {
  let lo = first,
    hi = first + count - 1;
  while (lo < hi) {
    const mid = (lo + hi + 1) >> 1;
    if (table[mid]! <= p) lo = mid;
    else hi = mid - 1;
  }
  return lo;
}

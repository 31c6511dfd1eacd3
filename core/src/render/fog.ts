import type { Light } from '../model';
import { type Rgb, hexToLinear } from '../palette';

/**
 * Haze that is thick at the floor and thinner above, or alike everywhere. Light is lost on its way through it by Beer and
 * Lambert's law; the way is worked out in closed form.
 */
export class Fog {
  /** @param rate – share lost over a unit at the floor; @param rise – units over which it thins to 1/e; Infinity is alike everywhere */
  constructor(
    private readonly rate: number,
    private readonly floor: number,
    private readonly rise: number,
    readonly colour: Rgb,
  ) {}

  /** How thick it is at a height; below the floor as at the floor. */
  private at(y: number): number {
    return this.rate * (this.rise === Infinity ? 1 : Math.exp(-Math.max(0, y - this.floor) / this.rise));
  }

  /** Thickness along a ray from height `y`, rising by `dy` for each unit, over `t` units. */
  depth(y: number, dy: number, t: number): number {
    const { rate, rise, floor } = this;
    if (rise === Infinity) return rate * t;
    let h = y - floor,
      below = 0;
    if (h < 0 && dy <= 0) return rate * t;
    if (h < 0) {
      // Up to the floor, then on from there.
      below = Math.min(t, -h / dy);
      h = 0;
      t -= below;
    } else if (dy < 0 && h + dy * t < 0) {
      const above = -h / dy;
      below = t - above;
      t = above;
    }
    const thick = rate * Math.exp(-h / rise);
    if (t === Infinity && dy <= 0) return thick === 0 ? 0 : Infinity;
    const k = (dy * t) / rise;
    // Nearly level, the difference of two near numbers would lose their digits.
    return rate * below + (Math.abs(k) < 1e-5 ? thick * t : (thick * rise * (1 - Math.exp(-k))) / dy);
  }

  /** How far light comes along a ray before a thickness is behind it, at most `t`; by halving, since it always grows. */
  reach(y: number, dy: number, t: number, thickness: number): number {
    if (this.rise === Infinity) return Math.min(t, thickness / this.rate);
    let lo = 0,
      hi = t;
    if (hi === Infinity) {
      hi = 1 / Math.max(1e-12, this.at(y));
      while (this.depth(y, dy, hi) < thickness && hi < 1e9) hi *= 2;
    }
    for (let i = 0; i < 40; i++) {
      const mid = (lo + hi) / 2;
      if (this.depth(y, dy, mid) < thickness) lo = mid;
      else hi = mid;
    }
    return (lo + hi) / 2;
  }
}

/** The fog of a light; null where there is none. @param metre – project units in a metre */
export function fogOf({ fog }: Pick<Light, 'fog'>, floor: number, metre: number): Fog | null {
  if (fog.density === 0) return null;
  return new Fog(fog.density / metre, floor, fog.height === 0 ? Infinity : fog.height * metre, hexToLinear(fog.colour));
}

import { type Axis, type Extent, type Vec3, mapVec } from '@sphalerite/core/math';
import type { Around, Finish, FinishKind, SidesPainted } from '@sphalerite/core/paint';

/** Every number of every finish; each keeps what was set while another is looked at. */
export interface FinishOptions {
  seed: number;
  blend: 'bands' | 'ordered' | 'noise';
  round: boolean;
  amount: number;
  size: number;
  share: number;
  reach: number;
  strength: number;
  long: number;
  high: number;
  bond: number;
  gap: number;
  joint: number;
  sides: SidesPainted;
  /** The axis that courses go around. */
  about: Axis;
  upright: boolean;
  wide: number;
  plankLong: number;
  plankGap: number;
  grain: number;
}
export const FIRST_OPTIONS: Readonly<FinishOptions> = {
  seed: 1,
  blend: 'ordered',
  round: false,
  amount: 0.18,
  size: 1,
  share: 0.5,
  reach: 4,
  strength: 1,
  long: 6,
  high: 2,
  bond: 0.5,
  gap: 1,
  joint: 0,
  sides: 'each',
  about: 1,
  upright: false,
  wide: 3,
  plankLong: 14,
  plankGap: 0,
  grain: 0.15,
};

/** What of the project a finish lies along: a gradient's line and the lowest and highest cube, in project units. */
export interface FinishPlace {
  readonly line: { readonly from: Vec3; readonly to: Vec3 } | null;
  readonly heights: { readonly low: number; readonly high: number } | null;
  /** The box of what is painted, in project units. */
  readonly extent: Extent | null;
}

/** What courses go around: the middle of what is painted, as wide as that is. */
function aroundOf(axis: Axis, extent: Extent | null): Around | null {
  if (!extent) return null;
  const { lo, hi } = extent;
  const wide = [0, 1, 2].filter((a) => a !== axis).map((a) => hi[a]! - lo[a]!);
  return { axis, centre: mapVec(lo, (v, i) => (v + hi[i]!) / 2), radius: Math.max(...wide) / 2 };
}

/** Bricks that suit a wall of a height: some fifteen courses, with joints only where they stay thin. */
export function bricksFor(height: number): Pick<FinishOptions, 'long' | 'high' | 'gap'> {
  const high = Math.max(2, Math.min(8, Math.round(height / 15)));
  return { high, long: Math.round(high * 2.5), gap: high >= 4 ? 1 : 0 };
}

/** The finish of a kind as its options say; null while it has nothing to lie along. */
export function finishOf(
  kind: FinishKind,
  o: FinishOptions,
  ramp: readonly number[],
  { line, heights, extent }: FinishPlace,
): Finish | null {
  const base = { ramp, seed: o.seed };
  const around = o.sides === 'around' ? aroundOf(o.about, extent) : null;
  const laid = { sides: o.sides, upright: o.upright, joint: o.joint, ...(around ? { around } : {}) };
  switch (kind) {
    case 'gradient':
      return line && { ...base, kind, ...line, round: o.round, blend: o.blend };
    case 'speckle':
      return { ...base, kind, amount: o.amount, size: o.size };
    case 'dither':
      return { ...base, kind, share: o.share, blend: o.blend === 'bands' ? 'ordered' : o.blend };
    case 'height':
      return heights && { ...base, kind, ...heights, blend: o.blend };
    case 'occlusion':
      return { ...base, kind, reach: o.reach, strength: o.strength, blend: o.blend };
    case 'bricks':
      return { ...base, ...laid, kind, long: o.long, high: o.high, bond: o.bond, gap: o.gap };
    case 'planks':
      return { ...base, ...laid, kind, long: o.plankLong, wide: o.wide, gap: o.plankGap, grain: o.grain };
  }
}

import type { Vec3 } from '@sphalerite/core/math';
import type { Finish, FinishKind } from '@sphalerite/core/paint';

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
  sides: 'each' | 'walls' | 'floor';
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
}

/** The finish of a kind as its options say; null while it has nothing to lie along. */
export function finishOf(
  kind: FinishKind,
  o: FinishOptions,
  ramp: readonly number[],
  { line, heights }: FinishPlace,
): Finish | null {
  const base = { ramp, seed: o.seed };
  const laid = { sides: o.sides, upright: o.upright, joint: o.joint };
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

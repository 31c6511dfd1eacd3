import type { Axis, Vec3 } from '../math';

export const FINISH_KINDS = ['gradient', 'speckle', 'dither', 'height', 'occlusion', 'bricks', 'planks'] as const;
export type FinishKind = (typeof FINISH_KINDS)[number];

export const BLENDS = ['bands', 'ordered', 'noise'] as const;
/** How a value between two tones is shown: by the nearer one, by an even pattern of both, or by a scatter of both. */
export type Blend = (typeof BLENDS)[number];

export const SIDES_PAINTED = ['each', 'walls', 'floor', 'around'] as const;
/** Which way a pattern lies: on each face its own way, on all as on walls, on all as on a floor, or around an axis as on a tower. */
export type SidesPainted = (typeof SIDES_PAINTED)[number];
/** What courses go around, in project units: a whole number of bricks fits, counted at `radius`. */
export interface Around {
  readonly axis: Axis;
  readonly centre: Vec3;
  readonly radius: number;
}

/**
 * Which tones are used: palette bytes from dark to light, or, when empty, for each cube the darker and lighter
 * neighbours of its own colour.
 */
interface Toned {
  readonly ramp: readonly number[];
  /** Another number gives another scatter; the same number the same one on every machine. */
  readonly seed: number;
}
/** Courses of bricks or planks; lengths in project units. */
interface Laid {
  /** Thickness of the joints; 0 for none. */
  readonly gap: number;
  /** Palette byte of the joints; 0 leaves them as they are, or, with each cube's own tones, makes them a shade darker. */
  readonly joint: number;
  readonly sides: SidesPainted;
  /** For the sides `around`. */
  readonly around?: Around;
  /** Runs the other way: upright on walls, along Z on a floor. */
  readonly upright: boolean;
}

/** A way to paint many cubes at once, in plain data. Points and lengths are in project units, at the rest pose. */
export type Finish = Toned &
  /** Along the ramp between two points; `round` makes it spread from the first. */
  (
    | {
        readonly kind: 'gradient';
        readonly from: Vec3;
        readonly to: Vec3;
        readonly round: boolean;
        readonly blend: Blend;
      }
    /** A share of the cubes (0–1), in clumps of an edge length, takes some tone of the ramp. */
    | { readonly kind: 'speckle'; readonly amount: number; readonly size: number }
    /** A mixture that is the same everywhere: 0 is all of the first tone, 1 all of the last. */
    | { readonly kind: 'dither'; readonly share: number; readonly blend: Exclude<Blend, 'bands'> }
    /** Dark below, light above, between two heights. */
    | { readonly kind: 'height'; readonly low: number; readonly high: number; readonly blend: Blend }
    /** Dark in corners, light in the open; `reach` in cubes, `strength` 1 makes an inner corner of two walls the darkest. */
    | { readonly kind: 'occlusion'; readonly reach: number; readonly strength: number; readonly blend: Blend }
    /** `bond` is how far each course is shifted against the one below, in bricks. */
    | (Laid & { readonly kind: 'bricks'; readonly long: number; readonly high: number; readonly bond: number })
    /** `grain` (0–1) streaks the planks with neighbouring tones. */
    | (Laid & { readonly kind: 'planks'; readonly long: number; readonly wide: number; readonly grain: number })
  );

/** Where a part's lattice stands among the patterns: all parts share them, so that courses run on from part to part. */
export interface PaintFrame {
  /** The lattice's origin in half cubes of the part. */
  readonly half: Vec3;
  /** Edge of a cube in project units. */
  readonly cell: number;
}

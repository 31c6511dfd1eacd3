import type { Box, Vec3 } from '@sphalerite/core/math';
import type { Extrusion, Opening, RegionQuery, Shape, Symmetry } from '@sphalerite/core/sculpt';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import type { ToolCard, Verb } from './card';

/** What the pointer is over, in the part's lattice. */
export interface Pick {
  readonly cell: Vec3;
  /** Outward normal of the face under the pointer. */
  readonly normal: Vec3;
  /** No cube: the floor of the volume or the guide plane; `cell` is then the one behind the surface. */
  readonly floor: boolean;
  /** Where the guide plane was met, when it was. */
  readonly point?: Vec3;
}
/** The pointer's ray in the part's lattice. */
export interface Ray {
  readonly origin: Vec3;
  readonly dir: Vec3;
}

export type ToolEvent =
  | {
      readonly type: 'move' | 'down' | 'up';
      readonly ray: Ray;
      readonly pick: Pick | null;
      /** Keys that are held: equal sides, and from the centre. */
      readonly shift?: boolean;
      readonly ctrl?: boolean;
    }
  /** Escape, a lost pointer, or a change of tool. */
  | { readonly type: 'cancel' }
  /** Enter. */
  | { readonly type: 'commit' }
  /** The card's options changed while a shape waits. */
  | { readonly type: 'refresh' }
  /** A waiting shape moved by whole cubes. */
  | { readonly type: 'nudge'; readonly by: Vec3 }
  /** Layers more or fewer for a shape whose height is asked for. */
  | { readonly type: 'height'; readonly by: number }
  /** A waiting shape given by numbers, or a new one begun with them. */
  | { readonly type: 'box'; readonly box: Box };

/** What a tool works with; the part as it was when the stroke began. */
export interface ToolContext {
  readonly card: ToolCard;
  /** What is seen: the visible layers inside the cutaway. */
  readonly seen: VoxelGrid;
  /** Where a stroke may work: the volume inside the cutaway. */
  readonly limit: Box;
  /** Palette byte in hand. */
  readonly value: number;
  readonly symmetry: Symmetry;
  /** Turns Add into Erase for this stroke. */
  readonly invert: boolean;
  /** The axis the view looks along squarely, without perspective; null otherwise. */
  readonly square: 0 | 1 | 2 | null;
  /** What the Stamp places. */
  readonly stamp: VoxelGrid | null;
}

/** A change in plain data, for the edit of that name. */
export type Change =
  | {
      readonly kind: 'stroke';
      readonly verb: Verb;
      readonly value: number;
      readonly shapes: readonly (Shape & { readonly value?: number })[];
    }
  | { readonly kind: 'extrude'; readonly extrusion: Extrusion }
  | { readonly kind: 'region'; readonly verb: Verb; readonly value: number; readonly query: RegionQuery }
  | { readonly kind: 'opening'; readonly opening: Opening }
  | { readonly kind: 'stamp'; readonly verb: Verb; readonly grid: VoxelGrid };

/** What the view shows after an event. */
export interface ToolOutput {
  /** To show as if it were done. */
  readonly preview: Change | null;
  /** To do now. */
  readonly commit: Change | null;
  /** The cells a click would touch or that are being covered, before mirroring. */
  readonly shapes: readonly Shape[];
  /** A single face that is meant, for Extrude and Fill. */
  readonly face: { readonly cell: Vec3; readonly normal: Vec3 } | null;
  /** Size along each axis and how many, for the readout; null when nothing is being measured. */
  readonly measure: { readonly size: Vec3; readonly count: number | null } | null;
  /** What the tool waits for, when that is not plain; empty otherwise. */
  readonly asks: string;
  /** Whether a stroke is under way, so that the pointer is not for the camera. */
  readonly active: boolean;
  /** A shape that waits and can still be changed by numbers. */
  readonly waiting: Box | null;
  /** Whether the wheel gives the height, since the pointer cannot. */
  readonly wheel?: boolean;
}

export const IDLE: ToolOutput = {
  preview: null,
  commit: null,
  shapes: [],
  face: null,
  measure: null,
  asks: '',
  active: false,
  waiting: null,
};

/** A small state machine: events in, what to show and do out. No DOM, no drawing. */
export interface Tool {
  handle(event: ToolEvent, ctx: ToolContext): ToolOutput;
}

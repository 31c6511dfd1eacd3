import type { Box, Vec3 } from '@sphalerite/core/math';
import type { Extrusion, FaceReach, MirrorPlanes, Stroke, StrokeVerb } from '@sphalerite/core/sculpt';
import type { VoxelGrid } from '@sphalerite/core/voxel';

export const REACHES = ['point', 'box', 'extrude'] as const;
export type Reach = (typeof REACHES)[number];

/** A card on the bench: a verb with a reach and its options. */
export interface ToolCard {
  readonly name: string;
  readonly verb: StrokeVerb;
  readonly reach: Reach;
  /** How far a face reaches, for Extrude. */
  readonly face: FaceReach;
}

/** What the pointer is over, in the part's lattice. */
export interface Pick {
  readonly cell: Vec3;
  /** Outward normal of the face under the pointer. */
  readonly normal: Vec3;
  /** The floor of the volume rather than a cube; `cell` is then the one below it. */
  readonly floor: boolean;
}
/** The pointer's ray in the part's lattice. */
export interface Ray {
  readonly origin: Vec3;
  readonly dir: Vec3;
}

export type ToolEvent =
  | { readonly type: 'move' | 'down' | 'up'; readonly ray: Ray; readonly pick: Pick | null }
  /** Escape, a lost pointer, or a change of tool. */
  | { readonly type: 'cancel' }
  /** Enter. */
  | { readonly type: 'commit' };

/** What a tool works with; the part as it was when the stroke began. */
export interface ToolContext {
  readonly card: ToolCard;
  readonly seen: VoxelGrid;
  /** Palette byte in hand. */
  readonly value: number;
  readonly mirror: MirrorPlanes;
  /** Turns Add into Erase for this stroke. */
  readonly invert: boolean;
}

/** A change in plain data, for the edit of that name. */
export type Change = { readonly kind: 'stroke'; readonly stroke: Stroke } | { readonly kind: 'extrude'; readonly extrusion: Extrusion };

/** What the view shows after an event. */
export interface ToolOutput {
  /** To show as if it were done. */
  readonly preview: Change | null;
  /** To do now. */
  readonly commit: Change | null;
  /** The cells a click would touch or that are being covered, before mirroring. */
  readonly cells: readonly Box[];
  /** A single face that is meant, for Extrude. */
  readonly face: { readonly cell: Vec3; readonly normal: Vec3 } | null;
  /** Size along each axis and how many, for the readout; null when nothing is being measured. */
  readonly measure: { readonly size: Vec3; readonly count: number } | null;
  /** What the tool waits for, when that is not plain; empty otherwise. */
  readonly asks: string;
  /** Whether a stroke is under way, so that the pointer is not for the camera. */
  readonly active: boolean;
}

export const IDLE: ToolOutput = { preview: null, commit: null, cells: [], face: null, measure: null, asks: '', active: false };

/** A small state machine: events in, what to show and do out. No DOM, no drawing. */
export interface Tool {
  handle(event: ToolEvent, ctx: ToolContext): ToolOutput;
}

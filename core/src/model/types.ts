import type { Axis, Box, Quat, Transform, Vec3 } from '../math';
import type { Colourway, Palette } from '../palette';
import type { VoxelGrid } from '../voxel';
import type { Id } from './ids';

export const SIDES = ['left', 'right', 'centre'] as const;
/** From the character's own point of view; its left is +X. */
export type Side = (typeof SIDES)[number];

export const KINDS = ['character', 'creature', 'wearable', 'prop', 'scene', 'terrain cube'] as const;
export type Kind = (typeof KINDS)[number];

export interface Layer {
  readonly id: Id;
  readonly name: string;
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly grid: VoxelGrid;
}

/** A share of a part's cubes under a name, before the part is taken apart. */
export interface Region {
  /** Its value in the grid of regions. */
  readonly byte: number;
  readonly name: string;
  readonly side: Side;
}

/** Which region each cube belongs to; 0 is the rest. Cells without a cube may be in a region too. */
export interface Regions {
  readonly id: Id;
  readonly list: readonly Region[];
  readonly grid: VoxelGrid;
}

/** A part that is the mirror image of another: its layers, volume, pivot and mount follow that of its source. */
export interface TwinOf {
  readonly source: Id;
  readonly axis: Axis;
  /** Where the plane between the two stands at rest, in project units. */
  readonly plane: number;
}

/** One cube volume. All its layers share the lattice and `bounds`. */
export interface Part {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
  readonly hidden: boolean;
  readonly palette: Id;
  /** Edge of a cube in project units. */
  readonly cell: number;
  readonly bounds: Box;
  /** The anchor, in half cubes of the part's lattice. */
  readonly pivot: Vec3;
  /** Bottom to top; the topmost visible cube wins. */
  readonly layers: readonly Layer[];
  /** Null while no cube has been given to a region. */
  readonly regions: Regions | null;
  readonly twin: TwinOf | null;
  /** The whole and its region that this part was taken from; region 0 is the rest. */
  readonly origin: { readonly whole: Id; readonly region: number } | null;
}

export interface Bone {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
  readonly parent: Id | null;
  /** Local to the parent, in project units. */
  readonly rest: Transform;
  /** Of its lane, as hex; null for that of its side. */
  readonly colour: string | null;
  /** Whether it goes into exported files; a control may stay at home. */
  readonly ships: boolean;
}

/** Places a part on a bone; a point p of the part stands at World(bone) · T·R·S(cell) · T(−pivot) · p. */
export interface Mount extends Transform {
  readonly id: Id;
  readonly part: Id;
  /** Null while the part lies unmounted, at the rig's origin. */
  readonly bone: Id | null;
  /** The set of alternates it is one of; null for a part that is always there. */
  readonly alternateSet: Id | null;
}

/** Mounts of which one is worn at a time, or none: heads, mouths, held things. */
export interface AlternateSet {
  readonly id: Id;
  readonly name: string;
  /** The mount that is there at rest. */
  readonly worn: Id | null;
}

interface ConstraintBase {
  readonly id: Id;
  /** The bone that is steered; for a chain its tip. */
  readonly bone: Id;
  readonly on: boolean;
  /** How much of it counts, 0–1. */
  readonly amount: number;
}
/** Bends the bones above so that the tip's joint reaches the goal. */
export interface IkConstraint extends ConstraintBase {
  readonly kind: 'ik';
  readonly goal: Id;
  /** The chain bends towards it. */
  readonly pole: Id | null;
  /** Bones above the tip that bend. */
  readonly links: number;
  /** To which side it bends at rest when it is straight and has no pole, in rig space at rest. */
  readonly bend: Vec3;
  /** Whether the tip keeps the goal's turn, as a foot on the ground. */
  readonly hold: boolean;
}
/** Adds another bone's turn from rest to this one's. */
export interface MatchConstraint extends ConstraintBase {
  readonly kind: 'match';
  readonly target: Id;
  readonly axes: readonly [boolean, boolean, boolean];
}
/** Points an axis of the bone at another. */
export interface LookConstraint extends ConstraintBase {
  readonly kind: 'look';
  readonly target: Id;
  /** Of the bone itself, length 1. */
  readonly axis: Vec3;
}
/** Keeps the bone's turn in the world, whatever it hangs on does. */
export interface UprightConstraint extends ConstraintBase {
  readonly kind: 'upright';
}
/** Holds the angles from rest (YXZ, degrees). */
export interface LimitConstraint extends ConstraintBase {
  readonly kind: 'limit';
  readonly min: Vec3;
  readonly max: Vec3;
}
export type Constraint = IkConstraint | MatchConstraint | LookConstraint | UprightConstraint | LimitConstraint;

/** A named place with a direction on a bone (its own +Z), for effects and for wearables to meet: a flame, a grip, a seat. */
export interface Attachment {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
  readonly bone: Id;
  readonly t: Vec3;
  readonly q: Quat;
}

export interface Rig {
  readonly bones: readonly Bone[];
  readonly mounts: readonly Mount[];
  /** In the order in which they count where several steer one bone. */
  readonly constraints: readonly Constraint[];
  readonly attachments: readonly Attachment[];
  readonly alternateSets: readonly AlternateSet[];
}

export const EASINGS = ['step', 'linear', 'ease', 'curve'] as const;
/** How the value moves from this key to the next: held, straight, slow at both ends, or along a curve of one's own. */
export type Easing = (typeof EASINGS)[number];

/** Ticks in a second; clip times are whole ticks. */
export const TICKS = 1200;

/** Handles of a cubic Bézier from (0, 0) to (1, 1): x1, y1, x2, y2, with both x between 0 and 1. */
export type Curve = readonly [number, number, number, number];

interface KeyBase {
  readonly time: number;
  readonly ease: Easing;
  /** For the easing `curve`. */
  readonly curve?: Curve | undefined;
}
/** A shift from rest, in project units. */
export interface MoveKey extends KeyBase {
  readonly value: Vec3;
}
/** A turn from rest. */
export interface TurnKey extends KeyBase {
  readonly value: Quat;
}
/** A scale relative to rest. */
export interface ScaleKey extends KeyBase {
  readonly value: Vec3;
}

/** The keys of one bone, each list in order of time. */
export interface Lane {
  readonly bone: Id;
  readonly move: readonly MoveKey[];
  readonly turn: readonly TurnKey[];
  readonly scale: readonly ScaleKey[];
}

/** What a set of alternates wears from a moment on. */
export interface SwapKey {
  readonly time: number;
  readonly mount: Id | null;
}
export interface SwapLane {
  readonly alternateSet: Id;
  readonly keys: readonly SwapKey[];
}

export const CHANNELS = ['move', 'turn', 'scale'] as const;
export type Channel = (typeof CHANNELS)[number];

export interface Clip {
  readonly id: Id;
  readonly name: string;
  /** In ticks. */
  readonly length: number;
  /** The grid that times are shown and snapped on. */
  readonly fps: number;
  readonly loop: boolean;
  /** Whether it goes into exported files; a clip for trying joints stays at home. */
  readonly ships: boolean;
  readonly lanes: readonly Lane[];
  readonly swaps: readonly SwapLane[];
}

/** A pose on the shelf: offsets from rest of the bones it knows. */
export interface SavedPose {
  readonly id: Id;
  readonly name: string;
  readonly bones: readonly { readonly bone: Id; readonly offset: Transform }[];
}

/** What of a ready rig cannot be changed by accident; parts are free. */
export interface Seal {
  /** The ready rig it came from. */
  readonly rig: string;
  /** Joints stay within `range` project units, along each axis, of where they stood when it was sealed. */
  readonly bones: readonly { readonly bone: Id; readonly at: Vec3; readonly range: number }[];
  readonly clips: readonly Id[];
}

export interface Camera {
  readonly kind: 'perspective' | 'orthographic';
  readonly eye: Vec3;
  readonly target: Vec3;
  /** Vertical, in degrees (perspective). */
  readonly fov: number;
  /** Height of the view in project units (orthographic). */
  readonly height: number;
}

export interface Light {
  readonly sun: {
    /** Degrees clockwise from +Z (south of the model) seen from above. */
    readonly azimuth: number;
    /** Degrees above the horizon. */
    readonly elevation: number;
    /** Width of the disc in degrees; wider is softer. */
    readonly size: number;
    readonly colour: string;
    readonly strength: number;
  };
  readonly sky: { readonly zenith: string; readonly horizon: string; readonly strength: number };
  readonly ground: { readonly kind: 'none' | 'colour'; readonly colour: string };
  /** Multiplies the glow of every swatch. */
  readonly glow: number;
}

/** A picture that can be made again: camera, light, pose and output under one name. */
export interface Shot {
  readonly id: Id;
  readonly name: string;
  readonly camera: Camera;
  readonly light: Light;
  readonly clip: Id | null;
  /** The look that is pictured; null is the palette's own. */
  readonly colourway: Id | null;
  /** In ticks of the clip. */
  readonly time: number;
  /** In stops; 0 leaves light as it is. */
  readonly exposure: number;
  readonly size: readonly [number, number];
  readonly samples: number;
}

export const REFERENCE_PLANES = ['front', 'side', 'top'] as const;
/** A picture to work from, standing behind (front), beside (side) or under (top) a part, to whole cubes. */
export interface Reference {
  readonly id: Id;
  readonly name: string;
  readonly part: Id;
  readonly plane: (typeof REFERENCE_PLANES)[number];
  /** A PNG, JPEG or WebP as a data address. */
  readonly image: string;
  /** Lower left corner in cubes of the part's lattice: x y, z y or x z. */
  readonly at: readonly [number, number];
  /** Width and height in cubes. */
  readonly size: readonly [number, number];
  /** 0–1. */
  readonly opacity: number;
  readonly hidden: boolean;
}

/** What the finished thing should keep to; 0 means no limit. */
export interface Target {
  /** Height in metres. */
  readonly height: number;
  /** Triangles as shipped. */
  readonly faces: number;
  readonly bones: number;
  /** Longer edge of the texture in pixels. */
  readonly texture: number;
}

export const BINNED = ['part', 'bone', 'clip', 'shot', 'colourway'] as const;
/** Something deleted, with all that is needed to put it back as it was. */
export type BinItem =
  | {
      readonly id: Id;
      readonly kind: 'part';
      readonly at: number;
      readonly part: Part;
      readonly mounts: readonly Mount[];
      readonly references: readonly Reference[];
    }
  | {
      readonly id: Id;
      readonly kind: 'bone';
      readonly at: number;
      readonly bone: Bone;
      readonly children: readonly Id[];
      readonly mounts: readonly Id[];
      readonly lanes: readonly { readonly clip: Id; readonly lane: Lane }[];
      readonly constraints: readonly Constraint[];
      readonly attachments: readonly Attachment[];
    }
  | { readonly id: Id; readonly kind: 'clip'; readonly at: number; readonly clip: Clip }
  | { readonly id: Id; readonly kind: 'shot'; readonly at: number; readonly shot: Shot }
  | { readonly id: Id; readonly kind: 'colourway'; readonly at: number; readonly colourway: Colourway };

/** All the work on one asset: a frozen value. Every edit gives a new one. */
export interface Project {
  readonly id: Id;
  readonly name: string;
  readonly kind: Kind;
  /** Metres in a project unit; a cube of a part is `cell` units. */
  readonly metresPerUnit: number;
  readonly target: Target;
  readonly palettes: readonly Palette[];
  readonly parts: readonly Part[];
  readonly rig: Rig;
  readonly clips: readonly Clip[];
  readonly poses: readonly SavedPose[];
  /** Null when every part of the rig may be changed. */
  readonly seal: Seal | null;
  readonly shots: readonly Shot[];
  /** Small pieces placed again and again, kept as parts that belong to no rig. */
  readonly stamps: readonly Part[];
  readonly references: readonly Reference[];
  readonly colourways: readonly Colourway[];
  readonly bin: readonly BinItem[];
}

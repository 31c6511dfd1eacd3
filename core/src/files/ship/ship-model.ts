import type { Quat, Vec3 } from '../../math';
import type { DeliveryProfile, Id } from '../../model';
import type { Note } from '../notes';

/** What of a project is shipped. */
export type Shipped =
  | { readonly of: 'rig' }
  | { readonly of: 'part'; readonly part: Id }
  | { readonly of: 'scene'; readonly scene: Id }
  /** A placement of a scene with what hangs on it, standing where its origin is. */
  | { readonly of: 'group'; readonly scene: Id; readonly placement: Id };

/** How names, axes and units come out; without a profile as glTF wants them. */
export type ShipProfile = Omit<DeliveryProfile, 'id' | 'name' | 'options'>;
export const PLAIN_PROFILE: ShipProfile = {
  up: '+y',
  forward: '+z',
  unitsPerMetre: 1,
  origin: 'pivot',
  prefix: '',
  suffixes: { left: ' left', right: ' right' },
};

/** How the surface of cubes is made into triangles. */
export interface ShipMeshing {
  /** No edge left open and no point within another's edge, across materials too; else rectangles of one colour, which meet as they may. */
  readonly closed: boolean;
}
export const COLLIDERS = ['boxes', 'one box', 'none'] as const;
/** What stands for each part where things bump into it: few boxes within a tolerance, one around it, or nothing. */
export interface ShipColliding {
  readonly collider: (typeof COLLIDERS)[number];
  /** Cubes by which boxes may stand off the part, and leave of it. */
  readonly tolerance: number;
}
export type ShipMaking = ShipMeshing & ShipColliding;
/** Rectangles of one colour and no colliders. */
export const PLAIN_MAKING: ShipMaking = { closed: false, collider: 'none', tolerance: 1 };

/** A box that things bump into, by the node of the part that it stands for. */
export interface ShipCollider {
  readonly node: number;
  readonly name: string;
  /** From the node's own origin, in units of the profile. */
  readonly middle: Vec3;
  readonly size: Vec3;
}

/** A node, after the one it hangs on; lengths in units of the profile. */
export interface ShipNode {
  readonly name: string;
  /** By its place in the list. */
  readonly parent: number | null;
  readonly t: Vec3;
  readonly q: Quat;
  readonly s: Vec3;
  readonly mesh: number | null;
}

/** Triangles that share a material, from the pivot of their part; one for all places it stands at. */
export interface ShipShape {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Where each vertex finds its swatch on a palette strip. */
  readonly uv: Float32Array;
  readonly indices: Uint32Array;
}

export interface ShipPiece {
  readonly shape: number;
  readonly material: number;
  /** Its material in each of the model's looks. */
  readonly looks: readonly number[];
}
export interface ShipMesh {
  readonly name: string;
  readonly pieces: readonly ShipPiece[];
}

export interface ShipPicture {
  readonly name: string;
  readonly png: Uint8Array<ArrayBuffer>;
}
export interface ShipMaterial {
  readonly name: string;
  readonly transparent: boolean;
  /** By their places among the pictures. */
  readonly colour: number;
  readonly roughnessMetal: number;
  readonly glow: number | null;
  /** What the glow picture's light is multiplied with. */
  readonly glowStrength: number;
}

export interface ShipTrack {
  readonly node: number;
  readonly path: 'translation' | 'rotation' | 'scale';
  readonly interpolation: 'STEP' | 'LINEAR' | 'CUBICSPLINE';
  /** Seconds. */
  readonly times: Float32Array;
  readonly values: Float32Array;
}
export interface ShipClip {
  readonly name: string;
  /** Worked out when it is first asked for: counting needs none of it. */
  tracks(): readonly ShipTrack[];
}

export interface ShipCounts {
  readonly nodes: number;
  /** Nodes that show cubes. */
  readonly parts: number;
  readonly clips: number;
  readonly colliders: number;
  readonly vertices: number;
  readonly triangles: number;
  /** Exposed faces of cubes, before merging. */
  readonly faces: number;
}

/** What is shipped, gathered once for every exporter of models. */
export interface ShipModel {
  readonly name: string;
  readonly nodes: readonly ShipNode[];
  readonly meshes: readonly ShipMesh[];
  readonly shapes: readonly ShipShape[];
  readonly materials: readonly ShipMaterial[];
  readonly pictures: readonly ShipPicture[];
  /** Colourways that it can be seen in. */
  readonly looks: readonly string[];
  readonly clips: readonly ShipClip[];
  /** Attachment points, by their nodes. */
  readonly points: readonly number[];
  readonly colliders: readonly ShipCollider[];
  readonly counts: ShipCounts;
  readonly notes: readonly Note[];
}

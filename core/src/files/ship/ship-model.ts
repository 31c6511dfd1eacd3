import type { Quat, Vec3 } from '../../math';
import { type Id, type PictureType, type Project, sceneByItself } from '../../model';
import type { Note } from '../notes';

/** What of a project is shipped. */
export type Shipped =
  | { readonly of: 'rig' }
  | { readonly of: 'part'; readonly part: Id }
  | { readonly of: 'scene'; readonly scene: Id }
  /** A placement of a scene with what hangs on it, standing where its origin is. */
  | { readonly of: 'group'; readonly scene: Id; readonly placement: Id };

/** What a project ships as where nothing else is said: its figure, or the scene of one that has none. */
export function wholeShipped(project: Project): Shipped {
  const scene = sceneByItself(project);
  return scene === null ? { of: 'rig' } : { of: 'scene', scene };
}

/** What things bump into, by the node of the part that it stands for; from that node's own origin, in units of the profile. */
export interface ShipCollider {
  readonly node: number;
  readonly name: string;
  readonly moves: 'static' | 'moving';
  /** How far the farthest point of all that stands for the node, or of what it stands for, is from the other. */
  readonly error: number;
  readonly shape:
    /** Turned about its middle. */
    | { readonly kind: 'box'; readonly middle: Vec3; readonly size: Vec3; readonly turn: Quat }
    | { readonly kind: 'hull' | 'mesh'; readonly positions: Float32Array; readonly indices: Uint32Array };
}

/** A light as glTF has it: linear colour, candela, and the half angles of a spot's cone in radians. */
export interface ShipLamp {
  readonly kind: 'point' | 'spot';
  readonly colour: readonly [number, number, number];
  readonly intensity: number;
  readonly inner: number;
  readonly outer: number;
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
  /** The set of which it is one: one of a set is shown at a time, or none. */
  readonly set?: string;
  /** The light that shines along its −Z. */
  readonly lamp?: ShipLamp;
  /** Whether its mesh follows the joints of the model instead of the node. */
  readonly skinned: boolean;
}

/** What a shape covers, before and after merging. */
export interface ShipCover {
  /** Exposed faces of single cubes. */
  readonly faces: number;
  /** Triangles of flat regions of one or two faces: spots of colour and loose ends. */
  readonly spots: number;
  /** Triangles of regions one face wide: stairs of cubes, rims and stripes. */
  readonly stairs: number;
}

/** Triangles that share a material, from the pivot of their part; one for all places it stands at. */
export interface ShipShape {
  readonly positions: Float32Array;
  /** Null where the reader shades flat by itself. */
  readonly normals: Float32Array | null;
  /** Where each vertex finds its colour in the pictures of its material, rows from the top. */
  readonly uv: Float32Array;
  /** Coordinates for baked light, 0–1 over the mesh, without overlaps. */
  readonly uv2: Float32Array | null;
  readonly indices: Uint32Array;
  /** What all its positions are whole multiples of; null when they are not. */
  readonly step: number | null;
  /** Of each vertex the place of its bone among those of the skin; null where nothing is skinned. */
  readonly joints: Uint16Array | null;
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
  /** The part whose it is; null when it was joined of several. */
  readonly part: Id | null;
  /** How large the picture of its second coordinates should be at least, in cubes. */
  readonly second: readonly [number, number] | null;
}

export interface ShipPicture {
  readonly name: string;
  readonly type: PictureType;
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** In texels; 0 where a picture of one's own was not looked into. */
  readonly width: number;
  readonly height: number;
}
export interface ShipMaterial {
  readonly name: string;
  /** As the engine will show it; empty where none was named. */
  readonly slot: string;
  /** How what lets light through is drawn; null for what does not. */
  readonly transparent: 'blend' | 'mask' | null;
  /** Whether its pictures repeat. */
  readonly repeats: boolean;
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
  readonly lamps: number;
  readonly vertices: number;
  readonly triangles: number;
  /** Times that something is drawn: pieces of meshes wherever they stand. */
  readonly draws: number;
  /** Times that something would be drawn with a mesh for each part. */
  readonly apart: number;
  readonly materials: number;
  /** Longest edge of its pictures, in texels. */
  readonly texels: number;
  /** Exposed faces of cubes, before merging. */
  readonly faces: number;
  /** Bytes of vertices and triangles, each shape once, as they are and with a rectangle for each face. */
  readonly geometry: number;
  readonly geometryApart: number;
  /** Longest edge that its pictures would have with a texel for each face; as it is where colours come from a strip. */
  readonly texelsApart: number;
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
  /** Nodes that vertices of skinned meshes hang on, in the order in which shapes count them. */
  readonly joints: readonly number[];
  /** Attachment points, by their nodes. */
  readonly points: readonly number[];
  readonly colliders: readonly ShipCollider[];
  /** Pieces of meshes wherever they stand, before meshes were joined; null while none were. */
  readonly apart: number | null;
  /** Texels around each image of an atlas; null where colours come from a strip or from pictures that repeat. */
  readonly padding: number | null;
  /** What each shape covers. */
  readonly covers: readonly ShipCover[];
  readonly notes: readonly Note[];
}

/** What there is of everything in a model. */
export function countsOf(model: ShipModel): ShipCounts {
  const { nodes, meshes, shapes, covers, clips, colliders, pictures } = model;
  const texels = Math.max(0, ...pictures.map((p) => Math.max(p.width, p.height)));
  const pieces = nodes.flatMap((n) => (n.mesh === null ? [] : meshes[n.mesh]!.pieces));
  const sum = (of: (shape: number) => number): number => pieces.reduce((n, p) => n + of(p.shape), 0);
  return {
    nodes: nodes.length,
    parts: nodes.filter((n) => n.mesh !== null).length,
    clips: clips.length,
    colliders: colliders.length,
    lamps: nodes.filter((n) => n.lamp).length,
    vertices: sum((s) => shapes[s]!.positions.length / 3),
    triangles: sum((s) => shapes[s]!.indices.length / 3),
    draws: pieces.length,
    apart: model.apart ?? pieces.length,
    materials: new Set(pieces.map((p) => p.material)).size,
    texels,
    faces: sum((s) => covers[s]!.faces),
    geometry: shapes.reduce((n, s) => n + bytesOf(s), 0),
    geometryApart: shapes.reduce((n, s, i) => n + covers[i]!.faces * (4 * stride(s) + 6 * 4), 0),
    texelsApart:
      model.padding === null
        ? texels
        : Math.ceil(Math.sqrt(covers.reduce((n, c) => n + c.faces, 0)) * (1 + 2 * model.padding)),
  };
}
/** Bytes of a vertex: place, coordinates, and whatever else it has. */
const stride = (s: ShipShape): number => 12 + 8 + (s.normals ? 12 : 0) + (s.uv2 ? 8 : 0) + (s.joints ? 8 : 0);
const bytesOf = (s: ShipShape): number => (s.positions.length / 3) * stride(s) + s.indices.byteLength;

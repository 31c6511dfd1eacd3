import type { Transform, Vec3 } from '../../math';

/** A picture of a surface, by its place among those of the scene. */
export interface MeshTexture {
  readonly picture: number;
  /** Whether it repeats beyond its rims; else they go on. */
  readonly repeats: boolean;
}

/** What faces look like. Colours are linear, 0–1; pictures are multiplied with them. */
export interface MeshSurface {
  readonly name: string;
  readonly colour: Vec3;
  readonly opacity: number;
  readonly picture: MeshTexture | null;
  /** Light that it gives off; may be more than 1. */
  readonly glow: Vec3;
  readonly glowPicture: MeshTexture | null;
  readonly roughness: number;
  readonly metalness: number;
  /** Green is roughness, blue metalness. */
  readonly roughMetalPicture: MeshTexture | null;
  /** What becomes of what is not opaque: it is solid all the same, cut out below a share, lets light through, or what its picture looks like. */
  readonly clear: 'solid' | 'cut' | 'through' | 'pictured';
  readonly cut: number;
}

/** Triangles of one surface, from the origin of their node. */
export interface MeshShape {
  /** Three a vertex. */
  readonly positions: Float64Array;
  /** Three vertices a triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
  /** Two a vertex, rows of pictures from the top; null where there are none. */
  readonly uvs: Float32Array | null;
  /** Four bytes a vertex, sRGB and how opaque; null where there are none. */
  readonly colours: Uint8Array | null;
  /** By its place; −1 for none. */
  readonly surface: number;
}

export interface MeshNode {
  readonly name: string;
  /** By its place, which may be behind; null at the top. */
  readonly parent: number | null;
  readonly rest: Transform;
  readonly shapes: readonly MeshShape[];
  /** Whether meshes follow it. */
  readonly joint?: boolean;
  /** Whether it only carries a mesh whose triangles were given to the joints that they follow. */
  readonly carrier?: boolean;
  /** The set of which it is one, where the file says so: one of a set is shown at a time. */
  readonly set?: string | undefined;
  /** How long its cubes are in its own space, where the file says so. */
  readonly cell?: number | undefined;
  /** What it is where the file says it: a place with a direction, something to bump into. */
  readonly role: 'node' | 'point' | 'collider';
}

export interface MeshTrack {
  readonly node: number;
  readonly path: 'translation' | 'rotation' | 'scale';
  readonly interpolation: 'STEP' | 'LINEAR' | 'CUBICSPLINE';
  /** Seconds, rising. */
  readonly times: Float64Array;
  /** Three or four a key; for cubic splines three times that: in-tangent, value, out-tangent. */
  readonly values: Float64Array;
}
export interface MeshClip {
  readonly name: string;
  readonly tracks: readonly MeshTrack[];
}

export interface MeshPicture {
  readonly name: string;
  /** As in its file; null where that was not given. */
  readonly bytes: Uint8Array<ArrayBuffer> | null;
}

/** What is in a file of meshes. */
export interface MeshScene {
  readonly nodes: readonly MeshNode[];
  readonly surfaces: readonly MeshSurface[];
  readonly pictures: readonly MeshPicture[];
  readonly clips: readonly MeshClip[];
  /** Whether the format says how long its unit is: a metre. */
  readonly metres: boolean;
  /** Whether places of nodes mean something: where they turn about. */
  readonly pivots: boolean;
  /** Files that it names and that were not given. */
  readonly missing: readonly string[];
}

/** More triangles than these are not read. */
export const MOST_TRIANGLES = 5_000_000;
/** Deeper and larger trees than any real one are not read. */
export const MOST_NODES = 65_536;

/** A surface about which nothing is said. */
export const PLAIN_SURFACE: MeshSurface = {
  name: '',
  colour: [0.6, 0.6, 0.6],
  opacity: 1,
  picture: null,
  glow: [0, 0, 0],
  glowPicture: null,
  roughness: 0.8,
  metalness: 0,
  roughMetalPicture: null,
  clear: 'solid',
  cut: 0.5,
};

/** A file that may belong to another, by what that calls it. */
export interface NamedBytes {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** The last piece of a path, whichever way its slashes go: a file never says where to look, only what for. */
const lastPiece = (path: string): string => path.split(/[\\/]/).at(-1)!.trim();

/** The file that a path names, wherever it was; null where none of those given bears its name. */
export function fileNamed(path: string, files: readonly NamedBytes[]): NamedBytes | null {
  const wanted = lastPiece(path).toLowerCase();
  return files.find((f) => lastPiece(f.name).toLowerCase() === wanted) ?? null;
}

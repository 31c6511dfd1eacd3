import { type Axis, type Box, type Vec3, boxEnd, intersectBoxes } from '../math';
import { MAX_EDGE, type VoxelGrid } from '../voxel';
import { axisOf } from './extrude';

/** A window, door or panel in a wall, in plain data. */
export interface Opening {
  /** The rectangle of surface cells it takes, frame included: one cell thick along the wall's normal. */
  readonly face: Box;
  /** Outward normal of the wall. */
  readonly normal: Vec3;
  /** Width of the frame in cubes. */
  readonly border: number;
  /** Whether the frame runs along the lower edge too: a window has a sill, a door has none. */
  readonly sill: boolean;
  /** How far the frame stands out of the wall. */
  readonly proud: number;
  /** How deep the filling is set back. */
  readonly recess: number;
  readonly frame: number;
  /** Palette byte that fills the middle, or null to leave a hole right through the wall. */
  readonly filling: number | null;
}

/** The layer with an opening: the frame stands proud of the wall, the middle is cut back and filled. */
export function cutOpening(layer: VoxelGrid, seen: VoxelGrid, o: Opening, limit: Box = layer.bounds): VoxelGrid {
  const axis = axisOf(o.normal);
  const dir = o.normal[axis]!;
  const inner = innerOf(o);
  const deep = o.filling === null ? throughTo(seen, inner, axis, dir) : o.recess;
  return layer.edit((d) => {
    const slab = (b: Box, from: number, to: number): Box => along(b, axis, dir, from, to);
    // Depth runs outwards: −1 is the wall's first layer, 0 the first before it.
    if (o.border > 0) {
      d.fillBox(slab(o.face, -Math.max(1, deep + (o.filling === null ? 0 : 1)), o.proud - 1), o.frame);
    }
    d.fillBox(slab(inner, -deep, o.proud - 1), 0);
    if (o.filling !== null) d.fillBox(slab(inner, -deep - 1, -deep - 1), o.filling);
  }, limit);
}

/** The middle of an opening: its face without the frame. */
export function innerOf(o: Opening): Box {
  const axis = axisOf(o.normal);
  const min: [number, number, number] = [...o.face.min],
    size: [number, number, number] = [...o.face.size];
  // A frame has a lower edge only on an upright wall.
  for (const a of ([0, 1, 2] as Axis[]).filter((k) => k !== axis)) {
    const low = a === 1 && !o.sill ? 0 : o.border;
    min[a] += low;
    size[a] = Math.max(0, size[a]! - low - o.border);
  }
  return { min, size };
}

/** Cells of a face moved along the normal, from depth `from` to `to`, both counted in cubes outwards. */
function along(face: Box, axis: Axis, dir: number, from: number, to: number): Box {
  const min: [number, number, number] = [...face.min],
    size: [number, number, number] = [...face.size];
  const a = face.min[axis] + dir * (from + 1),
    b = face.min[axis] + dir * (to + 1);
  min[axis] = Math.min(a, b);
  size[axis] = to < from ? 0 : Math.abs(b - a) + 1;
  return { min, size };
}

/** How many layers the wall behind a rectangle has before the next empty one. */
function throughTo(seen: VoxelGrid, inner: Box, axis: Axis, dir: number): number {
  const bounds = seen.bounds;
  for (let n = 1; n <= MAX_EDGE; n++) {
    const layer = intersectBoxes(along(inner, axis, dir, -n, -n), bounds);
    if (layer.size.some((s) => s <= 0)) return n - 1;
    const e = boxEnd(layer);
    let any = false;
    for (let z = layer.min[2]; z < e[2] && !any; z++) {
      for (let y = layer.min[1]; y < e[1] && !any; y++)
        for (let x = layer.min[0]; x < e[0] && !any; x++) any = seen.get(x, y, z) !== 0;
    }
    if (!any) return n - 1;
  }
  return MAX_EDGE;
}

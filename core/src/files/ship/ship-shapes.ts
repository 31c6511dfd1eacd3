import type { Steps } from '../../math';
import { type Surface, closedSurfaceSteps, colouredSurface, surfaceOf, withoutTransparent } from '../../mesh';
import type { Palette } from '../../palette';
import { BYTE_VALUES, type VoxelGrid, byteTable } from '../../voxel';
import type { MaterialGroup, ShipMaterials } from './ship-materials';
import type { ShipMeshing, ShipShape } from './ship-model';

/** A stretch of triangles of one material, in the lattice. */
interface Stretch {
  readonly group: number;
  readonly surface: Surface;
}

/** Surfaces by grid and by how its bytes are shared out among materials: what did not change is not merged again. */
const known = new WeakMap<VoxelGrid, Map<string, readonly Stretch[]>>();

/** The surface of a grid for each group of its palette that shows anywhere, in pieces; memoised for as long as the grid lives. */
export function* stretchSteps(
  grid: VoxelGrid,
  palette: Palette,
  materials: ShipMaterials,
  { closed }: ShipMeshing,
): Steps<readonly Stretch[]> {
  const groups = materials.groups(palette);
  const key = `${closed} ${groups.map((g) => `${g.transparent ? 1 : 0}${g.bytes.join('')}`).join()}`;
  let ofGrid = known.get(grid);
  if (!ofGrid) known.set(grid, (ofGrid = new Map()));
  let out = ofGrid.get(key);
  if (!out) {
    const solid = withoutTransparent(grid, materials.transparentIn(palette));
    // What is seen through is no solid, and its faces are only those that look into the open.
    const whole = closed ? yield* closedSurfaceSteps(solid, EACH) : null;
    out = groups
      .map((g, group) => ({
        group,
        surface:
          whole && !g.transparent
            ? colouredSurface(whole, takes(g))
            : surfaceOf(g.transparent ? grid : solid, takes(g)),
      }))
      .filter((s) => s.surface.colours.length > 0);
    ofGrid.set(key, out);
  }
  return out;
}
/** Faces of different colours are kept apart. */
const EACH = byteTable((b) => b);
const takes =
  ({ bytes }: MaterialGroup) =>
  (byte: number): boolean =>
    bytes[byte] === 1;

/** A surface from a pivot, in target units. @param unit – of one cube */
export function shapeOf(surface: Surface, pivot: readonly number[], unit: number): ShipShape {
  const uv = new Float32Array(surface.colours.length * 2);
  surface.colours.forEach((byte, i) => {
    uv[i * 2] = (byte + 0.5) / BYTE_VALUES;
    uv[i * 2 + 1] = 0.5;
  });
  return {
    positions: surface.positions.map((v, i) => (v - pivot[i % 3]!) * unit),
    normals: surface.normals,
    uv,
    indices: surface.indices,
  };
}

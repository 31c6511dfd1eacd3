import { type Mat4, type Steps, type Vec3, boxEnd, transformPoint } from '../../math';
import { type FlatSurface, closedSurfaceSteps, everyWay } from '../../mesh';
import { byteTable } from '../../voxel';
import type { SolidBody, SolidModel } from './solid';

/** How solids stand in a file: which way is up, how long a metre is there, and where its origin lies. */
export interface SolidPlace {
  /** Printers want Z up. */
  readonly up: 'y' | 'z';
  /** Units of the file a project unit. */
  readonly unit: number;
  /** Onto the bed: the middle of its foot, at height 0. */
  readonly onBed: boolean;
}

/** A closed surface as it stands in a file. */
export interface PlacedSurface extends Omit<FlatSurface, 'positions'> {
  readonly body: SolidBody;
  /** Three numbers a vertex, in units of the file. */
  readonly positions: Float32Array;
}

const ONE = everyWay(byteTable(() => 0)),
  EACH = everyWay(byteTable((b) => b));

/** The corners of what a model fills, in project units. */
export function solidExtent({ bodies }: SolidModel): { readonly lo: Vec3; readonly hi: Vec3 } {
  const lo: [number, number, number] = [Infinity, Infinity, Infinity],
    hi: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const { grid, matrix } of bodies) {
    const { min } = grid.contentBox()!,
      end = boxEnd(grid.contentBox()!);
    for (let c = 0; c < 8; c++) {
      const p = transformPoint(matrix, [c & 1 ? end[0] : min[0], c & 2 ? end[1] : min[1], c & 4 ? end[2] : min[2]]);
      for (const a of [0, 1, 2]) [lo[a], hi[a]] = [Math.min(lo[a]!, p[a]!), Math.max(hi[a]!, p[a]!)];
    }
  }
  return { lo, hi };
}

/** From a body's lattice in half cubes to the file. */
function placing({ lo, hi }: ReturnType<typeof solidExtent>, { matrix }: SolidBody, at: SolidPlace): (p: Vec3) => Vec3 {
  const from: Vec3 = at.onBed ? [(lo[0] + hi[0]) / 2, lo[1], (lo[2] + hi[2]) / 2] : [0, 0, 0];
  return (half) => {
    const p = transformPoint(matrix as Mat4, [half[0] / 2, half[1] / 2, half[2] / 2]);
    const [x, y, z] = [0, 1, 2].map((a) => (p[a]! - from[a]!) * at.unit) as [number, number, number];
    return at.up === 'y' ? [x, y, z] : [x, -z, y];
  };
}

/**
 * The closed surface of each body, in pieces.
 *
 * @param coloured – whether faces of different colours are kept apart; labels are then bytes
 */
export function* placedSurfaces(model: SolidModel, at: SolidPlace, coloured: boolean): Steps<PlacedSurface[]> {
  const extent = solidExtent(model);
  const out: PlacedSurface[] = [];
  for (const [i, body] of model.bodies.entries()) {
    const steps = closedSurfaceSteps(body.grid, coloured ? EACH : ONE);
    let s = steps.next();
    for (; !s.done; s = steps.next()) yield (i + s.value) / model.bodies.length;
    const place = placing(extent, body, at),
      half = s.value.positions,
      positions = new Float32Array(half.length);
    for (let k = 0; k < half.length; k += 3) positions.set(place([half[k]!, half[k + 1]!, half[k + 2]!]), k);
    out.push({ ...s.value, body, positions });
  }
  return out;
}

/** Where the middle of each cube stands, with its colour; one after another. */
export function eachCube(
  model: SolidModel,
  at: SolidPlace,
  visit: (p: Vec3, r: number, g: number, b: number) => void,
): void {
  const extent = solidExtent(model);
  for (const body of model.bodies) {
    const place = placing(extent, body, at),
      { colours } = body;
    body.grid.forEach((x, y, z, v) =>
      visit(place([2 * x + 1, 2 * y + 1, 2 * z + 1]), colours[v * 3]!, colours[v * 3 + 1]!, colours[v * 3 + 2]!),
    );
  }
}

export const cubeCount = ({ bodies }: SolidModel): number => bodies.reduce((n, b) => n + b.grid.count, 0);

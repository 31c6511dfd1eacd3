import type { MeshScene, MeshShape } from '../../codec';
import { type Mat4, type Steps, type Transform, type Vec3, decompose } from '../../math';
import { type Space, spaceOf } from '../../voxel';
import { MOST_CUBES } from '../picture';
import { meetings } from './columns';
import { insideSteps, isTooMuch } from './inside';
import { type Lattice, areCubes, byLattice, latticeOf } from './lattice';
import type { Looks } from './looks';
import { type Origin, type Sightings, seen } from './paint';
import { evenScale } from './scene-frame';
import { FINE, type Soup, soupOf } from './soup';

/** A node whose faces lie on a lattice of cubes. */
export interface CubeNode {
  readonly node: number;
  /** Its shapes, or some of them where bodies of it lie on lattices of their own. */
  readonly shapes: readonly MeshShape[];
  readonly lattice: Lattice;
  /** How long a cell is in the world. */
  readonly cell: number;
}

/**
 * The nodes of a scene as lattices of cubes, all of them or none. Cells are as small as the smallest of all where that divides them: a
 * plain block tells nothing about its own.
 *
 * @param assumed – also where nothing but a common length speaks for it
 */
export function cubeNodes(scene: MeshScene, worlds: readonly Mat4[], assumed: boolean): CubeNode[] | null {
  const out: CubeNode[] = [];
  for (const [node, n] of scene.nodes.entries()) {
    if (n.role === 'collider' || n.shapes.length === 0) continue;
    const even = evenScale(worlds[node]!),
      lattice = even === null ? null : latticeOf(n.shapes, n.cell ?? null);
    if (even === null) return null;
    const whole = lattice && (n.cell !== undefined || areCubes([lattice]));
    const bodies = (whole ? null : byLattice(n.shapes)) ?? (lattice ? [{ shapes: n.shapes, lattice }] : null);
    if (!bodies) return null;
    for (const b of bodies) out.push({ node, ...b, cell: b.lattice.cell * even });
  }
  if (out.length === 0) return null;
  const told = out.every((c) => scene.nodes[c.node]!.cell !== undefined);
  if (!told && !assumed && !areCubes(out.map((c) => c.lattice))) return null;
  const least = out.reduce((m, c) => Math.min(m, c.cell), Infinity);
  return out.map((c) => {
    const ratio = c.cell / least;
    if (scene.nodes[c.node]!.cell !== undefined || Math.abs(ratio - Math.round(ratio)) > 0.02) return c;
    const cell = c.lattice.cell / Math.round(ratio);
    return { ...c, cell: least, lattice: { ...c.lattice, cell } };
  });
}

/** A node's cells. */
export interface CubeDraft {
  readonly origins: readonly Origin[];
  readonly box: { readonly min: Vec3; readonly size: Vec3 };
  readonly space: Space;
  readonly filled: Uint8Array;
  readonly sightings: Sightings;
  /** Where the origin of the node is, in half cells of its lattice, and how far that is off, in cells. */
  readonly pivot: Vec3;
  /** From cells to where they stand, in the world. */
  readonly frame: Transform;
}

/**
 * The cells of a node cube for cube: those behind its faces, and all inside where that is wished.
 *
 * @returns null where it has more cells along an edge than a part, or its triangles lie across each other too often
 */
export function* cubesSteps(
  { shapes, lattice }: CubeNode,
  world: Mat4,
  solid: boolean,
  looks: Looks,
): Steps<CubeDraft | null> {
  const { cell, from } = lattice;
  // The origin of the node may be at a corner of a cell, in its middle, or anywhere: cells are counted from the half nearest to it.
  const half = from.map((v) => Math.round((-v / cell) * 2)) as unknown as Vec3;
  const corners: number[] = [],
    origins: Origin[] = [];
  const high = [0, 0, 0];
  for (const shape of shapes)
    for (let i = 0; i < shape.triangles.length; i += 3) {
      for (let k = 0; k < 9; k++) {
        const n = (shape.positions[shape.triangles[i + Math.floor(k / 3)]! * 3 + (k % 3)]! - from[k % 3]!) / cell;
        // Corners within a face may be anywhere on it; those of cubes are whole.
        const whole = Math.round(n);
        corners.push(Math.abs(n - whole) < 0.05 ? whole * FINE : Math.round(n * FINE));
        if (whole > high[k % 3]!) high[k % 3] = whole;
      }
      origins.push({ shape, first: i });
    }
  if (Math.max(...high) > MOST_CUBES) return null;
  // A cell to spare on every side.
  const size = high.map((v) => v + 2) as unknown as Vec3,
    space = spaceOf(size);
  const given = soupOf(
    Int32Array.from(corners, (v) => v + FINE),
    size,
  );
  if (isTooMuch(given)) return null;
  yield 0.2;
  const inside = insideSteps(given);
  let soup: Soup, filled: Uint8Array;
  for (;;) {
    const s = inside.next();
    if (s.done) {
      ({ soup, cells: filled } = s.value);
      break;
    }
    yield 0.2 + 0.6 * s.value;
  }
  if (!solid) filled.fill(0);
  const corner = new Int32Array(9);
  for (let t = 0; t < soup.triangles.length; t += 3) {
    for (let k = 0; k < 9; k++) corner[k] = soup.points[soup.triangles[t + Math.floor(k / 3)]! * 3 + (k % 3)]!;
    for (const axis of [0, 1, 2] as const) {
      const [i, j] = [(axis + 1) % 3, (axis + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2];
      meetings(corner, axis, space.size[i], space.size[j], (m) => {
        filled[m.cell * space.strides[axis] + m.u * space.strides[i] + m.v * space.strides[j]] = 1;
      });
    }
  }
  const { q } = decompose(world);
  const off = from.map((v, a) => v + (half[a]! * cell) / 2) as unknown as Vec3;
  // Cells are counted so that the pivot is at `half`.
  const at = (p: Vec3): Vec3 => [
    world[0]! * p[0] + world[4]! * p[1] + world[8]! * p[2] + world[12]!,
    world[1]! * p[0] + world[5]! * p[1] + world[9]! * p[2] + world[13]!,
    world[2]! * p[0] + world[6]! * p[1] + world[10]! * p[2] + world[14]!,
  ];
  return {
    origins,
    box: { min: [-1, -1, -1], size },
    space,
    filled,
    sightings: seen(soup, origins, filled, space, looks),
    pivot: half,
    frame: { t: at(off), q, s: [1, 1, 1] },
  };
}

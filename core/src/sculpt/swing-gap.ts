import { FACE_DIRECTIONS, type Axis, type Vec3, quatFromAxisAngle, rotate, vec3Of } from '../math';
import type { CellSet } from '../voxel';

const AXIS_VECTORS: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** Samples along an edge of a face, and turns looked at between rest and the full swing. */
const ACROSS = 3,
  TURNS = 8;

/** A point of a cut, with the way out of the limb. */
export interface CutPoint {
  readonly at: Vec3;
  readonly normal: Vec3;
}

/** Points on the faces at which a limb touches a body, `across`² to a face; what already stands in the body has no face there. */
export function cutPoints(limb: CellSet, body: CellSet, across: number): CutPoint[] {
  const out: CutPoint[] = [];
  const own = limb.minus(body);
  for (const normal of FACE_DIRECTIONS) {
    const [u, v] = [0, 1, 2].filter((i) => normal[i] === 0) as [number, number];
    own.intersect(body.moved([-normal[0], -normal[1], -normal[2]])).forEach((x, y, z) => {
      for (let i = 0; i < across; i++)
        for (let j = 0; j < across; j++) {
          const p = [x + 0.5 + normal[0] / 2, y + 0.5 + normal[1] / 2, z + 0.5 + normal[2] / 2];
          p[u] = p[u]! + (i + 0.5) / across - 0.5;
          p[v] = p[v]! + (j + 0.5) / across - 0.5;
          out.push({ at: vec3Of(p), normal });
        }
    });
  }
  return out;
}

/**
 * How much of a joint gapes when a limb swings: of all points that the cut sweeps over on its way to `degrees` to both sides,
 * the share that neither the body nor the swung limb covers. 0 means that one never sees through.
 *
 * @param cut – the limb as it was cut, whose faces against the body open
 * @param limb – the limb as it is, with its plug
 * @param pivot – in half cubes
 */
export function swingGap(cut: CellSet, limb: CellSet, body: CellSet, pivot: Vec3, axis: Axis, degrees: number): number {
  const faces = cutPoints(cut, body, ACROSS).map(({ at }): Vec3 => [
    at[0] - pivot[0] / 2,
    at[1] - pivot[1] / 2,
    at[2] - pivot[2] / 2,
  ]);
  if (faces.length === 0) return 0;
  const inside = (set: CellSet, p: Vec3): boolean =>
    set.has(Math.floor(p[0] + pivot[0] / 2), Math.floor(p[1] + pivot[1] / 2), Math.floor(p[2] + pivot[2] / 2));
  let open = 0,
    all = 0;
  for (const side of [-1, 1]) {
    const full = (side * degrees * Math.PI) / 180;
    for (let k = 0; k < TURNS; k++) {
      const there = (full * (k + 0.5)) / TURNS;
      const out = quatFromAxisAngle(AXIS_VECTORS[axis]!, there),
        back = quatFromAxisAngle(AXIS_VECTORS[axis]!, there - full);
      for (const f of faces) {
        all++;
        if (!inside(body, rotate(out, f)) && !inside(limb, rotate(back, f))) open++;
      }
    }
  }
  return open / all;
}

import { AXES, type Axis, type Box, type Vec3, withAxis } from '../math';
import { mirrorCell } from '../voxel';

/** Live mirror planes in half cubes of the part's lattice, null where the axis is off. */
export type MirrorPlanes = readonly [number | null, number | null, number | null];
export const NO_MIRROR: MirrorPlanes = [null, null, null];

/** The mirror image of a box across plane `h` (half cubes). */
export const mirrorBox = (b: Box, axis: Axis, h: number): Box => ({
  min: withAxis(b.min, axis, h - b.min[axis] - b.size[axis]),
  size: b.size,
});

/** The boxes with all their reflections; up to eight for each, those that coincide once. */
export function mirrorBoxes(boxes: readonly Box[], planes: MirrorPlanes): readonly Box[] {
  let out = boxes;
  for (const axis of AXES) {
    const h = planes[axis];
    if (h === null) continue;
    const seen = new Set(out.map(keyOf));
    out = [...out, ...out.map((b) => mirrorBox(b, axis, h)).filter((b) => !seen.has(keyOf(b)))];
  }
  return out;
}
const keyOf = (b: Box): string => `${b.min.join()}|${b.size.join()}`;

/** A cell and a face normal with all their reflections. */
export function mirrorFaces(cell: Vec3, normal: Vec3, planes: MirrorPlanes): { cell: Vec3; normal: Vec3 }[] {
  let out = [{ cell, normal }];
  for (const axis of AXES) {
    const h = planes[axis];
    if (h === null) continue;
    out = out.concat(
      out.map((f) => ({
        cell: withAxis(f.cell, axis, mirrorCell(f.cell[axis], h)),
        normal: withAxis(f.normal, axis, -f.normal[axis] || 0),
      })),
    );
  }
  return out;
}

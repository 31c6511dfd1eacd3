import { MAT4_IDENTITY, type Mat4, QUAT_IDENTITY, matrixOf, mulMat, scale, translation } from '@sphalerite/core/math';
import { type Part, type Project, composite, find, pivotPoint } from '@sphalerite/core/model';
import { type DrawInstance, gridGeometry, paletteOf } from '@sphalerite/core/scene';

/** Where a part stands that is on no bone and no mount: by its anchor. */
export const looseMatrix = (part: Part | null): Mat4 =>
  part
    ? mulMat(
        matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [part.cell, part.cell, part.cell] }),
        translation(scale(pivotPoint(part), -1)),
      )
    : MAT4_IDENTITY;

/** A part that belongs to scenes alone, by itself; null for what stands in the rig. */
export function loosePart(project: Project, id: string | null): DrawInstance | null {
  const part = find(project.parts, id);
  if (!part || part.hidden || project.rig.mounts.some((m) => m.part === id)) return null;
  return {
    geometry: gridGeometry(composite(part)),
    palette: paletteOf(project, part.palette, null),
    matrix: looseMatrix(part),
    source: { path: [], part: part.id, mount: null, copy: 0 },
  };
}

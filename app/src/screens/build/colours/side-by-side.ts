import { type Vec3, add, invertMat, transformDirection, transformPoint } from '@sphalerite/core/math';
import { type Project, composite } from '@sphalerite/core/model';
import { REST_POSE, placeParts } from '@sphalerite/core/rig';
import { rayWalk } from '@sphalerite/core/voxel';
import type { ViewLabel } from '../../../shell/screen';
import type { ViewPointer } from '../../../viewport/view-input';
import { extentOf } from '../target-meter';
import type { Look } from './looks';

/** The look beside the work that the pointer is over; null over none. */
export function lookUnder(p: ViewPointer, project: Project | null, looks: readonly Look[]): Look | null {
  if (!project) return null;
  for (const look of looks) {
    if (look.inHand || look.id === 'compare') continue;
    const origin: Vec3 = [
      p.ray.origin[0] - look.shift[0],
      p.ray.origin[1] - look.shift[1],
      p.ray.origin[2] - look.shift[2],
    ];
    for (const { part, matrix } of placeParts(project, REST_POSE)) {
      const inverse = invertMat(matrix);
      if (rayWalk(composite(part), transformPoint(inverse, origin), transformDirection(inverse, p.ray.dir)))
        return look;
    }
  }
  return null;
}

/** The name of each look under its feet. */
export function lookLabels(project: Project | null, looks: readonly Look[]): ViewLabel[] {
  const e = project && extentOf(project);
  if (!e) return [];
  const under: Vec3 = [(e.lo[0] + e.hi[0]) / 2, e.lo[1] - (e.hi[1] - e.lo[1]) * 0.05, e.hi[2]];
  return looks.map((l) => ({
    at: add(under, l.shift),
    text: l.inHand && l.id !== 'compare' && looks.length > 2 ? `${l.name} · in hand` : l.name,
    tone: 'ink',
  }));
}

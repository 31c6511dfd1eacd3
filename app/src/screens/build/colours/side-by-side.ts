import { type Vec3, add, sub } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { gatherRig, pickInstance } from '@sphalerite/core/scene';
import type { ViewLabel } from '../../../shell/screen';
import type { ViewPointer } from '../../../viewport/view-input';
import { extentOf } from '../../../stores/ship-counts';
import type { Look } from './looks';

/** The look beside the work that the pointer is over; null over none. */
export function lookUnder(p: ViewPointer, project: Project | null, looks: readonly Look[]): Look | null {
  if (!project) return null;
  const list = gatherRig(project);
  return (
    looks.find(
      (look) =>
        !look.inHand && look.id !== 'compare' && pickInstance(list, sub(p.ray.origin, look.shift), p.ray.dir) !== null,
    ) ?? null
  );
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

import { type Axis, type Box, boxEnd, boxesEqual, intersectBoxes, mapVec, sub } from '@sphalerite/core/math';
import { type Id, composite } from '@sphalerite/core/model';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import { computed, ref, shallowRef } from 'vue';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { onOtherCubes } from './finer-lattice';

/** A plane to draw on in mid-air, in half cubes of the part: odd runs through a layer of cubes, even between two. */
export interface Guide {
  readonly axis: Axis;
  readonly at: number;
}
/** Handles on the box of the volume, on that of the cutaway, or on the pivot. */
export type BuildHandles = 'volume' | 'cutaway' | 'pivot' | null;

/** What is seen of the part on the bench: all of it or what a cutaway leaves, with a guide plane to draw on. */
export function useCutaway() {
  const session = useSession();
  const guide = shallowRef<Guide | null>(null);
  const handles = ref<BuildHandles>(null);
  const cuts = shallowRef<Readonly<Record<Id, Box>>>({});
  onOtherProject(() => {
    guide.value = handles.value = null;
    cuts.value = {};
  });
  onOtherCubes((part, by) => {
    if (guide.value) guide.value = { ...guide.value, at: Math.round(guide.value.at * by) };
    const cut = cuts.value[part];
    if (!cut) return;
    // A cube that is cut through stays in sight.
    const min = mapVec(cut.min, (v) => Math.floor(v * by)),
      end = mapVec(boxEnd(cut), (v) => Math.ceil(v * by));
    cuts.value = { ...cuts.value, [part]: { min, size: sub(end, min) } };
  });
  /** What the cutaway leaves visible of the part; null when nothing is cut. */
  const limit = computed<Box | null>(() => {
    const part = session.part;
    const cut = part && cuts.value[part.id];
    if (!part || !cut) return null;
    const left = intersectBoxes(cut, part.bounds);
    return boxesEqual(left, part.bounds) || left.size.some((s) => s < 1) ? null : left;
  });
  /** The visible layers inside the cutaway. */
  const seen = computed<VoxelGrid | null>(() => {
    const part = session.part;
    if (!part) return null;
    return limit.value ? composite(part).clippedTo(limit.value) : composite(part);
  });
  function setCut(box: Box | null): void {
    const part = session.part;
    if (!part) return;
    const { [part.id]: _old, ...rest } = cuts.value;
    cuts.value = box ? { ...rest, [part.id]: box } : rest;
  }
  /** The guide plane by so many half cubes along its axis. */
  function stepGuide(by: number): void {
    const g = guide.value,
      b = session.part?.bounds;
    if (!g || !b) return;
    guide.value = { ...g, at: Math.max(2 * b.min[g.axis], Math.min(2 * boxEnd(b)[g.axis], g.at + by)) };
  }
  return { guide, handles, cuts, limit, seen, setCut, stepGuide };
}

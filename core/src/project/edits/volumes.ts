import { say } from '../../words';
import { type Axis, type Box, type Vec3, boxContains, withAxis, mapVec } from '../../math';
import {
  type Id,
  type Part,
  type Project,
  mapGrids,
  must,
  partContent,
  replaceRecord,
  withPartBounds,
} from '../../model';
import { coarsened, coarsenedBox, movedGrid, refined, refinedBox, resampled, withRow } from '../../sculpt';
import { MAX_EDGE, VoxelGrid } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { checkOpen } from './strokes';

const changePart = (project: Project, id: Id, change: (part: Part) => Part): Project => {
  const parts = replaceRecord(project.parts, change(must(project.parts, id, 'part')));
  return parts === project.parts ? project : { ...project, parts };
};
const nameOf = (p: Project, id: Id): string => must(p.parts, id, 'part').name;
const tooLarge = (part: Part, size: Vec3): never => {
  throw new EditError('volumes.tooLarge', { part: part.name, size: size.join(' × '), most: MAX_EDGE });
};

/** A box of another size whose middle stays, as nearly as whole cubes allow; the floor stays in height. */
export function resizedBox(b: Box, size: Vec3): Box {
  const min = mapVec(b.min, (m, a) => (a === 1 ? m : m - Math.floor((size[a]! - b.size[a]!) / 2)));
  return { min, size };
}

/** Shrinks several parts to fit at once; empty ones are left as they are. */
export const shrinkPartsEdit = defineEdit<{ parts: readonly Id[] }>({
  name: 'shrinkParts',
  label: (a) => say('label.shrinkParts', { n: a.parts.length }),
  touches: (a) => a.parts,
  run: (project, a) =>
    a.parts.reduce(
      (p, id) =>
        changePart(p, id, (part) => {
          const box = partContent(part);
          return box &&
            (box.min.some((v, i) => v !== part.bounds.min[i]) || box.size.some((v, i) => v !== part.bounds.size[i]))
            ? withPartBounds(part, box)
            : part;
        }),
      project,
    ),
});

/** Takes every cube out of the layers that are neither hidden nor locked. */
export const clearPartEdit = defineEdit<{ part: Id }>({
  name: 'clearPart',
  label: (a, p) => `Clear ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changePart(project, a.part, (part) => ({
      ...part,
      layers: part.layers.map((l) => (l.hidden || l.locked ? l : { ...l, grid: VoxelGrid.empty(part.bounds) })),
    })),
});

/** Moves the cubes to the middle of the volume in width and depth; with `down`, on its floor too. */
export const centrePartEdit = defineEdit<{ part: Id; down?: boolean }>({
  name: 'centrePart',
  label: (a, p) => `Centre ${nameOf(p, a.part)} in its volume`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changePart(project, a.part, (part) => {
      const box = partContent(part);
      if (!box) throw new EditError('volumes.empty', { part: part.name });
      const by = mapVec(part.bounds.min, (m, i) =>
        i === 1
          ? a.down
            ? m - box.min[1]
            : 0
          : m + Math.floor((part.bounds.size[i]! - box.size[i]!) / 2) - box.min[i]!,
      );
      if (by.every((v) => v === 0)) return part;
      for (const l of part.layers) checkOpen(part, { ...l, hidden: false });
      return mapGrids(part, (g) => movedInside(g, by, part.bounds));
    }),
});
function movedInside(grid: VoxelGrid, by: Vec3, bounds: Box): VoxelGrid {
  const box = grid.contentBox();
  return box ? movedGrid(grid.clippedTo(box), by).withBounds(bounds) : grid;
}

/** Doubles a row of cubes at `at` along an axis, or takes it out; the volume grows or shrinks by one on the high side. */
export const setRowEdit = defineEdit<{ part: Id; axis: Axis; at: number; by: 1 | -1 }>({
  name: 'setRow',
  label: (a, p) => `${a.by > 0 ? 'Add' : 'Remove'} a row along ${['X', 'Y', 'Z'][a.axis]} in ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changePart(project, a.part, (part) => {
      const size = withAxis(part.bounds.size, a.axis, part.bounds.size[a.axis] + a.by);
      if (size[a.axis] > MAX_EDGE) tooLarge(part, size);
      if (size[a.axis] < 1) throw new EditError('volumes.thin', { part: part.name });
      const bounds: Box = { min: part.bounds.min, size };
      return { ...mapGrids(part, (g) => withRow(g, a.axis, a.at, a.by, bounds)), bounds };
    }),
});

const grained = (
  project: Project,
  id: Id,
  k: number,
  box: (b: Box) => Box,
  grid: (g: VoxelGrid) => VoxelGrid,
  finer: boolean,
): Project => {
  const part = must(project.parts, id, 'part');
  const bounds = box(part.bounds);
  if (bounds.size.some((s) => s > MAX_EDGE)) tooLarge(part, bounds.size);
  const scale = (v: number): number => (finer ? v * k : Math.round(v / k));
  const next: Part = {
    ...mapGrids(part, (g) => grid(g).withBounds(bounds)),
    bounds,
    cell: finer ? part.cell / k : part.cell * k,
    pivot: mapVec(part.pivot, scale),
  };
  // A pivot that falls between half cubes moves to the nearest; the mount takes up the difference.
  const slip = mapVec(part.pivot, (v, i) => (next.pivot[i]! / 2) * next.cell - (v / 2) * part.cell);
  const mounts = slip.every((v) => Math.abs(v) < 1e-9)
    ? project.rig.mounts
    : project.rig.mounts.map((m) => (m.part === id ? { ...m, t: mapVec(m.t, (v, i) => v + slip[i]! * m.s[i]!) } : m));
  const references = project.references.map((r) =>
    r.part !== id
      ? r
      : {
          ...r,
          at: r.at.map((v) => (finer ? v * k : v / k)) as unknown as readonly [number, number],
          size: r.size.map((v) => (finer ? v * k : v / k)) as unknown as readonly [number, number],
        },
  );
  return {
    ...project,
    parts: replaceRecord(project.parts, next),
    rig: mounts === project.rig.mounts ? project.rig : { ...project.rig, mounts },
    references,
  };
};

/** Cuts every cube into k³; nothing grows in the world. */
export const refinePartEdit = defineEdit<{ part: Id; by: 2 | 3 }>({
  name: 'refinePart',
  label: (a, p) => `Refine ${nameOf(p, a.part)} ×${a.by}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    grained(
      project,
      a.part,
      a.by,
      (b) => refinedBox(b, a.by),
      (g) => refined(g.clippedTo(g.contentBox() ?? g.bounds), a.by),
      true,
    ),
});

/** Makes one cube of k³, in the colour of most of them. */
export const coarsenPartEdit = defineEdit<{ part: Id; by: 2 | 3 }>({
  name: 'coarsenPart',
  risky: () => true,
  label: (a, p) => `Coarsen ${nameOf(p, a.part)} ÷${a.by}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    grained(
      project,
      a.part,
      a.by,
      (b) => coarsenedBox(b, a.by),
      (g) => coarsened(g, a.by),
      false,
    ),
});

/** Resamples what a part holds to a size in cubes, with its cube as it is; it keeps its floor and its middle. */
export const fitPartEdit = defineEdit<{ part: Id; size: Vec3 }>({
  name: 'fitPart',
  risky: () => true,
  label: (a, p) => `Fit ${nameOf(p, a.part)} to ${a.size.join('×')}`,
  touches: (a) => [a.part],
  run(project, a) {
    const part = must(project.parts, a.part, 'part');
    const box = partContent(part);
    if (!box) throw new EditError('parts.empty', { part: part.name });
    if (!a.size.every((s) => Number.isInteger(s) && s >= 1)) throw new EditError('volumes.size');
    if (a.size.some((s) => s > MAX_EDGE)) tooLarge(part, a.size);
    const target = resizedBox(box, a.size);
    const bounds = boxContains(part.bounds, target) ? part.bounds : target;
    const middle = (b: Box, i: number): number => (i === 1 ? 2 * b.min[1] : 2 * b.min[i]! + b.size[i]!);
    const pivot = mapVec(part.pivot, (v, i) =>
      Math.round(middle(target, i) + ((v - middle(box, i)) * a.size[i]!) / box.size[i]!),
    );
    return changePart(project, a.part, () => ({
      ...mapGrids(part, (g) => resampled(g, box, a.size, target.min).withBounds(bounds)),
      bounds,
      pivot,
    }));
  },
});

import { AXES, type Mat4, type Vec3, invertMat, mapVec, mulMat, transformPoint } from '../../math';
import { type Id, type Part, type Project, composite } from '../../model';
import { REST_POSE, placeParts } from '../../rig';
import { movedGrid } from '../../sculpt';
import { VoxelGrid } from '../../voxel';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';
import { partsOfSameName } from './bring-in';
import { bringPartsEdit, withoutParts } from './bring-parts';
import { type Taking, stepsBetween, takingCubes } from './taking-cubes';

/**
 * Parts that were away in another program take the cubes that came back under their names. Names, sides, mounts, pivots, palettes and
 * clips stay as they are; colours that are new join the part's palette, what a part was goes to the bin.
 *
 * @param placed – whether cubes lie in their part as they do from its pivot, or by where they stand in the world
 * @param rest – whether parts without a namesake come to stand beside the others
 */
export const takeHomeEdit = defineEdit<{ source: Project; placed: 'pivot' | 'place'; rest: boolean }>({
  name: 'takeHome',
  risky: () => true,
  label: (a) => say('label.takeHome', { source: a.source.name }),
  touches: () => [],
  run(project, { source, placed, rest }, ctx) {
    const pairs = partsOfSameName(project, source);
    if (pairs.length === 0) throw new EditError('bringIn.noNames', { source: source.name });
    const at = placed === 'place' ? placesOf(project, source, pairs) : null;
    const replaced = new Set(pairs.map((p) => p.part.id));
    const takings = pairs.flatMap(({ part, by }): Taking[] => {
      // A twin follows its source when that comes home too.
      if (part.twin && replaced.has(part.twin.source)) return [];
      if (!at) return [{ part, by, fit: (grid) => fromPivot(grid, by, part) }];
      const place = at.get(part.id);
      return place ? [{ part, by, fit: (grid) => ({ grid: moved(grid, place, part), pivot: part.pivot }) }] : [];
    });
    const home = takingCubes(project, source, takings, ctx);
    const others = rest ? withoutParts(source, new Set(pairs.map((p) => p.by.id))) : null;
    return others && others.parts.length > 0 ? bringPartsEdit.run(home, { source: others, into: null }, ctx) : home;
  },
});

/** Cells numbered as they are in the part, so that its pivot stays; where they lie half a cube beside its own, the pivot comes along. */
function fromPivot(grid: VoxelGrid, by: Part, was: Part): { grid: VoxelGrid; pivot: Vec3 } {
  const steps = stepsBetween(by.pivot, was.pivot);
  return steps ? { grid: movedGrid(grid, steps), pivot: was.pivot } : { grid, pivot: by.pivot };
}

/** From the cells of each part that came back to those of the part it was, by where both stand at rest. */
function placesOf(project: Project, source: Project, pairs: ReturnType<typeof partsOfSameName>): ReadonlyMap<Id, Mat4> {
  const [here, there] = [project, source].map(
    (p) =>
      new Map(
        placeParts(p, REST_POSE, 'all')
          .reverse()
          .map((o) => [o.part.id, o.matrix]),
      ),
  ) as [Map<Id, Mat4>, Map<Id, Mat4>];
  // A unit of what came back is its smallest cube.
  const unit = Math.min(...pairs.map((p) => p.part.cell));
  const scaled: Mat4 = [unit, 0, 0, 0, 0, unit, 0, 0, 0, 0, unit, 0, 0, 0, 0, 1];
  const standing = pairs.flatMap(({ part, by }) => {
    const [own, theirs] = [here.get(part.id), there.get(by.id)];
    return own && theirs ? [{ part, by, own, theirs: mulMat(scaled, theirs) }] : [];
  });
  const off = shiftOf(standing);
  return new Map(
    standing.map(({ part, own, theirs }) => {
      const back: Mat4 = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, -off[0], -off[1], -off[2], 1];
      return [part.id, mulMat(invertMat(own), mulMat(back, theirs))];
    }),
  );
}

/** How far all of it was moved as a whole: what most parts agree on. */
function shiftOf(standing: readonly { part: Part; by: Part; own: Mat4; theirs: Mat4 }[]): Vec3 {
  const shifts = standing.map(({ part, by, own, theirs }) => {
    const [a, b] = [lowest(own, part), lowest(theirs, by)];
    return mapVec(b, (v, k) => Math.round((v - a[k]!) * 1000) / 1000);
  });
  const counts = new Map<string, number>();
  for (const s of shifts) counts.set(s.join(), (counts.get(s.join()) ?? 0) + 1);
  const [best, most] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ['0,0,0', 0];
  return most * 2 > shifts.length && most > 2 ? (best.split(',').map(Number) as unknown as Vec3) : [0, 0, 0];
}
function lowest(m: Mat4, part: Part): Vec3 {
  const { min, size } = composite(part).contentBox() ?? part.bounds;
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((c) =>
    transformPoint(
      m,
      mapVec(min, (v, a) => v + ((c >> a) & 1) * size[a]!),
    ),
  );
  return mapVec(min, (_, a) => Math.min(...corners.map((p) => p[a]!)));
}

/** @throws EditError when the cells of a part were turned otherwise than by quarters */
function moved(grid: VoxelGrid, by: Mat4, part: Part): VoxelGrid {
  // Each axis of theirs goes along one of ours, one way or the other.
  const axes = AXES.map((a) => AXES.find((r) => Math.abs(Math.abs(by[a * 4 + r]!) - 1) < 0.02));
  if (axes.some((r) => r === undefined) || new Set(axes).size < 3)
    throw new EditError('bringIn.turned', { part: part.name });
  const box = grid.contentBox() ?? grid.bounds;
  const ends = [box.min, mapVec(box.min, (v, a) => v + box.size[a]! - 1)].map((c) => cellAt(by, c));
  const min = mapVec(ends[0]!, (v, a) => Math.min(v, ends[1]![a]!)),
    size = mapVec(ends[0]!, (v, a) => Math.abs(v - ends[1]![a]!) + 1);
  return VoxelGrid.empty({ min, size }).edit((d) =>
    grid.forEach((x, y, z, v) => {
      const [i, j, k] = cellAt(by, [x, y, z]);
      d.set(i, j, k, v);
    }),
  );
}
const cellAt = (m: Mat4, [x, y, z]: Vec3): Vec3 =>
  mapVec(transformPoint(m, [x + 0.5, y + 0.5, z + 0.5]), (v) => Math.round(v - 0.5));

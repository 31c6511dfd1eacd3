import { type Vec3, mapVec } from '../../math';
import { type Id, type Part, type Placement, changed, lookUp, mapGrids, must, partContent } from '../../model';
import { resampled } from '../../sculpt';
import { MAX_EDGE } from '../../voxel';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';
import { copiedPart } from './copied-part';
import { mustPlacement, sceneName, withScene } from './scenes';

/** Whether the cubes of what a placement shows are as large as others; 1e-6 of them is nothing. */
const fits = (a: number, b: number): boolean => Math.abs(a / b - 1) < 1e-6;

/**
 * Gives placements parts of their own that are as large as they stand now, of cubes of the scene's size, so that all cubes are alike.
 * Those whose cubes are that size already stay.
 */
export const refitPlacementsEdit = defineEdit<{ scene: Id; placements: readonly Id[]; cell: number }>({
  name: 'refitPlacements',
  risky: () => true,
  label: (a, p) => say('label.refit', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene');
    let { parts } = project;
    const shows = new Map<Id, Id>();
    for (const id of a.placements) {
      const p = mustPlacement(scene, id),
        part = p.shows.kind === 'part' ? lookUp(parts, p.shows.part) : undefined;
      if (!part) throw new EditError('scenes.noPart');
      if (p.s.every((s) => fits(part.cell * s, a.cell))) continue;
      const own = refitted({ ...copiedPart(part, parts, ctx), made: null }, p.s, a.cell);
      parts = [...parts, own];
      shows.set(id, own.id);
    }
    if (shows.size === 0) return project;
    const placements = changed(scene.placements, new Set(shows.keys()), (p): Placement => ({
      ...p,
      s: [1, 1, 1],
      shows: { kind: 'part', part: shows.get(p.id)! },
    }));
    return withScene({ ...project, parts }, { ...scene, placements });
  },
});

/** A part resampled to cubes of a size as it looks scaled; its anchor stays where it is. */
function refitted(part: Part, s: Vec3, cell: number): Part {
  const box = partContent(part);
  if (!box) throw new EditError('parts.empty', { part: part.name });
  const factor = mapVec(s, (v) => (v * part.cell) / cell),
    size = mapVec(box.size, (n, a) => Math.max(1, Math.round(n * factor[a]!)));
  if (size.some((n) => n > MAX_EDGE))
    throw new EditError('combine.tooLarge', { part: part.name, size: size.join(' × '), most: MAX_EDGE });
  // Where the anchor lies in the box, in shares of it.
  const min = mapVec(box.min, (m, a) => Math.round(m * factor[a]!)),
    pivot = mapVec(part.pivot, (v, a) => Math.round(2 * min[a]! + ((v - 2 * box.min[a]!) * size[a]!) / box.size[a]!));
  const bounds = { min, size };
  return {
    ...mapGrids({ ...part, regions: null, faceSlots: null }, (g) => resampled(g, box, size, min)),
    ...{ bounds, pivot, cell },
  };
}

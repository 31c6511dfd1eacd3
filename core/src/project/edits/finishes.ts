import { mapVec, placedExtent } from '../../math';
import { type Id, type Part, type Project, composite, must, replaceRecord } from '../../model';
import { type Finish, MAX_REACH, type PaintFrame, applyFinish } from '../../paint';
import { REST_POSE, type PlacedPart, placeParts } from '../../rig';
import type { CellSet } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { type LayerTarget, checkOpen } from './strokes';

/**
 * Where a part stands among the patterns that all parts share: by its first mount at the rest pose, to half a cube. A
 * part that is turned or scaled there keeps its own lattice: courses cannot be level on both.
 */
export function paintFrame(part: Part, placed: readonly PlacedPart[]): PaintFrame {
  const m = placed.find((p) => p.part.id === part.id)?.matrix;
  const straight =
    m !== undefined &&
    [0, 1, 2].every((r) => [0, 1, 2].every((c) => Math.abs(m[c * 4 + r]! - (r === c ? part.cell : 0)) < 1e-6));
  if (!straight) return { half: [0, 0, 0], cell: part.cell };
  const half = mapVec([12, 13, 14], (i) => Math.round((2 * m[i]!) / part.cell) || 0);
  return { half, cell: part.cell };
}

/** Heights between which the cubes of some parts stand at the rest pose, in project units; null when there are none. */
export function heightsOf(
  project: Project,
  parts: readonly Id[],
  within: CellSet | null = null,
): { readonly low: number; readonly high: number } | null {
  let low = Infinity,
    high = -Infinity;
  for (const p of placeParts(project, REST_POSE)) {
    if (!parts.includes(p.part.id)) continue;
    const box = within ? within.tight : composite(p.part).contentBox();
    if (!box) continue;
    const { lo, hi } = placedExtent(p.matrix, box);
    low = Math.min(low, lo[1]);
    high = Math.max(high, hi[1]);
  }
  return low < high ? { low, high } : null;
}

/** Paints one or several layers with a finish. Patterns and gradients run on from part to part. */
export const finishEdit = defineEdit<{
  targets: readonly LayerTarget[];
  finish: Finish;
  only?: readonly number[] | null;
  within?: CellSet | null;
}>({
  name: 'finish',
  label: (a, p) =>
    `${a.finish.kind[0]!.toUpperCase()}${a.finish.kind.slice(1)} on ${a.targets.length === 1 ? must(p.parts, a.targets[0]!.part, 'part').name : `${a.targets.length} parts`}`,
  touches: (a) => a.targets.map((t) => t.part),
  run(project, a) {
    checkFinish(a.finish);
    const placed = placeParts(
      { ...project, parts: project.parts.map((p) => (p.hidden ? { ...p, hidden: false } : p)) },
      REST_POSE,
    );
    let out = project;
    for (const t of a.targets) {
      const part = must(out.parts, t.part, 'part'),
        layer = must(part.layers, t.layer, 'layer');
      checkOpen(part, layer);
      const palette = must(project.palettes, part.palette, 'palette');
      const box = t.limit ?? part.bounds;
      const grid = applyFinish(layer.grid, composite(part), a.finish, paintFrame(part, placed), palette, {
        within: a.within ?? null,
        only: a.only ?? null,
        box,
      });
      if (grid !== layer.grid)
        out = {
          ...out,
          parts: replaceRecord(out.parts, { ...part, layers: replaceRecord(part.layers, { ...layer, grid }) }),
        };
    }
    return out;
  },
});

function checkFinish(f: Finish): void {
  const above = (v: number, what: string): void => {
    if (!(v > 0)) throw new EditError('finishes.aboveZero', { what });
  };
  if (f.ramp.some((b) => !Number.isInteger(b) || b < 1 || b > 255)) throw new EditError('finishes.ramp');
  if (f.kind === 'speckle') above(f.size, 'The size of a clump');
  if (f.kind === 'occlusion' && !(f.reach >= 1 && f.reach <= MAX_REACH))
    throw new EditError('finishes.reach', { most: MAX_REACH });
  if (f.kind === 'bricks') above(Math.min(f.long, f.high), 'A brick’s length and height');
  if (f.kind === 'planks') above(Math.min(f.long, f.wide), 'A plank’s length and width');
  if ((f.kind === 'bricks' || f.kind === 'planks') && !(f.gap >= 0)) throw new EditError('finishes.joint');
}

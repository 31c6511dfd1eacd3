import { type Axis, mapVec } from '@sphalerite/core/math';
import type { Reference } from '@sphalerite/core/model';
import { type Palette, type Swatch, nearDuplicates } from '@sphalerite/core/palette';
import { type MirrorPlanes, type Outline, compareOutline, grainOf, unpairedCells } from '@sphalerite/core/sculpt';
import type { Vec3 } from '@sphalerite/core/math';
import { CellSet, type VoxelGrid } from '@sphalerite/core/voxel';
import type { Mark } from '../../viewport/overlay';
import { counted, say } from '../../words';

/** Cells to tint, and what they come to in words. */
export interface Tinted {
  readonly marks: Mark[];
  readonly text: string;
}
/** What the loose ends of a part are, from the worker. */
export interface Loose {
  readonly grid: VoxelGrid;
  readonly loose: CellSet;
  readonly loosePieces: number;
  readonly holes: CellSet;
  readonly hidden: CellSet;
}

const figure = (n: number): string => n.toLocaleString('en');
/** A mark of the cells, when there are any. */
const marked = (set: CellSet, mark: Omit<Mark, 'set'>): Mark[] => (set.isEmpty ? [] : [{ ...mark, set }]);

/** Cubes without a twin across the first live mirror plane, or across X. */
export function unpairedTint(grid: VoxelGrid, mirror: MirrorPlanes, middles: Vec3): Tinted {
  const axis = Math.max(
    0,
    mirror.findIndex((h) => h !== null),
  ) as Axis;
  const set = unpairedCells(grid, axis, middles[axis], true);
  const name = 'XYZ'[axis]!;
  return {
    marks: marked(set, { tone: 'danger', fill: 0.5 }),
    text: set.isEmpty ? `every cube has its twin across ${name}` : say('mirror.unpaired', { n: set.count, axis: name }),
  };
}

/** Blocks of 2×2×2 that are neither full nor empty. */
export function grainTint(grid: VoxelGrid): Tinted {
  const { mixed, blocks } = grainOf(grid);
  const set = CellSet.ofBoxes(mixed.map((m) => ({ min: mapVec(m, (v) => v * 2), size: [2, 2, 2] })));
  const share = blocks ? Math.round((100 * mixed.length) / blocks) : 0;
  return {
    marks: set.isEmpty ? [] : marked(set.intersect(CellSet.filled(grid, set.box)), { tone: 'verdigris', fill: 0.5 }),
    text: `grain: ${figure(mixed.length)} of ${figure(blocks)} blocks are mixed, ${share} %`,
  };
}

/** Swatches used in the grid that can hardly be told apart. */
export function nearPairs(grid: VoxelGrid, palette: Palette): { a: Swatch; b: Swatch }[] {
  const used = (s: Swatch): boolean => !CellSet.ofValue(grid, s.byte).isEmpty;
  return nearDuplicates(palette).filter(({ a, b }) => used(a) && used(b));
}

/** Loose ends: pieces that hang on nothing, single holes, cubes that nobody sees, swatches that are almost the same. */
export function tidyTint(f: Loose, near: readonly { a: Swatch; b: Swatch }[]): Tinted {
  const alike = near
    .slice(0, 2)
    .map(({ a, b }) => `, ${a.name} is almost ${b.name}`)
    .join('');
  const loose = say('tidy.loose', { n: f.loose.count, pieces: counted(f.loosePieces, 'pieces') });
  return {
    marks: [
      ...marked(f.loose, { tone: 'danger', fill: 0.5, through: true }),
      ...marked(f.holes, { tone: 'honey', fill: 0.7, through: true }),
    ],
    text: `${loose}, ${say('tidy.holes', { n: f.holes.count })}, ${say('tidy.hidden', { n: f.hidden.count })}${alike}`,
  };
}

/** Where the part, seen along a reference picture, differs from it. */
export function silhouetteTint(grid: VoxelGrid, r: Reference | null, outline: Outline | null): Tinted {
  if (!r) return { marks: [], text: 'silhouette: put a reference picture beside the part first' };
  if (!outline) return { marks: [], text: 'reading the picture' };
  const { axis } = outline;
  const box = grid.contentBox() ?? grid.bounds;
  const d = compareOutline(grid, outline, box.min[axis] + (box.size[axis] >> 1));
  return {
    marks: [
      ...marked(d.extra, { tone: 'danger', fill: 0.5 }),
      ...marked(d.missing, { tone: 'honey', fill: 0.5, through: true }),
    ],
    text: d.count === 0 ? 'the silhouette is that of the picture' : say('silhouette.differs', { n: d.count }),
  };
}

import type { Axis } from '@sphalerite/core/math';
import type { Reference } from '@sphalerite/core/model';
import { type Outline, compareOutline, grainOf, unpairedCells } from '@sphalerite/core/sculpt';
import { type Swatch, nearDuplicates } from '@sphalerite/core/palette';
import { CellSet, type VoxelGrid } from '@sphalerite/core/voxel';
import { computed, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import type { Mark } from '../../viewport/overlay';
import { sharedPool } from '../../workers/pool';
import { useBuild } from './build-state';

export const PLANE_AXIS: Record<Reference['plane'], Axis> = { front: 2, side: 0, top: 1 };
/** Parts of more cubes than this are not tinted while they change; the tint says so. */
const MOST = 400_000;

/** What the loose ends of a part are, from the worker. */
export interface Loose {
  readonly grid: VoxelGrid;
  readonly loose: CellSet;
  readonly loosePieces: number;
  readonly holes: CellSet;
  readonly hidden: CellSet;
}

/** Cells that are tinted in the view, and what they say in figures. */
export function useTints() {
  const session = useSession();
  const build = useBuild();
  const found = shallowRef<Loose | null>(null);
  const outline = shallowRef<{ of: Reference; outline: Outline } | null>(null);
  const reference = computed(
    () =>
      session.project?.references.find((r) => r.part === session.part?.id && !r.hidden) ??
      session.project?.references.find((r) => r.part === session.part?.id) ??
      null,
  );

  watch(
    [() => build.tint, () => build.seen],
    async ([tint, grid]) => {
      if (tint !== 'tidy' || !grid) return;
      const u = await sharedPool().run('untidy', (sent) => ({ grid: sent.packGrid(grid) }));
      const open = ({ box, words }: { box: CellSet['box']; words: Int32Array<ArrayBuffer> }): CellSet =>
        new CellSet(box, words);
      if (build.seen === grid)
        found.value = {
          grid,
          loose: open(u.loose),
          loosePieces: u.loosePieces,
          holes: open(u.holes),
          hidden: open(u.hidden),
        };
    },
    { immediate: true },
  );
  watch(
    [() => build.tint, reference],
    async ([tint, r]) => {
      if (tint === 'silhouette' && r && outline.value?.of !== r) outline.value = { of: r, outline: await outlineOf(r) };
    },
    { immediate: true },
  );

  const axisNow = (): Axis =>
    (build.mirror.findIndex((h) => h !== null) < 0 ? 0 : build.mirror.findIndex((h) => h !== null)) as Axis;
  const marks = computed(() => tinted());
  function tinted(): { marks: Mark[]; text: string } {
    const grid = build.seen;
    if (!grid || build.tint === 'none') return { marks: [], text: '' };
    if (grid.count > MOST && build.tint !== 'tidy' && build.tint !== 'layer')
      return {
        marks: [],
        text: `${build.tint}: more than ${MOST.toLocaleString('en')} cubes; use the cutaway to look at less`,
      };
    switch (build.tint) {
      case 'unpaired': {
        const axis = axisNow();
        const set = unpairedCells(grid, axis, build.middles[axis], true);
        return {
          marks: set.isEmpty ? [] : [{ set, tone: 'danger', fill: 0.5 }],
          text: set.isEmpty
            ? `every cube has its twin across ${'XYZ'[axis]}`
            : `${set.count.toLocaleString('en')} cubes without a twin across ${'XYZ'[axis]}`,
        };
      }
      case 'grain': {
        const g = grainOf(grid);
        const set = CellSet.ofBoxes(
          g.mixed.map((m) => ({ min: [m[0] * 2, m[1] * 2, m[2] * 2] as const, size: [2, 2, 2] as const })),
        );
        return {
          marks: set.isEmpty
            ? []
            : [{ set: set.intersect(CellSet.filled(grid, set.box)), tone: 'verdigris', fill: 0.5 }],
          text: `grain: ${g.mixed.length.toLocaleString('en')} of ${g.blocks.toLocaleString('en')} blocks are mixed, ${g.blocks ? Math.round((100 * g.mixed.length) / g.blocks) : 0} %`,
        };
      }
      case 'layer': {
        const layer = session.layer;
        const set = layer && CellSet.filled(layer.grid, build.limit ?? layer.grid.bounds);
        return {
          marks: set && !set.isEmpty ? [{ set, tone: 'verdigris', fill: 0.35 }] : [],
          text: `layer “${layer?.name ?? ''}” is tinted`,
        };
      }
      case 'tidy': {
        const f = found.value;
        if (!f || f.grid !== grid) return { marks: [], text: 'looking for loose ends' };
        return {
          marks: [
            ...(f.loose.isEmpty ? [] : [{ set: f.loose, tone: 'danger', fill: 0.5, through: true } as const]),
            ...(f.holes.isEmpty ? [] : [{ set: f.holes, tone: 'honey', fill: 0.7, through: true } as const]),
          ],
          text: `${f.loose.count.toLocaleString('en')} loose cubes in ${f.loosePieces} pieces, ${f.holes.count.toLocaleString('en')} single holes, ${f.hidden.count.toLocaleString('en')} cubes nobody sees${near()}`,
        };
      }
      case 'silhouette': {
        const o = outline.value,
          r = reference.value;
        if (!r) return { marks: [], text: 'silhouette: put a reference picture beside the part first' };
        if (!o || o.of !== r) return { marks: [], text: 'reading the picture' };
        const box = grid.contentBox() ?? grid.bounds;
        const d = compareOutline(grid, o.outline, box.min[o.outline.axis] + (box.size[o.outline.axis] >> 1));
        return {
          marks: [
            ...(d.extra.isEmpty ? [] : [{ set: d.extra, tone: 'danger', fill: 0.5 } as const]),
            ...(d.missing.isEmpty ? [] : [{ set: d.missing, tone: 'honey', fill: 0.5, through: true } as const]),
          ],
          text:
            d.count === 0
              ? 'the silhouette is that of the picture'
              : `silhouette: ${d.count.toLocaleString('en')} places differ`,
        };
      }
    }
  }
  /** Swatches used here that can hardly be told apart. */
  function nearPairs(): { a: Swatch; b: Swatch }[] {
    const grid = build.seen,
      palette = session.palette;
    if (!grid || !palette) return [];
    return nearDuplicates(palette).filter(
      ({ a, b }) => !CellSet.ofValue(grid, a.byte).isEmpty && !CellSet.ofValue(grid, b.byte).isEmpty,
    );
  }
  const near = (): string =>
    nearPairs()
      .slice(0, 2)
      .map(({ a, b }) => `, ${a.name} is almost ${b.name}`)
      .join('');
  return { marks, found, reference, nearPairs };
}

/** A reference picture as an outline in whole cubes: what is not see-through, or differs from its corner where all is solid. */
async function outlineOf(r: Reference): Promise<Outline> {
  const img = new Image();
  img.src = r.image;
  await img.decode();
  const w = Math.max(1, Math.round(r.size[0])),
    h = Math.max(1, Math.round(r.size[1]));
  // Each cube looks at the middle of its place in the picture, at four times the fineness.
  const canvas = document.createElement('canvas');
  canvas.width = w * 4;
  canvas.height = h * 4;
  const g = canvas.getContext('2d', { willReadFrequently: true })!;
  g.imageSmoothingEnabled = false;
  g.drawImage(img, 0, 0, w * 4, h * 4);
  const { data } = g.getImageData(0, 0, w * 4, h * 4);
  let solid = true;
  for (let i = 3; i < data.length; i += 4) if (data[i]! < 250) solid = false;
  const filled = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let n = 0;
      for (let k = 0; k < 16; k++) {
        const i = ((y * 4 + (k >> 2)) * w * 4 + x * 4 + (k & 3)) * 4;
        const away =
          Math.abs(data[i]! - data[0]!) + Math.abs(data[i + 1]! - data[1]!) + Math.abs(data[i + 2]! - data[2]!);
        if (solid ? away > 48 : data[i + 3]! >= 128) n++;
      }
      if (n >= 8) filled[x + (r.plane === 'top' ? y : h - 1 - y) * w] = 1;
    }
  }
  return { axis: PLANE_AXIS[r.plane], at: [Math.round(r.at[0]), Math.round(r.at[1])], size: [w, h], filled };
}

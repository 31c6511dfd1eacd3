import { type Reference, must } from '@sphalerite/core/model';
import type { Swatch } from '@sphalerite/core/palette';
import type { Outline } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { computed, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import { sharedPool } from '../../workers/pool';
import { useBuild } from './build-state';
import { outlineOf } from './reference-outline';
import { type Loose, type Tinted, grainTint, nearPairs, silhouetteTint, tidyTint, unpairedTint } from './tint-marks';

/** Parts of more cubes than this are not tinted while they change; the tint says so. */
const MOST = 400_000;

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
      if (tint === 'silhouette' && r && outline.value?.of !== r)
        outline.value = { of: r, outline: await outlineOf(r, must(session.project!.blobs, r.blob, 'picture')) };
    },
    { immediate: true },
  );

  const near = (): { a: Swatch; b: Swatch }[] =>
    build.seen && session.palette ? nearPairs(build.seen, session.palette) : [];
  const marks = computed(tinted);
  function tinted(): Tinted {
    const grid = build.seen,
      { tint } = build;
    if (!grid || tint === 'none') return { marks: [], text: '' };
    if (grid.count > MOST && tint !== 'tidy' && tint !== 'layer')
      return {
        marks: [],
        text: `${tint}: more than ${MOST.toLocaleString('en')} cubes; use the cutaway to look at less`,
      };
    switch (tint) {
      case 'unpaired':
        return unpairedTint(grid, build.mirror, build.middles);
      case 'grain':
        return grainTint(grid);
      case 'layer': {
        const layer = session.layer;
        const set = layer && CellSet.filled(layer.grid, build.limit ?? layer.grid.bounds);
        return {
          marks: set && !set.isEmpty ? [{ set, tone: 'verdigris', fill: 0.35 }] : [],
          text: `layer “${layer?.name ?? ''}” is tinted`,
        };
      }
      case 'tidy':
        return found.value?.grid === grid
          ? tidyTint(found.value, near())
          : { marks: [], text: 'looking for loose ends' };
      case 'silhouette': {
        const read = outline.value?.of === reference.value ? outline.value?.outline : null;
        return silhouetteTint(grid, reference.value, read ?? null);
      }
    }
  }
  return { marks, found, reference, nearPairs: near };
}

import { addStampEdit, cellsToLayerEdit, cellsToPartEdit, placeCellsEdit, strokeEdit } from '@sphalerite/core/project';
import { NO_SYMMETRY, cutOut } from '@sphalerite/core/sculpt';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import type { ChosenCells } from './chosen-cells';
import type { Placing } from './placing';
import { counted, say } from '../../../words';

/** What becomes of selected cells: another colour, a layer, a part or a stamp of their own, or nothing. */
export function useCellsElsewhere(chosen: ChosenCells, placing: Placing, settle: () => void) {
  const session = useSession();
  const build = useBuild();
  const notices = useNotices();
  const { selected } = chosen;

  function remove(title = 'Delete'): void {
    const f = placing.floating.value;
    if (f) {
      placing.floating.value = null;
      const from = { ...placing.target(), part: f.part, layer: f.layer };
      if (f.clear) session.apply(placeCellsEdit, { ...from, clear: f.clear, put: [], title });
    } else if (selected.value) {
      const nothing = VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] });
      session.apply(placeCellsEdit, {
        ...placing.target(),
        clear: placing.copies.images(nothing, selected.value).clear,
        put: [],
        title: `${title} ${counted(selected.value.count, 'cubes')}`,
      });
    }
    chosen.set(null);
  }
  function recolour(value: number): void {
    settle();
    if (!selected.value) return;
    const shapes = [{ kind: 'set' as const, set: selected.value }];
    session.apply(strokeEdit, {
      ...placing.target(),
      stroke: { verb: 'paint', value, shapes, symmetry: NO_SYMMETRY },
    });
  }
  function toLayer(): void {
    settle();
    const { part, layer } = session;
    const cells = selected.value;
    if (!cells || !part || !layer) return;
    if (!session.apply(cellsToLayerEdit, { part: part.id, layer: layer.id, cells, name: 'Lifted' })) return;
    const above = session.part!.layers.findIndex((l) => l.id === layer.id) + 1;
    session.choose({ layer: session.part!.layers[above]?.id ?? null });
  }
  function toPart(): void {
    settle();
    const cells = selected.value,
      from = session.part?.id;
    if (!cells || !from) return;
    session.apply(cellsToPartEdit, { part: from, cells, name: 'Piece' }, (p) => ({
      part: p.parts[p.parts.findIndex((o) => o.id === from) + 1]!.id,
      layer: null,
    }));
  }
  function toStamp(): void {
    const { part } = session;
    const seen = selected.value && build.seen;
    const grid = placing.floating.value?.grid ?? (seen ? cutOut(seen, selected.value!) : placing.source());
    if (!grid || !part) return;
    const stamp = { name: `${part.name} piece`, cells: grid, palette: part.palette, cell: part.cell };
    if (!session.apply(addStampEdit, stamp)) return;
    build.stamp = session.project!.stamps.at(-1)!.id;
    notices.say(say('stamps.kept'));
  }
  return { remove, recolour, toLayer, toPart, toStamp };
}

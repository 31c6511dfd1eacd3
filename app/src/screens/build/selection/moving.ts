import { type Axis, type Box, type Vec3, add, withAxis } from '@sphalerite/core/math';
import { cutOut, middleOf, mirroredGrid, movedGrid, quarterTurned, resampled } from '@sphalerite/core/sculpt';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import { shallowRef } from 'vue';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import type { ChosenCells } from './chosen-cells';
import type { Placing } from './placing';
import { counted, say } from '../../../words';

/** Lifts the selected cells and moves, turns, flips and scales what floats. */
export function useMoving(chosen: ChosenCells, { floating }: Placing) {
  const session = useSession();
  const notices = useNotices();
  /** The size that was kept to compare with. */
  const kept = shallowRef<Box | null>(null);

  /** Lifts the selection, or a copy of it; false, with a sentence, when there is nothing to lift. */
  function float(title: string, copy = false): boolean {
    if (floating.value) return true;
    const { part, layer } = session;
    const cells = chosen.selected.value;
    const grid = layer && cells ? cutOut(layer.grid, cells) : null;
    if (!part || !layer || !grid) {
      const text = cells
        ? `The selection holds no cubes of layer “${layer?.name ?? ''}”. Choose the layer that has them.`
        : say('selection.none');
      notices.say(text, { kind: 'error' });
      return false;
    }
    floating.value = { part: part.id, layer: layer.id, title, clear: copy ? null : cells, grid, by: [0, 0, 0] };
    return true;
  }
  function nudge(by: Vec3, copy = false): void {
    const count = chosen.selected.value?.count ?? 0;
    if (!float(`${copy ? 'Copy' : 'Move'} ${counted(count, 'cubes')}`, copy)) return;
    const f = floating.value!;
    floating.value = { ...f, grid: movedGrid(f.grid, by), by: add(f.by, by) };
  }
  /** To a place given as the whole way since it was lifted. */
  function moveTo(by: Vec3): void {
    const f = floating.value;
    if (f) nudge([by[0] - f.by[0], by[1] - f.by[1], by[2] - f.by[2]]);
  }
  /** So that the low side of its box stands at a cell of an axis. */
  function place(axis: Axis, at: number): void {
    const b = floating.value ? floating.value.grid.contentBox() : chosen.box.value;
    if (b && b.min[axis] !== at) nudge(withAxis([0, 0, 0], axis, at - b.min[axis]));
  }
  function reshape(title: string, change: (g: VoxelGrid) => VoxelGrid): void {
    if (float(title)) floating.value = { ...floating.value!, grid: change(floating.value!.grid) };
  }
  const turn = (axis: Axis, quarters: number): void => reshape('Turn', (g) => quarterTurned(g, axis, quarters));
  const flip = (axis: Axis): void =>
    reshape('Flip', (g) => mirroredGrid(g, axis, middleOf(g.contentBox() ?? g.bounds)[axis]));
  /** Makes the piece as large as the one whose size was kept: rows are doubled or left out. */
  function makeAlike(): void {
    const k = kept.value,
      b = floating.value ? floating.value.grid.contentBox() : chosen.box.value;
    if (k && b) reshape(`Fit to ${k.size.join('×')}`, (g) => resampled(g, g.contentBox()!, k.size, b.min));
  }
  return { kept, float, nudge, moveTo, place, turn, flip, makeAlike };
}

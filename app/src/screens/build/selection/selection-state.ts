import type { Box } from '@sphalerite/core/math';
import type { CellSet } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useCellsElsewhere } from './cells-elsewhere';
import { type SelectMode, useChosenCells } from './chosen-cells';
import { useCopyPaste } from './clipboard';
import { useMoving } from './moving';
import { usePlacing } from './placing';
import { useSettingDown } from './setting-down';

/** The selected cells of the part on the bench and what is being done with them. */
export const useSelection = defineStore('selection', () => {
  const session = useSession();
  const chosen = useChosenCells();
  const placing = usePlacing(chosen);
  const moving = useMoving(chosen, placing);
  const down = useSettingDown(chosen, placing);
  const { selected, mode, madeHere, made, set } = chosen;
  const { floating, repeat, preview } = placing;

  const box = computed<Box | null>(() => (floating.value ? floating.value.grid.contentBox() : chosen.box.value));
  const count = computed(() => floating.value?.grid.count ?? selected.value?.count ?? 0);
  const active = computed(() => floating.value !== null || (selected.value !== null && !selected.value.isEmpty));
  watch(
    () => session.hand.part,
    () => {
      down.settle();
      selected.value = null;
      repeat.value = null;
    },
  );
  /** Takes cells up as the mode says, after what floats is set down. */
  function take(cells: CellSet, how: SelectMode = mode.value): void {
    down.settle();
    chosen.take(cells, how);
  }
  /** Whether what would be repeated is what the last change made, and that emptied cells as well. */
  function madeWithHollows(): boolean {
    if (!chosen.emptied.value) return false;
    const cells = selected.value;
    return !cells || cells.minus(made.value?.set ?? cells).isEmpty;
  }
  return {
    madeWithHollows,
    emptied: chosen.emptied,
    wasMade: chosen.wasMade,
    selected,
    mode,
    madeHere,
    made,
    set,
    take,
    floating,
    repeat,
    preview,
    box,
    count,
    active,
    ...moving,
    ...down,
    ...useCopyPaste(chosen, placing, down.settle),
    ...useCellsElsewhere(chosen, placing, down.settle),
  };
});

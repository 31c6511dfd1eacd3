import { placeCellsEdit } from '@sphalerite/core/project';
import { CellSet, type VoxelGrid } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../../stores/notices';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import type { Mark } from '../../../viewport/overlay';
import { sharedPool } from '../../../workers/pool';
import { JobCancelled } from '../../../workers/protocol';
import { say } from '../../../words';
import { useBuild } from '../build-state';
import { target } from '../build-target';
import { useSelection } from '../selection/selection-state';

/** Hollowing out as it is being tried: which cubes would go is shown in the view before any does. */
export const useHollow = defineStore('hollow', () => {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const notices = useNotices();
  const on = ref(false);
  /** Thickness of the walls in cubes. */
  const wall = ref(1);
  /** Cubes of the wall meet in faces. */
  const joined = ref(false);
  /** What lies inside, found in a worker, and of which cubes. */
  const inside = shallowRef<{ readonly of: VoxelGrid; readonly cells: CellSet } | null>(null);
  let asked: AbortController | null = null;

  async function look(grid: VoxelGrid, stop: AbortController): Promise<void> {
    try {
      const { box, words } = await sharedPool().run(
        'inner',
        (sent) => ({ grid: sent.packGrid(grid), wall: wall.value, joined: joined.value }),
        { signal: stop.signal },
      );
      if (!stop.signal.aborted) inside.value = { of: grid, cells: new CellSet(box, words) };
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
    }
  }
  watch([on, () => build.seen, wall, joined], () => {
    asked?.abort();
    inside.value = null;
    if (on.value && build.seen) void look(build.seen, (asked = new AbortController()));
  });
  watch(
    () => session.hand.part,
    () => (on.value = false),
  );
  onOtherProject(() => (on.value = false));

  /** What would go: of the selection alone where there is one. Null until it is known. */
  const cells = computed(() => {
    const found = inside.value;
    if (!on.value || !found || found.of !== build.seen) return null;
    return selection.selected ? found.cells.intersect(selection.selected) : found.cells;
  });
  const marks = computed<Mark[]>(() =>
    cells.value && !cells.value.isEmpty ? [{ set: cells.value, tone: 'danger', fill: 0.3, through: true }] : [],
  );
  function apply(): void {
    const clear = cells.value;
    if (!clear) return;
    if (clear.isEmpty) return void notices.say(say('hollow.nothing', { n: wall.value }), { kind: 'error' });
    on.value = false;
    session.apply(placeCellsEdit, { ...target(), clear, put: [], title: `Hollow out, walls of ${wall.value}` });
  }
  return { on, wall, joined, cells, marks, apply };
});

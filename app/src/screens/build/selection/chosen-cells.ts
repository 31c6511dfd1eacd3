import { type Box, boxContains, boxesEqual, intersectBoxes } from '@sphalerite/core/math';
import { type Part, type Project, composite } from '@sphalerite/core/model';
import { changedCells } from '@sphalerite/core/sculpt';
import { CellSet, type VoxelGrid } from '@sphalerite/core/voxel';
import { computed, ref, shallowRef, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { onOtherProject } from '../../../stores/project-settings';
import { useBuild } from '../build-state';

export const SELECT_MODES = ['new', 'add', 'remove', 'common'] as const;
export type SelectMode = (typeof SELECT_MODES)[number];

/** What is selected after more cells are taken up in a mode; null when nothing. */
function combined(old: CellSet | null, cells: CellSet, how: SelectMode): CellSet | null {
  if (how === 'new') return cells;
  if (!old) return how === 'add' ? cells : null;
  return how === 'add' ? old.union(cells) : how === 'remove' ? old.minus(cells) : old.intersect(cells);
}

/** The selected cells of the part on the bench, and those that the last change made. */
export function useChosenCells() {
  const session = useSession();
  const build = useBuild();
  const selected = shallowRef<CellSet | null>(null);
  const mode = ref<SelectMode>('new');
  /** What was selected beside each state of the project, so that undo brings it back. */
  const remembered = new WeakMap<Project, { part: string; set: CellSet | null }>();
  /** The last change of the part on the bench; what it made is worked out only when someone asks. */
  const lastChange = shallowRef<{ part: string; before: VoxelGrid; after: VoxelGrid } | null>(null);
  /** Whether the last change was of the part on the bench. */
  const madeHere = computed(() => lastChange.value !== null && lastChange.value.part === session.part?.id);
  /** The cubes that the last change made in the part on the bench, null when it made none. */
  const made = computed<{ part: string; set: CellSet } | null>(() => {
    const c = lastChange.value;
    if (!c || !madeHere.value) return null;
    const set = changedCells(c.before, c.after).intersect(CellSet.filled(c.after));
    const tight = set.tight;
    return tight && { part: c.part, set: set.within(tight) };
  });
  /** The cells that the same change emptied, null when none: the recess of an opening. */
  const emptied = computed<CellSet | null>(() => {
    const c = lastChange.value;
    if (!c || !madeHere.value) return null;
    const set = changedCells(c.before, c.after).minus(CellSet.filled(c.after));
    const tight = set.tight;
    return tight && set.within(tight);
  });
  let unnoted = false;
  // Parts of copies of a project bear the same ids.
  onOtherProject(() => (lastChange.value = null));

  watch(
    () => session.project,
    (now, before) => {
      if (!now || now === before) return;
      const part = session.part;
      const known = remembered.get(now);
      if (known && known.part === part?.id) selected.value = known.set;
      else {
        if (before && part && !unnoted) noteMade(before, now, part.id);
        remembered.set(now, { part: part?.id ?? '', set: selected.value });
      }
    },
    { flush: 'sync' },
  );
  function noteMade(before: Project, now: Project, id: string): void {
    const a = before.parts.find((p) => p.id === id),
      b = now.parts.find((p) => p.id === id);
    if (!a || !b || a === b || !boxContains(b.bounds, a.bounds)) return;
    const [was, after] = [composite(a), composite(b)];
    // A volume that only became larger made nothing.
    if (!boxesEqual(a.bounds, b.bounds) && after.count === was.count) return;
    if (after === was) return;
    // What only took cubes away leaves the thing made before it as the last one made.
    const took = after.count < was.count && changedCells(was, after).intersect(CellSet.filled(after)).isEmpty;
    if (!took) lastChange.value = { part: id, before: was, after };
  }

  /** Takes the last change of the part on the bench for something made, though it may only have taken cubes away: a window. */
  function wasMade(before: Part): void {
    const after = session.part;
    if (after?.id === before.id)
      lastChange.value = { part: after.id, before: composite(before), after: composite(after) };
  }

  const box = computed<Box | null>(() => selected.value?.tight ?? null);

  function set(next: CellSet | null): void {
    const tight = next?.tight;
    selected.value = next && tight ? next.within(tight) : null;
    if (session.project && session.part)
      remembered.set(session.project, { part: session.part.id, set: selected.value });
  }
  /** Takes cells up as the mode says. Only cubes that are there count. */
  function take(cells: CellSet, how: SelectMode = mode.value): void {
    const seen = build.seen;
    if (!seen) return;
    const there = cells.intersect(CellSet.filled(seen, intersectBoxes(cells.box, seen.bounds)));
    set(combined(selected.value, there, how));
  }
  /** Runs an edit whose cubes are not "what was just made". */
  function quietly(run: () => void): void {
    unnoted = true;
    try {
      run();
    } finally {
      unnoted = false;
    }
  }
  return { selected, mode, box, madeHere, made, emptied, wasMade, set, take, quietly };
}
export type ChosenCells = ReturnType<typeof useChosenCells>;

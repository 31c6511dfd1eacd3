import { intersectBoxes } from '@sphalerite/core/math';
import { placeCellsEdit } from '@sphalerite/core/project';
import { CellSet } from '@sphalerite/core/voxel';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import type { ChosenCells } from './chosen-cells';
import type { Floating, PlaceArgs, Placing } from './placing';
import { counted, say } from '../../../words';

/** A piece that was only lifted, and lies where it was. */
const isUnmoved = (f: Floating): boolean =>
  f.clear !== null && f.by.every((v) => v === 0) && f.title === `Move ${counted(f.grid.count, 'cubes')}`;

/** Ends what floats or repeats: into the layer as one step, or back to what was. */
export function useSettingDown(chosen: ChosenCells, placing: Placing) {
  const session = useSession();
  const build = useBuild();
  const notices = useNotices();
  const { floating, repeat } = placing;

  /** Puts down what floats, as one step. */
  function settle(): void {
    const f = floating.value,
      args = placing.lastArgs();
    if (!f || !args) return;
    floating.value = null;
    if (isUnmoved(f)) return;
    const end = f.grid.contentBox();
    const cells = CellSet.filled(f.grid, end ?? f.grid.bounds);
    const part = session.project?.parts.find((p) => p.id === f.part);
    const outside = end && part && !build.grows ? f.grid.countOutside(part.bounds) : 0;
    chosen.quietly(() => session.apply(placeCellsEdit, args));
    build.growOnce = false;
    if (part && part.id === session.part?.id) chosen.set(cells.within(intersectBoxes(cells.box, part.bounds)));
    if (outside > 0) offerToGrow(outside, args, cells);
  }
  function offerToGrow(outside: number, args: PlaceArgs, cells: CellSet): void {
    const run = (): void => {
      session.undo();
      session.apply(placeCellsEdit, { ...args, grow: true });
      chosen.set(cells);
    };
    notices.say(say('cubes.cutOff', { n: outside }), {
      action: { label: 'Grow to fit', run },
    });
  }
  function setRepeat(): void {
    const args = placing.args.value;
    if (!repeat.value || !args) return;
    repeat.value = null;
    session.apply(placeCellsEdit, args);
    // Nothing stays selected, so that the next repeat takes what is drawn next.
    chosen.set(null);
  }
  function cancel(): void {
    build.growOnce = false;
    floating.value = null;
    repeat.value = null;
  }
  return { settle, setRepeat, cancel };
}

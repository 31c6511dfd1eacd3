import { type Mat4, transformPoint, withAxis } from '@sphalerite/core/math';
import { type Ref, ref, shallowRef, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { alongAxis } from '../../../tools/geometry';
import type { Spot } from '../../../viewport/overlay';
import { toLattice } from '../../../viewport/pick';
import type { ViewPointer } from '../../../viewport/view-input';
import { type Handle, useHandleList } from './handle-list';
import { selectionGizmo } from './selection-gizmo';
import type { PivotHandles } from '../pivot/pivot-handles';
import { useBuild } from '../build-state';
import { useNotices } from '../../../stores/notices';
import { afterFirstPicture } from '../../../components/later';
import type { DrawnGizmo } from '../../../viewport/gizmo';

/** How near the pointer must be to a handle, in pixels. */
const GRAB = 13;

/** What can be taken hold of in the view: handles of boxes and planes, and the gizmo of a selection. */
export function handlesControl(matrix: Ref<Mat4>) {
  const session = useSession();
  const view = useView();
  const list = useHandleList();
  const gizmo = selectionGizmo(matrix);
  /** Those of the pivot, fetched when they are first asked for. */
  const pivot = shallowRef<PivotHandles | null>(null);
  watch(
    () => useBuild().handles,
    (on) => {
      if (on === 'pivot' && !pivot.value)
        void afterFirstPicture(async () => {
          pivot.value = (await import('../pivot/pivot-handles')).pivotHandles(matrix);
        }).catch(useNotices().fail);
    },
    { immediate: true },
  );
  /** The one of the pivot before that of a selection. */
  const gizmos = () => [...(pivot.value ? [pivot.value] : []), gizmo];
  const hot = ref(-1);
  let held: { handle: Handle; from: number } | null = null;
  /** Whether the figures at the pointer are of a handle under it. */
  let said = false;

  function under(p: ViewPointer): number {
    const v = view.viewport;
    if (!v) return -1;
    let best = GRAB,
      found = -1;
    list().forEach((h, i) => {
      const s = v.screenOf(transformPoint(matrix.value, h.at));
      const d = Math.hypot(s.x - p.x, s.y - p.y);
      if (s.ahead && d < best) [best, found] = [d, i];
    });
    return found;
  }
  const along = (p: ViewPointer, h: Handle): number | null =>
    alongAxis(toLattice(p.ray, matrix.value), h.at, withAxis([0, 0, 0], h.axis, 1));

  /** Whether the pointer is over something that can be taken hold of. */
  function hover(p: ViewPointer): boolean {
    const overGizmo = gizmos().some((g) => g.hover(p));
    hot.value = overGizmo ? -1 : under(p);
    const handle = list()[hot.value];
    if (handle) view.measure = handle.text(0);
    else if (said) view.measure = '';
    said = handle !== undefined;
    return overGizmo || hot.value >= 0;
  }
  function down(p: ViewPointer): boolean {
    // What is carried without a button is set down by this press.
    if (gizmos().some((g) => g.holding)) return true;
    if (!hover(p)) return false;
    const handle = list()[hot.value];
    if (handle) held = { handle, from: along(p, handle) ?? 0 };
    else gizmos().some((g) => g.down(p));
    return true;
  }
  /** Gives whether a handle is being dragged. */
  function move(p: ViewPointer, done = false): boolean {
    if (!held) return gizmos().some((g) => (done ? g.up() : g.move(p)));
    const { handle, from } = held;
    const way = (along(p, handle) ?? from) - from;
    const by = handle.fine ? Math.round(way * 2) : Math.round(way);
    view.measure = done ? '' : handle.text(by) + (p.alt ? ', both sides' : '');
    handle.drag(by, p.alt, done);
    if (done) held = null;
    return true;
  }
  function cancel(): void {
    pivot.value?.cancel();
    if (held || gizmo.holding) session.preview = null;
    held = null;
    hot.value = -1;
    gizmo.cancel();
  }
  return {
    hover,
    down,
    move,
    cancel,
    /** Takes hold without a button. */
    carry: (p: ViewPointer): boolean => gizmos().some((g) => g.carry(p)),
    gizmo: (): DrawnGizmo | null => pivot.value?.drawn() ?? gizmo.drawn(),
    spots: (): Spot[] => list().map((h, i) => ({ at: h.at, tone: h.tone, hot: i === hot.value })),
    get holding(): boolean {
      return held !== null || gizmos().some((g) => g.holding);
    },
  };
}

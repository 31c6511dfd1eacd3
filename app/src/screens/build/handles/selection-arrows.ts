import {
  AXES,
  type Axis,
  type Mat4,
  type Vec3,
  mapVec,
  normalize,
  transformDirection,
  transformPoint,
  withAxis,
} from '@sphalerite/core/math';
import { type Ref, ref } from 'vue';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { alongAxis } from '../../../tools/geometry';
import { arrowUnder, pixels } from '../../../viewport/handles';
import type { Overlay } from '../../../viewport/overlay';
import { toLattice } from '../../../viewport/pick';
import type { ViewPointer } from '../../../viewport/view-input';
import { useSelection } from '../selection/selection-state';
import { AXIS_NAME } from './handle-list';

/** How long the arrows are and how far they stand out of a large piece, in pixels. */
const LENGTH = 74;
const PROUD = 26;
const HEAD = 10;

/** The three arrows that move what is selected. */
export function selectionArrows(matrix: Ref<Mat4>) {
  const session = useSession();
  const selection = useSelection();
  const view = useView();
  const hot = ref<Axis | -1>(-1);
  let held: { axis: Axis; from: number; start: Vec3 } | null = null;

  const middle = (): Vec3 | null => {
    const b = selection.active ? selection.box : null;
    return b && mapVec(b.min, (m, i) => m + b.size[i]! / 2);
  };
  /** Where they stand, in the world. */
  function arrows(): Overlay['arrows'] {
    const at = middle(),
      v = view.viewport;
    if (!at || !v) return null;
    void view.cameraTick;
    const reach = (Math.max(...selection.box!.size) / 2) * (session.part?.cell ?? 1);
    return {
      at: transformPoint(matrix.value, at),
      axes: AXES.map((a) => normalize(transformDirection(matrix.value, withAxis([0, 0, 0], a, 1)))),
      // Long enough to stand out of the piece itself.
      length: Math.max(pixels(v, LENGTH), reach + pixels(v, PROUD)),
      hot: hot.value,
      head: pixels(v, HEAD),
    };
  }
  const along = (p: ViewPointer, origin: Vec3, axis: Axis): number | null =>
    alongAxis(toLattice(p.ray, matrix.value), origin, withAxis([0, 0, 0], axis, 1));

  return {
    arrows,
    hover(p: ViewPointer): boolean {
      const a = arrows(),
        v = view.viewport;
      hot.value = a && v ? (arrowUnder(v, p.x, p.y, a.at, a.axes, a.length) as Axis | -1) : -1;
      return hot.value >= 0;
    },
    down(p: ViewPointer): void {
      const axis = hot.value,
        at = middle();
      if (axis < 0 || !at) return;
      const title = `${p.alt ? 'Copy' : 'Move'} ${selection.count.toLocaleString('en')} cubes`;
      if (!selection.float(title, p.alt)) return;
      held = { axis: axis as Axis, from: along(p, at, axis as Axis) ?? 0, start: selection.floating!.by };
    },
    move(p: ViewPointer, done: boolean): boolean {
      const f = selection.floating;
      if (!held || !f) return false;
      const { axis, from, start } = held;
      const b = f.grid.bounds;
      const origin = mapVec(b.min, (m, i) => m + b.size[i]! / 2 - (f.by[i]! - start[i]!));
      const to = start[axis] + Math.round((along(p, origin, axis) ?? from) - from);
      selection.moveTo(withAxis(start, axis, to));
      view.measure = `move ${AXIS_NAME[axis]} ${to > 0 ? '+' : ''}${to}`;
      if (done) held = null;
      return true;
    },
    get holding(): boolean {
      return held !== null;
    },
    cancel(): void {
      held = null;
      hot.value = -1;
    },
  };
}

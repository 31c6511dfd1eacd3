import {
  AXES,
  type Axis,
  type Box,
  type Mat4,
  type Vec3,
  boxEnd,
  scale,
  transformDirection,
  transformPoint,
  withAxis,
  mapVec,
} from '@sphalerite/core/math';
import { resizePartEdit } from '@sphalerite/core/project';
import { type Ref, ref } from 'vue';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { alongAxis } from '../../tools/geometry';
import { arrowUnder, pixels } from '../../viewport/handles';
import type { Overlay, Spot, Tone } from '../../viewport/overlay';
import { toLattice } from '../../viewport/pick';
import type { ViewPointer } from '../../viewport/view-input';
import { useBuild } from './build-state';
import { useSelection } from './selection/selection-state';
import { resizePart } from './volume-actions';

/** Something in the view that can be taken hold of and moved along one axis. */
interface Handle {
  readonly at: Vec3;
  readonly axis: Axis;
  readonly tone: Tone;
  /** Half cubes are enough. */
  readonly fine: boolean;
  readonly text: (by: number) => string;
  drag(by: number, both: boolean, done: boolean): void;
}
const TONE: readonly Tone[] = ['x', 'y', 'z'];
const NAME = ['X', 'Y', 'Z'] as const;
const GRAB = 13;
const LENGTH = 74;

/** Handles in the view: the faces of the volume and of the cutaway, mirror planes, the guide plane, arrows of a selection. */
export function handlesControl(matrix: Ref<Mat4>) {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const view = useView();
  const hot = ref(-1);
  const hotArrow = ref(-1);
  let held: { handle: Handle; from: number } | null = null;
  let arrow: { axis: Axis; from: number; start: Vec3 } | null = null;

  const faceMiddle = (b: Box, axis: Axis, high: boolean): Vec3 =>
    withAxis(
      scale([b.min[0] * 2 + b.size[0], b.min[1] * 2 + b.size[1], b.min[2] * 2 + b.size[2]], 0.5),
      axis,
      high ? boxEnd(b)[axis] : b.min[axis],
    );
  /** A box with one face moved, or both alike. */
  function stretched(b: Box, axis: Axis, high: boolean, by: number, both: boolean): Box {
    const grow = high ? by : -by;
    const low = both ? -grow : high ? 0 : by;
    const size = Math.max(1, b.size[axis] + (both ? 2 * grow : grow));
    return {
      min: withAxis(b.min, axis, Math.min(b.min[axis] + low, boxEnd(b)[axis] - 1)),
      size: withAxis(b.size, axis, size),
    };
  }

  function list(): Handle[] {
    const part = session.part;
    if (!part) return [];
    const out: Handle[] = [];
    const cut = build.handles === 'cutaway' ? (build.limit ?? part.bounds) : null;
    const b = build.handles === 'volume' ? part.bounds : cut;
    if (b) {
      for (const axis of AXES) {
        for (const high of [false, true]) {
          out.push({
            at: faceMiddle(b, axis, high),
            axis,
            tone: cut ? 'verdigris' : TONE[axis]!,
            fine: false,
            text: (by) => `${cut ? 'cutaway' : 'volume'} ${NAME[axis]} ${b.size[axis] + (high ? by : -by)}`,
            drag(by, both, done) {
              const next = stretched(b, axis, high, by, both);
              if (cut) {
                build.setCut(next);
                return;
              }
              if (done) resizePart(part.id, next);
              else session.preview = session.tryEdit(resizePartEdit, { part: part.id, bounds: next, cut: true }, true);
            },
          });
        }
      }
    }
    for (const axis of AXES) {
      const h = build.mirror[axis];
      if (h === null) continue;
      const e = boxEnd(part.bounds);
      const at: Vec3 =
        axis === 1 ? [e[0] + 0.6, h / 2, e[2] + 0.6] : withAxis([e[0] + 0.6, e[1] + 0.6, e[2] + 0.6], axis, h / 2);
      out.push({
        at,
        axis,
        tone: TONE[axis]!,
        fine: true,
        text: (by) => `mirror ${NAME[axis]} at ${(h + by) / 2}`,
        drag: (by) => build.movePlane(axis, h + by),
      });
    }
    const g = build.guide;
    if (g) {
      const corner = withAxis(part.bounds.min, g.axis, g.at / 2);
      out.push({
        at: corner,
        axis: g.axis,
        tone: 'verdigris',
        fine: true,
        text: (by) => `guide plane ${NAME[g.axis]} ${(g.at + by) / 2}`,
        drag: (by) => (build.guide = { axis: g.axis, at: g.at + by }),
      });
    }
    return out;
  }

  const world = (at: Vec3): Vec3 => transformPoint(matrix.value, at);
  function under(p: ViewPointer, handles: readonly Handle[]): number {
    const v = view.viewport;
    if (!v) return -1;
    let best = GRAB,
      found = -1;
    handles.forEach((h, i) => {
      const s = v.screenOf(world(h.at));
      const d = Math.hypot(s.x - p.x, s.y - p.y);
      if (s.ahead && d < best) [best, found] = [d, i];
    });
    return found;
  }
  /** Where the arrows of a selection stand, in the world. */
  function arrows(): Overlay['arrows'] {
    const b = selection.active ? selection.box : null,
      v = view.viewport;
    if (!b || !v) return null;
    void view.cameraTick;
    const at = world([b.min[0] + b.size[0] / 2, b.min[1] + b.size[1] / 2, b.min[2] + b.size[2] / 2]);
    const axes = AXES.map((a) => {
      const d = transformDirection(matrix.value, withAxis([0, 0, 0], a, 1));
      const l = Math.hypot(...d);
      return [d[0] / l, d[1] / l, d[2] / l] as Vec3;
    });
    // Long enough to stand out of the piece itself.
    const reach = (Math.max(...b.size) / 2) * (session.part?.cell ?? 1);
    return {
      at,
      axes,
      length: Math.max(pixels(v, LENGTH), reach + pixels(v, 26)),
      hot: hotArrow.value,
      head: pixels(v, 10),
    };
  }
  const middle = (b: Box): Vec3 => [b.min[0] + b.size[0] / 2, b.min[1] + b.size[1] / 2, b.min[2] + b.size[2] / 2];

  return {
    arrows,
    spots: (): Spot[] => list().map((h, i) => ({ at: h.at, tone: h.tone, hot: i === hot.value })),
    /** Whether the pointer is over something that can be taken hold of. */
    hover(p: ViewPointer): boolean {
      const a = arrows(),
        v = view.viewport;
      hotArrow.value = a && v ? arrowUnder(v, p.x, p.y, a.at, a.axes, a.length) : -1;
      hot.value = hotArrow.value >= 0 ? -1 : under(p, list());
      return hot.value >= 0 || hotArrow.value >= 0;
    },
    down(p: ViewPointer): boolean {
      if (!this.hover(p)) return false;
      const ray = toLattice(p.ray, matrix.value);
      if (hotArrow.value >= 0) {
        const b = selection.box!;
        if (
          !selection.floating &&
          !selection.float(`${p.alt ? 'Copy' : 'Move'} ${selection.count.toLocaleString('en')} cubes`, p.alt)
        )
          return true;
        const axis = hotArrow.value as Axis;
        arrow = {
          axis,
          from: alongAxis(ray, middle(b), withAxis([0, 0, 0], axis, 1)) ?? 0,
          start: selection.floating!.by,
        };
        return true;
      }
      const handle = list()[hot.value]!;
      held = { handle, from: alongAxis(ray, handle.at, withAxis([0, 0, 0], handle.axis, 1)) ?? 0 };
      return true;
    },
    /** Gives whether a handle is being dragged. */
    move(p: ViewPointer, done = false): boolean {
      const ray = toLattice(p.ray, matrix.value);
      if (arrow) {
        const f = selection.floating;
        if (!f) return false;
        const { axis, from, start } = arrow;
        const b = f.grid.bounds;
        const origin = mapVec([0, 1, 2], (i) => b.min[i]! + b.size[i]! / 2 - (f.by[i]! - start[i]!));
        const by = Math.round((alongAxis(ray, origin, withAxis([0, 0, 0], axis, 1)) ?? from) - from);
        selection.moveTo(withAxis(start, axis, start[axis] + by));
        view.measure = `move ${NAME[axis]} ${start[axis] + by > 0 ? '+' : ''}${start[axis] + by}`;
        if (done) arrow = null;
        return true;
      }
      if (!held) return false;
      const { handle, from } = held;
      const way = (alongAxis(ray, handle.at, withAxis([0, 0, 0], handle.axis, 1)) ?? from) - from;
      const by = handle.fine ? Math.round(way * 2) : Math.round(way);
      view.measure = done ? '' : handle.text(by) + (p.alt ? ', both sides' : '');
      handle.drag(by, p.alt, done);
      if (done) held = null;
      return true;
    },
    get holding(): boolean {
      return held !== null || arrow !== null;
    },
    cancel(): void {
      if (held || arrow) session.preview = null;
      held = null;
      arrow = null;
      hot.value = hotArrow.value = -1;
    },
  };
}

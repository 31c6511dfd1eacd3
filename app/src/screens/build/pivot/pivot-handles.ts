import {
  AXES,
  type Mat4,
  type Vec3,
  add,
  length,
  mapVec,
  normalize,
  scale,
  transformDirection,
  transformPoint,
  withAxis,
} from '@sphalerite/core/math';
import { type Part, must, pivotPoint } from '@sphalerite/core/model';
import type { Ref } from 'vue';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { type GizmoFrame, placeText } from '../../../tools/gizmo';
import type { ViewPointer } from '../../../viewport/view-input';
import { FREE_STEPS, useGizmo } from '../../shared/gizmo-control';
import { snapUnder } from '../../shared/joint-snap';
import { useBuild } from '../build-state';
import { halfAt, usePivot } from './pivot-state';

/** Within this many pixels of the pivot a press takes hold of its dot. */
const GRAB = 11;

/** The pivot of the part in hand in the view: arrows and planes by half cubes, and a dot that snaps to the cubes under the pointer. */
export function pivotHandles(matrix: Ref<Mat4>) {
  const session = useSession();
  const view = useView();
  const build = useBuild();
  const pivot = usePivot();
  /** The part as it was taken hold of. */
  let held: Part | null = null;
  /** Where the dot would be set down, in half cubes, and what that is. */
  let to: Vec3 | null = null;

  const ways = (): Vec3[] => AXES.map((a) => transformDirection(matrix.value, withAxis([0, 0, 0], a, 1)));
  const shown = (): Part | null => {
    const part = session.part;
    return build.handles === 'pivot' && part && session.writable
      ? must((session.shown ?? session.project)!.parts, part.id, 'part')
      : null;
  };
  const inWorld = (half: Vec3): Vec3 => transformPoint(matrix.value, scale(half, 0.5));
  const say = (half: Vec3, what = 'pivot'): string => `${what}  ${placeText(scale(half, 0.5))}`;
  function stop(): void {
    held = to = null;
    session.preview = null;
    view.measure = '';
  }
  const gizmo = useGizmo({
    frame() {
      const part = shown();
      if (!part) return null;
      const axes = ways().map(normalize) as unknown as GizmoFrame['axes'];
      return { at: inWorld(part.pivot), axes, modes: ['move'] };
    },
    steps() {
      const unit = ways().map(length) as unknown as Vec3;
      return { ...FREE_STEPS, move: scale(unit, 0.5), unit };
    },
    place: () => say(session.part!.pivot),
    begin() {
      held = session.part;
      return true;
    },
    change(amount, done) {
      if (amount.kind !== 'move' || !held) return;
      const unit = ways().map(length);
      const half = add(
        held.pivot,
        mapVec(amount.along, (v, i) => Math.round((2 * v) / unit[i]!)),
      );
      const part = held.id;
      pivot.move([{ part, pivot: half }], done);
      if (done) stop();
      else view.measure = say(half);
    },
    cancel: stop,
  });
  /** Whether the pointer is on the dot; then its place is said. */
  function onDot(p: ViewPointer): boolean {
    const part = shown(),
      v = view.viewport;
    if (!part || !v) return false;
    const s = v.screenOf(transformPoint(matrix.value, pivotPoint(part)));
    return Math.hypot(s.x - p.x, s.y - p.y) < GRAB;
  }
  return {
    drawn: gizmo.drawn,
    get holding(): boolean {
      return held !== null || gizmo.holding;
    },
    hover(p: ViewPointer): boolean {
      if (!onDot(p)) return gizmo.hover(p);
      gizmo.leave();
      view.measure = `${say(session.part!.pivot)}, drag it onto cubes`;
      return true;
    },
    down(p: ViewPointer): boolean {
      if (!onDot(p) || gizmo.holding) return gizmo.down(p);
      held = session.part;
      to = held!.pivot;
      return true;
    },
    carry: (p: ViewPointer): boolean => !onDot(p) && gizmo.carry(p),
    move(p: ViewPointer): boolean {
      if (!to || !held) return gizmo.move(p);
      const point =
        view.viewport && snapUnder(view.viewport, p, pivot.snap, (id) => must(session.project!.parts, id, 'part').name);
      if (!point) return true;
      to = halfAt(matrix.value, point.at);
      view.measure = say(to, point.what);
      pivot.move([{ part: held.id, pivot: to }], false);
      return true;
    },
    up(): boolean {
      if (!to || !held) return gizmo.up();
      const half = to,
        part = held.id;
      stop();
      pivot.move([{ part, pivot: half }], true);
      return true;
    },
    cancel(): void {
      gizmo.cancel();
      if (held) stop();
    },
  };
}
export type PivotHandles = ReturnType<typeof pivotHandles>;

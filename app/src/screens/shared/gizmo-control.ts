import { ref } from 'vue';
import { useView } from '../../stores/view';
import { AXES } from '@sphalerite/core/math';
import {
  AXIS_NAMES,
  type Amount,
  GizmoDrag,
  type GizmoFrame,
  type GizmoSteps,
  type Grip,
  placeText,
} from '../../tools/gizmo';
import { type DrawnGizmo, gizmoSize, gripUnder } from '../../viewport/gizmo';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';

/** Degrees that rings turn by, shares of its size that a thing grows by, and both with Shift; any length. */
export const FREE_STEPS: GizmoSteps = {
  move: [0, 0, 0],
  unit: [1, 1, 1],
  turn: 5,
  fineTurn: 1,
  scale: 0.05,
  fineScale: 0.01,
};

/** What is moved and turned by the gizmo. */
export interface GizmoHost {
  /** Where it stands; null while there is nothing to hold. */
  frame(): GizmoFrame | null;
  steps(): GizmoSteps;
  /** What the figures at the pointer say while the hand is over it; where it stands when missing. */
  place?(): string;
  /** How far a large piece stands out, in the world. */
  reach?(): number;
  /** The hand takes hold; false when it may not. */
  begin?(p: ViewPointer): boolean;
  /** What it has come to by now; `done` when the hand let go. */
  change(amount: Amount, done: boolean): void;
  /** All is as before the hand took hold. */
  cancel(): void;
}

/** The gizmo of a screen: one, whatever it is that is moved. */
export function useGizmo(host: GizmoHost) {
  const view = useView();
  const hot = ref<Grip | null>(null);
  let drag: GizmoDrag | null = null;

  function drawn(): DrawnGizmo | null {
    const frame = host.frame(),
      v = view.viewport;
    if (!frame || !v) return null;
    void view.cameraTick;
    return { ...frame, ...gizmoSize(v, host.reach?.() ?? 0), hot: hot.value };
  }
  /** Held without a button: a double click took hold, and the next press sets it down. */
  let carried = false;
  const tell = (done: boolean): void => host.change(drag!.amount, done);
  /** The axes that the drag goes along, as chips at the pointer. */
  function sayAxes(): void {
    view.axes = drag && {
      on: drag.live,
      carried,
      toggle(axis) {
        drag?.toggle(axis);
        sayAxes();
        if (drag) tell(false);
      },
    };
  }
  function typed(key: string): boolean {
    const axis = AXES.find((a) => AXIS_NAMES[a] === key.toUpperCase());
    if (axis !== undefined) view.axes?.toggle(axis);
    else if (key === 'Enter' && carried) setDown();
    else if (drag?.type(key)) tell(false);
    else return false;
    return true;
  }
  function take(p: ViewPointer): boolean {
    if (host.begin && !host.begin(p)) return false;
    drag = new GizmoDrag(host.frame()!, hot.value!, p.ray, host.steps());
    view.keyUser = typed;
    sayAxes();
    return true;
  }
  function end(): void {
    drag = null;
    carried = false;
    hot.value = null;
    view.keyUser = null;
    view.axes = null;
  }
  function setDown(): void {
    if (drag!.idle) host.cancel();
    else tell(true);
    end();
  }
  return {
    drawn,
    get holding(): boolean {
      return drag !== null;
    },
    /** Whether the pointer is over it; then it says where it stands. */
    hover(p: ViewPointer): boolean {
      const g = drawn(),
        was = hot.value;
      hot.value = g && view.viewport ? gripUnder(view.viewport, g, p.x, p.y) : null;
      if (g && hot.value) view.measure = host.place?.() ?? placeText(g.at);
      else if (was) view.measure = '';
      return hot.value !== null;
    },
    /** Takes hold of what is under the pointer; gives whether there was anything. What is carried is set down. */
    down(p: ViewPointer): boolean {
      if (drag && carried) return true;
      return this.hover(p) && take(p);
    },
    /** Takes hold of what is under the pointer without a button. */
    carry(p: ViewPointer): boolean {
      if (drag || !this.hover(p) || !take(p)) return false;
      carried = true;
      sayAxes();
      return true;
    },
    /** Gives whether the hand holds it. */
    move(p: ViewPointer): boolean {
      if (!drag) return false;
      if (drag.follow(p.ray, p.shift)) tell(false);
      return true;
    },
    up(): boolean {
      if (!drag) return false;
      setDown();
      return true;
    },
    leave(): void {
      if (!drag) hot.value = null;
    },
    cancel(): void {
      if (drag) host.cancel();
      end();
    },
  };
}

/** A pointer for which a gizmo goes before everything else. */
export function gizmoFirst(gizmo: ReturnType<typeof useGizmo>, rest: PointerUser): PointerUser {
  return {
    ...rest,
    down: (p) => gizmo.down(p) || rest.down(p),
    move(p, settle) {
      if (!gizmo.move(p) && !gizmo.hover(p)) rest.move(p, settle);
    },
    up(p) {
      if (!gizmo.up()) rest.up(p);
    },
    open(p) {
      if (!gizmo.carry(p)) rest.open?.(p);
    },
    leave() {
      gizmo.leave();
      rest.leave();
    },
    cancel() {
      gizmo.cancel();
      rest.cancel();
    },
  };
}

import { ref } from 'vue';
import { useView } from '../../stores/view';
import { type Amount, GizmoDrag, type GizmoFrame, type GizmoSteps, type Grip } from '../../tools/gizmo';
import { type DrawnGizmo, gizmoSize, gripUnder } from '../../viewport/gizmo';
import type { ViewPointer } from '../../viewport/view-input';

/** Degrees that rings turn by, and with Shift. */
const TURN_STEP = 5;
const FINE_TURN_STEP = 1;
/** Steps of rings alone, for what only turns or moves freely. */
export const FREE_STEPS: GizmoSteps = { move: [0, 0, 0], turn: TURN_STEP, fineTurn: FINE_TURN_STEP };

/** What is moved and turned by the gizmo. */
export interface GizmoHost {
  /** Where it stands; null while there is nothing to hold. */
  frame(): GizmoFrame | null;
  steps(): GizmoSteps;
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
  const tell = (done: boolean): void => host.change(drag!.amount, done);
  function typed(key: string): boolean {
    if (!drag?.type(key)) return false;
    tell(false);
    return true;
  }
  function end(): void {
    drag = null;
    hot.value = null;
    view.keyUser = null;
  }
  return {
    drawn,
    get holding(): boolean {
      return drag !== null;
    },
    /** Whether the pointer is over it. */
    hover(p: ViewPointer): boolean {
      const g = drawn();
      hot.value = g && view.viewport ? gripUnder(view.viewport, g, p.x, p.y) : null;
      return hot.value !== null;
    },
    /** Takes hold of what is under the pointer; gives whether there was anything. */
    down(p: ViewPointer): boolean {
      if (!this.hover(p) || (host.begin && !host.begin(p))) return false;
      drag = new GizmoDrag(host.frame()!, hot.value!, p.ray, host.steps());
      view.keyUser = typed;
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
      if (drag.idle) host.cancel();
      else tell(true);
      end();
      return true;
    },
    leave(): void {
      hot.value = null;
    },
    cancel(): void {
      if (drag) host.cancel();
      end();
    },
  };
}

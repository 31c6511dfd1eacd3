import { type Vec3, mapVec, sub } from '@sphalerite/core/math';
import { useView } from '../../stores/view';
import { onPlane } from '../../tools/geometry';
import type { ViewPointer } from '../../viewport/view-input';
import type { HandleHost } from './bone-handles';

/** Pixels that a press moves before it pulls. */
const SLACK = 4;
/** A tenth of a unit: finer places are no places an eye can tell. */
const tenth = (v: Vec3): Vec3 => mapVec(v, (x) => Math.round(x * 10) / 10);

/** A control pulled by its dot: it moves in the plane that faces the eye. */
export function controlPull(host: Pick<HandleHost, 'move' | 'cancel' | 'pull'>) {
  const view = useView();
  let drag: { bone: string; from: Vec3; start: Vec3 | null; x: number; y: number; delta: Vec3 | null } | null = null;

  const inPlane = (p: ViewPointer, at: Vec3): Vec3 | null =>
    view.viewport && onPlane(p.ray, at, view.viewport.camera.ahead);
  return {
    begin(bone: string, at: Vec3, p: ViewPointer): void {
      drag = { bone, from: at, start: inPlane(p, at), x: p.x, y: p.y, delta: null };
    },
    /** Gives whether a press is being held on a control. */
    move(p: ViewPointer): boolean {
      if (!drag) return false;
      const to = drag.start && inPlane(p, drag.from);
      if (!to || (!drag.delta && Math.hypot(p.x - drag.x, p.y - drag.y) < SLACK)) return true;
      if (!drag.delta) host.pull?.();
      drag.delta = tenth(sub(to, drag.start!));
      host.move(drag.bone, drag.delta, false);
      return true;
    },
    /** Gives whether something was pulled. */
    up(): boolean {
      const was = drag;
      drag = null;
      if (!was?.delta) return false;
      host.move(was.bone, was.delta, true);
      return true;
    },
    cancel(): void {
      if (drag?.delta) host.cancel();
      drag = null;
    },
  };
}

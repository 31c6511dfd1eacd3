import { type Extent, type Vec3, add, length, mapVec, sub } from '@sphalerite/core/math';
import { duplicatePlacementsEdit } from '@sphalerite/core/project';
import { type Snapped, instanceExtent, movedExtent, snapShift } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { onPlane } from '../../tools/geometry';
import { amountText } from '../../tools/gizmo';
import type { Stroke3 } from '../../viewport/overlay';
import type { ViewPointer } from '../../viewport/view-input';
import { movable, moveInHand } from './moving';
import { extentOfList } from './placing';
import type { SceneList } from './scene-list';
import { useStage } from './stage-state';

/** Pixels within which an edge is caught. */
const CATCH = 8;

interface Push {
  readonly from: Vec3;
  readonly copy: boolean;
  /** What is pushed, where it stood, and what stands around it. */
  readonly own: Extent | null;
  readonly around: readonly Extent[];
  readonly within: number;
  by: Vec3;
  snapped: readonly Snapped[];
}

/** What is chosen, pushed over the ground: by whole steps, caught by edges and middles of what stands around. Alt leaves a copy behind. */
export function usePush({ list, mine }: SceneList) {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  let held: Push | null = null;
  const toStep = (v: number): number => (stage.step > 0 ? Math.round(v / stage.step) * stage.step : v);
  /** How long a pixel is in the world, about there. */
  function pixel(at: Vec3): number {
    const v = view.viewport;
    if (!v) return 0;
    const a = v.screenOf(at);
    const seen = [0, 2].map((k) => {
      const b = v.screenOf(add(at, k === 0 ? [1, 0, 0] : [0, 0, 1]));
      return Math.hypot(b.x - a.x, b.y - a.y);
    });
    return 1 / Math.max(0.001, ...seen);
  }
  function follow(p: ViewPointer, done: boolean): void {
    const push = held!,
      to = onPlane(p.ray, push.from, [0, 1, 0]);
    if (to) {
      push.by = mapVec(sub(to, push.from), (v, a) => (a === 1 ? 0 : toStep(v)));
      push.snapped = [];
      if (push.own && stage.snaps && !p.shift)
        ({ shift: push.by, snapped: push.snapped } = snapShift(push.own, push.around, push.by, push.within));
    }
    const { by, copy } = push;
    const still = length(by) < 1e-9;
    view.measure = done || still ? '' : amountText({ kind: 'move', along: by });
    if (still) {
      session.preview = null;
      return;
    }
    const scene = session.scene!;
    if (!copy) return moveInHand((w) => ({ ...w, t: add(w.t, by) }), done);
    const args = {
      scene: scene.id,
      placements: movable(scene, session.view.chosen.placement),
      shift: by,
      linked: true,
    };
    if (done) session.apply(duplicatePlacementsEdit, args);
    else session.preview = session.tryEdit(duplicatePlacementsEdit, args, true);
  }
  return {
    get holding(): boolean {
      return held !== null;
    },
    get copies(): boolean {
      return held?.copy ?? false;
    },
    begin(from: Vec3, copy: boolean): void {
      const own = mine(),
        apart = new Set(own);
      const around = stage.snaps ? list().flatMap((i) => (apart.has(i) ? [] : (instanceExtent(i) ?? []))) : [];
      held = { from, copy, own: extentOfList(own), around, within: CATCH * pixel(from), by: [0, 0, 0], snapped: [] };
    },
    move(p: ViewPointer): boolean {
      if (held) follow(p, false);
      return held !== null;
    },
    up(p: ViewPointer): boolean {
      if (!held) return false;
      follow(p, true);
      held = null;
      return true;
    },
    cancel(): void {
      held = null;
    },
    /** A line from each edge that is caught to the one that caught it. */
    drawn(): Stroke3[] {
      if (!held?.own) return [];
      const own = movedExtent(held.own, held.by);
      return held.snapped.map(({ axis, at, to }): Stroke3 => {
        const end = (e: Extent): Vec3 => mapVec(e.lo, (v, a) => (a === axis ? at : (v + e.hi[a]!) / 2));
        return { from: end(own), to: end(to), tone: axis === 0 ? 'x' : 'z' };
      });
    },
  };
}

import {
  type Extent,
  type Quat,
  type Transform,
  type Vec3,
  add,
  length,
  mapVec,
  mul,
  sub,
} from '@sphalerite/core/math';
import { worldOfPlacement } from '@sphalerite/core/model';
import { duplicatePlacementsEdit } from '@sphalerite/core/project';
import { type DrawList, type Snapped, instanceExtent, movedExtent, snapShift } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { onPlane } from '../../tools/geometry';
import { amountText } from '../../tools/gizmo';
import type { Stroke3 } from '../../viewport/overlay';
import type { ViewPointer } from '../../viewport/view-input';
import { copyInHand } from './copy-in-hand';
import { landing } from './landing';
import { movable, moveInHand } from './moving';
import { extentOfList, shownExtent } from './placing';
import type { SceneList } from './scene-list';
import { useStage } from './stage-state';

/** Pixels within which an edge is caught. */
const CATCH = 8;

interface Push {
  readonly from: Vec3;
  readonly copy: boolean;
  /** What is pushed, where it stood, and what stands around it. */
  readonly own: Extent | null;
  /** Where its anchor stood. */
  readonly anchor: Transform | null;
  readonly others: DrawList;
  readonly around: readonly Extent[];
  readonly within: number;
  by: Vec3;
  /** How it is turned that stands against a wall; null keeps it as it is. */
  turned: Quat | null;
  snapped: readonly Snapped[];
}

/** What is chosen, pushed over the ground: by whole steps, caught by edges and middles of what stands around, or onto what is under the hand. Alt leaves a copy behind. */
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
  /** Stands it on what is under the hand, or one by itself against it. */
  function onto(p: ViewPointer, push: Push): void {
    const { own, anchor } = push,
      placement = session.placement;
    if (!own || !anchor || !placement) return;
    const about = (e: Extent, t: Vec3): Extent => ({ lo: sub(e.lo, t), hi: sub(e.hi, t) });
    const there = landing(push.others, p.ray, about(own, anchor.t), stage.step);
    if (!there) return;
    push.snapped = [];
    push.turned = null;
    push.by = sub(there.t, anchor.t);
    if (!there.against || push.copy || session.view.chosen.placement.length > 1) return;
    // Its back to the wall, however it was turned before.
    const plain = shownExtent(session.project!, placement.shows);
    const sized = plain && { lo: mul(plain.lo, anchor.s), hi: mul(plain.hi, anchor.s) };
    push.turned = there.q;
    push.by = sub(landing(push.others, p.ray, sized, stage.step)!.t, anchor.t);
  }
  function follow(p: ViewPointer, done: boolean): void {
    const push = held!,
      to = onPlane(p.ray, push.from, [0, 1, 0]);
    if (stage.onto && !p.shift) onto(p, push);
    else if (to) {
      push.turned = null;
      push.by = mapVec(sub(to, push.from), (v, a) => (a === 1 ? 0 : toStep(v)));
      push.snapped = [];
      if (push.own && stage.snaps && !p.shift)
        ({ shift: push.by, snapped: push.snapped } = snapShift(push.own, push.around, push.by, push.within));
    }
    const { by, copy } = push;
    const still = length(by) < 1e-9 && !push.turned;
    view.measure = done || still ? '' : amountText({ kind: 'move', along: by });
    if (still) {
      session.preview = null;
      return;
    }
    const scene = session.scene!;
    const q = push.turned;
    if (!copy) return moveInHand((w) => ({ ...w, t: add(w.t, by), ...(q ? { q } : {}) }), done);
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
      const others = list().filter((i) => !apart.has(i)),
        around = stage.snaps && !stage.onto ? others.flatMap((i) => instanceExtent(i) ?? []) : [];
      const id = copyInHand() ? null : session.hand.placement,
        anchor = id && session.scene ? worldOfPlacement(session.scene, id) : null;
      held = {
        ...{ from, copy, own: extentOfList(own), anchor, others, around, within: CATCH * pixel(from) },
        ...{ by: [0, 0, 0], turned: null, snapped: [] },
      };
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

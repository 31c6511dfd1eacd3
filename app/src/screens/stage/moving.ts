import {
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  mul,
  mulQuat,
  quatFromAxisAngle,
  relativeTransform,
  rotate,
  sub,
} from '@sphalerite/core/math';
import { type Id, type Scene, findIn, worldOfPlacement } from '@sphalerite/core/model';
import { changePlacementsEdit, topmost } from '@sphalerite/core/project';
import { useSession } from '../../stores/session';
import type { Amount, GizmoFrame } from '../../tools/gizmo';
import { shiftOf } from '../../tools/gizmo';
import { copyInHand, moveCopy } from './copy-in-hand';

type Changes = Parameters<(typeof changePlacementsEdit)['run']>[1];
/** From where something stands in the world to where it shall stand. */
export type Moving = (world: Transform, id: Id) => Transform;

/** What of the chosen is moved itself: what hangs on others goes with them; what is locked stays. */
export function movable(scene: Scene, ids: readonly Id[]): readonly Id[] {
  // The gizmo asks at every move of the pointer, and of thousands it is not cheap.
  if (last?.scene === scene && last.ids === ids) return last.found;
  const locked = new Set(scene.layers.filter((l) => l.locked).map((l) => l.id));
  // While something is tried, what is chosen may be gone.
  const found = topmost(scene, ids).filter((id) => {
    const p = findIn(scene.placements, id);
    return p && !locked.has(p.layer);
  });
  last = { scene, ids, found };
  return found;
}
let last: { readonly scene: Scene; readonly ids: readonly Id[]; readonly found: readonly Id[] } | null = null;

const exact = (v: number): number => Math.round(v * 1e6) / 1e6 + 0;
const tidy = ({ t, q, s }: Transform): Transform => ({
  t: t.map(exact) as unknown as Vec3,
  q: q.map((v) => Math.round(v * 1e9) / 1e9 + 0) as unknown as Transform['q'],
  s: s.map(exact) as unknown as Vec3,
});

/** How placements change that are moved in the world. */
export function movedIn(scene: Scene, ids: readonly Id[], move: Moving): Changes {
  return {
    scene: scene.id,
    changes: movable(scene, ids).map((id) => {
      const p = findIn(scene.placements, id)!,
        above = p.parent === null ? TRANSFORM_IDENTITY : worldOfPlacement(scene, p.parent);
      return { id, change: tidy(relativeTransform(above, move(worldOfPlacement(scene, id), id))) };
    }),
  };
}

/** What a drag of the gizmo does to each; `about` is where it stands. */
export function byGizmo(frame: GizmoFrame, amount: Amount, together: boolean): Moving {
  if (amount.kind === 'move') {
    const shift = shiftOf(frame, amount.along);
    return (w) => ({ ...w, t: add(w.t, shift) });
  }
  if (amount.kind === 'turn') {
    const q = quatFromAxisAngle(frame.axes[amount.axis], (amount.degrees * Math.PI) / 180);
    return (w) => ({
      ...w,
      t: together ? add(frame.at, rotate(q, sub(w.t, frame.at))) : w.t,
      q: mulQuat(q, w.q),
    });
  }
  return (w) => ({
    ...w,
    t: together ? add(frame.at, mul(amount.by, sub(w.t, frame.at))) : w.t,
    s: mul(amount.by, w.s),
  });
}

/**
 * Shows what a move of what is in hand would come to, or makes it one step: of a copy by itself, or of all that is chosen.
 *
 * @param about – where a copy stood when the hand took hold; all that turns or grows in its place may leave it out
 */
export function moveInHand(move: Moving, done: boolean, about: Vec3 = [0, 0, 0]): void {
  const session = useSession(),
    copy = copyInHand();
  if (copy) {
    moveCopy(copy, about, (w) => move(w, copy.placement.id), done);
    return;
  }
  const args = movedIn(session.scene!, session.view.chosen.placement, move);
  if (done) session.apply(changePlacementsEdit, args);
  else session.preview = session.tryEdit(changePlacementsEdit, args, true);
}

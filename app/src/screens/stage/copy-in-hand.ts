import {
  TRANSFORM_IDENTITY,
  type Transform,
  type Vec3,
  add,
  invertQuat,
  mapVec,
  mul,
  mulQuat,
  rotate,
  sub,
  transformPoint,
} from '@sphalerite/core/math';
import { type Placement, type Repeat, type RepeatException, findIn, worldOfPlacement } from '@sphalerite/core/model';
import { repeatExceptionEdit } from '@sphalerite/core/project';
import type { CopyPlace } from '@sphalerite/core/scene';

import { useSession } from '../../stores/session';
import { useStage } from './stage-state';

/** One copy of a repeat, chosen by itself. */
export interface CopyInHand {
  readonly placement: Placement;
  readonly repeat: Repeat;
  readonly copy: number;
  /** How it differs from what its repeat makes of it. */
  readonly differs: RepeatException | null;
}

/** The copy that is in hand; null where a whole placement is, or nothing. */
export function copyInHand(): CopyInHand | null {
  const session = useSession(),
    scene = session.scene,
    at = useStage().copy;
  if (!scene || !at || session.hand.placement !== at.placement) return null;
  const placement = findIn(scene.placements, at.placement),
    repeat = scene.repeats.find((r) => r.placement === at.placement);
  if (!placement || !repeat || repeat.kind === 'mirror') return null;
  return {
    ...{ placement, repeat, copy: at.copy },
    differs: repeat.exceptions.find((e) => e.copy === at.copy) ?? null,
  };
}

/** Where it stands in the world, of the copies as they were gathered last. */
export function anchorOf({ placement, copy }: CopyInHand, copies: readonly CopyPlace[]): Vec3 | null {
  const there = copies.find((c) => c.copy === copy);
  return there ? transformPoint(there.placed, placement.t) : null;
}

/** The exception that a copy becomes when something in the world moves it from `w` to `to`. */
function moved({ placement, copy, differs }: CopyInHand, w: Transform, to: Transform): RepeatException {
  const scene = useSession().scene!,
    above = placement.parent === null ? TRANSFORM_IDENTITY : worldOfPlacement(scene, placement.parent),
    back = invertQuat(above.q),
    was = differs ?? { copy, gone: false, ...TRANSFORM_IDENTITY };
  const by = rotate(back, sub(to.t, w.t));
  return {
    ...{ copy, gone: false },
    t: add(
      was.t,
      mapVec(by, (v, a) => v / above.s[a]!),
    ),
    q: mulQuat(mulQuat(mulQuat(back, to.q), above.q), was.q),
    s: mul(was.s, to.s),
  };
}

/** Shows what comes of moving the copy in hand alone, or makes it one step. @param about – where it stood when the hand took hold */
export function moveCopy(copy: CopyInHand, about: Vec3, move: (w: Transform) => Transform, done: boolean): void {
  const w: Transform = { ...TRANSFORM_IDENTITY, t: about };
  except(copy, moved(copy, w, move(w)), done);
}

/** The copy stands as an exception says; as its repeat has it with null. */
export function except({ repeat, copy }: CopyInHand, is: Omit<RepeatException, 'copy'> | null, done = true): void {
  const session = useSession();
  const only = is && { gone: is.gone, t: is.t, q: is.q, s: is.s };
  const args = { scene: session.scene!.id, repeat: repeat.id, copy, is: only };
  if (done) session.apply(repeatExceptionEdit, args);
  else session.preview = session.tryEdit(repeatExceptionEdit, args, true);
}

/** It is left out of its repeat. */
export const leaveOut = (copy: CopyInHand): void => except(copy, { ...TRANSFORM_IDENTITY, gone: true });

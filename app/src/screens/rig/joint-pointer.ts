import { type Vec3, TRANSFORM_IDENTITY, relativeTransform, sub, mapVec } from '@sphalerite/core/math';
import { type Side, must } from '@sphalerite/core/model';
import { addBoneEdit, moveJointEdit } from '@sphalerite/core/project';
import { proposedName, restWorld } from '@sphalerite/core/rig';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { type SnapPoint, snapUnder } from '../shared/joint-snap';
import { useRig } from './rig-state';

/** Within this many pixels of the joint in hand a press takes hold of it. */
const GRAB = 11;
const round = (v: Vec3): Vec3 => mapVec(v, (x) => Math.round(x * 1e6) / 1e6);

/** The side of a bone that hangs on the middle, by where its joint is along X: within a unit of the middle it is the centre's. */
const sideAt = (x: number): Side => {
  if (Math.abs(x) < 1) return 'centre';
  return x > 0 ? 'left' : 'right';
};

/** The pointer in Rig: a joint dragged by its dot snaps to the cubes under it, and clicks set new bones while extruding; else `rest`. */
export function useJointPointer(rest: PointerUser): PointerUser {
  const session = useSession();
  const view = useView();
  const rig = useRig();
  /** The joint that is being dragged: where it was, and where it would go. */
  let drag: { bone: string; from: Vec3; to: Vec3 } | null = null;

  const jointOf = (bone: string): Vec3 => restWorld(session.project!.rig).get(bone)!.t;
  const onJoint = (p: ViewPointer): boolean => {
    const bone = session.bone,
      v = view.viewport;
    if (rig.handle !== 'joint' || rig.carry || !bone || !v || !session.writable) return false;
    const s = v.screenOf(jointOf(bone.id));
    return Math.hypot(s.x - p.x, s.y - p.y) < GRAB;
  };
  /** A new bone below the one in hand, its joint at a point. */
  function extrude(at: Vec3): void {
    const parent = session.bone;
    const above = parent ? restWorld(session.project!.rig).get(parent.id)! : TRANSFORM_IDENTITY;
    const side = parent && parent.side !== 'centre' ? parent.side : sideAt(at[0]);
    session.apply(
      addBoneEdit,
      {
        name: rig.nextName || proposedName(session.project!.rig, parent?.id ?? null, at),
        side,
        parent: parent?.id ?? null,
        t: round(relativeTransform(above, { ...TRANSFORM_IDENTITY, t: at }).t),
      },
      (p) => ({ bone: p.rig.bones.at(-1)!.id }),
    );
    rig.nextName = '';
  }
  const pointUnder = (p: ViewPointer): SnapPoint | null =>
    view.viewport && snapUnder(view.viewport, p, rig.snap, (id) => must(session.project!.parts, id, 'part').name);
  const stop = (): void => {
    drag = null;
    session.preview = null;
    view.measure = '';
  };
  return {
    ...rest,
    down(p) {
      if (rig.extruding && view.viewport) {
        const point = pointUnder(p);
        if (!point) return false;
        extrude(round(point.at));
        return true;
      }
      if (!onJoint(p)) return rest.down(p);
      drag = { bone: session.bone!.id, from: jointOf(session.bone!.id), to: jointOf(session.bone!.id) };
      return true;
    },
    move(p, settle) {
      if (rig.extruding && view.viewport) {
        const point = pointUnder(p);
        view.measure = point ? `${point.what} ${point.at.map((v) => Math.round(v * 10) / 10).join(', ')}` : '';
        if (point) rig.proposed = proposedName(session.project!.rig, session.bone?.id ?? null, point.at);
      }
      if (!drag) {
        rest.move(p, settle);
        return;
      }
      if (!settle || !view.viewport) return;
      const point = pointUnder(p);
      if (!point) return;
      drag.to = round(point.at);
      view.measure = `${point.what} ${drag.to.map((v) => Math.round(v * 10) / 10).join(', ')}`;
      session.preview = session.tryEdit(
        moveJointEdit,
        { bone: drag.bone, delta: round(sub(drag.to, drag.from)) },
        true,
      );
    },
    up(p) {
      if (!drag) {
        rest.up(p);
        return;
      }
      const { bone, from, to } = drag;
      stop();
      session.apply(moveJointEdit, { bone, delta: round(sub(to, from)) });
    },
    click(p) {
      if (!rig.extruding) rest.click?.(p);
    },
    cancel() {
      if (drag) stop();
      rest.cancel();
    },
  };
}

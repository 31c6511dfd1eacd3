import {
  type Quat,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  decompose,
  invertQuat,
  mapVec,
  mul,
  mulQuat,
  normalizeQuat,
  quatFromAxisAngle,
  rotate,
} from '@sphalerite/core/math';
import type { Mount } from '@sphalerite/core/model';
import { setMountEdit } from '@sphalerite/core/project';
import { worldMatrices } from '@sphalerite/core/rig';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { type Amount, type GizmoFrame, WORLD_AXES, amountText } from '../../tools/gizmo';
import { FREE_STEPS, useGizmo } from '../shared/gizmo-control';
import { useRig } from './rig-state';

const round = (v: Vec3): Vec3 => mapVec(v, (x) => Math.round(x * 1e6) / 1e6);

/** The mount that the gizmo is on: of the part in hand, on the bone in hand where it hangs on several. */
export function mountInHand(): Mount | null {
  const session = useSession(),
    bone = session.hand.bone;
  const all = session.project?.rig.mounts ?? [];
  const on = all.filter((m) => m.bone !== null && m.bone === bone);
  return (
    on.find((m) => m.part === session.hand.part) ??
    on[0] ??
    all.find((m) => m.part === session.hand.part && m.bone !== null) ??
    null
  );
}

/** A mount moved, turned or scaled by so much, where its bone stands so. */
function placed(m: Mount, bone: Transform, amount: Amount): Partial<Transform> {
  switch (amount.kind) {
    case 'move': {
      // A shift in the world, in the bone's own frame.
      const back: Quat = invertQuat(bone.q);
      return {
        t: round(
          add(
            m.t,
            mul(
              rotate(back, amount.along),
              mapVec(bone.s, (v) => 1 / v),
            ),
          ),
        ),
      };
    }
    case 'turn': {
      const by = quatFromAxisAngle(WORLD_AXES[amount.axis], (amount.degrees * Math.PI) / 180);
      return { q: normalizeQuat(mulQuat(m.q, by)) };
    }
    case 'scale':
      return { s: mapVec(mul(m.s, amount.by), (v) => Math.round(v * 1e4) / 1e4) };
  }
}

/** The gizmo on a part instead of its bone: how it is mounted, by hand. */
export function mountGizmo(): ReturnType<typeof useGizmo> {
  const session = useSession();
  const rig = useRig();
  const view = useView();
  const boneFrame = (m: Mount): Transform =>
    m.bone === null ? TRANSFORM_IDENTITY : decompose(worldMatrices(session.project!.rig, rig.trial).get(m.bone)!);
  /** The mount as it was taken hold of. */
  let held: Mount | null = null;
  return useGizmo({
    frame(): GizmoFrame | null {
      const p = session.shown,
        mount = rig.of === 'part' && session.writable ? mountInHand() : null;
      const m = mount && p?.rig.mounts.find((o) => o.id === mount.id);
      if (!m) return null;
      const at = composeTransform(boneFrame(m), m);
      if (rig.handle === 'joint') return { at: at.t, axes: WORLD_AXES, modes: ['move'] };
      const axes = WORLD_AXES.map((u) => rotate(at.q, u)) as unknown as GizmoFrame['axes'];
      return { at: at.t, axes, modes: [rig.handle === 'scale' ? 'scale' : 'turn'], even: !view.apart };
    },
    steps: () => ({ ...FREE_STEPS, move: [rig.step, rig.step, rig.step] }),
    begin() {
      held = mountInHand();
      return true;
    },
    change(amount, done) {
      const m = held!;
      const args = { mount: m.id, place: placed(m, boneFrame(m), amount) };
      view.measure = done ? '' : amountText(amount);
      if (done) session.apply(setMountEdit, args);
      else session.preview = session.tryEdit(setMountEdit, args, true);
    },
    cancel() {
      session.preview = null;
      view.measure = '';
    },
  });
}

import { IconAnchor, IconRotate3d } from '@tabler/icons-vue';
import { sideSuffix } from '@sphalerite/core/model';
import { addBoneEdit, deleteBoneEdit, moveJointEdit, setRestEdit } from '@sphalerite/core/project';
import { REST_POSE } from '@sphalerite/core/rig';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { boneHandles } from '../shared/bone-handles';
import { toDegrees } from '../shared/degrees';
import { useRig } from './rig-state';

const AXES = ['X', 'Y', 'Z'] as const;

export function rigControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const rig = useRig();
  const handles = boneHandles({
    project: () => session.shown,
    pose: () => REST_POSE,
    basePose: () => REST_POSE,
    selected: () => session.view.bone,
    select: (bone) => session.choose({ bone }),
    arrows: () => (rig.handle === 'joint' ? 'world' : null),
    enabled: () => session.writable,
    turn(bone, q, degrees, axis, done) {
      view.measure = done ? '' : `turn ${AXES[axis]!} ${degrees}°`;
      if (done) session.apply(setRestEdit, { bone, rest: { q } });
      else session.preview = session.tryEdit(setRestEdit, { bone, rest: { q } }, true);
    },
    move(bone, delta, done) {
      view.measure = done ? '' : `joint ${delta.map((v) => (v > 0 ? `+${v}` : v)).join(', ')}`;
      if (done) session.apply(moveJointEdit, { bone, delta });
      else session.preview = session.tryEdit(moveJointEdit, { bone, delta }, true);
    },
    cancel() {
      session.preview = null;
      view.measure = '';
    },
  });
  const has = (): boolean => session.bone !== null && session.writable;
  return {
    scene: () => (session.shown ? { project: session.shown, pose: REST_POSE, without: () => false, faint: () => false } : null),
    overlay: () => ({ ...NO_OVERLAY, ...handles.overlay() }),
    pointer: handles.pointer,
    trail: () => [session.project?.name ?? '', ...(session.bone ? [session.bone.name + sideSuffix(session.bone.side)] : ['choose a bone'])],
    chips: () => [
      { text: 'rest pose', tone: 'green', icon: IconRotate3d },
      ...(rig.handle === 'joint' ? [{ text: 'the parts keep their place', tone: 'resin' as const, icon: IconAnchor }] : []),
    ],
    readout: () => {
      const p = session.project, b = session.bone;
      return {
        left: [['bones', String(p?.rig.bones.length ?? 0)], ['parts', String(p?.parts.length ?? 0)], ...(b ? [['turn', toDegrees(b.rest.q).map((v) => `${v}°`).join(' ')] as [string, string]] : [])],
        right: p ? `1 cube = ${(p.metresPerUnit * 100).toFixed(1)} cm` : '',
      };
    },
    menu: ['rig.turn', 'rig.joint', 'rig.reset'],
    commands: [
      { id: 'rig.turn', title: 'Turn the bone by rings', group: 'Rig', keys: ['R'], icon: IconRotate3d, on: () => rig.handle === 'turn', run: () => (rig.handle = 'turn') },
      { id: 'rig.joint', title: 'Move the joint, parts keep their place', group: 'Rig', keys: ['J'], icon: IconAnchor, on: () => rig.handle === 'joint', run: () => (rig.handle = 'joint') },
      { id: 'rig.reset', title: 'Reset the turn of the bone', group: 'Rig', keys: ['Shift+R'], enabled: has, run: () => session.apply(setRestEdit, { bone: session.bone!.id, rest: { q: [0, 0, 0, 1] } }) },
      { id: 'bone.new', title: 'New bone below this one', group: 'Rig', keys: ['B'], enabled: () => session.writable, run: () => session.apply(addBoneEdit, { name: 'Bone', parent: session.bone?.id ?? null, t: [0, session.bone ? 4 : 0, 0] }, (p) => ({ bone: p.rig.bones.at(-1)!.id })) },
      { id: 'bone.delete', title: 'Delete the bone (to the bin)', group: 'Rig', keys: ['Delete'], enabled: has, run: () => session.apply(deleteBoneEdit, { bone: session.bone!.id }) },
      { id: 'rig.cancel', title: 'Let go without doing', group: 'Rig', keys: ['Esc'], run: () => handles.pointer.cancel() },
    ],
  };
}

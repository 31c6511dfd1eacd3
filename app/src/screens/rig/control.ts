import {
  IconAnchor,
  IconChartLine,
  IconHandFinger,
  IconShieldLock,
  IconPointer,
  IconRotate3d,
  IconWalk,
} from '@tabler/icons-vue';
import { constraintTargets, sideSuffix } from '@sphalerite/core/model';
import {
  addBoneEdit,
  addLimbEdit,
  addPoseTestEdit,
  alignJointsEdit,
  bendWord,
  deleteBoneEdit,
  deleteUnmountedEdit,
  emptyRigEdit,
  flipRigEdit,
  mirrorRigEdit,
  moveJointEdit,
  setRestEdit,
  tryPartEdit,
} from '@sphalerite/core/project';
import { type Axis, type Vec3, matrixOf, mulMat, transformPoint } from '@sphalerite/core/math';
import { REST_POSE, worldMatrices } from '@sphalerite/core/rig';
import { nextTick } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { type Command, runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { useAnimate } from '../animate/animate-state';
import { boneHandles } from '../shared/bone-handles';
import { toDegrees } from '../shared/degrees';
import { useNotices } from '../../stores/notices';
import { localOf, shifted } from '../shared/pose-shift';
import { draggedPart } from './dragged-part';
import { useJointPointer } from './joint-pointer';
import { useRig } from './rig-state';

const AXES = ['X', 'Y', 'Z'] as const;

export function rigControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const rig = useRig();
  const notices = useNotices();
  const anim = useAnimate();
  /** Arrows for what is moved: joints, and while one tries a pose the controls. */
  const moves = (): boolean =>
    rig.handle === 'joint' ||
    (rig.handle === 'try' &&
      session.bone !== null &&
      (session.project?.rig.constraints.some(
        (c) => c.kind === 'ik' && constraintTargets(c).includes(session.bone!.id),
      ) ??
        false));
  let held = rig.trial;
  const handles = boneHandles({
    project: () => session.shown,
    pose: () => rig.trial,
    basePose: () => rig.trial,
    selected: () => session.view.bone,
    select: (bone) => session.choose({ bone }),
    arrows: () => (moves() ? 'world' : null),
    enabled: () => session.writable,
    turn(bone, q, degrees, axis, done) {
      view.measure = done ? '' : `turn ${AXES[axis]!} ${degrees}°`;
      if (rig.handle === 'try') {
        rig.pose(bone, { ...localOf(session.project!, rig.trial, bone), q });
        if (done) held = rig.trial;
        return;
      }
      const args = { bone, rest: { q }, alone: rig.alone, keepLook: rig.keepLook };
      if (done) session.apply(setRestEdit, args);
      else session.preview = session.tryEdit(setRestEdit, args, true);
    },
    move(bone, delta, done) {
      if (rig.handle === 'try') {
        rig.trial = held;
        rig.pose(bone, shifted(session.project!, held, bone, delta));
        view.measure = done ? '' : `moved ${delta.map((v) => (v > 0 ? `+${v}` : v)).join(', ')}`;
        if (done) held = rig.trial;
        return;
      }
      if (rig.carry) {
        const args = { bone, rest: { t: shifted(session.project!, REST_POSE, bone, delta).t }, keepLook: rig.keepLook };
        view.measure = done ? '' : `carried ${delta.map((v) => (v > 0 ? `+${v}` : v)).join(', ')}`;
        if (done) session.apply(setRestEdit, args);
        else session.preview = session.tryEdit(setRestEdit, args, true);
        return;
      }
      view.measure = done ? '' : `joint ${delta.map((v) => (v > 0 ? `+${v}` : v)).join(', ')}`;
      if (done) session.apply(moveJointEdit, { bone, delta });
      else session.preview = session.tryEdit(moveJointEdit, { bone, delta }, true);
    },
    step: () => rig.step,
    cancel() {
      if (rig.handle === 'try') rig.trial = held;
      session.preview = null;
      view.measure = '';
    },
  });
  const pointer = useJointPointer(handles.pointer);
  /** Attachment points with the way they point, two units long. */
  function points(): { at: Vec3; to: Vec3 }[] {
    const p = session.shown;
    if (!p || p.rig.attachments.length === 0) return [];
    const world = worldMatrices(p.rig, rig.trial);
    return p.rig.attachments.map((t) => {
      const m = mulMat(world.get(t.bone)!, matrixOf({ t: t.t, q: t.q, s: [1, 1, 1] }));
      return { at: transformPoint(m, [0, 0, 0]), to: transformPoint(m, [0, 0, 2]) };
    });
  }
  function endTry(): void {
    rig.trial = held = REST_POSE;
  }
  const hold = (handle: typeof rig.handle) => (): void => {
    endTry();
    rig.handle = handle;
  };
  function limb(): void {
    const tip = session.bone!.id;
    if (
      !session.apply(addLimbEdit, { tip }, (p) => ({
        bone: p.rig.constraints.at(-1)!.kind === 'ik' ? (p.rig.constraints.at(-1) as { goal: string }).goal : tip,
      }))
    )
      return;
    const made = session.project!.rig.constraints.at(-1)!;
    rig.handle = 'try';
    if (made.kind === 'ik')
      notices.say(
        `It bends ${bendWord(made.bend)}. Pull its goal to try it; “Bend the other way” stands with the foot or hand.`,
      );
  }
  /** Says what goes with a bone; the bin has all of it. */
  function remove(): void {
    const b = session.bone!,
      had = session.project!.bin.length;
    if (!session.apply(deleteBoneEdit, { bone: b.id })) return;
    const item = session.project!.bin[had];
    if (item?.kind !== 'bone') return;
    const keys = item.lanes.reduce((n, l) => n + l.lane.move.length + l.lane.turn.length + l.lane.scale.length, 0);
    const parts: readonly (readonly [number, string, string])[] = [
      [item.mounts.length, 'part comes loose', 'parts come loose'],
      [keys, 'key', 'keys'],
      [item.constraints.length, 'constraint', 'constraints'],
      [item.attachments.length, 'attachment point', 'attachment points'],
    ];
    const list = parts.filter(([n]) => n > 0).map(([n, one, many]) => `${n} ${n === 1 ? one : many}`);
    notices.say(
      `“${b.name}${sideSuffix(b.side)}” is in the bin${list.length > 0 ? `, and with it: ${list.join(', ')}` : ''}. It can be brought back with all of it.`,
    );
  }
  /** Makes the reel and shows it moving. */
  function reel(): void {
    if (!session.apply(addPoseTestEdit, { degrees: 45 }, (p) => ({ clip: p.clips.at(-1)!.id }))) return;
    void runCommand('go.animate')
      .then(() => nextTick())
      .then(() => anim.play(true))
      .catch(notices.fail);
  }
  const mirror = (from: 'left' | 'right') => (): boolean => session.apply(mirrorRigEdit, { from, plane: 0 });
  const has = (): boolean => session.bone !== null && session.writable;
  return {
    scene: () =>
      session.shown
        ? { project: session.shown, pose: rig.swung?.pose ?? rig.trial, without: () => false, faint: () => false }
        : null,
    overlay: () => ({
      ...NO_OVERLAY,
      ...handles.overlay(),
      points: points(),
      ...(rig.swung
        ? {
            lattice: rig.swung.matrix,
            spots: rig.swung.open.map((at) => ({ at, tone: 'danger' as const, hot: false })),
            rings: null,
            arrows: null,
          }
        : {}),
    }),
    pointer,
    drop(p) {
      const part = draggedPart.value,
        there = handles.mountUnder(p);
      draggedPart.value = null;
      if (part && there) session.apply(tryPartEdit, { part, instead: there });
      else if (part)
        notices.say('Drop it on a part of the figure: it is tried in the place of that one.', { kind: 'error' });
    },
    trail: () => [
      session.project?.name ?? '',
      ...(session.bone ? [session.bone.name + sideSuffix(session.bone.side)] : ['choose a bone']),
    ],
    chips: () => [
      ...(session.project?.seal
        ? [
            {
              text: `sealed: ${session.project.seal.rig}. Parts are free`,
              tone: 'green' as const,
              icon: IconShieldLock,
              run: () => (rig.dialog = 'unseal'),
              does: 'unseal…',
            },
          ]
        : []),
      ...(rig.extruding
        ? [
            {
              text: 'click where the next joint goes',
              tone: 'resin' as const,
              icon: IconPointer,
              run: () => (rig.extruding = false),
              does: 'end',
            },
          ]
        : []),
      rig.handle !== 'try'
        ? { text: 'rest pose', tone: 'green', icon: IconRotate3d }
        : {
            text: 'a pose for a try',
            tone: 'resin',
            icon: IconHandFinger,
            ...(rig.trial === REST_POSE ? {} : { run: endTry, does: 'back to rest' }),
          },
      ...(rig.handle === 'joint'
        ? [
            {
              text: rig.carry ? 'parts and bones go along' : 'the parts keep their place',
              tone: 'resin' as const,
              icon: IconAnchor,
            },
          ]
        : []),
    ],
    readout: () => {
      const p = session.project,
        b = session.bone;
      return {
        left: [
          ['bones', String(p?.rig.bones.length ?? 0)],
          ['parts', String(p?.parts.length ?? 0)],
          ...(b
            ? [
                [
                  'turn',
                  toDegrees(b.rest.q)
                    .map((v) => `${v}°`)
                    .join(' '),
                ] as [string, string],
              ]
            : []),
        ],
        right: p ? `1 cube = ${(p.metresPerUnit * 100).toFixed(1)} cm` : '',
      };
    },
    menu: ['rig.turn', 'rig.joint', 'rig.try', 'rig.limb', 'rig.reset'],
    commands: [
      {
        id: 'rig.turn',
        title: 'Turn the bone by rings',
        group: 'Rig',
        keys: ['R'],
        icon: IconRotate3d,
        on: () => rig.handle === 'turn',
        run: hold('turn'),
      },
      {
        id: 'rig.joint',
        title: 'Move the joint, parts keep their place',
        group: 'Rig',
        keys: ['J'],
        icon: IconAnchor,
        on: () => rig.handle === 'joint',
        run: hold('joint'),
      },
      {
        id: 'rig.try',
        title: 'Try a pose, which nothing keeps',
        group: 'Rig',
        keys: ['Y'],
        icon: IconHandFinger,
        on: () => rig.handle === 'try',
        run: () => (rig.handle === 'try' ? hold('turn')() : hold('try')()),
      },
      {
        id: 'rig.limb',
        title: 'Make a limb to this bone: goal, bend control, IK',
        group: 'Rig',
        keys: ['I'],
        icon: IconWalk,
        enabled: has,
        run: limb,
      },
      {
        id: 'rig.study',
        title: 'Study the joint: gap and overlap over its swing',
        group: 'Rig',
        keys: ['K'],
        icon: IconChartLine,
        enabled: has,
        run: () => rig.studies++,
      },
      {
        id: 'rig.mirrorLeft',
        title: 'Mirror the left side to the right',
        group: 'Rig',
        keys: ['M'],
        enabled: () => session.writable,
        run: mirror('left'),
      },
      {
        id: 'rig.mirrorRight',
        title: 'Mirror the right side to the left',
        group: 'Rig',
        keys: ['Shift+M'],
        enabled: () => session.writable,
        run: mirror('right'),
      },
      {
        id: 'rig.flip',
        title: 'Flip the whole rig: left becomes right',
        group: 'Rig',
        keys: ['Alt+M'],
        enabled: () => session.writable && (session.project?.rig.bones.length ?? 0) > 0,
        run: () => session.apply(flipRigEdit, { plane: 0 }),
      },
      {
        id: 'rig.reset',
        title: 'Reset the turn of the bone',
        group: 'Rig',
        keys: ['Shift+R'],
        enabled: has,
        run: () => session.apply(setRestEdit, { bone: session.bone!.id, rest: { q: [0, 0, 0, 1] } }),
      },
      {
        id: 'bone.new',
        title: 'New bone below this one',
        group: 'Rig',
        keys: ['B'],
        enabled: () => session.writable,
        run: () =>
          session.apply(
            addBoneEdit,
            { name: 'Bone', parent: session.bone?.id ?? null, t: [0, session.bone ? 4 : 0, 0] },
            (p) => ({ bone: p.rig.bones.at(-1)!.id }),
          ),
      },
      {
        id: 'bone.extrude',
        title: 'Set new bones by clicks in the view, each below the last',
        group: 'Rig',
        keys: ['E'],
        icon: IconPointer,
        enabled: () => session.writable,
        on: () => rig.extruding,
        run: () => (rig.extruding = !rig.extruding),
      },
      ...AXES.map((a, i): Command => ({
        id: `rig.align${a}`,
        title: `Align the joints below in ${a}`,
        group: 'Rig',
        enabled: has,
        run: () => session.apply(alignJointsEdit, { bone: session.bone!.id, axis: i as Axis }),
      })),
      {
        id: 'rig.bring',
        title: 'Bring in a rig, or parts by their names…',
        group: 'Rig',
        keys: ['Ctrl+Shift+I'],
        enabled: () => session.writable,
        run: () => (rig.dialog = 'bring'),
      },
      {
        id: 'rig.keep',
        title: 'Save as a ready rig…',
        group: 'Rig',
        enabled: () => (session.project?.rig.bones.length ?? 0) > 0,
        run: () => (rig.dialog = 'keep'),
      },
      {
        id: 'rig.unseal',
        title: 'Unseal the rig…',
        group: 'Rig',
        enabled: () => session.writable && session.project?.seal !== null,
        run: () => (rig.dialog = 'unseal'),
      },
      {
        id: 'rig.empty',
        title: 'Empty the rig of its parts (to the bin)',
        group: 'Rig',
        enabled: () => session.writable && (session.project?.parts.length ?? 0) > 0,
        run: () => session.apply(emptyRigEdit, {}),
      },
      {
        id: 'rig.dropLoose',
        title: 'Delete every part that hangs on no bone (to the bin)',
        group: 'Rig',
        enabled: () => session.writable,
        run: () => session.apply(deleteUnmountedEdit, {}),
      },
      {
        id: 'rig.ring',
        title: 'Build a ring of equal bars…',
        group: 'Rig',
        enabled: () => session.writable,
        run: () => (rig.dialog = 'ring'),
      },
      {
        id: 'rig.reel',
        title: 'Pose-test reel: swing one joint after another',
        group: 'Rig',
        keys: ['Shift+K'],
        enabled: () => session.writable && (session.project?.rig.bones.length ?? 0) > 0,
        run: reel,
      },
      {
        id: 'bone.delete',
        title: 'Delete the bone (to the bin)',
        group: 'Rig',
        keys: ['Delete'],
        enabled: has,
        run: remove,
      },
      {
        id: 'rig.cancel',
        title: 'Let go without doing',
        group: 'Rig',
        keys: ['Esc'],
        run: () => {
          rig.extruding = false;
          pointer.cancel();
        },
      },
    ],
    dispose() {
      endTry();
      rig.extruding = false;
      rig.swung = null;
    },
  };
}

import { IconAnchor, IconCube, IconHandFinger, IconShieldLock, IconPointer, IconRotate3d } from '@tabler/icons-vue';
import { constraintTargets, partsInUse, sideSuffix } from '@sphalerite/core/model';
import { each, mountPartEdit, mountPartsEdit, moveJointEdit, setRestEdit, tryPartEdit } from '@sphalerite/core/project';
import { type Vec3, matrixOf, mulMat, transformPoint } from '@sphalerite/core/math';
import { REST_POSE, worldMatrices } from '@sphalerite/core/rig';
import { gather } from '@sphalerite/core/scene';
import type { Chip, ScreenControl } from '../../shell/screen';
import { rigCommands } from './rig-commands';
import { bonesExtent } from '../shared/bones-extent';
import { boneLookCommands } from '../shared/bone-looks';
import { floorUnder } from '../shared/floor';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { boneHandles } from '../shared/bone-handles';
import { toDegrees } from '../shared/degrees';
import { useNotices } from '../../stores/notices';
import { localOf, shifted } from '../shared/pose-shift';
import { useJointPointer } from './joint-pointer';
import { mountGizmo } from './mount-handles';
import { gizmoFirst } from '../shared/gizmo-control';
import { amountText } from '../../tools/gizmo';
import { useRig } from './rig-state';
import { say } from '../../words';

const AXES = ['X', 'Y', 'Z'] as const;

/** Live guides of Rig. */
function rigChips(): Chip[] {
  const session = useSession();
  const rig = useRig();
  return [
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
            text: 'click where the joint goes of',
            tone: 'resin' as const,
            icon: IconPointer,
            words: {
              label: 'Name of the next bone',
              value: rig.nextName || rig.proposed || 'Bone',
              change: (text: string) => (rig.nextName = text.trim()),
            },
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
          ...(rig.trial === REST_POSE ? {} : { run: rig.endTry, does: 'back to rest' }),
        },
    ...(rig.of === 'part'
      ? [
          {
            text: 'handles on the part',
            tone: 'resin' as const,
            icon: IconCube,
            run: () => (rig.of = 'bone'),
            does: 'on the bone',
          },
        ]
      : []),
    ...(rig.handle === 'joint' && rig.of === 'bone'
      ? [
          {
            text: rig.carry ? 'parts and bones go along' : 'the parts keep their place',
            tone: 'resin' as const,
            icon: IconAnchor,
          },
        ]
      : []),
  ];
}

/** Rings and arrows on the bone in hand: at rest, or for a try that nothing keeps. */
function rigHandles(): ReturnType<typeof boneHandles> {
  const session = useSession();
  const view = useView();
  const rig = useRig();
  /** Arrows for what is moved: joints, and while one tries a pose the controls. */
  const moves = (): boolean =>
    rig.handle === 'joint' ||
    (rig.handle === 'try' &&
      session.bone !== null &&
      (session.project?.rig.constraints.some(
        (c) => c.kind === 'ik' && constraintTargets(c).includes(session.bone!.id),
      ) ??
        false));
  return boneHandles({
    project: () => session.shown,
    pose: () => rig.trial,
    basePose: () => rig.trial,
    selected: () => session.hand.bone,
    chosen: () => session.view.chosen.bone,
    select: (bone, more) => session.pick('bone', bone, { ctrlKey: more, metaKey: false, shiftKey: false }, []),
    mode() {
      if (rig.of === 'part') return null;
      if (moves()) return 'move';
      return rig.handle === 'scale' ? 'scale' : 'turn';
    },
    even: () => !view.apart,
    enabled: () => session.writable,
    turn(bone, q, degrees, axis, done) {
      view.measure = done ? '' : `turn ${AXES[axis]!} ${degrees}°`;
      if (rig.handle === 'try') {
        rig.pose(bone, { ...localOf(session.project!, rig.trial, bone), q });
        if (done) rig.held = rig.trial;
        return;
      }
      const args = { bone, rest: { q }, alone: rig.alone, keepLook: rig.keepLook };
      if (done) session.apply(setRestEdit, args);
      else session.preview = session.tryEdit(setRestEdit, args, true);
    },
    move(bone, delta, done) {
      if (rig.handle === 'try') {
        rig.trial = rig.held;
        rig.pose(bone, shifted(session.project!, rig.held, bone, delta));
        view.measure = done ? '' : `moved ${delta.map((v) => (v > 0 ? `+${v}` : v)).join(', ')}`;
        if (done) rig.held = rig.trial;
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
    scale(bone, s, by, done) {
      const args = { bone, rest: { s }, alone: rig.alone, keepLook: rig.keepLook };
      view.measure = done ? '' : `scale ${amountText(by)}`;
      if (done) session.apply(setRestEdit, args);
      else session.preview = session.tryEdit(setRestEdit, args, true);
    },
    step: () => rig.step,
    // A goal is pulled to see what it does; at rest nothing would follow it.
    pull() {
      if (rig.handle === 'turn') rig.handle = 'try';
    },
    cancel() {
      if (rig.handle === 'try') rig.trial = rig.held;
      session.preview = null;
      view.measure = '';
    },
  });
}

export function rigControl(): ScreenControl {
  const session = useSession();
  const rig = useRig();
  const view = useView();
  const notices = useNotices();
  const handles = rigHandles();
  const mounts = mountGizmo();
  const pointer = gizmoFirst(mounts, useJointPointer(handles.pointer));
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
  return {
    scene: () => {
      const project = session.shown,
        pose = rig.swung?.pose ?? rig.trial;
      return project && { project, pose, list: gather(project, { of: 'rig', pose }), floor: floorUnder(project) };
    },
    overlay: () => ({
      ...NO_OVERLAY,
      ...handles.overlay(),
      ...(rig.of === 'part' ? { gizmo: mounts.drawn() } : {}),
      points: points(),
      ...(rig.swung
        ? {
            lattice: rig.swung.matrix,
            spots: rig.swung.open.map((at) => ({ at, tone: 'danger' as const, hot: false })),
            gizmo: null,
          }
        : {}),
    }),
    pointer,
    inHand: () => bonesExtent(session.view.chosen.bone),
    accepts: (what) => what.kind === 'part',
    drop(what, p) {
      const bone = handles.boneUnder(p),
        there = handles.mountUnder(p),
        mounted = what.ids.filter((id) => session.project!.rig.mounts.some((m) => m.part === id && m.bone !== null));
      if (bone) session.apply(mountPartsEdit, { pairs: what.ids.map((part) => ({ part, bone })) });
      else if (there) session.apply(tryPartEdit, { part: what.ids[0]!, instead: there });
      else if (mounted.length > 0)
        session.apply(
          each(mountPartEdit),
          mounted.map((part) => ({ part, bone: null })),
        );
      else notices.say(say('alternates.dropOnPart'), { kind: 'error' });
    },
    trail: () => [
      session.project?.name ?? '',
      ...(session.bone ? [session.bone.name + sideSuffix(session.bone.side)] : ['choose a bone']),
    ],
    chips: rigChips,
    readout: () => {
      const p = session.project,
        b = session.bone;
      return {
        left: [
          ['bones', String(p?.rig.bones.length ?? 0)],
          ['parts', String(p ? partsInUse(p.parts).length : 0)],
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
        right: '',
      };
    },
    tools: ['bones.look', 'controls.look', 'view.inset'],
    menu: ['rig.turn', 'rig.joint', 'rig.try', 'rig.limb', 'rig.reset'],
    commands: [
      ...rigCommands(),
      ...boneLookCommands(),
      {
        id: 'rig.cancel',
        title: 'Cancel what is under way, then let go of the bones',
        group: 'Rig',
        keys: ['Esc'],
        run: () => {
          const idle = !rig.extruding && session.preview === null && view.keyUser === null;
          rig.extruding = false;
          pointer.cancel();
          if (idle) session.choose({ bone: null });
        },
      },
    ],
    dispose() {
      rig.endTry();
      rig.extruding = false;
      rig.swung = null;
    },
  };
}

import { IconAnchor, IconChartLine, IconHandFinger, IconPointer, IconRotate3d, IconWalk } from '@tabler/icons-vue';
import { type Axis, type Vec3, invertQuat, length, mapVec, rotate, scale } from '@sphalerite/core/math';
import { type Bone, sideSuffix } from '@sphalerite/core/model';
import {
  addBoneEdit,
  addPoseTestEdit,
  alignJointsEdit,
  deleteBoneEdit,
  each,
  deleteUnmountedEdit,
  emptyRigEdit,
  flipRigEdit,
  limbChoice,
  mirrorRigEdit,
  restoreEdit,
  setRestEdit,
} from '@sphalerite/core/project';
import { nextTick } from 'vue';
import { type Command, runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { renameInHand } from '../shared/rename-in-hand';
import { useSession } from '../../stores/session';
import { useAnimate } from '../animate/animate-state';
import { makeLimb } from './limb';
import { useRig } from './rig-state';
import { all, need, needsBone, needsBones, needsParts, needsWriting } from '../../stores/needs';
import { say } from '../../words';

const AXES = ['X', 'Y', 'Z'] as const;

/** All that is done by command in Rig, but for letting go. */
export const rigCommands = (): Command[] => [
  ...handleCommands(),
  ...boneCommands(),
  ...sideCommands(),
  ...wholeCommands(),
];

const has = all(needsBone, needsWriting);

/** Makes a limb to the bone in hand, or asks which joint is its end where that is in doubt. */
function limb(): void {
  const session = useSession();
  const bone = session.bone!.id,
    { doubt, along } = limbChoice(session.project!, bone);
  if (doubt) useRig().dialog = 'limb';
  else makeLimb({ tip: bone, along });
}

/** Says what goes with a bone; the bin has all of it. */
function remove(): void {
  const session = useSession();
  const notices = useNotices();
  const b = session.bone!,
    had = session.project!.bin.length;
  const gone = session.view.chosen.bone.map((bone) => ({ bone }));
  if (!session.apply(each(deleteBoneEdit), gone)) return;
  const kept = session.project!.bin.slice(had).flatMap((item) => (item.kind === 'bone' ? [item.kept] : []));
  const sum = (of: (k: (typeof kept)[number]) => number): number => kept.reduce((n, k) => n + of(k), 0);
  const keysOf = ({ lanes }: (typeof kept)[number]): number =>
    lanes.reduce((n, l) => n + l.lane.move.length + l.lane.turn.length + l.lane.scale.length, 0);
  const along = (
    [
      ['bones.partsLoose', sum((k) => k.mounts.length)],
      ['keys', sum(keysOf)],
      ['bones.constraints', sum((k) => k.constraints.length)],
      ['bones.attachments', sum((k) => k.attachments.length)],
    ] as const
  ).flatMap(([key, n]) => (n > 0 ? [say(key, { n })] : []));
  const bone = b.name + sideSuffix(b.side);
  const what = gone.length > 1 ? say('bones.andMore', { bone, n: gone.length - 1 }) : say('bones.inBin', { bone });
  const items = session.project!.bin.slice(had).map((item) => item.id);
  notices.say(
    along.length > 0 ? say('bones.withAll', { what, list: along.join(', ') }) : say('bones.alone', { what }),
    {
      action: {
        label: 'Bring it back',
        run: () =>
          session.apply(
            each(restoreEdit),
            [...items].reverse().map((item) => ({ item })),
          ),
      },
    },
  );
}

/** Makes the reel and shows it moving. */
function reel(): void {
  const session = useSession();
  const anim = useAnimate();
  const notices = useNotices();
  if (!session.apply(addPoseTestEdit, { degrees: 45 }, (p) => ({ clip: p.clips.at(-1)!.id }))) return;
  void runCommand('go.animate')
    .then(() => nextTick())
    .then(() => anim.play(true))
    .catch(notices.fail);
}

/** What the handle of the bone in hand does. */
function handleCommands(): Command[] {
  const session = useSession();
  const rig = useRig();
  const hold = (handle: typeof rig.handle) => (): void => {
    rig.endTry();
    rig.handle = handle;
  };
  return [
    {
      id: 'rig.turn',
      title: 'Rotate the bone by rings',
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
      id: 'rig.study',
      title: 'Study the joint: gap and overlap over its swing',
      group: 'Rig',
      keys: ['K'],
      icon: IconChartLine,
      enabled: has,
      run: () => rig.studies++,
    },
    {
      id: 'rig.reset',
      title: 'Reset the rotation of what is chosen',
      group: 'Rig',
      keys: ['Shift+R'],
      enabled: has,
      run: () =>
        session.apply(
          each(setRestEdit),
          session.view.chosen.bone.map((bone) => ({ bone, rest: { q: [0, 0, 0, 1] as const } })),
        ),
    },
  ];
}

/** How far below its parent a bone begins. */
const BELOW = 4;
/** Where a bone below another begins: on in the direction that leads to that one, as seen from it. */
function onwards(b: Bone): Vec3 {
  const along = rotate(invertQuat(b.rest.q), b.rest.t);
  return length(along) < 1e-6
    ? [0, BELOW, 0]
    : mapVec(scale(along, BELOW / length(along)), (v) => Math.round(v * 2) / 2);
}

function boneCommands(): Command[] {
  const session = useSession();
  const rig = useRig();
  return [
    renameInHand('bone', 'Rig'),
    {
      id: 'bone.new',
      title: 'New bone below this one',
      group: 'Rig',
      keys: ['B'],
      enabled: needsWriting,
      run: () =>
        session.apply(
          addBoneEdit,
          { name: 'Bone', parent: session.bone?.id ?? null, t: session.bone ? onwards(session.bone) : [0, 0, 0] },
          (p) => ({ bone: p.rig.bones.at(-1)!.id }),
        ),
    },
    {
      id: 'bone.extrude',
      title: 'Set new bones by clicks in the view, each below the last',
      group: 'Rig',
      keys: ['Shift+B'],
      icon: IconPointer,
      enabled: needsWriting,
      on: () => rig.extruding,
      run: () => (rig.extruding = !rig.extruding),
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
    ...AXES.map((a, i): Command => ({
      id: `rig.align${a}`,
      title: `Align the joints below in ${a}`,
      group: 'Rig',
      enabled: has,
      run: () => session.apply(alignJointsEdit, { bone: session.bone!.id, axis: i as Axis }),
    })),
    {
      id: 'bone.delete',
      title: 'Delete the bone (to the bin)',
      group: 'Rig',
      keys: ['Delete'],
      enabled: has,
      run: remove,
    },
  ];
}

function sideCommands(): Command[] {
  const session = useSession();
  const mirror = (from: 'left' | 'right') => (): boolean => session.apply(mirrorRigEdit, { from, plane: 0 });
  return [
    {
      id: 'rig.mirrorLeft',
      title: 'Mirror the left side to the right',
      group: 'Rig',
      keys: ['M'],
      enabled: needsWriting,
      run: mirror('left'),
    },
    {
      id: 'rig.mirrorRight',
      title: 'Mirror the right side to the left',
      group: 'Rig',
      keys: ['Shift+M'],
      enabled: needsWriting,
      run: mirror('right'),
    },
    {
      id: 'rig.flip',
      title: 'Flip the whole rig: left becomes right',
      group: 'Rig',
      keys: ['Alt+M'],
      enabled: all(needsWriting, needsBones),
      run: () => session.apply(flipRigEdit, { plane: 0 }),
    },
  ];
}

/** What concerns the rig as a whole. */
function wholeCommands(): Command[] {
  const session = useSession();
  const rig = useRig();
  return [
    {
      id: 'rig.bring',
      title: 'Bring in a rig, or parts by their names…',
      group: 'Rig',
      keys: ['Ctrl+Shift+I'],
      enabled: needsWriting,
      run: () => (rig.dialog = 'bring'),
    },
    {
      id: 'rig.keep',
      title: 'Save as a ready rig…',
      group: 'Rig',
      enabled: needsBones,
      run: () => (rig.dialog = 'keep'),
    },
    {
      id: 'rig.unseal',
      title: 'Unseal the rig…',
      group: 'Rig',
      enabled: all(
        needsWriting,
        need(() => session.project?.seal !== null, 'the rig is not sealed'),
      ),
      run: () => (rig.dialog = 'unseal'),
    },
    {
      id: 'rig.empty',
      title: 'Empty the rig of its parts (to the bin)',
      group: 'Rig',
      enabled: all(needsWriting, needsParts),
      run: () => session.apply(emptyRigEdit, {}),
    },
    {
      id: 'rig.dropLoose',
      title: 'Delete every part that hangs on no bone (to the bin)',
      group: 'Rig',
      enabled: needsWriting,
      run: () => session.apply(deleteUnmountedEdit, {}),
    },
    {
      id: 'rig.ring',
      title: 'Build a ring of equal bars…',
      group: 'Rig',
      enabled: needsWriting,
      run: () => (rig.dialog = 'ring'),
    },
    {
      id: 'rig.reel',
      title: 'Pose-test reel: swing one joint after another',
      group: 'Rig',
      keys: ['Shift+K'],
      enabled: all(needsWriting, needsBones),
      run: reel,
    },
  ];
}

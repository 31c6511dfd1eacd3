import {
  IconAnchor,
  IconArrowsMaximize,
  IconChartLine,
  IconCube,
  IconHandFinger,
  IconRotate3d,
} from '@tabler/icons-vue';
import { addPoseTestEdit, deleteUnmountedEdit, each, emptyRigEdit, setRestEdit } from '@sphalerite/core/project';
import { nextTick } from 'vue';
import { type Command, runCommand } from '../../stores/commands';
import { all, need, needsBone, needsBones, needsParts, needsWriting } from '../../stores/needs';
import { useNotices } from '../../stores/notices';
import { useDialogs } from '../../stores/dialogs';
import { useSession } from '../../stores/session';
import { useAnimate } from '../animate/animate-state';
import { boneCommands, sideCommands } from './bone-commands';
import { useRig } from './rig-state';

/** All that is done by command in Rig, but for letting go. */
export const rigCommands = (): Command[] => [
  ...handleCommands(),
  ...boneCommands(),
  ...sideCommands(),
  ...wholeCommands(),
];

const has = all(needsBone, needsWriting);

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
    if (handle === 'try') rig.of = 'bone';
  };
  return [
    {
      id: 'rig.turn',
      title: 'Rotate the bone, or the part, by rings',
      group: 'Rig',
      keys: ['R'],
      icon: IconRotate3d,
      on: () => rig.handle === 'turn',
      run: hold('turn'),
    },
    {
      id: 'rig.joint',
      title: 'Move by arrows: the joint, parts keeping their place, or the part',
      group: 'Rig',
      keys: ['J'],
      icon: IconAnchor,
      on: () => rig.handle === 'joint',
      run: hold('joint'),
    },
    {
      id: 'rig.scale',
      title: 'Scale the bone, or the part, by pulling',
      group: 'Rig',
      keys: ['W'],
      icon: IconArrowsMaximize,
      on: () => rig.handle === 'scale',
      run: hold('scale'),
    },
    {
      id: 'rig.ofPart',
      title: 'Handles on the part instead of its bone',
      group: 'Rig',
      keys: ['P'],
      icon: IconCube,
      on: () => rig.of === 'part',
      run: () => {
        rig.of = rig.of === 'part' ? 'bone' : 'part';
        if (rig.of === 'part' && rig.handle === 'try') hold('joint')();
      },
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
      run: () => (useDialogs().pieces = 'bones'),
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

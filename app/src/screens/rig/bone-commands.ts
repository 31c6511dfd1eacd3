import { IconPointer, IconWalk } from '@tabler/icons-vue';
import { type Axis, type Vec3, invertQuat, length, mapVec, rotate, scale } from '@sphalerite/core/math';
import { type Bone, type Side, sideSuffix } from '@sphalerite/core/model';
import {
  addBoneEdit,
  addPartEdit,
  alignJointsEdit,
  deleteBoneEdit,
  each,
  flipRigEdit,
  insertBoneEdit,
  limbChoice,
  mirrorRigEdit,
  mountPartEdit,
  reparentBoneEdit,
  restoreEdit,
  setSideEdit,
} from '@sphalerite/core/project';
import { restWorld } from '@sphalerite/core/rig';
import type { Command } from '../../stores/commands';
import { all, need, needsBone, needsBones, needsWriting } from '../../stores/needs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useWayBack } from '../../stores/way-back';
import { say } from '../../words';
import { openPartCommand, partOn } from '../shared/open-part';
import { nameInPlace, renameByRule, renameInHand } from '../shared/rename-in-hand';
import { makeLimb } from './limb';
import { useRig } from './rig-state';

const AXES = ['X', 'Y', 'Z'] as const;
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

/** How far below its parent a bone begins. */
const BELOW = 4;
/** Where a bone below another begins: on in the direction that leads to that one, as seen from it. */
function onwards(b: Bone): Vec3 {
  const along = rotate(invertQuat(b.rest.q), b.rest.t);
  return length(along) < 1e-6
    ? [0, BELOW, 0]
    : mapVec(scale(along, BELOW / length(along)), (v) => Math.round(v * 2) / 2);
}

/** A bone above those that are chosen, or above all that hang on nothing. */
function above(): void {
  const session = useSession();
  const chosen = session.view.chosen.bone;
  const roots = session.project!.rig.bones.filter((b) => b.parent === null).map((b) => b.id);
  const bones = chosen.length > 0 ? chosen : roots;
  session.apply(insertBoneEdit, { bones, name: chosen.length > 0 ? 'Bone' : 'Root' }, (p) => ({
    bone: p.rig.bones.find((b) => !session.project!.rig.bones.some((o) => o.id === b.id))!.id,
  }));
}

/** A part of sixteen cubes around the joint, its pivot in it, upright whichever way the bone is turned; its name is asked in Build. */
async function partOnBone(): Promise<void> {
  const session = useSession();
  const bone = session.bone!,
    stand = restWorld(session.project!.rig).get(bone.id)!;
  const SIZE = 16;
  const made = session.apply(
    addPartEdit,
    {
      name: bone.name,
      side: bone.side,
      bone: bone.id,
      bounds: { min: [-SIZE / 2, -SIZE / 2, -SIZE / 2], size: [SIZE, SIZE, SIZE] },
      // The lattice is that of the world as far as half cubes allow.
      pivot: mapVec(stand.t, (v) => Math.round(2 * (v - Math.round(v)))),
      turn: invertQuat(stand.q),
    },
    (p) => ({ part: p.parts.at(-1)!.id, layer: null }),
  );
  if (!made) return;
  await useWayBack().open(session.part!.id);
  nameInPlace(session.part!.id);
}

const SIDES: readonly Side[] = ['left', 'centre', 'right'];

/** Bones are made, hung, named, told apart and deleted. */
export function boneCommands(): Command[] {
  const session = useSession();
  const rig = useRig();
  return [
    renameInHand('bone', 'Rig'),
    renameByRule('bone', 'Rig'),
    openPartCommand('Rig'),
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
      id: 'bone.above',
      title: 'New bone above this one, or above everything',
      group: 'Rig',
      keys: ['Ctrl+B'],
      enabled: all(needsBones, needsWriting),
      run: above,
    },
    {
      id: 'bone.duplicate',
      title: 'Duplicate the bone, with what hangs on it…',
      group: 'Rig',
      keys: ['Ctrl+D'],
      enabled: has,
      run: () => (rig.dialog = 'duplicate'),
    },
    {
      id: 'bone.partNew',
      title: 'New part on this bone',
      group: 'Rig',
      keys: ['Shift+N'],
      enabled: has,
      run: partOnBone,
    },
    {
      id: 'part.unmount',
      title: 'Unmount the part on this bone',
      group: 'Rig',
      enabled: all(
        has,
        need(() => partOn(session.bone!.id) !== null, 'nothing hangs on this bone'),
      ),
      run: () => session.apply(mountPartEdit, { part: partOn(session.bone!.id)!, bone: null }),
    },
    {
      id: 'bone.root',
      title: 'Hang the bone on nothing',
      group: 'Rig',
      enabled: has,
      run: () =>
        session.apply(
          each(reparentBoneEdit),
          session.view.chosen.bone.map((bone) => ({ bone, parent: null })),
        ),
    },
    ...SIDES.map((side): Command => ({
      id: `bone.side.${side}`,
      title: side === 'centre' ? 'The bone is of the middle' : `The bone is of the ${side} side`,
      group: 'Rig',
      enabled: has,
      on: () => session.bone?.side === side,
      run: () => session.apply(setSideEdit, { of: 'bones', ids: session.view.chosen.bone, side }),
    })),
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

/** One side from the other, and mirror images. */
export function sideCommands(): Command[] {
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
    ...AXES.slice(1).map((name, i): Command => ({
      id: `rig.flip${name}`,
      title: name === 'Y' ? 'Flip the whole rig: up becomes down' : 'Flip the whole rig: front becomes back',
      group: 'Rig',
      enabled: all(needsWriting, needsBones),
      run: () => session.apply(flipRigEdit, { plane: 0, axis: (i + 1) as Axis }),
    })),
    ...AXES.map((name, i): Command => ({
      id: `bone.flip${name}`,
      title: `Flip this bone and what hangs on it across ${name}`,
      group: 'Rig',
      enabled: has,
      run: () => {
        const bone = session.bone!.id;
        // In its own joint, so that it stays where it is.
        session.apply(flipRigEdit, { plane: restWorld(session.project!.rig).get(bone)!.t[i]!, axis: i as Axis, bone });
      },
    })),
  ];
}

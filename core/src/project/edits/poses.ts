import type { Transform } from '../../math';
import { type Channel, type Id, type Project, type SavedPose, find, freeName, must, replaceRecord } from '../../model';
import { type CopiedKeys, mirroredKeys } from '../../motion';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';

/** A pose says how bones stand, not how often they have spun. */
type PoseChannel = Exclude<Channel, 'hinge'>;
const POSED: readonly PoseChannel[] = ['move', 'turn', 'scale'];
const FIELD: Record<PoseChannel, keyof Transform> = { move: 't', turn: 'q', scale: 's' };
const AT_REST: Record<PoseChannel, string> = { move: '0,0,0', turn: '0,0,0,1', scale: '1,1,1' };

/** A saved pose as keys at one moment. Channels at rest are keyed for turns alone, so that a pose undoes what another did. */
export function poseKeys(pose: Pick<SavedPose, 'bones'>, project: Project, mirrored: boolean): CopiedKeys {
  const keys = pose.bones.flatMap(({ bone, offset }) =>
    POSED.filter((c) => c === 'turn' || offset[FIELD[c]].join() !== AT_REST[c]).map((channel) => ({
      bone,
      channel,
      key: { time: 0, ease: 'ease' as const, value: offset[FIELD[channel]] },
    })),
  );
  return mirrored ? mirroredKeys({ keys }, project.rig) : { keys };
}

/** Keeps a pose on the shelf: offsets from rest of the bones that are meant. */
export const savePoseEdit = defineEdit<{ name: string; bones: SavedPose['bones'] }>({
  name: 'savePose',
  label: (a) => `Keep pose ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const bones = a.bones.filter((b) => find(project.rig.bones, b.bone));
    if (bones.length === 0) throw new EditError('poses.none');
    return {
      ...project,
      poses: [
        ...project.poses,
        {
          id: ctx.newId(),
          name: freeName(
            checkName(a.name),
            project.poses.map((p) => p.name),
          ),
          bones,
        },
      ],
    };
  },
});

export const renamePoseEdit = defineEdit<{ pose: Id; name: string }>({
  name: 'renamePose',
  label: (a) => `Rename a pose to ${a.name}`,
  touches: (a) => [a.pose],
  run(project, a) {
    const pose = must(project.poses, a.pose, 'pose'),
      name = freeName(
        checkName(a.name),
        project.poses.filter((p) => p !== pose).map((p) => p.name),
      );
    return name === pose.name ? project : { ...project, poses: replaceRecord(project.poses, { ...pose, name }) };
  },
});

export const deletePoseEdit = defineEdit<{ pose: Id }>({
  name: 'deletePose',
  label: (a, p) => `Delete pose ${find(p.poses, a.pose)?.name ?? ''}`,
  touches: (a) => [a.pose],
  run: (project, a) => ({ ...project, poses: project.poses.filter((p) => p !== must(project.poses, a.pose, 'pose')) }),
});

import { type Axis, AXIS_NAMES, sub, withAxis } from '../../math';
import { type Id, PLAIN_CLIP, find, freeName, must, replaceRecord } from '../../model';
import { poseTest } from '../../motion';
import { bonesInOrder, moveJoint, restWorld } from '../../rig';
import { EditError, defineEdit } from '../edit';
import { branchOf } from '../mounting';

/** Lays the joints of a whole branch into one plane through its first, so that chains lie straight; parts keep their place. */
export const alignJointsEdit = defineEdit<{ bone: Id; axis: Axis }>({
  name: 'alignJoints',
  risky: () => true,
  label: (a, p) => `Align the joints below ${find(p.rig.bones, a.bone)?.name ?? 'a bone'} in ${AXIS_NAMES[a.axis]}`,
  touches: (a) => [a.bone],
  run(project, a) {
    const at = restWorld(project.rig).get(must(project.rig.bones, a.bone, 'bone').id)!.t[a.axis];
    const branch = branchOf(project, a.bone);
    let rig = project.rig,
      parts = project.parts;
    for (const b of bonesInOrder(project.rig)) {
      if (b.id === a.bone || !branch.has(b.id)) continue;
      const now = restWorld(rig).get(b.id)!.t,
        delta = sub(withAxis(now, a.axis, at), now);
      if (delta[a.axis] !== 0) ({ rig, parts } = moveJoint(rig, parts, b.id, delta));
    }
    return rig === project.rig ? project : { ...project, rig, parts };
  },
});

/** The colour of a bone's lane, and whether it goes into exported files. */
export const markBoneEdit = defineEdit<{ bone: Id; colour?: string | null; ships?: boolean }>({
  name: 'markBone',
  label: (a, p) =>
    `${a.ships === undefined ? 'Colour the lane of' : a.ships ? 'Ship' : 'Keep from files'} ${find(p.rig.bones, a.bone)?.name ?? 'a bone'}`,
  touches: (a) => [a.bone],
  run(project, a) {
    const bone = must(project.rig.bones, a.bone, 'bone');
    if (a.colour && !/^#[0-9a-f]{6}$/.test(a.colour)) throw new EditError('joints.colour', { colour: a.colour });
    if (a.ships === false && project.rig.mounts.some((m) => m.bone === bone.id))
      throw new EditError('joints.carries', { bone: bone.name });
    const next = { ...bone, colour: a.colour === undefined ? bone.colour : a.colour, ships: a.ships ?? bone.ships };
    if (next.colour === bone.colour && next.ships === bone.ships) return project;
    return { ...project, rig: { ...project.rig, bones: replaceRecord(project.rig.bones, next) } };
  },
});

/** A clip that swings one joint after another, to look at how each bends. It stays at home. */
export const addPoseTestEdit = defineEdit<{ degrees: number }>({
  name: 'addPoseTest',
  label: () => 'Pose-test reel',
  touches: () => [],
  run(project, a, ctx) {
    if (!(a.degrees > 0 && a.degrees <= 170)) throw new EditError('joints.swing');
    const reel = poseTest(project.rig, a.degrees);
    if (!reel) throw new EditError('joints.nothingMounted');
    return {
      ...project,
      clips: [
        ...project.clips,
        {
          ...PLAIN_CLIP,
          ...reel,
          ships: false,
          id: ctx.newId(),
          name: freeName(
            'Pose test',
            project.clips.map((c) => c.name),
          ),
        },
      ],
    };
  },
});

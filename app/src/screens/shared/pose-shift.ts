import { type Quat, type Transform, type Vec3, add, decompose, invertQuat, rotate } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { type Pose, worldMatrices } from '@sphalerite/core/rig';

/** The local place of a bone in a pose. */
export const localOf = (project: Project, pose: Pose, bone: string): Transform =>
  pose.get(bone) ?? project.rig.bones.find((b) => b.id === bone)!.rest;

/** Where a bone's local place is after a shift in rig space, under its parent as that is posed. */
export function shifted(project: Project, pose: Pose, bone: string, delta: Vec3): Transform {
  const local = localOf(project, pose, bone),
    parent = project.rig.bones.find((b) => b.id === bone)!.parent;
  const q: Quat = parent === null ? [0, 0, 0, 1] : decompose(worldMatrices(project.rig, pose).get(parent)!).q;
  return { ...local, t: add(local.t, rotate(invertQuat(q), delta)) };
}

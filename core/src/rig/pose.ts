import { type Mat4, MAT4_IDENTITY, type Transform, matrixOf, mulMat, translation, scale as scaleVec } from '../math';
import { solvePose } from './constraints';
import { type Bone, type Id, type Mount, type Part, type Project, type Rig, find, isWorn, pivotPoint } from '../model';

/** Local transforms that differ from rest, by bone. */
export type Pose = ReadonlyMap<Id, Transform>;
export const REST_POSE: Pose = new Map();

/** Bones so that every parent stands before its children; those of a broken tree come last. */
export function bonesInOrder(rig: Rig): Bone[] {
  const children = childrenOf(rig);
  const out: Bone[] = [];
  const visit = (parent: Id | null): void => {
    for (const b of children.get(parent) ?? []) {
      out.push(b);
      visit(b.id);
    }
  };
  visit(null);
  return out;
}

export function childrenOf(rig: Rig): Map<Id | null, Bone[]> {
  const map = new Map<Id | null, Bone[]>();
  for (const b of rig.bones) {
    const list = map.get(b.parent);
    if (list) list.push(b);
    else map.set(b.parent, [b]);
  }
  return map;
}

/** The matrix of every bone in rig space (world = parent · local), from its pose or its rest, constraints solved. */
export function worldMatrices(rig: Rig, pose: Pose = REST_POSE): Map<Id, Mat4> {
  const world = new Map<Id, Mat4>(),
    solved = solvePose(rig, pose);
  for (const b of bonesInOrder(rig)) {
    const local = matrixOf(solved.get(b.id) ?? b.rest);
    const parent = b.parent === null ? undefined : world.get(b.parent);
    world.set(b.id, parent ? mulMat(parent, local) : local);
  }
  return world;
}

/** Takes points of the part's lattice (in cubes) to the space of the mount's bone. */
export function mountMatrix(mount: Mount, part: Part): Mat4 {
  const toBone = matrixOf({ t: mount.t, q: mount.q, s: scaleVec(mount.s, part.cell) });
  return mulMat(toBone, translation(scaleVec(pivotPoint(part), -1)));
}

/** A part as it stands. */
export interface PlacedPart {
  readonly part: Part;
  readonly mount: Mount;
  /** Takes points of the part's lattice to rig space. */
  readonly matrix: Mat4;
}

/**
 * Every visible, mounted or loose part where the pose puts it.
 *
 * @param alternates – of a set, only what is worn, or all
 */
export function placeParts(
  project: Project,
  pose: Pose = REST_POSE,
  alternates: 'worn' | 'all' = 'worn',
): PlacedPart[] {
  const world = worldMatrices(project.rig, pose);
  const out: PlacedPart[] = [];
  for (const mount of project.rig.mounts) {
    const part = find(project.parts, mount.part);
    if (!part || part.hidden || (alternates === 'worn' && !isWorn(project.rig, mount))) continue;
    const bone = mount.bone === null ? MAT4_IDENTITY : (world.get(mount.bone) ?? MAT4_IDENTITY);
    out.push({ part, mount, matrix: mulMat(bone, mountMatrix(mount, part)) });
  }
  return out;
}

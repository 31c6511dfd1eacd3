import {
  type Axis,
  type Mat4,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  decompose,
  invertQuat,
  matrixOf,
  mulMat,
  mulQuat,
  quatFromAxisAngle,
  relativeTransform,
  rotate,
  scale,
  sub,
  transformPoint,
  translation,
  mapVec,
} from '../math';
import { type Id, type Part, type Project, composite, isWorn, must } from '../model';
import { restWorld } from '../rig';
import { CellSet } from '../voxel';
import { EditError } from './edit';
import { latticeShift } from './edits/join-parts';

/** A joint with the cubes on both its sides, in the lattice of the limb's first part. */
export interface JointCells {
  readonly limb: CellSet;
  readonly body: CellSet;
  /** Where it turns now, in half cubes. */
  readonly now: Vec3;
  /** Takes the lattice to rig space at rest. */
  readonly matrix: Mat4;
  /** A shift of so many half cubes, in rig space. */
  shift(halves: Vec3): Vec3;
}

/** The joint of a bone: what is mounted on it, against what is mounted on the bone above. @throws EditError when there is nothing to study */
export function jointOf(project: Project, id: Id): JointCells {
  const bone = must(project.rig.bones, id, 'bone');
  const on = (b: Id | null): Part[] =>
    project.rig.mounts
      .filter((m) => b !== null && m.bone === b && isWorn(project.rig, m))
      .map((m) => must(project.parts, m.part, 'part'))
      .filter((p) => !p.hidden && composite(p).count > 0);
  const limbs = on(id),
    bodies = on(bone.parent);
  const home = limbs[0];
  if (!home) throw new EditError('joint.noLimb', { bone: bone.name });
  if (bodies.length === 0) throw new EditError('joint.noBody', { bone: bone.name });
  const gathered = (list: readonly Part[]): CellSet =>
    list
      .map((p) => CellSet.filled(composite(p)).moved(p === home ? [0, 0, 0] : latticeShift(project, home, p)))
      .reduce((a, b) => a.union(b));
  const world = restWorld(project.rig),
    mount = project.rig.mounts.find((m) => m.part === home.id)!;
  const frame: Transform = composeTransform(world.get(mount.bone!) ?? TRANSFORM_IDENTITY, mount);
  const half = 2 / home.cell;
  const now = mapVec(relativeTransform(frame, world.get(id)!).t, (v, i) => Math.round(v * half + home.pivot[i]!));
  return {
    limb: gathered(limbs),
    body: gathered(bodies),
    now,
    matrix: mulMat(matrixOf({ ...frame, s: scale(frame.s, home.cell) }), translation(scale(home.pivot, -0.5))),
    shift: (h) => rotate(frame.q, scale(h, home.cell / 2)),
  };
}

/** Where the limb's bone stands, below its parent, when it is swung about a pivot (half cubes of the joint's lattice) instead of its joint. */
export function swungAt(
  project: Project,
  id: Id,
  joint: JointCells,
  pivot: Vec3,
  axis: Axis,
  degrees: number,
): Transform {
  const bone = must(project.rig.bones, id, 'bone'),
    world = restWorld(project.rig);
  const frame = decompose(joint.matrix),
    at = transformPoint(joint.matrix, scale(pivot, 0.5));
  const way: Vec3 = [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];
  const q = mulQuat(mulQuat(frame.q, quatFromAxisAngle(way, (degrees * Math.PI) / 180)), invertQuat(frame.q));
  const was = world.get(id)!,
    is = { ...was, q: mulQuat(q, was.q), t: add(at, rotate(q, sub(was.t, at))) };
  return relativeTransform(bone.parent === null ? TRANSFORM_IDENTITY : world.get(bone.parent)!, is);
}

import {
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  composeTransform,
  dot,
  length,
  mul,
  rotate,
  sub,
  mapVec,
} from '../math';
import {
  type Bone,
  type Id,
  type Part,
  type Project,
  find,
  looseParts,
  makeMount,
  partContent,
  pivotPoint,
} from '../model';
import { restWorld } from '../rig';

/** A bone for a part, with the reason. */
export interface MountProposal {
  readonly part: Part;
  readonly bone: Bone;
  readonly why: 'same name' | 'like name' | 'nearest';
}

const words = (name: string): string[] =>
  name
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter(Boolean);

/** The middle of what a part holds, where it stands at rest. */
export function partMiddle(project: Project, part: Part, world = restWorld(project.rig)): Vec3 {
  const m = project.rig.mounts.find((o) => o.part === part.id) ?? makeMount('', part.id, null);
  const frame: Transform = composeTransform(
    m.bone === null ? TRANSFORM_IDENTITY : (world.get(m.bone) ?? TRANSFORM_IDENTITY),
    m,
  );
  const box = partContent(part) ?? part.bounds;
  const local = mul(
    sub(
      mapVec(box.min, (v, i) => v + box.size[i]! / 2),
      pivotPoint(part),
    ),
    mapVec(frame.s, (s) => s * part.cell),
  );
  const r = rotate(frame.q, local);
  return [r[0] + frame.t[0], r[1] + frame.t[1], r[2] + frame.t[2]];
}

function toSegment(p: Vec3, a: Vec3, b: Vec3): number {
  const ab = sub(b, a),
    l = dot(ab, ab);
  const t = l === 0 ? 0 : Math.max(0, Math.min(1, dot(sub(p, a), ab) / l));
  return length(sub(p, [a[0] + ab[0] * t, a[1] + ab[1] * t, a[2] + ab[2] * t]));
}

/**
 * A bone for each part that hangs on none: the one of its name and side, one whose name shares a word with it, or the nearest of its
 * side, measured to the bone from its joint to those below. Controls carry nothing and are left out.
 */
export function proposeMounts(project: Project): MountProposal[] {
  const { bones, mounts, constraints } = project.rig;
  const steering = new Set(
    constraints.flatMap((c) => (c.kind === 'ik' ? [c.goal, c.pole] : c.kind === 'look' ? [c.target] : [])),
  );
  const open = bones.filter((b) => !steering.has(b.id));
  if (open.length === 0) return [];
  const world = restWorld(project.rig);
  const carries = (b: Id): boolean => mounts.some((m) => m.bone === b);
  return looseParts(project)
    .filter((p) => !p.hidden)
    .map((part): MountProposal => {
      const at = partMiddle(project, part, world);
      const far = (b: Bone): number => {
        const joint = world.get(b.id)!.t,
          below = bones.filter((o) => o.parent === b.id);
        return Math.min(length(sub(at, joint)), ...below.map((o) => toSegment(at, joint, world.get(o.id)!.t)));
      };
      const nearest = (list: readonly Bone[]): Bone | undefined => [...list].sort((a, b) => far(a) - far(b))[0];
      const sided = open.filter((b) => part.side === 'centre' || b.side === 'centre' || b.side === part.side);
      const same =
        sided.find((b) => b.name === part.name && b.side === part.side) ?? sided.find((b) => b.name === part.name);
      if (same) return { part, bone: same, why: 'same name' };
      const mine = new Set(words(part.name));
      const like = nearest(sided.filter((b) => words(b.name).some((w) => mine.has(w))));
      if (like) return { part, bone: like, why: 'like name' };
      // Bones that carry nothing yet wait for something, as far as they are about as near.
      const all = sided.length > 0 ? sided : open,
        first = nearest(all)!,
        empty = nearest(all.filter((b) => !carries(b.id)));
      return { part, bone: empty && far(empty) < far(first) * 1.5 + 1 ? empty : first, why: 'nearest' };
    });
}

/** The bones below a bone, itself included. */
export function branchOf(project: Project, id: Id): Set<Id> {
  const out = new Set<Id>();
  const visit = (b: Id): void => {
    out.add(b);
    for (const o of project.rig.bones) if (o.parent === b) visit(o.id);
  };
  if (find(project.rig.bones, id)) visit(id);
  return out;
}

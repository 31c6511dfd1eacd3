import { say } from '../words';
import { length, sub } from '../math';
import {
  type Id,
  type Project,
  composite,
  partContent,
  partsInUse,
  sideSuffix,
  steeringBones,
  usersOfParts,
} from '../model';
import { restWorld } from '../rig';
import { branchOf, partMiddle } from './mounting';

/** Steps of the work that a finding leads to. */
export type CheckStep = 'build' | 'rig' | 'animate';

/** Something that would trouble an artist later, in plain words, with where to mend it. */
export interface Finding {
  readonly text: string;
  readonly step: CheckStep;
  /** The record it is about. */
  readonly id: Id;
}

const quoted = (r: { name: string; side: Parameters<typeof sideSuffix>[0] }): string =>
  `“${r.name}${sideSuffix(r.side)}”`;

/** Parts on no bone or on two, or far from it; bones that carry nothing or stand on the wrong side; sides that differ; too many bones. */
export function checkRig(project: Project): Finding[] {
  const { bones, mounts } = project.rig;
  const controls = steeringBones(project.rig);
  const out: Finding[] = [];
  const world = restWorld(project.rig),
    placed = usersOfParts(project.scenes);
  for (const part of partsInUse(project.parts)) {
    const mine = mounts.filter((m) => m.part === part.id && m.bone !== null),
      on = mine.length;
    // What stands in a scene is no part of the figure.
    if (bones.length > 0 && on === 0 && !placed.has(part.id))
      out.push({ text: say('checks.unmounted', { part: quoted(part) }), step: 'rig', id: part.id });
    // Side by side it is meant, as the bars of a ring; on two bones of one branch it is a slip.
    const branch = (a: Id): Set<Id> => branchOf(project, a);
    if (mine.some((m) => mine.some((o) => o !== m && branch(m.bone!).has(o.bone!))))
      out.push({ text: say('checks.mountedTwice', { part: quoted(part), on }), step: 'rig', id: part.id });
  }
  for (const b of bones) {
    // A control carries nothing: it steers.
    if (!mounts.some((m) => m.bone === b.id) && !bones.some((o) => o.parent === b.id) && !controls.has(b.id))
      out.push({ text: say('checks.carriesNothing', { bone: quoted(b) }), step: 'rig', id: b.id });
  }
  for (const b of bones) {
    const at = world.get(b.id)!.t;
    // The character's own left is +X.
    if (b.side !== 'centre' && Math.abs(at[0]) > 0.5 && at[0] > 0 !== (b.side === 'left'))
      out.push({ text: say('checks.otherSide', { bone: quoted(b) }), step: 'rig', id: b.id });
  }
  for (const m of mounts) {
    const part = project.parts.find((p) => p.id === m.part),
      joint = m.bone === null ? undefined : world.get(m.bone);
    const box = part && partContent(part);
    if (!part || !joint || !box || part.hidden) continue;
    const far = length(sub(partMiddle(project, part, world), joint.t)),
      wide = Math.hypot(...box.size) * part.cell * Math.max(...m.s);
    if (far > 2 * wide + 4)
      out.push({
        text: say('checks.farFromJoint', { part: quoted(part), bone: quoted(bones.find((b) => b.id === m.bone)!) }),
        step: 'rig',
        id: part.id,
      });
  }
  for (const p of project.parts) {
    const other =
      p.side === 'right' && !p.twin && !p.hidden
        ? project.parts.find((o) => o.side === 'left' && o.name === p.name && !o.twin && !o.hidden)
        : undefined;
    // A few cubes are a slip; more are meant, such as a hand that grips.
    const odd = other ? Math.abs(composite(other).count - composite(p).count) : 0;
    if (other && odd > 0 && odd <= 2 + 0.02 * composite(p).count)
      out.push({
        text: say('checks.sidesDiffer', { part: quoted(p), n: composite(p).count, other: composite(other).count }),
        step: 'rig',
        id: p.id,
      });
  }
  const most = project.target.bones;
  if (most > 0 && bones.length > most)
    out.push({ text: say('checks.tooManyBones', { n: bones.length, most }), step: 'rig', id: bones[0]!.id });
  return out;
}

/** All that a game file would leave out or that would stand still in it. */
export function checkProject(project: Project): Finding[] {
  return [
    ...checkRig(project),
    ...partsInUse(project.parts)
      .filter((p) => composite(p).count === 0)
      .map((p): Finding => ({ text: say('checks.empty', { part: quoted(p) }), step: 'build', id: p.id })),
    ...project.clips
      .filter((c) => c.ships && c.lanes.length + c.swaps.length === 0)
      .map((c): Finding => ({
        text: say('checks.noKeys', { clip: c.name }),
        step: 'animate',
        id: c.id,
      })),
  ];
}

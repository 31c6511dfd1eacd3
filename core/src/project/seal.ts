import type { Vec3 } from '../math';
import { type Bone, type Constraint, type Id, type Project, type Seal, find, sideSuffix } from '../model';
import { restWorld } from '../rig';
import type { Params, WordKey } from '../words';
import { EditError } from './edit-error';

/** What a sealed rig keeps: every bone with its joint within `range` project units of where it stands, and every clip. */
export function sealOf(project: Project, name: string, range: number): Seal {
  const world = restWorld(project.rig);
  return {
    rig: name,
    bones: project.rig.bones.map((b) => ({ bone: b.id, at: world.get(b.id)!.t, range })),
    clips: project.clips.map((c) => c.id),
  };
}

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
const fixed = (b: Bone): unknown => [b.name, b.side, b.parent, b.rest.q, b.rest.s];
const near = (a: Vec3, b: Vec3, by: number): boolean => a.every((v, i) => Math.abs(v - b[i]!) <= by + 1e-6);

/**
 * The project after an edit, when it keeps what the seal of the one before keeps: bones, constraints of theirs, joints within their
 * range, clips. It is the outcome that is looked at, so that no edit, present or to come, can break a sealed rig by accident.
 *
 * @throws EditError with what would break and what to do
 */
export function keepSeal(before: Project, after: Project): Project {
  const seal = before.seal;
  if (!seal || !after.seal || before === after) return after;
  const refuse = (code: WordKey, params: Params = {}): never => {
    throw new EditError(code, { ...params, rig: seal.rig });
  };
  if (before.rig.bones !== after.rig.bones) {
    const world = restWorld(after.rig);
    for (const { bone, at, range } of seal.bones) {
      const was = find(before.rig.bones, bone),
        is = find(after.rig.bones, bone);
      if (!was) continue;
      const name = was.name + sideSuffix(was.side);
      if (!is) return refuse('seal.bone', { bone: name });
      if (was !== is && !same(fixed(was), fixed(is))) refuse('seal.boneKept', { bone: name });
      if (!near(world.get(bone)!.t, at, range)) refuse('seal.joint', { bone: name, range });
    }
  }
  if (before.rig.constraints !== after.rig.constraints) {
    const sealed = new Set(seal.bones.map((b) => b.bone));
    const kept = (list: readonly Constraint[]): Constraint[] => list.filter((c) => sealed.has(c.bone));
    if (!same(kept(before.rig.constraints), kept(after.rig.constraints))) refuse('seal.steers');
  }
  if (before.clips !== after.clips) {
    for (const id of seal.clips) {
      const was = find(before.clips, id);
      if (was && !same(was, find(after.clips, id))) refuse('seal.clip', { clip: was.name });
    }
  }
  return after;
}

/** What of a project the seal keeps, for lists of what unsealing lays open. */
export const sealedClips = (project: Project): Id[] =>
  (project.seal?.clips ?? []).filter((id) => find(project.clips, id));

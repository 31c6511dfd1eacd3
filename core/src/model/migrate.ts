import { constraintTargets } from './constraints';
import { type ProjectJson, projectSchema } from './schema';
import { FormatError, upgrade } from './upgrade';

/** Brings JSON of any known version to this one and checks it. @throws FormatError */
export function migrateProject(json: unknown): ProjectJson {
  const parsed = projectSchema.safeParse(upgrade(json));
  if (!parsed.success) {
    const first = parsed.error.issues[0]!;
    throw new FormatError(
      'broken',
      `The project is damaged at ${first.path.join(' › ') || 'its start'}: ${first.message}.`,
    );
  }
  checkReferences(parsed.data);
  return parsed.data;
}

/** Ids are unique and point to something; bones have no circle. */
function checkReferences(p: ProjectJson): void {
  const broken = (m: string): never => {
    throw new FormatError('broken', `The project is damaged: ${m}.`);
  };
  const ids = (what: string, list: readonly { id: string }[]): Set<string> => {
    const set = new Set(list.map((r) => r.id));
    if (set.size !== list.length) broken(`two ${what} have the same id`);
    return set;
  };
  const palettes = ids('palettes', p.palettes);
  const parts = ids('parts', p.parts);
  const bones = ids('bones', p.rig.bones);
  ids('clips', p.clips);
  ids('shots', p.shots);
  ids('colourways', p.colourways);
  for (const c of p.colourways)
    for (const o of c.changes)
      if (!palettes.has(o.palette)) broken(`colourway "${c.name}" changes a palette that is not there`);
  for (const part of p.parts)
    if (!palettes.has(part.palette)) broken(`part "${part.name}" uses a palette that is not there`);
  for (const part of p.parts) {
    if (part.twin && !parts.has(part.twin.source)) broken(`part "${part.name}" follows a part that is not there`);
    if (part.twin && p.parts.some((o) => o.id === part.twin!.source && o.twin))
      broken(`part "${part.name}" follows a part that follows another`);
  }
  ids('stamps', p.stamps);
  for (const s of p.stamps) if (!palettes.has(s.palette)) broken(`stamp "${s.name}" uses a palette that is not there`);
  ids('reference pictures', p.references);
  for (const r of p.references)
    if (!parts.has(r.part)) broken(`reference picture "${r.name}" belongs to a part that is not there`);
  for (const m of p.rig.mounts)
    if (!parts.has(m.part) || (m.bone !== null && !bones.has(m.bone)))
      broken('a mount names a part or bone that is not there');
  const alternateSets = ids('sets of alternates', p.rig.alternateSets),
    mounts = ids('mounts', p.rig.mounts);
  for (const m of p.rig.mounts)
    if (m.alternateSet !== null && !alternateSets.has(m.alternateSet))
      broken('a mount names a set of alternates that is not there');
  for (const s of p.rig.alternateSets)
    if (s.worn !== null && !mounts.has(s.worn))
      broken(`the set of alternates "${s.name}" wears a part that is not there`);
  ids('poses', p.poses);
  ids('constraints', p.rig.constraints);
  ids('attachment points', p.rig.attachments);
  for (const t of p.rig.attachments)
    if (!bones.has(t.bone)) broken(`attachment point "${t.name}" is on a bone that is not there`);
  for (const c of p.rig.constraints)
    for (const bone of [c.bone, ...constraintTargets(c)])
      if (!bones.has(bone)) broken('a constraint names a bone that is not there');
  const parent = new Map(p.rig.bones.map((b) => [b.id, b.parent]));
  for (const b of p.rig.bones) {
    let steps = 0;
    for (let at: string | null | undefined = b.id; at !== null; at = parent.get(at ?? '')) {
      if (at === undefined) broken(`bone "${b.name}" hangs on a bone that is not there`);
      if (++steps > p.rig.bones.length) broken(`the bones above "${b.name}" form a circle`);
    }
  }
}

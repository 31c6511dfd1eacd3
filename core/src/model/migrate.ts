import { NO_TARGET, PLAIN_BONE, PLAIN_CLIP, PLAIN_PART } from './defaults';
import { constraintTargets } from './constraints';
import { FORMAT_VERSION } from './format-version';
import { type ProjectJson, projectSchema } from './schema';

/** The stored project cannot be read; the message says what is wrong and where. */
export class FormatError extends Error {
  override readonly name = 'FormatError';
  constructor(
    readonly code: 'newer' | 'broken',
    message: string,
  ) {
    super(message);
  }
}

type Loose = Record<string, unknown>;

/** One step a version: entry n turns version n into n + 1. Never edited once released. */
export type Migrations = Readonly<Record<number, (json: Loose) => Loose>>;
const MIGRATIONS: Migrations = {
  // Helper swatches, stamps, reference pictures and the target sheet came with format 2.
  1: (p) => ({
    ...p,
    target: NO_TARGET,
    stamps: [],
    references: [],
    bin: (p['bin'] as { kind: string }[]).map((b) => (b.kind === 'part' ? { ...b, references: [] } : b)),
    palettes: (p['palettes'] as { swatches: object[] }[]).map((o) => ({
      ...o,
      swatches: o.swatches.map((s) => ({ ...s, helper: false })),
    })),
  }),
  // Regions, mirrored twins, where a part was taken from, constraints and attachment points came with format 4.
  3: (p) => ({
    ...p,
    rig: { ...(p['rig'] as object), constraints: [], attachments: [] },
    parts: (p['parts'] as object[]).map((o) => ({ ...o, ...PLAIN_PART })),
    stamps: (p['stamps'] as object[]).map((o) => ({ ...o, ...PLAIN_PART })),
    bin: (p['bin'] as { kind: string; part?: object }[]).map((b) =>
      b.kind === 'part'
        ? { ...b, part: { ...b.part, ...PLAIN_PART } }
        : b.kind === 'bone'
          ? { ...b, constraints: [], attachments: [] }
          : b,
    ),
  }),
  // Slots, lane colours, what stays at home, swaps, poses and seals came with format 5.
  4: (p) => {
    const rig = p['rig'] as { bones: object[]; mounts: object[] };
    return {
      ...p,
      poses: [],
      seal: null,
      clips: (p['clips'] as object[]).map((c) => ({ ...c, ...PLAIN_CLIP })),
      rig: {
        ...rig,
        slots: [],
        bones: rig.bones.map((b) => ({ ...b, ...PLAIN_BONE })),
        mounts: rig.mounts.map((m) => ({ ...m, slot: null })),
      },
      bin: (p['bin'] as { kind: string; bone?: object; clip?: object; mounts?: object[] }[]).map((b) =>
        b.kind === 'part'
          ? { ...b, mounts: b.mounts!.map((m) => ({ ...m, slot: null })) }
          : b.kind === 'bone'
            ? { ...b, bone: { ...b.bone, ...PLAIN_BONE } }
            : b.kind === 'clip'
              ? { ...b, clip: { ...b.clip, ...PLAIN_CLIP } }
              : b,
      ),
    };
  },
  // Colourways came with format 3.
  2: (p) => ({
    ...p,
    colourways: [],
    shots: (p['shots'] as object[]).map((s) => ({ ...s, colourway: null })),
    bin: (p['bin'] as { kind: string; shot?: object }[]).map((b) =>
      b.kind === 'shot' ? { ...b, shot: { ...b.shot, colourway: null } } : b,
    ),
  }),
};

/** Carries JSON of an older version up to version `to`, one step at a time. @throws FormatError */
export function upgrade(json: unknown, migrations: Migrations = MIGRATIONS, to = FORMAT_VERSION): Loose {
  if (typeof json !== 'object' || json === null || !('formatVersion' in json)) {
    throw new FormatError('broken', 'This is not a Sphalerite project: it does not say its format version.');
  }
  let p = json as Loose;
  for (let v = Number(p['formatVersion']); v !== to; v++) {
    if (!(v < to)) {
      throw new FormatError(
        'newer',
        `This project is of format ${v}; this program reads up to ${to}. Open it with a newer Sphalerite.`,
      );
    }
    const step = migrations[v];
    if (!step)
      throw new FormatError('broken', `This project claims format ${String(p['formatVersion'])}, which never existed.`);
    try {
      p = { ...step(p), formatVersion: v + 1 };
    } catch {
      throw new FormatError('broken', `The project is damaged: it cannot be read as format ${v}.`);
    }
  }
  return p;
}

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
  const slots = ids('slots', p.rig.slots),
    mounts = ids('mounts', p.rig.mounts);
  for (const m of p.rig.mounts)
    if (m.slot !== null && !slots.has(m.slot)) broken('a mount names a slot that is not there');
  for (const s of p.rig.slots)
    if (s.worn !== null && !mounts.has(s.worn)) broken(`slot "${s.name}" wears a part that is not there`);
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

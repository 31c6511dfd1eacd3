import { NO_TARGET, PLAIN_BONE, PLAIN_CLIP, PLAIN_PART } from './defaults';
import { FORMAT_VERSION } from './format-version';

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

export type LooseJson = Record<string, unknown>;

/** What is stored as a piece of its own; `project` is what remains beside them. */
export const RECORD_KINDS = [
  'project',
  'palette',
  'part',
  'rig',
  'clip',
  'pose',
  'shot',
  'reference',
  'colourway',
  'bin',
] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/** The lists of a project and the kind of record that stands in them. */
export const RECORD_LISTS = {
  palettes: 'palette',
  parts: 'part',
  stamps: 'part',
  clips: 'clip',
  poses: 'pose',
  shots: 'shot',
  references: 'reference',
  colourways: 'colourway',
  bin: 'bin',
} as const satisfies Record<string, RecordKind>;

/**
 * One step a version, kind by kind: entry n turns records of version n into those of n + 1. Never edited once released.
 * What came with a version is put under what a record has, so that rows which did not say their version, up to format 5,
 * can be taken for the oldest.
 */
export type Upgrades = Readonly<Record<number, Partial<Record<RecordKind, (json: LooseJson) => LooseJson>>>>;

const list = (json: LooseJson, field: string): LooseJson[] => (json[field] ?? []) as LooseJson[];
const binned =
  (kind: string, change: (json: LooseJson) => LooseJson) =>
  (json: LooseJson): LooseJson =>
    json['kind'] === kind ? change(json) : json;

const keysOf5 = (keys: LooseJson[]): LooseJson[] =>
  keys.map((k) => (k['ease'] === 'even' ? { ...k, ease: 'linear' } : k));
const laneOf5 = (lane: LooseJson): LooseJson => ({
  ...lane,
  move: keysOf5(list(lane, 'move')),
  turn: keysOf5(list(lane, 'turn')),
  scale: keysOf5(list(lane, 'scale')),
});
const mountOf5 = ({ slot, ...mount }: LooseJson): LooseJson => ({ ...mount, alternateSet: slot });

export const UPGRADES: Upgrades = {
  // Helper swatches, stamps, reference pictures and the target sheet came with format 2.
  1: {
    project: (p) => ({ target: NO_TARGET, stamps: [], references: [], ...p }),
    palette: (p) => ({ ...p, swatches: list(p, 'swatches').map((s) => ({ helper: false, ...s })) }),
    bin: binned('part', (b) => ({ references: [], ...b })),
  },
  // Colourways came with format 3.
  2: {
    project: (p) => ({ colourways: [], ...p }),
    shot: (s) => ({ colourway: null, ...s }),
  },
  // Regions, mirrored twins, where a part was taken from, constraints and attachment points came with format 4.
  3: {
    rig: (r) => ({ constraints: [], attachments: [], ...r }),
    part: (p) => ({ ...PLAIN_PART, ...p }),
    bin: binned('bone', (b) => ({ constraints: [], attachments: [], ...b })),
  },
  // Slots, lane colours, what stays at home, swaps, poses and seals came with format 5.
  4: {
    project: (p) => ({ poses: [], seal: null, ...p }),
    clip: (c) => ({ ...PLAIN_CLIP, ...c }),
    rig: (r) => ({
      slots: [],
      ...r,
      bones: list(r, 'bones').map((b) => ({ ...PLAIN_BONE, ...b })),
      mounts: list(r, 'mounts').map((m) => ({ slot: null, ...m })),
    }),
    bin: (b) =>
      b['kind'] === 'part'
        ? { ...b, mounts: list(b, 'mounts').map((m) => ({ slot: null, ...m })) }
        : b['kind'] === 'bone'
          ? { ...b, bone: { ...PLAIN_BONE, ...(b['bone'] as LooseJson) } }
          : b,
  },
  // Up to format 5 a linear key was called "even", and a set of alternates a "slot".
  5: {
    clip: (c) => ({
      ...c,
      lanes: list(c, 'lanes').map(laneOf5),
      swaps: list(c, 'swaps').map(({ slot, ...lane }) => ({ ...lane, alternateSet: slot })),
    }),
    rig: ({ slots, ...r }) => ({ ...r, alternateSets: slots, mounts: list(r, 'mounts').map(mountOf5) }),
    bin: (b) =>
      b['kind'] === 'bone'
        ? { ...b, lanes: list(b, 'lanes').map((l) => ({ ...l, lane: laneOf5(l['lane'] as LooseJson) })) }
        : b['kind'] === 'part'
          ? { ...b, mounts: list(b, 'mounts').map(mountOf5) }
          : b,
  },
};

/** What a bin item holds whole is upgraded as that kind of record; bones have no records of their own. */
const BINNED_RECORDS: Partial<Record<string, RecordKind>> = {
  part: 'part',
  clip: 'clip',
  shot: 'shot',
  colourway: 'colourway',
};

function upgradeStep(kind: RecordKind, json: LooseJson, version: number, upgrades: Upgrades): LooseJson {
  const held = kind === 'bin' ? BINNED_RECORDS[String(json['kind'])] : undefined;
  const inner = held ? { ...json, [held]: upgradeStep(held, json[held] as LooseJson, version, upgrades) } : json;
  return upgrades[version]?.[kind]?.(inner) ?? inner;
}

/**
 * Carries one record, stored by format `from`, up to format `to`. What `json` holds stays as it is.
 *
 * @throws FormatError when the format is not known, or the record is not one of it
 */
export function upgradeRecord(
  kind: RecordKind,
  json: unknown,
  from: number,
  to: number = FORMAT_VERSION,
  upgrades: Upgrades = UPGRADES,
): unknown {
  checkVersion(from, to, upgrades);
  if (typeof json !== 'object' || json === null)
    throw new FormatError('broken', `A ${kind} of the project is damaged.`);
  let at = json as LooseJson;
  for (let v = from; v < to; v++) {
    try {
      at = upgradeStep(kind, at, v, upgrades);
    } catch {
      throw new FormatError('broken', `The project is damaged: a ${kind} cannot be read as format ${v}.`);
    }
  }
  return at;
}

/** @throws FormatError when a format is newer than `to`, or never existed */
export function checkVersion(from: number, to: number = FORMAT_VERSION, upgrades: Upgrades = UPGRADES): void {
  if (from > to) {
    throw new FormatError(
      'newer',
      `This project is of format ${from}; this program reads up to ${to}. Open it with a newer Sphalerite.`,
    );
  }
  if (from !== to && !upgrades[from])
    throw new FormatError('broken', `This project claims format ${String(from)}, which never existed.`);
}

/** Carries the JSON of a whole project of an older version up to version `to`. @throws FormatError */
export function upgrade(json: unknown, upgrades: Upgrades = UPGRADES, to: number = FORMAT_VERSION): LooseJson {
  if (typeof json !== 'object' || json === null || !('formatVersion' in json)) {
    throw new FormatError('broken', 'This is not a Sphalerite project: it does not say its format version.');
  }
  const from = Number((json as LooseJson)['formatVersion']);
  checkVersion(from, to, upgrades);
  if (from === to) return json as LooseJson;
  // Lists that came later are there, empty, once the project itself is of today.
  const p = { ...(upgradeRecord('project', json, from, to, upgrades) as LooseJson), formatVersion: to };
  for (const [field, kind] of Object.entries(RECORD_LISTS)) {
    const of = (p as LooseJson)[field];
    if (Array.isArray(of)) (p as LooseJson)[field] = of.map((r) => upgradeRecord(kind, r, from, to, upgrades));
  }
  if ('rig' in p) (p as LooseJson)['rig'] = upgradeRecord('rig', (p as LooseJson)['rig'], from, to, upgrades);
  return p;
}

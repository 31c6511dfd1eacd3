import { Refusal } from '../words';
import { FORMAT_VERSION } from './format-version';
import type { PieceUpgrades } from './marks';
import {
  type Found,
  type FoundBlob,
  LISTED_KINDS,
  type LooseJson,
  type RecordKind,
  projectKind,
  rigKind,
} from './kinds';

/** The stored project cannot be read; the message says what is wrong and where. */
export class FormatError extends Refusal {
  override readonly name = 'FormatError';
}

/** Every kind there is: the project itself, its rig, and those that stand in its lists. */
export const ALL_KINDS: readonly RecordKind[] = [projectKind as RecordKind, rigKind as RecordKind, ...LISTED_KINDS];

const isJson = (v: unknown): v is LooseJson => typeof v === 'object' && v !== null;
/** Where the record stands in something in the bin: up to format 6 under its kind. */
const heldField = (item: LooseJson, version: number): string => (version <= 6 ? String(item['kind']) : 'record');

function upgradeStep(
  kind: RecordKind,
  json: LooseJson,
  version: number,
  found: Found,
  kinds: readonly RecordKind[],
): LooseJson {
  let inner = json;
  if (kind.name === 'bin') {
    const field = heldField(json, version),
      held = kinds.find((k) => k.name === json['kind']);
    // A number stands for a row of its own, which says its own format.
    if (held && isJson(json[field]))
      inner = { ...json, [field]: upgradeStep(held, json[field], version, found, kinds) };
  }
  return kind.upgrades[version]?.(inner, found) ?? inner;
}

/**
 * Carries one record, stored by format `from`, up to format `to`. What `json` holds stays as it is.
 *
 * @param found – is given files that stood in the record and are blobs of the project from now on
 * @throws FormatError when the format is not known, or the record is not one of it
 */
export function upgradeRecord(
  kind: RecordKind,
  json: unknown,
  from: number,
  found: Found = () => undefined,
  to: number = FORMAT_VERSION,
  kinds: readonly RecordKind[] = ALL_KINDS,
): unknown {
  checkVersion(from, to);
  if (!isJson(json)) throw new FormatError('format.recordDamaged', { kind: kind.name });
  let at = json;
  for (let v = from; v < to; v++) {
    try {
      at = upgradeStep(kind, at, v, found, kinds);
    } catch {
      throw new FormatError('format.recordUnreadable', { kind: kind.name, v });
    }
  }
  // What holds a project within the project.
  return 'project' in at && isJson(at['project'])
    ? { ...at, project: upgradeProject(at['project'], from, to, kinds) }
    : at;
}

/**
 * Carries a whole project, or its root with numbers in place of records, from format `from` up to format `to`. Kinds that
 * came later have empty lists then. @throws FormatError
 */
export function upgradeProject(
  json: unknown,
  from: number,
  to: number = FORMAT_VERSION,
  kinds: readonly RecordKind[] = ALL_KINDS,
): LooseJson {
  const blobs: FoundBlob[] = [];
  const named = (name: string): RecordKind => kinds.find((k) => k.name === name)!;
  const each = (kind: RecordKind, value: unknown): unknown =>
    isJson(value) ? upgradeRecord(kind, value, from, (b) => void blobs.push(b), to, kinds) : value;
  const p = { ...(upgradeRecord(named('project'), json, from, undefined, to, kinds) as LooseJson) };
  if ('rig' in p) p['rig'] = each(named('rig'), p['rig']);
  for (const kind of kinds) {
    if (kind.list === null) continue;
    const records = p[kind.list] ?? (kind.since > from && kind.since <= to ? [] : undefined);
    if (Array.isArray(records)) p[kind.list] = records.map((r) => each(kind, r));
  }
  return withFoundBlobs(p, blobs);
}

/** A project, or its root, with files that were found in older forms of its records; each once. */
export function withFoundBlobs(project: LooseJson, found: readonly FoundBlob[]): LooseJson {
  const had = (project['blobs'] ?? []) as readonly (FoundBlob | number)[];
  const known = new Set(had.map((b) => (typeof b === 'number' ? b : b.id)));
  const fresh = found.filter((b) => !known.has(b.id) && known.add(b.id));
  return fresh.length === 0 ? project : { ...project, blobs: [...had, ...fresh] };
}

/** Carries a piece of a record that was stored apart from it up to the format of today. @throws FormatError */
export function upgradePiece(json: unknown, from: number, upgrades: PieceUpgrades): unknown {
  checkVersion(from);
  let at = json;
  for (let v = from; v < FORMAT_VERSION; v++) if (isJson(at)) at = upgrades[v]?.(at) ?? at;
  return at;
}

/** @throws FormatError when a format is newer than `to`, or never existed */
export function checkVersion(from: number, to: number = FORMAT_VERSION): void {
  if (from > to) {
    throw new FormatError('format.newer', { from, to });
  }
  if (!Number.isInteger(from) || from < 1) throw new FormatError('format.never', { from: String(from) });
}

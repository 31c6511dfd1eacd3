import {
  type Id,
  LISTED_KINDS,
  type NamedRecord,
  type Part,
  type Project,
  type RecordKind,
  eachMarked,
  freeName,
  importKind,
  mapIds,
  must,
  partKind,
  recordsOf,
  sceneKind,
} from '../model';
import type { Palette } from '../palette';
import { withBlobs } from './blobs';
import { EditError } from './edit-error';

/** The id that something gets here for the one it has there. */
export type Ids = (old: Id, of?: string) => Id;

/** A fresh id for each old one, the same every time it is asked for. Blobs bear theirs everywhere. */
export function freshIds(newId: () => Id): Ids {
  const known = new Map<Id, Id>();
  return (old, of) => (of === 'blob' ? old : (known.get(old) ?? known.set(old, newId()).get(old)!));
}

/**
 * The palettes `wanted` of another project among those of this one: equal ones are shared, others come along.
 *
 * @returns ids as `over` gives them, but those of palettes that are shared
 */
export function withPalettes(
  project: Project,
  source: Project,
  wanted: Iterable<Id>,
  over: Ids,
): { readonly palettes: readonly Palette[]; readonly ids: Ids } {
  let palettes = project.palettes;
  const to = new Map<Id, Id>();
  for (const id of new Set(wanted)) {
    const theirs = must(source.palettes, id, 'palette'),
      ours = paletteAlike({ palettes }, theirs);
    if (!ours) {
      const names = palettes.map((o) => o.name);
      palettes = [...palettes, { ...theirs, id: over(id), name: freeName(theirs.name, names) }];
    }
    to.set(id, ours?.id ?? over(id));
  }
  return { palettes, ids: (old, of) => (of === 'palette' ? to.get(old) : undefined) ?? over(old, of) };
}

/** The palette here that has the same swatches as another. */
export const paletteAlike = (project: Pick<Project, 'palettes'>, theirs: Palette): Palette | undefined =>
  project.palettes.find((o) => JSON.stringify(o.swatches) === JSON.stringify(theirs.swatches));

/** The project with what parts of another were made of, as the parts that come along name it. */
export function withImportsOf(project: Project, source: Project, parts: readonly Part[], ids: Ids): Project {
  const wanted = new Set(parts.map((p) => p.made?.import));
  const imports = source.imports.filter((i) => wanted.has(i.id));
  if (imports.length === 0) return project;
  const files = new Set(imports.flatMap((i) => i.files.map((f) => f.blob)));
  const whole = withBlobs(
    project,
    source.blobs.filter((b) => files.has(b.id)),
  );
  return { ...whole, imports: [...whole.imports, ...imports.map((i) => mapIds(importKind.schema, i, ids))] };
}

/** A name that is free among others of the same side. */
export const freeAmong = (list: readonly NamedRecord[], { name, side }: NamedRecord): string =>
  freeName(
    name!,
    list.filter((o) => o.side === side).map((o) => o.name ?? ''),
  );

/** Records of one kind, found by id. */
export interface RecordName {
  readonly kind: string;
  readonly id: Id;
}

/**
 * The project with records of another, of any kind that stands in a list, and with all that they name. Ids are new, names
 * that are taken get a number; equal palettes and files are shared.
 *
 * @throws EditError when one of them hangs on something that stands in no list, such as a bone
 */
export function withRecordsOf(
  project: Project,
  source: Project,
  records: readonly RecordName[],
  newId: () => Id,
): Project {
  const wanted = closure(source, records);
  const isWanted = (kind: RecordKind, r: NamedRecord): boolean => wanted.has(`${kind.name} ${r.id}`);
  const { palettes, ids } = withPalettes(
    project,
    source,
    source.palettes.filter((p) => wanted.has(`palette ${p.id}`)).map((p) => p.id),
    freshIds(newId),
  );
  const blobs = source.blobs.filter((b) => wanted.has(`blob ${b.id}`));
  const out: Record<string, unknown> = { ...withBlobs(project, blobs), palettes };
  for (const kind of LISTED_KINDS) {
    if (kind.name === 'palette' || kind.name === 'blob') continue;
    for (const record of recordsOf(source, kind)) {
      if (!isWanted(kind, record)) continue;
      const here = out[kind.list] as readonly NamedRecord[];
      const brought = mapIds(kind.schema, record, ids);
      out[kind.list] = [...here, brought.name === undefined ? brought : { ...brought, name: freeAmong(here, brought) }];
    }
  }
  return out as unknown as Project;
}

/** What records name, and what that names in turn, as "kind id". */
function closure(source: Project, records: readonly RecordName[]): ReadonlySet<string> {
  const owners = ownersOf(source);
  const wanted = new Set<string>();
  for (let open = [...records]; open.length > 0;) {
    const { kind: name, id } = open.pop()!;
    if (wanted.has(`${name} ${id}`)) continue;
    wanted.add(`${name} ${id}`);
    const kind = LISTED_KINDS.find((k) => k.name === name);
    if (!kind) throw new EditError('bringing.notAlone', { name });
    const record = must(recordsOf(source, kind), id, name);
    eachMarked(kind.schema, ['ref', 'mention'], record, (mark, value) => {
      const { of } = mark as { of: string };
      const owner = owners.get(`${of} ${value as Id}`);
      // What is only mentioned stays behind, but for what a part was made of, and what stands in a scene.
      const comes = of === importKind.name || (name === sceneKind.name && of === partKind.name);
      if (mark.mark === 'mention' && !(owner && comes)) return;
      if (!owner) throw new EditError('bringing.hangs', { name: record.name ?? name, of });
      open.push(owner);
    });
  }
  return wanted;
}

/** Which record in a list holds the id of something, as "kind id". */
function ownersOf(source: Project): ReadonlyMap<string, RecordName> {
  const owners = new Map<string, RecordName>();
  for (const kind of LISTED_KINDS) {
    if (kind.name === 'bin') continue;
    for (const record of recordsOf(source, kind))
      eachMarked(kind.schema, ['own'], record, (mark, value) =>
        owners.set(`${(mark as { of: string }).of} ${value as Id}`, { kind: kind.name, id: record.id }),
      );
  }
  return owners;
}

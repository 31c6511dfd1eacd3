import type * as z from 'zod';
import { ALL_KINDS, FormatError, upgradeProject } from './upgrade';
import {
  LISTED_KINDS,
  type LooseJson,
  type Project,
  type RecordKind,
  projectKind,
  projectSchema,
  rigKind,
} from './kinds';
import { eachMarked, mapMarked } from './marks';

/** A project as JSON, or in memory: lists of records, with whatever a carrier puts for what is carried apart. */
type Loose = { readonly [field: string]: unknown };

const broken = (what: string): never => {
  throw new FormatError('format.damaged', { what });
};

/**
 * Brings the JSON of a whole project of any known version to this one and checks it, whatever stands in it for cells and
 * bytes. @throws FormatError
 */
export function migrateProject(json: unknown): LooseJson {
  if (typeof json !== 'object' || json === null || !('formatVersion' in json)) {
    throw new FormatError('format.noVersion');
  }
  const { formatVersion, ...rest } = json as LooseJson;
  const whole = parsed(projectKind as RecordKind, upgradeProject(rest, Number(formatVersion))) as LooseJson;
  checkLinks(whole);
  return whole;
}

/** A record of today's format as its schema has it. @throws FormatError that says where it is not */
export function parsed(kind: Pick<RecordKind, 'name' | 'schema'>, json: unknown): unknown {
  const result = kind.schema.safeParse(json);
  if (result.success) return result.data;
  const first = innermost(result.error.issues[0]!);
  const at = first.path.join(' › ');
  const where = kind.name === 'project' ? at || 'its start' : `a ${kind.name}${at && ` › ${at}`}`;
  throw new FormatError('format.damagedAt', { where, message: first.message });
}

const sound = new WeakSet<object>();

/**
 * Whether a project in memory is one that can be read again, looking only at pieces that were not looked at before: what is
 * stored must never be refused when it comes back. @throws FormatError that says where it is not
 */
export function checkSound(project: Project): void {
  checkPiece(projectSchema, project, 'project');
}

function checkPiece(schema: z.ZodType, piece: object, of: string): void {
  if (sound.has(piece)) return;
  // A number may stand for any piece that is looked at by itself.
  const shallow = mapMarked<unknown>(schema, ['apart'], piece, (mark, inner) => {
    if (mark.mark === 'apart') checkPiece(mark.piece, inner as object, mark.of);
    return 1;
  });
  parsed({ name: of, schema }, shallow);
  sound.add(piece);
}

/** What is wrong within a choice of shapes, where it is known which was meant. */
function innermost(issue: z.core.$ZodIssue): { readonly path: readonly PropertyKey[]; readonly message: string } {
  const inner = issue.code === 'invalid_union' ? issue.errors.at(-1)?.[0] : undefined;
  if (!inner) return issue;
  const { path, message } = innermost(inner);
  return { path: [...issue.path, ...path], message };
}

/** Ids are unique and point to something, in the project and in those it holds. @throws FormatError */
export function checkLinks(of: object): void {
  const project = of as Loose;
  const own = new Map<string, Set<string>>();
  const links: { readonly of: string; readonly id: string; readonly from: string }[] = [];
  const look = (kind: RecordKind, record: unknown): void => {
    const { name } = record as { name?: string };
    // Whatever names something is told as the innermost thing around it that has an id.
    let holder = kind.name;
    eachMarked(kind.schema, ['own', 'ref'], record, (mark, value) => {
      if (mark.mark === 'own') {
        remember(own, mark.of, value as string);
        holder = mark.of;
      } else if (mark.mark === 'ref') {
        const from = holder === kind.name && name !== undefined ? `${kind.name} "${name}"` : `a ${holder}`;
        links.push({ of: mark.of, id: value as string, from });
      }
    });
    // What holds a project within the project.
    if (typeof record === 'object' && record !== null && 'project' in record) checkLinks(record.project as object);
  };
  look(rigKind as RecordKind, project['rig']);
  // What is in the bin may name what has gone.
  for (const kind of LISTED_KINDS)
    if (kind.name !== 'bin') for (const r of project[kind.list] as readonly unknown[]) look(kind, r);
  uniqueBin(project);
  for (const { of, id, from } of links) if (!own.get(of)?.has(id)) broken(`${from} names a ${of} that is not there`);
  checkFlaws(project);
}

function remember(own: Map<string, Set<string>>, of: string, id: string): void {
  const known = own.get(of) ?? new Set();
  own.set(of, known);
  // Layers are found within their part.
  if (known.has(id) && of !== 'layer') broken(`two ${pluralOf(of)} have the same id`);
  known.add(id);
}

const pluralOf = (name: string): string =>
  ALL_KINDS.find((k) => k.name === name)?.plural ??
  (name.startsWith('set ') ? name.replace('set', 'sets') : `${name}s`);

function uniqueBin(project: Loose): void {
  const ids = (project['bin'] as readonly { id: string }[]).map((b) => b.id);
  if (new Set(ids).size !== ids.length) broken('two things in the bin have the same id');
}

/** What schemas cannot see: circles, sizes that do not fit. @throws FormatError */
export function checkFlaws(of: object): void {
  const project = of as Loose;
  const rig = rigKind.flaw!(project['rig'] as never, project);
  if (rig) broken(`its rig ${rig}`);
  for (const kind of LISTED_KINDS) {
    if (!kind.flaw) continue;
    for (const r of project[kind.list] as readonly { name?: string }[]) {
      const flaw = kind.flaw(r, project);
      if (flaw) broken(`${r.name === undefined ? `a ${kind.name}` : `${kind.name} "${r.name}"`} ${flaw}`);
    }
  }
}

import * as z from 'zod';
import type { VoxelGrid } from '../voxel';
import type { Id } from './ids';

/**
 * What a field of a record means beyond its type. Reading, writing, checking, sweeping and bringing in follow these marks
 * and know of no kind by name.
 */
export type Mark =
  /** The id of the record, or of something in it that others name. */
  | { readonly mark: 'own'; readonly of: string }
  /** The id of something that must be there. */
  | { readonly mark: 'ref'; readonly of: string }
  /** The id of something that may have gone meanwhile. */
  | { readonly mark: 'mention'; readonly of: string }
  /** Cubes, or texels: a grid, carried apart from JSON. */
  | { readonly mark: 'cells' }
  /** Bytes of a file of their own, carried apart from JSON. */
  | { readonly mark: 'bytes' }
  /** A piece found by identity and stored in a row of its own, so that changing it writes little else. */
  | { readonly mark: 'apart'; readonly of: string; readonly piece: z.ZodType; readonly upgrades: PieceUpgrades };
/** How older forms of a piece that stands apart become today's, by the format they are of. */
export type PieceUpgrades = Readonly<Record<number, (json: Readonly<Record<string, unknown>>) => object>>;
export type MarkName = Mark['mark'];

const marks = new WeakMap<z.ZodType, Mark>();

const idText = () => z.string().regex(/^[A-Za-z0-9_-]{1,64}$/);
const marked = <T extends z.ZodType>(schema: T, mark: Mark): T => {
  marks.set(schema, mark);
  return schema;
};
/** The id of a record of its kind, or of something in it. */
export const own = (of: string) => marked(idText(), { mark: 'own', of });
export const ref = (of: string) => marked(idText(), { mark: 'ref', of });
export const mention = (of: string) => marked(idText(), { mark: 'mention', of });
/** In JSON whatever the carrier puts there; it checks that itself. */
export const cells = () =>
  marked(
    z.custom<VoxelGrid>((v) => v !== undefined),
    { mark: 'cells' },
  );
export const bytes = () =>
  marked(
    z.custom<Uint8Array<ArrayBuffer>>((v) => v !== undefined),
    { mark: 'bytes' },
  );
/** In the database the number of a row, everywhere else the piece itself. */
export const apart = <T extends z.ZodType>(of: string, piece: T, upgrades: PieceUpgrades = {}) =>
  marked(z.union([z.int().positive(), piece]) as unknown as z.ZodType<z.output<T>>, {
    mark: 'apart',
    of,
    piece,
    upgrades,
  });

/** The ids of the records that hold a value, outermost first. */
export type Path = readonly Id[];
/** What becomes of each marked value. For `apart`, `inside` goes on within the piece. */
export type Visit = (mark: Mark, value: unknown, at: Path, inside: (piece: unknown) => unknown) => unknown;

/** How the marked places of a schema are reached; null where there are none below. */
type Plan = ((value: unknown, visit: Visit, at: Path) => unknown) | null;

const plans = new Map<string, WeakMap<z.ZodType, { plan: Plan }>>();

/**
 * A value with everything that bears one of the marks `wanted` replaced by what `visit` gives for it; the value itself when
 * nothing is. Only marked branches are walked; when only ids are wanted, projects within the project are left alone, as
 * their ids are a matter of their own.
 *
 * @param value – as the schema describes it, with or without stand-ins for what is carried apart
 */
export function mapMarked<T>(schema: z.ZodType, wanted: readonly MarkName[], value: T, visit: Visit, at: Path = []): T {
  const plan = planFor(schema, wanted);
  return plan ? (plan(value, visit, at) as T) : value;
}

/** {@link mapMarked} for looking only. */
export function eachMarked(
  schema: z.ZodType,
  wanted: readonly MarkName[],
  value: unknown,
  see: (mark: Mark, value: unknown, at: Path) => void,
): void {
  mapMarked(schema, wanted, value, (mark, v, at, inside) => {
    see(mark, v, at);
    if (mark.mark === 'apart') inside(v);
    return v;
  });
}

/** Whether anything of the marks `wanted` can stand in a value of this schema. */
export const hasMarked = (schema: z.ZodType, wanted: readonly MarkName[]): boolean => planFor(schema, wanted) !== null;

/** What kinds of thing a value of this schema may name, other than within projects of its own. */
export function namedKinds(schema: z.ZodType): ReadonlySet<string> {
  const out = new Set<string>(),
    seen = new Set<z.ZodType>();
  const walk = (s: z.ZodType): void => {
    if (seen.has(s)) return;
    seen.add(s);
    const mark = marks.get(s);
    if (mark?.mark === 'ref' || mark?.mark === 'mention') out.add(mark.of);
    if (mark?.mark === 'apart' && mark.of !== 'project') walk(mark.piece);
    if (mark) return;
    const def = defOf(s);
    const below = [...Object.values(def.shape ?? {}), ...(def.items ?? []), ...(def.options ?? [])];
    for (const b of [...below, def.element, def.innerType, def.getter?.()]) if (b) walk(b);
  };
  walk(schema);
  return out;
}

function planFor(schema: z.ZodType, wanted: readonly MarkName[]): Plan {
  const key = wanted.join();
  let known = plans.get(key);
  if (!known) plans.set(key, (known = new WeakMap()));
  return compile(schema, new Set(wanted), known);
}

const ID_MARKS: ReadonlySet<MarkName> = new Set(['own', 'ref', 'mention']);

type Known = WeakMap<z.ZodType, { plan: Plan }>;

function compile(schema: z.ZodType, wanted: ReadonlySet<MarkName>, known: Known): Plan {
  const found = known.get(schema);
  if (found) return found.plan;
  const mark = marks.get(schema);
  const plan = mark ? markPlan(mark, wanted, known) : shapePlan(schema, wanted, known);
  known.set(schema, { plan });
  return plan;
}

function markPlan(mark: Mark, wanted: ReadonlySet<MarkName>, known: Known): Plan {
  // A piece that stands apart is a choice of its row's number and itself. Ids count within one project.
  const foreign = mark.mark === 'apart' && mark.of === 'project' && [...wanted].every((m) => ID_MARKS.has(m));
  const within = mark.mark === 'apart' && !foreign ? compile(mark.piece, wanted, known) : null;
  if (!wanted.has(mark.mark)) return within;
  return (value, visit, at) => visit(mark, value, at, (piece) => (within ? within(piece, visit, at) : piece));
}

interface Def {
  readonly type: string;
  readonly shape?: Record<string, z.ZodType>;
  readonly element?: z.ZodType;
  readonly items?: readonly z.ZodType[];
  readonly innerType?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly discriminator?: string;
  readonly getter?: () => z.ZodType;
  readonly values?: readonly unknown[];
}
const defOf = (schema: z.ZodType): Def => schema.def as unknown as Def;

function shapePlan(schema: z.ZodType, wanted: ReadonlySet<MarkName>, known: Known): Plan {
  const def = defOf(schema);
  const of = (s: z.ZodType): Plan => compile(s, wanted, known);
  switch (def.type) {
    case 'object':
      return objectPlan(Object.entries(def.shape!).flatMap(([name, s]) => (of(s) ? [[name, of(s)!] as const] : [])));
    case 'array': {
      const element = of(def.element!);
      return element && ((list, visit, at) => mapList(list as unknown[], () => element, visit, at));
    }
    case 'tuple': {
      const items = def.items!.map(of);
      return items.some(Boolean) ? (list, visit, at) => mapList(list as unknown[], (i) => items[i]!, visit, at) : null;
    }
    case 'nullable':
    case 'optional': {
      const inner = of(def.innerType!);
      return inner && ((v, visit, at) => (v === null || v === undefined ? v : inner(v, visit, at)));
    }
    case 'union':
      return unionPlan(def, of);
    case 'lazy':
      // May hold itself, so it is looked into only when a value is there.
      return (v, visit, at) => of(def.getter!())?.(v, visit, at) ?? v;
    default:
      return null;
  }
}

function objectPlan(fields: readonly (readonly [string, NonNullable<Plan>])[]): Plan {
  if (fields.length === 0) return null;
  return (value, visit, at) => {
    const record = value as Record<string, unknown>;
    const id = record['id'];
    const inside = typeof id === 'string' ? [...at, id] : at;
    let out = record;
    for (const [name, plan] of fields) {
      if (!(name in record)) continue;
      const next = plan(record[name], visit, inside);
      if (next !== record[name]) {
        if (out === record) out = { ...record };
        out[name] = next;
      }
    }
    return out;
  };
}

function mapList(list: readonly unknown[], planAt: (i: number) => Plan, visit: Visit, at: Path): readonly unknown[] {
  let out: unknown[] | null = null;
  for (let i = 0; i < list.length; i++) {
    const plan = planAt(i);
    const next = plan ? plan(list[i], visit, at) : list[i];
    if (next !== list[i]) (out ??= [...list])[i] = next;
  }
  return out ?? list;
}

/** One of several shapes, told apart by a field that says which. */
function unionPlan(def: Def, of: (s: z.ZodType) => Plan): Plan {
  const plans = def.options!.map(of);
  if (!plans.some(Boolean)) return null;
  const by = def.discriminator;
  if (by === undefined) throw new Error('Shapes with marks in them need a field that tells them apart.');
  const byValue = new Map<unknown, Plan>();
  for (const [i, option] of def.options!.entries())
    for (const v of defOf(defOf(option).shape![by]!).values!) byValue.set(v, plans[i]!);
  return (value, visit, at) => byValue.get((value as Record<string, unknown>)[by])?.(value, visit, at) ?? value;
}

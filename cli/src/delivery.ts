import {
  EXPORTERS,
  shipsModels,
  type Delivered,
  type Exporter,
  FileError,
  QUIET_JOB,
  type Shipped,
  deliver,
  noteText,
  optionFields,
  optionsFromWords,
  runExport,
  wholeShipped,
} from '@sphalerite/core/files';
import {
  type DeliveryGroup,
  type DeliveryProfile,
  PLAIN_DELIVERY,
  type Project,
  deliveriesOf,
  deliveryGroups,
  placementName,
  placementsOf,
  sideSuffix,
} from '@sphalerite/core/model';
import { CliError } from './io';

/** What the command can write; pictures of shots are traced by `render`. */
export const FORMATS: readonly Exporter[] = EXPORTERS.filter(shipsModels);

/** What is said on the command line of how something is shipped. */
export interface DeliveryWishes {
  readonly profile?: string;
  readonly format?: string;
  readonly colourway?: string;
  readonly part?: string;
  readonly scene?: string;
  readonly placement?: string;
  readonly palette?: string;
  readonly option: readonly string[];
}

const list = (names: readonly string[]): string => [...new Set(names)].map((n) => `"${n}"`).join(', ') || 'none';
const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** The record that a name means, sides told. @throws CliError with the names that there are */
function named<T extends { readonly name: string; readonly id: string }>(
  records: readonly T[],
  name: string,
  kind: string,
): T {
  const full = (o: T): string => o.name + ('side' in o ? sideSuffix(o.side as 'left') : '');
  const found =
    records.find((o) => full(o) === name) ??
    records.find((o) => o.name === name) ??
    records.find((o) => alike(o.name, name));
  if (found) return found;
  throw new CliError(`There is no ${kind} "${name}". There are: ${list(records.map(full))}.`);
}

/** Words `group.field=value` of a delivery among words of formats. */
function withWords(profile: DeliveryProfile, words: readonly string[]): DeliveryProfile {
  const out = { ...profile } as Record<string, unknown>;
  const groups = new Map<DeliveryGroup, string[]>();
  const options: Record<string, Readonly<Record<string, string | number | boolean>>> = { ...profile.options };
  for (const word of words) {
    const key = word.split('=')[0]!,
      [group, field] = key.split('.');
    if (field !== undefined && group! in deliveryGroups) {
      groups.set(group as DeliveryGroup, [
        ...(groups.get(group as DeliveryGroup) ?? []),
        word.slice(group!.length + 1),
      ]);
      continue;
    }
    const takers = FORMATS.filter(
      (e) => profile.formats.includes(e.id) && optionFields(e.options).some((f) => f.key === key),
    );
    if (takers.length === 0)
      throw new CliError(
        `There is no option "${key}" for ${profile.formats.join(', ')}. See: sphalerite export --help.`,
      );
    for (const e of takers) {
      const parsed = optionsFromWords(e.options, [word]) as Record<string, string | number | boolean>;
      options[e.id] = { ...options[e.id], [key]: parsed[key]! };
    }
  }
  for (const [group, given] of groups) {
    const schema = deliveryGroups[group];
    const parsed = optionsFromWords(schema, given) as Record<string, unknown>;
    const keys = given.map((w) => w.split('=')[0]!);
    out[group] = { ...profile[group], ...Object.fromEntries(keys.map((k) => [k, parsed[k]])) };
  }
  return { ...(out as unknown as DeliveryProfile), options };
}

/** The profile that is meant, with what else was said. @throws CliError naming what there is */
export function profileOf(project: Project, wishes: DeliveryWishes): DeliveryProfile {
  const base: DeliveryProfile =
    wishes.profile === undefined
      ? { ...PLAIN_DELIVERY, id: 'plain', name: 'Plain', ready: null, formats: ['glb'], options: {}, tiles: [] }
      : named(deliveriesOf(project), wishes.profile, 'delivery profile');
  const formats = wishes.format?.split(',').map((f) => f.trim()) ?? base.formats;
  for (const f of formats)
    if (!FORMATS.some((e) => e.id === f))
      throw new CliError(`"${f}" is not a format this version writes; use ${FORMATS.map((e) => e.id).join(', ')}.`);
  const all = wishes.colourway === 'all' ? { looks: { ...base.looks, colourways: 'files' as const } } : {};
  return withWords({ ...base, formats, ...all }, wishes.option);
}

function subjectOf(project: Project, { part, scene, placement }: DeliveryWishes): Shipped {
  if (placement !== undefined) {
    const homes = scene === undefined ? project.scenes : [named(project.scenes, scene, 'scene')];
    const all = homes.flatMap((s) =>
      placementsOf(s).map((p) => ({ id: p.id, name: placementName(project, p), scene: s.id })),
    );
    const found = named(all, placement, 'placement');
    return { of: 'group', scene: found.scene, placement: found.id };
  }
  if (part !== undefined) return { of: 'part', part: named(project.parts, part, 'part').id };
  if (scene !== undefined) return { of: 'scene', scene: named(project.scenes, scene, 'scene').id };
  return wholeShipped(project);
}

/** Everything that is wanted of a project, made and not yet written. @throws CliError */
export async function delivered(
  file: string,
  project: Project,
  wishes: DeliveryWishes,
): Promise<{ readonly profile: DeliveryProfile; readonly subject: Shipped; readonly made: Delivered }> {
  try {
    const profile = profileOf(project, wishes),
      subject = subjectOf(project, wishes);
    const { colourway } = wishes;
    const way =
      colourway === undefined || colourway === 'all' ? null : named(project.colourways, colourway, 'colourway').id;
    if (wishes.palette !== undefined)
      return { profile, subject, made: await palettes(project, profile, wishes.palette) };
    return { profile, subject, made: await deliver(project, { subject, profile, colourway: way }, QUIET_JOB) };
  } catch (e) {
    if (e instanceof FileError || e instanceof RangeError) throw new CliError(`${file}: ${e.message}`);
    throw e;
  }
}

/** One palette, in formats that hold one. */
async function palettes(project: Project, profile: DeliveryProfile, name: string): Promise<Delivered> {
  const palette = named(project.palettes, name, 'palette').id;
  const formats = [];
  for (const e of FORMATS.filter((f) => f.takes === 'palette' && profile.formats.includes(f.id))) {
    const order = { exporter: e.id, subject: { of: 'palette', palette, colourway: null }, options: {} } as const;
    formats.push({ exporter: e.id, colourway: '', ...(await runExport(project, order, QUIET_JOB)) });
  }
  if (formats.length === 0) throw new CliError('A palette goes into palette-json, palette-hex or palette-strip.');
  return { formats, files: formats.flatMap((f) => f.files) };
}

/** Notes of a delivery, each once, as sentences. */
export const notesOf = ({ formats }: Delivered): string[] => [
  ...new Set(formats.flatMap((f) => f.notes.map(noteText))),
];

const value = (f: ReturnType<typeof optionFields>[number]): string =>
  f.kind === 'switch' ? 'yes|no' : f.kind === 'text' ? 'text' : f.choices.join('|') || 'number';

/** Every format with its options, and every wish of a delivery, for the help text. */
export const formatsHelp = (): string =>
  [
    'Formats:',
    ...FORMATS.flatMap((e) => [
      `  ${e.id.padEnd(14)} ${e.name}: ${e.about}`,
      ...optionFields(e.options).map((f) => `      ${f.key}=${value(f)}  ${f.about || f.title}`),
    ]),
    '',
    'Wishes of a delivery, as options too:',
    ...Object.entries(deliveryGroups).flatMap(([group, schema]) =>
      optionFields(schema).map((f) => `  ${group}.${f.key}=${value(f)}  ${f.about || f.title}`),
    ),
  ].join('\n');

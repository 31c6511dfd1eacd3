import { type DeliveryProfile, type Id, type Project, inColourway, lookUp } from '../../model';
import type { ExportPlan, Takes, WrittenFile } from '../exporter';
import { EXPORTERS } from '../exporters/list';
import { shipsModels } from '../exporter';
import { FileError } from '../file-error';
import { fileName } from '../file-name';
import type { FileJob } from '../job';
import type { Note } from '../notes';
import { optionsOf, sourceOf, writtenBy } from '../order';
import type { Shipped } from '../ship/ship-model';

/** What a format of a delivery came to, in one colourway. */
export interface DeliveredFormat {
  readonly exporter: string;
  /** By name; empty for the project as it is. */
  readonly colourway: string;
  readonly files: readonly WrittenFile[];
  readonly counts: ExportPlan['counts'];
  readonly notes: readonly Note[];
}
export interface Delivered {
  readonly formats: readonly DeliveredFormat[];
  /** All files, each name once. */
  readonly files: readonly WrittenFile[];
}

/** What a delivery is wanted of. */
export interface DeliveryOrder {
  readonly subject: Shipped;
  readonly profile: DeliveryProfile;
  /** Only the project in this colourway; null for all that the profile asks for. */
  readonly colourway: Id | null;
}

/** A file's name with a colourway's put behind its stem. */
function inName(name: string, way: string): string {
  const dot = name.indexOf('.');
  return `${name.slice(0, dot)}-${fileName(way)}${name.slice(dot)}`;
}

/**
 * Everything of a delivery: each of its formats, and each again in every colourway where those are files of their own. The same for the
 * same project, names included.
 *
 * @throws FileError when nothing is asked for, or there is nothing to ship
 */
export async function deliver(project: Project, order: DeliveryOrder, job: FileJob): Promise<Delivered> {
  const { profile, subject } = order;
  const wanted = EXPORTERS.filter((e) => shipsModels(e) && profile.formats.includes(e.id));
  if (wanted.length === 0) throw new FileError('delivery.noFormat');
  const ways =
    order.colourway !== null
      ? [order.colourway]
      : [null, ...(profile.looks.colourways === 'files' ? project.colourways.map((c) => c.id) : [])];
  const formats: DeliveredFormat[] = [],
    files = new Map<string, WrittenFile>();
  for (const [w, way] of ways.entries()) {
    const name = way === null ? '' : (lookUp(project.colourways, way)?.name ?? '');
    const seen = way === null ? project : inColourway(project, way);
    const made = way === null ? profile : { ...profile, looks: { ...profile.looks, colourways: 'none' as const } };
    // Gathered once for all formats that take it.
    const sources = new Map<Takes, Awaited<ReturnType<typeof sourceOf>>>();
    for (const [i, e] of wanted.entries()) {
      // Only surfaces and palettes look different; a project file holds every colourway as it is.
      if (name !== '' && e.takes === 'project') continue;
      const palette = { of: 'palette', palette: seen.palettes[0]?.id ?? '', colourway: null } as const;
      const part: FileJob = {
        report: (share) => job.report((w * wanted.length + i + share) / (ways.length * wanted.length)),
        breathe: () => job.breathe(),
      };
      const gathering = { subject: e.takes === 'palette' ? palette : subject, profile: made };
      let source = sources.get(e.takes);
      if (!source) sources.set(e.takes, (source = await sourceOf(seen, e.takes, gathering, part)));
      const written = await writtenBy(e, source, optionsOf(e, profile.options[e.id]), part);
      const named = written.files.map((f) => (name === '' ? f : { ...f, name: inName(f.name, name) }));
      for (const f of named) if (!files.has(f.name)) files.set(f.name, f);
      formats.push({ exporter: e.id, colourway: name, files: named, counts: written.counts, notes: written.notes });
    }
  }
  return { formats, files: [...files.values()] };
}

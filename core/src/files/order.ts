import { type Id, type Project, inColourway, must } from '../model';
import type { Palette } from '../palette';
import type { ExportPlan, Exporter, Sources, Takes, Written } from './exporter';
import { exporterOf } from './exporters/list';
import { FileError } from './file-error';
import { type FileJob, inPieces } from './job';
import { optionFields } from './options';
import { gatherShippedSteps } from './ship/gather-shipped';
import type { Shipped } from './ship/ship-model';
import { PLAIN_PROFILE, type ShipProfile } from './ship/ship-profile';
import { solidSteps } from './ship/solid';

/** What of a project a file is made of; a palette as it is in a colourway. */
export type Subject = Shipped | { readonly of: 'palette'; readonly palette: Id; readonly colourway: Id | null };

/** A file that is wanted of a project: plain data, so that it can be sent to a worker. */
export interface ExportOrder {
  readonly exporter: string;
  readonly subject: Subject;
  /** How it is made; plainly where nothing is said. */
  readonly profile?: ShipProfile;
  readonly options: unknown;
}

/** What would be written. @throws FileError when there is nothing to write */
export const planExport = async (project: Project, order: ExportOrder, job: FileJob): Promise<ExportPlan> => {
  const { exporter, options } = understood(order);
  return exporter.plan(await sourceOf(project, exporter.takes, order, job), options);
};

/** The files. @throws FileError when there is nothing to write */
export const runExport = async (
  project: Project,
  order: ExportOrder,
  job: FileJob,
): Promise<Written & { readonly counts: ExportPlan['counts'] }> => {
  const { exporter, options } = understood(order);
  return writtenBy(exporter, await sourceOf(project, exporter.takes, order, job), options, job);
};
/** Files of a source that was gathered already. */
export async function writtenBy(
  exporter: Exporter,
  source: Sources[Takes],
  options: unknown,
  job: FileJob,
): Promise<Written & { readonly counts: ExportPlan['counts'] }> {
  const { counts } = exporter.plan(source, options);
  return { ...(await exporter.write(source, options, job)), counts };
}

/** Options of an exporter as somebody stored them; what it does not know, or cannot take, is as it comes. */
export function optionsOf(exporter: Exporter, stored: Readonly<Record<string, unknown>> | undefined): unknown {
  const known = optionFields(exporter.options).map((f) => f.key);
  const given = Object.fromEntries(Object.entries(stored ?? {}).filter(([key]) => known.includes(key)));
  const parsed = exporter.options.safeParse(given);
  return parsed.success ? parsed.data : exporter.options.parse({});
}

function understood(order: ExportOrder): { exporter: Exporter; options: unknown } {
  const exporter = exporterOf(order.exporter);
  if (!exporter) throw new FileError('order.unknownExporter', { exporter: order.exporter });
  return { exporter, options: exporter.options.parse(order.options) };
}

/** What exporters of a kind take, gathered. */
export async function sourceOf(
  project: Project,
  takes: Takes,
  { subject, profile = PLAIN_PROFILE }: Pick<ExportOrder, 'subject' | 'profile'>,
  job: FileJob,
): Promise<Sources[Takes]> {
  switch (takes) {
    case 'project':
      return project;
    case 'palette':
      return paletteOf(project, subject);
    case 'model':
      return inPieces(gatherShippedSteps(project, subject.of === 'palette' ? { of: 'rig' } : subject, profile), job);
    case 'solid':
      return inPieces(solidSteps(project, subject.of === 'palette' ? { of: 'rig' } : subject, profile), job);
    case 'picture':
    case 'series':
      throw new FileError('order.picture');
  }
}

function paletteOf(project: Project, subject: Subject): Palette {
  if (subject.of !== 'palette') return project.palettes[0]!;
  return must(inColourway(project, subject.colourway).palettes, subject.palette, 'palette');
}

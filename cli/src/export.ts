import { join } from 'node:path';
import {
  EXPORTERS,
  type Exporter,
  FileError,
  QUIET_JOB,
  type Subject,
  exporterOf,
  noteText,
  optionFields,
  optionsFromWords,
  runExport,
} from '@sphalerite/core/files';
import { type Project, sideSuffix } from '@sphalerite/core/model';
import { CliError, openProject, writeWhole } from './io';

/** What the command can write; pictures of shots are traced by `render`. */
const FORMATS: readonly Exporter[] = EXPORTERS.filter((e) => e.takes !== 'picture');

/** Every format with its options, for the help text. */
/** What is counted, where one of it is not said by leaving an “s” off. */
const ONE: Readonly<Record<string, string>> = { bodies: 'body', vertices: 'vertex' };

export const formatsHelp = (): string =>
  FORMATS.map((e) => {
    const options = optionFields(e.options).map(
      (f) =>
        `      ${f.key}=${f.kind === 'switch' ? 'yes|no' : f.choices.join('|') || 'number'}  ${f.about || f.title}`,
    );
    return [`  ${e.id.padEnd(14)} ${e.name}: ${e.about}`, ...options].join('\n');
  }).join('\n');

export interface ExportWishes {
  readonly format: string;
  readonly out: string;
  readonly part?: string;
  readonly scene?: string;
  readonly palette?: string;
  readonly option: readonly string[];
}

export async function exportCommand(file: string, wishes: ExportWishes): Promise<void> {
  const exporter = exporterOf(wishes.format);
  if (!exporter || !FORMATS.includes(exporter))
    throw new CliError(
      `"${wishes.format}" is not a format this version writes; use ${FORMATS.map((e) => e.id).join(', ')}.`,
    );
  const project = openProject(file);
  try {
    const options = optionsFromWords(exporter.options, wishes.option);
    const order = { exporter: exporter.id, subject: subjectOf(project, wishes), options };
    const { files, notes, counts } = await runExport(project, order, QUIET_JOB);
    for (const n of notes) console.error(`note: ${noteText(n)}`);
    const figures = Object.entries(counts).map(
      ([what, n]) => `${n.toLocaleString('en')} ${n === 1 ? (ONE[what] ?? what.replace(/s$/, '')) : what}`,
    );
    for (const { name, bytes } of files) {
      const target = join(wishes.out, name);
      writeWhole(target, bytes);
      console.log(`${target}: ${[...figures, `${Math.ceil(bytes.length / 1024)} KB`].join(', ')}`);
    }
  } catch (e) {
    if (e instanceof FileError || e instanceof RangeError) throw new CliError(`${file}: ${e.message}`);
    throw e;
  }
}

function subjectOf(project: Project, { part, scene, palette }: ExportWishes): Subject {
  const named = <T extends { name: string; id: string }>(list: readonly T[], name: string, kind: string): string => {
    const full = (o: T): string => o.name + ('side' in o ? sideSuffix(o.side as 'left') : '');
    const found = list.find((o) => full(o) === name) ?? list.find((o) => o.name === name);
    if (found) return found.id;
    throw new CliError(
      `There is no ${kind} "${name}". There are: ${list.map((o) => `"${full(o)}"`).join(', ') || 'none'}.`,
    );
  };
  if (part !== undefined) return { of: 'part', part: named(project.parts, part, 'part') };
  if (scene !== undefined) return { of: 'scene', scene: named(project.scenes, scene, 'scene') };
  if (palette !== undefined)
    return { of: 'palette', palette: named(project.palettes, palette, 'palette'), colourway: null };
  return { of: 'rig' };
}

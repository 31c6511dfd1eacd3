import { type Unzipped, strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { type Box, type Steps, finish } from '../math';
import {
  type Project,
  type ProjectJson,
  FormatError,
  allParts,
  gridsOf,
  layerKey,
  migrateProject,
  must,
  projectFromJson,
  projectSchema,
  projectToJson,
} from '../model';
import { MAX_EDGE, VoxelGrid } from '../voxel';
import { FileError } from './file-error';
import { readSliceSheet, writeSliceSheet } from './slice-sheet';

export const PROJECT_EXTENSION = '.sphal';
const INDEX = 'project.json';
const MAX_UNPACKED = 512 * 1024 * 1024;
const MAX_ENTRIES = 20_000;
/** A fixed date, so that equal projects give equal files. */
const MTIME = new Date(2000, 0, 1);

interface CellsIndex {
  readonly [layer: string]: { readonly box: Box; readonly file: string };
}

/** The project as the bytes of a `.sphal` file; see docs/formats.md. Equal projects give equal bytes. */
export const writeProjectFile = (project: Project): Uint8Array<ArrayBuffer> => finish(writeProjectSteps(project));

/** {@link writeProjectFile} in pieces. */
export function* writeProjectSteps(project: Project): Steps<Uint8Array<ArrayBuffer>> {
  const entries: Record<string, Uint8Array> = {};
  const cells: Record<string, { box: Box; file: string }> = {};
  const parts = allParts(project);
  for (const [i, part] of parts.entries()) {
    yield i / parts.length;
    for (const { id, grid } of gridsOf(part)) {
      const box = grid.contentBox();
      if (!box) continue;
      const key = layerKey(part.id, id);
      const file = `cells/${key}.png`;
      cells[key] = { box, file };
      entries[file] = writeSliceSheet(grid, box, must(project.palettes, part.palette, 'palette'));
    }
  }
  // The schema puts fields in its own order, whatever edits made of them, and nothing unreadable is ever written.
  const json = { format: 'sphalerite project', ...projectSchema.parse(projectToJson(project)), cells };
  return zipSync(
    { [INDEX]: strToU8(JSON.stringify(json, null, 1)), ...entries },
    { mtime: MTIME, level: 6 },
  ) as Uint8Array<ArrayBuffer>;
}

export interface ReadProject {
  readonly result: Project;
  /** What was left out or changed while reading, in sentences. */
  readonly notes: readonly string[];
}

/** Reads a `.sphal` file. @throws FileError with one clear sentence; nothing half-read comes out. */
export const readProjectFile = (bytes: Uint8Array): ReadProject => finish(readProjectSteps(bytes));

/** {@link readProjectFile} in pieces. */
export function* readProjectSteps(bytes: Uint8Array): Steps<ReadProject> {
  const files = unpack(bytes);
  const { format: _format, cells, ...rest } = parseIndex(files[INDEX]);
  const table = checkCells(cells);
  const used = new Set<string>([INDEX]);
  const json = checkProject(rest);
  const grids = new Map<string, VoxelGrid>();
  const parts = [...json.parts, ...json.stamps, ...json.bin.flatMap((b) => (b.kind === 'part' ? [b.part] : []))];
  for (const [i, part] of parts.entries()) {
    yield i / parts.length;
    for (const id of [...part.layers.map((l) => l.id), ...(part.regions ? [part.regions.id] : [])]) {
      const key = layerKey(part.id, id);
      const entry = table[key];
      if (!entry) continue;
      const png = files[entry.file];
      if (!png)
        throw new FileError(`The project file is incomplete: the cubes of "${part.name}" (${entry.file}) are missing.`);
      used.add(entry.file);
      grids.set(key, cellsOf(png, entry.box, part.bounds as Box, `The picture of "${part.name}" (${entry.file})`));
    }
  }
  const result = projectFromJson(
    json,
    (part, layerId) => grids.get(layerKey(part.id, layerId)) ?? VoxelGrid.empty(part.bounds as Box),
  );
  const spare = Object.keys(files).filter((f) => !used.has(f));
  return {
    result,
    notes: spare.length > 0 ? [`${spare.length} files in the project file belong to nothing and were left out.`] : [],
  };
}

/** A layer from its picture. @throws FileError, whatever is wrong with the picture */
function cellsOf(png: Uint8Array, box: Box, bounds: Box, what: string): VoxelGrid {
  try {
    return readSliceSheet(png, box, what).withBounds(bounds);
  } catch (e) {
    if (e instanceof FileError) throw e;
    // Decoders throw whatever they stumble over in a damaged picture.
    throw new FileError(`${what} is damaged and cannot be read.`);
  }
}

function checkProject(json: unknown): ProjectJson {
  try {
    return migrateProject(json);
  } catch (e) {
    if (e instanceof FormatError) throw new FileError(e.message);
    throw e;
  }
}

function parseIndex(index: Uint8Array | undefined): Record<string, unknown> {
  if (!index) throw new FileError(`This is not a Sphalerite project file: it holds no ${INDEX}.`);
  let raw: unknown;
  try {
    raw = JSON.parse(strFromU8(index));
  } catch {
    throw new FileError(`The project file is damaged: ${INDEX} is not JSON.`);
  }
  if (typeof raw !== 'object' || raw === null)
    throw new FileError(`The project file is damaged: ${INDEX} holds no project.`);
  return raw as Record<string, unknown>;
}

function unpack(bytes: Uint8Array): Unzipped {
  let total = 0,
    count = 0;
  try {
    return unzipSync(bytes, {
      filter: (f) => {
        total += f.originalSize;
        if (++count > MAX_ENTRIES || total > MAX_UNPACKED)
          throw new FileError(
            `The project file is too large: it unpacks to more than ${MAX_UNPACKED / 1048576} MB or ${MAX_ENTRIES.toLocaleString('en')} files.`,
          );
        return f.name === INDEX || /^cells\/[A-Za-z0-9_-]{1,40}\/[A-Za-z0-9_-]{1,40}\.png$/.test(f.name);
      },
    });
  } catch (e) {
    if (e instanceof FileError) throw e;
    throw new FileError('This is not a Sphalerite project file: it cannot be unpacked as a ZIP.');
  }
}

function checkCells(cells: unknown): CellsIndex {
  const bad = (): never => {
    throw new FileError('The project file is damaged: its list of cubes makes no sense.');
  };
  if (typeof cells !== 'object' || cells === null) return bad();
  const whole = (v: unknown, lo: number, hi: number): boolean =>
    Number.isInteger(v) && (v as number) >= lo && (v as number) <= hi;
  for (const e of Object.values(cells as Record<string, { box?: { min?: unknown; size?: unknown }; file?: unknown }>)) {
    const { min, size } = e?.box ?? {};
    if (!Array.isArray(min) || min.length !== 3 || !min.every((v) => whole(v, -1e6, 1e6))) bad();
    if (!Array.isArray(size) || size.length !== 3 || !size.every((v) => whole(v, 1, MAX_EDGE))) bad();
    if (typeof e.file !== 'string') bad();
  }
  return cells as CellsIndex;
}

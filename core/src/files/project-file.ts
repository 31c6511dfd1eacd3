import { type Unzipped, strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import * as z from 'zod';
import { type Box, type Steps, finish } from '../math';
import {
  type BlobType,
  type LooseJson,
  type Path,
  type Project,
  FormatError,
  LISTED_KINDS,
  blobId,
  boxSchema,
  checkFlaws,
  eachMarked,
  find,
  migrateProject,
  projectFromJson,
  projectSchema,
  projectToJson,
  recordsOf,
} from '../model';
import { type Palette, READY_PALETTES } from '../palette';
import { VoxelGrid } from '../voxel';
import { FileError } from './file-error';
import { type Note, note } from './notes';
import { withOldCells } from './old-cells';
import { readSliceSheet, writeSliceSheet } from './slice-sheet';

export const PROJECT_EXTENSION = '.sphal';
const INDEX = 'project.json';
const MAX_UNPACKED = 512 * 1024 * 1024;
const MAX_ENTRIES = 20_000;
/** A fixed date, so that equal projects give equal files. */
const MTIME = new Date(2000, 0, 1);
const ENTRY = /^(cells|blobs)\/(?:[A-Za-z0-9_-]{1,64}\/){0,8}[A-Za-z0-9_-]{1,64}\.(png|jpg|webp|bin)$/;
const EXTENSIONS: Readonly<Record<BlobType, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/webp': 'webp',
  'application/octet-stream': 'bin',
};

/** What stands in the JSON for a grid: its bounds and, unless it is empty, the box that its slice sheet shows. */
const gridEntry = z.strictObject({ bounds: boxSchema, box: boxSchema.optional(), file: z.string().optional() });
/** What stands in the JSON for the bytes of a blob. */
const blobEntry = z.strictObject({ file: z.string() });

/** The project as the bytes of a `.sphal` file; see docs/formats.md. Equal projects give equal bytes. */
export const writeProjectFile = (project: Project): Uint8Array<ArrayBuffer> => finish(writeProjectSteps(project));

/** {@link writeProjectFile} in pieces. */
export function* writeProjectSteps(project: Project): Steps<Uint8Array<ArrayBuffer>> {
  const sheets = new Map<VoxelGrid, { readonly at: Path; readonly palette: Palette; file: string }>();
  for (const { grid, at, palette } of gridsToWrite(project))
    if (!sheets.has(grid)) sheets.set(grid, { at, palette, file: '' });
  const entries: Record<string, Uint8Array> = {};
  const boxes = new Map<VoxelGrid, Box | null>();
  let done = 0;
  for (const [grid, sheet] of sheets) {
    yield done++ / sheets.size;
    const box = grid.contentBox();
    boxes.set(grid, box);
    if (!box) continue;
    sheet.file = freeEntry(entries, `cells/${sheet.at.join('/')}`, '.png');
    entries[sheet.file] = writeSliceSheet(grid, box, sheet.palette);
  }
  const blobs: Record<string, Uint8Array> = {};
  const types = blobTypes(project);
  const json = projectToJson(project, {
    cells(grid) {
      const box = boxes.get(grid);
      return { bounds: grid.bounds, ...(box ? { box, file: sheets.get(grid)!.file } : {}) };
    },
    bytes(bytes, at) {
      const id = at.at(-1)!;
      const file = `blobs/${id}.${EXTENSIONS[types.get(id)!]}`;
      blobs[file] = bytes;
      return { file };
    },
  });
  const { formatVersion, ...fields } = json;
  // The schema puts fields in its own order, whatever edits made of them, and nothing unreadable is ever written.
  const index = { format: 'sphalerite project', formatVersion, ...projectSchema.parse(fields) };
  return zipSync(
    // Pictures are packed as well as they can be already.
    { [INDEX]: strToU8(JSON.stringify(index, null, 1)), ...entries, ...stored(blobs) },
    { mtime: MTIME, level: 6 },
  ) as Uint8Array<ArrayBuffer>;
}

const stored = (files: Record<string, Uint8Array>) =>
  Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name, [bytes, { level: 0 }] as const]));

/** Every grid of a project with the ids on the way to it and the palette that its picture shows; other projects in it too. */
function gridsToWrite(project: Project, way: Path = []): { grid: VoxelGrid; at: Path; palette: Palette }[] {
  const out: { grid: VoxelGrid; at: Path; palette: Palette }[] = [];
  for (const kind of LISTED_KINDS) {
    if (kind.name === 'asset' || kind.name === 'restore point') continue;
    for (const record of recordsOf(project, kind)) {
      const colours = (record as { palette?: string; record?: { palette?: string } }).record ?? record;
      const palette = find(project.palettes, (colours as { palette?: string }).palette ?? null) ?? project.palettes[0];
      eachMarked(kind.schema, ['cells'], record, (_, grid, at) =>
        out.push({ grid: grid as VoxelGrid, at: [...way, ...at], palette: palette ?? noPalette }),
      );
    }
  }
  return [...out, ...within(project).flatMap((w) => gridsToWrite(w.project, [...way, w.id]))];
}
/** What holds a whole project within this one. */
const within = (project: Project) => [...project.assets, ...project.restorePoints];
const noPalette: Palette = { id: '', name: '', swatches: READY_PALETTES[0]!.swatches };

const blobTypes = (project: Project): Map<string, BlobType> =>
  new Map([
    ...within(project).flatMap((w) => [...blobTypes(w.project)]),
    ...project.blobs.map((b) => [b.id, b.type] as const),
  ]);

/** A name that no entry has yet. */
function freeEntry(entries: Record<string, unknown>, stem: string, extension: string): string {
  let name = stem + extension;
  for (let n = 2; name in entries; n++) name = `${stem}-${n}${extension}`;
  return name;
}

export interface ReadProject {
  readonly result: Project;
  /** What was left out or changed while reading. */
  readonly notes: readonly Note[];
}

/** Reads a `.sphal` file. @throws FileError with one clear sentence; nothing half-read comes out. */
export const readProjectFile = (bytes: Uint8Array): ReadProject => finish(readProjectSteps(bytes));

/** {@link readProjectFile} in pieces. */
export function* readProjectSteps(bytes: Uint8Array): Steps<ReadProject> {
  const files = unpack(bytes);
  const { format: _format, ...rest } = parseIndex(files[INDEX]);
  const used = new Set<string>([INDEX]);
  const json = checked(() => migrateProject(withOldCells(rest)));
  const takes = (file: string, what: string): Uint8Array => {
    const found = ENTRY.test(file) ? files[file] : undefined;
    if (!found) throw new FileError('projectFile.incomplete', { what, file });
    used.add(file);
    return found;
  };
  const grids = new Map<object, VoxelGrid>();
  const places = checked(() => placesOf(json));
  for (const [i, { entry, name }] of places.entries()) {
    yield i / places.length;
    grids.set(entry, gridOf(entry, name, takes));
  }
  const result = projectFromJson(json, {
    cells: (entry) => grids.get(entry as object)!,
    bytes: (entry, at) => blobOf(entry, at.at(-1)!, takes),
  });
  checked(() => checkAllFlaws(result));
  const spare = Object.keys(files).filter((f) => !used.has(f));
  return {
    result,
    notes: spare.length > 0 ? [note('entriesSpare', '', { n: spare.length })] : [],
  };
}

function checkAllFlaws(project: Project): void {
  checkFlaws(project);
  for (const w of within(project)) checkAllFlaws(w.project);
}

/** Whatever stands in the JSON for cells, with the name of the record around it. */
function placesOf(json: LooseJson): { readonly entry: object; readonly name: string }[] {
  const places: { entry: object; name: string }[] = [];
  for (const kind of LISTED_KINDS) {
    for (const record of json[kind.list] as readonly { name?: string; record?: { name?: string } }[]) {
      const name = record.name ?? record.record?.name ?? kind.name;
      eachMarked(kind.schema, ['cells'], record, (_, entry) => {
        if (typeof entry !== 'object' || entry === null) throw noSense();
        places.push({ entry, name });
      });
    }
  }
  return places;
}

const noSense = (): FileError => new FileError('projectFile.cubeList');

/** A grid from its picture. @throws FileError, whatever is wrong with the picture */
function gridOf(json: unknown, name: string, takes: (file: string, what: string) => Uint8Array): VoxelGrid {
  const { success, data } = gridEntry.safeParse(json);
  if (!success || (data.box === undefined) !== (data.file === undefined)) throw noSense();
  const bounds = data.bounds as Box;
  if (data.box === undefined || data.file === undefined) return VoxelGrid.empty(bounds);
  const png = takes(data.file, `the cubes of "${name}"`);
  const what = `The picture of "${name}" (${data.file})`;
  try {
    return readSliceSheet(png, data.box as Box, what).withBounds(bounds);
  } catch (e) {
    if (e instanceof FileError) throw e;
    // Decoders throw whatever they stumble over in a damaged picture.
    throw new FileError('projectFile.unreadable', { what });
  }
}

/** The bytes of a blob. @throws FileError when they are not those that it names */
function blobOf(json: unknown, id: string, takes: (file: string, what: string) => Uint8Array): Uint8Array<ArrayBuffer> {
  // In files of older formats a picture stood in the JSON itself.
  const data =
    json instanceof Uint8Array
      ? json
      : takes(blobEntry.safeParse(json).data?.file ?? 'nowhere', 'the bytes of a picture');
  if (blobId(data) !== id) throw new FileError('projectFile.picture');
  return data as Uint8Array<ArrayBuffer>;
}

/** What a check refuses as the sentence of a file. */
function checked<T>(check: () => T): T {
  try {
    return check();
  } catch (e) {
    if (e instanceof FormatError) throw new FileError(e.code, e.params);
    // Projects within projects are walked one inside the other.
    if (e instanceof RangeError) throw new FileError('projectFile.tooDeep');
    throw e;
  }
}

function parseIndex(index: Uint8Array | undefined): Record<string, unknown> {
  if (!index) throw new FileError('projectFile.noIndex', { index: INDEX });
  let raw: unknown;
  try {
    raw = JSON.parse(strFromU8(index));
  } catch {
    throw new FileError('projectFile.indexNoJson', { index: INDEX });
  }
  if (typeof raw !== 'object' || raw === null) throw new FileError('projectFile.indexNoProject', { index: INDEX });
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
          throw new FileError('projectFile.tooLarge', { megabytes: MAX_UNPACKED / 1048576, most: MAX_ENTRIES });
        return f.name === INDEX || ENTRY.test(f.name);
      },
    });
  } catch (e) {
    if (e instanceof FileError) throw e;
    throw new FileError('projectFile.noZip');
  }
}

import type * as z from 'zod';
import type { VoxelGrid } from '../voxel';
import { FORMAT_VERSION } from './format-version';
import type { Id } from './ids';
import { type LooseJson, type Project, type RecordKind, projectKind } from './kinds';
import { type Path, mapMarked } from './marks';

/** What goes into JSON for what is carried apart from it. */
export interface Carrier {
  cells(grid: VoxelGrid, at: Path): unknown;
  bytes(bytes: Uint8Array<ArrayBuffer>, at: Path): unknown;
  /** A number from 1 that stands for a piece that is kept apart; null writes it here. */
  piece?(piece: object): number | null;
}
/** The way back. Whatever stands in the JSON has to be checked here. */
export interface Opener {
  cells(standIn: unknown, at: Path): VoxelGrid;
  bytes(standIn: unknown, at: Path): Uint8Array<ArrayBuffer>;
  /** The piece that a number stands for; without it none does. */
  piece?(standIn: number): object;
}

const carried = ['cells', 'bytes'] as const,
  withPieces = [...carried, 'apart'] as const;

/** A record without its cells and bytes, ready for JSON. */
export const recordToJson = (kind: RecordKind, record: unknown, carrier: Carrier): LooseJson =>
  mapMarked(kind.schema, carrier.piece ? withPieces : carried, record, (mark, v, at, inside) => {
    if (mark.mark === 'cells') return carrier.cells(v as VoxelGrid, at);
    if (mark.mark === 'bytes') return carrier.bytes(v as Uint8Array<ArrayBuffer>, at);
    return carrier.piece!(v as object) ?? inside(v);
  }) as LooseJson;

/** The record of checked JSON. */
export const recordFromJson = <R = unknown>(kind: RecordKind, json: unknown, opener: Opener): R =>
  mapMarked(kind.schema, opener.piece ? withPieces : carried, json, (mark, v, at, inside) => {
    if (mark.mark === 'cells') return opener.cells(v, at);
    if (mark.mark === 'bytes') return opener.bytes(v, at);
    return typeof v === 'number' ? opener.piece!(v) : inside(v);
  }) as R;

/** Says of cells and bytes only how many there are: for looking at and for comparing. */
const COUNTS: Carrier = {
  cells: (grid) => ({ bounds: grid.bounds, cubes: grid.count }),
  bytes: (data) => data.byteLength,
};

/** The project as JSON of today's format. */
export const projectToJson = (project: Project, carrier: Carrier = COUNTS): LooseJson => ({
  formatVersion: FORMAT_VERSION,
  ...recordToJson(projectKind as RecordKind, project, carrier),
});

/** The project from checked JSON. */
export const projectFromJson = (json: unknown, opener: Opener): Project =>
  recordFromJson<Project>(projectKind as RecordKind, json, opener);

/** A value with every id in it replaced: its own, and those of what it names. Projects within it keep theirs. */
export const mapIds = <T>(schema: z.ZodType, value: T, over: (id: Id, of: string) => Id): T =>
  mapMarked(schema, ['own', 'ref', 'mention'], value, (mark, id) => over(id as Id, (mark as { of: string }).of));

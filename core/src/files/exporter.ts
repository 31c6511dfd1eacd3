import type * as z from 'zod';
import type { Grade, Project } from '../model';
import type { Palette } from '../palette';
import type { FilmLight } from '../render';
import type { SpriteCell } from '../takes';
import type { FileJob } from './job';
import type { Note } from './notes';
import type { ShipModel } from './ship/ship-model';
import type { SolidModel } from './ship/solid';

/** A traced picture, as light, with the name it is saved under. */
export interface PictureSource {
  readonly name: string;
  readonly film: FilmLight;
  readonly grade: Grade;
  readonly transparent: boolean;
}

/** One of several pictures, packed. */
export interface SeriesFrame {
  readonly png: Uint8Array<ArrayBuffer>;
  /** How long it stands. */
  readonly seconds: number;
  /** Name of the clip that it is of. */
  readonly clip: string | null;
  readonly loop: boolean;
  /** Degrees that what stands there is turned by. */
  readonly direction: number;
  readonly index: number;
}
/** Pictures that follow one another, or stand on a sheet. */
export interface SeriesSource {
  readonly name: string;
  readonly loop: boolean;
  readonly frames: readonly SeriesFrame[];
  /** Of sprites: where in their cell they stand, and their shadows where those are apart. */
  readonly cell: SpriteCell | null;
  readonly shadows: readonly SeriesFrame[] | null;
}

/** What exporters take. */
export interface Sources {
  readonly model: ShipModel;
  readonly solid: SolidModel;
  readonly project: Project;
  readonly palette: Palette;
  readonly picture: PictureSource;
  readonly series: SeriesSource;
}
export type Takes = keyof Sources;

export interface WrittenFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}
export interface Written {
  readonly files: readonly WrittenFile[];
  readonly notes: readonly Note[];
}
/** What would be written, told before a byte is. */
export interface ExportPlan {
  /** Figures by what they count, in the order to show them in. */
  readonly counts: Readonly<Record<string, number>>;
  readonly notes: readonly Note[];
}

/**
 * A kind of file that is written. One folder an exporter, one line in `exporters/list.ts`; Ship's tray and forms, the command
 * line and the table in docs/formats.md come from that list.
 */
export interface Exporter<K extends Takes = Takes, O = unknown> {
  readonly id: string;
  /** As a person would call the file. */
  readonly name: string;
  /** As it stands behind "Save the". */
  readonly noun: string;
  /** What it is good for, in a few words. */
  readonly about: string;
  readonly takes: K;
  /** With its dot, the one that is written first. */
  readonly extensions: readonly [string, ...string[]];
  readonly type: string;
  /** Each option has a default; `meta` gives its `title` and `description`. */
  readonly options: z.ZodType<O>;
  plan(source: Sources[K], options: O): ExportPlan;
  /** @throws FileError when there is nothing to write */
  write(source: Sources[K], options: O, job: FileJob): Promise<Written>;
}

/** Whether an exporter writes what was built, and no picture of it. */
export const shipsModels = (e: Exporter): boolean => e.takes !== 'picture' && e.takes !== 'series';

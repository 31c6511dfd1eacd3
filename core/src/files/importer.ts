import type * as z from 'zod';
import type { Pixels } from '../codec';
import type { Box } from '../math';
import type { Id, Project } from '../model';
import type { Palette, Swatch } from '../palette';
import type { FileJob } from './job';
import type { Note } from './notes';

/** A file that somebody gives us. */
export interface GivenFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** A thing found in one or several files, a mesh for instance with its materials and pictures. */
export interface Find {
  /** What one would call it. */
  readonly title: string;
  readonly files: readonly GivenFile[];
}

/** Where something goes: the part in hand. */
export interface Place {
  readonly part: Id;
  readonly palette: Palette;
  /** What its cubes take up, or its whole volume while it has none. */
  readonly content: Box;
  /** Its lowest layer. */
  readonly floor: number;
  /** Metres along one of its cubes. */
  readonly cube: number;
}

/** What comes of an import. An edit is one of the project's, by name. */
export type Brought =
  | { readonly kind: 'project'; readonly project: Project }
  | { readonly kind: 'palette'; readonly name: string; readonly swatches: readonly Swatch[] }
  /** Parts made of something else, as a project of their own, and figures about the making. */
  | { readonly kind: 'parts'; readonly project: Project; readonly facts: Readonly<Record<string, readonly number[]>> }
  /** Light from all directions, a Radiance picture, for the shot in hand. */
  | { readonly kind: 'surroundings'; readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> }
  | { readonly kind: 'edit'; readonly edit: string; readonly args: unknown };

export interface Imported {
  readonly brought: Brought;
  readonly notes: readonly Note[];
}

/** An import under way; what a browser can and core cannot is lent by whoever runs it. */
export interface ImportJob extends FileJob {
  /** The size of a picture in pixels, decoded whole, so that what cannot be shown is refused. @throws when it cannot be read */
  pictureSize(
    bytes: Uint8Array<ArrayBuffer>,
    type: string,
  ): Promise<{ readonly width: number; readonly height: number }>;
  /** The pixels of a picture of a kind that only browsers decode; missing where there is none. @throws when it cannot be read */
  pixels?(bytes: Uint8Array<ArrayBuffer>, type: string): Promise<Pixels>;
}

/** What has to be there for an import. */
export const NEEDS = ['nothing', 'project', 'part'] as const;
export type Needs = (typeof NEEDS)[number];

/**
 * A use for files that are given. One folder an importer, one line in `importers/list.ts`; drops, pastes, file dialogs and the
 * command line come from that list.
 */
export interface Importer<O = unknown> {
  readonly id: string;
  /** What is done with the file, as a button says it. */
  readonly does: string;
  /** With their dots, for file dialogs. */
  readonly extensions: readonly string[];
  readonly needs: Needs;
  readonly options: z.ZodType<O>;
  /** Whether a file looks like one of these, by its first bytes and its name. */
  accepts(head: Uint8Array, name: string): boolean;
  /** The things in files that were accepted. */
  inspect(files: readonly GivenFile[]): readonly Find[];
  /** The thing with files that it names and that are given later; null when they are not all its own. */
  joins?(find: Find, files: readonly GivenFile[]): Find | null;
  /** @throws FileError with a sentence that says what is wrong with it and what would do */
  run(find: Find, options: O, job: ImportJob, place: Place | null): Promise<Imported>;
}

/** Each file a thing of its own. */
export const oneEach = (files: readonly GivenFile[]): Find[] => files.map((f) => ({ title: f.name, files: [f] }));

import type { Blob, KeptImport, Part, Project } from '../model';
import { withBlobs } from './blobs';

/** A file that parts are made of, under the name that it was given with. */
export interface MakingFile {
  readonly name: string;
  readonly blob: Blob;
}

const LONGEST_NAME = 120;
/** The id within what is brought; it gets one of its own wherever that goes. */
const HOW = 'how';

/**
 * Parts that were made of something, as a project of their own, with how they were made: the importer, its wishes, its files.
 *
 * @param options – as JSON has them; the importer checks them again before they are used
 */
export function keepingHow(
  brought: Project,
  { importer, options }: Pick<KeptImport, 'importer' | 'options'>,
  files: readonly MakingFile[],
): Project {
  const kept: KeptImport = {
    id: HOW,
    importer,
    options,
    // The end of a name says what kind of file it is.
    files: files.map((f) => ({ name: f.name.slice(-LONGEST_NAME), blob: f.blob.id })),
  };
  return {
    ...withBlobs(
      brought,
      files.map((f) => f.blob),
    ),
    imports: [kept],
    parts: brought.parts.map((p) => ({ ...p, made: { import: HOW, as: p.name, pivot: p.pivot } })),
  };
}

/** Parts that came of the same making as one, itself first. */
export const madeWith = (project: Project, part: Part): Part[] => [
  part,
  ...project.parts.filter((p) => p !== part && p.made && p.made.import === part.made?.import),
];

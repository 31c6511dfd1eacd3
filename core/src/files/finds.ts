import type { Find, GivenFile, Importer } from './importer';

/** Bytes of a file that tell what it is. */
export const HEAD_BYTES = 64;

/** A thing that was found, and who would take it. */
export interface Found {
  readonly find: Find;
  readonly uses: readonly Importer[];
}

/**
 * Looks at files together: every thing in them with all importers that would take it, and the files that nobody knows. What
 * belongs to something larger, a picture to the mesh it is on, is not a thing by itself.
 */
export function findsIn(
  files: readonly GivenFile[],
  importers: readonly Importer[],
): { readonly found: readonly Found[]; readonly unknown: readonly GivenFile[] } {
  const all: { find: Find; uses: Importer[] }[] = [];
  const unknown = new Set(files);
  for (const importer of importers) {
    const taken = files.filter((f) => importer.accepts(f.bytes.subarray(0, HEAD_BYTES), f.name));
    for (const find of importer.inspect(taken)) {
      for (const f of find.files) unknown.delete(f);
      // Two importers that want the same files mean the same thing.
      const known = all.find((o) => within(find, o.find) && within(o.find, find));
      if (known) known.uses.push(importer);
      else all.push({ find, uses: [importer] });
    }
  }
  const found = all.filter((a) => !all.some((b) => b !== a && within(a.find, b.find)));
  return { found, unknown: [...unknown] };
}

/** Whether all files of one thing are among those of another. */
const within = (a: Find, b: Find): boolean => a.files.every((f) => b.files.includes(f));

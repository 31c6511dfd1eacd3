import { GENERATORS, type Generator } from '../../../generate';
import { inRows, projectOfBodies } from '../../bodies';
import { FileError } from '../../file-error';
import type { Importer } from '../../importer';

/** What is made up is brought in as files are, with wishes, a preview and undo; it needs no file. */
export const grownImporters: readonly Importer[] = GENERATORS.map((g): Importer => ({
  id: g.id,
  does: `Make up: ${g.name.toLowerCase()}`,
  extensions: [],
  needs: 'project',
  options: g.options,
  accepts: () => false,
  inspect: (files) => {
    if (files.length > 0) throw new FileError('grown.noFile', { name: g.name });
    return [{ title: g.name, files: [] }];
  },
  async run(_find, options, job) {
    await job.breathe();
    const made = g.make(options);
    const bodies = made.parts.length > 1 ? inRows(made.parts) : made.parts;
    return {
      brought: {
        kind: 'parts',
        project: projectOfBodies(g.name, bodies, { id: 'colours', name: g.name, swatches: made.swatches }),
        facts: { grown: [seedOf(g, options)], colours: [0, made.swatches.length] },
      },
      notes: [],
    };
  },
}));

const seedOf = (g: Generator, options: unknown): number => (g.options.parse(options) as { seed: number }).seed;

import { GENERATORS, type Generator } from '../../../generate';
import { type Vec3, sub } from '../../../math';
import { type Body, projectOfBodies } from '../../bodies';
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

/** Cubes between parts that come together. */
const GAP = 3;

/** Several parts side by side, in about as many rows as columns. */
function inRows(parts: readonly { readonly name: string; readonly grid: Body['grid'] }[]): Body[] {
  const columns = Math.ceil(Math.sqrt(parts.length));
  let [x, z, deep, wide] = [0, 0, 0, 0];
  const placed = parts.map(({ name, grid }, i) => {
    if (i > 0 && i % columns === 0) [x, z, deep] = [0, z + deep + GAP, 0];
    const { size } = grid.contentBox() ?? grid.bounds;
    const at: Vec3 = [x + size[0] / 2, 0, z + size[2] / 2];
    x += size[0] + GAP;
    wide = Math.max(wide, x - GAP);
    deep = Math.max(deep, size[2]);
    return { name, grid, at };
  });
  // Their middle is over the origin.
  const middle: Vec3 = [Math.round(wide / 2), 0, Math.round((z + deep) / 2)];
  return placed.map((p) => ({ ...p, at: sub(p.at, middle) }));
}

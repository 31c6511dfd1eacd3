import { byteTable, CellSet } from '../voxel';
import type { Palette, Swatch } from '../palette';
import { composite } from './part';
import { must } from './records';
import type { Part, Project } from './kinds';

const bare = new WeakMap<Project, Project>();
const bareParts = new WeakMap<Part, { palette: Palette; part: Part }>();

/** Bytes of helper swatches, as a table by byte; null when there are none. */
export function helperBytes(palette: Palette): Uint8Array | null {
  const helpers = palette.swatches.filter((s) => s.helper);
  if (helpers.length === 0) return null;
  const table = byteTable();
  for (const s of helpers) table[s.byte] = 1;
  return table;
}

/** Whether a project, or one within it, has helper swatches. */
const hasHelpers = (project: Project): boolean =>
  project.palettes.some((p) => p.swatches.some((s) => s.helper)) || project.assets.some((a) => hasHelpers(a.project));

/**
 * The project as it is counted, pictured and shipped: without cubes of helper swatches, in the projects within it neither. The
 * same one when there are none.
 */
export function withoutHelpers(project: Project): Project {
  if (!hasHelpers(project)) return project;
  let out = bare.get(project);
  if (!out) {
    out = {
      ...project,
      parts: project.parts.map((p) => partWithoutHelpers(p, must(project.palettes, p.palette, 'palette'))),
      assets: project.assets.map((a) => ({ ...a, project: withoutHelpers(a.project) })),
    };
    bare.set(project, out);
  }
  return out;
}

export function partWithoutHelpers(part: Part, palette: Palette): Part {
  const table = helperBytes(palette);
  if (!table) return part;
  const known = bareParts.get(part);
  if (known?.palette === palette) return known.part;
  const out = {
    ...part,
    layers: part.layers.map((l) => ({ ...l, grid: l.grid.edit((d) => d.fillSet(CellSet.matching(l.grid, table), 0)) })),
  };
  bareParts.set(part, { palette, part: out });
  return out;
}

/** Cubes of helper swatches that show in a part. */
export function helperCount(part: Part, palette: Palette): number {
  const table = helperBytes(palette);
  return table ? CellSet.matching(composite(part), table).count : 0;
}

const lit = new WeakMap<Project, Project | null>();
const litParts = new WeakMap<Part, { palette: Palette; part: Part }>();

const hasHiddenLamps = (project: Project): boolean =>
  project.palettes.some((p) => p.swatches.some(isHiddenLamp)) || project.assets.some((a) => hasHiddenLamps(a.project));

/** A helper swatch that glows is a hidden lamp: it is in no picture, but its light is. */
export const isHiddenLamp = (s: Pick<Swatch, 'helper' | 'emissive'>): boolean => s.helper && s.emissive > 0;

/** The project with nothing in it but cubes of hidden lamps, in the projects within it too; null when it has none. */
export function onlyHiddenLamps(project: Project): Project | null {
  if (!hasHiddenLamps(project)) return null;
  let out = lit.get(project);
  if (!out) {
    out = {
      ...project,
      parts: project.parts.map((p) => partOfHiddenLamps(p, must(project.palettes, p.palette, 'palette'))),
      assets: project.assets.map((a) => ({
        ...a,
        project: onlyHiddenLamps(a.project) ?? { ...a.project, parts: a.project.parts.map(emptied) },
      })),
    };
    lit.set(project, out);
  }
  return out;
}

const emptied = (part: Part): Part => ({
  ...part,
  layers: part.layers.map((l) => ({
    ...l,
    grid: l.grid.edit((d) => d.fillSet(CellSet.matching(l.grid, byteTable().fill(1, 1)), 0)),
  })),
});
function partOfHiddenLamps(part: Part, palette: Palette): Part {
  const known = litParts.get(part);
  if (known?.palette === palette) return known.part;
  const others = byteTable().fill(1);
  others[0] = 0;
  for (const s of palette.swatches) if (isHiddenLamp(s)) others[s.byte] = 0;
  const out = {
    ...part,
    layers: part.layers.map((l) => ({
      ...l,
      grid: l.grid.edit((d) => d.fillSet(CellSet.matching(l.grid, others), 0)),
    })),
  };
  litParts.set(part, { palette, part: out });
  return out;
}

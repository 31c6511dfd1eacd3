import type { Vec3 } from '../../math';
import { type Part, type Project, composite, must, replaceRecord } from '../../model';
import { type Palette, type Swatch, appended } from '../../palette';
import { type VoxelGrid, byteCounts, byteTable, mapBytes } from '../../voxel';
import { type EditContext, EditError } from '../edit';
import { aside } from './bring-in';

/** A part that takes the cubes of one from elsewhere. */
export interface Taking {
  readonly part: Part;
  readonly by: Part;
  /** Where the cubes come to lie, given them in the colours of here, and what else of the part changes by that. */
  fit(grid: VoxelGrid): { readonly grid: VoxelGrid; readonly pivot: Vec3 } & Partial<Part>;
}

/**
 * Parts take the cubes of others: names, sides, mounts and palettes stay as they are; colours that are new join the part's palette, what
 * a part was goes to the bin.
 */
export function takingCubes(project: Project, source: Project, takings: readonly Taking[], ctx: EditContext): Project {
  let { palettes, parts } = project;
  const bin = [...project.bin];
  for (const { part: was, by, fit } of takings) {
    const target = must(palettes, was.palette, 'palette'),
      { swatches, to } = dyed(target, usedSwatches(source, by));
    const recoloured = mapBytes(
      composite(by),
      byteTable((b) => to.get(b) ?? b),
    );
    const { grid, ...changed } = fit(recoloured);
    palettes = swatches === target.swatches ? palettes : palettes.map((p) => (p === target ? { ...p, swatches } : p));
    bin.push(aside(project, was, ctx));
    parts = replaceRecord(parts, {
      ...was,
      ...changed,
      bounds: grid.bounds,
      layers: [{ id: ctx.newId(), name: was.layers[0]!.name, hidden: false, locked: false, grid }],
      regions: null,
      faceSlots: null,
      twin: null,
      origin: null,
    });
  }
  return { ...project, palettes, parts, bin };
}

/** Swatches that a part shows. */
function usedSwatches(source: Project, part: Part): Swatch[] {
  const counts = byteCounts(composite(part));
  return must(source.palettes, part.palette, 'palette').swatches.filter((s) => counts[s.byte]! > 0);
}

/**
 * Which byte of a palette each swatch that came back is: files carry colours to the last digit and finishes nearly, so one of the same
 * colour is meant, the nearest in finish where there are several. Others join the palette.
 *
 * @throws EditError when there is no room for them
 */
function dyed(
  target: Palette,
  theirs: readonly Swatch[],
): { readonly swatches: readonly Swatch[]; readonly to: ReadonlyMap<number, number> } {
  const far = (a: Swatch, b: Swatch): number =>
    Math.abs(a.opacity - b.opacity) +
    Math.abs(a.emissive - b.emissive) +
    Math.abs(a.roughness - b.roughness) +
    Math.abs(a.metalness - b.metalness);
  const to = new Map<number, number>(),
    fresh: Swatch[] = [];
  for (const s of theirs) {
    const [same] = target.swatches
      .filter((o) => o.colour === s.colour && !o.helper)
      .sort((a, b) => far(a, s) - far(b, s));
    if (same) to.set(s.byte, same.byte);
    else fresh.push(s);
  }
  const { swatches, bytes, left } = appended(target, fresh);
  if (left > 0) throw new EditError('bringIn.paletteFull', { palette: target.name, now: left });
  fresh.forEach((s, i) => to.set(s.byte, bytes[i]!));
  return { swatches: fresh.length > 0 ? swatches : target.swatches, to };
}

/**
 * Where cells lie whose pivot comes onto another, so that the part stays where it is; null where they would lie half a cube beside its own.
 *
 * @param from – the pivot they came with, in half cubes
 * @param to – where that pivot is in the part
 */
export function stepsBetween(from: Vec3, to: Vec3): Vec3 | null {
  const by = to.map((v, a) => (v - from[a]!) / 2);
  return by.every(Number.isInteger) ? (by as unknown as Vec3) : null;
}

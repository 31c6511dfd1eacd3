import { AXES, type Axis, type Box, uniteBoxes } from '../../math';
import {
  type Id,
  type Layer,
  type Part,
  type Project,
  composite,
  must,
  replaceRecord,
  withPartBounds,
} from '../../model';
import {
  type Extrusion,
  type Half,
  type Opening,
  type Shape,
  type Stroke,
  type Symmetry,
  applyStroke,
  cutOpening,
  extrude,
  mirrorBox,
  mirrorOver,
  shapeBox,
  strokeBox,
} from '../../sculpt';
import { type Swatch, freeByte } from '../../palette';
import { type CellSet, mapBytes, MAX_EDGE, sameBytes, type VoxelGrid } from '../../voxel';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';

export interface LayerTarget {
  readonly part: Id;
  readonly layer: Id;
  /** What is left visible by the cutaway; nothing outside it is read or changed. */
  readonly limit?: Box | null;
}

/** The project with one layer's cells replaced. */
function changeLayer(
  project: Project,
  target: LayerTarget,
  change: (layer: Layer, seen: VoxelGrid, limit: Box) => VoxelGrid,
): Project {
  const part = must(project.parts, target.part, 'part');
  const layer = must(part.layers, target.layer, 'layer');
  checkOpen(part, layer);
  const limit = target.limit ?? part.bounds;
  const seen = composite(part);
  const grid = change(layer, target.limit ? seen.clippedTo(limit) : seen, limit);
  if (grid === layer.grid) return project;
  const next: Part = { ...part, layers: replaceRecord(part.layers, { ...layer, grid }) };
  return { ...project, parts: replaceRecord(project.parts, next) };
}

/** @throws EditError when a layer is locked or hidden */
export function checkOpen(part: Part, layer: Layer): void {
  if (layer.locked) throw new EditError('strokes.locked', { layer: layer.name, part: part.name });
  if (layer.hidden) throw new EditError('strokes.hidden', { layer: layer.name, part: part.name });
}

const checkByte = (value: number): void => {
  if (!Number.isInteger(value) || value < 1 || value > 255) throw new EditError('strokes.noSwatch', { value });
};

/** A box around both, as long as a part may be that large. @throws EditError */
export function grownBounds(part: Part, box: Box | null): Box {
  const bounds = box ? uniteBoxes(part.bounds, box) : part.bounds;
  if (bounds.size.some((s) => s > MAX_EDGE))
    throw new EditError('strokes.tooLarge', { part: part.name, size: bounds.size.join(' × '), most: MAX_EDGE });
  return bounds;
}

/** A shape as the history has it. */
function shapeName(s: Shape): string {
  if (s.kind === 'set') return say('label.cubes', { n: s.set.count });
  if (s.kind === 'dabs') return say(s.centres.length === 1 && s.tip.size === 1 ? 'label.cube' : 'label.brush');
  const size = shapeBox(s).size.join('×');
  return s.kind === 'standing'
    ? say(`label.profile.${s.solid.profile}`, { size })
    : say(`label.shape.${s.kind}`, { size });
}

/** Adds, erases or paints cells of a layer. With `grow`, an added shape that leaves the volume makes it larger. */
export const strokeEdit = defineEdit<LayerTarget & { readonly stroke: Stroke; readonly grow?: boolean }>({
  name: 'stroke',
  label(a, p) {
    const { palette } = must(p.parts, a.part, 'part'),
      { verb, value, shapes } = a.stroke;
    const swatch = must(p.palettes, palette, 'palette').swatches.find((s) => s.byte === value)?.name;
    const what = shapes.length === 1 ? shapeName(shapes[0]!) : say('label.shapes', { n: shapes.length });
    return say(`label.stroke.${verb}`, { what, swatch: swatch || `swatch ${value}` });
  },
  touches: (a) => [a.part],
  run(project, args) {
    if (args.stroke.verb !== 'erase') checkByte(args.stroke.value);
    let from = project;
    if (args.grow && args.stroke.verb === 'add') {
      const part = must(project.parts, args.part, 'part');
      const next = withPartBounds(part, grownBounds(part, strokeBox(args.stroke.shapes, args.stroke.symmetry)));
      if (next.bounds !== part.bounds) from = { ...from, parts: replaceRecord(from.parts, next) };
    }
    const out = changeLayer(from, args, (layer, seen, limit) => applyStroke(layer.grid, seen, args.stroke, limit));
    return out === from ? project : out;
  },
});

/** Pulls or pushes a flat face. */
export const extrudeEdit = defineEdit<LayerTarget & { readonly extrusion: Extrusion }>({
  name: 'extrude',
  label: (a, p) =>
    `Extrude ${Math.abs(a.extrusion.layers)} ${a.extrusion.layers < 0 ? 'in' : 'out'} in ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run(project, args) {
    if (args.extrusion.value !== null) checkByte(args.extrusion.value);
    return changeLayer(project, args, (layer, seen, limit) => extrude(layer.grid, seen, args.extrusion, limit));
  },
});

/** Cuts a framed window, door or panel into a wall, with its mirror images. */
export const openingEdit = defineEdit<LayerTarget & { readonly opening: Opening; readonly symmetry: Symmetry }>({
  name: 'opening',
  label: (a, p) =>
    `Opening ${a.opening.face.size.filter((_, i) => a.opening.normal[i] === 0).join('×')} in ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run(project, args) {
    checkByte(args.opening.frame);
    if (args.opening.filling !== null) checkByte(args.opening.filling);
    let all: Opening[] = [args.opening];
    for (const axis of AXES) {
      const h = args.symmetry.mirror[axis];
      if (h !== null)
        all = all.concat(
          all.map((o) => ({
            ...o,
            face: mirrorBox(o.face, axis, h),
            normal: o.normal.map((n, i) => (i === axis ? -n || 0 : n)) as unknown as Opening['normal'],
          })),
        );
    }
    // All are cut into the wall as it was, so that mirrored ones that touch do not deepen one another.
    return changeLayer(project, args, (layer, seen, limit) =>
      all.reduce((g, o) => cutOpening(g, seen, o, limit), layer.grid),
    );
  },
});

/**
 * The common form of moves, pastes, repeats, turns and deletions: some cells are cleared, then pieces are put down.
 * `title` is what the history calls it. With `grow`, pieces that leave the volume make it larger.
 */
export const placeCellsEdit = defineEdit<
  LayerTarget & {
    readonly clear: CellSet | null;
    readonly put: readonly VoxelGrid[];
    readonly title: string;
    readonly grow?: boolean;
    readonly under?: boolean;
    /** Swatches that pieces from another palette bring along, under the bytes that their cells have. */
    readonly swatches?: readonly Swatch[];
  }
>({
  name: 'placeCells',
  label: (a, p) => `${a.title} in ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run(project, given) {
    const { from: coloured, put } = withSwatches(project, given);
    const args = { ...given, put };
    let from = coloured;
    if (args.grow) {
      const part = must(from.parts, args.part, 'part');
      const next = withPartBounds(
        part,
        grownBounds(
          part,
          args.put.reduce<Box | null>((b, g) => (b ? uniteBoxes(b, g.bounds) : g.bounds), null),
        ),
      );
      if (next.bounds !== part.bounds) from = { ...project, parts: replaceRecord(project.parts, next) };
    }
    const out = changeLayer(from, args, (layer, seen, limit) =>
      layer.grid.edit((d) => {
        if (args.clear) d.fillSet(args.clear, 0);
        // What lies there already wins when the piece is put under it.
        for (const g of args.put)
          g.forEach((x, y, z, v) =>
            args.under && d.get(x, y, z) !== 0 && seen.get(x, y, z) !== 0 ? undefined : d.set(x, y, z, v),
          );
      }, limit),
    );
    return out === from ? project : out;
  },
});

/**
 * The project with the swatches that pieces bring along, and the pieces in its bytes: a byte that has come to stand for
 * another colour meanwhile gives way to a free one. @throws EditError when the palette is full
 */
function withSwatches(
  project: Project,
  { part, put, swatches = [] }: { part: Id; put: readonly VoxelGrid[]; swatches?: readonly Swatch[] },
): { from: Project; put: readonly VoxelGrid[] } {
  if (swatches.length === 0) return { from: project, put };
  let palette = must(project.palettes, must(project.parts, part, 'part').palette, 'palette');
  const table = sameBytes();
  let moved = false;
  for (const s of swatches) {
    const there = palette.swatches.find((o) => o.byte === s.byte);
    if (there && there.colour === s.colour && there.emissive === s.emissive && there.opacity === s.opacity) continue;
    const byte = there ? freeByte(palette) : s.byte;
    if (byte === 0) throw new EditError('palettes.full', { palette: palette.name });
    table[s.byte] = byte;
    moved ||= there !== undefined;
    palette = { ...palette, swatches: [...palette.swatches, { ...s, byte }] };
  }
  return {
    from: { ...project, palettes: replaceRecord(project.palettes, palette) },
    put: moved ? put.map((g) => mapBytes(g, table)) : put,
  };
}

/** Makes one half of a layer the mirror image of the other. */
export const mirrorOverEdit = defineEdit<
  LayerTarget & { readonly axis: Axis; readonly plane: number; readonly keep: Half; readonly within?: CellSet | null }
>({
  name: 'mirrorOver',
  label: (a, p) => `Mirror ${['X', 'Y', 'Z'][a.axis]} over in ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changeLayer(project, a, (layer) => mirrorOver(layer.grid, a.axis, a.plane, a.keep, a.within ?? null)),
});

import { type Id, type Layer, type Part, type Project, composite, must, replaceRecord } from '../../model';
import { type Extrusion, type Stroke, applyStroke, extrude } from '../../sculpt';
import type { VoxelGrid } from '../../voxel';
import { EditError, defineEdit } from '../edit';

export interface LayerTarget {
  readonly part: Id;
  readonly layer: Id;
}

/** The project with one layer's cells replaced. */
function changeLayer(project: Project, target: LayerTarget, change: (layer: Layer, seen: VoxelGrid) => VoxelGrid): Project {
  const part = must(project.parts, target.part, 'part');
  const layer = must(part.layers, target.layer, 'layer');
  if (layer.locked) throw new EditError(`Layer "${layer.name}" of "${part.name}" is locked. Unlock it to change its cubes.`);
  if (layer.hidden) throw new EditError(`Layer "${layer.name}" of "${part.name}" is hidden. Show it to change its cubes.`);
  const grid = change(layer, composite(part));
  if (grid === layer.grid) return project;
  const next: Part = { ...part, layers: replaceRecord(part.layers, { ...layer, grid }) };
  return { ...project, parts: replaceRecord(project.parts, next) };
}

const checkByte = (value: number): void => {
  if (!Number.isInteger(value) || value < 1 || value > 255) throw new EditError(`Swatch ${value} does not exist; bytes run from 1 to 255.`);
};

/** Adds, erases or paints cells of a layer. */
export const strokeEdit = defineEdit<LayerTarget & { readonly stroke: Stroke }>({
  name: 'stroke',
  label: (a, p) => `${a.stroke.verb[0]!.toUpperCase()}${a.stroke.verb.slice(1)} in ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run(project, args) {
    if (args.stroke.verb !== 'erase') checkByte(args.stroke.value);
    return changeLayer(project, args, (layer, seen) => applyStroke(layer.grid, seen, args.stroke));
  },
});

/** Pulls or pushes a flat face. */
export const extrudeEdit = defineEdit<LayerTarget & { readonly extrusion: Extrusion }>({
  name: 'extrude',
  label: (a, p) => `Extrude ${Math.abs(a.extrusion.layers)} ${a.extrusion.layers < 0 ? 'in' : 'out'} in ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run(project, args) {
    if (args.extrusion.value !== null) checkByte(args.extrusion.value);
    return changeLayer(project, args, (layer, seen) => extrude(layer.grid, seen, args.extrusion));
  },
});

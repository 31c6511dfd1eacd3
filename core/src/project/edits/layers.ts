import {
  type Id,
  type Layer,
  type Part,
  type Project,
  freeName,
  makeMount,
  makePart,
  moveRecord,
  must,
  partContent,
  replaceRecord,
  withPartBounds,
} from '../../model';
import { cutOut } from '../../sculpt';
import { CellSet, VoxelGrid } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { binned, partsToBin } from '../bin';
import { checkOpen, grownBounds } from './strokes';

type PartLayer = { readonly part: Id; readonly layer: Id };
const MOST_LAYERS = 64;

function changeLayers(
  project: Project,
  part: Id,
  change: (layers: readonly Layer[], part: Part) => readonly Layer[],
): Project {
  const p = must(project.parts, part, 'part');
  const layers = change(p.layers, p);
  if (layers === p.layers) return project;
  if (layers.length > MOST_LAYERS)
    throw new EditError('layers.tooMany', { part: p.name, count: layers.length, most: MOST_LAYERS });
  return { ...project, parts: replaceRecord(project.parts, { ...p, layers }) };
}
const layerName = (p: Project, a: PartLayer): string =>
  must(must(p.parts, a.part, 'part').layers, a.layer, 'layer').name;

/** An empty layer above another, or on top. */
export const addLayerEdit = defineEdit<{ part: Id; name: string; above?: Id }>({
  name: 'addLayer',
  label: (a) => `New layer ${a.name}`,
  touches: (a) => [a.part],
  run: (project, a, ctx) =>
    changeLayers(project, a.part, (layers, part) => {
      const at = a.above ? layers.findIndex((l) => l.id === a.above) + 1 : layers.length;
      return layers.toSpliced(at, 0, {
        id: ctx.newId(),
        name: freeName(
          a.name,
          layers.map((l) => l.name),
        ),
        hidden: false,
        locked: false,
        grid: VoxelGrid.empty(part.bounds),
      });
    }),
});

export const setLayerEdit = defineEdit<PartLayer & { name?: string; hidden?: boolean; locked?: boolean }>({
  name: 'setLayer',
  label(a, p) {
    const layer = `layer ${layerName(p, a)}`;
    if (a.name !== undefined) return `Rename ${layer} to ${a.name}`;
    if (a.hidden !== undefined) return `${a.hidden ? 'Hide' : 'Show'} ${layer}`;
    return `${a.locked ? 'Lock' : 'Unlock'} ${layer}`;
  },
  touches: (a) => [a.part],
  run: (project, a) =>
    changeLayers(project, a.part, (layers) => {
      const layer = must(layers, a.layer, 'layer');
      if (a.name !== undefined && (a.name.trim() === '' || a.name.length > 120)) throw new EditError('name.length');
      const name =
        a.name === undefined
          ? layer.name
          : freeName(
              a.name.trim(),
              layers.filter((l) => l !== layer).map((l) => l.name),
            );
      const next = { ...layer, name, hidden: a.hidden ?? layer.hidden, locked: a.locked ?? layer.locked };
      return next.name === layer.name && next.hidden === layer.hidden && next.locked === layer.locked
        ? layers
        : replaceRecord(layers, next);
    }),
});

export const moveLayerEdit = defineEdit<PartLayer & { index: number }>({
  name: 'moveLayer',
  label: (a, p) => `Reorder layer ${layerName(p, a)}`,
  touches: (a) => [a.part],
  run: (project, a) => changeLayers(project, a.part, (layers) => moveRecord(layers, a.layer, a.index)),
});

/** Puts a layer's cubes over those of the layer below, which takes them in. */
export const mergeLayerEdit = defineEdit<PartLayer>({
  name: 'mergeLayer',
  label: (a, p) => `Merge layer ${layerName(p, a)} down`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changeLayers(project, a.part, (layers, part) => {
      const i = layers.findIndex((l) => l.id === a.layer),
        upper = must(layers, a.layer, 'layer'),
        lower = layers[i - 1];
      if (!lower) throw new EditError('layers.lowest', { upper: upper.name });
      checkOpen(part, upper);
      checkOpen(part, lower);
      const grid = lower.grid.edit((d) => upper.grid.forEach((x, y, z, v) => d.set(x, y, z, v)));
      return layers.toSpliced(i - 1, 2, { ...lower, grid });
    }),
});

/** To the bin, as a part of its own that keeps the cubes in their place. */
export const deleteLayerEdit = defineEdit<PartLayer>({
  name: 'deleteLayer',
  label: (a, p) => `Delete layer ${layerName(p, a)}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part'),
      layer = must(part.layers, a.layer, 'layer');
    if (part.layers.length === 1) throw new EditError('layers.only', { layer: layer.name, part: part.name });
    const rest = {
      ...project,
      parts: replaceRecord(project.parts, { ...part, layers: part.layers.filter((l) => l !== layer) }),
    };
    if (layer.grid.count === 0) return rest;
    const kept: Part = {
      ...part,
      id: ctx.newId(),
      name: `${part.name}, layer ${layer.name}`,
      layers: [{ ...layer, id: ctx.newId(), hidden: false, locked: false }],
    };
    const mounts = project.rig.mounts
      .filter((m) => m.part === part.id)
      .map((m) => ({ ...m, id: ctx.newId(), part: kept.id, alternateSet: null }));
    return {
      ...rest,
      bin: [...project.bin, binned('part', kept, { mounts, references: [] }, ctx)],
    };
  },
});

/** Lays what is seen of another part over this one, as a new top layer. The other part goes to the bin. */
export const layPartOverEdit = defineEdit<{ part: Id; other: Id; keep?: boolean }>({
  name: 'layPartOver',
  label: (a, p) => `Lay ${must(p.parts, a.other, 'part').name} over ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part, a.other],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part'),
      other = must(project.parts, a.other, 'part');
    if (part === other) throw new EditError('layers.itself', { part: part.name });
    if (other.cell !== part.cell || other.palette !== part.palette)
      throw new EditError('layers.unlike', { other: other.name, part: part.name });
    const box = partContent(other);
    if (!box) throw new EditError('layers.empty', { other: other.name });
    const wide = withPartBounds(part, grownBounds(part, box));
    const grid = VoxelGrid.empty(wide.bounds).edit((d) =>
      other.layers.filter((l) => !l.hidden).forEach((l) => l.grid.forEach((x, y, z, v) => d.set(x, y, z, v))),
    );
    const layer: Layer = {
      id: ctx.newId(),
      name: freeName(
        other.name,
        part.layers.map((l) => l.name),
      ),
      hidden: false,
      locked: false,
      grid,
    };
    const parts = replaceRecord(project.parts, { ...wide, layers: [...wide.layers, layer] });
    if (a.keep) return { ...project, parts };
    return partsToBin({ ...project, parts }, [other], ctx);
  },
});

/** Lifts cells of a layer out of it into a new layer right above. */
export const cellsToLayerEdit = defineEdit<PartLayer & { cells: CellSet; name: string }>({
  name: 'cellsToLayer',
  label: (a) => `Selection to layer ${a.name}`,
  touches: (a) => [a.part],
  run: (project, a, ctx) =>
    changeLayers(project, a.part, (layers, part) => {
      const layer = must(layers, a.layer, 'layer');
      checkOpen(part, layer);
      const piece = cutOut(layer.grid, a.cells);
      if (!piece) throw new EditError('layers.noneOfLayer', { layer: layer.name });
      const lifted: Layer = {
        id: ctx.newId(),
        name: freeName(
          a.name,
          layers.map((l) => l.name),
        ),
        hidden: false,
        locked: false,
        grid: piece.withBounds(part.bounds),
      };
      const rest = { ...layer, grid: layer.grid.edit((d) => d.fillSet(a.cells, 0)) };
      return replaceRecord(layers, rest).toSpliced(layers.indexOf(layer) + 1, 0, lifted);
    }),
});

/** Lifts cells out of every visible layer into a part of its own, in place, mounted where the first one is. */
export const cellsToPartEdit = defineEdit<{ part: Id; cells: CellSet; name: string }>({
  name: 'cellsToPart',
  label: (a) => `Selection to part ${a.name}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    if (part.twin) throw new EditError('layers.follows', { part: part.name });
    const taken = part.layers
      .filter((l) => !l.hidden && !l.locked)
      .map((l) => ({ layer: l, piece: cutOut(l.grid, a.cells) }))
      .filter((t) => t.piece);
    if (taken.length === 0) throw new EditError('layers.noneOfPart', { part: part.name });
    const box = CellSet.ofBoxes(taken.map((t) => t.piece!.contentBox()!)).tight!;
    const name = freeName(
      a.name,
      project.parts.filter((p) => p.side === part.side).map((p) => p.name),
    );
    const fresh = makePart(ctx.newId(), ctx.newId(), name, part.palette, box, {
      side: part.side,
      cell: part.cell,
      pivot: part.pivot,
    });
    const piece: Part = {
      ...fresh,
      layers: taken.map((t) => ({ ...t.layer, id: ctx.newId(), grid: t.piece!.withBounds(box) })),
    };
    const rest = {
      ...part,
      layers: part.layers.map((l) =>
        taken.some((t) => t.layer === l) ? { ...l, grid: l.grid.edit((d) => d.fillSet(a.cells, 0)) } : l,
      ),
    };
    const mounts = project.rig.mounts
      .filter((m) => m.part === part.id)
      .map((m) => ({ ...m, id: ctx.newId(), part: piece.id, alternateSet: null }));
    const at = project.parts.indexOf(part) + 1;
    return {
      ...project,
      parts: replaceRecord(project.parts, rest).toSpliced(at, 0, piece),
      rig: {
        ...project.rig,
        mounts: [...project.rig.mounts, ...(mounts.length > 0 ? mounts : [makeMount(ctx.newId(), piece.id, null)])],
      },
    };
  },
});

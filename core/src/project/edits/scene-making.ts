import type { Transform, Vec3 } from '../../math';
import {
  type Id,
  type Part,
  NO_VARIATION,
  type Placement,
  type Project,
  makePart,
  must,
  placementsOf,
} from '../../model';
import { type GroundLayer, type Room, groundGrid, roomGrid } from '../../sculpt';
import { MAX_EDGE, VoxelGrid } from '../../voxel';
import { say } from '../../words';
import { freeAmong } from '../bringing';
import { type EditContext, EditError, defineEdit } from '../edit';
import { repeatEdit } from './scene-repeats';
import { placeEdit, sceneName } from './scenes';
import { checkName } from './names';

/** A new part and where it stands in a scene. */
interface Making {
  readonly scene: Id;
  readonly name: string;
  readonly palette: Id;
  /** Edge of its cubes in project units. */
  readonly cell: number;
  readonly place: Partial<Pick<Placement, 't' | 'q' | 'layer' | 'parent'>>;
}

/** A part of some cubes; its anchor is the lattice’s origin. */
function partOf(project: Project, a: Making, grid: VoxelGrid, ctx: EditContext): Part {
  const part = makePart(
    ctx.newId(),
    ctx.newId(),
    checkName(a.name),
    must(project.palettes, a.palette, 'palette').id,
    grid.bounds,
    {
      pivot: [0, 0, 0],
      cell: a.cell,
    },
  );
  return { ...part, name: freeAmong(project.parts, part), layers: [{ ...part.layers[0]!, grid }] };
}

function placed(project: Project, a: Making, part: Part, ctx: EditContext): Project {
  const withPart = { ...project, parts: [...project.parts, part] };
  const shows = { kind: 'part', part: part.id } as const;
  return placeEdit.run(withPart, { scene: a.scene, placements: [{ shows, ...a.place }] }, ctx);
}

/** An empty part of a size, standing on a place of the scene. */
export const newPartHereEdit = defineEdit<Making & { size: Vec3 }>({
  name: 'newPartHere',
  label: (a, p) => say('label.newPartHere', { name: a.name, scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const [w, , d] = a.size;
    const grid = VoxelGrid.empty({ min: [-Math.floor(w / 2), 0, -Math.floor(d / 2)], size: a.size });
    return placed(project, a, partOf(project, a, grid, ctx), ctx);
  },
});

/** A plain block to be swapped for the real thing later. */
export const addBlockEdit = defineEdit<Making & { size: Vec3; byte: number }>({
  name: 'addBlock',
  label: (a, p) => say('label.addBlock', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    if (a.size.some((s) => s > MAX_EDGE))
      throw new EditError('making.size', { size: a.size.join(' × '), most: MAX_EDGE });
    const box = { min: [-Math.floor(a.size[0] / 2), 0, -Math.floor(a.size[2] / 2)] as Vec3, size: a.size };
    return placed(
      project,
      a,
      partOf(
        project,
        a,
        VoxelGrid.empty(box).edit((d) => d.fillBox(box, a.byte)),
        ctx,
      ),
      ctx,
    );
  },
});

/** Walls and a floor with ways through them. */
export const addRoomEdit = defineEdit<Making & { room: Room }>({
  name: 'addRoom',
  label: (a, p) => say('label.addRoom', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run: (project, a, ctx) => placed(project, a, partOf(project, a, roomGrid(a.room), ctx), ctx),
});

/** Ground by its layers, its top as high as its place; wider than a part may be it comes as linked copies of one tile. */
export const addGroundEdit = defineEdit<Making & { wide: number; deep: number; layers: readonly GroundLayer[] }>({
  name: 'addGround',
  label: (a, p) => say('label.addGround', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const tiles = [a.wide, a.deep].map((s) => Math.ceil(s / MAX_EDGE)),
      [w, d] = [Math.round(a.wide / tiles[0]!), Math.round(a.deep / tiles[1]!)];
    const part = partOf(project, a, groundGrid(w, d, a.layers), ctx);
    if (tiles.every((n) => n === 1)) return placed(project, a, part, ctx);
    const { t = [0, 0, 0] } = a.place as Partial<Transform>;
    const first: Vec3 = [t[0] - (a.cell * w * (tiles[0]! - 1)) / 2, t[1], t[2] - (a.cell * d * (tiles[1]! - 1)) / 2];
    const next = placed(project, { ...a, place: { ...a.place, t: first } }, part, ctx);
    const placement = placementsOf(must(next.scenes, a.scene, 'scene')).at(-1)!.id;
    return repeatEdit.run(
      next,
      {
        ...{ scene: a.scene, placement },
        wishes: {
          ...{ kind: 'line', counts: [tiles[0]!, 1, tiles[1]!], step: [w * a.cell, 0, d * a.cell] },
          ...{ second: null, vary: NO_VARIATION },
        },
      },
      ctx,
    );
  },
});

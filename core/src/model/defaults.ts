import { type Box, TRANSFORM_IDENTITY, type Vec3 } from '../math';
import { type Palette, READY_PALETTES, type ReadyPalette } from '../palette';
import { VoxelGrid } from '../voxel';
import type { Id } from './ids';
import {
  EMPTY_RIG,
  type Kind,
  type Mount,
  NO_TARGET,
  PLAIN_PART,
  type Part,
  type Project,
  type Side,
  emptyLists,
  makeShot,
} from './kinds';

/** The palette that a project begins with when no other is chosen. */
export const starterPalette = (id: Id, ready: ReadyPalette = READY_PALETTES[0]!): Palette => ({
  id,
  name: ready.name,
  swatches: ready.swatches,
});

export const makePart = (
  id: Id,
  layer: Id,
  name: string,
  palette: Id,
  bounds: Box,
  more: Partial<Part> = {},
): Part => ({
  id,
  name,
  side: 'centre',
  hidden: false,
  palette,
  cell: 1,
  bounds,
  pivot: [2 * bounds.min[0] + bounds.size[0], 2 * bounds.min[1], 2 * bounds.min[2] + bounds.size[2]],
  layers: [{ id: layer, name: 'Cubes', hidden: false, locked: false, grid: VoxelGrid.empty(bounds) }],
  ...PLAIN_PART,
  ...more,
});

export const makeMount = (id: Id, part: Id, bone: Id | null, t: Vec3 = [0, 0, 0]): Mount => ({
  ...TRANSFORM_IDENTITY,
  id,
  part,
  bone,
  t,
  alternateSet: null,
});

/** A project with a palette and one empty part, unmounted. */
export function makeProject(
  id: Id,
  name: string,
  newId: () => Id,
  kind: Kind = 'prop',
  size: Vec3 = [16, 16, 16],
  ready?: ReadyPalette,
): Project {
  const palette = starterPalette(newId(), ready);
  const bounds: Box = { min: [-Math.floor(size[0] / 2), 0, -Math.floor(size[2] / 2)], size };
  const part = makePart(newId(), newId(), 'Body', palette.id, bounds, { pivot: [0, 0, 0] });
  return {
    id,
    name,
    kind,
    metresPerUnit: 0.05,
    target: NO_TARGET,
    ...emptyLists(),
    palettes: [palette],
    parts: [part],
    rig: { ...EMPTY_RIG, mounts: [makeMount(newId(), part.id, null)] },
    seal: null,
    shots: [makeShot(newId(), 'First picture')],
    bin: [],
  };
}

/** The tag as people read it; nothing for the centre. */
export const sideSuffix = (side: Side): string => (side === 'centre' ? '' : ` ${side}`);

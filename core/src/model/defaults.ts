import { type Box, TRANSFORM_IDENTITY, type Vec3 } from '../math';
import { type Palette, READY_PALETTES, type ReadyPalette } from '../palette';
import { VoxelGrid } from '../voxel';
import type { Id } from './ids';
import type { Kind, Light, Mount, Part, Project, Rig, Shot, Side, Target } from './types';

/** The palette that a project begins with when no other is chosen. */
export const starterPalette = (id: Id, ready: ReadyPalette = READY_PALETTES[0]!): Palette => ({
  id,
  name: ready.name,
  swatches: ready.swatches,
});

/** What a part has before it is taken apart or follows another. */
export const PLAIN_PART = { regions: null, twin: null, origin: null } as const;

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

/** What a bone has before it is coloured or kept out of exports. */
export const PLAIN_BONE = { colour: null, ships: true } as const;
/** What a clip has before parts are swapped in it. */
export const PLAIN_CLIP = { ships: true, swaps: [] } as const;

/** A skeleton of nothing. */
export const EMPTY_RIG: Rig = { bones: [], mounts: [], constraints: [], attachments: [], alternateSets: [] };

export const NO_TARGET: Target = { height: 0, faces: 0, bones: 0, texture: 0 };

export const DEFAULT_LIGHT: Light = {
  sun: { azimuth: 35, elevation: 42, size: 3, colour: '#fff1dc', strength: 2.6 },
  sky: { zenith: '#8fb4d9', horizon: '#e9e4da', strength: 0.9 },
  ground: { kind: 'colour', colour: '#cfc8bb' },
  glow: 1,
};

export const makeShot = (id: Id, name: string, more: Partial<Shot> = {}): Shot => ({
  id,
  name,
  camera: { kind: 'perspective', eye: [38, 34, 62], target: [0, 18, 0], fov: 32, height: 48 },
  light: DEFAULT_LIGHT,
  clip: null,
  colourway: null,
  time: 0,
  exposure: 0,
  size: [640, 400],
  samples: 64,
  ...more,
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
    palettes: [palette],
    parts: [part],
    rig: { ...EMPTY_RIG, mounts: [makeMount(newId(), part.id, null)] },
    clips: [],
    poses: [],
    seal: null,
    shots: [makeShot(newId(), 'First picture')],
    stamps: [],
    references: [],
    colourways: [],
    bin: [],
  };
}

/** The tag as people read it; nothing for the centre. */
export const sideSuffix = (side: Side): string => (side === 'centre' ? '' : ` ${side}`);

import * as z from 'zod';
import { VoxelGrid } from '../../voxel';
import type { Id } from '../ids';
import { cells, own, ref } from '../marks';
import { finite, name } from './fields';
import type { RecordKind } from './record-kind';

export const TEXELS = [16, 32, 64] as const;
/** Texels along an edge of a terrain cube. */
export type Texels = (typeof TEXELS)[number];

/** The picture of a face: palette bytes, one cell a texel, x to the right and y up, one deep. */
export interface FacePicture {
  readonly id: Id;
  readonly name: string;
  readonly grid: VoxelGrid;
}

/** A picture on a face of a cube: how many quarter turns, and whether mirrored before that. */
export interface Face {
  readonly picture: Id;
  readonly turns: number;
  readonly mirrored: boolean;
}

/** A solid cube of six faces; faces of several cubes may share a picture. */
export interface TerrainCube {
  readonly id: Id;
  readonly name: string;
  /** Right, left, top, bottom, front, back: +X, −X, +Y, −Y, +Z, −Z. */
  readonly faces: readonly [Face, Face, Face, Face, Face, Face];
  /** Texels a second across each face, right and up; null for a cube that stands still. */
  readonly flow: readonly [number, number] | null;
}

/** Cubes that are painted together, from one palette. */
export interface TerrainSet {
  readonly id: Id;
  readonly name: string;
  readonly texels: Texels;
  readonly palette: Id;
  readonly pictures: readonly FacePicture[];
  readonly cubes: readonly TerrainCube[];
}

const face = z.strictObject({
  picture: ref('face picture'),
  turns: z.int().min(0).max(3),
  mirrored: z.boolean(),
});

function flaw(set: TerrainSet): string | null {
  const wrong = set.pictures.find(
    ({ grid }) =>
      grid instanceof VoxelGrid && `${grid.bounds.min}/${grid.bounds.size}` !== `0,0,0/${set.texels},${set.texels},1`,
  );
  return wrong ? `has a face picture "${wrong.name}" that is not ${set.texels} × ${set.texels} texels` : null;
}

export const terrainSetKind: RecordKind<'set of terrain cubes', 'terrainSets', TerrainSet> = {
  name: 'set of terrain cubes',
  plural: 'sets of terrain cubes',
  list: 'terrainSets',
  most: 64,
  schema: z.strictObject({
    id: own('set of terrain cubes'),
    name,
    texels: z.union([z.literal(16), z.literal(32), z.literal(64)]),
    palette: ref('palette'),
    pictures: z.array(z.strictObject({ id: own('face picture'), name, grid: cells() })).max(4096),
    cubes: z
      .array(
        z.strictObject({
          id: own('terrain cube'),
          name,
          faces: z.tuple([face, face, face, face, face, face]),
          flow: z.tuple([finite, finite]).nullable(),
        }),
      )
      .max(1024),
  }),
  since: 7,
  upgrades: {},
  flaw,
  kept: z.strictObject({}),
};

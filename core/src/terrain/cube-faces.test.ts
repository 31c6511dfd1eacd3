import { expect, it } from 'vitest';
import { cross } from '../math';
import type { TerrainCube, TerrainSet } from '../model';
import { FACE_DIRECTIONS } from '../math';
import { VoxelGrid } from '../voxel';
import { FACE_FRAMES, faceBytes } from '.';

/** A picture of 16 texels with one in its lower left corner, and one to the right of that. */
const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [16, 16, 1] }).edit((d) => {
  d.set(0, 0, 0, 7);
  d.set(1, 0, 0, 8);
});
const set: TerrainSet = {
  id: 's',
  name: 'Quay',
  texels: 16,
  palette: 'p',
  pictures: [{ id: 'a', name: 'corner', grid }],
  cubes: [],
};
const seen = (turns: number, mirrored: boolean): Record<number, [number, number]> => {
  const face = { picture: 'a', turns, mirrored };
  const cube: TerrainCube = { id: 'c', name: 'Setts', faces: [face, face, face, face, face, face], flow: null };
  const bytes = faceBytes(set, cube, 2);
  return Object.fromEntries([7, 8].map((b) => [b, [bytes.indexOf(b) % 16, Math.floor(bytes.indexOf(b) / 16)]]));
};

it('a face shows its picture mirrored first and then turned counter-clockwise', () => {
  expect(seen(0, false)).toEqual({ 7: [0, 0], 8: [1, 0] });
  expect(seen(1, false)).toEqual({ 7: [15, 0], 8: [15, 1] });
  expect(seen(2, false)).toEqual({ 7: [15, 15], 8: [14, 15] });
  expect(seen(0, true)).toEqual({ 7: [15, 0], 8: [14, 0] });
  expect(seen(1, true)).toEqual({ 7: [15, 15], 8: [15, 14] });
});

it('right and up of each face lie in it, so that it is looked at from outside', () => {
  FACE_FRAMES.forEach(({ right, up }, i) =>
    expect(cross(right, up).map((v) => v + 0)).toEqual([...FACE_DIRECTIONS[i]!]),
  );
});

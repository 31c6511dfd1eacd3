import { VoxelGrid } from '@sphalerite/core/voxel';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sharedWith } from './share';

describe('sharing with what was read before', () => {
  it('changes no value, and gives back the one before when all is equal', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
        expect(sharedWith(a, b)).toEqual(b);
        expect(sharedWith(a, structuredClone(a))).toEqual(a);
        if (typeof a === 'object' && a !== null) expect(sharedWith(a, structuredClone(a))).toBe(a);
      }),
    );
  });
  it('takes equal branches over and keeps those that differ; grids are themselves', () => {
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] });
    const last = { name: 'Arm', pivot: [1, 2, 3], layers: [{ id: 'a', grid }] };
    const other = VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] });
    const next = sharedWith(last, { name: 'Arm', pivot: [1, 2, 3], layers: [{ id: 'a', grid: other }] });
    expect(next.pivot).toBe(last.pivot);
    expect(next.layers).not.toBe(last.layers);
    expect(next.layers[0]!.grid).toBe(other);
    expect(sharedWith(last, { ...next, layers: [{ id: 'a', grid }] })).toBe(last);
  });
});

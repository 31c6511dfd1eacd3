import { describe, expect, it } from 'vitest';
import { type Project, idsFrom, makeMount, makePart, makeProject } from '../../model';
import { makeSwatch } from '../../palette';
import { VoxelGrid } from '../../voxel';
import { apply, editContext } from '../edit';
import { takeHomeEdit } from './take-home';

/** A project of two parts on a bone that is turned a quarter about Y. */
function quay(): Project {
  const newId = idsFrom('quay');
  const p = makeProject('quay', 'Quay', newId);
  const palette = {
    id: 'wood',
    name: 'Wood',
    swatches: [makeSwatch(4, 'oak', '#886644'), makeSwatch(9, 'rope', '#ccbb88')],
  };
  const bounds = { min: [10, 0, -3], size: [4, 6, 2] } as const;
  const bone = { id: 'b', name: 'Pier', side: 'centre', parent: null, colour: null, ships: true } as const;
  const parts = ['Post', 'Rail'].map((name, i) => {
    const part = makePart(`p${i}`, newId(), name, 'wood', bounds, { pivot: [24, 0, -4] });
    const grid = VoxelGrid.empty(bounds).edit((d) => d.fillBox({ min: [10, 0, -3], size: [4, 2 + i, 1] }, 4));
    return { ...part, layers: [{ ...part.layers[0]!, grid }] };
  });
  return {
    ...p,
    palettes: [palette],
    parts,
    rig: {
      ...p.rig,
      bones: [{ ...bone, rest: { t: [5, 0, 0], q: [0, Math.SQRT1_2, 0, Math.SQRT1_2], s: [1, 1, 1] } }],
      mounts: parts.map((o, i) => makeMount(`m${i}`, o.id, 'b', [0, i * 8, 0])),
    },
  };
}

/** What came back: the post with a cube of a new colour on top, numbered from its pivot. */
function away(names: readonly string[]): Project {
  const newId = idsFrom('away');
  const p = makeProject('away', 'quay.glb', newId);
  const bounds = { min: [-2, 0, -1], size: [4, 3, 2] } as const;
  const parts = names.map((name, i) => {
    const part = makePart(`a${i}`, newId(), name, 'own', bounds, { pivot: [0, 0, 0] });
    const grid = VoxelGrid.empty(bounds).edit((d) => {
      d.fillBox({ min: [-2, 0, -1], size: [4, 2, 1] }, 1);
      d.set(0, 2, -1, 2);
    });
    return { ...part, layers: [{ ...part.layers[0]!, grid }] };
  });
  return {
    ...p,
    palettes: [
      { id: 'own', name: 'quay', swatches: [makeSwatch(1, '#886644', '#886644'), makeSwatch(2, '#3355aa', '#3355aa')] },
    ],
    parts,
    rig: { ...p.rig, mounts: parts.map((o, i) => makeMount(`n${i}`, o.id, null, [i * 10, 0, 0])) },
  };
}

describe('taking parts home', () => {
  it('gives the part its new cubes where they were from its pivot; all else of it stays, equal colours are its own', () => {
    const before = quay(),
      after = apply(before, takeHomeEdit, { source: away(['Post']), placed: 'pivot', rest: true }, editContext('x'));
    const [was, is] = [before.parts[0]!, after.parts[0]!];
    expect({ ...is, layers: [], bounds: null }).toEqual({ ...was, layers: [], bounds: null });
    const grid = is.layers[0]!.grid;
    expect([grid.get(10, 0, -3), grid.get(13, 1, -3), grid.get(12, 2, -3), grid.count]).toEqual([4, 4, 1, 9]);
    expect(after.palettes[0]!.swatches.map((s) => [s.byte, s.colour])).toEqual([
      [4, '#886644'],
      [9, '#ccbb88'],
      [1, '#3355aa'],
    ]);
    expect(after.rig).toBe(before.rig);
    expect(after.parts[1]).toBe(before.parts[1]);
    // What it was lies in the bin, with its mount.
    expect(after.bin.map((b) => [b.kind, (b.record as { name: string }).name])).toEqual([['part', 'Post']]);
  });

  it('finds cubes by where they stand where pivots do not come along, turned and shifted as a whole', () => {
    const before = quay();
    // The bone turns x to −z: a cube at (x, y, z) of a part stands at (z + 2 + 5, y, 12 − x), and all was moved by 100.
    const source = away(['Post', 'Rail', 'Lamp']);
    const standing = before.parts.map((p, i) => {
      const cells: [number, number, number, number][] = [];
      p.layers[0]!.grid.forEach((x, y, z) => cells.push([z + 7, y + i * 8, 11 - x, 1]));
      return cells;
    });
    const made = (cells: readonly [number, number, number, number][]): VoxelGrid =>
      VoxelGrid.empty({ min: [-40, 0, -40], size: [80, 40, 80] }).edit((d) => {
        for (const c of cells) d.set(...c);
      });
    const parts = source.parts.map((p, i) => {
      const grid = i < 2 ? made(standing[i]!) : p.layers[0]!.grid;
      return { ...p, bounds: grid.bounds, pivot: [0, 0, 0] as const, layers: [{ ...p.layers[0]!, grid }] };
    });
    const mounts = parts.map((p, i) => makeMount(`n${i}`, p.id, null, [0, 0, 0]));
    const after = apply(
      before,
      takeHomeEdit,
      { source: { ...source, parts, rig: { ...source.rig, mounts } }, placed: 'place', rest: false },
      editContext('x'),
    );
    for (const i of [0, 1]) {
      const [was, is] = [before.parts[i]!.layers[0]!.grid, after.parts[i]!.layers[0]!.grid];
      expect(is.count).toBe(was.count);
      was.forEach((x, y, z, v) => expect(is.get(x, y, z)).toBe(v));
    }
    expect(after.parts).toHaveLength(2);
  });

  it('brings parts without a namesake beside, and says when there is none at all', () => {
    const before = quay();
    const after = apply(
      before,
      takeHomeEdit,
      { source: away(['Post', 'Lamp']), placed: 'pivot', rest: true },
      editContext('x'),
    );
    expect(after.parts.map((p) => p.name)).toEqual(['Post', 'Rail', 'Lamp']);
    expect(() =>
      apply(before, takeHomeEdit, { source: away(['Boat']), placed: 'pivot', rest: true }, editContext('x')),
    ).toThrow(/No part of “quay.glb” bears the name/);
  });
});

import { expect, it } from 'vitest';
import { transformPoint } from '../../math';
import { type Project, checkSound, idsFrom, makeProject, placementsOf } from '../../model';
import { gather } from '../../scene';
import { boxStroke } from '../../sculpt';
import { VoxelGrid } from '../../voxel';
import * as edits from '..';
import { type Edit, apply, editContext } from '../edit';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`stamps ${n++}`));
const H = Math.SQRT1_2;
function quay(id = 'quay'): Project {
  const p = makeProject(id, id, idsFrom(id), 'scene', [4, 2, 2]);
  const part = p.parts[0]!;
  const stroke = boxStroke('add', 3, [part.bounds]);
  return run(run(p, edits.strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke }), edits.addSceneEdit, {
    name: 'Night',
  });
}
const cells = (p: Project): string[] =>
  gather(p, { of: 'scene', scene: p.scenes[0]!.id }).flatMap(({ geometry, matrix }) => {
    const out: string[] = [];
    if (geometry.kind === 'grid')
      geometry.grid.forEach((x, y, z) =>
        out.push(
          transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5])
            .map((v) => Math.round(v * 100) / 100 + 0)
            .join(),
        ),
      );
    return out;
  });

it('a stamp of another project becomes a part once, and linked copies of it after', () => {
  const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [2, 3, 1] }).edit((d) =>
    d.fillBox({ min: [0, 0, 0], size: [2, 3, 1] }, 5),
  );
  const shelf = run(quay('shelf'), edits.addStampEdit, {
    name: 'Hinge',
    cells: grid,
    palette: quay('shelf').palettes[0]!.id,
    cell: 1,
  });
  let p = quay();
  const put = (t: readonly [number, number, number]): void => {
    p = run(p, edits.placeStampEdit, {
      scene: p.scenes[0]!.id,
      source: shelf,
      stamp: shelf.stamps[0]!.id,
      t,
      layer: p.scenes[0]!.layers[0]!.id,
    });
  };
  put([0, 0, 0]);
  put([9, 0, 0]);
  expect(p.parts.map((o) => o.name)).toEqual([p.parts[0]!.name, 'Hinge']);
  expect(placementsOf(p.scenes[0]!).map((o) => o.shows)).toEqual([
    { kind: 'part', part: p.parts[1]!.id },
    { kind: 'part', part: p.parts[1]!.id },
  ]);
  // The palettes are alike, and shared.
  expect([p.palettes.length, cells(p).length]).toEqual([1, 12]);
  checkSound(p);
});

it('several things are kept as one stamp, in the lattice of the first, and stand as they stood when it is put down', () => {
  let p = quay();
  const scene = p.scenes[0]!.id,
    shows = { kind: 'part', part: p.parts[0]!.id } as const,
    layer = p.scenes[0]!.layers[0]!.id;
  p = run(p, edits.placeEdit, {
    scene,
    placements: [
      { shows, t: [5, 0, 5] },
      { shows, t: [5, 2, 5], q: [0, H, 0, H] },
    ],
  });
  const all = placementsOf(p.scenes[0]!).map((o) => o.id);
  const kept = run(p, edits.keepAsStampEdit, { scene, placements: all, name: 'Pile' });
  expect(kept.stamps.map((s) => [s.group, s.layers[0]!.grid.count])).toEqual([
    ['Pile', 16],
    ['Pile', 16],
  ]);
  expect(edits.stampSet(kept, kept.stamps[1]!.id)).toHaveLength(2);
  // Several pieces bear one name, and another together; one that is taken gets a number.
  const named = run(kept, edits.renameStampEdit, { stamp: kept.stamps[1]!.id, name: 'Crates' });
  expect(named.stamps.map((s) => s.group)).toEqual(['Crates', 'Crates']);
  const both = run(named, edits.keepAsStampEdit, { scene, placements: all, name: 'Heap' });
  const taken = run(both, edits.renameStampEdit, { stamp: both.stamps[3]!.id, name: 'Crates' });
  expect(taken.stamps.map((s) => s.group)).toEqual(['Crates', 'Crates', 'Crates 2', 'Crates 2']);
  const empty = run(kept, edits.removePlacementsEdit, { scene, placements: all });
  const put = run(empty, edits.placeStampEdit, { scene, source: null, stamp: kept.stamps[0]!.id, t: [5, 0, 5], layer });
  expect(placementsOf(put.scenes[0]!).map((o) => o.shows.kind)).toEqual(['group', 'part', 'part']);
  expect(cells(put).sort()).toEqual(cells(p).sort());
  checkSound(put);
  const one = run(kept, edits.keepAsStampEdit, { scene, placements: [all[0]!], name: 'Block' });
  expect(run(one, edits.sortStampsEdit, { by: 'name' }).stamps.map((s) => s.name)[0]).toBe('Block');
  expect(run(one, edits.sortStampsEdit, { by: 'size' }).stamps).toHaveLength(3);
});

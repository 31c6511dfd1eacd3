import { makeProject, idsFrom, must } from '@sphalerite/core/model';
import {
  addRegionsEdit,
  apply,
  editContext,
  makeTwinsEdit,
  strokeEdit,
  takeApartEdit,
  duplicatePartEdit,
} from '@sphalerite/core/project';
import { type NamedCells, boxStroke, splitByPlane } from '@sphalerite/core/sculpt';
import { CellSet, VoxelGrid, mirrorImage } from '@sphalerite/core/voxel';
import { type Row, median, ms } from './rows';
import { boathouse, terrain } from './scenes';

/** A stroke on one of two twins, against mirroring every cube with each stroke. */
function twinStroke(): Row {
  const grid = terrain();
  let p = makeProject('p', 'Twins', idsFrom('twins'));
  p = { ...p, parts: [{ ...p.parts[0]!, bounds: grid.bounds, layers: [{ ...p.parts[0]!.layers[0]!, grid }] }] };
  p = apply(p, duplicatePartEdit, { part: p.parts[0]!.id }, editContext('copy'));
  const [source, twin] = p.parts as [(typeof p.parts)[0], (typeof p.parts)[0]];
  p = apply(
    p,
    makeTwinsEdit,
    { pairs: [{ part: twin!.id, source: source!.id, axis: 0, plane: 0 }] },
    editContext('twin'),
  );
  let at = 0;
  const step = (): void => {
    p = apply(
      p,
      strokeEdit,
      {
        part: source!.id,
        layer: source!.layers[0]!.id,
        stroke: boxStroke('add', 3, [{ min: [100, 100, at++], size: [4, 4, 4] }]),
      },
      editContext('s'),
    );
  };
  const ours = median(9, step);
  const g = must(p.parts, source!.id, 'part').layers[0]!.grid;
  const { min, size } = g.bounds;
  let plain = g;
  const theirs = median(1, () => {
    plain = VoxelGrid.empty({ min: [-min[0] - size[0], min[1], min[2]], size }).edit((d) =>
      g.forEach((x, y, z, v) => d.set(-1 - x, y, z, v)),
    );
  });
  if (!plain.equals(mirrorImage(g, 0))) throw new Error('The two ways of mirroring disagree.');
  return {
    name: 'a stroke on one of two twins of 256³',
    ours: ms(ours),
    theirs: `${ms(theirs)} mirroring every cube`,
    ratio: theirs / ours,
    goal: '≥ 50×',
    ok: theirs / ours >= 50,
  };
}

/** Taking the boathouse apart into sixteen slices, against writing each cube of each slice by itself. */
function slices(): Row {
  const grid = boathouse();
  let p = makeProject('p', 'Boathouse', idsFrom('boathouse'));
  p = { ...p, parts: [{ ...p.parts[0]!, bounds: grid.bounds, layers: [{ ...p.parts[0]!.layers[0]!, grid }] }] };
  const id = p.parts[0]!.id,
    [, ny] = grid.bounds.size,
    pieces: NamedCells[] = [];
  let left = CellSet.filled(grid);
  for (let i = 1; i < 16; i++) {
    const [low, high] = splitByPlane(left, 1, grid.bounds.min[1] + Math.round((i * ny) / 16));
    pieces.push({ name: `Slice ${i}`, side: 'centre' as const, cells: low });
    left = high;
  }
  p = apply(p, addRegionsEdit, { part: id, pieces, half: 0 }, editContext('regions'));
  let parts = 0;
  const ours = median(3, () => {
    parts = apply(
      p,
      takeApartEdit,
      { part: id, rest: 'Roof', plug: 0, clearance: 0, socket: false, bones: true, keepWhole: true },
      editContext('apart'),
    ).parts.length;
  });
  const theirs = median(1, () => {
    for (const { cells } of pieces)
      VoxelGrid.empty(grid.bounds).edit((d) => grid.forEach((x, y, z, v) => cells.has(x, y, z) && d.set(x, y, z, v)));
  });
  if (parts !== 17) throw new Error(`${parts} parts came of 16 slices and the whole.`);
  return {
    name: `the boathouse (${grid.count.toLocaleString('en')} cubes) taken apart into 16`,
    ours: ms(ours),
    theirs: `${ms(theirs)} cube by cube, without contacts and bones`,
    ratio: theirs / ours,
    goal: '≥ 1×',
    ok: theirs >= ours,
  };
}

export const apartRows = (): Row[] => [twinStroke(), slices()];

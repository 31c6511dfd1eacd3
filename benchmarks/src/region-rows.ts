import { type Box, type Vec3, seededRandom } from '@sphalerite/core/math';
import { meshChunk } from '@sphalerite/core/mesh';
import { NO_SYMMETRY, type Shape, applyStroke, boxStroke, regionCells } from '@sphalerite/core/sculpt';
import { CellSet, VoxelGrid, connectedPieces, flood } from '@sphalerite/core/voxel';
import { type Row, median, ms } from './rows';
import { terrain } from './scenes';

const E = 256;
const WHOLE: Box = { min: [0, 0, 0], size: [E, E, E] };

/** Flooding cell by cell over typed arrays: one byte a cell, a growing stack of indices. Gives how many cells it reached. */
function stackFlood(open: Uint8Array, seed: number, seen: Uint8Array, stack: Int32Array): number {
  if (!open[seed] || seen[seed]) return 0;
  let top = 0,
    n = 0;
  stack[top++] = seed;
  seen[seed] = 1;
  while (top > 0) {
    const i = stack[--top]!;
    n++;
    const x = i & 255,
      y = (i >> 8) & 255,
      z = i >> 16;
    if (x > 0 && open[i - 1] && !seen[i - 1]) seen[(stack[top++] = i - 1)] = 1;
    if (x < 255 && open[i + 1] && !seen[i + 1]) seen[(stack[top++] = i + 1)] = 1;
    if (y > 0 && open[i - E] && !seen[i - E]) seen[(stack[top++] = i - E)] = 1;
    if (y < 255 && open[i + E] && !seen[i + E]) seen[(stack[top++] = i + E)] = 1;
    if (z > 0 && open[i - E * E] && !seen[i - E * E]) seen[(stack[top++] = i - E * E)] = 1;
    if (z < 255 && open[i + E * E] && !seen[i + E * E]) seen[(stack[top++] = i + E * E)] = 1;
  }
  return n;
}

function fillEmptySpace(): Row {
  // The air over the terrain, from the grid to the set; the plain way gets its table of open cells for nothing.
  const grid = terrain();
  const query = { kind: 'space', cell: [0, 255, 0], normal: [0, 1, 0], diagonals: false } as const;
  let count = 0;
  const ours = median(5, () => (count = regionCells(grid, query).count));
  const open = grid.readBox(WHOLE).map((v) => (v === 0 ? 1 : 0));
  const stack = new Int32Array(E ** 3);
  let theirCount = 0;
  const theirs = median(1, () => (theirCount = stackFlood(open, 255 * E, new Uint8Array(E ** 3), stack)));
  if (count !== theirCount) throw new Error(`The two ways disagree: ${count} and ${theirCount} cells.`);
  return {
    name: 'fill the empty space over the terrain',
    ours: ms(ours),
    theirs: `${ms(theirs)} typed-array stack`,
    ratio: theirs / ours,
    goal: '≥ 12×',
    ok: theirs / ours >= 12,
  };
}

function fillHollow(): Row {
  const open = CellSet.ofBox(WHOLE);
  const ours = median(5, () => void flood(open, [[128, 128, 128]]));
  const bytes = new Uint8Array(E ** 3).fill(1);
  const stack = new Int32Array(E ** 3);
  const theirs = median(1, () => void stackFlood(bytes, 128 + 128 * E + 128 * E * E, new Uint8Array(E ** 3), stack));
  return {
    name: 'fill an empty 256³',
    ours: ms(ours),
    theirs: `${ms(theirs)} typed-array stack`,
    ratio: theirs / ours,
    goal: '≥ 12×',
    ok: theirs / ours >= 12,
  };
}

function pieces(name: string, grid: VoxelGrid, goal: number): Row {
  let count = 0,
    theirCount = 0;
  const ours = median(3, () => (count = connectedPieces(CellSet.filled(grid)).sizes.length));
  const open = grid.readBox(WHOLE).map((v) => (v === 0 ? 0 : 1));
  const stack = new Int32Array(E ** 3);
  const theirs = median(1, () => {
    const seen = new Uint8Array(E ** 3);
    theirCount = 0;
    for (let i = 0; i < open.length; i++) if (open[i] && !seen[i] && stackFlood(open, i, seen, stack) > 0) theirCount++;
  });
  if (count !== theirCount) throw new Error(`The two ways disagree: ${count} and ${theirCount} pieces.`);
  return {
    name: `connected pieces, ${name} (${count.toLocaleString('en')})`,
    ours: ms(ours),
    theirs: `${ms(theirs)} typed-array stack`,
    ratio: theirs / ours,
    goal: `≥ ${goal}×`,
    ok: theirs / ours >= goal,
  };
}

function randomGrid(): VoxelGrid {
  const random = seededRandom(5);
  const cells = new Uint8Array(E ** 3);
  for (let i = 0; i < cells.length; i++) cells[i] = random() < 0.3 ? 1 : 0;
  return VoxelGrid.fromDense(WHOLE, cells);
}

function boxFill(): Row {
  const empty = VoxelGrid.empty(WHOLE);
  const box: Box = { min: [13, 27, 41], size: [100, 100, 100] };
  const ours = median(9, () => void applyStroke(empty, empty, boxStroke('add', 3, [box])));
  const theirs = median(
    3,
    () =>
      void empty.edit((d) => {
        for (let z = 41; z < 141; z++) for (let y = 27; y < 127; y++) for (let x = 13; x < 113; x++) d.set(x, y, z, 3);
      }),
  );
  return {
    name: 'box fill 100³',
    ours: ms(ours),
    theirs: `${ms(theirs)} cell by cell`,
    ratio: theirs / ours,
    goal: '≤ 5 ms',
    ok: ours <= 5,
  };
}

/** A ball of 17 across on the surface of the terrain, and the chunks it touches meshed: what one move of a brush costs. */
function brushMove(): Row {
  const grid = terrain();
  const at = (i: number): Vec3 => [40 + i * 3, 0, 90];
  const ground = (x: number, z: number): number => {
    for (let y = E - 1; y >= 0; y--) if (grid.get(x, y, z) !== 0) return y;
    return 0;
  };
  const shape = (i: number): Shape => {
    const [x, , z] = at(i);
    return {
      kind: 'dabs',
      tip: { form: 'ball', size: 17, axis: 1 },
      centres: [[2 * x + 1, 2 * ground(x, z) + 3, 2 * z + 1]],
    };
  };
  const shapes = Array.from({ length: 50 }, (_, i) => shape(i));
  const redraw = (before: VoxelGrid, after: VoxelGrid): void => {
    const chunks = new Set(after.changedBricks(before).map((b) => b.map((v) => v >> 1).join()));
    for (const c of chunks) meshChunk(after, ...(c.split(',').map(Number) as [number, number, number]));
  };
  const ours =
    median(3, () => {
      let g = grid;
      for (const s of shapes) {
        const next = applyStroke(g, g, { verb: 'add', value: 7, shapes: [s], symmetry: NO_SYMMETRY });
        redraw(g, next);
        g = next;
      }
    }) / shapes.length;
  // The whole stroke anew with every move, as a preview would that does not go on from its last state.
  const theirs =
    median(1, () => {
      for (let i = 1; i <= shapes.length; i += 7) {
        const next = applyStroke(grid, grid, {
          verb: 'add',
          value: 7,
          shapes: shapes.slice(0, i),
          symmetry: NO_SYMMETRY,
        });
        redraw(grid, next);
      }
    }) / 8;
  return {
    name: 'brush of radius 8 on 256³, a move',
    ours: ms(ours),
    theirs: `${ms(theirs)} whole stroke anew`,
    ratio: theirs / ours,
    goal: '≤ 16 ms',
    ok: ours <= 16,
  };
}

export const regionRows = (): Row[] => [
  boxFill(),
  fillEmptySpace(),
  fillHollow(),
  pieces('terrain', terrain(), 10),
  pieces('random 30 %', randomGrid(), 1.3),
  brushMove(),
];

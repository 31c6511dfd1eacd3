import { boxFromCells } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { addStampEdit } from '@sphalerite/core/project';
import { ballStamp, ringStamp } from './stamp-shapes';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { INK as C } from './emberquay-palette';
import { type Cells, Maker, span } from './maker';
import { MARKET as M, marketSwatches } from './market-palette';

type Piece = readonly (readonly [number, ...Cells[]])[];

/** Cubes in the order in which they are laid; 0 takes away. */
const grid = (pieces: Piece): VoxelGrid =>
  VoxelGrid.empty({ min: [-32, -32, -32], size: [64, 64, 64] }).edit((d) => {
    for (const [value, ...cells] of pieces) for (const [a, b] of cells) d.fillBox(boxFromCells(a, b), value);
  });
const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i);

/** Small things that are wanted again and again, each a few strokes’ work that need not be done twice. */
const STAMPS: Readonly<Record<string, VoxelGrid>> = {
  Rivet: grid([
    [C.iron, span(-1, 0, -1, 0, 0, 0)],
    [C.ironLight, span(-1, 1, -1, 0, 1, 0)],
  ]),
  'Bolt plate': grid([
    [C.iron, span(-4, 0, 0, 3, 7, 0)],
    [C.ironDark, span(-4, 0, 0, 3, 0, 0)],
    ...[
      [-3, 1],
      [2, 1],
      [-3, 6],
      [2, 6],
    ].map(([x, y]) => [C.ironLight, span(x!, y!, 1, x!, y!, 1)] as const),
  ]),
  Hinge: grid([
    [C.iron, span(-8, 2, 0, -1, 4, 0), span(-1, 0, 0, 1, 6, 1), span(2, 2, 0, 8, 4, 0)],
    [C.ironLight, span(-8, 3, 0, -6, 3, 0), span(6, 3, 0, 8, 3, 0), span(0, 0, 1, 0, 6, 1)],
    [C.ironDark, span(-4, 3, 0, -4, 3, 0), span(4, 3, 0, 4, 3, 0)],
  ]),
  Gear: ringStamp(9, 3, 12, C.iron, C.ironLight, C.ironDark),
  'Small gear': ringStamp(5, 2, 8, C.honeyDark, C.honey, C.hideDark),
  Leaf: grid([
    [M.leaf, span(-1, 0, 0, 0, 9, 0), span(-2, 2, 0, 1, 7, 0), span(-3, 3, 0, 2, 5, 0)],
    [M.leafLight, span(0, 2, 0, 0, 9, 0), span(1, 5, 0, 1, 7, 0)],
    [M.leafDark, span(-1, -2, 0, -1, 1, 0), span(-3, 3, 0, -3, 4, 0)],
  ]),
  'Coil of rope': grid([
    ...range(3).flatMap((i) => [
      [C.hideLight, span(-6, 2 * i, -6, 5, 2 * i, 5)] as const,
      [C.hide, span(-6, 2 * i + 1, -6, 5, 2 * i + 1, 5)] as const,
    ]),
    [
      0,
      span(-3, 0, -3, 2, 5, 2),
      span(-6, 0, -6, -6, 5, -6),
      span(5, 0, -6, 5, 5, -6),
      span(-6, 0, 5, -6, 5, 5),
      span(5, 0, 5, 5, 5, 5),
    ],
    [C.hideLight, span(5, 4, -1, 8, 4, 0), span(8, 1, -1, 8, 4, 0)],
  ]),
  'Wall lantern': grid([
    [C.iron, span(-1, 14, -3, 0, 16, -3), span(-1, 16, -3, 0, 16, 2), span(-1, 13, 1, 0, 15, 2)],
    [C.iron, span(-3, 11, -1, 2, 12, 4), span(-3, 2, -1, 2, 2, 4)],
    [C.glow, span(-2, 3, 0, 1, 10, 3)],
    [C.flame, span(-1, 4, 0, 0, 7, 3), span(-2, 4, 1, 1, 7, 2)],
    ...[
      [-3, -1],
      [2, -1],
      [-3, 4],
      [2, 4],
    ].map(([x, z]) => [C.iron, span(x!, 2, z!, x!, 12, z!)] as const),
  ]),
  'Sign bracket': grid([
    [
      C.iron,
      span(-1, 0, 0, 0, 15, 0),
      span(0, 14, 0, 16, 15, 0),
      span(2, 9, 0, 3, 10, 0),
      span(4, 11, 0, 5, 12, 0),
      span(6, 13, 0, 7, 13, 0),
      span(16, 13, 0, 17, 16, 0),
    ],
    [C.hide, span(4, 2, 0, 15, 9, 1)],
    [C.hideLight, span(5, 3, 1, 14, 8, 1)],
    [C.iron, span(5, 10, 0, 5, 13, 0), span(14, 10, 0, 14, 13, 0)],
    [C.green, span(8, 4, 1, 11, 7, 1)],
  ]),
  Shutter: grid([
    [M.awning, span(-5, 0, 0, 4, 21, 0)],
    [M.awningDark, ...range(8).map((i) => span(-4, 2 + i * 2 + (i > 3 ? 2 : 0), 0, 3, 2 + i * 2 + (i > 3 ? 2 : 0), 0))],
    [
      M.awning,
      span(-5, 0, 1, -5, 21, 1),
      span(4, 0, 1, 4, 21, 1),
      span(-5, 0, 1, 4, 0, 1),
      span(-5, 10, 1, 4, 11, 1),
      span(-5, 21, 1, 4, 21, 1),
    ],
    [C.iron, span(-6, 3, 1, -5, 4, 1), span(-6, 17, 1, -5, 18, 1)],
  ]),
  Ladder: grid([
    [C.hideDark, span(-6, 0, 0, -5, 30, 1), span(4, 0, 0, 5, 30, 1)],
    [C.hideLight, ...range(6).map((i) => span(-4, 2 + i * 5, 0, 3, 3 + i * 5, 0))],
    [C.hide, span(-6, 29, 0, -5, 30, 1), span(4, 29, 0, 5, 30, 1)],
  ]),
  Window: grid([
    [C.bark, span(-7, 0, 0, 6, 15, 0), span(-8, -1, 0, 7, -1, 1)],
    [M.window, span(-5, 2, 0, -1, 7, 0), span(1, 2, 0, 4, 7, 0), span(-5, 9, 0, -1, 13, 0), span(1, 9, 0, 4, 13, 0)],
  ]),
  Door: grid([
    [C.barkDark, span(-8, 0, 0, 7, 30, 0)],
    [C.hide, span(-6, 0, 0, 5, 28, 1)],
    [C.hideDark, span(-3, 0, 1, -3, 28, 1), span(0, 0, 1, 0, 28, 1), span(3, 0, 1, 3, 28, 1)],
    [C.iron, span(-6, 5, 2, 1, 6, 2), span(-6, 22, 2, 1, 23, 2)],
    [C.honey, span(3, 13, 2, 4, 14, 2)],
  ]),
  Cleat: grid([
    [C.iron, span(-2, 0, -1, 1, 2, 0), span(-7, 3, -1, 6, 4, 0)],
    [C.ironLight, span(-6, 4, -1, 5, 4, 0)],
  ]),
  Bucket: grid([
    [C.hide, span(-4, 0, -4, 3, 8, 3), span(-5, 4, -3, 4, 8, 2), span(-3, 4, -5, 2, 8, 4)],
    [0, span(-3, 2, -3, 2, 8, 2)],
    [M.water, span(-3, 2, -3, 2, 6, 2)],
    [C.iron, span(-4, 2, -4, 3, 2, 3)],
    [M.water, span(-3, 2, -3, 2, 6, 2)],
    [C.iron, span(-5, 9, 0, -5, 12, 0), span(4, 9, 0, 4, 12, 0), span(-4, 13, 0, 3, 13, 0)],
  ]),
  'Flower pot': grid([
    [C.coat, span(-3, 0, -3, 2, 4, 2)],
    [C.coatLight, span(-4, 5, -4, 3, 6, 3)],
    [M.leaf, span(-3, 7, -3, 2, 9, 2), span(-1, 10, -1, 0, 11, 0)],
    [M.leafLight, span(-2, 9, -2, 0, 10, 0)],
    [M.cherry, span(-3, 9, 1, -2, 10, 2), span(1, 10, -2, 2, 11, -1), span(-1, 12, 0, 0, 13, 1)],
  ]),
  Chain: grid([
    ...range(4).flatMap((i) =>
      i % 2 === 0
        ? [
            [C.iron, span(-2, -6 * i - 5, 0, 1, -6 * i, 0)] as const,
            [0, span(-1, -6 * i - 4, 0, 0, -6 * i - 1, 0)] as const,
          ]
        : [
            [C.ironLight, span(-1, -6 * i - 6, -1, 0, -6 * i + 1, 1)] as const,
            [0, span(-1, -6 * i - 5, 0, 0, -6 * i, 0)] as const,
          ],
    ),
  ]),
  Grille: grid([
    [C.ironDark, span(-7, 0, 0, 6, 11, 0)],
    [C.iron, span(-7, 0, 1, 6, 0, 1), span(-7, 11, 1, 6, 11, 1), span(-7, 0, 1, -7, 11, 1), span(6, 0, 1, 6, 11, 1)],
    [
      C.ironLight,
      ...range(4).map((i) => span(-6, 2 + i * 2 + Math.floor(i / 2), 1, 5, 2 + i * 2 + Math.floor(i / 2), 1)),
    ],
  ]),
  Pebble: ballStamp([6, 3, 4], M.sett, M.settLight, M.settDark),
  Buoy: grid([
    [C.milk, span(-3, 0, -3, 2, 11, 2), span(-4, 2, -2, 3, 9, 1), span(-2, 2, -4, 1, 9, 3)],
    [C.coat, span(-4, 4, -4, 3, 6, 3)],
    [0, span(-4, 4, -4, -4, 6, -4), span(3, 4, -4, 3, 6, -4), span(-4, 4, 3, -4, 6, 3), span(3, 4, 3, 3, 6, 3)],
    [C.iron, span(-1, 12, -1, 0, 14, 0)],
  ]),
  Plank: grid([
    [C.hide, span(-14, 0, -2, 13, 1, 2)],
    [C.hideDark, span(-14, 1, 0, 6, 1, 0), span(2, 1, -2, 13, 1, -2)],
    [C.hideLight, span(-9, 1, 2, 4, 1, 2)],
    [C.iron, span(-12, 1, -1, -12, 1, -1), span(11, 1, 1, 11, 1, 1)],
  ]),
};

/** The shelf of stamps that comes with the program: in the colours of Emberquay. */
export function buildStamps(): Project {
  const m = new Maker('Stamps', 'prop', 0.05);
  m.palette('Emberquay market', marketSwatches());
  for (const [name, cells] of Object.entries(STAMPS))
    m.apply(addStampEdit, { name, cells, palette: m.project.palettes[0]!.id, cell: 1 });
  return m.project;
}

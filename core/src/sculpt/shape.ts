import { type Axis, type Box, type Vec3, uniteBoxes } from '../math';
import { CellSet } from '../voxel';
import { type Tip, curveCells, lineCells, stepCells, thickened, tipCells } from './path';
import { type Hollow, type Standing, ellipsoidCells, revolvedCells, wallOf } from './round';

/** What a stroke covers, in plain data; places are cells, centres half cubes of the part's lattice. */
export type Shape =
  | { readonly kind: 'box'; readonly box: Box; readonly hollow?: Hollow | null }
  | { readonly kind: 'ellipsoid'; readonly box: Box; readonly hollow?: Hollow | null }
  | {
      readonly kind: 'standing';
      readonly solid: Standing;
      readonly hollow?: Hollow | null;
      readonly slices?: { readonly from: number; readonly to: number } | null;
    }
  | { readonly kind: 'dabs'; readonly tip: Tip; readonly centres: readonly Vec3[] }
  | {
      readonly kind: 'line';
      readonly from: Vec3;
      readonly to: Vec3;
      readonly tip: Tip;
      readonly endSize: number;
      readonly joined: boolean;
    }
  | {
      readonly kind: 'steps';
      readonly from: Vec3;
      readonly to: Vec3;
      readonly up: Axis;
      readonly rise: number;
      readonly run: number;
      readonly tip: Tip;
      readonly endSize: number;
    }
  | {
      readonly kind: 'curve';
      readonly points: readonly Vec3[];
      readonly tip: Tip;
      readonly endSize: number;
      readonly joined: boolean;
    }
  | { readonly kind: 'set'; readonly set: CellSet };

const known = new WeakMap<Shape, CellSet>();

/** The cells of a shape; remembered, since a drag asks many times. */
export function shapeCells(shape: Shape): CellSet {
  let set = known.get(shape);
  if (!set) known.set(shape, (set = rasterise(shape)));
  return set;
}

/** A box that holds the shape, told without making its cells where that is possible. */
export function shapeBox(s: Shape): Box {
  switch (s.kind) {
    case 'box':
    case 'ellipsoid':
      return s.box;
    case 'standing':
      return s.slices ? shapeCells(s).box : s.solid.box;
    default:
      return shapeCells(s).box;
  }
}

function rasterise(s: Shape): CellSet {
  const walled = (body: CellSet, hollow: Hollow | null | undefined): CellSet => (hollow ? wallOf(body, hollow) : body);
  switch (s.kind) {
    case 'box':
      return walled(CellSet.ofBox(s.box), s.hollow);
    case 'ellipsoid':
      return walled(ellipsoidCells(s.box), s.hollow);
    case 'standing': {
      const whole = walled(revolvedCells(s.solid), s.hollow);
      return s.slices ? whole.intersect(revolvedCells(s.solid, s.slices)) : whole;
    }
    case 'dabs': {
      const parts = s.centres.map((c) => tipCells(s.tip, c));
      const out = new CellSet(parts.map((p) => p.box).reduce(uniteBoxes, { min: [0, 0, 0], size: [0, 0, 0] }));
      for (const p of parts) p.runs((x0, x1, y, z) => out.addRun(x0, x1, y, z));
      return out;
    }
    case 'line':
      return thickened(lineCells(s.from, s.to, s.joined), s.tip, s.endSize);
    case 'steps':
      return thickened(stepCells(s.from, s.to, s.up, s.rise, s.run), s.tip, s.endSize);
    case 'curve':
      return thickened(curveCells(s.points, s.joined), s.tip, s.endSize);
    case 'set':
      return s.set;
  }
}

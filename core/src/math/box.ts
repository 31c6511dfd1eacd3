import { type Vec3, add, max, min, sub } from './vec3';

/** An axis-aligned box of whole cells: lowest cell and size in cells, each size ≥ 0. */
export interface Box {
  readonly min: Vec3;
  readonly size: Vec3;
}
export const boxOf = (min: Vec3, size: Vec3): Box => ({ min, size });
/** The box that holds both cells and all between them. */
export const boxFromCells = (a: Vec3, b: Vec3): Box => {
  const lo = min(a, b);
  return { min: lo, size: add(sub(max(a, b), lo), [1, 1, 1]) };
};
export const boxVolume = (b: Box): number => b.size[0] * b.size[1] * b.size[2];
export const boxEnd = (b: Box): Vec3 => add(b.min, b.size);
export const boxHas = (b: Box, c: Vec3): boolean =>
  c[0] >= b.min[0] &&
  c[1] >= b.min[1] &&
  c[2] >= b.min[2] &&
  c[0] < b.min[0] + b.size[0] &&
  c[1] < b.min[1] + b.size[1] &&
  c[2] < b.min[2] + b.size[2];
/** The cells in both boxes; an empty box (some size 0) when there are none. */
export const intersectBoxes = (a: Box, b: Box): Box => {
  const lo = max(a.min, b.min);
  return { min: lo, size: max([0, 0, 0], sub(min(boxEnd(a), boxEnd(b)), lo)) };
};
/** The smallest box around both; an empty box adds nothing. */
export const uniteBoxes = (a: Box, b: Box): Box => {
  if (boxVolume(a) === 0) return b;
  if (boxVolume(b) === 0) return a;
  const lo = min(a.min, b.min);
  return { min: lo, size: sub(max(boxEnd(a), boxEnd(b)), lo) };
};
export const boxesEqual = (a: Box, b: Box): boolean =>
  a.min.every((v, i) => v === b.min[i]) && a.size.every((v, i) => v === b.size[i]);
export const boxContains = (outer: Box, inner: Box): boolean =>
  boxVolume(inner) === 0 || boxesEqual(intersectBoxes(outer, inner), inner);

/** The eight corners of a box: bit 0 of the index tells low from high along X, bit 1 along Y, bit 2 along Z. */
export const boxCorners = ({ min, size }: Box): Vec3[] =>
  Array.from({ length: 8 }, (_, k) => [
    min[0] + (k & 1 ? size[0] : 0),
    min[1] + (k & 2 ? size[1] : 0),
    min[2] + (k & 4 ? size[2] : 0),
  ]);

import type { Brick } from './brick';

/**
 * The persistent table of a grid's bricks: three levels, z then y then x, each a sparse array of 32.
 * A change copies one array a level, so that ten thousand versions share almost everything.
 * Trials: a flat table cost 7× the memory and a hash map 3× the time.
 *
 * A grid spans at most 17 bricks along an axis, so the low five bits of a brick's coordinate tell it
 * apart whatever its sign, and growing the volume on the negative side moves nothing.
 */
export type TreeRow = readonly (Brick | undefined)[];
export type TreeSheet = readonly (TreeRow | undefined)[];
export type BrickTree = readonly (TreeSheet | undefined)[];

export const EMPTY_TREE: BrickTree = Object.freeze([]);
const SLOT = 31;

export const treeGet = (tree: BrickTree, bx: number, by: number, bz: number): Brick | undefined =>
  tree[bz & SLOT]?.[by & SLOT]?.[bx & SLOT];

/** The level itself when this edit made it, else a copy that it now owns. */
function own<T>(level: readonly (T | undefined)[] | undefined, owned: Set<unknown>): (T | undefined)[] {
  if (level && owned.has(level)) return level as (T | undefined)[];
  const copy = level ? level.slice() : [];
  owned.add(copy);
  return copy;
}

/** The tree with one brick replaced (or removed). Levels in `owned` are this edit's own and written in place. */
export function treeSet(
  tree: BrickTree,
  bx: number,
  by: number,
  bz: number,
  brick: Brick | undefined,
  owned: Set<unknown>,
): BrickTree {
  const root = own(tree, owned);
  const sheet = own(root[bz & SLOT], owned);
  const row = own(sheet[by & SLOT], owned);
  row[bx & SLOT] = brick;
  sheet[by & SLOT] = row;
  root[bz & SLOT] = sheet;
  return root;
}

/**
 * Calls `visit` for every slot whose brick differs between two trees, skipping shared branches.
 * Slots are given as coordinates modulo 32.
 */
export function treeDiff(
  a: BrickTree,
  b: BrickTree,
  visit: (sx: number, sy: number, sz: number, before: Brick | undefined, after: Brick | undefined) => void,
): void {
  if (a === b) return;
  for (let z = 0; z < 32; z++) {
    const sa = a[z];
    const sb = b[z];
    if (sa === sb) continue;
    for (let y = 0; y < 32; y++) {
      const ra = sa?.[y];
      const rb = sb?.[y];
      if (ra === rb) continue;
      for (let x = 0; x < 32; x++) if (ra?.[x] !== rb?.[x]) visit(x, y, z, ra?.[x], rb?.[x]);
    }
  }
}

/**
 * Half cubes: mirror planes, brush centres and pivots are whole numbers of half cubes, so that a plane
 * can run between cubes (even numbers) or through their middles (odd numbers) and never drifts.
 */

/** The cell that mirrors cell `x` across plane `h` (in half cubes). */
export const mirrorCell = (x: number, h: number): number => h - 1 - x;
/** Whether a width of `size` cells starting at `min` has a cell in its middle. */
export const middlePlane = (min: number, size: number): number => 2 * min + size;

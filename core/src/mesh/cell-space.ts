/** Cells in a box of the lattice, x fastest. */
export interface Space {
  readonly size: readonly [number, number, number];
  readonly strides: readonly [number, number, number];
  readonly count: number;
}
export const spaceOf = (size: readonly [number, number, number]): Space => ({
  size,
  strides: [1, size[0], size[0] * size[1]],
  count: size[0] * size[1] * size[2],
});

/** 1 for every cell that is filled or that nothing from outside gets to. */
export function withoutCavities(cells: Uint8Array, { size, strides, count }: Space): Uint8Array {
  const open = new Uint8Array(count),
    stack: number[] = [];
  const [nx, ny, nz] = size;
  const take = (at: number): void => {
    if (cells[at] !== 0 || open[at] !== 0) return;
    open[at] = 1;
    stack.push(at);
  };
  for (let z = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++)
        if (x === 0 || y === 0 || z === 0 || x === nx - 1 || y === ny - 1 || z === nz - 1)
          take(x + y * strides[1] + z * strides[2]);
  for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
    const x = at % nx,
      y = Math.floor(at / nx) % ny,
      z = Math.floor(at / strides[2]);
    if (x > 0) take(at - 1);
    if (x < nx - 1) take(at + 1);
    if (y > 0) take(at - strides[1]);
    if (y < ny - 1) take(at + strides[1]);
    if (z > 0) take(at - strides[2]);
    if (z < nz - 1) take(at + strides[2]);
  }
  return open.map((v) => 1 - v);
}

/** 1 for every cell all of whose points are within `t` of a cell that is set. */
export function within(set: Uint8Array, space: Space, t: number): Uint8Array {
  const reach = Math.floor(t),
    out = set.slice();
  if (reach === 0) return out;
  const { size, strides } = space;
  for (let dz = -reach; dz <= reach; dz++)
    for (let dy = -reach; dy <= reach; dy++) {
      const left = t * t - dz * dz - dy * dy;
      if (left < 0) continue;
      const wide = Math.floor(Math.sqrt(left));
      for (let z = Math.max(0, -dz); z < Math.min(size[2], size[2] - dz); z++)
        for (let y = Math.max(0, -dy); y < Math.min(size[1], size[1] - dy); y++) {
          const from = y * strides[1] + z * strides[2],
            to = (y + dy) * strides[1] + (z + dz) * strides[2];
          // Along the row the last set cell before and the next one after tell.
          let last = -Infinity;
          for (let x = 0; x < size[0]; x++) {
            if (set[from + x] === 1) last = x;
            if (x - last <= wide) out[to + x] = 1;
          }
          last = Infinity;
          for (let x = size[0] - 1; x >= 0; x--) {
            if (set[from + x] === 1) last = x;
            if (last - x <= wide) out[to + x] = 1;
          }
        }
    }
  return out;
}

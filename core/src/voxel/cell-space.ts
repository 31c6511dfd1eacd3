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
  const out = new Uint8Array(count).fill(1),
    stack: number[] = [];
  const [nx, ny, nz] = size;
  const take = (at: number): void => {
    if (cells[at] !== 0 || out[at] === 0) return;
    out[at] = 0;
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
  return out;
}

/**
 * How far the farthest point of each cell is from the nearest cell that is set, squared: 0 for those that are. Along one axis after the other,
 * each time the lower envelope of parabolas (Felzenszwalb and Huttenlocher, "Distance transforms of sampled functions", 2012). Between
 * cells a whole number apart the farthest point is as far as the middles are.
 *
 * @returns Infinity everywhere when none is set
 */
export function distancesSquared(set: Uint8Array, { size, strides, count }: Space): Float32Array {
  const out = new Float32Array(count);
  // Along x every parabola is as low as any other: the last set cell before and the next one after tell.
  for (let start = 0; start < count; start += size[0]) {
    let last = -Infinity;
    for (let x = 0; x < size[0]; x++) {
      if (set[start + x] === 1) last = x;
      out[start + x] = (x - last) * (x - last);
    }
    last = Infinity;
    for (let x = size[0] - 1; x >= 0; x--) {
      if (set[start + x] === 1) last = x;
      if ((last - x) * (last - x) < out[start + x]!) out[start + x] = (last - x) * (last - x);
    }
  }
  const longest = Math.max(...size);
  const row = new Float64Array(longest),
    where = new Int32Array(longest),
    from = new Float64Array(longest + 1);
  for (const [axis, other] of [
    [1, 2],
    [2, 1],
  ] as const)
    for (let k = 0; k < size[other]; k++)
      for (let x = 0; x < size[0]; x++)
        envelope(out, x + k * strides[other], strides[axis], size[axis], row, where, from);
  return out;
}

/** Replaces a row by the least of its own parabolas at each place. Scratch as long as the row, `from` one longer. */
function envelope(
  out: Float32Array,
  start: number,
  stride: number,
  n: number,
  row: Float64Array,
  where: Int32Array,
  from: Float64Array,
): void {
  let last = -1;
  for (let i = 0; i < n; i++) {
    const v = out[start + i * stride]!;
    row[i] = v;
    if (v === Infinity) continue;
    let meet = -Infinity;
    while (last >= 0) {
      const w = where[last]!;
      meet = (v + i * i - row[w]! - w * w) / (2 * (i - w));
      if (meet > from[last]!) break;
      last--;
    }
    last++;
    where[last] = i;
    from[last] = last === 0 ? -Infinity : meet;
  }
  if (last < 0) return;
  let p = 0;
  for (let i = 0; i < n; i++) {
    while (p < last && from[p + 1]! < i) p++;
    const w = where[p]!;
    out[start + i * stride] = (i - w) * (i - w) + row[w]!;
  }
}

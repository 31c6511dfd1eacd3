/** Sums of cells over all boxes from the low corner, one longer along each axis: any box is summed in eight reads. */
export class Sums {
  private readonly table: Int32Array;
  private readonly sy: number;
  private readonly sz: number;

  /** @param cells – x fastest, as many as `size` says */
  constructor(cells: Uint8Array, [nx, ny, nz]: readonly [number, number, number]) {
    this.sy = nx + 1;
    this.sz = (nx + 1) * (ny + 1);
    this.table = new Int32Array(this.sz * (nz + 1));
    let from = 0;
    for (let z = 1; z <= nz; z++)
      for (let y = 1; y <= ny; y++) {
        let row = 0;
        for (let x = 1; x <= nx; x++) {
          const at = x + y * this.sy + z * this.sz;
          row += cells[from++]!;
          this.table[at] =
            row + this.table[at - this.sy]! + this.table[at - this.sz]! - this.table[at - this.sy - this.sz]!;
        }
      }
  }

  /** From `lo` to before `hi`. */
  sum(lo: readonly number[], hi: readonly number[]): number {
    const t = this.table,
      [y0, y1, z0, z1] = [lo[1]! * this.sy, hi[1]! * this.sy, lo[2]! * this.sz, hi[2]! * this.sz];
    const plane = (y: number, z: number): number => t[hi[0]! + y + z]! - t[lo[0]! + y + z]!;
    return plane(y1, z1) - plane(y0, z1) - plane(y1, z0) + plane(y0, z0);
  }
}

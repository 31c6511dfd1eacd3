/** A direction that is given about another one. */
export class Aim {
  x = 0.5;
  y = 0.5;
  z = 0.5;

  /** (x, y, z) in a frame whose z is the normal (frame after Duff et al. 2017). */
  from(nx: number, ny: number, nz: number, x: number, y: number, z: number): void {
    const sign = nz >= 0 ? 1 : -1;
    const a = -1 / (sign + nz),
      b = nx * ny * a;
    this.x = x * (1 + sign * nx * nx * a) + y * b + z * nx;
    this.y = x * sign * b + y * (sign + ny * ny * a) + z * ny;
    this.z = -x * sign * nx - y * ny + z * nz;
  }
}

import { Aim } from './aim';
import { dielectric } from './fresnel';
import type { SceneRay } from './intersect';
import { facet } from './microfacet';
import type { Sampler } from './sampler';

/** Where two clear things meet, smooth or rough. */
export class GlassFace {
  /** The direction light goes on in. */
  x = 0.5;
  y = 0.5;
  z = 0.5;
  private readonly frame = new Aim();
  private readonly half = new Float64Array(3);

  /**
   * Light goes on or back by chance, as Fresnel's law shares it; gives whether it goes on. What is lost among rough facets is
   * given back, so that clear glass takes no light.
   *
   * @param met – the face that was met
   * @param ratio – index of refraction here over that beyond
   */
  turn(met: SceneRay, dx: number, dy: number, dz: number, ratio: number, rough: number, draws: Sampler): boolean {
    const { half } = this;
    half[0] = met.nx;
    half[1] = met.ny;
    half[2] = met.nz;
    if (rough >= 0.08) {
      draws.draw();
      this.facetOf(met, dx, dy, dz, rough * rough, draws.u, draws.v);
    }
    const hx = half[0],
      hy = half[1],
      hz = half[2];
    const cos = -(dx * hx + dy * hy + dz * hz);
    const back = dielectric(cos, ratio);
    const goesOn = draws.next() >= back;
    if (goesOn) {
      const k = ratio * cos - Math.sqrt(Math.max(0, 1 - ratio * ratio * (1 - cos * cos)));
      this.goOn(dx * ratio + hx * k, dy * ratio + hy * k, dz * ratio + hz * k);
    } else this.goOn(dx + 2 * cos * hx, dy + 2 * cos * hy, dz + 2 * cos * hz);
    // A rough facet may send it to the wrong side of the face.
    const out = this.x * met.nx + this.y * met.ny + this.z * met.nz;
    if (goesOn ? out > 0 : out < 0)
      this.goOn(this.x - 2 * out * met.nx, this.y - 2 * out * met.ny, this.z - 2 * out * met.nz);
    return goesOn;
  }

  private goOn(x: number, y: number, z: number): void {
    const l = 1 / Math.hypot(x, y, z);
    this.x = x * l;
    this.y = y * l;
    this.z = z * l;
  }

  /** A facet that is seen from where the ray comes, about the normal of what was met; stands in `half` afterwards. */
  private facetOf(met: SceneRay, dx: number, dy: number, dz: number, alpha: number, a: number, b: number): void {
    const { frame, half } = this;
    const { nx, ny, nz } = met;
    frame.from(nx, ny, nz, 1, 0, 0);
    const tx = frame.x,
      ty = frame.y,
      tz = frame.z;
    frame.from(nx, ny, nz, 0, 1, 0);
    const sx = frame.x,
      sy = frame.y,
      sz = frame.z;
    facet(
      -(dx * tx + dy * ty + dz * tz),
      -(dx * sx + dy * sy + dz * sz),
      Math.max(1e-4, -(dx * nx + dy * ny + dz * nz)),
      alpha,
      a,
      b,
      half,
    );
    const u = half[0]!,
      v = half[1]!,
      w = half[2]!;
    half[0] = tx * u + sx * v + nx * w;
    half[1] = ty * u + sy * v + ny * w;
    half[2] = tz * u + sz * v + nz * w;
  }
}

import { brightness } from './glow';
import { DIELECTRIC, facet, reflectedOffset, reflectedScale, schlick, seen } from './microfacet';

/** Surfaces smoother than this are mirrors: their light comes from one direction alone. */
const SMOOTH = 0.08;

/**
 * How an opaque surface throws light on, as glTF's metallic-roughness material means it: diffuse under a thin clear coat, or
 * metal, by GGX facets. Light that bounces more than once among the facets is given back (Turquin 2019) and what the coat
 * reflects is taken from what lies below it, so that a white surface of any roughness and metalness loses nothing.
 *
 * One serves for millions of paths; what it finds stands in its fields.
 */
export class Surface {
  /** Of the last {@link evaluate} or {@link sample}: the share of light that goes on times the cosine; over the chance for a sample. */
  r = 0.5;
  g = 0.5;
  b = 0.5;
  /** Chance of the direction by solid angle; 0 for a mirror's. */
  chance = 0.5;
  /** The direction of the last sample. */
  x = 0.5;
  y = 0.5;
  z = 0.5;

  private nx = 0.5;
  private ny = 0.5;
  private nz = 0.5;
  private vx = 0.5;
  private vy = 0.5;
  private vz = 0.5;
  /** The cosine towards the eye. */
  private cos = 0.5;
  private alpha = 0.5;
  private mirror = false;
  /** Diffuse colour, reflectance straight on, and what further bounces give back. */
  private dr = 0.5;
  private dg = 0.5;
  private db = 0.5;
  private fr = 0.5;
  private fg = 0.5;
  private fb = 0.5;
  private kr = 0.5;
  private kg = 0.5;
  private kb = 0.5;
  /** How often the facets are sampled rather than the diffuse part. */
  private share = 0.5;
  private readonly half = new Float64Array(3);

  /**
   * @param colour – linear; entry `c` and the two after it
   * @param nx, ny, nz – normal, on the side that is looked at
   * @param vx, vy, vz – towards the eye
   */
  set(
    colour: ArrayLike<number>,
    c: number,
    metal: number,
    rough: number,
    nx: number,
    ny: number,
    nz: number,
    vx: number,
    vy: number,
    vz: number,
  ): void {
    this.nx = nx;
    this.ny = ny;
    this.nz = nz;
    this.vx = vx;
    this.vy = vy;
    this.vz = vz;
    const cos = (this.cos = Math.max(1e-4, nx * vx + ny * vy + nz * vz));
    const alpha = (this.alpha = rough * rough);
    this.mirror = rough < SMOOTH;
    const r = colour[c]!,
      g = colour[c + 1]!,
      b = colour[c + 2]!;
    // The roughest of all is chalk, without a coat.
    if (rough === 1 && metal === 0) {
      this.dr = r;
      this.dg = g;
      this.db = b;
      this.share = 0;
      return;
    }
    const base = DIELECTRIC * (1 - metal);
    this.fr = base + r * metal;
    this.fg = base + g * metal;
    this.fb = base + b * metal;
    const fresnel = schlick(cos);
    const scale = this.mirror ? 1 - fresnel : reflectedScale(cos, alpha),
      offset = this.mirror ? fresnel : reflectedOffset(cos, alpha);
    // Of all light how much comes back from facets that reflect all: the rest is what they keep among them.
    const kept = this.mirror ? 0 : 1 / (scale + offset) - 1;
    this.kr = 1 + this.fr * kept;
    this.kg = 1 + this.fg * kept;
    this.kb = 1 + this.fb * kept;
    const below = (1 - metal) * (1 - (DIELECTRIC * scale + offset) * (1 + DIELECTRIC * kept));
    this.dr = r * below;
    this.dg = g * below;
    this.db = b * below;
    const shine = brightness(
      (this.fr * scale + offset) * this.kr,
      (this.fg * scale + offset) * this.kg,
      (this.fb * scale + offset) * this.kb,
    );
    const all = shine + brightness(this.dr, this.dg, this.db);
    this.share = all > 0 ? shine / all : 1;
  }

  /** Whether it has no facets to be sampled. */
  get isChalk(): boolean {
    return this.share === 0;
  }

  /** Light from a direction; a mirror has none to show for any that is given. */
  evaluate(lx: number, ly: number, lz: number): void {
    this.r = this.g = this.b = this.chance = 0;
    const { nx, ny, nz, vx, vy, vz, cos } = this;
    const down = lx * nx + ly * ny + lz * nz;
    if (down <= 0) return;
    const flat = down / Math.PI;
    this.r = this.dr * flat;
    this.g = this.dg * flat;
    this.b = this.db * flat;
    this.chance = (1 - this.share) * flat;
    if (this.mirror || this.share === 0) return;
    let hx = lx + vx,
      hy = ly + vy,
      hz = lz + vz;
    const l = 1 / Math.hypot(hx, hy, hz);
    hx *= l;
    hy *= l;
    hz *= l;
    const a2 = this.alpha * this.alpha;
    const nh = nx * hx + ny * hy + nz * hz,
      vh = vx * hx + vy * hy + vz * hz;
    const k = nh * nh * (a2 - 1) + 1;
    const spread = a2 / (Math.PI * k * k);
    const gv = Math.sqrt(a2 + (1 - a2) * cos * cos),
      gl = Math.sqrt(a2 + (1 - a2) * down * down);
    const shine = (spread * 0.5 * down) / (down * gv + cos * gl);
    const f = schlick(vh);
    this.r += shine * (this.fr + (1 - this.fr) * f) * this.kr;
    this.g += shine * (this.fg + (1 - this.fg) * f) * this.kg;
    this.b += shine * (this.fb + (1 - this.fb) * f) * this.kb;
    this.chance += this.share * spread * 0.5 * seen(cos, a2);
  }

  /** A direction by three chances, as often as light comes from there; false when none of it goes on. */
  sample(a: number, b: number, c: number): boolean {
    const { nx, ny, nz } = this;
    const shines = c < this.share;
    if (shines && this.mirror) {
      const k = 2 * this.cos,
        f = schlick(this.cos);
      this.x = k * nx - this.vx;
      this.y = k * ny - this.vy;
      this.z = k * nz - this.vz;
      this.r = (this.fr + (1 - this.fr) * f) / this.share;
      this.g = (this.fg + (1 - this.fg) * f) / this.share;
      this.b = (this.fb + (1 - this.fb) * f) / this.share;
      this.chance = 0;
      return true;
    }
    // A frame whose z is the normal (Duff et al. 2017).
    const sign = nz >= 0 ? 1 : -1;
    const p = -1 / (sign + nz),
      q = nx * ny * p;
    const tx = 1 + sign * nx * nx * p,
      ty = sign * q,
      tz = -sign * nx;
    const sx = q,
      sy = sign + ny * ny * p,
      sz = -ny;
    if (shines) {
      const { vx, vy, vz, half } = this;
      facet(vx * tx + vy * ty + vz * tz, vx * sx + vy * sy + vz * sz, this.cos, this.alpha, a, b, half);
      const [ha, hb, hc] = [half[0]!, half[1]!, half[2]!];
      const hx = tx * ha + sx * hb + nx * hc,
        hy = ty * ha + sy * hb + ny * hc,
        hz = tz * ha + sz * hb + nz * hc;
      const k = 2 * (vx * hx + vy * hy + vz * hz);
      this.x = k * hx - vx;
      this.y = k * hy - vy;
      this.z = k * hz - vz;
    } else {
      // Malley's method.
      const r = Math.sqrt(a),
        phi = 2 * Math.PI * b;
      const ca = r * Math.cos(phi),
        cb = r * Math.sin(phi),
        cc = Math.sqrt(1 - a);
      this.x = tx * ca + sx * cb + nx * cc;
      this.y = ty * ca + sy * cb + ny * cc;
      this.z = tz * ca + sz * cb + nz * cc;
    }
    this.evaluate(this.x, this.y, this.z);
    // What this direction would have been chosen by either way counts.
    if (this.chance <= 0) return false;
    const k = 1 / this.chance;
    this.r *= k;
    this.g *= k;
    this.b *= k;
    return true;
  }
}

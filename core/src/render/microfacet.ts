/** The reflectance of common solids and liquids looked at straight, as glTF has it (index of refraction 1.5). */
export const DIELECTRIC = 0.04;

/** Steps of the tables over the cosine and over the roughness. */
const STEPS = 32;

/**
 * What share of the light a GGX surface reflects towards a cosine: F0 · scale + offset, with Schlick's Fresnel and one
 * bounce among its facets (Karis 2013). What further bounces would give back is told by scale + offset falling short of 1.
 */
interface Reflected {
  readonly scale: Float32Array;
  readonly offset: Float32Array;
}
let table: Reflected | null = null;

/** Places between two steps are blended. */
function lookUp(of: Float32Array, cos: number, alpha: number): number {
  const x = Math.min(1, Math.max(0, Math.sqrt(cos))) * (STEPS - 1),
    y = Math.min(1, Math.sqrt(alpha)) * (STEPS - 1);
  const i = Math.min(STEPS - 2, x | 0),
    j = Math.min(STEPS - 2, y | 0);
  const s = x - i,
    t = y - j,
    o = j * STEPS + i;
  return (of[o]! * (1 - s) + of[o + 1]! * s) * (1 - t) + (of[o + STEPS]! * (1 - s) + of[o + STEPS + 1]! * s) * t;
}
export const reflectedScale = (cos: number, alpha: number): number => lookUp((table ??= reflected()).scale, cos, alpha);
export const reflectedOffset = (cos: number, alpha: number): number =>
  lookUp((table ??= reflected()).offset, cos, alpha);

/** How much of a facet is seen from a cosine (Smith), halved and over the cosine: what sampling and shading both need. */
export const seen = (cos: number, alpha2: number): number => 1 / (cos + Math.sqrt(alpha2 + (1 - alpha2) * cos * cos));

export const schlick = (cos: number): number => {
  const k = 1 - Math.min(1, Math.max(0, cos));
  const k2 = k * k;
  return k2 * k2 * k;
};

/** A direction to a facet that is seen from (x, 0, z), by two chances (Heitz 2018); goes to `out`. */
export function facet(x: number, y: number, z: number, alpha: number, a: number, b: number, out: Float64Array): void {
  // Stretched, so that the facets are those of a half ball.
  let vx = alpha * x,
    vy = alpha * y,
    vz = z;
  const l = 1 / Math.hypot(vx, vy, vz);
  vx *= l;
  vy *= l;
  vz *= l;
  const flat = vx * vx + vy * vy;
  const k = flat > 0 ? 1 / Math.sqrt(flat) : 0;
  const t1x = flat > 0 ? -vy * k : 1,
    t1y = flat > 0 ? vx * k : 0;
  const t2x = -vz * t1y,
    t2y = vz * t1x,
    t2z = vx * t1y - vy * t1x;
  const r = Math.sqrt(a),
    phi = 2 * Math.PI * b;
  const p1 = r * Math.cos(phi),
    half = 0.5 * (1 + vz);
  const p2 = (1 - half) * Math.sqrt(1 - p1 * p1) + half * r * Math.sin(phi);
  const p3 = Math.sqrt(Math.max(0, 1 - p1 * p1 - p2 * p2));
  const hx = alpha * (p1 * t1x + p2 * t2x + p3 * vx),
    hy = alpha * (p1 * t1y + p2 * t2y + p3 * vy),
    hz = Math.max(1e-9, p2 * t2z + p3 * vz);
  const m = 1 / Math.hypot(hx, hy, hz);
  out[0] = hx * m;
  out[1] = hy * m;
  out[2] = hz * m;
}

/** Works the tables out once: the weights of 400 even samples for each of their places. */
function reflected(): Reflected {
  const scale = new Float32Array(STEPS * STEPS),
    offset = new Float32Array(STEPS * STEPS);
  const h = new Float64Array(3);
  const N = 400;
  for (let j = 0; j < STEPS; j++)
    for (let i = 0; i < STEPS; i++) {
      const cos = Math.max(1e-3, (i / (STEPS - 1)) ** 2),
        alpha = Math.max(1e-3, (j / (STEPS - 1)) ** 2),
        x = Math.sqrt(1 - cos * cos);
      let s = 0,
        o = 0;
      for (let n = 0; n < N; n++) {
        facet(x, 0, cos, alpha, (n + 0.5) / N, (n * 0.6180339887498949) % 1, h);
        const vh = x * h[0]! + cos * h[2]!;
        const lz = 2 * vh * h[2]! - cos;
        if (lz <= 0) continue;
        const a2 = alpha * alpha;
        // Height-correlated masking (Heitz 2014) over that of the view alone.
        const gv = Math.sqrt(a2 + (1 - a2) * cos * cos),
          gl = Math.sqrt(a2 + (1 - a2) * lz * lz);
        const weight = (lz * (cos + gv)) / (lz * gv + cos * gl);
        const f = schlick(vh);
        s += weight * (1 - f);
        o += weight * f;
      }
      scale[j * STEPS + i] = s / N;
      offset[j * STEPS + i] = o / N;
    }
  return { scale, offset };
}

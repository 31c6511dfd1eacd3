import { hash32 } from '../math';
import { EMITTER_STRIDE } from './emitters';
import { hit, intersectScene } from './intersect';
import type { TraceScene } from './trace-scene';

/** How light is followed. */
export interface TraceOptions {
  /** Most bounces of a path. */
  readonly bounces: number;
  /** Light that comes over a bounce is held to this much a sample, against lone bright dots; Infinity keeps it exact. */
  readonly clamp: number;
}
export const TRACE_DEFAULTS: TraceOptions = { bounces: 6, clamp: 6 };

/** A rectangle of pixels with the sum of their samples. */
export interface Strip {
  readonly y: number;
  readonly rows: number;
  readonly samples: number;
  /** Linear light, summed over the samples: red, green, blue and coverage, row by row from the top. */
  readonly sum: Float32Array;
}

const EPSILON = 1e-4;

/**
 * Unidirectional path tracing (Kajiya 1986): at every diffuse surface the sun and one glowing face are aimed
 * for (next-event estimation); sky and other surfaces are found by cosine-weighted bounces. Each sample's randomness follows from pixel and
 * sample number alone, so that a picture is the same however it is shared among workers.
 *
 * Surfaces: diffuse; metal by mirror reflection roughened towards diffuse; glass lets a share of 1 − opacity through, tinted;
 * emissive swatches give off their colour times their strength.
 *
 * @param first – number of the first sample, so that later passes add new ones
 */
export function traceStrip(
  scene: TraceScene,
  y: number,
  rows: number,
  first: number,
  samples: number,
  options: TraceOptions = TRACE_DEFAULTS,
): Strip {
  const { width, height, camera: c } = scene;
  const sum = new Float32Array(width * rows * 4);
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i < width; i++) {
      const o = (j * width + i) * 4;
      for (let s = first; s < first + samples; s++) {
        seed((y + j) * width + i, s);
        const u = ((i + random()) / width) * 2 - 1;
        const v = 1 - ((y + j + random()) / height) * 2;
        let ox = c.eye[0],
          oy = c.eye[1],
          oz = c.eye[2];
        let dx = c.ahead[0],
          dy = c.ahead[1],
          dz = c.ahead[2];
        const px = c.right[0] * u + c.up[0] * v,
          py = c.right[1] * u + c.up[1] * v,
          pz = c.right[2] * u + c.up[2] * v;
        if (c.perspective) {
          dx += px;
          dy += py;
          dz += pz;
          const l = 1 / Math.hypot(dx, dy, dz);
          dx *= l;
          dy *= l;
          dz *= l;
        } else {
          ox += px;
          oy += py;
          oz += pz;
        }
        radiance(scene, ox, oy, oz, dx, dy, dz, options);
        sum[o]! += light.r;
        sum[o + 1]! += light.g;
        sum[o + 2]! += light.b;
        sum[o + 3]! += light.covered;
      }
    }
  }
  return { y, rows, samples, sum };
}

/** Result of `radiance`. */
const light = { r: 0, g: 0, b: 0, covered: 0 };
let state = 1;
function seed(pixel: number, sample: number): void {
  state = hash32(hash32(pixel + 0x632be5ab) ^ Math.imul(sample + 1, 0x9e3779b1)) || 1;
}
function random(): number {
  state ^= state << 13;
  state ^= state >>> 17;
  state ^= state << 5;
  return (state >>> 0) / 4294967296;
}

function radiance(
  scene: TraceScene,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  options: TraceOptions,
): void {
  const L = scene.light;
  let r = 0,
    g = 0,
    b = 0;
  let wr = 1,
    wg = 1,
    wb = 1;
  let tMin = EPSILON;
  // Glow met after a diffuse bounce was counted already, when it was aimed for.
  let countGlow = true;
  light.covered = 0;
  for (let bounce = 0; ; bounce++) {
    // What the eye sees directly is exact; what comes over bounces may be held down.
    const limit = bounce === 0 ? Infinity : options.clamp;
    const met = intersectScene(scene, ox, oy, oz, dx, dy, dz, tMin, Infinity);
    // Far floor melts into the horizon: that share of the light is taken here, the rest goes on.
    const melted = met && hit.instance < 0 && hit.t > L.groundFade[0] ? fadeAt(hit.t, L.groundFade) : 0;
    if (melted > 0) {
      light.covered = 1;
      r += wr * melted * L.horizon[0];
      g += wg * melted * L.horizon[1];
      b += wb * melted * L.horizon[2];
      wr *= 1 - melted;
      wg *= 1 - melted;
      wb *= 1 - melted;
    }
    if (melted === 1) break;
    if (!met) {
      const k = dy <= 0 ? 0 : Math.sqrt(dy);
      r += wr * (L.horizon[0] + (L.zenith[0] - L.horizon[0]) * k);
      g += wg * (L.horizon[1] + (L.zenith[1] - L.horizon[1]) * k);
      b += wb * (L.horizon[2] + (L.zenith[2] - L.horizon[2]) * k);
      break;
    }
    light.covered = 1;
    const t = hit.t,
      nx = hit.nx,
      ny = hit.ny,
      nz = hit.nz;
    let cr: number,
      cg: number,
      cb: number,
      metal = 0,
      rough = 1;
    if (hit.instance >= 0) {
      const s = scene.instances[hit.instance]!.surfaces;
      const v = hit.value;
      cr = s.colour[v * 3]!;
      cg = s.colour[v * 3 + 1]!;
      cb = s.colour[v * 3 + 2]!;
      const e = s.emissive[v]!;
      if (e > 0 && countGlow) {
        r += Math.min(limit, wr * cr * e);
        g += Math.min(limit, wg * cg * e);
        b += Math.min(limit, wb * cb * e);
      }
      const opacity = s.opacity[v]!;
      if (opacity < 1 && random() >= opacity) {
        // Straight through this cube, taking on a little of its colour at each face passed.
        wr *= 0.5 + 0.5 * cr;
        wg *= 0.5 + 0.5 * cg;
        wb *= 0.5 + 0.5 * cb;
        const m = scene.instances[hit.instance]!.toLocal;
        const reach =
          1 /
          Math.max(
            Math.abs(m[0]! * dx + m[4]! * dy + m[8]! * dz),
            Math.abs(m[1]! * dx + m[5]! * dy + m[9]! * dz),
            Math.abs(m[2]! * dx + m[6]! * dy + m[10]! * dz),
          );
        ox += dx * (t + reach);
        oy += dy * (t + reach);
        oz += dz * (t + reach);
        if (bounce >= options.bounces * 2) break;
        continue;
      }
      metal = s.metalness[v]!;
      rough = s.roughness[v]!;
    } else {
      cr = L.groundColour[0];
      cg = L.groundColour[1];
      cb = L.groundColour[2];
    }
    if (bounce >= options.bounces) break;
    wr *= cr;
    wg *= cg;
    wb *= cb;
    if (bounce >= 3) {
      const keep = Math.min(0.95, Math.max(wr, wg, wb));
      if (random() >= keep) break;
      wr /= keep;
      wg /= keep;
      wb /= keep;
    }
    ox += dx * t + nx * EPSILON;
    oy += dy * t + ny * EPSILON;
    oz += dz * t + nz * EPSILON;
    tMin = EPSILON;

    if (metal > 0 && random() < metal) {
      countGlow = true;
      const k = 2 * (dx * nx + dy * ny + dz * nz);
      dx -= k * nx;
      dy -= k * ny;
      dz -= k * nz;
      const fuzz = rough * rough;
      if (fuzz > 0) {
        scatter(nx, ny, nz);
        dx += (bounceDir.x - dx) * fuzz;
        dy += (bounceDir.y - dy) * fuzz;
        dz += (bounceDir.z - dz) * fuzz;
        const l = 1 / Math.hypot(dx, dy, dz);
        dx *= l;
        dy *= l;
        dz *= l;
      }
      continue;
    }

    const seen = sunShare(scene, ox, oy, oz, nx, ny, nz);
    if (seen > 0) {
      r += Math.min(limit, wr * L.sunColour[0] * seen);
      g += Math.min(limit, wg * L.sunColour[1] * seen);
      b += Math.min(limit, wb * L.sunColour[2] * seen);
    }
    if (scene.emitters.length > 0) {
      const share = glowShare(scene, ox, oy, oz, nx, ny, nz);
      if (share > 0) {
        const e = scene.emitters;
        r += Math.min(limit, wr * e[aimed + 9]! * share);
        g += Math.min(limit, wg * e[aimed + 10]! * share);
        b += Math.min(limit, wb * e[aimed + 11]! * share);
      }
    }
    countGlow = false;
    scatter(nx, ny, nz);
    dx = bounceDir.x;
    dy = bounceDir.y;
    dz = bounceDir.z;
  }
  light.r = r;
  light.g = g;
  light.b = b;
}

const fadeAt = (t: number, [near, far]: readonly [number, number]): number => Math.min(1, (t - near) / (far - near));

const bounceDir = { x: 0, y: 1, z: 0 };
/** A cosine-weighted direction about a unit normal (Malley's method; frame after Duff et al. 2017). */
function scatter(nx: number, ny: number, nz: number): void {
  const u = random(),
    phi = 2 * Math.PI * random();
  const rad = Math.sqrt(u),
    x = rad * Math.cos(phi),
    y = rad * Math.sin(phi),
    z = Math.sqrt(1 - u);
  aim(nx, ny, nz, x, y, z);
}
function aim(nx: number, ny: number, nz: number, x: number, y: number, z: number): void {
  const sign = nz >= 0 ? 1 : -1;
  const a = -1 / (sign + nz),
    b = nx * ny * a;
  bounceDir.x = x * (1 + sign * nx * nx * a) + y * b + z * nx;
  bounceDir.y = x * sign * b + y * (sign + ny * ny * a) + z * ny;
  bounceDir.z = -x * sign * nx - y * ny + z * nz;
}

/**
 * How much of the sun a point receives: the cosine at its surface where the sun is seen, else 0. The sun's
 * strength is its irradiance on a surface facing it, divided by π; so a white wall in full sun of strength 1 has radiance 1.
 */
function sunShare(scene: TraceScene, ox: number, oy: number, oz: number, nx: number, ny: number, nz: number): number {
  const L = scene.light;
  if (L.sunColour[0] + L.sunColour[1] + L.sunColour[2] === 0) return 0;
  const z = 1 - random() * (1 - L.sunCos),
    s = Math.sqrt(Math.max(0, 1 - z * z)),
    phi = 2 * Math.PI * random();
  aim(L.sunDirection[0], L.sunDirection[1], L.sunDirection[2], s * Math.cos(phi), s * Math.sin(phi), z);
  const cos = bounceDir.x * nx + bounceDir.y * ny + bounceDir.z * nz;
  if (cos <= 0 || bounceDir.y <= 0) return 0;
  return intersectScene(scene, ox, oy, oz, bounceDir.x, bounceDir.y, bounceDir.z, EPSILON, Infinity) ? 0 : cos;
}

/** Where the face begins that `glowShare` aimed for. */
let aimed = 0;
/**
 * Aims for a random point of a random glowing face. Gives what its radiance is multiplied with: both cosines
 * by area over π times the squared distance, over the chance of that choice; 0 when it is hidden.
 */
function glowShare(scene: TraceScene, ox: number, oy: number, oz: number, nx: number, ny: number, nz: number): number {
  const e = scene.emitters;
  const count = e.length / EMITTER_STRIDE;
  aimed = Math.min(count - 1, Math.floor(random() * count)) * EMITTER_STRIDE;
  const i = aimed,
    a = random(),
    b = random();
  let dx = e[i]! + e[i + 3]! * a + e[i + 6]! * b - ox;
  let dy = e[i + 1]! + e[i + 4]! * a + e[i + 7]! * b - oy;
  let dz = e[i + 2]! + e[i + 5]! * a + e[i + 8]! * b - oz;
  const d2 = dx * dx + dy * dy + dz * dz;
  const d = Math.sqrt(d2);
  if (d < EPSILON * 2) return 0;
  dx /= d;
  dy /= d;
  dz /= d;
  const cos = dx * nx + dy * ny + dz * nz;
  if (cos <= 0) return 0;
  // u × v: its length is the face's area, its direction the face's normal.
  const fx = e[i + 4]! * e[i + 8]! - e[i + 5]! * e[i + 7]!;
  const fy = e[i + 5]! * e[i + 6]! - e[i + 3]! * e[i + 8]!;
  const fz = e[i + 3]! * e[i + 7]! - e[i + 4]! * e[i + 6]!;
  const facing = -(dx * fx + dy * fy + dz * fz);
  if (facing <= 0) return 0;
  if (intersectScene(scene, ox, oy, oz, dx, dy, dz, EPSILON, d - EPSILON * 4)) return 0;
  return (count * cos * facing) / (Math.PI * d2);
}

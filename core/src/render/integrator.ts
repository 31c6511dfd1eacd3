import { type Area, type Traced, makeTraced } from './film';
import { brightness } from './glow';
import { SceneRay } from './intersect';
import type { TraceLamp } from './lamps';
import { Sampler } from './sampler';
import type { TraceScene } from './trace-scene';

/** How light is followed. */
export interface TraceOptions {
  /** Most bounces of a path. */
  readonly bounces: number;
  /** Light that comes over a bounce is held to this much a sample, against lone bright dots; Infinity keeps it exact. */
  readonly clamp: number;
}
export const TRACE_DEFAULTS: TraceOptions = { bounces: 6, clamp: 6 };

const EPSILON = 1e-4;
/** Steps through glowing cubes on the way to a lamp. */
const MOST_BODIES = 64;

/** Pixels are traced in squares so wide: paths of neighbours meet the same things, which are at hand then. */
const BLOCK = 8;

/**
 * Unidirectional path tracing (Kajiya 1986): at every diffuse surface the sun and one glowing face or lamp are aimed
 * for (next-event estimation); sky and other surfaces are found by cosine-weighted bounces. Each sample's randomness follows from pixel and
 * sample number alone, so that a picture is the same however it is shared among workers.
 *
 * Surfaces: diffuse; metal by mirror reflection roughened towards diffuse; glass lets a share of 1 − opacity through, tinted;
 * emissive swatches give off their colour times their strength.
 *
 * @param first – number of the first sample, so that later passes add new ones
 */
export function traceArea(
  scene: TraceScene,
  area: Area,
  first: number,
  samples: number,
  options: TraceOptions = TRACE_DEFAULTS,
): Traced {
  const out = makeTraced(area, samples);
  const path = new Path(scene, options);
  const { width, height } = area;
  for (let y = 0; y < height; y += BLOCK)
    for (let x = 0; x < width; x += BLOCK)
      for (let j = y; j < Math.min(height, y + BLOCK); j++)
        for (let i = x; i < Math.min(width, x + BLOCK); i++)
          for (let s = first; s < first + samples; s++) {
            path.follow(area.x + i, area.y + j, s);
            path.addTo(out, j * width + i);
          }
  return out;
}

const fadeAt = (t: number, [near, far]: readonly [number, number]): number => Math.min(1, (t - near) / (far - near));

/** One path of light, followed from the eye; used again for each sample, since nothing may be allocated for so many. */
class Path {
  /** What came of the last sample: linear light, and 1 when it met anything. */
  r = 0.5;
  g = 0.5;
  b = 0.5;
  covered = 0;
  /** The first surface: its colour, normal and distance; zeros when there was none. */
  private cr = 0.5;
  private cg = 0.5;
  private cb = 0.5;
  private mx = 0.5;
  private my = 0.5;
  private mz = 0.5;
  private away = 0.5;

  /** The ray. */
  private ox = 0.5;
  private oy = 0.5;
  private oz = 0.5;
  private dx = 0.5;
  private dy = 0.5;
  private dz = 0.5;
  /** The share of red, green and blue that comes back along the path. */
  private wr = 0.5;
  private wg = 0.5;
  private wb = 0.5;
  /** A direction that {@link scatter} or {@link aim} made. */
  private ax = 0.5;
  private ay = 0.5;
  private az = 0.5;
  /** Light that came without a bounce: of glow, of the sky, and of the floor’s horizon. */
  private er = 0.5;
  private eg = 0.5;
  private eb = 0.5;
  private bounced = false;
  /** Whether the path has met what it will be told of. */
  private seen = false;
  /** Glow met after a diffuse bounce was counted already, when it was aimed for. */
  private countGlow = true;
  /** Most light that may come over the bounce under way. */
  private limit = Infinity;
  private readonly chance = new Sampler();
  private readonly met = new SceneRay();
  /** For rays to lights, so that what the path itself met stays. */
  private readonly shadow = new SceneRay();

  constructor(
    private readonly scene: TraceScene,
    private readonly options: TraceOptions,
  ) {}

  /** Follows sample `sample` of the pixel in column `x` of row `y`. */
  follow(x: number, y: number, sample: number): void {
    this.chance.begin(y * this.scene.width + x, sample);
    this.leaveEye(x, y);
    this.r = this.g = this.b = 0;
    this.wr = this.wg = this.wb = 1;
    this.covered = 0;
    this.cr = this.cg = this.cb = this.mx = this.my = this.mz = this.away = 0;
    this.countGlow = true;
    this.seen = this.bounced = false;
    this.er = this.eg = this.eb = 0;
    for (let bounce = 0; this.step(bounce); bounce++);
  }

  /** Adds what came of the last sample to pixel `p` of an area. */
  addTo({ light, direct, squares, cover, albedo, normal, depth }: Traced, p: number): void {
    const o = p * 3;
    light[o]! += this.r;
    light[o + 1]! += this.g;
    light[o + 2]! += this.b;
    direct[o]! += this.er;
    direct[o + 1]! += this.eg;
    direct[o + 2]! += this.eb;
    squares[p]! += brightness(this.r - this.er, this.g - this.eg, this.b - this.eb) ** 2;
    cover[p]! += this.covered;
    albedo[o]! += this.cr;
    albedo[o + 1]! += this.cg;
    albedo[o + 2]! += this.cb;
    normal[o]! += this.mx;
    normal[o + 1]! += this.my;
    normal[o + 2]! += this.mz;
    depth[p]! += this.away;
  }

  /** Remembers the first surface that the eye meets, through glass the one behind it, in the colour that it is seen in there. */
  private see(colour: ArrayLike<number>, c: number): void {
    const { met } = this;
    this.seen = true;
    this.cr = this.wr * colour[c]!;
    this.cg = this.wg * colour[c + 1]!;
    this.cb = this.wb * colour[c + 2]!;
    this.mx = met.nx;
    this.my = met.ny;
    this.mz = met.nz;
    this.away = met.t;
  }

  private leaveEye(x: number, y: number): void {
    const { width, height, camera: c } = this.scene;
    const u = ((x + this.chance.next()) / width) * 2 - 1;
    const v = 1 - ((y + this.chance.next()) / height) * 2;
    const px = c.right[0] * u + c.up[0] * v,
      py = c.right[1] * u + c.up[1] * v,
      pz = c.right[2] * u + c.up[2] * v;
    if (c.perspective) {
      this.start(c.eye[0], c.eye[1], c.eye[2]);
      this.turn(c.ahead[0] + px, c.ahead[1] + py, c.ahead[2] + pz);
    } else {
      this.start(c.eye[0] + px, c.eye[1] + py, c.eye[2] + pz);
      this.turn(c.ahead[0], c.ahead[1], c.ahead[2]);
    }
  }
  private start(x: number, y: number, z: number): void {
    this.ox = x;
    this.oy = y;
    this.oz = z;
  }
  /** The ray into another direction, of any length. */
  private turn(x: number, y: number, z: number): void {
    const l = 1 / Math.hypot(x, y, z);
    this.dx = x * l;
    this.dy = y * l;
    this.dz = z * l;
  }

  /** From one surface to the next; gives whether the path goes on. */
  private step(bounce: number): boolean {
    // What the eye sees directly is exact; what comes over bounces may be held down.
    this.limit = bounce === 0 ? Infinity : this.options.clamp;
    const { scene, met } = this;
    const found = met.intersect(scene, this.ox, this.oy, this.oz, this.dx, this.dy, this.dz, EPSILON, Infinity);
    if (found && met.instance < 0 && this.meltsAway(met.t)) return false;
    if (!found) {
      this.takeSky();
      return false;
    }
    this.covered = 1;
    if (met.instance < 0) {
      if (!this.seen) this.see(scene.light.groundColour, 0);
      return bounce < this.options.bounces && this.bounceOff(scene.light.groundColour, 0, bounce, 0, 1);
    }
    const s = scene.instances[met.instance]!.shape.surfaces;
    const v = met.value,
      c = v * 3;
    const opacity = s.opacity[v]!,
      through = opacity < 1 && this.chance.next() >= opacity;
    if (!through && !this.seen) this.see(s.colour, c);
    const e = s.emissive[v]!;
    if (e > 0 && this.countGlow) this.add(s.colour[c]! * e, s.colour[c + 1]! * e, s.colour[c + 2]! * e);
    if (through) {
      this.passThrough(s.colour, c);
      return bounce < this.options.bounces * 2;
    }
    return bounce < this.options.bounces && this.bounceOff(s.colour, c, bounce, s.metalness[v]!, s.roughness[v]!);
  }

  /** Light that comes along the path, held to the limit. */
  private add(r: number, g: number, b: number): void {
    this.take(Math.min(this.limit, this.wr * r), Math.min(this.limit, this.wg * g), Math.min(this.limit, this.wb * b));
  }
  private take(r: number, g: number, b: number): void {
    this.r += r;
    this.g += g;
    this.b += b;
    if (this.bounced) return;
    this.er += r;
    this.eg += g;
    this.eb += b;
  }
  private weigh(r: number, g: number, b: number): void {
    this.wr *= r;
    this.wg *= g;
    this.wb *= b;
  }

  /** Far floor melts into the horizon: that share of the light is taken here, the rest goes on; true when all has. */
  private meltsAway(t: number): boolean {
    const { groundFade, horizon } = this.scene.light;
    const melted = t > groundFade[0] ? fadeAt(t, groundFade) : 0;
    if (melted === 0) return false;
    this.covered = 1;
    this.take(this.wr * melted * horizon[0], this.wg * melted * horizon[1], this.wb * melted * horizon[2]);
    this.weigh(1 - melted, 1 - melted, 1 - melted);
    return melted === 1;
  }
  private takeSky(): void {
    if (this.covered > 0 && !this.seen) [this.cr, this.cg, this.cb] = [this.wr, this.wg, this.wb];
    const { horizon: h, zenith: z } = this.scene.light;
    const k = this.dy <= 0 ? 0 : Math.sqrt(this.dy);
    this.take(
      this.wr * (h[0] + (z[0] - h[0]) * k),
      this.wg * (h[1] + (z[1] - h[1]) * k),
      this.wb * (h[2] + (z[2] - h[2]) * k),
    );
  }
  /** Straight through this cube, taking on a little of its colour at each face passed. */
  private passThrough(colour: ArrayLike<number>, c: number): void {
    const { dx, dy, dz, met } = this;
    this.weigh(0.5 + 0.5 * colour[c]!, 0.5 + 0.5 * colour[c + 1]!, 0.5 + 0.5 * colour[c + 2]!);
    const m = this.scene.instances[met.instance]!.toLocal;
    const x = Math.abs(m[0]! * dx + m[4]! * dy + m[8]! * dz),
      y = Math.abs(m[1]! * dx + m[5]! * dy + m[9]! * dz),
      z = Math.abs(m[2]! * dx + m[6]! * dy + m[10]! * dz);
    const way = met.t + 1 / Math.max(x, y, z);
    this.ox += dx * way;
    this.oy += dy * way;
    this.oz += dz * way;
  }

  /** Off an opaque surface, by mirror or diffusely; gives whether the path goes on. */
  private bounceOff(colour: ArrayLike<number>, c: number, bounce: number, metal: number, rough: number): boolean {
    this.weigh(colour[c]!, colour[c + 1]!, colour[c + 2]!);
    this.bounced = true;
    if (bounce >= 3 && !this.survives()) return false;
    const { t, nx, ny, nz } = this.met;
    this.ox += this.dx * t + nx * EPSILON;
    this.oy += this.dy * t + ny * EPSILON;
    this.oz += this.dz * t + nz * EPSILON;
    if (metal > 0 && this.chance.next() < metal) {
      this.countGlow = true;
      this.reflect(rough * rough);
      return true;
    }
    this.gatherSun();
    if (!this.scene.lights.isEmpty) this.gatherLights();
    this.countGlow = false;
    this.scatter(nx, ny, nz);
    this.dx = this.ax;
    this.dy = this.ay;
    this.dz = this.az;
    return true;
  }
  /** Paths that carry little are ended by chance, and those that go on count for more (Russian roulette). */
  private survives(): boolean {
    const keep = Math.min(0.95, Math.max(this.wr, this.wg, this.wb));
    if (this.chance.next() >= keep) return false;
    this.wr /= keep;
    this.wg /= keep;
    this.wb /= keep;
    return true;
  }
  /** Mirrors the ray; `fuzz` is how far it is drawn towards a diffuse bounce. */
  private reflect(fuzz: number): void {
    const { nx, ny, nz } = this.met;
    const k = 2 * (this.dx * nx + this.dy * ny + this.dz * nz);
    this.dx -= k * nx;
    this.dy -= k * ny;
    this.dz -= k * nz;
    if (fuzz === 0) return;
    this.scatter(nx, ny, nz);
    this.turn(
      this.dx + (this.ax - this.dx) * fuzz,
      this.dy + (this.ay - this.dy) * fuzz,
      this.dz + (this.az - this.dz) * fuzz,
    );
  }

  /** A cosine-weighted direction about a unit normal (Malley's method). */
  private scatter(nx: number, ny: number, nz: number): void {
    const u = this.chance.next(),
      phi = 2 * Math.PI * this.chance.next();
    const rad = Math.sqrt(u);
    this.aim(nx, ny, nz, rad * Math.cos(phi), rad * Math.sin(phi), Math.sqrt(1 - u));
  }
  /** A direction given in a frame whose z is the normal (frame after Duff et al. 2017). */
  private aim(nx: number, ny: number, nz: number, x: number, y: number, z: number): void {
    const sign = nz >= 0 ? 1 : -1;
    const a = -1 / (sign + nz),
      b = nx * ny * a;
    this.ax = x * (1 + sign * nx * nx * a) + y * b + z * nx;
    this.ay = x * sign * b + y * (sign + ny * ny * a) + z * ny;
    this.az = -x * sign * nx - y * ny + z * nz;
  }

  /**
   * The light of the sun, where it is seen from: by the cosine at the surface. The sun's strength is its irradiance on a
   * surface facing it, divided by π; so a white wall in full sun of strength 1 has radiance 1.
   */
  private gatherSun(): void {
    const { sunColour: c, sunCos, sunDirection: d } = this.scene.light;
    if (c[0] + c[1] + c[2] === 0) return;
    const z = 1 - this.chance.next() * (1 - sunCos),
      s = Math.sqrt(Math.max(0, 1 - z * z)),
      phi = 2 * Math.PI * this.chance.next();
    this.aim(d[0], d[1], d[2], s * Math.cos(phi), s * Math.sin(phi), z);
    const { nx, ny, nz } = this.met;
    const { ax, ay, az } = this;
    const cos = ax * nx + ay * ny + az * nz;
    if (cos <= 0 || ay <= 0) return;
    if (this.shadow.blocked(this.scene, this.ox, this.oy, this.oz, ax, ay, az, EPSILON, Infinity)) return;
    this.add(c[0] * cos, c[1] * cos, c[2] * cos);
  }

  /** The light of one source, of those that promise most here; over the chance of that choice. */
  private gatherLights(): void {
    const { lights } = this.scene;
    const { nx, ny, nz } = this.met;
    if (!lights.choose(this.ox, this.oy, this.oz, nx, ny, nz, this.chance.next(), this.chance.next())) return;
    const a = this.chance.next(),
      b = this.chance.next();
    if (lights.lamp) this.gatherLamp(lights.lamp, lights.chance, a, b);
    else this.gatherGlow(a, b);
  }

  /**
   * The light of a random point of a glowing face, where it is seen from: its radiance times both cosines by area over π times
   * the squared distance.
   */
  private gatherGlow(a: number, b: number): void {
    const { corner, u, v, radiance, chance } = this.scene.lights;
    const { ox, oy, oz } = this;
    const { nx, ny, nz } = this.met;
    let dx = corner[0]! + u[0]! * a + v[0]! * b - ox;
    let dy = corner[1]! + u[1]! * a + v[1]! * b - oy;
    let dz = corner[2]! + u[2]! * a + v[2]! * b - oz;
    const d2 = dx * dx + dy * dy + dz * dz;
    const d = Math.sqrt(d2);
    if (d < EPSILON * 2) return;
    dx /= d;
    dy /= d;
    dz /= d;
    const cos = dx * nx + dy * ny + dz * nz;
    if (cos <= 0) return;
    // u × v: its length is the face's area, its direction the face's normal.
    const fx = u[1]! * v[2]! - u[2]! * v[1]!;
    const fy = u[2]! * v[0]! - u[0]! * v[2]!;
    const fz = u[0]! * v[1]! - u[1]! * v[0]!;
    const facing = -(dx * fx + dy * fy + dz * fz);
    if (facing <= 0) return;
    if (this.shadow.blocked(this.scene, ox, oy, oz, dx, dy, dz, EPSILON, d - EPSILON * 4)) return;
    const share = (cos * facing) / (Math.PI * d2 * chance);
    this.add(radiance[0]! * share, radiance[1]! * share, radiance[2]! * share);
  }

  /** The light of a lamp from a random point of it: of a ball's disc that faces the place, or of a panel. */
  private gatherLamp(lamp: TraceLamp, chance: number, a: number, b: number): void {
    const { ox, oy, oz } = this;
    const { nx, ny, nz } = this.met;
    const { at, ahead, right, up, size, colour } = lamp;
    let x = at[0],
      y = at[1],
      z = at[2];
    if (lamp.kind === 'panel') {
      const s = (a - 0.5) * size,
        t = (b - 0.5) * size;
      x += right[0] * s + up[0] * t;
      y += right[1] * s + up[1] * t;
      z += right[2] * s + up[2] * t;
    } else if (size > 0) {
      const l = 1 / Math.max(1e-9, Math.hypot(ox - x, oy - y, oz - z));
      const radius = (Math.sqrt(a) * size) / 2;
      this.aim(
        (ox - x) * l,
        (oy - y) * l,
        (oz - z) * l,
        radius * Math.cos(2 * Math.PI * b),
        radius * Math.sin(2 * Math.PI * b),
        0,
      );
      x += this.ax;
      y += this.ay;
      z += this.az;
    }
    let dx = x - ox,
      dy = y - oy,
      dz = z - oz;
    const d2 = dx * dx + dy * dy + dz * dz,
      d = Math.sqrt(d2);
    if (d < EPSILON * 2) return;
    dx /= d;
    dy /= d;
    dz /= d;
    const cos = dx * nx + dy * ny + dz * nz;
    if (cos <= 0) return;
    const off = -(dx * ahead[0] + dy * ahead[1] + dz * ahead[2]);
    let share = cos / (d2 * chance);
    if (lamp.kind === 'panel') share *= Math.max(0, off);
    else if (lamp.kind === 'spot') {
      // As KHR_lights_punctual lets a cone fall off.
      const k = Math.max(0, Math.min(1, (off - lamp.cosOuter) / Math.max(1e-3, lamp.cosInner - lamp.cosOuter)));
      share *= k * k;
    }
    if (share === 0 || this.shaded(dx, dy, dz, d - EPSILON * 4)) return;
    this.add(colour[0] * share, colour[1] * share, colour[2] * share);
  }

  /** Whether anything stands between here and a lamp; its own glowing body does not, a lamp hangs in it. */
  private shaded(dx: number, dy: number, dz: number, far: number): boolean {
    const { scene, shadow } = this;
    let from = EPSILON;
    for (let n = 0; n < MOST_BODIES; n++) {
      if (!shadow.intersect(scene, this.ox, this.oy, this.oz, dx, dy, dz, from, far)) return false;
      const i = scene.instances[shadow.instance];
      if (!i || i.shape.surfaces.emissive[shadow.value]! === 0) return true;
      const m = i.toLocal;
      // On through the cube.
      const step = Math.max(
        Math.abs(m[0]! * dx + m[4]! * dy + m[8]! * dz),
        Math.abs(m[1]! * dx + m[5]! * dy + m[9]! * dz),
        Math.abs(m[2]! * dx + m[6]! * dy + m[10]! * dz),
      );
      from = shadow.t + 0.25 / step;
      if (from >= far) return false;
    }
    return true;
  }
}

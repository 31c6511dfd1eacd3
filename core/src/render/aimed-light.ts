import { SceneRay } from './intersect';
import type { TraceLamp } from './lamps';
import { AIMED, CHANCES, PathState } from './path-state';
import { cubesAlong } from './shape';
import { Surface } from './surface';

/** How far off faces rays to lights begin. */
export const EPSILON = 1e-4;
/** Steps through glowing or see-through cubes on the way to a light. */
const MOST_BODIES = 64;

/** Light that is aimed for from where a path stands: the sun, painted surroundings, glowing faces and lamps, there and in fog. */
export abstract class AimedLight extends PathState {
  /** What stays of the light of a lamp on its way here. */
  private tr = 0.5;
  private tg = 0.5;
  private tb = 0.5;
  /** What light that is aimed for counts by: as many as there are kinds, when one of them stands for all. */
  private times = 1;
  /** Whether the place light is gathered for floats in fog, facing all ways. */
  protected floating = false;
  /** For rays to lights, so that what the path itself met stays. */
  protected readonly shadow = new SceneRay();
  protected readonly surface = new Surface();
  /** Light of surroundings, as other light is handed on. */
  private readonly around = new Float64Array(3);

  /** Light that is aimed for: all kinds of it where the eye looks and once more, one of them for all farther on. */
  protected gatherAll(): void {
    const { sky, sunColour: c } = this.scene.light;
    const sun = c[0] + c[1] + c[2] > 0 ? 1 : 0,
      around = sky.chosen ? 1 : 0,
      lamps = this.scene.lights.isEmpty ? 0 : 1;
    const kinds = sun + around + lamps;
    this.times = 1;
    if (this.bounce <= 2 || kinds < 2) {
      this.gatherSun();
      this.gatherSky();
      this.gatherLights();
      return;
    }
    this.times = kinds;
    const one = Math.floor(this.draws.next() * kinds);
    if (one < sun) this.gatherSun();
    else if (one < sun + around) this.gatherSky();
    else this.gatherLights();
    this.times = 1;
  }

  /** What of light from a direction is thrown on here stands in the surface; in fog the same in all directions. */
  private throwOn(dx: number, dy: number, dz: number): void {
    const { surface } = this;
    if (!this.floating) return surface.evaluate(dx, dy, dz);
    surface.r = surface.g = surface.b = 1 / (4 * Math.PI);
    surface.chance = 0;
  }

  /** Light of strength `k` that was aimed for, as the surface throws it on and as much as comes through to it. */
  private gather(c: ArrayLike<number>, k: number): void {
    const { surface } = this;
    k *= this.times;
    this.take(c[0]! * k * surface.r * this.tr, c[1]! * k * surface.g * this.tg, c[2]! * k * surface.b * this.tb);
  }

  /**
   * The light of the sun, where it is seen from. The sun's strength is its irradiance on a surface facing it, divided by π; so
   * a white wall in full sun of strength 1 has radiance 1.
   */
  private gatherSun(): void {
    const { sunColour: c, sunCos, sunDirection: d } = this.scene.light;
    const { draws } = this;
    if (c[0] + c[1] + c[2] === 0) return draws.skip(1);
    draws.draw();
    const z = 1 - draws.u * (1 - sunCos),
      s = Math.sqrt(Math.max(0, 1 - z * z)),
      phi = 2 * Math.PI * draws.v;
    this.aimed.from(d[0], d[1], d[2], s * Math.cos(phi), s * Math.sin(phi), z);
    const { x: ax, y: ay, z: az } = this.aimed;
    if (ay <= 0) return;
    this.throwOn(ax, ay, az);
    if (this.surface.r + this.surface.g + this.surface.b === 0 || !this.clear(ax, ay, az, Infinity, false)) return;
    this.gather(c, Math.PI * this.metByAim(1 / (2 * Math.PI * (1 - sunCos)), this.surface.chance));
  }

  /** The light of painted surroundings from a direction that is likely to be bright. */
  private gatherSky(): void {
    const { sky } = this.scene.light;
    const { draws } = this;
    if (!sky.chosen) return draws.skip(1);
    draws.draw();
    sky.choose(draws.u, draws.v);
    const { x, y, z, chance } = sky;
    this.throwOn(x, y, z);
    if (this.surface.r + this.surface.g + this.surface.b === 0) return;
    const k = this.metByAim(chance, this.surface.chance) / chance;
    this.around[0] = sky.r;
    this.around[1] = sky.g;
    this.around[2] = sky.b;
    if (this.clear(x, y, z, Infinity, false)) this.gather(this.around, k);
  }

  /** The light of one source, of those that promise most here; over the chance of that choice. */
  private gatherLights(): void {
    const { lights } = this.scene;
    const { draws, normal } = this;
    if (lights.isEmpty) return;
    const chosen = draws.next();
    const all = this.floating ? 0 : 1;
    const nx = normal[0]! * all,
      ny = normal[1]! * all,
      nz = normal[2]! * all;
    if (!lights.choose(this.ox, this.oy, this.oz, nx, ny, nz, chosen)) return;
    draws.draw();
    if (lights.lamp) this.gatherLamp(lights.lamp, lights.chance, draws.u, draws.v);
    else this.gatherGlow(draws.u, draws.v);
  }

  /**
   * The light of a random point of a glowing face, where it is seen from: its radiance times both cosines by area over the
   * squared distance.
   */
  private gatherGlow(a: number, b: number): void {
    const { corner, u, v, radiance, chance, unseen, cubes } = this.scene.lights;
    const { ox, oy, oz } = this;
    let dx = corner[0]! + u[0]! * a + v[0]! * b - ox;
    let dy = corner[1]! + u[1]! * a + v[1]! * b - oy;
    let dz = corner[2]! + u[2]! * a + v[2]! * b - oz;
    const d2 = dx * dx + dy * dy + dz * dz;
    const d = Math.sqrt(d2);
    if (d < EPSILON * 2) return;
    dx /= d;
    dy /= d;
    dz /= d;
    // u × v: its length is the face's area, its direction the face's normal.
    const fx = u[1]! * v[2]! - u[2]! * v[1]!;
    const fy = u[2]! * v[0]! - u[0]! * v[2]!;
    const fz = u[0]! * v[1]! - u[1]! * v[0]!;
    const facing = -(dx * fx + dy * fy + dz * fz);
    if (facing <= 0) return;
    this.throwOn(dx, dy, dz);
    const { surface } = this;
    if (surface.r + surface.g + surface.b === 0) return;
    // Lamps that nobody sees are met by no bounce.
    const k = unseen ? 1 : this.metByAim((AIMED * d2 * cubes) / facing, surface.chance);
    if (k === 0 || !this.clear(dx, dy, dz, d - EPSILON * 4, false)) return;
    this.gather(radiance, (k * facing) / (d2 * chance));
  }

  /** The light of a lamp from a random point of it: of a ball's disc that faces the place, or of a panel. */
  private gatherLamp(lamp: TraceLamp, chance: number, a: number, b: number): void {
    const { ox, oy, oz } = this;
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
      this.aimed.from(
        (ox - x) * l,
        (oy - y) * l,
        (oz - z) * l,
        radius * Math.cos(2 * Math.PI * b),
        radius * Math.sin(2 * Math.PI * b),
        0,
      );
      x += this.aimed.x;
      y += this.aimed.y;
      z += this.aimed.z;
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
    this.throwOn(dx, dy, dz);
    const { surface } = this;
    if (surface.r + surface.g + surface.b === 0) return;
    const off = -(dx * ahead[0] + dy * ahead[1] + dz * ahead[2]);
    let share = Math.PI / (d2 * chance);
    if (lamp.kind === 'panel') share *= Math.max(0, off);
    else if (lamp.kind === 'spot') {
      // As KHR_lights_punctual lets a cone fall off.
      const k = Math.max(0, Math.min(1, (off - lamp.cosOuter) / Math.max(1e-3, lamp.cosInner - lamp.cosOuter)));
      share *= k * k;
    }
    if (share > 0 && this.clear(dx, dy, dz, d - EPSILON * 4, true)) this.gather(colour, share);
  }

  /**
   * Whether light comes through to here from so far away, and how much of it. See-through cubes tint it; to a lamp its own
   * glowing body does not stand in the way, it hangs in it.
   */
  private clear(dx: number, dy: number, dz: number, far: number, toLamp: boolean): boolean {
    const { scene, shadow, ox, oy, oz } = this;
    this.tr = this.tg = this.tb = 1;
    if (scene.fog) this.tr = this.tg = this.tb = Math.exp(-scene.fog.depth(oy, dy, far));
    if (!scene.glassy && !(toLamp && scene.lights.bodies))
      return !shadow.blocked(scene, ox, oy, oz, dx, dy, dz, EPSILON, far);
    let from = EPSILON;
    for (let n = 0; n < MOST_BODIES; n++) {
      if (!shadow.intersect(scene, ox, oy, oz, dx, dy, dz, from, far)) return true;
      const { instance, value, t } = shadow;
      if (instance < 0) return false;
      const s = scene.instances[instance]!.shape.surfaces;
      const opacity = s.opacity[value]!;
      const own = toLamp && s.emissive[value]! > 0;
      if (opacity === 1 && !own) return false;
      shadow.leave(scene, instance, value, ox, oy, oz, dx, dy, dz, t + EPSILON);
      if (!own) this.tintBy(instance, value, Math.min(far, shadow.t) - t, dx, dy, dz, 1 - opacity);
      from = shadow.t + EPSILON;
      if (from >= far) return true;
    }
    return false;
  }
  private tintBy(
    instance: number,
    value: number,
    way: number,
    dx: number,
    dy: number,
    dz: number,
    share: number,
  ): void {
    const there = this.scene.instances[instance]!;
    const cubes = cubesAlong(there, way, dx, dy, dz);
    const { loss } = there.shape.surfaces;
    const c = value * 3;
    this.tr *= share * Math.exp(loss[c]! * cubes);
    this.tg *= share * Math.exp(loss[c + 1]! * cubes);
    this.tb *= share * Math.exp(loss[c + 2]! * cubes);
  }

  /**
   * On the way through fog: light is lost, and what fog throws towards the eye comes in. Of the sky that is its mean; of sun and lamps, for what
   * the eye sees, one place on the way is chosen and lit (single scattering, the same in all directions).
   */
  protected crossFog(t: number): void {
    const { scene, draws } = this;
    const fog = scene.fog!;
    const stays = Math.exp(-fog.depth(this.oy, this.dy, t));
    const lost = 1 - stays;
    if (lost > 0) {
      const { mean } = scene.light.sky,
        { ambient } = scene.light;
      const { colour } = fog;
      const [r, g, b] = [this.wr, this.wg, this.wb];
      this.weigh(lost * colour[0], lost * colour[1], lost * colour[2]);
      const before = this.bounced;
      if (!this.bounced) this.covered = Math.max(this.covered, lost);
      // Noise of it is taken out with that of surfaces.
      this.bounced = true;
      this.take(mean[0] + ambient[0], mean[1] + ambient[1], mean[2] + ambient[2]);
      draws.at(CHANCES.fog[0] + this.turns * CHANCES.fog[1]);
      if (this.chance === 0) this.lightFog(fog.reach(this.oy, this.dy, t, -Math.log(1 - draws.next() * lost)));
      this.bounced = before;
      this.wr = r;
      this.wg = g;
      this.wb = b;
    }
    this.weigh(stays, stays, stays);
  }
  private lightFog(s: number): void {
    const { ox, oy, oz, dx, dy, dz } = this;
    this.start(ox + dx * s, oy + dy * s, oz + dz * s);
    this.floating = true;
    this.gatherSun();
    this.gatherLights();
    this.floating = false;
    this.start(ox, oy, oz);
  }
}

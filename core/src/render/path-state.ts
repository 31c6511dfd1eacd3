import { Aim } from './aim';
import { GROUND, type Traced, vote } from './film';
import { brightness } from './glow';
import type { TraceOptions } from './integrator';
import { SceneRay } from './intersect';
import { Sampler } from './sampler';
import { cubesAlong } from './shape';
import type { TraceScene } from './trace-scene';

/** How likely a face is taken to be aimed for, when that is weighed against meeting it by chance; what it is does not matter to the mean. */
export const AIMED = 0.3;

/** Where chances of a bounce begin and how many it takes, and those of a turn and of fog: each its own, none is used twice. */
export const CHANCES = { bounce: [4, 12], turn: [1024, 4], fog: [2048, 8] } as const;

/**
 * Where a path of light stands: its ray, what it carries, and the light that came along it so far. Used again for each sample,
 * since nothing may be allocated for so many.
 */
export abstract class PathState {
  /** What came of the last sample: linear light, and 1 when it met anything. */
  r = 0.5;
  g = 0.5;
  b = 0.5;
  covered = 0.5;
  /** The first surface: its colour, normal and distance; zeros when there was none. */
  protected cr = 0.5;
  protected cg = 0.5;
  protected cb = 0.5;
  protected mx = 0.5;
  protected my = 0.5;
  protected mz = 0.5;
  protected away = 0.5;
  /** What it was, as films number it. */
  protected first = 0;

  /** The ray. */
  protected ox = 0.5;
  protected oy = 0.5;
  protected oz = 0.5;
  protected dx = 0.5;
  protected dy = 0.5;
  protected dz = 0.5;
  /** The share of red, green and blue that comes back along the path. */
  protected wr = 0.5;
  protected wg = 0.5;
  protected wb = 0.5;
  /** How likely the ray was chosen, by solid angle; 0 from the eye, mirrors and glass, whose light is not aimed for. */
  protected chance = 0.5;
  /** Way of the eye so far, through mirrors and glass. */
  protected trip = 0.5;
  /** Light that came without a bounce: of glow, of the sky, and of the floor’s horizon. */
  protected er = 0.5;
  protected eg = 0.5;
  protected eb = 0.5;
  protected bounced = false;
  /** Whether nothing was left to chance on the way of the eye: what it sees then has no noise. */
  protected sure = true;
  /** Whether the path has met what it will be told of. */
  protected seen = false;
  /** Times it was scattered. */
  protected bounce = 0;
  protected turns = 0;
  protected sample = 0;
  protected readonly draws = new Sampler();
  protected readonly met = new SceneRay();
  protected readonly normal = new Float64Array(3);
  protected readonly half = new Float64Array(3);
  protected readonly aimed = new Aim();

  constructor(
    protected readonly scene: TraceScene,
    protected readonly options: TraceOptions,
  ) {}

  /** Adds what came of the last sample to pixel `p` of an area. */
  addTo(traced: Traced, p: number): void {
    const { light, direct, squares, odd, cover, albedo, normal, depth } = traced;
    const o = p * 3;
    light[o]! += this.r;
    light[o + 1]! += this.g;
    light[o + 2]! += this.b;
    direct[o]! += this.er;
    direct[o + 1]! += this.eg;
    direct[o + 2]! += this.eb;
    const rest = brightness(this.r - this.er, this.g - this.eg, this.b - this.eb);
    squares[p]! += rest * rest;
    if (this.sample & 1) odd[p]! += rest;
    cover[p]! += this.covered;
    albedo[o]! += this.cr;
    albedo[o + 1]! += this.cg;
    albedo[o + 2]! += this.cb;
    normal[o]! += this.mx;
    normal[o + 1]! += this.my;
    normal[o + 2]! += this.mz;
    depth[p]! += this.away;
    vote(traced, p, this.first);
  }

  /** Nothing met and nothing carried yet, on sample `sample` of a pixel. */
  protected begin(pixel: number, sample: number): void {
    this.draws.begin(pixel, sample);
    this.sample = sample;
    this.r = this.g = this.b = 0;
    this.wr = this.wg = this.wb = 1;
    this.covered = this.chance = this.trip = 0;
    this.cr = this.cg = this.cb = this.mx = this.my = this.mz = this.away = 0;
    this.seen = this.bounced = false;
    this.sure = true;
    this.first = 0;
    this.er = this.eg = this.eb = 0;
    this.bounce = 0;
  }

  protected start(x: number, y: number, z: number): void {
    this.ox = x;
    this.oy = y;
    this.oz = z;
  }
  /** The ray into another direction, of any length. */
  protected turn(x: number, y: number, z: number): void {
    const l = 1 / Math.hypot(x, y, z);
    this.dx = x * l;
    this.dy = y * l;
    this.dz = z * l;
  }
  protected goTo(t: number): void {
    this.ox += this.dx * t;
    this.oy += this.dy * t;
    this.oz += this.dz * t;
    this.trip += t;
  }
  /** A little off a face, so that it is not met again. */
  protected lift(by: number): void {
    const { nx, ny, nz } = this.met;
    this.ox += nx * by;
    this.oy += ny * by;
    this.oz += nz * by;
  }

  /** Remembers the first surface that the eye meets, through glass the one behind it, in the colour that it is seen in there. */
  protected see(colour: ArrayLike<number>, c: number): void {
    const { met } = this;
    this.seen = true;
    this.cr = this.wr * colour[c]!;
    this.cg = this.wg * colour[c + 1]!;
    this.cb = this.wb * colour[c + 2]!;
    this.mx = met.nx;
    this.my = met.ny;
    this.mz = met.nz;
    this.away = this.trip + met.t;
    this.first = met.instance < 0 ? GROUND : GROUND + 1 + met.instance;
  }

  /** Light that comes along the path. */
  protected take(r: number, g: number, b: number): void {
    r *= this.wr;
    g *= this.wg;
    b *= this.wb;
    this.r += r;
    this.g += g;
    this.b += b;
    if (this.bounced || !this.sure) return;
    this.er += r;
    this.eg += g;
    this.eb += b;
  }
  protected weigh(r: number, g: number, b: number): void {
    this.wr *= r;
    this.wg *= g;
    this.wb *= b;
  }

  /** What stays of light over a way through see-through cubes of a value. */
  protected lose(instance: number, value: number, way: number): void {
    const there = this.scene.instances[instance]!;
    const cubes = cubesAlong(there, way, this.dx, this.dy, this.dz);
    const { loss } = there.shape.surfaces;
    const c = value * 3;
    this.weigh(Math.exp(loss[c]! * cubes), Math.exp(loss[c + 1]! * cubes), Math.exp(loss[c + 2]! * cubes));
  }

  /** How much light that was met by chance counts, when it is aimed for with this chance as well. */
  protected metByChance(aimed: number): number {
    const { strategy } = this.options;
    if (this.chance === 0 || strategy === 'bounces') return 1;
    return strategy === 'lights' ? 0 : this.chance / (this.chance + aimed);
  }
  /** And how much when it was aimed for. */
  protected metByAim(aimed: number, chance: number): number {
    const { strategy } = this.options;
    if (strategy === 'both') return aimed / (aimed + chance);
    return strategy === 'lights' ? 1 : 0;
  }

  protected takeGlow(glow: ArrayLike<number>, c: number): void {
    const { met } = this;
    let k = 1;
    if (this.chance > 0) {
      const facing =
        -(this.dx * met.nx + this.dy * met.ny + this.dz * met.nz) *
        this.scene.instances[met.instance]!.areas[met.axis]!;
      k = this.metByChance(facing > 0 ? (AIMED * met.t * met.t) / facing : Infinity);
    }
    this.take(glow[c]! * k, glow[c + 1]! * k, glow[c + 2]! * k);
  }

  protected takeSky(): void {
    const { scene } = this;
    const { sky, seen } = scene.light;
    if (this.covered > 0 && !this.seen) {
      this.cr = this.wr;
      this.cg = this.wg;
      this.cb = this.wb;
    }
    // The eye does not see the disc of the sun, in mirrors neither.
    if (this.chance > 0) this.takeSun();
    // What the eye meets itself is the background: it may be left out, or be plain.
    if (!this.bounced && this.covered === 0 && scene.transparent) return;
    if (this.bounced || this.covered > 0 || seen) sky.look(this.dx, this.dy, this.dz);
    else scene.light.plain.look(this.dx, this.dy, this.dz);
    const from = this.bounced || this.covered > 0 || seen ? sky : scene.light.plain;
    const k = sky.chosen && this.chance > 0 ? this.metByChance(sky.chanceOf(this.dx, this.dy, this.dz)) : 1;
    this.take(from.r * k, from.g * k, from.b * k);
  }

  /** The disc of the sun, where a bounce meets it. */
  protected takeSun(): void {
    const { sunColour: c, sunCos, sunDirection: d } = this.scene.light;
    if (c[0] + c[1] + c[2] === 0) return;
    if (this.dx * d[0] + this.dy * d[1] + this.dz * d[2] < sunCos) return;
    const chance = 1 / (2 * Math.PI * (1 - sunCos));
    const k = Math.PI * chance * this.metByChance(chance);
    this.take(c[0] * k, c[1] * k, c[2] * k);
  }
}

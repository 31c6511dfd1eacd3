import { GROUND, type Traced, vote } from './film';
import { ripple } from './floor';
import { brightness } from './glow';
import type { TraceOptions } from './integrator';
import { SceneRay } from './intersect';
import type { TraceLamp } from './lamps';
import { dielectric } from './fresnel';
import { pointOfLens } from './lens';
import { facet } from './microfacet';
import { isFilled } from './ray-grid';
import { Sampler } from './sampler';
import { Surface } from './surface';
import type { TraceScene } from './trace-scene';

const EPSILON = 1e-4;
/** Steps through glowing or see-through cubes on the way to a light. */
const MOST_BODIES = 64;
/** Steps that go on from mirrors and through glass, beside the bounces that scatter. */
const MOST_TURNS = 64;
/** Indices of refraction. */
const GLASS = 1.5;
const WATER = 1.33;
/** Paths that carry less than one part of so many may end: to end them at once makes those that go on count too much (a lit room: half the error for a fifth more rays). */
const LASTING = 3;
/** From this roughness on glass is seen, and not what is behind it. */
const FROSTED = 0.2;
/** How often at least the eye looks at what water mirrors. */
const MIRRORED = 0.5;
/** How likely a face is taken to be aimed for, when that is weighed against meeting it by chance; what it is does not matter to the mean. */
const AIMED = 0.3;
const PLAIN = new Float64Array(3);
/** Where chances of a bounce begin and how many it takes, and those of a turn and of fog: each its own, none is used twice. */
const BOUNCE_DRAWS = [4, 12] as const,
  TURN_DRAWS = [1024, 4] as const,
  FOG_DRAWS = [2048, 8] as const;

/**
 * One path of light, followed from the eye; used again for each sample, since nothing may be allocated for so many.
 *
 * At every surface that scatters, the sun, painted surroundings and one glowing face or lamp are aimed for, and what the
 * next bounce meets of them is weighed against that by the chances of both (multiple importance sampling, Veach 1997). Glass bends
 * light that the eye sees through it and in mirrors; light that was scattered since goes straight through it, tinted, so that a lamp
 * behind a pane is aimed for like any other.
 */
export class Path {
  /** What came of the last sample: linear light, and 1 when it met anything. */
  r = 0.5;
  g = 0.5;
  b = 0.5;
  covered = 0.5;
  /** The first surface: its colour, normal and distance; zeros when there was none. */
  private cr = 0.5;
  private cg = 0.5;
  private cb = 0.5;
  private mx = 0.5;
  private my = 0.5;
  private mz = 0.5;
  private away = 0.5;
  /** What it was, as films number it. */
  private first = 0;

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
  /** How likely the ray was chosen, by solid angle; 0 from the eye, mirrors and glass, whose light is not aimed for. */
  private chance = 0.5;
  /** Way of the eye so far, through mirrors and glass. */
  private trip = 0.5;
  /** A direction that {@link aim} made. */
  private ax = 0.5;
  private ay = 0.5;
  private az = 0.5;
  /** Light that came without a bounce: of glow, of the sky, and of the floor’s horizon. */
  private er = 0.5;
  private eg = 0.5;
  private eb = 0.5;
  /** What stays of the light of a lamp on its way here. */
  private tr = 0.5;
  private tg = 0.5;
  private tb = 0.5;
  private bounced = false;
  /** Whether nothing was left to chance on the way of the eye: what it sees then has no noise. */
  private sure = true;
  /** Whether the path has met what it will be told of. */
  private seen = false;
  /** The instance within whose glass the ray goes on, and the value of that glass; −1 in the open. */
  private medium = -1;
  private within = 0;
  /** Times it was scattered. */
  private bounce = 0;
  private turns = 0;
  private sample = 0;
  /** What light that is aimed for counts by: as many as there are kinds, when one of them stands for all. */
  private times = 1;
  /** Whether the place light is gathered for floats in fog, facing all ways. */
  private floating = false;
  private readonly draws = new Sampler();
  private readonly met = new SceneRay();
  /** For rays to lights, so that what the path itself met stays. */
  private readonly shadow = new SceneRay();
  private readonly surface = new Surface();
  private readonly normal = new Float64Array(3);
  private readonly half = new Float64Array(3);

  constructor(
    private readonly scene: TraceScene,
    private readonly options: TraceOptions,
  ) {}

  /** Follows sample `sample` of the pixel in column `x` of row `y`. */
  follow(x: number, y: number, sample: number): void {
    this.draws.begin(y * this.scene.width + x, sample);
    this.sample = sample;
    this.r = this.g = this.b = 0;
    this.wr = this.wg = this.wb = 1;
    this.covered = this.chance = this.trip = 0;
    this.cr = this.cg = this.cb = this.mx = this.my = this.mz = this.away = 0;
    this.seen = this.bounced = false;
    this.sure = true;
    this.first = 0;
    this.er = this.eg = this.eb = 0;
    this.medium = -1;
    this.bounce = 0;
    this.leaveEye(x, y);
    for (this.turns = 0; this.turns < MOST_TURNS && this.step(); this.turns++);
  }

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

  private leaveEye(x: number, y: number): void {
    const { width, height, camera: c } = this.scene;
    const { draws } = this;
    draws.draw();
    const u = ((x + draws.u) / width) * 2 - 1 + c.shift[0];
    const v = 1 - ((y + draws.v) / height) * 2 + c.shift[1];
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
    draws.draw();
    if (c.lens === 0) return;
    // Through another point of the lens towards the same point of the plane that is sharp (thin lens, Cook et al. 1984).
    const far = c.focus / (this.dx * c.ahead[0] + this.dy * c.ahead[1] + this.dz * c.ahead[2]);
    const fx = this.ox + this.dx * far,
      fy = this.oy + this.dy * far,
      fz = this.oz + this.dz * far;
    pointOfLens(c, draws.u, draws.v, this.half);
    const a = this.half[0]!,
      b = this.half[1]!;
    this.start(
      this.ox + c.side[0] * a + c.above[0] * b,
      this.oy + c.side[1] * a + c.above[1] * b,
      this.oz + c.side[2] * a + c.above[2] * b,
    );
    this.turn(fx - this.ox, fy - this.oy, fz - this.oz);
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
  private goTo(t: number): void {
    this.ox += this.dx * t;
    this.oy += this.dy * t;
    this.oz += this.dz * t;
    this.trip += t;
  }
  /** A little off a face, so that it is not met again. */
  private lift(by: number): void {
    const { nx, ny, nz } = this.met;
    this.ox += nx * by;
    this.oy += ny * by;
    this.oz += nz * by;
  }

  /** From one surface to the next; gives whether the path goes on. */
  private step(): boolean {
    const { scene, met } = this;
    this.draws.at(TURN_DRAWS[0] + this.turns * TURN_DRAWS[1]);
    if (this.medium >= 0) return this.stepInside();
    const there = this.bounced ? scene : scene.seen;
    const found = met.intersect(there, this.ox, this.oy, this.oz, this.dx, this.dy, this.dz, EPSILON, Infinity);
    if (scene.fog) this.crossFog(found ? met.t : Infinity);
    if (!found) {
      this.takeSky();
      return false;
    }
    if (met.instance < 0) return this.meetGround();
    return this.meetCube(true);
  }

  /** The cube that was met: what it gives off, and how light goes on there. @param outside – whether it is met from the open */
  private meetCube(outside: boolean): boolean {
    const { scene, met } = this;
    this.covered = 1;
    const s = scene.instances[met.instance]!.shape.surfaces;
    const v = met.value,
      c = v * 3;
    const opacity = s.opacity[v]!,
      through = opacity < 1 && this.draws.next() >= opacity;
    if (opacity > 0 && opacity < 1) this.sure = false;
    const mirror = s.metalness[v]! === 1 && s.roughness[v]! < 0.08;
    // What rough glass lets through comes from all about: it is the glass that has a face.
    const clear = through && s.roughness[v]! < FROSTED;
    if (!clear && !mirror && !this.seen) this.see(s.colour, c);
    if (s.emissive[v]! > 0 && outside) this.takeGlow(s.glow, c);
    if (through) return this.chance > 0 ? this.passStraight() : this.enterGlass(s.roughness[v]!);
    return this.bounceOff(s.colour, c, s.metalness[v]!, s.roughness[v]!);
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
    this.away = this.trip + met.t;
    this.first = met.instance < 0 ? GROUND : GROUND + 1 + met.instance;
  }

  /** Light that comes along the path. */
  private take(r: number, g: number, b: number): void {
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
  private weigh(r: number, g: number, b: number): void {
    this.wr *= r;
    this.wg *= g;
    this.wb *= b;
  }

  /** How much light that was met by chance counts, when it is aimed for with this chance as well. */
  private metByChance(aimed: number): number {
    const { strategy } = this.options;
    if (this.chance === 0 || strategy === 'bounces') return 1;
    return strategy === 'lights' ? 0 : this.chance / (this.chance + aimed);
  }
  /** And how much when it was aimed for. */
  private metByAim(aimed: number, chance: number): number {
    const { strategy } = this.options;
    if (strategy === 'both') return aimed / (aimed + chance);
    return strategy === 'lights' ? 1 : 0;
  }

  private takeGlow(glow: ArrayLike<number>, c: number): void {
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

  private takeSky(): void {
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
  private takeSun(): void {
    const { sunColour: c, sunCos, sunDirection: d } = this.scene.light;
    if (c[0] + c[1] + c[2] === 0) return;
    if (this.dx * d[0] + this.dy * d[1] + this.dz * d[2] < sunCos) return;
    const chance = 1 / (2 * Math.PI * (1 - sunCos));
    const k = Math.PI * chance * this.metByChance(chance);
    this.take(c[0] * k, c[1] * k, c[2] * k);
  }

  /** What stays of light over a way through see-through cubes of a value. */
  private lose(instance: number, value: number, way: number): void {
    const { toLocal: m, shape } = this.scene.instances[instance]!;
    const { dx, dy, dz } = this;
    const cubes =
      way *
      Math.hypot(
        m[0]! * dx + m[4]! * dy + m[8]! * dz,
        m[1]! * dx + m[5]! * dy + m[9]! * dz,
        m[2]! * dx + m[6]! * dy + m[10]! * dz,
      );
    const { loss } = shape.surfaces;
    const c = value * 3;
    this.weigh(Math.exp(loss[c]! * cubes), Math.exp(loss[c + 1]! * cubes), Math.exp(loss[c + 2]! * cubes));
  }

  /** Straight through see-through cubes of one value to what comes behind them. */
  private passStraight(): boolean {
    const { met, scene } = this;
    const { instance, value, t } = met;
    met.leave(scene, instance, value, this.ox, this.oy, this.oz, this.dx, this.dy, this.dz, t + EPSILON);
    this.lose(instance, value, met.t - t);
    if (met.value === 0) {
      this.goTo(met.t);
      return true;
    }
    return this.meetCube(false);
  }

  /** Into glass, or off it: by Fresnel’s law, about a facet of it when it is rough. */
  private enterGlass(rough: number): boolean {
    const { met } = this;
    const { instance, value } = met;
    this.goTo(met.t);
    if (this.turnAtGlass(1 / GLASS, rough)) {
      this.medium = instance;
      this.within = value;
      this.lift(-EPSILON);
    } else this.lift(EPSILON);
    return true;
  }

  /** Goes on within glass: to its end, or to something that stands in it. */
  private stepInside(): boolean {
    const { met, scene, medium, within, shadow } = this;
    met.leave(scene, medium, within, this.ox, this.oy, this.oz, this.dx, this.dy, this.dz, 0);
    shadow.skip = medium;
    const other = shadow.intersect(
      scene,
      this.ox,
      this.oy,
      this.oz,
      this.dx,
      this.dy,
      this.dz,
      EPSILON,
      met.t + 3 * EPSILON,
    );
    shadow.skip = -1;
    if (other) met.copy(shadow);
    this.lose(medium, within, met.t);
    if (other) {
      if (met.instance < 0) return this.meetGround();
      const s = scene.instances[met.instance]!.shape.surfaces;
      if (s.opacity[met.value]! === 1) return this.meetCube(true);
      // From one see-through thing into another that stands in it.
      this.goTo(met.t + EPSILON);
      this.medium = met.instance;
      this.within = met.value;
      return true;
    }
    const s = scene.instances[medium]!.shape.surfaces;
    if (met.value !== 0 && s.opacity[met.value]! === 1) return this.meetCube(false);
    this.goTo(met.t);
    if (met.value !== 0) {
      this.within = met.value;
      this.lift(-EPSILON);
      return true;
    }
    if (this.turnAtGlass(GLASS, s.roughness[within]!)) {
      this.medium = -1;
      this.lift(-EPSILON);
    } else this.lift(EPSILON);
    return true;
  }

  /**
   * Where two clear things meet, light goes on or back by chance, as Fresnel's law shares it; gives whether it goes on. What is lost
   * among rough facets is given back, so that clear glass takes no light.
   *
   * @param ratio – index of refraction here over that beyond
   */
  private turnAtGlass(ratio: number, rough: number): boolean {
    const { met, draws } = this;
    let hx = met.nx,
      hy = met.ny,
      hz = met.nz;
    if (rough >= 0.08) {
      draws.draw();
      this.facetAbout(rough * rough);
      hx = this.ax;
      hy = this.ay;
      hz = this.az;
    }
    const cos = -(this.dx * hx + this.dy * hy + this.dz * hz);
    const back = dielectric(cos, ratio);
    const goesOn = draws.next() >= back;
    const { dx, dy, dz } = this;
    if (goesOn) {
      const k = ratio * cos - Math.sqrt(Math.max(0, 1 - ratio * ratio * (1 - cos * cos)));
      this.turn(dx * ratio + hx * k, dy * ratio + hy * k, dz * ratio + hz * k);
    } else this.turn(dx + 2 * cos * hx, dy + 2 * cos * hy, dz + 2 * cos * hz);
    // A rough facet may send it to the wrong side of the face.
    const out = this.dx * met.nx + this.dy * met.ny + this.dz * met.nz;
    if (goesOn ? out > 0 : out < 0)
      this.turn(this.dx - 2 * out * met.nx, this.dy - 2 * out * met.ny, this.dz - 2 * out * met.nz);
    return goesOn;
  }

  /** A facet that is seen from where the ray comes, about the normal of what was met. */
  private facetAbout(alpha: number): void {
    const { met, draws, half } = this;
    const { nx, ny, nz } = met;
    this.aim(nx, ny, nz, 1, 0, 0);
    const [tx, ty, tz] = [this.ax, this.ay, this.az];
    this.aim(nx, ny, nz, 0, 1, 0);
    const [sx, sy, sz] = [this.ax, this.ay, this.az];
    const { dx, dy, dz } = this;
    facet(
      -(dx * tx + dy * ty + dz * tz),
      -(dx * sx + dy * sy + dz * sz),
      Math.max(1e-4, -(dx * nx + dy * ny + dz * nz)),
      alpha,
      draws.u,
      draws.v,
      half,
    );
    this.ax = tx * half[0]! + sx * half[1]! + nx * half[2]!;
    this.ay = ty * half[0]! + sy * half[1]! + ny * half[2]!;
    this.az = tz * half[0]! + sz * half[1]! + nz * half[2]!;
  }

  /** The floor: far away it melts into the sky, that share of the light is taken here. */
  private meetGround(): boolean {
    const { met } = this;
    const floor = this.scene.floor!;
    const [near, far] = floor.fade;
    const away = this.trip + met.t;
    const melted = away <= near ? 0 : Math.min(1, (away - near) / (far - near));
    if (melted > 0) {
      const level = Math.hypot(this.dx, this.dz) || 1;
      const { sky } = this.scene.light;
      sky.look(this.dx / level, 0, this.dz / level);
      const show = this.bounced || !this.scene.transparent;
      if (show) this.take(sky.r * melted, sky.g * melted, sky.b * melted);
      if (melted === 1) return false;
      this.weigh(1 - melted, 1 - melted, 1 - melted);
    }
    const { colour } = floor;
    if (floor.kind === 'shadow' && !this.bounced) return this.catchShadow();
    this.covered = 1;
    if (floor.kind === 'mirror') return this.bounceOff(colour, 0, 1, 0);
    if (floor.kind === 'water') return this.meetWater();
    if (!this.seen) this.see(colour, 0);
    return this.bounceOff(colour, 0, 0, 1);
  }

  /** Water mirrors more the flatter it is looked at; the rest of the light goes down and comes back in its colour. */
  private meetWater(): boolean {
    const { met, normal } = this;
    const floor = this.scene.floor!;
    ripple(floor, this.ox + this.dx * met.t, this.oz + this.dz * met.t, normal);
    const cos = -(this.dx * normal[0]! + this.dy * normal[1]! + this.dz * normal[2]!);
    const mirrored = cos > 0 ? dielectric(cos, 1 / WATER) : 0,
      // To the eye what is mirrored is mostly brighter than water: it is looked at as often, and counts less for that.
      often = this.bounced || mirrored === 0 ? mirrored : Math.max(MIRRORED, mirrored);
    this.sure = false;
    if (this.draws.next() < often) {
      const share = mirrored / often;
      this.weigh(share, share, share);
      this.goTo(met.t);
      this.lift(EPSILON);
      const { dx, dy, dz } = this;
      this.turn(dx + 2 * cos * normal[0]!, Math.abs(dy + 2 * cos * normal[1]!) + 1e-3, dz + 2 * cos * normal[2]!);
      this.chance = 0;
      return true;
    }
    if (often > mirrored) {
      const share = (1 - mirrored) / (1 - often);
      this.weigh(share, share, share);
    }
    if (!this.seen) this.see(floor.colour, 0);
    return this.bounceOff(floor.colour, 0, 0, 1);
  }

  /**
   * Of a floor that is not there the shadows alone: what stands behind it is seen as often as one light, chosen by what it gives
   * to a floor, comes through. That is in the mean the share of all light that is left.
   */
  private catchShadow(): boolean {
    const { scene, draws, met } = this;
    const { sky, sunColour, sunDirection, sunCos } = scene.light;
    this.goTo(met.t);
    this.lift(EPSILON);
    const sun = brightness(...sunColour) * Math.max(0, sunDirection[1]),
      around = brightness(...sky.mean);
    draws.draw();
    const fromSun = draws.next() * (sun + around) < sun;
    if (fromSun) {
      const z = 1 - draws.u * (1 - sunCos),
        s = Math.sqrt(Math.max(0, 1 - z * z)),
        phi = 2 * Math.PI * draws.v;
      this.aim(...sunDirection, s * Math.cos(phi), s * Math.sin(phi), z);
    } else {
      const s = Math.sqrt(draws.u),
        phi = 2 * Math.PI * draws.v;
      this.aim(0, 1, 0, s * Math.cos(phi), s * Math.sin(phi), Math.sqrt(1 - draws.u));
    }
    const { ax, ay, az } = this;
    const dark = this.shadow.blocked(scene, this.ox, this.oy, this.oz, ax, Math.max(1e-3, ay), az, EPSILON, Infinity);
    if (dark) {
      this.covered = 1;
      return false;
    }
    this.lift(-2 * EPSILON);
    this.covered = 0;
    this.takeSky();
    return false;
  }

  /** Off an opaque surface; gives whether the path goes on. */
  private bounceOff(colour: ArrayLike<number>, c: number, metal: number, rough: number): boolean {
    const { met, scene, surface, draws, normal } = this;
    if (this.bounce >= this.options.bounces) return false;
    this.bounced = true;
    normal[0] = met.nx;
    normal[1] = met.ny;
    normal[2] = met.nz;
    if (scene.edges > 0 && met.instance >= 0) this.roundEdge();
    const into = -(this.dx * normal[0]! + this.dy * normal[1]! + this.dz * normal[2]!);
    if (into <= 0.01) {
      normal[0] = met.nx;
      normal[1] = met.ny;
      normal[2] = met.nz;
    }
    this.goTo(met.t);
    this.lift(EPSILON);
    surface.set(colour, c, metal, rough, normal[0]!, normal[1]!, normal[2]!, -this.dx, -this.dy, -this.dz);
    const { ambient } = scene.light;
    if (ambient[0] + ambient[1] + ambient[2] > 0)
      this.take(ambient[0] * colour[c]!, ambient[1] * colour[c + 1]!, ambient[2] * colour[c + 2]!);
    const first = BOUNCE_DRAWS[0] + this.bounce * BOUNCE_DRAWS[1];
    draws.at(first);
    this.bounce++;
    this.floating = false;
    this.gatherAll();
    draws.at(first + 6);
    draws.draw();
    if (!surface.sample(draws.u, draws.v, surface.isChalk ? 1 : draws.next())) return false;
    // Where edges are rounded a direction may lead into the face itself.
    if (surface.x * met.nx + surface.y * met.ny + surface.z * met.nz <= 0) return false;
    this.weigh(surface.r, surface.g, surface.b);
    this.chance = surface.chance;
    if (this.chance > 0) this.medium = -1;
    this.dx = surface.x;
    this.dy = surface.y;
    this.dz = surface.z;
    return this.bounce < 2 || this.survives();
  }
  /** Paths that carry little are ended by chance, and those that go on count for more (Russian roulette). */
  private survives(): boolean {
    const keep = Math.min(0.95, LASTING * Math.max(this.wr, this.wg, this.wb));
    if (this.draws.next() >= keep) return false;
    this.wr /= keep;
    this.wg /= keep;
    this.wb /= keep;
    return true;
  }

  /** Bends the normal near edges of cubes where nothing stands beside them, as if they were rounded. */
  private roundEdge(): void {
    const { met, normal } = this;
    const { shape, toLocal: m, axes } = this.scene.instances[met.instance]!;
    const { grid } = shape;
    const x = this.ox + this.dx * met.t,
      y = this.oy + this.dy * met.t,
      z = this.oz + this.dz * met.t;
    const place = this.half;
    for (let a = 0; a < 3; a++) place[a] = m[a]! * x + m[4 + a]! * y + m[8 + a]! * z + m[12 + a]! - grid.min[a as 0]!;
    const axis = met.axis;
    const outward = axes[axis * 3]! * met.nx + axes[axis * 3 + 1]! * met.ny + axes[axis * 3 + 2]! * met.nz > 0 ? 1 : -1;
    const cell = [Math.floor(place[0]!), Math.floor(place[1]!), Math.floor(place[2]!)];
    cell[axis] = Math.round(place[axis]!) - (outward > 0 ? 1 : 0);
    const width = this.scene.edges;
    for (let k = 1; k < 3; k++) {
      const b = (axis + k) % 3;
      const u = place[b]! - cell[b]!;
      const side = u < width ? -1 : u > 1 - width ? 1 : 0;
      if (side === 0) continue;
      cell[b]! += side;
      const beside = isFilled(grid, cell[0]!, cell[1]!, cell[2]!);
      cell[axis]! += outward;
      const above = isFilled(grid, cell[0]!, cell[1]!, cell[2]!);
      cell[axis]! -= outward;
      cell[b]! -= side;
      if (beside || above) continue;
      const bend = side * (1 - (side < 0 ? u : 1 - u) / width);
      for (let a = 0; a < 3; a++) normal[a]! += axes[b * 3 + a]! * bend;
    }
    const l = 1 / Math.hypot(normal[0]!, normal[1]!, normal[2]!);
    for (let a = 0; a < 3; a++) normal[a]! *= l;
  }

  /** Light that is aimed for: all kinds of it where the eye looks and once more, one of them for all farther on. */
  private gatherAll(): void {
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

  /** A direction given in a frame whose z is the normal (frame after Duff et al. 2017). */
  private aim(nx: number, ny: number, nz: number, x: number, y: number, z: number): void {
    const sign = nz >= 0 ? 1 : -1;
    const a = -1 / (sign + nz),
      b = nx * ny * a;
    this.ax = x * (1 + sign * nx * nx * a) + y * b + z * nx;
    this.ay = x * sign * b + y * (sign + ny * ny * a) + z * ny;
    this.az = -x * sign * nx - y * ny + z * nz;
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
    this.aim(d[0], d[1], d[2], s * Math.cos(phi), s * Math.sin(phi), z);
    const { ax, ay, az } = this;
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
    PLAIN[0] = sky.r;
    PLAIN[1] = sky.g;
    PLAIN[2] = sky.b;
    if (this.clear(x, y, z, Infinity, false)) this.gather(PLAIN, k);
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
    const { toLocal: m, shape } = this.scene.instances[instance]!;
    const cubes =
      way *
      Math.hypot(
        m[0]! * dx + m[4]! * dy + m[8]! * dz,
        m[1]! * dx + m[5]! * dy + m[9]! * dz,
        m[2]! * dx + m[6]! * dy + m[10]! * dz,
      );
    const { loss } = shape.surfaces;
    const c = value * 3;
    this.tr *= share * Math.exp(loss[c]! * cubes);
    this.tg *= share * Math.exp(loss[c + 1]! * cubes);
    this.tb *= share * Math.exp(loss[c + 2]! * cubes);
  }

  /**
   * On the way through fog: light is lost, and what fog throws towards the eye comes in. Of the sky that is its mean; of sun and lamps, for what
   * the eye sees, one place on the way is chosen and lit (single scattering, the same in all directions).
   */
  private crossFog(t: number): void {
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
      draws.at(FOG_DRAWS[0] + this.turns * FOG_DRAWS[1]);
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

import { AimedLight, EPSILON } from './aimed-light';
import { ripple } from './floor';
import { dielectric } from './fresnel';
import { GlassFace } from './glass-face';
import { brightness } from './glow';
import { pointOfLens } from './lens';
import { CHANCES } from './path-state';
import { roundEdge } from './round-edge';

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
/**
 * One path of light, followed from the eye; used again for each sample, since nothing may be allocated for so many.
 *
 * At every surface that scatters, the sun, painted surroundings and one glowing face or lamp are aimed for, and what the
 * next bounce meets of them is weighed against that by the chances of both (multiple importance sampling, Veach 1997). Glass bends
 * light that the eye sees through it and in mirrors; light that was scattered since goes straight through it, tinted, so that a lamp
 * behind a pane is aimed for like any other.
 */
export class Path extends AimedLight {
  /** The instance within whose glass the ray goes on, and the value of that glass; −1 in the open. */
  private medium = -1;
  private within = 0;
  private readonly face = new GlassFace();

  /** Follows sample `sample` of the pixel in column `x` of row `y`. */
  follow(x: number, y: number, sample: number): void {
    this.begin(y * this.scene.width + x, sample);
    this.medium = -1;
    this.leaveEye(x, y);
    for (this.turns = 0; this.turns < MOST_TURNS && this.step(); this.turns++);
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

  /** From one surface to the next; gives whether the path goes on. */
  private step(): boolean {
    const { scene, met } = this;
    this.draws.at(CHANCES.turn[0] + this.turns * CHANCES.turn[1]);
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

  private turnAtGlass(ratio: number, rough: number): boolean {
    const { face } = this;
    const goesOn = face.turn(this.met, this.dx, this.dy, this.dz, ratio, rough, this.draws);
    this.dx = face.x;
    this.dy = face.y;
    this.dz = face.z;
    return goesOn;
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
      this.aimed.from(...sunDirection, s * Math.cos(phi), s * Math.sin(phi), z);
    } else {
      const s = Math.sqrt(draws.u),
        phi = 2 * Math.PI * draws.v;
      this.aimed.from(0, 1, 0, s * Math.cos(phi), s * Math.sin(phi), Math.sqrt(1 - draws.u));
    }
    const { x: ax, y: ay, z: az } = this.aimed;
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
    if (scene.edges > 0 && met.instance >= 0)
      roundEdge(scene, met, this.ox + this.dx * met.t, this.oy + this.dy * met.t, this.oz + this.dz * met.t, normal);
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
    const first = CHANCES.bounce[0] + this.bounce * CHANCES.bounce[1];
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
}

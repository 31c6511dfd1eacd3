import { type Mat4, type Vec3, dot, normalize, transformPoint } from '../math';
import { FACE_STRIDE, type GlowCluster, TOGETHER, brightness } from './glow';
import { type Weighed, halves } from './halves';
import type { TraceLamp } from './lamps';
import type { TraceInstance } from './shape';

/** Heights above a face at which one is taken to lie in it. */
const LEVEL = 2e-4;

/** Something that light comes from: a cluster of glowing faces of an instance, or a lamp. */
interface Source {
  readonly instance: TraceInstance | null;
  readonly cluster: GlowCluster | null;
  readonly lamp: TraceLamp | null;
  /** Whether it is seen by its light alone. */
  readonly unseen: boolean;
  readonly lo: Vec3;
  readonly hi: Vec3;
  readonly power: number;
  /** The way its faces look, and how far along it the hindmost of them lies; zeros for what shines all ways. */
  readonly facing: Vec3;
  readonly plane: number;
}

/**
 * All that gives light in a scene, chosen by what it promises at a place: strong, near, and on the side that the surface looks to (a tree
 * of bounds after Conty Estévez & Kulla 2018). What is chosen, and how likely that was, stands in its fields.
 */
export class LightTree {
  private readonly sources: readonly Source[];
  /** Eleven numbers each: centre (3), radius, power; where its first child stands or −1 − the source, and its second; the way it looks (3) and its plane. */
  private readonly nodes: Float64Array;
  private readonly promises = new Float64Array(TOGETHER);

  /** Of a face that {@link choose} found last: a corner, edges whose product points outwards, radiance. */
  readonly corner = new Float64Array(3);
  readonly u = new Float64Array(3);
  readonly v = new Float64Array(3);
  readonly radiance = new Float64Array(3);
  /** Faces of cubes that it is made of. */
  cubes = 1;
  /** The lamp that was found, when it was none of the faces. */
  lamp: TraceLamp | null = null;
  /** How likely it was found. */
  chance = 1;

  /** Whether any face glows that is seen, so that a lamp may hang in it. */
  readonly bodies: boolean;
  /** Whether the face that was found last is seen by its light alone. */
  unseen = false;

  /** @param unseen – instances that are there by their glow alone */
  constructor(
    instances: readonly TraceInstance[],
    lamps: readonly TraceLamp[] = [],
    unseen: readonly TraceInstance[] = [],
  ) {
    this.sources = [
      ...instances.flatMap((i) => clustersOf(i, false)),
      ...unseen.flatMap((i) => clustersOf(i, true)),
      ...lamps.map(lampSource),
    ].filter((s) => s.power > 0);
    this.bodies = this.sources.some((s) => s.instance && !s.unseen);
    const nodes: number[] = [];
    const numbered = this.sources.map((s, index) => ({ ...s, weight: s.power, index }));
    if (numbered.length > 0) grow(numbered, nodes);
    this.nodes = Float64Array.from(nodes);
  }

  get isEmpty(): boolean {
    return this.sources.length === 0;
  }

  /**
   * Chooses a source for a place and its normal by a chance of 0 to below 1; false when none can light it.
   */
  choose(x: number, y: number, z: number, nx: number, ny: number, nz: number, a: number): boolean {
    const { nodes } = this;
    let at = 0,
      chance = 1;
    while (nodes[at + 5]! >= 0) {
      const left = nodes[at + 5]!,
        right = nodes[at + 6]!;
      const l = this.promise(left, x, y, z, nx, ny, nz),
        r = this.promise(right, x, y, z, nx, ny, nz);
      if (l + r === 0) return false;
      const share = l / (l + r);
      if (a < share) {
        at = left;
        chance *= share;
        a /= share;
      } else {
        at = right;
        chance *= 1 - share;
        a = (a - share) / (1 - share);
      }
    }
    const source = this.sources[-1 - nodes[at + 5]!]!;
    this.lamp = source.lamp;
    this.unseen = source.unseen;
    this.chance = chance;
    return source.lamp !== null || this.chooseFace(source, x, y, z, nx, ny, nz, a);
  }

  /** What a node may give at most: its power by distance, by the best cosine that its ball can have; 0 below the surface. */
  private promise(node: number, x: number, y: number, z: number, nx: number, ny: number, nz: number): number {
    const { nodes } = this;
    const dx = nodes[node]! - x,
      dy = nodes[node + 1]! - y,
      dz = nodes[node + 2]! - z,
      radius = nodes[node + 3]!;
    const high = dx * nx + dy * ny + dz * nz;
    if (high <= -radius) return 0;
    const fx = nodes[node + 7]!,
      fy = nodes[node + 8]!,
      fz = nodes[node + 9]!;
    const looks = fx !== 0 || fy !== 0 || fz !== 0;
    // What looks away from here gives nothing.
    if (looks && x * fx + y * fy + z * fz <= nodes[node + 10]! + LEVEL) return 0;
    const d2 = dx * dx + dy * dy + dz * dz,
      r2 = radius * radius;
    if (d2 <= r2) return nodes[node + 4]! / Math.max(r2, 1e-6);
    // The cosines of its middle, and as much more as its ball reaches.
    const d = Math.sqrt(d2);
    const here = (high + radius) / d,
      there = looks ? (radius - dx * fx - dy * fy - dz * fz) / d : 1;
    return (nodes[node + 4]! * (here < 1 ? here : 1) * (there < 1 ? there : 1)) / d2;
  }

  /** Chooses one of a cluster's faces that look at a place, by what each would give from its middle. */
  private chooseFace(
    { instance, cluster }: Source,
    x: number,
    y: number,
    z: number,
    nx: number,
    ny: number,
    nz: number,
    b: number,
  ): boolean {
    const { toLocal: i, toWorld: w, shape } = instance!;
    const { faces } = shape.glow!;
    const { first, count, axis } = cluster!;
    const { promises } = this;
    // In the lattice faces are squares along its axes; what it stretches is told apart well enough.
    const px = i[0]! * x + i[4]! * y + i[8]! * z + i[12]!,
      py = i[1]! * x + i[5]! * y + i[9]! * z + i[13]!,
      pz = i[2]! * x + i[6]! * y + i[10]! * z + i[14]!;
    const mx = w[0]! * nx + w[1]! * ny + w[2]! * nz,
      my = w[4]! * nx + w[5]! * ny + w[6]! * nz,
      mz = w[8]! * nx + w[9]! * ny + w[10]! * nz;
    const tilt = 0.1 * Math.sqrt(mx * mx + my * my + mz * mz);
    // A place that faces all ways has no normal.
    const level = tilt === 0;
    let all = 0;
    for (let k = 0, o = first * FACE_STRIDE; k < count; k++, o += FACE_STRIDE) {
      const long = faces[o + 10]! / 2,
        wide = faces[o + 11]! / 2;
      // Edges go around: u is the axis after that of the face, v the one after u.
      const dx = faces[o]! + (axis === 0 ? 0 : axis === 2 ? long : wide) - px,
        dy = faces[o + 1]! + (axis === 1 ? 0 : axis === 0 ? long : wide) - py,
        dz = faces[o + 2]! + (axis === 2 ? 0 : axis === 1 ? long : wide) - pz;
      // Of a plane face all points look this way or none.
      const facing = -faces[o + 5]! * (axis === 0 ? dx : axis === 1 ? dy : dz);
      if (facing > 0) {
        const d2 = dx * dx + dy * dy + dz * dz,
          high = level ? Math.sqrt(d2) : dx * mx + dy * my + dz * mz;
        // A face may reach above the surface though its middle does not.
        all += (faces[o + 9]! * facing * ((high > 0 ? high : 0) + tilt * Math.sqrt(d2))) / (d2 * d2);
      }
      promises[k] = all;
    }
    if (all === 0) return false;
    let k = 0;
    while (k < count - 1 && promises[k]! <= b * all) k++;
    this.take(instance!, faces, (first + k) * FACE_STRIDE);
    this.chance *= (promises[k]! - (k > 0 ? promises[k - 1]! : 0)) / all;
    return true;
  }

  private take({ toWorld: m }: TraceInstance, faces: Float64Array, o: number): void {
    const x = faces[o]!,
      y = faces[o + 1]!,
      z = faces[o + 2]!,
      out = faces[o + 5]!;
    // Facing the other way: swap the edges.
    const first = out > 0 ? 3 : 4,
      second = 7 - first;
    const eu = faces[o + first]! * 4,
      ev = faces[o + second]! * 4,
      long = faces[o + first + 7]!,
      wide = faces[o + second + 7]!;
    this.cubes = long * wide;
    for (let i = 0; i < 3; i++) {
      this.corner[i] = m[i]! * x + m[4 + i]! * y + m[8 + i]! * z + m[12 + i]!;
      this.u[i] = m[eu + i]! * long;
      this.v[i] = m[ev + i]! * wide;
      this.radiance[i] = faces[o + 6 + i]!;
    }
  }
}

/** The clusters of an instance where they stand. */
function clustersOf(instance: TraceInstance, unseen: boolean): Source[] {
  const { toWorld: m, shape } = instance;
  const matrix = Array.from(m) as unknown as Mat4;
  return (shape.glow?.clusters ?? []).map((cluster): Source => {
    const { lo, hi, axis, out, bright } = cluster;
    const corners = Array.from({ length: 8 }, (_, i) =>
      transformPoint(matrix, [i & 1 ? hi[0] : lo[0], i & 2 ? hi[1] : lo[1], i & 4 ? hi[2] : lo[2]]),
    );
    const bound = (of: (...v: number[]) => number): Vec3 => [
      of(...corners.map((c) => c[0])),
      of(...corners.map((c) => c[1])),
      of(...corners.map((c) => c[2])),
    ];
    // Normals go with the inverse: how the height above a face changes in the world.
    const i = instance.toLocal;
    const facing = normalize([i[axis]! * out, i[4 + axis]! * out, i[8 + axis]! * out]);
    return {
      ...{ instance, cluster, unseen, lamp: null, lo: bound(Math.min), hi: bound(Math.max), facing },
      power: bright * instance.areas[axis]!,
      plane: Math.min(...corners.map((c) => dot(c, facing))),
    };
  });
}
function lampSource(lamp: TraceLamp): Source {
  const r = lamp.size / 2;
  const [x, y, z] = lamp.at;
  const power = 4 * brightness(lamp.colour[0], lamp.colour[1], lamp.colour[2]);
  return {
    instance: null,
    cluster: null,
    unseen: false,
    lamp,
    lo: [x - r, y - r, z - r],
    hi: [x + r, y + r, z + r],
    power,
    facing: [0, 0, 0],
    plane: 0,
  };
}

/** Puts a node for some sources behind the others, and below it those of its halves; gives where it stands. */
function grow(together: readonly Numbered[], nodes: number[]): number {
  const at = nodes.length;
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity];
  let power = 0;
  for (const s of together) {
    power += s.weight;
    for (let a = 0; a < 3; a++) {
      lo[a] = Math.min(lo[a]!, s.lo[a]!);
      hi[a] = Math.max(hi[a]!, s.hi[a]!);
    }
  }
  const centre = lo.map((v, a) => (v + hi[a]!) / 2),
    radius = Math.hypot(hi[0]! - lo[0]!, hi[1]! - lo[1]!, hi[2]! - lo[2]!) / 2;
  const alone = together.length === 1;
  const facing = alone ? together[0]!.facing : [0, 0, 0];
  nodes.push(...centre, radius, power, -1 - together[0]!.index, 0, ...facing, together[0]!.plane);
  if (alone) return at;
  const [left, right] = halves(together);
  nodes[at + 5] = grow(left, nodes);
  nodes[at + 6] = grow(right, nodes);
  return at;
}
interface Numbered extends Weighed, Pick<Source, 'facing' | 'plane'> {
  readonly index: number;
}

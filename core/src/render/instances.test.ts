import { describe, expect, it } from 'vitest';
import { type Mat4, type Vec3, matrixOf, normalize, quatFromAxisAngle, scale, seededRandom, sub } from '../math';
import { VoxelGrid } from '../voxel';
import {
  EmitterTable,
  GridHit,
  SceneRay,
  type TraceInstance,
  type TraceScene,
  type TraceSurfaces,
  intersectGrid,
  traceBodies,
  traceCamera,
  traceInstance,
  traceArea,
} from '.';

const surfaces = (albedo: number, emissive = 0): TraceSurfaces => ({
  colour: new Float32Array(768).fill(albedo),
  emissive: new Float32Array(256).fill(emissive),
  roughness: new Float32Array(256).fill(1),
  metalness: new Float32Array(256),
  opacity: new Float32Array(256).fill(1),
});
const scene = (instances: readonly TraceInstance[], eye: Vec3, target: Vec3, size = 8): TraceScene => ({
  ...traceBodies(instances),
  light: {
    sunDirection: [0, 1, 0],
    sunColour: [0, 0, 0],
    sunCos: 1,
    zenith: [0, 0, 0],
    horizon: [0, 0, 0],
    groundY: null,
    groundColour: [0, 0, 0],
    groundFade: [Infinity, Infinity],
  },
  camera: traceCamera({ kind: 'perspective', eye, target, fov: 4, height: 1 }, size, size),
  width: size,
  height: size,
});
const block = (size: Vec3): VoxelGrid => VoxelGrid.empty({ min: [0, 0, 0], size }).edit((d) => d.fillBox(d.bounds, 1));
const at = (t: Vec3, s = 1): Mat4 => matrixOf({ t, q: [0, 0, 0, 1], s: [s, s, s] });

describe('the tree over instances', () => {
  /** The nearest thing by looking at all of them, one after another. */
  function plainly(list: readonly TraceInstance[], o: Vec3, d: Vec3): { t: number; instance: number } {
    const best = { t: Infinity, instance: -2 };
    const hit = new GridHit();
    list.forEach(({ toLocal: m, shape }, instance) => {
      const l = [0, 1, 2].map((a) => m[a]! * o[0] + m[4 + a]! * o[1] + m[8 + a]! * o[2] + m[12 + a]!);
      const e = [0, 1, 2].map((a) => m[a]! * d[0] + m[4 + a]! * d[1] + m[8 + a]! * d[2]);
      const t = intersectGrid(shape.grid, l[0]!, l[1]!, l[2]!, e[0]!, e[1]!, e[2]!, 0, best.t, hit);
      if (t < best.t) Object.assign(best, { t, instance });
    });
    return best;
  }
  it.each([0, 1, 2, 3, 7, 300])('meets what a look at all of %i meets', (count) => {
    const random = seededRandom(count + 5);
    const any = (): Vec3 => [random() * 60 - 30, random() * 60 - 30, random() * 60 - 30];
    const grids = [block([1, 2, 3]), block([5, 1, 1])];
    const list = Array.from({ length: count }, (_, i) => {
      const q = quatFromAxisAngle(normalize(any()), random() * 6);
      // Some stand on one spot, as careless copies do.
      const t = i % 9 === 0 ? ([3, 3, 3] as const) : any();
      return traceInstance(grids[i % 2]!, surfaces(1), matrixOf({ t, q, s: [1 + random(), 1, 1 + random()] }))!;
    });
    const s = scene(list, [0, 0, 0], [0, 0, 1]);
    const ray = new SceneRay();
    let met = 0;
    for (let k = 0; k < 800; k++) {
      const o = scale(normalize(any()), 70);
      const d = normalize(sub(k % 2 === 0 ? any() : scale(any(), 0.1), o));
      const best = plainly(list, o, d);
      expect(
        ray.intersect(s, ...(o as [number, number, number]), ...(d as [number, number, number]), 0, Infinity),
      ).toBe(best.instance >= 0);
      if (best.instance < 0) continue;
      met++;
      expect(ray.t).toBe(best.t);
    }
    expect(met).toBeGreaterThanOrEqual(Math.min(count, 20));
  });
});

describe('lamps', () => {
  const lampGrid = block([1, 1, 1]);
  /** A floor to be lit, one bright lamp and 2,000 dim ones over it. */
  function hall(): { list: TraceInstance[]; powers: number[] } {
    const random = seededRandom(4);
    const floor = traceInstance(block([60, 1, 60]), surfaces(0.8), at([-30, -1, -30]))!;
    const lamps = Array.from({ length: 2001 }, (_, i) => {
      const t: Vec3 = i === 0 ? [2, 12, 1] : [random() * 60 - 30, 18 + random() * 6, random() * 60 - 30];
      return { size: i === 0 ? 2 : 0.5, glow: i === 0 ? 400 : 0.2, t };
    });
    const dim = surfaces(1, 0.2),
      bright = surfaces(1, 400);
    return {
      list: [floor, ...lamps.map((l, i) => traceInstance(lampGrid, i === 0 ? bright : dim, at(l.t, l.size))!)],
      powers: lamps.map((l) => 6 * l.glow * l.size * l.size),
    };
  }
  /** Any lamp as likely as any other, any face of it too. */
  class Evenly extends EmitterTable {
    private readonly middles: number[];
    constructor(list: readonly TraceInstance[], powers: readonly number[]) {
      super(list);
      const total = powers.reduce((a, b) => a + b);
      let sum = 0;
      this.middles = powers.map((p) => (sum += p) / total - p / total / 2);
    }
    override choose(a: number, b: number): void {
      super.choose(this.middles[Math.floor(a * this.middles.length)]!, b);
      this.chance = 1 / this.middles.length / 6;
    }
  }
  /** Mean and variance of single samples over the picture. */
  function spread(s: TraceScene, samples: number): { mean: number; variance: number } {
    let sum = 0,
      squares = 0,
      n = 0;
    for (let k = 0; k < samples; k++) {
      const strip = traceArea(s, { x: 0, y: 0, width: s.width, height: s.height }, k, 1, {
        bounces: 1,
        clamp: Infinity,
      }).light;
      for (let i = 0; i < strip.length; i += 3, n++) {
        sum += strip[i]!;
        squares += strip[i]! ** 2;
      }
    }
    return { mean: sum / n, variance: squares / n - (sum / n) ** 2 };
  }
  it('chosen by their power spread at least ten times less than chosen evenly, about the same mean', () => {
    const { list, powers } = hall();
    const s = scene(list, [0, 8, 14], [0, 0, 0], 12);
    const even = spread({ ...s, emitters: new Evenly(list, powers) }, 700);
    const power = spread(s, 700);
    expect(even.variance / power.variance).toBeGreaterThan(10);
    // Within four standard errors of the coarser of the two.
    expect(Math.abs(power.mean - even.mean)).toBeLessThan(4 * Math.sqrt(even.variance / (700 * 144)));
    expect(power.mean).toBeGreaterThan(0.1);
  });
  it('are chosen as often as is said, and copies of a lamp share its faces', () => {
    const { list } = hall();
    const table = new EmitterTable(list);
    const random = seededRandom(8);
    let bright = 0;
    const sum = { value: 0 };
    for (let i = 0; i < 20_000; i++) {
      table.choose(random(), random());
      if (table.radiance[0]! > 1) bright++;
      // One over the chance is the number of faces, on the mean: a partition of the whole.
      sum.value += 1 / table.chance;
    }
    const share = (400 * 4) / (400 * 4 + 2000 * 0.2 * 0.25);
    expect(bright / 20_000).toBeCloseTo(share, 2);
    expect(sum.value / 20_000 / (2001 * 6)).toBeCloseTo(1, 0);
    expect(new Set(list.slice(1).map((i) => i.shape)).size).toBe(2);
    expect(new EmitterTable(list.slice(0, 1)).isEmpty).toBe(true);
  });
});

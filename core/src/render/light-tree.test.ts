import { describe, expect, it } from 'vitest';
import {
  type Vec3,
  MAT4_IDENTITY,
  add,
  cross,
  dot,
  length,
  matrixOf,
  quatFromAxisAngle,
  scale,
  seededRandom,
  sub,
  transformPoint,
} from '../math';
import { type Lamp } from '../model';
import { VoxelGrid } from '../voxel';
import {
  FACE_STRIDE,
  LightTree,
  type TraceInstance,
  type TraceLamp,
  type TraceSurfaces,
  brightness,
  traceInstance,
  traceLamp,
} from '.';
import { evenLight, greyFloor, lookedAt, meanOf, plainSurfaces as surfaces } from './testing';

const block = (size: Vec3): VoxelGrid => VoxelGrid.empty({ min: [0, 0, 0], size }).edit((d) => d.fillBox(d.bounds, 1));
const random = seededRandom(4);
const dim = surfaces(1, 0.2),
  bright = surfaces(1, 400);
/** One bright lamp and many dim ones of a few cubes each, turned and sized anyhow, over a floor. */
const lamps = Array.from({ length: 300 }, (_, i): TraceInstance => {
  const t: Vec3 = i === 0 ? [2, 12, 1] : [random() * 60 - 30, 6 + random() * 18, random() * 60 - 30];
  const s = i === 0 ? 2 : 0.5;
  const q = quatFromAxisAngle([0.6, 0, 0.8], random() * 6);
  return traceInstance(
    block(i % 3 === 0 ? [1, 1, 1] : [2, 5, 2]),
    i === 0 ? bright : dim,
    matrixOf({ t, q, s: [s, s, s] }),
  )!;
});

/** What a face gives a place that looks along a normal, reckoned from its middle; nothing where it looks away. */
function given(corner: Vec3, u: Vec3, v: Vec3, bright: number, at: Vec3, n: Vec3): number {
  const to = sub(add(corner, scale(add(u, v), 0.5)), at);
  const facing = -dot(to, cross(u, v)),
    high = dot(to, n);
  return facing <= 0 || high <= 0 ? 0 : (bright * facing * high) / dot(to, to) ** 2;
}
const three = (a: ArrayLike<number>): Vec3 => [a[0]!, a[1]!, a[2]!];
/** All of them, one by one. */
function plainly(at: Vec3, n: Vec3): number[] {
  return lamps.flatMap(({ shape, toWorld }) => {
    const { faces } = shape.glow!;
    const m = Array.from(toWorld) as unknown as Parameters<typeof transformPoint>[0];
    return Array.from({ length: faces.length / FACE_STRIDE }, (_, k) => {
      const f = faces.subarray(k * FACE_STRIDE, (k + 1) * FACE_STRIDE);
      const edge = (axis: number): Vec3 => three(toWorld.subarray(axis * 4, axis * 4 + 3));
      const edges = [scale(edge(f[3]!), f[10]!), scale(edge(f[4]!), f[11]!)] as const;
      const [u, v] = f[5]! > 0 ? edges : [edges[1], edges[0]];
      return given(transformPoint(m, three(f)), u, v, brightness(f[6]!, f[7]!, f[8]!), at, n);
    });
  });
}

describe('the tree of lights', () => {
  const tree = new LightTree(lamps);
  const places: readonly (readonly [Vec3, Vec3])[] = [
    [
      [0, 0, 0],
      [0, 1, 0],
    ],
    [
      [-28, 0, 20],
      [0, 1, 0],
    ],
    [
      [10, 9, -5],
      [1, 0, 0],
    ],
    [
      [0, 10, 0],
      [0, -1, 0],
    ],
  ];

  it('finds on the mean what all of them give, one by one, and spreads many times less than chosen evenly', () => {
    const draw = seededRandom(8);
    const better: number[] = [];
    for (const [at, n] of places) {
      const all = plainly(at, n);
      const want = all.reduce((a, b) => a + b, 0);
      // A face chosen evenly gives its light times their number.
      const evenly = (all.length * all.reduce((a, b) => a + b * b, 0)) / want ** 2 - 1;
      let [sum, squares] = [0, 0];
      const N = 30_000;
      for (let k = 0; k < N; k++) {
        if (!tree.choose(...at, ...n, draw())) continue;
        const r = brightness(tree.radiance[0]!, tree.radiance[1]!, tree.radiance[2]!);
        const v = given(three(tree.corner), three(tree.u), three(tree.v), r, at, n) / tree.chance;
        sum += v;
        squares += v * v;
      }
      const mean = sum / N,
        spread = squares / N / mean ** 2 - 1;
      expect(Math.abs(mean / want - 1)).toBeLessThan(4 * Math.sqrt(spread / N) + 1e-9);
      better.push(evenly / spread);
    }
    // Where only weak ones can be seen a strong one behind may still be hoped for, mostly in vain: the third place.
    expect(Math.min(...better)).toBeGreaterThan(0.05);
    expect(better.reduce((a, b) => a * b, 1) ** (1 / better.length)).toBeGreaterThan(10);
  });
  it('is empty where nothing glows, and finds nothing for what looks away from all of it', () => {
    expect(new LightTree([traceInstance(block([1, 1, 1]), surfaces(1), MAT4_IDENTITY)!]).isEmpty).toBe(true);
    expect(tree.choose(0, 60, 0, 0, 1, 0, 0.3)).toBe(false);
  });
  it('shares the faces of copies of a lamp', () => {
    const copies = [0, 9].map((x) =>
      traceInstance(lampGrid, dim, matrixOf({ t: [x, 0, 0], q: [0, 0, 0, 1], s: [1, 1, 1] }))!,
    );
    expect(copies[0]!.shape).toBe(copies[1]!.shape);
  });
});
const lampGrid = block([1, 1, 1]);

describe('lamps', () => {
  const M = 0.05;
  const made = (more: Partial<Lamp>, t: Vec3 = [0, 10, 0], turn = -90): TraceLamp => {
    const lamp: Lamp = {
      ...{
        id: 'l',
        name: 'Lamp',
        kind: 'point',
        parent: null,
        layer: 'a',
        hidden: false,
        t: [0, 0, 0],
        q: [0, 0, 0, 1],
      },
      ...{ colour: '#ffffff', strength: 2, size: 0, angle: 60 },
      ...more,
    };
    // Turned so that what shines along −Z shines down.
    const q = quatFromAxisAngle([1, 0, 0], (turn * Math.PI) / 180);
    return traceLamp({ lamp, matrix: matrixOf({ t, q, s: [1, 1, 1] }), copy: 0 }, M);
  };
  /** The light that comes from the floor at a place, seen from straight above a little aside. */
  function floorAt(lamp: TraceLamp, x: number, instances: TraceInstance[] = [], samples = 64): number {
    const more = { lamps: [lamp], floor: greyFloor(0, 0.5) };
    return meanOf(lookedAt(instances, evenLight(0), [x, 4, 0.001], [x, 0, 0], more, 2, 0.1), samples, { bounces: 1 });
  }
  /** Candela over the square of metres is lux; over π a white floor shows it, half of it a grey one. */
  const meant = (d: number, cos: number): number => ((0.5 / Math.PI) * 2 * cos) / (d * M) ** 2;

  it('a point gives strength over d² by the cosine, in metres', () => {
    expect(floorAt(made({}), 0) / meant(10, 1)).toBeCloseTo(1, 4);
    const d = Math.hypot(10, 5);
    expect(floorAt(made({}), 5) / meant(d, 10 / d)).toBeCloseTo(1, 3);
  });
  it('a cone gives as much on its axis, nothing outside, and falls off between', () => {
    const cone = made({ kind: 'spot', angle: 60 });
    expect(floorAt(cone, 0) / meant(10, 1)).toBeCloseTo(1, 4);
    expect(floorAt(cone, 10 * Math.tan((31 * Math.PI) / 180))).toBe(0);
    const x = 10 * Math.tan((27 * Math.PI) / 180),
      d = Math.hypot(10, x);
    const share = floorAt(cone, x) / meant(d, 10 / d);
    expect(share).toBeGreaterThan(0.02);
    expect(share).toBeLessThan(0.6);
    // Turned about, it lights what is above.
    expect(floorAt(made({ kind: 'spot', angle: 60 }, [0, 10, 0], 90), 0)).toBe(0);
  });
  it('a panel gives by the cosine at its own side too, and a small one as much as a point on its axis', () => {
    const panel = made({ kind: 'panel', size: 0.2 });
    expect(floorAt(panel, 0) / meant(10, 1)).toBeCloseTo(1, 3);
    const d = Math.hypot(10, 10);
    expect(floorAt(panel, 10) / (meant(d, 10 / d) * (10 / d))).toBeCloseTo(1, 2);
    expect(floorAt(made({ kind: 'panel', size: 0.2 }, [0, 10, 0], 90), 0)).toBe(0);
  });
  it('shines through the glowing body that it hangs in, and not through anything else', () => {
    const body = (s: TraceSurfaces): TraceInstance =>
      traceInstance(block([3, 3, 3]), s, matrixOf({ t: [-1.5, 8.5, -1.5], q: [0, 0, 0, 1], s: [1, 1, 1] }))!;
    const glowing = body({ ...surfaces(1e-6, 1) });
    expect(floorAt(made({}), 0, [glowing]) / meant(10, 1)).toBeCloseTo(1, 2);
    expect(floorAt(made({}), 0, [body(surfaces(1))])).toBe(0);
  });
  it('throws softer shadows the larger it is, and gives as much in the open', () => {
    const wall = traceInstance(
      block([40, 1, 40]),
      surfaces(1),
      matrixOf({ t: [0, 5, -20], q: [0, 0, 0, 1], s: [1, 1, 1] }),
    )!;
    const lit = (size: number, x: number): number =>
      floorAt(made({ size }), x, [wall], 400) / floorAt(made({ size }), x, [], 400);
    // Its edge is at x = 0, half-way up: the middle of the penumbra lies below it.
    expect(lit(0, -0.2)).toBeCloseTo(1, 6);
    expect(lit(0, 0.2)).toBe(0);
    expect(lit(4, 0.2)).toBeGreaterThan(0.3);
    expect(lit(4, 0.2)).toBeLessThan(0.5);
    expect(length(sub(made({ size: 4 }).at, [0, 10, 0]))).toBe(0);
  });
});

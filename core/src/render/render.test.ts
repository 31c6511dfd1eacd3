import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAT4_IDENTITY, type Vec3, matrixOf, quatFromAxisAngle, sub } from '../math';
import { VoxelGrid, rayWalk } from '../voxel';
import {
  type TraceInstance,
  type TraceLight,
  type TraceScene,
  type TraceSurfaces,
  GridHit,
  SceneRay,
  intersectGrid,
  rayGridOf,
  traceBodies,
  traceCamera,
  traceInstance,
  traceArea,
} from '.';

const EXACT = { bounces: 64, clamp: Infinity };
const surfaces = (
  albedo: number,
  more: Partial<Record<'emissive' | 'metalness' | 'opacity', number>> = {},
): TraceSurfaces => ({
  colour: new Float32Array(768).fill(albedo),
  emissive: new Float32Array(256).fill(more.emissive ?? 0),
  roughness: new Float32Array(256).fill(0),
  metalness: new Float32Array(256).fill(more.metalness ?? 0),
  opacity: new Float32Array(256).fill(more.opacity ?? 1),
});
const dark: TraceLight = {
  sunDirection: [0, 1, 0],
  sunColour: [0, 0, 0],
  sunCos: 1,
  zenith: [0, 0, 0],
  horizon: [0, 0, 0],
  groundY: null,
  groundColour: [0, 0, 0],
  groundFade: [Infinity, Infinity],
};
const scene = (
  instances: TraceInstance[],
  light: Partial<TraceLight>,
  eye: Vec3,
  target: Vec3,
  size = 8,
): TraceScene => ({
  ...traceBodies(instances),
  light: { ...dark, ...light },
  camera: traceCamera({ kind: 'perspective', eye, target, fov: 4, height: 1 }, size, size),
  width: size,
  height: size,
});
const mean = (s: TraceScene, samples = 64): number => {
  const sum = traceArea(s, { x: 0, y: 0, width: s.width, height: s.height }, 0, samples, EXACT).light;
  let total = 0;
  for (let i = 0; i < sum.length; i += 3) total += sum[i]!;
  return total / (s.width * s.height * samples);
};
const cube = VoxelGrid.empty({ min: [-4, -4, -4], size: [8, 8, 8] }).edit((d) => d.fillBox(d.bounds, 1));

describe('rays', () => {
  const coord = fc.integer({ min: 0, max: 59 });
  const far = fc.double({ min: -90, max: 150, noNaN: true });
  it('the quick walk meets the cell that the plain walk meets, at the same distance', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(coord, coord, coord), { minLength: 1, maxLength: 60 }),
        fc.tuple(far, far, far),
        fc.tuple(coord, coord, coord),
        (cells, from, to) => {
          const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [60, 60, 60] }).edit((d) =>
            cells.forEach(([x, y, z]) => d.set(x, y, z, 1 + (x % 7))),
          );
          const origin = from as Vec3;
          if (grid.get(Math.floor(origin[0]), Math.floor(origin[1]), Math.floor(origin[2])) !== 0) return;
          const dir = sub([to[0] + 0.43, to[1] + 0.51, to[2] + 0.37], origin);
          const plain = rayWalk(grid, origin, dir);
          const met = new GridHit();
          const t = intersectGrid(
            rayGridOf(grid)!,
            ...(origin as [number, number, number]),
            ...(dir as [number, number, number]),
            0,
            Infinity,
            met,
          );
          if (!plain) expect(t).toBe(Infinity);
          else {
            expect(t).toBeCloseTo(plain.t, 9);
            expect(met.value).toBe(grid.get(...plain.cell));
            if (plain.normal.some((v) => v !== 0)) expect(plain.normal[met.axis as 0 | 1 | 2]).toBe(met.sign);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('a turned and scaled grid is met where geometry says, with its normal turned too', () => {
    const m = matrixOf({ t: [10, 0, 0], q: quatFromAxisAngle([0, 0, 1], Math.PI / 4), s: [2, 2, 2] });
    const s = scene([traceInstance(cube, surfaces(1), m)!], {}, [0, 0, 0], [1, 0, 0]);
    // A cube of edge 16 stands on its edge at x = 10: its corner is 8√2 away from its centre.
    const hit = new SceneRay();
    expect(hit.intersect(s, -20, 0.5, 0, 1, 0, 0, 0, Infinity)).toBe(true);
    expect(hit.t).toBeCloseTo(30 - 8 * Math.SQRT2 + 0.5, 9);
    expect([hit.nx, hit.ny, hit.nz].map((v) => v.toFixed(6))).toEqual(
      [-Math.SQRT1_2, Math.SQRT1_2, 0].map((v) => v.toFixed(6)),
    );
  });
});

describe('light with known answers', () => {
  const white: TraceLight = { ...dark, zenith: [1, 1, 1], horizon: [1, 1, 1] };
  const inst = (s: TraceSurfaces): TraceInstance => traceInstance(cube, s, MAT4_IDENTITY)!;

  it('white furnace: a white diffuse body under an even sky cannot be seen', () => {
    expect(mean(scene([inst(surfaces(1))], white, [0, 0, 40], [0, 0, 0]))).toBeCloseTo(1, 5);
  });
  it('a grey body of 0.5 shows 0.5 of an even sky', () => {
    expect(mean(scene([inst(surfaces(0.5))], white, [0, 0, 40], [0, 0, 0]))).toBeCloseTo(0.5, 5);
  });
  it('a floor of 0.8 under a sun 60° from the zenith has radiance 0.8 · cos 60°', () => {
    const sun: Partial<TraceLight> = {
      sunDirection: [Math.sin(Math.PI / 3), 0.5, 0],
      sunColour: [1, 1, 1],
      groundY: 0,
      groundColour: [0.8, 0.8, 0.8],
    };
    expect(mean(scene([], sun, [0, 40, 1], [0, 0, 0]))).toBeCloseTo(0.4, 6);
  });
  it('a wide sun gives the floor the mean cosine of its disc: (1 + cos θ) / 2 overhead', () => {
    const cos = Math.cos(Math.PI / 6);
    const sun: Partial<TraceLight> = { sunColour: [1, 1, 1], sunCos: cos, groundY: 0, groundColour: [1, 1, 1] };
    expect(mean(scene([], sun, [0, 40, 1], [0, 0, 0]), 1000)).toBeCloseTo((1 + cos) / 2, 3);
  });
  it('an emissive body alone shows its colour times its strength', () => {
    expect(mean(scene([inst(surfaces(0.5, { emissive: 3 }))], {}, [0, 0, 40], [0, 0, 0]))).toBeCloseTo(1.5, 5);
  });
  it('a closed room with walls of 0.5 that glow 0.5 holds 0.5 / (1 − 0.5) everywhere', () => {
    const room = VoxelGrid.empty({ min: [-6, -6, -6], size: [12, 12, 12] }).edit((d) => {
      d.fillBox(d.bounds, 1);
      d.fillBox({ min: [-5, -5, -5], size: [10, 10, 10] }, 0);
    });
    const s = scene(
      [traceInstance(room, surfaces(0.5, { emissive: 1 }), MAT4_IDENTITY)!],
      {},
      [0.3, 0.2, 0.1],
      [4, 1, 0.4],
    );
    expect(mean(s, 3000)).toBeCloseTo(1, 2);
  });
  it('a glowing face of 1×1 at height 5 lights the floor below it with the form factor of a parallel patch', () => {
    const lamp = VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] }).edit((d) => d.set(0, 0, 0, 1));
    const s = scene(
      [
        traceInstance(
          lamp,
          surfaces(1, { emissive: 2 }),
          matrixOf({ t: [-0.5, 5, -0.5], q: [0, 0, 0, 1], s: [1, 1, 1] }),
        )!,
      ],
      { groundY: 0, groundColour: [1, 1, 1] },
      [0.6, 4, 0.6],
      [0, 0, 0],
      4,
    );
    // Howell's catalogue, differential element to a parallel rectangle with a corner above it, four quarters.
    const q = 0.1,
      k = q / Math.sqrt(1 + q * q);
    const factor = 4 * (1 / (2 * Math.PI)) * 2 * k * Math.atan(k);
    const close = {
      ...s,
      camera: traceCamera({ kind: 'perspective', eye: [0.6, 4, 0.6], target: [0, 0, 0], fov: 0.5, height: 1 }, 4, 4),
    };
    expect(mean(close, 4000) / (2 * factor)).toBeCloseTo(1, 1);
  });
  it('a polished metal floor shows the sky of its mirror direction', () => {
    const s = scene(
      [inst(surfaces(1, { metalness: 1 }))],
      { zenith: [0.25, 0.25, 0.25], horizon: [0.25, 0.25, 0.25] },
      [0, 40, 1],
      [0, 0, 0],
    );
    expect(mean(s)).toBeCloseTo(0.25, 5);
  });
  it('the same picture comes out of one area and of two, sample for sample', () => {
    const s = scene([inst(surfaces(0.7))], { ...white, sunColour: [1, 1, 1], sunCos: 0.99 }, [9, 14, 40], [0, 0, 0]);
    const light = (y: number, height: number, first: number, samples: number): Float32Array =>
      traceArea(s, { x: 0, y, width: 8, height }, first, samples, EXACT).light;
    const whole = light(0, 8, 0, 4);
    expect([...light(0, 3, 0, 4), ...light(3, 5, 0, 4)]).toEqual([...whole]);
    const left = traceArea(s, { x: 0, y: 0, width: 3, height: 8 }, 0, 4, EXACT).light;
    expect([...left.slice(0, 9)]).toEqual([...whole.slice(0, 9)]);
    expect(light(0, 8, 0, 2)[0]! + light(0, 8, 2, 2)[0]!).toBeCloseTo(whole[0]!, 5);
  });
});

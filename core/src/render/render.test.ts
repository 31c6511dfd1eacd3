import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAT4_IDENTITY, type Vec3, matrixOf, quatFromAxisAngle, sub } from '../math';
import { VoxelGrid, rayWalk } from '../voxel';
import {
  GridHit,
  SceneRay,
  type TraceInstance,
  type TraceSurfaces,
  intersectGrid,
  rayGridOf,
  traceArea,
  traceInstance,
} from '.';
import { evenLight, greyFloor, lookedAt, meanOf, plainSurfaces } from './testing';

const surfaces = (
  albedo: number,
  more: Partial<Record<'emissive' | 'metalness' | 'opacity' | 'roughness', number>> = {},
): TraceSurfaces =>
  plainSurfaces(albedo, more.emissive, {
    roughness: new Float32Array(256).fill(more.roughness ?? 1),
    metalness: new Float32Array(256).fill(more.metalness ?? 0),
    opacity: new Float32Array(256).fill(more.opacity ?? 1),
  });
const dark = evenLight(0);
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
          const t = intersectGrid(rayGridOf(grid)!, Float64Array.of(...origin, ...dir, 0, Infinity), met);
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
    const s = lookedAt([traceInstance(cube, surfaces(1), m)!], dark, [0, 0, 0], [1, 0, 0]);
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
  const white = evenLight(1);
  const inst = (s: TraceSurfaces): TraceInstance => traceInstance(cube, s, MAT4_IDENTITY)!;

  it('white furnace: a white diffuse body under an even sky cannot be seen', () => {
    expect(meanOf(lookedAt([inst(surfaces(1))], white, [0, 0, 40], [0, 0, 0]))).toBeCloseTo(1, 5);
  });
  it('a grey body of 0.5 shows 0.5 of an even sky', () => {
    expect(meanOf(lookedAt([inst(surfaces(0.5))], white, [0, 0, 40], [0, 0, 0]))).toBeCloseTo(0.5, 5);
  });
  it('a floor of 0.8 under a sun 60° from the zenith has radiance 0.8 · cos 60°', () => {
    const sun = evenLight(0, { sunDirection: [Math.sin(Math.PI / 3), 0.5, 0], sunColour: [1, 1, 1] });
    expect(meanOf(lookedAt([], sun, [0, 40, 1], [0, 0, 0], { floor: greyFloor(0, 0.8) }))).toBeCloseTo(0.4, 5);
  });
  it('a wide sun gives the floor the mean cosine of its disc: (1 + cos θ) / 2 overhead', () => {
    const cos = Math.cos(Math.PI / 6);
    const sun = evenLight(0, { sunColour: [1, 1, 1], sunCos: cos });
    const s = lookedAt([], sun, [0, 40, 1], [0, 0, 0], { floor: greyFloor(0, 1) });
    for (const strategy of ['both', 'lights', 'bounces'] as const)
      expect(meanOf(s, 1000, { strategy })).toBeCloseTo((1 + cos) / 2, strategy === 'bounces' ? 1 : 3);
  });
  it('an emissive body alone shows its colour times its strength', () => {
    expect(meanOf(lookedAt([inst(surfaces(0.5, { emissive: 3 }))], dark, [0, 0, 40], [0, 0, 0]))).toBeCloseTo(1.5, 5);
  });
  it('a closed room with walls of 0.5 that glow 0.5 holds 0.5 / (1 − 0.5) everywhere, by whatever lights are found', () => {
    const room = VoxelGrid.empty({ min: [-6, -6, -6], size: [12, 12, 12] }).edit((d) => {
      d.fillBox(d.bounds, 1);
      d.fillBox({ min: [-5, -5, -5], size: [10, 10, 10] }, 0);
    });
    const walls = traceInstance(room, surfaces(0.5, { emissive: 1 }), MAT4_IDENTITY)!;
    const s = lookedAt([walls], dark, [0.3, 0.2, 0.1], [4, 1, 0.4]);
    expect(meanOf(s, 1000)).toBeCloseTo(1, 2);
    expect(meanOf(s, 3000, { strategy: 'lights' })).toBeCloseTo(1, 1);
    expect(meanOf(s, 1000, { strategy: 'bounces' })).toBeCloseTo(1, 2);
  });
  it('a glowing face of 1×1 at height 5 lights the floor below it with the form factor of a parallel patch', () => {
    const face = VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] }).edit((d) => d.set(0, 0, 0, 1));
    const at = matrixOf({ t: [-0.5, 5, -0.5], q: [0, 0, 0, 1], s: [1, 1, 1] });
    const close = lookedAt(
      [traceInstance(face, surfaces(1, { emissive: 2 }), at)!],
      dark,
      [0.6, 4, 0.6],
      [0, 0, 0],
      { floor: greyFloor(0, 1) },
      4,
      0.5,
    );
    // Howell's catalogue, differential element to a parallel rectangle with a corner above it, four quarters.
    const q = 0.1,
      k = q / Math.sqrt(1 + q * q);
    const factor = 4 * (1 / (2 * Math.PI)) * 2 * k * Math.atan(k);
    // One bounce: the lamp would throw some of the floor's light back.
    expect(meanOf(close, 4000, { bounces: 1 }) / (2 * factor)).toBeCloseTo(1, 2);
    expect(meanOf(close, 4000, { bounces: 1, strategy: 'lights' }) / (2 * factor)).toBeCloseTo(1, 2);
    expect(meanOf(close, 20_000, { bounces: 1, strategy: 'bounces' }) / (2 * factor)).toBeCloseTo(1, 1);
  });
  it('a polished metal floor shows the sky of its mirror direction', () => {
    const mirror = inst(surfaces(1, { metalness: 1, roughness: 0 }));
    expect(meanOf(lookedAt([mirror], evenLight(0.25), [0, 40, 1], [0, 0, 0]))).toBeCloseTo(0.25, 5);
  });
  it('the same picture comes out of one area and of two, sample for sample', () => {
    const sunny = evenLight(1, { sunColour: [1, 1, 1], sunCos: 0.99 });
    const s = lookedAt([inst(surfaces(0.7))], sunny, [9, 14, 40], [0, 0, 0]);
    const light = (y: number, height: number, first: number, samples: number): Float32Array =>
      traceArea(s, { x: 0, y, width: 8, height }, first, samples).light;
    const whole = light(0, 8, 0, 4);
    expect([...light(0, 3, 0, 4), ...light(3, 5, 0, 4)]).toEqual([...whole]);
    const left = traceArea(s, { x: 0, y: 0, width: 3, height: 8 }, 0, 4).light;
    expect([...left.slice(0, 9)]).toEqual([...whole.slice(0, 9)]);
    expect(light(0, 8, 0, 2)[0]! + light(0, 8, 2, 2)[0]!).toBeCloseTo(whole[0]!, 5);
  });
});

import { describe, expect, it } from 'vitest';
import { MAT4_IDENTITY, type Vec3 } from '../math';
import { VoxelGrid } from '../voxel';
import { traceFloor, traceInstance } from '.';
import { evenLight, greyFloor, lookedAt, meanOf, plainSurfaces } from './testing';

const cube = VoxelGrid.empty({ min: [0, 0, 0], size: [2, 2, 2] }).edit((d) => d.fillBox(d.bounds, 1));
const glowing = traceInstance(cube, plainSurfaces(1, 3), MAT4_IDENTITY)!;

describe('hidden lamps', () => {
  it('light the floor as if they were seen, and are not: neither by the eye nor in the way of light', () => {
    const floor = greyFloor(-3, 0.5);
    const beside = (hidden: boolean): number =>
      meanOf(
        lookedAt(hidden ? [] : [glowing], evenLight(0), [9, 2, 9], [5, -3, 5], {
          floor,
          ...(hidden ? { unseen: [glowing] } : {}),
        }),
        2000,
        { bounces: 1 },
      );
    expect(beside(true)).toBeGreaterThan(0.001);
    expect(beside(true) / beside(false)).toBeCloseTo(1, 1);
    expect(meanOf(lookedAt([], evenLight(0), [1, 1, 20], [1, 1, 0], { unseen: [glowing] }))).toBe(0);
    expect(meanOf(lookedAt([glowing], evenLight(0), [1, 1, 20], [1, 1, 0]))).toBeCloseTo(3, 5);
  });
});

describe('grounds', () => {
  const ground = (kind: 'mirror' | 'shadow' | 'backdrop') =>
    traceFloor({ ground: { kind, colour: '#ffffff' } }, 0, { back: [0, 0, -1], from: -2, bend: 4 })!;
  it('a white mirror shows the sky that it looks at, a white backdrop under an even sky is not seen', () => {
    const even = evenLight(0.5);
    expect(meanOf(lookedAt([], even, [0, 5, 5], [0, 0, 0], { floor: ground('mirror') }))).toBeCloseTo(0.5, 4);
    // Between floor and wall light comes from the bend itself, white as it is, and from the sky: all alike.
    expect(meanOf(lookedAt([], even, [0, 5, 5], [0, 0.5, -6], { floor: ground('backdrop') }), 400)).toBeCloseTo(0.5, 2);
  });
  it('white water under an even sky is not seen; black water mirrors it as Fresnel says, more the flatter it is looked at', () => {
    const water = (colour: string) => traceFloor({ ground: { kind: 'water', colour } }, 0, { metre: 20 })!;
    const look = (colour: string, eye: Vec3): number =>
      meanOf(lookedAt([], evenLight(0.5), eye, [0, 0, 0], { floor: water(colour) }), 600);
    expect(look('#ffffff', [0, 8, 6])).toBeCloseTo(0.5, 2);
    // ((1.33 − 1) / (1.33 + 1))² is 0.02.
    expect(look('#000000', [0, 40, 0.01]) / 0.5).toBeCloseTo(0.02, 2);
    expect(look('#000000', [0, 2, 12]) / 0.5).toBeGreaterThan(0.15);
  });
  it('rounded edges of cubes catch light that passes along their faces, and the middle of a face none', () => {
    const slab = VoxelGrid.empty({ min: [-3, -2, -3], size: [7, 2, 7] }).edit((d) => d.fillBox(d.bounds, 1));
    const grey = traceInstance(slab, plainSurfaces(0.5), MAT4_IDENTITY)!;
    const low = evenLight(0, { sunDirection: [1, 0.001, 0], sunColour: [1, 1, 1] });
    const at = (x: number, edges: number): number =>
      meanOf(lookedAt([grey], low, [x, 30, 0.5], [x, 0, 0.5], { edges }, 4, 0.2), 40, { bounces: 1 });
    expect(at(3.9, 0.25)).toBeGreaterThan(0.1);
    expect(at(3.9, 0)).toBeLessThan(0.01);
    expect(at(0.5, 0.25)).toBeLessThan(0.01);
  });
  it('a catcher of shadow shows what is behind it, darker where light is kept off', () => {
    const lit = evenLight(0.5);
    const open = lookedAt([], lit, [9, 6, 9], [6, 0, 6], { floor: ground('shadow') });
    expect(meanOf(open, 200)).toBeCloseTo(0.5, 4);
    const under = lookedAt([glowing], lit, [2.7, 6, 1], [2.5, 0, 1], { floor: ground('shadow') });
    expect(meanOf(under, 400)).toBeLessThan(0.4);
    expect(meanOf(under, 400)).toBeGreaterThan(0.15);
  });
});

import { describe, expect, it } from 'vitest';
import { MAT4_IDENTITY, type Vec3, length, normalize, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { Surface, type TraceInstance, dielectric, pointOfLens, traceArea, traceCamera, traceInstance } from '.';
import { evenLight, greyFloor, lookedAt, meanOf, plainSurfaces } from './testing';

const ball = VoxelGrid.empty({ min: [-6, -6, -6], size: [12, 12, 12] }).edit((d) => {
  for (let x = -6; x < 6; x++)
    for (let y = -6; y < 6; y++)
      for (let z = -6; z < 6; z++) if (Math.hypot(x + 0.5, y + 0.5, z + 0.5) < 5.5) d.set(x, y, z, 1);
});
const of = (albedo: number, roughness: number, metalness: number, opacity = 1): TraceInstance =>
  traceInstance(
    ball,
    plainSurfaces(albedo, 0, {
      roughness: new Float32Array(256).fill(roughness),
      metalness: new Float32Array(256).fill(metalness),
      opacity: new Float32Array(256).fill(opacity),
    }),
    MAT4_IDENTITY,
  )!;
const furnace = (i: TraceInstance, samples = 2500): number =>
  meanOf(lookedAt([i], evenLight(1), [9, 14, 40], [0, 0, 0], {}, 8, 14), samples);

describe('materials in a white furnace', () => {
  it.each([
    ['chalk', 1, 0, 1],
    ['a matt coat', 0.8, 0, 1],
    ['a satin coat', 0.4, 0, 1],
    ['a gloss coat', 0.12, 0, 1],
    ['a mirror coat', 0, 0, 1],
    ['brushed metal', 0.7, 1, 1],
    ['rough metal', 0.95, 1, 1],
    ['satin metal', 0.3, 1, 1],
    ['a mirror', 0, 1, 1],
    ['clear glass', 0, 0, 0],
    ['rough glass', 0.5, 0, 0],
    ['milky glass', 0.3, 0, 0.4],
  ])('white %s is not seen: it takes no light and makes none', (_, roughness, metalness, opacity) => {
    expect(furnace(of(1, roughness, metalness, opacity))).toBeCloseTo(1, 2);
  });
  it('half metal loses next to nothing', () => {
    const kept = furnace(of(1, 0.4, 0.5));
    expect(kept).toBeGreaterThan(0.985);
    expect(kept).toBeLessThan(1.001);
  });
  it('a white floor under clear glass is as bright as without it, aimed for or met', () => {
    for (const strategy of ['both', 'lights', 'bounces'] as const) {
      const under = lookedAt([of(1, 0, 0, 0)], evenLight(1), [20, 4, 0], [0, -6, 0], { floor: greyFloor(-6, 1) });
      expect(meanOf(under, 200, { strategy })).toBeCloseTo(1, 2);
    }
  });
});

describe('surfaces', () => {
  const s = new Surface();
  const grey = [0.5, 0.5, 0.5];
  const eye = normalize([0.6, 0.8, 0.3]);
  const set = (rough: number, metal: number): void =>
    s.set(grey, 0, metal, rough, 0, 1, 0, ...(eye as [number, number, number]));
  it.each([
    [0.2, 0],
    [0.5, 0.5],
    [0.9, 1],
  ])(
    'samples of roughness %f and metalness %f fall as the chances say; those that rough facets throw downwards are none',
    (rough, metal) => {
      set(rough, metal);
      const random = seededRandom(2);
      let all = 0,
        right = 0;
      const N = 200_000;
      for (let n = 0; n < N; n++) {
        // Evenly over the half ball.
        const y = random(),
          r = Math.sqrt(1 - y * y),
          phi = 2 * Math.PI * random();
        s.evaluate(r * Math.cos(phi), y, r * Math.sin(phi));
        all += s.chance * 2 * Math.PI;
        if (r * Math.cos(phi) < 0) right += s.chance * 2 * Math.PI;
      }
      let left = 0,
        kept = 0;
      for (let n = 0; n < N; n++) {
        if (!s.sample(random(), random(), random())) continue;
        kept++;
        if (s.x < 0) left++;
      }
      expect(left / N).toBeCloseTo(right / N, 1);
      expect(kept / N).toBeCloseTo(all / N, 1);
    },
  );
  it('is the same whichever way light goes, but for what the coat takes by where it is looked at', () => {
    const one = normalize([0.2, 0.9, -0.4]);
    set(0.4, 1);
    s.evaluate(...(one as [number, number, number]));
    const there = s.r / one[1];
    s.set(grey, 0, 1, 0.4, 0, 1, 0, ...(one as [number, number, number]));
    s.evaluate(...(eye as [number, number, number]));
    // What is given back for further bounces depends on the side that is looked at, a few hundredths.
    expect(there / (s.r / eye[1])).toBeCloseTo(1, 1);
  });
});

describe('glass', () => {
  it('throws back as much as Fresnel says: 4 % straight on, all beyond the critical angle, none at Brewster’s of one way', () => {
    expect(dielectric(1, 1 / 1.5)).toBeCloseTo(0.04, 6);
    expect(dielectric(1, 1.5)).toBeCloseTo(0.04, 6);
    expect(dielectric(Math.cos(Math.asin(1 / 1.5) + 1e-3), 1.5)).toBe(1);
    const brewster = Math.atan(1.5),
      beyond = Math.PI / 2 - brewster;
    const across = (Math.sin(brewster - beyond) / Math.sin(brewster + beyond)) ** 2;
    expect(dielectric(Math.cos(brewster), 1 / 1.5)).toBeCloseTo(across / 2, 6);
  });
  it('bends light as Snell says: a slab moves what is behind it aside, by its thickness', () => {
    // A wall with an edge behind a slab of four cubes, looked at from 45°.
    const slab = VoxelGrid.empty({ min: [-40, 0, -40], size: [80, 4, 80] }).edit((d) => d.fillBox(d.bounds, 1));
    const clear = plainSurfaces(1, 0, { opacity: new Float32Array(256), roughness: new Float32Array(256) });
    const edge = VoxelGrid.empty({ min: [-40, -1, -40], size: [40, 1, 80] }).edit((d) => d.fillBox(d.bounds, 1));
    const glass = traceInstance(slab, clear, MAT4_IDENTITY)!,
      dark = traceInstance(edge, plainSurfaces(0), MAT4_IDENTITY)!;
    /** Where along x the ray from 45° that aims at `x` on the wall is when it gets there: dark below 0. */
    const isDark = (x: number, things: TraceInstance[]): boolean =>
      meanOf(lookedAt(things, evenLight(1, {}, 1), [x - 30, 30, 0.5], [x, 0, 0.5], {}, 2, 0.001), 64) < 0.5;
    const edgeAt = (things: TraceInstance[]): number => {
      let lo = -10,
        hi = 10;
      for (let i = 0; i < 24; i++) {
        const mid = (lo + hi) / 2;
        if (isDark(mid, things)) lo = mid;
        else hi = mid;
      }
      return lo;
    };
    const bent = Math.asin(Math.sin(Math.PI / 4) / 1.5);
    expect(edgeAt([dark])).toBeCloseTo(0, 2);
    expect(edgeAt([dark, glass])).toBeCloseTo(4 * (1 - Math.tan(bent)), 2);
  });
  it('tints by depth: two cubes of it show the colour of its swatch, four its square', () => {
    const pane = (deep: number): TraceInstance =>
      traceInstance(
        VoxelGrid.empty({ min: [-9, 0, -9], size: [18, deep, 18] }).edit((d) => d.fillBox(d.bounds, 1)),
        plainSurfaces(0.5, 0, { opacity: new Float32Array(256), roughness: new Float32Array(256) }),
        MAT4_IDENTITY,
      )!;
    const through = (deep: number): number =>
      meanOf(lookedAt([pane(deep)], evenLight(0, {}, 1), [0, 40, 0.01], [0, 0, 0], {}, 2, 0.5), 4000);
    // Of light straight through 4 % is thrown back at both faces, a little of that comes on after all; the sky above is dark.
    const clear = 0.96 ** 2;
    expect(through(2) / clear).toBeCloseTo(0.5, 1);
    expect(through(4) / clear).toBeCloseTo(0.25, 1);
  });
  it('shows what is behind it where it is clear, and its own face where it is rough, so that its noise can be taken out', () => {
    const pane = VoxelGrid.empty({ min: [-9, 0, -9], size: [18, 2, 18] }).edit((d) => d.fillBox(d.bounds, 1));
    const far = (roughness: number): number => {
      const surfaces = plainSurfaces(1, 0, {
        opacity: new Float32Array(256),
        roughness: new Float32Array(256).fill(roughness),
      });
      const glass = traceInstance(pane, surfaces, MAT4_IDENTITY)!;
      const s = lookedAt([glass], evenLight(1), [0, 22, 0.01], [0, 0, 0], { floor: greyFloor(-30, 0.5) }, 2, 0.5);
      const t = traceArea(s, { x: 0, y: 0, width: 2, height: 2 }, 0, 64);
      return t.depth[0]! / t.cover[0]!;
    };
    expect(far(0)).toBeGreaterThan(45);
    expect(far(0.5)).toBeCloseTo(20, 1);
  });
});

describe('the lens', () => {
  it('blurs a point as the thin lens does: by its width times how far off what is sharp it lies', () => {
    const camera = traceCamera(
      { kind: 'perspective', eye: [0, 0, 0], target: [0, 0, -20], fov: 30, height: 1, aperture: 0.02, focus: 20 },
      10,
      10,
      0.05,
    );
    // 24 mm over 2 tan 15° is the focal length; over the f-number, in units of 5 cm, the width of the lens.
    const length35 = 0.024 / 2 / Math.tan(Math.PI / 12);
    expect(camera.lens * 2).toBeCloseTo(length35 / 0.02 / 0.05, 9);
    // A glowing cube far beyond what is sharp: its light spreads over a disc of the lens' width times (far − near) / near.
    const cube = VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] }).edit((d) => d.set(0, 0, 0, 1));
    const glow = traceInstance(cube, plainSurfaces(1, 1), MAT4_IDENTITY)!;
    const seen = (focus: number): number => {
      const s = lookedAt([glow], evenLight(0), [0.5, 0.5, 41], [0.5, 0.5, 0], {}, 1, 0.1);
      const sharp = { ...s.camera, lens: 4, focus };
      return meanOf({ ...s, camera: sharp }, 40_000);
    };
    expect(seen(40)).toBeCloseTo(1, 2);
    // From the whole lens of radius 4 towards a point at 20: at 40 the rays cover a disc of radius 4, of which the cube is 1.
    expect(seen(20) * Math.PI * 16).toBeCloseTo(1, 1);
  });
  it('has a round opening, or one with as many corners as it has blades', () => {
    const out = new Float64Array(2);
    const random = seededRandom(5);
    for (const blades of [0, 5, 6]) {
      const c = {
        ...traceCamera({ kind: 'perspective', eye: [0, 0, 1], target: [0, 0, 0], fov: 30, height: 1 }, 1, 1),
        lens: 2,
        blades,
      };
      let mean = 0;
      const reach = blades === 0 ? 2 : 2 * Math.cos(Math.PI / blades);
      for (let i = 0; i < 4000; i++) {
        pointOfLens(c, random(), random(), out);
        const r = length([out[0]!, out[1]!, 0] as Vec3);
        expect(r).toBeLessThanOrEqual(2 + 1e-9);
        if (r <= reach) mean++;
      }
      // The inner circle's share of the whole opening.
      const area = blades === 0 ? Math.PI * 4 : (blades / 2) * 4 * Math.sin((2 * Math.PI) / blades);
      expect(mean / 4000).toBeCloseTo((Math.PI * reach * reach) / area, 1);
    }
  });
});

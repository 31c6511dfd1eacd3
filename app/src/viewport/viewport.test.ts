import { type Vec3, boxCorners, cross, dot, length, matrixOf, quatFromAxisAngle } from '@sphalerite/core/math';
import { makeCamera, makePart } from '@sphalerite/core/model';
import { CellSet, VoxelGrid } from '@sphalerite/core/voxel';
import { type BufferGeometry, type Mesh, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { pickPart, toLattice } from './pick';
import { boneBodies } from './overlay';
import { cellFloor } from './overlay-guides';
import { cornerMarks } from './overlay-marks';
import { setSurface } from './set-surface';
import { alongAxis, onPlane } from '../tools/geometry';
import { angleOnRing } from '../tools/gizmo';
import { OrbitCamera, type VIEWS } from './orbit-camera';

const close = (a: readonly number[], b: readonly number[], digits = 6): void =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, digits));

describe('OrbitCamera', () => {
  it('looks along each axis square on', () => {
    const c = new OrbitCamera();
    const expected: Record<keyof typeof VIEWS, Vec3> = {
      front: [0, 0, -1],
      back: [0, 0, 1],
      left: [-1, 0, 0],
      right: [1, 0, 0],
      top: [0, -1, 0],
      bottom: [0, 1, 0],
    };
    for (const [name, ahead] of Object.entries(expected)) {
      c.look(name as keyof typeof VIEWS);
      close(c.ahead, ahead);
      expect(dot(c.up, c.right)).toBeCloseTo(0, 9);
      expect(length(c.up)).toBeCloseTo(1, 9);
    }
  });

  it('comes nearer to the point under the cursor, which stays where it is on screen', () => {
    const c = new OrbitCamera();
    const at = new Vector3(4, 22, -3);
    for (const orthographic of [false, true]) {
      c.orthographic = orthographic;
      // A point in the plane of the target, where zooming to the cursor is exact.
      const p = new Vector3(...c.target)
        .addScaledVector(new Vector3(...c.right), 6)
        .addScaledVector(new Vector3(...c.up), -4);
      const before = p.clone().project(c.three(1.5));
      c.zoom(0.7, before.x, before.y, 1.5);
      const after = p.clone().project(c.three(1.5));
      expect(after.x).toBeCloseTo(before.x, 4);
      expect(after.y).toBeCloseTo(before.y, 4);
    }
    expect(at.y).toBe(22);
  });

  it('steps back until every corner is in the picture, from any side, and never nearer', () => {
    const c = new OrbitCamera();
    const corners = boxCorners({ min: [-40, 0, -10], size: [80, 30, 20] });
    for (const orthographic of [false, true])
      for (const aspect of [0.6, 1, 2.2])
        for (let k = 0; k < 24; k++) {
          Object.assign(c, { orthographic, yaw: k, pitch: ((k % 7) - 3) * 0.5, distance: 5, target: [0, 15, 0] });
          c.includeAll(corners, aspect, [0.9, 0.8]);
          const at = corners.map((p) => new Vector3(...p).project(c.three(aspect)));
          const across = Math.max(...at.map((s) => Math.abs(s.x))),
            up = Math.max(...at.map((s) => Math.abs(s.y)));
          expect(across).toBeLessThan(0.9 + 1e-6);
          expect(up).toBeLessThan(0.8 + 1e-6);
          // One of them touches its margin: it stands no farther away than it must.
          expect(Math.max(across / 0.9, up / 0.8)).toBeCloseTo(1, 5);
          const { distance } = c;
          c.includeAll([[0, 15, 0]], aspect, [0.9, 0.8]);
          expect(c.distance).toBe(distance);
        }
  });

  it('comes as near as the room allows, with every corner in it', () => {
    const corners = boxCorners({ min: [-40, 0, -10], size: [80, 12, 60] });
    const room = { lo: [-0.9, -0.8], hi: [0.9, 0.6] } as const;
    for (const orthographic of [false, true])
      for (const aspect of [0.6, 1, 2.2])
        for (let k = 0; k < 24; k++) {
          const c = new OrbitCamera();
          Object.assign(c, { orthographic, yaw: k, pitch: ((k % 7) - 3) * 0.5, distance: 400, target: [9, 15, -30] });
          c.fit(corners, aspect, room);
          const at = corners.map((p) => new Vector3(...p).project(c.three(aspect)));
          const [x, y] = (['x', 'y'] as const).map((a) => [
            Math.min(...at.map((s) => s[a])),
            Math.max(...at.map((s) => s[a])),
          ]);
          const gaps = [x![0]! + 0.9, 0.9 - x![1]!, y![0]! + 0.8, 0.6 - y![1]!];
          expect(Math.min(...gaps)).toBeGreaterThan(-1e-6);
          // Both ends of one axis touch: it could come no nearer.
          expect(Math.min(Math.max(gaps[0]!, gaps[1]!), Math.max(gaps[2]!, gaps[3]!))).toBeCloseTo(0, 5);
        }
  });

  it('moves the world along with the hand by as many pixels', () => {
    const c = new OrbitCamera();
    const p = new Vector3(...c.target);
    c.pan(40, -25, 600);
    const s = p.project(c.three(2));
    expect((s.x * 1200) / 2).toBeCloseTo(40, 3);
    expect((-s.y * 600) / 2).toBeCloseTo(-25, 3);
  });

  it('stands where a shot stands, and comes back', () => {
    const c = new OrbitCamera();
    const own = c.state();
    c.follow(makeCamera({ kind: 'perspective', eye: [30, 40, 50], target: [1, 2, 3], fov: 30, height: 1 }));
    close(c.eye, [30, 40, 50], 4);
    c.follow(makeCamera({ kind: 'orthographic', eye: [30, 40, 50], target: [1, 2, 3], fov: 30, height: 24 }));
    expect(c.span).toBeCloseTo(24, 6);
    c.restore(own);
    expect(c.state()).toEqual(own);
  });

  it('never tips over', () => {
    const c = new OrbitCamera();
    c.turn(0, 1e6);
    expect(c.pitch).toBe(Math.PI / 2);
    expect(c.up.every(Number.isFinite)).toBe(true);
  });
});

describe('handles', () => {
  it('the angle on a ring grows counter-clockwise about its axis', () => {
    const at = (x: number, y: number): number =>
      angleOnRing({ origin: [x, y, 10], dir: [0, 0, -1] }, [0, 0, 0], [0, 0, 1])!;
    const turn = at(0, 5) - at(5, 0);
    expect(((turn + 2 * Math.PI) % (2 * Math.PI)) * (180 / Math.PI)).toBeCloseTo(90, 6);
    expect(angleOnRing({ origin: [5, 0, 10], dir: [0, 0, -1] }, [0, 0, 0], [1, 0, 0])).toBeNull();
  });
  it('a ray’s nearest point on an axis and its meeting with a plane', () => {
    expect(alongAxis({ origin: [5, 3, 9], dir: [0, 0, -1] }, [0, 0, 0], [0, 1, 0])).toBeCloseTo(3, 9);
    expect(alongAxis({ origin: [5, 3, 9], dir: [0, 2, 0] }, [0, 0, 0], [0, 1, 0])).toBeNull();
    expect(onPlane({ origin: [1, 8, 2], dir: [0, -2, 1] }, [0, 2, 0], [0, 1, 0])).toEqual([1, 2, 5]);
    expect(onPlane({ origin: [1, 8, 2], dir: [0, 2, 0] }, [0, 2, 0], [0, 1, 0])).toBeNull();
  });
});

describe('picking', () => {
  const part = makePart('p', 'l', 'Body', 'x', { min: [-4, 0, -4], size: [8, 8, 8] });
  const grid = part.layers[0]!.grid.edit((d) => d.set(0, 0, 0, 1));
  const m = matrixOf({ t: [10, 0, 0], q: quatFromAxisAngle([0, 1, 0], Math.PI / 2), s: [2, 2, 2] });
  it('meets a cube of a turned, moved and scaled part on the right face', () => {
    // Lattice (0.5, 0.5, 0.5) stands at 10 + (1, 1, −1); from above that is the top of cube 0, 0, 0.
    const ray = toLattice({ origin: [11, 40, -1], dir: [0, -1, 0] }, m);
    expect(pickPart(grid, part, ray)).toEqual({ cell: [0, 0, 0], normal: [0, 1, 0], floor: false });
  });
  it('an empty part is built on its floor, and not beside it', () => {
    const down = (x: number, z: number) =>
      pickPart(VoxelGrid.empty(part.bounds), part, { origin: [x, 9, z], dir: [0, -1, 0] });
    expect(down(3.5, -3.5)).toEqual({ cell: [3, -1, -4], normal: [0, 1, 0], floor: true });
    expect(down(4.5, 0)).toBeNull();
  });
});

describe('the surface of a set', () => {
  const area = (t: readonly number[]): number => {
    let sum = 0;
    for (let i = 0; i < t.length; i += 9) {
      const [a, b, c] = [0, 3, 6].map((k) => t.slice(i + k, i + k + 3)) as [number[], number[], number[]];
      const u = b.map((v, k) => v - a[k]!),
        w = c.map((v, k) => v - a[k]!);
      sum +=
        Math.hypot(u[1]! * w[2]! - u[2]! * w[1]!, u[2]! * w[0]! - u[0]! * w[2]!, u[0]! * w[1]! - u[1]! * w[0]!) / 2;
    }
    return sum;
  };
  const length = (l: readonly number[]): number => {
    let sum = 0;
    for (let i = 0; i < l.length; i += 6)
      sum += Math.hypot(l[i]! - l[i + 3]!, l[i + 1]! - l[i + 4]!, l[i + 2]! - l[i + 5]!);
    return sum;
  };
  it('covers exactly the exposed faces and draws each flat region’s border once', () => {
    // A bar of 3×1×1 with a cube on its end: 18 faces; the borders of 8 flat regions.
    const s = setSurface(
      CellSet.ofCells([
        [0, 0, 0],
        [1, 0, 0],
        [2, 0, 0],
        [2, 1, 0],
      ]),
    );
    expect(area(s.triangles)).toBeCloseTo(18);
    expect(length(s.lines)).toBeCloseTo(2 * 10 + 8 + 4 + 4 + 6 + 6 + 4);
    const box = setSurface(CellSet.ofBox({ min: [-40, 2, 3], size: [70, 4, 5] }));
    expect(area(box.triangles)).toBeCloseTo(2 * (70 * 4 + 70 * 5 + 4 * 5));
    expect(length(box.lines)).toBeCloseTo(2 * 4 * (70 + 4 + 5));
  });
});

describe('marks in the view', () => {
  it('bones are closed bodies from joint to joint, turned outwards, whichever way they point', () => {
    for (const at of [
      [0, 5, 0],
      [0, -3, 0],
      [4, 0, 0],
      [1, 2, -3],
    ] as const) {
      const list = points(boneBodies([{ at, parent: [0, 0, 0], selected: false, side: 'centre' }], 'plain'));
      let volume = 0;
      for (let i = 0; i < list.length; i += 3) {
        const [a, b, c] = list.slice(i, i + 3) as unknown as [Vec3, Vec3, Vec3];
        volume += dot(a, cross(b, c)) / 6;
      }
      // A frustum of two squares, 2 w² large each.
      const h = length(at),
        areas = [2 * Math.min(0.62, 0.14 + h * 0.06) ** 2, 2 * 0.12 ** 2] as const;
      expect(volume).toBeCloseTo((h / 3) * (areas[0] + areas[1] + Math.sqrt(areas[0] * areas[1])), 5);
    }
  });
  const points = (o: { geometry?: unknown }): number[][] => {
    const at = (o.geometry as BufferGeometry).getAttribute('position');
    return Array.from({ length: at.count }, (_, i) => [at.getX(i), at.getY(i), at.getZ(i)]);
  };
  it('the floor of an empty volume has a line for each cube; its middle is a strip where odd, a seam where even', () => {
    const [lines, seams, ...strips] = cellFloor({ min: [-3, 0, 2], size: [7, 9, 6] }) as Mesh[];
    expect(points(lines!)).toHaveLength(2 * (8 + 7));
    expect(points(seams!).map((p) => p[2])).toEqual([5, 5]);
    expect(strips).toHaveLength(1);
    expect(new Set(points(strips[0]!).map((p) => p[0]))).toEqual(new Set([0, 1]));
    const even = cellFloor({ min: [0, 0, 0], size: [4, 1, 4] });
    expect(even).toHaveLength(2);
    expect(points(even[1] as Mesh)).toHaveLength(4);
  });
  it('a selection is marked at the eight corners of its box, ink under honey, by legs that never meet', () => {
    const box = { min: [1, 2, 3], size: [4, 1, 10] } as const;
    const [ink, honey] = cornerMarks(box) as Mesh[];
    for (const legs of [ink!, honey!]) expect(points(legs)).toHaveLength(8 * 3 * 36);
    expect(ink!.renderOrder).toBeLessThan(honey!.renderOrder);
    const far = (p: number[]): number =>
      Math.max(...p.map((v, i) => Math.min(Math.abs(v - box.min[i]!), Math.abs(v - box.min[i]! - box.size[i]!))));
    // No point lies farther from a corner than a leg is long, and of short edges the middle stays free.
    for (const p of points(honey!)) expect(far(p)).toBeLessThan(2.1);
    for (const p of points(honey!)) expect(Math.abs(p[0]! - 3)).toBeGreaterThan(0.5);
  });
});

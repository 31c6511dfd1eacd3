import { type Axis, type Box, type Vec3, boxEnd } from '@sphalerite/core/math';
import { BufferGeometry, Float32BufferAttribute, Mesh, type Object3D } from 'three';
import { AXIS_COLOURS, RESIN, TONES, fillMaterial, segments } from './overlay-materials';

/** A level of the volume with a line every cube, fainter the finer. */
export function guidePlane(bounds: Box, axis: Axis, at: number): Object3D[] {
  const u = ((axis + 1) % 3) as Axis,
    v = ((axis + 2) % 3) as Axis;
  const e = boxEnd(bounds);
  const point = (pu: number, pv: number): number[] => {
    const p = [0, 0, 0];
    p[axis] = at;
    p[u] = pu;
    p[v] = pv;
    return p;
  };
  const fine: number[] = [],
    bold: number[] = [];
  for (let i = bounds.min[u]; i <= e[u]; i++)
    (i % 8 === 0 ? bold : fine).push(...point(i, bounds.min[v]), ...point(i, e[v]));
  for (let i = bounds.min[v]; i <= e[v]; i++)
    (i % 8 === 0 ? bold : fine).push(...point(bounds.min[u], i), ...point(e[u], i));
  const ring = [
    point(bounds.min[u], bounds.min[v]),
    point(e[u], bounds.min[v]),
    point(e[u], e[v]),
    point(bounds.min[u], e[v]),
  ];
  const plane = new Mesh(
    new BufferGeometry().setAttribute(
      'position',
      new Float32BufferAttribute([ring[0]!, ring[1]!, ring[2]!, ring[0]!, ring[2]!, ring[3]!].flat(), 3),
    ),
    fillMaterial(TONES.verdigris, 0.1),
  );
  plane.renderOrder = 8;
  return [
    plane,
    segments(fine, TONES.verdigris, 0.22, 8, true),
    segments(bold, TONES.verdigris, 0.5, 8, true),
    segments(
      ring.flatMap((p, i) => [...p, ...ring[(i + 1) % 4]!]),
      TONES.verdigris,
      1,
      12,
      true,
    ),
  ];
}

/**
 * The floor of an empty volume with a line for each cube, so that its cells can be counted, and its middle: a cell where the
 * volume is odd along an axis, a line where it is even.
 */
export function cellFloor(bounds: Box): Object3D[] {
  const { min, size } = bounds,
    e = boxEnd(bounds),
    y = min[1] + 0.02;
  const lines: number[] = [];
  for (let x = min[0]; x <= e[0]; x++) lines.push(x, y, min[2], x, y, e[2]);
  for (let z = min[2]; z <= e[2]; z++) lines.push(min[0], y, z, e[0], y, z);
  const middle = (a: 0 | 2): number => min[a] + size[a] / 2;
  const odd = (a: 0 | 2): boolean => size[a] % 2 === 1;
  const span = (a: 0 | 2): [number, number] => [middle(a) - 0.5, middle(a) + 0.5];
  const seams = [
    ...(odd(0) ? [] : [middle(0), y, min[2], middle(0), y, e[2]]),
    ...(odd(2) ? [] : [min[0], y, middle(2), e[0], y, middle(2)]),
  ];
  const strip = (x: [number, number], z: [number, number]): Mesh => {
    const mesh = new Mesh(
      new BufferGeometry().setAttribute(
        'position',
        new Float32BufferAttribute(
          [x[0], y, z[0], x[0], y, z[1], x[1], y, z[1], x[0], y, z[0], x[1], y, z[1], x[1], y, z[0]],
          3,
        ),
      ),
      fillMaterial(TONES.honey, 0.4),
    );
    mesh.renderOrder = 7;
    return mesh;
  };
  return [
    segments(lines, TONES.quiet, 0.42, 6, true),
    segments(seams, RESIN, 0.9, 8, true),
    ...(odd(0) ? [strip(span(0), [min[2], e[2]])] : []),
    ...(odd(2) ? [strip([min[0], e[0]], span(2))] : []),
  ];
}

/** The axis of a radial with a ray for each copy. */
export function spinAxis(bounds: Box, axis: Axis, at: Vec3, count: number): Object3D[] {
  const u = ((axis + 1) % 3) as Axis,
    v = ((axis + 2) % 3) as Axis;
  const lo = [...at],
    hi = [...at];
  lo[axis] = bounds.min[axis] - 1;
  hi[axis] = boxEnd(bounds)[axis] + 1;
  const rays: number[] = [];
  const length = Math.max(bounds.size[u], bounds.size[v]) / 2;
  for (let k = 0; k < count; k++) {
    const a = (2 * Math.PI * k) / count;
    const to = [...at];
    to[axis] = bounds.min[axis];
    const from = [...to];
    to[u] = at[u] + Math.cos(a) * length;
    to[v] = at[v] + Math.sin(a) * length;
    rays.push(...from, ...to);
  }
  return [segments([...lo, ...hi], AXIS_COLOURS[axis], 1, 12), segments(rays, AXIS_COLOURS[axis], 0.45, 12)];
}

export function mirrorPlane(bounds: Box, axis: number, h: number): Object3D[] {
  const others = [0, 1, 2].filter((a) => a !== axis) as [number, number];
  const e = boxEnd(bounds);
  const centre = [0, 1, 2].map((a) => (a === axis ? h / 2 : (bounds.min[a]! + e[a]!) / 2)) as [number, number, number];
  const size = others.map((a) => bounds.size[a]! + 1.2);
  const corner = (su: number, sv: number): number[] => {
    const p = [...centre];
    p[others[0]]! += (su * size[0]!) / 2;
    p[others[1]]! += (sv * size[1]!) / 2;
    return p;
  };
  const ring = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const outline = segments(
    ring.flatMap((p, i) => [...p, ...ring[(i + 1) % 4]!]),
    AXIS_COLOURS[axis]!,
    0.8,
    12,
    true,
  );
  const plane = new Mesh(
    new BufferGeometry().setAttribute(
      'position',
      new Float32BufferAttribute([ring[0]!, ring[1]!, ring[2]!, ring[0]!, ring[2]!, ring[3]!].flat(), 3),
    ),
    fillMaterial(AXIS_COLOURS[axis]!, 0.07),
  );
  plane.renderOrder = 8;
  return [outline, plane];
}

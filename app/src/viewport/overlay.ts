import { type Box, type Mat4, type Vec3, boxEnd } from '@sphalerite/core/math';
import {
  BoxGeometry, BufferAttribute, BufferGeometry, CanvasTexture, CylinderGeometry, DoubleSide, EdgesGeometry, Float32BufferAttribute, Group, LineBasicMaterial, LineSegments,
  Matrix4, Mesh, MeshBasicMaterial, type Object3D, Points, PointsMaterial, TorusGeometry, Vector3,
} from 'three';

/** A joint as it is drawn. */
export interface JointMark {
  readonly at: Vec3;
  readonly parent: Vec3 | null;
  readonly selected: boolean;
  readonly side: 'left' | 'right' | 'centre';
}

/** What is drawn over the parts. Places of cells are in the lattice that `lattice` takes to the world. */
export interface Overlay {
  readonly lattice: Mat4 | null;
  readonly bounds: Box | null;
  readonly cells: readonly Box[];
  /** Cells whose faces towards a normal are meant. */
  readonly faces: readonly { readonly cell: Vec3; readonly normal: Vec3 }[];
  readonly erasing: boolean;
  /** Half cubes, null where the axis is off. */
  readonly mirror: readonly [number | null, number | null, number | null];
  readonly cursor: Vec3 | null;
  readonly joints: readonly JointMark[];
  /** Rings to turn by: where and how turned. */
  readonly rings: { readonly at: Vec3; readonly axes: readonly Vec3[]; readonly radius: number; readonly hot: number } | null;
  /** Arrows to move by. */
  readonly arrows: { readonly at: Vec3; readonly axes: readonly Vec3[]; readonly length: number; readonly hot: number } | null;
}
export const NO_OVERLAY: Overlay = {
  lattice: null, bounds: null, cells: [], faces: [], erasing: false, mirror: [null, null, null], cursor: null, joints: [], rings: null, arrows: null,
};

const AXIS_COLOURS = [0xb8352b, 0x3b8a38, 0x2c66b3] as const;
const HONEY = 0xe3a127;
const DANGER = 0xc0392b;

/** Draws an overlay; its shapes are made anew on every change, which is cheap for so few. */
export class OverlayView {
  readonly group = new Group();
  private readonly dot = pointMaterial('#ffffff', '#3a322b', 13);
  private readonly honeyDot = pointMaterial('#f0b648', '#5a2a0e', 18);

  set(o: Overlay): void {
    for (const child of [...this.group.children]) dispose(child);
    this.group.clear();
    if (o.lattice) {
      const local = new Group();
      local.matrixAutoUpdate = false;
      local.matrix = new Matrix4().fromArray(o.lattice as number[]);
      this.addLattice(local, o);
      this.group.add(local);
    }
    this.addSkeleton(o);
    if (o.rings) this.addRings(o.rings);
    if (o.arrows) this.addArrows(o.arrows);
  }

  private addLattice(into: Group, o: Overlay): void {
    if (o.bounds) into.add(boxLines(o.bounds, 0x6f665c, 0.5, true, 0));
    const colour = o.erasing ? DANGER : HONEY;
    for (const b of o.cells.slice(0, 400)) {
      into.add(boxLines(b, colour, 1, false, 0.02), boxFill(b, colour, 0.22));
    }
    if (o.faces.length > 0) into.add(...faceMarks(o.faces, colour));
    if (o.cursor) into.add(boxLines({ min: o.cursor, size: [1, 1, 1] }, 0x22665f, 1, false, 0.06), boxFill({ min: o.cursor, size: [1, 1, 1] }, 0x4ba592, 0.35));
    if (o.bounds) o.mirror.forEach((h, axis) => h !== null && into.add(...mirrorPlane(o.bounds!, axis, h)));
  }

  private addSkeleton(o: Overlay): void {
    if (o.joints.length === 0) return;
    for (const j of o.joints) if (j.parent) this.group.add(boneBody(j.parent, j.at, j.selected));
    const points = (list: readonly JointMark[], material: PointsMaterial): void => {
      if (list.length === 0) return;
      const g = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(list.flatMap((j) => [...j.at]), 3));
      const p = new Points(g, material);
      p.renderOrder = 22;
      this.group.add(p);
    };
    points(o.joints.filter((j) => !j.selected), this.dot);
    points(o.joints.filter((j) => j.selected), this.honeyDot);
  }

  private addRings({ at, axes, radius, hot }: NonNullable<Overlay['rings']>): void {
    axes.forEach((axis, i) => {
      const ring = new Mesh(new TorusGeometry(radius, radius * (hot === i ? 0.028 : 0.015), 6, 72), onTop(AXIS_COLOURS[i]!, hot === -1 || hot === i ? 0.95 : 0.35));
      ring.position.set(...at);
      ring.lookAt(at[0] + axis[0], at[1] + axis[1], at[2] + axis[2]);
      ring.renderOrder = 23;
      this.group.add(ring);
    });
  }

  private addArrows({ at, axes, length, hot }: NonNullable<Overlay['arrows']>): void {
    axes.forEach((axis, i) => {
      const end: Vec3 = [at[0] + axis[0] * length, at[1] + axis[1] * length, at[2] + axis[2] * length];
      this.group.add(segments([...at, ...end], AXIS_COLOURS[i]!, hot === -1 || hot === i ? 1 : 0.4, 23));
      const head = new Mesh(new BoxGeometry(length * 0.1, length * 0.1, length * 0.1), onTop(AXIS_COLOURS[i]!, hot === -1 || hot === i ? 1 : 0.4));
      head.position.set(...end);
      head.renderOrder = 23;
      this.group.add(head);
    });
  }
}

/**
 * Materials live on while geometries come and go: a material let go takes its shader program along, and
 * compiling that anew with every move of the pointer cost 150 ms a frame.
 */
const materials = new Map<string, LineBasicMaterial | MeshBasicMaterial>();
function shared<M extends LineBasicMaterial | MeshBasicMaterial>(key: string, make: () => M): M {
  const known = materials.get(key);
  if (known) return known as M;
  const m = make();
  materials.set(key, m);
  return m;
}
const lineMaterial = (color: number, opacity: number, depthTest: boolean): LineBasicMaterial =>
  shared(`line ${color} ${opacity} ${depthTest}`, () => new LineBasicMaterial({ color, opacity, transparent: true, depthTest }));
const fillMaterial = (color: number, opacity: number): MeshBasicMaterial =>
  shared(`fill ${color} ${opacity}`, () => new MeshBasicMaterial({ color, opacity, transparent: true, depthWrite: false, side: DoubleSide }));
const onTop = (color: number, opacity: number): MeshBasicMaterial =>
  shared(`top ${color} ${opacity}`, () => new MeshBasicMaterial({ color, opacity, transparent: true, depthTest: false, depthWrite: false }));

function segments(points: number[], color: number, opacity: number, order: number, depthTest = false): LineSegments {
  const l = new LineSegments(new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3)), lineMaterial(color, opacity, depthTest));
  l.renderOrder = order;
  return l;
}

/** A bone from its parent's joint to its own: a slim body, thick where it begins. */
function boneBody(from: Vec3, to: Vec3, selected: boolean): Mesh {
  const a = new Vector3(...from), b = new Vector3(...to);
  const length = Math.max(0.01, a.distanceTo(b));
  const body = new Mesh(new CylinderGeometry(0.12, Math.min(0.62, 0.14 + length * 0.06), length, 4), onTop(selected ? HONEY : 0x3a322b, selected ? 0.85 : 0.42));
  body.position.copy(a).add(b).multiplyScalar(0.5);
  body.quaternion.setFromUnitVectors(new Vector3(0, 1, 0), b.sub(a).normalize());
  body.renderOrder = selected ? 21 : 20;
  return body;
}

function boxLines(b: Box, color: number, opacity: number, behind: boolean, grow: number): LineSegments {
  const g = new EdgesGeometry(new BoxGeometry(b.size[0] + grow, b.size[1] + grow, b.size[2] + grow));
  const l = new LineSegments(g, lineMaterial(color, opacity, behind));
  const e = boxEnd(b);
  l.position.set((b.min[0] + e[0]) / 2, (b.min[1] + e[1]) / 2, (b.min[2] + e[2]) / 2);
  l.renderOrder = 10;
  return l;
}

function boxFill(b: Box, color: number, opacity: number): Mesh {
  const m = new Mesh(new BoxGeometry(b.size[0] + 0.03, b.size[1] + 0.03, b.size[2] + 0.03), fillMaterial(color, opacity));
  const e = boxEnd(b);
  m.position.set((b.min[0] + e[0]) / 2, (b.min[1] + e[1]) / 2, (b.min[2] + e[2]) / 2);
  m.renderOrder = 9;
  return m;
}

/** Soft fill over every face and a line where the region ends. */
function faceMarks(faces: readonly { cell: Vec3; normal: Vec3 }[], color: number): Object3D[] {
  const positions: number[] = [], lines: number[] = [];
  const groups = new Map<string, Set<string>>();
  for (const f of faces) {
    const key = f.normal.join();
    groups.set(key, (groups.get(key) ?? new Set()).add(f.cell.join()));
  }
  for (const { cell, normal } of faces) {
    const axis = normal.findIndex((n) => n !== 0);
    const u = (axis + 1) % 3, v = (axis + 2) % 3;
    const at = (du: number, dv: number): number[] => {
      const p = [...cell] as number[];
      p[axis]! += normal[axis]! > 0 ? 1.02 : -0.02;
      p[u]! += du;
      p[v]! += dv;
      return p;
    };
    positions.push(...at(0, 0), ...at(1, 0), ...at(1, 1), ...at(0, 0), ...at(1, 1), ...at(0, 1));
    const has = (du: number, dv: number): boolean => {
      const c = [...cell] as number[];
      c[u]! += du;
      c[v]! += dv;
      return groups.get(normal.join())!.has(c.join());
    };
    if (!has(-1, 0)) lines.push(...at(0, 0), ...at(0, 1));
    if (!has(1, 0)) lines.push(...at(1, 0), ...at(1, 1));
    if (!has(0, -1)) lines.push(...at(0, 0), ...at(1, 0));
    if (!has(0, 1)) lines.push(...at(0, 1), ...at(1, 1));
  }
  const fill = new Mesh(
    new BufferGeometry().setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3)),
    fillMaterial(color, 0.32),
  );
  fill.renderOrder = 9;
  return [fill, segments(lines, color, 1, 11)];
}

function mirrorPlane(bounds: Box, axis: number, h: number): Object3D[] {
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
  const outline = segments(ring.flatMap((p, i) => [...p, ...ring[(i + 1) % 4]!]), AXIS_COLOURS[axis]!, 0.8, 12, true);
  const plane = new Mesh(
    new BufferGeometry().setAttribute('position', new Float32BufferAttribute([ring[0]!, ring[1]!, ring[2]!, ring[0]!, ring[2]!, ring[3]!].flat(), 3)),
    fillMaterial(AXIS_COLOURS[axis]!, 0.07),
  );
  plane.renderOrder = 8;
  return [outline, plane];
}

const pointMaterial = (fill: string, edge: string, size: number): PointsMaterial =>
  new PointsMaterial({ map: discTexture(fill, edge), size, sizeAttenuation: false, transparent: true, depthTest: false, depthWrite: false });

function discTexture(fill: string, edge: string): CanvasTexture {
  const c = document.createElement('canvas');
  c.width = c.height = 64;
  const g = c.getContext('2d')!;
  g.beginPath();
  g.arc(32, 32, 25, 0, Math.PI * 2);
  g.fillStyle = fill;
  g.fill();
  g.lineWidth = 6;
  g.strokeStyle = edge;
  g.stroke();
  return new CanvasTexture(c);
}

function dispose(o: Object3D): void {
  o.traverse((child) => {
    (child as Mesh).geometry?.dispose();
  });
}

import { type Axis, type Box, type Mat4, type Vec3, boxEnd } from '@sphalerite/core/math';
import type { CellSet } from '@sphalerite/core/voxel';
import { setSurface } from './set-surface';
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

export type Tone = 'honey' | 'danger' | 'verdigris' | 'x' | 'y' | 'z' | 'quiet';
/** A set of cells with a soft fill and an outline. */
export interface Mark {
  /** A set, or plain boxes, which cost nothing however large. */
  readonly set: CellSet | readonly Box[];
  readonly tone: Tone;
  /** 0–1; the outline alone when 0. */
  readonly fill: number;
  /** Seen through what stands before it. */
  readonly through?: boolean;
}
/** A handle to drag: a small square at a place of the lattice. */
export interface Spot {
  readonly at: Vec3;
  readonly tone: Tone;
  readonly hot: boolean;
}
export interface Stroke3 {
  readonly from: Vec3;
  readonly to: Vec3;
  readonly tone: Tone;
}
/** A picture on a plane of the lattice: across the axis, at a depth, from a corner and of a size on the other two. */
export interface Picture {
  readonly image: string;
  readonly axis: Axis;
  readonly depth: number;
  readonly at: readonly [number, number];
  readonly size: readonly [number, number];
  readonly opacity: number;
}
/** A plain figure to judge size by: boxes in the world. */
export interface Figure {
  readonly boxes: readonly { readonly min: Vec3; readonly size: Vec3 }[];
}

/** What is drawn over the parts. Places of cells are in the lattice that `lattice` takes to the world. */
export interface Overlay {
  readonly lattice: Mat4 | null;
  readonly bounds: Box | null;
  readonly marks: readonly Mark[];
  /** Cells whose faces towards a normal are meant. */
  readonly faces: readonly { readonly cell: Vec3; readonly normal: Vec3 }[];
  readonly erasing: boolean;
  /** The box that the cutaway leaves visible. */
  readonly cut: Box | null;
  readonly guide: { readonly axis: Axis; readonly at: number } | null;
  /** Where the axis of a radial stands, in cubes. */
  readonly spin: { readonly axis: Axis; readonly at: Vec3; readonly count: number } | null;
  readonly spots: readonly Spot[];
  readonly strokes: readonly Stroke3[];
  readonly pictures: readonly Picture[];
  readonly figure: Figure | null;
  /** Half cubes, null where the axis is off. */
  readonly mirror: readonly [number | null, number | null, number | null];
  readonly cursor: Vec3 | null;
  readonly joints: readonly JointMark[];
  /** Rings to turn by: where and how turned. */
  readonly rings: { readonly at: Vec3; readonly axes: readonly Vec3[]; readonly radius: number; readonly hot: number } | null;
  /** Arrows to move by. */
  readonly arrows: { readonly at: Vec3; readonly axes: readonly Vec3[]; readonly length: number; readonly hot: number; readonly head?: number } | null;
}
export const NO_OVERLAY: Overlay = {
  lattice: null, bounds: null, marks: [], faces: [], erasing: false, cut: null, guide: null, spin: null, spots: [], strokes: [], pictures: [], figure: null, mirror: [null, null, null], cursor: null, joints: [], rings: null, arrows: null,
};

const AXIS_COLOURS = [0xb8352b, 0x3b8a38, 0x2c66b3] as const;
const HONEY = 0xe3a127;
const DANGER = 0xc0392b;
const TONES: Record<Tone, number> = { honey: HONEY, danger: DANGER, verdigris: 0x22665f, x: AXIS_COLOURS[0], y: AXIS_COLOURS[1], z: AXIS_COLOURS[2], quiet: 0x6f665c };

/** Draws an overlay; its shapes are made anew on every change, which is cheap for so few. */
export class OverlayView {
  readonly group = new Group();

  /** @param changed – called when something that had to be loaded is there */
  constructor(private readonly changed: () => void = () => undefined) {}
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
    if (o.figure) for (const b of o.figure.boxes) this.group.add(boxFill(b, 0x6f665c, 0.4), boxLines(b, 0x6f665c, 0.55, true, 0));
    this.addSkeleton(o);
    if (o.rings) this.addRings(o.rings);
    if (o.arrows) this.addArrows(o.arrows);
    const used = new Set<unknown>(o.marks.map((m) => m.set));
    for (const [set, g] of surfaces) {
      if (used.has(set)) continue;
      g.fill.dispose();
      g.lines.dispose();
      surfaces.delete(set);
    }
  }

  private addLattice(into: Group, o: Overlay): void {
    if (o.bounds) into.add(boxLines(o.bounds, 0x6f665c, 0.5, true, 0));
    const colour = o.erasing ? DANGER : HONEY;
    for (const m of o.marks) into.add(...markOf(m));
    if (o.cut) into.add(boxLines(o.cut, TONES.verdigris, 0.9, false, 0));
    if (o.guide && o.bounds) into.add(...guidePlane(o.bounds, o.guide.axis, o.guide.at / 2));
    if (o.spin && o.bounds) into.add(...spinAxis(o.bounds, o.spin.axis, o.spin.at, o.spin.count));
    for (const s of o.strokes) into.add(segments([...s.from, ...s.to], TONES[s.tone], 0.9, 12));
    for (const p of o.pictures) into.add(pictureOn(p, this.changed));
    for (const hot of [false, true]) {
      const list = o.spots.filter((s) => s.hot === hot);
      for (const tone of new Set(list.map((s) => s.tone))) into.add(spotPoints(list.filter((s) => s.tone === tone), tone, hot));
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

  private addArrows({ at, axes, length, hot, head: edge = length * 0.1 }: NonNullable<Overlay['arrows']>): void {
    axes.forEach((axis, i) => {
      const end: Vec3 = [at[0] + axis[0] * length, at[1] + axis[1] * length, at[2] + axis[2] * length];
      this.group.add(segments([...at, ...end], AXIS_COLOURS[i]!, hot === -1 || hot === i ? 1 : 0.4, 23));
      const head = new Mesh(new BoxGeometry(edge, edge, edge), onTop(AXIS_COLOURS[i]!, hot === -1 || hot === i ? 1 : 0.4));
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

const surfaces = new Map<CellSet, { fill: BufferGeometry; lines: BufferGeometry }>();
/** A set's surface, made once for as long as the set is shown; see `OverlayView.set` for when it goes. */
function markOf(m: Mark): Object3D[] {
  if (Array.isArray(m.set)) return (m.set as readonly Box[]).flatMap((b) => [boxLines(b, TONES[m.tone], 1, !m.through, 0.02), ...(m.fill > 0 ? [boxFill(b, TONES[m.tone], m.fill)] : [])]);
  const cells = m.set as CellSet;
  let g = surfaces.get(cells);
  if (!g) {
    const { triangles, lines } = setSurface(cells);
    g = {
      fill: new BufferGeometry().setAttribute('position', new Float32BufferAttribute(triangles, 3)),
      lines: new BufferGeometry().setAttribute('position', new Float32BufferAttribute(lines, 3)),
    };
    surfaces.set(cells, g);
  }
  const out: Object3D[] = [];
  if (m.fill > 0) {
    const fill = new Mesh(g.fill, m.through ? onTop(TONES[m.tone], m.fill) : fillMaterial(TONES[m.tone], m.fill));
    fill.renderOrder = 9;
    out.push(fill);
  }
  const lines = new LineSegments(g.lines, lineMaterial(TONES[m.tone], 1, !m.through));
  lines.renderOrder = 11;
  out.push(lines);
  // Shared: kept for the next drawing.
  for (const part of out) part.userData['keep'] = true;
  return out;
}

/** A level of the volume with a line every cube, fainter the finer. */
function guidePlane(bounds: Box, axis: Axis, at: number): Object3D[] {
  const u = ((axis + 1) % 3) as Axis, v = ((axis + 2) % 3) as Axis;
  const e = boxEnd(bounds);
  const point = (pu: number, pv: number): number[] => {
    const p = [0, 0, 0];
    p[axis] = at;
    p[u] = pu;
    p[v] = pv;
    return p;
  };
  const fine: number[] = [], bold: number[] = [];
  for (let i = bounds.min[u]; i <= e[u]; i++) (i % 8 === 0 ? bold : fine).push(...point(i, bounds.min[v]), ...point(i, e[v]));
  for (let i = bounds.min[v]; i <= e[v]; i++) (i % 8 === 0 ? bold : fine).push(...point(bounds.min[u], i), ...point(e[u], i));
  const ring = [point(bounds.min[u], bounds.min[v]), point(e[u], bounds.min[v]), point(e[u], e[v]), point(bounds.min[u], e[v])];
  const plane = new Mesh(new BufferGeometry().setAttribute('position', new Float32BufferAttribute([ring[0]!, ring[1]!, ring[2]!, ring[0]!, ring[2]!, ring[3]!].flat(), 3)), fillMaterial(TONES.verdigris, 0.1));
  plane.renderOrder = 8;
  return [plane, segments(fine, TONES.verdigris, 0.22, 8, true), segments(bold, TONES.verdigris, 0.5, 8, true), segments(ring.flatMap((p, i) => [...p, ...ring[(i + 1) % 4]!]), TONES.verdigris, 1, 12, true)];
}

/** The axis of a radial with a ray for each copy. */
function spinAxis(bounds: Box, axis: Axis, at: Vec3, count: number): Object3D[] {
  const u = ((axis + 1) % 3) as Axis, v = ((axis + 2) % 3) as Axis;
  const lo = [...at], hi = [...at];
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

const images = new Map<string, { texture: CanvasTexture; ready: boolean }>();
function pictureOn(p: Picture, changed: () => void): Mesh {
  let known = images.get(p.image);
  if (!known) {
    const canvas = document.createElement('canvas');
    const entry = { texture: new CanvasTexture(canvas), ready: false };
    entry.texture.colorSpace = 'srgb';
    images.set(p.image, known = entry);
    const img = new Image();
    img.onload = () => {
      canvas.width = img.naturalWidth;
      canvas.height = img.naturalHeight;
      canvas.getContext('2d')!.drawImage(img, 0, 0);
      entry.texture.dispose();
      entry.texture.needsUpdate = true;
      entry.ready = true;
      changed();
    };
    img.src = p.image;
  }
  // Left to right and bottom to top of the picture: x y from the front, z y from the side, x z from above.
  const [u, v]: readonly [Axis, Axis] = p.axis === 2 ? [0, 1] : p.axis === 0 ? [2, 1] : [0, 2];
  const point = (s: number, t: number): number[] => {
    const at = [0, 0, 0];
    at[p.axis] = p.depth;
    at[u] = p.at[0] + s * p.size[0];
    at[v] = p.at[1] + t * p.size[1];
    return at;
  };
  const flip = p.axis === 1;
  const uv = (s: number, t: number): number[] => [s, flip ? 1 - t : t];
  const g = new BufferGeometry();
  const corners = [[0, 0], [1, 0], [1, 1], [0, 0], [1, 1], [0, 1]] as const;
  g.setAttribute('position', new Float32BufferAttribute(corners.flatMap(([s, t]) => point(s, t)), 3));
  g.setAttribute('uv', new Float32BufferAttribute(corners.flatMap(([s, t]) => uv(s, t)), 2));
  const m = new Mesh(g, shared(`picture ${p.image.length} ${p.image.slice(-40)} ${p.opacity}`, () => new MeshBasicMaterial({ map: known.texture, transparent: true, opacity: p.opacity, side: DoubleSide, depthWrite: false, toneMapped: false })));
  m.renderOrder = 1;
  m.visible = known.ready;
  return m;
}

const spotMaterials = new Map<string, PointsMaterial>();
function spotPoints(spots: readonly Spot[], tone: Tone, hot: boolean): Points {
  const key = `${tone} ${hot}`;
  let m = spotMaterials.get(key);
  if (!m) spotMaterials.set(key, m = pointMaterial(hot ? '#f0b648' : '#ffffff', `#${TONES[tone].toString(16).padStart(6, '0')}`, hot ? 19 : 15, true));
  const p = new Points(new BufferGeometry().setAttribute('position', new Float32BufferAttribute(spots.flatMap((s) => [...s.at]), 3)), m);
  p.renderOrder = 24;
  return p;
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

const pointMaterial = (fill: string, edge: string, size: number, square = false): PointsMaterial =>
  new PointsMaterial({ map: dotTexture(fill, edge, square), size, sizeAttenuation: false, transparent: true, depthTest: false, depthWrite: false });

function dotTexture(fill: string, edge: string, square: boolean): CanvasTexture {
  const c = document.createElement('canvas');
  c.width = c.height = 64;
  const g = c.getContext('2d')!;
  g.beginPath();
  if (square) g.rect(10, 10, 44, 44);
  else g.arc(32, 32, 25, 0, Math.PI * 2);
  g.fillStyle = fill;
  g.fill();
  g.lineWidth = 6;
  g.strokeStyle = edge;
  g.stroke();
  return new CanvasTexture(c);
}

function dispose(o: Object3D): void {
  o.traverse((child) => {
    if (!child.userData['keep']) (child as Mesh).geometry?.dispose();
  });
}

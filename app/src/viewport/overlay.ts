import { type Axis, type Box, type Mat4, type Vec3, cross, length, normalize, scale, sub } from '@sphalerite/core/math';
import {
  BufferGeometry,
  Float32BufferAttribute,
  Group,
  Matrix4,
  Mesh,
  type Object3D,
  Points,
  type PointsMaterial,
} from 'three';
import type { DrawnGizmo } from './gizmo';
import { gizmoObjects } from './overlay-gizmo';
import { cellFloor, guidePlane, mirrorPlane, spinAxis } from './overlay-guides';
import { type Mark, cornerMarks, faceMarks, keepSurfacesOf, markOf } from './overlay-marks';
import { HONEY, TONES, type Tone, boxFill, boxLines, onTop, pointMaterial, segments } from './overlay-materials';
import { type Picture, keepPictures, pictureOn } from './overlay-pictures';

export type { Mark } from './overlay-marks';
export type { Tone } from './overlay-materials';
export type { Picture } from './overlay-pictures';

/** A joint as it is drawn. */
export interface JointMark {
  readonly at: Vec3;
  readonly parent: Vec3 | null;
  readonly selected: boolean;
  readonly side: 'left' | 'right' | 'centre';
  /** Whether it steers others: a square, where joints are round. */
  readonly control?: boolean;
  /** Drawn faintly, so that the figure is seen. */
  readonly dim?: boolean;
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
  /** The volume whose floor shows its cells, while it is empty. */
  readonly floor: Box | null;
  /** Boxes of what is selected or floats. */
  readonly corners: readonly Box[];
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
  /** Attachment points: where they are and where they point, in the world. */
  readonly points: readonly { readonly at: Vec3; readonly to: Vec3 }[];
  readonly gizmo: DrawnGizmo | null;
  /** A file as it was read back, drawn as it is; whoever read it lets it go. */
  readonly arrived: Object3D | null;
}

export const NO_OVERLAY: Overlay = {
  lattice: null,
  bounds: null,
  marks: [],
  faces: [],
  floor: null,
  corners: [],
  erasing: false,
  cut: null,
  guide: null,
  spin: null,
  spots: [],
  strokes: [],
  pictures: [],
  figure: null,
  mirror: [null, null, null],
  cursor: null,
  joints: [],
  points: [],
  gizmo: null,
  arrived: null,
};

/** Draws an overlay; its shapes are made anew on every change, which is cheap for so few. */
export class OverlayView {
  readonly group = new Group();

  /** @param changed – called when something that had to be loaded is there */
  constructor(private readonly changed: () => void = () => undefined) {}
  /** By side, as in trees and lanes. */
  private readonly dots = {
    left: pointMaterial('#ffffff', '#7d5a98', 13),
    centre: pointMaterial('#ffffff', '#3a322b', 13),
    right: pointMaterial('#ffffff', '#22766c', 13),
  };
  private readonly dimDot = pointMaterial('#ffffff', '#3a322b', 6, false);
  private readonly controlDot = pointMaterial('#cfe8df', '#22665f', 15, true);
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
    if (o.figure)
      for (const b of o.figure.boxes) this.group.add(boxFill(b, 0x6f665c, 0.4), boxLines(b, 0x6f665c, 0.55, true, 0));
    this.addSkeleton(o);
    if (o.arrived) this.group.add(o.arrived);
    if (o.gizmo) this.group.add(...gizmoObjects(o.gizmo));
    keepSurfacesOf(o.marks);
  }

  private addLattice(into: Group, o: Overlay): void {
    if (o.bounds) into.add(boxLines(o.bounds, 0x6f665c, 0.5, true, 0));
    const colour = o.erasing ? TONES.danger : HONEY;
    for (const m of o.marks) into.add(...markOf(m));
    if (o.floor) into.add(...cellFloor(o.floor));
    for (const b of o.corners) into.add(...cornerMarks(b));
    if (o.cut) into.add(boxLines(o.cut, TONES.verdigris, 0.9, false, 0));
    if (o.guide && o.bounds) into.add(...guidePlane(o.bounds, o.guide.axis, o.guide.at / 2));
    if (o.spin && o.bounds) into.add(...spinAxis(o.bounds, o.spin.axis, o.spin.at, o.spin.count));
    for (const s of o.strokes) into.add(segments([...s.from, ...s.to], TONES[s.tone], 0.9, 12));
    for (const p of o.pictures) into.add(pictureOn(p, this.changed));
    keepPictures(o.pictures);
    for (const hot of [false, true]) {
      const list = o.spots.filter((s) => s.hot === hot);
      for (const tone of new Set(list.map((s) => s.tone)))
        into.add(
          spotPoints(
            list.filter((s) => s.tone === tone),
            tone,
            hot,
          ),
        );
    }
    if (o.faces.length > 0) into.add(...faceMarks(o.faces, colour));
    if (o.cursor)
      into.add(
        boxLines({ min: o.cursor, size: [1, 1, 1] }, 0x22665f, 1, false, 0.06),
        boxFill({ min: o.cursor, size: [1, 1, 1] }, 0x4ba592, 0.35),
      );
    if (o.bounds) o.mirror.forEach((h, axis) => h !== null && into.add(...mirrorPlane(o.bounds!, axis, h)));
  }

  private addSkeleton(o: Overlay): void {
    for (const p of o.points) this.group.add(segments([...p.at, ...p.to], TONES.honey, 0.95, 24));
    if (o.joints.length === 0) return;
    for (const kind of ['dim', 'plain', 'selected'] as const) {
      const list = o.joints.filter((j) => j.parent && kindOf(j) === kind);
      if (list.length > 0) this.group.add(boneBodies(list, kind));
    }
    const points = (list: readonly JointMark[], material: PointsMaterial): void => {
      if (list.length === 0) return;
      const g = new BufferGeometry().setAttribute(
        'position',
        new Float32BufferAttribute(
          list.flatMap((j) => [...j.at]),
          3,
        ),
      );
      const p = new Points(g, material);
      p.renderOrder = 22;
      this.group.add(p);
    };
    points(
      o.joints.filter((j) => kindOf(j) === 'dim'),
      this.dimDot,
    );
    for (const side of ['left', 'centre', 'right'] as const)
      points(
        o.joints.filter((j) => kindOf(j) === 'plain' && !j.control && j.side === side),
        this.dots[side],
      );
    points(
      o.joints.filter((j) => kindOf(j) === 'plain' && j.control),
      this.controlDot,
    );
    points(
      o.joints.filter((j) => j.selected),
      this.honeyDot,
    );
  }
}

const spotMaterials = new Map<string, PointsMaterial>();

function spotPoints(spots: readonly Spot[], tone: Tone, hot: boolean): Points {
  const key = `${tone} ${hot}`;
  let m = spotMaterials.get(key);
  if (!m)
    spotMaterials.set(
      key,
      (m = pointMaterial(
        hot ? '#f0b648' : '#ffffff',
        `#${TONES[tone].toString(16).padStart(6, '0')}`,
        hot ? 19 : 15,
        true,
      )),
    );
  const p = new Points(
    new BufferGeometry().setAttribute(
      'position',
      new Float32BufferAttribute(
        spots.flatMap((s) => [...s.at]),
        3,
      ),
    ),
    m,
  );
  p.renderOrder = 24;
  return p;
}

/** Corners of the two squares of a body, the thick one first, as the triangles of its sides and ends. */
const BODY = [
  0, 1, 5, 0, 5, 4, 1, 2, 6, 1, 6, 5, 2, 3, 7, 2, 7, 6, 3, 0, 4, 3, 4, 7, 0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7,
];

const kindOf = (j: JointMark): 'dim' | 'plain' | 'selected' => (j.selected ? 'selected' : j.dim ? 'dim' : 'plain');
/** Those that are not meant let the figure through. */
const BODY_OPACITY = { dim: 0.1, plain: 0.26, selected: 0.85 } as const;

/** Bones from their parents' joints to their own: slim bodies, thick where they begin. One mesh, since a rig may have thousands. */
export function boneBodies(joints: readonly JointMark[], kind: 'dim' | 'plain' | 'selected'): Mesh {
  const positions = new Float32Array(joints.length * BODY.length * 3);
  let at = 0;
  for (const j of joints) {
    const from = j.parent!,
      along = sub(j.at, from),
      long = Math.max(0.01, length(along)),
      d = length(along) > 0 ? scale(along, 1 / long) : ([0, 1, 0] as const);
    const u = normalize(cross(d, Math.abs(d[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0])),
      v = cross(d, u);
    const corner = (k: number): Vec3 => {
      const [end, wide] = k < 4 ? [from, Math.min(0.62, 0.14 + long * 0.06)] : [j.at, 0.12];
      const a = k % 4 === 0 ? wide : k % 4 === 2 ? -wide : 0,
        b = k % 4 === 1 ? wide : k % 4 === 3 ? -wide : 0;
      return [end[0] + a * u[0] + b * v[0], end[1] + a * u[1] + b * v[1], end[2] + a * u[2] + b * v[2]];
    };
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map(corner);
    for (const k of BODY) {
      positions.set(corners[k]!, at);
      at += 3;
    }
  }
  const bodies = new Mesh(
    new BufferGeometry().setAttribute('position', new Float32BufferAttribute(positions, 3)),
    onTop(kind === 'selected' ? HONEY : 0x3a322b, BODY_OPACITY[kind]),
  );
  bodies.renderOrder = kind === 'selected' ? 21 : 20;
  return bodies;
}

function dispose(o: Object3D): void {
  o.traverse((child) => {
    if (!child.userData['keep']) (child as Mesh).geometry?.dispose();
  });
}

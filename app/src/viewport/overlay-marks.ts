import type { Box, Vec3 } from '@sphalerite/core/math';
import type { CellSet } from '@sphalerite/core/voxel';
import {
  BoxGeometry,
  BufferAttribute,
  BufferGeometry,
  Float32BufferAttribute,
  LineSegments,
  Mesh,
  type Object3D,
} from 'three';
import {
  HONEY,
  INK,
  type Tone,
  TONES,
  boxFill,
  boxLines,
  fillMaterial,
  hatchMaterial,
  lineMaterial,
  onTop,
  segments,
} from './overlay-materials';
import { setSurface } from './set-surface';

/** A set of cells with a soft fill and an outline. */
export interface Mark {
  /** A set, or plain boxes, which cost nothing however large. */
  readonly set: CellSet | readonly Box[];
  readonly tone: Tone;
  /** 0–1; the outline alone when 0. */
  readonly fill: number;
  /** Seen through what stands before it. */
  readonly through?: boolean;
  /** The fill alone. */
  readonly bare?: boolean;
  /** In stripes, since its tone may be that of the cubes under it. */
  readonly hatched?: boolean;
}

/** Cubes that a leg of a corner mark is long at most, and the share of the edge it takes of short ones. */
const LEG = 2,
  SHARE = 0.3;
/** Cubes along the longest edge from which on marks grow with the box. */
const FAR = 14;
/** Ink-and-honey marks at the corners of the box of what is selected: three legs each, seen through what stands before. */
export function cornerMarks(b: Box): Object3D[] {
  // What is large is looked at from afar.
  const k = Math.max(1, Math.max(...b.size) / FAR);
  const legs = (thick: number, colour: number, order: number): Mesh => {
    const positions: number[] = [];
    for (let corner = 0; corner < 8; corner++)
      for (let axis = 0; axis < 3; axis++) {
        const lo = [0, 0, 0],
          hi = [0, 0, 0];
        for (let a = 0; a < 3; a++) {
          const high = ((corner >> a) & 1) === 1;
          const at = high ? b.min[a]! + b.size[a]! : b.min[a]!;
          const long = a === axis ? Math.min(LEG * k, b.size[a]! * SHARE) : 0;
          lo[a] = at - thick - (high ? long : 0);
          hi[a] = at + thick + (high ? 0 : long);
        }
        const leg = new BoxGeometry(hi[0]! - lo[0]!, hi[1]! - lo[1]!, hi[2]! - lo[2]!).toNonIndexed();
        leg.translate((lo[0]! + hi[0]!) / 2, (lo[1]! + hi[1]!) / 2, (lo[2]! + hi[2]!) / 2);
        positions.push(...leg.getAttribute('position').array);
        leg.dispose();
      }
    const g = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(positions, 3));
    const m = new Mesh(g, onTop(colour, 0.95));
    m.renderOrder = order;
    return m;
  };
  return [legs(0.11 * k, INK, 20), legs(0.055 * k, HONEY, 21)];
}

const surfaces = new Map<CellSet, { fill: BufferGeometry; lines: BufferGeometry }>();

function lineOf(g: BufferGeometry, m: Mark): LineSegments {
  const lines = new LineSegments(g, lineMaterial(TONES[m.tone], 1, !m.through));
  lines.renderOrder = 11;
  return lines;
}

/** A set's surface, made once for as long as the set is shown; see {@link keepSurfacesOf} for when it goes. */
export function markOf(m: Mark): Object3D[] {
  if (Array.isArray(m.set))
    return (m.set as readonly Box[]).flatMap((b) => [
      boxLines(b, TONES[m.tone], 1, !m.through, 0.02),
      ...(m.fill > 0 ? [boxFill(b, TONES[m.tone], m.fill, m.hatched)] : []),
    ]);
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
    const material = m.through ? onTop : m.hatched ? hatchMaterial : fillMaterial;
    const fill = new Mesh(g.fill, material(TONES[m.tone], m.fill));
    fill.renderOrder = 9;
    out.push(fill);
  }
  if (!m.bare) out.push(lineOf(g.lines, m));
  // Shared: kept for the next drawing.
  for (const part of out) part.userData['keep'] = true;
  return out;
}

/** Soft fill over every face and a line where the region ends. */
export function faceMarks(faces: readonly { cell: Vec3; normal: Vec3 }[], color: number): Object3D[] {
  const positions: number[] = [],
    lines: number[] = [];
  const groups = new Map<string, Set<string>>();
  for (const f of faces) {
    const key = f.normal.join();
    groups.set(key, (groups.get(key) ?? new Set()).add(f.cell.join()));
  }
  for (const { cell, normal } of faces) {
    const axis = normal.findIndex((n) => n !== 0);
    const u = (axis + 1) % 3,
      v = (axis + 2) % 3;
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

/** Lets go of the surfaces of sets that are shown no more. */
export function keepSurfacesOf(marks: readonly Mark[]): void {
  const used = new Set<unknown>(marks.map((m) => m.set));
  for (const [set, g] of surfaces) {
    if (used.has(set)) continue;
    g.fill.dispose();
    g.lines.dispose();
    surfaces.delete(set);
  }
}

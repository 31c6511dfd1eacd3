import type { Box, Vec3 } from '@sphalerite/core/math';
import type { CellSet } from '@sphalerite/core/voxel';
import { BufferAttribute, BufferGeometry, Float32BufferAttribute, LineSegments, Mesh, type Object3D } from 'three';
import { type Tone, TONES, boxFill, boxLines, fillMaterial, lineMaterial, onTop, segments } from './overlay-materials';
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
}

const surfaces = new Map<CellSet, { fill: BufferGeometry; lines: BufferGeometry }>();

/** A set's surface, made once for as long as the set is shown; see {@link keepSurfacesOf} for when it goes. */
export function markOf(m: Mark): Object3D[] {
  if (Array.isArray(m.set))
    return (m.set as readonly Box[]).flatMap((b) => [
      boxLines(b, TONES[m.tone], 1, !m.through, 0.02),
      ...(m.fill > 0 ? [boxFill(b, TONES[m.tone], m.fill)] : []),
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

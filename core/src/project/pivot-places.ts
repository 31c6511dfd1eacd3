import {
  FACE_DIRECTIONS,
  type Mat4,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  invertMat,
  mapVec,
  matrixOf,
  mulMat,
  scale,
  transformPoint,
  withAxis,
} from '../math';
import {
  type Id,
  type Part,
  type Project,
  composite,
  find,
  makeMount,
  must,
  partContent,
  partsInUse,
  pivotPoint,
} from '../model';
import { mountMatrix, restWorld } from '../rig';
import { CellSet } from '../voxel';
import { EditError } from './edit-error';
import { piecesOf } from './edits/take-apart';

export const PIVOT_PLACES = ['centre', 'base', 'floor', 'neighbour', 'cut'] as const;
/**
 * Where a pivot is put by itself: the middle of the cubes, of their base, on the floor under it, where the part touches the neighbour
 * that it touches most, or in the middle of the cut that it was taken off by.
 */
export type PivotPlace = (typeof PIVOT_PLACES)[number];

/** From a part's lattice to rig space at rest, where it is mounted first. */
function latticeToRest(project: Project, part: Part): Mat4 {
  const m = project.rig.mounts.find((o) => o.part === part.id) ?? makeMount('', part.id, null);
  const bone = m.bone === null ? undefined : restWorld(project.rig).get(m.bone);
  return mulMat(matrixOf(bone ?? TRANSFORM_IDENTITY), mountMatrix(m, part));
}

/** The middle of the faces of `part` that look into cubes of `other` at rest, however either is turned, with their number; in cubes. */
function touching(project: Project, part: Part, other: Part): { readonly faces: number; readonly middle: Vec3 } {
  const to = mulMat(invertMat(latticeToRest(project, other)), latticeToRest(project, part));
  const cells = CellSet.filled(composite(part)),
    theirs = composite(other);
  let faces = 0,
    sum: Vec3 = [0, 0, 0];
  for (const step of FACE_DIRECTIONS)
    cells.minus(cells.moved([-step[0], -step[1], -step[2]])).forEach((x, y, z) => {
      const middle: Vec3 = [x + 0.5, y + 0.5, z + 0.5];
      const [a, b, c] = mapVec(transformPoint(to, add(middle, step)), Math.floor);
      if (theirs.get(a, b, c) === 0) return;
      faces++;
      sum = add(sum, add(middle, scale(step, 0.5)));
    });
  return { faces, middle: faces > 0 ? scale(sum, 1 / faces) : sum };
}

/** Where a part touches that of others which it touches most; null when it touches none. */
function mostTouching(project: Project, part: Part, others: readonly Part[]): Vec3 | null {
  let most = 0,
    at: Vec3 | null = null;
  for (const other of others) {
    if (other.id === part.id || other.hidden || composite(other).count === 0) continue;
    const { faces, middle } = touching(project, part, other);
    if (faces > most) [most, at] = [faces, middle];
  }
  return at;
}

/** The middle of the cut: as it was proposed when the part was taken off its whole, else where it touches what hangs above it. */
function cutOf(project: Project, part: Part): Vec3 | null {
  const whole = part.origin && find(project.parts, part.origin.whole);
  if (whole) {
    const pieces = piecesOf(whole, whole.name);
    const i = pieces.pieces.findIndex((p) => p.region === part.origin!.region);
    if (i >= 0 && i !== pieces.root) return scale(pieces.pivots[i]!, (0.5 * whole.cell) / part.cell);
  }
  const { mounts, bones } = project.rig;
  let bone = find(bones, mounts.find((m) => m.part === part.id)?.bone ?? '')?.parent ?? null;
  while (bone !== null) {
    const above = mounts.filter((m) => m.bone === bone).flatMap((m) => find(project.parts, m.part) ?? []);
    const at = mostTouching(project, part, above);
    if (at) return at;
    bone = find(bones, bone)?.parent ?? null;
  }
  return null;
}

/**
 * The pivot of a part at such a place, in half cubes of its lattice.
 *
 * @throws EditError when there is no such place: an empty part, one that touches nothing, one that was not cut off
 */
export function pivotAt(project: Project, id: Id, place: PivotPlace): Vec3 {
  const part = must(project.parts, id, 'part');
  const box = partContent(part);
  if (!box) throw new EditError('pivot.empty', { part: part.name });
  const middle = mapVec(box.min, (v, i) => 2 * v + box.size[i]!);
  const halves = (at: Vec3 | null, code: 'pivot.touchesNone' | 'pivot.noCut'): Vec3 => {
    if (!at) throw new EditError(code, { part: part.name });
    return mapVec(at, (v) => Math.round(2 * v));
  };
  switch (place) {
    case 'centre':
      return middle;
    case 'base':
      return withAxis(middle, 1, 2 * box.min[1]);
    case 'floor': {
      const m = latticeToRest(project, part);
      const down = withAxis(transformPoint(m, pivotPoint(part)), 1, 0);
      return mapVec(transformPoint(invertMat(m), down), (v) => Math.round(2 * v));
    }
    case 'neighbour':
      return halves(mostTouching(project, part, partsInUse(project.parts)), 'pivot.touchesNone');
    case 'cut':
      return halves(cutOf(project, part), 'pivot.noCut');
  }
}

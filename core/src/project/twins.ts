import {
  type Axis,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  composeTransform,
  equals,
  mirrorQuat,
  relativeTransform,
  rotate,
  sub,
  withAxis,
  mapVec,
} from '../math';
import {
  type Mount,
  type Part,
  type Project,
  type TwinOf,
  composite,
  find,
  facesTurned,
  mapGrids,
  withFaceIds,
  pivotPoint,
  replaceRecord,
} from '../model';
import { moveJoint, restWorld } from '../rig';
import { CellSet, type VoxelGrid, mirrorImage } from '../voxel';

/** The mirror image of a place across a plane square to `axis`. Scales stay positive: what stands there is mirrored itself. */
export function mirroredTransform(m: Transform, axis: Axis, plane: number): Transform {
  return { t: withAxis(m.t, axis, 2 * plane - m.t[axis]), q: mirrorQuat(m.q, axis), s: m.s };
}

/**
 * `to` with the mirrored cubes, volume and pivot of `from`. Layers of the two are told apart by the twin's id at their end, so
 * that each keeps its own from edit to edit.
 */
function follow(from: Part, to: Part, axis: Axis, twin: string): Part {
  const end = `_${twin}`;
  const layerId = (id: string): string =>
    to.id === twin ? `${id.slice(0, 30)}${end}` : id.endsWith(end) ? id.slice(0, -end.length) : id;
  const image = mapGrids({ ...from, regions: null }, (g) => mirrorImage(g, axis));
  return {
    ...to,
    layers: image.layers.map((l) => ({ ...l, id: layerId(l.id) })),
    regions: null,
    faceSlots: withFaceIds(facesTurned(image.faceSlots, axis), layerId),
    palette: from.palette,
    cell: from.cell,
    bounds: {
      min: withAxis(from.bounds.min, axis, -from.bounds.min[axis] - from.bounds.size[axis]),
      size: from.bounds.size,
    },
    pivot: withAxis(from.pivot, axis, -from.pivot[axis]),
  };
}

const sameShape = (a: Part, b: Part): boolean =>
  a.layers === b.layers &&
  a.faceSlots === b.faceSlots &&
  a.bounds === b.bounds &&
  a.pivot === b.pivot &&
  a.cell === b.cell &&
  a.palette === b.palette;
const samePlace = (a: Mount | undefined, b: Mount | undefined): boolean =>
  a === b ||
  (a !== undefined &&
    b !== undefined &&
    (a.bone !== b.bone || (equals(a.t, b.t) && equals(a.s, b.s) && a.q.every((v, i) => v === b.q[i]))));
const mountOf = (p: Project, part: Part): Mount | undefined => p.rig.mounts.find((m) => m.part === part.id);

/**
 * The project with every mirrored twin brought in line with its source after an edit, or the source with its twin where
 * the edit changed only the twin: a stroke on either is a stroke on both. The pivot and the mount follow too, and with the
 * pivot the joint of the other side's bone. A twin whose source is gone stands on its own.
 */
export function withTwins(before: Project, after: Project): Project {
  let out = after;
  if (after.parts === before.parts && after.rig === before.rig) return after;
  for (const { id } of after.parts) {
    const twin = find(out.parts, id)!;
    if (!twin.twin) continue;
    const source = find(out.parts, twin.twin.source);
    if (!source) {
      out = { ...out, parts: replaceRecord(out.parts, { ...twin, twin: null }) };
      continue;
    }
    const twinBefore = find(before.parts, twin.id),
      sourceBefore = find(before.parts, source.id);
    const fresh = twinBefore?.twin !== twin.twin;
    const led = !fresh && sourceBefore && twinBefore && sameShape(source, sourceBefore) && !sameShape(twin, twinBefore);
    if (fresh || led || !sourceBefore || !sameShape(source, sourceBefore)) {
      const [lead, other] = led ? [twin, source] : [source, twin];
      out = { ...out, parts: replaceRecord(out.parts, follow(lead, other, twin.twin.axis, twin.id)) };
      // Layers that were made on the twin get its kind of id.
      if (led)
        out = {
          ...out,
          parts: replaceRecord(out.parts, follow(find(out.parts, source.id)!, twin, twin.twin.axis, twin.id)),
        };
    }
    out = placed(before, out, twin.twin, find(out.parts, source.id)!, find(out.parts, id)!, fresh);
  }
  return out;
}

/** Brings the mounts of a pair in line: whichever changed leads; both when the pivot did. */
function placed(before: Project, after: Project, how: TwinOf, source: Part, twin: Part, fresh: boolean): Project {
  const changed = (part: Part): boolean => {
    const old = find(before.parts, part.id);
    return !old || !equals(old.pivot, part.pivot) || !samePlace(mountOf(before, part), mountOf(after, part));
  };
  const led = !fresh && !changed(source) && changed(twin);
  if (!fresh && !led && !changed(source)) return after;
  const [lead, other] = led ? [twin, source] : [source, twin];
  const from = mountOf(after, lead),
    to = mountOf(after, other);
  if (!from || !to) return after;
  let out = after;
  const world = restWorld(out.rig),
    worldBefore = restWorld(before.rig);
  const at = (bone: string | null, map = world): Transform =>
    bone === null ? TRANSFORM_IDENTITY : (map.get(bone) ?? TRANSFORM_IDENTITY);
  const place = mirroredTransform(composeTransform(at(from.bone), from), how.axis, how.plane);
  const mount: Mount = { ...to, ...relativeTransform(at(to.bone), place) };
  out = { ...out, rig: { ...out.rig, mounts: replaceRecord(out.rig.mounts, mount) } };
  // A joint that was moved with the pivot moves on the other side too; cubes stay where they are on both.
  if (
    !fresh &&
    from.bone !== null &&
    to.bone !== null &&
    from.bone !== to.bone &&
    worldBefore.has(from.bone) &&
    worldBefore.has(to.bone)
  ) {
    const moved = sub(at(from.bone).t, at(from.bone, worldBefore).t),
      stayed = equals(at(to.bone).t, at(to.bone, worldBefore).t);
    const pivoted = !equals(find(before.parts, lead.id)?.pivot ?? lead.pivot, lead.pivot);
    if (pivoted && stayed && !equals(moved, [0, 0, 0]))
      out = { ...out, ...moveJoint(out.rig, out.parts, to.bone, withAxis(moved, how.axis, -moved[how.axis])) };
  }
  return out;
}

/** Two parts that are about each other's mirror image. */
export interface TwinPair {
  /** The one on the character's left. */
  readonly source: Part;
  readonly other: Part;
  readonly twin: Pick<TwinOf, 'axis' | 'plane'>;
  /** Where `other` differs from the image of `source`, in the lattice of `other`. */
  readonly differ: CellSet;
  /** Share of cells that are alike, 0–1. */
  readonly share: number;
}

/** Larger parts are not compared: looking would be felt. */
const MOST_CUBES = 200_000;
/** How alike two parts must be to be offered as a pair. */
const ALIKE = 0.8;

interface Likeness {
  readonly shift: Vec3;
  readonly share: number;
  readonly differ: CellSet;
}
const compared = new WeakMap<VoxelGrid, WeakMap<VoxelGrid, Likeness>>();

/** How well `b` is the mirror image of `a` across X, at the shift that suits best. Memoised. */
function likeness(a: VoxelGrid, b: VoxelGrid): Likeness {
  const known = compared.get(a)?.get(b);
  if (known) return known;
  const image = mirrorImage(a, 0);
  const p = image.contentBox()!,
    q = b.contentBox()!;
  const choices = ([0, 1, 2] as const).map((i) => [
    ...new Set([q.min[i] - p.min[i], q.min[i] + q.size[i] - p.min[i] - p.size[i]]),
  ]);
  let best: { shift: Vec3; same: number } = { shift: [0, 0, 0], same: -1 };
  for (const x of choices[0]!)
    for (const y of choices[1]!)
      for (const z of choices[2]!) {
        let same = 0;
        image.forEach((cx, cy, cz, v) => {
          if (b.get(cx + x, cy + y, cz + z) === v) same++;
        });
        if (same > best.same) best = { shift: [x, y, z], same };
      }
  const [x, y, z] = best.shift;
  const odd: Vec3[] = [];
  image.forEach((cx, cy, cz, v) => {
    if (b.get(cx + x, cy + y, cz + z) !== v) odd.push([cx + x, cy + y, cz + z]);
  });
  b.forEach((cx, cy, cz) => {
    if (image.get(cx - x, cy - y, cz - z) === 0) odd.push([cx, cy, cz]);
  });
  const out: Likeness = {
    shift: best.shift,
    share: best.same / Math.max(a.count, b.count),
    differ: CellSet.ofCells(odd),
  };
  if (!compared.has(a)) compared.set(a, new WeakMap());
  compared.get(a)!.set(b, out);
  return out;
}

/** Left and right among the parts that stand for themselves, best pairs first; each part in one pair at most. */
export function findTwins(project: Project): TwinPair[] {
  const world = restWorld(project.rig);
  const sources = new Set(project.parts.map((p) => p.twin?.source));
  const list = project.parts
    .filter((p) => !p.hidden && !p.twin && !sources.has(p.id))
    .map((part) => ({ part, grid: composite(part), mount: mountOf(project, part) }))
    .filter((p) => p.grid.count > 0 && p.grid.count < MOST_CUBES);
  const worldPoint = (part: Part, mount: Mount | undefined, cell: Vec3): Vec3 => {
    const frame = mount
      ? composeTransform(
          mount.bone === null ? TRANSFORM_IDENTITY : (world.get(mount.bone) ?? TRANSFORM_IDENTITY),
          mount,
        )
      : TRANSFORM_IDENTITY;
    const local = mapVec(sub(cell, pivotPoint(part)), (v, i) => v * part.cell * frame.s[i]!);
    const r = rotate(frame.q, local);
    return [r[0] + frame.t[0], r[1] + frame.t[1], r[2] + frame.t[2]];
  };
  const pairs: TwinPair[] = [];
  for (let i = 0; i < list.length; i++)
    for (let j = i + 1; j < list.length; j++) {
      let a = list[i]!,
        b = list[j]!;
      if (
        a.part.cell !== b.part.cell ||
        a.part.palette !== b.part.palette ||
        (a.part.side === b.part.side && a.part.side !== 'centre')
      )
        continue;
      const few = Math.min(a.grid.count, b.grid.count),
        many = Math.max(a.grid.count, b.grid.count);
      const sa = a.grid.contentBox()!.size,
        sb = b.grid.contentBox()!.size;
      if (few < ALIKE * many || sa.some((s, k) => Math.abs(s - sb[k]!) > 2)) continue;
      if (a.part.side === 'right' || b.part.side === 'left') [a, b] = [b, a];
      const like = likeness(a.grid, b.grid);
      if (like.share < ALIKE) continue;
      const box = a.grid.contentBox()!;
      const middle = mapVec(box.min, (m, k) => m + box.size[k]! / 2);
      const here = worldPoint(a.part, a.mount, middle),
        there = worldPoint(b.part, b.mount, [
          like.shift[0] - middle[0],
          like.shift[1] + middle[1],
          like.shift[2] + middle[2],
        ]);
      const apart = Math.abs(here[0] - there[0]),
        near = a.part.cell * 1.5;
      const named = a.part.name === b.part.name && a.part.side !== b.part.side;
      // Pieces of a neck are alike too; a left and a right stand opposite one another.
      if (!named && (apart < near || Math.abs(here[1] - there[1]) > near || Math.abs(here[2] - there[2]) > near))
        continue;
      const plane = (here[0] + there[0]) / 2;
      const turned = a.part.side === 'centre' && b.part.side === 'centre' && here[0] < there[0];
      const swapped = turned ? likeness(b.grid, a.grid) : like;
      pairs.push({
        source: turned ? b.part : a.part,
        other: turned ? a.part : b.part,
        twin: { axis: 0, plane },
        differ: swapped.differ,
        share: swapped.share,
      });
    }
  const taken = new Set<string>();
  return pairs
    .sort((a, b) => b.share - a.share)
    .filter((p) => {
      if (taken.has(p.source.id) || taken.has(p.other.id)) return false;
      taken.add(p.source.id).add(p.other.id);
      return true;
    });
}

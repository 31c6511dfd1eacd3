import { FACE_DIRECTIONS, type Mat4, type Steps, type Vec3, invertMat, mulMat, transformPoint } from '../../math';
import type { FaceLabels } from '../../mesh';
import type { Id, Project } from '../../model';
import type { Palette } from '../../palette';
import { type DrawInstance, type DrawList, clipFrames, gather, instanceExtent } from '../../scene';
import { outsideOf } from '../../sculpt';
import { VoxelGrid } from '../../voxel';

/** Faces that nobody ever sees, by the part they are of. */
export interface HiddenFaces {
  readonly of: ReadonlyMap<Id, NonNullable<FaceLabels['dropped']>>;
  /** How many another part hides in every clip. */
  readonly covered: number;
  /** How many look into closed hollows of their own part. */
  readonly inner: number;
  /** The part that has most of both; null when there are none. */
  readonly worst: Id | null;
}

/** How far in front of a face one must be inside another part's cube, in cubes. */
const AHEAD = 0.02;
/** Points of a face that are looked at: near its corners and in its middle. */
const SPOTS: readonly (readonly [number, number])[] = [
  [0.03, 0.03],
  [0.97, 0.03],
  [0.03, 0.97],
  [0.97, 0.97],
  [0.5, 0.5],
];

/** A face that may be hidden, by its cell and direction. */
type Face = readonly [x: number, y: number, z: number, direction: number];

/**
 * The faces that are inside other parts at rest and at every frame of every clip that goes into files, and those that look into closed
 * hollows: nobody ever sees them. What lets light through hides nothing. In pieces.
 */
export function* hiddenFacesSteps(project: Project): Steps<HiddenFaces> {
  const clips = project.clips.filter((c) => c.ships);
  const rest = gather(project, { of: 'rig' });
  const faces = new Map<Id, Face[]>();
  for (const instance of rest)
    if (instance.geometry.kind === 'grid') faces.set(instance.source.part!, exposed(instance.geometry.grid));
  const sift = (list: DrawList): void => {
    for (const instance of list) {
      const mine = faces.get(instance.source.part!);
      if (mine && mine.length > 0) faces.set(instance.source.part!, stillHidden(mine, instance, list));
    }
  };
  sift(rest);
  for (const [i, clip] of clips.entries()) {
    for (const list of clipFrames(project, clip)) sift(list);
    yield (i + 1) / clips.length;
  }
  let covered = 0,
    innerCount = 0,
    most = 0,
    worst: Id | null = null;
  const of = new Map<Id, NonNullable<FaceLabels['dropped']>>();
  for (const { geometry, palette, source } of rest) {
    const id = source.part!;
    if (geometry.kind !== 'grid' || of.has(id)) continue;
    const mine = faces.get(id)!,
      hollow = innerFaces(geometry.grid, clearBytes(palette));
    covered += mine.length;
    innerCount += hollow.length;
    const all = [...mine, ...hollow];
    if (all.length === 0) continue;
    if (all.length > most) [most, worst] = [all.length, id];
    of.set(
      id,
      FACE_DIRECTIONS.map((_, d) => {
        const looking = all.filter((f) => f[3] === d);
        return looking.length === 0
          ? null
          : VoxelGrid.empty(geometry.grid.bounds).edit((draft) =>
              looking.forEach(([x, y, z]) => draft.set(x, y, z, 1)),
            );
      }),
    );
  }
  return { of, covered, inner: innerCount, worst };
}

const clearBytes = (palette: Palette): ReadonlySet<number> =>
  new Set(palette.swatches.filter((s) => s.opacity < 1).map((s) => s.byte));

/** Faces that look into hollows which no way from outside leads to; none in parts with cubes that let light through. */
function innerFaces(grid: VoxelGrid, clear: ReadonlySet<number>): Face[] {
  const faces = exposed(grid);
  if (faces.some(([x, y, z]) => clear.has(grid.get(x, y, z)))) return [];
  const outside = outsideOf(grid);
  return faces.filter(([x, y, z, d]) => {
    const [dx, dy, dz] = FACE_DIRECTIONS[d]!;
    return !outside.has(x + dx, y + dy, z + dz);
  });
}

function exposed(grid: VoxelGrid): Face[] {
  const out: Face[] = [];
  grid.forEach((x, y, z) =>
    FACE_DIRECTIONS.forEach(([dx, dy, dz], d) => {
      if (grid.get(x + dx, y + dy, z + dz) === 0) out.push([x, y, z, d]);
    }),
  );
  return out;
}

const overlap = (a: DrawInstance, b: DrawInstance): boolean => {
  const [p, q] = [instanceExtent(a), instanceExtent(b)];
  return p !== null && q !== null && p.lo.every((v, i) => v <= q.hi[i]! + 1e-6 && q.lo[i]! <= p.hi[i]! + 1e-6);
};

function stillHidden(faces: readonly Face[], instance: DrawInstance, list: DrawList): Face[] {
  const others = list
    .filter((o) => o !== instance && o.geometry.kind === 'grid' && overlap(o, instance))
    .map((o) => ({
      to: mulMat(invertMat(o.matrix), instance.matrix),
      grid: (o.geometry as { readonly grid: VoxelGrid }).grid,
      clear: clearBytes(o.palette),
    }));
  if (others.length === 0) return [];
  const covered = (p: Vec3): boolean =>
    others.some(({ to, grid, clear }) => {
      const [x, y, z] = transformPoint(to as Mat4, p);
      const byte = grid.get(Math.floor(x), Math.floor(y), Math.floor(z));
      return byte !== 0 && !clear.has(byte);
    });
  return faces.filter(([x, y, z, d]) => {
    const axis = d >> 1;
    return SPOTS.every(([s, t]) => {
      const p: [number, number, number] = [x, y, z];
      p[axis]! += d % 2 === 0 ? 1 + AHEAD : -AHEAD;
      p[(axis + 1) % 3]! += s;
      p[(axis + 2) % 3]! += t;
      return covered(p);
    });
  });
}

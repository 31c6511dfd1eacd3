import { type Extent, type Mat4, type Vec3, invertMat, mulMat, placedExtent, transformPoint } from '../math';
import type { Clip, ClipFloor, Id, Project } from '../model';
import { frameTimes, sampleClip, withAlternatesAt } from '../motion';
import type { VoxelGrid } from '../voxel';
import type { DrawInstance, DrawList } from './draw-list';
import { gather } from './gather';

/** How near to the ground a corner counts as standing on it, in project units. */
const TOUCH = 0.15;
/** Parts whose lowest corner at rest is this near to the ground have soles. */
const SOLE = 0.6;

/** What one part does to the ground over a clip. All in project units; slide is per frame. */
export interface SoleTrack {
  readonly part: Id;
  /** Whether it stands on the ground at rest. */
  readonly sole: boolean;
  /** Height of its lowest corner above the ground at each frame; below zero it is through. */
  readonly height: readonly number[];
  /** How far what stands on the ground goes over it until the next frame; 0 while it is in the air. */
  readonly slide: readonly number[];
}
export interface ContactReport {
  readonly clip: Id;
  /** Ticks. */
  readonly times: readonly number[];
  readonly tracks: readonly SoleTrack[];
  /** How the ground goes under the figure, per frame: what most standing feet do. */
  readonly ground: readonly [x: number, z: number];
  /** Deepest through the ground, and when. */
  readonly depth: { readonly by: number; readonly frame: number; readonly part: Id | null };
  readonly slide: { readonly by: number; readonly frame: number; readonly part: Id | null };
}

const cornersOf = new WeakMap<VoxelGrid, readonly Vec3[]>();

/**
 * The corners of a part's cubes that can be lowest, whichever way it is turned: those that end a row of cubes along all three axes.
 * Every corner of the convex hull is one, so the lowest of these is the lowest of all.
 */
export function outerCorners(grid: VoxelGrid): readonly Vec3[] {
  const known = cornersOf.get(grid);
  if (known) return known;
  const reach = [
    new Map<string, [number, number]>(),
    new Map<string, [number, number]>(),
    new Map<string, [number, number]>(),
  ];
  const key = (p: readonly number[], axis: number): string => `${p[(axis + 1) % 3]} ${p[(axis + 2) % 3]}`;
  const each = (visit: (p: Vec3) => void): void =>
    grid.forEach((x, y, z) => {
      for (let c = 0; c < 8; c++) visit([x + (c & 1), y + ((c >> 1) & 1), z + (c >> 2)]);
    });
  each((p) => {
    for (const axis of [0, 1, 2]) {
      const k = key(p, axis),
        r = reach[axis]!.get(k),
        v = p[axis]!;
      if (!r) reach[axis]!.set(k, [v, v]);
      else if (v < r[0]) r[0] = v;
      else if (v > r[1]) r[1] = v;
    }
  });
  const out = new Map<string, Vec3>();
  each((p) => {
    if ([0, 1, 2].every((axis) => reach[axis]!.get(key(p, axis))!.includes(p[axis]!))) out.set(p.join(), p);
  });
  const list = [...out.values()];
  cornersOf.set(grid, list);
  return list;
}

/** What is drawn of the rig at each frame of a clip. */
export function clipFrames(project: Project, clip: Clip): DrawList[] {
  return frameTimes(clip).map((t) =>
    gather(withAlternatesAt(project, clip, t), { of: 'rig', pose: sampleClip(clip, project.rig, t) }),
  );
}

/** The cubes of an instance; those of the rig are all grids. */
function cubesOf({ geometry }: DrawInstance): VoxelGrid {
  if (geometry.kind !== 'grid') throw new Error('A terrain cube moves in no clip.');
  return geometry.grid;
}
const partOf = (i: DrawInstance): Id => i.source.part!;

interface Foot {
  readonly height: number;
  readonly standing: readonly Vec3[];
}

/**
 * Height of the ground at a place along Z, in project units. Steps go with the ground: on a figure that climbs on the spot they sink
 * as they come nearer.
 *
 * @param gone – how far the ground has gone along Z by then
 */
export function floorAt(floor: ClipFloor | null, z: number, gone = 0): number {
  if (!floor) return 0;
  const { height, rise, run } = floor;
  if (run === 0) return height + rise * z;
  // Right at an edge it is the lower of both: what touches the front of a step is not in it.
  const at = (z - gone) / run,
    step = (by: number): number => rise * Math.floor(at + by);
  return height + Math.min(step(1e-9), step(-1e-9)) + (rise / run) * gone;
}

/** @param level – height of the ground at a place along Z */
function footOf({ matrix }: DrawInstance, corners: readonly Vec3[], level: (z: number) => number): Foot {
  const standing: Vec3[] = [];
  let height = Infinity;
  for (const c of corners) {
    const z = matrix[2]! * c[0] + matrix[6]! * c[1] + matrix[10]! * c[2] + matrix[14]!;
    const y = matrix[1]! * c[0] + matrix[5]! * c[1] + matrix[9]! * c[2] + matrix[13]! - level(z);
    if (y < height) height = y;
    if (y < TOUCH) standing.push(c);
  }
  return { height, standing };
}

/**
 * Which frames put a part through the ground or let a standing one slide, from the real cubes at every frame. On a figure that walks
 * on the spot the ground goes back under it; its pace is what the median standing foot does, unless it is given.
 *
 * The ground is that of the clip: level, a slope or steps.
 *
 * @param ground – how the ground goes per frame; found when null
 */
export function contactReport(
  project: Project,
  clip: Clip,
  ground: readonly [number, number] | null = null,
  frames: readonly DrawList[] = clipFrames(project, clip),
): ContactReport {
  const rest = new Map(
    gather(project, { of: 'rig' }).map((i) => [partOf(i), footOf(i, outerCorners(cubesOf(i)), () => 0).height]),
  );
  const parts = new Map<Id, VoxelGrid>();
  for (const list of frames) for (const i of list) if (cubesOf(i).count > 0) parts.set(partOf(i), cubesOf(i));
  const isSole = (part: Id): boolean => (rest.get(part) ?? Infinity) < SOLE;
  const pace =
    ground ??
    paceOf(
      clip,
      frames,
      [...parts].filter(([part]) => isSole(part)),
    );
  const levels = frames.map(
    (_, f) =>
      (z: number): number =>
        floorAt(clip.floor, z, pace[1] * f),
  );
  const paces: Pace[] = [];
  const tracks = [...parts].map(([part, grid]): SoleTrack => {
    const corners = outerCorners(grid),
      height: number[] = [];
    frames.forEach((list, f) => {
      const now = list.find((i) => partOf(i) === part);
      if (!now) {
        height.push(Infinity);
        return;
      }
      const foot = footOf(now, corners, levels[f]!);
      height.push(foot.height);
      for (const step of stepsOf(now, frames[f + 1], foot, levels[f + 1])) paces.push({ ...step, part, frame: f });
    });
    return { part, sole: isSole(part), height, slide: frames.map(() => 0) };
  });
  const slides = new Map(tracks.map((t) => [t.part, t.slide as number[]]));
  for (const p of paces) {
    const list = slides.get(p.part)!;
    list[p.frame] = Math.max(list[p.frame]!, Math.hypot(p.x - pace[0], p.z - pace[1]));
  }
  let depth: ContactReport['depth'] = { by: 0, frame: 0, part: null },
    slide: ContactReport['slide'] = { by: 0, frame: 0, part: null };
  for (const t of tracks) {
    t.height.forEach((h, frame) => {
      if (-h > depth.by + 1e-9) depth = { by: -h, frame, part: t.part };
    });
    if (t.sole)
      t.slide.forEach((by, frame) => {
        if (by > slide.by + 1e-9) slide = { by, frame, part: t.part };
      });
  }
  return { clip: clip.id, times: frameTimes(clip), tracks, ground: pace, depth, slide };
}

interface Pace {
  readonly x: number;
  readonly z: number;
  readonly part: Id;
  readonly frame: number;
}

/** How each corner that stands now and in the next frame goes between the two. */
function stepsOf(
  now: DrawInstance,
  after: DrawList | undefined,
  foot: Foot,
  level: ((z: number) => number) | undefined,
): { x: number; z: number }[] {
  const next = after?.find((i) => partOf(i) === partOf(now));
  if (!next || !level) return [];
  return foot.standing.flatMap((c) => {
    const a = transformPoint(now.matrix, c),
      b = transformPoint(next.matrix, c);
    return b[1] - level(b[2]) < TOUCH ? [{ x: b[0] - a[0], z: b[2] - a[2] }] : [];
  });
}

/**
 * How the ground goes per frame, as the median standing sole does. Where steps are depends on that itself: there the sole that is
 * lowest over their slope stands.
 */
function paceOf(
  clip: Clip,
  frames: readonly DrawList[],
  soles: readonly (readonly [Id, VoxelGrid])[],
): readonly [x: number, z: number] {
  const { floor } = clip;
  const ramp = floor && floor.run > 0 ? { ...floor, rise: floor.rise / floor.run, run: 0 } : floor;
  const level = (z: number): number => floorAt(ramp, z);
  const walked = frames.flatMap((list, f) => {
    const feet = soles.flatMap(([part, grid]) => {
      const now = list.find((i) => partOf(i) === part);
      return now ? [{ now, foot: footOf(now, outerCorners(grid), level) }] : [];
    });
    if (ramp === floor) return feet.flatMap(({ now, foot }) => stepsOf(now, frames[f + 1], foot, level));
    const lowest = feet.sort((a, b) => a.foot.height - b.foot.height)[0];
    const next = lowest && frames[f + 1]?.find((i) => partOf(i) === partOf(lowest.now));
    if (!next) return [];
    const [a, b] = [lowest.now.matrix, next.matrix];
    return [{ x: b[12]! - a[12]!, z: b[14]! - a[14]! }];
  });
  return [median(walked.map((p) => p.x)), median(walked.map((p) => p.z))];
}

function median(list: readonly number[]): number {
  if (list.length === 0) return 0;
  const sorted = [...list].sort((a, b) => a - b),
    m = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[m]! : (sorted[m - 1]! + sorted[m]!) / 2;
}

/** Two parts that stand in one another more than they do at rest. */
export interface Clash {
  readonly a: Id;
  readonly b: Id;
  /** Cubes of the smaller part whose middles are inside the other, at the worst frame, beyond those at rest. */
  readonly cubes: number;
  readonly frame: number;
}

/**
 * Parts that pass through each other in a clip, the worst first. Parts of one bone, and of bones that hang on one another, meet in a
 * joint and are left to the joint study.
 */
export function clashes(
  project: Project,
  clip: Clip,
  frames: readonly DrawList[] = clipFrames(project, clip),
): Clash[] {
  const parentOf = new Map(project.rig.bones.map((b) => [b.id, b.parent]));
  const boneOf = new Map(project.rig.mounts.map((m) => [m.id, m.bone]));
  const joined = (a: Id | null, b: Id | null): boolean =>
    a === b || (a !== null && parentOf.get(a) === b) || (b !== null && parentOf.get(b) === a);
  const count = (small: DrawInstance, large: DrawInstance): number => {
    const m: Mat4 = mulMat(invertMat(large.matrix), small.matrix),
      grid = cubesOf(large);
    let n = 0;
    cubesOf(small).forEach((x, y, z) => {
      const p = transformPoint(m, [x + 0.5, y + 0.5, z + 0.5]);
      if (grid.get(Math.floor(p[0]), Math.floor(p[1]), Math.floor(p[2])) !== 0) n++;
    });
    return n;
  };
  const boxes = new WeakMap<DrawInstance, Extent | null>();
  const boxOf = (p: DrawInstance): Extent | null => {
    if (boxes.has(p)) return boxes.get(p)!;
    const b = cubesOf(p).contentBox();
    const box = b && placedExtent(p.matrix, b);
    boxes.set(p, box);
    return box;
  };
  const meets = (a: DrawInstance, b: DrawInstance): boolean => {
    const x = boxOf(a),
      y = boxOf(b);
    return x !== null && y !== null && [0, 1, 2].every((i) => x.lo[i]! < y.hi[i]! - 1e-6 && y.lo[i]! < x.hi[i]! - 1e-6);
  };
  const pairs = (list: readonly DrawInstance[], visit: (a: DrawInstance, b: DrawInstance) => void): void => {
    for (let i = 0; i < list.length; i++)
      for (let j = i + 1; j < list.length; j++) {
        const a = list[i]!,
          b = list[j]!;
        if (joined(boneOf.get(a.source.mount!) ?? null, boneOf.get(b.source.mount!) ?? null) || !meets(a, b)) continue;
        if (cubesOf(a).count <= cubesOf(b).count) visit(a, b);
        else visit(b, a);
      }
  };
  const key = (a: DrawInstance, b: DrawInstance): string => `${a.source.mount} ${b.source.mount}`;
  const rest = new Map<string, number>();
  pairs(gather(project, { of: 'rig' }), (a, b) => rest.set(key(a, b), count(a, b)));
  const worst = new Map<string, Clash>();
  frames.forEach((list, frame) =>
    pairs(list, (a, b) => {
      const cubes = count(a, b) - (rest.get(key(a, b)) ?? 0);
      if (cubes > (worst.get(key(a, b))?.cubes ?? 0))
        worst.set(key(a, b), { a: partOf(a), b: partOf(b), cubes, frame });
    }),
  );
  return [...worst.values()].sort((x, y) => y.cubes - x.cubes);
}

import { FACE_DIRECTIONS, type Steps, type Vec3 } from '../math';
import {
  type DeliveryProfile,
  type Id,
  type Part,
  type Project,
  composite,
  find,
  keptAside,
  must,
  partsInUse,
  sideSuffix,
  withoutHelpers,
} from '../model';
import { type Delivered, type Shipped, hiddenFacesSteps, shippedParts, solidExtent, solidSteps, spelt } from '../files';
import { loopGaps } from '../motion';
import { clipFrames, contactReport, gather, listExtent } from '../scene';
import { untidySteps } from '../sculpt';
import type { VoxelGrid } from '../voxel';
import { say } from '../words';
import { type CheckStep, checkProject } from './checks';
import { coplanarFaces } from './coplanar';

/** What a delivery is found to be: over its budget, worth a look, or in order. */
export interface DeliveryFinding {
  readonly level: 'over' | 'look' | 'fine';
  /** What kind of finding it is, the same in every language. */
  readonly code: string;
  readonly text: string;
  /** Where to mend it; null where nothing is to be shown. */
  readonly at: { readonly step: CheckStep; readonly id: Id; readonly frame?: number } | null;
  /** What would mend it in the delivery itself. */
  readonly does: 'drop hidden' | 'collider' | 'base' | null;
}
/** What the files of a delivery came to. */
export interface DeliveryFigures {
  readonly triangles: number;
  readonly bones: number;
  readonly draws: number;
  readonly texture: number;
  readonly kilobytes: number;
}

/** Formats of surfaces, which games show. */
const MESHES: readonly string[] = ['glb', 'gltf', 'obj'];
/** Cubes by which a foot may sink before it is told. */
const DEEP = 0.25;

/** The figures that budgets are about. */
export function deliveryFigures(project: Project, { formats, files }: Delivered): DeliveryFigures {
  const most = (key: string): number => Math.max(0, ...formats.map((f) => f.counts[key] ?? 0));
  return {
    triangles: most('triangles'),
    bones: project.rig.bones.length,
    draws: most('draws'),
    texture: most('texels'),
    kilobytes: Math.ceil(files.reduce((n, f) => n + f.bytes.length, 0) / 1024),
  };
}

/** Findings about budgets, by the delivery's own figures. */
export function budgetFindings(
  project: Project,
  { budget }: DeliveryProfile,
  figures: DeliveryFigures,
): DeliveryFinding[] {
  const limits: readonly (readonly [keyof DeliveryFigures, number])[] = [
    ['triangles', budget.triangles],
    ['bones', budget.bones],
    ['draws', budget.draws],
    ['texture', budget.texture],
    ['kilobytes', budget.kilobytes],
  ];
  const over = limits
    .filter(([key, most]) => most > 0 && figures[key] > most)
    .map(([key, most]): DeliveryFinding => ({
      level: 'over',
      code: `budget.${key}`,
      text: say(`delivery.over.${key}`, { now: figures[key], most }),
      at: key === 'bones' && project.rig.bones[0] ? { step: 'rig', id: project.rig.bones[0].id } : null,
      does: null,
    }));
  const held = limits.filter(([key, most]) => most > 0 && figures[key] > 0 && figures[key] <= most);
  if (over.length > 0 || held.length === 0) return over;
  const text = held.map(([key, most]) => say(`delivery.of.${key}`, { now: figures[key], most })).join(', ');
  return [{ level: 'fine', code: 'budget', text, at: null, does: null }];
}

const look = (
  code: string,
  text: string,
  at: DeliveryFinding['at'],
  does: DeliveryFinding['does'] = null,
): DeliveryFinding => ({ level: 'look', code, text, at, does });
const fine = (code: string, text: string): DeliveryFinding => ({ level: 'fine', code, text, at: null, does: null });
const quoted = (p: Part): string => `“${p.name}${sideSuffix(p.side)}”`;

/** What is found of a project whatever its delivery wishes: worked out once while options change. */
export interface StandingFindings {
  readonly loose: readonly DeliveryFinding[];
  readonly coplanar: readonly DeliveryFinding[];
  readonly clips: readonly DeliveryFinding[];
  readonly hidden: DeliveryFinding | null;
}

/**
 * {@link StandingFindings} of what is shipped; in pieces.
 *
 * @param meshes – whether any format shows surfaces: solids are united, nothing flickers or hides in them
 */
export function* standingFindingsSteps(whole: Project, what: Shipped, meshes: boolean): Steps<StandingFindings> {
  const project = withoutHelpers(whole);
  const only = what.of === 'rig' ? null : shippedParts(project, what);
  const { loose, coplanar } = yield* checkParts(project, only, meshes);
  yield 0.5;
  const clips = what.of === 'rig' ? yield* checkClips(project) : [];
  yield 0.8;
  return { loose, coplanar, clips, hidden: what.of === 'rig' && meshes ? yield* checkHidden(project) : null };
}

/**
 * Everything that is worth knowing before a delivery goes out, in plain words, with where to mend it; in pieces.
 *
 * @param figures – of the files themselves
 * @param standing – where it is known already; of the same project but for its deliveries
 */
export function* deliveryChecksSteps(
  whole: Project,
  what: Shipped,
  profile: DeliveryProfile,
  figures: DeliveryFigures,
  standing?: StandingFindings,
): Steps<DeliveryFinding[]> {
  const project = withoutHelpers(whole);
  const out: DeliveryFinding[] = budgetFindings(project, profile, figures);
  const only = what.of === 'part' ? what.part : null;
  for (const f of checkProject(project))
    if (only === null || f.id === only) out.push(look('project', f.text, { step: f.step, id: f.id }));
  yield 0.1;
  const { loose, coplanar, clips, hidden } =
    standing ?? (yield* standingFindingsSteps(whole, what, showsSurfaces(profile)));
  out.push(...loose, ...coplanar);
  if (profile.looks.clips) out.push(...clips);
  if (hidden && !profile.mesh.dropHidden) out.push(hidden);
  if (what.of === 'rig' && profile.mesh.watertight && showsSurfaces(profile))
    out.push(fine('watertight', say('delivery.watertight')));
  yield 0.85;
  if (what.of === 'rig') checkNames(project, profile, out);
  checkPlace(project, what, profile, out);
  if (profile.formats.some((f) => f === 'stl' || f === '3mf')) yield* checkPrint(project, what, profile, out);
  const order = { over: 0, look: 1, fine: 2 };
  return out.sort((a, b) => order[a.level] - order[b.level]);
}
/** Whether any format of a delivery shows surfaces. */
export const showsSurfaces = ({ formats }: DeliveryProfile): boolean => formats.some((f) => MESHES.includes(f));

/** Cubes that hang on nothing, and faces of parts that lie in those of others. */
function* checkParts(
  project: Project,
  only: ReadonlySet<Id> | null,
  meshes: boolean,
): Steps<{ loose: DeliveryFinding[]; coplanar: DeliveryFinding[] }> {
  const out: DeliveryFinding[] = [];
  const aside = keptAside(project.parts);
  const parts = partsInUse(project.parts).filter((p) => !aside.has(p.id) && !p.hidden && (only?.has(p.id) ?? true));
  const told = new Set<string>();
  let flicker = 0,
    most: { readonly part: Part; readonly other: Part; readonly faces: number } | null = null;
  for (const part of parts) {
    const { loose, loosePieces } = yield* untidySteps(composite(part));
    const n = loose.count;
    if (n > 0)
      out.push(
        look('loose', say('delivery.loose', { part: quoted(part), n, pieces: loosePieces }), {
          step: 'build',
          id: part.id,
        }),
      );
    if (!meshes || only !== null || !project.rig.mounts.some((m) => m.part === part.id)) continue;
    for (const { other, faces } of coplanarFaces(project, part.id)) {
      const key = [part.id, other.id].sort().join();
      if (told.has(key) || other.hidden) continue;
      told.add(key);
      flicker += faces;
      if (faces > (most?.faces ?? 0)) most = { part, other, faces };
    }
    yield 0.2;
  }
  if (!most) return { loose: out, coplanar: [] };
  const { part, other } = most;
  const text = say('delivery.coplanar', { n: flicker, part: quoted(part), other: quoted(other) });
  return { loose: out, coplanar: [look('coplanar', text, { step: 'rig', id: part.id })] };
}

/** Loops that do not close, and feet that go through the ground. */
function* checkClips(project: Project): Steps<DeliveryFinding[]> {
  const out: DeliveryFinding[] = [];
  const clips = project.clips.filter((c) => c.ships && c.lanes.length > 0);
  let open = 0;
  for (const clip of clips) {
    const gaps = clip.loop ? loopGaps(clip, project.rig) : [];
    if (gaps.length > 0) {
      open++;
      const bone = find(project.rig.bones, gaps[0]!.bone)?.name ?? '';
      out.push(look('loop', say('delivery.loop', { clip: clip.name, bone }), { step: 'animate', id: clip.id }));
    }
    const { depth, tracks } = contactReport(project, clip, null, clipFrames(project, clip));
    if (depth.part !== null && depth.by > DEEP && tracks.some((t) => t.sole && t.part === depth.part)) {
      const part = must(project.parts, depth.part, 'part');
      out.push(
        look(
          'floor',
          say('delivery.floor', { part: quoted(part), by: depth.by.toFixed(1), clip: clip.name, frame: depth.frame }),
          {
            step: 'animate',
            id: clip.id,
            frame: depth.frame,
          },
        ),
      );
    }
    yield 0.5;
  }
  if (clips.length > 0 && open === 0) out.push(fine('clips', say('delivery.clipsClose', { n: clips.length })));
  return out;
}

function* checkHidden(project: Project): Steps<DeliveryFinding | null> {
  const { covered, inner, worst } = yield* hiddenFacesSteps(project);
  const part = worst === null ? null : must(project.parts, worst, 'part');
  if (covered + inner === 0 || !part) return null;
  const text = say('delivery.hidden', { n: covered + inner, part: quoted(part) });
  return look('hidden', text, { step: 'build', id: part.id }, 'drop hidden');
}

/** Bones and parts that would bear one name in the file. */
function checkNames(project: Project, { names }: DeliveryProfile, out: DeliveryFinding[]): void {
  const told = new Set<string>();
  for (const list of [project.rig.bones, partsInUse(project.parts)]) {
    const known = new Map<string, string>();
    for (const o of list) {
      const name = spelt(o.name, o.side, names);
      const other = known.get(name);
      if (other !== undefined && !told.has(name)) {
        told.add(name);
        out.push(
          look('names', say('delivery.names', { name, one: other, other: o.name + sideSuffix(o.side) }), {
            step: 'rig',
            id: o.id,
          }),
        );
      }
      known.set(name, o.name + sideSuffix(o.side));
    }
  }
}

/** Size, origin and colliders. */
function checkPlace(project: Project, what: Shipped, profile: DeliveryProfile, out: DeliveryFinding[]): void {
  const extent = what.of === 'rig' ? listExtent(gather(project, { of: 'rig' })) : null;
  if (extent) {
    const { lo, hi } = extent,
      high = (hi[1] - lo[1]) * project.metresPerUnit;
    const wanted = project.target.height;
    if (wanted > 0 && Math.abs(high - wanted) > 0.1 * wanted)
      out.push(look('scale', say('delivery.height', { high: high.toFixed(2), wanted: wanted.toFixed(2) }), null));
    else if (project.kind === 'character' && (high < 0.4 || high > 4))
      out.push(look('scale', say('delivery.person', { high: high.toFixed(2) }), null));
    const off = [0, 2].map((a) => Math.abs(lo[a]! + hi[a]!) / 2 / Math.max(1, hi[a]! - lo[a]!));
    if (profile.place.origin === 'pivot' && Math.max(...off) > 0.25)
      out.push(look('origin', say('delivery.origin'), null, 'base'));
  }
  if (profile.collider.shape === 'none' && showsSurfaces(profile))
    out.push(look('collider', say('delivery.noCollider'), null, 'collider'));
}

/** Walls that are too thin to print, and cubes that hang on others by an edge alone. */
function* checkPrint(project: Project, what: Shipped, profile: DeliveryProfile, out: DeliveryFinding[]): Steps<void> {
  const model = yield* solidSteps(project, what, profile);
  const { lo, hi } = solidExtent(model);
  const { height, wall } = profile.print;
  for (const { grid, name, matrix } of model.bodies) {
    const edge = Math.hypot(matrix[0]!, matrix[1]!, matrix[2]!);
    const cube = edge * (height > 0 ? height / (hi[1] - lo[1]) : project.metresPerUnit * 1000);
    const { thin, edges } = printFlaws(grid, Math.ceil(wall / cube - 1e-9));
    if (thin > 0) out.push(look('wall', say('delivery.thin', { body: name, n: thin, wall }), null));
    if (edges > 0) out.push(look('edge', say('delivery.edges', { body: name, n: edges }), null));
  }
  if (model.bodies.length > 1) out.push(look('bodies', say('delivery.bodies', { now: model.bodies.length }), null));
}

/**
 * What would break in a print: cubes whose wall is thinner than `wall` cubes whichever way it is measured along the axes, and pairs of
 * cubes that meet in an edge and nowhere else.
 */
export function printFlaws(grid: VoxelGrid, wall: number): { readonly thin: number; readonly edges: number } {
  let thin = 0,
    edges = 0;
  const filled = (x: number, y: number, z: number): boolean => grid.get(x, y, z) !== 0;
  grid.forEach((x, y, z) => {
    if (wall > 1 && FACE_DIRECTIONS.some((d, i) => i % 2 === 0 && run(grid, [x, y, z], d, wall) < wall)) thin++;
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [0, 2],
    ] as const)
      for (const way of [1, -1]) {
        const p: [number, number, number] = [x, y, z],
          q: [number, number, number] = [x, y, z],
          r: [number, number, number] = [x, y, z];
        p[a] += 1;
        p[b] += way;
        q[a] += 1;
        r[b] += way;
        if (filled(...p) && !filled(...q) && !filled(...r)) edges++;
      }
  });
  return { thin, edges };
}

/** How many filled cells stand in a row through one, along a direction, up to `most`. */
function run(grid: VoxelGrid, [x, y, z]: Vec3, [dx, dy, dz]: Vec3, most: number): number {
  let n = 1;
  for (const way of [1, -1])
    for (let k = 1; n < most && grid.get(x + way * k * dx, y + way * k * dy, z + way * k * dz) !== 0; k++) n++;
  return n;
}

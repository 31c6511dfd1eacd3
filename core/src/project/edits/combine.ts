import { TRANSFORM_IDENTITY, type Vec3, relativeTransform, scale } from '../../math';
import {
  GROUP,
  type Id,
  type Part,
  type Placement,
  type Project,
  appended,
  changed,
  composite,
  must,
  replaceRecord,
  usersOfParts,
  worldOfPlacement,
} from '../../model';
import { type Palette, appended as appendedSwatches } from '../../palette';
import { type DrawInstance, gather, gatherRig } from '../../scene';
import { type Body, type Combining, type Meeting, combined, meetingOf, tilesOf } from '../../sculpt';
import { CellSet, MAX_EDGE, type VoxelGrid, connectedPieces, piecesSet } from '../../voxel';
import { say } from '../../words';
import { partsToBin } from '../bin';
import { type EditContext, EditError, defineEdit } from '../edit';
import { freeAmong } from '../bringing';
import { hangingIn } from './scene-tree';
import { mustPlacement, sceneName, withScene } from './scenes';

/** What things come to when they are combined, told before it is done. */
export interface CombinePlan {
  readonly meeting: Meeting;
  /** Names of those that are looked up cell by cell, being turned by no quarter or of cubes that do not meet. */
  readonly resampled: readonly string[];
  readonly size: Vec3;
  readonly tiles: number;
}

/** More pieces of 256 than this are two things far apart, and no one part. */
const MOST_TILES = 64;
/** Loose pieces that become parts of their own at once. */
const MOST_PIECES = 256;

/** What of a list has cubes of this project's parts. @throws EditError where that is less than two */
function cubesOf(project: Project, list: readonly DrawInstance[]) {
  const grids = list.flatMap((i) =>
    i.geometry.kind === 'grid' && i.geometry.grid.count > 0 && i.source.part !== null
      ? [{ ...i, grid: i.geometry.grid, part: must(project.parts, i.source.part, 'part') }]
      : [],
  );
  if (grids.length < 2) throw new EditError('combine.two');
  return grids;
}

/** Cubes that are seen somewhere as bodies, their colours taken into the palette of the first. @throws EditError above 255 colours */
function bodiesOf(project: Project, list: readonly DrawInstance[]) {
  const grids = cubesOf(project, list),
    first = grids[0]!;
  const base = must(project.palettes, first.part.palette, 'palette');
  let palette: Palette = base;
  const bodies = grids.map((i): Body => {
    if (i.palette === base) return { grid: i.grid, matrix: i.matrix, bytes: null };
    const used = bytesIn(i.grid),
      incoming = i.palette.swatches.filter((s) => used[s.byte] === 1),
      come = appendedSwatches(palette, incoming);
    if (come.left > 0) throw new EditError('combine.colours', { palette: palette.name, n: come.left });
    palette = { ...palette, swatches: come.swatches };
    const bytes = new Uint8Array(256);
    incoming.forEach((s, k) => (bytes[s.byte] = come.bytes[k]!));
    return { grid: i.grid, matrix: i.matrix, bytes };
  });
  return { bodies, palette, first };
}

function bytesIn(grid: VoxelGrid): Uint8Array {
  const used = new Uint8Array(256);
  grid.forEach((_x, _y, _z, v) => (used[v] = 1));
  return used;
}

/** The part that comes of combining with `home`, in tiles where it is larger than one may be. */
function tiledParts(home: Part, grids: readonly VoxelGrid[], factor: number, palette: Id, ctx: EditContext): Part[] {
  return grids.map((grid): Part => ({
    ...home,
    id: ctx.newId(),
    palette,
    cell: home.cell / factor,
    pivot: scale(home.pivot, factor),
    bounds: grid.bounds,
    layers: [{ id: ctx.newId(), name: 'Cubes', hidden: false, locked: false, grid }],
    ...{ regions: null, faceSlots: null, twin: null, origin: null, made: null, hidden: false },
    group: grids.length > 1 ? home.name : home.group,
  }));
}

interface InScene {
  readonly scene: Id;
  /** What stays, in its lattice. */
  readonly home: Id;
  readonly others: readonly Id[];
  readonly op: Combining;
}

/** What each of some placements shows, with all that hangs on it and repeats it, the first one's own part first. */
function shownBy(project: Project, { scene: id, home, others }: Omit<InScene, 'op'>): DrawInstance[] {
  const scene = must(project.scenes, id, 'scene');
  const wanted = hangingIn(scene, [home, ...others]);
  for (const p of wanted)
    if (p.shows.kind !== 'part' && p.shows.kind !== 'group')
      throw new EditError('combine.figure', { name: p.name || project.name });
  const rank = new Map([...hangingIn(scene, [home]), ...hangingIn(scene, others)].map((p, i) => [p.id, i]));
  return gather(project, { of: 'scene', scene: id })
    .filter((i) => i.source.path.length === 1 && rank.has(i.source.path[0]!))
    .sort((a, b) => rank.get(a.source.path[0]!)! - rank.get(b.source.path[0]!)!);
}

function planOf(project: Project, list: readonly DrawInstance[], op: Combining): CombinePlan {
  // How they meet is known without a look at their colours.
  const grids = cubesOf(project, list),
    meeting = meetingOf(
      grids.map((i) => ({ grid: i.grid, matrix: i.matrix, bytes: null })),
      op,
    );
  const tiles = meeting.box ? tilesOf(meeting.box).length : 0;
  if (tiles > MOST_TILES) throw new EditError('combine.far', { size: meeting.box!.size.join(' × '), most: MOST_TILES });
  const resampled = new Set(grids.flatMap((i, n) => (meeting.exact[n] ? [] : [i.part.name])));
  return { meeting, resampled: [...resampled], size: meeting.box?.size ?? [0, 0, 0], tiles };
}

/** What combining placements would come to. @throws EditError where it cannot be */
export const planCombinePlacements = (project: Project, a: InScene): CombinePlan =>
  planOf(project, shownBy(project, a), a.op);

/** Whether a part is seen in one place alone, so that it may change with it. */
const isAlone = (project: Project, part: Part): boolean =>
  (usersOfParts(project.scenes).get(part.id) ?? 0) <= 1 &&
  !project.rig.mounts.some((m) => m.part === part.id) &&
  !part.twin &&
  !project.parts.some((p) => p.twin?.source === part.id);

/**
 * Combines placements into one part in the place of the first: all of them, the first without the others, or what they share. The others
 * go unless they are kept; a part that is seen elsewhere too stays as it is there.
 */
export const combinePlacementsEdit = defineEdit<InScene & { keep?: boolean }>({
  name: 'combinePlacements',
  risky: () => true,
  label: (a, p) => say(`label.${a.op}`, { where: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      home = mustPlacement(scene, a.home),
      list = shownBy(project, a);
    const { bodies, palette, first } = bodiesOf(project, list);
    const { meeting } = planOf(project, list, a.op),
      grids = combined(bodies, a.op, meeting);
    if (grids.length === 0) throw new EditError('combine.nothing');
    const { part } = first,
      alone = isAlone(project, part);
    let parts = project.parts;
    const made = tiledParts(part, grids, meeting.factor, palette.id, ctx).map((p, i) => {
      const own = alone && i === 0 ? { ...p, id: part.id } : { ...p, name: freeAmong(parts, p) };
      parts = alone && i === 0 ? replaceRecord(parts, own) : [...parts, own];
      return own;
    });
    // It stands where the first one's part stood, whose lattice it has.
    const above = home.parent === null ? TRANSFORM_IDENTITY : worldOfPlacement(scene, home.parent),
      there = relativeTransform(above, worldOfPlacement(scene, first.source.path[0]!));
    const placed = made.map((p, i): Placement => ({
      ...{ ...home, ...there, colourway: null },
      id: i === 0 ? home.id : ctx.newId(),
      shows: { kind: 'part', part: p.id },
    }));
    const touched = new Set(hangingIn(scene, a.keep ? [home.id] : [home.id, ...a.others]).map((p) => p.id));
    const rest = changed(scene.placements, touched, (p) => (p.id === home.id ? placed[0]! : null));
    return withScene(
      { ...project, parts, palettes: replaceRecord(project.palettes, palette) },
      {
        ...scene,
        placements: appended(rest, placed.slice(1), GROUP),
        repeats: scene.repeats.filter((r) => !touched.has(r.placement)),
        lamps: scene.lamps.filter((l) => l.parent === null || l.parent === home.id || !touched.has(l.parent)),
      },
    );
  },
});

/** Takes from placements what they have in common with the one that stays whole, so that nothing stands in anything. */
export const carvePlacementsEdit = defineEdit<Omit<InScene, 'op'>>({
  name: 'carvePlacements',
  risky: () => true,
  label: (a, p) => say('label.carve', { where: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run: (project, { scene, home, others }, ctx) =>
    others
      .filter((id) => id !== home)
      .reduce(
        (p, other) =>
          combinePlacementsEdit.run(p, { scene, home: other, others: [home], op: 'subtract', keep: true }, ctx),
        project,
      ),
});

interface InRig {
  /** The part that stays, in its lattice, before the others. */
  readonly parts: readonly Id[];
  readonly op: Combining;
}
function atRest(project: Project, ids: readonly Id[]): DrawInstance[] {
  const shown = { ...project, parts: project.parts.map((p) => (ids.includes(p.id) ? { ...p, hidden: false } : p)) };
  const list = gatherRig(shown, { alternates: 'all' });
  return ids.flatMap((id) => list.find((i) => i.source.part === id) ?? []);
}

/** What combining parts would come to. @throws EditError where it cannot be */
export const planCombineParts = (project: Project, { parts, op }: InRig): CombinePlan =>
  planOf(project, atRest(project, parts), op);

/** Combines parts where they stand at rest; the first keeps its name and its bone, the others go to the bin unless they are kept. */
export const combinePartsEdit = defineEdit<InRig & { keep?: boolean }>({
  name: 'combineParts',
  risky: () => true,
  label: (a, p) => say(`label.${a.op}`, { where: must(p.parts, a.parts[0]!, 'part').name }),
  touches: (a) => a.parts,
  run(project, a, ctx) {
    const [first, ...others] = a.parts.map((id) => must(project.parts, id, 'part'));
    if (!first || others.length === 0) throw new EditError('combine.two');
    if (first.twin) throw new EditError('combine.twin', { part: first.name });
    const list = atRest(project, a.parts),
      { bodies, palette } = bodiesOf(project, list),
      { meeting, tiles, size } = planOf(project, list, a.op);
    if (tiles > 1)
      throw new EditError('combine.tooLarge', { part: first.name, size: size.join(' × '), most: MAX_EDGE });
    const [grid] = combined(bodies, a.op, meeting);
    if (!grid) throw new EditError('combine.nothing');
    const [made] = tiledParts(first, [grid], meeting.factor, palette.id, ctx);
    const next = {
      ...project,
      palettes: replaceRecord(project.palettes, palette),
      parts: replaceRecord(project.parts, { ...made!, id: first.id, hidden: first.hidden }),
    };
    return a.keep
      ? next
      : partsToBin(
          next,
          others.map((p) => must(next.parts, p.id, 'part')),
          ctx,
        );
  },
});

/** A placement of one part becomes a group of its connected pieces, each a part and a placement of its own where it was. */
export const splitPlacementEdit = defineEdit<{ scene: Id; placement: Id }>({
  name: 'splitPlacement',
  risky: () => true,
  label: (a, p) => say('label.split', { where: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      home = mustPlacement(scene, a.placement);
    if (home.shows.kind !== 'part') throw new EditError('scenes.noPart');
    const part = must(project.parts, home.shows.part, 'part'),
      grid = composite(part),
      pieces = connectedPieces(CellSet.filled(grid));
    if (pieces.sizes.length < 2) throw new EditError('combine.onePiece', { part: part.name });
    if (pieces.sizes.length > MOST_PIECES)
      throw new EditError('combine.manyPieces', { part: part.name, count: pieces.sizes.length, most: MOST_PIECES });
    let { parts } = project;
    const made = Array.from({ length: pieces.sizes.length }, (_, n): Part => {
      const set = piecesSet(pieces, (k) => k === n),
        box = set.tight!;
      const own = grid.edit((d) => grid.forEach((x, y, z) => !set.has(x, y, z) && d.set(x, y, z, 0))).withBounds(box);
      const [piece] = tiledParts(part, [own], 1, part.palette, ctx);
      const named = { ...piece!, name: freeAmong(parts, part), group: part.name };
      parts = [...parts, named];
      return named;
    });
    // All have the lattice and the pivot of the whole, so that nothing moves.
    const hung = made.map((p): Placement => ({
      ...{ ...home, ...TRANSFORM_IDENTITY, name: '', colourway: home.colourway },
      ...{ id: ctx.newId(), parent: home.id, shows: { kind: 'part', part: p.id } },
    }));
    const group: Placement = { ...home, name: home.name || part.name, shows: { kind: 'group' } };
    const placements = changed(scene.placements, new Set([home.id]), () => group);
    return withScene({ ...project, parts }, { ...scene, placements: appended(placements, hung, GROUP) });
  },
});

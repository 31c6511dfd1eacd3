import {
  AXES,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  composeTransform,
  relativeTransform,
  mapVec,
} from '../../math';
import {
  type Bone,
  type Id,
  type Mount,
  PLAIN_BONE,
  type Part,
  type Project,
  composite,
  find,
  freeName,
  makeMount,
  makePart,
  must,
  partContent,
  replaceRecord,
  withPartBounds,
} from '../../model';
import { restWorld } from '../../rig';
import { type Contact, type NamedCells, cutOut, hangingOn, plugOf, refined } from '../../sculpt';
import { CellSet } from '../../voxel';
import { type EditContext, EditError, defineEdit } from '../edit';
import { partsToBin } from '../bin';
import { cellsByRegion } from './regions';

/** How a part is taken apart. */
export interface TakeApart {
  readonly part: Id;
  /** What the cubes of no region are called. */
  readonly rest: string;
  /** Cubes by which a piece goes on into the one it hangs on, so that nothing gapes when it swings. */
  readonly plug: number;
  /** Cubes by which a plug is thinner than its cut, so that it touches nothing inside. */
  readonly clearance: number;
  /** Whether what a plug goes into is hollowed out for it. */
  readonly socket: boolean;
  /** Whether each piece is mounted on a new bone of its name, in its cut. */
  readonly bones: boolean;
  /** Whether the part is kept aside, hidden, so that the step can be repeated; else it goes to the bin. */
  readonly keepWhole: boolean;
}

/**
 * Where a piece turns, in half cubes: in the middle of its cut, or of its own foot when it hangs on nothing. A long piece that
 * lies with its flank against the other, as an arm against the trunk, turns at one end of it: away from what hangs on it, or
 * at the top.
 *
 * @param below – the cuts of what hangs on it
 */
function proposedPivot(cells: CellSet, cut: Contact | null, below: readonly Contact[]): Vec3 {
  const { min, size } = cells.tight!;
  if (!cut) return [2 * min[0] + size[0], 2 * min[1], 2 * min[2] + size[2]];
  const long = AXES.reduce((a, b) => (size[b] > size[a] ? b : a)),
    thick = Math.min(...AXES.filter((a) => a !== long).map((a) => size[a]));
  if (size[long] < 1.5 * thick || cut.along[long] > 0 || (below.length === 0 && long !== 1)) return cut.centre;
  const middle = 2 * min[long] + size[long],
    upward = below.reduce((sum, c) => sum + c.centre[long] - middle, 0) <= 0;
  return mapVec(cut.centre, (v, a) => (a === long ? middle + (upward ? 1 : -1) * (size[long] - thick) : v));
}

/** What becomes a part: a region's cubes, or the rest (region 0). */
interface Piece extends NamedCells {
  readonly region: number;
}
/** The pieces of a part, what each hangs on (−1 for the root), and the pivot proposed for each, in half cubes. */
interface Pieces {
  readonly pieces: readonly Piece[];
  readonly root: number;
  readonly parent: readonly number[];
  readonly pivots: readonly Vec3[];
}

/** The pieces of a part by its regions, what they hang on, and the pivot proposed for each; the rest first, when there is any. */
export function piecesOf(part: Part, rest: string): Pieces {
  const cells = cellsByRegion(part);
  const pieces: Piece[] = [
    { name: rest.trim() || part.name, side: part.side, cells: cells.get(0)!, region: 0 },
    ...(part.regions?.list ?? []).map(({ byte, name, side }) => ({
      name,
      side,
      cells: cells.get(byte)!,
      region: byte,
    })),
  ].filter((p) => !p.cells.isEmpty);
  const sizes = pieces.map((p) => p.cells.count);
  const root = pieces[0]?.region === 0 ? 0 : sizes.indexOf(Math.max(...sizes));
  const tree = hangingOn(
    pieces.map((p) => p.cells),
    root,
  );
  return {
    pieces,
    root,
    parent: tree.map((t) => t.parent),
    pivots: pieces.map((p, i) =>
      i === root
        ? part.pivot
        : proposedPivot(
            p.cells,
            tree[i]!.contact,
            tree.flatMap((t) => (t.parent === i ? t.contact! : [])),
          ),
    ),
  };
}

/** A whole that is being taken apart, and the parts that were taken from it before, by region. */
interface Taking {
  readonly project: Project;
  readonly part: Part;
  readonly a: TakeApart;
  readonly ctx: EditContext;
  readonly pieces: Pieces;
  readonly earlier: ReadonlyMap<number, Part>;
}

/**
 * Takes a part apart by its regions: each becomes a part in its exact place, shrunk to fit, its pivot in the middle of the
 * cut to the piece it hangs on. What belongs to no region stays together as the rest, which is also the root.
 *
 * Done again on a whole that was kept aside, the parts taken from it get its cubes of today and keep their names, pivots,
 * bones and places; parts of regions that are gone go to the bin.
 */
export const takeApartEdit = defineEdit<TakeApart>({
  name: 'takeApart',
  risky: () => true,
  label: (a, p) => {
    const again = p.parts.some((o) => o.origin?.whole === a.part);
    return again
      ? `Take ${must(p.parts, a.part, 'part').name} apart again`
      : `Take ${must(p.parts, a.part, 'part').name} apart`;
  },
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    for (const [code, v] of [
      ['takeApart.plug', a.plug],
      ['takeApart.clearance', a.clearance],
    ] as const)
      if (!Number.isInteger(v) || v < 0 || v > 32) throw new EditError(code);
    const pieces = piecesOf(part, a.rest);
    if (!pieces.pieces.some((p) => p.region !== 0)) throw new EditError('takeApart.noCubes', { part: part.name });
    const earlier = new Map(
      project.parts.flatMap((p) => (p.origin?.whole === part.id ? [[p.origin.region, p] as const] : [])),
    );
    const taking: Taking = { project, part, a, ctx, pieces, earlier };
    const parts = partsOf(taking);
    const gone = [...earlier].filter(([region]) => !pieces.pieces.some((p) => p.region === region)).map(([, p]) => p);
    const out = withWholeAside(withParts(taking, parts, mountedPieces(taking, parts)), taking, parts);
    return [...gone, ...(a.keepWhole ? [] : [part])].reduce(
      (p, gone) => partsToBin(p, [must(p.parts, gone.id, 'part')], ctx),
      out,
    );
  },
});

/** For each piece the cells, with their bytes, by which it goes on into the one it hangs on. */
const plugsOf = ({ part, a, pieces: { pieces, parent } }: Taking): ReturnType<typeof plugOf>[] =>
  pieces.map((piece, i) =>
    a.plug > 0 && parent[i]! >= 0
      ? plugOf(composite(part), piece.cells, pieces[parent[i]!]!.cells, a.plug, a.clearance)
      : [],
  );

/** For each piece the cells that are hollowed out for the plugs of those that hang on it; null when none are. */
const socketsOf = ({ part, a, pieces: { pieces, parent } }: Taking): (CellSet | null)[] =>
  pieces.map((body, j) => {
    if (!a.socket || a.plug === 0) return null;
    const hanging = pieces.filter((_, i) => parent[i] === j);
    const cells = hanging.flatMap((p) => plugOf(composite(part), p.cells, body.cells, a.plug + a.clearance));
    return CellSet.ofCells(cells.map(([c]) => c));
  });

/** The parts that the pieces become, in their order: new ones, and those of before with the cubes of today. */
function partsOf(taking: Taking): Part[] {
  const { project, part, ctx, pieces, earlier } = taking;
  const plugs = plugsOf(taking),
    sockets = socketsOf(taking);
  // The part itself gives its name up, whether it is kept aside or not; so do those that are made anew.
  const taken = project.parts.filter((p) => p !== part).map((p) => ({ name: p.name, side: p.side }));
  return pieces.pieces.map((piece, i) => {
    const cells = sockets[i] ? piece.cells.minus(sockets[i]) : piece.cells;
    const layers = part.layers
      .filter((l) => !l.hidden)
      .flatMap((l) => {
        const grid = cutOut(l.grid, cells);
        return grid ? [{ ...l, id: ctx.newId(), locked: false, grid: grid.withBounds(part.bounds) }] : [];
      });
    if (plugs[i]!.length > 0)
      layers[0] = { ...layers[0]!, grid: layers[0]!.grid.edit((d) => plugs[i]!.forEach(([c, v]) => d.set(...c, v))) };
    const old = earlier.get(piece.region);
    if (old) return renewed(old, { ...old, layers, bounds: part.bounds, cell: part.cell, palette: part.palette });
    const name = freeName(
      piece.name,
      taken.filter((t) => t.side === piece.side).map((t) => t.name),
    );
    taken.push({ name, side: piece.side });
    const made = makePart(ctx.newId(), ctx.newId(), name, part.palette, part.bounds, {
      side: piece.side,
      cell: part.cell,
      pivot: pieces.pivots[i]!,
      origin: { whole: part.id, region: piece.region },
    });
    const whole: Part = { ...made, layers };
    return withPartBounds(whole, partContent(whole)!);
  });
}

/** Mounts of the new pieces in the place the part has: on its bone, with their own pivots, or on new bones in those pivots. */
function mountedPieces(taking: Taking, parts: readonly Part[]): { bones: Bone[]; mounts: Mount[] } {
  const { project, part, a, ctx, earlier } = taking;
  const { pieces, parent, root } = taking.pieces;
  const { rig } = project;
  const source = rig.mounts.find((m) => m.part === part.id) ?? makeMount('', part.id, null);
  const bone = find(rig.bones, source.bone);
  const world = restWorld(rig);
  const boneWorld = bone ? world.get(bone.id)! : TRANSFORM_IDENTITY;
  const partWorld = composeTransform(boneWorld, source);
  const isNew = (i: number): boolean => !earlier.has(pieces[i]!.region);
  const boneOf: (Id | null)[] = parts.map((p, i) =>
    isNew(i) ? source.bone : (rig.mounts.find((m) => m.part === p.id)?.bone ?? source.bone),
  );
  const bones: Bone[] = [];
  const mounts: Mount[] = [];

  /** World transform of a frame in a pivot, turned as the part is. */
  const frameAt = (pivot: Vec3): Transform =>
    composeTransform(partWorld, {
      ...TRANSFORM_IDENTITY,
      t: mapVec(pivot, (v, i) => ((v - part.pivot[i]!) / 2) * part.cell),
    });
  function standBone(i: number, stand: Transform): Id {
    const { name, side } = parts[i]!;
    const above = parent[i]! >= 0 ? boneOf[parent[i]!]! : source.bone;
    const id = ctx.newId();
    world.set(id, stand);
    const names = [...rig.bones, ...bones].filter((b) => b.side === side).map((b) => b.name);
    const rest = relativeTransform(above === null ? TRANSFORM_IDENTITY : world.get(above)!, stand);
    bones.push({
      id,
      name: freeName(name, names),
      side,
      parent: above,
      rest: { ...rest, s: [1, 1, 1] },
      ...PLAIN_BONE,
    });
    return id;
  }
  function place(i: number): void {
    const stand = frameAt(parts[i]!.pivot);
    if (!a.bones || (i === root && bone)) {
      mounts.push({ ...makeMount(ctx.newId(), parts[i]!.id, source.bone), ...relativeTransform(boneWorld, stand) });
      return;
    }
    boneOf[i] = standBone(i, { ...stand, s: [1, 1, 1] });
    mounts.push({ ...makeMount(ctx.newId(), parts[i]!.id, boneOf[i]!), s: stand.s });
  }
  // From the root outwards, so that a bone stands before those that hang on it.
  const done = new Set<number>();
  const visit = (i: number): void => {
    if (done.has(i)) return;
    if (parent[i]! >= 0) visit(parent[i]!);
    done.add(i);
    if (isNew(i)) place(i);
  };
  pieces.forEach((_, i) => visit(i));
  return { bones, mounts };
}

/** The project with the parts of the pieces: new ones stand where the whole stood, or after those that came from it before. */
function withParts(
  { project, part, pieces, earlier }: Taking,
  parts: readonly Part[],
  { bones, mounts }: { bones: Bone[]; mounts: Mount[] },
): Project {
  const fresh = parts.filter((_, i) => !earlier.has(pieces.pieces[i]!.region));
  const renewedParts = parts.reduce((list, p) => replaceRecord(list, p), project.parts);
  const at =
    earlier.size === 0
      ? renewedParts.findIndex((p) => p.id === part.id)
      : renewedParts.findLastIndex((p) => p.origin?.whole === part.id) + 1;
  const { rig } = project;
  return {
    ...project,
    parts: renewedParts.toSpliced(at, 0, ...fresh),
    rig: {
      ...rig,
      bones: bones.length > 0 ? [...rig.bones, ...bones] : rig.bones,
      mounts: [...rig.mounts, ...mounts],
    },
  };
}

/** Hides the whole when it is kept; the first time it also gets a name that says what it is. */
function withWholeAside(project: Project, { part, a, earlier }: Taking, parts: readonly Part[]): Project {
  if (!a.keepWhole || (earlier.size > 0 && part.hidden)) return project;
  const others = [...project.parts.filter((p) => p.id !== part.id), ...parts].map((p) => p.name);
  const name = earlier.size === 0 ? freeName(`${part.name}, whole`, others) : part.name;
  return { ...project, parts: replaceRecord(project.parts, { ...part, hidden: true, name }) };
}

/** A part with the cubes of its piece of today, fitted; refined as it was. Layers that are still there keep their ids. */
function renewed(old: Part, next: Part): Part {
  const k = Math.round(next.cell / old.cell);
  if (k < 1 || Math.abs(next.cell / old.cell - k) > 1e-9) throw new EditError('takeApart.coarser', { old: old.name });
  const layers = next.layers.map((l) => ({ ...l, id: old.layers.find((o) => o.name === l.name)?.id ?? l.id }));
  const fine =
    k === 1
      ? { ...next, layers }
      : {
          ...next,
          cell: old.cell,
          layers: layers.map((l) => ({
            ...l,
            grid: refined(l.grid.clippedTo(l.grid.contentBox() ?? l.grid.bounds), k),
          })),
        };
  const box = partContent(fine) ?? old.bounds;
  // A part that follows another is led by its source.
  return old.twin
    ? old
    : { ...fine, bounds: box, layers: fine.layers.map((l) => ({ ...l, grid: l.grid.withBounds(box) })) };
}

import { type Transform, type Vec3, TRANSFORM_IDENTITY, composeTransform, relativeTransform } from '../../math';
import { type Bone, type Id, type Mount, type Part, type Side, composite, find, freeName, makeMount, makePart, must, partContent, replaceRecord, withPartBounds } from '../../model';
import { restWorld } from '../../rig';
import { cutOut, hangingOn, plugOf } from '../../sculpt';
import { CellSet } from '../../voxel';
import { EditError, defineEdit } from '../edit';

/** A part in the making. */
export interface Piece {
  readonly name: string;
  readonly side: Side;
  readonly cells: CellSet;
}

/** Where a piece turns: the middle of the cut to the piece it hangs on, or the middle of its own foot. In half cubes. */
function proposedPivot(cells: CellSet, cut: Vec3 | null): Vec3 {
  if (cut) return cut;
  const { min, size } = cells.tight!;
  return [2 * min[0] + size[0], 2 * min[1], 2 * min[2] + size[2]];
}

/**
 * Takes a part apart: each piece becomes a part in its exact place, shrunk to fit, its pivot in the middle of the cut to
 * the piece it hangs on. What belongs to no piece stays together as the rest, which is also the root.
 *
 * With `plug`, a piece goes on by so many cubes into the one it hangs on, so that nothing gapes when it swings. With
 * `bones`, each is mounted on a new bone of its name. The part itself is kept aside, hidden, or goes to the bin.
 */
export const takeApartEdit = defineEdit<{ part: Id; pieces: readonly Piece[]; rest: string; plug: number; bones: boolean; keepWhole: boolean }>({
  name: 'takeApart',
  label: (a, p) => `Take ${must(p.parts, a.part, 'part').name} apart into ${a.pieces.length + 1}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    if (!Number.isInteger(a.plug) || a.plug < 0 || a.plug > 32) throw new EditError('A plug goes in by 0 to 32 whole cubes.');
    const seen = composite(part);
    const filled = CellSet.filled(seen);
    // A cube belongs to the first piece that names it.
    let free = filled;
    const pieces: Piece[] = [];
    for (const piece of a.pieces) {
      const cells = piece.cells.intersect(free);
      if (cells.isEmpty) continue;
      free = free.minus(cells);
      pieces.push({ ...piece, cells });
    }
    if (pieces.length === 0) throw new EditError(`No piece holds a cube of "${part.name}". Choose some cubes for each piece first.`);
    const restFirst = !free.isEmpty;
    const all: Piece[] = restFirst ? [{ name: a.rest.trim() || part.name, side: part.side, cells: free }, ...pieces] : pieces;
    const sizes = all.map((p) => p.cells.count);
    const root = restFirst ? 0 : sizes.indexOf(Math.max(...sizes));
    const tree = hangingOn(all.map((p) => p.cells), root);

    // The part itself gives its name up, whether it is kept aside or not.
    const taken = project.parts.filter((p) => p !== part).map((p) => ({ name: p.name, side: p.side }));
    const parts: Part[] = all.map((piece, i) => {
      const above = tree[i]!.parent;
      const pivot = i === root ? part.pivot : proposedPivot(piece.cells, tree[i]!.contact?.centre ?? null);
      const name = freeName(piece.name, taken.filter((t) => t.side === piece.side).map((t) => t.name));
      taken.push({ name, side: piece.side });
      const fresh = makePart(ctx.newId(), ctx.newId(), name, part.palette, part.bounds, { side: piece.side, cell: part.cell, pivot });
      const layers = part.layers.filter((l) => !l.hidden).flatMap((l) => {
        const grid = cutOut(l.grid, piece.cells);
        return grid ? [{ ...l, id: ctx.newId(), locked: false, grid: grid.withBounds(part.bounds) }] : [];
      });
      if (a.plug > 0 && above >= 0) {
        const plug = plugOf(seen, piece.cells, all[above]!.cells, a.plug);
        layers[0] = { ...layers[0]!, grid: layers[0]!.grid.edit((d) => plug.forEach(([c, v]) => d.set(...c, v))) };
      }
      const whole: Part = { ...fresh, layers };
      return withPartBounds(whole, partContent(whole)!);
    });

    // All pieces keep the place the part had: on its bone, with their own pivots, or on new bones in those pivots.
    const source = project.rig.mounts.find((m) => m.part === part.id) ?? makeMount('', part.id, null);
    const bone = find(project.rig.bones, source.bone);
    const boneWorld = bone ? restWorld(project.rig).get(bone.id)! : TRANSFORM_IDENTITY;
    const partWorld = composeTransform(boneWorld, source);
    /** World transform of a frame in a pivot, turned as the part is. */
    const frameAt = (pivot: Vec3): Transform => composeTransform(partWorld, {
      ...TRANSFORM_IDENTITY, t: pivot.map((v, i) => ((v - part.pivot[i]!) / 2) * part.cell) as unknown as Vec3,
    });
    const bones: Bone[] = [];
    const boneOf: (Id | null)[] = all.map(() => source.bone);
    const mounts: Mount[] = [];
    const place = (i: number): void => {
      const world = frameAt(parts[i]!.pivot);
      const mine = { ...makeMount(ctx.newId(), parts[i]!.id, source.bone), ...relativeTransform(boneWorld, world) };
      if (!a.bones || (i === root && bone)) {
        mounts[i] = mine;
        return;
      }
      const parent = tree[i]!.parent >= 0 ? boneOf[tree[i]!.parent]! : source.bone;
      const above = bones.find((b) => b.id === parent);
      const aboveWorld = above ? worldOf.get(above.id)! : boneWorld;
      const stand: Transform = { ...world, s: [1, 1, 1] };
      const id = ctx.newId();
      worldOf.set(id, stand);
      const name = freeName(parts[i]!.name, [...project.rig.bones, ...bones].filter((b) => b.side === parts[i]!.side).map((b) => b.name));
      bones.push({ id, name, side: parts[i]!.side, parent, rest: { ...relativeTransform(aboveWorld, stand), s: [1, 1, 1] } });
      boneOf[i] = id;
      mounts[i] = { ...makeMount(ctx.newId(), parts[i]!.id, id), s: world.s };
    };
    const worldOf = new Map<Id, Transform>();
    // From the root outwards, so that a bone stands before those that hang on it.
    const done = new Set<number>();
    const visit = (i: number): void => {
      if (done.has(i)) return;
      if (tree[i]!.parent >= 0) visit(tree[i]!.parent);
      done.add(i);
      place(i);
    };
    all.forEach((_, i) => visit(i));

    const at = project.parts.indexOf(part);
    const rig = { bones: bones.length > 0 ? [...project.rig.bones, ...bones] : project.rig.bones, mounts: [...project.rig.mounts, ...mounts] };
    if (a.keepWhole) {
      const kept: Part = { ...part, hidden: true, name: freeName(`${part.name}, whole`, taken.map((t) => t.name)) };
      return { ...project, parts: replaceRecord(project.parts, kept).toSpliced(at, 0, ...parts), rig };
    }
    return {
      ...project, parts: project.parts.toSpliced(at, 1, ...parts), rig: { ...rig, mounts: rig.mounts.filter((m) => m.part !== part.id) },
      references: project.references.filter((r) => r.part !== part.id),
      bin: [...project.bin, { id: ctx.newId(), kind: 'part', at: ctx.now, part, mounts: project.rig.mounts.filter((m) => m.part === part.id), references: project.references.filter((r) => r.part === part.id) }],
    };
  },
});

/** Puts parts together again as one, cube for cube where they stand at rest. The first keeps its name, pivot and bone. */
export const joinPartsEdit = defineEdit<{ parts: readonly Id[] }>({
  name: 'joinParts',
  label: (a) => `Join ${a.parts.length} parts`,
  touches: (a) => a.parts,
  run(project, a, ctx) {
    const list = a.parts.map((id) => must(project.parts, id, 'part'));
    const first = list[0];
    if (!first || list.length < 2) throw new EditError('Choose two parts or more to join.');
    const odd = list.find((p) => p.cell !== first.cell || p.palette !== first.palette);
    if (odd) throw new EditError(`"${odd.name}" has other cubes or another palette than "${first.name}"; only parts with equal ones can be joined.`);
    const world = restWorld(project.rig);
    const frame = (part: Part): Transform => {
      const m = project.rig.mounts.find((o) => o.part === part.id) ?? makeMount('', part.id, null);
      return composeTransform(m.bone === null ? TRANSFORM_IDENTITY : world.get(m.bone)!, m);
    };
    const home = frame(first);
    let joined = first;
    for (const part of list.slice(1)) {
      const rel = relativeTransform(home, frame(part));
      const shift = rel.t.map((v, i) => v / part.cell + (first.pivot[i]! - part.pivot[i]!) / 2) as unknown as Vec3;
      const whole = shift.map(Math.round) as unknown as Vec3;
      const turned = Math.abs(Math.abs(rel.q[3]) - 1) > 1e-6 || rel.s.some((s) => Math.abs(s - 1) > 1e-6);
      if (turned || shift.some((v, i) => Math.abs(v - whole[i]!) > 1e-6)) throw new EditError(`"${part.name}" stands turned, scaled or between the cubes of "${first.name}", so their cubes would not meet. Set its place to whole cubes first.`);
      const layers = part.layers.filter((l) => l.grid.count > 0).map((l) => ({ ...l, id: ctx.newId(), name: `${part.name} ${l.name}`.slice(0, 120), moved: l.grid }));
      const box = partContent(part);
      if (!box) continue;
      const min: Vec3 = [box.min[0] + whole[0], box.min[1] + whole[1], box.min[2] + whole[2]];
      const bounds = CellSet.ofBoxes([joined.bounds, { min, size: box.size }]).tight!;
      if (bounds.size.some((s) => s > 256)) throw new EditError(`Joined, "${first.name}" would be ${bounds.size.join(' × ')}; a part holds at most 256 cubes along an axis.`);
      const wide = withPartBounds(joined, bounds);
      joined = {
        ...wide, layers: [...wide.layers, ...layers.map(({ moved, ...l }) => ({
          ...l, grid: wide.layers[0]!.grid.edit((d) => {
            d.fillBox(bounds, 0);
            moved.forEach((x, y, z, v) => d.set(x + whole[0], y + whole[1], z + whole[2], v));
          }),
        }))],
      };
    }
    const gone = new Set(a.parts.slice(1));
    return {
      ...project, parts: replaceRecord(project.parts, joined).filter((p) => !gone.has(p.id)),
      rig: { ...project.rig, mounts: project.rig.mounts.filter((m) => !gone.has(m.part)) }, references: project.references.filter((r) => !gone.has(r.part)),
      bin: [...project.bin, ...list.slice(1).map((part) => ({
        id: ctx.newId(), kind: 'part' as const, at: ctx.now, part, mounts: project.rig.mounts.filter((m) => m.part === part.id), references: project.references.filter((r) => r.part === part.id),
      }))],
    };
  },
});

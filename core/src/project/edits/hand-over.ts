import { FACE_DIRECTIONS, type Vec3, add, sub } from '../../math';
import { type Id, type Part, composite, must, replaceRecord, withPartBounds } from '../../model';
import { CellSet, MAX_EDGE } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { checkOpen } from './strokes';
import { latticeShift } from './join-parts';

/**
 * Takes cubes from a part and gives each to the part beside it that came from the same whole, in its place and colour, so that a cut
 * fits whatever is changed about it. Cubes that touch no such part, not even through others that go, stay.
 */
export const handOverEdit = defineEdit<{ part: Id; cells: CellSet }>({
  name: 'handOver',
  label: (a, p) => `Cubes of ${must(p.parts, a.part, 'part').name} to the part beside`,
  touches: (a) => [a.part],
  run(project, a) {
    const part = must(project.parts, a.part, 'part'),
      seen = composite(part);
    const mates = project.parts
      .filter(
        (p) => p !== part && !p.hidden && p.origin !== null && p.origin.whole === part.origin?.whole && p.twin === null,
      )
      .map((mate) => ({ mate, shift: latticeShift(project, part, mate) }));
    if (mates.length === 0) throw new EditError('handOver.noWhole', { part: part.name });
    const sets = mates.map(({ mate, shift }) => CellSet.filled(composite(mate)).moved(shift));
    const to = new Map<string, { readonly at: Vec3; readonly mate: number }>();
    let open: Vec3[] = [];
    a.cells.intersect(CellSet.filled(seen)).forEach((x, y, z) => open.push([x, y, z]));
    // From the seam inwards: what has gone over counts as the other part's.
    for (let before = -1; open.length !== before;) {
      before = open.length;
      const gone: (readonly [Vec3, number])[] = [];
      open = open.filter((c) => {
        const votes = mates.map(
          (_, i) =>
            FACE_DIRECTIONS.filter((s) => sets[i]!.has(...add(c, s)) || to.get(add(c, s).join())?.mate === i).length,
        );
        const best = votes.indexOf(Math.max(...votes));
        if (votes[best] === 0) return true;
        gone.push([c, best]);
        return false;
      });
      for (const [at, mate] of gone) to.set(at.join(), { at, mate });
    }
    if (to.size === 0) throw new EditError('handOver.noMate', { part: part.name });
    const list = [...to.values()],
      taken = CellSet.ofCells(list.map((t) => t.at));
    for (const l of part.layers) if (!l.hidden && !CellSet.filled(l.grid).intersect(taken).isEmpty) checkOpen(part, l);
    let parts = replaceRecord(project.parts, {
      ...part,
      layers: part.layers.map((l) => (l.hidden ? l : { ...l, grid: l.grid.edit((d) => d.fillSet(taken, 0)) })),
    });
    mates.forEach(({ mate, shift }, i) => {
      const mine = list.filter((t) => t.mate === i);
      const top = mate.layers.findLast((l) => !l.hidden && !l.locked);
      if (mine.length === 0) return;
      if (!top) throw new EditError('handOver.noLayer', { mate: mate.name });
      const box = CellSet.ofBoxes([
        mate.bounds,
        ...mine.map((t) => ({ min: sub(t.at, shift), size: [1, 1, 1] as Vec3 })),
      ]).tight!;
      if (box.size.some((s) => s > MAX_EDGE))
        throw new EditError('handOver.tooLarge', { mate: mate.name, size: box.size.join(' × '), most: MAX_EDGE });
      const wide: Part = withPartBounds(mate, box);
      parts = replaceRecord(parts, {
        ...wide,
        layers: wide.layers.map((l) =>
          l.id === top.id
            ? { ...l, grid: l.grid.edit((d) => mine.forEach((t) => d.set(...sub(t.at, shift), seen.get(...t.at)))) }
            : l,
        ),
      });
    });
    return { ...project, parts };
  },
});

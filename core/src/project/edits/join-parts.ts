import { say } from '../../words';
import { type Transform, type Vec3, TRANSFORM_IDENTITY, composeTransform, mapVec, relativeTransform } from '../../math';
import {
  type Id,
  type Part,
  type Project,
  composite,
  makeMount,
  must,
  partContent,
  replaceRecord,
  withPartBounds,
} from '../../model';
import { restWorld } from '../../rig';
import { CellSet, MAX_EDGE } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { partsToBin } from '../bin';

/**
 * By how many cubes the lattice of `part` is shifted against that of `home` where both stand at rest.
 *
 * @throws EditError when they are turned, scaled or moved so that cubes do not meet cubes
 */
export function latticeShift(project: Project, home: Part, part: Part): Vec3 {
  const world = restWorld(project.rig);
  const frame = (p: Part): Transform => {
    const m = project.rig.mounts.find((o) => o.part === p.id) ?? makeMount('', p.id, null);
    return composeTransform(m.bone === null ? TRANSFORM_IDENTITY : world.get(m.bone)!, m);
  };
  const rel = relativeTransform(frame(home), frame(part));
  const shift = mapVec(rel.t, (v, i) => v / part.cell + (home.pivot[i]! - part.pivot[i]!) / 2);
  const whole = mapVec(shift, Math.round);
  const turned = Math.abs(Math.abs(rel.q[3]) - 1) > 1e-6 || rel.s.some((s) => Math.abs(s - 1) > 1e-6);
  if (turned || home.cell !== part.cell || shift.some((v, i) => Math.abs(v - whole[i]!) > 1e-6))
    throw new EditError('joinParts.offGrid', { part: part.name, home: home.name });
  return whole;
}

/** Takes from a part the cubes that stand in another part, or nearer than `by` cubes to it, so that their surfaces do not touch. */
export const setBackEdit = defineEdit<{ part: Id; from: Id; by: number }>({
  name: 'setBack',
  risky: () => true,
  label: (a, p) => `Set ${must(p.parts, a.part, 'part').name} back from ${must(p.parts, a.from, 'part').name}`,
  touches: (a) => [a.part],
  run(project, a) {
    const part = must(project.parts, a.part, 'part'),
      from = must(project.parts, a.from, 'part');
    if (!Number.isInteger(a.by) || a.by < 0 || a.by > 16) throw new EditError('joinParts.setBack');
    let near = CellSet.filled(composite(from)).moved(latticeShift(project, part, from));
    for (let i = 0; i < a.by; i++)
      near = (
        [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ] as const
      ).reduce((s, d) => s.union(s.moved(d)).union(s.moved([-d[0], -d[1], -d[2]])), near);
    const locked = part.layers.find((l) => l.locked && !l.hidden);
    if (locked) throw new EditError('joinParts.locked', { locked: locked.name, part: part.name });
    const layers = part.layers.map((l) => (l.hidden ? l : { ...l, grid: l.grid.edit((d) => d.fillSet(near, 0)) }));
    if (layers.every((l, i) => l.grid === part.layers[i]!.grid))
      throw new EditError('joinParts.clear', { part: part.name, from: from.name });
    if (layers.every((l) => l.hidden || l.grid.count === 0))
      throw new EditError('joinParts.nothingLeft', { part: part.name });
    return { ...project, parts: replaceRecord(project.parts, { ...part, layers }) };
  },
});

/** Puts parts together again as one, cube for cube where they stand at rest. The first keeps its name, pivot and bone. */
export const joinPartsEdit = defineEdit<{ parts: readonly Id[] }>({
  name: 'joinParts',
  risky: () => true,
  label: (a) => say('label.joinParts', { n: a.parts.length }),
  touches: (a) => a.parts,
  run(project, a, ctx) {
    const list = a.parts.map((id) => must(project.parts, id, 'part'));
    const first = list[0];
    if (!first || list.length < 2) throw new EditError('joinParts.two');
    const odd = list.find((p) => p.cell !== first.cell || p.palette !== first.palette);
    if (odd) throw new EditError('joinParts.unlike', { odd: odd.name, first: first.name });
    let joined = first;
    for (const part of list.slice(1)) {
      const whole = latticeShift(project, first, part);
      const layers = part.layers
        .filter((l) => l.grid.count > 0)
        .map((l) => ({ ...l, id: ctx.newId(), name: `${part.name} ${l.name}`.slice(0, 120), moved: l.grid }));
      const box = partContent(part);
      if (!box) continue;
      const min: Vec3 = [box.min[0] + whole[0], box.min[1] + whole[1], box.min[2] + whole[2]];
      const bounds = CellSet.ofBoxes([joined.bounds, { min, size: box.size }]).tight!;
      if (bounds.size.some((s) => s > MAX_EDGE))
        throw new EditError('joinParts.tooLarge', { first: first.name, size: bounds.size.join(' × '), most: MAX_EDGE });
      const wide = withPartBounds(joined, bounds);
      joined = {
        ...wide,
        layers: [
          ...wide.layers,
          ...layers.map(({ moved, ...l }) => ({
            ...l,
            grid: wide.layers[0]!.grid.edit((d) => {
              d.fillBox(bounds, 0);
              moved.forEach((x, y, z, v) => d.set(x + whole[0], y + whole[1], z + whole[2], v));
            }),
          })),
        ],
      };
    }
    return list.slice(1).reduce((p, part) => partsToBin(p, [part], ctx), {
      ...project,
      parts: replaceRecord(project.parts, joined),
    });
  },
});

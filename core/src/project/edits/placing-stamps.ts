import { QUAT_IDENTITY, type Quat, type Vec3 } from '../../math';
import {
  GROUP,
  type Id,
  type Part,
  type Placement,
  type Project,
  appended,
  composite,
  makePart,
  must,
} from '../../model';
import { gather } from '../../scene';
import { onLattice } from '../../sculpt';
import { say } from '../../words';
import { freeAmong, freshIds, withPalettes } from '../bringing';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';
import { hangingIn } from './scene-tree';
import { withScene } from './scenes';

/** Stamps that belong together: one by itself, or all of a group. */
export function stampSet(project: Pick<Project, 'stamps'>, id: Id): Part[] {
  const stamp = must(project.stamps, id, 'stamp');
  return stamp.group === null ? [stamp] : project.stamps.filter((s) => s.group === stamp.group);
}

/**
 * Puts a stamp into a scene: its pieces become parts, those that are there already are shared, so that what is stamped again is a linked
 * copy. Of several they stand on a group.
 *
 * @param source – the project whose stamp it is; null for one of this project
 */
export const placeStampEdit = defineEdit<{
  scene: Id;
  source: Project | null;
  stamp: Id;
  t: Vec3;
  q?: Quat;
  layer: Id;
}>({
  name: 'placeStamp',
  label: (a, p) => say('label.placeStamp', { name: must((a.source ?? p).stamps, a.stamp, 'stamp').name }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const source = a.source ?? project,
      set = stampSet(source, a.stamp);
    must(must(project.scenes, a.scene, 'scene').layers, a.layer, 'layer of the scene');
    const { palettes, ids } = withPalettes(
      project,
      source,
      set.map((s) => s.palette),
      freshIds(ctx.newId),
    );
    let { parts } = project;
    const shown = set.map((stamp): Id => {
      const palette = ids(stamp.palette, 'palette');
      const there = parts.find(
        (p) =>
          p.name.startsWith(stamp.name) &&
          p.palette === palette &&
          p.cell === stamp.cell &&
          samePlace(p, stamp) &&
          composite(p).equals(composite(stamp)),
      );
      if (there) return there.id;
      const part: Part = {
        ...stamp,
        ...{ id: ctx.newId(), palette, group: set.length > 1 ? stamp.group : null },
        layers: stamp.layers.map((l) => ({ ...l, id: ctx.newId() })),
      };
      parts = [...parts, { ...part, name: freeAmong(parts, part) }];
      return part.id;
    });
    const scene = must(project.scenes, a.scene, 'scene');
    const base = (more: Partial<Placement> & Pick<Placement, 'shows'>): Placement => ({
      ...{ id: ctx.newId(), name: '', parent: null, layer: a.layer, hidden: false, colourway: null },
      ...{ t: [0, 0, 0], q: QUAT_IDENTITY, s: [1, 1, 1] },
      ...more,
    });
    const at = { t: a.t, q: a.q ?? QUAT_IDENTITY };
    const top =
      shown.length === 1
        ? base({ shows: { kind: 'part', part: shown[0]! }, ...at })
        : base({ shows: { kind: 'group' }, name: set[0]!.group ?? set[0]!.name, ...at });
    const below =
      shown.length === 1 ? [] : shown.map((part) => base({ shows: { kind: 'part', part }, parent: top.id }));
    return withScene(
      { ...project, palettes, parts },
      { ...scene, placements: appended(scene.placements, [top, ...below], GROUP) },
    );
  },
});
const samePlace = (a: Part, b: Part): boolean =>
  a.pivot.every((v, i) => v === b.pivot[i]) && a.bounds.min.every((v, i) => v === b.bounds.min[i]);

/** Keeps what placements show as a stamp, of several pieces where there are several; they stand in the lattice of the first. */
export const keepAsStampEdit = defineEdit<{ scene: Id; placements: readonly Id[]; name: string }>({
  name: 'keepAsStamp',
  label: (a) => say('label.keepAsStamp', { name: a.name }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      wanted = new Set(hangingIn(scene, a.placements).map((p) => p.id));
    const list = gather(project, { of: 'scene', scene: a.scene }).filter(
      (i) =>
        wanted.has(i.source.path[0]!) &&
        i.source.part !== null &&
        i.source.path.length === 1 &&
        i.geometry.kind === 'grid',
    );
    const first = list.find((i) => project.parts.some((p) => p.id === i.source.part));
    if (!first) throw new EditError('scenes.noPart');
    const home = must(project.parts, first.source.part!, 'part');
    const named = checkName(a.name);
    let { stamps } = project;
    const group =
      list.length > 1
        ? freeAmong(
            stamps.map((s) => ({ ...s, name: s.group ?? s.name })),
            { name: named, side: 'centre' } as Part,
          )
        : null;
    for (const i of list) {
      const part = project.parts.find((p) => p.id === i.source.part);
      if (!part || i.geometry.kind !== 'grid') continue;
      const grid = onLattice({ grid: i.geometry.grid, matrix: i.matrix, bytes: null }, first.matrix);
      if (!grid) throw new EditError('stamps.empty');
      const made = makePart(ctx.newId(), ctx.newId(), group === null ? named : part.name, part.palette, grid.bounds, {
        ...{ cell: home.cell, pivot: home.pivot, group },
      });
      stamps = [...stamps, { ...made, name: freeAmong(stamps, made), layers: [{ ...made.layers[0]!, grid }] }];
    }
    return { ...project, stamps };
  },
});

/** Stamps in the order of their names, or of their sizes. */
export const sortStampsEdit = defineEdit<{ by: 'name' | 'size' }>({
  name: 'sortStamps',
  label: (a) => say(a.by === 'name' ? 'label.sortStampsByName' : 'label.sortStampsBySize'),
  touches: () => [],
  run(project, { by }) {
    const size = (s: Part): number => composite(s).count;
    const stamps = [...project.stamps].sort((x, y) =>
      by === 'name' ? x.name.localeCompare(y.name, 'en') : size(x) - size(y),
    );
    return stamps.every((s, i) => s === project.stamps[i]) ? project : { ...project, stamps };
  },
});

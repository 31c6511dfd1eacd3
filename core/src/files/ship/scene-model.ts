import {
  type Mat4,
  MAT4_IDENTITY,
  type Steps,
  type Transform,
  decompose,
  invertMat,
  matrixOf,
  mulMat,
  translation,
} from '../../math';
import { type Id, type Lamp, type Placement, lookUp, must, pivotPoint, placementName } from '../../model';
import { hexToLinear } from '../../palette';
import { type DrawInstance, gather, lampsOf } from '../../scene';
import { note } from '../notes';
import { type ModelMaker, NOWHERE } from './model-maker';
import { PlacementTree } from './placement-tree';
import type { ShipLamp } from './ship-model';

/**
 * A node for each placement.
 *
 * @param root – only this placement and what hangs on it, standing where its origin is; null for all
 */
export function* addScene(maker: ModelMaker, id: Id, root: Id | null): Steps<void> {
  const { project } = maker;
  const scene = must(project.scenes, id, 'scene');
  const placements = new Map(scene.placements.flat().map((p) => [p.id, p]));
  const tree = new PlacementTree(placements);
  if (root !== null) must(scene.placements.flat(), root, 'placement');
  maker.title = root === null ? scene.name : placementName(project, placements.get(root)!);
  const all = gather(project, { of: 'scene', scene: id });
  const back = root === null ? MAT4_IDENTITY : invertMat(tree.world(root));
  const list = all
    .filter((i) => root === null || tree.hangsOn(i.source.path[0]!, root))
    .map((i): DrawInstance => (root === null ? i : { ...i, matrix: mulMat(back, i.matrix) }));
  const cubes = list.filter((i) => i.geometry.kind === 'cube').length;
  if (cubes > 0) maker.notes.push(note('cubesLeft', '', { n: cubes }));
  const shown = new Set(all.map((i) => i.source.path[0]!));
  const hidden = [...placements.values()].filter((p) => p.shows.kind !== 'group' && !shown.has(p.id)).length;
  if (hidden > 0 && root === null) maker.notes.push(note('placementsHidden', '', { n: hidden }));
  maker.begin(list);
  const made = new Map<Id, number>();
  const nodeOf = (p: Placement): number => {
    const known = p.id === root ? maker.top! : made.get(p.id);
    if (known !== undefined) return known;
    const above = p.id === root || p.parent === null ? undefined : placements.get(p.parent);
    const n = maker.node(maker.named(placementName(project, p), 'centre'), above ? nodeOf(above) : maker.top, p);
    made.set(p.id, n);
    return n;
  };
  for (const [i, instance] of list.entries()) {
    yield* addInstance(
      maker,
      instance,
      placements.get(instance.source.path[0]!)!,
      nodeOf,
      mulMat(back, tree.world(instance.source.path[0]!)),
    );
    yield (i + 1) / list.length;
  }
  for (const { lamp, matrix, copy } of lampsOf(project, id)) {
    if (root !== null && (lamp.parent === null || !tree.hangsOn(lamp.parent, root))) continue;
    const name = maker.named(copy > 0 ? `${lamp.name} ${copy + 1}` : lamp.name, 'centre'),
      place = { ...decompose(mulMat(back, matrix)), s: [1, 1, 1] as const };
    if (lamp.kind === 'panel' && copy === 0) maker.notes.push(note('panelAsSpot', lamp.name));
    const node = maker.node(name, maker.top, place);
    maker.nodes[node] = { ...maker.nodes[node]!, lamp: shipLamp(lamp) };
  }
}

/** A cone falls off over its outer fifth; a panel is a wide one. */
function shipLamp({ kind, colour, strength, angle }: Lamp): ShipLamp {
  const outer = ((kind === 'panel' ? 170 : Math.min(angle, 179)) * Math.PI) / 360;
  return {
    ...{ kind: kind === 'point' ? 'point' : 'spot', colour: hexToLinear(colour), intensity: strength },
    ...{ inner: outer * 0.8, outer },
  };
}

/** Something a placement shows: on the node of the placement where it stands as that does, else on a node of its own. */
function* addInstance(
  maker: ModelMaker,
  i: DrawInstance,
  p: Placement,
  nodeOf: (p: Placement) => number,
  world: Mat4,
): Steps<void> {
  if (i.geometry.kind !== 'grid') return;
  const home = p.shows.kind === 'asset' ? must(maker.project.assets, p.shows.asset, 'asset').project : maker.project;
  const part = lookUp(home.parts, i.source.part!)!;
  const mesh = yield* maker.meshOf(i, part, home.metresPerUnit);
  if (mesh === null) return;
  if (i.source.copy === 0 && p.shows.kind === 'part') {
    const n = nodeOf(p);
    maker.nodes[n] = { ...maker.nodes[n]!, mesh };
    yield* maker.collide(n, i, part, home.metresPerUnit);
    return;
  }
  // What stands here is made of project units of the scene, its mesh of those of its own project.
  const k = home.metresPerUnit / maker.project.metresPerUnit;
  const c = 1 / (part.cell * k);
  const stands = mulMat(i.matrix, mulMat(translation(pivotPoint(part)), matrixOf({ ...NOWHERE, s: [c, c, c] })));
  const name = maker.named(p.shows.kind === 'part' ? placementName(maker.project, p) : part.name, part.side);
  const node =
    i.source.copy > 0
      ? maker.node(`${name} ${i.source.copy + 1}`, maker.top, squared(maker, stands, name), mesh)
      : maker.node(name, nodeOf(p), squared(maker, mulMat(invertMat(world), stands), name), mesh);
  yield* maker.collide(node, i, part, home.metresPerUnit);
}

/** A matrix as a node can hold it; what leans under uneven scaling is noted. */
function squared(maker: ModelMaker, m: Mat4, name: string): Transform {
  const out = decompose(m);
  const again = matrixOf(out);
  if (m.some((v, i) => Math.abs(v - again[i]!) > 1e-4 * Math.max(1, Math.abs(v))))
    maker.notes.push(note('squared', name));
  return out;
}

import { MAT4_IDENTITY, type Mat4, decompose, invertMat, matrixOf, mulMat } from '../../math';
import {
  GROUP,
  type Id,
  type Lamp,
  type Part,
  type Placement,
  type Project,
  type Repeat,
  type Scene,
  appended,
  find,
  lookUp,
  must,
  worldOfPlacement,
} from '../../model';
import { SceneTree, othersOf } from '../../scene';
import { say } from '../../words';
import { type EditContext, EditError, defineEdit } from '../edit';
import { mirroredTransform } from '../twins';
import { copiedPart } from './copied-part';
import { lampsCopied } from './scene-lamps';
import { hangingIn } from './scene-tree';
import { mustPlacement, sceneName, withScene } from './scenes';

/** Copies of a repeat become placements of their own, where they stand, with all that hangs on them; an image shows twins of its parts. */
export const breakRepeatEdit = defineEdit<{ scene: Id; placement: Id }>({
  name: 'breakRepeat',
  label: (a, p) => say('label.breakRepeat', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      repeat = scene.repeats.find((r) => r.placement === a.placement);
    if (!repeat) return project;
    mustPlacement(scene, a.placement);
    const { parts, copies, lamps } =
      repeat.kind === 'mirror' ? image(project, scene, repeat, ctx) : copiesOf(project, scene, repeat, ctx);
    return withScene(
      { ...project, parts },
      {
        ...scene,
        placements: appended(scene.placements, copies, GROUP),
        lamps: [...scene.lamps, ...lamps],
        repeats: scene.repeats.filter((r) => r !== repeat),
      },
    );
  },
});

interface Broken {
  readonly parts: readonly Part[];
  readonly copies: readonly Placement[];
  readonly lamps: readonly Lamp[];
}

/** Placements with ids of their own that hang on each other as the first do, and the lamps that hang on them. */
function renewed(scene: Scene, all: readonly Placement[], ctx: EditContext): Pick<Broken, 'copies' | 'lamps'> {
  const to = new Map(all.map((p) => [p.id, ctx.newId()]));
  const copies = all.map((p) => ({
    ...p,
    id: to.get(p.id)!,
    parent: p.parent === null ? null : (to.get(p.parent) ?? p.parent),
  }));
  return { copies, lamps: lampsCopied(scene.lamps, to, () => ctx.newId()) };
}

function copiesOf(project: Project, scene: Scene, repeat: Repeat, ctx: EditContext): Broken {
  const [of, ...below] = hangingIn(scene, [repeat.placement]) as [Placement, ...Placement[]];
  const tree = new SceneTree();
  tree.list(project, scene, null);
  const above = of.parent === null ? MAT4_IDENTITY : invertMat(matrixOf(worldOfPlacement(scene, of.parent)));
  const others = othersOf(repeat);
  const place = (placed: Mat4) => decompose(mulMat(mulMat(above, placed), matrixOf(of)));
  const made = tree.placesOf(repeat.id).map(({ placed, source }): Pick<Broken, 'copies' | 'lamps'> => {
    // Another one comes alone: what hangs on the placement belongs to what it shows.
    if (source !== null)
      return { copies: [{ ...of, ...place(placed), id: ctx.newId(), shows: others[source]! }], lamps: [] };
    return renewed(scene, [{ ...of, ...place(placed) }, ...below], ctx);
  });
  return { parts: project.parts, copies: made.flatMap((m) => m.copies), lamps: made.flatMap((m) => m.lamps) };
}

function image(
  project: Project,
  scene: Scene,
  { placement, axis, at }: Repeat & { kind: 'mirror' },
  ctx: EditContext,
): Broken {
  let { parts } = project;
  const twinOf = (id: Id): Id => {
    const part = lookUp(parts, id);
    // What lies in the bin has no image to show either.
    if (!part) return id;
    if (part.twin?.axis === axis) return part.twin.source;
    if (part.twin) throw new EditError('scenes.twinAcross', { part: part.name });
    const known = parts.find((p) => p.twin?.source === id && p.twin.axis === axis);
    if (known) return known.id;
    const twin: Part = { ...copiedPart(part, parts, ctx), twin: { source: id, axis, plane: 0 } };
    parts = [...parts, twin];
    return twin.id;
  };
  const copies = hangingIn(scene, [placement]).map((p): Placement => {
    if (p.shows.kind === 'rig' || p.shows.kind === 'asset')
      throw new EditError('scenes.noImage', {
        name: p.name || find(project.assets, p.shows.kind === 'asset' ? p.shows.asset : '')?.name || project.name,
      });
    const there = mirroredTransform(p, axis, p.id === placement ? at : 0);
    return { ...p, ...there, shows: p.shows.kind === 'part' ? { kind: 'part', part: twinOf(p.shows.part) } : p.shows };
  });
  const { copies: images, lamps } = renewed(scene, copies, ctx);
  const over = (l: Lamp): Lamp => {
    const { t, q } = mirroredTransform({ t: l.t, q: l.q, s: [1, 1, 1] }, axis, 0);
    return { ...l, t, q };
  };
  return { parts, copies: images, lamps: lamps.map(over) };
}

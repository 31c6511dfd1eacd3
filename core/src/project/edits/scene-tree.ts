import { type Transform, TRANSFORM_IDENTITY, relativeTransform } from '../../math';
import {
  GROUP,
  type Id,
  type Placement,
  type Project,
  type Scene,
  appended,
  changed,
  freeName,
  lookUp,
  must,
  worldOfPlacement,
} from '../../model';
import { say } from '../../words';
import { partsToBin } from '../bin';
import { EditError, defineEdit } from '../edit';
import { copiedPart } from './copied-part';
import { checkName } from './names';
import { lampsCopied } from './scene-lamps';
import { mustPlacement, sceneName, withScene } from './scenes';

interface InScene {
  readonly scene: Id;
  readonly placements: readonly Id[];
}
const args = (p: Project, { scene, placements }: InScene) => ({ n: placements.length, scene: sceneName(p, scene) });

/** Placements and all that hangs on them, those above first. */
export function hangingIn(scene: Scene, ids: readonly Id[]): Placement[] {
  const all = scene.placements.flat(),
    below = new Map<Id | null, Placement[]>();
  for (const p of all) {
    const beside = below.get(p.parent);
    if (beside) beside.push(p);
    else below.set(p.parent, [p]);
  }
  const out: Placement[] = [],
    seen = new Set<Id>(),
    wanted = new Set(ids);
  const open = all.filter((p) => wanted.has(p.id));
  // It grows while it is walked.
  for (const at of open) {
    if (seen.has(at.id)) continue;
    seen.add(at.id);
    out.push(at);
    open.push(...(below.get(at.id) ?? []));
  }
  return out;
}

/** Of some placements those that hang on none of the others. */
export function topmost(scene: Scene, ids: readonly Id[]): Id[] {
  const wanted = new Set(ids),
    parents = new Map(scene.placements.flatMap((group) => group.map((p) => [p.id, p.parent] as const)));
  return ids.filter((id) => {
    for (let at = parents.get(id); at; at = parents.get(at)) if (wanted.has(at)) return false;
    return true;
  });
}

/** Takes placements out of a scene, with all that hangs on them and what repeats them. */
export const removePlacementsEdit = defineEdit<InScene>({
  name: 'removePlacements',
  label: (a, p) => say('label.removePlacements', args(p, a)),
  touches: (a) => [a.scene],
  run(project, { scene: id, placements }) {
    const scene = must(project.scenes, id, 'scene');
    for (const p of placements) mustPlacement(scene, p);
    const gone = new Set(hangingIn(scene, placements).map((p) => p.id));
    if (gone.size === 0) return project;
    return withScene(project, {
      ...scene,
      placements: changed(scene.placements, gone, () => null),
      repeats: scene.repeats.filter((r) => !gone.has(r.placement)),
      lamps: scene.lamps.filter((l) => l.parent === null || !gone.has(l.parent)),
    });
  },
});

/** Hangs placements on another, or on nothing; each stays where it stands. */
export const hangPlacementsEdit = defineEdit<InScene & { parent: Id | null }>({
  name: 'hangPlacements',
  label: (a, p) => say('label.hangPlacements', args(p, a)),
  touches: (a) => [a.scene],
  run(project, { scene: id, placements, parent }) {
    const scene = must(project.scenes, id, 'scene');
    if (parent !== null) mustPlacement(scene, parent);
    const top = topmost(scene, placements);
    if (parent !== null && hangingIn(scene, top).some((p) => p.id === parent)) throw new EditError('scenes.circle');
    const above = parent === null ? TRANSFORM_IDENTITY : worldOfPlacement(scene, parent);
    const moved = changed(scene.placements, new Set(top), (p) =>
      p.parent === parent ? p : { ...p, parent, ...relativeTransform(above, worldOfPlacement(scene, p.id)) },
    );
    return moved === scene.placements ? project : withScene(project, { ...scene, placements: moved });
  },
});

/** Puts placements under a group of their own, which stands on the ground below their middle. */
export const groupPlacementsEdit = defineEdit<InScene & { name: string }>({
  name: 'groupPlacements',
  label: (a, p) => say('label.groupPlacements', args(p, a)),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      top = topmost(scene, a.placements);
    if (top.length === 0) throw new EditError('scenes.nothing');
    const first = mustPlacement(scene, top[0]!),
      places = top.map((id) => worldOfPlacement(scene, id).t);
    const mean = (k: 0 | 1 | 2): number => places.reduce((s, t) => s + t[k], 0) / places.length;
    const world: Transform = {
      ...TRANSFORM_IDENTITY,
      t: [Math.round(mean(0)), Math.min(...places.map((t) => t[1])), Math.round(mean(2))],
    };
    const parent = first.parent;
    const local = parent === null ? world : relativeTransform(worldOfPlacement(scene, parent), world);
    const group: Placement = {
      ...{ id: ctx.newId(), name: nameFor(scene, checkName(a.name)), parent, layer: first.layer, hidden: false },
      ...{ shows: { kind: 'group' }, colourway: null },
      ...local,
    };
    const withGroup = withScene(project, { ...scene, placements: appended(scene.placements, [group], GROUP) });
    return hangPlacementsEdit.run(withGroup, { scene: a.scene, placements: top, parent: group.id }, ctx);
  },
});

/** A name that no placement of the scene bears. */
export const nameFor = (scene: Scene, name: string): string =>
  freeName(
    name,
    scene.placements.flat().map((p) => p.name),
  );

/**
 * Copies of placements and of all that hangs on them, moved by `shift` in the world: linked, so that they show the same parts, or with
 * parts of their own.
 */
export const duplicatePlacementsEdit = defineEdit<InScene & { shift: Transform['t']; linked: boolean }>({
  name: 'duplicatePlacements',
  label: (a, p) => say('label.duplicatePlacements', args(p, a)),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      top = new Set(topmost(scene, a.placements)),
      all = hangingIn(scene, [...top]),
      to = new Map(all.map((p) => [p.id, ctx.newId()]));
    const copies = all.map((p): Placement => {
      const copy = { ...p, id: to.get(p.id)!, parent: p.parent === null ? null : (to.get(p.parent) ?? p.parent) };
      if (!top.has(p.id)) return copy;
      const world = worldOfPlacement(scene, p.id),
        there = { ...world, t: world.t.map((v, k) => v + a.shift[k]!) as unknown as Transform['t'] };
      const above = p.parent === null ? TRANSFORM_IDENTITY : worldOfPlacement(scene, p.parent);
      return { ...copy, ...relativeTransform(above, there) };
    });
    const repeats = scene.repeats.flatMap((r) => {
      const placement = to.get(r.placement);
      return placement ? [{ ...r, id: ctx.newId(), placement }] : [];
    });
    const copied = withScene(project, {
      ...scene,
      placements: appended(scene.placements, copies, GROUP),
      repeats: [...scene.repeats, ...repeats],
      lamps: [...scene.lamps, ...lampsCopied(scene.lamps, to, () => ctx.newId())],
    });
    return a.linked ? copied : ownPartsEdit.run(copied, { scene: a.scene, placements: [...to.values()] }, ctx);
  },
});

/** Gives placements parts of their own: those that showed one part share its copy from then on, the others keep the part. */
export const ownPartsEdit = defineEdit<InScene>({
  name: 'ownParts',
  label: (a, p) => say('label.ownParts', args(p, a)),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene');
    const copies = new Map<Id, Id>();
    let { parts } = project;
    for (const id of a.placements) {
      const { shows } = mustPlacement(scene, id);
      const part = shows.kind === 'part' ? lookUp(project.parts, shows.part) : undefined;
      if (!part || copies.has(part.id)) continue;
      const copy = copiedPart(part, parts, ctx);
      copies.set(part.id, copy.id);
      parts = parts.toSpliced(parts.findIndex((p) => p.id === part.id) + 1, 0, copy);
    }
    if (copies.size === 0) throw new EditError('scenes.noPart');
    const placements = changed(scene.placements, new Set(a.placements), (p): Placement => {
      const part = p.shows.kind === 'part' && copies.get(p.shows.part);
      return part ? { ...p, shows: { kind: 'part', part } } : p;
    });
    return withScene({ ...project, parts }, { ...scene, placements });
  },
});

/** Placements show something else and stay where they are. */
export const swapPlacementsEdit = defineEdit<InScene & { shows: Placement['shows'] }>({
  name: 'swapPlacements',
  label: (a, p) => say('label.swapPlacements', args(p, a)),
  touches: (a) => [a.scene],
  run(project, { scene: id, placements, shows }) {
    const scene = must(project.scenes, id, 'scene');
    for (const p of placements) mustPlacement(scene, p);
    const next = changed(scene.placements, new Set(placements), (p) =>
      JSON.stringify(p.shows) === JSON.stringify(shows) ? p : { ...p, shows },
    );
    return next === scene.placements ? project : withScene(project, { ...scene, placements: next });
  },
});

/** All that shows some parts shows another from then on; those that nothing else needs go to the bin. */
export const linkPartsEdit = defineEdit<{ keep: Id; parts: readonly Id[] }>({
  name: 'linkParts',
  risky: () => true,
  label: (a, p) => say('label.linkParts', { n: a.parts.length, name: must(p.parts, a.keep, 'part').name }),
  touches: (a) => [a.keep, ...a.parts],
  run(project, a, ctx) {
    must(project.parts, a.keep, 'part');
    const gone = new Set(a.parts.filter((id) => id !== a.keep));
    const scenes = project.scenes.map((scene) => {
      const mine = new Set(
        scene.placements.flatMap((g) =>
          g.flatMap((p) => (p.shows.kind === 'part' && gone.has(p.shows.part) ? [p.id] : [])),
        ),
      );
      if (mine.size === 0) return scene;
      const shows: Placement['shows'] = { kind: 'part', part: a.keep };
      return { ...scene, placements: changed(scene.placements, mine, (p) => ({ ...p, shows })) };
    });
    const mounted = new Set(project.rig.mounts.flatMap((m) => (m.bone === null ? [] : [m.part])));
    const spare = project.parts.filter(
      (p) => gone.has(p.id) && !mounted.has(p.id) && !project.parts.some((o) => o.twin?.source === p.id),
    );
    return partsToBin({ ...project, scenes }, spare, ctx);
  },
});

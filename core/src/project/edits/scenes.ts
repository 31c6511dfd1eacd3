import {
  GROUP,
  type Id,
  MAX_PLACEMENTS,
  type Placement,
  type Project,
  type Scene,
  appended,
  changed,
  find,
  findIn,
  freeName,
  lookUp,
  must,
  replaceRecord,
} from '../../model';
import { TRANSFORM_IDENTITY } from '../../math';
import { recordToBin } from '../bin';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';

/** The colour of a scene's first layer. */
const LAYER_COLOUR = '#c98a2b';

/** A scene with nothing in it but a layer. */
export const addSceneEdit = defineEdit<{ name: string }>({
  name: 'addScene',
  label: (a) => `New scene ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const taken = project.scenes.map((s) => s.name);
    const layer = { id: ctx.newId(), name: 'Layer 1', colour: LAYER_COLOUR, hidden: false, locked: false };
    const scene: Scene = {
      id: ctx.newId(),
      name: freeName(checkName(a.name), taken),
      layers: [layer],
      placements: [],
      repeats: [],
      lamps: [],
    };
    return { ...project, scenes: [...project.scenes, scene] };
  },
});

export const sceneName = (p: Project, id: Id): string => find(p.scenes, id)?.name ?? 'a scene';
const some = (n: number): string => (n === 1 ? 'a placement' : `${n.toLocaleString('en')} placements`);

/** What a placement shows must be there. @throws MissingError */
function checkShown(project: Project, { shows }: Pick<Placement, 'shows'>): void {
  if (shows.kind === 'part' && !lookUp(project.parts, shows.part)) must(project.parts, shows.part, 'part');
  if (shows.kind === 'asset') must(project.assets, shows.asset, 'asset');
  if (shows.kind === 'cube')
    must(
      project.terrainSets.flatMap((s) => s.cubes),
      shows.cube,
      'terrain cube',
    );
}

export const renameSceneEdit = defineEdit<{ scene: Id; name: string }>({
  name: 'renameScene',
  label: (a, p) => `Rename ${sceneName(p, a.scene)} to ${a.name}`,
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene');
    const others = project.scenes.filter((s) => s !== scene).map((s) => s.name);
    const name = freeName(checkName(a.name), others);
    return name === scene.name ? project : withScene(project, { ...scene, name });
  },
});

/** To the bin, with all that stands in it; parts stay. */
export const deleteSceneEdit = defineEdit<{ scene: Id }>({
  name: 'deleteScene',
  label: (a, p) => `Delete ${sceneName(p, a.scene)}`,
  touches: (a) => [a.scene],
  run: (project, a, ctx) => recordToBin(project, 'scene', a.scene, ctx),
});

/** Places things in a scene, on its first layer unless another is named. */
export const placeEdit = defineEdit<{
  scene: Id;
  placements: readonly (Pick<Placement, 'shows'> & Partial<Omit<Placement, 'id'>>)[];
}>({
  name: 'place',
  label: (a, p) => `Place ${a.placements.length.toLocaleString('en')} in ${sceneName(p, a.scene)}`,
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene');
    const count = scene.placements.reduce((n, g) => n + g.length, a.placements.length);
    if (count > MAX_PLACEMENTS)
      throw new EditError('scenes.tooMany', { scene: scene.name, count, most: MAX_PLACEMENTS });
    const fresh = a.placements.map((p): Placement => {
      checkShown(project, p);
      if (p.parent) mustPlacement(scene, p.parent);
      if (p.layer) must(scene.layers, p.layer, 'layer of the scene');
      return {
        ...TRANSFORM_IDENTITY,
        name: '',
        parent: null,
        layer: scene.layers[0]!.id,
        hidden: false,
        colourway: null,
        ...p,
        id: ctx.newId(),
      };
    });
    return withScene(project, { ...scene, placements: appended(scene.placements, fresh, GROUP) });
  },
});

/** Changes how placements stand and look; each by its own change. */
export const changePlacementsEdit = defineEdit<{
  scene: Id;
  changes: readonly { readonly id: Id; readonly change: Partial<Omit<Placement, 'id' | 'parent' | 'shows'>> }[];
}>({
  name: 'changePlacements',
  label: (a, p) => `Change ${some(a.changes.length)} in ${sceneName(p, a.scene)}`,
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene');
    const byId = new Map(a.changes.map((c) => [c.id, c.change]));
    for (const { id, change } of a.changes) {
      mustPlacement(scene, id);
      if (change.s?.some((s) => !(s > 0))) throw new EditError('scenes.scale');
      if (change.layer) must(scene.layers, change.layer, 'layer of the scene');
    }
    const placements = changed(scene.placements, new Set(byId.keys()), (p) => {
      const next = { ...p, ...byId.get(p.id) };
      return JSON.stringify(next) === JSON.stringify(p) ? p : next;
    });
    return placements === scene.placements ? project : withScene(project, { ...scene, placements });
  },
});

export const withScene = (project: Project, scene: Scene): Project => ({
  ...project,
  scenes: replaceRecord(project.scenes, scene),
});

/** @throws MissingError */
export const mustPlacement = (scene: Scene, id: Id): Placement =>
  findIn(scene.placements, id) ?? must<Placement>([], id, 'placement');

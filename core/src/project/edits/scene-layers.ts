import { type Id, type SceneLayer, changed, freeName, must, placementsOf, replaceRecord } from '../../model';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';
import { sceneName, withScene } from './scenes';

/** Colours of layers, in the order in which they are made. */
const COLOURS = ['#c98a2b', '#2e7d6b', '#a5482a', '#5a5f94', '#8a4f7d', '#6b7f3a', '#3f7fa6', '#8d8471'];

export const addSceneLayerEdit = defineEdit<{ scene: Id; name: string }>({
  name: 'addSceneLayer',
  label: (a) => say('label.addSceneLayer', a),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene');
    const name = freeName(
      checkName(a.name),
      scene.layers.map((l) => l.name),
    );
    const colour = COLOURS[scene.layers.length % COLOURS.length]!;
    const layer: SceneLayer = { id: ctx.newId(), name, colour, hidden: false, locked: false };
    return withScene(project, { ...scene, layers: [...scene.layers, layer] });
  },
});

/** Name, colour, whether it is seen and whether it may be changed. */
export const changeSceneLayerEdit = defineEdit<{ scene: Id; layer: Id; change: Partial<Omit<SceneLayer, 'id'>> }>({
  name: 'changeSceneLayer',
  label: (a, p) => say('label.changeSceneLayer', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene'),
      layer = must(scene.layers, a.layer, 'layer of the scene');
    const others = scene.layers.filter((l) => l !== layer).map((l) => l.name);
    const name = a.change.name === undefined ? layer.name : freeName(checkName(a.change.name), others);
    const next = { ...layer, ...a.change, name };
    if (JSON.stringify(next) === JSON.stringify(layer)) return project;
    return withScene(project, { ...scene, layers: replaceRecord(scene.layers, next) });
  },
});

/** What lies on a layer that goes comes to the first that stays. */
export const removeSceneLayerEdit = defineEdit<{ scene: Id; layer: Id }>({
  name: 'removeSceneLayer',
  label: (a, p) => say('label.removeSceneLayer', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene'),
      layers = scene.layers.filter((l) => l.id !== a.layer);
    must(scene.layers, a.layer, 'layer of the scene');
    const [first] = layers;
    if (!first) throw new EditError('scenes.lastLayer');
    const on = new Set(placementsOf(scene).flatMap((p) => (p.layer === a.layer ? [p.id] : [])));
    return withScene(project, {
      ...scene,
      layers,
      placements: changed(scene.placements, on, (p) => ({ ...p, layer: first.id })),
      lamps: scene.lamps.map((l) => (l.layer === a.layer ? { ...l, layer: first.id } : l)),
    });
  },
});

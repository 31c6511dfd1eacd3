import { QUAT_IDENTITY } from '../../math';
import { type Id, type Lamp, type Project, freeName, must, replaceRecord } from '../../model';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';
import { mustPlacement, sceneName, withScene } from './scenes';

/** Lamps that a scene may hold. */
const MOST = 1024;

/** A lamp as it is first hung: warm, and bright enough to be seen by day. */
export const LAMP: Pick<Lamp, 'kind' | 'colour' | 'strength' | 'size' | 'angle'> = {
  ...{ kind: 'point', colour: '#ffd08a', strength: 40 },
  ...{ size: 2, angle: 60 },
};

/** Hangs a lamp on a placement, or stands it in the scene. */
export const addLampEdit = defineEdit<{ scene: Id; lamp: Partial<Omit<Lamp, 'id'>> }>({
  name: 'addLamp',
  label: (a, p) => say('label.addLamp', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene');
    if (scene.lamps.length >= MOST) throw new EditError('scenes.manyLamps', { scene: scene.name, most: MOST });
    if (a.lamp.parent) mustPlacement(scene, a.lamp.parent);
    const lamp: Lamp = {
      ...{ ...LAMP, parent: null, layer: scene.layers[0]!.id, hidden: false, t: [0, 0, 0], q: QUAT_IDENTITY },
      ...a.lamp,
      id: ctx.newId(),
      name: freeName(
        checkName(a.lamp.name ?? 'Lamp'),
        scene.lamps.map((l) => l.name),
      ),
    };
    return withScene(project, { ...scene, lamps: [...scene.lamps, lamp] });
  },
});

/** Changes lamps, each by its own change. */
export const changeLampsEdit = defineEdit<{
  scene: Id;
  changes: readonly { readonly id: Id; readonly change: Partial<Omit<Lamp, 'id'>> }[];
}>({
  name: 'changeLamps',
  label: (a, p) => say('label.changeLamps', { n: a.changes.length, scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project: Project, a) {
    const scene = must(project.scenes, a.scene, 'scene');
    let { lamps } = scene;
    for (const { id, change } of a.changes) {
      const lamp = must(lamps, id, 'lamp');
      if (change.parent) mustPlacement(scene, change.parent);
      if (change.layer) must(scene.layers, change.layer, 'layer of the scene');
      const others = lamps.filter((l) => l.id !== id).map((l) => l.name);
      const name = change.name === undefined ? lamp.name : freeName(checkName(change.name), others);
      const next = { ...lamp, ...change, name };
      if (JSON.stringify(next) !== JSON.stringify(lamp)) lamps = replaceRecord(lamps, next);
    }
    return lamps === scene.lamps ? project : withScene(project, { ...scene, lamps });
  },
});

/** Takes lamps away. */
export const removeLampsEdit = defineEdit<{ scene: Id; lamps: readonly Id[] }>({
  name: 'removeLamps',
  label: (a, p) => say('label.removeLamps', { n: a.lamps.length, scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene');
    for (const id of a.lamps) must(scene.lamps, id, 'lamp');
    if (a.lamps.length === 0) return project;
    return withScene(project, { ...scene, lamps: scene.lamps.filter((l) => !a.lamps.includes(l.id)) });
  },
});

/** Copies of lamps that hang on placements of which copies are made. @param to – from each placement to its copy */
export const lampsCopied = (lamps: readonly Lamp[], to: ReadonlyMap<Id, Id>, newId: () => Id): Lamp[] => {
  const names = lamps.map((l) => l.name);
  return lamps.flatMap((l) => {
    const parent = l.parent === null ? undefined : to.get(l.parent);
    if (parent === undefined) return [];
    const name = freeName(l.name, names);
    names.push(name);
    return [{ ...l, id: newId(), parent, name }];
  });
};

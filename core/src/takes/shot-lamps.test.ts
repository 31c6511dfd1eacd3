import { expect, it } from 'vitest';
import { type Project, idsFrom, makeLight, makeProject } from '../model';
import { addLampEdit, addSceneEdit, apply, editContext } from '../project';
import { shotLamps } from '../render';

it('a shot dims all lamps of its scene, and moves, dims and colours each as it says; the scene keeps its own', () => {
  let project: Project = makeProject('quay', 'Quay', idsFrom('quay'), 'scene');
  const ctx = editContext('lamps');
  project = apply(project, addSceneEdit, { name: 'Quay' }, ctx);
  const { id: scene, layers } = project.scenes[0]!;
  for (const x of [0, 20])
    project = apply(
      project,
      addLampEdit,
      {
        scene,
        lamp: { parent: null, t: [x, 10, 0], strength: 9, layer: layers[0]!.id, colour: '#ffffff', name: 'Lantern' },
      },
      ctx,
    );
  const own = shotLamps(project, scene, makeLight({}));
  const lamp = project.scenes[0]!.lamps[1]!.id;
  const change = { lamp, strength: 4, colour: '#ff0000', by: [1, 2, 3] as const };
  const [first, second] = shotLamps(project, scene, makeLight({ lamps: { strength: 0.5, changes: [change] } }));
  expect([first!.at, second!.at]).toEqual([own[0]!.at, [21, 12, 3]]);
  expect(first!.colour[0] / own[0]!.colour[0]).toBeCloseTo(0.5, 9);
  expect(second!.colour[0] / own[1]!.colour[0]).toBeCloseTo(2, 9);
  expect([second!.colour[1], second!.colour[2]]).toEqual([0, 0]);
  // A lamp that has gone since is passed by.
  const gone = makeLight({ lamps: { strength: 1, changes: [{ ...change, lamp: 'gone' }] } });
  expect(shotLamps(project, scene, gone)).toEqual(own);
});

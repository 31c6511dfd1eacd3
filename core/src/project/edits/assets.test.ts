import { expect, it } from 'vitest';
import { checkSound, idsFrom, makeProject, migrateProject, placementsOf, projectToJson } from '../../model';
import { gather } from '../../scene';
import { boxStroke } from '../../sculpt';
import * as edits from '..';
import { type Edit, apply, editContext } from '../edit';
import type { Project } from '../../model';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`assets ${n++}`));
/** The same each time, ids and all. */
function boat(): Project {
  n = 100;
  const p = makeProject('boat', 'Boat', idsFrom('boat'), 'prop', [4, 2, 2]);
  const part = p.parts[0]!;
  const filled = run(p, edits.strokeEdit, {
    part: part.id,
    layer: part.layers[0]!.id,
    stroke: boxStroke('add', 3, [part.bounds]),
  });
  return run(filled, edits.addClipEdit, { name: 'Sway', frames: 12, fps: 24, loop: true });
}

it('a whole project stands in a scene, is brought up to date on demand, and what changed is told', () => {
  let p = run(makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [2, 2, 2]), edits.addSceneEdit, { name: 'Night' });
  const scene = p.scenes[0]!.id;
  p = run(p, edits.embedProjectEdit, { project: boat(), revision: '1' });
  const asset = p.assets[0]!;
  const clip = asset.project.clips[0]!.id;
  p = run(p, edits.placeEdit, { scene, placements: [{ shows: { kind: 'asset', asset: asset.id, clip, time: 5 } }] });
  const cubes = (q: Project): number =>
    gather(q, { of: 'scene', scene }).reduce(
      (sum, i) => sum + (i.geometry.kind === 'grid' ? i.geometry.grid.count : 0),
      0,
    );
  expect(cubes(p)).toBe(16);
  expect(edits.assetChanges(asset, boat())).toEqual({ parts: [], clips: [], rig: false, colours: false });
  let newer = boat();
  const part = newer.parts[0]!;
  newer = run(newer, edits.strokeEdit, {
    part: part.id,
    layer: part.layers[0]!.id,
    stroke: boxStroke('erase', 0, [{ min: part.bounds.min, size: [1, 1, 1] }]),
  });
  newer = run(newer, edits.deleteClipEdit, { clip });
  expect(edits.assetChanges(asset, newer)).toEqual({ parts: [part.name], clips: ['Sway'], rig: false, colours: false });
  const fresh = run(p, edits.refreshAssetEdit, { asset: asset.id, project: newer, revision: '2' });
  expect([cubes(fresh), fresh.assets[0]!.source.revision, placementsOf(fresh.scenes[0]!)[0]!.shows]).toEqual([
    15,
    '2',
    { kind: 'asset', asset: asset.id, clip: null, time: 0 },
  ]);
  checkSound(fresh);
  expect(migrateProject(JSON.parse(JSON.stringify(projectToJson(fresh))))).toBeTruthy();
  expect(() => run(p, edits.removeAssetEdit, { asset: asset.id })).toThrow('stands in');
  const gone = run(p, edits.removePlacementsEdit, { scene, placements: [placementsOf(p.scenes[0]!)[0]!.id] });
  expect(run(gone, edits.removeAssetEdit, { asset: asset.id }).assets).toEqual([]);
  expect(() => run(p, edits.embedProjectEdit, { project: p, revision: '' })).toThrow('its own scene');
  expect(() =>
    run(p, edits.embedProjectEdit, { project: makeProject('x', 'Bare', idsFrom('x')), revision: '' }),
  ).toThrow('has no figure');
});

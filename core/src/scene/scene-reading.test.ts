import { expect, it } from 'vitest';
import { type Project, idsFrom, makeProject, placementsOf } from '../model';
import * as edits from '../project';
import { type Edit, apply, editContext } from '../project';
import { boxStroke } from '../sculpt';
import { readScene } from './scene-reading';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`reading ${n++}`));

it('a scene is read: what could be linked, what is of other cubes, what floats, what stands in what', () => {
  let p = makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [4, 4, 4]);
  const fill = (i: number): void => {
    const part = p.parts[i]!;
    p = run(p, edits.strokeEdit, {
      part: part.id,
      layer: part.layers[0]!.id,
      stroke: boxStroke('add', 3, [part.bounds]),
    });
  };
  fill(0);
  p = run(p, edits.addPartEdit, { name: 'Fine', bounds: { min: [0, 0, 0], size: [4, 4, 4] }, cell: 0.5 });
  fill(1);
  p = run(p, edits.duplicatePartEdit, { part: p.parts[0]!.id });
  const copy = p.parts.findIndex((o) => o.name !== 'Fine' && o.id !== p.parts[0]!.id);
  p = run(p, edits.addSceneEdit, { name: 'Night' });
  const scene = p.scenes[0]!.id;
  const of = (i: number) => ({ kind: 'part', part: p.parts[i]!.id }) as const;
  p = run(p, edits.placeEdit, {
    scene,
    placements: [
      { shows: of(0), t: [0, 0, 0] },
      { shows: of(copy), t: [10, 0, 0] },
      { shows: of(p.parts.findIndex((o) => o.name === 'Fine')), t: [20, 0, 0] },
      // It hangs three above the first; the next stands a cube deep in the second; the last lies on the first.
      { shows: of(0), t: [0, 12, 0] },
      { shows: of(0), t: [13, 0, 0] },
      { shows: of(0), t: [0, 4, 0] },
    ],
  });
  const [, second, fine, floats, into] = placementsOf(p.scenes[0]!).map((o) => o.id);
  const found = readScene(p, scene);
  expect(found).toEqual([
    { code: 'alike', keep: p.parts[0]!.id, parts: [p.parts[copy]!.id], placements: [second] },
    { code: 'otherCubes', edge: 0.5, placements: [fine] },
    { code: 'floats', by: 4, placements: [floats] },
    { code: 'within', cubes: 16, placements: expect.arrayContaining([second, into]) as unknown },
  ]);
  // Linked, it is no longer told.
  const linked = run(p, edits.linkPartsEdit, { keep: p.parts[0]!.id, parts: [p.parts[copy]!.id] });
  expect(readScene(linked, scene).map((f) => f.code)).toEqual(['otherCubes', 'floats', 'within']);
});

it('groups that hold the same things are told together, whatever they are called and wherever they stand', () => {
  let p = makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [4, 4, 4]);
  const part = p.parts[0]!;
  p = run(p, edits.strokeEdit, {
    part: part.id,
    layer: part.layers[0]!.id,
    stroke: boxStroke('add', 3, [part.bounds]),
  });
  p = run(p, edits.addSceneEdit, { name: 'Night' });
  const scene = p.scenes[0]!.id,
    shows = { kind: 'part', part: part.id } as const;
  const groups: string[] = [];
  // Three stalls of two crates, the last with one of them a little higher.
  for (const [i, high] of [0, 0, 1].entries()) {
    p = run(p, edits.placeEdit, {
      scene,
      placements: [
        { shows, t: [i * 40, 0, 0] },
        { shows, t: [i * 40 + 8, high, 0] },
      ],
    });
    const two = placementsOf(p.scenes[0]!)
      .slice(-2)
      .map((o) => o.id);
    p = run(p, edits.groupPlacementsEdit, { scene, placements: two, name: `Stall ${i}` });
    groups.push(placementsOf(p.scenes[0]!).find((o) => o.name === `Stall ${i}`)!.id);
  }
  const told = (of: Project): unknown[] => readScene(of, scene).filter((f) => f.code === 'alikeGroups');
  expect(told(p)).toEqual([{ code: 'alikeGroups', placements: groups.slice(0, 2) }]);
  // One of them is changed: they are no longer alike.
  const inside = placementsOf(p.scenes[0]!).find((o) => o.parent === groups[0])!;
  const changed = run(p, edits.changePlacementsEdit, { scene, changes: [{ id: inside.id, change: { t: [1, 2, 3] } }] });
  expect(told(changed)).toEqual([]);
});

import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { readProjectFile, writeProjectFile } from '../../files';
import { type Project, composite, idsFrom, makeProject, projectToJson } from '../../model';
import { boxStroke } from '../../sculpt';
import { type Edit, apply, editContext, isRisky, jump, record, setPoints, startHistory, originalOf } from '..';
import * as edits from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project =>
  apply(p, edit, args, editContext(`points ${n}`, 1000 + n++));
const start = makeProject('p', 'Bollard', idsFrom('bollard'), 'prop', [8, 12, 8]);
const fill = (p: Project, height: number): Project =>
  run(p, edits.strokeEdit, {
    part: p.parts[0]!.id,
    layer: p.parts[0]!.layers[0]!.id,
    stroke: boxStroke('add', 3, [{ min: [0, 0, 0], size: [4, height, 4] }]),
  });
const cubes = (p: Project): number => composite(p.parts[0]!).count;

describe('restore points', () => {
  it('hold the project as it was without holding anything twice; going back makes one of what was', () => {
    const p = fill(start, 3),
      kept = run(p, edits.keepPointEdit, { name: 'Low' });
    expect(kept.restorePoints[0]).toMatchObject({
      name: 'Low',
      auto: false,
      project: { name: 'Bollard', restorePoints: [] },
    });
    expect(kept.restorePoints[0]!.project.parts).toBe(p.parts);
    const tall = run(fill(kept, 9), edits.renameProjectEdit, { name: 'Tall bollard' });
    const back = run(tall, edits.goBackEdit, { point: tall.restorePoints[0]!.id });
    expect([cubes(tall), cubes(back), back.name]).toEqual([144, 48, 'Tall bollard']);
    expect(back.restorePoints.map((r) => [r.name, r.auto])).toEqual([
      ['Low', false],
      ['Before going back to Low', true],
    ]);
    // And forth again, with nothing new to keep.
    const forth = run(back, edits.goBackEdit, { point: back.restorePoints[1]!.id });
    expect([cubes(forth), forth.restorePoints.length]).toEqual([144, 3]);
    expect(run(forth, edits.goBackEdit, { point: forth.restorePoints[1]!.id })).toBe(forth);
    expect(() => run(p, edits.keepPointEdit, { name: ' ' })).toThrow(/needs a name/);
  });
  it('made by themselves the newest twenty stay, one’s own all; a new name makes one of them one’s own', () => {
    let p = run(fill(start, 1), edits.keepPointEdit, { name: 'First' });
    for (let i = 0; i < edits.AUTO_POINTS + 5; i++) {
      const after = fill(p, 2 + (i % 2));
      p = edits.withPointBefore(p, after === p ? fill(p, 5 + i) : after, `Before: ${i}`, editContext(`auto ${i}`, i));
      p = { ...p, parts: p.parts.map((o) => ({ ...o, name: `Post ${i}` })) };
    }
    expect(p.restorePoints.filter((r) => r.auto).map((r) => r.name)).toEqual(
      Array.from({ length: edits.AUTO_POINTS }, (_, i) => `Before: ${i + 5}`),
    );
    expect(p.restorePoints[0]!.name).toBe('First');
    const mine = run(p, edits.renamePointEdit, { point: p.restorePoints[1]!.id, name: 'First' });
    expect(mine.restorePoints[1]).toMatchObject({ name: 'First 2', auto: false });
    const gone = run(mine, edits.deletePointsEdit, { points: [mine.restorePoints[1]!.id] });
    expect(gone.restorePoints).toHaveLength(edits.AUTO_POINTS);
    const again = run(gone, edits.putPointsBackEdit, { points: [mine.restorePoints[1]!] });
    expect(new Set(again.restorePoints)).toEqual(new Set(mine.restorePoints));
    // Nothing has changed since the last: no second one of the same.
    const last = again.restorePoints.at(-1)!;
    const same = { ...last.project, restorePoints: again.restorePoints };
    expect(edits.withPointBefore(same, fill(same, 7), 'Before: more', editContext('more')).restorePoints).toBe(
      again.restorePoints,
    );
  });
  it('are asked for by steps that are hard to take back, several at once too', () => {
    const shrink = { part: 'a', bounds: start.parts[0]!.bounds };
    expect(isRisky(edits.resizePartEdit, shrink)).toBe(false);
    expect(isRisky(edits.resizePartEdit, { ...shrink, cut: true })).toBe(true);
    expect(isRisky(edits.setProjectEdit, { metresPerUnit: 1 })).toBe(false);
    expect(isRisky(edits.setProjectEdit, { kind: 'scene' })).toBe(true);
    expect(isRisky(edits.coarsenPartEdit, { part: 'a', by: 2 })).toBe(true);
  });
  it('are those of the present at every step of the history, whichever way one goes', () => {
    const view = 0;
    const step = (project: Project, label: string) => ({
      label,
      at: 0,
      where: '',
      project,
      viewBefore: view,
      viewAfter: view,
    });
    let h = record(startHistory(start, view, 0), step(fill(start, 2), 'two'));
    h = record(h, step(fill(h.entries[1]!.project, 4), 'four'));
    const before = h.entries;
    h = setPoints(h, run(h.entries[2]!.project, edits.keepPointEdit, { name: 'Four' }).restorePoints);
    expect([h.entries.length, h.now]).toEqual([3, 2]);
    h = jump(h, 0);
    expect([cubes(h.entries[0]!.project), h.entries[0]!.project.restorePoints.map((r) => r.name)]).toEqual([
      0,
      ['Four'],
    ]);
    h = record(h, step(fill(h.entries[0]!.project, 1), 'one'));
    // What could be redone is gone; the point is not.
    expect(cubes(h.entries[1]!.project.restorePoints[0]!.project)).toBe(64);
    expect(originalOf(h.entries[0]!)).toBe(before[0]);
  });
  it('go into the file with the project, cells that are alike once, and come back', () => {
    const p = fill(
      run(run(fill(start, 3), edits.keepPointEdit, { name: 'Low' }), edits.keepPointEdit, { name: 'Low too' }),
      9,
    );
    const bytes = writeProjectFile(p);
    expect(Object.keys(unzipSync(bytes)).filter((f) => f.startsWith('cells/'))).toHaveLength(2);
    const { result, notes } = readProjectFile(bytes);
    expect(notes).toEqual([]);
    expect(projectToJson(result)).toEqual(projectToJson(p));
    expect(result.restorePoints.map((r) => [r.name, cubes(r.project)])).toEqual([
      ['Low', 48],
      ['Low too', 48],
    ]);
  });
});

import { readProjectFile, writeProjectFile } from '@sphalerite/core/files';
import { type Vec3, boxFromCells, transformPoint } from '@sphalerite/core/math';
import { type Project, composite } from '@sphalerite/core/model';
import * as edits from '@sphalerite/core/project';
import { placeParts } from '@sphalerite/core/rig';
import { CellSet } from '@sphalerite/core/voxel';
import { describe, expect, it } from 'vitest';
import { buildOswin } from '.';

let step = 0;
const run = <A>(p: Project, edit: edits.Edit<A>, args: A): Project =>
  edits.apply(p, edit, args, edits.editContext(`oswin ${step++}`, 1000));
/** What is seen: every cube of every visible part as the place of its middle and edge in the world, with its colour. Finer cubes as the coarse ones they make up. */
function seen(p: Project, coarse = 1): string[] {
  const out = new Set<string>();
  for (const { part, matrix } of placeParts(p)) {
    const k = part.cell === coarse ? 1 : coarse / part.cell;
    composite(part).forEach((x, y, z, v) => {
      const c = k === 1 ? [x, y, z] : [Math.floor(x / k) * k, Math.floor(y / k) * k, Math.floor(z / k) * k];
      out.add(
        `${transformPoint(matrix, [c[0]! + k / 2, c[1]! + k / 2, c[2]! + k / 2])
          .map((n) => Math.round(n * 1e4) / 1e4 || 0)
          .join()} ${v}`,
      );
    });
  }
  return [...out].sort();
}
const box = (a: Vec3, b: Vec3): CellSet => CellSet.ofBox(boxFromCells(a, b));
const both = (a: Vec3, b: Vec3): CellSet[] => [box(a, b), box([-1 - b[0], a[1], a[2]], [-1 - a[0], b[1], b[2]])];
const centre = (name: string, cells: CellSet) => ({ name, side: 'centre' as const, cells });
/** Thirteen pieces; what is left is the body. */
const PIECES = [
  centre('Beak', box([-2, 34, 13], [1, 35, 20])),
  centre('Head', box([-4, 33, -1], [3, 39, 12])),
  centre('Upper neck', box([-2, 29, 6], [1, 32, 9])),
  centre('Middle neck', box([-2, 25, 5], [1, 28, 10])),
  centre('Lower neck', box([-3, 19, 5], [2, 24, 9])),
  ...both([5, 13, -15], [7, 21, 5]).map((c) => centre('Wing', c)),
  ...both([2, 9, -2], [4, 12, 2]).map((c) => centre('Thigh', c)),
  ...both([3, 2, -1], [4, 8, 1]).map((c) => centre('Shin', c)),
  ...both([2, 0, -2], [4, 1, 6]).map((c) => centre('Foot', c)),
];
const HOW = { rest: 'Body', plug: 0, clearance: 0, socket: false, bones: true, keepWhole: true };
const named = (): Project => {
  const p = buildOswin();
  return run(p, edits.addRegionsEdit, { part: p.parts[0]!.id, pieces: PIECES, half: 0 });
};

describe('Oswin, forty cubes high, taken apart into fourteen', () => {
  const whole = named(),
    before = seen(whole);
  const apart = run(whole, edits.takeApartEdit, { part: whole.parts[0]!.id, ...HOW });
  const part = (p: Project, name: string, side = 'centre') => p.parts.find((o) => o.name === name && o.side === side)!;
  const bone = (p: Project, name: string, side = 'centre') =>
    p.rig.bones.find((o) => o.name === name && o.side === side)!;

  it('is forty high, and becomes fourteen parts on bones that hang as he does', () => {
    expect(composite(whole.parts[0]!).contentBox()!.size[1]).toBe(40);
    expect(apart.parts.filter((p) => !p.hidden)).toHaveLength(14);
    const above = (name: string, side?: string) => {
      const up = apart.rig.bones.find((b) => b.id === bone(apart, name, side).parent)!;
      return `${up.name} ${up.side}`;
    };
    expect(['Beak', 'Head', 'Upper neck', 'Middle neck'].map((n) => above(n))).toEqual([
      'Head centre',
      'Upper neck centre',
      'Middle neck centre',
      'Lower neck centre',
    ]);
    for (const side of ['left', 'right'])
      expect([above('Foot', side), above('Shin', side), above('Wing', side)]).toEqual([
        `Shin ${side}`,
        `Thigh ${side}`,
        'Root centre',
      ]);
  });
  it('looks the same before and after, and through all that comes later', () => {
    let p = apart;
    expect(seen(p)).toEqual(before);
    p = run(p, edits.reparentBoneEdit, { bone: bone(p, 'Wing', 'left').id, parent: bone(p, 'Lower neck').id });
    expect(seen(p)).toEqual(before);
    p = run(p, edits.moveJointEdit, { bone: bone(p, 'Thigh', 'right').id, delta: [0.5, -1, 2] });
    p = run(p, edits.setPivotEdit, { part: part(p, 'Head').id, pivot: [3, 70, 5] });
    expect(seen(p)).toEqual(before);
    p = run(p, edits.refinePartEdit, { part: part(p, 'Wing', 'right').id, by: 2 });
    p = run(p, edits.resizePartEdit, { part: part(p, 'Beak').id, bounds: boxFromCells([-9, 30, 4], [8, 44, 24]) });
    expect(seen(p)).toEqual(before);
    const again = readProjectFile(writeProjectFile(p)).result;
    expect(seen(again)).toEqual(before);
    // Taken apart again without a change, nothing has moved either, and nothing was made twice.
    const whole2 = again.parts.find((o) => o.name === 'Oswin, whole')!;
    const twice = run(again, edits.takeApartEdit, { part: whole2.id, ...HOW });
    expect(seen(twice)).toEqual(before);
    expect(twice.parts.map((o) => o.id)).toEqual(again.parts.map((o) => o.id));
    expect(twice.rig).toEqual(again.rig);
  });
  it('regions are kept through undo, files, and changes of the volume', () => {
    const id = whole.parts[0]!.id;
    const counts = (p: Project) => [...edits.cellsByRegion(p.parts[0]!)].map(([byte, cells]) => [byte, cells.count]);
    const at = counts(whole);
    expect(at.reduce((n, [, c]) => n + c!, 0)).toBe(composite(whole.parts[0]!).count);
    expect(counts(readProjectFile(writeProjectFile(whole)).result)).toEqual(at);
    const wide = run(whole, edits.resizePartEdit, { part: id, bounds: boxFromCells([-30, -4, -30], [29, 60, 30]) });
    expect(counts(run(wide, edits.shrinkPartEdit, { part: id }))).toEqual(at);
    expect(counts(run(whole, edits.refinePartEdit, { part: id, by: 2 }))).toEqual(
      at.map(([byte, c]) => [byte, c! * 8]),
    );
    expect(
      counts(run(run(whole, edits.refinePartEdit, { part: id, by: 3 }), edits.coarsenPartEdit, { part: id, by: 3 })),
    ).toEqual(at);
    // A row through the shins makes both a layer longer, and they are still the shins.
    const taller = run(whole, edits.setRowEdit, { part: id, axis: 1, at: 4, by: 1 });
    const shins = taller.parts[0]!.regions!.list.filter((r) => r.name === 'Shin').map(
      (r) => edits.cellsByRegion(taller.parts[0]!).get(r.byte)!.tight!.size[1],
    );
    expect(shins).toEqual([8, 8]);
  });
  it('after a change of the whole, one action brings it to the parts; names, pivots and bones stay', () => {
    const id = apart.parts.find((o) => o.hidden)!.id;
    const renamed = run(apart, edits.renamePartEdit, { part: part(apart, 'Wing', 'left').id, name: 'Great wing' });
    const wholeNow = renamed.parts.find((o) => o.id === id)!;
    const edited = run(renamed, edits.placeCellsEdit, {
      part: id,
      layer: wholeNow.layers[0]!.id,
      limit: null,
      clear: box([5, 21, -7], [6, 21, 4]),
      put: [],
      title: 'Trim',
      grow: false,
    });
    const again = run(edited, edits.takeApartEdit, { part: id, ...HOW });
    const wing = part(again, 'Great wing', 'left'),
      old = part(renamed, 'Great wing', 'left');
    expect([wing.id, wing.pivot, wing.bounds.size[1]]).toEqual([old.id, old.pivot, old.bounds.size[1] - 1]);
    expect(again.rig).toEqual(renamed.rig);
    // Without its region, a piece goes back to what it hung on, and its part to the bin.
    const beak = again.parts.find((o) => o.id === id)!.regions!.list.find((r) => r.name === 'Beak')!;
    const none = run(run(again, edits.dropRegionEdit, { part: id, region: beak.byte }), edits.takeApartEdit, {
      part: id,
      ...HOW,
    });
    expect(none.bin.map((b) => b.kind === 'part' && b.record.name)).toEqual(['Beak']);
    expect(seen(none)).toEqual(seen(again));
  });
});

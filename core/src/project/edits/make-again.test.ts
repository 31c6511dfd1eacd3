import { describe, expect, it } from 'vitest';
import { readProjectFile, writeProjectFile } from '../../files/project-file';
import { type Project, composite, idsFrom, makeBlob, makeMount, makePart, makeProject } from '../../model';
import { makeSwatch } from '../../palette';
import { VoxelGrid } from '../../voxel';
import { apply, editContext } from '../edit';
import { keepingHow, madeWith } from '../making';
import { bringPartsEdit } from './bring-parts';
import { makeAgainEdit } from './make-again';
import { deletePartEdit, renamePartEdit } from './parts';

const FILE = { name: 'reeds.heights', blob: makeBlob('application/octet-stream', Uint8Array.of(7, 7, 1)) };

/** Bars of some heights under their names, as if made of a file; their pivot is the middle of the foot. */
function bars(heights: Readonly<Record<string, number>>, colour = '#557744'): Project {
  const newId = idsFrom('bars');
  const p = makeProject('made', 'Reeds', newId);
  const parts = Object.entries(heights).map(([name, h], i) => {
    const bounds = { min: [0, 0, 0], size: [2, h, 2] } as const;
    const part = makePart(`b${i}`, newId(), name, 'green', bounds, { pivot: [2, 0, 2] });
    return {
      ...part,
      layers: [{ ...part.layers[0]!, grid: VoxelGrid.empty(bounds).edit((d) => d.fillBox(bounds, 3)) }],
    };
  });
  const palettes = [{ id: 'green', name: 'Green', swatches: [makeSwatch(3, 'reed', colour)] }];
  const rig = { ...p.rig, mounts: parts.map((o, i) => makeMount(`m${i}`, o.id, null, [i * 4, 0, 0])) };
  return keepingHow({ ...p, palettes, parts, rig }, { importer: 'height', options: { height: 4, joins: [[1, 2]] } }, [
    FILE,
  ]);
}
const start = (): Project =>
  apply(
    makeProject('quay', 'Quay', idsFrom('quay')),
    bringPartsEdit,
    { source: bars({ Reed: 3, Rush: 2 }), into: null },
    editContext('first'),
  );
const named = (p: Project, name: string) => p.parts.find((o) => o.name === name)!;
const again = (p: Project, source: Project, part = 'Reed'): Project =>
  apply(p, makeAgainEdit, { source, part: named(p, part).id }, editContext('again'));

describe('making a part again', () => {
  it('keeps the importer, its wishes and its file with the parts, through a file of the project too', () => {
    const { result } = readProjectFile(writeProjectFile(start()));
    const [kept] = result.imports;
    expect(kept).toMatchObject({ importer: 'height', options: { height: 4, joins: [[1, 2]] } });
    expect(kept!.files).toEqual([{ name: FILE.name, blob: FILE.blob.id }]);
    expect(result.blobs).toEqual([FILE.blob]);
    expect(result.parts.map((p) => p.made)).toEqual(
      ['Reed', 'Rush'].map((as) => ({ import: kept!.id, as, pivot: [2, 0, 2] })),
    );
  });
  it('gives it and those that came with it new cubes where they stand, under their own names', () => {
    const before = start();
    const renamed = apply(
      before,
      renamePartEdit,
      { part: named(before, 'Reed').id, name: 'Tall reed' },
      editContext('name'),
    );
    const moved = {
      ...renamed,
      parts: renamed.parts.map((p) => (p.name === 'Tall reed' ? { ...p, pivot: [2, 4, 2] as const } : p)),
    };
    const after = again(moved, bars({ Reed: 5, Rush: 1 }, '#aa9933'), 'Tall reed');
    expect(after.parts.map((p) => [p.name, composite(p).count])).toEqual([
      ['Tall reed', 20],
      ['Rush', 4],
    ]);
    expect(after.rig.mounts).toEqual(moved.rig.mounts);
    // The pivot was moved by hand and stays; cubes lie about where it came first.
    expect(after.parts.map((p) => [p.pivot, p.bounds.min])).toEqual([
      [
        [2, 4, 2],
        [0, 0, 0],
      ],
      [
        [2, 0, 2],
        [0, 0, 0],
      ],
    ]);
    expect(after.palettes.at(-1)!.swatches.map((s) => s.colour)).toEqual(['#557744', '#aa9933']);
    expect(after.bin.map((b) => (b.record as { name: string }).name)).toEqual(['Tall reed', 'Rush']);
  });
  it('puts what comes for the first time beside, and leaves what does not come again', () => {
    const before = start();
    const after = again(before, bars({ Reed: 4, Sedge: 6 }));
    expect(after.parts.map((p) => [p.name, composite(p).count])).toEqual([
      ['Reed', 16],
      ['Rush', 8],
      ['Sedge', 24],
    ]);
    // What came together this time is made again together next time.
    expect(madeWith(after, named(after, 'Reed')).map((p) => p.name)).toEqual(['Reed', 'Sedge']);
    expect(named(after, 'Rush').made!.import).toBe(named(before, 'Rush').made!.import);
  });
  it('lets go of files when no part and nothing in the bin names them', () => {
    const before = start();
    const gone = before.parts.reduce((p, o) => apply(p, deletePartEdit, { part: o.id }, editContext(o.id)), before);
    expect([gone.imports.length, gone.blobs.length]).toEqual([1, 1]);
    const emptied = apply(
      { ...gone, bin: [] },
      bringPartsEdit,
      { source: { ...bars({ Post: 1 }), imports: [], blobs: [] }, into: null },
      editContext('other'),
    );
    expect([emptied.imports.length, emptied.blobs.length]).toEqual([0, 0]);
  });
  it('refuses what was made by hand, and what comes under other names', () => {
    const p = start();
    const byHand = { ...p, parts: p.parts.map((o) => ({ ...o, made: null })) };
    expect(() => again(byHand, bars({ Reed: 1 }))).toThrow(/made by hand/);
    expect(() => again(p, bars({ Post: 1, Pole: 2 }))).toThrow(/under which “Reed” came first/);
  });
});

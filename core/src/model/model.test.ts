import { describe, expect, it } from 'vitest';
import type { Box } from '../math';
import { VoxelGrid } from '../voxel';
import {
  LISTED_KINDS,
  namedKinds,
  type Project,
  MissingError,
  composite,
  compositeFromScratch,
  find,
  freeName,
  idsFrom,
  makeProject,
  migrateProject,
  moveRecord,
  must,
  partContent,
  projectFromJson,
  projectToJson,
  replaceRecord,
  withPartBounds,
} from '.';

const list = [
  { id: 'a', v: 1 },
  { id: 'b', v: 2 },
  { id: 'c', v: 3 },
];

describe('records', () => {
  it('are found, replaced and moved, and lists stay the same when nothing changes', () => {
    expect(find(list, 'b')!.v).toBe(2);
    expect(find(list, null)).toBeUndefined();
    expect(() => must(list, 'x', 'lamp')).toThrow(MissingError);
    expect(replaceRecord(list, list[1]!)).toBe(list);
    expect(replaceRecord(list, { id: 'b', v: 9 })[1]!.v).toBe(9);
    expect(moveRecord(list, 'c', 0).map((r) => r.id)).toEqual(['c', 'a', 'b']);
    expect(moveRecord(list, 'a', 99).map((r) => r.id)).toEqual(['b', 'c', 'a']);
    expect(moveRecord(list, 'a', 0)).toBe(list);
  });
});

describe('ids and names', () => {
  it('ids repeat for the same seed and do not clash', () => {
    const ids = idsFrom('x');
    const many = Array.from({ length: 5000 }, ids);
    expect(new Set(many).size).toBe(5000);
    expect(many[0]).toBe(idsFrom('x')());
    expect(many.every((i) => /^[0-9a-z]{8}$/.test(i))).toBe(true);
  });
  it('a taken name counts on', () => {
    expect(freeName('Arm', ['Leg'])).toBe('Arm');
    expect(freeName('Arm', ['Arm', 'Arm 2'])).toBe('Arm 3');
    expect(freeName('Arm 2', ['Arm 2'])).toBe('Arm 3');
  });
});

describe('parts', () => {
  const p = makeProject('p', 'Lamp', idsFrom('lamp'), 'prop', [8, 8, 8]);
  const part = p.parts[0]!;
  const layer = (id: string, cells: [number, number, number, number][], hidden = false) => ({
    id,
    name: id,
    hidden,
    locked: false,
    grid: VoxelGrid.empty(part.bounds).edit((d) => cells.forEach((c) => d.set(...c))),
  });
  const two = {
    ...part,
    layers: [
      layer('cloth', [
        [0, 0, 0, 1],
        [1, 0, 0, 1],
      ]),
      layer('trim', [
        [1, 0, 0, 2],
        [2, 0, 0, 2],
      ]),
      layer('draft', [[0, 0, 0, 7]], true),
    ],
  };
  it('the topmost visible cube wins, and the picture is kept for the same layers', () => {
    const seen = composite(two);
    expect([seen.get(0, 0, 0), seen.get(1, 0, 0), seen.get(2, 0, 0), seen.count]).toEqual([1, 2, 2, 3]);
    expect(composite(two)).toBe(seen);
    expect(
      seen.equals(
        compositeFromScratch(
          two.layers.filter((l) => !l.hidden),
          two.bounds,
        ),
      ),
    ).toBe(true);
    expect(composite(part)).toBe(part.layers[0]!.grid);
  });
  it('what they hold counts hidden layers too; a new box moves nothing', () => {
    expect(partContent({ ...two, layers: [...two.layers, layer('far', [[3, 7, -4, 1]], true)] })).toEqual({
      min: [0, 0, -4],
      size: [4, 8, 5],
    });
    expect(partContent(part)).toBeNull();
    expect(withPartBounds(two, { min: [0, 0, 0], size: [2, 1, 1] }).layers.map((l) => l.grid.count)).toEqual([2, 1, 1]);
  });
});

/** The JSON as a careless writer might fill it. */
interface Loose {
  [field: string]: unknown;
  parts: { id: unknown; cell: unknown; palette: unknown; bounds: { size: unknown } }[];
  rig: { mounts: { part: unknown; q: unknown }[] };
}

describe('the document as JSON', () => {
  const p = makeProject('p', 'Lamp', idsFrom('lamp'));
  const json = (change: (j: Loose) => void): unknown => {
    const j = JSON.parse(JSON.stringify(projectToJson(p))) as Loose;
    change(j);
    return j;
  };
  it('goes out and comes back', () => {
    const back = projectFromJson(migrateProject(json(() => undefined)), {
      cells: (entry) => VoxelGrid.empty((entry as { bounds: Box }).bounds),
      bytes: () => new Uint8Array(),
    });
    expect(projectToJson(back)).toEqual(projectToJson(p));
  });
  it.each<[string, (j: Loose) => void, RegExp]>([
    ['an unknown field', (j) => (j['extra'] = 1), /Unrecognized key/],
    ['an id that is a path', (j) => (j.parts[0]!.id = '../x'), /parts › 0 › id/],
    ['a NaN that became null', (j) => (j.parts[0]!.cell = null), /parts › 0 › cell/],
    ['a volume of 300', (j) => (j.parts[0]!.bounds.size = [300, 1, 1]), /bounds › size/],
    ['a palette that is not there', (j) => (j.parts[0]!.palette = 'none'), /palette that is not there/],
    ['a mount of nobody', (j) => (j.rig.mounts[0]!.part = 'none'), /a mount names a part that is not there/],
    ['two parts of one id', (j) => j.parts.push(j.parts[0]!), /two parts have the same id/],
    ['a rotation of length 2', (j) => (j.rig.mounts[0]!.q = [0, 0, 0, 2]), /length 1/],
  ])('refuses %s with a sentence that says where', (_what, change, words) => {
    expect(() => migrateProject(json(change))).toThrow(words);
  });
  it('the project stays a plain value: nothing in it but data and grids', () => {
    const walk = (v: unknown): void => {
      if (v === null || typeof v !== 'object' || v instanceof VoxelGrid) return;
      expect([Object.prototype, Array.prototype]).toContain(Object.getPrototypeOf(v));
      Object.values(v).forEach(walk);
    };
    walk(p satisfies Project);
  });
});

describe('what a kind may name', () => {
  const names = (kind: string): string[] => [...namedKinds(LISTED_KINDS.find((k) => k.name === kind)!.schema)].sort();
  it('is read off its schema, through lists, choices and what stands apart, and not into projects within', () => {
    expect(names('part')).toEqual(['import', 'palette', 'part']);
    expect(names('import')).toEqual(['blob']);
    expect(names('clip')).toEqual(['bone', 'mount', 'set of alternates']);
    expect(names('asset')).toEqual([]);
  });
});

import { describe, expect, it } from 'vitest';
import { QUIET_JOB, encodePng, IMPORTERS } from '../../files';
import { readProjectFile, writeProjectFile } from '../../files/project-file';
import { type Project, groupsOfParts, idsFrom, makeProject } from '../../model';
import { apply, editContext } from '../edit';
import { bringPartsEdit } from './bring-parts';
import { groupPartsEdit, renamePartGroupEdit, ungroupPartsEdit } from './part-groups';
import { addPartEdit } from './parts';

const named = (p: Project): string[] => p.parts.map((o) => `${o.group ?? ''}:${o.name}`);
const ctx = editContext('groups');
function quay(): Project {
  const bounds = { min: [0, 0, 0], size: [4, 4, 4] } as const;
  return ['Rope', 'Crate', 'Net'].reduce(
    (p, name) => apply(p, addPartEdit, { name, bounds }, editContext(name)),
    makeProject('p', 'Quay', idsFrom('quay')),
  );
}
const idOf = (p: Project, name: string): string => p.parts.find((o) => o.name === name)!.id;

describe('groups of parts', () => {
  it('lie where the first of them lay, under a name that is free, and are kept in a file', () => {
    const p = quay();
    const one = apply(p, groupPartsEdit, { parts: [idOf(p, 'Net'), idOf(p, 'Rope')], name: 'Loose' }, ctx);
    expect(named(one)).toEqual([':Body', 'Loose:Rope', 'Loose:Net', ':Crate']);
    const two = apply(one, groupPartsEdit, { parts: [idOf(p, 'Body')], name: 'Loose' }, ctx);
    expect(named(two)).toEqual(['Loose 2:Body', 'Loose:Rope', 'Loose:Net', ':Crate']);
    expect(named(readProjectFile(writeProjectFile(two)).result)).toEqual(named(two));
  });
  it('take another name, join, and come apart; parts alone are left out of it', () => {
    const p = quay();
    const one = apply(p, groupPartsEdit, { parts: [idOf(p, 'Rope')], name: 'A' }, ctx),
      two = apply(one, groupPartsEdit, { parts: [idOf(p, 'Net')], name: 'B' }, ctx);
    const joined = apply(two, renamePartGroupEdit, { group: 'A', name: ' B ' }, ctx);
    expect(groupsOfParts(joined.parts)).toEqual(['B']);
    const apart = apply(joined, ungroupPartsEdit, { group: 'B' }, ctx);
    expect(groupsOfParts(apart.parts)).toEqual([]);
    expect(apart.parts.find((o) => o.name === 'Crate')).toBe(p.parts.find((o) => o.name === 'Crate'));
    expect(() => apply(apart, ungroupPartsEdit, { group: 'B' }, ctx)).toThrow('There is no group “B” any more.');
    expect(() => apply(apart, groupPartsEdit, { parts: [], name: 'C' }, ctx)).toThrow('Choose at least one part.');
  });
  it('come of what was brought in as several, each time as one of its own', async () => {
    const heights = IMPORTERS.find((i) => i.id === 'height')!;
    const bytes = Uint8Array.from(
      encodePng(3, 1, new Uint8Array([255, 255, 255, 255, 0, 0, 0, 255, 255, 255, 255, 255])),
    );
    const [find] = heights.inspect([{ name: 'Panels.png', bytes }]);
    const { brought } = await heights.run(
      find!,
      heights.options.parse({ split: 'pieces', drop: 0 }),
      QUIET_JOB as never,
      null,
    );
    if (brought.kind !== 'parts') throw new Error('no parts');
    const bring = (p: Project, seed: string): Project =>
      apply(p, bringPartsEdit, { source: brought.project, into: null }, editContext(seed));
    const twice = bring(bring(makeProject('p', 'Quay', idsFrom('quay')), 'a'), 'b');
    expect(named(twice)).toEqual(['Panels:Panels 1', 'Panels:Panels 2', 'Panels 2:Panels 3', 'Panels 2:Panels 4']);
  });
});

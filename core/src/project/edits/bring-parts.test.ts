import { describe, expect, it } from 'vitest';
import { IMPORTERS, QUIET_JOB, type ImportJob, encodePng } from '../../files';
import { type Project, composite, idsFrom, makeProject } from '../../model';
import { gather, listExtent } from '../../scene';
import { byteCounts } from '../../voxel';
import { EditError, apply, bringPartsEdit, editContext } from '..';

const job: ImportJob = { ...QUIET_JOB, pictureSize: () => Promise.reject(new Error('not asked')) };
/** A picture of two colours, brought in as a project of its own. */
async function sign(): Promise<Project> {
  const rgba = Uint8Array.from({ length: 12 * 6 * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i >> 2) % 12 < 6 ? 200 : 40));
  const file = { name: 'tea_sign.png', bytes: encodePng(12, 6, rgba) as Uint8Array<ArrayBuffer> };
  const importer = IMPORTERS.find((i) => i.id === 'picture')!;
  const { brought } = await importer.run({ title: file.name, files: [file] }, importer.options.parse({}), job, null);
  if (brought.kind !== 'parts') throw new Error('It is no part.');
  expect(brought.facts['size']).toEqual([12, 6]);
  return brought.project;
}
const ctx = editContext('bring');
const quay = (): Project => makeProject('quay', 'Quay', idsFrom('quay'), 'prop', [8, 8, 8]);
const built = (): Project => {
  const p = quay(),
    part = p.parts[0]!,
    layer = part.layers[0]!;
  const grid = layer.grid.edit((d) => d.fillBox(part.bounds, 1));
  return { ...p, parts: [{ ...part, layers: [{ ...layer, grid }] }] };
};

describe('parts that were made of something else', () => {
  it('come with a palette of their own, named as their file, in place of the empty part', async () => {
    const p = apply(quay(), bringPartsEdit, { source: await sign(), into: null }, ctx);
    expect(p.parts.map((o) => o.name)).toEqual(['tea sign']);
    expect(p.palettes.map((o) => o.name)).toEqual(['Starter', 'tea sign']);
    expect(composite(p.parts[0]!).count).toBe(72);
    expect(p.rig.mounts.map((m) => [m.bone, m.t])).toEqual([[null, [0, 0, 0.5]]]);
  });
  it('stand beside what is there, under free names; the same again shares its palette', async () => {
    const source = await sign();
    let p = built();
    for (let n = 0; n < 2; n++) p = apply(p, bringPartsEdit, { source, into: null }, ctx);
    expect(p.parts.map((o) => o.name)).toEqual(['Body', 'tea sign', 'tea sign 2']);
    expect(p.palettes).toHaveLength(2);
    const boxes = gather(p, { of: 'rig' }).map((i) => listExtent([i])!);
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1)) expect(a.hi[0] <= b.lo[0] || b.hi[0] <= a.lo[0]).toBe(true);
  });
  it('put their colours into a palette that is there, equals united, cubes with them', async () => {
    const before = built(),
      source = await sign();
    const into = before.palettes[0]!.id;
    const p = apply(before, bringPartsEdit, { source, into }, ctx);
    expect(p.palettes).toHaveLength(1);
    const part = p.parts[1]!,
      counts = byteCounts(composite(part));
    const colours = p.palettes[0]!.swatches.filter((s) => counts[s.byte]! > 0).map((s) => [s.colour, counts[s.byte]]);
    expect(colours.sort()).toEqual([
      ['#282828', 36],
      ['#c8c8c8', 36],
    ]);
    // Once more: nothing new is in the palette.
    expect(apply(p, bringPartsEdit, { source, into }, ctx).palettes[0]!.swatches).toHaveLength(
      p.palettes[0]!.swatches.length,
    );
    const full = { ...before, palettes: [{ ...before.palettes[0]!, swatches: manySwatches(before) }] };
    expect(() => apply(full, bringPartsEdit, { source, into }, ctx)).toThrow(EditError);
    expect(() => apply(full, bringPartsEdit, { source, into }, ctx)).toThrow(/2 find no free place/);
  });
});

const manySwatches = (p: Project) =>
  Array.from({ length: 255 }, (_, i) => ({
    ...p.palettes[0]!.swatches[0]!,
    byte: i + 1,
    name: `s${i}`,
    colour: `#0000${(i + 1).toString(16).padStart(2, '0')}`,
  }));

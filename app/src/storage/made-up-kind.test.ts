import 'fake-indexeddb/auto';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { readProjectFile, writeProjectFile } from '@sphalerite/core/files';
import {
  type Id,
  type Project,
  type RecordKind,
  blobId,
  emptyLists,
  idsFrom,
  makeBlob,
  makeProject,
} from '@sphalerite/core/model';
import {
  addPartEdit,
  apply,
  bringRecordsEdit,
  current,
  deleteRecordEdit,
  editContext,
  record,
  redo,
  renameProjectEdit,
  restoreEdit,
  startHistory,
  undo,
} from '@sphalerite/core/project';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { bricksOf, giveBack, takeBack } from '../workers/background-edit';
import { BrickMirror, SentBricks } from '../workers/packed';
import { db } from './database';
import { loadStored } from './open-stored';
import { ProjectWriter, pieceCounts } from './project-writer';
import { sweep } from './sweep';
import { EMPTY_VIEW } from './view-state';

/** A bell: a shape in cubes, a recording of its sound, the part that it rings from. Declared here and nowhere else. */
interface Bell {
  readonly id: Id;
  readonly name: string;
  readonly palette: Id;
  readonly part: Id;
  readonly sound: Id;
  readonly clapper: { readonly id: Id; readonly grid: VoxelGrid };
}
vi.mock('../../../core/src/model/kinds/list', async (original) => {
  const { RECORD_KINDS } = await original<{ RECORD_KINDS: readonly RecordKind[] }>();
  const { own, ref, cells } = await import('../../../core/src/model/marks');
  const z = await import('zod');
  const bellKind: RecordKind = {
    name: 'bell',
    plural: 'bells',
    list: 'bells',
    most: 8,
    schema: z.strictObject({
      id: own('bell'),
      name: z.string(),
      palette: ref('palette'),
      part: ref('part'),
      sound: ref('blob'),
      clapper: z.strictObject({ id: own('clapper'), grid: cells() }),
    }),
    since: 7,
    upgrades: {},
    kept: z.strictObject({}),
    flaw: (bell) => ((bell as Bell).name === 'Cracked' ? 'is cracked' : null),
  };
  return { RECORD_KINDS: [...RECORD_KINDS, bellKind] };
});

type WithBells = Project & { readonly bells: readonly Bell[] };
const bells = (p: Project) => (p as WithBells).bells;
const box = { min: [-3, 0, -3], size: [6, 6, 6] } as const;
const sound = makeBlob('image/png', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 7, 7]));
const ctx = (seed: string) => editContext(seed, 9);

function tower(): WithBells {
  const p = makeProject('tower', 'Bell tower', idsFrom('tower'));
  const grid = VoxelGrid.empty(box).edit((d) => d.fillBox({ min: [-1, 0, -1], size: [2, 3, 2] }, 4));
  const bell: Bell = {
    id: 'bell1',
    name: 'Great bell',
    palette: p.palettes[0]!.id,
    part: p.parts[0]!.id,
    sound: sound.id,
    clapper: { id: 'clap', grid },
  };
  return { ...p, blobs: [sound], bells: [bell] };
}
/** A bell with its cells and its sound, to compare. */
const facts = (p: Project) =>
  bells(p).map(({ clapper, ...b }) => ({
    ...b,
    clapper: [clapper.id, clapper.grid.bounds, clapper.grid.count, clapper.grid.get(-1, 0, -1)],
    sound: p.blobs.filter((o) => o.id === b.sound).map((o) => [o.type, blobId(o.bytes)]),
  }));

beforeAll(async () => void (await db.open()));

describe('a kind of record that is declared in one place', () => {
  const p = tower();
  it('has its list in a new project', () => {
    expect(emptyLists()).toMatchObject({ bells: [], parts: [] });
    expect(bells(makeProject('x', 'X', idsFrom('x')))).toEqual([]);
  });

  it('goes into a file and comes back; what it names must be there', () => {
    const bytes = writeProjectFile(p);
    const { result, notes } = readProjectFile(bytes);
    expect(notes).toEqual([]);
    expect(facts(result)).toEqual(facts(p));
    expect(writeProjectFile(result)).toEqual(bytes);
    const lost = { ...p, bells: [{ ...bells(p)[0]!, part: 'nobody' }] };
    expect(() => readProjectFile(writeProjectFile(lost))).toThrow(/bell "Great bell" names a part that is not there/);
    const silent = { ...p, blobs: [] };
    expect(() => readProjectFile(writeProjectFile(silent))).toThrow(/bell "Great bell" names a blob/);
    const cracked = { ...p, bells: [{ ...bells(p)[0]!, name: 'Cracked' }] };
    expect(() => readProjectFile(writeProjectFile(cracked))).toThrow(/bell "Cracked" is cracked/);
  });

  it('goes into the bin and comes back, its sound kept meanwhile; undo and redo too', () => {
    const gone = apply(p, deleteRecordEdit, { kind: 'bell', id: 'bell1' }, ctx('delete'));
    expect([bells(gone), gone.blobs.length, gone.bin.length]).toEqual([[], 1, 1]);
    expect(facts(readProjectFile(writeProjectFile(gone)).result)).toEqual([]);
    const back = apply(gone, restoreEdit, { item: gone.bin[0]!.id }, ctx('restore'));
    expect(facts(back)).toEqual(facts(p));
    const step = { label: 'Delete', at: 1, where: 'Build', viewBefore: EMPTY_VIEW, viewAfter: EMPTY_VIEW };
    const h = record(startHistory<typeof EMPTY_VIEW>(p, EMPTY_VIEW, 0), { ...step, project: gone });
    expect(current(undo(h))).toBe(p);
    expect(bells(current(redo(undo(h))))).toEqual([]);
    // Without the bin to hold it, the sound goes with the last that names it.
    const forgotten = apply({ ...gone, bin: [] }, addPartEdit, { name: 'Beam', bounds: box }, ctx('beam'));
    expect(forgotten.blobs).toEqual([]);
  });

  it('is stored, swept around and read back, cells and sound', async () => {
    const writer = new ProjectWriter('tower', 1);
    let h = startHistory<typeof EMPTY_VIEW>(p, EMPTY_VIEW, 0);
    await writer.save(h);
    const before = await pieceCounts('tower');
    const step = { label: 'Step', at: 1, where: 'Build', viewBefore: EMPTY_VIEW, viewAfter: EMPTY_VIEW };
    const struck = {
      ...bells(p)[0]!,
      clapper: { id: 'clap', grid: bells(p)[0]!.clapper.grid.edit((d) => d.set(2, 5, 2, 9)) },
    };
    await writer.save(record(h, { ...step, project: { ...p, bells: [struck] } as Project }));
    h = record(h, { ...step, project: apply(p, renameProjectEdit, { name: 'Quiet tower' }, ctx('rename')) });
    await writer.save(h);
    await sweep(writer);
    // What the step that is no more needed is gone, what the others need is there: a file for the sound, too.
    expect(await pieceCounts('tower')).toEqual(before);
    expect(before[3]).toBe(1);
    const { history } = await loadStored('tower', 1);
    for (const { project } of history.entries) expect(facts(project)).toEqual(facts(p));
    // Steps share it, as they did before.
    expect(bells(history.entries[1]!.project)).toBe(bells(history.entries[0]!.project));
  });

  it('crosses to a worker and back as a change of its list alone', () => {
    const sent = new SentBricks(),
      mirror = new BrickMirror();
    const packed = sent.packProject(p, 'edited');
    mirror.receive(sent.takeParcel());
    const there = mirror.openProject(packed);
    const rung = { ...bells(there)[0]!, name: 'Little bell' };
    const patch = giveBack(there, { ...there, bells: [rung] } as Project, mirror);
    expect(Object.keys(patch.lists)).toEqual(['bells']);
    const back = takeBack(p, patch, bricksOf(p));
    expect(facts(back)).toEqual([{ ...facts(p)[0]!, name: 'Little bell' }]);
    expect([back.parts === p.parts, back.blobs === p.blobs]).toEqual([true, true]);
  });

  it('is brought into another project with the part, palette and sound that it names, under new ids', () => {
    const other = makeProject('hall', 'Hall', idsFrom('hall'));
    const args = { source: p as Project, records: [{ kind: 'bell', id: 'bell1' }] };
    const once = apply(other, bringRecordsEdit, args, ctx('bring'));
    const twice = apply(once, bringRecordsEdit, args, ctx('bring again'));
    expect(bells(twice).map((b) => b.name)).toEqual(['Great bell', 'Great bell 2']);
    expect(twice.parts.map((o) => o.name)).toEqual(['Body', 'Body 2', 'Body 3']);
    expect([twice.blobs.length, twice.palettes.length]).toEqual([1, 1]);
    const ids = bells(twice).flatMap((b) => [b.id, b.clapper.id]);
    expect(new Set([...ids, 'bell1', 'clap']).size).toBe(6);
    expect(bells(twice)[1]!.part).toBe(twice.parts[2]!.id);
    expect(bells(twice)[1]!.palette).toBe(other.palettes[0]!.id);
    expect(facts(readProjectFile(writeProjectFile(twice)).result)).toEqual(facts(twice));
    const nobody = { source: p as Project, records: [{ kind: 'bone', id: 'x' }] };
    expect(() => apply(other, bringRecordsEdit, nobody, ctx('no'))).toThrow(/cannot be brought in by itself/);
  });
});

import 'fake-indexeddb/auto';
import { FileError, readProjectFile, writeProjectFile } from '@sphalerite/core/files';
import {
  NO_VARIATION,
  PLAIN_DELIVERY,
  type Project,
  blobId,
  idsFrom,
  makeProject,
  migrateProject,
  projectToJson,
} from '@sphalerite/core/model';
import {
  addReferenceEdit,
  addSceneEdit,
  apply,
  changePlacementsEdit,
  current,
  deleteRecordEdit,
  editContext,
  placeEdit,
  record,
  restoreEdit,
  startHistory,
} from '@sphalerite/core/project';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { beforeEach, describe, expect, it } from 'vitest';
import { db } from './database';
import { loadStored } from './open-stored';
import { ProjectWriter, pieceCounts } from './project-writer';
import { sweep } from './sweep';
import { type H, projectFacts } from './testing';
import { EMPTY_VIEW } from './view-state';

let n = 0;
const ctx = () => editContext(`scenes ${n++}`);
const PNG = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 5]);

/** A project with every kind of record in it, another project among them. */
function full(): Project {
  let p = makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [8, 8, 8]);
  const sketch = {
    name: 'Sketch',
    part: p.parts[0]!.id,
    plane: 'front',
    bytes: PNG,
    at: [0, 0],
    size: [4, 4],
  } as const;
  p = apply(p, addReferenceEdit, sketch, ctx());
  let lamp = makeProject('lamp', 'Lamp', idsFrom('lamp'), 'prop', [8, 8, 8]);
  lamp = apply(lamp, addReferenceEdit, { ...sketch, part: lamp.parts[0]!.id }, ctx());
  const texels = VoxelGrid.empty({ min: [0, 0, 0], size: [16, 16, 1] }).edit((d) => d.set(3, 4, 0, 7));
  const face = { picture: 'turf', turns: 1, mirrored: true };
  p = {
    ...p,
    assets: [{ id: 'lamp', name: 'Lamp', source: { project: lamp.id, revision: '3' }, project: lamp }],
    terrainSets: [
      {
        id: 'meadow',
        name: 'Meadow',
        texels: 16,
        palette: p.palettes[0]!.id,
        pictures: [{ id: 'turf', name: 'Turf', grid: texels }],
        cubes: [{ id: 'grass', name: 'Grass', faces: [face, face, face, face, face, face], flow: [0, -2] }],
      },
    ],
    deliveryProfiles: [
      {
        ...PLAIN_DELIVERY,
        id: 'game',
        name: 'Game',
        ready: null,
        formats: ['glb'],
        options: { glb: { quantise: true, bits: 12 } },
        tiles: [],
      },
    ],
  };
  p = apply(p, addSceneEdit, { name: 'Market' }, ctx());
  const scene = p.scenes[0]!.id;
  const placements = Array.from({ length: 150 }, (_, i) => ({
    shows: { kind: 'part', part: p.parts[0]!.id } as const,
    t: [i, 0, 0] as const,
  }));
  p = apply(p, placeEdit, { scene, placements }, ctx());
  const others = [
    { shows: { kind: 'group' } },
    { shows: { kind: 'rig', clip: null, time: 0 } },
    { shows: { kind: 'cube', cube: 'grass' } },
    { shows: { kind: 'asset', asset: 'lamp', clip: 'of the lamp', time: 600 } },
  ] as const;
  p = apply(p, placeEdit, { scene, placements: others }, ctx());
  const first = p.scenes[0]!.placements[0]![0]!.id;
  const lampOn = {
    name: 'Lantern',
    kind: 'spot',
    parent: first,
    layer: p.scenes[0]!.layers[0]!.id,
    hidden: false,
  } as const;
  const rest = { t: [0, 2, 0], q: [0, 0, 0, 1], colour: '#ffcc88', strength: 4, size: 1, angle: 40 } as const;
  return {
    ...p,
    scenes: [
      {
        ...p.scenes[0]!,
        lamps: [{ id: 'l', ...lampOn, ...rest }],
        repeats: [
          {
            id: 'r',
            placement: first,
            exceptions: [],
            vary: NO_VARIATION,
            kind: 'ring',
            count: 5,
            degrees: 360,
            turning: true,
          },
        ],
      },
    ],
  };
}
const move = (p: Project, id: string, x: number): Project =>
  apply(p, changePlacementsEdit, { scene: p.scenes[0]!.id, changes: [{ id, change: { t: [x, 1, 0] } }] }, ctx());
const next = (h: H, project: Project): H =>
  record(h, { label: 'Step', at: 1, where: 'Stage', project, viewBefore: EMPTY_VIEW, viewAfter: EMPTY_VIEW });

beforeEach(async () => {
  await db.delete();
  await db.open();
});

describe('scenes, terrain cubes, assets and profiles', () => {
  const p = full();
  it('go into a file and come back, files within files once', () => {
    const bytes = writeProjectFile(p);
    const { result, notes } = readProjectFile(bytes);
    expect(notes).toEqual([]);
    expect(projectToJson(result)).toEqual(projectToJson(p));
    expect(result.terrainSets[0]!.pictures[0]!.grid.get(3, 4, 0)).toBe(7);
    expect(result.assets[0]!.project.blobs[0]!.bytes).toEqual(PNG);
    expect(writeProjectFile(result)).toEqual(bytes);
  });

  it('too deep within one another are refused with a sentence', () => {
    const files = unzipSync(writeProjectFile(makeProject('p', 'P', idsFrom('p'))));
    const { formatVersion, format, ...plain } = JSON.parse(strFromU8(files['project.json']!)) as Record<
      string,
      unknown
    >;
    const text = JSON.stringify(plain);
    const source = '"source":{"project":"p","revision":""}';
    const [before, after] = text.split('"assets":[]');
    const open = `${before}"assets":[{"id":"a","name":"A",${source},"project":`;
    const deep = open.repeat(3000) + text + `}]${after}`.repeat(3000);
    const whole = `{"format":"${String(format)}","formatVersion":${String(formatVersion)},${deep.slice(1)}`;
    const bytes = zipSync({ 'project.json': strToU8(whole) });
    expect(() => readProjectFile(bytes)).toThrow(FileError);
  });

  it.each<[string, (p: Project) => unknown, RegExp]>([
    ['a round of parents', (o) => round(o), /scene "Market" has a circle in its tree/],
    [
      'a placement on no layer',
      (o) => ({ ...o, scenes: o.scenes.map((s) => ({ ...s, layers: s.layers.map((l) => ({ ...l, id: 'x' })) })) }),
      /a placement names a scene layer/,
    ],
    ['a cube that is not there', (o) => ({ ...o, terrainSets: [] }), /a placement names a terrain cube/],
    ['a broken project within', (o) => withBrokenAsset(o), /part "Body" names a palette/],
    ['copies without end', (o) => endless(o), /scene "Market" repeats more than 100,000 times/],
    ['a blob of other bytes', (o) => ({ ...o, blobs: [{ ...o.blobs[0]!, id: blobId(PNG.slice(1)) }] }), /names a blob/],
  ])('refuse %s', (_what, change, words) => {
    expect(() => migrateProject(projectToJson(change(p) as Project))).toThrow(words);
  });
  const round = (o: Project): Project => {
    const [a, b] = o.scenes[0]!.placements[0]!;
    const group = [{ ...a!, parent: b!.id }, { ...b!, parent: a!.id }, ...o.scenes[0]!.placements[0]!.slice(2)];
    return { ...o, scenes: [{ ...o.scenes[0]!, placements: [group, ...o.scenes[0]!.placements.slice(1)] }] };
  };
  const endless = (o: Project): Project => {
    const placement = o.scenes[0]!.placements[0]![0]!.id;
    const counts = [10_000, 10_000, 10_000] as const;
    const line = {
      id: 'x',
      placement,
      exceptions: [],
      vary: NO_VARIATION,
      second: null,
      kind: 'line',
      counts,
      step: [1, 1, 1],
    } as const;
    return { ...o, scenes: [{ ...o.scenes[0]!, repeats: [line] }] };
  };
  const withBrokenAsset = (o: Project): Project => {
    const inner = o.assets[0]!.project;
    const part = { ...inner.parts[0]!, palette: 'none' };
    return { ...o, assets: [{ ...o.assets[0]!, project: { ...inner, parts: [part] } }] };
  };

  it('are stored, and moving one placement writes that one and little else', async () => {
    const writer = new ProjectWriter('quay', 1);
    let h: H = startHistory(p, EMPTY_VIEW, 0);
    await writer.save(h);
    const before = await pieceCounts('quay');
    h = next(h, move(p, p.scenes[0]!.placements[1]![7]!.id, 99));
    expect(await writer.save(h)).toBeLessThan(2048);
    // The placement, its group and the scene.
    expect((await pieceCounts('quay')).map((c, i) => c - before[i]!)).toEqual([3, 0, 0, 0]);
    await sweep(writer);
    const { history } = await loadStored('quay', 1);
    expect(history.entries.map((e) => projectFacts(e.project))).toEqual(h.entries.map((e) => projectFacts(e.project)));
    // Steps share what they shared: all placements but one, the asset, the set of cubes.
    const [a, b] = history.entries.map((e) => e.project);
    const placements = (o: Project) => new Set(o.scenes[0]!.placements.flat());
    expect([...placements(b!)].filter((o) => !placements(a!).has(o))).toHaveLength(1);
    expect([b!.assets === a!.assets, b!.terrainSets === a!.terrainSets]).toEqual([true, true]);
    expect(b!.scenes[0]!.placements[0]).toBe(a!.scenes[0]!.placements[0]);
  });

  it('go into the bin whole and come back, what lies there kept by the sweep', async () => {
    const scene = { kind: 'scene', id: p.scenes[0]!.id };
    const gone = apply(p, deleteRecordEdit, scene, ctx());
    expect([gone.scenes.length, gone.bin.map((b) => b.kind)]).toEqual([0, ['scene']]);
    const writer = new ProjectWriter('quay', 1);
    await writer.save(startHistory(gone, EMPTY_VIEW, 0));
    await sweep(writer);
    const { history } = await loadStored('quay', 1);
    const back = apply(current(history), restoreEdit, { item: current(history).bin[0]!.id }, ctx());
    expect(projectFacts(back)).toEqual(projectFacts(p));
  });
});

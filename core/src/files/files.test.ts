import { unzipSync, zipSync, strToU8, strFromU8 } from 'fflate';
import { decode } from 'fast-png';
import validator from 'gltf-validator';
import { WebIO } from '@gltf-transform/core';
import {
  type EmissiveStrength,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsVariants,
  type MappingList,
} from '@gltf-transform/extensions';
import { describe, expect, it } from 'vitest';
import { type Vec3, seededRandom, quatFromAxisAngle } from '../math';
import {
  type Clip,
  EMPTY_RIG,
  type Project,
  idsFrom,
  makeProject,
  migrateProject,
  projectToJson,
  upgradeProject,
  type RecordKind,
  type Upgrades,
} from '../model';
import * as z from 'zod';
import {
  addBoneEdit,
  addClipEdit,
  addColourwayEdit,
  addConstraintEdit,
  apply,
  deletePartEdit,
  editContext,
  editSwatchEdit,
  mountPartEdit,
  setKeyEdit,
  strokeEdit,
} from '../project';
import { emptyLane, sampleClip } from '../motion';
import { boxStroke } from '../sculpt';
import { FileError, bakeClip, readProjectFile, sheetLayout, writeProjectFile } from '.';
import { asReaders, exportGlb, planGlb } from './testing';
import { worldMatrices } from '../rig';

let n = 0;
const ctx = () => editContext(`files test ${n++}`);
function lamp(): Project {
  let p = makeProject('p', 'Lamp', idsFrom('lamp'), 'prop', [20, 30, 20]);
  const target = { part: p.parts[0]!.id, layer: p.parts[0]!.layers[0]!.id };
  const box = (value: number, min: readonly [number, number, number], size: readonly [number, number, number]) =>
    apply(p, strokeEdit, { ...target, stroke: boxStroke('add', value, [{ min, size }]) }, ctx());
  p = box(5, [-2, 0, -2], [4, 20, 4]);
  p = box(16, [-4, 20, -4], [8, 6, 8]);
  p = apply(p, addBoneEdit, { name: 'Post', parent: null, t: [0, 2, 0] }, ctx());
  p = apply(p, mountPartEdit, { part: target.part, bone: p.rig.bones[0]!.id }, ctx());
  p = apply(p, addClipEdit, { name: 'Sway', frames: 24, fps: 24, loop: true }, ctx());
  for (const [time, a] of [
    [0, 0],
    [600, 0.4],
    [1200, 0],
  ] as const) {
    p = apply(
      p,
      setKeyEdit,
      {
        clip: p.clips[0]!.id,
        bone: p.rig.bones[0]!.id,
        channel: 'turn',
        key: { time, ease: 'linear', value: quatFromAxisAngle([0, 0, 1], a) },
      },
      ctx(),
    );
  }
  return p;
}

describe('project file', () => {
  it('comes back cube for cube, bin and all, and equal projects give equal bytes', () => {
    const p = apply(lamp(), deletePartEdit, { part: lamp().parts[0]!.id }, ctx());
    const bytes = writeProjectFile(p);
    const { result, notes } = readProjectFile(bytes);
    expect(notes).toEqual([]);
    expect(projectToJson(result)).toEqual(projectToJson(p));
    const grids = (q: Project) => q.bin.flatMap((b) => (b.kind === 'part' ? b.record.layers.map((l) => l.grid) : []));
    expect(grids(result)[0]!.equals(grids(p)[0]!)).toBe(true);
    expect(writeProjectFile(result)).toEqual(bytes);
  });

  it('survives thousands of damaged copies: a sentence or a sound project, never anything else', () => {
    const bytes = writeProjectFile(lamp());
    const random = seededRandom(20);
    for (let round = 0; round < 1500; round++) {
      const copy = bytes.slice(0, round % 3 === 0 ? Math.floor(random() * bytes.length) : bytes.length);
      for (let k = 0; k < 1 + random() * 6; k++) copy[Math.floor(random() * copy.length)] = Math.floor(random() * 256);
      try {
        expect(readProjectFile(copy).result.name.length).toBeGreaterThan(0);
      } catch (e) {
        expect(e, `round ${round}`).toBeInstanceOf(FileError);
      }
    }
  });

  it('says what is wrong: version, circle, lost pictures, wrong sizes, tricks in names', () => {
    const change = (f: (json: Record<string, never>) => void, drop?: RegExp): Uint8Array => {
      const files = unzipSync(writeProjectFile(lamp()));
      const json = JSON.parse(strFromU8(files['project.json']!)) as Record<string, never>;
      f(json);
      return zipSync({
        ...Object.fromEntries(Object.entries(files).filter(([k]) => !drop?.test(k))),
        'project.json': strToU8(JSON.stringify(json)),
      });
    };
    expect(() => readProjectFile(change((j) => ((j as Record<string, unknown>)['formatVersion'] = 99)))).toThrow(
      /format 99.*newer Sphalerite/,
    );
    expect(() =>
      readProjectFile(
        change(
          (j) =>
            (((j as never)['rig'] as { bones: { id: string; parent: string }[] }).bones[0]!.parent = (
              (j as never)['rig'] as { bones: { id: string }[] }
            ).bones[0]!.id),
        ),
      ),
    ).toThrow(/circle/);
    expect(() => readProjectFile(change(() => undefined, /png$/))).toThrow(/cubes of "Body".*missing/);
    expect(() => readProjectFile(change((j) => (((j as never)['parts'] as { cell: number }[])[0]!.cell = -1)))).toThrow(
      /damaged at parts › 0 › cell/,
    );
    const parts = (j: unknown) => (j as { parts: { layers: { grid: { box: { size: number[] } } }[] }[] }).parts;
    expect(() => readProjectFile(change((j) => (parts(j)[0]!.layers[0]!.grid.box.size = [4, 4, 4])))).toThrow(
      /pixels; the project says/,
    );
    expect(() => readProjectFile(zipSync({ '../../etc/passwd': strToU8('x'), 'project.json': strToU8('[]') }))).toThrow(
      FileError,
    );
    expect(() => readProjectFile(strToU8('hello'))).toThrow(/cannot be unpacked/);
  });

  it('lays slices out so that any box fits', () => {
    for (const size of [
      [1, 1, 1],
      [256, 256, 256],
      [3, 200, 2],
      [200, 3, 9],
    ] as const) {
      const l = sheetLayout({ min: [0, 0, 0], size });
      expect(l.columns * Math.ceil(size[1] / l.columns)).toBeGreaterThanOrEqual(size[1]);
      expect(l.width * l.height).toBeLessThan(size[0] * size[1] * size[2] * 2 + 600);
    }
  });
});

describe('migrations', () => {
  it('carry an old version up one step at a time', () => {
    const kind = (name: string, list: string | null, upgrades: Upgrades, since = 1): RecordKind => ({
      name,
      plural: `${name}s`,
      list,
      most: 9,
      schema: z.unknown(),
      since,
      upgrades,
    });
    const kinds = [
      kind('project', null, { 1: (j) => ({ ...j, colour: j['color'] }), 2: (j) => ({ ...j, tone: 'warm' }) }),
      kind('clip', 'clips', { 2: (j) => ({ ...j, swung: true }) }),
      kind('bin', 'bin', {}),
      kind('lamp', 'lamps', {}, 3),
    ];
    const clips = [{ id: 'a' }];
    const bin = [{ kind: 'clip', clip: { id: 'b' } }];
    expect(upgradeProject({ color: 'x', clips, bin }, 1, 3, kinds)).toMatchObject({
      colour: 'x',
      tone: 'warm',
      clips: [{ id: 'a', swung: true }],
      bin: [{ kind: 'clip', clip: { id: 'b', swung: true } }],
      lamps: [],
    });
    expect(clips).toEqual([{ id: 'a' }]);
    expect(() => upgradeProject({}, 0, 3, kinds)).toThrow(/never existed/);
    expect(() => migrateProject({ hello: 1 })).toThrow(/does not say its format version/);
  });
});

describe('GLB', () => {
  it('has nothing to find fault with, and the counts that were planned', async () => {
    const { result, counts, notes } = await exportGlb(lamp());
    const report = (await validator.validateBytes(result)) as { issues: { messages: unknown[] } };
    expect(report.issues.messages).toEqual([]);
    expect(notes).toEqual([]);
    // Post: 4 sides and a foot; lamp: 4 sides, a lid, and an underside cut in four around the post.
    expect(counts).toEqual(planGlb(lamp()));
    expect(counts).toMatchObject({ nodes: 3, parts: 1, clips: 1 });
    const doc = await new WebIO().registerExtensions([KHRMaterialsEmissiveStrength]).readBinary(result);
    const material = doc.getRoot().listMaterials()[0]!;
    expect(material.getExtension<EmissiveStrength>('KHR_materials_emissive_strength')!.getEmissiveStrength()).toBe(4);
    const mesh = doc
      .getRoot()
      .listNodes()
      .find((o) => o.getName() === 'Body')!;
    expect(mesh.getParentNode()!.getName()).toBe('Post');
    const positions = mesh.getMesh()!.listPrimitives()[0]!.getAttribute('POSITION')!;
    expect(positions.getMax([]).map((v) => Math.round(v * 1000))).toEqual([200, 1300, 200]);
  });
  it('ships colourways as variants over the same meshes, and slots as materials of that name', async () => {
    let p = apply(
      lamp(),
      editSwatchEdit,
      { palette: lamp().palettes[0]!.id, byte: 16, change: { slot: 'Lamp' } },
      ctx(),
    );
    for (const name of ['Frost', 'Dusk']) p = apply(p, addColourwayEdit, { name }, ctx());
    p = apply(
      p,
      editSwatchEdit,
      {
        palette: p.palettes[0]!.id,
        byte: 16,
        change: { colour: '#3060ff', opacity: 0.5 },
        colourway: p.colourways[0]!.id,
      },
      ctx(),
    );
    const { result, counts } = await exportGlb(p);
    const report = (await validator.validateBytes(result)) as { issues: { messages: { code: string }[] } };
    expect(report.issues.messages.filter((m) => m.code !== 'UNSUPPORTED_EXTENSION')).toEqual([]);
    // The top of the post has faces of its own behind the glass.
    expect(counts).toEqual(planGlb(p));
    expect(counts.faces).toBe(planGlb(lamp()).faces + 16);
    const root = (
      await new WebIO().registerExtensions([KHRMaterialsEmissiveStrength, KHRMaterialsVariants]).readBinary(result)
    ).getRoot();
    const primitives = root.listMeshes()[0]!.listPrimitives();
    const looks = (i: number) =>
      primitives[i]!.getExtension<MappingList>('KHR_materials_variants')!
        .listMappings()
        .map(
          (m) =>
            `${m
              .listVariants()
              .map((v) => v.getName())
              .join()}: ${m.getMaterial()!.getName()}`,
        );
    expect(primitives.map((o) => o.getMaterial()!.getName())).toEqual(['Starter', 'Lamp transparent']);
    expect([looks(0), looks(1)]).toEqual([
      ['Frost: Starter (Frost)', 'Dusk: Starter'],
      ['Frost: Lamp transparent (Frost)', 'Dusk: Lamp transparent'],
    ]);
    const pixel = (material: string) => [
      ...decode(
        root
          .listMaterials()
          .find((m) => m.getName() === material)!
          .getBaseColorTexture()!
          .getImage()!,
      ).data.slice(64, 68),
    ];
    expect([pixel('Lamp transparent'), pixel('Lamp transparent (Frost)')]).toEqual([
      [255, 210, 122, 255],
      [48, 96, 255, 128],
    ]);
  });
  it('names what it leaves out, and refuses an empty project', async () => {
    const p = lamp();
    await expect(exportGlb({ ...p, parts: p.parts.map((x) => ({ ...x, hidden: true })) })).rejects.toThrow(
      /no cubes to export/,
    );
    const more = apply(p, addClipEdit, { name: 'Still', frames: 2, fps: 12, loop: false }, ctx());
    expect((await exportGlb(more)).notes).toEqual(['Clip “Still” has no keys and was left out.']);
  });
  it('bakes easing into splines with few keys and leaves straight keys alone', () => {
    const p = lamp();
    expect(bakeClip(p.clips[0]!, p.rig)[0]).toMatchObject({
      interpolation: 'LINEAR',
      times: Float32Array.from([0, 0.5, 1]),
    });
    const eased = {
      ...p.clips[0]!,
      lanes: p.clips[0]!.lanes.map((l) => ({ ...l, turn: l.turn.map((k) => ({ ...k, ease: 'ease' as const })) })),
    };
    const spline = bakeClip(eased, p.rig)[0]!;
    expect(spline.interpolation).toBe('CUBICSPLINE');
    expect(spline.times.length).toBeLessThan(10);
    expect(spline.values).toHaveLength(spline.times.length * 12);
    const stepped = {
      ...p.clips[0]!,
      lanes: p.clips[0]!.lanes.map((l) => ({ ...l, turn: l.turn.map((k) => ({ ...k, ease: 'step' as const })) })),
    };
    expect(bakeClip(stepped, p.rig)[0]).toMatchObject({ interpolation: 'STEP' });
  });
  it.each([
    ['linear', 'LINEAR'],
    ['ease', 'CUBICSPLINE'],
    ['step', 'STEP'],
  ] as const)(
    'a wheel that spins ten times (%s) spins as often where keys take the short way',
    (ease, interpolation) => {
      const p = lamp(),
        bone = p.rig.bones[0]!.id;
      const spins: Clip = {
        ...p.clips[0]!,
        lanes: [
          {
            ...emptyLane(bone),
            hinge: [
              { time: 0, ease, value: [0, 0, 0] },
              { time: 1200, ease, value: [0, 0, -20 * Math.PI] },
            ],
          },
        ],
      };
      const [track] = bakeClip(spins, p.rig);
      expect(track).toMatchObject({ channel: 'turn', interpolation });
      const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((n, v, i) => n + v * b[i]!, 0);
      const read = asReaders(track!);
      if (ease !== 'step')
        for (let i = 1; i < track!.times.length; i++)
          expect(
            (2 * Math.acos(Math.min(1, dot(read(track!.times[i - 1]!), read(track!.times[i]!)))) * 180) / Math.PI,
          ).toBeLessThan(120.1);
      for (let k = 0; k <= 240; k++) {
        const t = k / 240,
          ours = sampleClip(spins, p.rig, t * 1200).get(bone)!.q;
        expect(Math.abs(dot(read(t), ours)), `at ${t} s`).toBeGreaterThan(1 - 1e-5);
      }
    },
  );
  it('a limb that is pulled quite straight, and beyond, stands in files where we see it', () => {
    let p: Project = { ...makeProject('p', 'Leg', idsFrom('leg')), parts: [], rig: EMPTY_RIG };
    for (const [name, parent, t] of [
      ['Thigh', null, [0, 10, 0]],
      ['Shin', 'Thigh', [0, -4, 0]],
      ['Foot', 'Shin', [0, -3, 0.5]],
      ['Goal', null, [0, 3, 0.5]],
    ] as [string, string | null, Vec3][])
      p = apply(p, addBoneEdit, { name, parent: parent && p.rig.bones.find((b) => b.name === parent)!.id, t }, ctx());
    const id = (name: string): string => p.rig.bones.find((b) => b.name === name)!.id;
    p = apply(
      p,
      addConstraintEdit,
      {
        constraint: {
          kind: 'ik',
          bone: id('Foot'),
          on: true,
          amount: 1,
          goal: id('Goal'),
          pole: null,
          links: 2,
          bend: [0, 0, 1],
          hold: false,
        },
      },
      ctx(),
    );
    p = apply(p, addClipEdit, { name: 'Reach', frames: 24, fps: 24, loop: false }, ctx());
    for (const [time, y] of [
      [0, 2],
      [500, -1.5],
      [800, -1.5],
      [1200, 1],
    ])
      p = apply(
        p,
        setKeyEdit,
        {
          clip: p.clips[0]!.id,
          bone: id('Goal'),
          channel: 'move',
          key: { time: time!, ease: 'ease', value: [0, y!, 0] },
        },
        ctx(),
      );
    const clip = p.clips[0]!;
    const tracks = bakeClip(clip, p.rig).map((t) => ({ t, read: asReaders(t) }));
    let most = 0;
    // Also between the ticks, where it is straight from one moment to the next.
    for (let k = 0; k <= 9600; k++) {
      const pose = new Map(p.rig.bones.map((b) => [b.id, b.rest]));
      for (const { t, read } of tracks)
        pose.set(t.bone, { ...pose.get(t.bone)!, [t.channel === 'move' ? 't' : 'q']: read(k / 9600) });
      const there = worldMatrices({ ...p.rig, constraints: [] }, pose),
        ours = worldMatrices(p.rig, sampleClip(clip, p.rig, k / 8));
      for (const bone of ['Shin', 'Foot'].map(id)) {
        const [a, b] = [there.get(bone)!, ours.get(bone)!];
        most = Math.max(most, Math.hypot(a[12]! - b[12]!, a[13]! - b[13]!, a[14]! - b[14]!));
      }
    }
    expect(most).toBeLessThan(0.005);
    expect(tracks.map(({ t }) => t.times.length < 100)).toEqual([true, true, true]);
  });
});

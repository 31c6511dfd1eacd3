import { NodeIO } from '@gltf-transform/core';
import validator from 'gltf-validator';
import { describe, expect, it } from 'vitest';
import * as z from 'zod';
import { decode } from 'fast-png';
import { type Mat4, matrixOf, mulMat, placedExtent, quatFromAxisAngle, uniteExtents } from '../math';
import { NO_GRADE, NO_VARIATION, type Project, idsFrom, makeProject, withoutHelpers } from '../model';
import {
  addPartEdit,
  addSceneEdit,
  apply,
  changePlacementsEdit,
  editContext,
  placeEdit,
  strokeEdit,
  addColourwayEdit,
  editSwatchEdit,
} from '../project';
import { gather, listExtent } from '../scene';
import { boxStroke } from '../sculpt';
import {
  EXPORTERS,
  FileError,
  HEAD_BYTES,
  IMPORTERS,
  type ImportJob,
  type Importer,
  QUIET_JOB,
  type ShipModel,
  countsOf,
  findsIn,
  gatherShipped,
  noteText,
  optionFields,
  optionsFromWords,
  planExport,
  runExport,
  writeProjectFile,
} from '.';
import { wishing } from './testing';

let n = 0;
const ctx = () => editContext(`lists ${n++}`);

/** A quay: a bollard twice, once blue and once turned on a group that leans; a crate that is hidden. */
function quay(): Project {
  let p = makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [8, 8, 8]);
  p = apply(p, addPartEdit, { name: 'Crate', bounds: { min: [0, 0, 0], size: [4, 4, 4] } }, ctx());
  for (const part of p.parts) {
    const stroke = boxStroke('add', 5, [{ min: [0, 0, 0], size: [2, 3, 4] }]);
    p = apply(p, strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke }, ctx());
  }
  p = apply(p, addColourwayEdit, { name: 'Night' }, ctx());
  p = apply(
    p,
    editSwatchEdit,
    { palette: p.palettes[0]!.id, byte: 5, change: { colour: '#203060' }, colourway: p.colourways[0]!.id },
    ctx(),
  );
  p = apply(p, addSceneEdit, { name: 'Landing' }, ctx());
  const scene = p.scenes[0]!.id;
  const [bollard, crate] = p.parts.map((o) => ({ kind: 'part', part: o.id }) as const);
  p = apply(p, placeEdit, { scene, placements: [{ shows: { kind: 'group' }, name: 'Row', t: [10, 0, 0] }] }, ctx());
  const row = p.scenes[0]!.placements[0]![0]!.id;
  const q = quatFromAxisAngle([0, 1, 0], Math.PI / 2);
  p = apply(
    p,
    placeEdit,
    {
      scene,
      placements: [
        { shows: bollard!, name: 'First', parent: row, t: [0, 0, 5] },
        { shows: bollard!, name: 'Second', parent: row, t: [0, 0, 20], q, colourway: p.colourways[0]!.id },
        { shows: crate!, name: 'Lost', t: [40, 0, 0] },
      ],
    },
    ctx(),
  );
  const lost = p.scenes[0]!.placements.flat().at(-1)!.id;
  return apply(p, changePlacementsEdit, { scene, changes: [{ id: lost, change: { hidden: true } }] }, ctx());
}

/** The box around a model, its nodes walked by hand. */
function modelExtent(model: ShipModel) {
  const worlds: Mat4[] = [];
  let all: ReturnType<typeof uniteExtents> = null;
  for (const { parent, t, q, s, mesh } of model.nodes) {
    const local = matrixOf({ t, q, s });
    const world = parent === null ? local : mulMat(worlds[parent]!, local);
    worlds.push(world);
    for (const { shape } of mesh === null ? [] : model.meshes[mesh]!.pieces) {
      const { positions } = model.shapes[shape]!;
      for (let i = 0; i < positions.length; i += 3)
        all = uniteExtents(
          all,
          placedExtent(world, { min: [positions[i]!, positions[i + 1]!, positions[i + 2]!], size: [0, 0, 0] }),
        );
    }
  }
  return all!;
}
const round = (v: readonly number[]): number[] => v.map((x) => Math.round(x * 1e4) / 1e4 + 0);

describe('what is shipped', () => {
  const p = quay();
  const scene = p.scenes[0]!.id;

  it('of a scene: a node for each placement, shapes shared, a look of its own as a material of its own', () => {
    const model = gatherShipped(p, { of: 'scene', scene });
    expect(model.nodes.map((o) => [o.name, o.parent])).toEqual([
      ['Landing', null],
      ['Row', 0],
      ['First', 1],
      ['Second', 1],
    ]);
    expect([model.shapes.length, model.meshes.length]).toEqual([1, 2]);
    expect(model.materials.map((m) => m.name)).toEqual(['Starter', 'Starter (Night)']);
    expect(countsOf(model)).toMatchObject({ parts: 2, faces: 2 * 52, triangles: 24 });
    expect(model.notes.map(noteText)).toEqual(['1 hidden placement was left out.']);
    // It stands where the draw list says.
    const k = p.metresPerUnit;
    const { lo, hi } = listExtent(gather(p, { of: 'scene', scene }))!;
    expect(round(modelExtent(model).lo)).toEqual(round(lo.map((v) => v * k)));
    expect(round(modelExtent(model).hi)).toEqual(round(hi.map((v) => v * k)));
  });

  it('of rigs, other projects and repeats: everything stands where the draw list says, without helpers', () => {
    let q = p;
    const crate = q.parts[1]!;
    const inner = { ...quay(), id: 'inner', metresPerUnit: q.metresPerUnit * 2 };
    const bare = countsOf(gatherShipped({ ...inner, scenes: [] }, { of: 'rig' })).faces;
    const [palette] = inner.palettes;
    const helping = {
      ...palette!,
      swatches: palette!.swatches.map((o) => (o.byte === 6 ? { ...o, helper: true } : o)),
    };
    const stroke = boxStroke('add', 6, [{ min: [0, 6, 0], size: [1, 1, 1] }]);
    const target = { part: inner.parts[0]!.id, layer: inner.parts[0]!.layers[0]!.id };
    const project = apply({ ...inner, palettes: [helping] }, strokeEdit, { ...target, stroke }, ctx());
    q = { ...q, assets: [{ id: 'boat', name: 'Boat', project, source: { project: 'inner', revision: '1' } }] };
    const rest = { clip: null, time: 0 } as const;
    q = apply(
      q,
      placeEdit,
      {
        scene,
        placements: [
          { shows: { kind: 'rig', ...rest }, name: 'Crew', t: [0, 0, 60] },
          { shows: { kind: 'asset', asset: 'boat', ...rest }, name: 'Boat', t: [60, 0, 0] },
          { shows: { kind: 'part', part: crate.id }, name: 'Post', t: [0, 0, 90] },
        ],
      },
      ctx(),
    );
    const post = q.scenes[0]!.placements.flat().at(-1)!.id;
    const repeats = [
      {
        id: 'r',
        placement: post,
        exceptions: [],
        vary: NO_VARIATION,
        second: null,
        kind: 'line',
        counts: [3, 1, 1],
        step: [8, 0, 0],
      },
    ] as const;
    q = { ...q, scenes: [{ ...q.scenes[0]!, repeats: [...repeats] }] };
    const model = gatherShipped(q, { of: 'scene', scene });
    const named = (name: string) => model.nodes.filter((o) => o.name === name).length;
    // Two parts of the crew and of the boat each, the post and its two copies.
    expect(['Crew', 'Boat', 'Body', 'Crate', 'Post', 'Post 2', 'Post 3'].map(named)).toEqual([1, 1, 2, 2, 1, 1, 1]);
    expect(countsOf(model).faces).toBe(2 * 52 + 2 * 52 + bare + 3 * 52);
    expect(model.notes.map((o) => o.code)).toEqual(['placementsHidden']);
    const k = q.metresPerUnit;
    const drawn = listExtent(gather(withoutHelpers(q), { of: 'scene', scene }))!;
    expect(round(modelExtent(model).lo)).toEqual(round(drawn.lo.map((v) => v * k)));
    expect(round(modelExtent(model).hi)).toEqual(round(drawn.hi.map((v) => v * k)));
  });

  it('of a group of it and of a part: from its own origin', () => {
    const row = p.scenes[0]!.placements[0]![0]!.id;
    const group = gatherShipped(p, { of: 'group', scene, placement: row });
    expect([group.name, group.nodes[0]!.t, group.nodes[1]!.t[2] / p.metresPerUnit]).toEqual(['Row', [0, 0, 0], 5]);
    const part = gatherShipped(p, { of: 'part', part: p.parts[1]!.id });
    expect([part.name, part.nodes.length, countsOf(part).triangles]).toEqual(['Crate', 1, 12]);
  });

  it('by a profile: upright another way, in its units, about its origin, with its names', () => {
    const what = { of: 'part', part: p.parts[1]!.id } as const;
    const plain = modelExtent(gatherShipped(p, what));
    const size = plain.hi.map((v, i) => v - plain.lo[i]!);
    const profile = wishing({
      place: { up: '+z', forward: '-y', unitsPerMetre: 100, origin: 'base' },
      names: { prefix: 'quay_' },
    });
    const model = gatherShipped(p, what, profile);
    const { lo, hi } = modelExtent(model);
    const [x, y, z] = size.map((v) => v * 100) as [number, number, number];
    // Its height runs along +Z from the ground, what faced +Z faces −Y.
    expect(round(lo)).toEqual(round([-x / 2, -z / 2, 0]));
    expect(round(hi)).toEqual(round([x / 2, z / 2, y]));
    expect(model.nodes.at(-1)!.name).toBe('quay_Crate');
    expect(() => gatherShipped(p, what, wishing({ place: { forward: '+y' } }))).toThrow(FileError);
  });

  it('a scene as a GLB is without fault and has its cubes once', async () => {
    const { files, counts } = await runExport(
      p,
      { exporter: 'glb', subject: { of: 'scene', scene }, options: {} },
      QUIET_JOB,
    );
    expect(files[0]!.name).toBe('landing.glb');
    const report = (await validator.validateBytes(files[0]!.bytes)) as { issues: { messages: { code: string }[] } };
    // A box for each of the two is an empty node with a name and a size.
    expect(report.issues.messages.filter((m) => m.code !== 'UNSUPPORTED_EXTENSION' && m.code !== 'NODE_EMPTY')).toEqual(
      [],
    );
    const root = (await new NodeIO().readBinary(files[0]!.bytes)).getRoot();
    expect(root.listNodes().map((o) => [o.getName(), o.getExtras()])).toEqual([
      ['Landing', {}],
      ['Row', {}],
      // How small its cubes are, so that they come back as they were.
      ['First', { cell: 0.05 }],
      ['Second', { cell: 0.05 }],
      ['First collider', { collider: 'box', moves: 'static', within: 0 }],
      ['Second collider', { collider: 'box', moves: 'static', within: 0 }],
    ]);
    expect(root.listMeshes()).toHaveLength(2);
    expect(new Set(root.listMeshes().map((m) => m.listPrimitives()[0]!.getAttribute('POSITION'))).size).toBe(1);
    const plain = { exporter: 'glb', subject: { of: 'rig' }, options: {} } as const;
    const one = wishing({ looks: { colourways: 'none' } });
    expect((await runExport(p, { ...plain, profile: one }, QUIET_JOB)).files[0]!.bytes.length).toBeLessThan(
      (await runExport(p, plain, QUIET_JOB)).files[0]!.bytes.length,
    );
    expect(counts).toEqual(
      (await planExport(p, { exporter: 'glb', subject: { of: 'scene', scene }, options: {} }, QUIET_JOB)).counts,
    );
  });
});

describe('the list of exporters', () => {
  it('is of kinds with names and endings of their own, whose options all have a preset and a title', () => {
    expect(new Set(EXPORTERS.map((e) => e.id)).size).toBe(EXPORTERS.length);
    // The two that write pictures are told apart by their names.
    expect(new Set(EXPORTERS.map((e) => `${e.name} ${e.extensions[0]}`)).size).toBe(EXPORTERS.length);
    for (const e of EXPORTERS) {
      expect(e.options.safeParse({}).success, e.id).toBe(true);
      for (const f of optionFields(e.options)) {
        expect(f.title, `${e.id} ${f.key}`).not.toBe(f.key);
        expect(f.preset, `${e.id} ${f.key}`).toBeDefined();
      }
    }
  });
  it('a palette without its surfaces says so; a picture is as large as its film', async () => {
    const p = quay();
    const plan = await planExport(
      p,
      { exporter: 'palette-hex', subject: { of: 'palette', palette: p.palettes[0]!.id, colourway: null }, options: {} },
      QUIET_JOB,
    );
    expect(plan.notes.map((o) => o.code)).toEqual(['surfacesLost']);
    const light = new Float32Array(3 * 2 * 3).fill(1);
    const film = { width: 3, height: 2, tiles: [{ x: 0, y: 0, width: 3, height: 2, samples: 1, light, cover: light }] };
    const png = EXPORTERS.find((e) => e.id === 'png')!;
    const { files } = await png.write(
      { name: 'Dusk, quayside', film, grade: NO_GRADE, transparent: false },
      {},
      QUIET_JOB,
    );
    expect([files[0]!.name, decode(files[0]!.bytes).width]).toEqual(['dusk-quayside.png', 3]);
  });
  it('options are read from words, and a wrong one is told with what would do', () => {
    const schema = z.strictObject({
      clips: z.boolean().default(true).meta({ title: 'Clips' }),
      padding: z.int().min(0).max(16).default(2),
      up: z.enum(['y', 'z']).default('y'),
    });
    expect(optionsFromWords(schema, ['clips=no', 'padding=4'])).toEqual({ clips: false, padding: 4, up: 'y' });
    expect(optionFields(schema).map((f) => [f.kind, f.title, f.preset, f.most])).toEqual([
      ['switch', 'Clips', true, null],
      ['number', 'padding', 2, 16],
      ['choice', 'up', 'y', null],
    ]);
    for (const [word, told] of [
      ['clips=maybe', /"maybe".*yes or no/],
      ['padding=99', /"99".*from 0 to 16/],
      ['up=x', /y, z/],
      ['colour=1', /no option "colour".*clips, padding, up/],
    ] as const)
      expect(() => optionsFromWords(schema, [word])).toThrow(told);
  });
});

describe('the list of importers', () => {
  const job: ImportJob = {
    ...QUIET_JOB,
    pictureSize: (bytes) =>
      bytes.length > 100 ? Promise.resolve({ width: 40, height: 80 }) : Promise.reject(new Error('cut short')),
  };
  const given = (name: string, bytes: Uint8Array) => ({ name, bytes: bytes as Uint8Array<ArrayBuffer> });
  const picture = new Uint8Array(200);
  picture.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  const importer = (id: string) => IMPORTERS.find((i) => i.id === id)!;
  const takers = (name: string, bytes: Uint8Array): string[] =>
    IMPORTERS.filter((i) => i.accepts(bytes.subarray(0, HEAD_BYTES), name)).map((i) => i.id);

  it('tells files by what is in them before what they are called', () => {
    expect(takers('quay.sphal', writeProjectFile(quay()))).toEqual(['project', 'pieces']);
    expect(takers('renamed.bin', writeProjectFile(quay()))).toEqual(['project', 'pieces']);
    expect(takers('sign', picture)).toEqual(['picture', 'height', 'mesh', 'slices', 'reference', 'palette']);
    expect(takers('dusk.hex', new TextEncoder().encode('#112233'))).toEqual(['palette']);
    expect(takers('song.mp3', new Uint8Array(99))).toEqual([]);
  });
  it('looks at files together: a picture that belongs to a mesh is no thing by itself, one beside it is', () => {
    const text = (s: string) => new TextEncoder().encode(s);
    const mesh: Importer = {
      ...importer('project'),
      id: 'mesh',
      accepts: (_, name) => /\.(mesh|png)$/.test(name),
      inspect: (files) =>
        files
          .filter((f) => f.name.endsWith('.mesh'))
          .map((m) => {
            const names = new TextDecoder().decode(m.bytes);
            return { title: m.name, files: [m, ...files.filter((f) => names.includes(f.name))] };
          }),
    };
    const files = [
      given('quay.mesh', text('uses stone.png')),
      given('stone.png', picture),
      given('sign.png', picture),
      given('song.ogg', text('la')),
    ];
    const { found, unknown } = findsIn(files, [...IMPORTERS, mesh]);
    expect(found.map((o) => [o.find.files.map((f) => f.name).join(), o.uses.map((u) => u.id).join()])).toEqual([
      ['sign.png', 'picture,height,slices,reference,palette'],
      ['quay.mesh,stone.png', 'mesh'],
    ]);
    expect(unknown.map((f) => f.name)).toEqual(['song.ogg']);
  });
  it('a picture stands behind the part as high as what is there; one that cannot be read is told', async () => {
    const place = {
      part: 'a',
      content: { min: [-4, 0, 0], size: [8, 20, 8] },
      floor: 0,
      cube: 0.05,
      palette: quay().palettes[0]!,
    } as const;
    const reference = importer('reference');
    const [find] = reference.inspect([given('sign.png', picture)]);
    const { brought } = await reference.run(find!, {}, job, place);
    expect(brought).toMatchObject({
      kind: 'edit',
      edit: 'addReference',
      args: { at: [-5, 0], size: [10, 20], part: 'a' },
    });
    const cut = { title: 'cut.png', files: [given('cut.png', picture.subarray(0, 60))] };
    await expect(reference.run(cut, {}, job, place)).rejects.toThrow(/“cut.png” cannot be read as a picture/);
  });
  it('a project comes back as it went; a palette without a name is called after its file', async () => {
    const p = quay();
    const [find] = importer('project').inspect([given('quay.sphal', writeProjectFile(p))]);
    const { brought, notes } = await importer('project').run(find!, {}, job, null);
    expect(notes).toEqual([]);
    expect(brought.kind === 'project' && writeProjectFile(brought.project)).toEqual(writeProjectFile(p));
    const list = {
      title: 'dusk.hex.txt',
      files: [given('dusk.hex.txt', new TextEncoder().encode('#112233\n#ffeedd'))],
    };
    expect((await importer('palette').run(list, {}, job, null)).brought).toMatchObject({
      kind: 'palette',
      name: 'dusk',
    });
  });
});

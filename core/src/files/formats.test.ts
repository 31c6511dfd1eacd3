import { NodeIO } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength } from '@gltf-transform/extensions';
import { strFromU8, unzipSync } from 'fflate';
import { decode } from 'fast-png';
import validator from 'gltf-validator';
import Module from 'manifold-3d';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import type { BufferGeometry, Mesh } from 'three';
import { describe, expect, it } from 'vitest';
import { type Vec3, quatFromAxisAngle } from '../math';
import { type Project, idsFrom, makeProject } from '../model';
import {
  type Edit,
  addBoneEdit,
  addPartEdit,
  apply,
  editContext,
  editSwatchEdit,
  mountPartEdit,
  renamePartEdit,
  setMountEdit,
  setProjectEdit,
  strokeEdit,
} from '../project';
import { boxStroke } from '../sculpt';
import { QUIET_JOB, noteText, planExport, runExport } from '.';
import { wishing } from './testing';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project =>
  apply(p, edit, args, editContext(`formats ${n++}`, 1000));
const fill = (p: Project, part: number, value: number, min: Vec3, size: Vec3): Project =>
  run(p, strokeEdit, {
    part: p.parts[part]!.id,
    layer: p.parts[part]!.layers[0]!.id,
    stroke: boxStroke(value === 9 ? 'paint' : 'add', value, [{ min, size }]),
  });
/** A gate of two colours: a post, and a beam that lies a quarter turned on a bone 6 cubes up; 5 cm a cube. */
function gate(turn = Math.PI / 2): Project {
  let p = run(makeProject('gate', 'Gate', idsFrom('gate'), 'prop', [8, 12, 8]), setProjectEdit, {
    metresPerUnit: 0.05,
  });
  p = run(p, renamePartEdit, { part: p.parts[0]!.id, name: 'Post' });
  p = fill(p, 0, 5, [-1, 0, -1], [2, 6, 2]);
  p = run(p, addPartEdit, { name: 'Beam "of" <oak>', bounds: { min: [0, 0, 0], size: [4, 2, 2] }, pivot: [0, 0, 0] });
  p = fill(p, 1, 5, [0, 0, 0], [4, 2, 2]);
  p = fill(p, 1, 9, [3, 0, 0], [1, 2, 2]);
  p = run(p, addBoneEdit, { name: 'Top', parent: null, t: [0, 6, 0] });
  p = run(p, mountPartEdit, { part: p.parts[1]!.id, bone: p.rig.bones[0]!.id });
  return run(p, setMountEdit, {
    mount: p.rig.mounts.find((m) => m.bone !== null)!.id,
    place: { q: quatFromAxisAngle([0, 1, 0], turn) },
  });
}
const made = (p: Project, exporter: string, options: object = {}, wishes: Parameters<typeof wishing>[0] = {}) =>
  runExport(p, { exporter, subject: { of: 'rig' }, profile: wishing(wishes), options }, QUIET_JOB);
/** As large as it is, not scaled to a height. */
const REAL = { print: { height: 0 } };
const buffer = (bytes: Uint8Array<ArrayBuffer>): ArrayBuffer =>
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length);
function box(g: BufferGeometry): [number[], number[]] {
  g.computeBoundingBox();
  const round = (v: number): number => Math.round(v * 1e4) / 1e4 + 0;
  return [g.boundingBox!.min.toArray().map(round), g.boundingBox!.max.toArray().map(round)];
}
/** Whether an independent library takes a mesh for one solid, and how large that is. */
async function volume(positions: Float32Array, triangles: Uint32Array): Promise<number> {
  const lib = await Module();
  lib.setup();
  const mesh = new lib.Mesh({ numProp: 3, vertProperties: positions, triVerts: triangles });
  mesh.merge();
  const solid = new lib.Manifold(mesh);
  expect(solid.status()).toBe('NoError');
  return solid.volume();
}

describe('files for printers', () => {
  it('STL is one closed body of united parts, in millimetres, Z up, on the bed; as bytes and as text the same', async () => {
    const p = gate();
    const binary = await made(p, 'stl', {}, REAL),
      text = await made(p, 'stl', { text: true }, REAL);
    expect(binary.files.map((f) => f.name)).toEqual(['gate.stl']);
    expect([binary.notes, binary.counts]).toEqual([[], { bodies: 1, cubes: 24 + 16 }]);
    const [a, b] = [binary, text].map((o) => new STLLoader().parse(buffer(o.files[0]!.bytes))) as [
      BufferGeometry,
      BufferGeometry,
    ];
    // Turned by 90° about Y, the beam goes to −Z, which is to the front of the printer's +Y: 8 cubes high, 5 cm each.
    expect(box(a)).toEqual([
      [-75, -125, 0],
      [75, 125, 400],
    ]);
    expect(box(b)).toEqual(box(a));
    const positions = a.getAttribute('position').array as Float32Array;
    expect(b.getAttribute('position').array).toEqual(positions);
    const all = Uint32Array.from({ length: positions.length / 3 }, (_, i) => i);
    expect((await volume(positions, all)) / 50 ** 3).toBeCloseTo(40, 3);
    // Ten centimetres high unless told otherwise.
    expect(box(new STLLoader().parse(buffer((await made(p, 'stl')).files[0]!.bytes)))[1][2]).toBe(100);
  });
  it('3MF has a material for each colour and names as they are; the same project gives the same bytes', async () => {
    const p = gate();
    const { files } = await made(p, '3mf', {}, REAL);
    expect(files[0]!.name).toBe('gate.3mf');
    expect((await made(p, '3mf', {}, REAL)).files[0]!.bytes).toEqual(files[0]!.bytes);
    const parts = unzipSync(files[0]!.bytes);
    expect(Object.keys(parts)).toEqual(['[Content_Types].xml', '_rels/.rels', '3D/3dmodel.model']);
    const xml = strFromU8(parts['3D/3dmodel.model']!);
    expect(xml).toContain('<model unit="millimeter"');
    const numbers = (tag: string, keys: readonly string[]): number[][] =>
      [...xml.matchAll(new RegExp(`<${tag} ([^/]*)/>`, 'g'))].map((m) =>
        keys.map((k) => Number(new RegExp(`\\b${k}="([^"]*)"`).exec(m[1]!)![1])),
      );
    const vertices = numbers('vertex', ['x', 'y', 'z']).flat(),
      triangles = numbers('triangle', ['v1', 'v2', 'v3', 'p1']);
    expect(
      (await volume(Float32Array.from(vertices), Uint32Array.from(triangles.flatMap((t) => t.slice(0, 3))))) / 50 ** 3,
    ).toBeCloseTo(40, 3);
    const colours = [...xml.matchAll(/displaycolor="([^"]*)"/g)].map((m) => m[1]);
    const swatch = (byte: number) => p.palettes[0]!.swatches.find((s) => s.byte === byte)!.colour.toUpperCase();
    expect(colours).toEqual([swatch(5), swatch(9)]);
    expect(new Set(triangles.map((t) => t[3]))).toEqual(new Set([0, 1]));
  });
  it('parts that are turned askew are bodies of their own, and that is told; names are escaped', async () => {
    const p = gate(0.4);
    const plan = await planExport(p, { exporter: '3mf', subject: { of: 'rig' }, options: {} }, QUIET_JOB);
    expect([plan.counts['bodies'], plan.notes.map(noteText)]).toEqual([
      2,
      [
        '2 bodies, since not every part’s cubes meet those of the others: some are turned, scaled or half a cube aside.',
      ],
    ]);
    const xml = strFromU8(unzipSync((await made(p, '3mf')).files[0]!.bytes)['3D/3dmodel.model']!);
    expect(xml).toContain('name="Beam &quot;of&quot; &lt;oak&gt;"');
    expect(xml.match(/<object /g)).toHaveLength(2);
  });
});

describe('watertight game files', () => {
  it('have no open edge across materials either: each part is a solid of as many cubes, and nothing is found fault with', async () => {
    let p = gate();
    // A slot of its own for the end of the beam, and glass that stands on the post.
    p = run(p, editSwatchEdit, { palette: p.palettes[0]!.id, byte: 9, change: { slot: 'Iron' } });
    const { files, counts } = await made(p, 'glb', {}, { mesh: { watertight: true } });
    const report = (await validator.validateBytes(files[0]!.bytes)) as { issues: { messages: { code: string }[] } };
    expect(report.issues.messages.filter((m) => m.code !== 'UNSUPPORTED_EXTENSION')).toEqual([]);
    const doc = await new NodeIO().registerExtensions([KHRMaterialsEmissiveStrength]).readBinary(files[0]!.bytes);
    const solids = new Map<string, number>();
    for (const mesh of doc.getRoot().listMeshes()) {
      const positions: number[] = [],
        triangles: number[] = [];
      for (const primitive of mesh.listPrimitives()) {
        const first = positions.length / 3;
        positions.push(...primitive.getAttribute('POSITION')!.getArray()!);
        triangles.push(...[...primitive.getIndices()!.getArray()!].map((i) => i + first));
      }
      solids.set(mesh.getName(), (await volume(Float32Array.from(positions), Uint32Array.from(triangles))) / 0.05 ** 3);
    }
    expect([...solids].map(([name, v]) => [name, Math.round(v * 1e3) / 1e3])).toEqual([
      ['Post', 24],
      ['Beam "of" <oak>', 16],
    ]);
    expect(counts['triangles']).toBe(12 + 12 + 8);
    // Open, the two ends of the beam meet as they may.
    expect((await made(p, 'glb')).counts['triangles']).toBeGreaterThanOrEqual(counts['triangles']!);
  });
});

describe('files of cubes and plain meshes', () => {
  it('PLY does not begin with a byte that readers take for the end of its head, and is the same mesh', async () => {
    // −0.32 begins with a line feed, as bytes go.
    let p = run(gate(), setProjectEdit, { metresPerUnit: 0.08 });
    p = fill(p, 0, 5, [-4, 0, -1], [1, 1, 1]);
    for (const options of [{}, { points: true }]) {
      const bytes = (await made(p, 'ply', options)).files[0]!.bytes;
      const first = bytes[new TextDecoder('latin1').decode(bytes).indexOf('end_header\n') + 11]!;
      expect([9, 10, 11, 12, 13, 32]).not.toContain(first);
    }
    const area = async (q: Project, cube: number): Promise<number> => {
      const mesh = new PLYLoader().parse(buffer((await made(q, 'ply')).files[0]!.bytes)).toNonIndexed();
      const at = mesh.getAttribute('position').array;
      let sum = 0;
      for (let i = 0; i < at.length; i += 9) {
        const [a, b, c] = [0, 3, 6].map((k) => [at[i + k]!, at[i + k + 1]!, at[i + k + 2]!]) as unknown as [
          Vec3,
          Vec3,
          Vec3,
        ];
        const [x, y] = [b.map((w, k) => w - a[k]!), c.map((w, k) => w - a[k]!)] as [number[], number[]];
        sum += Math.hypot(x[1]! * y[2]! - x[2]! * y[1]!, x[2]! * y[0]! - x[0]! * y[2]!, x[0]! * y[1]! - x[1]! * y[0]!);
      }
      return sum / 2 / cube ** 2;
    };
    // At 5 cm a cube nothing has to change places.
    expect(await area(p, 0.08)).toBeCloseTo(await area(run(p, setProjectEdit, { metresPerUnit: 0.05 }), 0.05), 3);
  });
  it('PLY has colours at the corners of each face, or a point for each cube', async () => {
    const p = gate();
    const mesh = new PLYLoader().parse(buffer((await made(p, 'ply')).files[0]!.bytes));
    expect(box(mesh)).toEqual([
      [-0.05, 0, -0.2],
      [0.1, 0.4, 0.05],
    ]);
    const points = new PLYLoader().parse(buffer((await made(p, 'ply', { points: true })).files[0]!.bytes));
    expect(points.getAttribute('position').count).toBe(40);
    expect(points.getIndex()).toBeNull();
    expect(box(points)).toEqual([
      [-0.025, 0.025, -0.175],
      [0.075, 0.375, 0.025],
    ]);
    const colour = points.getAttribute('color');
    const seen = new Map<string, number>();
    for (let i = 0; i < 40; i++) {
      const key = [colour.getX(i), colour.getY(i), colour.getZ(i)].map((v) => v.toFixed(3)).join();
      seen.set(key, (seen.get(key) ?? 0) + 1);
    }
    expect([...seen.values()].sort((a, b) => a - b)).toEqual([4, 36]);
  });
  it('slices are indexed pictures with exact colours, in order; put on one another they are the cubes again', async () => {
    const p = gate();
    for (const order of ['bottom up', 'back to front', 'left to right'] as const) {
      const { files, counts } = await made(p, 'slices', { order });
      const about = JSON.parse(strFromU8(files[0]!.bytes)) as {
        size: number[];
        lowest: number[];
        slicesAlong: string;
        pixelsRight: string;
        pixelsDown: string;
      };
      const axis = (way: string): number => 'xyz'.indexOf(way[1]!);
      const pictures = files.slice(1).map((f) => decode(f.bytes));
      expect([files[1]!.name, pictures.length]).toEqual(['gate-000.png', counts['slices']]);
      const cubes: string[] = [];
      pictures.forEach(({ data, width, height, palette }, k) =>
        data.forEach((v, i) => {
          if (v === 0) return;
          const at = [0, 0, 0];
          at[axis(about.slicesAlong)] = k;
          at[axis(about.pixelsRight)] = i % width;
          const down = Math.floor(i / width);
          at[axis(about.pixelsDown)] = about.pixelsDown.startsWith('+') ? down : height - 1 - down;
          cubes.push([...at.map((c, a) => c + about.lowest[a]!), ...palette![v]!.slice(0, 3)].join(' '));
        }),
      );
      const list = strFromU8((await made(p, 'cubes')).files[0]!.bytes)
        .trim()
        .split('\n');
      expect(cubes.sort()).toEqual(list.sort());
    }
  });
  it('a list of cubes says each with its place and colour, bottom up', async () => {
    const p = gate();
    const { files } = await made(p, 'cubes');
    const lines = strFromU8(files[0]!.bytes)
      .trim()
      .split('\n')
      .map((l) => l.split(' ').map(Number));
    expect([files[0]!.name, lines.length]).toEqual(['gate.txt', 40]);
    const n = Number.parseInt(p.palettes[0]!.swatches.find((s) => s.byte === 5)!.colour.slice(1), 16);
    expect(lines[0]).toEqual([-1, 0, -1, n >> 16, (n >> 8) & 255, n & 255]);
    expect(lines.map((l) => l[1])).toEqual([...lines.map((l) => l[1]!)].sort((a, b) => a - b));
  });
  it('OBJ stands as the figure does, an object a part, with its materials and pictures beside it', async () => {
    const p = gate();
    const { files, notes } = await made(p, 'obj', {}, { collider: { shape: 'none' } });
    expect(notes).toEqual([]);
    expect(files.map((f) => f.name)).toEqual([
      'gate.obj',
      'gate.mtl',
      'gate-starter-colour.png',
      'gate-starter-glow.png',
    ]);
    const [obj, mtl] = files.map((f) => strFromU8(f.bytes)) as [string, string];
    expect(obj).toContain('mtllib gate.mtl');
    expect(mtl).toContain('map_Kd gate-starter-colour.png');
    const group = new OBJLoader().parse(obj);
    expect(group.children.map((c) => c.name)).toEqual(['Post', 'Beam_"of"_<oak>']);
    expect(box((group.children[1] as Mesh).geometry)).toEqual([
      [0, 0.3, -0.2],
      [0.1, 0.4, 0],
    ]);
    const names = [...obj.matchAll(/^usemtl (.*)$/gm)].map((m) => m[1]);
    expect(new Set(names)).toEqual(new Set([...mtl.matchAll(/^newmtl (.*)$/gm)].map((m) => m[1])));
  });
});

import { NodeIO } from '@gltf-transform/core';
import { EXTMeshoptCompression, KHRMaterialsEmissiveStrength, KHRMeshQuantization } from '@gltf-transform/extensions';
import { decode } from 'fast-png';
import validator from 'gltf-validator';
import { MeshoptDecoder } from 'meshoptimizer/decoder';
import { describe, expect, it } from 'vitest';
import { type Mat4, type Vec3, mulMat, transformPoint } from '../../math';
import { type Project, composite, idsFrom, makeProject } from '../../model';
import { hexBytes } from '../../palette';
import {
  type Edit,
  addBoneEdit,
  addClipEdit,
  addPartEdit,
  apply,
  editContext,
  editSwatchEdit,
  mountPartEdit,
  setKeyEdit,
  strokeEdit,
} from '../../project';
import { boxStroke } from '../../sculpt';
import { FileError, QUIET_JOB, type ShipModel, countsOf, gatherShipped, noteText, runExport } from '..';
import { wishing } from '../testing';
import { inverseBinds, restWorlds } from './join-meshes';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project =>
  apply(p, edit, args, editContext(`making ${n++}`, 1000));
const fill = (p: Project, part: number, value: number, min: Vec3, size: Vec3): Project =>
  run(p, strokeEdit, {
    part: p.parts[part]!.id,
    layer: p.parts[part]!.layers[0]!.id,
    stroke: boxStroke('add', value, [{ min, size }]),
  });
/** A post of bands, with a band of iron and a pane of glass, and a peg that stands half in it and half out; the peg turns. */
function post(): Project {
  let p = makeProject('post', 'Post', idsFrom('post'), 'prop', [16, 16, 16]);
  for (const [i, value] of [3, 4, 5, 4, 3].entries()) p = fill(p, 0, value, [-2, i * 2, -2], [4, 2, 4]);
  p = fill(p, 0, 9, [-2, 10, -2], [4, 2, 4]);
  p = fill(p, 0, 11, [2, 0, -2], [1, 4, 4]);
  p = run(p, addPartEdit, { name: 'Peg', bounds: { min: [0, 0, 0], size: [6, 2, 2] }, pivot: [0, 0, 0] });
  p = fill(p, 1, 5, [0, 0, 0], [6, 2, 2]);
  p = fill(p, 1, 9, [5, 0, 0], [1, 1, 2]);
  p = run(p, addBoneEdit, { name: 'Hinge', parent: null, t: [0, 4, -1] });
  p = run(p, mountPartEdit, { part: p.parts[1]!.id, bone: p.rig.bones[0]!.id });
  const palette = p.palettes[0]!.id;
  p = run(p, editSwatchEdit, { palette, byte: 9, change: { slot: 'Iron', metalness: 1 } });
  return run(p, editSwatchEdit, { palette, byte: 11, change: { opacity: 0.4 } });
}
const ship = (p: Project, wishes: Parameters<typeof wishing>[0] = {}): ShipModel =>
  gatherShipped(p, { of: 'rig' }, wishing({ collider: { shape: 'none' }, ...wishes }));

/** What the shape of a part shows in the middle of each exposed face that it covers, by place: read from its picture. */
function shown(model: ShipModel, name: string, unit: number): Map<string, number[]> {
  const out = new Map<string, number[]>();
  const mesh = model.meshes.find((m) => m.name === name)!;
  for (const { shape, material } of mesh.pieces) {
    const { positions, uv, indices } = model.shapes[shape]!;
    const { bytes, width, height } = model.pictures[model.materials[material]!.colour]!;
    const picture = decode(bytes);
    expect([picture.width, picture.height]).toEqual([width, height]);
    for (let t = 0; t < indices.length; t += 3) {
      const at = [0, 1, 2].map((k) => indices[t + k]!);
      const p = at.map((i) => [0, 1, 2].map((a) => positions[i * 3 + a]! / unit));
      const [lo, hi] = [Math.min, Math.max].map((of) => [0, 1, 2].map((a) => of(...p.map((c) => c[a]!)))) as [
        number[],
        number[],
      ];
      const axis = [0, 1, 2].find((a) => hi[a]! - lo[a]! < 1e-6)!;
      const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
      for (let i = Math.round(lo[u]!); i < hi[u]! - 1e-6; i++)
        for (let j = Math.round(lo[v]!); j < hi[v]! - 1e-6; j++) {
          // A little off the middle, so that it is on one side of every diagonal.
          const q = [i + 0.52, j + 0.49];
          const area = (a: number[], b: number[], c: number[]): number =>
            (b[0]! - a[0]!) * (c[1]! - a[1]!) - (b[1]! - a[1]!) * (c[0]! - a[0]!);
          const [a, b, c] = p.map((o) => [o[u]!, o[v]!]) as [number[], number[], number[]];
          const whole = area(a, b, c);
          const w = [area(q, b, c) / whole, area(a, q, c) / whole, area(a, b, q) / whole];
          if (w.some((s) => s < 0)) continue;
          const [x, y] = [0, 1].map((k) => w.reduce((sum, s, m) => sum + s * uv[at[m]! * 2 + k]!, 0)) as [
            number,
            number,
          ];
          const texel = (Math.floor(y * height) * width + Math.floor(x * width)) * 4;
          const place: number[] = [0, 0, 0];
          place[axis] = Math.round(lo[axis]! * 2) / 2;
          place[u] = i + 0.5;
          place[v] = j + 0.5;
          // Faces of glass lie against those of the solid behind: told apart by how they are drawn.
          const key = `${place.join()} ${model.materials[material]!.transparent ?? ''}`;
          expect(out.has(key)).toBe(false);
          out.set(key, [...picture.data.slice(texel, texel + 3)]);
        }
    }
  }
  return out;
}

describe('how a mesh is made', () => {
  const p = post();
  const unit = p.metresPerUnit;
  const colours = new Map(p.palettes[0]!.swatches.map((s) => [s.byte, hexBytes(s.colour)]));
  const truth = shown(ship(p), 'Body', unit);

  it('shows in each place the colour of the cube there, however it is merged and whatever picture it reads', () => {
    const grid = composite(p.parts[0]!);
    for (const [place, colour] of truth) {
      const [x, y, z] = place.split(' ')[0]!.split(',').map(Number) as [number, number, number];
      const half = [x, y, z].findIndex((v) => v % 1 === 0);
      const cell = (by: number): number =>
        grid.get(...([x, y, z].map((v, i) => Math.floor(v + (i === half ? by : 0))) as [number, number, number]));
      expect([cell(0.5), cell(-0.5)].map((b) => colours.get(b)?.join())).toContain(colour.join());
    }
    for (const merge of ['colour', 'all'] as const)
      for (const layout of ['strip', 'atlas'] as const)
        for (const watertight of [false, true])
          for (const weld of [false, true]) {
            const model = ship(p, { mesh: { merge, watertight, weld }, picture: { layout } });
            const found = shown(model, 'Body', unit);
            // Closed, glass has faces towards the post as well.
            for (const [place, colour] of truth) expect(found.get(place)).toEqual(colour);
            if (!watertight) expect(found.size).toBe(truth.size);
          }
  });
  it('never merges across slots; by slot each shows its commonest colour, all in a picture keep theirs', () => {
    const count = (wishes: Parameters<typeof wishing>[0]) => {
      const { triangles, materials, vertices } = countsOf(ship(p, wishes));
      return { triangles, materials, vertices };
    };
    // Post: 4 sides of 6 bands, 2 ends; glass: 5 open sides; peg: a step of iron at its end.
    const byColour = count({}),
      bySlot = count({ mesh: { merge: 'slot' } }),
      all = count({ mesh: { merge: 'all' } });
    expect(bySlot.triangles).toBe(all.triangles);
    expect(bySlot.triangles).toBeLessThan(byColour.triangles * 0.7);
    expect([byColour.materials, bySlot.materials, all.materials]).toEqual([3, 3, 3]);
    const slots = ship(p, { mesh: { merge: 'slot' } });
    expect(slots.materials.map((m) => [m.name, m.slot, m.transparent])).toEqual([
      ['Starter', '', null],
      ['Iron', 'Iron', null],
      ['Starter transparent', '', 'blend'],
    ]);
    const sides = [...shown(slots, 'Body', unit)].filter(([place]) => place.startsWith('-2,'));
    expect(new Set(sides.map(([, colour]) => colour.join())).size).toBe(2);
  });
  it('is told apart by which way faces look, where the profile names slots for that', () => {
    const model = ship(p, { mesh: { floors: 'Floor', walls: 'Wall', merge: 'slot' } });
    expect(model.materials.map((m) => m.name).sort()).toEqual(
      ['Floor', 'Iron', 'Starter', 'Wall', 'Floor transparent', 'Starter transparent', 'Wall transparent'].sort(),
    );
    const floor = model.materials.findIndex((m) => m.name === 'Floor');
    for (const { pieces } of model.meshes)
      for (const { shape, material } of pieces)
        if (material === floor) {
          const { normals } = model.shapes[shape]!;
          for (let i = 0; i < normals!.length; i += 3) expect([...normals!.slice(i, i + 3)]).toEqual([0, 1, 0]);
        }
  });
  it('welded has one vertex for each position and texture coordinate, and no normals', () => {
    let cube = makeProject('cube', 'Cube', idsFrom('cube'), 'prop', [4, 4, 4]);
    cube = fill(cube, 0, 5, [0, 0, 0], [2, 2, 2]);
    expect(countsOf(ship(cube))).toMatchObject({ triangles: 12, vertices: 24 });
    // 24 faces by themselves: 4 vertices of 32 bytes and 6 numbers of a triangle's corner each; merged to 6.
    expect(countsOf(ship(cube))).toMatchObject({ geometryApart: 24 * (4 * 32 + 24), geometry: 24 * 32 + 36 * 4 });
    const model = ship(cube, { mesh: { weld: true } });
    expect([countsOf(model).vertices, model.shapes[0]!.normals]).toEqual([8, null]);
  });
  it('has a second set of coordinates without overlaps, each within its square', () => {
    for (const as of ['parts', 'one'] as const) {
      const model = ship(p, { mesh: { as, merge: 'all' }, picture: { second: true } });
      const mesh = model.meshes[model.nodes.find((o) => o.mesh !== null)!.mesh!]!;
      const [wide, high] = mesh.second!;
      const taken = new Uint8Array(wide * high * 16);
      for (const { shape } of mesh.pieces) {
        const { uv2, indices } = model.shapes[shape]!;
        for (let t = 0; t < indices.length; t += 3) {
          const c = [0, 1, 2].map((k) => [
            uv2![indices[t + k]! * 2]! * wide * 4,
            uv2![indices[t + k]! * 2 + 1]! * high * 4,
          ]);
          expect(c.flat().every((v) => v >= -1e-3 && v <= Math.max(wide, high) * 4 + 1e-3)).toBe(true);
          const area = (a: number[], b: number[], q: number[]): number =>
            (b[0]! - a[0]!) * (q[1]! - a[1]!) - (b[1]! - a[1]!) * (q[0]! - a[0]!);
          const [lo, hi] = [Math.min, Math.max].map((of) =>
            [0, 1].map((k) => Math.round(of(...c.map((o) => o[k]!)))),
          ) as [number[], number[]];
          for (let y = lo[1]!; y < hi[1]!; y++)
            for (let x = lo[0]!; x < hi[0]!; x++) {
              const q = [x + 0.53, y + 0.51];
              const s = [area(c[0]!, c[1]!, q), area(c[1]!, c[2]!, q), area(c[2]!, c[0]!, q)];
              if (s.every((v) => v > 0) || s.every((v) => v < 0)) taken[y * wide * 4 + x]!++;
            }
        }
      }
      expect(Math.max(...taken)).toBe(1);
    }
  });
  it('joined by bone, as one object or as a rigid skin, stands where its parts stood', async () => {
    const place = (model: ShipModel): string[] => {
      const worlds = restWorlds(model.nodes),
        binds = inverseBinds(model);
      return model.nodes
        .flatMap((node, i) =>
          node.mesh === null
            ? []
            : model.meshes[node.mesh]!.pieces.flatMap(({ shape }) => {
                const { positions, indices, joints } = model.shapes[shape]!;
                return [...indices].map((v) => {
                  const to: Mat4 = node.skinned
                    ? mulMat(worlds[model.joints[joints![v]!]!]!, binds[joints![v]!]!)
                    : worlds[i]!;
                  return transformPoint(to, [positions[v * 3]!, positions[v * 3 + 1]!, positions[v * 3 + 2]!])
                    .map((c) => Math.round(c * 1e4) / 1e4 + 0)
                    .join();
                });
              }),
        )
        .sort();
    };
    const plain = place(ship(p));
    for (const as of ['bones', 'skin', 'one'] as const) {
      const model = ship(p, { mesh: { as } });
      expect(place(model)).toEqual(plain);
      if (as !== 'bones') expect(model.nodes.filter((o) => o.mesh !== null)).toHaveLength(1);
      expect(model.nodes.some((o) => o.name === 'Hinge')).toBe(as !== 'one');
      const order = {
        exporter: 'glb',
        subject: { of: 'rig' },
        profile: wishing({ mesh: { as } }),
        options: {},
      } as const;
      const report = (await validator.validateBytes((await runExport(p, order, QUIET_JOB)).files[0]!.bytes)) as {
        issues: { messages: { code: string; severity: number }[] };
      };
      expect(report.issues.messages.filter((m) => m.severity < 2)).toEqual([]);
    }
  });
  it('drops what another part hides in every clip, and nothing that shows once', () => {
    const faces = (project: Project): number => countsOf(ship(project, { mesh: { dropHidden: true } })).faces;
    const all = countsOf(ship(p)).faces;
    // Of the peg 2 cubes along are inside the post: 4 sides of 2 × 2 and its end; it hides 2 × 2 of the post and 2 of the glass.
    const hidden = all - faces(p);
    expect(hidden).toBe(4 * 4 + 4 + 4 + 2);
    let moving = run(p, addClipEdit, { name: 'Turn', frames: 24, fps: 24, loop: true });
    moving = run(moving, setKeyEdit, {
      clip: moving.clips[0]!.id,
      bone: p.rig.bones[0]!.id,
      channel: 'move',
      key: { time: 600, value: [12, 0, 0], ease: 'linear' } as never,
    });
    expect(faces(moving)).toBeGreaterThan(faces(p));
    expect(() => ship(p, { mesh: { dropHidden: true, watertight: true } })).toThrow(FileError);
  });
});

describe('pictures that repeat', () => {
  it('lie in whole cubes on each slot that has one; the others keep their commonest colour', () => {
    const p = post();
    const wishes = {
      picture: { layout: 'tiling', cubes: 8 },
      tiles: [{ slot: 'Iron', picture: 'planks', blob: null }],
    } as const;
    const model = ship(p, wishes as never);
    const iron = model.materials.findIndex((m) => m.slot === 'Iron'),
      plain = model.materials.findIndex((m) => m.slot === '' && m.transparent === null);
    const size = (m: number) => [model.pictures[model.materials[m]!.colour]!.width, model.materials[m]!.repeats];
    expect([size(iron), size(plain)]).toEqual([
      [32, true],
      [1, true],
    ]);
    // On a wall one goes a picture in eight cubes, the same whichever cube one begins at.
    const body = model.meshes.find((m) => m.name === 'Body')!;
    for (const { shape } of body.pieces) {
      const { positions, normals, uv, indices } = model.shapes[shape]!;
      for (let t = 0; t < indices.length; t += 3) {
        const [a, b] = [indices[t]!, indices[t + 1]!];
        if (normals![a * 3 + 1] !== 0) continue;
        const up = (positions[b * 3 + 1]! - positions[a * 3 + 1]!) / p.metresPerUnit;
        expect(uv[a * 2 + 1]! - uv[b * 2 + 1]!).toBeCloseTo(up / 8, 5);
      }
    }
  });
});

describe('what is too much', () => {
  it('is said with its count before anything is made', () => {
    let p = makeProject('noise', 'Noise', idsFrom('noise'), 'prop', [128, 128, 128]);
    const part = p.parts[0]!;
    const grid = part.layers[0]!.grid.edit((d) => {
      const [x0, y0, z0] = part.bounds.min;
      for (let z = 0; z < 128; z++)
        for (let y = 0; y < 128; y++) for (let x = (y + z) % 2; x < 128; x += 2) d.set(x0 + x, y0 + y, z0 + z, 5);
    });
    p = { ...p, parts: [{ ...part, layers: [{ ...part.layers[0]!, grid }] }] };
    expect(() => ship(p)).toThrow(/shows 6,291,456 faces of cubes/);
  });
});

describe('numbers in game files', () => {
  const p = post();
  const written = async (packing: string, wishes: Parameters<typeof wishing>[0] = {}) => {
    const order = { exporter: 'glb', subject: { of: 'rig' }, profile: wishing(wishes), options: { packing } } as const;
    const { files } = await runExport(p, order, QUIET_JOB);
    await MeshoptDecoder.ready;
    const io = new NodeIO()
      .registerExtensions([KHRMeshQuantization, EXTMeshoptCompression, KHRMaterialsEmissiveStrength])
      .registerDependencies({ 'meshopt.decoder': MeshoptDecoder });
    const doc = await io.readBinary(files[0]!.bytes);
    const points: string[] = [];
    for (const node of doc.getRoot().listNodes()) {
      const world = node.getWorldMatrix() as unknown as Mat4;
      for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
        const at = primitive.getAttribute('POSITION')!;
        for (const i of primitive.getIndices()!.getArray()!)
          points.push(
            transformPoint(world, at.getElement(i, [0, 0, 0]) as unknown as Vec3)
              .map((v) => Math.round(v * 1e5) / 1e5 + 0)
              .join(),
          );
      }
    }
    const report = (await validator.validateBytes(files[0]!.bytes)) as {
      issues: { messages: { code: string; severity: number }[] };
    };
    return {
      points: points.sort(),
      size: files[0]!.bytes.length,
      faults: report.issues.messages.filter((m) => m.severity < 2),
    };
  };
  it('stand in the same places quantized to half cubes, and packed again', async () => {
    const plain = await written('plain'),
      whole = await written('quantized'),
      packed = await written('meshopt');
    expect(whole.points).toEqual(plain.points);
    expect(packed.points).toEqual(plain.points);
    expect(whole.size).toBeLessThan(plain.size);
    // What the validator knows nothing of is no fault of the file.
    expect([plain.faults, whole.faults]).toEqual([[], []]);
    expect((await written('quantized', { mesh: { as: 'one' } })).points).toHaveLength(plain.points.length);
  });
  it('are the same to the byte for the same project twice', async () => {
    for (const exporter of ['glb', 'gltf', 'obj', '3mf', 'stl', 'ply'] as const) {
      const order = {
        exporter,
        subject: { of: 'rig' },
        profile: wishing({ mesh: { merge: 'all' } }),
        options: {},
      } as const;
      const [a, b] = [await runExport(post(), order, QUIET_JOB), await runExport(post(), order, QUIET_JOB)];
      expect(a.files.map((f) => [f.name, f.bytes])).toEqual(b.files.map((f) => [f.name, f.bytes]));
    }
  });
});

describe('colliders of a profile', () => {
  const p = post();
  const colliders = (wishes: Parameters<typeof wishing>[0]) =>
    gatherShipped(p, { of: 'rig' }, wishing(wishes)).colliders;
  it('are of the shape that is wished, for each part or the whole, named by its pattern', () => {
    const names = { collider: 'UCX_{name}_{n}' };
    expect(colliders({ collider: { shape: 'one box' }, names }).map((c) => [c.name, c.shape.kind])).toEqual([
      ['UCX_Body', 'box'],
      ['UCX_Peg', 'box'],
    ]);
    const exact = colliders({ collider: { shape: 'exact' } });
    expect(exact.map((c) => c.shape.kind)).toEqual(['mesh', 'mesh']);
    const convex = colliders({ collider: { shape: 'convex', tolerance: 0, moves: 'moving' } });
    expect(convex.every((c) => c.shape.kind === 'hull' && c.moves === 'moving')).toBe(true);
    const whole = colliders({ collider: { shape: 'one box', of: 'whole' } });
    expect(whole.map((c) => c.name)).toEqual(['Post collider']);
    const box = whole[0]!.shape;
    if (box.kind !== 'box') throw new Error('no box');
    expect(box.size.map((v) => Math.round(v / p.metresPerUnit))).toEqual([8, 12, 4]);
    expect(() => colliders({ collider: { shape: 'exact', moves: 'moving' } })).toThrow(FileError);
  });
  it('are nodes that no reader shows, and a file beside an OBJ', async () => {
    const profile = wishing({ collider: { shape: 'convex', tolerance: 0 } });
    const order = { exporter: 'glb', subject: { of: 'rig' }, profile, options: {} } as const;
    const root = (
      await new NodeIO()
        .registerExtensions([KHRMaterialsEmissiveStrength])
        .readBinary((await runExport(p, order, QUIET_JOB)).files[0]!.bytes)
    ).getRoot();
    const nodes = root.listNodes().filter((o) => 'collider' in o.getExtras());
    expect(nodes.map((o) => o.getExtras()['collider'])).toEqual(nodes.map(() => 'hull'));
    for (const o of nodes) {
      const material = o.getMesh()!.listPrimitives()[0]!.getMaterial()!;
      expect([material.getAlphaMode(), material.getBaseColorFactor()[3]]).toEqual(['MASK', 0]);
    }
    const obj = await runExport(p, { ...order, exporter: 'obj' }, QUIET_JOB);
    const text = new TextDecoder().decode(obj.files.find((f) => f.name === 'post-colliders.obj')!.bytes);
    expect(text.match(/^o /gm)).toHaveLength(nodes.length);
    expect(obj.notes.map(noteText)).toEqual([]);
  });
});

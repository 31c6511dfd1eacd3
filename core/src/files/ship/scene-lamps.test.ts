import { NodeIO, type Node } from '@gltf-transform/core';
import {
  EXTMeshGPUInstancing,
  type InstancedMesh,
  KHRLightsPunctual,
  KHRMeshQuantization,
  type Light,
} from '@gltf-transform/extensions';
import validator from 'gltf-validator';
import { describe, expect, it } from 'vitest';
import { type Quat, type Vec3, quatFromAxisAngle, transformDirection, transformPoint } from '../../math';
import { NO_VARIATION, type Project, checkSound, idsFrom, makeProject, placementsOf } from '../../model';
import * as edits from '../../project';
import { type Edit, apply, editContext } from '../../project';
import { lampsOf } from '../../scene';
import { boxStroke } from '../../sculpt';
import { QUIET_JOB, countsOf, gatherShipped, runExport } from '..';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`lamps ${n++}`));
const round = (v: readonly number[]): number[] => v.map((x) => Math.round(x * 1e5) / 1e5 + 0);

/** A quay with a post of 2 × 8 × 2, three times in a row with a lamp that hangs on it; and one that stands by itself. */
function quay(): Project {
  n = 0;
  let p = makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [2, 8, 2]);
  const part = p.parts[0]!;
  p = run(p, edits.strokeEdit, {
    part: part.id,
    layer: part.layers[0]!.id,
    stroke: boxStroke('add', 3, [part.bounds]),
  });
  p = run(p, edits.addSceneEdit, { name: 'Night' });
  const scene = p.scenes[0]!.id;
  const q = quatFromAxisAngle([0, 1, 0], Math.PI / 2);
  p = run(p, edits.placeEdit, { scene, placements: [{ shows: { kind: 'part', part: part.id }, t: [4, 0, 2], q }] });
  const post = placementsOf(p.scenes[0]!)[0]!.id;
  p = run(p, edits.repeatEdit, {
    ...{ scene, placement: post },
    wishes: { kind: 'line', counts: [3, 1, 1], step: [10, 0, 0], second: null, vary: NO_VARIATION },
  });
  p = run(p, edits.addLampEdit, {
    scene,
    lamp: { parent: post, t: [0, 9, 3], kind: 'spot', angle: 60, colour: '#ff0000' },
  });
  return run(p, edits.addLampEdit, { scene, lamp: { t: [0, 30, 0], strength: 7, name: 'Moon' } });
}
const scene = (p: Project) => p.scenes[0]!;
const places = (p: Project): number[][] =>
  lampsOf(p, scene(p).id).map((l) => round(transformPoint(l.matrix, [0, 0, 0])));

describe('lamps', () => {
  it('shine from what they hang on and from each of its copies, broken up and duplicated too', () => {
    const p = quay();
    // The post is turned by a quarter: its front, three ahead, is three along X.
    expect(places(p)).toEqual([
      [7, 9, 2],
      [17, 9, 2],
      [27, 9, 2],
      [0, 30, 0],
    ]);
    expect(round(transformDirection(lampsOf(p, scene(p).id)[0]!.matrix, [0, 0, -1]))).toEqual([-1, 0, 0]);
    const post = placementsOf(scene(p))[0]!.id;
    const broken = run(p, edits.breakRepeatEdit, { scene: scene(p).id, placement: post });
    expect(places(broken).map(String).sort()).toEqual(places(p).map(String).sort());
    const twice = run(p, edits.duplicatePlacementsEdit, {
      scene: scene(p).id,
      placements: [post],
      shift: [0, 0, 50],
      linked: true,
    });
    expect(places(twice)).toHaveLength(7);
    const image = run(p, edits.repeatEdit, {
      scene: scene(p).id,
      placement: post,
      wishes: { kind: 'mirror', axis: 0, at: 0, vary: NO_VARIATION },
    });
    expect(places(image)).toContainEqual([-7, 9, 2]);
    expect(round(transformDirection(lampsOf(image, scene(p).id)[1]!.matrix, [0, 0, -1]))).toEqual([1, 0, 0]);
    const split = run(image, edits.breakRepeatEdit, { scene: scene(p).id, placement: post });
    expect(places(split).map(String).sort()).toEqual(places(image).map(String).sort());
    for (const q of [broken, twice, split]) checkSound(q);
  });
  it('do not shine where they, their layer or what they hang on is hidden, and go with it', () => {
    const p = quay();
    const [spot, moon] = scene(p).lamps.map((l) => l.id) as [string, string];
    const hidden = run(p, edits.changeLampsEdit, {
      scene: scene(p).id,
      changes: [{ id: moon, change: { hidden: true } }],
    });
    expect(places(hidden)).toHaveLength(3);
    const post = placementsOf(scene(p))[0]!.id;
    const dark = run(p, edits.changePlacementsEdit, {
      scene: scene(p).id,
      changes: [{ id: post, change: { hidden: true } }],
    });
    expect(places(dark)).toEqual([[0, 30, 0]]);
    expect(
      scene(run(p, edits.removePlacementsEdit, { scene: scene(p).id, placements: [post] })).lamps.map((l) => l.name),
    ).toEqual(['Moon']);
    expect(scene(run(p, edits.removeLampsEdit, { scene: scene(p).id, lamps: [spot] })).lamps.map((l) => l.id)).toEqual([
      moon,
    ]);
  });
  it('ship as punctual lights, and what stands many times as instances, read back by another reader', async () => {
    const p = quay();
    const subject = { of: 'scene', scene: scene(p).id } as const;
    expect(countsOf(gatherShipped(p, subject)).lamps).toBe(4);
    for (const packing of ['plain', 'quantized'] as const)
      for (const instancing of [false, true]) {
        const order = { exporter: 'glb', subject, options: { instancing, packing }, delivery: undefined };
        const { files } = await runExport(p, order, QUIET_JOB);
        const report = (await validator.validateBytes(files[0]!.bytes)) as {
          issues: { numErrors: number; numWarnings: number };
        };
        expect([report.issues.numErrors, report.issues.numWarnings]).toEqual([0, 0]);
        const io = new NodeIO().registerExtensions([EXTMeshGPUInstancing, KHRLightsPunctual, KHRMeshQuantization]);
        const doc = await io.readBinary(files[0]!.bytes);
        const nodes = doc.getRoot().listNodes();
        const lights = nodes.flatMap((o: Node) => o.getExtension<Light>('KHR_lights_punctual') ?? []);
        expect(lights.map((l) => l.getType())).toEqual(['spot', 'spot', 'spot', 'point']);
        expect([lights[0]!.getColor(), round([lights[0]!.getOuterConeAngle()])[0], lights[3]!.getIntensity()]).toEqual([
          [1, 0, 0],
          0.5236,
          7,
        ]);
        const lit = nodes.filter((o) => o.getExtension('KHR_lights_punctual'));
        expect(lit.map((o) => round(o.getWorldTranslation()))).toEqual(
          places(p).map((c) => round(c.map((v) => v * p.metresPerUnit))),
        );
        // All corners of all posts, wherever they are written down.
        const corners = new Set<string>();
        for (const o of nodes) {
          const mesh = o.getMesh();
          if (!mesh) continue;
          const batch = o.getExtension<InstancedMesh>('EXT_mesh_gpu_instancing');
          const count = batch?.getAttribute('TRANSLATION')?.getCount() ?? 1;
          for (let i = 0; i < count; i++)
            for (const primitive of mesh.listPrimitives()) {
              const at = primitive.getAttribute('POSITION')!;
              for (let v = 0; v < at.getCount(); v++) {
                let c = at.getElement(v, []) as unknown as Vec3;
                if (batch) {
                  const [t, s] = ['TRANSLATION', 'SCALE'].map((k) => batch.getAttribute(k)!.getElement(i, []));
                  const q = batch.getAttribute('ROTATION')!.getElement(i, []) as unknown as Quat;
                  c = transformPoint(matrixFrom(t as never, q, s as never), c);
                }
                corners.add(round(transformPoint(o.getWorldMatrix() as never, c)).join());
              }
            }
        }
        const wanted = new Set<string>();
        for (const x of [4, 14, 24])
          for (const dx of [-1, 1])
            for (const y of [0, 8])
              for (const dz of [-1, 1]) wanted.add(round([x + dx, y, 2 + dz].map((v) => v * p.metresPerUnit)).join());
        expect(corners).toEqual(wanted);
        expect(nodes.filter((o) => o.getMesh()).length).toBe(instancing ? 1 : 3);
      }
  });
});

function matrixFrom(t: Vec3, q: readonly [number, number, number, number], s: Vec3): number[] {
  const [x, y, z, w] = q;
  return [
    ...[(1 - 2 * (y * y + z * z)) * s[0], 2 * (x * y + w * z) * s[0], 2 * (x * z - w * y) * s[0], 0],
    ...[2 * (x * y - w * z) * s[1], (1 - 2 * (x * x + z * z)) * s[1], 2 * (y * z + w * x) * s[1], 0],
    ...[2 * (x * z + w * y) * s[2], 2 * (y * z - w * x) * s[2], (1 - 2 * (x * x + y * y)) * s[2], 0],
    ...[...t, 1],
  ];
}

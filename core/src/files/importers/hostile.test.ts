import { describe, expect, it } from 'vitest';
import { strToU8, zipSync } from 'fflate';
import { type ImportJob, importerOf } from '..';
import { QUIET_JOB } from '../job';
import { Refusal } from '../../words';

/*
 * Files that are made to harm: absurd sizes, numbers that are none, nodes in circles, paths out of the folder. Each gets a sentence, or a
 * right result, before anything large is allocated.
 */

const JOB: ImportJob = { ...QUIET_JOB, pictureSize: () => Promise.reject(new Error('There is no page here.')) };
const bytes = (of: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(of);

/** What is said to files, or what comes of them. */
async function answer(importer: string, files: Readonly<Record<string, Uint8Array<ArrayBuffer>>>): Promise<string> {
  const i = importerOf(importer)!;
  try {
    const [find] = i.inspect(Object.entries(files).map(([name, b]) => ({ name, bytes: b })));
    const { brought, notes } = await i.run(find!, i.options.parse({}), JOB, null);
    return brought.kind === 'parts'
      ? `${brought.project.parts.map((p) => p.name).join()} ${notes.map((n) => `${n.code} ${n.about}`).join()}`
      : brought.kind;
  } catch (e) {
    if (e instanceof Refusal) return e.message;
    throw e;
  }
}

/** A glTF in one file with nothing but its JSON, and as many bytes behind it. */
function glb(json: unknown, behind = 0): Uint8Array<ArrayBuffer> {
  const text = bytes(JSON.stringify(json).padEnd(Math.ceil(JSON.stringify(json).length / 4) * 4));
  const out = new Uint8Array(12 + 8 + text.length + (behind > 0 ? 8 + behind : 0)),
    view = new DataView(out.buffer);
  view.setUint32(0, 0x46546c67, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, out.length, true);
  view.setUint32(12, text.length, true);
  view.setUint32(16, 0x4e4f534a, true);
  out.set(text, 20);
  if (behind > 0) {
    view.setUint32(20 + text.length, behind, true);
    view.setUint32(24 + text.length, 0x004e4942, true);
  }
  return out;
}
const TRIANGLE = 'v 0 0 0\nv 1 0 0\nv 0 1 0\n';

describe('files that are made to harm', () => {
  it('a mesh that says it has ten million triangles and more', async () => {
    const count = 36_000_000;
    const gltf = {
      asset: { version: '2.0' },
      scene: 0,
      scenes: [{ nodes: [0] }],
      nodes: [{ mesh: 0 }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      accessors: [{ bufferView: 0, componentType: 5126, count, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 1] }],
      bufferViews: [{ buffer: 0, byteLength: count * 12 }],
      buffers: [{ byteLength: count * 12 }],
    };
    expect(await answer('mesh', { 'quay.glb': glb(gltf, 64) })).toMatch(/damaged/);
    const stl = new Uint8Array(84 + 50);
    new DataView(stl.buffer).setUint32(80, 12_000_000, true);
    expect(await answer('mesh', { 'quay.stl': stl })).toMatch(/damaged|triangles/);
    const head = `ply\nformat binary_little_endian 1.0\nelement vertex 4000000000\nproperty float x\nproperty float y\nproperty float z\nelement face 12000000\nproperty list uchar int vertex_indices\nend_header\n`;
    expect(await answer('mesh', { 'quay.ply': bytes(head + '\0'.repeat(64)) })).toMatch(/damaged|triangles/);
    expect(await answer('mesh', { 'quay.obj': bytes(TRIANGLE + 'f 1 2 3\n'.repeat(5_000_001)) })).toMatch(
      /more than [\d,]+ triangles/,
    );
  });
  it('corners that are no numbers, or lie beyond all measure', async () => {
    for (const v of ['nan 0 0', '1e400 0 0', '-inf 1 2', '1e300 1e300 1e300'])
      expect(await answer('mesh', { 'quay.obj': bytes(`v ${v}\n${TRIANGLE}f 1 2 3\nf 2 3 4\n`) }), v).toContain(
        'quay trianglesLost',
      );
  });
  it('nodes that hang on themselves', async () => {
    const gltf = {
      asset: { version: '2.0' },
      scene: 0,
      scenes: [{ nodes: [0] }],
      nodes: [{ children: [1] }, { children: [0] }],
    };
    expect(await answer('mesh', { 'ring.gltf': bytes(JSON.stringify(gltf)) })).toMatch(/in a circle/);
  });
  it('pictures and materials out of the folder: the name alone is looked for among what was given', async () => {
    const obj = bytes(`mtllib ../../../etc/paint.mtl\nusemtl tar\n${TRIANGLE}v 1 1 0\nf 1 2 3\nf 2 4 3\n`);
    const mtl = bytes('newmtl tar\nKd 0.2 0.2 0.2\nmap_Kd /etc/passwd\n');
    expect(await answer('mesh', { 'quay.obj': obj })).toContain('paint.mtl');
    const both = await answer('mesh', { 'quay.obj': obj, 'paint.mtl': mtl });
    expect(both).toContain('passwd');
    expect(both).not.toContain('paint.mtl');
  });
  it('a picture of 60,000 by 60,000 pixels, in every importer of pictures', async () => {
    const png = new Uint8Array(64);
    png.set([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
    new DataView(png.buffer).setUint32(16, 60_000);
    new DataView(png.buffer).setUint32(20, 60_000);
    png.set([8, 2, 0, 0, 0], 24);
    for (const way of ['picture', 'height', 'slices'])
      expect(await answer(way, { 'sign_1.png': png }), way).toMatch(/60,?000/);
  });
  it('a project whose pictures would unpack to gigabytes', async () => {
    const zip = zipSync({ 'project.json': strToU8('{}'), 'cells/a.png': new Uint8Array(64) }, { level: 9 });
    // The size that an entry says it will have stands in both of its headers.
    const view = new DataView(zip.buffer);
    for (let at = 0; at + 46 < zip.length; at++) {
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 0xfffffff0, true);
      if (view.getUint32(at, true) === 0x04034b50) view.setUint32(at + 22, 0xfffffff0, true);
    }
    for (const way of ['project', 'pieces'])
      expect(await answer(way, { 'quay.sphal': zip as Uint8Array<ArrayBuffer> }), way).toMatch(/unpack|large|MB/i);
  });
});

import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { type BufferAttribute, type BufferGeometry, type Mesh } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { readWithBabylon } from './babylon-reader';
import { Bench } from './bench';
import { glbJson, readWithThree, validate } from './glb-readers';
import { expect, test } from './test';

const buffer = (bytes: Uint8Array): ArrayBuffer => new Uint8Array(bytes).buffer;
/** Edges that are not gone along once in each way, corners of one place taken for one. */
function openEdges(g: BufferGeometry): number {
  const at = g.getAttribute('position') as BufferAttribute;
  const known = new Map<string, number>();
  const corner = (i: number): number => {
    const key = [at.getX(i), at.getY(i), at.getZ(i)].map((v) => Math.round(v * 1e3)).join();
    return known.get(key) ?? known.set(key, known.size).get(key)!;
  };
  const edges = new Map<string, number>();
  for (let t = 0; t < at.count; t += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b] = [corner(t + k), corner(t + ((k + 1) % 3))];
      edges.set(`${a} ${b}`, (edges.get(`${a} ${b}`) ?? 0) + 1);
    }
  return [...edges].filter(([key, n]) => edges.get(key.split(' ').reverse().join(' ')) !== n).length;
}

for (const name of ['Tamsin', 'Oswin', 'Lamp post', 'Row boat'])
  test(`${name} shipped as for desktops, and as prints: readers that are not ours agree on names, counts and size`, async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    if (name !== 'Tamsin') {
      await page.keyboard.press('Alt+0');
      await page.locator(`[data-project^="${name}"]`).first().click();
      await page.waitForURL(/\/build$/);
      await b.idle();
    }
    await b.step('Ship');
    const tray = page.getByRole('complementary', { name: 'Tray' });
    await tray.getByRole('treeitem', { name: /^Desktop/ }).click();
    for (const f of [/^Coloured surface/, /^Print, one colour/, /^Print, in colour/])
      await tray.getByRole('checkbox', { name: f }).check();
    await b.idle();
    const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('e')]);
    const files = unzipSync(readFileSync(await download.path()));
    const folder = mkdtempSync(join(tmpdir(), 'readers-'));
    for (const [entry, bytes] of Object.entries(files)) writeFileSync(join(folder, entry), bytes);
    const file = (ending: string): string =>
      Object.keys(files).find((f) => f.endsWith(ending) && !f.includes('colliders'))!;
    const assimp = (ending: string) => {
      const info = execFileSync('assimp', ['info', join(folder, file(ending))], { encoding: 'utf8' });
      const point = (which: string): number[] =>
        new RegExp(`${which} point\\s+\\(([^)]*)\\)`).exec(info)![1]!.trim().split(/\s+/).map(Number);
      const parts: Record<string, number> = {};
      for (const [, mesh, faces] of info.matchAll(/\d+ \((.*)\): \[\d+ \/ \d+ \/ (\d+) \|/g))
        if (!/collider/.test(mesh!))
          parts[mesh!.replace(/-\d+$/, '')] = (parts[mesh!.replace(/-\d+$/, '')] ?? 0) + Number(faces);
      const [lo, hi] = [point('Minimum'), point('Maximum')];
      return { faces: Number(/Faces:\s+(\d+)/.exec(info)![1]), size: hi.map((v, i) => v - lo[i]!), parts };
    };

    // The game file: the validator, and three engines.
    const glb = files[file('.glb')]!;
    const faults = (await validate(glb)).issues.messages.map((m) => m.code);
    expect(faults.filter((c) => c !== 'UNSUPPORTED_EXTENSION' && c !== 'NODE_EMPTY')).toEqual([]);
    const three = await readWithThree(glb),
      other = await readWithBabylon(glb);
    const json = glbJson(glb);
    const unseen = json.nodes.filter((o) => o.extras?.collider === 'hull').map((o) => o.name);
    expect(unseen.length).toBeGreaterThan(0);
    for (const o of json.nodes) expect(other.names).toContain(o.name);
    expect(other.materials).toEqual(
      expect.arrayContaining(
        [...new Set(json.materials.map((m) => m.name))].filter((m) =>
          json.meshes.some((x) => x.primitives.some((q) => json.materials[q.material]!.name === m)),
        ),
      ),
    );
    expect(other.clips).toEqual(three.clips.map((c) => c.name));
    expect(other.high - other.low).toBeCloseTo(three.high - three.low, 3);
    // Equal colliders are one to assimp: parts alone are compared.
    expect(assimp('.glb').parts).toEqual(
      Object.fromEntries(
        json.meshes
          .filter((m) => !unseen.includes(m.name))
          .map((m) => [m.name, m.primitives.reduce((n, q) => n + json.accessors[q.indices]!.count / 3, 0)]),
      ),
    );
    expect(three.triangles).toBe(other.triangles);

    // The plain mesh has the same triangles without the colliders, which are in a file of their own.
    const obj = new OBJLoader().parse(readFileSync(join(folder, file('.obj')), 'utf8'));
    let triangles = 0;
    obj.traverse((o) => {
      if ('isMesh' in o) triangles += (o as Mesh).geometry.getAttribute('position').count / 3;
    });
    expect(triangles).toBe(assimp('.obj').faces);
    expect(assimp('.obj').size[1]).toBeCloseTo(three.high - three.low, 3);

    const ply = new PLYLoader().parse(buffer(files[file('.ply')]!));
    expect(ply.getIndex()!.count / 3).toBe(assimp('.ply').faces);
    expect(ply.hasAttribute('color')).toBe(true);

    // Prints: closed, at their height, in both.
    const stl = new STLLoader().parse(buffer(files[file('.stl')]!));
    expect(stl.getAttribute('position').count / 3).toBe(assimp('.stl').faces);
    expect(openEdges(stl)).toBe(0);
    expect(assimp('.stl').size[2]).toBeCloseTo(100, 1);
    expect(assimp('.3mf').size[2]).toBeCloseTo(100, 1);
  });

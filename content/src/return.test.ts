import { type GivenFile, type ImportJob, QUIET_JOB, importerOf, runExport, solidSteps } from '@sphalerite/core/files';
import { type Vec3, finish, length, mulMat, sub, transformPoint } from '@sphalerite/core/math';
import {
  type Clip,
  PLAIN_DELIVERY,
  type Part,
  type Project,
  checkSound,
  composite,
  helperBytes,
  must,
} from '@sphalerite/core/model';
import { sampleClip } from '@sphalerite/core/motion';
import { bytesHex } from '@sphalerite/core/palette';
import {
  type Edit,
  addPartEdit,
  apply,
  duplicateAsAlternateEdit,
  editContext,
  renamePartEdit,
  swapKeyEdit,
  strokeEdit,
} from '@sphalerite/core/project';
import { mountMatrix, restWorld, solvePose, worldMatrices } from '@sphalerite/core/rig';
import { boxStroke } from '@sphalerite/core/sculpt';
import { WebIO } from '@gltf-transform/core';
import { ALL_EXTENSIONS } from '@gltf-transform/extensions';
import { describe, expect, it } from 'vitest';
import { DEMOS } from '.';

const JOB: ImportJob = { ...QUIET_JOB, pictureSize: () => Promise.reject(new Error('There is no page here.')) };

async function exported(project: Project, exporter: string, options: object = {}): Promise<GivenFile[]> {
  const { files } = await runExport(project, { exporter, subject: { of: 'rig' }, options }, QUIET_JOB);
  return files.filter((f) => !f.name.includes('collider')).map((f) => ({ name: f.name, bytes: f.bytes }));
}

/** What comes back of files. */
async function back(files: readonly GivenFile[], options: object = {}) {
  const importer = importerOf('mesh')!,
    finds = importer.inspect(files);
  expect(finds).toHaveLength(1);
  expect(finds[0]!.files).toHaveLength(files.length);
  const { brought } = await importer.run(finds[0]!, importer.options.parse(options), JOB, null);
  if (brought.kind !== 'parts') throw new Error('No parts came of it.');
  return brought;
}

const STEPS = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
] as const;
/** Colours of cubes with a face in the open, by where they are from the pivot, in half cubes. */
function visible(project: Project, part: Part): Map<string, string> {
  const grid = composite(part),
    palette = must(project.palettes, part.palette, 'palette');
  const hidden = helperBytes(palette),
    colour = new Map(palette.swatches.map((s) => [s.byte, s.colour])),
    clear = new Set(palette.swatches.filter((s) => s.opacity < 1).map((s) => s.byte));
  const at = (x: number, y: number, z: number): number => {
    const v = grid.get(x, y, z);
    return hidden?.[v] === 1 ? 0 : v;
  };
  const out = new Map<string, string>();
  grid.forEach((x, y, z) => {
    const v = at(x, y, z);
    if (v === 0) return;
    const open = STEPS.some(([i, j, k]) => {
      const next = at(x + i, y + j, z + k);
      return next === 0 || (clear.has(next) && !clear.has(v));
    });
    if (open) out.set([x, y, z].map((c, a) => 2 * c + 1 - part.pivot[a]!).join(), colour.get(v)!);
  });
  return out;
}

const key = (o: { name: string; side: string }): string => `${o.name} ${o.side}`;
const shipped = (p: Project): Part[] =>
  p.parts.filter((o) => !o.hidden && composite(o).count > 0 && visible(p, o).size > 0);

/** Where joints are at a moment of a clip. */
function joints(project: Project, clip: Clip, time: number): Map<string, Vec3> {
  const pose = solvePose(project.rig, sampleClip(clip, project.rig, time)),
    worlds = worldMatrices(project.rig, pose);
  return new Map(
    project.rig.bones.map((b) => [key(b), [12, 13, 14].map((i) => worlds.get(b.id)![i]!) as unknown as Vec3]),
  );
}
const isWorn = (p: Project, part: Part): boolean =>
  p.rig.mounts.some(
    (m) => m.part === part.id && (m.alternateSet === null || p.rig.alternateSets.some((s) => s.worn === m.id)),
  );

/** Colours of cubes with a face in the open by where they stand at rest, in thousandths of a cube. */
function standing(project: Project, parts: readonly Part[]): Map<string, string> {
  const out = new Map<string, string>();
  const worlds = worldMatrices(project.rig);
  for (const part of parts)
    for (const mount of project.rig.mounts.filter((m) => m.part === part.id)) {
      const matrix = mountMatrix(mount, part),
        world = mount.bone === null ? matrix : mulMat(worlds.get(mount.bone)!, matrix);
      for (const [at, colour] of visible(project, part)) {
        const p = at.split(',').map((v, a) => (Number(v) + part.pivot[a]!) / 2) as unknown as Vec3;
        out.set(
          transformPoint(world, p)
            .map((v) => Math.round(v * 1000) + 0)
            .join(),
          colour,
        );
      }
    }
  return new Map([...out].sort());
}

/** Colours of cubes with a face in the open of all parts as one body, by where they stand at rest. */
function united(project: Project): Map<string, string> {
  const out = new Map<string, string>();
  for (const { grid, colours, matrix } of finish(solidSteps(project, { of: 'rig' })).bodies)
    grid.forEach((x, y, z, v) => {
      if (STEPS.every(([i, j, k]) => grid.get(x + i, y + j, z + k) !== 0)) return;
      const at = transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5]).map((c) => Math.round(c * 1000) + 0);
      out.set(at.join(), bytesHex(colours[v * 3]!, colours[v * 3 + 1]!, colours[v * 3 + 2]!));
    });
  return new Map([...out].sort());
}

describe.each(['tamsin', 'oswin-rigged', 'oswin', 'lamp-post', 'row-boat', 'sedge-bank'])('%s comes home', (name) => {
  const project = DEMOS[name]!();

  it.each([{}, { packing: 'quantized' }, { packing: 'meshopt' }])(
    'from GLB cube for cube, with names, sides, pivots, bones, points and clips %o',
    async (options) => {
      const { project: home, facts } = await back(await exported(project, 'glb', options));
      expect(facts['exact']![0]).toBeCloseTo(
        project.metresPerUnit * Math.min(...shipped(project).map((p) => p.cell)),
        6,
      );
      expect(home.parts.map(key).sort()).toEqual(shipped(project).map(key).sort());
      for (const part of shipped(project))
        expect(
          visible(
            home,
            home.parts.find((p) => key(p) === key(part))!,
          ),
          key(part),
        ).toEqual(visible(project, part));
      const ships = project.rig.bones.filter((b) => b.ships);
      expect(home.rig.bones.map(key).sort()).toEqual(ships.map(key).sort());
      const [was, is] = [restWorld(project.rig), restWorld(home.rig)];
      for (const b of ships) {
        const own = home.rig.bones.find((o) => key(o) === key(b))!;
        expect(length(sub(is.get(own.id)!.t, was.get(b.id)!.t)), b.name).toBeLessThan(1e-3);
        expect(Math.abs(is.get(own.id)!.q.reduce((n, v, i) => n + v * was.get(b.id)!.q[i]!, 0)), b.name).toBeCloseTo(
          1,
          5,
        );
      }
      expect(home.rig.attachments.map(key).sort()).toEqual(project.rig.attachments.map(key).sort());
      const clips = project.clips.filter((c) => c.ships);
      expect(home.clips.map((c) => c.name)).toEqual(clips.map((c) => c.name));
      for (const clip of clips) {
        const own = home.clips.find((c) => c.name === clip.name)!;
        expect(own.length, clip.name).toBe(clip.length);
        for (let k = 0; k <= 6; k++) {
          const time = Math.round((clip.length * k) / 6);
          const [a, b] = [joints(project, clip, time), joints(home, own, time)];
          for (const bone of ships)
            expect(length(sub(a.get(key(bone))!, b.get(key(bone))!)), `${clip.name} ${bone.name} ${k}`).toBeLessThan(
              0.05,
            );
        }
      }
    },
  );

  it('from OBJ and PLY with the cubes and colours that can be seen, where they stood', async () => {
    const { project: home } = await back(await exported(project, 'obj'));
    const worn = shipped(project).filter((p) => isWorn(project, p));
    expect(home.parts.map(key).sort()).toEqual(worn.map(key).sort());
    const there = standing(project, worn);
    expect(standing(home, home.parts)).toEqual(there);
    const points = await back(await exported(project, 'ply'));
    expect(united(points.project)).toEqual(united(project));
  });
});

describe.each(['bones', 'skin'] as const)('shipped with its meshes joined (%s)', (as) => {
  it.each(['tamsin', 'oswin-rigged', 'row-boat'])('%s comes home with its own bones and no others', async (name) => {
    const project = DEMOS[name]!();
    const profile = { ...PLAIN_DELIVERY, tiles: [], mesh: { ...PLAIN_DELIVERY.mesh, as } };
    const { files } = await runExport(
      project,
      { exporter: 'glb', subject: { of: 'rig' }, profile, options: {} },
      QUIET_JOB,
    );
    const { project: home } = await back(files.map((f) => ({ name: f.name, bytes: f.bytes })));
    const hung = new Set(project.rig.mounts.map((m) => m.bone)),
      moved = new Set(project.clips.flatMap((c) => c.lanes.map((l) => l.bone))),
      above = new Set(project.rig.bones.map((b) => b.parent));
    // A bone that only its part hangs on, and that nothing moves, is that part.
    const bones = project.rig.bones.filter((b) => b.ships && (!hung.has(b.id) || moved.has(b.id) || above.has(b.id)));
    const names = home.rig.bones.map(key);
    for (const b of bones) expect(names, b.name).toContain(key(b));
    expect(names.length).toBeLessThanOrEqual(project.rig.bones.filter((b) => b.ships).length);
    // Where parts stand in one another, either may be what is seen.
    const each = shipped(project)
        .filter((p) => isWorn(project, p))
        .map((p) => standing(project, [p])),
      came = standing(home, home.parts);
    expect([...came.keys()]).toEqual([...new Set(each.flatMap((e) => [...e.keys()]))].sort());
    expect([...came].filter(([at, colour]) => !each.some((e) => e.get(at) === colour))).toEqual([]);
  });
});

it('alternates come home as sets, worn as they were, with the clips that exchange them', async () => {
  const cube = { min: [0, 0, 0], size: [4, 4, 4] } as const;
  const ctx = editContext('faces');
  const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, ctx);
  let p = DEMOS['lamp-post']!();
  const bone = p.rig.bones.at(-1)!.id,
    names = ['Calm', 'Lit', 'Out'];
  p = run(p, addPartEdit, { name: names[0]!, bounds: cube, bone, at: [0, 40, 0] });
  const first = p.parts.at(-1)!;
  p = run(p, strokeEdit, {
    part: first.id,
    layer: first.layers[0]!.id,
    stroke: boxStroke('add', p.palettes[0]!.swatches[0]!.byte, [cube]),
  });
  for (const name of names.slice(1)) {
    p = run(p, duplicateAsAlternateEdit, { part: first.id });
    const copy = p.parts.find((o) => o.name.startsWith('Calm '))!;
    p = run(p, renamePartEdit, { part: copy.id, name });
  }
  const mountOf = (name: string): string | null =>
    p.rig.mounts.find((m) => m.part === p.parts.find((o) => o.name === name)?.id)?.id ?? null;
  const [set] = p.rig.alternateSets,
    clip = p.clips[0]!;
  const keys = [
    [0, 'Lit'],
    [300, 'Out'],
    [600, ''],
  ] as const;
  for (const [time, name] of keys)
    p = run(p, swapKeyEdit, { clip: clip.id, alternateSet: set!.id, time, mount: mountOf(name) });
  for (const packing of ['plain', 'quantized']) {
    const { project: home } = await back(await exported(p, 'glb', { packing }));
    const name = (o: Project, mount: string | null): string | null =>
      mount && o.parts.find((q) => q.id === o.rig.mounts.find((m) => m.id === mount)!.part)!.name;
    expect(home.rig.alternateSets.map((s) => [s.name, name(home, s.worn)])).toEqual([
      [set!.name, name(p, p.rig.alternateSets[0]!.worn)],
    ]);
    const lane = home.clips[0]!.swaps[0]!;
    expect(lane.keys.map((k) => [k.time, name(home, k.mount) ?? ''])).toEqual(keys);
    expect(home.rig.bones.length).toBe(p.rig.bones.length);
    checkSound(home);
  }
});

describe('after a turn by hand in another program', () => {
  const project = DEMOS['oswin-rigged']!();

  it.each([
    [
      'a quarter turn, a shift and a hundred times as large',
      [0, 0, 100, 0, 100, 0, -100, 0, 0],
      [3.71, -12.9, 40.003],
      {},
    ],
    ['another way up', [1, 0, 0, 0, 0, -1, 0, 1, 0], [0, 0, 0], { up: 'z' }],
  ] as const)('OBJ is exact: %s', async (_, m, shift, options) => {
    const files = await exported(project, 'obj');
    const text = Buffer.from(files[0]!.bytes).toString();
    const moved = text.replaceAll(/^v (\S+) (\S+) (\S+)/gm, (_line, ...xyz) => {
      const p = [0, 1, 2].map((a) => Number(xyz[a]));
      const out = [0, 1, 2].map((r) => shift[r]! + [0, 1, 2].reduce((n, c) => n + m[r * 3 + c]! * p[c]!, 0));
      return `v ${out.map((v) => v.toFixed(5)).join(' ')}`;
    });
    const changed = { name: files[0]!.name, bytes: new TextEncoder().encode(moved) as Uint8Array<ArrayBuffer> };
    const { project: home } = await back([changed, ...files.slice(1)], options);
    const there = await back(files);
    expect(home.parts.map(key)).toEqual(there.project.parts.map(key));
    const turned = m[2] === 100;
    for (const [i, part] of there.project.parts.entries()) {
      const own = home.parts[i]!;
      const [is, was] = [visible(home, own), visible(there.project, part)];
      expect(is.size, part.name).toBe(was.size);
      // A quarter turn takes x to −z and z to x; what was laid down comes up again.
      const seen = new Map([...is].map(([at, c]) => [at.split(',').map((v, a) => Number(v) + own.pivot[a]!), c]));
      const least = (list: Iterable<readonly number[]>, a: number): number => Math.min(...[...list].map((p) => p[a]!));
      const want = new Map(
        [...was].map(([at, c]) => {
          const [x, y, z] = at.split(',').map(Number) as [number, number, number];
          return [turned ? [z, y, -x] : [x, y, z], c] as const;
        }),
      );
      const text = (of: ReadonlyMap<readonly number[], string>): string[] => {
        const from = [0, 1, 2].map((a) => least(of.keys(), a));
        return [...of].map(([p, c]) => `${p.map((v, a) => Math.round(v - from[a]!)).join()} ${c}`).sort();
      };
      expect(text(seen), part.name).toEqual(text(want));
    }
  });

  it('GLB is exact in a node that tells another unit and another way up', async () => {
    const [file] = await exported(project, 'glb');
    const io = new WebIO().registerExtensions(ALL_EXTENSIONS),
      doc = await io.readBinary(file!.bytes);
    const scene = doc.getRoot().getDefaultScene()!,
      old = scene.listChildren()[0]!;
    const top = doc
      .createNode('another program')
      .setRotation([Math.SQRT1_2, 0, 0, Math.SQRT1_2])
      .setScale([100, 100, 100]);
    scene.removeChild(old).addChild(top);
    top.addChild(old);
    const wrapped = { name: file!.name, bytes: (await io.writeBinary(doc)) as Uint8Array<ArrayBuffer> };
    const { project: home, facts } = await back([wrapped], { up: 'z' });
    expect(facts['exact']![0]).toBeCloseTo(3, 5);
    for (const part of shipped(project))
      expect(
        visible(
          home,
          home.parts.find((p) => key(p) === key(part))!,
        ),
        key(part),
      ).toEqual(visible(project, part));
    const [was, is] = [restWorld(project.rig), restWorld(home.rig)];
    for (const b of project.rig.bones.filter((o) => o.ships))
      expect(length(sub(is.get(home.rig.bones.find((o) => key(o) === key(b))!.id)!.t, was.get(b.id)!.t))).toBeLessThan(
        1e-3,
      );
  });
});

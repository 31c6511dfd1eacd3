import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  LISTED_KINDS,
  NO_GRADE,
  deliveryOf,
  idsFrom,
  makeOutput,
  makeProject,
  type Project,
  projectToJson,
} from '@sphalerite/core/model';
import type { DeliveryOrder } from '@sphalerite/core/files';
import { chunksOf, forQuads } from '@sphalerite/core/mesh';
import {
  type Edit,
  addClipEdit,
  addReferenceEdit,
  addRegionsEdit,
  addShotEdit,
  apply,
  deletePartEdit,
  editShotEdit,
  editContext,
  renameProjectEdit,
  restoreEdit,
  findTwins,
  makeTwinsEdit,
  mirrorOverEdit,
  duplicatePartEdit,
  finishEdit,
  refinePartEdit,
  strokeEdit,
  takeApartEdit,
} from '@sphalerite/core/project';
import { addTraced, lightOf, makeFilm, makeTraced, traceArea, traceSceneOf } from '@sphalerite/core/render';
import { boxStroke, regionCells, untidy } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { editInBackground } from './background-edit';
import { NOT_HELD } from './held';
import { ThreadWorker, bundleWorker } from './node-worker';
import { BrickMirror, SentBricks } from './packed';
import type { ProjectPatch } from './patch';
import { WorkerPool } from './pool';

function lamp(): Project {
  const p = makeProject('p', 'Lamp', idsFrom('lamp'), 'prop', [40, 40, 40]);
  return apply(
    p,
    strokeEdit,
    {
      part: p.parts[0]!.id,
      layer: p.parts[0]!.layers[0]!.id,
      stroke: boxStroke('add', 4, [{ min: [-9, 3, -9], size: [17, 20, 18] }]),
    },
    editContext('lamp edit'),
  );
}
const gridOf = (p: Project) => p.parts[0]!.layers[0]!.grid;

let script = '';
const open: ThreadWorker[] = [];
beforeAll(async () => void (script = await bundleWorker()));
afterAll(() => open.forEach((w) => w.terminate()));
function poolOf(size: number, file = script): { pool: WorkerPool; workers: ThreadWorker[]; broken: string[] } {
  const workers: ThreadWorker[] = [];
  const broken: string[] = [];
  const make = (): Worker => {
    workers.push(new ThreadWorker(file));
    open.push(workers.at(-1)!);
    return workers.at(-1) as unknown as Worker;
  };
  return { pool: new WorkerPool(make, size, (e) => broken.push(e.message)), workers, broken };
}
const endless = (p: Project) => (s: SentBricks) => ({
  project: s.packProject(p),
  shot: { ...p.shots[0]!, samples: 50_000 },
  size: [64, 64] as const,
  lane: 0,
  lanes: 1,
});

const GLB_ORDER = { exporter: 'glb', subject: { of: 'rig' }, options: {} } as const;
const PROJECT_ORDER = { ...GLB_ORDER, exporter: 'project' } as const;
const deliveryIn = (p: Project): DeliveryOrder => ({
  subject: { of: 'rig' },
  profile: deliveryOf(p, 'print')!,
  colourway: null,
});
const planOf = (p: Project) => (s: SentBricks) => ({ project: s.packProject(p), order: GLB_ORDER, delivery: 'phone' });

describe('packing', () => {
  it('sends each brick once, and the mirror opens the same grid', () => {
    const p = lamp();
    const sent = new SentBricks(),
      mirror = new BrickMirror();
    const packed = sent.packProject(p);
    const parcel = sent.takeParcel();
    expect(parcel.ids.length).toBeGreaterThan(0);
    mirror.receive(parcel);
    expect(gridOf(mirror.openProject(packed)).equals(gridOf(p))).toBe(true);
    const next = gridOf(p).edit((d) => d.set(0, 30, 0, 7));
    const again = sent.packGrid(next);
    const second = sent.takeParcel();
    expect(second.ids).toHaveLength(1);
    mirror.receive(second);
    expect(mirror.openGrid(again).equals(next)).toBe(true);
  });
});

describe('project files', () => {
  it('go out of one worker and come back through another, bin and all', async () => {
    const { pool } = poolOf(2);
    const p: Project = {
      ...lamp(),
      bin: [
        {
          id: 'gone',
          kind: 'part',
          at: 1,
          record: { ...lamp().parts[0]!, id: 'old' },
          kept: { mounts: [], references: [] },
        },
      ],
    };
    const { files } = await pool.run('export', (s) => ({ project: s.packProject(p, 'all'), order: PROJECT_ORDER }));
    const { bytes } = files[0]!;
    const bringIn = (data: Uint8Array<ArrayBuffer>) => ({
      importer: 'project',
      find: { title: 'lamp', files: [{ name: 'lamp.sphal', bytes: data }] },
      options: {},
      place: null,
    });
    const { brought, notes } = await pool.run('bringIn', () => bringIn(bytes.slice()));
    if (brought.kind !== 'project') throw new Error('This is no project.');
    const { project, bricks } = brought;
    const mirror = new BrickMirror();
    mirror.receive(bricks);
    const back = mirror.openProject(project);
    expect(notes).toEqual([]);
    expect(projectToJson(back)).toEqual(projectToJson(p));
    expect(gridOf(back).equals(gridOf(p))).toBe(true);
    const binned = back.bin[0]!;
    expect(binned.kind === 'part' && binned.record.layers[0]!.grid.equals(gridOf(p))).toBe(true);
    await expect(pool.run('bringIn', () => bringIn(bytes.slice(0, 99)))).rejects.toMatchObject({
      name: 'FileError',
    });
    // What was sent to be held need not be sent again; what never was is told.
    const opened = async (input: object): Promise<unknown> => {
      const { brought: b } = await pool.run('bringIn', () => ({ ...bringIn(new Uint8Array(0)), ...input }));
      if (b.kind !== 'project') throw new Error('This is no project.');
      const own = new BrickMirror();
      own.receive(b.bricks);
      return projectToJson(own.openProject(b.project));
    };
    expect(await opened({ ...bringIn(bytes.slice()), held: 'one' })).toEqual(projectToJson(p));
    expect(await opened({ held: 'one', again: true })).toEqual(projectToJson(p));
    await expect(opened({ held: 'other', again: true })).rejects.toThrow(NOT_HELD);
  });
});

describe('WorkerPool', () => {
  it('meshes what it is sent: the faces of a solid box, to the last cube and in its colour', async () => {
    const { pool } = poolOf(2);
    const grid = gridOf(lamp());
    const chunks = chunksOf(grid);
    const meshes = await pool.run('mesh', (s) => ({ grid: s.packGrid(grid), chunks }));
    let area = 0;
    meshes.forEach((mesh) => {
      if (!mesh) return;
      forQuads(mesh, (_direction, colour, c) => {
        const edges = [0, 1, 2].map(
          (a) => Math.max(c[a]!, c[a + 3]!, c[a + 6]!, c[a + 9]!) - Math.min(c[a]!, c[a + 3]!, c[a + 6]!, c[a + 9]!),
        );
        area += edges.filter((e) => e > 0).reduce((x, y) => x * y);
        expect(colour).toBe(4);
      });
    });
    expect(area).toBe(2 * (17 * 20 + 17 * 18 + 20 * 18));
    expect(pool.busy).toBe(0);
  });

  it('traces in lanes to the very picture of one thread, with rising progress', async () => {
    const { pool } = poolOf(2);
    const p = lamp();
    const size = [80, 20] as const;
    const shot = { ...p.shots[0]!, output: makeOutput({ size, samples: 3 }) };
    const film = makeFilm(80, 20);
    const shares: number[] = [];
    await Promise.all(
      [0, 1].map((lane) =>
        pool.run('trace', (s) => ({ project: s.packProject(p), shot, size, lane, lanes: 2 }), {
          worker: lane,
          onProgress(share, traced) {
            if (lane === 0) shares.push(share);
            addTraced(film, traced!);
          },
        }),
      ),
    );
    const scene = traceSceneOf(p, shot);
    for (const tile of film.tiles) {
      const whole = traceArea(scene, tile!, 0, 3);
      expect(tile!.samples).toBe(3);
      for (const layer of ['light', 'albedo', 'normal', 'depth', 'cover'] as const)
        tile![layer].forEach((v, i) => expect(v).toBeCloseTo(whole[layer][i]!, 3));
    }
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });

  it('stops a job that is cancelled, at once for whoever asked, and refuses one that was cancelled before', async () => {
    const { pool } = poolOf(1);
    const p = lamp();
    const stop = new AbortController();
    const job = pool.run('trace', endless(p), { signal: stop.signal, onProgress: () => stop.abort() });
    await expect(job).rejects.toThrow('The work was cancelled.');
    expect(pool.busy).toBe(0);
    // The worker has let go of it too: what comes next is done.
    expect((await pool.run('plan', planOf(p))).counts['parts']).toBe(1);
    await expect(
      pool.run('thumbnail', (s) => ({ project: s.packProject(p), part: null }), { signal: stop.signal }),
    ).rejects.toThrow('cancelled');
  });

  it('a patient job rests while a hand is at work, another does not', async () => {
    const { pool } = poolOf(2);
    const p = lamp();
    const stop = new AbortController();
    const told = [0, 0];
    let begun: () => void;
    const both = new Promise<void>((r) => (begun = r));
    const jobs = told.map((_, i) =>
      // Many tiles: it looks up often.
      pool.run('trace', (s) => ({ ...endless(p)(s), size: [2048, 2048] }), {
        ...{ signal: stop.signal, worker: i, patient: i === 0 },
        onProgress() {
          told[i]!++;
          if (told.every((n) => n > 0)) begun();
        },
      }),
    );
    await both;
    const turn = () => {
      pool.giveWay();
      return new Promise((r) => setTimeout(r, 20));
    };
    // What it is at it ends first.
    for (let n = told[1]!; told[1]! < n + 20;) await turn();
    const [patient, other] = told as [number, number];
    while (told[1]! < other + 20) await turn();
    expect(told[0]! - patient).toBeLessThan(5);
    // Left alone, it goes on.
    for (const n = told[0]!; told[0] === n;) await new Promise((r) => setTimeout(r, 20));
    stop.abort();
    for (const j of jobs) await expect(j).rejects.toThrow('The work was cancelled.');
  });

  it.each(['export', 'thumbnail', 'plan', 'picture', 'untidy', 'deliver', 'deliveryChecks'] as const)(
    '%s tells how far it is and stops when asked',
    async (kind) => {
      const { pool } = poolOf(1);
      const p = lamp();
      const grown = makeFilm(8, 200);
      addTraced(grown, makeTraced({ x: 0, y: 0, width: 8, height: 64 }, 1));
      const film = lightOf(grown);
      const inputs = {
        export: (s: SentBricks) => ({ project: s.packProject(p, 'all'), order: PROJECT_ORDER }),
        thumbnail: (s: SentBricks) => ({ project: s.packProject(p), part: null }),
        plan: planOf(p),
        picture: () => ({
          exporter: 'png',
          source: { name: 'dusk', film, grade: NO_GRADE, transparent: false },
          options: {},
        }),
        untidy: (s: SentBricks) => ({ grid: s.packGrid(gridOf(p)) }),
        deliver: (s: SentBricks) => ({ project: s.packProject(p), order: deliveryIn(p) }),
        deliveryChecks: (s: SentBricks) => ({
          project: s.packProject(p),
          order: deliveryIn(p),
          figures: { triangles: 0, bones: 0, draws: 0, texture: 0, kilobytes: 0 },
          standing: null,
        }),
      };
      const pack = inputs[kind] as (s: SentBricks) => never;
      const shares: number[] = [];
      await pool.run(kind, pack, { onProgress: (share) => shares.push(share) });
      expect(shares.length).toBeGreaterThan(0);
      const stop = new AbortController();
      const job = pool.run(kind, pack, { signal: stop.signal, onProgress: () => stop.abort() });
      await expect(job).rejects.toMatchObject({ name: 'JobCancelled' });
    },
  );

  it('an edit that does not stop is ended with its worker, and the next one gets a new one', async () => {
    const { pool, workers } = poolOf(1);
    const p = lamp();
    const part = p.parts[0]!.id;
    const run = (by: number, signal?: AbortSignal) =>
      editInBackground(pool, p, refinePartEdit, { part, by }, { seed: 's', now: 0, ...(signal ? { signal } : {}) });
    const stop = new AbortController();
    const slow = run(3, stop.signal);
    const queued = new AbortController();
    const next = run(2);
    const never = run(2, queued.signal);
    queued.abort();
    stop.abort();
    await expect(slow).rejects.toMatchObject({ name: 'JobCancelled' });
    await expect(never).rejects.toMatchObject({ name: 'JobCancelled' });
    expect((await next).parts[0]!.bounds.size).toEqual([80, 80, 80]);
    expect(workers.length).toBeLessThanOrEqual(2);
  });

  it('a crash rejects every pending job, and the next one runs in a new worker with all its bricks', async () => {
    const { pool, workers } = poolOf(1);
    const p = lamp();
    const jobs = [pool.run('trace', endless(p)), pool.run('trace', endless(p))];
    workers[0]!.onerror!({ message: 'out of memory' });
    for (const j of await Promise.allSettled(jobs))
      expect(j).toMatchObject({ status: 'rejected', reason: { name: 'WorkerCrashed' } });
    const glb = await pool.run('export', (s) => ({ project: s.packProject(p), order: GLB_ORDER }));
    expect(glb.counts['parts']).toBe(1);
    expect(workers).toHaveLength(2);
    await expect(
      pool.run('export', (s) => ({
        project: s.packProject({ ...p, parts: p.parts.map((x) => ({ ...x, hidden: true })) }),
        order: GLB_ORDER,
      })),
    ).rejects.toMatchObject({ name: 'FileError' });
  });

  it('a worker that never starts is tried a few times, then told once, and nothing waits for ever', async () => {
    const { pool, workers, broken } = poolOf(1, '/nowhere/at-all.mjs');
    const p = lamp();
    for (let i = 0; i < 5; i++)
      await expect(pool.run('plan', planOf(p))).rejects.toMatchObject({
        name: 'WorkerCrashed',
      });
    for (let i = 0; i < 3; i++)
      await expect(pool.run('plan', planOf(p))).rejects.toMatchObject({
        name: 'WorkersBroken',
      });
    expect(workers).toHaveLength(5);
    expect(broken).toHaveLength(1);
    expect(broken[0]).toMatch(/cannot be started.*load the page again/);
  });

  it('what is packed is handed over, not copied', async () => {
    const { pool, workers } = poolOf(1);
    const tables: Int32Array[] = [];
    await pool.run('mesh', (s) => {
      const grid = s.packGrid(gridOf(lamp()));
      tables.push(grid.table);
      return { grid, chunks: [[0, 0, 0]] };
    });
    expect(tables[0]!.byteLength).toBe(0);
    expect(workers[0]!.handedOver[0]).toBe(3);
  });
});

describe('edits in a worker', () => {
  const how = { seed: 'seed', now: 5 };
  const here = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext('seed', 5));
  const grids = (p: Project) => p.parts.flatMap((o) => o.layers.map((l) => l.grid));
  /** Runs an edit on both sides of the boundary; the two projects are alike to the last cell. */
  async function both<A>(p: Project, edit: Edit<A>, args: A): Promise<Project> {
    const there = await editInBackground(poolOf(1).pool, p, edit, args, how);
    const onPage = here(p, edit, args);
    expect(projectToJson(there)).toEqual(projectToJson(onPage));
    expect(grids(there).map((g, i) => g.equals(grids(onPage)[i]!))).toEqual(grids(onPage).map(() => true));
    return there;
  }
  const p = lamp();
  const part = p.parts[0]!;
  const layer = part.layers[0]!.id;

  it('give the very project of the page, and what they did not touch is the same record and brick', async () => {
    const refined = await both(p, refinePartEdit, { part: part.id, by: 2 });
    expect(refined.palettes).toBe(p.palettes);
    expect(refined.rig).toBe(p.rig);
    expect(refined.shots).toBe(p.shots);
    await both(p, mirrorOverEdit, { part: part.id, layer, axis: 0, plane: 0, keep: 'low' });
    const dab = boxStroke('erase', 0, [{ min: part.bounds.min, size: [1, 1, 1] }]);
    const stroke = await both(p, strokeEdit, { part: part.id, layer, stroke: dab });
    const before = new Set([...part.layers[0]!.grid.bricks()].map((b) => b.brick));
    const bricks = [...stroke.parts[0]!.layers[0]!.grid.bricks()].map((b) => b.brick);
    expect(bricks.filter((b) => !before.has(b)).length).toBeLessThanOrEqual(1);
    expect(bricks.length).toBeGreaterThan(3);
  });

  it('lose nothing outside parts: clips, shots, palettes, poses, pictures and the bin come along', async () => {
    const bytes = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
    const shown = here(p, addReferenceEdit, {
      name: 'Sketch',
      part: part.id,
      plane: 'front',
      bytes,
      at: [0, 0],
      size: [9, 9],
    });
    const [blob] = shown.blobs;
    expect(shown.references[0]!.blob).toBe(blob!.id);
    await both(shown, addClipEdit, { name: 'Swing', frames: 12, fps: 12, loop: true });
    await both(shown, addShotEdit, { name: 'Close up' });
    await both(shown, renameProjectEdit, { name: 'Lamp post' });
    const gone = await both(shown, deletePartEdit, { part: part.id });
    const item = gone.bin[0]!;
    expect(item.kind === 'part' && item.kept.references).toEqual(shown.references);
    const back = await both(gone, restoreEdit, { item: item.id });
    expect(back.references).toEqual(shown.references);
    // The very bytes: they never left the page.
    expect(back.blobs[0]).toBe(blob);
    expect(grids(back)[0]!.equals(gridOf(p))).toBe(true);
  });

  it('reach several parts at once, and twins', async () => {
    const two = here(p, duplicatePartEdit, { part: part.id });
    const targets = two.parts.map((o) => ({ part: o.id, layer: o.layers[0]!.id }));
    const finish = { kind: 'speckle', ramp: [3, 4], seed: 9, amount: 0.4, size: 1 } as const;
    const painted = await both(two, finishEdit, { targets, finish });
    expect(painted.parts[0]!.layers[0]!.grid.equals(two.parts[0]!.layers[0]!.grid)).toBe(false);
    const pieces = [-9, 3].map((x) => ({
      name: 'Half',
      side: 'centre' as const,
      cells: CellSet.ofBox({ min: [x, 3, -9], size: [6, 20, 18] }),
    }));
    const halves = here(p, addRegionsEdit, { part: part.id, half: 0, pieces });
    const cut = { part: part.id, rest: 'Middle', plug: 1, clearance: 0, socket: true, bones: true, keepWhole: false };
    await both(halves, takeApartEdit, { ...cut, keepWhole: true });
    const apart = await both(halves, takeApartEdit, { ...cut, plug: 0, socket: false });
    const [pair] = findTwins(apart);
    const pairs = [{ part: pair!.other.id, source: pair!.source.id, ...pair!.twin }];
    const twins = here(apart, makeTwinsEdit, { pairs });
    const other = twins.parts.find((o) => o.id === pair!.other.id)!;
    const far = await both(twins, strokeEdit, {
      part: other.id,
      layer: other.layers[0]!.id,
      stroke: boxStroke('paint', 9, [{ min: [-40, 3, -40], size: [80, 2, 80] }]),
    });
    expect(far.parts.map((o) => CellSet.ofValue(o.layers[0]!.grid, 9).count).sort()).toEqual([0, 216, 216]);
  });

  it('refuse with the sentence of the edit', async () => {
    const refused = editInBackground(poolOf(1).pool, p, refinePartEdit, { part: 'nobody', by: 2 }, how);
    await expect(refused).rejects.toMatchObject({
      name: 'EditError',
      message: 'There is no part “nobody” in this project.',
      code: 'records.missing',
      params: { what: 'part', id: 'nobody' },
    });
  });
});

describe('queries in a worker', () => {
  it('regions and loose ends are found in a worker as on the page', async () => {
    const { pool } = poolOf(1);
    const grid = lamp().parts[0]!.layers[0]!.grid;
    const query = {
      kind: 'space',
      cell: [grid.bounds.min[0], grid.bounds.min[1] + grid.bounds.size[1] - 1, grid.bounds.min[2]] as const,
      normal: [0, 1, 0] as const,
      diagonals: false,
    } as const;
    const r = await pool.run('region', (s) => ({ grid: s.packGrid(grid), query }));
    expect(new CellSet(r.box, r.words).equals(regionCells(grid, query))).toBe(true);
    const u = await pool.run('untidy', (s) => ({ grid: s.packGrid(grid) }));
    expect(new CellSet(u.hidden.box, u.hidden.words).count).toBe(untidy(grid).hidden.count);
  });
});

const made = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext('made'));

describe('a project that a worker has already', () => {
  const p = lamp();
  it('goes to it as what differs: moving the sun sends no grid, no brick and one shot', async () => {
    const { pool, workers } = poolOf(1);
    const traced = async (project: Project): Promise<{ patch: ProjectPatch<unknown>; bricks: number; sum: number }> => {
      let sum = 0;
      const shot = { ...project.shots[0]!, output: makeOutput({ samples: 1 }) };
      const pack = (s: SentBricks) => ({
        project: s.packProject(project),
        shot,
        size: [16, 16] as const,
        lane: 0,
        lanes: 1,
      });
      await pool.run('trace', pack, {
        onProgress: (_share, traced) => traced && (sum += traced.light.reduce((a, b) => a + b, 0)),
      });
      const { input, bricks } = workers[0]!.posted.at(-1) as {
        input: ReturnType<typeof pack>;
        bricks: { ids: Int32Array };
      };
      return { patch: input.project.patch, bricks: bricks.ids.byteLength, sum };
    };
    const first = await traced(p);
    expect([first.patch.grids.length, Object.keys(first.patch.lists).length]).toEqual([1, LISTED_KINDS.length]);
    const light = { ...p.shots[0]!.light, sun: { ...p.shots[0]!.light.sun, azimuth: 200 } };
    const moved = made(p, editShotEdit, { shot: p.shots[0]!.id, change: { light } });
    const second = await traced(moved);
    expect(second.patch).toMatchObject({ fields: {}, rig: null, grids: [] });
    expect([Object.keys(second.patch.lists), second.bricks]).toEqual([['shots'], 0]);
    // It is the very picture that a worker which was sent everything makes.
    const shot = { ...moved.shots[0]!, samples: 1 };
    const whole = traceArea(
      traceSceneOf(moved, shot, [16, 16]),
      { x: 0, y: 0, width: 16, height: 16 },
      0,
      1,
    ).light.reduce((a, b) => a + b, 0);
    expect(second.sum).toBeCloseTo(whole, 3);
    expect(second.sum).not.toBeCloseTo(first.sum, 3);
  });

  it('comes out whole whatever went in between, another project or a part alone included', () => {
    const sent = new SentBricks(),
      mirror = new BrickMirror();
    const over = (q: Project, extent: 'shown' | 'edited' | 'all', chain?: string): Project => {
      const packed = sent.packProject(q, extent, chain);
      mirror.receive(sent.takeParcel());
      return mirror.openProject(packed);
    };
    const renamed = made(p, renameProjectEdit, { name: 'Post' });
    const other = makeProject('q', 'Other', idsFrom('other'));
    for (const q of [p, renamed, other, renamed, p]) {
      expect(projectToJson(over(q, 'edited'))).toEqual(projectToJson(q));
      expect(projectToJson(over({ ...q, parts: q.parts.slice(0, 1) }, 'shown', 'part')).parts).toHaveLength(1);
    }
    const again = over(renamed, 'edited');
    expect(over(made(renamed, renameProjectEdit, { name: 'Lamp' }), 'edited').parts).toBe(again.parts);
    const late = sent.packProject(p, 'edited');
    mirror.forget();
    expect(() => mirror.openProject(late)).toThrow(/is not here/);
  });
});

import { expect, describe, it } from 'vitest';
import { idsFrom, makeProject, type Project, projectToJson } from '@sphalerite/core/model';
import { chunksOf, meshChunk } from '@sphalerite/core/mesh';
import {
  type Edit,
  addRegionsEdit,
  apply,
  editContext,
  findTwins,
  makeTwinsEdit,
  mirrorOverEdit,
  duplicatePartEdit,
  finishEdit,
  refinePartEdit,
  strokeEdit,
  takeApartEdit,
} from '@sphalerite/core/project';
import { traceSceneOf, traceStrip } from '@sphalerite/core/render';
import { boxStroke, regionCells, untidy } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { editInBackground } from './background-edit';
import { handlers } from './jobs';
import { BrickMirror, SentBricks } from './packed';
import { WorkerPool } from './pool';
import type { FromWorker, ToWorker } from './protocol';

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

/** A worker on the page's own thread: same handlers, same messages. */
class NearWorker {
  onmessage: ((e: { data: FromWorker }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  readonly bricks = new BrickMirror();
  readonly cancelled = new Set<number>();
  dead = false;
  parcels: number[] = [];
  postMessage(m: ToWorker): void {
    if (m.type === 'cancel') this.cancelled.add(m.id);
    if (m.type !== 'run') return;
    this.parcels.push(m.bricks.ids.length);
    this.bricks.receive(m.bricks);
    const say = (data: FromWorker): void => void (this.dead || this.onmessage?.({ data }));
    const run = handlers[m.kind] as (i: unknown, c: unknown) => Promise<unknown>;
    const ctx = {
      bricks: this.bricks,
      report: (progress: number, partial?: unknown) => say({ type: 'progress', id: m.id, progress, partial }),
      breathe: async () => {
        await new Promise((r) => setTimeout(r, 0));
        if (this.cancelled.has(m.id)) throw Object.assign(new Error('cancelled'), { name: 'JobCancelled' });
      },
    };
    run(m.input, ctx).then(
      (output) => say({ type: 'done', id: m.id, output }),
      (e: Error) => say({ type: 'failed', id: m.id, name: e.name, message: e.message }),
    );
  }
  terminate(): void {
    this.dead = true;
  }
}
function poolOf(size: number): { pool: WorkerPool; workers: NearWorker[] } {
  const workers: NearWorker[] = [];
  const pool = new WorkerPool(() => {
    workers.push(new NearWorker());
    return workers.at(-1) as unknown as Worker;
  }, size);
  return { pool, workers };
}

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
      bin: [{ id: 'gone', kind: 'part', at: 1, part: { ...lamp().parts[0]!, id: 'old' }, mounts: [], references: [] }],
    };
    const bytes = await pool.run('projectFile', (s) => ({ project: s.packProject(p, true) }));
    const { project, bricks, notes } = await pool.run('readFile', () => ({ bytes }));
    const mirror = new BrickMirror();
    mirror.receive(bricks);
    const back = mirror.openProject(project);
    expect(notes).toEqual([]);
    expect(projectToJson(back)).toEqual(projectToJson(p));
    expect(gridOf(back).equals(gridOf(p))).toBe(true);
    const binned = back.bin[0]!;
    expect(binned.kind === 'part' && binned.part.layers[0]!.grid.equals(gridOf(p))).toBe(true);
    await expect(pool.run('readFile', () => ({ bytes: bytes.slice(0, 99) }))).rejects.toMatchObject({
      name: 'FileError',
    });
  });
});

describe('WorkerPool', () => {
  it('meshes as the page itself would', async () => {
    const { pool } = poolOf(2);
    const grid = gridOf(lamp());
    const chunks = chunksOf(grid);
    const out = await pool.run('mesh', (s) => ({ grid: s.packGrid(grid), chunks }));
    expect(out).toEqual(chunks.map((c) => meshChunk(grid, ...(c as [number, number, number]))));
    expect(pool.busy).toBe(0);
  });

  it('traces in lanes to the very picture of one thread, with rising progress', async () => {
    const { pool } = poolOf(2);
    const p = lamp();
    const shot = { ...p.shots[0]!, size: [24, 20] as const, samples: 3 };
    const sum = new Float32Array(24 * 20 * 4);
    const shares: number[] = [];
    await Promise.all(
      [0, 1].map((lane) =>
        pool.run('trace', (s) => ({ project: s.packProject(p), shot, size: shot.size, lane, lanes: 2 }), {
          worker: lane,
          onProgress(share, strip) {
            if (lane === 0) shares.push(share);
            strip!.sum.forEach((v, i) => (sum[strip!.y * 24 * 4 + i]! += v));
          },
        }),
      ),
    );
    const whole = traceStrip(traceSceneOf(p, shot), 0, 20, 0, 3).sum;
    sum.forEach((v, i) => expect(v).toBeCloseTo(whole[i]!, 4));
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });

  it('stops a job that is cancelled, and refuses one that was cancelled before', async () => {
    const { pool } = poolOf(1);
    const p = lamp();
    const stop = new AbortController();
    const job = pool.run(
      'trace',
      (s) => ({
        project: s.packProject(p),
        shot: { ...p.shots[0]!, samples: 5000 },
        size: [64, 64],
        lane: 0,
        lanes: 1,
      }),
      { signal: stop.signal, onProgress: () => stop.abort() },
    );
    await expect(job).rejects.toThrow('The work was cancelled.');
    await expect(
      pool.run('thumbnail', (s) => ({ project: s.packProject(p), part: null }), { signal: stop.signal }),
    ).rejects.toThrow('cancelled');
  });

  it('a crash rejects every pending job, and the next one runs in a new worker with all its bricks', async () => {
    const { pool, workers } = poolOf(1);
    const p = lamp();
    const pack = (s: SentBricks) => ({
      project: s.packProject(p),
      shot: { ...p.shots[0]!, samples: 5000 },
      size: [64, 64] as const,
      lane: 0,
      lanes: 1,
    });
    const jobs = [pool.run('trace', pack), pool.run('trace', pack)];
    workers[0]!.onerror!({ message: 'out of memory' });
    for (const j of await Promise.allSettled(jobs))
      expect(j).toMatchObject({ status: 'rejected', reason: { name: 'WorkerCrashed' } });
    const glb = await pool.run('glb', (s) => ({ project: s.packProject(p) }));
    expect(glb.counts.parts).toBe(1);
    expect(workers).toHaveLength(2);
    expect(workers[1]!.parcels[0]).toBe(workers[0]!.parcels[0]);
    await expect(
      pool.run('glb', (s) => ({
        project: s.packProject({ ...p, parts: p.parts.map((x) => ({ ...x, hidden: true })) }),
      })),
    ).rejects.toMatchObject({ name: 'FileError' });
  });

  it('an edit made in a worker gives the very project of the page, and what it did not touch is the same brick', async () => {
    const { pool } = poolOf(1);
    const p = lamp();
    const part = p.parts[0]!;
    for (const [edit, args] of [
      [refinePartEdit, { part: part.id, by: 2 }],
      [mirrorOverEdit, { part: part.id, layer: part.layers[0]!.id, axis: 0, plane: 0, keep: 'low' }],
    ] as [Edit<unknown>, unknown][]) {
      const there = await editInBackground(pool, p, [part.id], edit, args, 'seed', 5);
      const here = apply(p, edit, args, editContext('seed', 5));
      expect(there.parts[0]!.layers[0]!.grid.equals(here.parts[0]!.layers[0]!.grid)).toBe(true);
      expect(projectToJson(there)).toEqual(projectToJson(here));
      expect(there.palettes).toBe(p.palettes);
    }
    // Two parts at once: both come back, and each is the page's own.
    const two = apply(p, duplicatePartEdit, { part: part.id }, editContext('two', 1));
    const painting = {
      targets: two.parts.map((o) => ({ part: o.id, layer: o.layers[0]!.id })),
      finish: { kind: 'speckle', ramp: [3, 4], seed: 9, amount: 0.4, size: 1 } as const,
    };
    const painted = await editInBackground(
      pool,
      two,
      two.parts.map((o) => o.id),
      finishEdit,
      painting,
      'seed',
      5,
    );
    const painter = apply(two, finishEdit, painting, editContext('seed', 5));
    expect(painted.parts.map((o, i) => o.layers[0]!.grid.equals(painter.parts[i]!.layers[0]!.grid))).toEqual([
      true,
      true,
    ]);
    expect(painted.parts[0]!.layers[0]!.grid.equals(two.parts[0]!.layers[0]!.grid)).toBe(false);
    const stroke = await editInBackground(
      pool,
      p,
      [part.id],
      strokeEdit,
      {
        part: part.id,
        layer: part.layers[0]!.id,
        stroke: boxStroke('erase', 0, [{ min: part.bounds.min, size: [1, 1, 1] }]),
      },
      'seed',
      5,
    );
    const before = new Set([...part.layers[0]!.grid.bricks()].map((b) => b.brick));
    const bricks = [...stroke.parts[0]!.layers[0]!.grid.bricks()].map((b) => b.brick);
    expect(bricks.filter((b) => !before.has(b)).length).toBeLessThanOrEqual(1);
    expect(bricks.length).toBeGreaterThan(3);
    expect(stroke.rig).toBe(p.rig);
    // Taking apart makes parts and bones and fills the bin; a stroke on one of two twins is one on the other.
    const halves = apply(
      p,
      addRegionsEdit,
      {
        part: part.id,
        half: 0,
        pieces: [-9, 3].map((x) => ({
          name: 'Half',
          side: 'centre' as const,
          cells: CellSet.ofBox({ min: [x, 3, -9], size: [6, 20, 18] }),
        })),
      },
      editContext('halves'),
    );
    for (const keepWhole of [true, false]) {
      const how = { part: part.id, rest: 'Middle', plug: 1, clearance: 0, socket: true, bones: true, keepWhole };
      const here = apply(halves, takeApartEdit, how, editContext('seed', 5)),
        there = await editInBackground(pool, halves, [part.id], takeApartEdit, how, 'seed', 5);
      expect(projectToJson(there)).toEqual(projectToJson(here));
      expect([...there.parts.map((o) => o.layers[0]!.grid.count), there.bin.length]).toEqual([
        ...here.parts.map((o) => o.layers[0]!.grid.count),
        here.bin.length,
      ]);
    }
    const apart = apply(
        halves,
        takeApartEdit,
        { part: part.id, rest: 'Middle', plug: 0, clearance: 0, socket: false, bones: true, keepWhole: false },
        editContext('seed', 5),
      ),
      [pair] = findTwins(apart);
    const twins = apply(
      apart,
      makeTwinsEdit,
      { pairs: [{ part: pair!.other.id, source: pair!.source.id, ...pair!.twin }] },
      editContext('twins'),
    );
    const far = await editInBackground(
      pool,
      twins,
      [pair!.other.id],
      strokeEdit,
      {
        part: pair!.other.id,
        layer: twins.parts.find((o) => o.id === pair!.other.id)!.layers[0]!.id,
        stroke: boxStroke('paint', 9, [{ min: [-40, 3, -40], size: [80, 2, 80] }]),
      },
      'seed',
      5,
    );
    expect(far.parts.map((o) => CellSet.ofValue(o.layers[0]!.grid, 9).count).sort()).toEqual([0, 216, 216]);

    await expect(
      editInBackground(pool, p, [part.id], refinePartEdit as Edit<unknown>, { part: 'nobody', by: 2 }, 's', 0),
    ).rejects.toMatchObject({ name: 'EditError', message: 'There is no part "nobody" in this project.' });
  });

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

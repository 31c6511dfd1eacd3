import { type Vec3, withAxis } from '@sphalerite/core/math';
import { type ChunkMesh, chunksOf, coarserForms, meshChunk } from '@sphalerite/core/mesh';
import { innerCells, regionSteps, untidySteps } from '@sphalerite/core/sculpt';
import { type JointStudy, bestPivots, studyJoint } from '@sphalerite/core/rig';
import { CellSet } from '@sphalerite/core/voxel';
import { drive } from './drive';
import type { Handlers, PackedSet } from './kinds';

/** What is worked out of a grid or a few. */
export const gridJobs = {
  async mesh({ grid, chunks }, ctx) {
    const g = ctx.bricks.openGrid(grid);
    const out: (ChunkMesh | null)[] = [];
    for (const [i, [x, y, z]] of chunks.entries()) {
      out.push(meshChunk(g, x, y, z));
      if (i % 64 === 63) {
        ctx.report(i / chunks.length);
        await ctx.breathe();
      }
    }
    return out;
  },

  async coarser({ grid, levels }, ctx) {
    const all = [ctx.bricks.openGrid(grid)];
    const quads: number[] = [];
    all.push(...coarserForms(all[0]!, levels));
    for (const g of all) {
      let n = 0;
      for (const [x, y, z] of chunksOf(g)) n += meshChunk(g, x, y, z)?.counts.reduce((a, c) => a + c, 0) ?? 0;
      quads.push(n);
      await ctx.breathe();
    }
    return { quads, forms: all.slice(1).map((g) => ({ bounds: g.bounds, bricks: [...g.bricks()] })) };
  },

  async region({ grid, query }, ctx) {
    const g = ctx.bricks.openGrid(grid);
    const steps = regionSteps(g, query);
    for (let n = 1; ; n++) {
      const s = steps.next();
      if (s.done) return { box: s.value.box, words: s.value.words };
      // How far it is cannot be known; the bar slows down as it nears its end.
      ctx.report(1 - 1 / (1 + n / 6));
      await ctx.breathe();
    }
  },

  async untidy({ grid }, ctx) {
    const u = await drive(untidySteps(ctx.bricks.openGrid(grid)), ctx);
    const pack = ({ box, words }: CellSet): PackedSet => ({ box, words });
    return { loose: pack(u.loose), loosePieces: u.loosePieces, holes: pack(u.holes), hidden: pack(u.hidden) };
  },

  async inner({ grid, wall, joined }, ctx) {
    const { box, words } = innerCells(ctx.bricks.openGrid(grid), wall, joined);
    return { box, words };
  },

  async study({ limb, body, given, axis, angles }, ctx) {
    const l = new CellSet(limb.box, limb.words),
      b = new CellSet(body.box, body.words),
      out: JointStudy[] = [];
    // Along the axis a pivot stays where the joint is: nothing swings otherwise for it.
    const found = (await drive(bestPivots(l, b, axis, angles), ctx)).map((p) => withAxis(p, axis, given[0]![axis]));
    const same = (a: Vec3, c: Vec3): boolean => a.every((v, i) => v === c[i]);
    for (const pivot of [...given, ...found.filter((p) => !given.some((g) => same(g, p)))]) {
      out.push(...studyJoint(l, b, [pivot], axis, angles));
      await ctx.breathe();
    }
    return out;
  },
} satisfies Partial<Handlers>;

import type { Vec3 } from '../../math';
import type { ShipModel } from '../ship/ship-model';

/** Positions as whole numbers of 16 bits: `from + step · number` is the length. */
export interface Steps16 {
  readonly step: number;
  readonly from: Vec3;
  whole(positions: Float32Array): Int16Array;
}

const MOST = 32767;

/** Steps for all shapes of a mesh: half cubes, which lose nothing, where all its positions are such; else as fine as 16 bits allow. */
export function sixteenBits({ meshes, shapes }: ShipModel, mesh: number): Steps16 {
  const mine = meshes[mesh]!.pieces.map((p) => shapes[p.shape]!);
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity];
  for (const { positions } of mine)
    for (let i = 0; i < positions.length; i++) {
      lo[i % 3] = Math.min(lo[i % 3]!, positions[i]!);
      hi[i % 3] = Math.max(hi[i % 3]!, positions[i]!);
    }
  const half = mine[0]?.step ?? null;
  if (half !== null && mine.every((s) => s.step === half) && [...lo, ...hi].every((v) => Math.abs(v) <= half * MOST))
    return { step: half, from: [0, 0, 0], whole: (p) => Int16Array.from(p, (v) => Math.round(v / half)) };
  const from = lo.map((v, i) => (v + hi[i]!) / 2) as unknown as Vec3;
  const step = Math.max(...hi.map((v, i) => (v - lo[i]!) / 2), 1e-9) / MOST;
  return { step, from, whole: (p) => Int16Array.from(p, (v, i) => Math.round((v - from[i % 3]!) / step)) };
}

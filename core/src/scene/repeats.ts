import {
  type Mat4,
  type Vec3,
  matrixOf,
  mulMat,
  quatFromAxisAngle,
  seededRandom,
  hash32,
  translation,
  QUAT_IDENTITY,
} from '../math';
import type { Repeat } from '../model';

const turned = (degrees: number): Mat4 =>
  matrixOf({ t: [0, 0, 0], q: quatFromAxisAngle([0, 1, 0], (degrees * Math.PI) / 180), s: [1, 1, 1] });

/**
 * Where the copies of a repeat stand: for each, what takes the placement from its own place to the copy's, in the space of
 * its parent. The placement itself is not among them.
 *
 * @param at – where the placement stands in its parent
 */
export function repeatMatrices(repeat: Repeat, at: Vec3): Mat4[] {
  switch (repeat.kind) {
    case 'line':
      return lineMatrices(repeat.counts, repeat.step);
    case 'ring':
      return ringMatrices(repeat, at);
    case 'scatter':
      return scatterMatrices(repeat, at);
  }
}

function lineMatrices([nx, ny, nz]: Vec3, [sx, sy, sz]: Vec3): Mat4[] {
  const out: Mat4[] = [];
  for (let y = 0; y < ny; y++)
    for (let z = 0; z < nz; z++)
      for (let x = 0; x < nx; x++) if (x + y + z > 0) out.push(translation([x * sx, y * sy, z * sz]));
  return out;
}

/** Around the parent's upright axis; what does not turn only goes along. */
function ringMatrices({ count, degrees, turning }: Extract<Repeat, { kind: 'ring' }>, at: Vec3): Mat4[] {
  // A whole round closes on itself; an arc ends where it is said to.
  const whole = Math.abs(degrees) >= 360;
  const step = degrees / Math.max(1, whole ? count : count - 1);
  return Array.from({ length: count - 1 }, (_, i) => {
    const turn = turned(step * (i + 1));
    if (turning) return turn;
    const there: Vec3 = [turn[0]! * at[0] + turn[8]! * at[2], at[1], turn[2]! * at[0] + turn[10]! * at[2]];
    return translation([there[0] - at[0], 0, there[2] - at[2]]);
  });
}

/** Copy n stands where its seed and n alone put it, so that another count moves none of the others. */
function scatterMatrices(r: Extract<Repeat, { kind: 'scatter' }>, at: Vec3): Mat4[] {
  return Array.from({ length: r.count - 1 }, (_, i) => {
    const random = seededRandom(hash32(r.seed ^ Math.imul(i + 1, 0x9e3779b1)));
    const x = (random() - 0.5) * r.area[0],
      z = (random() - 0.5) * r.area[1],
      turn = turned((random() * 2 - 1) * r.turn),
      size = r.sizes[0] + (r.sizes[1] - r.sizes[0]) * random();
    const grown = matrixOf({ t: [at[0] + x, at[1], at[2] + z], q: QUAT_IDENTITY, s: [size, size, size] });
    return mulMat(mulMat(grown, turn), translation([-at[0], -at[1], -at[2]]));
  });
}

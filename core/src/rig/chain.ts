import {
  type Quat,
  type Vec3,
  add,
  cross,
  dot,
  length,
  mulQuat,
  normalize,
  normalizeQuat,
  quatFromAxisAngle,
  rotate,
  scale,
  sub,
} from '../math';

const TINY = 1e-9;

/** What of `v` is square to the unit vector `u`, at length 1; null when nothing is. */
export function squareTo(u: Vec3, v: Vec3): Vec3 | null {
  const p = sub(v, scale(u, dot(u, v)));
  const l = length(p);
  return l > 1e-6 ? scale(p, 1 / l) : null;
}

/** The shortest rotation that takes the unit vector `a` to `b`; half a turn goes about `axis` (unit, square to `a`). */
export function shortestTurn(a: Vec3, b: Vec3, axis: Vec3): Quat {
  const c = dot(a, b);
  if (c < -1 + 1e-9) return quatFromAxisAngle(axis, Math.PI);
  const n = cross(a, b);
  return normalizeQuat([n[0], n[1], n[2], 1 + c]);
}

/** The rotation that takes the unit vector u to u2 and b (square to u) to b2 (square to u2). */
export function turnOfFrames(u: Vec3, b: Vec3, u2: Vec3, b2: Vec3): Quat {
  const first = shortestTurn(u, u2, b);
  const rest = shortestTurn(rotate(first, b), b2, u2);
  return normalizeQuat(mulQuat(rest, first));
}

/** Any direction square to `u`, the same for the same `u`. */
export const anySquare = (u: Vec3): Vec3 => squareTo(u, Math.abs(u[2]) < 0.9 ? [0, 0, 1] : [0, 1, 0])!;

/**
 * Where the joints of a chain go so that its last reaches the goal, or as near as its links let it: two links in closed form
 * (the triangle of two lengths and a distance), more by FABRIK (A. Aristidou and J. Lasenby, 2011), beginning from the
 * chain turned as a whole.
 *
 * @param joints – from the root to the tip
 * @param bend – to which side it bends, square to the way from root to goal
 */
export function reach(joints: readonly Vec3[], goal: Vec3, aim: Vec3, bend: Vec3, turn: Quat): Vec3[] {
  const root = joints[0]!,
    lengths = joints.slice(1).map((j, i) => length(sub(j, joints[i]!)));
  const all = lengths.reduce((a, b) => a + b, 0),
    far = length(sub(goal, root));
  if (lengths.length === 1) return [root, add(root, scale(aim, lengths[0]!))];
  if (far >= all - TINY) {
    let at = 0;
    return joints.map((_, i) => add(root, scale(aim, i === 0 ? 0 : (at += lengths[i - 1]!))));
  }
  if (lengths.length === 2) {
    const [l1, l2] = lengths as [number, number];
    const d = Math.max(far, Math.abs(l1 - l2), TINY);
    const along = Math.max(-l1, Math.min(l1, (l1 * l1 - l2 * l2 + d * d) / (2 * d)));
    const out = Math.sqrt(Math.max(0, l1 * l1 - along * along));
    const middle = add(root, add(scale(aim, along), scale(bend, out)));
    return [root, middle, add(root, scale(aim, d))];
  }
  const at = joints.map((j) => add(root, rotate(turn, sub(j, root))));
  // A straight chain has no side to bend to; it is given one.
  const straight = at.every(
    (p) => squareTo(aim, sub(p, root)) === null || length(sub(sub(p, root), scale(aim, dot(aim, sub(p, root))))) < 1e-4,
  );
  if (straight) for (let i = 1; i < at.length - 1; i++) at[i] = add(at[i]!, scale(bend, 0.05 * all));
  const place = (i: number, from: number): void => {
    at[i] = add(at[from]!, scale(normalize(sub(at[i]!, at[from]!)), lengths[Math.min(i, from)]!));
  };
  for (let k = 0; k < 400 && length(sub(at.at(-1)!, goal)) > 1e-7 * all; k++) {
    at[at.length - 1] = goal;
    for (let i = at.length - 2; i >= 0; i--) place(i, i + 1);
    at[0] = root;
    for (let i = 1; i < at.length; i++) place(i, i - 1);
  }
  return at;
}

import type { MeshClip, MeshNode, MeshScene, MeshShape } from '../../codec';
import {
  type Mat4,
  type Quat,
  type Vec3,
  decompose,
  invertQuat,
  matrixOf,
  mulMat,
  mulQuat,
  quatFromAxisAngle,
  rotate,
  transformPoint,
} from '../../math';
import { IntakeError } from '../picture';
import { determinant } from './placing';

/** How a mesh stands: which way is up in its file, and how far it is turned about that. */
export interface Standing {
  readonly up: 'y' | 'z';
  /** Degrees, in quarters. */
  readonly turn: number;
}

/**
 * A scene with Y up, as it is wished to stand. Everything is told anew along the turned axes, cells of its nodes too: what was upright in
 * its own node is so again. Without what only wraps the whole, and without nodes that only hold the shape of another.
 */
export function standingScene(given: MeshScene, { up, turn }: Standing): MeshScene {
  const shown = given.nodes.some((n) => n.carrier)
    ? withNodes(given, given.nodes, (i) => !given.nodes[i]!.carrier)
    : given;
  const scene = unwrapped(withoutShapeNodes(shown));
  const quarter = (turn * Math.PI) / 180;
  const wished = mulQuat(
    quatFromAxisAngle([0, 1, 0], quarter),
    quatFromAxisAngle([1, 0, 0], up === 'z' ? -Math.PI / 2 : 0),
  );
  return alongAxes(scene.scene, clean(mulQuat(wished, scene.turned)));
}

const clean = (q: Quat): Quat =>
  // Halves and roots of halves, which quarter turns are made of, to the last digit.
  q.map(
    (v) => [0, 0.5, Math.SQRT1_2, 1].map((k) => k * Math.sign(v)).find((k) => Math.abs(k - v) < 1e-6) ?? v,
  ) as unknown as Quat;

/** Nodes whose parent has their name and no shape, as files of packed numbers have them: the parent shows the shape itself. */
function withoutShapeNodes(scene: MeshScene): MeshScene {
  const { nodes } = scene;
  const holds = new Map<number, number>();
  nodes.forEach((n, i) => {
    const above = n.parent === null ? null : nodes[n.parent]!;
    if (above && n.name === `${above.name} shape` && above.shapes.length === 0 && !nodes.some((o) => o.parent === i))
      holds.set(n.parent!, i);
  });
  if (holds.size === 0) return scene;
  const gone = new Set(holds.values());
  return withNodes(
    scene,
    nodes.map((n, i) => {
      const held = holds.get(i);
      return held === undefined
        ? n
        : { ...n, shapes: nodes[held]!.shapes.map((s) => movedShape(s, matrixOf(nodes[held]!.rest))) };
    }),
    (i) => !gone.has(i),
  );
}

const movedShapes = new WeakMap<MeshShape, { readonly by: string; readonly shape: MeshShape }>();
function movedShape(shape: MeshShape, by: Mat4): MeshShape {
  const key = by.join();
  const known = movedShapes.get(shape);
  if (known?.by === key) return known.shape;
  const positions = new Float64Array(shape.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(transformPoint(by, [shape.positions[i]!, shape.positions[i + 1]!, shape.positions[i + 2]!]), i);
  const moved = { ...shape, positions };
  movedShapes.set(shape, { by: key, shape: moved });
  return moved;
}

/** Some of a scene's nodes; what stays hangs on what stays. */
function withNodes(scene: MeshScene, nodes: readonly MeshNode[], stays: (i: number) => boolean): MeshScene {
  const to = new Map<number, number>();
  nodes.forEach((_, i) => stays(i) && to.set(i, to.size));
  return {
    ...scene,
    nodes: nodes
      .filter((_, i) => stays(i))
      .map((n) => ({ ...n, parent: n.parent === null ? null : (to.get(n.parent) ?? null) })),
    clips: scene.clips.map((c) => ({
      ...c,
      tracks: c.tracks.flatMap((t) => (to.has(t.node) ? [{ ...t, node: to.get(t.node)! }] : [])),
    })),
  };
}

/**
 * Without the one thing that everything is in, which tells axes, unit and origin: a top that shows nothing and does not move. What hung on
 * it takes its place and its scale; its turn is told, so that it can be undone for all.
 */
function unwrapped(given: MeshScene): { readonly scene: MeshScene; readonly turned: Quat } {
  let scene = given,
    turned: Quat = [0, 0, 0, 1];
  for (let deep = 0; ; deep++) {
    const tops = scene.nodes.flatMap((n, i) => (n.parent === null && n.role !== 'collider' ? [i] : []));
    const top = tops[0],
      n = top === undefined ? undefined : scene.nodes[top]!;
    const below = scene.nodes.filter((o) => o.parent === top && o.role !== 'collider');
    const plain =
      n && below.some((o) => o.shapes.length > 0 || scene.nodes.some((k) => k.parent === scene.nodes.indexOf(o)));
    if (tops.length !== 1 || !n || n.shapes.length > 0 || !plain) break;
    if (scene.clips.some((c) => c.tracks.some((t) => t.node === top))) break;
    const { t, q, s } = n.rest;
    const even = Math.abs(s[0] - s[1]) < 1e-9 && Math.abs(s[1] - s[2]) < 1e-9 && s[0] > 0;
    // Further down what does nothing is a bone like any other.
    if (!even || n.joint || (deep > 0 && s[0] === 1 && Math.abs(q[3]) > 1 - 1e-9)) break;
    // p → t + q · s · p: with the turn taken to the front, the shift is turned back.
    const back = rotate(invertQuat(q), t);
    const moved = scene.nodes.map((o): MeshNode => {
      const { rest } = o;
      const scaled: Vec3 = [rest.t[0] * s[0], rest.t[1] * s[0], rest.t[2] * s[0]];
      if (o.parent === top)
        return {
          ...o,
          rest: {
            t: [scaled[0] + back[0], scaled[1] + back[1], scaled[2] + back[2]],
            q: rest.q,
            s: [rest.s[0] * s[0], rest.s[1] * s[0], rest.s[2] * s[0]],
          },
        };
      return o;
    });
    const clips = scene.clips.map((c): MeshClip => ({
      ...c,
      tracks: c.tracks.map((k) =>
        scene.nodes[k.node]!.parent === top ? { ...k, values: movedTop(k, s[0], back) } : k,
      ),
    }));
    scene = withNodes({ ...scene, clips }, moved, (i) => i !== top);
    turned = mulQuat(turned, q);
  }
  return { scene, turned };
}

/** Values of a node that hung on the top, now that the top's scale and shift are its own. */
function movedTop(track: MeshClip['tracks'][number], s: number, back: Vec3): Float64Array {
  if (track.path === 'rotation') return track.values;
  const spline = track.interpolation === 'CUBICSPLINE';
  return track.values.map((v, i) => {
    const slope = spline && Math.floor(i / 3) % 3 !== 1;
    return v * s + (track.path === 'translation' && !slope ? back[i % 3]! : 0);
  });
}

/** A scene told along turned axes. */
function alongAxes(scene: MeshScene, q: Quat): MeshScene {
  if (q[0] === 0 && q[1] === 0 && q[2] === 0) return scene;
  const by = matrixOf({ t: [0, 0, 0], q, s: [1, 1, 1] }),
    back = invertQuat(q);
  const turn = (v: Vec3): Vec3 => rotate(q, v),
    conjugate = (p: Quat): Quat => mulQuat(mulQuat(q, p), back);
  const scaled = (s: Vec3): Vec3 => {
    // Along axes that are exchanged, by their own; between axes only what is even stays so.
    const r = turn(s);
    return s[0] === s[1] && s[1] === s[2] ? s : (r.map((v) => Math.abs(v)) as unknown as Vec3);
  };
  return {
    ...scene,
    nodes: scene.nodes.map((n) => ({
      ...n,
      rest: { t: turn(n.rest.t), q: conjugate(n.rest.q), s: scaled(n.rest.s) },
      shapes: n.shapes.map((s) => movedShape(s, by)),
    })),
    clips: scene.clips.map((c) => ({
      ...c,
      tracks: c.tracks.map((t) => {
        const wide = t.path === 'rotation' ? 4 : 3,
          values = new Float64Array(t.values.length);
        for (let i = 0; i < values.length; i += wide) {
          const v = [...t.values.subarray(i, i + wide)];
          values.set(
            wide === 4
              ? conjugate(v as unknown as Quat)
              : t.path === 'scale'
                ? scaled(v as unknown as Vec3)
                : turn(v as unknown as Vec3),
            i,
          );
        }
        return { ...t, values };
      }),
    })),
  };
}

/** Where every node stands at rest; a scale of nothing counts as one. */
export function nodeWorlds(nodes: readonly MeshNode[]): Mat4[] {
  const worlds: (Mat4 | undefined)[] = nodes.map(() => undefined);
  const world = (i: number, deep: number): Mat4 => {
    if (deep > nodes.length) throw new IntakeError('codec.circle');
    let w = worlds[i];
    if (!w) {
      const { parent, rest } = nodes[i]!;
      const own = matrixOf({ ...rest, s: rest.s.map((v) => (v === 0 ? 1 : v)) as unknown as Vec3 });
      worlds[i] = w = parent === null ? own : mulMat(world(parent, deep + 1), own);
      // Sizes within sizes: neither its place nor its turn could be told any more.
      if (!decompose(w).s.every((v) => v > 1e-30 && v < 1e30)) throw new IntakeError('codec.damaged');
    }
    return w;
  };
  return nodes.map((_, i) => world(i, 0));
}

/** How much larger a node's own lengths are in the world; null where not the same along all axes, or mirrored. */
export function evenScale(world: Mat4): number | null {
  if (determinant(world) < 0) return null;
  const { s } = decompose(world);
  const mean = (s[0] + s[1] + s[2]) / 3;
  return s.every((v) => Math.abs(v - mean) < 1e-4 * mean) ? mean : null;
}

import {
  type Quat,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  cross,
  dot,
  eulerFromQuat,
  invertQuat,
  length,
  mulQuat,
  normalize,
  normalizeQuat,
  quatFromEuler,
  rotate,
  slerp,
  sub,
  mapVec,
} from '../math';
import { type Bone, type Constraint, type Id, type Rig, chainOf, constraintTargets, constraintWrites } from '../model';
import { anySquare, reach, shortestTurn, squareTo, turnOfFrames } from './chain';
import { restWorld } from './keep-place';
import type { Pose } from './pose';

type Step = { readonly bone: Bone } | { readonly constraint: Constraint };
const orders = new WeakMap<Rig, readonly Step[] | null>();

/**
 * One order over bones and constraints in which everything stands after what it depends on: a bone after its parent and after all
 * that steers it, a constraint after its targets, after the bone its chain hangs on, and after those before it that steer the
 * same bones. Ties go by the order they are stored in. Null when there is a circle.
 */
export function solveOrder(rig: Rig): readonly Step[] | null {
  const known = orders.get(rig);
  if (known !== undefined) return known;
  const on = rig.constraints.filter((c) => c.on);
  const nodes: Step[] = [...rig.bones.map((bone) => ({ bone })), ...on.map((constraint) => ({ constraint }))];
  const boneAt = new Map(rig.bones.map((b, i) => [b.id, i])),
    first = rig.bones.length;
  const before: Set<number>[] = nodes.map(() => new Set<number>());
  rig.bones.forEach((b, i) => {
    const parent = b.parent === null ? undefined : boneAt.get(b.parent);
    if (parent !== undefined) before[i]!.add(parent);
  });
  on.forEach((c, k) => {
    const me = first + k,
      writes = constraintWrites(rig, c),
      mine = new Set(writes);
    for (const id of writes) {
      const bone = boneAt.get(id)!;
      before[bone]!.add(me);
      const parent = rig.bones[bone]!.parent;
      if (parent !== null && !mine.has(parent) && boneAt.has(parent)) before[me]!.add(boneAt.get(parent)!);
    }
    for (const t of constraintTargets(c)) if (boneAt.has(t)) before[me]!.add(boneAt.get(t)!);
    on.slice(0, k).forEach((o, j) => {
      if (constraintWrites(rig, o).some((id) => mine.has(id))) before[me]!.add(first + j);
    });
  });
  const done = new Set<number>(),
    out: Step[] = [];
  for (let found = true; found;) {
    found = false;
    for (let i = 0; i < nodes.length; i++) {
      if (done.has(i) || [...before[i]!].some((b) => !done.has(b))) continue;
      done.add(i);
      out.push(nodes[i]!);
      found = true;
    }
  }
  const order = out.length === nodes.length ? out : null;
  orders.set(rig, order);
  return order;
}

/**
 * The pose with every constraint solved: local transforms of all bones that differ from it. The same pose when nothing is
 * constrained. Bones keep their places; only turns are written.
 */
export function solvePose(rig: Rig, pose: Pose): Pose {
  if (rig.constraints.length === 0) return pose;
  const order = solveOrder(rig);
  if (!order) return pose;
  const solver = new Solver(rig, pose);
  for (const step of order) {
    if ('bone' in step) solver.settle(step.bone.id);
    else solver.apply(step.constraint);
  }
  return solver.locals;
}

/** What of a rig is the same in every pose. */
interface Fixed {
  readonly rest: ReadonlyMap<Id, Transform>;
  readonly bones: ReadonlyMap<Id, Bone>;
  readonly chains: ReadonlyMap<Id, readonly Id[]>;
  /** Bones that a limit holds. */
  readonly limited: ReadonlySet<Id>;
}
const fixed = new WeakMap<Rig, Fixed>();
function fixedOf(rig: Rig): Fixed {
  let f = fixed.get(rig);
  if (!f) {
    f = {
      rest: restWorld(rig),
      bones: new Map(rig.bones.map((b) => [b.id, b])),
      chains: new Map(rig.constraints.flatMap((c) => (c.kind === 'ik' ? [[c.id, chainOf(rig, c)] as const] : []))),
      limited: new Set(rig.constraints.filter((c) => c.kind === 'limit' && c.on).map((c) => c.bone)),
    };
    fixed.set(rig, f);
  }
  return f;
}

class Solver {
  readonly locals: Map<Id, Transform>;
  private readonly world = new Map<Id, Transform>();
  private readonly rest: ReadonlyMap<Id, Transform>;
  private readonly bones: ReadonlyMap<Id, Bone>;
  private readonly fixed: Fixed;

  constructor(
    private readonly rig: Rig,
    pose: Pose,
  ) {
    this.locals = new Map(pose);
    this.fixed = fixedOf(rig);
    ({ bones: this.bones, rest: this.rest } = this.fixed);
  }

  private local = (id: Id): Transform => this.locals.get(id) ?? this.bones.get(id)!.rest;
  private above = (id: Id): Transform => {
    const parent = this.bones.get(id)!.parent;
    return parent === null ? TRANSFORM_IDENTITY : (this.world.get(parent) ?? TRANSFORM_IDENTITY);
  };
  settle(id: Id): void {
    this.world.set(id, composeTransform(this.above(id), this.local(id)));
  }
  private turn(id: Id, q: Quat, amount: number): void {
    const now = this.local(id);
    this.locals.set(id, { ...now, q: amount >= 1 ? normalizeQuat(q) : slerp(now.q, normalizeQuat(q), amount) });
  }

  apply(c: Constraint): void {
    const bone = this.bones.get(c.bone);
    if (!bone || c.amount <= 0) return;
    switch (c.kind) {
      case 'ik':
        return this.ik(c);
      case 'match': {
        const target = this.bones.get(c.target);
        if (!target) return;
        const delta = mulQuat(invertQuat(target.rest.q), this.local(target.id).q);
        const e = eulerFromQuat(delta);
        const part = c.axes.every((a) => a)
          ? delta
          : quatFromEuler([c.axes[0] ? e[0] : 0, c.axes[1] ? e[1] : 0, c.axes[2] ? e[2] : 0]);
        // Its own turn stays, with so much of the other's on it.
        const now = this.local(c.bone);
        this.locals.set(c.bone, { ...now, q: normalizeQuat(mulQuat(now.q, slerp([0, 0, 0, 1], part, c.amount))) });
        return;
      }
      case 'look': {
        const target = this.world.get(c.target);
        if (!target) return;
        const above = this.above(c.bone),
          now = composeTransform(above, this.local(c.bone));
        const way = sub(target.t, now.t);
        if (length(way) < 1e-6) return;
        const from = rotate(now.q, c.axis),
          to = normalize(way);
        return this.turn(
          c.bone,
          mulQuat(invertQuat(above.q), mulQuat(shortestTurn(from, to, anySquare(from)), now.q)),
          c.amount,
        );
      }
      case 'upright': {
        const own = mulQuat(invertQuat(bone.rest.q), this.local(c.bone).q);
        return this.turn(
          c.bone,
          mulQuat(invertQuat(this.above(c.bone).q), mulQuat(this.rest.get(c.bone)!.q, own)),
          c.amount,
        );
      }
      case 'limit':
        return this.turn(c.bone, this.limited(c.bone, this.local(c.bone).q), c.amount);
    }
  }

  /** A local turn held inside the limits of its bone, as angles from rest. */
  private limited(id: Id, q: Quat): Quat {
    const bone = this.bones.get(id)!;
    let out = q;
    for (const c of this.rig.constraints) {
      if (c.kind !== 'limit' || !c.on || c.bone !== id) continue;
      const e = eulerFromQuat(normalizeQuat(mulQuat(invertQuat(bone.rest.q), out)));
      const held = mapVec(e, (v, i) => Math.max((c.min[i]! * Math.PI) / 180, Math.min((c.max[i]! * Math.PI) / 180, v)));
      if (held.some((v, i) => v !== e[i])) out = normalizeQuat(mulQuat(bone.rest.q, quatFromEuler(held)));
    }
    return out;
  }

  private ik(c: Extract<Constraint, { kind: 'ik' }>): void {
    const goal = this.world.get(c.goal),
      goalRest = this.rest.get(c.goal);
    const chain = this.fixed.chains.get(c.id)!,
      root = chain[0]!;
    if (!goal || !goalRest || chain.length < 2) return;
    // The chain at rest, under whatever its root hangs on now.
    const above = this.above(root),
      rootRest = this.rest.get(root)!;
    const parent = this.bones.get(root)!.parent;
    const carried = mulQuat(above.q, invertQuat(parent === null ? [0, 0, 0, 1] : this.rest.get(parent)!.q));
    const worlds: Transform[] = [];
    for (const id of chain)
      worlds.push(composeTransform(worlds.at(-1) ?? above, { ...this.local(id), q: this.bones.get(id)!.rest.q }));
    const joints = worlds.map((w) => w.t),
      start = joints[0]!;
    const span = sub(joints.at(-1)!, start);
    const u = normalize(length(span) > 1e-6 ? span : sub(joints[1]!, start));
    // To which side it bends at rest: towards its bend control, or as it is bent, or as it was told.
    const poleRest = c.pole === null ? undefined : this.rest.get(c.pole);
    const lean = joints.slice(1, -1).reduce<Vec3>(
      (s, j) =>
        add(
          s,
          sub(
            sub(j, start),
            mapVec(u, (v) => v * dot(u, sub(j, start))),
          ),
        ),
      [0, 0, 0],
    );
    const bent = length(lean) > 1e-3 ? squareTo(u, lean) : null;
    const b =
      (poleRest && squareTo(u, rotate(carried, sub(poleRest.t, rootRest.t)))) ??
      bent ??
      squareTo(u, rotate(carried, c.bend)) ??
      anySquare(u);
    const way = sub(goal.t, start);
    const aim = length(way) > 1e-6 ? normalize(way) : u;
    const pole = c.pole === null ? undefined : this.world.get(c.pole);
    const b2 = (pole && squareTo(aim, sub(pole.t, start))) ?? rotate(shortestTurn(u, aim, b), b);
    const whole = turnOfFrames(u, b, aim, squareTo(aim, b2) ?? anySquare(aim));
    // A knee that is modelled a little beside its control stays so: at rest nothing may move.
    const bend = rotate(whole, bent ?? b);
    const places = reach(joints, goal.t, aim, bend, whole);
    const hinge = cross(aim, bend);
    let under = above;
    const turns: Quat[] = [];
    for (let i = 0; i + 1 < chain.length; i++) {
      const was = normalize(rotate(whole, sub(joints[i + 1]!, joints[i]!))),
        is = normalize(sub(places[i + 1]!, places[i]!));
      const q = mulQuat(shortestTurn(was, is, hinge), mulQuat(whole, worlds[i]!.q));
      turns.push(normalizeQuat(mulQuat(invertQuat(under.q), q)));
      under = { ...under, q: normalizeQuat(q) };
    }
    this.write(chain, turns, goal.t, above, c.amount);
    if (c.hold) {
      let now = above;
      for (const id of chain.slice(0, -1)) now = composeTransform(now, this.local(id));
      this.turn(
        c.bone,
        mulQuat(invertQuat(now.q), mulQuat(mulQuat(goal.q, invertQuat(goalRest.q)), this.rest.get(c.bone)!.q)),
        c.amount,
      );
    }
  }

  /** Writes the turns of a chain. Where limits hold a joint back, the others make up for it, link by link towards the goal. */
  private write(chain: readonly Id[], turns: Quat[], goal: Vec3, above: Transform, amount: number): void {
    const limits = chain.some((id, i) => i < chain.length - 1 && this.fixed.limited.has(id));
    if (limits) {
      // From where the free chain would be, and from rest: limits may hold one of the two in a corner.
      const tries = [turns, chain.slice(0, -1).map((id) => this.bones.get(id)!.rest.q)].map((start) =>
        this.crawl(chain, start, goal, above),
      );
      turns = tries.reduce((a, b) => (b.miss < a.miss - 1e-6 ? b : a)).turns;
    }
    turns.forEach((q, i) => this.turn(chain[i]!, q, amount));
  }

  /** Turns inside their limits that bring the tip nearer to the goal joint by joint (cyclic coordinate descent). */
  private crawl(
    chain: readonly Id[],
    start: readonly Quat[],
    goal: Vec3,
    above: Transform,
  ): { readonly turns: Quat[]; readonly miss: number } {
    const bones = chain.map((id) => this.local(id)),
      turns = start.map((q, i) => this.limited(chain[i]!, q));
    const joints = (): Transform[] => {
      const out: Transform[] = [];
      bones.forEach((b, i) => out.push(composeTransform(out.at(-1) ?? above, { ...b, q: turns[i] ?? b.q })));
      return out;
    };
    const miss = (): number => length(sub(joints().at(-1)!.t, goal));
    for (let k = 0; k < 60 && miss() > 1e-5; k++) {
      for (let i = turns.length - 1; i >= 0; i--) {
        const w = joints(),
          from = sub(w.at(-1)!.t, w[i]!.t),
          to = sub(goal, w[i]!.t);
        if (length(from) < 1e-9 || length(to) < 1e-9) continue;
        const f = normalize(from),
          q = mulQuat(shortestTurn(f, normalize(to), anySquare(f)), w[i]!.q);
        turns[i] = this.limited(chain[i]!, normalizeQuat(mulQuat(invertQuat(i === 0 ? above.q : w[i - 1]!.q), q)));
      }
    }
    return { turns, miss: miss() };
  }
}

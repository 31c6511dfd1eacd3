import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Quat,
  type Transform,
  type Vec3,
  eulerFromQuat,
  length,
  mirrorQuat,
  mulQuat,
  quatFromAxisAngle,
  quatFromEuler,
  rotate,
  sub,
  transformPoint,
} from '../math';
import { type Bone, type Constraint, EMPTY_RIG, type IkConstraint, PLAIN_BONE, type Rig, type Side } from '../model';
import { type Pose, solveOrder, solvePose, worldMatrices } from '.';

const bone = (id: string, parent: string | null, t: Vec3, q: Quat = [0, 0, 0, 1], side: Side = 'centre'): Bone => ({
  ...PLAIN_BONE,
  id,
  name: id,
  side,
  parent,
  rest: { t, q, s: [1, 1, 1] },
});
const ik = (more: Partial<IkConstraint> = {}): IkConstraint => ({
  id: 'ik',
  kind: 'ik',
  bone: 'foot',
  on: true,
  amount: 1,
  goal: 'goal',
  pole: null,
  links: 2,
  bend: [0, 0, 1],
  hold: false,
  ...more,
});
const NONE: Pose = new Map();
const at = (rig: Rig, pose: Pose, id: string): Vec3 => transformPoint(worldMatrices(rig, pose).get(id)!, [0, 0, 0]);
const put = (rig: Rig, places: Readonly<Record<string, Partial<Transform>>>): Pose =>
  new Map(Object.entries(places).map(([id, t]) => [id, { ...rig.bones.find((b) => b.id === id)!.rest, ...t }]));
const close = (a: readonly number[], b: readonly number[], digits = 6): void =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, digits));
/** Thigh of 4, shin of 3, straight down from (1, 10, 2); goal at the foot. */
const limb = (c: Partial<IkConstraint> = {}, more: readonly Bone[] = []): Rig => ({
  ...EMPTY_RIG,
  bones: [
    bone('hips', null, [0, 10, 0]),
    bone('thigh', 'hips', [1, 0, 2]),
    bone('shin', 'thigh', [0, -4, 0]),
    bone('foot', 'shin', [0, -3, 0]),
    bone('goal', null, [1, 3, 2]),
    ...more,
  ],
  constraints: [ik(c)],
});
const ROOT: Vec3 = [1, 10, 2];
const coord = fc.double({ min: -12, max: 12, noNaN: true });
const place = fc.tuple(coord, coord, coord) as fc.Arbitrary<Vec3>;

describe('IK of two bones', () => {
  it('changes nothing at rest', () => {
    const pose = solvePose(limb(), NONE);
    for (const id of ['thigh', 'shin']) close(pose.get(id)!.q, [0, 0, 0, 1], 9);
    // Nor where the knee stands out of the plane of its control, as joints in the middle of cuts do.
    const odd = limb({ pole: 'pole' }, [bone('pole', null, [1, 6, 9])]);
    const bent = {
      ...odd,
      bones: odd.bones.map((b) =>
        b.id === 'shin'
          ? { ...b, rest: { ...b.rest, t: [0.5, -4, 0.25] as Vec3 } }
          : b.id === 'foot'
            ? { ...b, rest: { ...b.rest, t: [-0.5, -3, -0.25] as Vec3 } }
            : b,
      ),
    };
    for (const id of ['thigh', 'shin']) close(solvePose(bent, NONE).get(id)!.q, [0, 0, 0, 1], 9);
  });
  it('reaches every goal within reach, comes as near as it can to others, and keeps its lengths; nothing is ever NaN', () => {
    fc.assert(
      fc.property(place, (g) => {
        const rig = limb(),
          pose = put(rig, { goal: { t: [ROOT[0] + g[0], ROOT[1] + g[1], ROOT[2] + g[2]] } });
        const [knee, foot, goal] = ['shin', 'foot', 'goal'].map((id) => at(rig, pose, id)) as [Vec3, Vec3, Vec3];
        const far = length(g);
        expect(length(sub(foot, goal))).toBeCloseTo(Math.max(0, far - 7, 1 - far), 6);
        expect([length(sub(knee, ROOT)), length(sub(foot, knee))].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
          4, 3,
        ]);
        // In closed form: the angle at the hip between thigh and the way to the goal.
        if (far > 1.001 && far < 6.999)
          expect([...sub(knee, ROOT)].reduce((s, v, i) => s + v * g[i]!, 0) / (4 * far)).toBeCloseTo(
            (16 + far * far - 9) / (8 * far),
            6,
          );
      }),
      { numRuns: 200 },
    );
  });
  it('stretched, folded, and with its goal at the root, it stays sound', () => {
    for (const [g, knee] of [
      [
        [0, -7, 0],
        [0, -4, 0],
      ],
      [
        [0, -20, 0],
        [0, -4, 0],
      ],
      [
        [0, -1, 0],
        [0, -4, 0],
      ],
      [
        [7, 0, 0],
        [4, 0, 0],
      ],
    ] as [Vec3, Vec3][]) {
      const rig = limb(),
        pose = put(rig, { goal: { t: [ROOT[0] + g[0], ROOT[1] + g[1], ROOT[2] + g[2]] } });
      close(sub(at(rig, pose, 'shin'), ROOT), knee, 5);
    }
    const rig = limb(),
      pose = put(rig, { goal: { t: ROOT } });
    expect([...solvePose(rig, pose).values()].flatMap((t) => [...t.q]).every(Number.isFinite)).toBe(true);
  });
  it('bends forward when told so, towards its bend control when it has one, which may go all the way round without a flip', () => {
    const plain = limb();
    expect(at(plain, put(plain, { goal: { t: [1, 5, 2] } }), 'shin')[2]).toBeGreaterThan(3);
    const back = limb({ bend: [0, 0, -1] });
    expect(at(back, put(back, { goal: { t: [1, 5, 2] } }), 'shin')[2]).toBeLessThan(1);
    const rig = limb({ pole: 'pole' }, [bone('pole', null, [1, 6, 9])]);
    let last: Vec3 | null = null;
    for (let k = 0; k <= 360; k += 3) {
      const a = (k * Math.PI) / 180;
      const knee = at(
        rig,
        put(rig, { goal: { t: [1, 5, 2] }, pole: { t: [1 + 7 * Math.sin(a), 6, 2 + 7 * Math.cos(a)] } }),
        'shin',
      );
      // The knee lies in the plane of hip, goal and control, on the control's side.
      const out = Math.hypot(knee[0] - 1, knee[2] - 2);
      close([(knee[0] - 1) / out, (knee[2] - 2) / out], [Math.sin(a), Math.cos(a)], 5);
      if (last) expect(length(sub(knee, last))).toBeLessThan(0.3);
      last = knee;
    }
    let before: Vec3 | null = null;
    for (let k = 0; k <= 360; k += 3) {
      const a = (k * Math.PI) / 180,
        knee = at(plain, put(plain, { goal: { t: [1 + 5 * Math.sin(a), 10 - 5 * Math.cos(a), 2] } }), 'shin');
      if (before) expect(length(sub(knee, before))).toBeLessThan(0.4);
      before = knee;
    }
  });
  it('works under a body that is moved and turned; a held foot keeps the goal’s turn', () => {
    fc.assert(
      fc.property(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }), (a, b) => {
        const rig = limb({ hold: true }),
          q = quatFromEuler([a, b, 0.2]);
        const pose = put(rig, {
          hips: { t: [0.5, 8, 0.3], q },
          goal: { t: [1, 3.4, 2], q: quatFromAxisAngle([0, 1, 0], b) },
        });
        close(at(rig, pose, 'foot'), [1, 3.4, 2], 5);
        const way = (id: string): Vec3 =>
          sub(transformPoint(worldMatrices(rig, pose).get(id)!, [0, 0, 1]), at(rig, pose, id));
        close(way('foot'), way('goal'), 6);
      }),
      { numRuns: 40 },
    );
  });
  it('moves as an exact mirror image on the other side', () => {
    fc.assert(
      fc.property(place, place, (g, p) => {
        const flip = (v: Vec3): Vec3 => [-v[0], v[1], v[2]];
        const left = limb({ pole: 'pole', bend: [0.6, 0, 0.8] }, [bone('pole', null, [2, 6, 8])]);
        const right: Rig = {
          ...left,
          bones: left.bones.map((b) => ({ ...b, rest: { ...b.rest, t: flip(b.rest.t), q: mirrorQuat(b.rest.q, 0) } })),
          constraints: [ik({ pole: 'pole', bend: [-0.6, 0, 0.8] })],
        };
        const a = solvePose(left, put(left, { goal: { t: g }, pole: { t: p } })),
          b = solvePose(right, put(right, { goal: { t: flip(g) }, pole: { t: flip(p) } }));
        for (const id of ['thigh', 'shin'])
          close(rotate(a.get(id)!.q, [0.3, 0.5, 0.7]), flip(rotate(b.get(id)!.q, [-0.3, 0.5, 0.7])), 6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('longer chains', () => {
  const neck = (links: number, constraints: readonly Constraint[] = []): Rig => ({
    ...EMPTY_RIG,
    bones: [
      bone('b0', null, [0, 0, 0]),
      ...Array.from({ length: links }, (_, i) => bone(`b${i + 1}`, `b${i}`, [0, 3, 0])),
      bone('goal', null, [0, 3 * links, 0]),
    ],
    constraints: [ik({ bone: `b${links}`, links }), ...constraints],
  });
  it('of three to six links reach, without a limit, and point straight at what is too far', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 6 }), place, (links, g) => {
        const rig = neck(links),
          far = length(g);
        fc.pre(far < 3 * links * 0.97);
        close(at(rig, put(rig, { goal: { t: g } }), `b${links}`), g, 3);
      }),
      { numRuns: 60 },
    );
    const rig = neck(4);
    close(at(rig, put(rig, { goal: { t: [30, 0, 0] } }), 'b4'), [12, 0, 0]);
  });
  it('stay inside their limits, and come as near as these let them', () => {
    const rig = neck(
      3,
      [0, 1, 2].map((i): Constraint => ({
        id: `l${i}`,
        kind: 'limit',
        bone: `b${i}`,
        on: true,
        amount: 1,
        min: [-40, -10, -40],
        max: [40, 10, 40],
      })),
    );
    for (const g of [
      [5, 6, 0],
      [0, 5, 6],
      [4, 7, -3],
    ] as Vec3[]) {
      const pose = put(rig, { goal: { t: g } }),
        solved = solvePose(rig, pose);
      for (let i = 0; i < 3; i++)
        eulerFromQuat(solved.get(`b${i}`)!.q).forEach((e, k) =>
          expect(Math.abs((e * 180) / Math.PI)).toBeLessThanOrEqual((k === 1 ? 10 : 40) + 1e-6),
        );
      expect(length(sub(at(rig, pose, 'b3'), g))).toBeLessThan(1e-3);
    }
  });
});

describe('other constraints', () => {
  const two = (c: Constraint): Rig => ({
    ...EMPTY_RIG,
    bones: [bone('body', null, [0, 5, 0]), bone('head', 'body', [0, 4, 0]), bone('other', null, [6, 9, 0])],
    constraints: [c],
  });
  const base = { id: 'c', bone: 'head', on: true, amount: 1 } as const;
  const ahead = (rig: Rig, pose: Pose): Vec3 =>
    sub(transformPoint(worldMatrices(rig, pose).get('head')!, [0, 0, 1]), at(rig, pose, 'head'));
  it('look at points the axis at its target, by half with half the amount', () => {
    const look = (amount: number): Rig => two({ ...base, amount, kind: 'look', target: 'other', axis: [0, 0, 1] });
    close(ahead(look(1), NONE), [1, 0, 0]);
    close(ahead(look(0.5), NONE), [Math.SQRT1_2, 0, Math.SQRT1_2]);
  });
  it('match turn adds the other’s turn on the axes asked for; keep upright undoes what it hangs on; limits hold', () => {
    const q = quatFromEuler([0.4, 0.6, 0]),
      body = quatFromAxisAngle([0, 0, 1], 0.7);
    const match = two({ ...base, kind: 'match', target: 'other', axes: [false, true, false] });
    close(solvePose(match, put(match, { other: { q } })).get('head')!.q, quatFromEuler([0, 0.6, 0]));
    const upright = two({ ...base, kind: 'upright' });
    close(ahead(upright, put(upright, { body: { q: mulQuat(body, q) } })), [0, 0, 1]);
    const limit = two({ ...base, kind: 'limit', min: [-10, -20, -30], max: [10, 20, 30] });
    close(
      eulerFromQuat(solvePose(limit, put(limit, { head: { q } })).get('head')!.q),
      [10, 20, 0].map((d) => (d * Math.PI) / 180),
    );
    const off = two({ ...base, on: false, kind: 'upright' });
    expect(solvePose(off, put(off, { body: { q: body } })).has('head')).toBe(false);
  });
  it('controls that drive controls are worked out in the right order, whatever order they are stored in; circles have none', () => {
    const links: Constraint[] = [
      { ...base, id: '3', bone: 'c', kind: 'match', target: 'b', axes: [true, true, true] },
      { ...base, id: '2', bone: 'b', kind: 'match', target: 'a', axes: [true, true, true] },
    ];
    const rig: Rig = {
      ...EMPTY_RIG,
      bones: ['c', 'b', 'a'].map((id) => bone(id, null, [0, 0, 0])),
      constraints: links,
    };
    const q = quatFromAxisAngle([0, 1, 0], 0.9);
    close(solvePose(rig, put(rig, { a: { q } })).get('c')!.q, q);
    expect(
      solveOrder({
        ...rig,
        constraints: [...links, { ...base, id: '1', bone: 'a', kind: 'match', target: 'c', axes: [true, true, true] }],
      }),
    ).toBeNull();
    expect(
      solveOrder({ ...limb(), bones: limb().bones.map((b) => (b.id === 'goal' ? { ...b, parent: 'foot' } : b)) }),
    ).toBeNull();
  });
});

import { describe, expect, it } from 'vitest';
import {
  type Transform,
  type Vec3,
  length,
  matrixOf,
  mulMat,
  quatFromAxisAngle,
  sub,
  transformPoint,
  mapVec,
} from '../../math';
import { EMPTY_RIG, type IkConstraint, type Project, type Side, composite, idsFrom, makeProject } from '../../model';
import { sampleClip } from '../../motion';
import { type Pose, placeParts, worldMatrices } from '../../rig';
import { boxStroke } from '../../sculpt';
import { WebIO } from '@gltf-transform/core';
import { exportGlb, planGlb } from '../../files/testing';
import { bakeClip } from '../../files';
import { type Edit, apply, editContext } from '..';
import * as edits from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`limbs ${n++}`, 1000));
const boneOf = (p: Project, name: string, side: Side = 'left') =>
  p.rig.bones.find((b) => b.name === name && b.side === side)!;
const at = (p: Project, id: string, pose: Pose = new Map()): Vec3 =>
  transformPoint(worldMatrices(p.rig, pose).get(id)!, [0, 0, 0]);
/** Hips at 20 high; a leg and an arm on the left side, each joint a chain of unturned bones; a part on every bone. */
function half(
  names: readonly [string, string, string] = ['Thigh', 'Shin', 'Foot'],
  more: readonly string[] = [],
): Project {
  let p: Project = { ...makeProject('p', 'Half', idsFrom('half')), parts: [], rig: EMPTY_RIG };
  const add = (name: string, parent: string | null, t: Vec3, side: Side = 'left'): string => {
    p = run(p, edits.addBoneEdit, { name, parent, t, side });
    const bone = p.rig.bones.at(-1)!,
      joint = at(p, bone.id);
    p = run(p, edits.addPartEdit, {
      name,
      side,
      bone: bone.id,
      bounds: { min: [joint[0] - 1, joint[1] - 5, joint[2] - 1], size: [2, 6, 2] },
      pivot: [2 * joint[0], 2 * joint[1], 2 * joint[2]],
    });
    const part = p.parts.at(-1)!;
    p = run(p, edits.strokeEdit, {
      part: part.id,
      layer: part.layers[0]!.id,
      stroke: boxStroke('add', 3, [{ min: [joint[0] - 1, joint[1] - 5, joint[2] - 1], size: [1, 5, 2] }]),
    });
    return bone.id;
  };
  const hips = add('Hips', null, [0, 20, 0], 'centre');
  const thigh = add(names[0], hips, [3, 0, 0]),
    shin = add(names[1], thigh, [0, -8, 0]);
  add(names[2], shin, [0, -8, 0]);
  const arm = add('Upper arm', hips, [5, 10, 0]),
    fore = add('Forearm', arm, [0, -5, 0]);
  add('Hand', fore, [0, -5, 0]);
  for (const name of more) add(name, hips, [0, 6, 0], 'centre');
  return p;
}
const ikOf = (p: Project, tip: string, side: Side = 'left') =>
  p.rig.constraints.find((c): c is IkConstraint => c.kind === 'ik' && c.bone === boneOf(p, tip, side).id)!;
const pulled = (p: Project, ik: IkConstraint, by: Vec3): Pose =>
  new Map<string, Transform>([
    [
      ik.goal,
      {
        ...p.rig.bones.find((b) => b.id === ik.goal)!.rest,
        t: mapVec(at(p, ik.goal), (v, i) => v + by[i]!),
      },
    ],
  ]);

describe('the limb helper', () => {
  it.each([
    ['Thigh', 'Shin', 'Foot', 'Foot', [], 1],
    ['Thigh', 'Shin', 'Foot', 'Hand', [], -1],
    ['Thigh', 'Shank', 'Claw', 'Claw', ['Wing'], -1],
  ] as const)(
    'bends %s, %s, %s at the first try where its %s is pulled up (with %s)',
    (a, b, c, tip, more, forward) => {
      const p = half([a, b, c], more),
        before = at(p, boneOf(p, tip).id);
      const q = run(p, edits.addLimbEdit, { tip: boneOf(p, tip).id }),
        ik = ikOf(q, tip);
      const middle = q.rig.bones.find((o) => o.id === boneOf(q, tip).parent)!;
      // Half a cube of bend, on half cubes, and everything else where it was.
      expect(at(q, middle.id)[2]).toBeCloseTo(0.5 * forward, 9);
      at(q, boneOf(q, tip).id).forEach((v, i) => expect(v).toBeCloseTo(before[i]!, 9));
      expect(
        placeParts(q).map((o) => transformPoint(o.matrix, [0, 0, 0]).map((v) => Math.round(v * 1e6) / 1e6 || 0)),
      ).toEqual(
        placeParts(p).map((o) => transformPoint(o.matrix, [0, 0, 0]).map((v) => Math.round(v * 1e6) / 1e6 || 0)),
      );
      const pose = pulled(q, ik, [0, 5, 0]);
      expect(length(sub(at(q, boneOf(q, tip).id, pose), at(q, ik.goal, pose)))).toBeLessThan(1e-6);
      expect(Math.sign(at(q, middle.id, pose)[2])).toBe(forward);
      // Turned round, it bends to the other side, by as much.
      const round = run(q, edits.turnLimbEdit, { constraint: ik.id });
      expect(at(round, middle.id, pose)[2]).toBeCloseTo(-at(q, middle.id, pose)[2], 6);
      expect(
        run(round, edits.turnLimbEdit, { constraint: ik.id }).rig.bones.map((o) =>
          o.rest.t.map((v) => Math.round(v * 1e6) / 1e6 || 0),
        ),
      ).toEqual(q.rig.bones.map((o) => o.rest.t.map((v) => Math.round(v * 1e6) / 1e6 || 0)));
    },
  );
  it('never bends sideways for a joint a little out of line, but does to one that was modelled well out of it', () => {
    let p = half();
    p = run(p, edits.moveJointEdit, { bone: boneOf(p, 'Forearm').id, delta: [1.5, 0, 0] });
    const q = run(p, edits.addLimbEdit, { tip: boneOf(p, 'Hand').id });
    expect(ikOf(q, 'Hand').bend).toEqual([0, 0, -1]);
    // At rest the sideways lean is where it was.
    expect(at(q, boneOf(q, 'Forearm').id).map((v) => Math.round(v * 1e6) / 1e6)).toEqual([6.5, 25, -0.5]);
    const wide = run(p, edits.moveJointEdit, { bone: boneOf(p, 'Forearm').id, delta: [3, 0, 0] });
    expect(ikOf(run(wide, edits.addLimbEdit, { tip: boneOf(wide, 'Hand').id }), 'Hand').bend).toEqual([1, 0, 0]);
  });
  it('asks which end is meant where that is in doubt, makes one at the far end, and hangs its goal as chosen', () => {
    const p = half();
    const id = (name: string): string => boneOf(p, name).id;
    expect(edits.limbChoice(p, id('Foot'))).toEqual({
      ends: [{ bone: id('Foot'), far: false }],
      doubt: false,
      along: false,
    });
    // A forearm: the hand below it comes first, then its own joint, the elbow.
    const fore = edits.limbChoice(p, id('Forearm'));
    expect(fore.doubt).toBe(true);
    expect(fore.along).toBe(true);
    expect(fore.ends).toEqual([
      { bone: id('Hand'), far: false },
      { bone: id('Forearm'), far: false },
    ]);
    // Without a hand it ends where the forearm does: five below its joint.
    const bare = run(p, edits.deleteBoneEdit, { bone: id('Hand') });
    expect(edits.limbChoice(bare, id('Forearm')).ends[0]).toEqual({ bone: id('Forearm'), far: true });
    const made = run(bare, edits.addLimbEdit, { tip: id('Forearm'), far: true, along: true });
    expect(at(made, boneOf(made, 'Forearm end').id)).toEqual([5, 20, 0]);
    const ik = ikOf(made, 'Forearm end');
    // Moving the body takes the goal along, or does not.
    const goalAt = (q: Project): Vec3 => {
      const hips = boneOf(q, 'Hips', 'centre');
      return at(q, ik.goal, new Map([[hips.id, { ...hips.rest, t: [0, 27, 0] }]]));
    };
    expect(goalAt(made)).toEqual([5, 27, 0]);
    const planted = run(made, edits.setLimbAlongEdit, { constraint: ik.id, along: false });
    expect(goalAt(planted)).toEqual([5, 20, 0]);
    expect(at(planted, ik.pole!)).toEqual(at(made, ik.pole!));
  });
  it('keeps a knee that was modelled, and says what a limb needs', () => {
    let p = half();
    p = run(p, edits.moveJointEdit, { bone: boneOf(p, 'Shin').id, delta: [0, 0, -2] });
    const q = run(p, edits.addLimbEdit, { tip: boneOf(p, 'Foot').id });
    expect(at(q, boneOf(q, 'Shin').id)[2]).toBe(-2);
    expect(ikOf(q, 'Foot').bend).toEqual([0, 0, -1]);
    expect(() => run(q, edits.addLimbEdit, { tip: boneOf(q, 'Foot').id })).toThrow(/has a limb already/);
    expect(() => run(q, edits.addLimbEdit, { tip: boneOf(q, 'Thigh').id })).toThrow(
      /has one bone above it; a limb needs two/,
    );
    expect(() => run(q, edits.reparentBoneEdit, { bone: ikOf(q, 'Foot').goal, parent: boneOf(q, 'Shin').id })).toThrow(
      /would steer itself in a circle/,
    );
    expect(() =>
      run(q, edits.addConstraintEdit, {
        constraint: {
          kind: 'look',
          bone: ikOf(q, 'Foot').goal,
          target: boneOf(q, 'Foot').id,
          axis: [0, 0, 1],
          on: true,
          amount: 1,
        },
      }),
    ).toThrow(/circle/);
  });
  it('goes to the bin with its bones and comes back with them; clips ship its turns solved', () => {
    const p = half();
    let q = run(p, edits.addLimbEdit, { tip: boneOf(p, 'Foot').id });
    const ik = ikOf(q, 'Foot'),
      gone = run(q, edits.deleteBoneEdit, { bone: ik.goal });
    expect(gone.rig.constraints).toEqual([]);
    expect(run(gone, edits.restoreEdit, { item: gone.bin.at(-1)!.id }).rig.constraints).toEqual([ik]);
    q = run(q, edits.addClipEdit, { name: 'Step', frames: 12, fps: 24, loop: false });
    const clip = q.clips.at(-1)!;
    for (const [time, value] of [
      [0, [0, 0, 0]],
      [600, [0, 4, 3]],
    ] as [number, Vec3][])
      q = run(q, edits.setKeyEdit, {
        clip: clip.id,
        bone: ik.goal,
        channel: 'move',
        key: { time, ease: 'linear', value },
      });
    const tracks = bakeClip(q.clips.at(-1)!, q.rig);
    expect(tracks.map((t) => [q.rig.bones.find((b) => b.id === t.bone)!.name, t.channel, t.interpolation])).toEqual([
      ['Thigh', 'turn', 'CUBICSPLINE'],
      ['Shin', 'turn', 'CUBICSPLINE'],
      ['Foot', 'turn', 'CUBICSPLINE'],
      ['Foot goal', 'move', 'LINEAR'],
    ]);
    // What an engine that knows no constraints makes of it: the foot on its goal.
    const last = new Map<string, Transform>(
      tracks.map((t) => {
        const rest = q.rig.bones.find((b) => b.id === t.bone)!.rest;
        return [
          t.bone,
          t.channel === 'turn'
            ? { ...rest, q: [...t.values.slice(-8, -4)] as never }
            : { ...rest, t: [...t.values.slice(-3)] as never },
        ];
      }),
    );
    const plain = { ...q, rig: { ...q.rig, constraints: [] } };
    sub(at(plain, boneOf(q, 'Foot').id, last), at(plain, ik.goal, last)).forEach((v) => expect(v).toBeCloseTo(0, 4));
  });
});

describe('the other side', () => {
  const whole = (): Project => {
    let p = half();
    for (const tip of ['Foot', 'Hand']) p = run(p, edits.addLimbEdit, { tip: boneOf(p, tip).id });
    p = run(p, edits.addConstraintEdit, {
      constraint: {
        kind: 'limit',
        bone: boneOf(p, 'Hand').id,
        on: true,
        amount: 1,
        min: [-10, -20, -30],
        max: [40, 50, 60],
      },
    });
    return run(p, edits.mirrorRigEdit, { from: 'left', plane: 0 });
  };
  const flip = (v: readonly number[]): number[] => [-v[0]! || 0, v[1]!, v[2]!];
  const round = (v: readonly number[]): number[] => v.map((x) => Math.round(x * 1e6) / 1e6 || 0);
  const mirrored = (p: Project): void => {
    for (const b of p.rig.bones.filter((o) => o.side === 'left'))
      expect(round(at(p, boneOf(p, b.name, 'right').id))).toEqual(round(flip(at(p, b.id))));
    const cubes = (side: Side, turn: (v: readonly number[]) => number[]): string[] =>
      placeParts(p)
        .filter((o) => o.part.side === side)
        .flatMap(({ part, matrix }) => {
          const out: string[] = [];
          composite(part).forEach((x, y, z, v) =>
            out.push(`${part.name} ${round(turn(transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5]))).join()} ${v}`),
          );
          return out;
        })
        .sort();
    expect(cubes('right', (v) => [...v])).toEqual(cubes('left', flip));
  };
  it('is made in one action: bones, parts, limbs and limits, as exact mirror images', () => {
    const p = whole();
    mirrored(p);
    expect([
      p.rig.bones.filter((b) => b.side === 'right').length,
      p.parts.filter((o) => o.side === 'right').length,
    ]).toEqual([10, 6]);
    expect(p.rig.constraints.filter((c) => c.kind === 'ik')).toHaveLength(4);
    expect(p.rig.constraints.find((c) => c.kind === 'limit' && c.bone === boneOf(p, 'Hand', 'right').id)).toMatchObject(
      { min: [-10, -50, -60], max: [40, 20, 30] },
    );
    const left = ikOf(p, 'Hand'),
      right = ikOf(p, 'Hand', 'right');
    const a = at(p, boneOf(p, 'Forearm').id, pulled(p, left, [1, 3, 2])),
      b = at(p, boneOf(p, 'Forearm', 'right').id, pulled(p, right, [-1, 3, 2]));
    expect(round(b)).toEqual(round(flip(a)));
  });
  it('follows again after shape, pivot, limb and limit have changed, and keeps its bones and what is keyed on them', () => {
    let p = whole();
    const ids = p.rig.bones.map((b) => b.id),
      parts = p.parts.map((o) => o.id);
    const arm = p.parts.find((o) => o.name === 'Upper arm' && o.side === 'left')!;
    p = run(p, edits.strokeEdit, {
      part: arm.id,
      layer: arm.layers[0]!.id,
      stroke: boxStroke('add', 7, [
        { min: [arm.bounds.min[0] + 1, arm.bounds.min[1], arm.bounds.min[2]], size: [1, 2, 1] },
      ]),
    });
    p = run(p, edits.moveJointEdit, { bone: boneOf(p, 'Forearm').id, delta: [1, 0.5, 0] });
    p = run(p, edits.changeConstraintEdit, { constraint: { ...ikOf(p, 'Hand'), amount: 0.5, hold: false } });
    p = run(p, edits.deleteConstraintEdit, {
      constraint: p.rig.constraints.find((c) => c.kind === 'limit' && c.bone === boneOf(p, 'Hand').id)!.id,
    });
    p = run(p, edits.mirrorRigEdit, { from: 'left', plane: 0 });
    mirrored(p);
    expect([p.rig.bones.map((b) => b.id), p.parts.map((o) => o.id)]).toEqual([ids, parts]);
    expect(ikOf(p, 'Hand', 'right')).toMatchObject({ amount: 0.5, hold: false });
    expect(p.rig.constraints.some((c) => c.kind === 'limit')).toBe(false);
    expect(run(p, edits.mirrorRigEdit, { from: 'left', plane: 0 }).rig.constraints).toEqual(p.rig.constraints);
    expect(() =>
      run(
        { ...p, rig: { ...p.rig, bones: p.rig.bones.filter((b) => b.side !== 'left'), constraints: [] } },
        edits.mirrorRigEdit,
        { from: 'left', plane: 0 },
      ),
    ).toThrow(/No bone is on the left side/);
  });
  it('takes attachment points along, which go to the bin with their bone and ship as empty nodes', async () => {
    let p = half();
    p = run(p, edits.addAttachmentEdit, {
      bone: boneOf(p, 'Hand').id,
      name: 'Grip',
      t: [1, -2, 0.5],
      q: quatFromAxisAngle([0, 1, 0], 0.6),
    });
    p = run(p, edits.mirrorRigEdit, { from: 'left', plane: 0 });
    const grip = (side: Side, q = p) => q.rig.attachments.find((t) => t.name === 'Grip' && t.side === side)!;
    expect([grip('right').bone, grip('right').t]).toEqual([boneOf(p, 'Hand', 'right').id, [-1, -2, 0.5]]);
    const ahead = (side: Side): Vec3 =>
      sub(
        transformPoint(
          mulMat(
            worldMatrices(p.rig).get(grip(side).bone)!,
            matrixOf({ t: grip(side).t, q: grip(side).q, s: [1, 1, 1] }),
          ),
          [0, 0, 1],
        ),
        transformPoint(
          mulMat(
            worldMatrices(p.rig).get(grip(side).bone)!,
            matrixOf({ t: grip(side).t, q: grip(side).q, s: [1, 1, 1] }),
          ),
          [0, 0, 0],
        ),
      );
    expect(round(ahead('right'))).toEqual(round(flip(ahead('left'))));
    const again = run(
      run(p, edits.changeAttachmentEdit, { attachment: grip('left').id, t: [2, 0, 0], name: 'Grip' }),
      edits.mirrorRigEdit,
      { from: 'left', plane: 0 },
    );
    expect([again.rig.attachments.length, grip('right', again).t, grip('right', again).id]).toEqual([
      2,
      [-2, 0, 0],
      grip('right').id,
    ]);
    const gone = run(p, edits.deleteBoneEdit, { bone: boneOf(p, 'Hand').id });
    expect(gone.rig.attachments.map((t) => t.side)).toEqual(['right']);
    expect(run(gone, edits.restoreEdit, { item: gone.bin.at(-1)!.id }).rig.attachments).toContainEqual(grip('left'));
    const { result, counts } = await exportGlb(p);
    const node = (await new WebIO().readBinary(result))
      .getRoot()
      .listNodes()
      .find((o) => o.getName() === 'Grip left')!;
    expect([
      node.getMesh(),
      node.getParentNode()!.getName(),
      node.getTranslation().map((v) => v / p.metresPerUnit),
    ]).toEqual([null, 'Hand left', [expect.closeTo(1, 6), expect.closeTo(-2, 6), expect.closeTo(0.5, 6)]]);
    expect(counts.nodes).toBe(planGlb(p).nodes);
    expect(() => run(p, edits.changeAttachmentEdit, { attachment: grip('left').id, name: ' ' })).toThrow(/1 to 120/);
    expect(run(p, edits.deleteAttachmentEdit, { attachment: grip('left').id }).rig.attachments).toHaveLength(1);
  });
  it('is where everything goes when the whole is flipped: mirrored at every moment of a clip; twice is the figure again', () => {
    let p = half();
    p = run(p, edits.addLimbEdit, { tip: boneOf(p, 'Foot').id });
    p = run(p, edits.addClipEdit, { name: 'Kick', frames: 12, fps: 24, loop: false });
    for (const [bone, channel, value] of [
      ['Upper arm', 'turn', quatFromAxisAngle([0.6, 0, 0.8], 0.9)],
      ['Foot goal', 'move', [1, 4, 3]],
    ] as [string, 'turn', never][])
      p = run(p, edits.setKeyEdit, {
        clip: p.clips[0]!.id,
        bone: boneOf(p, bone).id,
        channel,
        key: { time: 600, ease: 'linear', value },
      });
    const q = run(p, edits.flipRigEdit, { plane: 0 });
    const seen = (o: Project, turn: (v: readonly number[]) => number[]): string[] =>
      placeParts(o, sampleClip(o.clips[0]!, o.rig, 600))
        .flatMap(({ part, matrix }) => {
          const out: string[] = [];
          composite(part).forEach((x, y, z, v) =>
            out.push(
              `${part.name} ${turn(transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5]))
                .map((c) => Math.round(c * 1e4) / 1e4 || 0)
                .join()} ${v}`,
            ),
          );
          return out;
        })
        .sort();
    expect(seen(q, (v) => [...v])).toEqual(seen(p, flip));
    expect(q.rig.bones.filter((b) => b.side === 'right')).toHaveLength(
      p.rig.bones.filter((b) => b.side === 'left').length,
    );
    expect(seen(run(q, edits.flipRigEdit, { plane: 0 }), (v) => [...v])).toEqual(seen(p, (v) => [...v]));
  });
});

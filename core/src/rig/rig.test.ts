import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Transform, type Vec3, matrixOf, mulMat, quatFromAxisAngle, sub, transformPoint } from '../math';
import { type Bone, EMPTY_RIG, PLAIN_BONE, type Project, type Rig, idsFrom, makeProject } from '../model';
import {
  addBoneEdit,
  addPartEdit,
  apply,
  editContext,
  moveJointEdit,
  reparentBoneEdit,
  setPivotEdit,
  setRestEdit,
} from '../project';
import { mountMatrix, placeParts, proposedName, restWorld, worldMatrices } from '.';

let step = 0;
const ctx = () => editContext(`rig test ${step++}`);
/** Hips at (0, 10, 0), thigh and shin below, a part on the thigh with its pivot on the joint. */
function leg(): Project {
  let p: Project = { ...makeProject('p', 'Leg', idsFrom('leg')), parts: [], rig: EMPTY_RIG };
  p = apply(p, addBoneEdit, { name: 'Hips', parent: null, t: [0, 10, 0] }, ctx());
  p = apply(p, addBoneEdit, { name: 'Thigh', parent: p.rig.bones[0]!.id, t: [2, -1, 0] }, ctx());
  p = apply(p, addBoneEdit, { name: 'Shin', parent: p.rig.bones[1]!.id, t: [0, -4, 0] }, ctx());
  return apply(
    p,
    addPartEdit,
    { name: 'Thigh', bounds: { min: [0, 4, -2], size: [4, 6, 4] }, bone: p.rig.bones[1]!.id, pivot: [4, 18, 0] },
    ctx(),
  );
}
const corner = (p: Project, at: Vec3): Vec3 => transformPoint(placeParts(p)[0]!.matrix, at);
const close = (a: Vec3, b: Vec3): void => a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 8));
const angle = fc.double({ min: -3, max: 3, noNaN: true });
const half = fc.integer({ min: -40, max: 40 }).map((h) => h / 2);

describe('transforms as written', () => {
  it('a point stands at World(bone) · T(m) · R(m) · S(m · cell) · T(−pivot) · p, worked out by hand', () => {
    // A cube edge of 2, pivot (1, 0, 0) in cubes, mounted 3 up and turned a quarter about Z on a bone at (10, 0, 0) turned a quarter about Y.
    const quarterZ = quatFromAxisAngle([0, 0, 1], Math.PI / 2),
      quarterY = quatFromAxisAngle([0, 1, 0], Math.PI / 2);
    const part = { pivot: [2, 0, 0] as Vec3, cell: 2 };
    const m = mountMatrix(
      { alternateSet: null, id: 'm', part: 'p', bone: 'b', t: [0, 3, 0], q: quarterZ, s: [1, 1, 1] },
      part as never,
    );
    const bone = matrixOf({ t: [10, 0, 0], q: quarterY, s: [1, 1, 1] });
    // (4,1,0) − pivot = (3,1,0); × 2 = (6,2,0); quarter about Z = (−2,6,0); + (0,3,0) = (−2,9,0); quarter about Y = (0,9,2); + (10,0,0).
    close(transformPoint(mulMat(bone, m), [4, 1, 0]), [10, 9, 2]);
  });

  it('children follow a turn of their parent', () => {
    const p = leg();
    const turned = apply(
      p,
      setRestEdit,
      { bone: p.rig.bones[1]!.id, rest: { q: quatFromAxisAngle([1, 0, 0], -Math.PI / 2) } },
      ctx(),
    );
    const shin = worldMatrices(turned.rig).get(p.rig.bones[2]!.id)!;
    // The shin hung 4 below the thigh's joint at (2, 9, 0); a quarter turn forward brings it 4 in front.
    close([shin[12]!, shin[13]!, shin[14]!], [2, 9, 4]);
  });
});

describe('keep in place', () => {
  it('moving a joint moves no cube and no child, whatever the pose and the way', () => {
    fc.assert(
      fc.property(angle, angle, fc.tuple(half, half, half), (a, b, delta) => {
        let p = leg();
        p = apply(p, setRestEdit, { bone: p.rig.bones[0]!.id, rest: { q: quatFromAxisAngle([0, 0, 1], a) } }, ctx());
        p = apply(p, setRestEdit, { bone: p.rig.bones[1]!.id, rest: { q: quatFromAxisAngle([1, 0, 0], b) } }, ctx());
        const moved = apply(p, moveJointEdit, { bone: p.rig.bones[1]!.id, delta: delta as Vec3 }, ctx());
        close(corner(moved, [0, 4, -2]), corner(p, [0, 4, -2]));
        close(corner(moved, [4, 10, 2]), corner(p, [4, 10, 2]));
        const shin = (q: Project): Vec3 => transformPoint(worldMatrices(q.rig).get(p.rig.bones[2]!.id)!, [0, 0, 0]);
        close(shin(moved), shin(p));
      }),
      { numRuns: 60 },
    );
  });

  it('carries the anchor of a part whose pivot stood on the joint', () => {
    const p = leg();
    const moved = apply(p, moveJointEdit, { bone: p.rig.bones[1]!.id, delta: [0.5, -1, 0] }, ctx());
    expect(moved.parts[0]!.pivot).toEqual([5, 16, 0]);
    expect(moved.rig.mounts[0]!.t).toEqual([0, 0, 0]);
  });

  it('a part that hangs elsewhere too keeps its anchor: moving one joint moves no copy', () => {
    let p = leg();
    const [hips, thigh] = p.rig.bones;
    p = { ...p, rig: { ...p.rig, mounts: [...p.rig.mounts, { ...p.rig.mounts[0]!, id: 'copy', bone: hips!.id }] } };
    const corners = (q: Project): Vec3[] => placeParts(q).map((m) => transformPoint(m.matrix, [0, 4, -2]));
    const moved = apply(p, moveJointEdit, { bone: thigh!.id, delta: [0.5, -1, 0] }, ctx());
    corners(moved).forEach((at, i) => close(at, corners(p)[i]!));
    expect(moved.parts).toBe(p.parts);
  });

  it('a pivot takes the joint it stands on along, every cube staying, and turns there', () => {
    fc.assert(
      fc.property(angle, fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })), (a, [x, y]) => {
        let p = leg();
        const thigh = p.rig.bones[1]!.id;
        p = apply(p, setRestEdit, { bone: thigh, rest: { q: quatFromAxisAngle([0, 0.6, 0.8], a) } }, ctx());
        const q = apply(p, setPivotEdit, { part: p.parts[0]!.id, pivot: [x, y, 3], joint: true }, ctx());
        close(corner(q, [1, 5, 0]), corner(p, [1, 5, 0]));
        expect(q.rig.mounts[0]!.t).toEqual([0, 0, 0]);
        const m = worldMatrices(q.rig).get(thigh)!;
        close([m[12]!, m[13]!, m[14]!], corner(p, [x / 2, y / 2, 1.5]));
      }),
      { numRuns: 60 },
    );
  });

  it('moving a pivot and hanging a bone elsewhere keep every cube', () => {
    fc.assert(
      fc.property(
        angle,
        fc.tuple(
          fc.integer({ min: -20, max: 20 }),
          fc.integer({ min: -20, max: 20 }),
          fc.integer({ min: -20, max: 20 }),
        ),
        (a, pivot) => {
          let p = leg();
          p = apply(p, setRestEdit, { bone: p.rig.bones[1]!.id, rest: { q: quatFromAxisAngle([0, 1, 0], a) } }, ctx());
          const at = corner(p, [1, 5, 0]);
          close(corner(apply(p, setPivotEdit, { part: p.parts[0]!.id, pivot: pivot as Vec3 }, ctx()), [1, 5, 0]), at);
          close(corner(apply(p, reparentBoneEdit, { bone: p.rig.bones[1]!.id, parent: null }, ctx()), [1, 5, 0]), at);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('refuses a circle of bones with a sentence', () => {
    const p = leg();
    expect(() => apply(p, reparentBoneEdit, { bone: p.rig.bones[0]!.id, parent: p.rig.bones[2]!.id }, ctx())).toThrow(
      /“Hips” cannot hang on “Shin”/,
    );
  });
});

describe('matrices', () => {
  it('scale first, then turn, then move', () => {
    const t: Transform = { t: [1, 2, 3], q: quatFromAxisAngle([0, 1, 0], Math.PI / 2), s: [2, 3, 4] };
    close(transformPoint(matrixOf(t), [1, 1, 1]), [1 + 4, 2 + 3, 3 - 2]);
  });
});

describe('usual names', () => {
  it('are proposed in order from the hips to head, hand and foot; a tail counts on', () => {
    let rig: Rig = EMPTY_RIG;
    const grow = (parent: string | null, at: Vec3): string => {
      const above = rig.bones.find((b) => b.name === parent) ?? null;
      const name = proposedName(rig, above?.id ?? null, at);
      const t = above ? sub(at, restWorld(rig).get(above.id)!.t) : at;
      const rest = { t, q: [0, 0, 0, 1], s: [1, 1, 1] } as const;
      const bone: Bone = {
        id: `b${rig.bones.length}`,
        name,
        side: 'centre',
        parent: above?.id ?? null,
        rest,
        ...PLAIN_BONE,
      };
      rig = { ...rig, bones: [...rig.bones, bone] };
      return name;
    };
    expect([
      grow(null, [0, 12, 0]),
      grow('Hips', [0, 15, 0]),
      grow('Spine', [0, 20, 0]),
      grow('Chest', [0, 24, 0]),
      grow('Neck', [0, 26, 0]),
      grow('Chest', [4, 23, 0]),
      grow('Upper arm', [6, 18, 0]),
      grow('Forearm', [6, 13, 0]),
      grow('Hips', [2, 10, 0]),
      grow('Thigh', [2, 6, 0]),
      grow('Shin', [2, 1, 0]),
      grow(null, [9, 0, 0]),
      grow('Bone', [9, 1, 0]),
      grow('Bone 2', [9, 2, 0]),
    ]).toEqual([
      'Hips',
      'Spine',
      'Chest',
      'Neck',
      'Head',
      'Upper arm',
      'Forearm',
      'Hand',
      'Thigh',
      'Shin',
      'Foot',
      'Bone',
      'Bone 2',
      'Bone 3',
    ]);
  });
});

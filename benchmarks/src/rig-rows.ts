import { type Vec3, add, length, normalize, quatFromEuler, scale, seededRandom, sub } from '@sphalerite/core/math';
import { type Bone, EMPTY_RIG, PLAIN_BONE, type Rig } from '@sphalerite/core/model';
import { type Pose, solvePose, studyJoint, worldMatrices } from '@sphalerite/core/rig';
import { CellSet } from '@sphalerite/core/voxel';
import { type Row, median, ms } from './rows';

const bone = (id: string, parent: string | null, t: Vec3): Bone => ({
  id,
  name: id,
  side: 'centre',
  ...PLAIN_BONE,
  parent,
  rest: { t, q: [0, 0, 0, 1], s: [1, 1, 1] },
});

/** A biped of 24 bones: with four limbs by IK, and the same without. */
function biped(): { rig: Rig; poses: Pose[] } {
  const bones: Bone[] = [
    bone('hips', null, [0, 20, 0]),
    bone('chest', 'hips', [0, 6, 0]),
    bone('neck', 'chest', [0, 6, 0]),
    bone('head', 'neck', [0, 2, 0]),
  ];
  const constraints: Rig['constraints'][number][] = [];
  for (const [limb, from, x] of [
    ['leg l', 'hips', 3],
    ['leg r', 'hips', -3],
    ['arm l', 'chest', 5],
    ['arm r', 'chest', -5],
  ] as const) {
    bones.push(
      bone(`${limb} 1`, from, [x, 0, 0]),
      bone(`${limb} 2`, `${limb} 1`, [0, -8, 0.5]),
      bone(`${limb} 3`, `${limb} 2`, [0, -8, -0.5]),
    );
    bones.push(bone(`${limb} goal`, null, [x, from === 'hips' ? 4 : 10, 0]), bone(`${limb} bend`, null, [x, 12, 14]));
    constraints.push({
      id: limb,
      kind: 'ik',
      bone: `${limb} 3`,
      on: true,
      amount: 1,
      goal: `${limb} goal`,
      pole: `${limb} bend`,
      links: 2,
      bend: [0, 0, 1],
      hold: true,
    });
  }
  const rig: Rig = { ...EMPTY_RIG, bones, constraints },
    random = seededRandom(5);
  const poses = Array.from(
    { length: 200 },
    (): Pose =>
      new Map(
        bones
          .filter((b) => / goal$/.test(b.id))
          .map((b) => [b.id, { ...b.rest, t: add(b.rest.t, [random() * 6 - 3, random() * 8, random() * 6 - 3]) }]),
      ),
  );
  return { rig, poses };
}

/** The usual iterative way for one limb, for as long as it is as exact. */
function iterated(root: Vec3, l1: number, l2: number, goal: Vec3): Vec3 {
  let knee: Vec3 = [root[0], root[1] - l1, root[2] + 0.5],
    end: Vec3 = goal;
  for (let k = 0; k < 400; k++) {
    end = goal;
    knee = add(end, scale(normalize(sub(knee, end)), l2));
    knee = add(root, scale(normalize(sub(knee, root)), l1));
    end = add(knee, scale(normalize(sub(end, knee)), l2));
    if (length(sub(end, goal)) < 1e-9) break;
  }
  return knee;
}

function limbs(): Row {
  const { rig, poses } = biped();
  const ours = median(5, () => poses.forEach((p) => solvePose(rig, p)));
  const theirs = median(3, () =>
    poses.forEach((p) => {
      for (const limb of ['leg l', 'leg r', 'arm l', 'arm r'])
        iterated([0, 20, 0], 8.02, 8.02, p.get(`${limb} goal`)!.t);
      worldMatrices({ ...rig, constraints: [] }, p);
    }),
  );
  return {
    name: '200 poses of a biped of 24 bones with four limbs',
    ours: ms(ours),
    theirs: `${ms(theirs)} matrices and knees by iteration`,
    ratio: theirs / ours,
    goal: '≤ 0.3 ms a pose',
    ok: ours <= 60,
  };
}

function study(): Row {
  const limb = CellSet.ofBox({ min: [0, 0, 0], size: [8, 24, 8] }),
    body = CellSet.ofBox({ min: [-6, 24, -4], size: [20, 20, 16] });
  const angles = Array.from({ length: 13 }, (_, i) => -60 + 10 * i),
    pivots: Vec3[] = [
      [8, 48, 8],
      [8, 44, 8],
      [8, 52, 8],
    ];
  const ours = median(3, () => void studyJoint(limb, body, pivots, 0, angles));
  // The same sum by trying every point of a grid around the joint at every angle.
  const theirs = median(1, () => {
    let n = 0;
    for (const pivot of pivots)
      for (const a of angles) {
        const q = quatFromEuler([(-a * Math.PI) / 180, 0, 0]);
        for (let x = -6; x < 14; x += 1 / 3)
          for (let y = 0; y < 48; y += 1 / 3)
            for (let z = -20; z < 28; z += 1 / 3) {
              const p: Vec3 = [x - pivot[0] / 2, y - pivot[1] / 2, z - pivot[2] / 2];
              const u = [q[1] * p[2] - q[2] * p[1], q[2] * p[0] - q[0] * p[2], q[0] * p[1] - q[1] * p[0]];
              const r = [0, 1, 2].map(
                (i) =>
                  p[i]! +
                  2 *
                    (q[3] * u[i]! +
                      [q[1] * u[2]! - q[2] * u[1]!, q[2] * u[0]! - q[0] * u[2]!, q[0] * u[1]! - q[1] * u[0]!][i]!) +
                  pivot[i]! / 2,
              );
              if (
                body.has(Math.floor(x), Math.floor(y), Math.floor(z)) &&
                limb.has(Math.floor(r[0]!), Math.floor(r[1]!), Math.floor(r[2]!))
              )
                n++;
            }
      }
    if (n === 0) throw new Error('The plain way found no overlap.');
  });
  return {
    name: 'a joint study: 1,536 cubes, 3 pivots, 13 angles',
    ours: ms(ours),
    theirs: `${ms(theirs)} a grid of points, overlap alone`,
    ratio: theirs / ours,
    goal: '≥ 3×',
    ok: theirs / ours >= 3,
  };
}

export const rigRows = (): Row[] => [limbs(), study()];

import { makeCamera } from '@sphalerite/core/model';
import { type Vec3, boxFromCells } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import {
  addBoneEdit,
  addRegionsEdit,
  addShotEdit,
  moveJointEdit,
  renameProjectEdit,
  reparentBoneEdit,
  takeApartEdit,
} from '@sphalerite/core/project';
import { CellSet } from '@sphalerite/core/voxel';
import { type Gait, footPath } from './gait';
import { Maker, type Pose } from './maker';
import { buildOswin } from './oswin';

const box = (name: string, a: Vec3, b: Vec3) => ({
  name,
  side: 'centre' as const,
  cells: CellSet.ofBox(boxFromCells(a, b)),
});
const both = (name: string, a: Vec3, b: Vec3) => [
  box(name, a, b),
  box(name, [-1 - b[0], a[1], a[2]], [-1 - a[0], b[1], b[2]]),
];

/** Oswin taken apart and on his feet: fourteen parts, legs by IK, shoulders to flap from; he walks, wades and flies. */
export function buildOswinRigged(): Project {
  const m = Maker.from({ ...buildOswin(), id: 'demo-oswin-rigged' });
  m.apply(renameProjectEdit, { name: 'Oswin, on his feet' });
  const whole = m.project.parts[0]!.id;
  m.apply(addRegionsEdit, {
    part: whole,
    half: 0,
    pieces: [
      box('Beak', [-2, 34, 13], [1, 35, 20]),
      box('Head', [-4, 33, -1], [3, 39, 12]),
      box('Upper neck', [-2, 29, 6], [1, 32, 9]),
      box('Middle neck', [-2, 25, 5], [1, 28, 10]),
      box('Lower neck', [-3, 19, 5], [2, 24, 9]),
      ...both('Wing', [5, 13, -15], [7, 21, 5]),
      ...both('Thigh', [2, 9, -2], [4, 12, 2]),
      ...both('Shin', [3, 2, -1], [4, 8, 1]),
      ...both('Foot', [2, 0, -2], [4, 1, 6]),
    ],
  });
  m.apply(takeApartEdit, {
    part: whole,
    rest: 'Body',
    plug: 0,
    clearance: 0,
    socket: false,
    bones: true,
    keepWhole: false,
  });
  // Wings turn about their front upper corner, and flap from a shoulder above them.
  for (const [side, s] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    const wing = m.boneId(`Wing ${side}`),
      at = m.jointOf(`Wing ${side}`);
    m.apply(moveJointEdit, { bone: wing, delta: [s * 5 - at[0], 20 - at[1], 3 - at[2]] });
    const parent = m.project.rig.bones.find((b) => b.id === wing)!.parent,
      above = parent === null ? [0, 0, 0] : m.jointAt(parent);
    m.apply(addBoneEdit, { name: 'Shoulder', side, parent, t: [s * 5 - above[0]!, 20 - above[1]!, 3 - above[2]!] });
    m.apply(reparentBoneEdit, { bone: wing, parent: m.boneId(`Shoulder ${side}`) });
    m.limb(`Foot ${side}`);
  }
  m.attach('Perch', 'Root', [0, 23, -3]);
  walk(m);
  wade(m);
  fly(m);
  const { id: _id, name: _name, ...evening } = m.project.shots[0]!;
  m.apply(addShotEdit, {
    name: 'Over the reeds',
    shot: {
      ...evening,
      camera: makeCamera({ kind: 'perspective', eye: [58, 30, 66], target: [0, 26, -2], fov: 38, height: 60 }),
      clip: m.clipId('Fly'),
      time: 200,
    },
  });
  return m.project;
}

const STEP: Gait = { cycle: 40, stride: 8, lift: 4, stands: 0.6, heel: 26, toe: 4 };

/** The head stands still in the world while the body goes under it, then is thrust on: once a step. */
const bob = (cycle: number, by: number): Pose[] =>
  [0, 0.5, 1].flatMap((half): Pose[] => [
    { at: Math.round(cycle * half), turn: [by] },
    ...(half < 1
      ? [
          { at: Math.round(cycle * (half + 0.34)), turn: [-by] as const },
          { at: Math.round(cycle * (half + 0.42)), turn: [by * 1.2] as const },
        ]
      : []),
  ]);

function walk(m: Maker): void {
  const c = STEP.cycle;
  m.clip('Walk', c, 24, true, {
    Root: [0, 0.25, 0.5, 0.75, 1].map((k, i): Pose => ({
      at: c * k,
      move: [i === 1 ? 0.5 : i === 3 ? -0.5 : 0, i % 2 === 0 ? -1.3 : -0.7, 0],
      turn: [i % 2 === 0 ? 2 : 0, 0, i === 1 ? 2 : i === 3 ? -2 : 0],
    })),
    'Lower neck': bob(c, 5),
    'Middle neck': bob(c, -4),
    'Upper neck': bob(c, -3),
    Head: bob(c, 2.5),
    'Foot goal left': footPath(STEP, 0),
    'Foot goal right': footPath(STEP, c / 2),
    'Wing left': [
      { at: 0, turn: [0, 0, 1] },
      { at: 14, turn: [1, 0, 3] },
      { at: 40, turn: [0, 0, 1] },
    ],
    'Wing right': [
      { at: 0, turn: [0, 0, -1] },
      { at: 34, turn: [1, 0, -3] },
      { at: 40, turn: [0, 0, -1] },
    ],
  });
}

function wade(m: Maker): void {
  const slow: Gait = { cycle: 72, stride: 7, lift: 7.5, stands: 0.65, heel: 40, toe: 10 },
    c = slow.cycle;
  m.clip('Wade', c, 24, true, {
    Root: [0, 0.25, 0.5, 0.75, 1].map((k, i): Pose => ({
      at: c * k,
      move: [i === 1 ? 0.8 : i === 3 ? -0.8 : 0, -1.2, 0],
      turn: [i % 2 === 0 ? 6 : 3, 0, i === 1 ? 3 : i === 3 ? -3 : 0],
    })),
    // He peers into the water on both sides, and freezes.
    'Lower neck': [
      { at: 0, turn: [14] },
      { at: 20, turn: [20, 8, 0] },
      { at: 34, turn: [20, 8, 0] },
      { at: 52, turn: [12, -8, 0] },
      { at: 64, turn: [12, -8, 0] },
      { at: 72, turn: [14] },
    ],
    'Middle neck': [
      { at: 0, turn: [10] },
      { at: 22, turn: [16, 6, 0] },
      { at: 36, turn: [16, 6, 0] },
      { at: 54, turn: [8, -6, 0] },
      { at: 72, turn: [10] },
    ],
    'Upper neck': [
      { at: 0, turn: [-8] },
      { at: 24, turn: [-12, 6, 0] },
      { at: 38, turn: [-12, 6, 0] },
      { at: 56, turn: [-6, -6, 0] },
      { at: 72, turn: [-8] },
    ],
    Head: [
      { at: 0, turn: [14] },
      { at: 26, turn: [22, 10, 4] },
      { at: 40, turn: [22, 10, 4] },
      { at: 58, turn: [12, -10, -4] },
      { at: 72, turn: [14] },
    ],
    'Foot goal left': footPath(slow, 0),
    'Foot goal right': footPath(slow, c / 2),
    'Shoulder left': [
      { at: 0, turn: [0, 0, 6] },
      { at: 48, turn: [0, 0, 14] },
      { at: 72, turn: [0, 0, 6] },
    ],
    'Shoulder right': [
      { at: 0, turn: [0, 0, -6] },
      { at: 12, turn: [0, 0, -14] },
      { at: 36, turn: [0, 0, -8] },
      { at: 72, turn: [0, 0, -6] },
    ],
  });
}

function fly(m: Maker): void {
  // Wings lie flat and point outwards; the tips come after the shoulders.
  const wing = (s: number): Pose[] => [
    { at: 0, turn: [0, -s * 78, s * 84] },
    { at: 7, turn: [0, -s * 88, s * 70] },
    { at: 16, turn: [0, -s * 74, s * 98] },
    { at: 24, turn: [0, -s * 78, s * 84] },
  ];
  const flap = (s: number): Pose[] => [
    { at: 0, turn: [0, 0, s * 32] },
    { at: 10, turn: [0, 0, -s * 26] },
    { at: 14, turn: [0, 0, -s * 20] },
    { at: 24, turn: [0, 0, s * 32] },
  ];
  m.clip('Fly', 24, 24, true, {
    // The body is thrown up by the downstroke and sinks as the wings come up.
    Root: [
      { at: 0, move: [0, 10, 0], turn: [8] },
      { at: 9, move: [0, 12.4, 0.6], turn: [4] },
      { at: 24, move: [0, 10, 0], turn: [8] },
    ],
    'Shoulder left': flap(1),
    'Shoulder right': flap(-1),
    'Wing left': wing(1),
    'Wing right': wing(-1),
    'Lower neck': [
      { at: 0, turn: [30] },
      { at: 12, turn: [34] },
      { at: 24, turn: [30] },
    ],
    'Middle neck': [
      { at: 0, turn: [24] },
      { at: 13, turn: [20] },
      { at: 24, turn: [24] },
    ],
    'Upper neck': [
      { at: 0, turn: [-6] },
      { at: 24, turn: [-6] },
    ],
    Head: [
      { at: 0, turn: [-48] },
      { at: 11, turn: [-50] },
      { at: 24, turn: [-48] },
    ],
    // Legs trail.
    'Foot goal left': [
      { at: 0, move: [0, 13, -9], turn: [70] },
      { at: 13, move: [0, 14.6, -8.6], turn: [66] },
      { at: 24, move: [0, 13, -9], turn: [70] },
    ],
    'Foot goal right': [
      { at: 0, move: [0, 13.2, -8.8], turn: [68] },
      { at: 14, move: [0, 14.7, -8.5], turn: [72] },
      { at: 24, move: [0, 13.2, -8.8], turn: [68] },
    ],
  });
}

import type { Project } from '@sphalerite/core/model';
import { INK as C, emberquaySwatches } from '../emberquay-palette';
import { type Gait, footPath, otherSide } from '../gait';
import { Maker, flip, span } from '../maker';

const GAIT: Gait = { cycle: 24, stride: 7, lift: 2.6, stands: 0.5, heel: 18, toe: 10 };

/** A figure of plain blocks on two legs, with IK in arms and legs, standing, walking and waving. */
export function buildBiped(): Project {
  const m = new Maker('Biped', 'character', 0.05);
  m.palette('Emberquay', emberquaySwatches());
  m.bone('Hips', null, [0, 12, 0]);
  m.bone('Chest', 'Hips', [0, 16, 0]);
  m.bone('Head', 'Chest', [0, 24, 0]);
  for (const [side, s] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    m.bone(`Upper arm ${side}`, 'Chest', [s * 6.5, 22, 0]);
    m.bone(`Forearm ${side}`, `Upper arm ${side}`, [s * 6.5, 18, 0]);
    m.bone(`Hand ${side}`, `Forearm ${side}`, [s * 6.5, 13, 0]);
    m.bone(`Thigh ${side}`, 'Hips', [s * 2.5, 12, 0]);
    m.bone(`Shin ${side}`, `Thigh ${side}`, [s * 2.5, 7, 0]);
    m.bone(`Foot ${side}`, `Shin ${side}`, [s * 2.5, 2, 0]);
  }
  const tone = [C.hideDark, C.hide, C.hideLight] as const;
  m.part('Hips', 'Hips', span(-6, 9, -5, 5, 17, 4))
    .both(C.hide, span(0, 12, -3, 3, 15, 2))
    .shade(...tone);
  m.part('Chest', 'Chest', span(-7, 14, -5, 6, 25, 4))
    .both(C.hide, span(0, 16, -3, 4, 23, 2))
    .shade(...tone)
    .paintBoth(C.honey, span(0, 19, 2, 0, 20, 2));
  const head = m
    .part('Head', 'Head', span(-7, 23, -6, 6, 34, 6))
    .both(C.hideLight, span(0, 24, -4, 4, 32, 3))
    .shade(C.hide, C.hideLight, C.hideLight, 0.02);
  head.both(C.hide, span(0, 27, 4, 0, 28, 4)).paintBoth(C.ink, span(2, 28, 3, 2, 29, 3));
  for (const side of ['left', 'right'] as const) {
    const on = (c: Parameters<typeof flip>[0]) => (side === 'left' ? c : flip(c));
    const limb = (name: string, box: ReturnType<typeof span>, end = false): unknown =>
      m
        .part(
          `${name} ${side}`,
          `${name} ${side}`,
          on([
            [box[0][0] - 2, Math.max(0, box[0][1] - 2), box[0][2] - 2],
            [box[1][0] + 2, box[1][1] + 2, box[1][2] + 2],
          ]),
        )
        .add(end ? C.hideLight : C.hide, on(box))
        .shade(...(end ? ([C.hide, C.hideLight, C.hideLight] as const) : tone));
    limb('Upper arm', span(5, 18, -2, 7, 22, 1));
    limb('Forearm', span(5, 13, -2, 7, 17, 1));
    limb('Hand', span(5, 10, -2, 7, 12, 1), true);
    limb('Thigh', span(1, 7, -2, 3, 11, 1));
    limb('Shin', span(1, 2, -2, 3, 6, 1));
    limb('Foot', span(1, 0, -2, 3, 1, 3), true);
  }
  for (const side of ['left', 'right'] as const) for (const tip of ['Foot', 'Hand']) m.limb(`${tip} ${side}`);
  m.attach('Grip left', 'Hand left', [0, -1.5, 2]);
  m.attach('Grip right', 'Hand right', [0, -1.5, 2]);
  m.attach('Back', 'Chest', [0, 3, -3.5]);
  clips(m);
  m.seal(2);
  return m.project;
}

function clips(m: Maker): void {
  m.clip('Idle', 60, 24, true, {
    Hips: [
      { at: 0, move: [0, -0.15, 0] },
      { at: 28, move: [0, -0.45, 0] },
      { at: 60, move: [0, -0.15, 0] },
    ],
    Chest: [
      { at: 0, turn: [0] },
      { at: 32, turn: [-2, 0, 0] },
      { at: 60, turn: [0] },
    ],
    Head: [
      { at: 0, turn: [0] },
      { at: 18, turn: [1, 5, 0] },
      { at: 40, turn: [2, -4, 0] },
      { at: 60, turn: [0] },
    ],
    'Hand goal left': [
      { at: 0, move: [0.5, 0.4, 0] },
      { at: 34, move: [0.8, 0.1, 0.3] },
      { at: 60, move: [0.5, 0.4, 0] },
    ],
    'Hand goal right': [
      { at: 0, move: [-0.5, 0.4, 0] },
      { at: 34, move: [-0.8, 0.1, 0.3] },
      { at: 60, move: [-0.5, 0.4, 0] },
    ],
  });
  const hand = [
    { at: 0, move: [0.4, 0.6, -3.2] as const, turn: [18] as const },
    { at: 12, move: [0.2, 1.6, 4] as const, turn: [-24] as const },
    { at: 24, move: [0.4, 0.6, -3.2] as const, turn: [18] as const },
  ];
  m.clip('Walk', GAIT.cycle, 24, true, {
    Hips: [0, 12]
      .flatMap((at, i) => [
        { at, move: [0, -0.95, 0] as const, turn: [2, i === 0 ? -7 : 7, 0] as const },
        { at: at + 5, move: [0, -0.35, 0] as const, turn: [2, 0, i === 0 ? -2 : 2] as const },
      ])
      .concat([{ at: 24, move: [0, -0.95, 0], turn: [2, -7, 0] }]),
    Chest: [
      { at: 0, turn: [1, 9, 0] },
      { at: 12, turn: [1, -9, 0] },
      { at: 24, turn: [1, 9, 0] },
    ],
    Head: [
      { at: 0, turn: [-3, -4, 0] },
      { at: 12, turn: [-3, 4, 0] },
      { at: 24, turn: [-3, -4, 0] },
    ],
    'Foot goal left': footPath(GAIT, 0),
    'Foot goal right': footPath(GAIT, GAIT.cycle / 2),
    'Hand goal left': hand,
    'Hand goal right': otherSide(hand, 12),
  });
  m.clip('Wave', 48, 24, false, {
    Chest: [
      { at: 0, turn: [0] },
      { at: 6, turn: [2, 4, 2] },
      { at: 14, turn: [-3, -5, -3] },
      { at: 36, turn: [-3, -5, -3] },
      { at: 48, turn: [0] },
    ],
    Head: [
      { at: 0, turn: [0] },
      { at: 6, turn: [4, 0, 0] },
      { at: 16, turn: [-5, 3, 4] },
      { at: 36, turn: [-5, 3, 4] },
      { at: 48, turn: [0] },
    ],
    'Hand goal left': [
      { at: 0, move: [0.5, 0.4, 0] },
      { at: 6, move: [0.8, 0.7, -1.2] },
      { at: 11, move: [3.5, 6, 7], turn: [-80, 0, -4] },
      { at: 16, move: [4.2, 14, 2.5], turn: [-160, 0, -8] },
      { at: 21, move: [6, 13.2, 2.5], turn: [-160, 0, -22] },
      { at: 26, move: [3.6, 14, 2.5], turn: [-160, 0, 4] },
      { at: 31, move: [6, 13.2, 2.5], turn: [-160, 0, -22] },
      { at: 36, move: [4.2, 14, 2.5], turn: [-160, 0, -8] },
      { at: 48, move: [0.5, 0.4, 0], turn: [0] },
    ],
  });
}

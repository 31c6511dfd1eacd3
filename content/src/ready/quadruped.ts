import type { Project } from '@sphalerite/core/model';
import { INK as C, emberquaySwatches } from '../emberquay-palette';
import { type Gait, footPath } from '../gait';
import { Maker, flip, span } from '../maker';

const GAIT: Gait = { cycle: 32, stride: 5, lift: 2, stands: 0.625, heel: 20, toe: 6 };

/** A figure of plain blocks on four legs, with IK in all of them, standing and walking. */
export function buildQuadruped(): Project {
  const m = new Maker('Quadruped', 'creature', 0.05);
  m.palette('Emberquay', emberquaySwatches());
  m.bone('Hips', null, [0, 11, -5]);
  m.bone('Chest', 'Hips', [0, 11, 1]);
  m.bone('Neck', 'Chest', [0, 13, 6]);
  m.bone('Head', 'Neck', [0, 17, 8]);
  m.bone('Jaw', 'Head', [0, 17, 9]);
  m.bone('Tail', 'Hips', [0, 13, -9]);
  m.bone('Tail tip', 'Tail', [0, 13, -13]);
  for (const [side, s] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    m.bone(`Upper foreleg ${side}`, 'Chest', [s * 2.5, 10, 4]);
    m.bone(`Lower foreleg ${side}`, `Upper foreleg ${side}`, [s * 2.5, 6, 4]);
    m.bone(`Fore paw ${side}`, `Lower foreleg ${side}`, [s * 2.5, 2, 4]);
    m.bone(`Thigh ${side}`, 'Hips', [s * 2.5, 10, -7]);
    m.bone(`Shank ${side}`, `Thigh ${side}`, [s * 2.5, 6, -7]);
    m.bone(`Hind paw ${side}`, `Shank ${side}`, [s * 2.5, 2, -7]);
    m.bone(`Ear ${side}`, 'Head', [s * 3, 21, 8]);
  }
  const tone = [C.slateDark, C.slate, C.slateLight] as const;
  m.part('Hips', 'Hips', span(-6, 6, -12, 5, 17, 3))
    .both(C.slate, span(0, 9, -9, 3, 14, 0))
    .shade(...tone);
  m.part('Chest', 'Chest', span(-6, 6, -2, 5, 18, 10))
    .both(C.slate, span(0, 9, 1, 3, 15, 6))
    .shade(...tone)
    .paintBoth(C.milk, span(0, 9, 6, 1, 12, 6));
  m.part('Neck', 'Neck', span(-4, 10, 2, 3, 20, 12))
    .both(C.slate, span(0, 13, 5, 2, 17, 8))
    .shade(...tone);
  m.part('Head', 'Head', span(-6, 14, 3, 5, 24, 18))
    .both(C.slate, span(0, 17, 6, 3, 21, 11), span(0, 17, 12, 1, 19, 15))
    .shade(...tone)
    .paintBoth(C.honeyLight, span(2, 20, 11, 2, 20, 11))
    .paintBoth(C.ink, span(2, 19, 11, 2, 19, 11))
    .paintBoth(C.ink, span(0, 19, 15, 0, 19, 15));
  m.part('Jaw', 'Jaw', span(-4, 13, 7, 3, 18, 17))
    .both(C.slateLight, span(0, 16, 9, 1, 16, 14))
    .shade(C.slate, C.slateLight, C.slateLight);
  m.part('Tail', 'Tail', span(-3, 10, -15, 2, 16, -6))
    .both(C.slate, span(0, 12, -13, 0, 13, -9))
    .shade(...tone);
  m.part('Tail tip', 'Tail tip', span(-3, 10, -19, 2, 16, -11))
    .both(C.slateLight, span(0, 12, -16, 0, 13, -13))
    .shade(C.slate, C.slateLight, C.milk);
  for (const side of ['left', 'right'] as const) {
    const on = (c: Parameters<typeof flip>[0]) => (side === 'left' ? c : flip(c));
    const limb = (name: string, box: ReturnType<typeof span>, byte: number = C.slate): unknown =>
      m
        .part(
          `${name} ${side}`,
          `${name} ${side}`,
          on([
            [box[0][0] - 2, Math.max(0, box[0][1] - 2), box[0][2] - 2],
            [box[1][0] + 2, box[1][1] + 2, box[1][2] + 2],
          ]),
        )
        .add(byte, on(box))
        .shade(...(byte === C.slate ? tone : ([C.slate, C.slateLight, C.milk] as const)));
    limb('Upper foreleg', span(1, 6, 3, 3, 10, 5));
    limb('Lower foreleg', span(1, 2, 3, 3, 5, 4));
    limb('Fore paw', span(1, 0, 3, 3, 1, 6), C.slateLight);
    limb('Thigh', span(1, 6, -9, 3, 10, -5));
    limb('Shank', span(1, 2, -8, 3, 5, -6));
    limb('Hind paw', span(1, 0, -8, 3, 1, -5), C.slateLight);
    limb('Ear', span(2, 21, 7, 3, 23, 8));
  }
  for (const side of ['left', 'right'] as const) for (const tip of ['Fore paw', 'Hind paw']) m.limb(`${tip} ${side}`);
  m.attach('Back', 'Chest', [0, 5, 0]);
  m.attach('Mouth', 'Jaw', [0, 0, 5]);
  m.clip('Idle', 72, 24, true, {
    Chest: [
      { at: 0, turn: [0] },
      { at: 36, turn: [-1.5] },
      { at: 72, turn: [0] },
    ],
    Head: [
      { at: 0, turn: [0] },
      { at: 20, turn: [2, 8, 0] },
      { at: 44, turn: [4, -6, 3] },
      { at: 72, turn: [0] },
    ],
    Tail: [
      { at: 0, turn: [20, 8, 0] },
      { at: 18, turn: [18, -10, 0] },
      { at: 36, turn: [20, 8, 0] },
      { at: 54, turn: [18, -10, 0] },
      { at: 72, turn: [20, 8, 0] },
    ],
    'Tail tip': [
      { at: 0, turn: [14, -6, 0] },
      { at: 22, turn: [14, 12, 0] },
      { at: 40, turn: [14, -6, 0] },
      { at: 58, turn: [14, 12, 0] },
      { at: 72, turn: [14, -6, 0] },
    ],
    'Ear left': [
      { at: 0, turn: [0] },
      { at: 50, turn: [0] },
      { at: 53, turn: [0, 0, -24] },
      { at: 58, turn: [0] },
      { at: 72, turn: [0] },
    ],
  });
  const later = (part: number): number => Math.round(GAIT.cycle * part);
  m.clip('Walk', GAIT.cycle, 24, true, {
    Hips: [0, 8, 16, 24, 32].map((at, i) => ({
      at,
      move: [0, i % 2 === 0 ? -1 : -0.7, 0] as const,
      turn: [0, i % 4 === 0 ? -3 : i === 2 ? 3 : 0, 0] as const,
    })),
    Chest: [0, 8, 16, 24, 32].map((at, i) => ({
      at,
      turn: [i % 2 === 0 ? 1 : -1, i % 4 === 0 ? 4 : i === 2 ? -4 : 0, 0] as const,
    })),
    Neck: [0, 8, 16, 24, 32].map((at, i) => ({ at, turn: [i % 2 === 0 ? 4 : -2] as const })),
    Head: [0, 8, 16, 24, 32].map((at, i) => ({ at, turn: [i % 2 === 0 ? -4 : 3] as const })),
    Tail: [
      { at: 0, turn: [26, 10, 0] },
      { at: 16, turn: [26, -10, 0] },
      { at: 32, turn: [26, 10, 0] },
    ],
    'Tail tip': [
      { at: 0, turn: [12, -6, 0] },
      { at: 6, turn: [12, 10, 0] },
      { at: 22, turn: [12, -12, 0] },
      { at: 32, turn: [12, -6, 0] },
    ],
    // One foot after another: hind left, fore left, hind right, fore right.
    'Hind paw goal left': footPath(GAIT, 0),
    'Fore paw goal left': footPath(GAIT, later(0.25)),
    'Hind paw goal right': footPath(GAIT, later(0.5)),
    'Fore paw goal right': footPath(GAIT, later(0.75)),
  });
  m.seal(2);
  return m.project;
}

import { type Gait, footPath, otherSide } from './gait';
import type { Maker, Pose } from './maker';

/** Short legs and heavy boots. */
const GAIT: Gait = { cycle: 24, stride: 6, lift: 2.4, stands: 0.5, heel: 16, toe: 10 };

export function tamsinClips(m: Maker): void {
  idle(m);
  walk(m);
  climb(m);
  lightTheLamp(m);
}

function idle(m: Maker): void {
  m.clip('Idle', 48, 24, true, {
    Chest: [
      { at: 0, turn: [0] },
      { at: 24, turn: [-1.5, 0, 0.5] },
      { at: 48, turn: [0] },
    ],
    Hips: [
      { at: 0, move: [0, 0, 0] },
      { at: 24, move: [0, -0.25, 0] },
      { at: 48, move: [0, 0, 0] },
    ],
    Head: [
      { at: 0, turn: [0] },
      { at: 12, turn: [1, 6, 0] },
      { at: 32, turn: [-2, -5, 1] },
      { at: 48, turn: [0] },
    ],
    'Upper arm right': [
      { at: 0, turn: [0, 0, -3] },
      { at: 24, turn: [3, 0, -5] },
      { at: 48, turn: [0, 0, -3] },
    ],
    Pole: [
      { at: 0, move: [0, 0, 0] },
      { at: 24, move: [0, 0.25, 0], turn: [1.5, 0, -0.5] },
      { at: 48, move: [0, 0, 0] },
    ],
    'Scarf end': [
      { at: 0, turn: [0] },
      { at: 20, turn: [-6, 0, 3] },
      { at: 48, turn: [0] },
    ],
    Lantern: [
      { at: 0, turn: [0, 0, -2] },
      { at: 24, turn: [2, 0, 3] },
      { at: 48, turn: [0, 0, -2] },
    ],
  });
}

function walk(m: Maker): void {
  const tail: Pose[] = [
    { at: 0, turn: [14] },
    { at: 8, turn: [4, 0, 4] },
    { at: 16, turn: [20, 0, -3] },
    { at: 24, turn: [14] },
  ];
  m.clip('Walk', 24, 24, true, {
    Hips: [
      { at: 0, move: [0, -0.85, 0], turn: [3, 6, 0] },
      { at: 6, move: [0, -0.2, 0], turn: [3, 0, 1.5] },
      { at: 12, move: [0, -0.85, 0], turn: [3, -6, 0] },
      { at: 18, move: [0, -0.2, 0], turn: [3, 0, -1.5] },
      { at: 24, move: [0, -0.85, 0], turn: [3, 6, 0] },
    ],
    Chest: [
      { at: 0, turn: [2, -10, 0] },
      { at: 12, turn: [2, 10, 0] },
      { at: 24, turn: [2, -10, 0] },
    ],
    Head: [
      { at: 0, turn: [-4, 4, 0] },
      { at: 6, turn: [-2, 0, 0] },
      { at: 12, turn: [-4, -4, 0] },
      { at: 18, turn: [-2, 0, 0] },
      { at: 24, turn: [-4, 4, 0] },
    ],
    'Foot goal left': footPath(GAIT, 0),
    'Foot goal right': footPath(GAIT, 12),
    'Upper arm right': [
      { at: 0, turn: [-28, 0, -6] },
      { at: 12, turn: [24, 0, -6] },
      { at: 24, turn: [-28, 0, -6] },
    ],
    'Forearm right': [
      { at: 0, turn: [-34] },
      { at: 12, turn: [-12] },
      { at: 24, turn: [-34] },
    ],
    'Upper arm left': [
      { at: 0, turn: [12, 0, 5] },
      { at: 12, turn: [-14, 0, 5] },
      { at: 24, turn: [12, 0, 5] },
    ],
    'Forearm left': [
      { at: 0, turn: [-44] },
      { at: 12, turn: [-34] },
      { at: 24, turn: [-44] },
    ],
    Pole: [
      { at: 0, turn: [27, 0, -5] },
      { at: 12, turn: [44, 0, -5] },
      { at: 24, turn: [27, 0, -5] },
    ],
    Lantern: [
      { at: 0, turn: [-8, 0, 6] },
      { at: 7, turn: [6, 0, -6] },
      { at: 14, turn: [10, 0, 4] },
      { at: 20, turn: [-4, 0, -5] },
      { at: 24, turn: [-8, 0, 6] },
    ],
    'Coat tail left': tail,
    'Coat tail right': otherSide(tail, 12),
    Satchel: [
      { at: 0, turn: [-8, 0, 4] },
      { at: 12, turn: [-2, 0, -4] },
      { at: 24, turn: [-8, 0, 4] },
    ],
    'Scarf end': [
      { at: 0, turn: [-10, 0, 6] },
      { at: 9, turn: [-24, 0, -2] },
      { at: 18, turn: [-14, 0, 4] },
      { at: 24, turn: [-10, 0, 6] },
    ],
  });
}

function lightTheLamp(m: Maker): void {
  m.clip('Light the lamp', 60, 24, false, {
    Chest: [
      { at: 0, turn: [0] },
      { at: 16, turn: [-8, -12, 0] },
      { at: 44, turn: [-8, -12, 0] },
      { at: 60, turn: [0] },
    ],
    Head: [
      { at: 0, turn: [0] },
      { at: 14, turn: [-22, 4, 0] },
      { at: 44, turn: [-22, 4, 0] },
      { at: 60, turn: [0] },
    ],
    'Upper arm left': [
      { at: 0, turn: [0] },
      { at: 18, turn: [-112, 0, 12] },
      { at: 26, turn: [-120, 0, 12] },
      { at: 40, turn: [-112, 0, 12] },
      { at: 60, turn: [0] },
    ],
    'Forearm left': [
      { at: 0, turn: [0] },
      { at: 18, turn: [-20] },
      { at: 40, turn: [-20] },
      { at: 60, turn: [0] },
    ],
    Pole: [
      { at: 0, turn: [0] },
      { at: 18, turn: [122, 0, -8] },
      { at: 26, turn: [132, 0, -8] },
      { at: 40, turn: [122, 0, -8] },
      { at: 60, turn: [0] },
    ],
    'Upper arm right': [
      { at: 0, turn: [0, 0, -3] },
      { at: 18, turn: [16, 0, -18] },
      { at: 42, turn: [16, 0, -18] },
      { at: 60, turn: [0, 0, -3] },
    ],
    Lantern: [
      { at: 0, turn: [0] },
      { at: 20, turn: [14, 0, -8] },
      { at: 28, turn: [-8, 0, 6] },
      { at: 36, turn: [4, 0, -3] },
      { at: 60, turn: [0] },
    ],
  });
}

/** Up a ladder, hand over hand: a foot and the other hand go up together, the body follows, the pole lies in the crook of the arm. */
function climb(m: Maker): void {
  const foot: Pose[] = [
    { at: 0, move: [0, 0.5, 4], turn: [0], ease: 'ease' },
    { at: 14, move: [0, 0.5, 4], turn: [0] },
    { at: 19, move: [0, 4.6, 2.4], turn: [-14] },
    { at: 24, move: [0, 4.5, 4.2], turn: [0] },
    { at: 32, move: [0, 0.5, 4], turn: [0], ease: 'linear' },
  ];
  m.clip('Climb', 32, 24, true, {
    Hips: [
      { at: 0, move: [0, 1.2, 0.6], turn: [4, -5, 2] },
      { at: 8, move: [0, 2.1, 0.9], turn: [6, 0, 0] },
      { at: 16, move: [0, 1.2, 0.6], turn: [4, 5, -2] },
      { at: 24, move: [0, 2.1, 0.9], turn: [6, 0, 0] },
      { at: 32, move: [0, 1.2, 0.6], turn: [4, -5, 2] },
    ],
    Chest: [
      { at: 0, turn: [2, 9, -2] },
      { at: 16, turn: [2, -9, 2] },
      { at: 32, turn: [2, 9, -2] },
    ],
    Head: [
      { at: 0, turn: [-22, -4, 0] },
      { at: 10, turn: [-27, 0, 0] },
      { at: 16, turn: [-22, 4, 0] },
      { at: 26, turn: [-27, 0, 0] },
      { at: 32, turn: [-22, -4, 0] },
    ],
    'Upper arm right': [
      { at: 0, turn: [-100, 0, 6] },
      { at: 6, turn: [-128, 0, 4] },
      { at: 10, turn: [-134, 0, 6] },
      { at: 26, turn: [-84, 0, 8] },
      { at: 32, turn: [-100, 0, 6] },
    ],
    'Forearm right': [
      { at: 0, turn: [-44] },
      { at: 6, turn: [-14] },
      { at: 10, turn: [-22] },
      { at: 26, turn: [-62] },
      { at: 32, turn: [-44] },
    ],
    'Upper arm left': [
      { at: 0, turn: [-62, 0, -6] },
      { at: 16, turn: [-78, 0, -4] },
      { at: 22, turn: [-86, 0, -6] },
      { at: 32, turn: [-62, 0, -6] },
    ],
    'Forearm left': [
      { at: 0, turn: [-40] },
      { at: 16, turn: [-30] },
      { at: 22, turn: [-24] },
      { at: 32, turn: [-40] },
    ],
    Pole: [
      { at: 0, turn: [104, 0, -18] },
      { at: 16, turn: [108, 0, -18] },
      { at: 22, turn: [112, 0, -18] },
      { at: 32, turn: [104, 0, -18] },
    ],
    Lantern: [
      { at: 0, turn: [-8, 0, 12] },
      { at: 9, turn: [6, 0, 20] },
      { at: 18, turn: [-8, 0, 14] },
      { at: 26, turn: [6, 0, 20] },
      { at: 32, turn: [-8, 0, 12] },
    ],
    'Foot goal left': foot,
    'Foot goal right': otherSide(
      foot.filter((k) => k.at < 32),
      16,
    ),
    'Coat tail left': [
      { at: 0, turn: [12] },
      { at: 20, turn: [26] },
      { at: 32, turn: [12] },
    ],
    'Coat tail right': [
      { at: 0, turn: [12] },
      { at: 6, turn: [26] },
      { at: 32, turn: [12] },
    ],
    Satchel: [
      { at: 0, turn: [-16] },
      { at: 10, turn: [-8] },
      { at: 22, turn: [-16] },
      { at: 32, turn: [-16] },
    ],
    'Scarf end': [
      { at: 0, turn: [-14, 0, 4] },
      { at: 12, turn: [-22, 0, -2] },
      { at: 32, turn: [-14, 0, 4] },
    ],
  });
}

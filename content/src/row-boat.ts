import { makeCamera, makeGrade, makeLight, makeOutput, makeStage } from '@sphalerite/core/model';
import { addShotEdit } from '@sphalerite/core/project';
import type { Project } from '@sphalerite/core/model';
import { INK as C, emberquaySwatches } from './emberquay-palette';
import { type Pose, Maker, flip, span } from './maker';

/** The ferry of Emberquay: a small boat with two oars that swing in their rowlocks. */
export function buildRowBoat(): Project {
  const m = new Maker('Row boat', 'prop', 0.09);
  m.palette('Emberquay', emberquaySwatches());
  m.bone('Hull', null, [0, 0, 0]);
  m.bone('Oar left', 'Hull', [8, 8, -1]);
  m.bone('Oar right', 'Hull', [-8, 8, -1]);
  m.bone('Lamp', 'Hull', [0, 15, 15]);
  const hull = m.part('Hull', 'Hull', span(-10, 0, -20, 9, 18, 20));
  // Strakes that widen upwards, a blunt stern, a bow that rises.
  hull.both(
    C.bark,
    span(0, 0, -14, 3, 0, 12),
    span(0, 1, -16, 5, 2, 14),
    span(0, 3, -17, 6, 5, 15),
    span(0, 6, -17, 7, 7, 16),
  );
  hull.eraseBoth(span(0, 2, -14, 4, 7, 12), span(5, 3, -15, 5, 7, 12), span(6, 6, -15, 6, 7, 12));
  hull.both(C.bark, span(0, 8, 13, 5, 9, 17), span(0, 10, 15, 2, 11, 18)).eraseBoth(span(0, 8, 13, 3, 8, 14));
  hull.shade(C.barkDark, C.bark, C.barkLight, 0.16);
  hull
    .both(C.hide, span(0, 5, -4, 5, 5, -1), span(0, 5, -13, 5, 5, -11), span(0, 5, 7, 5, 5, 9))
    .shade(C.hideDark, C.hide, C.hideLight, 0.1);
  hull.paintBoth(C.green, span(7, 7, -17, 7, 7, 16), span(0, 7, -17, 7, 7, -17)).both(C.iron, span(7, 8, -2, 7, 8, 0));
  hull.both(C.iron, span(0, 12, 15, 0, 14, 15));
  for (const side of ['left', 'right'] as const) {
    const on = (c: Parameters<typeof flip>[0]) => (side === 'left' ? c : flip(c));
    m.part(`Oar ${side}`, `Oar ${side}`, on(span(-1, 6, -4, 24, 11, 2)))
      .add(C.hide, on(span(1, 8, -1, 17, 8, -1)))
      .add(C.hideLight, on(span(18, 7, -1, 22, 9, -1)))
      .add(C.barkLight, on(span(0, 8, -1, 1, 8, -1)));
  }
  m.part('Lamp', 'Lamp', span(-4, 9, 12, 3, 17, 19))
    .both(C.iron, span(0, 14, 14, 1, 14, 16), span(0, 10, 14, 1, 10, 16))
    .both(C.glow, span(0, 11, 15, 0, 13, 15))
    .both(C.iron, span(1, 11, 14, 1, 13, 14), span(1, 11, 16, 1, 13, 16));
  m.attach('Rower', 'Hull', [0, 6, -2]);
  // A pull is quick and deep, the way back slow and high; the two blades are never quite alike.
  const oar = (s: number, late: number): Pose[] => [
    { at: 0, turn: [0, s * 26, s * 10] },
    { at: 4 + late, turn: [0, s * 28, -s * 16] },
    { at: 18 + late, turn: [0, -s * 26, -s * 15] },
    { at: 23 + late, turn: [-s * 12, -s * 30, s * 8] },
    { at: 40, turn: [0, s * 18, s * 12] },
    { at: 48, turn: [0, s * 26, s * 10] },
  ];
  m.clip('Swing', 48, 24, true, {
    'Oar left': oar(1, 0),
    'Oar right': oar(-1, 1),
    Hull: [
      { at: 0, move: [0, 0, 0], turn: [0.6] },
      { at: 8, move: [0, 0.3, -0.4], turn: [-1.4] },
      { at: 20, move: [0, 0.1, 0.6], turn: [1, 0, 0.5] },
      { at: 34, move: [0, -0.2, 0.2], turn: [0, 0, -0.5] },
      { at: 48, move: [0, 0, 0], turn: [0.6] },
    ],
    Lamp: [
      { at: 0, turn: [-6, 0, 0] },
      { at: 11, turn: [12, 0, 4] },
      { at: 24, turn: [-9, 0, -3] },
      { at: 36, turn: [5, 0, 2] },
      { at: 48, turn: [-6, 0, 0] },
    ],
  });
  m.apply(addShotEdit, {
    name: 'Off the steps',
    shot: {
      camera: makeCamera({ kind: 'perspective', eye: [52, 40, 56], target: [0, 6, 0], fov: 34, height: 50 }),
      light: makeLight({
        sun: { azimuth: 30, elevation: 34, size: 4, colour: '#ffe6c4', strength: 2.1 },
        sky: { zenith: '#7f9fc8', horizon: '#f0ddc6', strength: 0.8 },
        glow: { strength: 1.5 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#7f9aa0' } }),
      clip: m.clipId('Swing'),
      time: 0,
      grade: makeGrade({ exposure: 0 }),
      output: makeOutput({ size: [480, 400], samples: 32 }),
    },
  });
  return m.project;
}

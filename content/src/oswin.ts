import { makeCamera, makeGrade, makeLight, makeOutput, makeStage } from '@sphalerite/core/model';
import type { Project } from '@sphalerite/core/model';
import { addShotEdit } from '@sphalerite/core/project';
import { INK as C, emberquaySwatches } from './emberquay-palette';
import { Maker, span } from './maker';

/** Oswin, the ferry heron: one sculpt, forty cubes high, before he is taken apart. */
export function buildOswin(): Project {
  const m = new Maker('Oswin', 'creature', 0.03);
  m.palette('Emberquay', emberquaySwatches());
  m.bone('Root', null, [0, 0, 0]);
  const o = m.part('Oswin', 'Root', span(-16, 0, -18, 15, 43, 21));
  // Feet with three toes and a spur, thin shins, knees, feathered thighs.
  o.both(
    C.hide,
    span(2, 0, 0, 4, 1, 2),
    span(2, 0, 3, 2, 0, 5),
    span(4, 0, 3, 4, 0, 5),
    span(3, 0, 3, 3, 0, 6),
    span(3, 0, -2, 3, 0, -1),
  );
  o.shade(C.hideDark, C.hide, C.hideLight, 0.1);
  o.both(C.honeyDark, span(3, 2, 0, 4, 7, 1), span(3, 7, -1, 4, 8, 1));
  o.both(C.honey, span(3, 7, 0, 4, 7, 1));
  o.both(C.slateLight, span(2, 9, -1, 4, 11, 1), span(2, 11, -2, 4, 13, 2));
  // A body like a boat, narrow at both ends; a tail of plain feathers.
  o.both(
    C.slate,
    span(0, 14, -8, 4, 20, 4),
    span(0, 13, -6, 3, 13, 3),
    span(0, 21, -6, 3, 22, 3),
    span(0, 15, 5, 3, 20, 6),
    span(0, 16, 7, 2, 20, 7),
    span(0, 15, -10, 3, 19, -9),
    span(0, 15, -13, 2, 17, -11),
    span(0, 14, -16, 1, 16, -14),
  );
  o.shade(C.slateDark, C.slate, C.slateLight, 0.07);
  // Breast feathers, pale.
  o.paintBoth(C.milk, span(0, 14, 5, 2, 19, 8));
  o.both(C.milk, span(0, 13, 4, 1, 16, 5), span(0, 17, 8, 1, 18, 8));
  // Folded wings with long dark tips.
  o.both(C.slateLight, span(5, 15, -7, 6, 21, 4), span(5, 16, 5, 5, 20, 5), span(5, 14, -9, 6, 19, -8));
  o.both(C.hairDark, span(5, 14, -13, 6, 16, -10), span(5, 13, -15, 5, 15, -14));
  o.both(C.hair, span(5, 14, -9, 6, 15, -4), span(7, 16, -5, 7, 19, 2));
  o.paintBoth(C.hairLight, span(5, 14, -5, 6, 14, -4), span(7, 19, -5, 7, 19, 2));
  // The neck: a slow S, milk in front.
  o.both(
    C.slateLight,
    span(0, 20, 5, 1, 25, 8),
    span(0, 19, 6, 1, 22, 9),
    span(0, 24, 7, 1, 29, 10),
    span(0, 29, 6, 1, 33, 9),
  );
  o.paintBoth(C.milk, span(0, 19, 8, 0, 23, 9), span(0, 24, 9, 0, 29, 10), span(0, 30, 8, 0, 33, 9));
  // A ferryman's scarf.
  o.both(C.coat, span(0, 22, 4, 2, 24, 9), span(2, 19, 9, 2, 21, 9));
  o.paintBoth(C.coatLight, span(0, 24, 4, 2, 24, 9));
  o.both(C.coatDark, span(2, 18, 9, 2, 18, 9));
  // Head, eye, beak, crest, and the flat cap of the ferry.
  o.both(C.slateLight, span(0, 33, 5, 2, 36, 11), span(0, 34, 12, 1, 35, 12));
  o.paintBoth(C.milk, span(0, 33, 6, 2, 34, 12));
  o.both(C.ink, span(2, 35, 9, 2, 36, 9));
  o.both(C.honey, span(0, 34, 13, 0, 35, 18), span(0, 34, 19, 0, 34, 20), span(1, 34, 13, 1, 34, 15));
  o.paintBoth(C.honeyLight, span(0, 35, 13, 0, 35, 17));
  o.both(
    C.hairDark,
    span(2, 35, 3, 2, 36, 7),
    span(0, 36, 2, 1, 36, 4),
    span(0, 35, 0, 0, 35, 3),
    span(0, 34, -1, 0, 34, 0),
  );
  o.both(C.greenDark, span(0, 37, 4, 2, 37, 12), span(3, 37, 6, 3, 37, 10));
  o.both(C.green, span(0, 38, 5, 2, 39, 9));
  o.paintBoth(C.greenLight, span(0, 39, 5, 2, 39, 9));
  o.add(C.glow, span(-1, 38, 10, 0, 38, 10));
  m.apply(addShotEdit, {
    name: 'By the ferry steps',
    shot: {
      camera: makeCamera({ kind: 'perspective', eye: [46, 38, 62], target: [0, 19, 1], fov: 34, height: 50 }),
      light: makeLight({
        sun: { azimuth: 40, elevation: 30, size: 4, colour: '#ffe6c4', strength: 2.2 },
        sky: { zenith: '#7f9fc8', horizon: '#f0ddc6', strength: 0.8 },
        glow: { strength: 1.5 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#b9ada0' } }),
      clip: null,
      time: 0,
      grade: makeGrade({ exposure: 0 }),
      output: makeOutput({ size: [480, 480], samples: 32 }),
    },
  });
  return m.project;
}

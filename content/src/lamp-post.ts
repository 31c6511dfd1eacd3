import { makeCamera, makeGrade, makeLight, makeOutput, makeStage } from '@sphalerite/core/model';
import type { Project } from '@sphalerite/core/model';
import { addShotEdit } from '@sphalerite/core/project';
import { INK as C, emberquaySwatches } from './emberquay-palette';
import { Maker, span } from './maker';

/** A quay lamp post: stone foot, ringed iron post, lantern that sways on its arm, a coil of rope. */
export function buildLampPost(): Project {
  const m = new Maker('Lamp post', 'prop', 0.08);
  m.palette('Emberquay', emberquaySwatches());
  m.bone('Post', null, [0, 0, 0]);
  m.bone('Lantern', 'Post', [7, 34, 0]);
  const post = m.part('Post', 'Post', span(-6, 0, -6, 9, 40, 6));
  post.both(C.slate, span(0, 0, -4, 3, 1, 3), span(0, 2, -3, 2, 3, 2));
  post.shade(C.slateDark, C.slate, C.slateLight, 0.2);
  post.both(
    C.iron,
    span(0, 4, -1, 0, 35, 0),
    span(0, 4, -2, 1, 5, 1),
    span(0, 14, -2, 1, 14, 1),
    span(0, 24, -2, 1, 24, 1),
    span(0, 36, -2, 1, 37, 1),
    span(0, 38, -1, 0, 39, 0),
  );
  post.add(C.iron, span(1, 35, -1, 7, 35, 0), span(1, 33, -1, 2, 34, 0), span(3, 34, -1, 3, 34, 0));
  post.shade(C.ironDark, C.iron, C.ironLight, 0.1);
  // A coil of rope over the foot.
  post.both(C.hide, span(0, 6, -2, 1, 9, 1));
  post.shade(C.hideDark, C.hide, C.hideLight, 0.3);
  const lamp = m.part('Lantern', 'Lantern', span(2, 20, -6, 12, 36, 6));
  lamp.add(C.iron, span(6, 33, -1, 7, 34, 0), span(5, 32, -2, 8, 32, 1), span(4, 31, -3, 9, 31, 2));
  lamp.add(C.glow, span(5, 25, -2, 8, 30, 1));
  lamp.paint(C.flame, span(6, 26, -2, 7, 28, 1), span(5, 26, -1, 8, 28, 0));
  for (const x of [4, 9]) for (const z of [-3, 2]) lamp.add(C.iron, span(x, 25, z, x, 30, z));
  lamp.add(C.iron, span(4, 24, -3, 9, 24, 2), span(5, 23, -2, 8, 23, 1), span(6, 22, -1, 7, 22, 0));
  lamp.shade(C.ironDark, C.iron, C.ironLight, 0);
  m.clip('Sway', 48, 24, true, {
    Lantern: [
      { at: 0, turn: [0, 0, -5] },
      { at: 24, turn: [3, 0, 6] },
      { at: 48, turn: [0, 0, -5] },
    ],
  });
  m.apply(addShotEdit, {
    name: 'Late evening',
    shot: {
      camera: makeCamera({ kind: 'perspective', eye: [34, 26, 62], target: [2, 19, 0], fov: 34, height: 46 }),
      light: makeLight({
        sun: { azimuth: -60, elevation: 12, size: 6, colour: '#8fa6d8', strength: 0.25 },
        sky: { zenith: '#1f2b4f', horizon: '#6a6f94', strength: 0.35 },
        glow: { strength: 2 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#6b6470' } }),
      clip: m.clipId('Sway'),
      time: 0,
      grade: makeGrade({ exposure: 1 }),
      output: makeOutput({ size: [480, 480], samples: 32 }),
    },
  });
  return m.project;
}

import { makeCamera, makeGrade, makeLight, makeOutput, makeStage } from '@sphalerite/core/model';
import type { Project } from '@sphalerite/core/model';
import { addShotEdit } from '@sphalerite/core/project';
import { INK as C, emberquaySwatches } from './emberquay-palette';
import { type Cells, Maker, flip, span } from './maker';
import { tamsinClips } from './tamsin-clips';
import { tamsinColourways } from './tamsin-colourways';

/** Tamsin the lamplighter: biped with pole and lantern, satchel, scarf and coat tails. Faces +Z; her left is +X. */
export function buildTamsin(): Project {
  const m = new Maker('Tamsin', 'character', 0.043);
  m.palette('Emberquay', emberquaySwatches());
  bones(m);
  trunk(m);
  head(m);
  for (const side of ['left', 'right'] as const) {
    arm(m, side);
    leg(m, side);
  }
  extras(m);
  lantern(m);
  controls(m);
  tamsinClips(m);
  shots(m);
  tamsinColourways(m);
  return m.project;
}

function bones(m: Maker): void {
  m.bone('Body', null, [0, 0, 0]);
  m.bone('Hips', 'Body', [0, 11, 0]);
  m.bone('Chest', 'Hips', [0, 14, 0]);
  m.bone('Head', 'Chest', [0, 24, 0]);
  for (const [side, s] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    m.bone(`Upper arm ${side}`, 'Chest', [s * 7.5, 21.5, 0]);
    m.bone(`Forearm ${side}`, `Upper arm ${side}`, [s * 8, 16, 0]);
    m.bone(`Thigh ${side}`, 'Hips', [s * 3, 10.5, 0]);
    m.bone(`Shin ${side}`, `Thigh ${side}`, [s * 3, 6.5, 0]);
    m.bone(`Foot ${side}`, `Shin ${side}`, [s * 3, 3, 0]);
    m.bone(`Coat tail ${side}`, 'Hips', [s * 3, 11, -4]);
  }
  m.bone('Satchel', 'Hips', [-4, 13.5, 5]);
  m.bone('Scarf end', 'Chest', [3, 23, 5]);
  m.bone('Pole', 'Forearm left', [11, 10.5, 0]);
  m.bone('Lantern', 'Pole', [15, 43, 0]);
}

/** Legs that stand on their goals, and the pole in the grip of her left hand. */
function controls(m: Maker): void {
  for (const side of ['left', 'right'] as const) m.limb(`Foot ${side}`);
  m.attach('Grip left', 'Forearm left', [3, -5.5, 0]);
  m.attach('Grip right', 'Forearm right', [-3, -5.5, 0]);
  m.attach('Flame', 'Lantern', [0, -6, 0]);
  m.hang('Pole', 'Grip left');
}

function head(m: Maker): void {
  const h = m.part('Head', 'Head', span(-9, 23, -10, 8, 41, 9));
  // Skull, softened along its upright edges.
  h.both(C.skin, span(0, 24, -5, 5, 34, 5));
  h.eraseBoth(span(5, 24, 5, 5, 25, 5), span(5, 24, -5, 5, 25, -5));
  h.shade(C.skinDark, C.skin, C.skinLight, 0);
  h.paintBoth(C.skinLight, span(0, 30, 5, 4, 33, 5), span(2, 26, 5, 3, 26, 5));
  h.paintBoth(C.skinDark, span(5, 26, 3, 5, 33, 5));
  h.paint(C.skinDark, span(-3, 24, 5, 2, 24, 5));
  // Face.
  h.paintBoth(C.ink, span(2, 28, 5, 3, 30, 5));
  h.paint(C.milk, span(3, 30, 5, 3, 30, 5), span(-3, 30, 5, -3, 30, 5));
  h.paintBoth(C.hair, span(1, 32, 5, 3, 32, 5));
  h.paintBoth(C.blush, span(4, 27, 5, 4, 27, 5), span(4, 26, 5, 4, 26, 5));
  h.both(C.skinLight, span(0, 28, 6, 0, 28, 6));
  h.paint(C.lip, span(-1, 26, 5, 0, 26, 5));
  // Hair: a bob to the jaw, a fringe swept to her left, a bun under the cap.
  h.both(
    C.hair,
    span(6, 26, -6, 6, 34, 3),
    span(0, 25, -6, 5, 34, -6),
    span(5, 33, 5, 6, 34, 6),
    span(6, 29, 4, 6, 34, 4),
  );
  h.add(
    C.hair,
    span(-5, 33, 6, 1, 34, 6),
    span(-5, 32, 6, -3, 32, 6),
    span(2, 34, 6, 4, 34, 6),
    span(-6, 31, 5, -6, 34, 6),
  );
  h.both(C.hair, span(0, 26, -8, 1, 30, -7), span(2, 27, -8, 2, 29, -7));
  h.shade(C.hairDark, C.hair, C.hairLight, 0.12);
  h.paintBoth(C.hairDark, span(6, 26, -6, 6, 27, 3), span(0, 25, -6, 5, 26, -6));
  // Cap with a broad band, a soft crown that leans, a short peak and a brass badge.
  h.both(C.green, span(0, 35, -6, 6, 36, 6), span(0, 37, -5, 5, 38, 5));
  h.add(C.green, span(-4, 39, -4, 5, 39, 4), span(0, 40, -3, 5, 40, 2));
  h.both(C.greenDark, span(0, 35, 7, 5, 35, 8));
  h.eraseBoth(span(5, 35, 8, 5, 35, 8), span(6, 35, 6, 6, 36, 6), span(6, 35, -6, 6, 36, -6));
  h.shade(C.greenDark, C.green, C.greenLight, 0.1);
  h.paintBoth(C.greenDeep, span(0, 35, -6, 6, 35, 6));
  h.paintBoth(C.greenDark, span(0, 35, 7, 5, 35, 8));
  h.both(C.honey, span(0, 36, 7, 0, 37, 7));
  h.paintBoth(C.honeyLight, span(0, 37, 7, 0, 37, 7));
}

function trunk(m: Maker): void {
  const coat = m.part('Coat', 'Chest', span(-9, 12, -7, 8, 26, 7));
  coat.both(C.coat, span(0, 13, -4, 5, 22, 3));
  coat.eraseBoth(span(5, 22, 3, 5, 22, 3), span(5, 22, -4, 5, 22, -4));
  coat.shade(C.coatDark, C.coat, C.coatLight, 0.07);
  coat.paintBoth(C.coatDark, span(5, 13, -4, 5, 19, 3));
  coat.paintBoth(C.coatDeep, span(0, 13, 3, 0, 20, 3));
  coat.paintBoth(C.coatLight, span(1, 19, 3, 3, 21, 3), span(1, 14, 3, 1, 18, 3));
  // Two rows of brass buttons and a strap across.
  coat.both(C.honey, span(2, 15, 4, 2, 15, 4), span(2, 18, 4, 2, 18, 4));
  for (let i = 0; i < 9; i++)
    coat.paint(
      i % 3 === 1 ? C.hideLight : C.hide,
      span(4 - i, 22 - i, 3, 5 - i, 22 - i, 3),
      span(4 - i, 22 - i, -4, 5 - i, 22 - i, -4),
    );
  // Scarf, wound once.
  coat.both(C.green, span(0, 23, -5, 6, 24, 4), span(0, 22, 4, 4, 23, 5));
  coat.eraseBoth(span(6, 23, 4, 6, 24, 4), span(6, 23, -5, 6, 24, -5));
  for (let x = 0; x < 7; x += 2) coat.paintBoth(x % 4 === 0 ? C.greenLight : C.greenDark, span(x, 22, -5, x, 24, 5));
  coat.paintBoth(C.greenDeep, span(0, 22, 5, 6, 22, 5));

  const skirt = m.part('Skirt', 'Hips', span(-9, 7, -7, 8, 15, 7));
  skirt.both(C.coat, span(0, 9, -5, 6, 12, 4));
  skirt.eraseBoth(span(6, 9, 4, 6, 12, 4), span(6, 9, -5, 6, 12, -5), span(0, 9, 4, 0, 10, 4));
  skirt.shade(C.coatDark, C.coat, C.coatLight, 0.07);
  skirt.paintBoth(C.honey, span(1, 9, 4, 6, 9, 4), span(6, 9, -4, 6, 9, 3), span(0, 9, -5, 5, 9, -5));
  skirt.paintBoth(C.honeyDark, span(6, 9, -4, 6, 9, 0), span(0, 9, -5, 5, 9, -5));
  // Belt.
  skirt.both(C.bark, span(0, 12, -5, 6, 13, 4));
  skirt.paintBoth(C.bark, span(0, 12, -5, 6, 12, 4));
  skirt.paintBoth(C.barkLight, span(0, 13, 4, 5, 13, 4));
  skirt.both(C.honey, span(0, 12, 5, 1, 13, 5));
  skirt.paintBoth(C.barkDark, span(0, 12, 5, 0, 12, 5));
  // Legs go up into it, so that nothing gapes.
  skirt.both(C.slateDark, span(0, 8, -2, 4, 8, 1));
}

function arm(m: Maker, side: 'left' | 'right'): void {
  const on = (c: Cells): Cells => (side === 'left' ? c : flip(c));
  const upper = m.part(`Upper arm ${side}`, `Upper arm ${side}`, on(span(5, 14, -4, 11, 24, 3)));
  upper.add(C.coat, on(span(6, 16, -2, 9, 22, 1)));
  upper.erase(on(span(9, 22, -2, 9, 22, -2)), on(span(9, 22, 1, 9, 22, 1)));
  upper.shade(C.coatDark, C.coat, C.coatLight, 0.08);
  upper.paint(C.coatDark, on(span(6, 16, -2, 6, 22, 1)));
  upper.paint(C.honeyDark, on(span(9, 20, -1, 9, 20, 0)));
  const fore = m.part(`Forearm ${side}`, `Forearm ${side}`, on(span(5, 8, -4, 13, 18, 4)));
  fore.add(C.coat, on(span(6, 12, -2, 9, 16, 1)));
  fore.shade(C.coatDark, C.coat, C.coatLight, 0.08);
  // Turned cuff, fingerless glove, hand.
  fore.add(C.honey, on(span(5, 12, -3, 10, 13, 2)));
  fore.erase(
    on(span(5, 12, -3, 5, 13, -3)),
    on(span(10, 12, -3, 10, 13, -3)),
    on(span(5, 12, 2, 5, 13, 2)),
    on(span(10, 12, 2, 10, 13, 2)),
  );
  fore.shade(C.honeyDark, C.honey, C.honeyLight, 0);
  fore.add(C.hide, on(span(6, 11, -2, 9, 11, 1)));
  fore.add(C.skin, on(span(6, 9, -2, 9, 10, 1)));
  fore.shade(C.skinDark, C.skin, C.skinLight, 0);
  if (side === 'left')
    fore.add(C.skin, span(10, 10, 1, 12, 11, 1), span(10, 9, -2, 12, 10, -2)).paint(C.hide, span(10, 11, 1, 12, 11, 1));
}

function leg(m: Maker, side: 'left' | 'right'): void {
  const on = (c: Cells): Cells => (side === 'left' ? c : flip(c));
  const thigh = m.part(`Thigh ${side}`, `Thigh ${side}`, on(span(0, 5, -4, 6, 13, 3)));
  thigh.add(C.slate, on(span(1, 6, -2, 4, 10, 1)));
  thigh.shade(C.slateDark, C.slate, C.slateLight, 0.08);
  thigh.paint(C.slateDark, on(span(1, 6, -2, 1, 10, 1)));
  const shin = m.part(`Shin ${side}`, `Shin ${side}`, on(span(0, 1, -4, 6, 9, 3)));
  shin.add(C.slate, on(span(1, 4, -2, 4, 6, 1)));
  shin.shade(C.slateDark, C.slate, C.slateLight, 0.08);
  shin.add(C.bark, on(span(0, 3, -3, 5, 4, 2)));
  shin.paint(C.bark, on(span(0, 4, -3, 5, 4, 2)));
  shin.erase(
    on(span(0, 3, -3, 0, 4, -3)),
    on(span(5, 3, -3, 5, 4, -3)),
    on(span(0, 3, 2, 0, 4, 2)),
    on(span(5, 3, 2, 5, 4, 2)),
  );
  shin.shade(C.barkDark, C.bark, C.barkLight, 0.05);
  const foot = m.part(`Boot ${side}`, `Foot ${side}`, on(span(0, 0, -4, 6, 5, 6)));
  foot.add(C.bark, on(span(1, 1, -3, 4, 2, 2)), on(span(0, 1, -2, 5, 2, 4)), on(span(1, 1, 5, 4, 1, 5)));
  foot.add(C.barkDark, on(span(0, 0, -3, 5, 0, 5)));
  foot.shade(C.barkDark, C.bark, C.barkLight, 0.08);
  foot.paint(C.honeyDark, on(span(2, 2, 4, 3, 2, 4)));
}

function extras(m: Maker): void {
  for (const side of ['left', 'right'] as const) {
    const on = (c: Cells): Cells => (side === 'left' ? c : flip(c));
    const tail = m.part(`Coat tail ${side}`, `Coat tail ${side}`, on(span(-1, 3, -8, 8, 12, -3)));
    tail.add(C.coat, on(span(0, 5, -6, 5, 11, -5)));
    tail.erase(on(span(0, 5, -6, 0, 7, -5)));
    tail.shade(C.coatDark, C.coat, C.coatLight, 0.06);
    tail.paint(C.coatDeep, on(span(0, 5, -5, 5, 11, -5)));
    tail.paint(C.honey, on(span(1, 5, -6, 5, 5, -6)));
  }
  const bag = m.part('Satchel', 'Satchel', span(-8, 7, 3, -1, 15, 9));
  bag.add(C.hide, span(-6, 9, 5, -2, 13, 6));
  bag.shade(C.hideDark, C.hide, C.hideLight, 0.1);
  bag.paint(C.hideLight, span(-6, 11, 6, -2, 13, 6));
  bag.paint(C.hideDark, span(-6, 11, 6, -2, 11, 6));
  bag.add(C.honey, span(-4, 11, 7, -4, 12, 7));
  const scarf = m.part('Scarf end', 'Scarf end', span(1, 14, 3, 6, 25, 8));
  scarf.add(C.green, span(2, 17, 5, 4, 22, 5), span(2, 15, 5, 2, 16, 5), span(4, 16, 5, 4, 16, 5));
  scarf.paint(C.greenLight, span(2, 21, 5, 4, 21, 5), span(2, 18, 5, 4, 18, 5));
  scarf.paint(C.greenDark, span(2, 20, 5, 4, 20, 5), span(2, 17, 5, 4, 17, 5));
}

function lantern(m: Maker): void {
  const pole = m.part('Pole', 'Pole', span(9, 0, -2, 16, 46, 2));
  pole.add(C.bark, span(10, 1, -1, 11, 44, 0));
  pole.shade(C.barkDark, C.bark, C.barkLight, 0.14);
  pole.add(C.iron, span(10, 0, -1, 11, 0, 0), span(10, 45, -1, 11, 45, 0), span(12, 44, -1, 15, 44, 0));
  pole.paint(C.iron, span(10, 43, -1, 11, 44, 0), span(10, 1, -1, 11, 1, 0));
  pole.paint(C.ironLight, span(10, 44, -1, 15, 44, -1));
  const lamp = m.part('Lantern', 'Lantern', span(10, 32, -5, 18, 44, 4));
  lamp.add(C.iron, span(14, 42, -1, 15, 43, 0));
  // Roof in three steps, glass between four posts, a foot.
  lamp.add(C.iron, span(13, 41, -2, 16, 41, 1), span(12, 40, -3, 17, 40, 2));
  lamp.add(C.glow, span(13, 35, -2, 16, 39, 1));
  lamp.paint(C.flame, span(14, 36, -2, 15, 38, 1), span(13, 36, -1, 16, 38, 0));
  for (const x of [12, 17]) for (const z of [-3, 2]) lamp.add(C.iron, span(x, 35, z, x, 39, z));
  lamp.add(C.iron, span(12, 34, -3, 17, 34, 2), span(13, 33, -2, 16, 33, 1));
  lamp.shade(C.ironDark, C.iron, C.ironLight, 0);
}

function shots(m: Maker): void {
  m.apply(addShotEdit, {
    name: 'Dusk, quayside',
    shot: {
      camera: makeCamera({ kind: 'perspective', eye: [44, 34, 78], target: [3, 21, 0], fov: 32, height: 52 }),
      light: makeLight({
        sun: { azimuth: -48, elevation: 16, size: 5, colour: '#ffb27a', strength: 1.1 },
        sky: { zenith: '#3b4a78', horizon: '#c78f86', strength: 0.55 },
        glow: { strength: 1.6 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#6b6470' } }),
      clip: m.clipId('Walk'),
      time: 300,
      grade: makeGrade({ exposure: 0.35, bloom: 0.08, vignette: 0.2 }),
      output: makeOutput({ size: [640, 400], samples: 32 }),
    },
  });
  m.apply(addShotEdit, {
    name: 'Noon portrait',
    shot: {
      camera: makeCamera({ kind: 'perspective', eye: [26, 37, 52], target: [3, 29, 0], fov: 30, height: 30 }),
      light: makeLight({
        sun: { azimuth: 38, elevation: 48, size: 4, colour: '#fff1dc', strength: 2.2 },
        sky: { zenith: '#8fb4d9', horizon: '#e9e4da', strength: 0.8 },
        glow: { strength: 1 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#cfc8bb' } }),
      clip: m.clipId('Idle'),
      time: 0,
      grade: makeGrade({ exposure: -0.1 }),
      output: makeOutput({ size: [480, 480], samples: 32 }),
    },
  });
  m.apply(addShotEdit, {
    name: 'Game view',
    shot: {
      camera: makeCamera({ kind: 'orthographic', eye: [70, 77, 70], target: [2, 20, 0], fov: 32, height: 58 }),
      light: makeLight({
        sun: { azimuth: 20, elevation: 55, size: 3, colour: '#fff1dc', strength: 2.2 },
        sky: { zenith: '#a9c2d6', horizon: '#e9e4da', strength: 0.9 },
        glow: { strength: 1 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#b9b2a5' } }),
      clip: null,
      time: 0,
      grade: makeGrade({ exposure: 0 }),
      output: makeOutput({ size: [400, 400], samples: 32 }),
    },
  });
}

import type { Project } from '@sphalerite/core/model';
import { INK as C, emberquaySwatches } from '../emberquay-palette';
import { Maker, span } from '../maker';

/** A chest: a lid that turns about its back edge, and a hasp. */
export function buildHingedProp(): Project {
  const m = new Maker('Hinged prop', 'prop', 0.05);
  m.palette('Emberquay', emberquaySwatches());
  m.bone('Base', null, [0, 0, 0]);
  m.bone('Lid', 'Base', [0, 9, -5]);
  m.bone('Hasp', 'Lid', [0, 10, 5]);
  const base = m.part('Base', 'Base', span(-10, 0, -7, 9, 11, 7));
  base
    .both(C.bark, span(0, 0, -5, 7, 8, 4))
    .eraseBoth(span(0, 1, -4, 6, 8, 3))
    .shade(C.barkDark, C.bark, C.barkLight, 0.14);
  base
    .paintBoth(C.iron, span(7, 0, -5, 7, 8, -5), span(7, 0, 4, 7, 8, 4))
    .paintBoth(C.honeyDark, span(0, 5, 4, 0, 6, 4));
  const lid = m.part('Lid', 'Lid', span(-10, 7, -8, 9, 16, 8));
  lid.both(C.bark, span(0, 9, -5, 7, 10, 4), span(0, 11, -4, 7, 12, 3)).shade(C.barkDark, C.bark, C.barkLight, 0.14);
  lid.paintBoth(C.iron, span(7, 9, -5, 7, 12, 4)).paintBoth(C.ironLight, span(7, 12, -4, 7, 12, 3));
  m.part('Hasp', 'Hasp', span(-4, 4, 2, 3, 12, 8))
    .both(C.honey, span(0, 7, 5, 0, 9, 5))
    .shade(C.honeyDark, C.honey, C.honeyLight, 0);
  m.attach('Inside', 'Base', [0, 1, 0]);
  m.clip('Open', 30, 24, false, {
    Hasp: [
      { at: 0, turn: [0] },
      { at: 5, turn: [-96] },
      { at: 9, turn: [-78] },
      { at: 30, turn: [-84] },
    ],
    Lid: [
      { at: 0, turn: [0] },
      { at: 7, turn: [2] },
      { at: 20, turn: [-112] },
      { at: 24, turn: [-98] },
      { at: 27, turn: [-106] },
      { at: 30, turn: [-104] },
    ],
  });
  m.clip('Close', 22, 24, false, {
    Lid: [
      { at: 0, turn: [-104] },
      { at: 4, turn: [-108] },
      { at: 14, turn: [0] },
      { at: 17, turn: [-5] },
      { at: 20, turn: [0] },
      { at: 22, turn: [0] },
    ],
    Hasp: [
      { at: 0, turn: [-84] },
      { at: 15, turn: [-60] },
      { at: 18, turn: [6] },
      { at: 22, turn: [0] },
    ],
  });
  m.seal(2);
  return m.project;
}

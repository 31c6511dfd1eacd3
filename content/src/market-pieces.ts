import type { Id } from '@sphalerite/core/model';
import { newPartHereEdit, resizePartEdit } from '@sphalerite/core/project';
import { INK as C } from './emberquay-palette';
import { type Cells, type Maker, Sculptor, span } from './maker';
import { MARKET as M } from './market-palette';

/** A piece of a scene that is built with its anchor on the ground below its middle; `low` cubes of it lie below. */
export function piece(
  m: Maker,
  name: string,
  [w, h, d]: readonly [number, number, number],
  low = 0,
): { id: Id; cut: Sculptor } {
  const scene = m.project.scenes[0]!.id;
  m.apply(newPartHereEdit, {
    ...{ scene, name, palette: m.project.palettes[0]!.id, cell: 1 },
    ...{ size: [w, h, d], place: { t: [0, 0, 0] } },
  });
  const id = m.project.parts.at(-1)!.id;
  if (low > 0)
    m.apply(resizePartEdit, {
      part: id,
      bounds: { min: [-Math.floor(w / 2), -low, -Math.floor(d / 2)], size: [w, h + low, d] },
    });
  return { id, cut: new Sculptor(m, id) };
}

/** Stones laid in rows, every second row by half a stone further: their tones by where they lie. */
function stones(
  x0: number,
  z0: number,
  x1: number,
  z1: number,
  y: number,
  tones: readonly number[],
): Map<number, Cells[]> {
  const out = new Map<number, Cells[]>();
  for (let z = z0, row = 0; z <= z1; z += 5, row++)
    for (let x = x0 - (row % 2 ? 4 : 0), n = 0; x <= x1; x += 8, n++) {
      const a = Math.max(x0, x),
        b = Math.min(x1, x + 6);
      if (b < a) continue;
      const tone = tones[(n * 7 + row * 5 + ((n * row) % 3)) % tones.length]!;
      out.set(tone, [...(out.get(tone) ?? []), span(a, y, z, b, y, Math.min(z1, z + 3))]);
    }
  return out;
}

/** A square of the quay: setts on top, blocks towards the water. */
export function quayTile(m: Maker, wide: number, deep: number): Id {
  const { id, cut } = piece(m, 'Quay', [wide, 1, deep], 14);
  const [x0, x1, z0, z1] = [-wide / 2, wide / 2 - 1, -deep / 2, deep / 2 - 1];
  cut.add(C.slateDark, span(x0, -14, z0, x1, -2, z1)).add(M.joint, span(x0, -1, z0, x1, -1, z1));
  for (const [tone, cells] of stones(x0, z0, x1, z1 - 4, 0, [M.sett, M.settDark, M.sett, M.settLight]))
    cut.add(tone, ...cells);
  cut.add(M.joint, span(x0, 0, z0, x1, 0, z1 - 4));
  // The kerb.
  for (let x = x0, n = 0; x <= x1; x += 16, n++)
    cut.add(n % 2 ? M.settLight : M.sett, span(x, -1, z1 - 3, Math.min(x1, x + 14), 0, z1));
  cut.add(M.joint, span(x0, -1, z1 - 3, x1, 0, z1));
  for (let y = -13, row = 0; y < -2; y += 4, row++)
    for (let x = x0 - (row % 2 ? 8 : 0), n = 0; x <= x1; x += 16, n++)
      cut.paint(
        [C.slate, M.settDark, C.slateLight][(n + row * 2) % 3]!,
        span(Math.max(x0, x), y, z1, Math.min(x1, x + 14), y + 2, z1),
      );
  return id;
}

export function canal(m: Maker, wide: number, deep: number): Id {
  const { id, cut } = piece(m, 'Canal', [wide, 1, deep]);
  const [x0, x1, z0, z1] = [-wide / 2, wide / 2 - 1, -deep / 2, deep / 2 - 1];
  cut.add(M.water, span(x0, 0, z0, x1, 0, z1));
  for (let z = z0 + 3, n = 0; z < z1; z += 5, n++)
    for (let x = x0 + ((n * 23) % 17); x < x1 - 14; x += 26 + ((((n * 11 + x * 3) % 19) + 19) % 19))
      cut.paint(M.waterLight, span(x, 0, z, x + 5 + ((((n * 5 + z * 7) % 6) + 6) % 6), 0, z));
  return id;
}

export interface House {
  readonly name: string;
  readonly wide: number;
  readonly deep: number;
  /** To the eaves. */
  readonly high: number;
  readonly door: number;
  /** Left edges of windows on each floor. */
  readonly windows: readonly number[];
  readonly floors: number;
}

/** A timbered house with a tiled gable roof; it looks towards +Z. */
export function house(m: Maker, { name, wide, deep, high, door, windows, floors }: House): Id {
  const peak = Math.floor(wide / 2) + 2;
  const { id, cut } = piece(m, name, [wide + 8, high + peak + 12, deep + 8]);
  const [x0, x1, z0, z1] = [-wide / 2, wide / 2 - 1, -deep / 2, deep / 2 - 1];
  cut.add(M.settDark, span(x0, 0, z0, x1, 7, z1)).paint(M.sett, span(x0, 6, z0, x1, 7, z1));
  cut.add(M.plaster, span(x0, 8, z0, x1, high, z1));
  cut.paint(M.plasterDark, span(x0, 8, z0, x1, 9, z1), span(x0, high - 2, z0, x1, high, z1));
  // Gables rise with the roof.
  for (let i = 0; i < peak - 2; i++) cut.add(M.plaster, span(x0 + i + 1, high + i, z0, x1 - i - 1, high + i, z1));
  // Timber: corner posts, a beam on each floor, and braces.
  const storey = Math.floor((high - 8) / floors);
  cut.add(C.bark, span(x0 - 1, 0, z1, x0 + 2, high, z1 + 1), span(x1 - 2, 0, z1, x1 + 1, high, z1 + 1));
  for (let f = 0; f <= floors; f++) {
    const y = f === floors ? high - 1 : 8 + f * storey;
    cut
      .add(C.bark, span(x0, y, z1, x1, y + 2, z1 + 1))
      .add(C.bark, span(x1, y, z0, x1 + 1, y + 2, z1), span(x0 - 1, y, z0, x0, y + 2, z1));
  }
  for (let i = 0; i < storey - 4; i++) {
    const y = 11 + storey * (floors - 1) + i;
    cut.add(C.barkLight, span(x0 + 4 + Math.floor(i / 2), y, z1 + 1, x0 + 5 + Math.floor(i / 2), y, z1 + 1));
    cut.add(C.barkLight, span(x1 - 5 - Math.floor(i / 2), y, z1 + 1, x1 - 4 - Math.floor(i / 2), y, z1 + 1));
  }
  for (let f = 0; f < floors; f++)
    for (const [n, left] of windows.entries()) {
      if (f === 0 && Math.abs(left - door) < 14) continue;
      const y = 8 + f * storey + Math.floor(storey / 3);
      cut.add(
        C.bark,
        span(left, y, z1 + 1, left + 11, y + 13, z1 + 1),
        span(left - 1, y - 1, z1 + 1, left + 12, y - 1, z1 + 2),
      );
      const glass = (n + f) % 3 === 2 ? C.slateDark : M.window;
      cut.paint(
        glass,
        span(left + 2, y + 2, z1 + 1, left + 5, y + 6, z1 + 1),
        span(left + 7, y + 2, z1 + 1, left + 9, y + 6, z1 + 1),
      );
      cut.paint(
        glass,
        span(left + 2, y + 8, z1 + 1, left + 5, y + 11, z1 + 1),
        span(left + 7, y + 8, z1 + 1, left + 9, y + 11, z1 + 1),
      );
      // Shutters stand open.
      cut.add(
        M.awning,
        span(left - 5, y, z1 + 1, left - 2, y + 13, z1 + 1),
        span(left + 13, y, z1 + 1, left + 16, y + 13, z1 + 1),
      );
    }
  cut
    .add(C.barkDark, span(door, 0, z1 + 1, door + 15, 30, z1 + 1))
    .paint(C.hide, span(door + 2, 0, z1 + 1, door + 13, 28, z1 + 1));
  cut
    .paint(M.window, span(door + 4, 21, z1 + 1, door + 11, 25, z1 + 1))
    .add(C.honey, span(door + 11, 13, z1 + 2, door + 11, 14, z1 + 2));
  cut.add(M.settLight, span(door - 1, 0, z1 + 1, door + 16, 1, z1 + 3));
  // The roof, in courses of two tones, a little over the walls.
  for (let i = -3; i < peak; i++) {
    const y = high + i,
      [a, b] = [x0 + i - 1, x1 - i + 1];
    if (b < a) break;
    const tone = [M.roof, M.roofDark, M.roof, M.roofLight][((i % 4) + 4) % 4]!;
    cut.add(tone, span(a, y, z0 - 3, a + 1, y, z1 + 3), span(b - 1, y, z0 - 3, b, y, z1 + 3));
    for (let z = z0 - 3 + (i & 1 ? 3 : 0); z <= z1; z += 7)
      cut.paint(i & 2 ? M.roofLight : M.roofDark, span(a, y, z, a, y, z + 2), span(b, y, z, b, y, z + 2));
  }
  cut.add(C.bark, span(-1, high + peak - 2, z0 - 3, 0, high + peak, z1 + 3));
  cut
    .add(M.settDark, span(x1 - 16, high, z0 + 8, x1 - 8, high + peak + 6, z0 + 16))
    .add(M.joint, span(x1 - 17, high + peak + 5, z0 + 7, x1 - 7, high + peak + 7, z0 + 17));
  return id;
}

/** A stall: a counter under a striped awning, open on three sides. */
export function stall(m: Maker): Id {
  const { id, cut } = piece(m, 'Stall', [56, 52, 40]);
  cut.both(C.bark, span(23, 0, 14, 25, 40, 16), span(23, 0, -16, 25, 48, -14));
  cut.both(C.bark, span(0, 0, 10, 24, 1, 12)).both(C.hide, span(0, 2, 9, 24, 15, 13));
  for (let x = -24; x < 25; x += 6) cut.paint(C.hideDark, span(x, 2, 13, x, 15, 13));
  cut.both(C.hideLight, span(0, 16, 6, 25, 17, 17)).both(C.barkLight, span(0, 2, -14, 24, 24, -12));
  cut.both(C.bark, span(0, 38, 14, 24, 39, 15), span(0, 46, -15, 24, 47, -14));
  for (let z = -18; z <= 19; z++) {
    const y = 48 - Math.round(((z + 18) * 9) / 37);
    for (let x = -27, n = 0; x <= 26; x += 6, n++)
      cut.add(n % 2 ? C.milk : M.awning, span(x, y, z, Math.min(26, x + 5), y + 1, z));
  }
  // The valance hangs in scallops.
  for (let x = -27, n = 0; x <= 26; x += 6, n++) {
    const end = Math.min(26, x + 5);
    cut.add(
      n % 2 ? C.milk : M.awningDark,
      span(x, 36, 19, end, 38, 19),
      span(Math.min(x + 1, end), 34, 19, Math.max(x, end - 1), 35, 19),
    );
  }
  cut.add(C.iron, span(0, 36, 8, 0, 45, 8)).add(C.iron, span(-2, 35, 6, 2, 35, 10), span(-2, 29, 6, 2, 29, 10));
  cut.add(C.glow, span(-1, 30, 7, 1, 34, 9)).paint(C.flame, span(0, 31, 9, 0, 33, 9), span(-1, 31, 8, 1, 33, 8));
  return id;
}

/** What lies on a counter: crates of what is sold, round things in rows. */
export function wares(m: Maker, name: string, tones: readonly [number, number, number]): Id {
  const { id, cut } = piece(m, name, [46, 12, 12]);
  for (const [n, left] of [-23, -7, 9].entries()) {
    cut.add(C.hide, span(left, 0, -5, left + 13, 4, 5)).paint(C.hideDark, span(left, 2, -5, left + 13, 2, 5));
    cut.erase(span(left + 1, 3, -4, left + 12, 4, 4));
    for (let x = left + 1; x < left + 12; x += 3)
      for (let z = -4; z < 4; z += 3) {
        const high = 4 + ((x * 5 + z * 3 + 40) % 2);
        cut.add(tones[n]!, span(x, 3, z, x + 1, high, z + 1));
      }
  }
  return id;
}

export function crate(m: Maker): Id {
  const { id, cut } = piece(m, 'Pear crate', [16, 14, 14]);
  cut.add(C.hide, span(-8, 0, -7, 7, 12, 6)).erase(span(-6, 9, -5, 5, 12, 4));
  cut
    .add(M.lime, span(-6, 8, -5, 5, 9, 4))
    .add(M.leafLight, span(-5, 10, -4, -3, 11, -2), span(0, 10, 0, 2, 11, 2), span(3, 10, -4, 4, 10, -3));
  cut
    .paint(C.hideDark, span(-8, 4, -7, 7, 4, 6), span(-8, 8, -7, 7, 8, 6))
    .paint(C.bark, span(-8, 0, 6, -7, 12, 6), span(6, 0, 6, 7, 12, 6), span(-8, 0, -7, -7, 12, -7));
  return id;
}

export function barrel(m: Maker): Id {
  const { id, cut } = piece(m, 'Barrel', [14, 18, 14]);
  cut.add(C.hide, span(-5, 0, -7, 4, 17, 6), span(-7, 0, -5, 6, 17, 4), span(-6, 0, -6, 5, 17, 5));
  cut.paint(C.iron, span(-7, 3, -7, 6, 4, 6), span(-7, 13, -7, 6, 14, 6)).paint(C.hideDark, span(-5, 17, -5, 4, 17, 4));
  for (const x of [-4, 0, 3]) cut.paint(C.hideDark, span(x, 5, -7, x, 12, 6));
  return id;
}

export function bollard(m: Maker): Id {
  const { id, cut } = piece(m, 'Bollard', [10, 14, 10]);
  cut.add(
    C.iron,
    span(-3, 0, -3, 2, 11, 2),
    span(-4, 9, -4, 3, 12, 3),
    span(-4, 0, -4, 3, 1, 3),
    span(-3, 13, -3, 2, 13, 2),
  );
  cut
    .paint(C.ironLight, span(-4, 12, -4, 3, 12, 3))
    .add(C.hideLight, span(-4, 4, -4, 3, 6, 3))
    .paint(C.hide, span(-4, 5, -4, 3, 5, 3));
  return id;
}

/** A post with its lantern on an arm; the foot of stone. */
export function lampPost(m: Maker): Id {
  const { id, cut } = piece(m, 'Lamp post', [30, 78, 14]);
  cut
    .add(C.slate, span(-6, 0, -6, 5, 3, 5))
    .paint(C.slateLight, span(-6, 3, -6, 5, 3, 5))
    .add(C.slateDark, span(-5, 4, -5, 4, 6, 4));
  cut.add(
    C.iron,
    span(-2, 7, -2, 1, 66, 1),
    span(-3, 7, -3, 2, 10, 2),
    span(-3, 26, -3, 2, 27, 2),
    span(-3, 46, -3, 2, 47, 2),
    span(-3, 66, -3, 2, 69, 2),
    span(-2, 70, -2, 1, 72, 1),
  );
  cut.add(C.iron, span(2, 63, -1, 13, 64, 0), span(2, 58, -1, 3, 62, 0), span(4, 60, -1, 5, 61, 0));
  cut.paint(C.ironLight, span(-3, 69, -3, 2, 69, 2), span(2, 64, -1, 13, 64, 0));
  cut.add(
    C.iron,
    span(8, 61, -3, 13, 62, 2),
    span(7, 59, -4, 14, 60, 3),
    span(8, 47, -3, 13, 47, 2),
    span(10, 62, -1, 11, 62, 0),
  );
  cut.add(C.glow, span(8, 48, -3, 13, 58, 2)).paint(C.flame, span(9, 50, -3, 12, 55, 2), span(8, 50, -2, 13, 55, 1));
  for (const x of [7, 14]) for (const z of [-4, 3]) cut.add(C.iron, span(x, 47, z, x, 60, z));
  return id;
}

/** Paper lanterns on a sagging rope, red and teal by turns. */
export function lanterns(m: Maker, wide: number): Id {
  const { id, cut } = piece(m, 'Lanterns', [wide, 26, 6], 0);
  const sag = (x: number): number => Math.round(22 - 12 * (1 - (x / (wide / 2)) ** 2));
  for (let x = -wide / 2; x < wide / 2; x++) {
    const y = sag(x);
    cut.add(C.barkLight, span(x, y, 0, x, Math.max(y, sag(x + 1)), 0));
  }
  for (let x = -wide / 2 + 7, n = 0; x < wide / 2 - 4; x += 12, n++) {
    const y = sag(x);
    cut.add(
      n % 3 === 1 ? M.teal : n % 3 === 2 ? C.glow : M.red,
      span(x - 1, y - 6, -1, x + 2, y - 2, 2),
      span(x, y - 7, 0, x + 1, y - 1, 1),
    );
    cut.add(C.ironDark, span(x, y - 1, 0, x + 1, y - 1, 1));
  }
  return id;
}

/** A rowing boat with its oars shipped; its waterline is its anchor. */
export function boat(m: Maker): Id {
  const { id, cut } = piece(m, 'Row boat', [84, 14, 28], 4);
  for (let x = -38; x <= 38; x++) {
    const half = Math.round(12 * Math.sqrt(Math.max(0, 1 - (Math.abs(x) / 40) ** 2.6)));
    const rise = Math.round(4 * (Math.abs(x) / 38) ** 3);
    if (half < 1) continue;
    cut.add(C.hide, span(x, -4 + Math.floor(rise / 2), -half + 1, x, -3 + Math.floor(rise / 2), half - 2));
    cut.add(C.hideDark, span(x, -3, -half, x, 4 + rise, -half), span(x, -3, half - 1, x, 4 + rise, half - 1));
    cut.add(C.green, span(x, 5 + rise, -half, x, 6 + rise, -half), span(x, 5 + rise, half - 1, x, 6 + rise, half - 1));
  }
  for (const x of [-20, 0, 20]) cut.add(C.hideLight, span(x - 3, 2, -10, x + 3, 3, 9));
  cut
    .add(C.hideLight, span(-26, 7, -8, 30, 8, -7), span(-22, 7, 6, 34, 8, 7))
    .add(C.hideDark, span(-34, 6, -10, -26, 8, -6), span(-30, 6, 4, -22, 8, 9));
  return id;
}

/** Reeds that stand in the water by the wall. */
export function reeds(m: Maker): Id {
  const { id, cut } = piece(m, 'Reeds', [16, 30, 12]);
  for (let n = 0; n < 15; n++) {
    const x = ((n * 7) % 15) - 7,
      z = ((n * 5) % 11) - 5,
      h = 12 + ((n * 11) % 14);
    cut.add([M.leaf, M.leafLight, M.leafDark][n % 3]!, span(x, 0, z, x, h, z));
    if (n % 3 === 0) cut.add(C.bark, span(x, h + 1, z, x, h + 3, z));
  }
  return id;
}

/** A box of clipped green with flowers. */
export function planter(m: Maker): Id {
  const { id, cut } = piece(m, 'Planter', [18, 18, 14]);
  cut.add(C.hide, span(-8, 0, -6, 7, 7, 5)).paint(C.hideDark, span(-8, 3, -6, 7, 3, 5));
  cut
    .add(M.leaf, span(-8, 8, -6, 7, 12, 5), span(-6, 13, -4, 5, 15, 3))
    .paint(M.leafLight, span(-5, 15, -3, 3, 15, 2), span(-8, 12, -5, -3, 12, 5));
  cut
    .paint(
      M.cherry,
      span(-7, 11, 5, -6, 12, 5),
      span(-1, 10, 5, 0, 11, 5),
      span(4, 12, 5, 5, 12, 5),
      span(1, 15, 1, 2, 15, 2),
    )
    .paint(C.milk, span(-4, 9, 5, -3, 9, 5), span(6, 9, 5, 6, 10, 5));
  return id;
}

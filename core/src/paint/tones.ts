import { sameBytes } from '../voxel';
import { type Palette, type Swatch, stemOf, toOklch } from '../palette';

/** For each byte the next darker and the next lighter swatch of its own family; the byte itself where there is none. */
export interface OwnTones {
  readonly darker: Uint8Array;
  readonly lighter: Uint8Array;
}

/** Difference of lightness that one step of tone aims at, in OKLCH. */
const STEP = 0.1;
const known = new WeakMap<Palette, OwnTones>();

/**
 * Finds for each swatch its neighbours in tone: those of its name ("Skin" and "Skin, shade", "Oak 1" and "Oak 2"), or, where
 * there are none, those of like surface and hue (within 40°, or both nearly grey), darker or lighter by about a tenth.
 * Memoised for as long as the palette lives.
 */
export function ownTones(palette: Palette): OwnTones {
  let out = known.get(palette);
  if (!out) {
    const list = palette.swatches.map((s) => ({ s, stem: stemOf(s.name), ...toOklch(s.colour) }));
    const darker = sameBytes(),
      lighter = darker.slice();
    const alike = (a: Swatch, b: Swatch): boolean =>
      a.helper === b.helper &&
      a.emissive > 0 === b.emissive > 0 &&
      a.opacity < 1 === b.opacity < 1 &&
      a.metalness > 0.5 === b.metalness > 0.5;
    for (const a of list) {
      const family = a.stem !== '' && list.some((b) => b !== a && b.stem === a.stem);
      let down = Infinity,
        up = Infinity;
      for (const b of list) {
        if (a === b || (family ? a.stem !== b.stem : !alike(a.s, b.s))) continue;
        const turn = Math.abs(((a.h - b.h + 540) % 360) - 180);
        const grey = a.c < 0.04 && b.c < 0.04;
        const rise = b.l - a.l;
        // The name says it; else hue and distance must.
        if (
          family
            ? Math.abs(rise) < 0.005
            : (!grey && (turn > 40 || a.c < 0.02 || b.c < 0.02)) || Math.abs(rise) < 0.02 || Math.abs(rise) > 0.32
        )
          continue;
        const cost = Math.abs(Math.abs(rise) - STEP) + (grey ? 0 : turn / 400) + 2 * Math.abs(a.c - b.c);
        if (rise < 0 && cost < down) {
          down = cost;
          darker[a.s.byte] = b.s.byte;
        } else if (rise > 0 && cost < up) {
          up = cost;
          lighter[a.s.byte] = b.s.byte;
        }
      }
    }
    known.set(palette, (out = { darker, lighter }));
  }
  return out;
}

/** Lightness beyond which a neighbour is another colour beside its own, not a tone of it. */
const NEAR = 0.16;
const near = new WeakMap<Palette, OwnTones>();

/** {@link ownTones} without those that lie far apart: side by side on a wall they would look like camouflage. */
export function nearTones(palette: Palette): OwnTones {
  let out = near.get(palette);
  if (!out) {
    const lightness = new Map(palette.swatches.map((s) => [s.byte, toOklch(s.colour).l]));
    const close = (to: Uint8Array): Uint8Array =>
      to.map((b, from) => {
        const [l, m] = [lightness.get(from), lightness.get(b)];
        return l !== undefined && m !== undefined && Math.abs(l - m) <= NEAR ? b : from;
      });
    const { darker, lighter } = ownTones(palette);
    near.set(palette, (out = { darker: close(darker), lighter: close(lighter) }));
  }
  return out;
}

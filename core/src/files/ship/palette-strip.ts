import { type Palette, fromLinear, hexBytes, toLinear } from '../../palette';
import { BYTE_VALUES } from '../../voxel';
import { encodePng } from '../png';

/** Pictures of 256×1 pixels, one a palette byte; sampled at pixel centres without filtering. */
export interface PaletteStrip {
  readonly colour: Uint8Array;
  /** Green is roughness, blue is metalness, as glTF packs them. */
  readonly roughnessMetal: Uint8Array;
  /** Null when nothing glows. Dimmed so that the strongest swatch is at its full colour. */
  readonly glow: Uint8Array | null;
  /** Strength of the strongest swatch, which the pictures' light is multiplied with; 1 when nothing is stronger. */
  readonly glowStrength: number;
}

export function paletteStrip(palette: Palette): PaletteStrip {
  const colour = new Uint8Array(1024),
    surface = new Uint8Array(1024),
    glow = new Uint8Array(1024);
  for (let i = 3; i < 1024; i += 4) colour[i] = surface[i] = glow[i] = 255;
  const strongest = Math.max(0, ...palette.swatches.map((s) => s.emissive));
  const glowStrength = Math.max(1, strongest);
  for (const s of palette.swatches) {
    const o = s.byte * 4;
    const rgb = hexBytes(s.colour);
    colour.set(rgb, o);
    colour[o + 3] = Math.round(s.opacity * 255);
    surface[o + 1] = Math.round(s.roughness * 255);
    surface[o + 2] = Math.round(s.metalness * 255);
    if (s.emissive > 0) {
      // The share is of light, the picture is in sRGB.
      glow.set(
        rgb.map((v) => Math.round(255 * fromLinear(toLinear(v / 255) * (s.emissive / glowStrength)))),
        o,
      );
    }
  }
  return {
    colour: encodePng(BYTE_VALUES, 1, colour),
    roughnessMetal: encodePng(BYTE_VALUES, 1, surface),
    glow: strongest > 0 ? encodePng(BYTE_VALUES, 1, glow) : null,
    glowStrength,
  };
}

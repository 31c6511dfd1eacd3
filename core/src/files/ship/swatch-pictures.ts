import { type Palette, fromLinear, hexBytes, toLinear } from '../../palette';
import { BYTE_VALUES } from '../../voxel';
import { encodePng } from '../png';

/** Pictures whose texels are swatches; sampled at texel centres without filtering. */
export interface SwatchPictures {
  readonly colour: Uint8Array;
  /** Green is roughness, blue is metalness, as glTF packs them. */
  readonly roughnessMetal: Uint8Array;
  /** Null when nothing glows. Dimmed so that the strongest swatch is at its full colour. */
  readonly glow: Uint8Array | null;
}

/** Strength of a palette's strongest swatch, which the light of glow pictures is multiplied with; 1 when nothing is stronger. */
export const glowStrength = (palette: Palette): number => Math.max(1, ...palette.swatches.map((s) => s.emissive));
export const glows = (palette: Palette): boolean => palette.swatches.some((s) => s.emissive > 0);

/** Every byte of a palette side by side: 256 × 1 texels. */
export const STRIP = Uint8Array.from({ length: BYTE_VALUES }, (_, byte) => byte);

/** Pictures of texels that are bytes of a palette; 0 is black. */
export function swatchPictures(palette: Palette, width: number, height: number, texels: Uint8Array): SwatchPictures {
  const looks = bytesOf(palette);
  const drawn = (table: Uint8Array): Uint8Array => {
    const whole = new Uint32Array(table.slice().buffer),
      out = new Uint32Array(width * height);
    for (let i = 0; i < out.length; i++) out[i] = whole[texels[i]!]!;
    return encodePng(width, height, new Uint8Array(out.buffer));
  };
  return {
    colour: drawn(looks.colour),
    roughnessMetal: drawn(looks.surface),
    glow: looks.glow && drawn(looks.glow),
  };
}

/** Four bytes a swatch, by its byte. */
function bytesOf(palette: Palette): { colour: Uint8Array; surface: Uint8Array; glow: Uint8Array | null } {
  const [colour, surface, glow] = [0, 1, 2].map(() => new Uint8Array(BYTE_VALUES * 4)) as [
    Uint8Array,
    Uint8Array,
    Uint8Array,
  ];
  for (let i = 3; i < colour.length; i += 4) colour[i] = surface[i] = glow[i] = 255;
  const strongest = glowStrength(palette);
  for (const s of palette.swatches) {
    const o = s.byte * 4;
    const rgb = hexBytes(s.colour);
    colour.set(rgb, o);
    colour[o + 3] = Math.round(s.opacity * 255);
    surface[o + 1] = Math.round(s.roughness * 255);
    surface[o + 2] = Math.round(s.metalness * 255);
    // The share is of light, the picture is in sRGB.
    if (s.emissive > 0)
      glow.set(
        rgb.map((v) => Math.round(255 * fromLinear(toLinear(v / 255) * (s.emissive / strongest)))),
        o,
      );
  }
  return { colour, surface, glow: glows(palette) ? glow : null };
}

import { type Palette, paletteTable } from '../palette';

/** Surfaces of a palette by byte, for the tracer. */
export interface TraceSurfaces {
  /** Linear light, 3 a byte. */
  readonly colour: Float32Array;
  readonly emissive: Float32Array;
  readonly roughness: Float32Array;
  readonly metalness: Float32Array;
  readonly opacity: Float32Array;
}

const known = new WeakMap<Palette, Map<number, TraceSurfaces>>();

/** A palette as the tracer sees it, the same for the same palette; `glow` multiplies every swatch's emission. */
export function surfacesOf(palette: Palette, glow: number): TraceSurfaces {
  let byGlow = known.get(palette);
  if (!byGlow) known.set(palette, (byGlow = new Map()));
  let surfaces = byGlow.get(glow);
  if (!surfaces) {
    const table = paletteTable(palette);
    const column = (f: (s: (typeof table.swatches)[number]) => number): Float32Array =>
      Float32Array.from(table.swatches, f);
    surfaces = {
      colour: table.linear,
      emissive: column((s) => s.emissive * glow),
      roughness: column((s) => s.roughness),
      metalness: column((s) => s.metalness),
      opacity: column((s) => s.opacity),
    };
    byGlow.set(glow, surfaces);
  }
  return surfaces;
}

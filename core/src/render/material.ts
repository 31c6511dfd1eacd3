import { type Palette, type Rgb, paletteTable } from '../palette';

/** Surfaces of a palette by byte, for the tracer. */
export interface TraceSurfaces {
  /** Linear light, 3 a byte. */
  readonly colour: Float32Array;
  /** What light is lost in see-through cubes, by the logarithm of what stays over one of them; 3 a byte. */
  readonly loss: Float32Array;
  /** Light given off, 3 a byte. */
  readonly glow: Float32Array;
  /** Brightest of that light, 0 for what gives none. */
  readonly emissive: Float32Array;
  readonly roughness: Float32Array;
  readonly metalness: Float32Array;
  readonly opacity: Float32Array;
}

/** Over so many cubes see-through things take on the colour of their swatch. */
const DEEP = 2;

const known = new WeakMap<Palette, Map<string, TraceSurfaces>>();

/**
 * A palette as the tracer sees it, the same for the same palette.
 *
 * @param glow – multiplies every swatch's emission
 * @param tint – linear, multiplies the colour of it
 */
export function surfacesOf(palette: Palette, glow: number, tint: Rgb = [1, 1, 1]): TraceSurfaces {
  let byGlow = known.get(palette);
  if (!byGlow) known.set(palette, (byGlow = new Map()));
  const key = [glow, ...tint].join();
  let surfaces = byGlow.get(key);
  if (!surfaces) byGlow.set(key, (surfaces = makeSurfaces(palette, glow, tint)));
  return surfaces;
}

function makeSurfaces(palette: Palette, glow: number, tint: Rgb): TraceSurfaces {
  const table = paletteTable(palette);
  const column = (f: (s: (typeof table.swatches)[number]) => number): Float32Array =>
    Float32Array.from(table.swatches, f);
  const strength = column((s) => s.emissive * glow);
  const given = table.linear.map((v, i) => v * strength[Math.floor(i / 3)]! * tint[i % 3]!);
  return {
    colour: table.linear,
    loss: table.linear.map((v) => Math.log(Math.max(1e-3, v)) / DEEP),
    glow: given,
    emissive: strength.map((_, b) => Math.max(given[b * 3]!, given[b * 3 + 1]!, given[b * 3 + 2]!)),
    roughness: column((s) => s.roughness),
    metalness: column((s) => s.metalness),
    opacity: column((s) => s.opacity),
  };
}

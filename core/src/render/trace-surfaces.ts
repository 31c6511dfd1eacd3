import { type Project, must } from '../model';
import { paletteTable } from '../palette';

/** Surfaces of a palette by byte, for the tracer. */
export interface TraceSurfaces {
  /** Linear light, 3 a byte. */
  readonly colour: Float32Array;
  readonly emissive: Float32Array;
  readonly roughness: Float32Array;
  readonly metalness: Float32Array;
  readonly opacity: Float32Array;
}

/** A palette of a project as the tracer sees it; `glow` multiplies every swatch's emission. */
export function surfacesOf(project: Project, palette: string, glow: number): TraceSurfaces {
  const table = paletteTable(must(project.palettes, palette, 'palette'));
  const column = (f: (s: (typeof table.swatches)[number]) => number): Float32Array =>
    Float32Array.from(table.swatches, f);
  return {
    colour: table.linear,
    emissive: column((s) => s.emissive * glow),
    roughness: column((s) => s.roughness),
    metalness: column((s) => s.metalness),
    opacity: column((s) => s.opacity),
  };
}

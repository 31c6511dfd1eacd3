/** Surface and colour of one palette entry. Its identity is `byte`, the value that cells hold. */
export interface Swatch {
  /** 1–255. */
  readonly byte: number;
  readonly name: string;
  /** sRGB as `#rrggbb`, lower case. */
  readonly colour: string;
  /** Strength of the glow, 0 (none) and up; 1 gives off as much light as a white wall in full sun reflects. */
  readonly emissive: number;
  /** 0 is a mirror, 1 is chalk. */
  readonly roughness: number;
  /** 0 or 1, or between for worn metal. */
  readonly metalness: number;
  /** 1 is solid, less lets light through. */
  readonly opacity: number;
  /** Name of the engine's material slot, empty for the common one. */
  readonly slot: string;
  /** A spacer, support or mark: drawn hatched, left out of counts, pictures and exports. */
  readonly helper: boolean;
}

/** Up to 255 swatches, in the order in which they are shown. Sorting never changes bytes. */
export interface Palette {
  readonly id: string;
  readonly name: string;
  readonly swatches: readonly Swatch[];
}

export const MAX_SWATCHES = 255;

export const swatchDefaults = {
  emissive: 0,
  roughness: 0.8,
  metalness: 0,
  opacity: 1,
  slot: '',
  helper: false,
} as const;

export const makeSwatch = (byte: number, name: string, colour: string, more: Partial<Swatch> = {}): Swatch => ({
  ...swatchDefaults,
  ...more,
  byte,
  name,
  colour: colour.toLowerCase(),
});

/** The lowest byte that no swatch of the palette uses, or 0 when all 255 are taken. */
export function freeByte(palette: Palette): number {
  const used = new Set(palette.swatches.map((s) => s.byte));
  for (let b = 1; b <= MAX_SWATCHES; b++) if (!used.has(b)) return b;
  return 0;
}

import {
  clampChroma,
  converter,
  formatHex,
  interpolate,
  modeHsv,
  modeLrgb,
  modeOklab,
  modeOklch,
  modeRgb,
  parse,
  useMode,
} from 'culori/fn';

// Only these spaces are taken from the library, so that a page does not load thirty.
useMode(modeRgb);
useMode(modeLrgb);
useMode(modeOklab);
useMode(modeOklch);
useMode(modeHsv);

/** Normalises what an artist typed (`#abc`, `abcdef`, `teal`) to `#rrggbb`, or null. */
export function readHex(text: string): string | null {
  const t = text.trim();
  const c = parse(/^[0-9a-f]{3}$|^[0-9a-f]{6}$/i.test(t) ? `#${t}` : t);
  return c ? formatHex(c) : null;
}

/** A colour as OKLCH: lightness 0–1, chroma 0 to about 0.37, hue in degrees (0 for greys). */
export interface Oklch {
  readonly l: number;
  readonly c: number;
  readonly h: number;
}
/** A colour as HSV: hue in degrees, saturation and value 0–1. */
export interface Hsv {
  readonly h: number;
  readonly s: number;
  readonly v: number;
}

const inOklch = converter('oklch'),
  inHsv = converter('hsv');

export function toOklch(hex: string): Oklch {
  const { l, c, h } = inOklch(hex)!;
  // Greys come out with a trace of chroma, and with a hue that means nothing.
  return c < 1e-4 ? { l, c: 0, h: 0 } : { l, c, h: h ?? 0 };
}
const inRgb = converter('rgb');
/** The nearest colour that screens can show: chroma is taken back until it fits, lightness and hue stay. */
export function fromOklch({ l, c, h }: Oklch): string {
  const colour = { mode: 'oklch', l: Math.min(1, Math.max(0, l)), c: Math.max(0, c), h: turned(h) } as const;
  const { r, g, b } = inRgb(colour);
  // What lies out by less than half a byte is rounded in.
  return formatHex([r, g, b].every((v) => v > -0.002 && v < 1.002) ? colour : clampChroma(colour, 'oklch'));
}
export function toHsv(hex: string): Hsv {
  const { h, s, v } = inHsv(hex)!;
  return { h: h ?? 0, s, v };
}
export const fromHsv = ({ h, s, v }: Hsv): string => formatHex({ mode: 'hsv', h: turned(h), s, v });
/** Degrees brought to 0–360. */
export const turned = (h: number): number => ((h % 360) + 360) % 360;

/**
 * `steps` colours from `from` to `to`, even in OKLCH (hue the shorter way round).
 *
 * @param hueShift – degrees by which the hue bends aside in the middle of the way; the ends stay
 */
export function ramp(from: string, to: string, steps: number, hueShift = 0): string[] {
  const at = interpolate([from, to], 'oklch');
  return Array.from({ length: steps }, (_, i) => {
    const t = steps === 1 ? 0 : i / (steps - 1);
    if (hueShift === 0 || t === 0 || t === 1) return formatHex(at(t));
    const { l, c, h } = inOklch(at(t));
    return fromOklch({ l, c, h: (h ?? 0) + hueShift * 4 * t * (1 - t) });
  });
}

/** A colour in lighter and darker tones: dark first, the colour itself in the middle (or below it when `steps` is even). */
export function tones(base: string, steps: number, hueShift = 0): string[] {
  const { l, c, h } = toOklch(base);
  const middle = (steps - 1) >> 1;
  return Array.from({ length: steps }, (_, i) => {
    if (i === middle) return base;
    const k = i < middle ? (middle - i) / (middle + 1) : (i - middle) / (steps - middle);
    // Shades turn one way and lights the other; both lose a little chroma at the far end.
    return i < middle
      ? fromOklch({ l: l * (1 - 0.72 * k), c: c * (1 - 0.35 * k), h: h - hueShift * k })
      : fromOklch({ l: l + (1 - l) * 0.78 * k, c: c * (1 - 0.45 * k), h: h + hueShift * k });
  });
}

/** Colours that go with one, by their angle on the OKLCH hue circle. The first of each list is the next neighbour. */
export function harmonies(base: string): { readonly name: string; readonly colours: readonly string[] }[] {
  const { l, c, h } = toOklch(base);
  const at = (...angles: number[]): string[] => angles.map((a) => fromOklch({ l, c, h: h + a }));
  return [
    { name: 'neighbours', colours: at(-30, 30) },
    { name: 'opposite', colours: at(180) },
    { name: 'split', colours: at(150, 210) },
    { name: 'three', colours: at(120, 240) },
    { name: 'four', colours: at(90, 180, 270) },
  ];
}

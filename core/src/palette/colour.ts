import { formatHex, interpolate, modeLrgb, modeOklab, modeOklch, modeRgb, parse, useMode } from 'culori/fn';

// Only these spaces are taken from the library, so that a page does not load thirty.
useMode(modeRgb);
useMode(modeLrgb);
useMode(modeOklab);
useMode(modeOklch);

/** Red, green, blue, each 0–1. */
export type Rgb = readonly [number, number, number];

export const isHex = (text: string): boolean => /^#[0-9a-f]{6}$/.test(text);

/** sRGB 0–1 as linear light (IEC 61966-2-1). */
export const toLinear = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
/** Linear light as sRGB 0–1. */
export const fromLinear = (c: number): number => (c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055);

/** The bytes of `#rrggbb`. */
export function hexBytes(hex: string): readonly [number, number, number] {
  const n = Number.parseInt(hex.slice(1), 16);
  return [n >> 16, (n >> 8) & 255, n & 255];
}
export const hexToLinear = (hex: string): Rgb => {
  const [r, g, b] = hexBytes(hex);
  return [toLinear(r / 255), toLinear(g / 255), toLinear(b / 255)];
};

/** Normalises what an artist typed (`#abc`, `abcdef`, `teal`) to `#rrggbb`, or null. */
export function readHex(text: string): string | null {
  const t = text.trim();
  const c = parse(/^[0-9a-f]{3}$|^[0-9a-f]{6}$/i.test(t) ? `#${t}` : t);
  return c ? formatHex(c) : null;
}

/** `steps` colours from `from` to `to`, even in OKLCH (hue the shorter way round). */
export function ramp(from: string, to: string, steps: number): string[] {
  const at = interpolate([from, to], 'oklch');
  return Array.from({ length: steps }, (_, i) => formatHex(at(steps === 1 ? 0 : i / (steps - 1))));
}

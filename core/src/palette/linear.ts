// Apart from `colour.ts`, so that whoever needs only bytes and light does not load a library of colour spaces.

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

/** `#rrggbb` of three bytes. */
export const bytesHex = (r: number, g: number, b: number): string =>
  `#${((1 << 24) | (r << 16) | (g << 8) | b).toString(16).slice(1)}`;

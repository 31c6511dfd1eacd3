import type { Grade, ToneCurve } from '../model';
import { type Steps, hash32 } from '../math';
import { fromLinear } from '../palette';
import { brightness } from './glow';

/** Whether a grade draws by what the eye met: lines, or steps of light. */
export const isDrawn = ({ steps, outline }: Grade): boolean => steps > 0 || outline.width > 0;

/** Middle grey, which contrast leaves as it is. */
const GREY = 0.18;

/** Light as sRGB, 0–1, by the square root of it: even steps there are even steps to the eye. */
const ENCODED = Float32Array.from({ length: 16_385 }, (_, i) => fromLinear((i / 16_384) ** 2));
const encoded = (v: number): number => (v <= 0 ? 0 : v >= 1 ? 1 : ENCODED[Math.round(Math.sqrt(v) * 16_384)]!);

/** Rolls bright light off: straight up to 0.7, then bent so that it meets 1 only far above. */
const shoulder = (v: number): number => (v <= 0.7 ? v : 0.7 + 0.3 * (1 - Math.exp(-(v - 0.7) / 0.3)));

/**
 * Khronos PBR Neutral (2024): colours of matt things stay as they are, what is brighter is pressed together and only in the end
 * turns white. In place.
 */
function neutral(c: Float64Array): void {
  const START = 0.8 - 0.04,
    DESATURATION = 0.15;
  const least = Math.min(c[0]!, c[1]!, c[2]!);
  const offset = least < 0.08 ? least - 6.25 * least * least : 0.04;
  for (let i = 0; i < 3; i++) c[i]! -= offset;
  const peak = Math.max(c[0]!, c[1]!, c[2]!);
  if (peak < START) return;
  const d = 1 - START;
  const pressed = 1 - (d * d) / (peak + d - START);
  const k = pressed / peak;
  const white = 1 - 1 / (DESATURATION * (peak - pressed) + 1);
  for (let i = 0; i < 3; i++) c[i] = c[i]! * k * (1 - white) + pressed * white;
}

/** An S about middle grey: shadows fall off sooner, what is bright is pressed together as the soft curve does. */
function strong(v: number): number {
  const k = GREY * (Math.max(0, v) / GREY) ** 1.25;
  return shoulder(k);
}

function bend(curve: ToneCurve, c: Float64Array): void {
  if (curve === 'neutral') return neutral(c);
  if (curve === 'none') return;
  for (let i = 0; i < 3; i++) c[i] = curve === 'soft' ? shoulder(c[i]!) : strong(c[i]!);
}

/** What light white balance multiplies red, green and blue by; brightness stays. */
function balance({ warmth, tint }: Pick<Grade, 'warmth' | 'tint'>): [number, number, number] {
  const r = 2 ** (0.5 * warmth + 0.15 * tint),
    g = 2 ** (-0.3 * tint),
    b = 2 ** (-0.5 * warmth + 0.15 * tint);
  const k = 1 / brightness(r, g, b);
  return [r * k, g * k, b * k];
}

/** What is brighter than its colour by more than this glows of itself. */
const MOST_STEPPED = 6;

/** How far light spreads about what is bright, in shares of the picture’s height, and how much of it each time. */
const RINGS: readonly (readonly [number, number])[] = [
  [0.006, 0.45],
  [0.022, 0.33],
  [0.07, 0.22],
];

/** Grades pixels of a picture of one size. */
export class Grading {
  private readonly gain: number;
  private readonly white: readonly [number, number, number];
  private readonly c = new Float64Array(3);

  constructor(
    private readonly grade: Grade,
    private readonly width: number,
    private readonly height: number,
  ) {
    this.gain = 2 ** grade.exposure;
    this.white = balance(grade);
  }

  /** Takes a share of all light for what is spread about. In place. @param top – row of the picture with which the light begins */
  bloom(light: Float32Array, spread: Coarse, top = 0): void {
    const { grade, width } = this,
      { step, light: about } = spread,
      rows = light.length / 3 / width;
    for (let j = 0, i = 0; j < rows; j++) {
      const [above, below, t] = between(top + j, step, spread.height),
        up = above * spread.width,
        down = below * spread.width;
      for (let x = 0; x < width; x++) {
        const [left, right, s] = between(x, step, spread.width);
        for (let c = 0; c < 3; c++, i++) {
          const higher = about[(up + left) * 3 + c]! * (1 - s) + about[(up + right) * 3 + c]! * s,
            lower = about[(down + left) * 3 + c]! * (1 - s) + about[(down + right) * 3 + c]! * s;
          light[i] = light[i]! + (higher * (1 - t) + lower * t - light[i]!) * grade.bloom;
        }
      }
    }
  }

  /**
   * Light in a few steps from dark to bright, of the colour that it has. What glows stays as it is. In place.
   *
   * @param albedo – linear colour of what is seen, 3 a pixel
   */
  stepLight(light: Float32Array, albedo: Float32Array, cover: Float32Array): void {
    const { steps } = this.grade;
    if (steps === 0) return;
    for (let i = 0; i < cover.length; i++) {
      const own = brightness(albedo[i * 3]!, albedo[i * 3 + 1]!, albedo[i * 3 + 2]!);
      const falls = own > 0 ? (this.gain * brightness(light[i * 3]!, light[i * 3 + 1]!, light[i * 3 + 2]!)) / own : 0;
      if (falls === 0 || falls > MOST_STEPPED) continue;
      // Even steps to the eye; the brightest is the colour itself.
      const step = Math.min(1, Math.ceil(Math.sqrt(falls) * steps - 0.25) / steps);
      const k = Math.max(step, 0.5 / steps) ** 2 / falls;
      for (let c = 0; c < 3; c++) light[i * 3 + c] = light[i * 3 + c]! * k;
    }
  }

  /** Pixel `i` of linear light as sRGB, up to `most`. @param times – multiplies the light: one over alpha */
  pixel(
    light: Float32Array,
    i: number,
    x: number,
    y: number,
    times: number,
    out: Uint8Array | Uint16Array,
    most = 255,
  ): void {
    const { grade, gain, white, c, width, height } = this;
    let k = gain * times;
    if (grade.vignette > 0) {
      const u = (x + 0.5) / width - 0.5,
        v = (y + 0.5) / height - 0.5;
      const edge = Math.min(1, (u * u + v * v) * 2);
      k *= 1 - grade.vignette * edge * edge * (3 - 2 * edge);
    }
    for (let a = 0; a < 3; a++) c[a] = light[i * 3 + a]! * k * white[a]!;
    if (grade.contrast !== 0) {
      const power = 2 ** grade.contrast;
      for (let a = 0; a < 3; a++) c[a] = GREY * (Math.max(0, c[a]!) / GREY) ** power;
    }
    if (grade.saturation !== 0) {
      const grey = brightness(c[0]!, c[1]!, c[2]!);
      for (let a = 0; a < 3; a++) c[a] = Math.max(0, grey + (c[a]! - grey) * (1 + grade.saturation));
    }
    bend(grade.curve, c);
    // Grain is in what is shown, strongest in the middle tones.
    const noise =
      grade.grain === 0
        ? 0
        : (hash32(hash32(x + 0x51ed27) ^ Math.imul(y + 1, 0x9e3779b1)) / 4294967296 - 0.5) * grade.grain * 0.3;
    for (let a = 0; a < 3; a++) {
      const v = most === 255 ? encoded(c[a]!) : fromLinear(Math.max(0, Math.min(1, c[a]!)));
      out[i * 4 + a] = Math.round(
        most * (noise === 0 ? v : Math.max(0, Math.min(1, v + noise * Math.sqrt(v * (1 - v)) * 2))),
      );
    }
  }
}

/** Light in squares of pixels, the mean of each: what is spread wide need not be known finely. */
export interface Coarse {
  /** Edge of a square in pixels. */
  readonly step: number;
  /** In squares. */
  readonly width: number;
  readonly height: number;
  /** 3 a square. */
  readonly light: Float32Array;
}

/** Edge of the squares by which a picture’s light is spread: the narrowest ring is at least four of them. */
export const spreadStep = (height: number): number =>
  2 ** Math.max(0, Math.floor(Math.log2((RINGS[0]![0] * height) / 4)));

/** Light of a picture in squares. @param light – 3 a pixel */
export function coarse(light: Float32Array, width: number, height: number, step: number): Coarse {
  const [w, h] = [Math.ceil(width / step), Math.ceil(height / step)];
  const sums = new Float32Array(w * h * 3);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++, i++) sums[(Math.floor(y / step) * w + Math.floor(x / step)) * 3 + c]! += light[i]!;
  for (let v = 0, o = 0; v < h; v++)
    for (let u = 0; u < w; u++) {
      const pixels = Math.min(step, width - u * step) * Math.min(step, height - v * step);
      for (let c = 0; c < 3; c++, o++) sums[o]! /= pixels;
    }
  return { step, width: w, height: h, light: sums };
}

/** Light spread about where it is, as a lens does: none is made, and none is lost. @param tall – height of the picture in pixels */
export function* spreadSteps({ step, width, height, light }: Coarse, tall: number): Steps<Coarse> {
  const spread = new Float32Array(light.length);
  for (const [n, [reach, weight]] of RINGS.entries()) {
    const one = light.slice();
    // Three boxes one after another are near to a bell.
    const radius = Math.max(1, Math.round((reach * tall) / step));
    for (let pass = 0; pass < 3; pass++) {
      boxAlong(one, width, height, radius, true);
      boxAlong(one, width, height, radius, false);
      yield 0.1 + (0.4 * (n * 3 + pass + 1)) / 9;
    }
    for (let i = 0; i < light.length; i++) spread[i]! += weight * one[i]!;
  }
  return { step, width, height, light: spread };
}

/** The two squares between whose middles a pixel lies, and how far it is from the one to the other. */
function between(pixel: number, step: number, count: number): [number, number, number] {
  const at = (pixel + 0.5) / step - 0.5,
    before = Math.floor(at);
  return [Math.max(0, before), Math.min(count - 1, before + 1), at - before];
}

/** Each value the mean of those up to `radius` away along a row or a column; beyond the edge the edge goes on. */
function boxAlong(v: Float32Array, width: number, height: number, radius: number, rows: boolean): void {
  const lines = rows ? height : width,
    count = rows ? width : height,
    step = rows ? 3 : width * 3,
    next = rows ? width * 3 : 3;
  const line = new Float32Array(count);
  const share = 1 / (radius * 2 + 1);
  for (let n = 0; n < lines; n++)
    for (let c = 0; c < 3; c++) {
      const o = n * next + c;
      for (let i = 0; i < count; i++) line[i] = v[o + i * step]!;
      const at = (i: number): number =>
        line[
          i < 0
            ? -1 - i < count
              ? -1 - i
              : count - 1
            : i >= count
              ? 2 * count - 1 - i >= 0
                ? 2 * count - 1 - i
                : 0
              : i
        ]!;
      let sum = 0;
      for (let i = -radius; i <= radius; i++) sum += at(i);
      for (let i = 0; i < count; i++) {
        v[o + i * step] = sum * share;
        sum += at(i + radius + 1) - at(i - radius);
      }
    }
}

/** What a histogram tells: counts by brightness over stops about white, and shares that are burnt out and black. */
export interface Exposed {
  /** Counts of 64 steps of sRGB brightness. */
  readonly bars: readonly number[];
  readonly burnt: number;
  readonly black: number;
}
/** Reads a developed picture: RGBA bytes. */
export function exposed(pixels: Uint8Array): Exposed {
  const bars = new Array<number>(64).fill(0);
  let burnt = 0,
    black = 0,
    all = 0;
  for (let i = 0; i < pixels.length; i += 4) {
    if (pixels[i + 3] === 0) continue;
    all++;
    const v = 0.2126 * pixels[i]! + 0.7152 * pixels[i + 1]! + 0.0722 * pixels[i + 2]!;
    bars[Math.min(63, v >> 2)]!++;
    if (isBurnt(pixels, i)) burnt++;
    if (v < 2) black++;
  }
  return { bars, burnt: all ? burnt / all : 0, black: all ? black / all : 0 };
}
/** Whether nothing is told apart any more at a pixel: all of its colours are as bright as they can be. */
export const isBurnt = (pixels: Uint8Array, i: number): boolean =>
  pixels[i]! >= 254 && pixels[i + 1]! >= 254 && pixels[i + 2]! >= 254;

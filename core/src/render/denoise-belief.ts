import { ABOUT, type Planes, lumOf, smoothed } from './denoise-planes';

/** Share of its noise that a pixel is believed to have, where what was traced is weighed against what was evened. */
const BELIEVED = 0.25;
/** How much another colour counts as a fault, against another brightness. */
const COLOURED = 2;
/**
 * Variance of noise over squared brightness: where there is about so much of it, grain is seen, and what looks like a fault of the
 * filter must be surer: it is what goes beyond so many times the noise, and in colour so much of its scatter, which is four
 * times what is left of it in the mean of a few pixels.
 */
const SEEN = 0.04,
  SURE = 3,
  SURE_OF_COLOUR = 0.22;
/** Where there is about so much of it, what is left of it after evening is seen on what is plain. */
const SEEN_ON_PLAIN = 0.008;
/** Pixels to each side over which what was traced may speak against what was evened far, and over which its scatter is told. */
const WITNESSES = [1, 3, 7],
  SCATTERED = 5;
/** So many times what scatter leaves of it a mean may be off before it speaks against what was evened far. */
const PLAINLY = 2;
/** Squared brightness of what is dark, in which noise is seen less. */
const DARK = 0.02;

/**
 * Of each pixel as much of what was traced as its noise allows for: the filtered one differs by its fault and by the noise
 * of the traced one, so that what is more than noise is fault (after James & Stein 1961). Where nothing near or far tells of a
 * fault, it is as it was evened from afar.
 *
 * @param near – evened by what lies near, which is true to faint shadows and leaves mottles
 * @param far – evened from afar, which leaves none
 */
export function believed(picture: Planes, raw: Float32Array, near: Float32Array, far: Float32Array): Float32Array {
  const plain = plainness(picture, raw, far);
  const clean = near.map((v, o) => v + (far[o]! - v) * plain[Math.floor(o / 3)]!);
  const kept = keptOf(picture, raw, clean);
  return raw.map((v, o) => {
    const i = Math.floor(o / 3);
    return v + (clean[o]! - v) * (1 - (1 - kept[i]!) * (1 - plain[i]!));
  });
}

/** Where there is noise enough that it would be seen, from 0, where it is not, to 1. */
function seenOf({ width, height, noise }: Planes, clean: Float32Array, much: number): Float32Array {
  const bright = smoothed(
    noise.map((_, i) => lumOf(clean, i) ** 2),
    width,
    height,
    1,
  );
  return smoothed(noise, width, height, 1).map((v, i) => v / (v + much * (bright[i]! + DARK)));
}

/**
 * How far each pixel is plain, up to 1: what was traced there scatters about what was evened from afar, and its mean over
 * few pixels and over many is no further from it than scatter allows. Noise is never told better than what is found.
 */
function plainness(picture: Planes, raw: Float32Array, far: Float32Array): Float32Array {
  const { width, height, noise } = picture;
  const gap = noise.map((_, i) => lumOf(raw, i) - lumOf(far, i));
  const told = smoothed(noise, width, height, SCATTERED),
    found = smoothed(
      gap.map((v) => v * v),
      width,
      height,
      SCATTERED,
    );
  const plain = seenOf(picture, far, SEEN_ON_PLAIN);
  for (const about of WITNESSES) {
    const mean = smoothed(gap, width, height, about),
      left = leftOf(about);
    for (let i = 0; i < plain.length; i++) {
      const scatter = Math.min(found[i]!, told[i]!) * left,
        fault = Math.max(0, mean[i]! ** 2 - PLAINLY * scatter);
      plain[i]! *= scatter + fault === 0 ? 0 : scatter / (scatter + fault);
    }
  }
  return plain;
}

/** What is left of the variance of pixels in their mean of {@link smoothed}. */
function leftOf(about: number): number {
  let sum = 0,
    squares = 0;
  for (let d = -about; d <= about; d++) {
    const w = about + 1 - Math.abs(d);
    sum += w;
    squares += w * w;
  }
  return (squares / (sum * sum)) ** 2;
}

/**
 * How much of what was evened each pixel keeps, up to 1. Where noise is seen a fault must be more than it by far, or grain would stay.
 * Noise is known of brightness alone; a colour that differs one way all about is a fault besides.
 */
function keptOf(picture: Planes, raw: Float32Array, clean: Float32Array): Float32Array {
  const { width, height, noise } = picture;
  const fault = new Float32Array(width * height),
    other = new Float32Array(width * height);
  const mean = (field: Float32Array, about: number): Float32Array => smoothed(field, width, height, about);
  const own = mean(noise, 1),
    seen = seenOf(picture, clean, SEEN);
  for (let i = 0; i < fault.length; i++) other[i] = (lumOf(raw, i) - lumOf(clean, i)) ** 2;
  const gap = mean(other, 1);
  for (let i = 0; i < fault.length; i++) fault[i] = Math.max(0, gap[i]! - (1 + (SURE - 1) * seen[i]!) * own[i]!);
  for (let c = 0; c < 3; c++) {
    for (let i = 0; i < other.length; i++)
      other[i] = raw[i * 3 + c]! - clean[i * 3 + c]! * (lumOf(raw, i) / (lumOf(clean, i) + 1e-9));
    const about = mean(other, ABOUT);
    for (let i = 0; i < other.length; i++) other[i]! *= other[i]!;
    const squares = mean(other, ABOUT);
    for (let i = 0; i < fault.length; i++) {
      const one = about[i]! ** 2,
        scatter = Math.max(0, squares[i]! - one);
      fault[i]! += COLOURED * Math.max(0, one - SURE_OF_COLOUR * seen[i]! * scatter);
    }
  }
  return fault.map((f, i) => {
    const noisy = BELIEVED * own[i]!;
    return noisy + f === 0 ? 0 : noisy / (noisy + f);
  });
}

import type { Grade } from '../model';
import { fromLinear, hexToLinear } from '../palette';
import { GROUND, type Guides } from './film';

/** Means over each pixel of what the eye met there. */
interface Seen extends Guides {
  readonly width: number;
  readonly height: number;
}

/** How much farther, in shares of the distance, something has to lie to be behind and no part of the same slope. */
const STEP_BACK = 0.004;
/** Cosine of the angle from which a fold is a line. */
const FOLD = 0.8;
/** How far colours are apart, in shares of both, that a line parts; shades of one colour are not. */
const OTHER_COLOUR = 0.3;

/**
 * Draws lines into a developed picture: beyond the rim of whatever stands before something else, and with `inside` also about
 * folds, where colours and where parts meet. In place.
 *
 * @param out – red, green, blue, alpha from 0 to `most`
 */
export function drawOutline(
  seen: Seen,
  { width: wide, colour, inside }: Grade['outline'],
  out: Uint8Array | Uint16Array,
  most: number,
): void {
  const { width, height } = seen;
  const ink = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (x + 1 < width) part(seen, x, y, 1, 0, wide, inside, ink);
      if (y + 1 < height) part(seen, x, y, 0, 1, wide, inside, ink);
    }
  const rgb = hexToLinear(colour).map((v) => fromLinear(v) * most);
  for (let i = 0; i < ink.length; i++) {
    const k = ink[i]!;
    if (k === 0) continue;
    const o = i * 4,
      before = (out[o + 3]! / most) * (1 - k),
      after = before + k;
    for (let c = 0; c < 3; c++) out[o + c] = Math.round((out[o + c]! * before + rgb[c]! * k) / after);
    out[o + 3] = Math.round(after * most);
  }
}

/** Looks at a pixel and its neighbour to the right or below, and spreads ink from where they meet if a line parts them. */
function part(
  seen: Seen,
  x: number,
  y: number,
  dx: number,
  dy: number,
  wide: number,
  inside: boolean,
  ink: Float32Array,
): void {
  const { width, height, id } = seen;
  const p = y * width + x,
    q = p + dy * width + dx;
  const one = id[p]!,
    other = id[q]!;
  // Of the ground itself, and where it ends at the sky, nothing is drawn.
  if (one <= GROUND && other <= GROUND) return;
  // 1 when the neighbour lies behind, −1 when the pixel does.
  const behind = one <= GROUND ? -1 : other <= GROUND ? 1 : stepsBack(seen, x, y, dx, dy);
  const fold = behind === 0 && inside && (one !== other || differs(seen, p, q));
  if (behind === 0 && !fold) return;
  // Lines inside are half as wide, on both sides.
  const reach = behind === 0 ? Math.max(0.5, wide / 4) : wide;
  const cx = x + dx / 2,
    cy = y + dy / 2,
    most = Math.ceil(reach + 0.5);
  for (let v = Math.max(0, y - most); v <= Math.min(height - 1, y + most + dy); v++)
    for (let u = Math.max(0, x - most); u <= Math.min(width - 1, x + most + dx); u++) {
      // A rim is drawn outside of what it is the rim of.
      if (behind !== 0 && ((u - cx) * dx + (v - cy) * dy) * behind <= 0) continue;
      const k = Math.min(1, reach + 0.5 - Math.hypot(u - cx, v - cy)),
        i = v * width + u;
      if (k > ink[i]!) ink[i] = k;
    }
}

/** Whether the way from a pixel to its neighbour leaps, beyond how the slopes on both sides go on. */
function stepsBack({ width, height, depth }: Seen, x: number, y: number, dx: number, dy: number): number {
  const p = y * width + x,
    next = dy * width + dx;
  const leap = depth[p + next]! - depth[p]!;
  const before = x - dx >= 0 && y - dy >= 0 ? depth[p]! - depth[p - next]! : 0,
    after = x + 2 * dx < width && y + 2 * dy < height ? depth[p + 2 * next]! - depth[p + next]! : 0;
  const slope = Math.min(Math.abs(before), Math.abs(after));
  return Math.abs(leap) < 2.5 * slope + STEP_BACK * Math.min(depth[p]!, depth[p + next]!) ? 0 : Math.sign(leap);
}

function differs({ normal, albedo }: Seen, p: number, q: number): boolean {
  let along = 0,
    apart = 0,
    both = 0;
  for (let c = 0; c < 3; c++) {
    along += normal[p * 3 + c]! * normal[q * 3 + c]!;
    apart += Math.abs(albedo[p * 3 + c]! - albedo[q * 3 + c]!);
    both += albedo[p * 3 + c]! + albedo[q * 3 + c]!;
  }
  return along < FOLD || apart > OTHER_COLOUR * both;
}

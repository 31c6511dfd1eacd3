import { CodecError } from '../codec-error';
import { Growing } from './growing';
import type { Points } from './ply';
import { Scanner } from './scanner';

/** More points than these are not read: a part has no more cells. */
const MOST_POINTS = 2 ** 24;

/** Whether a text begins as a list of places, three or six numbers a line. */
export const looksLikePoints = (head: Uint8Array): boolean =>
  /^(\s*[#/].*\r?\n)*\s*-?[\d.]+[\s,;]+-?[\d.]+[\s,;]+-?[\d.]+([\s,;]+\d|\s*\r?\n)/.test(String.fromCharCode(...head));

/**
 * A text with a place a line, `x y z`, or with its colour, `x y z r g b` in bytes. Lines that begin with `#` or `//` are left out.
 *
 * @throws CodecError when a line is something else, with its number
 */
export function readXyz(bytes: Uint8Array): Points {
  const positions = new Growing(),
    colours = new Growing(),
    // Commas and semicolons stand between numbers as blanks do.
    plain = bytes.map((b) => (b === 44 || b === 59 ? 32 : b));
  const scan = new Scanner(plain);
  for (let line = 1; scan.line(); line++) {
    if (!scan.more() || scan.take(35) || scan.take(47)) continue;
    const p = [scan.number(), scan.number(), scan.number()] as const;
    if (p.some((v) => !Number.isFinite(v))) throw new CodecError('codec.noPoint', { line });
    positions.push3(...p);
    const c = [scan.number(), scan.number(), scan.number()] as const;
    const told = c.every((v) => v >= 0 && v <= 255);
    colours.push3(...(told ? c : ([153, 153, 153] as const)));
    if (positions.length > MOST_POINTS * 3) throw new CodecError('codec.manyPoints', { most: MOST_POINTS });
  }
  if (positions.length === 0) throw new CodecError('codec.noPoints');
  return { positions: positions.all(), colours: Uint8Array.from(colours.all()) };
}

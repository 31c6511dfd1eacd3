import { type Palette, type Swatch, bytesHex, makeSwatch } from '../../palette';
import { Nearest, fewColours, labInto, labsOf } from '../reduce';
import type { Finish, Looks } from './looks';

/** Swatches for looks, and which byte each look is. */
export interface Dyed {
  readonly swatches: readonly Swatch[];
  readonly bytes: Uint8Array;
}

/**
 * Swatches for all looks that are used: one each where there are no more than wished, else few colours for many.
 *
 * @param used – how many cells have each look
 */
export function swatchesOf(looks: Looks, used: Float64Array, most: number): Dyed {
  const all = [...used.keys()].filter((l) => used[l]! > 0);
  const hex = (l: number): string => {
    const c = looks.colour(l);
    return bytesHex(c >> 16, (c >> 8) & 255, c & 255);
  };
  const bytes = new Uint8Array(used.length);
  if (all.length <= most) {
    const names = new Map<string, number>();
    for (const l of all) names.set(looks.finish(l).slot, (names.get(looks.finish(l).slot) ?? 0) + 1);
    const swatches = all
      .toSorted((a, b) => used[b]! - used[a]! || a - b)
      .map((l, i) => {
        bytes[l] = i + 1;
        const finish = looks.finish(l);
        // A material of one colour gives its name.
        return swatch(i + 1, finish.slot && names.get(finish.slot) === 1 ? finish.slot : hex(l), hex(l), finish);
      });
    return { swatches, bytes };
  }
  const found = new Map<number, number>();
  for (const l of all) found.set(looks.colour(l), (found.get(looks.colour(l)) ?? 0) + used[l]!);
  const colours = fewColours(found, most);
  const near = nearestTo(colours);
  const weights = colours.map(() => new Map<Finish, number>());
  for (const l of all) {
    const k = near(looks.colour(l)),
      finish = looks.finish(l);
    bytes[l] = k + 1;
    weights[k]!.set(finish, (weights[k]!.get(finish) ?? 0) + used[l]!);
  }
  return {
    swatches: colours.map((c, k) => {
      const [finish] = [...weights[k]!].sort((a, b) => b[1] - a[1])[0] ?? [null];
      return swatch(k + 1, c, c, finish);
    }),
    bytes,
  };
}

/** The nearest swatches of a palette. */
export function matchedTo(palette: Palette, looks: Looks, used: Float64Array): Dyed {
  const { swatches } = palette;
  const near = nearestTo(swatches.map((s) => s.colour));
  const bytes = Uint8Array.from(used, (n, l) => (n > 0 ? swatches[near(looks.colour(l))]!.byte : 0));
  return { swatches, bytes };
}

function nearestTo(colours: readonly string[]): (colour: number) => number {
  const nearest = new Nearest(labsOf(colours)),
    own = new Float64Array(3);
  return (c) => {
    labInto(own, 0, c >> 16, (c >> 8) & 255, c & 255);
    return nearest.of(own[0]!, own[1]!, own[2]!);
  };
}

const swatch = (byte: number, name: string, colour: string, finish: Finish | null): Swatch =>
  makeSwatch(
    byte,
    name,
    colour,
    finish
      ? { opacity: finish.opacity, roughness: finish.roughness, metalness: finish.metalness, emissive: finish.emissive }
      : {},
  );

/** Places of rectangles that do not overlap, and how high they stand together. */
export interface Packing {
  /** Left and top of each, by its place in the list. */
  readonly at: Int32Array;
  readonly height: number;
}

/**
 * Packs rectangles into a strip of a given width, lowest place first and, among those, the one that leaves least below it (skyline,
 * bottom-left: Jylänki 2010, "A thousand ways to pack the bin"). Tall ones come first: a general packer of free rectangles took three
 * thousand times as long for 32,000 of them, and was no denser.
 *
 * @param sizes – width and height of each, in turn; none wider than `width`
 */
export function packSkyline(sizes: Int32Array, width: number): Packing {
  const count = sizes.length / 2;
  const order = Array.from({ length: count }, (_, i) => i).sort(
    (a, b) => sizes[b * 2 + 1]! - sizes[a * 2 + 1]! || sizes[b * 2]! - sizes[a * 2]! || a - b,
  );
  const at = new Int32Array(count * 2);
  // The line of tops, as stretches from left to right: where each begins and how high it is.
  const from: number[] = [0],
    top: number[] = [0];
  let height = 0;
  for (const n of order) {
    const w = sizes[n * 2]!,
      h = sizes[n * 2 + 1]!;
    let best = -1,
      low = Infinity,
      waste = Infinity;
    for (let s = 0; s < from.length; s++) {
      if (from[s]! + w > width) break;
      if (top[s]! > low) continue;
      let y = top[s]!,
        below = 0;
      for (let e = s; e < from.length && from[e]! < from[s]! + w && y <= low; e++) {
        const wide = Math.min(from[s]! + w, from[e + 1] ?? width) - from[e]!;
        if (top[e]! > y) {
          below += (from[e]! - from[s]!) * (top[e]! - y);
          y = top[e]!;
        } else below += wide * (y - top[e]!);
      }
      if (y < low || (y === low && below < waste)) [best, low, waste] = [s, y, below];
    }
    const x = from[best]!;
    at[n * 2] = x;
    at[n * 2 + 1] = low;
    height = Math.max(height, low + h);
    raise(from, top, best, x + w, low + h, width);
  }
  return { at, height };
}

/** The stretch from the start of number `s` to `end` stands at `y` from now on. */
function raise(from: number[], top: number[], s: number, end: number, y: number, width: number): void {
  let e = s,
    last = 0;
  while (e < from.length && from[e]! < end) last = top[e++]!;
  const beyond = from[e] ?? width;
  from.splice(s, e - s, from[s]!, ...(end < beyond ? [end] : []));
  top.splice(s, e - s, y, ...(end < beyond ? [last] : []));
  // Neighbours of one height are one stretch.
  for (const k of [s + 1, s])
    if (k > 0 && k < from.length && top[k] === top[k - 1]) {
      from.splice(k, 1);
      top.splice(k, 1);
    }
}

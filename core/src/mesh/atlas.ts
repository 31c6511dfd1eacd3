import { packSkyline } from './skyline';

/** How an image stands in an atlas. */
export interface AtlasPlace {
  /** Its number among the images that are kept. */
  readonly image: number;
  /** How it was turned to be like that one: 1 mirrored along u, 2 along v, and then 4 with u and v exchanged. */
  readonly turn: number;
  /** Its size before it shrank. */
  readonly wide: number;
  readonly high: number;
  /** How its columns became fewer, and its rows. */
  readonly u: Grain;
  readonly v: Grain;
}

/** Lines of texels of which so many became one: as many as lie between all places where something changes, or fewer at both ends. */
interface Grain {
  readonly step: number;
  /** Lines that the first one lacks. */
  readonly lack: number;
  /** Lines that are left. */
  readonly count: number;
}

export interface AtlasWishes {
  /** Texels around each image that repeat its edge. */
  readonly padding: number;
  readonly powersOfTwo: boolean;
  /** Longest edge. */
  readonly most: number;
}

interface Image {
  readonly wide: number;
  readonly high: number;
  readonly texels: Uint8Array;
}

/** An atlas with its images in place. */
export interface PackedAtlas {
  readonly width: number;
  readonly height: number;
  /** Byte of each texel, rows from the top; 0 where nothing stands. */
  readonly texels: Uint8Array;
  /** How much of it images take, their padding included, before its edges were rounded. */
  readonly used: number;
  /** Where a point of an image stands, in texels. @param i – along u, in texels of the image as it was added, as j */
  at(place: AtlasPlace, i: number, j: number): readonly [number, number];
}

/** The level down to which nothing of a neighbour bleeds into an image with so much around it: its texels are averages of 2^level a side. */
export const cleanMip = (padding: number): number => Math.floor(Math.log2(padding + 1));

/** Small pictures by their palette bytes, each kept once: those of one colour as a texel, rows and columns that repeat as one, in any of 8 turns. */
export class Atlas {
  private readonly images: Image[] = [];
  private readonly known = new Map<string, number>();

  get count(): number {
    return this.images.length;
  }

  /** Takes an image. @param texels – its bytes, u fastest; 0 where any will do */
  add(wide: number, high: number, texels: Uint8Array): AtlasPlace {
    const full = filledIn(wide, high, texels);
    const u = grainOf(wide, (i) => differs(full, i, 1, wide, high)),
      v = grainOf(high, (j) => differs(full, j * wide, wide, 1, wide));
    const small = shrunk({ wide, high, texels: full }, u, v);
    let turn = 0,
      kept = small;
    if (small.texels.length > 1)
      for (let t = 1; t < 8; t++) {
        const other = turned(small, t);
        if (before(other, kept)) [turn, kept] = [t, other];
      }
    const key = `${kept.wide} ${String.fromCharCode(...kept.texels.subarray(0, 4096))}${kept.texels.length > 4096 ? kept.texels.subarray(4096).join() : ''}`;
    let image = this.known.get(key);
    if (image === undefined) {
      image = this.images.push(kept) - 1;
      this.known.set(key, image);
    }
    return { image, turn, wide, high, u, v };
  }

  /** All of them side by side; null when they do not fit. */
  packed({ padding, powersOfTwo, most }: AtlasWishes): PackedAtlas | null {
    const sizes = Int32Array.from(this.images.flatMap((m) => [m.wide + 2 * padding, m.high + 2 * padding]));
    let area = 0,
      widest = 1;
    for (let i = 0; i < sizes.length; i += 2) {
      area += sizes[i]! * sizes[i + 1]!;
      widest = Math.max(widest, sizes[i]!);
    }
    if (widest > most || area > most * most) return null;
    let best: { width: number; height: number; packing: ReturnType<typeof packSkyline> } | null = null;
    for (const strip of widths(area, widest, powersOfTwo, most)) {
      const packing = packSkyline(sizes, strip);
      const [width, height] = powersOfTwo ? [strip, powerOver(packing.height)] : [strip, Math.max(1, packing.height)];
      if (height > most) continue;
      const smaller = !best || width * height < best.width * best.height;
      const squarer =
        best &&
        width * height === best.width * best.height &&
        Math.max(width, height) < Math.max(best.width, best.height);
      if (smaller || squarer) best = { width, height, packing };
    }
    if (!best) return null;
    const { width, height, packing } = best;
    const texels = new Uint8Array(width * height);
    this.images.forEach((m, n) => {
      const x = packing.at[n * 2]! + padding,
        y = packing.at[n * 2 + 1]! + padding;
      for (let j = -padding; j < m.high + padding; j++) {
        const row = Math.min(m.high - 1, Math.max(0, j)) * m.wide;
        for (let i = -padding; i < m.wide + padding; i++)
          texels[(y + j) * width + x + i] = m.texels[row + Math.min(m.wide - 1, Math.max(0, i))]!;
      }
    });
    return {
      width,
      height,
      texels,
      used: area / Math.max(1, width * packing.height),
      at: ({ image, turn, u, v }, i, j) => {
        // Where all is alike, the middle of its texel does for every corner.
        let [s, t] = [u.count === 1 ? 0.5 : (i + u.lack) / u.step, v.count === 1 ? 0.5 : (j + v.lack) / v.step];
        if (turn & 1) s = u.count - s;
        if (turn & 2) t = v.count - t;
        if (turn & 4) [s, t] = [t, s];
        return [packing.at[image * 2]! + padding + s, packing.at[image * 2 + 1]! + padding + t];
      },
    };
  }
}

const powerOver = (n: number): number => 2 ** Math.ceil(Math.log2(Math.max(1, n)));

/** Widths worth trying: powers of two, or a few about a square. */
function widths(area: number, widest: number, powersOfTwo: boolean, most: number): number[] {
  const edge = Math.sqrt(area);
  const list = powersOfTwo
    ? [0.5, 1, 2].map((f) => powerOver(edge * f))
    : [1, 1.02, 1.06, 1.15].map((f) => Math.ceil(edge * f));
  const least = powersOfTwo ? powerOver(widest) : widest;
  return [...new Set(list.map((w) => Math.min(most, Math.max(least, w))))].sort((a, b) => a - b);
}

/** Texels for which any will do take what stands before them in the row, or in the row before. */
function filledIn(wide: number, high: number, texels: Uint8Array): Uint8Array {
  if (!texels.includes(0)) return texels;
  const out = texels.slice();
  let last = texels.find((v) => v !== 0) ?? 0;
  for (let j = 0; j < high; j++) {
    for (let i = 0; i < wide; i++) {
      const at = j * wide + i;
      if (out[at] === 0) out[at] = i > 0 ? last : (out.subarray(at, at + wide - i).find((v) => v !== 0) ?? last);
      last = out[at]!;
    }
    last = out[j * wide]!;
  }
  return out;
}

/** Whether a line of texels is not as the one before it. @param back – from a texel to that of the line before @param next – to the next of its own */
function differs(texels: Uint8Array, first: number, back: number, next: number, count: number): boolean {
  for (let k = 0, at = first; k < count; k++, at += next) if (texels[at] !== texels[at - back]) return true;
  return false;
}
/** How lines that repeat become one. @param changes – whether a line is not as the one before it */
function grainOf(long: number, changes: (at: number) => boolean): Grain {
  let first = -1,
    step = 0;
  for (let at = 1; at < long && step !== 1; at++) {
    if (!changes(at)) continue;
    if (first < 0) first = at;
    else step = gcd(step, at - first);
  }
  if (first < 0) return { step: long, lack: 0, count: 1 };
  // Changed once only: two lines, the longer one whole.
  if (step === 0) step = Math.max(first, long - first);
  const lack = (step - (first % step)) % step;
  return { step, lack, count: Math.ceil((long + lack) / step) };
}
const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

function shrunk({ wide, high, texels }: Image, u: Grain, v: Grain): Image {
  if (u.step === 1 && v.step === 1) return { wide, high, texels };
  const out = new Uint8Array(u.count * v.count);
  for (let j = 0; j < v.count; j++)
    for (let i = 0; i < u.count; i++)
      out[j * u.count + i] = texels[Math.max(0, j * v.step - v.lack) * wide + Math.max(0, i * u.step - u.lack)]!;
  return { wide: u.count, high: v.count, texels: out };
}

function turned({ wide, high, texels }: Image, turn: number): Image {
  const out = new Uint8Array(texels.length);
  const w = turn & 4 ? high : wide;
  for (let j = 0; j < high; j++)
    for (let i = 0; i < wide; i++) {
      const s = turn & 1 ? wide - 1 - i : i,
        t = turn & 2 ? high - 1 - j : j;
      out[turn & 4 ? s * w + t : t * w + s] = texels[j * wide + i]!;
    }
  return { wide: w, high: turn & 4 ? wide : high, texels: out };
}

/** An order among an image's turns: wide ones first, then by their texels. */
function before(a: Image, b: Image): boolean {
  if (a.wide !== b.wide) return a.wide > b.wide;
  for (let i = 0; i < a.texels.length; i++) if (a.texels[i] !== b.texels[i]) return a.texels[i]! < b.texels[i]!;
  return false;
}

import { type Planes, type Surface, lumOf } from './denoise-planes';

/** How many standard deviations of its neighbours a pixel may be brighter than them. */
const DOT = 3;
/** How much more or less of one thing neighbours may show by which a pixel is held. */
const MIXED = 0.25;

/** What is told of neighbours: how many, and sums of their brightness and of its square. */
class Neighbours {
  private n = 0;
  private sum = 0;
  private squares = 0;
  clear(): void {
    this.n = this.sum = this.squares = 0;
  }
  add(l: number): void {
    this.n++;
    this.sum += l;
    this.squares += l * l;
  }
  get enough(): boolean {
    return this.n >= 6;
  }
  /** The brightest that is believed among them. */
  get most(): number {
    const mean = this.sum / this.n;
    return mean + DOT * Math.sqrt(Math.max(0, this.squares / this.n - mean * mean)) + 0.02 * mean;
  }
}

/**
 * The light with pixels that stand out alone held to what their neighbours on their plane are, or, where a pixel shows edges and has none,
 * to what all of them are; what they lose comes to all about them later.
 */
export function withoutDots(
  { width, height, light, noise, colour }: Planes,
  { normal, grain, purity, apart }: Surface,
): Float32Array {
  const out = light.slice(),
    alike = new Neighbours(),
    all = new Neighbours();
  const greyOf = (i: number): number => lumOf(colour, i);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (grain[i] === 0 || noise[i] === 0) continue;
      alike.clear();
      all.clear();
      for (let dy = -2; dy <= 2; dy++)
        for (let dx = -2; dx <= 2; dx++) {
          const xx = x + dx,
            yy = y + dy;
          if ((dx === 0 && dy === 0) || xx < 0 || yy < 0 || xx >= width || yy >= height) continue;
          const j = yy * width + xx;
          if (grain[j] === 0) continue;
          const l = lumOf(light, j);
          all.add(l * greyOf(j));
          if (Math.abs(purity[j]! - purity[i]!) > MIXED) continue;
          const facing =
            normal[i * 3]! * normal[j * 3]! +
            normal[i * 3 + 1]! * normal[j * 3 + 1]! +
            normal[i * 3 + 2]! * normal[j * 3 + 2]!;
          if (facing >= 0.98) alike.add(l);
        }
      if (!alike.enough && !all.enough) continue;
      const most = alike.enough ? alike.most : all.most / greyOf(i),
        own = lumOf(light, i);
      // What is bright without noise is so in truth: both halves of the samples say so.
      if (own <= most || (own - most) ** 2 > 16 * Math.max(noise[i]!, apart[i]!)) continue;
      for (let c = 0; c < 3; c++) out[i * 3 + c] = (light[i * 3 + c]! * most) / own;
    }
  return out;
}

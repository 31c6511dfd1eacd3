import type { MeshShape, MeshSurface, MeshTexture, Pixels } from '../../codec';
import { PLAIN_SURFACE } from '../../codec';
import { fromLinear, toLinear } from '../../palette';
import { KeyTable } from './key-table';

/** What a place of a surface is like besides its colour. */
export interface Finish {
  /** The surface's. */
  readonly slot: string;
  readonly opacity: number;
  readonly roughness: number;
  readonly metalness: number;
  readonly emissive: number;
}

const LINEAR = Float64Array.from({ length: 256 }, (_, i) => toLinear(i / 255));
const STEPS = 65_535;
const BYTES = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * fromLinear(i / STEPS)));
/** The byte of a share of light; fine enough that every byte comes back as it was. */
export const srgbByte = (v: number): number => BYTES[Math.round(STEPS * Math.min(1, Math.max(0, v)))]!;

/** A picture halved again and again, as light adds up, so that a cube sees all texels it covers. */
class Halvings {
  private readonly levels: { readonly width: number; readonly height: number; readonly of: Float32Array | null }[];

  constructor(private readonly picture: Pixels) {
    this.levels = [{ width: picture.width, height: picture.height, of: null }];
  }

  /** Red, green, blue as linear light and how opaque, of the texel at a place; into `out`. */
  at(u: number, v: number, level: number, repeats: boolean, out: Float64Array): void {
    // Coordinates that are no numbers show the first texel.
    if (!Number.isFinite(u + v + level)) [u, v, level] = [0, 0, 0];
    const { width, height, of } = this.level(level);
    const x = texel(u, width, repeats),
      y = texel(v, height, repeats),
      i = (y * width + x) * 4;
    if (of) {
      const alpha = of[i + 3]!;
      for (let c = 0; c < 3; c++) out[c] = alpha > 0 ? of[i + c]! / alpha : 0;
      out[3] = alpha;
      return;
    }
    const { rgba } = this.picture;
    for (let c = 0; c < 3; c++) out[c] = LINEAR[rgba[i + c]!]!;
    out[3] = rgba[i + 3]! / 255;
  }

  private level(wanted: number) {
    while (this.levels.length <= wanted) {
      const last = this.levels.at(-1)!;
      if (last.width === 1 && last.height === 1) break;
      this.levels.push(this.halved(last));
    }
    return this.levels[Math.min(wanted, this.levels.length - 1)]!;
  }
  private halved({ width, height, of }: { width: number; height: number; of: Float32Array | null }) {
    const w = Math.max(1, width >> 1),
      h = Math.max(1, height >> 1),
      out = new Float32Array(w * h * 4),
      { rgba } = this.picture;
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++)
        for (let k = 0; k < 4; k++) {
          const i = (Math.min(height - 1, y * 2 + (k >> 1)) * width + Math.min(width - 1, x * 2 + (k & 1))) * 4,
            o = (y * w + x) * 4;
          // Multiplied with how opaque it is, so that nothing shines through from what cannot be seen.
          const alpha = of ? of[i + 3]! : rgba[i + 3]! / 255;
          for (let c = 0; c < 3; c++) out[o + c]! += (of ? of[i + c]! : LINEAR[rgba[i + c]!]! * alpha) / 4;
          out[o + 3]! += alpha / 4;
        }
    return { width: w, height: h, of: out };
  }
}

function texel(at: number, long: number, repeats: boolean): number {
  if (!Number.isFinite(at)) return 0;
  const share = repeats ? at - Math.floor(at) : at;
  return Math.min(long - 1, Math.max(0, Math.floor(share * long)));
}

/** A colour and a finish, each of them once, by a number. */
export class Looks {
  private readonly table = new KeyTable(1024);
  private readonly keys: number[] = [];
  private readonly finishes: Finish[] = [];
  private readonly places = new Map<string, number>();
  private readonly pictures = new Map<number, Halvings>();
  private readonly clears = new Map<number, 'cut' | 'through'>();
  private readonly scratch = new Float64Array(4);

  /** @param decoded – pictures of the scene; null where one was not given */
  constructor(
    private readonly surfaces: readonly MeshSurface[],
    private readonly decoded: readonly (Pixels | null)[],
  ) {}

  get count(): number {
    return this.keys.length;
  }
  /** Red · 65536 + green · 256 + blue. */
  colour(look: number): number {
    return Math.floor(this.keys[look]! / 65536);
  }
  finish(look: number): Finish {
    return this.finishes[this.keys[look]! % 65536]!;
  }

  /** What surface a shape has. */
  surfaceOf(shape: MeshShape): MeshSurface {
    return this.surfaces[shape.surface] ?? (shape.colours ? { ...PLAIN_SURFACE, colour: [1, 1, 1] } : PLAIN_SURFACE);
  }
  /** Texels along each side of a surface's picture; null where it has none. */
  texelsOf(surface: MeshSurface): readonly [number, number] | null {
    const p = surface.picture && this.decoded[surface.picture.picture];
    return p ? [p.width, p.height] : null;
  }

  /**
   * The look of a place.
   *
   * @param tint – of the corners there, linear and how opaque
   * @param level – how often its pictures are halved
   * @returns −1 where it is cut out
   */
  at(surface: MeshSurface, tint: Float64Array, u: number, v: number, level: number): number {
    const { scratch } = this;
    let [r, g, b, a] = [surface.colour[0], surface.colour[1], surface.colour[2], surface.opacity];
    if (this.texture(surface.picture, u, v, level)) {
      r *= scratch[0]!;
      g *= scratch[1]!;
      b *= scratch[2]!;
      a *= scratch[3]!;
    }
    r *= tint[0]!;
    g *= tint[1]!;
    b *= tint[2]!;
    a *= tint[3]!;
    const clear = surface.clear === 'pictured' ? this.picturedClear(surface.picture) : surface.clear;
    if (clear === 'solid') a = 1;
    if (clear === 'cut') {
      if (a < surface.cut) return -1;
      a = 1;
    }
    if (a < 0.02) return -1;
    let [gr, gg, gb] = surface.glow;
    if (gr + gg + gb > 0 && this.texture(surface.glowPicture, u, v, level)) {
      gr *= scratch[0]!;
      gg *= scratch[1]!;
      gb *= scratch[2]!;
    }
    let { roughness, metalness } = surface;
    if (this.texture(surface.roughMetalPicture, u, v, level)) {
      // Numbers, not colours: what was taken for light is taken back.
      roughness *= fromLinear(scratch[1]!);
      metalness *= fromLinear(scratch[2]!);
    }
    const glow = Math.max(gr, gg, gb),
      light = Math.max(r, g, b);
    let emissive = 0;
    if (glow > 0.002) {
      // What only glows has the colour of its glow.
      if (light < glow / 50) [r, g, b] = [gr / glow, gg / glow, gb / glow];
      emissive = glow / Math.max(r, g, b);
    }
    return this.place(srgbByte(r), srgbByte(g), srgbByte(b), surface.name, a, roughness, metalness, emissive);
  }

  /** Pictures of leaves and grates are all or nothing; those that let light through lie in between. */
  private picturedClear(of: MeshTexture | null): 'cut' | 'through' {
    const p = of && this.decoded[of.picture];
    if (!p) return 'cut';
    let known = this.clears.get(of.picture);
    if (!known) {
      let out = 0,
        between = 0;
      for (let i = 3; i < p.rgba.length; i += 4) {
        if (p.rgba[i]! < 26) out++;
        else if (p.rgba[i]! < 230) between++;
      }
      this.clears.set(of.picture, (known = between * 3 > out ? 'through' : 'cut'));
    }
    return known;
  }

  private texture(of: MeshTexture | null, u: number, v: number, level: number): boolean {
    if (!of) return false;
    let h = this.pictures.get(of.picture);
    if (!h) {
      const p = this.decoded[of.picture];
      if (!p) return false;
      this.pictures.set(of.picture, (h = new Halvings(p)));
    }
    h.at(u, v, level, of.repeats, this.scratch);
    return true;
  }

  /** The number of a colour with a finish. */
  place(
    r: number,
    g: number,
    b: number,
    slot: string,
    opacity: number,
    roughness: number,
    metalness: number,
    emissive: number,
  ): number {
    const byte = (x: number): number => Math.round(Math.min(1, Math.max(0, x)) * 255);
    const [o, ro, m, e] = [byte(opacity), byte(roughness), byte(metalness), Math.round(Math.min(100, emissive) * 50)];
    const name = `${o} ${ro} ${m} ${e} ${slot}`;
    let finish = this.places.get(name);
    if (finish === undefined) {
      // More than can be told apart are as the last one.
      finish = Math.min(65535, this.finishes.length);
      this.finishes[finish] = {
        ...{ slot, opacity: round(o / 255), roughness: round(ro / 255), metalness: round(m / 255), emissive: e / 50 },
      };
      this.places.set(name, finish);
    }
    return this.keyed(((r << 16) | (g << 8) | b) * 65536 + finish);
  }
  /** The same finish in another colour. */
  withColour(look: number, r: number, g: number, b: number): number {
    return this.keyed(((r << 16) | (g << 8) | b) * 65536 + (this.keys[look]! % 65536));
  }
  private keyed(key: number): number {
    const before = this.table.size,
      at = this.table.place(key);
    if (at === before) this.keys.push(key);
    return at;
  }
}
const round = (v: number): number => Math.round(v * 100) / 100;

import type { Output } from '../model';
import {
  type Area,
  type Coarse,
  type Film,
  type FilmLight,
  type LightTile,
  TILE,
  type TraceCamera,
  countsFor,
  denoiseSteps,
  guided,
  lightOf,
  meets,
  partOf,
} from '../render';
import type { Steps } from '../math';

/** Pixels from which on a picture is made piece by piece, and kept in storage as it comes: a film takes 80 bytes a pixel. */
export const LARGE = 5_000_000;
export const isLarge = ({ makes, size: [width, height] }: Pick<Output, 'makes' | 'size'>): boolean =>
  makes === 'picture' && width * height > LARGE;

/** Edge of a piece in pixels, in whole tiles: noise is taken out of it with all that is near it at hand, which takes 130 MB. */
export const PIECE = 6 * TILE;

/** So many tiles away at most lies what counts for a piece. */
const NEAR = 4;

/** How a picture comes piece by piece: its tiles are traced once, row by row; as soon as all that counts for a piece stands, noise is taken out of it and the tiles go. */
export class PiecePlan {
  /** Pieces by rows. */
  readonly rows: readonly (readonly Area[])[];
  /** Tiles row by row, found by their place in the list. */
  readonly tiles: readonly Area[];
  /** Pieces row by row, found by their place in the list. */
  readonly pieces: readonly Area[];

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly denoise: boolean,
  ) {
    this.tiles = this.areas(TILE);
    this.pieces = this.areas(PIECE);
    const across = Math.ceil(width / PIECE);
    this.rows = Array.from({ length: this.pieces.length / across }, (_, i) =>
      this.pieces.slice(i * across, (i + 1) * across),
    );
  }

  /** Whether a tile is needed for a piece. */
  private needs(piece: Area, tile: Area): boolean {
    return this.denoise ? countsFor(tile, piece) : meets(tile, piece);
  }
  /** Tiles that any of these pieces needs, by their places. */
  tilesFor(pieces: readonly Area[]): number[] {
    const found = new Set<number>(),
      across = Math.ceil(this.width / TILE),
      down = Math.ceil(this.height / TILE);
    for (const p of pieces) {
      const about = (from: number, long: number, most: number): [number, number] => [
        Math.max(0, Math.floor(from / TILE) - NEAR),
        Math.min(most, Math.ceil((from + long) / TILE) + NEAR),
      ];
      const [left, right] = about(p.x, p.width, across),
        [top, bottom] = about(p.y, p.height, down);
      for (let v = top; v < bottom; v++)
        for (let u = left; u < right; u++) {
          const i = v * across + u;
          if (!found.has(i) && this.needs(p, this.tiles[i]!)) found.add(i);
        }
    }
    return [...found].sort((a, b) => a - b);
  }
  /** The place of the first tile that a row of pieces needs: those before it go once the rows before are done. */
  firstFor(row: number): number {
    return row < this.rows.length ? this.tilesFor(this.rows[row]!)[0]! : this.tiles.length;
  }

  private areas(edge: number): Area[] {
    const out: Area[] = [];
    for (let y = 0; y < this.height; y += edge)
      for (let x = 0; x < this.width; x += edge)
        out.push({ x, y, width: Math.min(edge, this.width - x), height: Math.min(edge, this.height - y) });
    return out;
  }
}

/** A finished piece: its light, and what the eye met in it where that is `drawn` by. @param film – with what counts for it, which is let go of @param camera – null to leave the noise in */
export function* pieceSteps(film: Film, camera: TraceCamera | null, piece: Area, drawn: boolean): Steps<LightTile> {
  const light = camera ? yield* calmed(film, camera, piece) : lightOf(film);
  return partOf(drawn ? guided(light, film) : light, piece, drawn);
}

function* calmed(film: Film, camera: TraceCamera, piece: Area): Steps<FilmLight> {
  const steps = denoiseSteps(film, camera, piece);
  // By the first of them everything is taken over.
  const first = steps.next();
  for (const [i, t] of film.tiles.entries()) if (t && !meets(t, piece)) film.tiles[i] = null;
  return first.done ? first.value : yield* steps;
}

/** The least area of a picture that holds all that is covered in these pieces; null where nothing is. */
export function coveredArea(pieces: readonly Pick<LightTile, keyof Area | 'cover'>[]): Area | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -1, -1];
  for (const { x, y, width, cover } of pieces)
    for (let i = 0; i < cover.length; i++) {
      if (cover[i]! === 0) continue;
      const u = x + (i % width),
        v = y + Math.floor(i / width);
      left = Math.min(left, u);
      right = Math.max(right, u);
      top = Math.min(top, v);
      bottom = Math.max(bottom, v);
    }
  return right < 0 ? null : { x: left, y: top, width: right + 1 - left, height: bottom + 1 - top };
}

/** Squares of all pieces as those of the whole picture. */
export function joinedSquares(parts: readonly (readonly [Area, Coarse])[], width: number, height: number): Coarse {
  const step = parts[0]![1].step,
    wide = Math.ceil(width / step),
    high = Math.ceil(height / step);
  const light = new Float32Array(wide * high * 3);
  for (const [{ x, y }, part] of parts)
    for (let v = 0; v < part.height; v++)
      light.set(
        part.light.subarray(v * part.width * 3, (v + 1) * part.width * 3),
        ((y / step + v) * wide + x / step) * 3,
      );
  return { step, width: wide, height: high, light };
}

import type { Output } from '@sphalerite/core/model';
import { type Film, neededSamples } from '@sphalerite/core/render';
import { PIECE, isLarge } from '@sphalerite/core/takes';
import { say } from '../../words';
import { sizeText } from '../files/exporting';

/** How long a picture took, in seconds, and what is told by it. */
export interface Pace {
  readonly film: Film;
  readonly traced: number;
  readonly calmed: number;
}

/** Bytes a pixel: of a film with what is shown of it, of a traced tile, of a finished piece. */
const FILM = 80,
  TILE_BYTES = 72,
  PIECE_BYTES = 16;

/** What a picture will take, as another of the same shot tells it: "about 40 s, 74 MB of memory". @param count – of such pictures */
export function costOf({ film, traced, calmed }: Pace, output: Output, count = 1): string {
  const [width, height] = output.size,
    pixels = width * height,
    drafted = film.width * film.height,
    samples = film.tiles.reduce((n, t) => n + (t ? t.samples * t.width * t.height : 0), 0) / drafted;
  const each = (traced / samples) * neededSamples(film, output) + (output.denoise ? calmed : 0);
  const seconds = count * each * (pixels / drafted);
  const time = seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : minutes(seconds);
  if (!isLarge(output)) return say('picture.cost', { time, size: sizeText(pixels * FILM) });
  const disk = pixels * PIECE_BYTES + width * (PIECE + 384) * TILE_BYTES;
  return say('picture.largeCost', { time, size: sizeText(disk) });
}
function minutes(seconds: number): string {
  const m = Math.round(seconds / 60);
  return m < 90 ? `${m} min` : `${Math.floor(m / 60)} h ${m % 60} min`;
}

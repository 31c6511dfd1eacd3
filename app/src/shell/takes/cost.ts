import type { Output } from '@sphalerite/core/model';
import { type Film, neededSamples } from '@sphalerite/core/render';
import { PIECE, isLarge } from '@sphalerite/core/takes';
import { say } from '../../words';
import type { Picture } from './picture-growth';
import { sizeText } from '../files/exporting';

/** How long a picture took, in seconds, and what is told by it. */
export interface Pace {
  readonly pixels: number;
  /** Samples a pixel that it has, in the mean. */
  readonly samples: number;
  readonly traced: number;
  readonly calmed: number;
  /** Samples a pixel that it would have with other wishes. */
  needs(wishes: Output): number;
}

function had({ width, height, tiles }: Film): Pick<Pace, 'pixels' | 'samples'> {
  const pixels = width * height;
  return { pixels, samples: tiles.reduce((n, t) => n + (t ? t.samples * t.width * t.height : 0), 0) / pixels };
}

/** Of a draft: how noisy its few samples are tells how many it needs. */
export const paceOfDraft = (film: Film, traced: number, calmed: number): Pace => ({
  ...{ ...had(film), traced, calmed },
  needs: (wishes) => neededSamples(film, wishes),
});

/** Of a picture that is done: noise falls with the root of the samples. */
export function paceOfPicture({ film, shot, seconds, calmed }: Picture): Pace {
  const before = shot.output.noise,
    own = had(film);
  return {
    ...{ ...own, traced: seconds, calmed },
    needs: ({ samples, noise }) =>
      noise === 0 || before === 0 ? samples : Math.min(samples, own.samples * (before / noise) ** 2),
  };
}

/** Bytes a pixel: of a film with what is shown of it, of a traced tile, of a finished piece. */
const FILM = 80,
  TILE_BYTES = 72,
  PIECE_BYTES = 16;

/** What a picture will take, as another of the same shot tells it: "about 40 s, 74 MB of memory". @param count – of such pictures */
export function costOf(pace: Pace, output: Output, count = 1): string {
  const [width, height] = output.size,
    pixels = width * height;
  const each = (pace.traced / pace.samples) * pace.needs(output) + (output.denoise ? pace.calmed : 0);
  const seconds = count * each * (pixels / pace.pixels);
  const time = seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : minutes(seconds);
  if (!isLarge(output)) return say('picture.cost', { time, size: sizeText(pixels * FILM) });
  const disk = pixels * PIECE_BYTES + width * (PIECE + 384) * TILE_BYTES;
  return say('picture.largeCost', { time, size: sizeText(disk) });
}
function minutes(seconds: number): string {
  const m = Math.round(seconds / 60);
  return m < 90 ? `${m} min` : `${Math.floor(m / 60)} h ${m % 60} min`;
}

import * as z from 'zod';
import { developDeepSteps, developSteps, isDrawn } from '../../../render';
import { THUMBNAIL_EDGE, coveredBox, cutOut, squareOf } from '../../../takes';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import { encodeDeepPng, encodePng } from '../../png';

interface Options {
  readonly deep: boolean;
  readonly cut: boolean;
  readonly thumbnail: boolean;
}

/** A traced picture. */
export const pngExporter: Exporter<'picture', Options> = {
  id: 'png',
  name: 'Picture, PNG',
  noun: 'picture as PNG',
  about: 'PNG, as it was traced',
  takes: 'picture',
  extensions: ['.png'],
  type: 'image/png',
  options: z.strictObject({
    deep: z
      .boolean()
      .default(false)
      .meta({ title: '16 bits', description: '65,536 steps from dark to bright, for grading elsewhere' }),
    cut: z
      .boolean()
      .default(false)
      .meta({ title: 'Cut out', description: 'cut to what is in it, where it is see-through' }),
    thumbnail: z
      .boolean()
      .default(false)
      .meta({ title: 'Thumbnail', description: `the square in its middle, ${THUMBNAIL_EDGE} pixels wide` }),
  }),
  plan: ({ film }) => ({ counts: { width: film.width, height: film.height }, notes: [] }),
  async write({ name, film: whole, grade, transparent }, { deep, cut, thumbnail }, job) {
    const film = thumbnail ? squareOf(whole, THUMBNAIL_EDGE, isDrawn(grade)) : whole,
      { width, height } = film,
      how = { grade, transparent };
    if (deep) {
      const bytes = encodeDeepPng(width, height, await inPieces(developDeepSteps(film, how), job));
      return { files: [{ name: `${fileName(name)}.png`, bytes }], notes: [] };
    }
    const picture = { width, height, rgba: await inPieces(developSteps(film, how), job) };
    const made = cut ? cutOut(picture, coveredBox(picture)) : picture;
    const bytes = encodePng(made.width, made.height, made.rgba) as Uint8Array<ArrayBuffer>;
    return { files: [{ name: `${fileName(name)}.png`, bytes }], notes: [] };
  },
};

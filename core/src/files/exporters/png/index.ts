import * as z from 'zod';
import { developDeepSteps, developSteps } from '../../../render';
import { coveredBox, cutOut } from '../../../takes';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import { encodeDeepPng, encodePng } from '../../png';

interface Options {
  readonly deep: boolean;
  readonly cut: boolean;
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
  }),
  plan: ({ film }) => ({ counts: { width: film.width, height: film.height }, notes: [] }),
  async write({ name, film, grade, transparent }, { deep, cut }, job) {
    const { width, height } = film,
      how = { grade, transparent };
    if (deep) {
      const bytes = encodeDeepPng(width, height, await inPieces(developDeepSteps(film, how), job));
      return { files: [{ name: `${fileName(name)}.png`, bytes }], notes: [] };
    }
    const whole = { width, height, rgba: await inPieces(developSteps(film, how), job) };
    const made = cut ? cutOut(whole, coveredBox(whole)) : whole;
    const bytes = encodePng(made.width, made.height, made.rgba) as Uint8Array<ArrayBuffer>;
    return { files: [{ name: `${fileName(name)}.png`, bytes }], notes: [] };
  },
};
